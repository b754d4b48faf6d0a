"""The ways a cable can take: a lattice through every void, joined by risers and ducts.

Cables run square to the building, so the lattice has two layers, one for each direction, and a
turn from one to the other costs a little. An edge's cost is its length times what the space is
to work in, plus what breaking through masonry costs; the route is the cheapest to work.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray
from scipy.sparse import coo_array
from scipy.sparse.csgraph import dijkstra
from shapely.geometry import Polygon
from shapely.ops import unary_union

from ..catalogue import Catalogue
from ..design import (
    Design,
    Duct,
    EquipmentRoom,
    Floor,
    Overhead,
    Point,
    Riser,
    Space,
    Wall,
)
from ..memo import IdentityMemo

Array = NDArray[np.float64]

LATTICE_M = 0.5
VOID_ABOVE_CEILING_M = 0.2
COST_PER_M: dict[Overhead, float] = {
    "ceiling_void": 1.0,
    "attic": 1.6,
    "joists": 2.5,
    "raceway": 1.8,
}
MASONRY_COST = 8.0
TURN_COST = 0.75
RISER_COST_PER_M = 1.0
DUCT_COST_PER_M = 1.0
STUB_COST_PER_M = 1.05
STUB_NODES = 12
MOST_NODES = 60_000


@dataclass(frozen=True)
class Storey:
    """One floor's part of the lattice: node positions in m and the kind of space at each."""

    floor: Floor
    first: int
    xy: Array
    overhead: NDArray[np.int8]
    inside: Any

    @property
    def void_z_m(self) -> float:
        return void_z_m(self.floor)


@dataclass(frozen=True)
class Link:
    """A riser's or duct's way between two nodes: kind, length in m and the points in between."""

    kind: str
    length_m: float
    points: tuple[Point, ...]


@dataclass(eq=False)
class Ways:
    """The lattice of a design with the cheapest way from the equipment room to every node."""

    storeys: dict[str, Storey]
    cost: Array
    previous: NDArray[np.int32]
    links: dict[tuple[int, int], Link]
    room: EquipmentRoom | None
    nodes: int = 0
    source: int = -1
    floor_of: list[str] = field(default_factory=list)


OVERHEADS: tuple[Overhead, ...] = ("ceiling_void", "attic", "joists", "raceway")
_ways: IdentityMemo[Ways] = IdentityMemo(8)


def void_z_m(floor: Floor) -> float:
    """Return the height in m above site zero at which cable runs over a floor."""
    return floor.elevation_m + floor.ceiling_height_m + VOID_ABOVE_CEILING_M


def ways_of(design: Design, catalogue: Catalogue) -> Ways:
    """Return the ways of a design; the same object as long as nothing they rest on changes."""
    kinds = (Wall, Floor, Space, Riser, Duct, EquipmentRoom)
    parts = tuple(design.of(cls) for cls in kinds)
    return _ways.get(parts, None, lambda: _make(design, catalogue))


def _make(design: Design, catalogue: Catalogue) -> Ways:
    storeys: dict[str, Storey] = {}
    count = 0
    step = _lattice_step_m(design)
    for floor in design.of(Floor).values():
        storey = _storey(design, floor, count, step)
        if storey is not None:
            storeys[floor.id] = storey
            count += len(storey.xy)
    rooms = list(design.of(EquipmentRoom).values())
    ways = Ways(storeys, np.empty(0), np.empty(0, np.int32), {}, rooms[0] if rooms else None)
    ways.nodes = count
    ways.floor_of = [s.floor.id for s in storeys.values() for _ in range(len(s.xy))]
    if ways.room is None or ways.room.floor not in storeys:
        return ways
    edges = [_turns(count)]
    for storey in storeys.values():
        edges += _lattice_edges(storey, step, _masonry(design, catalogue, storey.floor.id), count)
    edges += list(_risers(design, storeys, ways.links))
    edges += list(_ducts(design, storeys, ways.links))
    source = nearest_node(storeys[ways.room.floor], ways.room.at)
    ways.source = source
    graph: Any = _graph(edges, 2 * count)
    ways.cost, ways.previous = dijkstra(  # type: ignore[call-overload]
        graph, indices=source, return_predecessors=True
    )
    return ways


def _lattice_step_m(design: Design) -> float:
    area = sum(Polygon(s.outline).area for s in design.of(Space).values() if not s.outdoor)
    return max(LATTICE_M, math.sqrt(area / MOST_NODES))


def _storey(design: Design, floor: Floor, first: int, step: float) -> Storey | None:
    spaces = [s for s in design.of(Space).values() if s.floor == floor.id and not s.outdoor]
    if not spaces:
        return None
    polygons = [Polygon(s.outline) for s in spaces]
    inside = unary_union([p.buffer(0.05, join_style="mitre") for p in polygons])
    west, south, east, north = unary_union(polygons).bounds
    xs = np.arange(west + step / 2, east, step)
    ys = np.arange(south + step / 2, north, step)
    x, y = (a.ravel() for a in np.meshgrid(xs, ys))
    shapely.prepare(inside)
    held = shapely.contains_xy(inside, x, y)
    x, y = x[held], y[held]
    if not len(x):
        return None
    overhead = np.full(len(x), OVERHEADS.index(floor.overhead), dtype=np.int8)
    for space, polygon in zip(spaces, polygons, strict=True):
        if space.overhead is not None:
            shapely.prepare(polygon)
            overhead[shapely.contains_xy(polygon, x, y)] = OVERHEADS.index(space.overhead)
    return Storey(floor, first, np.column_stack([x, y]), overhead, inside)


