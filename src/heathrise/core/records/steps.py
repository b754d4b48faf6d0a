"""How far the work is: of each step the last that was said of it."""

from __future__ import annotations

from collections.abc import Iterable

from pydantic import Field

from ..base.frozen import Frozen
from .kinds import StepRecord, StepState, place_in_time


class StepStand(Frozen):
    """How a step stands, who left it so, and how often something was said of it."""

    step: str
    state: StepState
    reason: str
    note: str
    minutes: float | None
    licensed_by: str
    photos: tuple[str, ...] = Field(description="pictures that were taken there, the first first")
    by: str
    at: str
    said: int
    clock_ahead_s: float = Field(0.0, description="of the device that it was said on, in s")


def steps_as_done(records: Iterable[StepRecord]) -> list[StepStand]:
    """Return the steps of which anything was said; what was said last counts.

    A photograph alone leaves a step with whoever said how it stands.
    """
    by_step: dict[str, list[StepRecord]] = {}
    for record in records:
        by_step.setdefault(record.step, []).append(record)
    found = []
    for step, rows in by_step.items():
        rows.sort(key=place_in_time)
        last = [r for r in rows if r.state is not None or r is rows[0]][-1]
        found.append(
            StepStand(
                step=step,
                state=last.state or "open",
                reason=last.reason,
                note=last.note,
                minutes=last.minutes,
                licensed_by=last.licensed_by,
                photos=tuple(r.photo for r in rows if r.photo is not None),
                by=last.author,
                at=last.at.isoformat(),
                said=len(rows),
                clock_ahead_s=last.clock_ahead_s,
            )
        )
    return found
