"""The route and length of one run, from the equipment room to a device."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Protocol

import numpy as np
from shapely.geometry import LineString

from ..base.frozen import Frozen
from ..design import EquipmentRoom, Point, Spot
from .lattice import OVERHEADS, Storey, turned, void_z_m
from .ways import STUB_NODES, Ways, onward

_SAME_M = 2e-3
_STRAIGHT_M2 = 2e-3  # coordinates are rounded to the millimetre
LEAST_OUTDOOR_M = 0.1  # through the wall a device hangs on


class Terminal(Protocol):
    """Where a link ends: a device, or a rack."""

    @property
    def floor(self) -> str: ...

    @property
    def at(self) -> Point: ...

    @property
    def height_m(self) -> float: ...


@dataclass(frozen=True)
class RackEnd:
    """An equipment room as the far end of a link."""

    floor: str
    at: Point
    height_m: float

    @classmethod
    def of(cls, room: EquipmentRoom) -> RackEnd:
        return cls(room.floor, room.at, room.rack_height_m)


class Leg(Frozen):
    """A stretch of a route on one floor in one kind of space; length in m.

    ``way`` is the riser or duct it goes through.
    """

    floor: str
    kind: str
    length_m: float
    points: tuple[Spot, ...]
    way: str | None = None


class Route(Frozen):
    """A whole route. Lengths in m: ``outdoor_m`` in air outside, ``duct_m`` in the ground.

    ``spaces_m`` is the length in each kind of space; rise and drop count as in the room.
    """

    legs: tuple[Leg, ...]
    horizontal_m: float
    rise_m: float
    drop_m: float
    outdoor_m: float
    duct_m: float
    between_buildings: bool
    spaces_m: dict[str, float]

    @property
    def route_m(self) -> float:
        return self.horizontal_m + self.rise_m + self.drop_m + self.duct_m


def route_to(ways: Ways, end: Terminal, through: Sequence[tuple[str, Point]] = ()) -> Route | None:
    """Return the cheapest route to work, or None where no way leads to the end.

    Args:
        through: storeys and spots that it goes by, in their order from the rack.

    References:
        Dijkstra, shortest paths from one rack to all ends; costs in m of free ceiling.
    """
    storey = ways.storeys.get(end.floor)
    if storey is None or ways.source < 0:
        return None
    here, nodes = ways, list[int]()
    for floor, at in through:
        by = ways.storeys.get(floor)
        if by is None:
            return None
        node = by.nearest(at)
        layer = 0 if here.cost[node] <= here.cost[node + ways.nodes] else ways.nodes
        if not math.isfinite(here.cost[node + layer]):
            return None
        nodes += _trace(here, node + layer)[len(nodes) > 0 :]
        here = onward(ways, node)
    last, stub_m = _arrive(here, storey, end)
    if last < 0:
        return None
    nodes += _trace(here, last)[len(nodes) > 0 :]
    legs = [*_rise(ways), *_walk(ways, nodes)]
    legs += _stub(storey, nodes[-1], end.at, stub_m)
    legs += _drop(ways, storey, nodes[-1], end)
    return _sum(ways, legs)


def _arrive(ways: Ways, storey: Storey, end: Terminal) -> tuple[int, float]:
    """Return the node from which the end is reached at least cost, and the length of stub."""
    distance = storey.apart_m(end.at)
    count = min(STUB_NODES, len(distance))
    near = np.argpartition(distance, count - 1)[:count]
    cost = np.minimum(ways.cost[storey.first + near], ways.cost[storey.first + near + ways.nodes])
    total = cost + distance[near] * (1.0 if ways.shortest else ways.rules["cabling.cost_per_m.stub"])
    room = ways.plan.room_at(end.floor, end.at)
    if ways.shortest and room is not None and not room.outdoor:
        over_z = void_z_m(ways.plan, room, storey.floor, ways.void_m)
        total += np.abs(np.array([storey.height_m(storey.first + int(n)) for n in near]) - over_z)
    best = int(total.argmin())
    if not math.isfinite(total[best]):
        return -1, 0.0
    node = storey.first + int(near[best])
    layer = 0 if ways.cost[node] <= ways.cost[node + ways.nodes] else ways.nodes
    return node + layer, float(distance[near[best]])


def _trace(ways: Ways, end: int) -> list[int]:
    """Return the nodes from the rack to ``end``, each once, without the layer."""
    path: list[int] = []
    node = end
    while node >= 0:
        plain = ways.plain(node)
        if not path or path[-1] != plain:
            path.append(plain)
        node = int(ways.previous[node])
    return path[::-1]


def _rise(ways: Ways) -> list[Leg]:
    """Return the way from the rack up into the void."""
    room = ways.room
    storey = ways.storeys[room.floor]
    rack_z = storey.elevation_m + room.rack_height_m
    aside = storey.aside_m(ways.source, room.at)
    rise = abs(storey.height_m(ways.source) - rack_z)
    points = _square(storey, room.at, storey.spot(ways.source))
    return [Leg(floor=room.floor, kind="rise", length_m=rise + aside, points=points)]


def _drop(ways: Ways, storey: Storey, node: int, end: Terminal) -> list[Leg]:
    """Return the way down from the void: from the ceiling of the room that the device is in."""
    legs: list[Leg] = []
    here_z = storey.height_m(node)
    room = ways.plan.room_at(end.floor, end.at)
    if room is not None and not room.outdoor:
        over_z = void_z_m(ways.plan, room, storey.floor, ways.void_m)
        legs.append(_climb(end.floor, abs(over_z - here_z), end.at))
        here_z = over_z
    drop = abs(here_z - (storey.elevation_m + end.height_m))
    return [*legs, Leg(floor=end.floor, kind="drop", length_m=drop, points=(end.at,))]


def _climb(floor: str, length_m: float, at: Point) -> Leg:
    return Leg(floor=floor, kind="rise", length_m=length_m, points=(at,))


def _walk(ways: Ways, nodes: list[int]) -> list[Leg]:
    """Group the steps of a path into legs of one floor and one kind of space."""
    legs: list[Leg] = []
    begun = 0
    for k, (start, end) in enumerate(itertools.pairwise(nodes)):
        link = ways.links.get((start, end))
        if link is None:
            continue
        legs += _level(ways, nodes[begun : k + 1])
        legs.append(
            Leg(
                floor=ways.floor_at(start),
                kind=link.kind,
                length_m=link.length_m,
                points=link.points,
                way=link.way,
            )
        )
        begun = k + 1
    return legs + _level(ways, nodes[begun:])


def _level(ways: Ways, nodes: list[int]) -> list[Leg]:
    """Return the legs of a path that stays on one storey's lattice."""
    if len(nodes) < 2:
        return []
    storey = ways.storeys[ways.floor_at(nodes[0])]
    rows = np.array(nodes) - storey.first
    length = np.abs(np.diff(storey.uv[rows], axis=0)).sum(axis=1)
    climb = np.abs(np.diff(storey.z_m[rows]))
    kind = storey.overhead[rows[1:]]
    breaks = np.flatnonzero((climb[1:] > 0) | (kind[1:] != kind[:-1])) + 1
    legs: list[Leg] = []
    floor = storey.floor.id
    for first, last in itertools.pairwise([0, *breaks.tolist(), len(length)]):
        points = np.round(storey.xy[rows[first : last + 1]], 3)
        if climb[first] > 0:
            legs.append(_climb(floor, float(climb[first]), storey.spot(nodes[first])))
        legs.append(
            Leg(
                floor=floor,
                kind=OVERHEADS[kind[first]],
                length_m=float(length[first:last].sum()),
                points=_corners(points),
            )
        )
    return legs


