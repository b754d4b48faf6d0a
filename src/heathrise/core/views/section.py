"""A cut through the site: storeys, walls, slabs and roofs to scale, what hangs near it, what is heard on it.

All along the cut is in m from its start, all heights in m above the site's zero, levels in dBm.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any

import numpy as np
import shapely
from shapely.geometry import LineString, Point

from ..base.frozen import Frozen
from ..building import Stack, stacks_of
from ..catalogue import drawing_style
from ..context.plan import Plan
from ..context.storeys import SLAB_M, Storeys, storeys_of
from ..design import Design, DesignError, Device, EquipmentRoom, Floor, Problem, Riser, Wall
from ..signal import RadioEnvironment, environment_of, heard_along

Spot = tuple[float, float]
STEP_M = 0.5
NEAR_M = 2.0  # what hangs or stands so near to a cut is drawn in it
LONGEST_M = 400.0
_BEYOND_M = 1.0


class CutRoom(Frozen):
    """A room where it is cut; ``top_m`` is its ceiling, or that of what it is open to."""

    space: str
    name: str
    floor: str
    from_m: float
    to_m: float
    foot_m: float
    top_m: float
    outdoor: bool


class CutWall(Frozen):
    """A wall that is cut: ``thick_m`` as it appears along the cut."""

    wall: str
    floor: str
    construction: str
    at_m: float
    thick_m: float
    foot_m: float
    top_m: float


class CutSlab(Frozen):
    """A floor or a roof where it is cut; it lies below ``top_m``, a roof above it."""

    floor: str
    construction: str
    from_m: float
    to_m: float
    top_m: float
    thick_m: float
    roof: bool


class CutStorey(Frozen):
    """A storey on the cut: where it stands and how high its rooms are, as they can be dragged."""

    floor: str
    name: str
    building: str
    from_m: float
    to_m: float
    elevation_m: float
    ceiling_m: float


class NearCut(Frozen):
    """A device or a rack near a cut, ``off_m`` to its left."""

    kind: str
    id: str
    name: str
    floor: str
    at_m: float
    z_m: float
    off_m: float


class CutRiser(Frozen):
    riser: str
    name: str
    at_m: float
    foot_m: float
    top_m: float
    off_m: float


class HeardOn(Frozen):
    """The strongest access point at each step of a storey, where clients are held; None out of its rooms."""

    floor: str
    z_m: float
    step_m: float
    dbm: tuple[float | None, ...]
    by: tuple[str | None, ...]


class SectionView(Frozen):
    """A cut from ``a`` to ``b``, and closets that stack."""

    a: Spot
    b: Spot
    length_m: float
    low_m: float
    high_m: float
    ground_m: float
    storeys: tuple[CutStorey, ...]
    rooms: tuple[CutRoom, ...]
    walls: tuple[CutWall, ...]
    slabs: tuple[CutSlab, ...]
    near: tuple[NearCut, ...]
    risers: tuple[CutRiser, ...]
    heard: tuple[HeardOn, ...]
    stacks: tuple[Stack, ...]


def section_view(plan: Plan, floor: str, cut: tuple[Spot, Spot] | None = None) -> SectionView:
    """Return a cut through the site; along the middle of a storey's building where none is said.

    Raises:
        DesignError: there is no such storey, nothing is drawn yet, or the cut is of no length or too long.
    """
    design = plan.design
    if floor not in design.of(Floor):
        raise DesignError([Problem("floor", f"there is no floor {floor[:40]!r}")])
    storeys = storeys_of(design)
    a, b = cut or _along_building(storeys, floor)
    length_m = math.dist(a, b)
    if not 0.5 <= length_m <= LONGEST_M:
        what = f"the cut is {length_m:.1f} m long; it can be 0.5 to {LONGEST_M:.0f} m"
        raise DesignError([Problem("cut", what)])
    line = LineString([a, b])
    rooms = tuple(_rooms(storeys, line))
    slabs = tuple(_slabs(storeys, line))
    storey_rows = tuple(_storeys(storeys, line))
    ground_m = storeys.ground_m(floor)
    tops = [r.top_m for r in rooms] + [s.top_m + s.thick_m for s in slabs if s.roof]
    return SectionView(
        a=a,
        b=b,
        length_m=round(length_m, 3),
        low_m=min([ground_m, *(s.top_m - s.thick_m for s in slabs)], default=0.0),
        high_m=max(tops, default=ground_m + 3.0),
        ground_m=ground_m,
        storeys=storey_rows,
        rooms=rooms,
        walls=tuple(_walls(design, storeys, line)),
        slabs=slabs,
        near=tuple(_near(design, storeys, line)),
        risers=tuple(_risers(design, storeys, line)),
        heard=tuple(_heard(environment_of(plan), storeys, line, [s.floor for s in storey_rows])),
        stacks=tuple(stacks_of(design, plan.catalogue)),
    )


def _along_building(storeys: Storeys, floor: str) -> tuple[Spot, Spot]:
    """Return the cut along a building the way it is longer, through its middle."""
    mine = storeys.ordered(storeys.floors[floor].building)
    regions = [storeys.regions[f] for f in mine if f in storeys.regions]
    if not regions:
        raise DesignError([Problem("floor", "nothing is drawn of this building yet: draw a room or a wall")])
    box = shapely.oriented_envelope(shapely.union_all(regions))
    corners = list(box.exterior.coords)[:4]
    sides = [(corners[k], corners[(k + 1) % 4]) for k in range(4)]
    first = min(sides[:2], key=lambda s: math.dist(*s))
    opposite = sides[(sides.index(first) + 2) % 4]
    start, end = (((p[0] + q[0]) / 2, (p[1] + q[1]) / 2) for p, q in (first, opposite))
    size = math.dist(start, end) or 1.0
    beyond = tuple((end[k] - start[k]) / size * _BEYOND_M for k in (0, 1))
    ends = ((start[0] - beyond[0], start[1] - beyond[1]), (end[0] + beyond[0], end[1] + beyond[1]))
    # Read from the west, or from the south.
    (ax, ay), (bx, by) = sorted((round(x, 2), round(y, 2)) for x, y in ends)
    return (ax, ay), (bx, by)


def _stretches(line: Any, place: Any) -> Iterator[tuple[float, float]]:
    """Yield where a place is cut, from and to, in m along the cut."""
    shared = line.intersection(place)
    for part in getattr(shared, "geoms", [shared]):
        if part.geom_type == "LineString" and part.length > 1e-6:
            ends = [line.project(Point(p)) for p in (part.coords[0], part.coords[-1])]
            yield round(min(ends), 3), round(max(ends), 3)


def _rooms(storeys: Storeys, line: Any) -> Iterator[CutRoom]:
    for floor, rows in storeys.rooms.items():
        foot = storeys.elevation_m[floor]
        for space, place in rows:
            top = foot + storeys.ceiling_m(space, floor)
            if space.open_above:
                for over in storeys.above(floor, place)[:1]:
                    top = storeys.elevation_m[over] + storeys.floors[over].ceiling_height_m
            for low, high in _stretches(line, place):
                yield CutRoom(
                    space=space.id,
                    name=space.name,
                    floor=floor,
                    from_m=low,
                    to_m=high,
                    foot_m=round(foot, 3),
                    top_m=round(top, 3),
                    outdoor=space.outdoor,
                )


def _slabs(storeys: Storeys, line: Any) -> Iterator[CutSlab]:
    for slab in storeys.slabs:
        for low, high in _stretches(line, slab.area):
            yield CutSlab(
                floor=slab.floor,
                construction=slab.construction,
                from_m=low,
                to_m=high,
                top_m=round(slab.z_m, 3),
                thick_m=SLAB_M,
                roof=slab.roof,
            )


def _storeys(storeys: Storeys, line: Any) -> Iterator[CutStorey]:
    for key, region in storeys.regions.items():
        parts = list(_stretches(line, region))
        if parts:
            floor = storeys.floors[key]
            yield CutStorey(
                floor=key,
                name=floor.name,
                building=floor.building,
                from_m=min(p[0] for p in parts),
                to_m=max(p[1] for p in parts),
                elevation_m=round(storeys.elevation_m[key], 3),
                ceiling_m=floor.ceiling_height_m,
            )


def _walls(design: Design, storeys: Storeys, line: Any) -> Iterator[CutWall]:
    (ax, ay), (bx, by) = line.coords
    for wall in design.of(Wall).values():
        met = line.intersection(LineString([wall.a, wall.b]))
        if met.geom_type != "Point":
            continue
        turn = abs((bx - ax) * (wall.b[1] - wall.a[1]) - (by - ay) * (wall.b[0] - wall.a[0]))
        square = turn / (line.length * wall.length_m)
        foot = storeys.elevation_m[wall.floor]
        thick = drawing_style().pen(wall.construction).width_m
        yield CutWall(
            wall=wall.id,
            floor=wall.floor,
            construction=wall.construction,
            at_m=round(line.project(met), 3),
            thick_m=round(min(thick / max(square, 0.05), 5.0), 3),
            foot_m=round(foot, 3),
            top_m=round(foot + storeys.floors[wall.floor].ceiling_height_m, 3),
        )


def _off(line: Any, at: Spot) -> tuple[float, float] | None:
    """Return how far along a cut and how far to its left a spot lies; None where it is not near."""
    (ax, ay), (bx, by) = line.coords
    ux, uy = (bx - ax) / line.length, (by - ay) / line.length
    along = (at[0] - ax) * ux + (at[1] - ay) * uy
    off = (at[1] - ay) * ux - (at[0] - ax) * uy
    return (round(along, 3), round(off, 3)) if 0 <= along <= line.length and abs(off) <= NEAR_M else None


def _near(design: Design, storeys: Storeys, line: Any) -> Iterator[NearCut]:
    for device in design.of(Device).values():
        if found := _off(line, device.at):
            z = storeys.elevation_m[device.floor] + device.height_m
            yield NearCut(
                kind=device.kind,
                id=device.id,
                name=device.name,
                floor=device.floor,
                at_m=found[0],
                z_m=round(z, 3),
                off_m=found[1],
            )
    for room in design.of(EquipmentRoom).values():
        if found := _off(line, room.at):
            z = storeys.elevation_m[room.floor] + room.rack_height_m
            yield NearCut(
                kind="rack",
                id=room.id,
                name=room.name,
                floor=room.floor,
                at_m=found[0],
                z_m=round(z, 3),
                off_m=found[1],
            )


def _risers(design: Design, storeys: Storeys, line: Any) -> Iterator[CutRiser]:
    for riser in design.of(Riser).values():
        found = _off(line, riser.at)
        through = [
            f
            for f in storeys.floors.values()
            if f.building == riser.building and riser.lowest_level <= f.level <= riser.highest_level
        ]
        if found and through:
            feet = [storeys.elevation_m[f.id] for f in through]
            top = max(through, key=lambda f: storeys.elevation_m[f.id])
            yield CutRiser(
                riser=riser.id,
                name=riser.name,
                at_m=found[0],
                foot_m=round(min(feet), 3),
                top_m=round(storeys.elevation_m[top.id] + top.ceiling_height_m, 3),
                off_m=found[1],
            )


def _heard(air: RadioEnvironment, storeys: Storeys, line: Any, floors: list[str]) -> Iterator[HeardOn]:
    steps = np.arange(STEP_M / 2, line.length, STEP_M)
    spots = [line.interpolate(float(s)) for s in steps]
    height_m = air.catalogue.rules["signal.client_height_m"]
    for floor in floors:
        inside = [k for k, p in enumerate(spots) if _indoors(storeys, floor, (p.x, p.y))]
        x, y = np.array([spots[k].x for k in inside]), np.array([spots[k].y for k in inside])
        dbm: list[float | None] = [None] * len(spots)
        by: list[str | None] = [None] * len(spots)
        for k, (level, device) in zip(inside, heard_along(air, floor, x, y), strict=True):
            dbm[k], by[k] = level, device
        z = storeys.elevation_m[floor] + height_m
        yield HeardOn(floor=floor, z_m=round(z, 3), step_m=STEP_M, dbm=tuple(dbm), by=tuple(by))


def _indoors(storeys: Storeys, floor: str, at: Spot) -> bool:
    room = storeys.room_at(floor, at)
    return room is not None and not room.outdoor
