"""Where storeys stand and how high rooms reach, also where the drawing contradicts itself.

Heights are metres above the site's zero. A storey's slab lies under its indoor rooms; above the
topmost room of each place lies a roof.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import Any, cast

import shapely
from shapely.geometry import LineString, Polygon
from shapely.ops import polygonize, unary_union

from ..base.memo import IdentityMemo
from ..catalogue import drawing_style
from ..design import Building, Design, Floor, Space, Wall

SLAB_M = drawing_style().measures.slab_m  # where nothing else says how thick a floor is
LEAST_STOREY_M = 1.0  # storeys nearer than this are read as standing on one another
OVERLAP_M2 = 0.5  # rooms that overlap by less share an edge
_KEPT_SPOTS = 5_000
_SAME_M2 = 1e-6  # slabs that differ by less take the same from every ray
_UNKNOWN = object()
_GAP_M = 0.2  # rooms drawn to the faces of a wall between them stand on one slab


@dataclass(frozen=True)
class Slab:
    """A level sheet of one construction at height ``z_m``; ``area`` has its edges and holes."""

    z_m: float
    construction: str
    area: Any
    floor: str
    roof: bool = False


@dataclass(frozen=True, eq=False)
class Storeys:
    """The storeys of a design in their nearest sensible reading."""

    floors: dict[str, Floor]
    elevation_m: dict[str, float]
    top_m: dict[str, float]
    rooms: dict[str, list[tuple[Space, Any]]]
    regions: dict[str, Any]
    roofs: dict[str, str]

    def room_at(self, floor: str, at: tuple[float, float], within_m: float = 0.02) -> Space | None:
        """Return the room a point belongs to; on a line between two, the indoor, larger one."""
        key = (floor, at, within_m)
        kept = self._found.get(key, _UNKNOWN)
        if kept is not _UNKNOWN:
            return cast("Space | None", kept)
        found = self._room_at(floor, at, within_m)
        if len(self._found) >= _KEPT_SPOTS:
            self._found.clear()
        self._found[key] = found
        return found

    @cached_property
    def _found(self) -> dict[tuple[str, tuple[float, float], float], Any]:
        """What was asked before: most devices stand still while one moves."""
        return {}

    def _room_at(self, floor: str, at: tuple[float, float], within_m: float) -> Space | None:
        if floor not in self._trees:
            return None
        point = shapely.Point(at)
        near = self._trees[floor].query(point, predicate="dwithin", distance=within_m)
        rows = self.rooms[floor]
        found = [(rows[k][0].outdoor, -rows[k][1].area, int(k)) for k in near]
        inside = [row for row in found if rows[row[2]][1].contains(point)]
        best = min(inside or found, default=None)
        return rows[best[2]][0] if best is not None else None

    @cached_property
    def _trees(self) -> dict[str, Any]:
        return {f: shapely.STRtree([p for _, p in rows]) for f, rows in self.rooms.items()}

    def ceiling_m(self, space: Space | None, floor: str) -> float:
        """Return the height of a room's ceiling above its floor, in m."""
        if space is not None and space.ceiling_height_m is not None:
            return space.ceiling_height_m
        return self.floors[floor].ceiling_height_m

    def outdoors(self, floor: str, at: tuple[float, float], else_: bool) -> bool:
        """Return whether a spot lies outside of all rooms; ``else_`` where no room is drawn."""
        if floor not in self.regions:
            return else_
        room = self.room_at(floor, at)
        return room is None or room.outdoor

    def ground_m(self, floor: str) -> float:
        """Return where the ground lies beside a storey's building: its lowest storey that is not
        below ground."""
        mine = [f for f in self.floors.values() if f.building == self.floors[floor].building]
        over = [f for f in mine if f.level >= 0] or mine
        return min(self.elevation_m[f.id] for f in over)

    def over_ground_m(self, floor: str, height_m: float) -> float:
        """Return how high over the ground a height over a storey's floor is."""
        return self.elevation_m[floor] + height_m - self.ground_m(floor)

    def above(self, floor: str, polygon: Any) -> list[str]:
        """Return the storeys of the building whose rooms lie over an area, the lowest first."""
        here = self.floors[floor]
        return [
            f
            for f in self.ordered(here.building)
            if self.elevation_m[f] > self.elevation_m[floor]
            and f in self.regions
            and self.regions[f].intersection(polygon).area > min(OVERLAP_M2, polygon.area / 4)
        ]

    def ordered(self, building: str) -> list[str]:
        """Return a building's storeys from the lowest up."""
        mine = [f for f in self.floors.values() if f.building == building]
        return [f.id for f in sorted(mine, key=lambda f: (self.elevation_m[f.id], f.level))]

    @cached_property
    def slabs(self) -> tuple[Slab, ...]:
        """Every slab and roof, the lowest first."""
        found = [*self._floors(), *self._roofs()]
        return tuple(sorted(found, key=lambda s: s.z_m))

    def stand_as(self, other: Storeys) -> bool:
        """Whether storeys stand as high and slabs lie as far as another's, whatever rooms are between."""
        if self is other:
            return True
        if self.elevation_m != other.elevation_m or len(self.slabs) != len(other.slabs):
            return False
        return all(map(_lies_as, self.slabs, other.slabs))

    def _floors(self) -> Iterator[Slab]:
        holes: dict[str, list[Any]] = {}
        for rows in self.rooms.values():
            for space, polygon in rows:
                if space.open_above and not space.outdoor:
                    for floor in self.above(space.floor, polygon)[:1]:
                        holes.setdefault(floor, []).append(polygon)
        for key, region in self.regions.items():
            area = region.difference(unary_union(holes[key])) if key in holes else region
            if not area.is_empty:
                yield Slab(self.elevation_m[key], self.floors[key].slab, area, key)

    def _roofs(self) -> Iterator[Slab]:
        for floor, rows in self.rooms.items():
            building = self.floors[floor].building
            by_top: dict[float, list[Any]] = {}
            for space, polygon in rows:
                if space.outdoor:
                    continue
                over = self.above(floor, polygon)
                bare = polygon.difference(unary_union([self.regions[f] for f in over]))
                if bare.area > OVERLAP_M2 / 10:
                    own_m = self.elevation_m[floor] + self.ceiling_m(space, floor) + SLAB_M
                    top_m = max(self.top_m[floor], own_m)
                    by_top.setdefault(round(top_m, 4), []).append(bare)
            for top_m, parts in by_top.items():
                area = _closed(unary_union(parts))
                yield Slab(top_m, self.roofs[building], area, floor, roof=True)


