"""Runs jobs. The row in the database is the truth: a restart finds what it left there."""

from __future__ import annotations

import logging
import time
from collections.abc import Callable, Mapping
from concurrent.futures import ThreadPoolExecutor
from threading import Event, Lock
from typing import Any, Protocol

from ..core.design import DesignError
from ..core.progress import Progress, ShowBest
from ..formats.confine import Busy
from ..store.jobs import Jobs, State

log = logging.getLogger(__name__)

AT_ONCE = 2
NOTED_EVERY_SECONDS = 0.25
Task = Callable[[Progress, ShowBest], dict[str, Any]]


class Stopped(Exception):
    """A job was stopped before it had anything to show."""


class Runner(Protocol):
    """What runs jobs: in this process, or in others behind a queue."""

    def begin(self, job_id: str, task: Task) -> None:
        """Run a task, which is told whether to go on each time it says how far it is, and may show
        the best it has so far."""

    def stop(self, job_id: str) -> None:
        """Let a job end soon."""


class EmbeddedRunner:
    """Runs jobs in threads of this process, beside its caches.

    The kernels leave Python's lock free, and a search lives on what the caches hold already; what
    wants a process of its own, such as a drawing, starts one itself.
    """

    def __init__(self, jobs: Jobs) -> None:
        self._jobs = jobs
        self._pool = ThreadPoolExecutor(AT_ONCE, thread_name_prefix="jobs")
        self._stops: dict[str, Event] = {}
        self._lock = Lock()

    def begin(self, job_id: str, task: Task) -> None:
        with self._lock:
            self._stops[job_id] = Event()
        self._pool.submit(self._run, job_id, task)

    def stop(self, job_id: str) -> None:
        with self._lock:
            stop = self._stops.get(job_id)
        if stop is not None:
            stop.set()

    def _run(self, job_id: str, task: Task) -> None:
        stop = self._stops[job_id]
        noted = 0.0

        def progress(done: int, total: int) -> bool:
            nonlocal noted
            if time.monotonic() - noted > NOTED_EVERY_SECONDS:
                noted = time.monotonic()
                self._jobs.progress(job_id, done, total)
            return not stop.is_set()

        def show(best: Mapping[str, Any]) -> None:
            self._jobs.best(job_id, dict(best))

        state: State = "done"
        result: dict[str, Any] | None = None
        message = ""
        try:
            self._jobs.progress(job_id, 0, 0)
            result = task(progress, show)
            state = "stopped" if stop.is_set() else "done"
        except Stopped:
            state = "stopped"
        except Busy:
            state, message = "failed", "The machine is busy with other files; try again soon."
        except DesignError as error:
            state, message = "failed", str(error)
        except Exception as error:
            log.exception("job %s failed", job_id)
            state, message = "failed", f"It could not be worked out ({type(error).__name__})."
        finally:
            with self._lock:
                self._stops.pop(job_id, None)
        self._jobs.end(job_id, state, result, message)
