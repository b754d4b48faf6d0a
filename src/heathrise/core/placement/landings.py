"""Where mesh hangs well: stairs, the landings over them, rooms with many doors, near an outlet."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence

from shapely import STRtree
from shapely.geometry import Point, Polygon

from ..catalogue import Catalogue, Rules
from ..context.storeys import storeys_of
from ..design import Design, Device, Opening, Space, Wall

_AT_WALL_M = 0.3


def drawbacks(design: Design, catalogue: Catalogue, places: Sequence[Device]) -> tuple[int, ...]:
    """Return by place how much speaks against it for mesh: no way crosses there, no outlet near."""
    storeys, halls = storeys_of(design), crossings(design, catalogue.rules)
    fed = by_outlets(design, catalogue, places)
    rooms = (storeys.room_at(p.floor, p.at) for p in places)
    return tuple(
        int(room is None or room.id not in halls) + int(place.id not in fed)
        for place, room in zip(places, rooms, strict=True)
    )


def crossings(design: Design, rules: Rules) -> set[str]:
    """Return the rooms from which the air reaches on through stairwells and doors."""
    storeys = storeys_of(design)
    found: set[str] = set()
    for space in design.of(Space).values():
        if not space.stairs:
            continue
        found.add(space.id)
        area = Polygon(space.outline)
        middle = area.representative_point()
        for floor in storeys.above(space.floor, area)[:1]:
            over = storeys.room_at(floor, (middle.x, middle.y))
            if over is not None:
                found.add(over.id)
    least = rules["signal.mesh_hall_doors"]
    return found | {s for s, count in _doors(design).items() if count >= least}


def by_outlets(design: Design, catalogue: Catalogue, places: Sequence[Device]) -> set[str]:
    """Return the places near an outlet of their room: mains is beside one as a rule."""
    storeys, near_m = storeys_of(design), catalogue.rules["signal.mesh_outlet_m"]
    outlets = [
        (d, storeys.room_at(d.floor, d.at, _AT_WALL_M))
        for d in design.of(Device).values()
        if catalogue.role_of(d).links == "every_cable"
    ]
    found: set[str] = set()
    for place in places:
        room = storeys.room_at(place.floor, place.at, _AT_WALL_M)
        if room is not None and any(
            there is not None and there.id == room.id and math.dist(d.at, place.at) <= near_m
            for d, there in outlets
        ):
            found.add(place.id)
    return found


def _doors(design: Design) -> Counter[str]:
    """Return how many doors and gaps each indoor room has."""
    walls = design.of(Wall)
    at: dict[str, list[Point]] = {}
    for opening in design.of(Opening).values():
        if opening.kind == "window":
            continue
        wall = walls[opening.wall]
        share = (opening.offset_m + opening.width_m / 2) / wall.length_m
        spot = (wall.a[k] + share * (wall.b[k] - wall.a[k]) for k in (0, 1))
        at.setdefault(wall.floor, []).append(Point(*spot))
    found: Counter[str] = Counter()
    trees = {floor: STRtree(points) for floor, points in at.items()}
    for space in design.of(Space).values():
        tree = trees.get(space.floor)
        if tree is not None and not space.outdoor:
            ring = Polygon(space.outline).exterior
            found[space.id] = len(tree.query(ring, predicate="dwithin", distance=_AT_WALL_M))
    return found
