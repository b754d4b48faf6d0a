"""A site's controller over the wire: read, matched, pushed as a job, undone, taken over, kept."""

from __future__ import annotations

import json
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from typing import Any

import pytest
from flask.testing import FlaskClient

from heathrise.controller.service import Controllers
from heathrise.core.records import PushedStep
from heathrise.demo import terrace_house
from heathrise.standins.controller.app import Sites
from heathrise.standins.controller.planting import serial_of
from heathrise.store import Repository
from heathrise.store.jobs import AlreadyRunning, Jobs
from heathrise.store.records import Records
from heathrise.web.app import create_app


@dataclass
class Job:
    """A project with its gear plugged in, and what is asked of it."""

    client: FlaskClient
    sites: Sites
    id: str
    revision: int

    def ask(self, method: str, path: str, body: object = None, status: int = 200) -> Any:
        answer = self.client.open(f"/api/projects/{self.id}/controller{path}", method=method, json=body)
        assert answer.status_code == status, answer.json
        return answer.json

    def wait(self, seconds: float) -> None:
        with self.sites.lock:
            self.sites.of(self.id).advance(seconds)

    def push(self, **asked: Any) -> dict[str, Any]:
        body = {"kind": "push", "arguments": asked}
        job = self.client.post(f"/api/projects/{self.id}/jobs", json=body).json
        until = time.monotonic() + 120
        while job["state"] == "running":
            assert time.monotonic() < until
            self.wait(5)
            time.sleep(0.02)
            job = self.client.get(f"/api/jobs/{job['id']}").json
        return dict(job)


@pytest.fixture
def job(repository: Repository, served: tuple[str, Sites]) -> Iterator[Job]:
    """The terrace house, its gear adopted."""
    base, sites = served
    saved = repository.create("Terrace", terrace_house(), "me", "begin")
    place = Controllers(base, standin=True)
    with create_app(repository, controllers=place).test_client() as client:
        found = Job(client, sites, saved.id, saved.revision)
        found.ask("PUT", "/standin", {"faults": 0, "seed": 1, "afresh": True})
        for _ in range(2):
            found.ask("POST", "/update")
            found.wait(90)
        while ready := [d["serial"] for d in found.ask("GET", "")["devices"] if d["stand"] == "found"]:
            for serial in ready:
                found.ask("POST", f"/gear/{serial}/adopt")
            found.wait(60)
        yield found
        place.forget(saved.id)


def test_without_a_controller_it_is_said_and_nothing_fails(repository: Repository) -> None:
    saved = repository.create("Alone", terrace_house(), "me", "begin")
    with create_app(repository).test_client() as client:
        view = client.get(f"/api/projects/{saved.id}/controller").json
        assert not view["known"] and "start the program with the address of one" in view["trouble"]
        for path in ("read", "update", "gear/X/adopt"):
            refused = client.post(f"/api/projects/{saved.id}/controller/{path}")
            assert refused.status_code == 424 and "no controller is known" in refused.json["message"]
        assert client.put(f"/api/projects/{saved.id}/controller/standin", json={}).status_code == 422
        assert client.get("/api/projects/p-none/controller").status_code == 404
    away = Controllers("http://127.0.0.1:9", seconds=0.5)
    with create_app(repository, controllers=away).test_client() as client:
        view = client.get(f"/api/projects/{saved.id}/controller").json
        assert view["known"] and view["trouble"] and view["devices"] == []


def test_a_push_is_a_job_noted_step_by_step_and_undone(job: Job, repository: Repository) -> None:
    view = job.ask("GET", "")
    assert view["differs"] and view["steps"] and not view["pushes"]
    ended = job.push()
    assert ended["state"] == "done" and ended["result"]["wrong"] == [], ended
    after = job.ask("POST", "/read", status=201)
    assert after["differs"] == [] and after["read_at"] and after["pushes"][0]["done"] == ended["result"]["of"]
    noted = Records(repository.engine).of(job.id, PushedStep)
    assert [s.outcome for s in noted] == ["done"] * ended["result"]["of"]
    assert "everything is as it shall be" in job.push()["message"]
    assert not any(d["sent"] for d in view["differs"])
    with job.sites.lock:  # what was held once and is no more is drift, not something never sent
        job.sites.of(job.id).send("network/net-main", {"vlan": None})
    assert [(d["key"], d["held"], d["sent"]) for d in job.ask("GET", "")["differs"]] == [
        ("vlan", "none", True)
    ]
    undone = job.push(undo=ended["result"]["push"])
    assert undone["state"] == "done" and not undone["result"]["wrong"], undone
    back = job.ask("GET", "")
    assert len(back["differs"]) == len(view["differs"])
    assert "nothing of that push was sent" in job.push(undo="push-none")["message"]


