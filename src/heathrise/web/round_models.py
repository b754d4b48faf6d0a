"""What is said of rounds of practice over the wire."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import Field

from ..controller.debrief import Debrief
from .api_model import ApiModel


class RoundAsked(ApiModel):
    """A round that somebody wants to begin: who, and how many devices have a fault; the same seed gives the
    same faults, without one it is drawn."""

    trainee: Annotated[str, Field(max_length=60)] = ""
    faults: Annotated[int, Field(ge=0, le=50)] = 2
    seed: Annotated[int, Field(ge=0, le=1_000_000)] | None = None


class RoundProject(ApiModel):
    """The project that a round is on: a copy, with records and a site of its own."""

    project: str


class RoundRow(ApiModel):
    """A round: whose, how long it is given and has taken in seconds by the site's clock, of which ``pace``
    go by in each; labels that can be read on site, and what was said in the end."""

    trainee: str
    project: str = Field(description="what it is a copy of")
    faults: int
    begun: datetime
    allowed_s: float
    par_s: float
    used_s: float
    pace: float
    labels: dict[str, str] = Field(description="serials by device")
    debrief: Debrief | None


class RoundView(ApiModel):
    """The round that a project is, None where it is a project for work."""

    round: RoundRow | None
