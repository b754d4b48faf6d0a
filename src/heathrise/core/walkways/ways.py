"""The shortest way on foot from room to room, straightened as far as one sees."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass, field

import numpy as np
import shapely
from numpy.typing import NDArray
from pydantic import BaseModel, ConfigDict
from scipy.sparse import csr_array
from scipy.sparse.csgraph import dijkstra
from shapely.geometry import Polygon

from ..base.memo import IdentityMemo
from ..context.storeys import Storeys, storeys_of
from ..design import Building, Design, ElementId, Floor, Opening, Point, Space, Spot, Wall
from .planes import Plane, planes_of
from .steps import steps_over

_USUAL, _USUAL_M = 2.0, 20.0


class WalkPoint(BaseModel):
    """A spot that a path leads through; between two storeys it climbs."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    floor: ElementId
    at: Point


@dataclass(frozen=True)
class Way:
    """A way on foot; ``through`` names the pairs of rooms between which a door is missing."""

    points: tuple[WalkPoint, ...]
    metres: float
    through: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True, eq=False)
class Footways:
    """All ways on foot of a design."""

    storeys: Storeys
    planes: tuple[Plane, ...]
    graph: csr_array
    _kept: dict[tuple[str, str], Way | None] = field(default_factory=dict)

    def way(self, start: Space, end: Space) -> Way | None:
        """Return the shortest way from the middle of one room to that of another; None where no
        stair leads from storey to storey."""
        key = start.id, end.id
        if key not in self._kept:
            self._kept[key] = self._way(start, end)
        return self._kept[key]

    def _way(self, start: Space, end: Space) -> Way | None:
        a, b = (self._plane_of(s.floor).cell_at(middle_of(s)) for s in (start, end))
        straight_m = math.dist(*(self._in_space(s) for s in (start, end)))
        # Most ways are little longer than the straight line: the rest is looked at where one is.
        for limit_m in (_USUAL * straight_m + _USUAL_M, math.inf):
            far, before = self._from(a, limit_m)
            if math.isfinite(far[b]):
                break
        else:
            return None
        cells = [b]
        while cells[-1] != a:
            cells.append(int(before[cells[-1]]))
        return self._made(cells[::-1], start, end)

    def _from(self, cell: int, limit_m: float) -> tuple[NDArray[np.float64], NDArray[np.int32]]:
        far, before = dijkstra(
            self.graph, directed=False, indices=np.array([cell]), return_predecessors=True, limit=limit_m
        )
        return far[0], before[0]

    def _in_space(self, space: Space) -> tuple[float, float, float]:
        return *middle_of(space), self.storeys.elevation_m[space.floor]

    def _plane_of(self, floor: str) -> Plane:
        return next(p for p in self.planes if floor in p.floors)

    def _plane_at(self, cell: int) -> Plane:
        return next(p for p in self.planes if p.first <= cell < p.first + p.size)

    def _made(self, cells: list[int], start: Space, end: Space) -> Way:
        """Return a way of few points out of one of many cells."""
        points: list[WalkPoint] = []
        through: list[tuple[str, str]] = []
        floor = start.floor
        for plane, group in itertools.groupby(cells, self._plane_at):
            spots = [plane.middle(c) for c in group]
            if not points:
                spots.insert(0, middle_of(start))
            if plane is self._plane_at(cells[-1]) and spots[-1] == plane.middle(cells[-1]):
                spots.append(middle_of(end))
            kept = [spots[0]]
            for piece in _unbroken(plane, spots):
                if piece[0] != kept[-1]:
                    through.append(self._between(plane, kept[-1], piece[0]))
                    kept.append(piece[0])
                kept += _straightened(plane, piece)[1:]
            for spot in kept:
                floor = self._floor_at(plane, spot, floor)
                points.append(WalkPoint(floor=floor, at=_round(spot)))
        points[-1] = WalkPoint(floor=end.floor, at=points[-1].at)
        high = self.storeys.elevation_m
        metres = sum(
            math.dist((*a.at, high[a.floor]), (*b.at, high[b.floor])) for a, b in itertools.pairwise(points)
        )
        return Way(tuple(points), metres, tuple(dict.fromkeys(through)))

    def _floor_at(self, plane: Plane, spot: Spot, before: str) -> str:
        """Return the storey of a plane that a spot lies on: that of its room, else the last."""
        for floor in plane.floors:
            if self.storeys.room_at(floor, _round(spot)) is not None:
                return floor
        return before if before in plane.floors else plane.floors[0]

    def _between(self, plane: Plane, a: Spot, b: Spot) -> tuple[str, str]:
        return self._name_at(plane, a), self._name_at(plane, b)

    def _name_at(self, plane: Plane, spot: Spot) -> str:
        rooms = (self.storeys.room_at(f, _round(spot)) for f in plane.floors)
        return next((r.name for r in rooms if r is not None), "outdoors")


_footways: IdentityMemo[Footways] = IdentityMemo(64, weigh=lambda f: 80 * f.graph.shape[0])
_middles: IdentityMemo[Spot] = IdentityMemo(4096, weigh=lambda _: 300)


def footways_of(design: Design) -> Footways:
    """Return the ways on foot of a design; the same object as long as no wall or room changes."""
    tables = tuple(design.of(k) for k in (Floor, Building, Space, Wall, Opening))
    return _footways.get(tables, None, lambda: _make(design))


def middle_of(space: Space) -> Spot:
    """Return where one stands in a room: its middle, or a spot within it."""
    return _middles.get((space,), None, lambda: _middle(space))


def _middle(space: Space) -> Spot:
    room = Polygon(space.outline)
    middle = room.centroid
    spot = middle if room.contains(middle) else room.representative_point()
    return _round((spot.x, spot.y))


def _round(spot: Spot) -> Spot:
    return round(float(spot[0]), 2), round(float(spot[1]), 2)


def _make(design: Design) -> Footways:
    storeys = storeys_of(design)
    planes = planes_of(design, storeys)
    return Footways(storeys, tuple(planes), steps_over(storeys, planes))


def _unbroken(plane: Plane, spots: list[Spot]) -> Iterator[list[Spot]]:
    """Yield a way in the pieces that lie between walls stepped through."""
    lines = shapely.linestrings(list(itertools.pairwise(spots)))
    broken = set(plane.solid.query(lines, predicate="intersects")[0].tolist())
    ends = [*(k + 1 for k in sorted(broken)), len(spots)]
    for start, end in itertools.pairwise([0, *ends]):
        yield spots[start:end]


def _straightened(plane: Plane, spots: list[Spot]) -> list[Spot]:
    """Return fewer spots of a way: as far straight on as one sees, by longer and longer looks."""
    found = [spots[0]]
    k, last = 0, len(spots) - 1
    while k < last:
        on, look = k + 1, 1
        while look:
            farther = min(last, on + look)
            if farther > on and plane.sees(spots[k], spots[farther]):
                on, look = farther, 2 * look
            else:
                look //= 2
        found.append(spots[on])
        k = on
    return found
