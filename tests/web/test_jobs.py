"""Long work: its progress is kept, it can be stopped, and a restart says what became of it."""

from __future__ import annotations

import threading
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from datetime import datetime, timedelta

import pytest
from flask.testing import FlaskClient
from sqlalchemy import update
from sqlalchemy.exc import OperationalError

from heathrise.core.base.progress import Progress, ShowBest
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design
from heathrise.demo import terrace_house
from heathrise.jobs import EmbeddedRunner, Stopped
from heathrise.jobs import runner as runner_module
from heathrise.jobs.runner import AT_ONCE
from heathrise.store import Repository
from heathrise.store.jobs import INTERRUPTED, AlreadyRunning, JobRow, Jobs, UnknownJob
from heathrise.store.tables import job
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
    from heathrise.core.evaluation.cure_search import search_cures

    told: list[tuple[int, int]] = []

    def note(done: int, total: int) -> bool:
        told.append((done, total))
        return done < 3

    finding = "signal-room-upper-practice-8"
    search_cures(Plan(school, repository.catalogue), finding, note)
    assert [done for done, _ in told] == [0, 1, 2, 3] and len({total for _, total in told}) == 1


def test_what_waits_in_the_queue_is_stopped_at_once(jobs: Jobs) -> None:
    runner, hold = EmbeddedRunner(jobs), threading.Event()

    def busy(_: Progress, _show: ShowBest) -> dict[str, object]:
        hold.wait(20)
        return {}

    ran: list[str] = []
    ids = [jobs.create("busy", None) for _ in range(5)]
    for job_id in ids[:AT_ONCE]:
        runner.begin(job_id, busy)
    for job_id in ids[AT_ONCE:]:
        runner.begin(job_id, lambda _p, _s, it=job_id: ran.append(it) or {})  # type: ignore[misc]
    for job_id in ids[AT_ONCE:-1]:
        runner.stop(job_id)
        assert jobs.get(job_id).state == "stopped"
    assert {jobs.get(i).state for i in (*ids[:AT_ONCE], ids[-1])} == {"running"}
    hold.set()
    assert _ended(jobs, ids[-1]).state == "done" and ran == [ids[-1]]


def test_a_job_ends_although_the_database_is_away(jobs: Jobs, monkeypatch: pytest.MonkeyPatch) -> None:
    """Nothing it says can be written; its end is, as soon as the database is back."""
    runner, away, done = EmbeddedRunner(jobs), threading.Event(), threading.Event()
    monkeypatch.setattr(runner_module, "TRY_AGAIN_SECONDS", 0.05)

    class Away(Jobs):
        def _set(self, job_id: str, **values: object) -> None:
            if away.is_set():
                raise OperationalError("update job", {}, Exception(2013, "Lost connection"))
            super()._set(job_id, **values)

    runner._jobs = Away(jobs._engine)

    def count(progress: Progress, show: ShowBest) -> dict[str, object]:
        away.set()
        for k in range(10):
            show({"best": k})
            assert progress(k, 10)
            time.sleep(0.05)
        done.set()
        return {"counted": 10}

    for _ in range(2):  # the second finds a thread free, however long the first waits to be written
        done.clear()
        job_id = jobs.create("count", None)
        runner.begin(job_id, count)
        assert done.wait(10)
        time.sleep(0.2)
        assert jobs.get(job_id).state == "running"
    away.clear()
    row = _ended(jobs, job_id)
    assert (row.state, row.result) == ("done", {"counted": 10})


def test_what_nobody_runs_any_more_can_be_stopped(client: FlaskClient, jobs: Jobs) -> None:
    left, done = jobs.create("x", None), jobs.create("y", None)
    jobs.end(done, "done", {})
    for job_id, state in ((left, "failed"), (done, "done")):
        assert client.post(f"/api/jobs/{job_id}/stop").get_json()["state"] == state


@pytest.mark.parametrize(
    ("kind", "arguments", "where"),
    [
        ("cures", {"finding": 7}, "finding"),
        ("cures", {}, "finding"),
        ("labels_pdf", {"sheet": ["a"]}, "sheet"),
        ("sheets_pdf", {"paper": {"a": 1}}, "paper"),
        ("sheets_pdf", {"scale": "wide"}, "scale"),
        ("sheets_pdf", {"floors": 3}, "floors"),
        ("handover", {"by": None}, "by"),
        ("variant", {"policy": 1.5}, "policy"),
        ("drill", {"path": "here"}, "path"),
        ("drill", {"path": [{"floor": "f", "at": "x"}]}, "path.0.at"),
        ("sites", {"wishes": {"seconds": "long"}}, "wishes.seconds"),
        ("sites", {"wishes": 4}, "wishes"),
        ("best_places", {"device": ""}, "device"),
        ("brief_pdf", {"tea": 1}, "tea"),
    ],
)
def test_arguments_of_a_wrong_type_are_told_before_a_job_begins(
    kind: str, arguments: dict, where: str, client: FlaskClient, repository: Repository, home: Design
) -> None:
    project = repository.create("Asked", home, "me", "made").id
    answer = client.post(f"/api/projects/{project}/jobs", json={"kind": kind, "arguments": arguments})
    assert answer.status_code == 422
    assert where in [p["where"] for p in answer.get_json()["problems"]]


def test_begun_by_many_at_once_one_goes_and_none_is_locked_out(repository: Repository) -> None:
    """What wipes the old as it goes must not hold what another waits for."""
    jobs = Jobs(repository.engine)
    keys = [repository.create(f"Job {k}", terrace_house(), "me", "begin").id for k in range(2)]

    def begun(number: int) -> str:
        try:
            return jobs.create("push", keys[number % 2], alone=True)
        except AlreadyRunning:
            return ""

    with ThreadPoolExecutor(6) as pool:
        for _ in range(15):
            found = [key for key in pool.map(begun, range(6)) if key]
            assert len(found) == 2
            for key in found:
                jobs.end(key, "done", None)


def test_jobs_of_yesterday_are_forgotten_as_one_begins(repository: Repository) -> None:
    jobs = Jobs(repository.engine)
    old, young = jobs.create("count", None), jobs.create("count", None)
    for key, hours in ((old, 25), (young, 23)):
        made = datetime.now() - timedelta(hours=hours)
        with repository.engine.begin() as connection:
            connection.execute(update(job).where(job.c.id == key).values(created=made))
    jobs.create("count", None)
    assert jobs.get(young).id == young
    with pytest.raises(UnknownJob):
        jobs.get(old)