def _corners(points: Any) -> tuple[Point, ...]:
    """Return a path's ends and the points at which it turns."""
    path = np.asarray(points, dtype=np.float64)
    # Lines that all but coincide give a spot twice, and a step of nothing hides the turn at it.
    moved = np.abs(np.diff(path, axis=0)).max(axis=1, initial=0.0) > _SAME_M
    path = path[np.concatenate([[True], moved[:-1], [True]])] if len(path) > 2 else path
    step = np.diff(path, axis=0)
    turn = step[:-1, 0] * step[1:, 1] - step[:-1, 1] * step[1:, 0]
    back = (step[:-1] * step[1:]).sum(axis=1) < 0  # led by a spot and back the way it came
    kept = np.concatenate([[True], (np.abs(turn) > _STRAIGHT_M2) | back, [True]])
    return tuple((float(x), float(y)) for x, y in path[kept])


def _square(storey: Storey, start: Point, end: Point) -> tuple[Point, ...]:
    """Return the corner points of a way square to the building."""
    (u, _), (_, v) = turned(end, -storey.turn), turned(start, -storey.turn)
    x, y = turned((float(u), float(v)), storey.turn)
    corner = round(float(x), 3), round(float(y), 3)
    if min(math.dist(corner, start), math.dist(corner, end)) < 0.002:
        return start, end
    return start, corner, end


