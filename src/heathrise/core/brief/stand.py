"""How a design stands, as far as a brief asks: handed over by whoever works the design out."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field

from shapely import Polygon, contains_xy

from ..base.bands import Band
from ..base.memo import IdentityMemo
from ..catalogue import Catalogue
from ..context.storeys import Storeys, storeys_of
from ..design import Design, Device, EquipmentRoom, Point, Space

StoreySpot = tuple[str, Point]  # a storey and where on it


@dataclass(frozen=True)
class Level:
    """What one access point gives at a spot: dBm of the weaker direction on one band, and the Mb/s
    that somebody gets there alone."""

    device: str
    band: Band
    dbm: float
    mbps: float = 0.0


@dataclass(frozen=True)
class Free:
    """What the switches have left: ports, of those powered ones, watts within the headroom."""

    ports: int = 0
    powered: int = 0
    watts: float = 0.0


@dataclass(frozen=True)
class Hop:
    """One link of the chain between an access point and the line: what it is, and its Mb/s."""

    name: str
    mbps: float


@dataclass(frozen=True)
class Walked:
    """A walk that is often taken with a call: what becomes of it, and where it goes and clings."""

    name: str
    holds: bool
    text: str
    points: tuple[StoreySpot, ...]
    clings: tuple[StoreySpot, ...] = ()


@dataclass(frozen=True)
class SiteStatus:
    """A design and what was worked out of it.

    ``levels`` holds what is heard at each spot that was asked for, of what is connected alone;
    ``served`` how many rooms each access point serves; ``sockets`` the cables of each device that
    reach it, do for their speed and end in a port, ``wired`` those devices. ``chains`` is by access
    point the links from it to the line, ``air`` by radio the share of its air that the busiest hour
    takes, ``failing`` by device why its run does not carry what it should.
    """

    design: Design
    catalogue: Catalogue
    levels: Mapping[StoreySpot, tuple[Level, ...]] = field(default_factory=dict)
    served: Mapping[str, int] = field(default_factory=dict)
    sockets: Mapping[str, int] = field(default_factory=dict)
    free: Free = Free()
    chains: Mapping[str, tuple[Hop, ...]] = field(default_factory=dict)
    air: Mapping[tuple[str, Band], float] = field(default_factory=dict)
    walks: tuple[Walked, ...] = ()
    failing: Mapping[str, str] = field(default_factory=dict)

    @property
    def wired(self) -> frozenset[str]:
        return frozenset(self.sockets)

    def strongest(self, spot: StoreySpot, band: Band) -> list[Level]:
        """Return what is heard on a band at a spot, the strongest first."""
        heard = [level for level in self.levels.get(spot, ()) if level.band == band]
        return sorted(heard, key=lambda level: -level.dbm)

    def room_at(self, floor: str, at: Point) -> Space | None:
        """Return the smallest room that a spot lies in."""
        storeys = storeys_of(self.design)
        return _rooms.get((storeys,), (floor, at), lambda: _smallest(storeys, floor, at))

    def wired_in(self, space: Space) -> list[Device]:
        """Return the devices of a room, or on its walls, that a run reaches."""
        ring = _rings.get((space,), None, lambda: Polygon(space.outline).buffer(_ON_WALL_M))
        return [
            d
            for d in self.design.of(Device).values()
            if d.id in self.wired and d.floor == space.floor and contains_xy(ring, *d.at)
        ]

    def rack_near(self, floor: str, at: Point) -> float | None:
        """Return how far the nearest rack of a storey is, in m."""
        rooms = [r for r in self.design.of(EquipmentRoom).values() if r.floor == floor]
        return min((math.dist(r.at, at) for r in rooms), default=None)


_ON_WALL_M = 0.25
_rings: IdentityMemo[Polygon] = IdentityMemo(2048, weigh=lambda _: 1_000)
_rooms: IdentityMemo[Space | None] = IdentityMemo(2048, weigh=lambda _: 300)


def _smallest(storeys: Storeys, floor: str, at: Point) -> Space | None:
    rooms = [(area.area, space) for space, area in storeys.rooms.get(floor, ()) if contains_xy(area, *at)]
    return min(rooms, key=lambda row: row[0])[1] if rooms else None
