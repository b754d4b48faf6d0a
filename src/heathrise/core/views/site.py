"""The site from above: what stands on it, how far apart and how high, what lies in the ground between.

Metres; heights are above the site's zero.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from typing import Any, Literal

from shapely.geometry import LineString
from shapely.ops import nearest_points

from ..base.frozen import Frozen
from ..base.shapes import shape_of
from ..context.buried import Meeting, meetings_of
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
    Grove,
    LineEntry,
    Space,
)
from ..evaluation.far_lines import far_view
from ..laying import TrenchSize, duct_m, trench_minutes, trench_of
from .far_taken import far_meetings, taken_ways

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
    """A duct: ``dig_minutes`` are those of one person, none where it lies there already; ``size`` is its
    trench."""

    duct: str
    name: str
    path: Ring
    length_m: float
    depth_m: float
    dug: Dug
    size: TrenchSize
    dig_minutes: float
    first: str
    second: str
    meetings: tuple[SiteMeeting, ...]


class SitePlace(Frozen):
    """A far place, and the rack that feeds it: from where, how far."""

    point: str
    name: str
    at: Spot
    from_at: Spot | None
    length_m: float


Lies = Literal["ground", "air", "none"]


class SiteFarWay(Frozen):
    """The way to a far place that was taken, as straight as it is planned: in the ground with its trench, in
    the air with where both ends are turned, or neither. ``joints`` are boxes part-way."""

    point: str
    name: str
    path: tuple[Spot, Spot]
    label: str
    state: str
    lies: Lies
    size: TrenchSize | None
    dig_minutes: float
    joints: tuple[Spot, ...]
    bearing_deg: float
    back_deg: float
    tilt_deg: float
    meetings: tuple[SiteMeeting, ...]


class SiteService(Frozen):
    service: str
    name: str
    carries: Carries
    path: Ring
    depth_m: float | None
    found: bool


class SiteGrove(Frozen):
    """Trees from above; heights over the ground that they stand on."""

    grove: str
    name: str
    outline: Ring
    height_m: float
    clear_m: float
    area_m2: float
    at: Spot


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
    groves: tuple[SiteGrove, ...]
    places: tuple[SitePlace, ...]
    far: tuple[SiteFarWay, ...]
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
        groves=tuple(_groves(design)),
        places=tuple(
            SitePlace(point=k.point, name=k.name, at=k.to_at, from_at=k.from_at, length_m=k.length_m)
            for k in far_view(plan).lines
        ),
        far=tuple(_far(plan)),
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


def _groves(design: Design) -> Iterator[SiteGrove]:
    for grove in design.of(Grove).values():
        area = shape_of(grove.outline)
        yield SiteGrove(
            grove=grove.id,
            name=grove.name,
            outline=grove.outline,
            height_m=grove.height_m,
            clear_m=grove.clear_m,
            area_m2=round(area.area, 1),
            at=_spot(area.representative_point()),
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
            size=trench_of(plan.rules, duct_m(duct), duct.depth_m, duct.dug),
            dig_minutes=trench_minutes(plan.rules, duct),
            first=home[duct.from_floor],
            second=home[duct.to_floor],
            meetings=tuple(_met(m) for m in meetings if m.trench == duct.id),
        )


def _met(meeting: Meeting) -> SiteMeeting:
    m = meeting
    return SiteMeeting(service=m.service, at=m.at, from_m=m.from_m, to_m=m.to_m, crosses=m.crosses)


def _far(plan: Plan) -> Iterator[SiteFarWay]:
    for taken in taken_ways(plan):
        line, offer = taken.line, taken.offer
        if line is None or line.from_at is None or offer is None:
            continue
        dig = next((t for t in offer.tasks if t.trench is not None), None)
        size = dig.trench if dig is not None else None
        over_air = offer.level_dbm is not None or offer.air is not None
        lies: Lies = "ground" if size is not None else "air" if over_air else "none"
        yield SiteFarWay(
            point=taken.point.id,
            name=taken.point.name,
            path=(line.from_at, line.to_at),
            label=offer.label,
            state=offer.verdict,
            lies=lies,
            size=size,
            dig_minutes=dig.minutes if dig is not None else 0.0,
            joints=tuple(_part_way(line.from_at, line.to_at, offer.joints)),
            bearing_deg=line.bearing_deg,
            back_deg=line.back_deg,
            tilt_deg=line.tilt_deg,
            meetings=tuple(_met(m) for m in far_meetings(plan, taken)) if size is not None else (),
        )


def _part_way(start: Spot, end: Spot, count: int) -> Iterator[Spot]:
    """Yield so many spots that part a line into pieces of one length."""
    for k in range(1, count + 1):
        share = k / (count + 1)
        yield (
            round(start[0] + (end[0] - start[0]) * share, 3),
            round(start[1] + (end[1] - start[1]) * share, 3),
        )


def _marks(design: Design, storeys: Storeys) -> Iterator[SiteMark]:
    for rack in design.of(EquipmentRoom).values():
        yield SiteMark(kind="equipment_room", id=rack.id, name=rack.name, at=rack.at, floor=rack.floor)
    for entry in design.of(LineEntry).values():
        yield SiteMark(kind="line_entry", id=entry.id, name="Line", at=entry.at, floor=entry.floor)
    for device in design.of(Device).values():
        if storeys.outdoors(device.floor, device.at, False):
            yield SiteMark(kind=device.kind, id=device.id, name=device.name, at=device.at, floor=device.floor)
