"""How much of a room's walls are of a kind: what shields a room, what makes it wet."""

from __future__ import annotations

from collections.abc import Callable

from shapely import STRtree
from shapely.geometry import LineString, Polygon
from shapely.ops import unary_union

from ..catalogue import Catalogue, Construction
from ..design import Design, Space, Wall

_WALL_NEAR_M = 0.3


def walls_that(
    design: Design, catalogue: Catalogue, which: Callable[[Construction], bool]
) -> dict[str, STRtree]:
    """Return by floor the walls whose construction is of a kind."""
    lines: dict[str, list[LineString]] = {}
    for wall in design.of(Wall).values():
        if which(catalogue.constructions[wall.construction]):
            lines.setdefault(wall.floor, []).append(LineString([wall.a, wall.b]))
    return {floor: STRtree(rows) for floor, rows in lines.items()}


def share_walled(space: Space, walls: dict[str, STRtree]) -> float:
    """Return the share of a room's outline along which such walls stand, 0 to 1."""
    tree = walls.get(space.floor)
    if tree is None:
        return 0.0
    ring = Polygon(space.outline).exterior
    beside = ring.buffer(_WALL_NEAR_M)
    near = unary_union([tree.geometries[k] for k in tree.query(beside, predicate="intersects")])
    return float(near.intersection(beside).length / ring.length)
