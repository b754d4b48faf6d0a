"""Drawings read in a process of their own, with limits of time and memory that end it."""

from __future__ import annotations

import json
import os
import subprocess
import sys
import time
from threading import BoundedSemaphore
from typing import Any

from ..core.catalogue import Catalogue
from ..core.design import Design, DesignError, Problem
from ..core.progress import Progress, always
from .dxf import MAX_BYTES, Choice, Inspection, refuse
from .dxf_worker import CALM, CPU_SECONDS
from .project_file import load_project

WALL_SECONDS = 40
AT_ONCE = 2
_WAIT_SECONDS = 5
_slots = BoundedSemaphore(AT_ONCE)
_ASK_SECONDS = 0.3


class Busy(RuntimeError):
    """As many drawings are being read as may be at once."""


def inspect_confined(data: bytes) -> Inspection:
    """Return the layers of a drawing; see ``dxf.inspect_dxf``."""
    return Inspection.model_validate(_run(data, None, always)["inspection"])


def import_confined(
    data: bytes, choice: Choice, catalogue: Catalogue, go_on: Progress = always
) -> Design:
    """Return the design of a drawing; see ``dxf.import_dxf``.

    Args:
        go_on: is asked from time to time whether the drawing is still wanted.
    """
    answer = _run(data, choice, go_on)
    return load_project(json.dumps(answer["project"]), catalogue).design


def _environment() -> dict[str, str]:
    """Return the environment without this program's own part: the database's address above all."""
    return {k: v for k, v in os.environ.items() if not k.startswith("HEATHRISE_")}


def _work(request: bytes, go_on: Progress) -> tuple[int | None, bytes]:
    """Hand a request to a worker; return its exit code, None where it was ended, and its answer."""
    worker = subprocess.Popen(
        [sys.executable, "-m", "heathrise.formats.dxf_worker"], env=_environment(),
        stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL,
    )  # fmt: skip
    deadline = time.monotonic() + WALL_SECONDS
    waiting: bytes | None = request
    while True:
        try:
            text, _ = worker.communicate(waiting, timeout=_ASK_SECONDS)
            return worker.returncode, text
        except subprocess.TimeoutExpired:
            waiting = None  # it has it already
        if time.monotonic() > deadline or not go_on(0, 0):
            worker.kill()
            worker.communicate()
            return None, b""


def _run(data: bytes, choice: Choice | None, go_on: Progress) -> dict[str, Any]:
    if len(data) > MAX_BYTES:
        refuse("file", f"{len(data) / 1e6:.0f} MB; at most {MAX_BYTES / 1e6:.0f} MB can be read")
    head = choice.model_dump_json() if choice is not None else "null"
    if not _slots.acquire(timeout=_WAIT_SECONDS):
        raise Busy
    try:
        code, text = _work(head.encode() + b"\n" + data, go_on)
    finally:
        _slots.release()
    if code != CALM:
        refuse(
            "drawing",
            f"takes more than {CPU_SECONDS} s or 2 GB to read. Keep the wall layers only, explode "
            "its blocks, and save it again.",
        )
    answer: dict[str, Any] = json.loads(text)
    if "problems" in answer:
        raise DesignError([Problem(where, what) for where, what in answer["problems"]])
    return answer
