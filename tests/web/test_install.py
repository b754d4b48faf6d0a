"""What was said of the work is written once, kept for good, and the last of it counts."""

from __future__ import annotations

import uuid
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime, timedelta

import pytest
from flask.testing import FlaskClient

from heathrise.core.design import Design
from heathrise.formats.project_file import Project, dump_project
from heathrise.store import Repository
from heathrise.web.app import create_app


@pytest.fixture
def client(repository: Repository) -> Iterator[FlaskClient]:
    with create_app(repository).test_client() as made:
        yield made


@pytest.fixture
def work(client: FlaskClient, school: Design) -> str:
    data = dump_project(Project("Work", school))
    return f"/api/projects/{client.post('/api/import/project', data=data).json['id']}/work"


def _clock(off: timedelta = timedelta(), **more: float) -> str:
    return (datetime.now(UTC) + off + timedelta(**more)).isoformat()


def _tick(step: str, state: str = "done", **more: object) -> dict[str, object]:
    return {"key": uuid.uuid4().hex, "step": step, "state": state, "by": "Jo", **more}


def test_a_tick_is_written_once_however_often_it_is_sent(client: FlaskClient, work: str) -> None:
    tick = _tick("safe", minutes=25, at="2026-11-25T08:00:00+00:00")
    for _ in range(3):
        answer = client.post(work, json={"ticks": [tick]})
        assert answer.status_code == 200
    stand = client.get(work).json["stands"]
    assert [(s["step"], s["state"], s["said"], s["by"], s["minutes"]) for s in stand] == [
        ("safe", "done", 1, "Jo", 25)
    ]


def test_what_was_said_last_counts_and_nothing_is_lost(client: FlaskClient, work: str) -> None:
    late = _tick("safe", "blocked", reason="no key", at=_clock(hours=-1))
    early = _tick("safe", at=_clock(hours=-2))  # said offline, sent later
    client.post(work, json={"ticks": [late], "clock": _clock()})
    client.post(work, json={"ticks": [early], "clock": _clock()})
    stand = client.get(work).json["stands"][0]
    assert (stand["state"], stand["reason"], stand["said"]) == ("blocked", "no key", 2)


@pytest.mark.parametrize("says_clock", [True, False])
@pytest.mark.parametrize("wrong", [timedelta(days=1), timedelta(days=-1), timedelta(days=-9000)])
def test_a_wrong_clock_beats_nobody_and_is_told(
    client: FlaskClient, work: str, wrong: timedelta, says_clock: bool
) -> None:
    """Done by a tablet of tomorrow, then blocked by one of today; and the other way round."""
    right, off = timedelta(), wrong
    for first, then in ((off, right), (right, off)):
        for state, clock in (("done", first), ("blocked", then)):
            tick = _tick("safe", state, reason="wet", at=_clock(clock))
            body = {"ticks": [tick], **({"clock": _clock(clock)} if says_clock else {})}
            answer = client.post(work, json=body).json
            told = answer["clock_ahead_s"]
            assert told == pytest.approx(clock.total_seconds() if says_clock else 0, abs=3)
        (stand,) = answer["stands"]
        assert stand["state"] == "blocked" and stand["clock_ahead_s"] == told
        said = datetime.fromisoformat(stand["at"])
        assert abs((datetime.now(UTC) - said).total_seconds()) < 20


def test_a_photograph_alone_leaves_a_step_with_who_did_it(client: FlaskClient, work: str) -> None:
    client.post(work, json={"ticks": [_tick("safe", minutes=12)]})
    photo = {**_tick("safe", photo="abc"), "state": None, "by": "Ben"}
    (stand,) = client.post(work, json={"ticks": [photo]}).json["stands"]
    assert (stand["state"], stand["by"], stand["minutes"]) == ("done", "Jo", 12)
    assert stand["photos"] == ["abc"] and stand["said"] == 2
    nothing = client.post(work, json={"ticks": [{**_tick("safe"), "state": None}]})
    assert nothing.status_code == 422 and nothing.json["problems"][0]["where"] == "ticks[0].state"


