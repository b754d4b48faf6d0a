"""Drawings read in a process of their own, with limits of time and memory that end it."""

from __future__ import annotations

import json
import os
import subprocess
import sys
from threading import BoundedSemaphore
from typing import Any

from ..core.catalogue import Catalogue
from ..core.design import Design, DesignError, Problem
from .dxf import MAX_BYTES, Choice, Inspection, refuse
from .dxf_worker import CALM, CPU_SECONDS
from .project_file import load_project

WALL_SECONDS = 40
AT_ONCE = 2
_WAIT_SECONDS = 5
_slots = BoundedSemaphore(AT_ONCE)


class Busy(RuntimeError):
    """As many drawings are being read as may be at once."""


def inspect_confined(data: bytes) -> Inspection:
    """Return the layers of a drawing; see ``dxf.inspect_dxf``."""
    return Inspection.model_validate(_run(data, None)["inspection"])


def import_confined(data: bytes, choice: Choice, catalogue: Catalogue) -> Design:
    """Return the design of a drawing; see ``dxf.import_dxf``."""
    answer = _run(data, choice)
    return load_project(json.dumps(answer["project"]), catalogue).design


def _environment() -> dict[str, str]:
    """Return the environment without this program's own part: the database's address above all."""
    return {k: v for k, v in os.environ.items() if not k.startswith("HEATHRISE_")}


def _run(data: bytes, choice: Choice | None) -> dict[str, Any]:
    if len(data) > MAX_BYTES:
        refuse("file", f"{len(data) / 1e6:.0f} MB; at most {MAX_BYTES / 1e6:.0f} MB can be read")
    head = choice.model_dump_json() if choice is not None else "null"
    if not _slots.acquire(timeout=_WAIT_SECONDS):
        raise Busy
    try:
        done = subprocess.run(
            [sys.executable, "-m", "heathrise.formats.dxf_worker"],
            input=head.encode() + b"\n" + data, env=_environment(),
            capture_output=True, timeout=WALL_SECONDS, check=False,
        )  # fmt: skip
    except subprocess.TimeoutExpired:
        done = None
    finally:
        _slots.release()
    if done is None or done.returncode != CALM:
        refuse(
            "drawing",
            f"takes more than {CPU_SECONDS} s or 2 GB to read. Keep the wall layers only, explode "
            "its blocks, and save it again.",
        )
    answer: dict[str, Any] = json.loads(done.stdout)
    if "problems" in answer:
        raise DesignError([Problem(where, what) for where, what in answer["problems"]])
    return answer
