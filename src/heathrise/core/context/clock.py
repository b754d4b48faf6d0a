"""How long it is until a time of day, or of the week, comes again."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import get_args

from ..design import Weekday

DAYS: tuple[Weekday, ...] = get_args(Weekday)


def next_time(now: datetime, clock: str, day: str | None = None) -> datetime:
    """Return when it is next a time of day, ``HH:MM``, on a day of the week where one is said.

    A time that is just now counts as the next one.
    """
    hour, minute = map(int, clock.split(":"))
    at = now.replace(hour=hour, minute=minute, second=0, microsecond=0)
    if day is not None:
        at += timedelta(days=(DAYS.index(day) - now.weekday()) % len(DAYS))
    if at < now.replace(second=0, microsecond=0):
        at += timedelta(days=1 if day is None else len(DAYS))
    return at
