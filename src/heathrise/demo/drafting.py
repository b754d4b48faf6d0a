"""Draws a floor from a list of rectangular rooms: walls where rooms meet, doors where asked."""

from __future__ import annotations

import itertools
import math
import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from typing import Literal

from ..core.design import (
    Design,
    Device,
    Element,
    EquipmentRoom,
    Floor,
    Light,
    MainsRoute,
    Opening,
    Overhead,
    Panel,
    Point,
    Riser,
    Socket,
    Space,
    Use,
    Wall,
    design_of,
)

Box = tuple[float, float, float, float]
_POINTS: dict[type[Element], tuple[str, ...]] = {
    Wall: ("a", "b"),
    Space: ("outline",),
    Device: ("at",),
    EquipmentRoom: ("at",),
    Riser: ("at",),
    Panel: ("at",),
    Socket: ("at",),
    Light: ("at",),
    MainsRoute: ("path",),
}


@dataclass(frozen=True)
class Room:
    """A rectangle (west, south, east, north) in m with a use; ``walls`` is what it is built of.

    ``lined`` says that its outside walls are of that too.
    """

    name: str
    box: Box
    use: Use = "everyday"
    walls: str | None = None
    lined: bool = False
    overhead: Overhead | None = None
    ceiling_m: float | None = None
    open_above: bool = False
    stairs: bool = False
    outdoor: bool = False


