"""From a place that walls close to a room's outline, and how alike two places are."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import Any

import numpy as np
import shapely
from scipy.spatial import cKDTree
from shapely.geometry import LineString, Polygon
from shapely.ops import nearest_points

from .net import Point

SLIT_M = 0.01  # an outline is one line: round what stands in a room's middle it goes there and back
STRAIGHT_M = 0.003  # a corner that bends less is none
SAME_M = 0.005
MOST_CORNERS = 500


def outline_of(place: Any) -> tuple[Point, ...] | None:
    """Return a place's corners, against the clock; None where it has more than an outline may hold.

    Round an island in its middle the outline goes along a slit of ``SLIT_M``.
    """
    whole = place
    for hole in place.interiors:
        whole = _slit(whole, Polygon(hole))
    if whole.geom_type != "Polygon" or len(whole.interiors):
        return None
    ring = _straightened(list(shapely.orient_polygons(whole).exterior.coords)[:-1])
    corners = tuple((round(x, 4), round(y, 4)) for x, y in ring)
    return corners if 3 <= len(corners) <= MOST_CORNERS and Polygon(corners).is_valid else None


def _slit(place: Any, island: Any) -> Any:
    """Open a way from what lies around a place to an island in it."""
    others = [shapely.LinearRing(place.exterior.coords)]
    start, end = nearest_points(island, others[0])
    way = LineString([start, end])
    if way.length == 0:
        return place
    cut = way.buffer(SLIT_M / 2, cap_style="square")
    opened = place.difference(cut)
    return max(opened.geoms, key=lambda p: p.area) if opened.geom_type == "MultiPolygon" else opened


def _straightened(ring: list[Point]) -> list[Point]:
    """Leave out corners at which the line goes on straight, such as where a wall meets it."""
    kept = list(ring)
    k = 0
    while len(kept) > 3 and k < len(kept):
        before, at, after = kept[k - 1], kept[k], kept[(k + 1) % len(kept)]
        if _off(before, at, after) < STRAIGHT_M:
            kept.pop(k)
            k = max(k - 1, 0)
        else:
            k += 1
    return kept


def _off(a: Point, point: Point, b: Point) -> float:
    """Return how far in m a point lies off the stretch from a to b; of one that turns back, infinite."""
    (ax, ay), (px, py), (bx, by) = a, point, b
    size = math.dist(a, b)
    if size == 0:
        return math.inf
    if (px - ax) * (bx - px) + (py - ay) * (by - py) < 0:
        return math.inf
    return abs((bx - ax) * (py - ay) - (by - ay) * (px - ax)) / size


def pairs(ones: Sequence[Any], others: Sequence[Any], least: float) -> Iterator[tuple[int, int, float]]:
    """Yield (row, row, by how much) of those of two lists that are so alike; not each is tried with each."""
    if not len(ones) or not len(others):
        return
    near = shapely.STRtree(others).query(ones, predicate="intersects")
    areas, theirs = shapely.area(ones)[near[0]], shapely.area(others)[near[1]]
    likely = np.minimum(areas, theirs) >= least * np.maximum(areas, theirs)
    for one, other in near[:, likely].T.tolist():
        by = alike(ones[one], others[other])
        if by >= least:
            yield one, other, by


def twins(ones: Sequence[Any], others: Sequence[Any]) -> dict[int, int]:
    """Return the row of the other list that is the same place, for each that has one."""
    if not len(ones) or not len(others):
        return {}
    near = cKDTree(shapely.bounds(others)).query_ball_point(shapely.bounds(ones), SAME_M, p=np.inf)
    rows = [(one, k) for one, found in enumerate(near) for k in found]
    if not rows:
        return {}
    mine, theirs = np.array(rows).T
    are = _same(np.array(ones, dtype=object)[mine], np.array(others, dtype=object)[theirs])
    # The first of several is taken, as by hand.
    return {one: k for (one, k), is_one in reversed(list(zip(rows, are.tolist(), strict=True))) if is_one}


def alike(one: Any, other: Any) -> float:
    """Return what two places share of what they cover together, 0 to 1."""
    if not one.intersects(other):
        return 0.0
    shared = one.intersection(other).area
    return float(shared / (one.area + other.area - shared))


def same(one: Any, other: Any) -> bool:
    """Whether two places are one within the precision of a drawing."""
    if any(abs(a - b) > SAME_M for a, b in zip(one.bounds, other.bounds, strict=True)):
        return False
    return bool(_same(np.array([one]), np.array([other]))[0])


def _same(ones: Any, others: Any) -> Any:
    """Whether places that lie within the same bounds are one, pair by pair."""
    # Most are as they were to the last digit, which is told far sooner than what they share.
    are = np.asarray(shapely.equals_identical(ones, others))
    left = np.flatnonzero(~are)
    if len(left):
        a, b = ones[left], others[left]
        apart = shapely.area(shapely.symmetric_difference(a, b))
        are[left] = apart <= SAME_M * (shapely.length(a) + shapely.length(b))
    return are
