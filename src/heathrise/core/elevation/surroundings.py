"""What is about a rack: a spot at a wall that is clear, and the rooms that hear it."""

from __future__ import annotations

import shapely

from ..base.memo import IdentityMemo
from ..catalogue import Catalogue
from ..context.storeys import storeys_of
from ..design import Design, Opening, Panel, Point, Space, Wall
from ..mains import clear_of, footprint

_STEP_M = 0.1
_SPARE_M = 0.05
_BEHIND_M = 0.05
_DOOR_M = 0.3  # what stands nearer to a door is in its way
_AT_WALL_M = 0.35
_spots: IdentityMemo[Point | None] = IdentityMemo(256, weigh=lambda _: 500)


def clear_spot(
    design: Design, catalogue: Catalogue, space: Space, near: Point, size_m: tuple[float, float]
) -> Point | None:
    """Return the spot at a wall of a room nearest to a point where a frame, wide and deep in m, keeps
    clear of panels and of doors, or None."""
    parts = (design.of(Panel), design.of(Wall), design.of(Opening), catalogue.rules, space)
    return _spots.get(parts, (near, size_m), lambda: _found_spot(design, catalogue, space, near, size_m))


def _found_spot(
    design: Design, catalogue: Catalogue, space: Space, near: Point, size_m: tuple[float, float]
) -> Point | None:
    zones = [area for _, area in clear_of(design, space.floor, catalogue.rules)]
    zones += [door.buffer(_DOOR_M) for door in _doors(design, space.floor)]
    ring = shapely.Polygon(space.outline).buffer(-(size_m[1] / 2 + _BEHIND_M), join_style="mitre")
    inside = shapely.Polygon(space.outline).buffer(0.01)
    here = shapely.Point(near)
    spots = []
    for line in getattr(ring.boundary, "geoms", [ring.boundary]):
        spots += [line.interpolate(k * _STEP_M) for k in range(int(line.length / _STEP_M) + 1)]
    for spot in sorted(spots, key=here.distance):
        at = round(spot.x, 2), round(spot.y, 2)
        stands = footprint(design, space.floor, at, *size_m)
        if inside.covers(stands) and all(area.distance(stands) >= _SPARE_M for area in zones):
            return at
    return None


def _doors(design: Design, floor: str) -> list[shapely.LineString]:
    walls = design.of(Wall)
    found = []
    for opening in design.of(Opening).values():
        wall = walls[opening.wall]
        if wall.floor == floor and opening.kind != "window":
            line = shapely.LineString([wall.a, wall.b])
            ends = (line.interpolate(opening.offset_m + k * opening.width_m) for k in (0, 1))
            found.append(shapely.LineString(list(ends)))
    return found


def heard(
    design: Design, catalogue: Catalogue, floor: str, at: tuple[float, float], noise_db: float
) -> list[tuple[Space, float, float]]:
    """Return the rooms that hear a rack, with its sound there and what their use bears, dB(A): the one
    it stands in, and those behind a wall of it."""
    rules, storeys = catalogue.rules, storeys_of(design)
    here = storeys.room_at(floor, at)
    if here is None or here.outdoor or noise_db <= 0:
        return []
    mine = shapely.Polygon(here.outline).buffer(_AT_WALL_M)
    rows = [(here, noise_db - rules["rack.near_db"])]
    for space, polygon in storeys.rooms.get(floor, []):
        if space.id != here.id and not space.outdoor and polygon.intersects(mine):
            rows.append((space, noise_db - rules["rack.wall_db"]))
    return [(space, round(level, 1), rules[f"rack.noise_db.{space.use}"]) for space, level in rows]