def _stub(storey: Storey, node: int, at: Point, length_m: float) -> list[Leg]:
    """Return the last stretch from the lattice to above the device, indoors and outdoors."""
    if length_m <= 0:
        return []
    points = _square(storey, storey.spot(node), at)
    line = LineString(points)
    indoor = length_m
    if not storey.inside.covers(line):
        indoor = min(length_m, float(line.intersection(storey.inside).length))
    outdoor = length_m - indoor
    legs = [Leg(floor=storey.floor.id, kind=storey.kind(node), length_m=indoor, points=points)]
    if outdoor > LEAST_OUTDOOR_M:
        legs.append(Leg(floor=storey.floor.id, kind="outdoor", length_m=outdoor, points=()))
    else:
        legs = [legs[0].model_copy(update={"length_m": length_m})]
    return legs


def _joined(legs: list[Leg]) -> tuple[Leg, ...]:
    """Make one leg of two that follow each other in one kind of space on one floor."""
    joined: list[Leg] = []
    for leg in legs:
        last = joined[-1] if joined else None
        same = last and (last.floor, last.kind, last.way) == (leg.floor, leg.kind, leg.way)
        if last and same and leg.points and last.points:
            points = _corners([*last.points, *leg.points[1:]])
            length = last.length_m + leg.length_m
            joined[-1] = last.model_copy(update={"points": points, "length_m": length})
        else:
            joined.append(leg)
    return tuple(joined)


def _sum(ways: Ways, legs: list[Leg]) -> Route:
    def total(*kinds: str) -> float:
        return round(sum(leg.length_m for leg in legs if leg.kind in kinds), 3)

    kept = _joined([leg for leg in legs if leg.length_m > 0 or leg.kind == "drop"])
    floors = {leg.floor: ways.storeys[leg.floor].floor for leg in kept}
    buildings = {floor.building for floor in floors.values()}
    spaces_m: dict[str, float] = {}
    for leg in kept:
        space = _space(leg.kind, floors[leg.floor].level)
        spaces_m[space] = spaces_m.get(space, 0.0) + leg.length_m
    return Route(
        legs=kept,
        horizontal_m=total(*OVERHEADS, "outdoor"),
        rise_m=total("rise", "riser"),
        drop_m=total("drop"),
        outdoor_m=total("outdoor"),
        duct_m=total("duct"),
        between_buildings=len(buildings) > 1,
        spaces_m=spaces_m,
    )


def _space(kind: str, level: int) -> str:
    """Return the kind of space a leg's temperature is planned by; below ground it is cool."""
    if level < 0 and kind not in ("outdoor", "duct"):
        return "basement"
    return "room" if kind in ("rise", "drop") else kind
