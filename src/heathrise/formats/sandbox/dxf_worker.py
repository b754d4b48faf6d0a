"""Reads one drawing in a process of its own: ``python -m heathrise.formats.sandbox.dxf_worker``.

Standard input holds a line of JSON with the choice, or ``null`` for a look at the layers, with gear of the
firm's own, and then the drawing. Standard output takes one JSON object: ``inspection``, ``project`` or
``problems``.
"""

from __future__ import annotations

import json
import resource
import sys

from .worker import CALM

CPU_SECONDS = 20
MEMORY_BYTES = 2_000_000_000


def main() -> int:
    """Read, answer and leave; the system ends whoever passes the limits."""
    resource.setrlimit(resource.RLIMIT_CPU, (CPU_SECONDS, CPU_SECONDS + 1))
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    asked = json.loads(sys.stdin.buffer.readline())
    data = sys.stdin.buffer.read()
    try:
        sys.stdout.write(_answer(data, **asked))
    except MemoryError:
        return 2
    return CALM


def _answer(data: bytes, choice: dict[str, object] | None, gear: list[dict[str, object]]) -> str:
    from ...core.catalogue import OwnGear, load_catalogue, with_gear
    from ...core.design import DesignError
    from ..dxf import DrawingChoice, import_dxf, inspect_dxf
    from ..project_file import Project, dump_project

    try:
        if choice is None:
            return f'{{"inspection": {inspect_dxf(data).model_dump_json()}}}'
        chosen = DrawingChoice.model_validate(choice)
        design = import_dxf(
            data, chosen, with_gear(load_catalogue(), [OwnGear.model_validate(g) for g in gear])
        )
        return f'{{"project": {dump_project(Project(chosen.name, design))}}}'
    except DesignError as error:
        rows = [[p.where, p.what] for p in error.problems]
        return json.dumps({"problems": rows})


if __name__ == "__main__":
    sys.exit(main())
