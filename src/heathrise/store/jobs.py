"""Jobs as rows: what was asked, how far it is, what came of it."""

from __future__ import annotations

import json
import secrets
from dataclasses import dataclass
from typing import Any, Literal

from sqlalchemy import Engine, delete, func, insert, select, text, update

from .tables import job, project
from .unknown import Unknown

JobState = Literal["running", "done", "stopped", "failed"]
_KEPT_HOURS = 24
INTERRUPTED = "The server was started anew meanwhile; ask again."


class UnknownJob(Unknown):
    """There is no job with this id."""

    what = "job"


class AlreadyRunning(RuntimeError):
    """A job of this kind goes on for the project, and two of them would undo each other."""


@dataclass(frozen=True)
class JobRow:
    """One job. ``total`` is 0 as long as nobody knows."""

    id: str
    kind: str
    state: JobState
    done: int
    total: int
    result: dict[str, Any] | None
    message: str


class Jobs:
    """The table of jobs."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def create(self, kind: str, project_id: str | None, alone: bool = False) -> str:
        """Note a job that begins, and forget those of yesterday.

        Args:
            alone: whether it must be the only one of its kind in its project.

        Raises:
            AlreadyRunning: it must be, and is not.
        """
        job_id = f"j-{secrets.token_hex(6)}"
        self._forget_old()
        with self._engine.begin() as connection:
            if alone:
                # Who comes second waits here until the first has written its row.
                held = select(project.c.id).where(project.c.id == project_id).with_for_update()
                connection.execute(held)
                same = (job.c.project_id == project_id, job.c.kind == kind, job.c.state == "running")
                if connection.scalar(select(func.count()).select_from(job).where(*same)):
                    raise AlreadyRunning(kind)
            row = {"id": job_id, "kind": kind, "project_id": project_id, "state": "running"}
            connection.execute(insert(job).values(**row, done=0, total=0, message=""))
        return job_id

    def _forget_old(self) -> None:
        """Wipe the jobs of yesterday, by their ids and in a transaction of its own.

        A search that deletes as it goes locks every gap of the table until its transaction ends; two of
        them that then wait for one project and for each other's gaps are a deadlock.
        """
        age_hours = func.timestampdiff(text("HOUR"), job.c.created, func.now())
        old = select(job.c.id).where(age_hours >= _KEPT_HOURS).order_by(job.c.id)
        with self._engine.connect() as connection:
            ids = connection.scalars(old).all()
        if ids:
            with self._engine.begin() as connection:
                connection.execute(delete(job).where(job.c.id.in_(ids)))

    def get(self, job_id: str) -> JobRow:
        """Return a job as it stands.

        Raises:
            UnknownJob: there is none with this id.
        """
        columns = (job.c.id, job.c.kind, job.c.state, job.c.done, job.c.total)
        with self._engine.connect() as connection:
            rows = select(*columns, job.c.result, job.c.message).where(job.c.id == job_id)
            found = connection.execute(rows).first()
        if found is None or found.id != job_id:
            raise UnknownJob(job_id)
        result = json.loads(found.result) if found.result else None
        return JobRow(*found[:5], result, found.message)

    def progress(self, job_id: str, done: int, total: int) -> None:
        self._set(job_id, done=done, total=total)

    def best(self, job_id: str, so_far: dict[str, Any]) -> None:
        """Note the best that a running job has; its end writes the result in its place."""
        self._set(job_id, result=json.dumps(so_far, ensure_ascii=False))

    def end(self, job_id: str, state: JobState, result: dict[str, Any] | None, message: str = "") -> None:
        kept = json.dumps(result, ensure_ascii=False) if result is not None else None
        self._set(job_id, state=state, result=kept, message=message[:500])

    def end_if_running(self, job_id: str, state: JobState, message: str) -> None:
        """End a job that nobody runs; one that has ended stays as it is."""
        with self._engine.begin() as connection:
            still = update(job).where(job.c.id == job_id, job.c.state == "running")
            connection.execute(still.values(state=state, message=message))

    def interrupted(self) -> int:
        """Mark the jobs that another process left running; return how many there were."""
        with self._engine.begin() as connection:
            left = update(job).where(job.c.state == "running")
            return connection.execute(left.values(state="failed", message=INTERRUPTED)).rowcount

    def _set(self, job_id: str, **values: object) -> None:
        with self._engine.begin() as connection:
            connection.execute(update(job).where(job.c.id == job_id).values(**values))
