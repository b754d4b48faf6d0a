"""Far places over the wire: asked for, taken, told where they cannot be, and kept."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from flask.testing import FlaskClient
from sqlalchemy import text

from heathrise.core.context.plan import Plan
from heathrise.core.design import FarPoint, put
from heathrise.core.views.far_ways import far_ways
from heathrise.demo import hill_farm
from heathrise.store import Repository
from heathrise.store.prices import FirmPrices
from heathrise.web.app import create_app


@pytest.fixture
def client(repository: Repository) -> Iterator[FlaskClient]:
    with create_app(repository).test_client() as made:
        yield made


@pytest.fixture
def farm(repository: Repository) -> str:
    return repository.create("Farm", hill_farm(), "Ann", "made").id


def test_every_way_goes_over_the_wire_as_the_core_has_it(
    client: FlaskClient, farm: str, repository: Repository
) -> None:
    said = client.get(f"/api/projects/{farm}/far/ways?point=far-mast").get_json()
    prices = FirmPrices(repository.engine).all()  # whatever other tests said of them
    plain = far_ways(Plan(hill_farm(), repository.catalogue, prices), "far-mast")
    assert [w["id"] for w in said["ways"]] == [w.id for w in plain.ways]
    assert [w["cost"]["total"] for w in said["ways"]] == [w.cost.total for w in plain.ways]
    land = client.get(f"/api/projects/{farm}/far/land").get_json()
    assert len(land["rows"]) == 6 and land["cells_total"] > 0


@pytest.mark.parametrize(
    ("point", "words"), [("nowhere", "no far place"), ("", "at least 1"), ("x" * 200, "at most")]
)
def test_a_place_that_is_none_is_told(client: FlaskClient, farm: str, point: str, words: str) -> None:
    said = client.get(f"/api/projects/{farm}/far/ways?point={point}")
    assert said.status_code == 422 and words in str(said.get_json())


def test_a_way_that_is_taken_is_priced_kept_and_undone(
    client: FlaskClient, farm: str, repository: Repository
) -> None:
    def price() -> float:
        return float(client.get(f"/api/projects/{farm}/evaluation").get_json()["evaluation"]["price"]["net"])

    def save(revision: int, point: FarPoint) -> int:
        change = put(point).model_dump()
        body = {"revision": revision, "label": "Way", "changes": [change]}
        return client.post(f"/api/projects/{farm}/changes", json=body).status_code

    gate, before = hill_farm().of(FarPoint)["far-gate"], price()
    assert save(1, gate.model_copy(update={"way": "fibre-cable"})) == 200
    assert repository.load(farm).design.of(FarPoint)["far-gate"].way == "fibre-cable"
    ways = client.get(f"/api/projects/{farm}/far/ways?point=far-gate").get_json()["ways"]
    once = next(w["cost"]["once"] for w in ways if w["id"] == "fibre-cable")
    # Days on site, travel and clearing up come on top, and nothing else.
    more = price() - before
    rules = repository.catalogue.rules
    days = round((more - once) / (rules["order.travel_per_visit"] + rules["order.clean_minutes"] * 58 / 60))
    a_day = rules["order.travel_per_visit"] + rules["order.clean_minutes"] * rules["order.rate_per_hour"] / 60
    assert days > 0 and more == pytest.approx(once + days * a_day, abs=0.5)
    assert save(2, gate) == 200 and price() == pytest.approx(before)
    assert save(3, gate.model_copy(update={"way": "a tunnel"})) == 422


def test_a_place_of_before_has_no_way(repository: Repository, farm: str) -> None:
    with repository.engine.connect() as connection:
        ways = connection.scalars(text("select way from far_point where project_id = :p"), {"p": farm})
        assert set(ways) == {""}