def _lies_as(mine: Slab, other: Slab) -> bool:
    """Whether two slabs are one but for the corners that rooms leave on its edges."""
    same = (mine.z_m, mine.construction, mine.floor, mine.roof) == (
        other.z_m,
        other.construction,
        other.floor,
        other.roof,
    )
    return same and float(mine.area.symmetric_difference(other.area).area) < _SAME_M2


_storeys: IdentityMemo[Storeys] = IdentityMemo(64)
_bare: IdentityMemo[bool] = IdentityMemo(64, weigh=lambda _: 0)  # whether any storey has no room


def storeys_of(design: Design) -> Storeys:
    """Return the storeys of a design; the same object as long as nothing of it changes."""

    parts = (design.of(Floor), design.of(Space), design.of(Building), _wall_table(design))
    return _storeys.get(parts, None, lambda: _make(design))


def footprints_of(design: Design) -> dict[str, Any]:
    """Return by building the ground that its storeys cover; none for one of which nothing is drawn."""
    storeys = storeys_of(design)
    found: dict[str, Any] = {}
    for building in design.of(Building):
        rows = [storeys.regions[f] for f in storeys.ordered(building) if f in storeys.regions]
        area = unary_union(rows) if rows else None
        if area is not None and not area.is_empty:
            found[building] = area
    return found


