"""Which socket is near to gear that wants one, and what it takes to have one made."""

from __future__ import annotations

import math
from dataclasses import dataclass

import shapely

from ..base.memo import IdentityMemo
from ..base.wording import metres
from ..context.findings import Cure
from ..context.storeys import storeys_of
from ..design import Design, Floor, MainsRoute, Panel, Point, Socket, Wall, apply, free_number, put
from .lines import mains_lines

_ON_WALL_M = 0.3


@dataclass(frozen=True)
class NearSocket:
    """The nearest socket of a room, and how far a cord has to reach to it, m."""

    socket: Socket
    reach_m: float


_near: IdentityMemo[NearSocket | None] = IdentityMemo(1024, weigh=lambda _: 500)


def near_socket(design: Design, floor: str, at: Point, height_m: float) -> NearSocket | None:
    """Return the nearest socket that a cord can reach, or None where there is none in the room.

    A cord goes through no wall: the socket is in the same room or on a wall of it. It is as far as they
    are apart on plan, and up or down beside it.
    """
    parts = (storeys_of(design), design.of(Socket))
    return _near.get(parts, (floor, at, height_m), lambda: _nearest(design, floor, at, height_m))


def _nearest(design: Design, floor: str, at: Point, height_m: float) -> NearSocket | None:
    room = storeys_of(design).room_at(floor, at)
    outline = shapely.Polygon(room.outline).buffer(_ON_WALL_M) if room is not None else None
    mine = (
        s
        for s in design.of(Socket).values()
        if s.floor == floor
        and s.state in ("new", "keep")
        and (outline is None or outline.covers(shapely.Point(s.at)))
    )
    rows = [NearSocket(s, round(math.hypot(math.dist(s.at, at), s.height_m - height_m), 2)) for s in mine]
    return min(rows, key=lambda row: row.reach_m, default=None)


_made: IdentityMemo[Cure] = IdentityMemo(512, weigh=lambda _: 1_000)


def made_socket(design: Design, floor: str, at: Point, height_m: float, name: str) -> Cure:
    """Return the cure that has a socket made beside something; what it takes is the licensed work of
    an electrician, and the cable from the panel where one is drawn."""
    parts = tuple(design.of(cls) for cls in (Panel, Socket, MainsRoute, Floor, Wall))
    what = floor, at, height_m, name
    return _made.get(parts, what, lambda: _make(design, *what))


def _make(design: Design, floor: str, at: Point, height_m: float, name: str) -> Cure:
    key = f"socket-{free_number(design.of(Socket), 'socket')}"
    socket = Socket(
        id=key, floor=floor, name=f"Socket of {name}"[:120], at=at, height_m=height_m, state="new"
    )
    line = next((k for k in mains_lines(apply(design, [put(socket)])) if k.socket == key), None)
    far = (
        f"{metres(line.length_m, 0)} from {line.name.split(' to ')[0]}" if line else "its panel is not drawn"
    )
    return Cure(
        label=f"Have a socket made at {name}",
        effect=f"by a licensed electrician; {far}",
        changes=(put(socket),),
    )
