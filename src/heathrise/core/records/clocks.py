"""Clocks of devices beside the server's: what was said on site is put in the time it was said."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Annotated

from pydantic import AfterValidator, AwareDatetime

RIGHT_WITHIN_S = 60.0  # what a message may be on its way
_FIRST, _LAST = datetime(1990, 1, 1, tzinfo=UTC), datetime(2200, 1, 1, tzinfo=UTC)


def in_our_time(at: datetime) -> datetime:
    """Return a time that a clock may show.

    Raises:
        ValueError: it lies beyond.
    """
    if not _FIRST <= at <= _LAST:
        raise ValueError(f"should lie between {_FIRST.year} and {_LAST.year}")
    return at


OurTime = Annotated[AwareDatetime, AfterValidator(in_our_time)]


def by_the_server(
    at: datetime | None, clock: datetime | None, now: datetime
) -> tuple[datetime, float]:
    """Return when something was said by the server's clock, and how far the device's is ahead.

    Args:
        at: when it was said by the device's clock; None for now.
        clock: what that clock showed when it was sent. Of a device that does not say so nothing
            is known but that it has just sent.

    Returns:
        The time, never later than ``now``, and the lead in s; 0 where it is within a minute.
    """
    if at is None or clock is None:
        return now, 0.0
    ahead_s = float(round((clock - now).total_seconds()))
    if abs(ahead_s) <= RIGHT_WITHIN_S:
        ahead_s = 0.0
    return min(at - timedelta(seconds=ahead_s), now), ahead_s
