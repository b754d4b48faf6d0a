"""One storey's part of the ways: square lattices that lie along the building.

Each group of rooms that hangs together has a lattice of its own, so that rooms far apart cost no
more than their areas. Lines run through the rack, the risers and the ducts' ends, so that a
straight way is as long as it is.
"""

from __future__ import annotations

import cmath
import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon
from shapely.ops import unary_union

from ..context.storeys import Storeys
from ..design import Floor, Overhead, Point, Space

Array = NDArray[np.float64]
Ints = NDArray[np.int64]

LATTICE_M = 0.5
OVERHEADS: tuple[Overhead, ...] = ("ceiling_void", "attic", "joists", "raceway", "plenum")
_JOINED_M = 0.05  # rooms drawn this near to one another hang together
_SAME_LINE = 0.4  # of a step: a line so near to a terminal's is moved onto it


@dataclass(frozen=True, eq=False)
class Storey:
    """One floor's nodes, at first on a plain lattice.

    ``xy`` holds positions on the site in m, ``uv`` the same turned along the building, ``z_m`` the
    height of the void over each. ``start`` and ``end`` are the nodes of each edge, ``north``
    says which of the two directions it runs in.
    """

    floor: Floor
    turn: float
    elevation_m: float
    first: int
    xy: Array
    uv: Array
    z_m: Array
    overhead: NDArray[np.int8]
    start: Ints
    end: Ints
    north: NDArray[np.bool_]
    inside: Any

    @cached_property
    def edges(self) -> Any:
        """The edges as a tree of lines, for asking which of them a wall crosses."""
        ends = np.stack([self.xy[self.start], self.xy[self.end]], axis=1)
        return shapely.STRtree(shapely.linestrings(ends))

    def nearest(self, at: Point) -> int:
        """Return the number of the node nearest to a point."""
        return self.first + int(self.apart_m(at).argmin())

    def apart_m(self, at: Point) -> Array:
        """Return how far along the building's two directions each node lies from a point."""
        u, v = turned(at, -self.turn)
        return np.asarray(np.abs(self.uv[:, 0] - u) + np.abs(self.uv[:, 1] - v))

    def aside_m(self, node: int, at: Point) -> float:
        """Return how far along the building's two directions one node lies from a point."""
        u, v = turned(at, -self.turn)
        x, y = self.uv[node - self.first]
        return float(abs(x - u) + abs(y - v))

    def spot(self, node: int) -> Point:
        x, y = self.xy[node - self.first]
        return round(float(x), 3), round(float(y), 3)

    def height_m(self, node: int) -> float:
        return float(self.z_m[node - self.first])

    def kind(self, node: int) -> Overhead:
        kind: Overhead = OVERHEADS[self.overhead[node - self.first]]
        return kind


def turned(at: Point, radians: float) -> Array:
    """Return a point turned anticlockwise round the site's zero."""
    c, s = math.cos(radians), math.sin(radians)
    return np.array([at[0] * c - at[1] * s, at[0] * s + at[1] * c])


def direction_of(outlines: Iterable[Sequence[Point]]) -> float:
    """Return the angle in radians, within a right angle, along which most of a plan is drawn."""
    total = 0j
    for outline in outlines:
        for (ax, ay), (bx, by) in zip(outline, (*outline[1:], outline[0]), strict=True):
            side = complex(bx - ax, by - ay)
            # Directions a quarter turn apart count as one.
            total += abs(side) * cmath.exp(4j * cmath.phase(side))
    return cmath.phase(total) / 4 if abs(total) > 1e-9 else 0.0