def _wall_table(design: Design) -> object:
    """Walls say where a storey lies only where it has no room."""
    floors, spaces = design.of(Floor), design.of(Space)

    def bare() -> bool:
        with_rooms = {s.floor for s in spaces.values() if not s.outdoor}
        return any(f not in with_rooms for f in floors)

    return design.of(Wall) if _bare.get((floors, spaces), None, bare) else None


def _make(design: Design) -> Storeys:

    floors = dict(design.of(Floor))
    rooms: dict[str, list[tuple[Space, Any]]] = {}
    for space in design.of(Space).values():
        polygon = Polygon(space.outline)
        shapely.prepare(polygon)
        rooms.setdefault(space.floor, []).append((space, polygon))
    elevation_m = _elevations(floors)
    regions: dict[str, Any] = {}
    for key in floors:
        region = _region(design, key, rooms.get(key, []))
        if region is not None:
            regions[key] = region
    top_m = {key: _top_m(key, floors, elevation_m, regions) for key in floors}
    roofs = {b.id: b.roof for b in design.of(Building).values()}
    return Storeys(floors, elevation_m, top_m, rooms, regions, roofs)


def _elevations(floors: dict[str, Floor]) -> dict[str, float]:
    """Return where each storey stands: as drawn, or on the one below if it would lie in it."""
    found: dict[str, float] = {}
    below: dict[str, Floor] = {}
    for floor in sorted(floors.values(), key=lambda f: (f.building, f.level)):
        under = below.get(floor.building)
        elevation_m = floor.elevation_m
        if under is not None and elevation_m < found[under.id] + LEAST_STOREY_M:
            elevation_m = found[under.id] + under.ceiling_height_m + SLAB_M
        found[floor.id] = elevation_m
        below[floor.building] = floor
    return found


def _top_m(
    key: str, floors: dict[str, Floor], elevation_m: dict[str, float], regions: dict[str, Any]
) -> float:
    """Return where a storey ends: under the next that lies over it, beside half-storeys."""
    floor = floors[key]
    higher = [
        elevation_m[f.id]
        for f in floors.values()
        if f.building == floor.building
        and elevation_m[f.id] > elevation_m[key]
        and _lies_over(regions.get(f.id), regions.get(key))
    ]
    return min(higher, default=elevation_m[key] + floor.ceiling_height_m + SLAB_M)


def _lies_over(upper: Any, lower: Any) -> bool:
    """Whether two storeys overlap; where one has no rooms yet, they are taken to."""
    if upper is None or lower is None:
        return True
    return float(upper.intersection(lower).area) > OVERLAP_M2


def _region(design: Design, floor: str, rooms: list[tuple[Space, Any]]) -> Any:
    indoor = [polygon for space, polygon in rooms if not space.outdoor]
    if not indoor:
        walls = [LineString([w.a, w.b]) for w in design.of(Wall).values() if w.floor == floor]
        indoor = list(polygonize(unary_union(walls))) if walls else []
    if not indoor:
        return None
    region = _closed(unary_union(indoor))
    shapely.prepare(region)
    return region


def _closed(area: Any) -> Any:
    """Close the gaps that walls leave between rooms drawn to their faces."""
    wider = area.buffer(_GAP_M / 2, join_style="mitre")
    return wider.buffer(-_GAP_M / 2, join_style="mitre")


_middles: IdentityMemo[tuple[float, float]] = IdentityMemo(4096, weigh=lambda _: 300)


def spot_within(space: Space) -> tuple[float, float]:
    """Return a spot well within a room, to the centimetre."""

    def look() -> tuple[float, float]:
        spot = Polygon(space.outline).representative_point()
        return round(spot.x, 2), round(spot.y, 2)

    return _middles.get((space,), None, look)
