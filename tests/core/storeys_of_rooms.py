"""Storeys cut into rooms at random, whose rooms are known before any wall is drawn."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from hypothesis import strategies as st

from heathrise.core.design import Building, Design, Element, Floor, Site, Space, Wall
from heathrise.core.design import design_of as gathered

Box = tuple[float, float, float, float]
Point = tuple[float, float]
Line = tuple[Point, Point]
LEAST_M = 1.5  # of a room's side


@dataclass(frozen=True)
class Cut:
    """A storey of ``rooms`` (west, south, east, north in m) and the walls that part them."""

    rooms: tuple[Box, ...]
    walls: tuple[Line, ...]


@st.composite
def cuts(draw: st.DrawFn, most: int = 7) -> Cut:
    """Draw a rectangle, and cut a room of it in two again and again."""
    wide, deep = draw(st.integers(4, 24)), draw(st.integers(4, 16))
    rooms: list[Box] = [(0.0, 0.0, float(wide), float(deep))]
    walls: list[Line] = [
        ((0, 0), (wide, 0)),
        ((wide, 0), (wide, deep)),
        ((wide, deep), (0, deep)),
        ((0, deep), (0, 0)),
    ]
    for _ in range(draw(st.integers(0, most))):
        which = draw(st.integers(0, len(rooms) - 1))
        w, s, e, n = rooms[which]
        across = draw(st.booleans())
        low, high = (w, e) if across else (s, n)
        if high - low < 2 * LEAST_M:
            continue
        # Walls are apart or in line: what lies within a drawing's tolerance is one, and tried elsewhere.
        at = round(draw(st.floats(low + LEAST_M, high - LEAST_M)) * 4) / 4
        rooms[which] = (w, s, at, n) if across else (w, s, e, at)
        rooms.append((at, s, e, n) if across else (w, at, e, n))
        walls.append(((at, s), (at, n)) if across else ((w, at), (e, at)))
    return Cut(tuple(rooms), tuple(walls))


@st.composite
def as_people_draw(draw: st.DrawFn, cut: Cut) -> list[Line]:
    """Draw the same walls as people do: in any order, either way, in pieces, twice, short and too long."""
    made: list[Line] = []
    for a, b in cut.walls:
        size = math.dist(a, b)
        ux, uy = (b[0] - a[0]) / size, (b[1] - a[1]) / size

        def at(along: float, off: float = 0.0, a: Point = a, ux: float = ux, uy: float = uy) -> Point:
            return (a[0] + ux * along - uy * off, a[1] + uy * along + ux * off)

        start, end = (draw(st.sampled_from([-0.008, 0.0, 0.0, 0.002])) for _ in range(2))
        pieces = [(start, size - end)]
        if draw(st.booleans()):
            middle = draw(st.floats(0.3, 0.7)) * size
            pieces = [(start, middle), (middle + draw(st.sampled_from([-0.3, 0.0, 0.002])), size - end)]
        if draw(st.integers(0, 3)) == 0:
            made.append((at(0.0, 0.002), at(size, 0.002)))  # once more, two millimetres beside
        made += [(at(low), at(high)) for low, high in pieces]
    turned_round = [(b, a) if draw(st.booleans()) else (a, b) for a, b in made]
    return draw(st.permutations(turned_round))


@dataclass(frozen=True)
class Placed:
    """Where a drawing lies on its sheet: mirrored, turned and moved."""

    degrees: float = 0.0
    by: Point = (0.0, 0.0)
    mirrored: bool = False

    def __call__(self, point: Point) -> Point:
        x, y = (-point[0] if self.mirrored else point[0]), point[1]
        c, s = math.cos(math.radians(self.degrees)), math.sin(math.radians(self.degrees))
        return (x * c - y * s + self.by[0], x * s + y * c + self.by[1])

    def box(self, box: Box) -> list[Point]:
        w, s, e, n = box
        return [self(p) for p in ((w, s), (e, s), (e, n), (w, n))]


placings = st.builds(
    Placed,
    degrees=st.floats(0, 360),
    by=st.tuples(st.floats(-200, 200), st.floats(-200, 200)),
    mirrored=st.booleans(),
)


def walls_of(lines: list[Line] | tuple[Line, ...], floor: str = "f") -> list[Wall]:
    return [
        Wall(id=f"w{k}", floor=floor, a=a, b=b, construction="plasterboard")
        for k, (a, b) in enumerate(lines, 1)
    ]


def storey(*elements: Element) -> Design:
    """A design of one storey with nothing on it but these."""
    floor = Floor(id="f", building="b", name="Ground", level=0)
    return gathered([Site(id="site"), Building(id="b", name="Hut"), floor, *elements])


def roomed(cut: Cut) -> Design:
    """A storey whose rooms are drawn, each with a name of its own."""
    rooms = [
        Space(
            id=f"s{k}",
            floor="f",
            name=f"Chamber {k}",
            outline=tuple(Placed().box(box)),
            ceiling_height_m=2.0 + k / 10,
        )
        for k, box in enumerate(cut.rooms, 1)
    ]
    return storey(*walls_of(cut.walls), *rooms)


def moved(cut: Cut, number: int, by: float) -> Cut:
    """The storey with one inner wall moved: rooms end where it stands, walls that met it still do.

    Plain arithmetic on the boxes; only for a wall that can go so far.
    """
    a, b = cut.walls[number]
    across = a[0] == b[0]
    k = 0 if across else 1
    at, to = a[k], a[k] + by
    low, high = sorted((a[1 - k], b[1 - k]))

    def shifted(box: Box) -> Box:
        inside = box[1 - k] >= low and box[3 - k] <= high
        sides = list(box)
        for side in (k, k + 2):
            if inside and sides[side] == at:
                sides[side] = to
        return (sides[0], sides[1], sides[2], sides[3])

    def end(point: Point) -> Point:
        on = point[k] == at and low <= point[1 - k] <= high
        return ((to, point[1]) if k == 0 else (point[0], to)) if on else point

    return replace(
        cut, rooms=tuple(map(shifted, cut.rooms)), walls=tuple((end(p), end(q)) for p, q in cut.walls)
    )
