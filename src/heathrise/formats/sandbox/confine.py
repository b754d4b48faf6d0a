"""Runs a reader of files in a process of its own, which limits of time and memory end."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time
from threading import BoundedSemaphore

from ...core.base.progress import Progress
from .worker import CALM

AT_ONCE = 2
_WAIT_SECONDS = 5
_ASK_SECONDS = 0.3
_slots = BoundedSemaphore(AT_ONCE)


class Busy(RuntimeError):
    """The machine has no time for the file just now; nothing is known to be wrong with it."""


def confined(module: str, request: bytes, go_on: Progress, seconds: float) -> bytes | None:
    """Return what a worker answers to a request, or None where it was ended by its own limits.

    Args:
        module: the worker's, below ``formats``; it reads standard input and sets its own limits.
        go_on: is asked from time to time whether the file is still wanted.
        seconds: after which it is ended whatever it says; its own limit of time is in seconds of
            the processor and less than that, so that what takes so long was kept waiting.

    Raises:
        Busy: too many files are being read already, or the processor was too busy for this one.
    """
    if not _slots.acquire(timeout=_WAIT_SECONDS):
        raise Busy
    try:
        code, answer = _work(module, request, go_on, seconds)
    finally:
        _slots.release()
    if code == -signal.SIGKILL:  # by the system, which was short of memory
        raise Busy
    return answer if code == CALM else None


def _environment() -> dict[str, str]:
    """Return the environment without this program's own part: the database's address above all."""
    return {k: v for k, v in os.environ.items() if not k.startswith("HEATHRISE_")}


def _work(module: str, request: bytes, go_on: Progress, seconds: float) -> tuple[int | None, bytes]:
    worker = subprocess.Popen(
        [sys.executable, "-m", f"{__package__}.{module}"],
        env=_environment(),
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
    )
    deadline = time.monotonic() + seconds
    waiting: bytes | None = request
    while True:
        try:
            answer, _ = worker.communicate(waiting, timeout=_ASK_SECONDS)
            return worker.returncode, answer
        except subprocess.TimeoutExpired:
            waiting = None  # it has it already
        late, wanted = time.monotonic() > deadline, go_on(0, 0)
        if late or not wanted:
            worker.kill()
            worker.communicate()
            if late and wanted:
                raise Busy
            return None, b""
