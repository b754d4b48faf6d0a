"""A short form of what the benchmark asks at length: odd requests, random designs, kills."""

from __future__ import annotations

import random
from pathlib import Path

import pytest

from bench.fuzz import Asker, failures
from bench.fuzz_designs import faults_of, random_design
from bench.kills import kills
from heathrise.core.catalogue import Catalogue
from heathrise.core.design import Design
from heathrise.store import Repository, connect
from heathrise.store.migrate import migrate
from heathrise.web.app import create_app
from heathrise.web.demo import load_demo
from ops.database import Database

from ..thorough import count


def test_no_odd_request_is_the_server_s_failing(database: Database, catalogue: Catalogue) -> None:
    engine = connect(database.create("fuzz", fresh=True))
    migrate(engine)
    repository = Repository(engine, catalogue)
    load_demo(repository)
    asker = Asker(create_app(repository), repository, 29)
    assert list(failures(asker, count(250, 120))) == []
    # It asks what can be answered as well as what cannot.
    assert asker.answered[200] > 20 and asker.answered[422] > 20
    engine.dispose()


@pytest.mark.parametrize("seed", [4])
def test_a_random_design_goes_through_every_question_export_and_paper(
    seed: int, repository: Repository, catalogue: Catalogue
) -> None:
    client = create_app(repository).test_client()
    design = random_design(random.Random(seed), catalogue)
    assert list(faults_of(repository, client, design)) == []


def test_what_was_acknowledged_outlives_kills(tmp_path: Path) -> None:
    assert kills(count(3, 1), tmp_path / "db") == []


def test_nothing_unseen_comes_in_by_any_door(repository: Repository, home: Design) -> None:
    """A vertical tab, a half of a pair, a line end: in names, and in what was there before."""
    client = create_app(repository).test_client()
    project = repository.create("Plain", home, "me", "made").id
    floor = next(iter(home.tables["floor"].values()))
    renamed = {**floor.model_dump(mode="json"), "name": "Up\x0bper\ud800\nfloor\u2028"}
    edit = {"revision": 1, "label": "x", "changes": [{"op": "put", "kind": "floor", "element": renamed}]}
    assert client.post(f"/api/projects/{project}/changes", json=edit).status_code == 200
    rows = client.get(f"/api/projects/{project}").get_json()["elements"]["floor"]
    assert {r["id"]: r["name"] for r in rows}[floor.id] == "Upper floor"
    assert client.patch(f"/api/projects/{project}", json={"name": "A\x00b\x1fc"}).status_code == 200
    assert client.get(f"/api/projects/{project}").get_json()["name"] == "Abc"
    for what in (f"sheets/{floor.id}.svg", "export/order.xlsx", "export/cables.csv"):
        assert client.get(f"/api/projects/{project}/{what}").status_code == 200
