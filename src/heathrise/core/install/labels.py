"""A label for both ends of every cable, unique over the site, after the habit of TIA-606."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import chain, count
from typing import Any

from pydantic import Field

from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..design import Building, Design, Device, Floor, Point, Space

PORTS_OF_PANEL = 24


@dataclass(frozen=True)
class Cabled:
    """A link as its label sees it: where it begins, where it ends, how many cables it has."""

    id: str
    name: str
    rack: str
    rack_name: str
    floor: str
    at: Point
    cables: int


class Label(Frozen):
    """One cable's label without its end: ``/A`` is added at the rack, ``/B`` at the far end."""

    text: str
    link: str
    name: str
    cable: int = Field(description="of the cables of its link, from 1")
    rack: str = Field(description="name of the rack it begins in")
    panel: int
    port: int

    @property
    def near(self) -> str:
        return f"{self.text}/A"

    @property
    def far(self) -> str:
        return f"{self.text}/B"


def labels_of(design: Design, links: Sequence[Cabled]) -> list[Label]:
    """Return the labels of all cables: ``building-storey-room.panel-port`` of the far end.

    Panels are counted over the site, rack after rack, so that no two cables share a port; rooms
    are counted on their storey in order of placing, 0 being outside all of them; storeys below
    ground are U1, U2. A label fits the 18 characters of a 9 mm sleeve.
    """
    shorts = short_names(b.name for b in design.of(Building).values())
    floors = design.of(Floor)
    found: list[Label] = []
    panel = 0
    for rack in dict.fromkeys(k.rack for k in links):
        port = 0
        panel += 1
        for link in (k for k in links if k.rack == rack):
            floor = floors[link.floor]
            building = shorts[design.of(Building)[floor.building].name]
            storey = f"U{-floor.level}" if floor.level < 0 else str(floor.level)
            room = _room_number(design, link.floor, link.at)
            for cable in range(1, link.cables + 1):
                port += 1
                if port > PORTS_OF_PANEL:
                    panel, port = panel + 1, 1
                text = f"{building}-{storey}-{room}.P{panel}-{port:02d}"
                found.append(
                    Label(
                        text=text,
                        link=link.id,
                        name=link.name,
                        cable=cable,
                        rack=link.rack_name,
                        panel=panel,
                        port=port,
                    )
                )
    return found


def short_names(names: Iterable[str]) -> dict[str, str]:
    """Return a name of one letter or few for each building, no two alike."""
    found: dict[str, str] = {}
    for name in names:
        letters = re.sub(r"[^A-Z0-9]", "", name.upper()) or "X"
        taken = set(found.values())
        options = chain((letters[:1], letters[:2]), (f"{letters[:1]}{k}" for k in count(2)))
        found.setdefault(name, next(o for o in options if o not in taken))
    return found


def _room_number(design: Design, floor: str, at: Point) -> int:
    spaces = design.of(Space)
    return _numbers.get((spaces,), (floor, at), lambda: _found_number(spaces, floor, at))


def _found_number(spaces: Mapping[str, Space], floor: str, at: Point) -> int:
    from shapely import Point as Spot

    rooms = _rooms.get((spaces,), None, lambda: _numbered(spaces.values()))
    if floor not in rooms:
        return 0
    tree, areas = rooms[floor]
    inside = [(areas[k], k) for k in tree.query(Spot(at), predicate="within").tolist()]
    return min(inside)[1] + 1 if inside else 0


def _numbered(spaces: Iterable[Space]) -> dict[str, tuple[Any, list[float]]]:
    """Return rooms by storey, in order of placing: a tree of outlines with what is on their walls, areas."""
    from shapely import STRtree
    from shapely.geometry import Polygon

    found: dict[str, list[Any]] = {}
    for space in spaces:
        found.setdefault(space.floor, []).append(Polygon(space.outline))
    return {
        floor: (STRtree([o.buffer(_ON_WALL_M) for o in outlines]), [o.area for o in outlines])
        for floor, outlines in found.items()
    }


_rooms: IdentityMemo[dict[str, tuple[Any, list[float]]]] = IdentityMemo(16)
_numbers: IdentityMemo[int] = IdentityMemo(4096, weigh=lambda _: 200)
_ON_WALL_M = 0.25


def far_end(design: Design, device: str) -> tuple[str, Point]:
    """Return the storey and the spot at which a device's run ends."""
    row = design.of(Device)[device]
    return row.floor, row.at
