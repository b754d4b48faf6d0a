"""What the work takes, summed from the one list of steps: person-minutes by kind of task."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from pydantic import Field

from ..base.frozen import Frozen
from .places import Where


@dataclass(frozen=True)
class Done:
    """A piece of work of one step of the list, handed over by whoever made the list."""

    task: str
    label: str
    unit: str
    quantity: float
    person_minutes: float
    where: Where
    licensed: bool = False


class LabourLine(Frozen):
    """A kind of work: how much of it, the minutes of all who do it together, and where."""

    task: str
    label: str
    quantity: float
    unit: str
    minutes: float = Field(description="person-minutes: two on a ladder count twice")
    licensed: bool = Field(False, description="kept for licensed people")
    where: tuple[Where, ...]


def tasks_of(pieces: Iterable[Done]) -> list[LabourLine]:
    """Return the pieces of work by task, in the order in which each first comes up."""
    rows: dict[str, list[Done]] = {}
    for piece in pieces:
        rows.setdefault(piece.task, []).append(piece)
    return [
        LabourLine(
            task=task,
            label=mine[0].label,
            unit=mine[0].unit,
            quantity=round(sum(p.quantity for p in mine), 1),
            minutes=round(sum(p.person_minutes for p in mine), 1),
            licensed=any(p.licensed for p in mine),
            where=tuple(p.where for p in mine),
        )
        for task, mine in rows.items()
    ]
