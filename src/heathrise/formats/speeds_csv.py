"""Speeds as CSV in: ``room, down_mbps, up_mbps, delay_ms``, in any order; the line is a room called line."""

from __future__ import annotations

import hashlib
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from ..core.design import DesignError, Problem
from ..core.records import LINE, Occasion, PlannedSpeed, SpeedReading
from .tables_in import Fault, Once, Row, number_of, read_table, taken_at

COLUMNS = {
    "room": ("where", "place", "name"),
    "storey": ("floor", "level"),
    "down_mbps": ("down", "download", "download_mbps"),
    "up_mbps": ("up", "upload", "upload_mbps"),
    "delay_ms": ("delay", "ping", "ping_ms", "latency_ms"),
    "date": ("at", "time"),
    "tester": ("by", "author", "operator"),
}
MOST_READINGS = 5_000
_FASTEST_MBPS, _LONGEST_MS = 400_000.0, 60_000.0


@dataclass(frozen=True)
class SpeedsIn:
    """What could be read of a file of speeds, each with a key under which it is written once where its time
    tells it from others, and what could not."""

    readings: tuple[tuple[str | None, SpeedReading], ...]
    faults: tuple[Fault, ...]


def read_speeds(data: bytes, planned: Sequence[PlannedSpeed], occasion: Occasion, now: datetime) -> SpeedsIn:
    """Return the readings of a file; a row at fault is told and left out.

    Raises:
        DesignError: it is no such file at all.
    """
    found: list[tuple[str | None, SpeedReading]] = []
    faults: list[Fault] = []
    once = Once()
    for row in read_table(data, COLUMNS, ("room", "down_mbps")):
        place, numbers = _place(row, planned), _numbers(row)
        taken = taken_at(row.cells.get("date", ""), now)
        digest = hashlib.sha256("|".join((occasion, *row.cells.values())).encode()).hexdigest()[:32]
        if isinstance(place, str):
            faults.append(Fault(row.line, place))
        elif isinstance(numbers, str):
            faults.append(Fault(row.line, numbers))
        elif isinstance(taken, str):
            faults.append(Fault(row.line, taken))
        elif (again := once.again(row, place.where, digest, taken.exact)) is not None:
            faults.append(Fault(row.line, again))
        else:
            reading = SpeedReading(
                where=place.where,
                occasion=occasion,
                down_mbps=numbers[0] or 0.0,
                up_mbps=numbers[1],
                delay_ms=numbers[2],
                at=taken.at,
                author=row.cells.get("tester", "")[:120] or "speed test",
            )
            found.append((digest if taken.exact else None, reading))
            if len(found) > MOST_READINGS:
                what = f"has more than {MOST_READINGS:,} readings; take in the last of each room"
                raise DesignError([Problem("file", what)])
    return SpeedsIn(tuple(found), tuple(faults))


def _place(row: Row, planned: Sequence[PlannedSpeed]) -> PlannedSpeed | str:
    """Return the place that a row is of, or why there is none."""
    name = row.cells.get("room", "").strip().lstrip("'")
    storey = row.cells.get("storey", "").strip().lstrip("'").lower()
    if not name:
        return "names no room; say line for a cable at the router"
    if name.lower() == LINE:
        return planned[0]
    mine = [p for p in planned if p.where != LINE and p.name.lower() == name.lower()]
    if storey:
        mine = [p for p in mine if p.floor.lower() == storey]
    if not mine:
        on = f" on {storey!r}" if storey else ""
        return f"no room of this plan that is served is called {name[:40]!r}{on}"
    if len(mine) > 1:
        return f"{len(mine)} rooms are called {name[:40]!r}; add a column storey"
    return mine[0]


def _numbers(row: Row) -> tuple[float | None, float | None, float | None] | str:
    """Return down and up in Mb/s and the delay in ms of a row, or what is wrong with it."""
    found: list[float | None] = []
    for column, most in (("down_mbps", _FASTEST_MBPS), ("up_mbps", _FASTEST_MBPS), ("delay_ms", _LONGEST_MS)):
        text = row.cells.get(column, "").strip()
        value = number_of(text) if text else None
        if text and (value is None or not 0 <= value <= most):
            return f"{column} is {text[:20]!r}, which is no number from 0 to {most:,.0f}"
        found.append(value)
    if found[0] is None:
        return "says no down_mbps"
    return found[0], found[1], found[2]
