"""Where one can walk: through doors and gaps, over stairs and the open ground between buildings.

Storeys of about one height are one plane of square cells, a step leads from each to its eight
neighbours. A wall without a door can be stepped through at the price of a long way round, so that
a drawing without doors still has a way, and says what it lacks.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray
from scipy.sparse import csr_array
from scipy.sparse.csgraph import dijkstra
from shapely.geometry import LineString, Point, Polygon
from shapely.ops import unary_union

from ..design import Building, Design, Floor, Opening, Space, Spot, Wall
from ..memo import IdentityMemo
from ..storeys import OVERLAP_M2, Storeys, storeys_of
from .walk import WalkPoint

Flags = NDArray[np.bool_]

CELL_M, WIDEST_CELL_M = 0.25, 0.5  # a door of a usual width is met by a step of either
MOST_CELLS = 60_000
THROUGH_A_WALL_M = 1_000.0  # rather any way round than through a wall
_SAME_HEIGHT_M = 1.0
_AROUND_M = 2.0
_OFF_M = 0.0371  # walls are drawn on round figures; the middles of cells lie beside them
_JAMB_M = 0.1  # one does not scrape along it
_BESIDE_STAIR_M = 0.4  # from the ends of a flight to those of its room


@dataclass(frozen=True)
class Way:
    """A way on foot; ``through`` names the pairs of rooms between which a door is missing."""

    points: tuple[WalkPoint, ...]
    metres: float
    through: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True, eq=False)
class _Plane:
    """Storeys of about one height, laid out in cells; ``first`` is the number of the first."""

    floors: tuple[str, ...]
    west: float
    south: float
    cell_m: float
    columns: int
    rows: int
    first: int
    open_: Flags  # cells that one can stand in, by row and column
    solid: Any  # what stands between doors, a tree of lines

    @property
    def size(self) -> int:
        return self.columns * self.rows

    def cell_at(self, at: Spot) -> int:
        column = min(self.columns - 1, max(0, int((at[0] - self.west) / self.cell_m)))
        row = min(self.rows - 1, max(0, int((at[1] - self.south) / self.cell_m)))
        return self.first + row * self.columns + column

    def middle(self, cell: int) -> Spot:
        row, column = divmod(cell - self.first, self.columns)
        return (
            self.west + (column + 0.5) * self.cell_m,
            self.south + (row + 0.5) * self.cell_m,
        )

    def sees(self, a: Spot, b: Spot) -> bool:
        """Whether one walks straight from one spot to another."""
        line = LineString([a, b])
        if len(self.solid.query(line, predicate="intersects")):
            return False
        steps = max(2, math.ceil(line.length / self.cell_m) + 1)
        xs, ys = np.linspace(a[0], b[0], steps), np.linspace(a[1], b[1], steps)
        columns = ((xs - self.west) / self.cell_m).astype(int)
        rows = ((ys - self.south) / self.cell_m).astype(int)
        return bool(self.open_[rows, columns].all())


@dataclass(frozen=True, eq=False)
class Footways:
    """All ways on foot of a design."""

    storeys: Storeys
    planes: tuple[_Plane, ...]
    graph: csr_array

    def way(self, start: Space, end: Space) -> Way | None:
        """Return the shortest way from the middle of one room to that of another; None where no
        stair leads from storey to storey."""
        return _ways.get((self, start, end), None, lambda: self._way(start, end))

    def _way(self, start: Space, end: Space) -> Way | None:
        a, b = (self._plane_of(s.floor).cell_at(middle_of(s)) for s in (start, end))
        far, before = self._from(a)
        if not math.isfinite(far[b]):
            return None
        cells = [b]
        while cells[-1] != a:
            cells.append(int(before[cells[-1]]))
        return self._made(cells[::-1], start, end)

    def _from(self, cell: int) -> tuple[NDArray[np.float64], NDArray[np.int32]]:
        return _reached.get((self,), cell, lambda: self._dijkstra(cell))

    def _dijkstra(self, cell: int) -> tuple[NDArray[np.float64], NDArray[np.int32]]:
        far, before = dijkstra(
            self.graph, directed=False, indices=np.array([cell]), return_predecessors=True
        )
        return far[0], before[0]

    def _plane_of(self, floor: str) -> _Plane:
        return next(p for p in self.planes if floor in p.floors)

    def _plane_at(self, cell: int) -> _Plane:
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
            math.dist((*a.at, high[a.floor]), (*b.at, high[b.floor]))
            for a, b in itertools.pairwise(points)
        )
        return Way(tuple(points), metres, tuple(dict.fromkeys(through)))

    def _floor_at(self, plane: _Plane, spot: Spot, before: str) -> str:
        """Return the storey of a plane that a spot lies on: that of its room, else the last."""
        for floor in plane.floors:
            if self.storeys.room_at(floor, _round(spot)) is not None:
                return floor
        return before if before in plane.floors else plane.floors[0]

    def _between(self, plane: _Plane, a: Spot, b: Spot) -> tuple[str, str]:
        return self._name_at(plane, a), self._name_at(plane, b)

    def _name_at(self, plane: _Plane, spot: Spot) -> str:
        rooms = (self.storeys.room_at(f, _round(spot)) for f in plane.floors)
        return next((r.name for r in rooms if r is not None), "outdoors")


_footways: IdentityMemo[Footways] = IdentityMemo(4, weigh=lambda f: 80 * f.graph.shape[0])
_reached: IdentityMemo[tuple[NDArray[np.float64], NDArray[np.int32]]] = IdentityMemo(64)
_ways: IdentityMemo[Way | None] = IdentityMemo(256)
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
    solid = _solid(design)
    planes: list[_Plane] = []
    first = 0
    for floors in _heights(storeys):
        plane = _plane(storeys, floors, solid, first)
        planes.append(plane)
        first += plane.size
    graph = _graph(storeys, planes)
    return Footways(storeys, tuple(planes), graph)


def _heights(storeys: Storeys) -> list[tuple[str, ...]]:
    """Return the storeys in groups of about one height, none of which lies over another."""
    groups: list[list[str]] = []
    for floor in sorted(storeys.floors, key=lambda f: storeys.elevation_m[f]):
        for group in groups:
            near = storeys.elevation_m[floor] - storeys.elevation_m[group[0]] < _SAME_HEIGHT_M
            if near and not any(_overlap(storeys, floor, other) for other in group):
                group.append(floor)
                break
        else:
            groups.append([floor])
    return [tuple(g) for g in groups]


def _overlap(storeys: Storeys, a: str, b: str) -> bool:
    if a not in storeys.regions or b not in storeys.regions:
        return False
    return bool(storeys.regions[a].intersection(storeys.regions[b]).area > OVERLAP_M2)


def _solid(design: Design) -> dict[str, list[Any]]:
    """Return by storey what is left of the walls between doors and gaps, as lines."""
    doors: dict[str, list[Opening]] = {}
    for opening in design.of(Opening).values():
        if opening.kind != "window":
            doors.setdefault(opening.wall, []).append(opening)
    found: dict[str, list[Any]] = {}
    for wall in design.of(Wall).values():
        at = 0.0
        for door in sorted(doors.get(wall.id, ()), key=lambda o: o.offset_m):
            beside_m = max(0.0, min(_JAMB_M, (door.width_m - WIDEST_CELL_M) / 2))
            if door.offset_m + beside_m > at:
                found.setdefault(wall.floor, []).append(_piece(wall, at, door.offset_m + beside_m))
            at = max(at, door.offset_m + door.width_m - beside_m)
        if at < wall.length_m:
            found.setdefault(wall.floor, []).append(_piece(wall, at, wall.length_m))
    return found


def _piece(wall: Wall, start_m: float, end_m: float) -> Any:
    (ax, ay), (bx, by), size = wall.a, wall.b, wall.length_m
    return LineString(
        [(ax + (bx - ax) * m / size, ay + (by - ay) * m / size) for m in (start_m, end_m)]
    )


def _plane(
    storeys: Storeys, floors: tuple[str, ...], solid: dict[str, list[Any]], first: int
) -> _Plane:
    lines = [line for f in floors for line in solid.get(f, ())]
    areas = [polygon for f in floors for _, polygon in storeys.rooms.get(f, ())]
    # All ground is one, so that one walks from any building to any other.
    wide_as = tuple(storeys.floors) if _on_ground(storeys, floors) else floors
    drawn = [line for f in wide_as for line in solid.get(f, ())]
    drawn += [polygon for f in wide_as for _, polygon in storeys.rooms.get(f, ())]
    bounds = np.array([g.bounds for g in drawn] or [(0.0, 0.0, 1.0, 1.0)])
    west, south = bounds[:, 0].min() - _AROUND_M, bounds[:, 1].min() - _AROUND_M
    wide, deep = bounds[:, 2].max() + _AROUND_M - west, bounds[:, 3].max() + _AROUND_M - south
    cell_m = min(WIDEST_CELL_M, max(CELL_M, math.sqrt(wide * deep / MOST_CELLS)))
    columns, rows = math.ceil(wide / cell_m) + 1, math.ceil(deep / cell_m) + 1
    plane = _Plane(
        floors, float(west) - _OFF_M, float(south) - _OFF_M, float(cell_m), columns, rows, first,
        np.ones((rows, columns), dtype=bool), shapely.STRtree(lines),
    )  # fmt: skip
    plane.open_[:] = _stood_in(storeys, plane, areas)
    return plane


def _on_ground(storeys: Storeys, floors: tuple[str, ...]) -> bool:
    return any(storeys.floors[f].level == 0 for f in floors)


def _stood_in(storeys: Storeys, plane: _Plane, areas: list[Any]) -> Flags:
    """Return the cells that have a floor: all at the ground, else rooms that are no void."""
    x = plane.west + (np.arange(plane.columns) + 0.5) * plane.cell_m
    y = plane.south + (np.arange(plane.rows) + 0.5) * plane.cell_m
    spots = np.meshgrid(x, y)
    found = np.ones((plane.rows, plane.columns), dtype=bool)
    if not _on_ground(storeys, plane.floors):
        found = shapely.contains_xy(unary_union(areas), *spots)
    others = [
        region for f, region in storeys.regions.items()
        if f not in plane.floors and _on_ground(storeys, (f,))
    ]  # fmt: skip
    if _on_ground(storeys, plane.floors):  # a building on another height is not walked through
        found &= ~shapely.contains_xy(unary_union(others), *spots)
    below = [
        (space, polygon) for f, rows in storeys.rooms.items() for space, polygon in rows
        if any(up in plane.floors for up in storeys.above(f, polygon)[:1])
    ]  # fmt: skip
    void = unary_union([p for s, p in below if s.open_above and not s.stairs])
    flights = unary_union([p for s, p in below if s.stairs])
    found &= ~shapely.contains_xy(void, *spots)
    return np.asarray(found | shapely.contains_xy(flights, *spots))


def _graph(storeys: Storeys, planes: list[_Plane]) -> csr_array:
    parts: list[tuple[Any, Any, Any]] = [part for p in planes for part in _steps(p)]
    flights = [
        (planes_of[0].cell_at(low), planes_of[1].cell_at(high), metres)
        for planes_of, low, high, metres in _flights(storeys, planes)
    ]
    if flights:
        parts.append(tuple(map(np.array, zip(*flights, strict=True))))  # type: ignore[arg-type]
    ground = [p for p in planes if _on_ground(storeys, p.floors)]
    parts += [_slope(storeys, a, b) for a, b in itertools.combinations(ground, 2)]
    a, b, cost = (np.concatenate([p[k] for p in parts]) for k in range(3))
    size = sum(p.size for p in planes)
    return csr_array((cost, (a, b)), shape=(size, size))


def _slope(storeys: Storeys, low: _Plane, high: _Plane) -> tuple[Any, Any, Any]:
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


def _steps(plane: _Plane) -> Iterator[tuple[Any, Any, Any]]:
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


def _walled(plane: _Plane) -> tuple[Flags, Flags]:
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
    storeys: Storeys, planes: list[_Plane]
) -> Iterator[tuple[tuple[_Plane, _Plane], Spot, Spot, float]]:
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
    a, b = (
        tuple((corners[n % 4][i] + corners[(n + 1) % 4][i]) / 2 for i in (0, 1)) for n in (k, k + 2)
    )
    share = min(0.45, max(_BESIDE_STAIR_M, short / 4) / long)
    low, high = (tuple(p[i] + share * (q[i] - p[i]) for i in (0, 1)) for p, q in ((a, b), (b, a)))
    inside = [polygon.contains(Point(p)) for p in (low, high)]
    if not all(inside):
        spot = polygon.representative_point()
        low = high = (spot.x, spot.y)
    return (low[0], low[1]), (high[0], high[1])


def _unbroken(plane: _Plane, spots: list[Spot]) -> Iterator[list[Spot]]:
    """Yield a way in the pieces that lie between walls stepped through."""
    piece = [spots[0]]
    for a, b in itertools.pairwise(spots):
        if len(plane.solid.query(LineString([a, b]), predicate="intersects")):
            yield piece
            piece = []
        piece.append(b)
    yield piece


def _straightened(plane: _Plane, spots: list[Spot]) -> list[Spot]:
    """Return fewer spots of a way: as far straight on as one sees."""
    found = [spots[0]]
    k = 0
    while k < len(spots) - 1:
        on = k + 1
        while on + 1 < len(spots) and plane.sees(spots[k], spots[on + 1]):
            on += 1
        found.append(spots[on])
        k = on
    return found
