"""What a hand can do to walls: what is said with each gesture, and within which bounds."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ..base.frozen import Strict
from ..catalogue import drawing_style
from ..design import Change
from .joints import End

Id = Annotated[str, Field(min_length=1, max_length=40)]
Ids = Annotated[tuple[Id, ...], Field(min_length=1, max_length=500)]
Metres = Annotated[float, Field(ge=-1500, le=1500)]
At = tuple[Metres, Metres]

SHORTEST_M = drawing_style().measures.shortest_wall_m


class Said(Strict):
    """Changes as they are: a wall drawn, typed or taken away."""

    do: Literal["said"] = "said"
    changes: Annotated[tuple[Change, ...], Field(max_length=20_000)]


class Move(Strict):
    """Move walls. One wall goes square to itself and so does what lies in line with it; the walls that meet
    it grow or shrink. ``alone`` leaves everything else where it is."""

    do: Literal["move"] = "move"
    walls: Ids
    by: At
    alone: bool = False


class Bend(Strict):
    """Put one end of a wall elsewhere, and the ends that meet there; ``alone`` takes it off them."""

    do: Literal["bend"] = "bend"
    wall: Id
    end: End
    to: At
    alone: bool = False


class Measure(Strict):
    """Give a wall a length or an angle (degrees clockwise from north, as it runs from its end ``hold``)."""

    do: Literal["measure"] = "measure"
    wall: Id
    length_m: Annotated[float, Field(ge=SHORTEST_M, le=1500)] | None = None
    angle_deg: Annotated[float, Field(ge=-360, le=360)] | None = None
    hold: End = "a"


class Split(Strict):
    """Divide a wall so many metres from its end ``a``."""

    do: Literal["split"] = "split"
    wall: Id
    at_m: Annotated[float, Field(ge=0, le=1500)]


class Join(Strict):
    """Make one wall of several in a line."""

    do: Literal["join"] = "join"
    walls: Annotated[tuple[Id, ...], Field(min_length=2, max_length=50)]


class Beside(Strict):
    """Draw a wall alongside another, so far to the left of its way from ``a`` to ``b``."""

    do: Literal["beside"] = "beside"
    wall: Id
    off_m: Annotated[float, Field(ge=-200, le=200)]


class Curve(Strict):
    """Make chords of a wall along an arc whose middle lies so far to the left of it."""

    do: Literal["curve"] = "curve"
    wall: Id
    rise_m: Annotated[float, Field(ge=-200, le=200)]


Gesture = Annotated[Said | Move | Bend | Measure | Split | Join | Beside | Curve, Field(discriminator="do")]
