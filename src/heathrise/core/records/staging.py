"""Where a site is brought up: at the bench, behind another network, or on site."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from pydantic import AwareDatetime, Field

from .kinds import Record


class Staged(Record):
    """That a site is set up at the bench from now on, behind a network with ``subnet``; or, ``at_bench`` not,
    on site."""

    KIND = "staged"

    at_bench: bool
    subnet: Annotated[str, Field(max_length=43)] = ""


def bench_of(records: Sequence[Staged]) -> str | None:
    """Return the subnet of the bench that a site stands at now, None where it is on site."""
    last = records[-1] if records else None
    return last.subnet if last is not None and last.at_bench else None


def on_site_since(records: Sequence[Staged]) -> AwareDatetime | None:
    """Return when a site left the bench, None where it never stood there; what was measured before was
    measured on another line."""
    left = None
    for before, record in zip([None, *records], records, strict=False):
        if not record.at_bench and before is not None and before.at_bench:
            left = record.at
    return left
