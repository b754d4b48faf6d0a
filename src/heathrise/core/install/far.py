"""The steps of a way to a far place."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import cast

from ..laying import Hazard, TrenchSize
from .cables import how_dug
from .hazards import trench_said
from .step import PHASES, Phase, TodoList


@dataclass(frozen=True)
class FarWorkTask:
    """One kind of work of a way; minutes of one person before two share them."""

    key: str
    phase: str
    task: str
    title: str
    quantity: float
    minutes: float
    hazards: tuple[Hazard, ...]
    licensed: bool
    checks: tuple[str, ...]
    said: tuple[str, ...]  # cautions in words of their own
    trench: TrenchSize | None = None
    near: tuple[str, ...] = ()  # buried services beside its trench


@dataclass(frozen=True)
class FarWork:
    """The work of the way to one place; ``duct`` is what a trench takes, by its name."""

    point: str
    duct: str
    tasks: tuple[FarWorkTask, ...]


def reach(todo: TodoList, works: Iterable[FarWork]) -> None:
    """Add the steps of each way, one after the other as its phases come."""
    for work in works:
        before = "safe"
        for task in sorted(work.tasks, key=lambda t: PHASES.index(cast(Phase, t.phase))):
            key = f"far-{work.point}-{task.key}"
            size = task.trench
            depth = (trench_said(todo.rules, size.depth_m),) if size is not None else ()
            todo.add(
                key,
                cast(Phase, task.phase),
                task.title,
                ("far_point", work.point, None),
                [(task.task, task.quantity, task.minutes)],
                (before,),
                task.hazards,
                said=(*depth, *task.said),
                licensed=task.licensed,
                **(how_dug(work.duct, size, task.near) if size is not None else {"checks": task.checks}),
            )
            before = key
