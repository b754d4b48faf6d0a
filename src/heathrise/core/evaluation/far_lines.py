"""Places on the land, each with the line to the rack that feeds it. Metres; heights above the site's zero."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping

from pydantic import Field

from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..catalogue import Rules
from ..context.leaves import over_the_line
from ..context.plan import Plan
from ..context.storeys import Storeys, storeys_of
from ..design import Design, EquipmentRoom, FarPoint, Grove, Point
from ..far import (
    MHZ,
    Ground,
    LinkBand,
    SightVerdict,
    Trees,
    bearing_deg,
    clearance,
    fresnel_m,
    growth_m,
    judge_sight,
    trees_of,
)

BANDS: tuple[LinkBand, ...] = ("5", "60")
_DRAWN = 121
_HAIR_M = 0.01
_LENGTH_OFF = 0.02  # of a line's length, by which a profile may be longer


class FarSlice(Frozen):
    """A place along a line: the ground, what stands on it when the years are over, the line itself, and
    the radius of the first Fresnel zone on either band."""

    at_m: float
    ground_m: float
    top_m: float
    line_m: float
    zone_5_m: float
    zone_60_m: float


class FarLine(Frozen):
    """A place and the line to it. ``room`` is None where there is no rack to feed it from; then nothing
    else is told. ``off`` says that the profile goes on beyond the line; ``said_leaves_m`` are its metres
    through trees that were said of it, beside those that are drawn."""

    point: str
    name: str
    room: str | None
    from_at: Point | None = None
    to_at: Point
    length_m: float = 0.0
    rise_m: float = 0.0
    bearing_deg: float = 0.0
    back_deg: float = 0.0
    compass_deg: float | None = Field(
        None, description="the bearing by a compass, where its declination is said"
    )
    tilt_deg: float = 0.0
    off: str = ""
    said_leaves_m: float = 0.0
    slices: tuple[FarSlice, ...] = ()
    sights: tuple[SightVerdict, ...] = ()


_kept: IdentityMemo[FarLine] = IdentityMemo(256)


class FarView(Frozen):
    lines: tuple[FarLine, ...]


def far_view(plan: Plan) -> FarView:
    """Return every place on the land with its line, as it will be when its years are over."""
    return FarView(lines=tuple(_lines(plan.drawn, plan.rules)))


def _lines(design: Design, rules: Rules) -> Iterator[FarLine]:
    storeys = storeys_of(design)
    for point in design.of(FarPoint).values():
        room = _fed_from(design, point)
        if room is None or math.dist(room.at, point.at) < _HAIR_M:
            yield FarLine(point=point.id, name=point.name, room=None, to_at=point.at)
        else:
            yield _line(rules, storeys, point, room, design.of(Grove))


def _fed_from(design: Design, point: FarPoint) -> EquipmentRoom | None:
    """Return the rack that is said, or else the nearest."""
    rooms = design.of(EquipmentRoom)
    if point.room is not None:
        return rooms[point.room]
    return min(rooms.values(), key=lambda r: math.dist(r.at, point.at), default=None)


def _line(
    rules: Rules, storeys: Storeys, point: FarPoint, room: EquipmentRoom, groves: Mapping[str, Grove]
) -> FarLine:
    near_m = storeys.ground_m(room.floor)
    key = rules, point, room, groves
    return _kept.get(key, near_m, lambda: _drawn(rules, near_m, point, room, groves))


def _drawn(
    rules: Rules, near_m: float, point: FarPoint, room: EquipmentRoom, groves: Mapping[str, Grove]
) -> FarLine:
    length = math.dist(room.at, point.at)
    said = _ground(near_m, point, length, trees_of(rules, point.trees))
    grown = tuple(_trees(rules, groves, room.at, point.at, length))
    ground = _ground(near_m, point, length, (*said.trees, *grown))
    masts = (point.room_mast_m, point.mast_m)
    bearing = bearing_deg(room.at, point.at)
    off_deg = rules["far.declination_deg"]
    compass = bearing_deg(room.at, point.at, off_deg) if off_deg else None
    start, end = ground.height_m[0] + masts[0], ground.height_m[-1] + masts[1]
    last = max((p[0] for p in point.profile), default=0.0)
    off = ""
    if last > length + max(1.0, _LENGTH_OFF * length):
        off = f"its profile goes to {last:.0f} m, the line is {length:.0f} m long: it is of another line"
    return FarLine(
        point=point.id,
        name=point.name,
        room=room.id,
        from_at=room.at,
        to_at=point.at,
        length_m=round(length, 2),
        rise_m=round(ground.height_m[-1] - ground.height_m[0], 2),
        bearing_deg=round(bearing, 1) % 360,
        back_deg=round(bearing + 180, 1) % 360,
        compass_deg=round(compass, 1) % 360 if compass is not None else None,
        tilt_deg=round(math.degrees(math.atan2(end - start, length)), 2),
        off=off,
        said_leaves_m=round(clearance(said, *masts, MHZ["5"] / 1000, point.years).leaves_m, 2),
        slices=tuple(_slices(ground, start, end, point.years)),
        sights=tuple(judge_sight(rules, band, ground, masts, point.years) for band in BANDS),
    )


def _ground(near_m: float, point: FarPoint, length: float, trees: tuple[Trees, ...]) -> Ground:
    """Return the ground from the rack's building to the place: as the profile has it between the two ends."""
    between = [p for p in point.profile if _HAIR_M < p[0] < length - _HAIR_M]
    rows = dict(between)  # of two heights at one place the last
    at, heights = zip((0.0, near_m), *sorted(rows.items()), (length, point.ground_m), strict=True)
    return Ground(at, heights, trees)


def _trees(
    rules: Rules, groves: Mapping[str, Grove], start: Point, end: Point, length: float
) -> Iterator[Trees]:
    """Yield the drawn trees that a line goes over or through, stretch by stretch."""
    for grove in groves.values():
        for a, b in over_the_line(grove, start, end):
            yield Trees(a * length, b * length, grove.height_m, growth_m(rules, grove.grows_m), grove.clear_m)


def _slices(ground: Ground, start: float, end: float, years: float) -> Iterator[FarSlice]:
    at = ground.places(_DRAWN)
    low, top = ground.over(at, years)
    left = ground.length_m - at
    zones = [fresnel_m(at, left, MHZ[band] / 1000) for band in BANDS]
    for k, x in enumerate(at.tolist()):
        yield FarSlice(
            at_m=round(x, 2),
            ground_m=round(float(low[k]), 2),
            top_m=round(float(top[k]), 2),
            line_m=round(start + (end - start) * x / ground.length_m, 3),
            zone_5_m=round(float(zones[0][k]), 3),
            zone_60_m=round(float(zones[1][k]), 3),
        )
