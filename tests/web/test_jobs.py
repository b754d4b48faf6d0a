"""Long work: its progress is kept, it can be stopped, and a restart says what became of it."""

from __future__ import annotations

import threading
import time
from collections.abc import Iterator

import pytest
from flask.testing import FlaskClient

from heathrise.core.design import Design
from heathrise.core.progress import Progress, ShowBest
from heathrise.jobs import EmbeddedRunner, Stopped
from heathrise.store import Repository
from heathrise.store.jobs import INTERRUPTED, JobRow, Jobs, UnknownJob
from heathrise.web.app import create_app

from .test_api import finished


@pytest.fixture
def client(repository: Repository) -> Iterator[FlaskClient]:
    with create_app(repository).test_client() as made:
        yield made


@pytest.fixture
def jobs(repository: Repository) -> Jobs:
    return Jobs(repository.engine)


def _ended(jobs: Jobs, job_id: str) -> JobRow:
    for _ in range(400):
        row = jobs.get(job_id)
        if row.state != "running":
            return row
        time.sleep(0.02)
    raise AssertionError(row)


def test_progress_is_in_the_row_and_a_stop_keeps_what_was_found(jobs: Jobs) -> None:
    runner, going = EmbeddedRunner(jobs), threading.Event()

    def count(progress: Progress, show: ShowBest) -> dict[str, object]:
        done = 0
        show({"best": 1})
        while progress(done, 1000):
            done += 1
            time.sleep(0.01)
            going.set()
        return {"counted": done}

    job_id = jobs.create("count", None)
    runner.begin(job_id, count)
    assert going.wait(5)
    time.sleep(0.5)
    row = jobs.get(job_id)
    assert row.state == "running" and 0 < row.done < 1000 and row.total == 1000
    assert row.result == {"best": 1}  # the best so far, until the end writes its own
    runner.stop(job_id)
    row = _ended(jobs, job_id)
    assert row.state == "stopped" and row.result is not None and row.result["counted"] > 0


def test_a_job_that_fails_says_so(jobs: Jobs) -> None:
    runner = EmbeddedRunner(jobs)

    def broken(_: Progress, _show: ShowBest) -> dict[str, object]:
        raise ZeroDivisionError

    def given_up(_: Progress, _show: ShowBest) -> dict[str, object]:
        raise Stopped

    for task, state in ((broken, "failed"), (given_up, "stopped")):
        job_id = jobs.create("x", None)
        runner.begin(job_id, task)
        assert _ended(jobs, job_id).state == state
    with pytest.raises(UnknownJob):
        jobs.get("j-none")


def test_a_restart_marks_what_it_left_running(jobs: Jobs) -> None:
    left, done = jobs.create("x", None), jobs.create("y", None)
    jobs.end(done, "done", {"a": "ä"})
    assert jobs.interrupted() >= 1
    assert (jobs.get(left).state, jobs.get(left).message) == ("failed", INTERRUPTED)
    assert jobs.get(done).result == {"a": "ä"}


def test_a_search_for_cures_is_stopped_and_gives_what_it_has(
    client: FlaskClient, repository: Repository, school: Design
) -> None:
    project = repository.create("Larkmere", school, "me", "made").id
    body = {"kind": "cures", "arguments": {"finding": "signal-room-upper-practice-8"}}
    begun = client.post(f"/api/projects/{project}/jobs", json=body)
    job_id = begun.get_json()["id"]
    assert client.post(f"/api/jobs/{job_id}/stop").status_code == 200
    job = finished(client, begun)
    assert job["state"] == "stopped" and "cures" in job["result"]
    wrong = client.post(f"/api/projects/{project}/jobs", json={"kind": "tea"})
    assert wrong.status_code == 422 and "there are cures" in wrong.get_json()["message"]
    assert client.get("/api/jobs/j-none").status_code == 404
    # A project that goes takes its jobs along.
    repository.remove(project)
    assert client.get(f"/api/jobs/{job_id}").status_code == 404


def test_a_search_tells_how_far_it_is(school: Design, repository: Repository) -> None:
    from heathrise.core.remedies import search_cures

    told: list[tuple[int, int]] = []

    def note(done: int, total: int) -> bool:
        told.append((done, total))
        return done < 3

    finding = "signal-room-upper-practice-8"
    search_cures(school, repository.catalogue, finding, note)
    assert [done for done, _ in told] == [0, 1, 2, 3] and len({total for _, total in told}) == 1
