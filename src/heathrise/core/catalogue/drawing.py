"""How a sheet is drawn: pens for walls, strokes of marks. Screen and paper read the same."""

from __future__ import annotations

from functools import cache
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from .files import read

Tone = Literal["masonry", "light", "timber", "metal", "glass"]


class Pen(BaseModel):
    """How a construction is drawn: thickness and dashes in m."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    width_m: float
    tone: Tone
    dash_m: tuple[float, float] | None = None
    double: bool = False


class Stroke(BaseModel):
    """A part of a mark: a path on a field of 22 by 22 about its middle, y down."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    d: str
    drawn: Annotated[Literal["body", "clear", "dot", "line", "aim"], Field(alias="as")]


class MarkDrawing(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    strokes: tuple[Stroke, ...]
    turns: bool = False


class PathDrawing(BaseModel):
    """How a path of cable is drawn, in px of the screen."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    dash_px: tuple[float, ...]
    weight_px: float = 1.5


class Measures(BaseModel):
    """Lengths that screen, paper and core draw by, m, and the least area of a room, m2."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    on_line_m: float
    shortest_wall_m: float
    beside_m: float
    slab_m: float
    rack_reach_m: float
    least_room_m2: float
    least_room_width_m: float


class DrawingStyle(BaseModel):
    """Pens by construction, marks by name, paths by category or by what lies between racks, cords by the
    word for their colour."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    pens: dict[str, Pen]
    marks: dict[str, MarkDrawing]
    paths: dict[str, PathDrawing]
    space_weights_px: dict[str, float]
    cords: dict[str, str]
    measures: Measures

    def pen(self, construction: str) -> Pen:
        """Return how a construction is drawn; one without a pen of its own as a light wall."""
        return self.pens.get(construction, _PLAIN)


_PLAIN = Pen(width_m=0.15, tone="light")


@cache
def drawing_style() -> DrawingStyle:
    """Return how sheets are drawn."""
    return DrawingStyle.model_validate(read("drawing.yaml"))
