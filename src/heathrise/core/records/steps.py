"""How far the work is: of each step the last that was said of it."""

from __future__ import annotations

from collections.abc import Iterable

from pydantic import BaseModel, ConfigDict, Field

from .kinds import StepRecord, StepState, place_in_time


class StepStand(BaseModel):
    """How a step stands, who left it so, and how often something was said of it."""

    model_config = ConfigDict(frozen=True)

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


def steps_as_done(records: Iterable[StepRecord]) -> list[StepStand]:
    """Return the steps of which anything was said; what was said last counts."""
    by_step: dict[str, list[StepRecord]] = {}
    for record in records:
        by_step.setdefault(record.step, []).append(record)
    found = []
    for step, rows in by_step.items():
        rows.sort(key=place_in_time)
        last = rows[-1]
        found.append(
            StepStand(
                step=step, state=last.state, reason=last.reason, note=last.note,
                minutes=last.minutes, licensed_by=last.licensed_by,
                photos=tuple(r.photo for r in rows if r.photo is not None), by=last.author,
                at=last.at.isoformat(), said=len(rows),
            )
        )  # fmt: skip
    return found
