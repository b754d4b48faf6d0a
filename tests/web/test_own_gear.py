"""The firm's own gear over the API: kept, planned with, withdrawn where a plan has it, in and out as a table."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from flask.testing import FlaskClient

from heathrise.core.design import Switch, apply, put
from heathrise.formats.gear_table import gear_from
from heathrise.formats.project_file import Project, dump_project
from heathrise.store import Repository
from heathrise.web.app import create_app

from ..core.plans import design_of, rack, shell

VALUES = {"label": "Brindle 8 switch", "price": "210", "groups": "8 x 1000 class 4", "budget_w": "120"}


@pytest.fixture
def client(repository: Repository) -> Iterator[FlaskClient]:
    with create_app(repository).test_client() as made:
        yield made
    for gear in repository.gear.all():
        repository.remove_gear(gear.id)


def _rows(client: FlaskClient) -> dict[str, dict[str, object]]:
    return {r["id"]: r for r in client.get("/api/firm/gear").json["rows"]}


def test_gear_is_kept_chosen_and_withdrawn_where_a_plan_has_it(
    client: FlaskClient, repository: Repository
) -> None:
    said = {"shelf": "switches", "values": {**VALUES, "label": f"Brindle {id(client)}"}}
    key = client.put("/api/firm/gear", json=said).json["rows"][-1]["id"]
    key = next(k for k in _rows(client) if k.endswith(str(id(client))) or k == key)
    assert key in client.get("/api/catalogue").json["switches"]
    other = Repository(repository.engine, repository._shipped)
    assert other.catalogue.switches[key].budget_w == 120  # another process finds it in the database
    sw = Switch(id="sw", equipment_room="rack", name="SW-1", model=key)
    saved = repository.create("Hut", design_of(*shell(), rack(2, 2), sw), "test", "made")
    assert _rows(client)[key]["used"] == 1
    client.delete(f"/api/firm/gear/{key}")
    assert _rows(client)[key]["withdrawn"]
    assert repository.load(saved.id).design.of(Switch)["sw"].model == key
    # Changed, the plans that have it are worked out with it.
    changed = {**said, "id": key, "values": {**said["values"], "budget_w": "60"}}
    assert client.put("/api/firm/gear", json=changed).status_code == 200
    budget = client.get(f"/api/projects/{saved.id}/evaluation").json["evaluation"]["power"]["switches"][0]
    assert budget["budget_w"] == 60
    # What no plan has or had goes for good.
    unused = client.put("/api/firm/gear", json={**said, "values": {**VALUES, "label": "Never used"}})
    assert "own-never-used" in {r["id"] for r in unused.json["rows"]}
    client.delete("/api/firm/gear/own-never-used")
    assert "own-never-used" not in _rows(client)
    assert client.delete("/api/firm/gear/own-never-used").status_code == 422


def test_what_cannot_be_is_refused_at_its_field(client: FlaskClient) -> None:
    bad = {"shelf": "switches", "values": {**VALUES, "budget_w": "0", "label": "No watts"}}
    answer = client.put("/api/firm/gear", json=bad)
    assert answer.status_code == 422
    assert answer.json["problems"][0]["where"] == "budget_w"
    assert "own-no-watts" not in _rows(client)
    shipped = client.put("/api/firm/gear", json={"shelf": "switches", "id": "dunthrip-s8", "values": VALUES})
    assert shipped.status_code == 422 and "is taken" in shipped.json["problems"][0]["what"]


def test_a_table_is_offered_before_it_is_taken(client: FlaskClient) -> None:
    text = (
        "shelf,label,groups,budget_w,price\nswitches,Kestle A,4 x 1000 class 4,60,90\nswitches,Kestle B,,,1\n"
    )
    answer = client.post("/api/firm/gear", data=text.encode()).json
    assert (answer["read"], answer["taken"], len(answer["faults"])) == (1, False, 1)
    assert "own-kestle-a" not in _rows(client)
    assert client.post("/api/firm/gear?take=1", data=text.encode()).json["taken"]
    assert _rows(client)["own-kestle-a"]["values"]["budget_w"] == "60"
    table = client.get("/api/firm/gear.csv").data
    assert b"own-kestle-a" in table and client.post("/api/firm/gear", data=table).json["taken"]


def test_a_file_brings_its_gear_along(client: FlaskClient, repository: Repository) -> None:
    gear = gear_from(repository.catalogue, "switches", {**VALUES, "label": "From elsewhere"})
    design = apply(
        design_of(*shell(), rack(2, 2)),
        [put(Switch(id="sw", equipment_room="rack", name="SW-1", model=gear.id))],
    )
    opened = client.post("/api/import/project", data=dump_project(Project("Hut", design, (gear,))))
    assert opened.status_code == 201
    row = _rows(client)[gear.id]
    assert row["withdrawn"] and row["used"] == 1  # it stays with its plan until the firm offers it


def test_gear_whose_name_is_shipped_by_now_is_left_out(client: FlaskClient, repository: Repository) -> None:
    good = gear_from(repository.catalogue, "switches", {**VALUES, "label": "Still good"})
    taken = good.model_copy(update={"entry": {**good.entry, "id": "dunthrip-s8", "budget_w": 1.0}})
    repository.gear.put([taken, good])  # as a version of before, which knew no such switch, kept it
    other = Repository(repository.engine, repository._shipped).catalogue
    assert other.switches["dunthrip-s8"].budget_w == 70 and good.id in other.switches
    repository.gear.remove("dunthrip-s8")
