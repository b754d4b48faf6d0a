"""Rounds of practice: that one was begun on a copy of a project, and what the trainee was told in the end."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from .kinds import Record


class RoundBegun(Record):
    """That a trainee brings a site up against the clock; times are seconds by the site's own."""

    KIND = "round_begun"

    trainee: Annotated[str, Field(max_length=120)] = ""
    project: Annotated[str, Field(max_length=40)]
    seed: int
    faults: int
    par_s: float
    allowed_s: float


class RoundEnded(Record):
    """That a round is over, and what was said of it, as JSON."""

    KIND = "round_ended"

    told: Annotated[str, Field(max_length=2_000_000)]
