"""Walls that were seen on a picture, made fit to be drawn: straight along one another, ending where they
meet, left away where walls stand already."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

import numpy as np
import shapely
from shapely.geometry import LineString, Point, Polygon

from ..base.frozen import Frozen
from ..design import Design, Wall
from .net import net_of

Spot = tuple[float, float]
STANDS_M = 0.15  # a wall that is drawn so near already is not proposed again
_UPRIGHT_DEG = 1.0  # a plan that is turned by less is meant to lie straight
_ALONG_DEG = 3.0
_MEETS_M = 0.2
_DOOR_M = (0.55, 1.3)
_LEAST_M = 0.2
_THICK_M = 0.2


class SeenOpening(Frozen):
    kind: Literal["door", "window", "gap"]
    offset_m: float
    width_m: float


class SeenGap(Frozen):
    """A gap in a wall that was seen; ``lined`` says that lines run along it, as windows have."""

    offset_m: float
    width_m: float
    lined: bool


class SeenWall(Frozen):
    """A wall where it lies on the site, m; ``why`` says what is doubtful about it."""

    a: Spot
    b: Spot
    thick_m: float
    gaps: tuple[SeenGap, ...] = ()
    why: str = ""


class ProposedWall(Frozen):
    """A wall that could be drawn; nothing of it is in the plan until somebody takes it."""

    id: str
    a: Spot
    b: Spot
    thick_m: float
    outer: bool
    openings: tuple[SeenOpening, ...]
    why: str = ""


@dataclass
class _Line:
    """A wall in the plan's own directions: along one of them (axis 0 or 1) at ``at``, or free."""

    seen: SeenWall
    a: Spot
    b: Spot
    axis: int | None
    at: float = 0.0
    ends: list[float] = field(default_factory=list)


def proposed(design: Design, floor: str, seen: Sequence[SeenWall]) -> tuple[ProposedWall, ...]:
    """Return what to propose on a storey, the longest first."""
    if not seen:
        return ()
    turn = _turn_deg(seen)
    lines = [_laid(wall, turn) for wall in seen]
    for line in lines:
        if line.axis is not None:
            line.ends = [_met(line, end, lines) for end in line.ends]
    there = [LineString([w.a, w.b]) for w in design.of(Wall).values() if w.floor == floor]
    placed = [(line, *_placed(line, turn)) for line in lines]
    fresh = [row for row in placed if math.dist(row[1], row[2]) > _LEAST_M and not _stands(row[1:], there)]
    about = _outline([(a, b) for _, a, b in fresh])
    found = [_proposal(k, *row, about) for k, row in enumerate(fresh, 1)]
    return tuple(sorted(found, key=lambda w: -math.dist(w.a, w.b)))


def _turn_deg(seen: Sequence[SeenWall]) -> float:
    """Return how far the plan's directions are turned from the sheet's, degrees anticlockwise."""
    angles = np.radians([4 * _angle_deg(w.a, w.b) for w in seen])
    sizes = np.array([math.dist(w.a, w.b) for w in seen])
    turn = math.degrees(math.atan2(float(sizes @ np.sin(angles)), float(sizes @ np.cos(angles)))) / 4
    return 0.0 if abs(turn) < _UPRIGHT_DEG else turn


def _angle_deg(a: Spot, b: Spot) -> float:
    return math.degrees(math.atan2(b[1] - a[1], b[0] - a[0]))


def _turned(p: Spot, degrees: float) -> Spot:
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    return (p[0] * c - p[1] * s, p[0] * s + p[1] * c)


def _laid(wall: SeenWall, turn: float) -> _Line:
    a, b = _turned(wall.a, -turn), _turned(wall.b, -turn)
    off = (_angle_deg(a, b) + 45) % 90 - 45
    if abs(off) > _ALONG_DEG:
        return _Line(wall, a, b, None)
    axis = 0 if abs(b[0] - a[0]) > abs(b[1] - a[1]) else 1
    return _Line(wall, a, b, axis, (a[1 - axis] + b[1 - axis]) / 2, [a[axis], b[axis]])


def _met(line: _Line, end: float, lines: Sequence[_Line]) -> float:
    """Return where a wall ends: in the middle of the one that it runs into."""
    meets = [
        o.at
        for o in lines
        if o.axis is not None
        and o.axis != line.axis
        and min(o.ends) - _MEETS_M <= line.at <= max(o.ends) + _MEETS_M
        and abs(o.at - end) <= _MEETS_M
    ]
    return min(meets, key=lambda at: abs(at - end), default=end)


def _placed(line: _Line, turn: float) -> tuple[Spot, Spot]:
    if line.axis is None:
        spots = (line.a, line.b)
    elif line.axis == 0:
        spots = ((line.ends[0], line.at), (line.ends[1], line.at))
    else:
        spots = ((line.at, line.ends[0]), (line.at, line.ends[1]))
    a, b = (_turned(p, turn) for p in spots)
    return (round(a[0], 2), round(a[1], 2)), (round(b[0], 2), round(b[1], 2))


def _stands(ends: Sequence[Any], there: Sequence[LineString]) -> bool:
    """Whether walls are drawn along most of it already."""
    own = LineString(ends)
    near = [line.buffer(STANDS_M, cap_style="flat") for line in there if line.distance(own) < STANDS_M]
    return bool(near) and own.intersection(shapely.union_all(near)).length > own.length / 2


def _outline(walls: Sequence[tuple[Spot, Spot]]) -> Any:
    """Return the line about all that the walls close, None where they close nothing."""
    rows = [Wall(id=f"w{k}", floor="f", a=a, b=b, construction="seen") for k, (a, b) in enumerate(walls)]
    parts = [Polygon(p.exterior).buffer(_MEETS_M, join_style="mitre") for p in net_of(rows).faces]
    whole = shapely.union_all(parts).buffer(-_MEETS_M, join_style="mitre") if parts else None
    return whole.boundary if whole is not None else None


def _proposal(number: int, line: _Line, a: Spot, b: Spot, about: Any) -> ProposedWall:
    middle = Point((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
    outer = line.seen.thick_m >= _THICK_M if about is None else about.distance(middle) < _MEETS_M
    openings = tuple(_openings(line, a, b))
    thick_m = round(line.seen.thick_m, 2)
    return ProposedWall(
        id=f"seen-{number}", a=a, b=b, thick_m=thick_m, outer=outer, openings=openings, why=line.seen.why
    )


def _openings(line: _Line, a: Spot, b: Spot) -> Iterator[SeenOpening]:
    """Yield the gaps from the end where the wall begins now, each within it."""
    longer_m = math.dist(a, line.seen.a) * (1 if math.dist(a, b) > math.dist(line.seen.a, b) else -1)
    size_m = math.dist(a, b)
    for gap in line.seen.gaps:
        low = max(0.0, gap.offset_m + longer_m)
        high = min(size_m, gap.offset_m + longer_m + gap.width_m)
        if high - low < _DOOR_M[0]:
            continue
        kind: Literal["door", "window", "gap"] = "gap"
        if gap.lined:
            kind = "window"
        elif _DOOR_M[0] <= gap.width_m <= _DOOR_M[1]:
            kind = "door"
        yield SeenOpening(kind=kind, offset_m=round(low, 2), width_m=round(high - low, 2))