@dataclass
class Drawing:
    """Gathers elements and numbers them."""

    elements: list[Element] = field(default_factory=list)
    counts: dict[str, int] = field(default_factory=dict)

    def add(self, *elements: Element) -> None:
        self.elements.extend(elements)

    def next_id(self, stem: str) -> str:
        self.counts[stem] = self.counts.get(stem, 0) + 1
        return f"{stem}{self.counts[stem]}"

    def storeys(self, rows: Iterable[tuple[str, str, str, int, float, float, str, str]]) -> None:
        """Add floors: id, building, name, level, elevation and ceiling in m, slab, overhead."""
        names = ("id", "building", "name", "level", "elevation_m", "ceiling_height_m", "slab", "overhead")
        self.add(*(Floor.model_validate(dict(zip(names, row, strict=True))) for row in rows))

    def device(
        self,
        floor: str,
        kind: str,
        name: str,
        model: str,
        at: Point,
        height_m: float,
        mount: str = "ceiling",
        **pose: object,
    ) -> None:
        """Add a device; its id is made from its name."""
        self.add(
            Device.model_validate(
                {
                    "id": slug(name),
                    "floor": floor,
                    "kind": kind,
                    "model": model,
                    "name": name,
                    "at": at,
                    "height_m": height_m,
                    "mount": mount,
                    **pose,
                }
            )
        )

    def turn(self, building: str, degrees: float, about: Point) -> None:
        """Turn what is drawn so far of a building anticlockwise, as it lies on its plot."""
        self._each(building, lambda p: turned_point(p, degrees, about), degrees)

    def move(self, building: str, by: Point) -> None:
        """Move what is drawn so far of a building."""
        self._each(building, lambda p: (round(p[0] + by[0], 3), round(p[1] + by[1], 3)), 0.0)

    def _each(self, building: str, place: Callable[[Point], Point], degrees: float) -> None:
        floors = {e.id for e in self.elements if isinstance(e, Floor) and e.building == building}
        for number, element in enumerate(self.elements):
            here = getattr(element, "floor", None) in floors
            here = here or (isinstance(element, Riser) and element.building == building)
            if not here or type(element) not in _POINTS:
                continue
            found: dict[str, object] = {}
            for name in _POINTS[type(element)]:
                value = getattr(element, name)
                found[name] = tuple(map(place, value)) if name in ("outline", "path") else place(value)
            if isinstance(element, Device | Panel):
                found["azimuth_deg"] = (element.azimuth_deg - degrees) % 360
            self.elements[number] = element.model_copy(update=found)

    def design(self) -> Design:
        """Return the design of everything gathered."""
        return design_of(self.elements)

    def rooms(
        self, floor: str, rooms: Iterable[Room], outer: str, inner: str, strongest: Callable[[str], float]
    ) -> None:
        """Add the spaces of a floor and the walls between them.

        Args:
            outer, inner: constructions of the outside and of the partitions.
            strongest: ranks constructions; where two rooms ask for different walls the higher wins.
        """
        listed = list(rooms)
        for room in listed:
            west, south, east, north = room.box
            self.add(
                Space(
                    id=slug(f"{floor}-{room.name}"),
                    floor=floor,
                    name=room.name,
                    use=room.use,
                    outline=((west, south), (east, south), (east, north), (west, north)),
                    overhead=room.overhead,
                    ceiling_height_m=room.ceiling_m,
                    open_above=room.open_above,
                    stairs=room.stairs,
                    outdoor=room.outdoor,
                )
            )
        indoor = [r for r in listed if not r.outdoor]
        for axis in (0, 1):
            self._walls(floor, indoor, axis, outer, inner, strongest)

    def _walls(
        self,
        floor: str,
        rooms: list[Room],
        axis: Literal[0, 1] | int,
        outer: str,
        inner: str,
        strongest: Callable[[str], float],
    ) -> None:
        """Add the walls square to one axis (0: running north, 1: running east)."""
        across, along = axis, 1 - axis
        for line in sorted({r.box[k] for r in rooms for k in (across, across + 2)}):
            cuts = sorted({r.box[k] for r in rooms for k in (along, along + 2)})
            kinds: list[tuple[float, float, str | None]] = []
            for start, end in itertools.pairwise(cuts):
                middle = (start + end) / 2
                below = _room_beside(rooms, across, along, line, middle, -1)
                above = _room_beside(rooms, across, along, line, middle, +1)
                kinds.append((start, end, _construction(below, above, outer, inner, strongest)))
            for start, end, kind in _merged(kinds):
                ends = [(line, start), (line, end)] if axis == 0 else [(start, line), (end, line)]
                self.add(Wall(id=self.next_id("w"), floor=floor, a=ends[0], b=ends[1], construction=kind))

    def rate(self, floor: str, box: Box) -> None:
        """Let the walls on the edge of a box keep fire back: west, south, east, north in m."""
        west, south, east, north = box

        def on_edge(x: float, y: float) -> bool:
            return x in (west, east) and south <= y <= north

        for k, element in enumerate(self.elements):
            wall = element if isinstance(element, Wall) and element.floor == floor else None
            if wall is not None and on_edge(*wall.a) and on_edge(*wall.b):
                self.elements[k] = wall.model_copy(update={"rated": True})

    def opening(
        self,
        floor: str,
        x: float,
        y: float,
        width_m: float,
        construction: str,
        kind: Literal["door", "window", "gap"] = "door",
    ) -> None:
        """Add an opening with its middle at (x, y), which must lie on a wall of the floor."""
        for element in self.elements:
            if not isinstance(element, Wall) or element.floor != floor:
                continue
            (ax, ay), (bx, by) = element.a, element.b
            length = element.length_m
            along = ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / length
            foot = abs((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / length
            if foot < 0.01 and width_m / 2 <= along <= length - width_m / 2:
                self.add(
                    Opening(
                        id=self.next_id("o"),
                        wall=element.id,
                        kind=kind,
                        offset_m=round(along - width_m / 2, 3),
                        width_m=width_m,
                        construction=construction,
                    )
                )
                return
        raise ValueError(f"no wall on {floor} holds an opening of {width_m} m at ({x}, {y})")


def turned_point(point: Point, degrees: float, about: Point) -> Point:
    """Return a point turned anticlockwise about another, to the millimetre."""
    angle = math.radians(degrees)
    x, y = point[0] - about[0], point[1] - about[1]
    return (
        round(about[0] + x * math.cos(angle) - y * math.sin(angle), 3),
        round(about[1] + x * math.sin(angle) + y * math.cos(angle), 3),
    )


def slug(text: str) -> str:
    """Return an id made from a name."""
    return re.sub(r"[^a-z0-9]+", "-", text.lower()).strip("-")[:40]


def _room_beside(
    rooms: list[Room], across: int, along: int, line: float, at: float, side: int
) -> Room | None:
    edge = across + 2 if side < 0 else across
    for room in rooms:
        if math.isclose(room.box[edge], line) and room.box[along] < at < room.box[along + 2]:
            return room
    return None


def _construction(
    one: Room | None, other: Room | None, outer: str, inner: str, strongest: Callable[[str], float]
) -> str | None:
    if one is None and other is None:
        return None
    room = one or other
    if one is None or other is None:
        return room.walls if room is not None and room.lined else outer
    asked = [r.walls for r in (one, other) if r.walls]
    return max(asked, key=strongest) if asked else inner


def _merged(kinds: list[tuple[float, float, str | None]]) -> Iterable[tuple[float, float, str]]:
    open_start, open_end, open_kind = 0.0, 0.0, None
    for start, end, kind in [*kinds, (math.inf, math.inf, None)]:
        if kind is not None and kind == open_kind and math.isclose(start, open_end):
            open_end = end
            continue
        if open_kind is not None:
            yield open_start, open_end, open_kind
        open_start, open_end, open_kind = start, end, kind
