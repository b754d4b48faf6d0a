"""The site from above: what stands on it, how far apart and how high, what lies in the ground between.

Metres; heights are above the site's zero.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from typing import Any

from shapely.geometry import LineString
from shapely.ops import nearest_points

from ..base.frozen import Frozen
from ..context.buried import meetings_of
from ..context.plan import Plan
from ..context.storeys import Storeys, footprints_of, storeys_of
from ..design import (
    Building,
    BuriedService,
    Carries,
    Design,
    Device,
    Duct,
    Dug,
    EquipmentRoom,
    Floor,
    LineEntry,
    Space,
)
from ..laying import duct_m, trench_minutes

Spot = tuple[float, float]
Ring = tuple[Spot, ...]
_TOUCH_M = 0.05


class SiteBuilding(Frozen):
    """A building's outline, all storeys together; ``floor`` is the one at the ground."""

    building: str
    name: str
    floor: str
    outline: tuple[Ring, ...]
    storeys: int
    ground_m: float
    top_m: float
    area_m2: float
    at: Spot


class SiteYard(Frozen):
    space: str
    name: str
    floor: str
    outline: Ring


class SiteGap(Frozen):
    """What lies between two buildings at their nearest; ``rise_m`` is how much higher the ground of the
    second is, ``clear`` says that no third building stands between."""

    first: str
    second: str
    from_at: Spot
    to_at: Spot
    gap_m: float
    rise_m: float
    clear: bool
    ducts: tuple[str, ...]


class SiteMeeting(Frozen):
    """Where a duct is dug near to a buried service, in m from its start."""

    service: str
    at: Spot
    from_m: float
    to_m: float
    crosses: bool


class SiteDuct(Frozen):
    """A duct: ``dig_minutes`` are those of one person, none where it lies there already."""

    duct: str
    name: str
    path: Ring
    length_m: float
    depth_m: float
    dug: Dug
    dig_minutes: float
    first: str
    second: str
    meetings: tuple[SiteMeeting, ...]


class SiteService(Frozen):
    service: str
    name: str
    carries: Carries
    path: Ring
    depth_m: float | None
    found: bool


class SiteMark(Frozen):
    """A rack, where the line comes in, or a device out of doors."""

    kind: str
    id: str
    name: str
    at: Spot
    floor: str


class SiteView(Frozen):
    buildings: tuple[SiteBuilding, ...]
    yards: tuple[SiteYard, ...]
    gaps: tuple[SiteGap, ...]
    ducts: tuple[SiteDuct, ...]
    services: tuple[SiteService, ...]
    marks: tuple[SiteMark, ...]


def site_view(plan: Plan) -> SiteView:
    """Return what an installer wants to see of a whole site at once."""
    design = plan.design
    storeys = storeys_of(design)
    prints = footprints_of(design)
    buildings = tuple(_buildings(design, storeys, prints))
    ducts = tuple(_ducts(plan))
    return SiteView(
        buildings=buildings,
        yards=tuple(
            SiteYard(space=s.id, name=s.name, floor=s.floor, outline=s.outline)
            for s in design.of(Space).values()
            if s.outdoor
        ),
        gaps=tuple(_gaps(ducts, buildings, prints)),
        ducts=ducts,
        services=tuple(
            SiteService(
                service=s.id, name=s.name, carries=s.carries, path=s.path, depth_m=s.depth_m, found=s.found
            )
            for s in design.of(BuriedService).values()
        ),
        marks=tuple(_marks(design, storeys)),
    )


def _buildings(design: Design, storeys: Storeys, prints: dict[str, Any]) -> Iterator[SiteBuilding]:
    for key, area in prints.items():
        mine = storeys.ordered(key)
        ground = next((f for f in mine if storeys.floors[f].level >= 0), mine[-1])
        tops = [s.z_m for s in storeys.slabs if s.roof and storeys.floors[s.floor].building == key]
        middle = area.representative_point()
        yield SiteBuilding(
            building=key,
            name=design.of(Building)[key].name,
            floor=ground,
            outline=_rings(area),
            storeys=len(mine),
            ground_m=storeys.ground_m(ground),
            top_m=max(tops, default=max(storeys.top_m[f] for f in mine)),
            area_m2=round(area.area, 1),
            at=_spot(middle),
        )


def _rings(area: Any) -> tuple[Ring, ...]:
    parts = [p for p in getattr(area, "geoms", [area]) if p.geom_type == "Polygon"]
    rings = [r for p in parts for r in (p.exterior, *p.interiors)]
    return tuple(tuple((round(x, 3), round(y, 3)) for x, y in r.coords[:-1]) for r in rings)


def _spot(point: Any) -> Spot:
    return (round(point.x, 3), round(point.y, 3))


def _gaps(
    ducts: tuple[SiteDuct, ...], buildings: tuple[SiteBuilding, ...], prints: dict[str, Any]
) -> Iterator[SiteGap]:
    joins: dict[frozenset[str], list[str]] = {}
    for duct in ducts:
        joins.setdefault(frozenset((duct.first, duct.second)), []).append(duct.duct)
    for one, other in itertools.combinations(buildings, 2):
        a, b = nearest_points(prints[one.building], prints[other.building])
        between = LineString([a, b])
        others = [p for key, p in prints.items() if key not in (one.building, other.building)]
        yield SiteGap(
            first=one.building,
            second=other.building,
            from_at=_spot(a),
            to_at=_spot(b),
            gap_m=round(between.length, 3),
            rise_m=round(other.ground_m - one.ground_m, 3),
            clear=not any(p.buffer(-_TOUCH_M).intersects(between) for p in others),
            ducts=tuple(joins.get(frozenset((one.building, other.building)), ())),
        )


def _ducts(plan: Plan) -> Iterator[SiteDuct]:
    design = plan.design
    meetings = meetings_of(design, plan.rules["plan.service_apart_m"])
    home = {f.id: f.building for f in design.of(Floor).values()}
    for duct in design.of(Duct).values():
        yield SiteDuct(
            duct=duct.id,
            name=duct.name,
            path=duct.path,
            length_m=round(duct_m(duct), 3),
            depth_m=duct.depth_m,
            dug=duct.dug,
            dig_minutes=trench_minutes(plan.rules, duct),
            first=home[duct.from_floor],
            second=home[duct.to_floor],
            meetings=tuple(
                SiteMeeting(service=m.service, at=m.at, from_m=m.from_m, to_m=m.to_m, crosses=m.crosses)
                for m in meetings
                if m.duct == duct.id
            ),
        )


def _marks(design: Design, storeys: Storeys) -> Iterator[SiteMark]:
    for rack in design.of(EquipmentRoom).values():
        yield SiteMark(kind="equipment_room", id=rack.id, name=rack.name, at=rack.at, floor=rack.floor)
    for entry in design.of(LineEntry).values():
        yield SiteMark(kind="line_entry", id=entry.id, name="Line", at=entry.at, floor=entry.floor)
    for device in design.of(Device).values():
        if storeys.outdoors(device.floor, device.at, False):
            yield SiteMark(kind=device.kind, id=device.id, name=device.name, at=device.at, floor=device.floor)
