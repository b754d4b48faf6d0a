"""What goes over the wire about what is heard where."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ..core.base.bands import Band
from ..core.design import ElementId, Neighbour
from ..core.signal import Direction, Show
from ..core.views.calibration import Proposed
from .api_model import ApiModel, LineFault


class View(ApiModel):
    """Which relief is on the sheet.

    A difference is against ``revision:12`` (what changed since), or of ``variant:v-1`` or
    ``without:ap-1,ap-2`` (what it would do to the plan).
    """

    floor: ElementId
    band: Band = "5"
    rank: Annotated[int, Field(ge=1, le=3)] = 1
    direction: Direction = "weaker"
    when: Literal["planned", "today"] = "planned"
    show: Show = "level"
    against: Annotated[str, Field(max_length=2000)] = ""
    quick: bool = False


class ScanQuery(ApiModel):
    """Where a scan was made whose rows do not say so, in m."""

    floor: ElementId
    x: Annotated[float, Field(ge=-10_000, le=10_000)] = 0.0
    y: Annotated[float, Field(ge=-10_000, le=10_000)] = 0.0


class ScanRead(ApiModel):
    """What could be read of a scan, and what could not."""

    neighbours: list[Neighbour]
    faults: list[LineFault]


class SurveyQuery(ApiModel):
    """Storey and place of rows that name none; whose each radio is, as JSON by what the file calls
    it; whether it is taken."""

    floor: ElementId
    x: Annotated[float, Field(ge=-10_000, le=10_000)] | None = None
    y: Annotated[float, Field(ge=-10_000, le=10_000)] | None = None
    names: Annotated[str, Field(max_length=20_000)] = ""
    take: bool = False


class WalkMark(ApiModel):
    """Whether a measured walk counts."""

    counts: bool


class SurveyRead(ApiModel):
    """What could be read of a walk's file, whose each radio seems to be, whether it was taken."""

    read: int
    taken: bool
    proposed: list[Proposed]
    faults: list[LineFault]


class LevelReading(ApiModel):
    device: str
    name: str
    band: Band
    downlink_dbm: float
    uplink_dbm: float


class LevelList(ApiModel):
    readings: list[LevelReading]
    space: str | None
