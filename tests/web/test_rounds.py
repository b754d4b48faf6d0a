"""Rounds of practice: on a copy, against the clock, and told afterwards what was missed."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import pytest
from flask.testing import FlaskClient

from bench.bring_ups import Installer
from heathrise.controller.service import Controllers
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.demo import music_school
from heathrise.standins.controller.app import Sites
from heathrise.standins.controller.gear import FAULTS
from heathrise.store import Repository
from heathrise.web.app import create_app


@dataclass
class Practising:
    client: FlaskClient
    base: str
    sites: Sites
    id: str

    def ask(self, method: str, path: str, body: object = None, status: int = 200) -> Any:
        answer = self.client.open(f"/api/projects/{path}", method=method, json=body)
        assert answer.status_code == status, answer.json
        return answer.json

    def begin(self, faults: int, seed: int = 3) -> str:
        said = {"trainee": "Ann", "faults": faults, "seed": seed}
        return str(self.ask("POST", f"{self.id}/rounds", said, 201)["project"])

    def round(self, project: str) -> Any:
        return self.ask("GET", f"{project}/round")["round"]


@pytest.fixture
def school(repository: Repository, served: tuple[str, Sites]) -> Iterator[Practising]:
    base, sites = served
    saved = repository.create("Larkmere", music_school(), "me", "begin")
    with create_app(repository, controllers=Controllers(base, standin=True)).test_client() as client:
        yield Practising(client, base, sites, saved.id)


def test_a_round_leaves_the_project_alone_and_tells_what_was_missed(school: Practising) -> None:
    assert school.round(school.id) is None
    fresh = school.begin(faults=4)
    assert fresh != school.id and school.round(school.id) is None
    begun = school.round(fresh)
    assert (begun["trainee"], begun["faults"], begun["used_s"], begun["debrief"]) == ("Ann", 4, 0, None)
    assert begun["allowed_s"] > begun["par_s"] > 200
    with pytest.raises(AssertionError):
        school.ask("POST", f"{school.id}/round/end")  # no round
    # He presses the wrong thing first, then does what the list says, and ticks nothing.
    serial = begun["labels"]["sw-1"]
    school.ask("POST", f"{fresh}/controller/gear/{serial}/adopt", status=409)
    place = Controllers(school.base, standin=True)
    plan = Plan(music_school(), load_catalogue())
    Installer(plan, fresh, place, school.sites).work()
    more = school.ask("POST", f"{fresh}/rounds", {"faults": 0}, 201)["project"]
    assert school.round(more)["project"] == school.id, "a round of a round is one of the project"
    school.ask("PUT", f"{fresh}/controller/standin", {"faults": 0, "afresh": True}, 422)  # no second begin
    told = school.ask("POST", f"{fresh}/round/end")["round"]["debrief"]
    missed = {m["what"] for m in told["missed"]}
    assert "Once refused: the controller is older than the device: update the controller first" in missed
    assert any(
        m.startswith("Controller, account, second factor: 4 of 4 left: The controller is") for m in missed
    )
    assert any(m.startswith("Baseline of speed: ") for m in missed)
    assert any(m.startswith("Walk test: 1 of 1 left") for m in missed)
    assert not [m for m in missed if m.startswith(("Adopt", "Update the gear", "Radio plan"))]
    assert all(m["why"] for m in told["missed"])
    assert len(told["faults"]) == 4 and all(f["mended"] and f["lesson"] for f in told["faults"])
    assert {f["fault"] for f in told["faults"]} <= set(FAULTS.values())
    assert told["used_s"] == school.sites.of(fresh).state.now_s >= told["par_s"] == begun["par_s"]
    devices = {u["device"] for u in told["under"]}
    assert "The controller" in devices and len(devices) == len(begun["labels"]) + 1
    # What was told stays, whatever becomes of the site.
    place.forget(fresh)
    assert school.ask("POST", f"{fresh}/round/end")["round"]["debrief"] == told
    assert school.round(fresh)["debrief"] == told and school.round(fresh)["labels"] == {}


def test_the_meter_goes_round_in_the_time_of_the_site(school: Practising) -> None:
    fresh = school.begin(faults=0)
    before = school.round(fresh)
    step = school.ask("GET", f"{fresh}/controller/bring-up")["steps"][11]
    assert {i["state"] for i in step["items"]} == {"ready"}
    after = school.ask("POST", f"{fresh}/round/measure")["round"]
    assert after["used_s"] - before["used_s"] == 20 * len(step["items"])
    items = school.ask("GET", f"{fresh}/controller/bring-up")["steps"][11]["items"]
    assert {i["state"] for i in items} == {"done"}
    speeds = {r["where"]: r for r in school.ask("GET", f"{fresh}/speeds")["speeds"]}
    assert all(0 < r["baseline"]["down_mbps"] <= max(0.1, r["planned_mbps"]) for r in speeds.values())
    assert school.ask("POST", f"{fresh}/round/measure")["round"]["used_s"] == after["used_s"], (
        "all are measured"
    )
    school.ask("POST", f"{school.id}/round/measure", status=422)


def test_a_round_that_is_left_is_late_and_names_every_device(school: Practising) -> None:
    fresh = school.begin(faults=8, seed=11)
    too_long = school.round(fresh)["allowed_s"] + 1
    with school.sites.lock:
        school.sites.of(fresh).advance(too_long)
    told = school.ask("POST", f"{fresh}/round/end")["round"]["debrief"]
    assert any(m["what"].startswith("Late: ") for m in told["missed"])
    assert told["under"] == [] and told["idle_s"] == 0 and told["done"] < told["of"]
    assert not [f for f in told["faults"] if f["mended"]]
    left = {m["step"] for m in told["missed"] if m["step"]}
    assert left >= {1, 2, 3, 6, 7, 8, 9, 12, 13, 14}


def test_without_a_stand_in_nothing_is_begun(repository: Repository) -> None:
    saved = repository.create("Larkmere", music_school(), "me", "begin")
    with create_app(repository).test_client() as client:
        before = len(client.get("/api/projects").json["projects"])  # type: ignore[index]
        answer = client.post(f"/api/projects/{saved.id}/rounds", json={})
        assert answer.status_code == 422 and "a round wants a stand-in" in str(answer.json)
        assert len(client.get("/api/projects").json["projects"]) == before  # type: ignore[index]
