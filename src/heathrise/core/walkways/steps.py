"""Steps from cell to cell, flights of stairs, the slopes between grounds of other heights."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Sequence
from typing import Any

import numpy as np
import shapely
from scipy.sparse import csr_array
from shapely.geometry import Point
from shapely.ops import unary_union

from ..context.storeys import Storeys
from ..design import Space, Spot
from .planes import Flags, Plane, on_ground

THROUGH_A_WALL_M = 1_000.0  # rather any way round than through a wall
_BESIDE_STAIR_M = 0.4  # from the ends of a flight to those of its room


def steps_over(storeys: Storeys, planes: Sequence[Plane]) -> csr_array:
    """Return what each step costs in m, from cell to cell, either way: shape (cells, cells)."""
    parts: list[tuple[Any, Any, Any]] = [part for p in planes for part in _steps(p)]
    flights = [
        (lower.cell_at(low), upper.cell_at(high), metres)
        for (lower, upper), low, high, metres in _flights(storeys, planes)
    ]
    if flights:
        parts.append(tuple(map(np.array, zip(*flights, strict=True))))  # type: ignore[arg-type]
    ground = [p for p in planes if on_ground(storeys, p.floors)]
    parts += [_slope(storeys, a, b) for a, b in itertools.combinations(ground, 2)]
    a, b, cost = (np.concatenate([p[k] for p in parts]) for k in range(3))
    size = sum(p.size for p in planes)
    return csr_array((cost, (a, b)), shape=(size, size))


def _slope(storeys: Storeys, low: Plane, high: Plane) -> tuple[Any, Any, Any]:
    """Return the steps between two planes of ground, wherever both are outdoors."""
    rows, columns = np.nonzero(low.open_)
    x = low.west + (columns + 0.5) * low.cell_m
    y = low.south + (rows + 0.5) * low.cell_m
    ups = ((y - high.south) / high.cell_m).astype(int)
    outs = ((x - high.west) / high.cell_m).astype(int)
    inside = (x >= high.west) & (y >= high.south) & (ups < high.rows) & (outs < high.columns)
    indoor = [storeys.regions[f] for p in (low, high) for f in p.floors if f in storeys.regions]
    inside &= ~shapely.contains_xy(unary_union(indoor), x, y)
    rows, columns, ups, outs = rows[inside], columns[inside], ups[inside], outs[inside]
    both = high.open_[ups, outs]
    a = low.first + rows * low.columns + columns
    b = high.first + ups * high.columns + outs
    rise_m = storeys.elevation_m[high.floors[0]] - storeys.elevation_m[low.floors[0]]
    return a[both], b[both], np.full(int(both.sum()), max(low.cell_m, rise_m))


def _steps(plane: Plane) -> Iterator[tuple[Any, Any, Any]]:
    """Yield the steps of a plane: from, to, and what each costs in m."""
    numbers = plane.first + np.arange(plane.size).reshape(plane.rows, plane.columns)
    east, north = _walled(plane)
    is_open = plane.open_
    for shut, a, b in (
        (east, (slice(None), slice(None, -1)), (slice(None), slice(1, None))),
        (north, (slice(None, -1), slice(None)), (slice(1, None), slice(None))),
    ):
        free = is_open[a] & is_open[b]
        cost = plane.cell_m + THROUGH_A_WALL_M * shut
        yield numbers[a][free], numbers[b][free], cost[free]
    # A step aslant only where nothing stands on either way round its corner.
    clear = ~(east[:-1] | east[1:] | north[:, :-1] | north[:, 1:])
    clear &= is_open[:-1, :-1] & is_open[1:, 1:] & is_open[:-1, 1:] & is_open[1:, :-1]
    aslant = np.full(int(clear.sum()), plane.cell_m * math.sqrt(2))
    yield numbers[:-1, :-1][clear], numbers[1:, 1:][clear], aslant
    yield numbers[:-1, 1:][clear], numbers[1:, :-1][clear], aslant


def _walled(plane: Plane) -> tuple[Flags, Flags]:
    """Return whether a wall stands east of each cell, and north of it."""
    east = np.zeros((plane.rows, plane.columns - 1), dtype=bool)
    north = np.zeros((plane.rows - 1, plane.columns), dtype=bool)
    for line in plane.solid.geometries:
        (ax, ay), (bx, by) = line.coords
        # In cells, with whole numbers at their middles.
        ax, bx = ((v - plane.west) / plane.cell_m - 0.5 for v in (ax, bx))
        ay, by = ((v - plane.south) / plane.cell_m - 0.5 for v in (ay, by))
        _cross(east, ax, ay, bx, by)
        _cross(north.T, ay, ax, by, bx)
    return east, north


def _cross(shut: Flags, ax: float, ay: float, bx: float, by: float) -> None:
    """Shut the steps along x that a line crosses, row by row; a step has the number of the cell
    that it begins in."""
    low, high = math.ceil(min(ay, by)), math.floor(max(ay, by))
    if by == ay or high < low:
        return
    rows = np.arange(low, high + 1)
    steps = np.floor(ax + (rows - ay) / (by - ay) * (bx - ax)).astype(int)
    inside = (steps >= 0) & (steps < shut.shape[1]) & (rows >= 0) & (rows < shut.shape[0])
    shut[rows[inside], steps[inside]] = True


def _flights(
    storeys: Storeys, planes: Sequence[Plane]
) -> Iterator[tuple[tuple[Plane, Plane], Spot, Spot, float]]:
    """Yield the flights of stairs, up from either end of their room."""
    of = {f: p for p in planes for f in p.floors}
    for floor, rows in storeys.rooms.items():
        for space, polygon in rows:
            up = _up_from(storeys, space, polygon)
            if not space.stairs or up is None:
                continue
            ends = _ends(polygon)
            rise_m = storeys.elevation_m[up] - storeys.elevation_m[floor]
            metres = math.hypot(math.dist(*ends), rise_m)
            for low, high in (ends, ends[::-1]):
                yield (of[floor], of[up]), low, high, metres


def _up_from(storeys: Storeys, space: Space, polygon: Any) -> str | None:
    """Return the storey that a stair leads to: that over it, else the building's next."""
    over = storeys.above(space.floor, polygon)
    if over:
        return over[0]
    ordered = storeys.ordered(storeys.floors[space.floor].building)
    return next(iter(ordered[ordered.index(space.floor) + 1 :]), None)


def _ends(polygon: Any) -> tuple[Spot, Spot]:
    """Return the ends of the middle line along a room, within it."""
    corners = list(polygon.minimum_rotated_rectangle.exterior.coords)
    sides = [(math.dist(corners[k], corners[k + 1]), k) for k in (0, 1)]
    (short, k), (long, _) = min(sides), max(sides)
    a, b = (tuple((corners[n % 4][i] + corners[(n + 1) % 4][i]) / 2 for i in (0, 1)) for n in (k, k + 2))
    share = min(0.45, max(_BESIDE_STAIR_M, short / 4) / long)
    low, high = (tuple(p[i] + share * (q[i] - p[i]) for i in (0, 1)) for p, q in ((a, b), (b, a)))
    inside = [polygon.contains(Point(p)) for p in (low, high)]
    if not all(inside):
        spot = polygon.representative_point()
        low = high = (spot.x, spot.y)
    return (low[0], low[1]), (high[0], high[1])
