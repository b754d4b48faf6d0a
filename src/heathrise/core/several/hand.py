"""What a hand can do to many things at once: what is said with each gesture, and within which bounds."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ..base.frozen import Strict
from ..walling import At, Id
from ..walling import Gesture as WallGesture

Kind = Literal[
    "wall",
    "opening",
    "space",
    "riser",
    "equipment_room",
    "device",
    "panel",
    "socket",
    "light",
    "mains_route",
    "line_entry",
    "zone",
    "pain",
    "old_cable",
]
MOST_COPIES = 60


class Pick(Strict):
    """One thing that was chosen."""

    kind: Kind
    id: Id


Picks = Annotated[tuple[Pick, ...], Field(min_length=1, max_length=5_000)]


class Shift(Strict):
    """Move everything that is chosen, and what meets its walls."""

    do: Literal["shift"] = "shift"
    picks: Picks
    by: At


class Copy(Strict):
    """Copy what is chosen, doors with their walls: ``times`` over, each so far from the one before; on to
    another storey where one is named."""

    do: Literal["copy"] = "copy"
    picks: Picks
    by: At
    times: Annotated[int, Field(ge=1, le=MOST_COPIES)] = 1
    floor: Id | None = None


class Turn(Strict):
    """Turn what is chosen about its middle, so many degrees clockwise."""

    do: Literal["turn"] = "turn"
    picks: Picks
    degrees: Annotated[float, Field(ge=-360, le=360)]


class Mirror(Strict):
    """Mirror what is chosen about its middle, or leave it and put its image beside it."""

    do: Literal["mirror"] = "mirror"
    picks: Picks
    across: Literal["east_west", "north_south"]
    beside: bool = False


class Align(Strict):
    """Bring the marks that are chosen on to one line: that of the outermost, or their middle."""

    do: Literal["align"] = "align"
    picks: Picks
    to: Literal["west", "east", "south", "north", "middle_across", "middle_up"]


class Spread(Strict):
    """Put equal distances between the marks that are chosen, the outermost staying."""

    do: Literal["spread"] = "spread"
    picks: Picks


class Raise(Strict):
    """Draw a storey's walls on another one, which is made above it where none is named."""

    do: Literal["raise"] = "raise"
    floor: Id
    to: Id | None = None
    what: Literal["outer", "walls", "rooms"]


class Fit(Strict):
    """Lay a storey over another by two points that both have: where they ``are`` on it, and where they
    ``belong``. It is moved and turned, and never stretched."""

    do: Literal["fit"] = "fit"
    floor: Id
    are: tuple[At, At]
    belong: tuple[At, At]


class Carry(Strict):
    """Put a whole building elsewhere, with all its storeys and the ends of ducts that lie in it."""

    do: Literal["carry"] = "carry"
    building: Id
    by: At


class Apart(Strict):
    """Put a whole building so far from another, measured between them at their nearest."""

    do: Literal["apart"] = "apart"
    building: Id
    other: Id
    gap_m: Annotated[float, Field(ge=0.05, le=1500)]


Gesture = Annotated[
    WallGesture | Shift | Copy | Turn | Mirror | Align | Spread | Raise | Fit | Carry | Apart,
    Field(discriminator="do"),
]
