"""Where ways cross: stairs, the landings over them, and rooms with doors on many sides."""

from __future__ import annotations

from collections import Counter

from shapely import STRtree
from shapely.geometry import Point, Polygon

from ..catalogue import Rules
from ..design import Design, Opening, Space, Wall
from ..storeys import storeys_of

_AT_WALL_M = 0.3


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
