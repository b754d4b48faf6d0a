"""What is said of speeds over the wire."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from ..core.design import ElementId
from ..core.records import Occasion, SeenSpeed
from .api_model import ApiModel, LineFault


class SeenSpeeds(ApiModel):
    """The line and the rooms with the speeds that were measured there."""

    speeds: list[SeenSpeed]


class SpeedSaid(ApiModel):
    """One speed as a test said it: Mb/s down and up, delay in ms."""

    where: ElementId
    occasion: Occasion
    down_mbps: Annotated[float, Field(ge=0, le=400_000)]
    up_mbps: Annotated[float, Field(ge=0, le=400_000)] | None = None
    delay_ms: Annotated[float, Field(ge=0, le=60_000)] | None = None


class SpeedsRead(SeenSpeeds):
    """What could be read of a file of speeds, whether it was taken, and how all places stand."""

    read: int
    taken: bool
    faults: list[LineFault]
