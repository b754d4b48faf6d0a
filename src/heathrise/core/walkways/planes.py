"""Storeys laid out in cells that one can stand in, with what stands between them."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import LineString

from ..context.storeys import OVERLAP_M2, Storeys
from ..design import Design, Opening, Spot, Wall

Flags = NDArray[np.bool_]

CELL_M, WIDEST_CELL_M = 0.25, 0.5  # a door of a usual width is met by a step of either
MOST_CELLS = 25_000
_MOST_ON_A_WIDE_PLOT = 400_000  # then cells grow, and doors with them
_SAME_HEIGHT_M = 1.0
_AROUND_M = 2.0
_OFF_M = 0.0371  # walls are drawn on round figures; the middles of cells lie beside them
_JAMB_M = 0.1  # one does not scrape along it


@dataclass(frozen=True, eq=False)
class Plane:
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
        return (self.west + (column + 0.5) * self.cell_m, self.south + (row + 0.5) * self.cell_m)

    def span(self, low: float, high: float, first: float, count: int) -> tuple[int, int]:
        """Return the first cell and the one after the last of a stretch, of so many."""
        start, stop = (int((v - first) / self.cell_m) for v in (low, high))
        return min(count, max(0, start)), min(count, max(0, stop + 1))

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


def planes_of(design: Design, storeys: Storeys) -> list[Plane]:
    """Return the planes of a design, the lowest first; their cells are numbered through."""
    walls = _walls(design)
    planes: list[Plane] = []
    first = 0
    for floors in _heights(storeys):
        plane = _plane(storeys, floors, walls, first)
        planes.append(plane)
        first += plane.size
    return planes


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


def _walls(design: Design) -> dict[str, list[tuple[Wall, list[Opening]]]]:
    """Return by storey the walls with their doors and gaps, each wall's from its beginning."""
    doors: dict[str, list[Opening]] = {}
    for opening in design.of(Opening).values():
        if opening.kind != "window":
            doors.setdefault(opening.wall, []).append(opening)
    found: dict[str, list[tuple[Wall, list[Opening]]]] = {}
    for wall in design.of(Wall).values():
        mine = sorted(doors.get(wall.id, ()), key=lambda o: o.offset_m)
        found.setdefault(wall.floor, []).append((wall, mine))
    return found


def _solid(rows: Iterable[tuple[Wall, list[Opening]]], cell_m: float) -> Iterator[Any]:
    """Yield what is left of walls between their doors, as lines; a door is met by a step."""
    for wall, doors in rows:
        at = 0.0
        for door in doors:
            beside_m = max(0.0, min(_JAMB_M, (door.width_m - WIDEST_CELL_M) / 2))
            if cell_m > WIDEST_CELL_M:
                beside_m = min(beside_m, (door.width_m - cell_m) / 2)
            opens_m = door.offset_m + beside_m
            if opens_m > at:
                yield _piece(wall, at, opens_m)
            at = max(at, door.offset_m + door.width_m - beside_m)
        if at < wall.length_m:
            yield _piece(wall, at, wall.length_m)


def _piece(wall: Wall, start_m: float, end_m: float) -> Any:
    (ax, ay), (bx, by), size = wall.a, wall.b, wall.length_m
    return LineString([(ax + (bx - ax) * m / size, ay + (by - ay) * m / size) for m in (start_m, end_m)])


def _plane(
    storeys: Storeys,
    floors: tuple[str, ...],
    walls: Mapping[str, list[tuple[Wall, list[Opening]]]],
    first: int,
) -> Plane:
    areas = [polygon for f in floors for _, polygon in storeys.rooms.get(f, ())]
    # All ground is one, so that one walks from any building to any other.
    wide_as = tuple(storeys.floors) if on_ground(storeys, floors) else floors
    drawn = [p for f in wide_as for wall, _ in walls.get(f, ()) for p in (wall.a, wall.b)]
    drawn += [
        corner
        for f in wide_as
        for _, polygon in storeys.rooms.get(f, ())
        for corner in (polygon.bounds[:2], polygon.bounds[2:])
    ]
    corners = np.array(drawn or [(0.0, 0.0), (1.0, 1.0)])
    west, south = corners.min(axis=0) - _AROUND_M
    wide, deep = corners.max(axis=0) + _AROUND_M - (west, south)
    cell_m = min(WIDEST_CELL_M, max(CELL_M, math.sqrt(wide * deep / MOST_CELLS)))
    cell_m = max(cell_m, math.sqrt(wide * deep / _MOST_ON_A_WIDE_PLOT))
    columns, rows = math.ceil(wide / cell_m) + 1, math.ceil(deep / cell_m) + 1
    lines = list(_solid((row for f in floors for row in walls.get(f, ())), cell_m))
    plane = Plane(
        floors,
        float(west) - _OFF_M,
        float(south) - _OFF_M,
        float(cell_m),
        columns,
        rows,
        first,
        np.ones((rows, columns), dtype=bool),
        shapely.STRtree(lines),
    )
    plane.open_[:] = _stood_in(storeys, plane, areas)
    return plane


def on_ground(storeys: Storeys, floors: tuple[str, ...]) -> bool:
    return any(storeys.floors[f].level == 0 for f in floors)


def _stood_in(storeys: Storeys, plane: Plane, areas: list[Any]) -> Flags:
    """Return the cells that have a floor: all at the ground, else rooms that are no void."""
    below = [
        (space, polygon)
        for f, rows in storeys.rooms.items()
        for space, polygon in rows
        if (space.open_above or space.stairs)
        and any(up in plane.floors for up in storeys.above(f, polygon)[:1])
    ]
    if on_ground(storeys, plane.floors):
        # A building on another height is not walked through.
        others = (f for f in storeys.regions if f not in plane.floors)
        found = ~_cells_in(plane, [storeys.regions[f] for f in others if on_ground(storeys, (f,))])
    else:
        found = _cells_in(plane, areas)
    found &= ~_cells_in(plane, [p for s, p in below if s.open_above and not s.stairs])
    return found | _cells_in(plane, [p for s, p in below if s.stairs])


def _cells_in(plane: Plane, areas: list[Any]) -> Flags:
    """Return the cells whose middle lies in some area."""
    found = np.zeros((plane.rows, plane.columns), dtype=bool)
    for area in areas:
        west, south, east, north = area.bounds
        columns = slice(*plane.span(west, east, plane.west, plane.columns))
        rows = slice(*plane.span(south, north, plane.south, plane.rows))
        x = plane.west + (np.arange(columns.start, columns.stop) + 0.5) * plane.cell_m
        y = plane.south + (np.arange(rows.start, rows.stop) + 0.5) * plane.cell_m
        found[rows, columns] |= shapely.contains_xy(area, *np.meshgrid(x, y))
    return found
