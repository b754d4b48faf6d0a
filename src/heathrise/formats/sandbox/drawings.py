"""Drawings read in a process of their own."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any

from ...core.base.progress import Progress, always
from ...core.catalogue import Catalogue, OwnGear, gear_of
from ...core.design import Design, DesignError, Problem
from ..dxf import DrawingChoice, Inspection
from ..dxf_entities import MAX_BYTES, refuse
from ..project_file import load_project
from .confine import confined
from .dxf_worker import CPU_SECONDS

WALL_SECONDS = 40


def inspect_confined(data: bytes) -> Inspection:
    """Return the layers of a drawing; see ``dxf.inspect_dxf``."""
    return Inspection.model_validate(_run(data, None, (), always)["inspection"])


def import_confined(
    data: bytes, choice: DrawingChoice, catalogue: Catalogue, go_on: Progress = always
) -> Design:
    """Return the design of a drawing; see ``dxf.import_dxf``.

    Args:
        go_on: is asked from time to time whether the drawing is still wanted.
    """
    answer = _run(data, choice, gear_of(catalogue, catalogue.own), go_on)
    return load_project(json.dumps(answer["project"]), catalogue).design


def _run(
    data: bytes, choice: DrawingChoice | None, gear: Sequence[OwnGear], go_on: Progress
) -> dict[str, Any]:
    if len(data) > MAX_BYTES:
        refuse("file", f"{len(data) / 1e6:.0f} MB; at most {MAX_BYTES / 1e6:.0f} MB can be read")
    wanted = choice.model_dump(mode="json") if choice is not None else None
    head = json.dumps({"choice": wanted, "gear": [g.model_dump(mode="json") for g in gear]})
    text = confined("dxf_worker", head.encode() + b"\n" + data, go_on, WALL_SECONDS)
    if text is None:
        refuse(
            "drawing",
            f"takes more than {CPU_SECONDS} s or 2 GB to read. Keep the wall layers only, explode "
            "its blocks, and save it again.",
        )
    answer: dict[str, Any] = json.loads(text)
    if "problems" in answer:
        raise DesignError([Problem(where, what) for where, what in answer["problems"]])
    return answer