def test_a_row_at_fault_is_named_whatever_is_wrong_with_it(client: FlaskClient, work: str) -> None:
    faults = {
        "minutes": {"minutes": 6000},
        "key": {"key": "x"},
        "reason": {"state": "skipped"},
        "at": {"at": "0001-01-01T00:00:00+05:00"},
        "step": {"step": ""},
    }
    for field, wrong in faults.items():
        answer = client.post(work, json={"ticks": [_tick("safe"), {**_tick("safe"), **wrong}]})
        assert answer.status_code == 422
        assert [p["where"] for p in answer.json["problems"]] == [f"ticks[1].{field}"]
    assert client.get(work).json["stands"] == []


def test_two_people_tick_at_once_without_losing_anything(
    repository: Repository, client: FlaskClient, work: str
) -> None:
    steps = [s["id"] for s in client.get(work).json["steps"] if not s["licensed"]][:20]
    app = create_app(repository)

    def tick(row: tuple[int, str]) -> int:
        with app.test_client() as own:
            tick = _tick(row[1], note=f"n{row[0]}", reason="as they came")
            return own.post(work, json={"ticks": [tick]}).status_code

    with ThreadPoolExecutor(4) as pool:
        codes = list(pool.map(tick, enumerate(steps * 2)))
    assert set(codes) == {200}
    stands = client.get(work).json["stands"]
    assert {s["step"] for s in stands} == set(steps) and all(s["said"] == 2 for s in stands)


def test_reasons_and_licences_are_asked_for_and_nothing_is_half_written(
    client: FlaskClient, work: str
) -> None:
    licensed = next(s["id"] for s in client.get(work).json["steps"] if s["licensed"])
    early = {"reason": "it was there"}  # of what it waits for nothing is done
    for wrong in (_tick("safe", "skipped"), _tick("safe", "blocked", reason=" "), _tick(licensed, **early)):
        answer = client.post(work, json={"ticks": [_tick("papers", **early), wrong]})
        assert answer.status_code == 422
    assert client.get(work).json["stands"] == []
    named = client.post(work, json={"ticks": [_tick(licensed, licensed_by="A. Volt, no. 17", **early)]})
    assert named.json["stands"][0]["licensed_by"] == "A. Volt, no. 17"
    bad = client.post(work, json={"ticks": [{**_tick("safe"), "key": "x"}]})
    assert bad.status_code == 422
    assert client.post("/api/projects/none/work", json={"ticks": [_tick("safe")]}).status_code == 404


def test_what_waits_is_done_before_its_turn_only_with_a_reason(client: FlaskClient, work: str) -> None:
    steps = {s["id"]: s for s in client.get(work).json["steps"]}
    pull = next(s for s in steps.values() if s["phase"] == "pull" and s["waits"])
    answer = client.post(work, json={"ticks": [_tick(pull["id"])]})
    assert answer.status_code == 422
    (problem,) = answer.json["problems"]
    assert problem["where"] == "ticks[0].reason" and steps["safe"]["title"] in problem["what"]
    # In their order, and in one message, each may be said.
    ways = [w for w in pull["waits"] if w != "safe"]
    ticks = [_tick("safe"), *(_tick(w) for w in ways), _tick(pull["id"])]
    assert client.post(work, json={"ticks": ticks}).status_code == 200
    # What waits for it may be done; blocked and skipped ask for a reason of their own anyway.
    far = next(s for s in steps.values() if pull["id"] in s["waits"] and s["phase"] == "ends")
    assert client.post(work, json={"ticks": [_tick(far["id"])]}).status_code == 200


def test_install_counts_a_day_as_the_project_does(client: FlaskClient, work: str) -> None:
    """The firm's day has 450 minutes, this project's 300: list and order say the project's."""
    project = work.removesuffix("/work")
    assert client.get(work).get_json()["day_minutes"] == 450
    own = {
        "op": "put",
        "kind": "own_figure",
        "element": {"id": "o", "figure": "order.day_minutes", "value": 300},
    }
    edit = {"revision": 1, "label": "x", "changes": [own]}
    assert client.post(f"{project}/changes", json=edit).status_code == 200
    assert client.get(work).get_json()["day_minutes"] == 300
    used = client.get(f"{project}/order").get_json()["sum"]["used"]
    assert [u["whose"] for u in used if u["figure"] == "order.day_minutes"] == ["project"]
