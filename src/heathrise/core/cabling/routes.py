"""The route and length of one run, from the equipment room to a device."""

from __future__ import annotations

import itertools
import math

import numpy as np
from pydantic import BaseModel, ConfigDict
from shapely.geometry import LineString

from ..design import Device, Point
from .ways import OVERHEADS, STUB_COST_PER_M, STUB_NODES, Storey, Ways, void_z_m


class Leg(BaseModel):
    """A stretch of a route on one floor in one kind of space; length in m."""

    model_config = ConfigDict(frozen=True)

    floor: str
    kind: str
    length_m: float
    points: tuple[Point, ...]


class Route(BaseModel):
    """A whole route. Lengths in m: ``outdoor_m`` in air outside, ``duct_m`` in the ground."""

    model_config = ConfigDict(frozen=True)

    legs: tuple[Leg, ...]
    horizontal_m: float
    rise_m: float
    drop_m: float
    outdoor_m: float
    duct_m: float
    between_buildings: bool

    @property
    def route_m(self) -> float:
        return self.horizontal_m + self.rise_m + self.drop_m + self.duct_m

    def lengths_by_space_m(self) -> dict[str, float]:
        """Return the length in each kind of space; rise and drop count as in the room."""
        lengths: dict[str, float] = {}
        for leg in self.legs:
            kind = "room" if leg.kind in ("rise", "drop") else leg.kind
            kind = "duct" if kind == "outdoor" else kind
            lengths[kind] = lengths.get(kind, 0.0) + leg.length_m
        return lengths


def route_to(ways: Ways, device: Device) -> Route | None:
    """Return the cheapest route to work, or None where no way leads to the device."""
    storey = ways.storeys.get(device.floor)
    if storey is None or ways.room is None or ways.source < 0:
        return None
    end, stub_m = _arrive(ways, storey, device.at)
    if end < 0:
        return None
    nodes = _trace(ways, end)
    legs = [_rise(ways)]
    legs += _walk(ways, nodes)
    legs += _stub(storey, nodes[-1], device.at, stub_m)
    drop = abs(storey.void_z_m - (storey.floor.elevation_m + device.height_m))
    legs.append(Leg(floor=device.floor, kind="drop", length_m=drop, points=(device.at,)))
    return _sum(ways, legs)


def _arrive(ways: Ways, storey: Storey, at: Point) -> tuple[int, float]:
    """Return the node from which the device is reached at least cost, and the length of stub."""
    distance = np.abs(storey.xy - np.array(at)).sum(axis=1)
    count = min(STUB_NODES, len(distance))
    near = np.argpartition(distance, count - 1)[:count]
    cost = np.minimum(ways.cost[storey.first + near], ways.cost[storey.first + near + ways.nodes])
    total = cost + distance[near] * STUB_COST_PER_M
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
        plain = node % ways.nodes
        if not path or path[-1] != plain:
            path.append(plain)
        node = int(ways.previous[node])
    return path[::-1]


def _rise(ways: Ways) -> Leg:
    room = ways.room
    assert room is not None
    storey = ways.storeys[room.floor]
    rack_z = storey.floor.elevation_m + room.rack_height_m
    here = _at(storey, ways.source)
    aside = abs(here[0] - room.at[0]) + abs(here[1] - room.at[1])
    rise = abs(void_z_m(storey.floor) - rack_z)
    points = _square(room.at, here)
    return Leg(floor=room.floor, kind="rise", length_m=rise + aside, points=points)


def _at(storey: Storey, node: int) -> Point:
    x, y = storey.xy[node - storey.first]
    return round(float(x), 3), round(float(y), 3)


def _kind(storey: Storey, node: int) -> str:
    return OVERHEADS[storey.overhead[node - storey.first]]


def _walk(ways: Ways, nodes: list[int]) -> list[Leg]:
    """Group the steps of a path into legs of one floor and one kind of space."""
    legs: list[Leg] = []
    floor, kind, length = "", "", 0.0
    points: list[Point] = []

    def close() -> None:
        if len(points) > 1:
            legs.append(Leg(floor=floor, kind=kind, length_m=length, points=_corners(points)))

    for start, end in itertools.pairwise(nodes):
        link = ways.links.get((start, end))
        if link is not None:
            close()
            points, length, kind = [], 0.0, ""
            from_floor = ways.floor_of[start]
            legs.append(
                Leg(floor=from_floor, kind=link.kind, length_m=link.length_m, points=link.points)
            )
            continue
        storey = ways.storeys[ways.floor_of[start]]
        here, there = _at(storey, start), _at(storey, end)
        if (storey.floor.id, _kind(storey, end)) != (floor, kind) or not points:
            close()
            floor, kind, points, length = storey.floor.id, _kind(storey, end), [here], 0.0
        points.append(there)
        length += math.dist(here, there)
    close()
    return legs


def _corners(points: list[Point]) -> tuple[Point, ...]:
    kept = [points[0]]
    for before, here, after in zip(points, points[1:], points[2:], strict=False):
        turn = (here[0] - before[0]) * (after[1] - here[1])
        turn -= (here[1] - before[1]) * (after[0] - here[0])
        if abs(turn) > 1e-9:
            kept.append(here)
    return (*kept, points[-1])


def _square(start: Point, end: Point) -> tuple[Point, ...]:
    corner = (end[0], start[1])
    return (start, end) if corner in (start, end) else (start, corner, end)


def _stub(storey: Storey, node: int, at: Point, length_m: float) -> list[Leg]:
    """Return the last stretch from the lattice to above the device, indoors and outdoors."""
    if length_m <= 0:
        return []
    points = _square(_at(storey, node), at)
    line = LineString(points)
    indoor = float(line.intersection(storey.inside).length)
    outdoor = line.length - indoor
    kind = _kind(storey, node)
    legs = [Leg(floor=storey.floor.id, kind=kind, length_m=indoor, points=points)]
    if outdoor > 0.1:
        legs.append(Leg(floor=storey.floor.id, kind="outdoor", length_m=outdoor, points=()))
    return legs


def _joined(legs: list[Leg]) -> tuple[Leg, ...]:
    """Make one leg of two that follow each other in one kind of space on one floor."""
    joined: list[Leg] = []
    for leg in legs:
        last = joined[-1] if joined else None
        if last and leg.points and (last.floor, last.kind) == (leg.floor, leg.kind):
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
    buildings = {ways.storeys[leg.floor].floor.building for leg in kept}
    ends = {ways.storeys[kept[0].floor].floor.building, ways.storeys[kept[-1].floor].floor.building}
    return Route(
        legs=kept,
        horizontal_m=total(*OVERHEADS, "outdoor"),
        rise_m=total("rise", "riser"),
        drop_m=total("drop"),
        outdoor_m=total("outdoor"),
        duct_m=total("duct"),
        between_buildings=len(buildings | ends) > 1,
    )