def test_drift_has_a_since_and_is_taken_over_or_put_back(job: Job) -> None:
    job.push()
    site = job.sites.of(job.id)
    with job.sites.lock:
        site.send("network/net-guest", {"vlan": 77})
        site.send("network/net-main", {"lease_hours": 1})
        site.send("network/net-main", {"vlan": 9_999})  # what no plan can have
    view = job.ask("GET", "")
    assert {(d["key"], d["held"], d["since"]) for d in view["differs"]} == {
        ("vlan", "77", None),
        ("lease_hours", "1", None),
        ("vlan", "9999", None),
    }
    assert {d["held"] for d in view["differs"] if not d["takes"]} == {"9999"}
    assert job.push(target="network/net-main", key="vlan")["state"] == "done"
    first = job.ask("POST", "/read", status=201)["differs"][0]["since"]
    assert first and job.ask("POST", "/read", status=201)["differs"][0]["since"] == first
    changes = job.ask("POST", "/take-over", {"target": "network/net-guest", "key": "vlan"})["changes"]
    assert changes[0]["element"]["vlan"] == 77
    body = {"label": "Taken over", "revision": job.revision, "changes": changes}
    assert job.client.post(f"/api/projects/{job.id}/changes", json=body).status_code == 200
    assert job.push(target="network/net-main", key="lease_hours")["state"] == "done"
    left = job.ask("GET", "")["differs"]
    assert not [d for d in left if d["target"] == "network/net-main"], left
    refused = job.ask("POST", "/take-over", {"target": "network/net-main", "key": "lease_hours"}, 422)
    assert "as planned by now" in refused["message"]


def test_serials_are_told_by_hand_and_taken_back(job: Job) -> None:
    view = job.ask("GET", "")
    device = next(d for d in view["devices"] if d["managed"])
    other = next(d for d in view["devices"] if d["managed"] and d["id"] != device["id"])
    said = job.ask("PUT", "/serials", {"device": device["id"], "serial": f" {other['serial']} "})
    serials = {d["id"]: d["serial"] for d in said["devices"]}
    assert serials[device["id"]] == other["serial"] and serials[other["id"]] != other["serial"]
    back = job.ask("PUT", "/serials", {"device": device["id"], "serial": ""})
    assert {d["id"]: d["serial"] for d in back["devices"] if d["managed"]} == {
        d["id"]: serial_of(job.id, d["id"]) for d in view["devices"] if d["managed"]
    }
    assert (
        "there is no device" in job.ask("PUT", "/serials", {"device": "none", "serial": "X"}, 422)["message"]
    )


def test_backups_are_kept_with_the_project_and_had_again(job: Job) -> None:
    job.push()
    kept = job.ask("POST", "/backups", {"label": "hand-over"}, 201)["backups"]
    assert [(b["label"], b["bytes"] > 100) for b in kept] == [("hand-over", True)]
    with job.sites.lock:
        job.sites.of(job.id).send("network/net-main", {"vlan": 9})
    assert job.ask("GET", "")["differs"]
    job.ask("POST", f"/backups/{kept[0]['number']}/restore")
    job.wait(30)
    assert job.ask("GET", "")["differs"] == []
    job.ask("POST", "/backups/999999/restore", status=404)


def test_gear_blinks_is_measured_and_refuses_by_name(job: Job) -> None:
    serial = next(d["serial"] for d in job.ask("GET", "")["devices"] if d["kind"] == "access_point")
    assert any(d["blinking"] for d in job.ask("POST", f"/gear/{serial}/blink")["devices"])
    assert not any(d["blinking"] for d in job.ask("POST", f"/gear/{serial}/still")["devices"])
    refused = job.ask("POST", f"/gear/{serial}/adopt", status=409)
    assert "it is adopted already" in refused["message"]
    assert "no device with the serial" in job.ask("POST", "/gear/none/update", status=409)["message"]
    job.ask("POST", f"/gear/{serial}/dance", status=404)
    found = job.ask("GET", "/measured")
    assert found["radios"] and json.dumps(found)


