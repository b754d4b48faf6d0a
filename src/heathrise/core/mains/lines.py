"""Where mains cables lie: as drawn, else taken along the walls from a panel to its sockets.

What is taken so is a guess and says so: nobody has seen it, and a locator on site decides.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Sequence
from typing import Any, ClassVar

import numpy as np
import shapely
from pydantic import Field
from scipy.sparse import coo_array
from scipy.sparse.csgraph import dijkstra
from shapely.geometry import LineString

from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..design import Design, Floor, MainsRoute, Panel, Point, Socket, Spot, Wall

_SERVED_M = 0.3  # a socket so near to a drawn route hangs on it
_SAME_M = 1e-3


class MainsLine(Frozen):
    """A mains cable on one storey, in m. ``guessed`` where nobody drew it: it is taken along the
    walls from ``panel`` to ``socket``."""

    KEY: ClassVar = ("id",)

    id: str
    floor: str
    name: str
    points: tuple[Spot, ...]
    guessed: bool
    panel: str | None = None
    socket: str | None = None
    length_m: float = Field(description="with the climb from the storey of its panel, m")


_kept: IdentityMemo[tuple[MainsLine, ...]] = IdentityMemo(64)


def mains_lines(design: Design) -> tuple[MainsLine, ...]:
    """Return the mains cables of a site; the same object as long as nothing they rest on changes."""
    parts = tuple(design.of(cls) for cls in (Panel, Socket, MainsRoute, Floor))
    if not any(len(part) for part in parts[:3]):
        return ()
    return _kept.get((*parts, design.of(Wall)), None, lambda: tuple(_lines(design)))


def _lines(design: Design) -> Iterable[MainsLine]:
    drawn = list(design.of(MainsRoute).values())
    for route in drawn:
        yield MainsLine(
            id=route.id,
            floor=route.floor,
            name=route.name,
            points=route.path,
            guessed=False,
            length_m=_length_m(route.path),
        )
    floors = design.of(Floor)
    for socket in design.of(Socket).values():
        panel = feeding_panel(design, socket)
        if panel is None or any(
            r.floor == socket.floor and LineString(r.path).distance(shapely.Point(socket.at)) <= _SERVED_M
            for r in drawn
        ):
            continue
        rise_m = abs(floors[socket.floor].elevation_m - floors[panel.floor].elevation_m)
        points = _guessed(design, socket.floor, panel.at, socket.at)
        yield MainsLine(
            id=f"to-{socket.id}",
            floor=socket.floor,
            name=f"{panel.name} to {socket.name}",
            points=points,
            guessed=True,
            panel=panel.id,
            socket=socket.id,
            length_m=_length_m(points, rise_m),
        )


_graphs: IdentityMemo[_Walls] = IdentityMemo(64)
# A socket that is only thought of asks for its own way, and many findings think of the same one.
_ways: IdentityMemo[tuple[Spot, ...]] = IdentityMemo(2048)


def _guessed(design: Design, floor: str, start: Point, end: Point) -> tuple[Spot, ...]:
    walls = design.of(Wall)

    def along() -> tuple[Spot, ...]:
        mine = (w for w in walls.values() if w.floor == floor)
        return _graphs.get((walls,), floor, lambda: _Walls(mine)).way(start, end)

    return _ways.get((walls,), (floor, start, end), along)


def _length_m(points: Sequence[Spot], rise_m: float = 0.0) -> float:
    return round(float(LineString(points).length) + rise_m, 1)


def feeding_panel(design: Design, socket: Socket) -> Panel | None:
    """Return the panel that a socket hangs on: the one that was said, else the nearest of its
    building, a storey counted by its height."""
    panels, floors = design.of(Panel), design.of(Floor)
    if socket.panel is not None:
        return panels[socket.panel]
    here = floors[socket.floor]

    def far(panel: Panel) -> float:
        return math.dist(panel.at, socket.at) + abs(floors[panel.floor].elevation_m - here.elevation_m)

    mine = (p for p in panels.values() if floors[p.floor].building == here.building)
    return min(mine, key=far, default=None)


class _Walls:
    """The walls of a storey as ways: nodes where they meet, edges along them."""

    def __init__(self, walls: Iterable[Wall]) -> None:
        lines = [LineString([w.a, w.b]) for w in walls]
        whole = shapely.node(shapely.MultiLineString(lines)) if lines else shapely.MultiLineString()
        self._segments = [
            shapely.LineString(pair)
            for line in getattr(whole, "geoms", [whole])
            for pair in itertools.pairwise(line.coords)
        ]
        self._tree = shapely.STRtree(self._segments)

    def way(self, start: Point, end: Point) -> tuple[Spot, ...]:
        """Return the shortest way along the walls between two points; straight across where no
        walls join them."""
        ends = [shapely.Point(start), shapely.Point(end)]
        if not self._segments:
            return start, end
        on = [int(self._tree.nearest(p)) for p in ends]
        feet = [
            self._segments[k].interpolate(self._segments[k].project(p)) for k, p in zip(on, ends, strict=True)
        ]
        nodes: dict[tuple[int, int], int] = {}
        spots: list[tuple[float, float]] = []

        def node(x: float, y: float) -> int:
            key = round(x / _SAME_M), round(y / _SAME_M)
            if key not in nodes:
                nodes[key] = len(spots)
                spots.append((x, y))
            return nodes[key]

        edges: list[tuple[int, int]] = []
        for k, segment in enumerate(self._segments):
            cuts = sorted(
                [segment.project(f) for j, f in zip(on, feet, strict=True) if j == k] + [0.0, segment.length]
            )
            steps = [node(*segment.interpolate(at).coords[0]) for at in cuts]
            edges += [(a, b) for a, b in itertools.pairwise(steps) if a != b]
        first, last = (node(*f.coords[0]) for f in feet)
        found = _shortest(spots, edges, first, last)
        if found is None:
            return start, end
        return _tidy([start, *(spots[k] for k in found), end])


def _shortest(
    spots: Sequence[tuple[float, float]], edges: Sequence[tuple[int, int]], first: int, last: int
) -> list[int] | None:
    lengths = {(min(e), max(e)): math.dist(spots[e[0]], spots[e[1]]) for e in edges}
    rows, columns = np.array(list(lengths)).T if lengths else (np.empty(0, int), np.empty(0, int))
    graph: Any = coo_array((list(lengths.values()), (rows, columns)), shape=(len(spots),) * 2).tocsr()
    far, before = dijkstra(graph, directed=False, indices=first, return_predecessors=True)  # type: ignore[call-overload]
    if not math.isfinite(far[last]):
        return None
    path = [last]
    while path[-1] != first:
        path.append(int(before[path[-1]]))
    return path[::-1]


def _tidy(points: Sequence[tuple[float, float]]) -> tuple[Spot, ...]:
    """Return a way to the millimetre without points that it does not turn at."""
    line = LineString([points[0], *points[1:]]) if len(points) > 1 else None
    kept = line.simplify(_SAME_M).coords if line is not None and line.length else points[:2]
    return tuple((round(float(x), 3), round(float(y), 3)) for x, y in kept)
