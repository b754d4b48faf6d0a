"""Practice profiles over the wire: the firm's own are kept, a project goes by a copy of one."""

from __future__ import annotations

import json
from collections.abc import Iterator
from typing import Any

import pytest
from flask.testing import FlaskClient
from sqlalchemy import insert

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Practice, WirelessName
from heathrise.core.views.practice import profile_changes
from heathrise.formats.project_file import Project, dump_project, load_project
from heathrise.store import Repository
from heathrise.store.practices import MOST_PRACTICES
from heathrise.store.tables import firm_practice
from heathrise.web.app import create_app


@pytest.fixture
def client(repository: Repository) -> Iterator[FlaskClient]:
    with create_app(repository).test_client() as made:
        yield made


def _ours(**more: Any) -> dict[str, Any]:
    choices = [{"matter": "cables", "school": "two", "value": 3, "reason": "lofts are cramped"}]
    return {"id": "lofts", "name": "Lofts", "choices": choices, **more}


def test_a_firm_keeps_profiles_of_its_own_and_those_that_ship_stay(client: FlaskClient) -> None:
    before = client.get("/api/firm/practices").json
    assert [p["id"] for p in before["shipped"]] == ["planned", "light"] and "width" in before["matters"]
    kept = client.put("/api/firm/practices/lofts", json=_ours()).json
    assert [p["name"] for p in kept["own"]] == ["Lofts"]
    again = client.put("/api/firm/practices/lofts", json=_ours(name="Lofts, new")).json
    assert [p["name"] for p in again["own"]] == ["Lofts, new"]
    assert client.get("/api/firm/practices").json == again
    for key, body, words in (
        ("planned", _ours(id="planned"), "is the id of a profile that ships"),
        ("other", _ours(), "the same as in the address"),
        ("lofts", _ours(choices=[{"matter": "tea", "school": "on"}]), "there is no matter"),
    ):
        refused = client.put(f"/api/firm/practices/{key}", json=body)
        assert refused.status_code == 422 and words in json.dumps(refused.json), words
    assert client.delete("/api/firm/practices/lofts").json["own"] == []
    assert client.delete("/api/firm/practices/lofts").status_code == 404


def test_one_too_many_is_refused_and_one_that_cannot_be_any_more_is_left_out(
    client: FlaskClient, repository: Repository, caplog: pytest.LogCaptureFixture
) -> None:
    with repository.engine.begin() as connection:
        said = {"name": "Old", "choices": [{"matter": "gone", "school": "x"}]}
        connection.execute(insert(firm_practice).values(id="old", said=said))
    assert client.get("/api/firm/practices").json["own"] == [] and "old is left out" in caplog.text
    for k in range(MOST_PRACTICES):
        assert client.put(f"/api/firm/practices/p{k}", json=_ours(id=f"p{k}")).status_code == 200
    refused = client.put("/api/firm/practices/more", json=_ours(id="more"))
    assert refused.status_code == 422 and f"at most {MOST_PRACTICES}" in json.dumps(refused.json)
    for k in ["old", *(f"p{k}" for k in range(MOST_PRACTICES))]:
        client.delete(f"/api/firm/practices/{k}")


def test_a_project_goes_by_a_profile_and_a_school_of_its_own(
    client: FlaskClient, repository: Repository, school: Design, catalogue: Catalogue
) -> None:
    saved = repository.create("Practised", school, "me", "begin")
    plan = Plan(school, catalogue)
    ours = Practice.model_validate(_ours())
    body = {
        "label": "Practice",
        "revision": saved.revision,
        "changes": [c.model_dump() for c in profile_changes(plan, ours)],
    }
    url = f"/api/projects/{saved.id}"
    assert client.post(f"{url}/changes", json=body).status_code == 200
    view = client.get(f"{url}/practice").json
    (cables,) = [r for r in view["rows"] if r["matter"] == "cables"]
    assert view["name"] == "Lofts" and cables["value"] == 3 and cables["reason"] == "lofts are cramped"
    wide = client.get(f"{url}/school?matter=width&school=80").json["changes"]
    assert wide[0]["element"]["width_5ghz_mhz"] == 80
    refused = client.get(f"{url}/school?matter=width&school=160")
    assert refused.status_code == 422 and "there is no school" in json.dumps(refused.json)
    held = client.get(f"{url}/settings").json
    assert held["practice"] == "Lofts" and sum(held["by"].values()) == len(held["settings"])
    # It is in the project's file, whatever the firm does with its own.
    file = client.get(f"{url}/export/project.json").data
    opened = load_project(file, catalogue).design
    assert opened.of(Practice)["practice"].choices == ours.choices


def test_a_file_of_before_has_fast_transition_by_its_network_s_purpose(
    catalogue: Catalogue, school: Design
) -> None:
    names = list(school.of(WirelessName).values())
    document = json.loads(dump_project(Project("Old", school)))
    document["version"] = 11
    for row in document["elements"]["wireless_name"]:
        row["fast_transition"] = True
    document["elements"]["wireless_name"][0]["fast_transition"] = False
    opened = load_project(json.dumps(document), catalogue).design.of(WirelessName)
    purposes = {n["id"]: n["purpose"] for n in document["elements"]["network"]}
    for number, name in enumerate(names):
        said = number != 0
        usual = purposes[name.network] != "devices"
        assert opened[name.id].fast_transition == (None if said is usual else said)