def test_of_two_pushes_at_once_one_goes_and_the_other_is_told(job: Job, repository: Repository) -> None:
    jobs = Jobs(repository.engine)
    with ThreadPoolExecutor(6) as pool:
        asked = list(pool.map(lambda _: _created(jobs, job.id), range(6)))
    (running,) = [key for key in asked if key]
    told = job.client.post(f"/api/projects/{job.id}/jobs", json={"kind": "push", "arguments": {}})
    assert told.status_code == 409 and "goes on here already" in told.json["message"]  # type: ignore[index]
    other = repository.create("Other", terrace_house(), "me", "begin").id
    assert _created(jobs, other)  # another site's is its own
    jobs.end(running, "done", None)
    assert job.push()["result"]["wrong"] == []


def _created(jobs: Jobs, project: str) -> str:
    try:
        return jobs.create("push", project, alone=True)
    except AlreadyRunning:
        return ""


def test_speeds_of_the_bench_do_not_count_on_site(job: Job) -> None:
    found = job.ask("PUT", "/staging", {"at_bench": True, "subnet": "192.168.50.0/24"})
    assert found["bench"] == "192.168.50.0/24"
    speeds = f"/api/projects/{job.id}/speeds"

    def note(mbps: float) -> None:
        said = {"where": "line", "occasion": "baseline", "down_mbps": mbps}
        assert job.client.post(speeds, json=said).status_code in (200, 201)

    def line() -> dict[str, Any]:
        items = [i for s in job.ask("GET", "/bring-up")["steps"] for i in s["items"]]
        return next(i for i in items if i["id"] == "speed-line")

    note(940)
    assert line()["state"] == "waits"
    assert job.ask("PUT", "/staging", {"at_bench": False})["bench"] is None
    assert line()["state"] == "ready", "what was measured at the bench was another line"
    note(300)
    assert line()["state"] == "done" and "300 Mb/s" in line()["words"]


def test_the_air_is_kept_and_the_busiest_of_each_radio_is_told(job: Job) -> None:
    first = job.ask("GET", "/measured")
    assert first["kept"] == 0 and first["radios"] and {r["most_busy"] for r in first["radios"]} == {None}
    seen: dict[tuple[str, str], float] = {}
    for k in range(4):
        shown = job.ask("POST", "/measured", status=201)
        assert shown["kept"] == k + 1 and shown["last_kept"]
        for r in shown["radios"]:
            at = (r["device"], r["band"])
            seen[at] = max(seen.get(at, 0.0), r["busy"])
        assert {(r["device"], r["band"]): r["most_busy"] for r in shown["radios"]} == seen
        job.wait(70)  # it is heard otherwise from minute to minute
    assert len({r["most_at"] for r in shown["radios"]}) > 1


def test_the_neighbourhood_is_scanned_at_the_quiet_hour_and_taken_in(
    job: Job, repository: Repository
) -> None:
    site = repository.load(job.id).design.site
    asked = job.ask("GET", "/scan")
    assert asked["state"] == "none" and asked["clients"] > 0 and asked["quiet"] == site.quiet_time
    waits = job.ask("POST", "/scan", {}, status=201)
    assert waits["state"] == "waits" and waits["begins"] == waits["quiet_at"]
    assert waits["begins"].endswith(f"T{site.quiet_hour}:00")
    assert "take it back, or wait" in job.ask("POST", "/scan", {"when": "now"}, status=409)["message"]
    assert job.ask("DELETE", "/scan")["state"] == "none"
    assert "no scan waits" in job.ask("DELETE", "/scan", status=409)["message"]
    job.ask("POST", "/scan", {"when": "noon"}, status=422)
    now = job.ask("POST", "/scan", {"when": "now"}, status=201)
    assert now["state"] == "under_way" and now["clients"] == 0
    none_left = job.ask("POST", "/scan", {"when": "now"}, status=409)["message"]
    assert "no access point is online that could listen" in none_left
    over = job.ask("POST", "/scan/pass")
    assert over["state"] == "over" and over["strangers"] and over["offer"]["fresh"]
    edit = {"revision": repository.load(job.id).revision, "label": "heard"}
    taken = job.client.post(
        f"/api/projects/{job.id}/changes", json={**edit, "changes": over["offer"]["changes"]}
    )
    assert taken.status_code < 300, taken.json
    known = job.ask("GET", "/scan")
    assert known["offer"]["changes"] == [] and known["strangers"] == over["strangers"]
