"""Walls that are moved, and what goes along: neighbours, doors, what hangs on them."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence
from typing import Any

from shapely.geometry import LineString, Point

from ..catalogue import drawing_style
from ..design import Change, Design, Device, EquipmentRoom, LineEntry, Panel, Socket, Wall, put
from .hand import Bend, Measure, Move
from .joints import End, Joints, Spot, along, crossing, known, shifted

_BESIDE_M = drawing_style().measures.beside_m
_IN_LINE_M = 0.03


def move(design: Design, gesture: Move) -> list[Change]:
    walls = [known(design, key) for key in gesture.walls]
    if gesture.alone or len(walls) > 1:
        return move_as_one(design, walls, gesture.by, gesture.alone)
    joints = Joints(design, walls[0].floor)
    keys, by = joints.in_line([walls[0].id]), _square(walls[0], gesture.by)
    _together(joints, keys, by)
    return [*joints.changes(), *_hung_on(design, [joints.was[k] for k in sorted(keys)], by)]


def move_as_one(design: Design, walls: Sequence[Wall], by: Spot, alone: bool = False) -> list[Change]:
    """Return walls moved as one piece, with what hangs on them and, unless alone, the ends that meet them."""
    made: list[Change] = []
    for floor in dict.fromkeys(w.floor for w in walls):
        here = [w for w in walls if w.floor == floor]
        joints = Joints(design, floor)
        _all(joints, {w.id for w in here}, by, alone)
        made += [*joints.changes(), *_hung_on(design, here, by)]
    return made


def _square(wall: Wall, by: Spot) -> Spot:
    """Return the part of a way that is square to a wall."""
    nx, ny = (wall.a[1] - wall.b[1]) / wall.length_m, (wall.b[0] - wall.a[0]) / wall.length_m
    far = by[0] * nx + by[1] * ny
    return nx * far, ny * far


def _together(joints: Joints, moved: set[str], by: Spot) -> None:
    """Move walls that lie in one line; those that meet them keep their own lines."""
    for key in moved:
        wall = joints.was[key]
        line = (shifted(wall.a, by), shifted(wall.b, by))
        for end, spot in (("a", wall.a), ("b", wall.b)):
            others = list(joints.ends_at(spot, moved))
            along = [k for k, _ in others] + list(joints.passing(spot, moved))
            corner = _corner(joints, along, line) or shifted(spot, by)
            joints.put_ends(key, **{end: corner})
            for other, its in others:
                joints.put_ends(other, **{its: corner})
        for other, its in joints.meeting(key, moved):
            spot = getattr(joints.was[other], its)
            joints.put_ends(other, **{its: crossing(joints.was[other], line) or shifted(spot, by)})


def _corner(joints: Joints, others: Iterable[str], line: tuple[Spot, Spot]) -> Spot | None:
    """Return where a line meets the wall that stands most square to it of some."""
    walls = [joints.was[k] for k in others]
    met = [(_squareness(w, line), spot) for w in walls if (spot := crossing(w, line))]
    return max(met)[1] if met else None


def _squareness(wall: Wall, line: tuple[Spot, Spot]) -> float:
    (ax, ay), (bx, by) = line
    size = math.dist(wall.a, wall.b) * math.dist(*line)
    return abs((wall.b[0] - wall.a[0]) * (by - ay) - (wall.b[1] - wall.a[1]) * (bx - ax)) / size


def _all(joints: Joints, moved: set[str], by: Spot, alone: bool) -> None:
    """Move walls as one piece, and the ends that meet them."""
    for key in moved:
        wall = joints.was[key]
        joints.put_ends(key, a=shifted(wall.a, by), b=shifted(wall.b, by))
        if alone:
            continue
        touching = [e for spot in (wall.a, wall.b) for e in joints.ends_at(spot, moved)]
        touching += joints.meeting(key, moved)
        for other, its in touching:
            joints.put_ends(other, **{its: shifted(getattr(joints.was[other], its), by)})


def _hung_on(design: Design, walls: list[Wall], by: Spot) -> Iterator[Change]:
    """Yield what hangs on walls or stands at them, moved as they are: outlets, sockets, panels, racks."""
    floor, lines = walls[0].floor, [LineString([w.a, w.b]) for w in walls]
    things: list[Any] = [d for d in design.of(Device).values() if d.mount == "wall"]
    for cls in (Socket, Panel, LineEntry, EquipmentRoom):
        things += design.of(cls).values()
    for thing in things:
        if thing.floor == floor and min(line.distance(Point(thing.at)) for line in lines) <= _BESIDE_M:
            x, y = shifted(thing.at, by)
            yield put(thing.model_copy(update={"at": (round(x, 4), round(y, 4))}))


def bend(design: Design, gesture: Bend) -> list[Change]:
    wall = known(design, gesture.wall)
    joints = Joints(design, wall.floor)
    _put_end(joints, wall, gesture.end, gesture.to, gesture.alone)
    return joints.changes()


def _put_end(joints: Joints, wall: Wall, end: End, to: Spot, alone: bool = False) -> None:
    ends = [(wall.id, end)] if alone else list(joints.ends_at(getattr(wall, end)))
    for key, its in ends:
        joints.put_ends(key, **{its: to})
    if alone:
        return
    bent = {key for key, _ in ends}
    for key in bent:
        was, now = joints.was[key], joints.now[key]
        for other, its in joints.meeting(key, bent):
            spot: Spot = getattr(joints.was[other], its)
            share = math.dist(was.a, spot) / was.length_m
            on_its_line = _within(crossing(joints.was[other], (now.a, now.b)), now)
            joints.put_ends(other, **{its: on_its_line or along(now, share * now.length_m)})


def _within(spot: Spot | None, wall: Wall) -> Spot | None:
    if spot is None or LineString([wall.a, wall.b]).distance(Point(spot)) > _IN_LINE_M:
        return None
    return spot


def measure(design: Design, gesture: Measure) -> list[Change]:
    wall = known(design, gesture.wall)
    start, end = (wall.a, wall.b) if gesture.hold == "a" else (wall.b, wall.a)
    length = wall.length_m if gesture.length_m is None else gesture.length_m
    turn = math.atan2(end[0] - start[0], end[1] - start[1])
    if gesture.angle_deg is not None:
        turn = math.radians(gesture.angle_deg)
    to = (start[0] + math.sin(turn) * length, start[1] + math.cos(turn) * length)
    joints = Joints(design, wall.floor)
    _put_end(joints, wall, "b" if gesture.hold == "a" else "a", to)
    return joints.changes()
