"""Measured walks as they were taken in: which of them count."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime

from pydantic import Field

from ..base.frozen import Frozen
from .kinds import MeasuredWalk, WalkCounts


class WalkTaken(Frozen):
    """A measured walk that was taken in; one that does not count stays on record."""

    number: int
    at: datetime
    readings: int
    devices: int = Field(description="access points that it heard")
    counts: bool


def walks_as_taken(walks: Sequence[MeasuredWalk], said: Sequence[WalkCounts]) -> list[WalkTaken]:
    """Return the walks, the first first; what was said last of each is so."""
    last = {s.walk: s.counts for s in sorted(said, key=lambda s: s.number)}
    return [
        WalkTaken(
            number=w.number,
            at=w.at,
            readings=len(w.readings),
            devices=len({r.device for r in w.readings}),
            counts=last.get(w.number, True),
        )
        for w in sorted(walks, key=lambda w: w.number)
    ]
