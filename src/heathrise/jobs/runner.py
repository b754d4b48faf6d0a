"""Runs jobs. The row in the database is the truth: a restart finds what it left there."""

from __future__ import annotations

import logging
import threading
import time
from collections.abc import Callable, Mapping
from concurrent.futures import Future, ThreadPoolExecutor
from threading import Event, Lock
from typing import Any, Protocol

from sqlalchemy.exc import SQLAlchemyError

from ..core.base.progress import Progress, ShowBest
from ..core.design import DesignError
from ..formats.sandbox.confine import Busy
from ..store.jobs import INTERRUPTED, Jobs, JobState
from ..store.tables import out_of_reach
from .kinds import Stopped

log = logging.getLogger(__name__)

AT_ONCE = 2
NOTED_EVERY_SECONDS = 0.25
TRY_AGAIN_SECONDS = 1.0
GIVEN_UP_SECONDS = 24 * 3600.0  # by then the row itself is forgotten
JobCall = Callable[[Progress, ShowBest], dict[str, Any]]


_TOO_MUCH = "Its result is more than the database takes at once."


class Runner(Protocol):
    """What runs jobs: in this process, or in others behind a queue."""

    def begin(self, job_id: str, task: JobCall) -> None:
        """Run a task, which is told whether to go on each time it says how far it is, and may show
        the best it has so far."""

    def stop(self, job_id: str) -> None:
        """Let a job end soon; one that has not begun, or that nobody runs any more, at once."""


class EmbeddedRunner:
    """Runs jobs in threads of this process, beside its caches.

    The kernels leave Python's lock free, and a search lives on what the caches hold already; what
    wants a process of its own, such as a drawing, starts one itself. A database that goes away
    stops no job; how it ended is written when the database is back.
    """

    def __init__(self, jobs: Jobs) -> None:
        self._jobs = jobs
        self._pool = ThreadPoolExecutor(AT_ONCE, thread_name_prefix="jobs")
        self._stops: dict[str, Event] = {}
        self._waiting: dict[str, Future[None]] = {}
        self._lock = Lock()

    def begin(self, job_id: str, task: JobCall) -> None:
        with self._lock:
            self._stops[job_id] = Event()
            self._waiting[job_id] = self._pool.submit(self._run, job_id, task)

    def stop(self, job_id: str) -> None:
        with self._lock:
            stop, waiting = self._stops.get(job_id), self._waiting.get(job_id)
        if stop is None:
            # Of an earlier process, or ended; what has ended stays as it is.
            self._jobs.end_if_running(job_id, "failed", INTERRUPTED)
            return
        stop.set()
        if waiting is not None and waiting.cancel():
            self._end(job_id, "stopped", None, "")

    def _run(self, job_id: str, task: JobCall) -> None:
        stop = self._stops[job_id]
        noted = 0.0

        def progress(done: int, total: int) -> bool:
            nonlocal noted
            if time.monotonic() - noted > NOTED_EVERY_SECONDS:
                noted = time.monotonic()
                self._note(lambda: self._jobs.progress(job_id, done, total))
            return not stop.is_set()

        def show(best: Mapping[str, Any]) -> None:
            self._note(lambda: self._jobs.best(job_id, dict(best)))

        state: JobState = "done"
        result: dict[str, Any] | None = None
        message = ""
        try:
            self._note(lambda: self._jobs.progress(job_id, 0, 0))
            result = task(progress, show)
            state = "stopped" if stop.is_set() else "done"
        except Stopped:
            state = "stopped"
        except Busy:
            state, message = "failed", "The machine is busy with other files; try again soon."
        except DesignError as error:
            state, message = "failed", str(error)
        except SQLAlchemyError:
            log.exception("job %s lost the database", job_id)
            state, message = "failed", "The database went away meanwhile; ask again."
        except Exception as error:
            log.exception("job %s failed", job_id)
            state, message = "failed", f"It could not be worked out ({type(error).__name__})."
        self._end(job_id, state, result, message)

    @staticmethod
    def _note(write: Callable[[], None]) -> None:
        """Write how far a job is; where that is not possible just now, the next time will do."""
        try:
            write()
        except SQLAlchemyError as error:
            log.info("how far a job is was not noted: %s", error)

    def _end(self, job_id: str, state: JobState, result: dict[str, Any] | None, message: str) -> None:
        """Write how a job ended, as soon as the database takes it; no other job waits for that."""

        def write() -> bool:
            try:
                self._jobs.end(job_id, state, result, message)
            except SQLAlchemyError as error:
                if not out_of_reach(error):
                    log.exception("the result of job %s cannot be kept", job_id)
                    self._note(lambda: self._jobs.end(job_id, "failed", None, _TOO_MUCH))
                else:
                    log.info("how job %s ended is not written yet: %s", job_id, error)
                    return False
            with self._lock:
                self._stops.pop(job_id, None)
                self._waiting.pop(job_id, None)
            return True

        def keep_on() -> None:
            until = time.monotonic() + GIVEN_UP_SECONDS
            while time.monotonic() < until:
                time.sleep(TRY_AGAIN_SECONDS)
                if write():
                    return

        if not write():
            threading.Thread(target=keep_on, daemon=True, name=f"end-{job_id}").start()
