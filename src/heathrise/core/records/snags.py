"""Snags: what was left to mend, as it was said last."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date

from pydantic import Field

from ..base.frozen import Frozen
from .kinds import SnagRecord, SnagState, place_in_time


class Snag(Frozen):
    """A snag as it stands, with who saw it first and who spoke of it last."""

    snag: str
    state: SnagState
    what: str
    kind: str
    element: str | None
    floor: str | None
    owner: str
    due: date | None
    photos: tuple[str, ...] = Field(description="pictures that were taken of it, the first first")
    seen_by: str
    seen_at: str
    said_by: str
    said_at: str
    clock_ahead_s: float = Field(0.0, description="of the device that spoke of it last, in s")
    late: bool = Field(description="open beyond the day it was due")


def snags_as_left(records: Iterable[SnagRecord], today: date) -> list[Snag]:
    """Return the snags, those that are open first, then by the day they are due and were seen."""
    by_snag: dict[str, list[SnagRecord]] = {}
    for record in records:
        by_snag.setdefault(record.snag, []).append(record)
    found = []
    for snag, rows in by_snag.items():
        rows.sort(key=place_in_time)
        # A photograph alone leaves a snag with whoever said how it stands.
        told = [r for r in rows if r.state is not None] or rows
        first, last = told[0], told[-1]
        photos = dict.fromkeys(r.photo for r in rows if r.photo is not None)
        found.append(
            Snag(
                snag=snag,
                state=last.state or "open",
                what=last.what,
                kind=last.kind,
                element=last.element,
                floor=last.floor,
                owner=last.owner,
                due=last.due,
                photos=tuple(photos),
                seen_by=first.author,
                seen_at=first.at.isoformat(),
                said_by=last.author,
                said_at=last.at.isoformat(),
                clock_ahead_s=last.clock_ahead_s,
                late=last.state == "open" and last.due is not None and last.due < today,
            )
        )
    return sorted(found, key=lambda s: (s.state == "closed", s.due or date.max, s.seen_at, s.snag))
