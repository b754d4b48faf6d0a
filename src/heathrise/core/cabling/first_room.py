"""Where the first rack would stand best, as an offer before there is one."""

from __future__ import annotations

import math

import shapely
from shapely.geometry import Polygon

from ..base.wording import metres
from ..catalogue import Catalogue
from ..context.findings import Cure
from ..design import Building, Design, Device, EquipmentRoom, Floor, Point, Space, Wall, apply, put
from .runs import judge_runs
from .second_room import GOOD, spot_within

_TRIED = 4  # rooms that are routed from in full,
_ROUTED_FOR = 25  # up to so many devices; beyond, the nearest in all is good enough to begin with
_OFFERED = 2
_BESIDE_M = 0.3
_WET_SHARE = 0.35  # a room beside a bath has less of it


def first_room(design: Design, catalogue: Catalogue) -> tuple[Cure, ...]:
    """Offer a rack in the rooms that suit it best.

    Rooms that nobody needs signal in come first (a store, a cupboard), rooms with wet walls never.
    Of the few nearest to what is to be wired each is routed from: fewest runs that will not do,
    then least cable.
    """
    devices = list(design.of(Device).values())
    rooms = [s for s in design.of(Space).values() if not s.outdoor]
    dry = [s for s in rooms if not is_wet(design, catalogue, s)]
    spare = [s for s in dry if s.use == "none"]
    options = sorted(spare or dry, key=lambda s: _reach_m(design, s))[:_TRIED]
    middle = shapely.MultiPoint([d.at for d in devices]).centroid if devices else None
    routed = 0 < len(devices) <= _ROUTED_FOR
    tried = []
    for space in options:
        near = (middle.x, middle.y) if middle is not None else space.outline[0]
        at = spot_within(design, space.floor, space, near)
        room = EquipmentRoom(id="rack-1", floor=space.floor, name="Rack", at=at)
        runs = judge_runs(apply(design, [put(room)]), catalogue) if routed else []
        bad = sum(1 for r in runs if r.verdict not in GOOD)
        tried.append((bad, sum(r.bought_m * r.cables for r in runs), space, room, runs))
    tried.sort(key=lambda row: row[:2])
    return tuple(
        Cure(
            label=f"Place a rack in {space.name}",
            effect=_effect(design, space, len(runs), bad, cable_m),
            changes=(put(room),),
        )
        for bad, cable_m, space, room, runs in tried[:_OFFERED]
    )


def _effect(design: Design, space: Space, count: int, bad: int, cable_m: float) -> str:
    floor = design.of(Floor)[space.floor]
    where = f"{design.of(Building)[floor.building].name}, {floor.name}"
    if not count:
        return where
    reached = "all runs within reach" if not bad else f"{count - bad} of {count} runs within reach"
    return f"{where}; {reached}, {metres(cable_m, 0)} of cable"


def is_wet(design: Design, catalogue: Catalogue, space: Space) -> bool:
    """Whether water runs in a room: as was said of it, else much of it being tiled for water."""
    if space.water is not None:
        return space.water
    return _is_wet(space, _wet_walls(design, catalogue).get(space.floor, []))


def _wet_walls(design: Design, catalogue: Catalogue) -> dict[str, list[shapely.LineString]]:
    found: dict[str, list[shapely.LineString]] = {}
    for wall in design.of(Wall).values():
        if catalogue.constructions[wall.construction].wet:
            found.setdefault(wall.floor, []).append(shapely.LineString([wall.a, wall.b]))
    return found


def _is_wet(space: Space, wet: list[shapely.LineString]) -> bool:
    """Whether much of the room is tiled for water: no place for a rack."""
    ring = Polygon(space.outline).exterior
    beside = ring.buffer(_BESIDE_M)
    wet_m = sum(beside.intersection(line).length for line in wet)
    return bool(wet_m >= _WET_SHARE * ring.length)


def _reach_m(design: Design, space: Space) -> float:
    """Return how far in all a room lies from the devices, or from the rooms while there are none.

    A storey apart counts by the difference in height; another building by its distance.
    """
    here = Polygon(space.outline).representative_point()
    floors = design.of(Floor)
    z_m = floors[space.floor].elevation_m
    ends: list[tuple[Point, str]] = [(d.at, d.floor) for d in design.of(Device).values()]
    if not ends:
        ends = [(s.outline[0], s.floor) for s in design.of(Space).values() if s.use != "none"]
    return sum(math.dist(at, (here.x, here.y)) + abs(floors[floor].elevation_m - z_m) for at, floor in ends)
