"""Clocks of devices beside the server's: what was said on site is put in the time it was said."""

from __future__ import annotations

from collections.abc import Sequence
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
    said_at: Sequence[datetime | None], clock: datetime | None, now: datetime
) -> tuple[list[datetime], float]:
    """Return when things were said by the server's clock, and how far the device's is ahead.

    Args:
        said_at: by the device's clock, in the order in which they were said; None for now.
        clock: what that clock showed when they were sent. Of a device that does not say so nothing
            is known but that it has just sent.

    Returns:
        The times, none later than ``now`` nor than what was said after it, whatever was done to
        the clock in between; and the lead in s, 0 where it is within a minute.
    """
    if clock is None:
        return [now] * len(said_at), 0.0
    ahead_s = float(round((clock - now).total_seconds()))
    if abs(ahead_s) <= RIGHT_WITHIN_S:
        ahead_s = 0.0
    times, latest = [], now
    for at in reversed(said_at):
        latest = min(latest, at - timedelta(seconds=ahead_s) if at is not None else now)
        times.append(latest)
    return times[::-1], ahead_s
