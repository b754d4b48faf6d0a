"""Walls made of walls: divided, joined, drawn beside one another, curved."""

from __future__ import annotations

import itertools
import math

from shapely.geometry import LineString, Point

from ..design import Change, Design, Opening, Wall, free_number, put, remove
from .hand import SHORTEST_M, Beside, Curve, Join, Split
from .joints import Joints, Spot, along, known, refuse, shifted

_IN_LINE_M = 0.03
_NEAR_M = 0.05
_CHORD_DEG = 15.0  # of a circle: what a chord leaves out is a hundredth of the radius
_LEAST_RISE_M = 0.05


def split(design: Design, gesture: Split) -> list[Change]:
    wall = known(design, gesture.wall)
    at_m = _at_meeting(design, wall, gesture.at_m)
    if not SHORTEST_M <= at_m <= wall.length_m - SHORTEST_M:
        what = f"the wall is {wall.length_m:.2f} m long; divide it {SHORTEST_M} m from its ends at least"
        refuse("at_m", what)
    x, y = along(wall, at_m)
    cut = (round(x, 4), round(y, 4))
    rest = wall.model_copy(update={"id": _fresh(design), "a": cut})
    made: list[Change] = [put(wall.model_copy(update={"b": cut})), put(rest)]
    for opening in design.of(Opening).values():
        if opening.wall != wall.id or opening.offset_m + opening.width_m <= at_m:
            continue
        if opening.offset_m < at_m:
            refuse(f"opening[{opening.id}]", f"the wall would be divided in the middle of a {opening.kind}")
        offset = round(opening.offset_m - at_m, 4)
        made.append(put(opening.model_copy(update={"wall": rest.id, "offset_m": offset})))
    return made


def _at_meeting(design: Design, wall: Wall, at_m: float) -> float:
    """Return where a wall is divided: at a wall that meets it there, if one does, and not beside it."""
    joints = Joints(design, wall.floor)
    line = LineString([wall.a, wall.b])
    met = [line.project(Point(getattr(joints.was[key], end))) for key, end in joints.meeting(wall.id)]
    near = min(met, key=lambda m: abs(m - at_m), default=at_m)
    return float(near) if abs(near - at_m) <= _NEAR_M else at_m


def join(design: Design, gesture: Join) -> list[Change]:
    walls = [known(design, key) for key in dict.fromkeys(gesture.walls)]
    first = walls[0]
    ends = [spot for wall in walls for spot in (wall.a, wall.b)]
    start, end = max(((p, q) for p in ends for q in ends), key=lambda pq: math.dist(*pq))
    if math.dist(first.a, start) > math.dist(first.b, start):
        start, end = end, start
    whole = first.model_copy(update={"a": start, "b": end})
    line = LineString([start, end])
    for wall in walls:
        if max(line.distance(Point(p)) for p in (wall.a, wall.b)) > _IN_LINE_M or wall.floor != first.floor:
            refuse(f"wall[{wall.id}]", "is not in line with the others")
    stretches = sorted(sorted(line.project(Point(p)) for p in (wall.a, wall.b)) for wall in walls)
    reach = stretches[0][1]
    for low, high in stretches[1:]:
        if low > reach + _IN_LINE_M:
            refuse("walls", f"there are {low - reach:.2f} m between them; close the gap first")
        reach = max(reach, high)
    made: list[Change] = [put(whole)]
    for opening in design.of(Opening).values():
        host = next((w for w in walls if w.id == opening.wall), None)
        if host is None:
            continue
        sides = (opening.offset_m, opening.offset_m + opening.width_m)
        low = min(line.project(Point(along(host, m))) for m in sides)
        offset = max(0.0, min(low, whole.length_m - opening.width_m))
        made.append(put(opening.model_copy(update={"wall": first.id, "offset_m": round(offset, 4)})))
    return [*made, *(remove(w) for w in walls[1:])]


def beside(design: Design, gesture: Beside) -> list[Change]:
    wall = known(design, gesture.wall)
    if abs(gesture.off_m) < SHORTEST_M:
        refuse("off_m", f"a wall beside another stands {SHORTEST_M} m from it at least")
    nx, ny = (wall.a[1] - wall.b[1]) / wall.length_m, (wall.b[0] - wall.a[0]) / wall.length_m
    a, b = (shifted(p, (nx * gesture.off_m, ny * gesture.off_m)) for p in (wall.a, wall.b))
    exact = {"a": (round(a[0], 4), round(a[1], 4)), "b": (round(b[0], 4), round(b[1], 4))}
    return [put(wall.model_copy(update={"id": _fresh(design), **exact}))]


def curve(design: Design, gesture: Curve) -> list[Change]:
    wall = known(design, gesture.wall)
    half, rise = wall.length_m / 2, abs(gesture.rise_m)
    if rise < _LEAST_RISE_M or rise > half:
        what = f"the middle of a curve lies {_LEAST_RISE_M} m to {half:.2f} m off this wall"
        refuse("rise_m", f"{what}: half a circle at most")
    held = next((o for o in design.of(Opening).values() if o.wall == wall.id), None)
    if held is not None:
        refuse(
            f"opening[{held.id}]",
            f"a curve is made of short walls: take the {held.kind} out and put it in after",
        )
    radius = (half**2 + rise**2) / (2 * rise)
    sweep = 2 * math.asin(min(1.0, half / radius))
    pieces = max(2, math.ceil(math.degrees(sweep) / _CHORD_DEG))
    spots = [_on_arc(wall, gesture.rise_m, radius, sweep * (k / pieces - 0.5)) for k in range(1, pieces)]
    corners = [wall.a, *spots, wall.b]
    names = (f"wall-{n}" for n in itertools.count(1) if f"wall-{n}" not in design.of(Wall))
    keys = [wall.id, *(next(names) for _ in range(pieces - 1))]
    return [
        put(wall.model_copy(update={"id": key, "a": a, "b": b}))
        for key, (a, b) in zip(keys, itertools.pairwise(corners), strict=True)
    ]


def _on_arc(wall: Wall, rise_m: float, radius: float, turn: float) -> Spot:
    """Return the point of an arc at an angle from its middle."""
    ux, uy = ((wall.b[k] - wall.a[k]) / wall.length_m for k in (0, 1))
    along = radius * math.sin(turn)
    off = math.copysign(radius * math.cos(turn) - (radius - abs(rise_m)), rise_m)
    x, y = ((wall.a[k] + wall.b[k]) / 2 for k in (0, 1))
    return (round(x + ux * along - uy * off, 4), round(y + uy * along + ux * off, 4))


def _fresh(design: Design) -> str:
    return f"wall-{free_number(design.of(Wall), 'wall')}"
