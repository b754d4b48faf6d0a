"""The network drawn: 200 devices derived and laid out, and once more after an edit."""

from __future__ import annotations

import time

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Device, put
from heathrise.core.diagram import diagram_of, lay_out
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.managed import tree_of

from .pace import Marks
from .packets import campus

_RUNS = 5


def diagram() -> None:
    """Print what a diagram costs once a plan is worked out."""
    marks = Marks("Diagram")
    plan = Plan(campus(), load_catalogue())
    marks.row("200 devices, all of them open", 1000 * _drawn(plan, None), "ms", 200)
    marks.row("200 devices, what is alike folded", 1000 * _drawn(plan, 14), "ms", 200)
    device = next(iter(plan.drawn.of(Device).values()))
    best = min(
        _drawn(plan.after([put(device.model_copy(update={"name": f"Renamed {k}"}))]), 14)
        for k in range(_RUNS)
    )
    marks.row("after an edit", 1000 * best, "ms", 50)


def _drawn(plan: Plan, rows: int | None) -> float:
    evaluate(plan)
    tree_of(plan)
    began = time.perf_counter()
    lay_out(diagram_of(plan), rows_at_once=rows)
    return time.perf_counter() - began