def storey_of(
    storeys: Storeys,
    floor: Floor,
    turn: float,
    first: int,
    step_m: float,
    through: list[Point],
    void_m: float,
) -> Storey | None:
    """Return a floor's lattice, or None for a floor without rooms.

    Args:
        turn: the direction of the building, radians.
        through: spots that have lines of their own.
        void_m: how high above a ceiling cable runs.
    """
    rooms = [(s, p) for s, p in storeys.rooms.get(floor.id, []) if not s.outdoor]
    if not rooms:
        return None
    inside = unary_union([p.buffer(_JOINED_M, join_style="mitre") for _, p in rooms])
    shapely.prepare(inside)
    lines = [turned(p, -turn) for p in through]
    parts = [_part(g, turn, step_m, lines) for g in getattr(inside, "geoms", [inside])]
    uv = np.concatenate([p[0] for p in parts])
    if not len(uv):
        return None
    counts = np.cumsum([0, *(len(p[0]) for p in parts)])
    start, end, north = (
        np.concatenate([p[k] + (counts[i] if k < 3 else 0) for i, p in enumerate(parts)]) for k in (1, 2, 3)
    )
    c, s = math.cos(turn), math.sin(turn)
    xy = uv @ np.array([[c, s], [-s, c]])
    overhead = np.full(len(xy), OVERHEADS.index(floor.overhead), dtype=np.int8)
    low_m = storeys.elevation_m[floor.id]
    z_m = np.full(len(xy), low_m + floor.ceiling_height_m + void_m)
    for space, polygon in rooms:
        if space.overhead is None and space.ceiling_height_m is None:
            continue
        held = shapely.contains_xy(polygon, xy[:, 0], xy[:, 1])
        if space.overhead is not None:
            overhead[held] = OVERHEADS.index(space.overhead)
        z_m[held] = void_z_m(storeys, space, floor, void_m)
    return Storey(floor, turn, low_m, first, xy, uv, z_m, overhead, start, end, north, inside)


def void_z_m(storeys: Storeys, space: Space | None, floor: Floor, void_m: float) -> float:
    """Return the height in m above the site's zero at which cable runs over a room."""
    ceiling_m = storeys.ceiling_m(space, floor.id)
    return storeys.elevation_m[floor.id] + ceiling_m + void_m


def _part(
    area: Any, turn: float, step_m: float, through: list[Array]
) -> tuple[Array, Ints, Ints, NDArray[np.bool_]]:
    """Return nodes, and edges by their ends, of one group of rooms."""
    corners = np.asarray(area.exterior.coords) if isinstance(area, Polygon) else np.empty((0, 2))
    c, s = math.cos(-turn), math.sin(-turn)
    local = corners @ np.array([[c, s], [-s, c]])
    (west, south), (east, north) = local.min(axis=0), local.max(axis=0)
    near = [
        p
        for p in through
        if west - step_m <= p[0] <= east + step_m and south - step_m <= p[1] <= north + step_m
    ]
    us = _lines(west + _JOINED_M, east - _JOINED_M, step_m, [p[0] for p in near])
    vs = _lines(south + _JOINED_M, north - _JOINED_M, step_m, [p[1] for p in near])
    u, v = np.meshgrid(us, vs)
    back = np.column_stack([u.ravel(), v.ravel()]) @ np.array([[c, -s], [s, c]])
    held = shapely.contains_xy(area, back[:, 0], back[:, 1]).reshape(u.shape)
    index = np.full(u.shape, -1, dtype=np.int64)
    index[held] = np.arange(held.sum())
    starts, ends, norths = [], [], []
    for here, there, is_north in ((index[:, :-1], index[:, 1:], False), (index[:-1, :], index[1:, :], True)):
        joined = (here >= 0) & (there >= 0)
        starts.append(here[joined])
        ends.append(there[joined])
        norths.append(np.full(int(joined.sum()), is_north))
    return (
        np.column_stack([u[held], v[held]]),
        np.concatenate(starts),
        np.concatenate(ends),
        np.concatenate(norths),
    )


def _lines(low: float, high: float, step_m: float, through: list[float]) -> Array:
    """Return lines spread evenly, alike from either end, those asked for among them."""
    count = max(1, round((high - low) / step_m))
    step = (high - low) / count
    even = low + step * (np.arange(count) + 0.5)
    wanted = sorted(p for p in through if low <= p <= high)
    kept: list[float] = []
    for line in wanted:
        if not kept or line - kept[-1] > 1e-6:
            kept.append(line)
    if not kept:
        return np.asarray(even)
    gap = np.abs(even[:, None] - np.array(kept)[None, :]).min(axis=1)
    return np.sort(np.concatenate([even[gap > _SAME_LINE * step], kept]))
