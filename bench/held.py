"""Writes down what the demo sites and many random valid designs come out at, and compares: for work
that moves walls and is to change nothing.

    python -m bench.held write FILE [DESIGNS]
    python -m bench.held compare FILE

Each line of the file is one design with its evaluation, its order and its steps, as JSON.
"""

from __future__ import annotations

import gzip
import json
import random
import sys
from collections.abc import Iterator
from datetime import date
from pathlib import Path
from typing import Any

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.work_list import steps_of
from heathrise.demo import SITES

from .random_designs import random_design

DESIGNS, SEED = 500, 18
_ON = date(2026, 3, 2)
_SHOWN = 12  # differences told of one design
# What has another name since, and what is told elsewhere.
_RENAMED = {"tally": "totals"}
_ELSEWHERE = ("totals.price", "totals.boxes", "totals.boxes_proven")


def designs(count: int, catalogue: Catalogue) -> Iterator[Design]:
    """Yield the demo sites, then so many random designs, always the same ones."""
    for site in SITES:
        yield site.make()
    chance = random.Random(SEED)
    for _ in range(count):
        yield random_design(chance, catalogue)


def told(design: Design, catalogue: Catalogue) -> dict[str, Any]:
    """Return what a design comes out at, as plain data."""
    plan = Plan(design, catalogue, on=_ON)
    return {
        "evaluation": evaluate(plan, wait=True).model_dump(mode="json"),
        "order": order_of(plan).model_dump(mode="json"),
        "steps": [s.model_dump(mode="json") for s in steps_of(plan)],
    }


def differences(before: object, after: object, at: str = "") -> Iterator[str]:
    """Yield each place in which two trees of plain data differ."""
    if isinstance(before, dict) and isinstance(after, dict):
        for key in [*before, *(k for k in after if k not in before)]:
            yield from differences(before.get(key), after.get(key), f"{at}.{key}")
    elif isinstance(before, list) and isinstance(after, list) and len(before) == len(after):
        for number, (one, other) in enumerate(zip(before, after, strict=True)):
            yield from differences(one, other, f"{at}[{number}]")
    elif before != after:
        yield f"{at}: {str(before)[:90]} -> {str(after)[:90]}"


def _as_named_now(evaluation: dict[str, Any]) -> dict[str, Any]:
    named = {_RENAMED.get(k, k): v for k, v in evaluation.items()}
    for path in _ELSEWHERE:
        chapter, field = path.split(".")
        named.get(chapter, {}).pop(field, None)
    return named


def write(path: Path, count: int) -> None:
    catalogue = load_catalogue()
    with gzip.open(path, "wt", encoding="utf-8", compresslevel=3) as file:
        for design in designs(count, catalogue):
            file.write(json.dumps(told(design, catalogue)) + "\n")


def compare(path: Path) -> int:
    """Compare with what was written; return how many designs come out otherwise."""
    catalogue, changed, number = load_catalogue(), 0, 0
    with gzip.open(path, "rt", encoding="utf-8") as file:
        # Lines first, so that no design is made for which there is none.
        for number, (line, design) in enumerate(zip(file, designs(10_000, catalogue), strict=False), 1):
            before, now = json.loads(line), told(design, catalogue)
            for tree in (before, now):
                tree["evaluation"] = _as_named_now(tree["evaluation"])
            found = list(differences(before, now))
            changed += bool(found)
            for said in found[:_SHOWN]:
                print(f"design {number - 1}{said}")
            if len(found) > _SHOWN:
                print(f"design {number - 1}: and {len(found) - _SHOWN} more")
    print(f"Held: {changed} of {number} designs come out otherwise")
    return changed


def main() -> int:
    if len(sys.argv) < 3 or sys.argv[1] not in ("write", "compare"):
        print(__doc__)
        return 2
    path = Path(sys.argv[2])
    if sys.argv[1] == "write":
        write(path, int(sys.argv[3]) if len(sys.argv) > 3 else DESIGNS)
        return 0
    return min(1, compare(path))


if __name__ == "__main__":
    sys.exit(main())