def _masonry(design: Design, catalogue: Catalogue, floor: str) -> Array:
    rows = [
        (*wall.a, *wall.b)
        for wall in design.of(Wall).values()
        if wall.floor == floor and catalogue.constructions[wall.construction].masonry
    ]
    return np.array(rows, dtype=np.float64).reshape(-1, 4)


Edges = tuple[NDArray[np.int64], NDArray[np.int64], Array]


def _turns(count: int) -> Edges:
    nodes = np.arange(count)
    return nodes, nodes + count, np.full(count, TURN_COST)


def _lattice_edges(storey: Storey, step: float, masonry: Array, count: int) -> list[Edges]:
    """Return the edges east (layer 0) and north (layer 1) between neighbours of one storey."""
    origin = storey.xy.min(axis=0)
    cell = np.rint((storey.xy - origin) / step).astype(np.int64)
    index = np.full(cell.max(axis=0) + 2, -1)
    index[cell[:, 0], cell[:, 1]] = np.arange(len(cell))
    per_m = np.array([COST_PER_M[k] for k in OVERHEADS])[storey.overhead]
    found: list[Edges] = []
    for layer, (east, north) in enumerate(((1, 0), (0, 1))):
        other = index[cell[:, 0] + east, cell[:, 1] + north]
        here = np.flatnonzero(other >= 0)
        there = other[here]
        cost = step * (per_m[here] + per_m[there]) / 2
        cost += MASONRY_COST * _crossings(storey.xy[here], storey.xy[there], masonry)
        offset = storey.first + layer * count
        found.append((here + offset, there + offset, cost))
    return found


def _crossings(start: Array, end: Array, walls: Array) -> Array:
    """Return how many walls (x1 y1 x2 y2) each edge crosses."""
    crossed = np.zeros(len(start))
    step = end - start
    for x1, y1, x2, y2 in walls:
        dx, dy = x2 - x1, y2 - y1
        side_start = dx * (start[:, 1] - y1) - dy * (start[:, 0] - x1)
        side_end = dx * (end[:, 1] - y1) - dy * (end[:, 0] - x1)
        side_a = step[:, 0] * (y1 - start[:, 1]) - step[:, 1] * (x1 - start[:, 0])
        side_b = step[:, 0] * (y2 - start[:, 1]) - step[:, 1] * (x2 - start[:, 0])
        crossed += ((side_start >= 0) != (side_end >= 0)) & ((side_a >= 0) != (side_b >= 0))
    return crossed


def nearest_node(storey: Storey, at: Point) -> int:
    """Return the number of the lattice node nearest to a point."""
    distance = np.abs(storey.xy - np.array(at)).sum(axis=1)
    return storey.first + int(distance.argmin())


def _risers(
    design: Design, storeys: dict[str, Storey], links: dict[tuple[int, int], Link]
) -> Iterable[Edges]:
    for riser in design.of(Riser).values():
        served = sorted(
            (
                s
                for s in storeys.values()
                if s.floor.building == riser.building
                and riser.lowest_level <= s.floor.level <= riser.highest_level
            ),
            key=lambda s: s.floor.level,
        )
        for lower, upper in itertools.pairwise(served):
            start, end = nearest_node(lower, riser.at), nearest_node(upper, riser.at)
            rise = abs(upper.void_z_m - lower.void_z_m)
            aside = _aside(lower, start, riser.at) + _aside(upper, end, riser.at)
            link = Link("riser", rise + aside, (riser.at, riser.at))
            yield _join(links, start, end, link, RISER_COST_PER_M)


def _ducts(
    design: Design, storeys: dict[str, Storey], links: dict[tuple[int, int], Link]
) -> Iterable[Edges]:
    for duct in design.of(Duct).values():
        near, far = storeys.get(duct.from_floor), storeys.get(duct.to_floor)
        if near is None or far is None:
            continue
        start, end = nearest_node(near, duct.path[0]), nearest_node(far, duct.path[-1])
        along = sum(math.dist(a, b) for a, b in zip(duct.path, duct.path[1:], strict=False))
        drops = sum(s.void_z_m - s.floor.elevation_m + duct.depth_m for s in (near, far))
        aside = _aside(near, start, duct.path[0]) + _aside(far, end, duct.path[-1])
        link = Link("duct", along + drops + aside, duct.path)
        yield _join(links, start, end, link, DUCT_COST_PER_M)


def _aside(storey: Storey, node: int, at: Point) -> float:
    return float(np.abs(storey.xy[node - storey.first] - np.array(at)).sum())


def _join(
    links: dict[tuple[int, int], Link], start: int, end: int, link: Link, cost_per_m: float
) -> Edges:
    links[start, end] = link
    links[end, start] = Link(link.kind, link.length_m, link.points[::-1])
    cost = np.array([link.length_m * cost_per_m])
    return np.array([start]), np.array([end]), cost


def _graph(edges: Iterable[Edges], nodes: int) -> Any:
    starts, ends, costs = (np.concatenate(part) for part in zip(*edges, strict=True))
    rows = np.concatenate([starts, ends])
    columns = np.concatenate([ends, starts])
    graph = coo_array((np.concatenate([costs, costs]), (rows, columns)), shape=(nodes, nodes))
    return graph.tocsr()
