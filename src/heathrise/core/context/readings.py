"""A level as it was measured: what the signal is fitted to, and what is kept of a walk."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict, Field

from ..base.bands import Band
from ..design import ElementId, Point


class Reading(BaseModel):
    """A level of one access point as a client heard it at one spot, dBm."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    floor: ElementId
    at: Point
    device: ElementId
    band: Band
    dbm: float = Field(ge=-120, le=0)
