"""What was said of the work is written once, kept for good, and the last of it counts."""

from __future__ import annotations

import uuid
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor

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
    late = _tick("safe", "blocked", reason="no key", at="2026-11-25T10:00:00+00:00")
    early = _tick("safe", at="2026-11-25T09:00:00+00:00")  # said offline, sent later
    client.post(work, json={"ticks": [late]})
    client.post(work, json={"ticks": [early]})
    stand = client.get(work).json["stands"][0]
    assert (stand["state"], stand["reason"], stand["said"]) == ("blocked", "no key", 2)


def test_two_people_tick_at_once_without_losing_anything(
    repository: Repository, client: FlaskClient, work: str
) -> None:
    steps = [s["id"] for s in client.get(work).json["steps"] if not s["licensed"]][:20]
    app = create_app(repository)

    def tick(row: tuple[int, str]) -> int:
        with app.test_client() as own:
            return own.post(work, json={"ticks": [_tick(row[1], note=f"n{row[0]}")]}).status_code

    with ThreadPoolExecutor(4) as pool:
        codes = list(pool.map(tick, enumerate(steps * 2)))
    assert set(codes) == {200}
    stands = client.get(work).json["stands"]
    assert {s["step"] for s in stands} == set(steps) and all(s["said"] == 2 for s in stands)


def test_reasons_and_licences_are_asked_for_and_nothing_is_half_written(
    client: FlaskClient, work: str
) -> None:
    licensed = next(s["id"] for s in client.get(work).json["steps"] if s["licensed"])
    for wrong in (_tick("safe", "skipped"), _tick("safe", "blocked", reason=" "), _tick(licensed)):
        answer = client.post(work, json={"ticks": [_tick("papers"), wrong]})
        assert answer.status_code == 422
    assert client.get(work).json["stands"] == []
    named = client.post(work, json={"ticks": [_tick(licensed, licensed_by="A. Volt, no. 17")]})
    assert named.json["stands"][0]["licensed_by"] == "A. Volt, no. 17"
    bad = client.post(work, json={"ticks": [{**_tick("safe"), "key": "x"}]})
    assert bad.status_code == 422
    assert (
        client.post("/api/projects/none/work", json={"ticks": [_tick("safe")]}).status_code == 404
    )
