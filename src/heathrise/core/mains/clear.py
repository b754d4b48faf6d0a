"""What is kept clear: the space in front of a panel, and what stands where."""

from __future__ import annotations

import math
from typing import Any

import shapely
from shapely import affinity
from shapely.geometry import LineString, box

from ..base.memo import IdentityMemo
from ..base.wording import metres
from ..catalogue import Rules
from ..design import Design, Panel, Point, Wall

SPACE_FIGURES = ("plan.panel_space_m.wide", "plan.panel_space_m.deep", "plan.panel_space_m.high")
_TOUCHING_M2 = 1e-6
_footprints: IdentityMemo[Any] = IdentityMemo(2048, weigh=lambda _: 2_000)
_clear: IdentityMemo[list[tuple[Panel, Any]]] = IdentityMemo(64, weigh=lambda _: 5_000)
_AT_WALL_M = 1.5  # what stands this near to a wall has its back to it


def clear_space(panel: Panel, rules: Rules) -> Any:
    """Return the ground in front of a panel that nothing may stand in, as a polygon in m."""
    wide, deep = rules["plan.panel_space_m.wide"], rules["plan.panel_space_m.deep"]
    ahead = affinity.rotate(box(-wide / 2, 0, wide / 2, deep), -panel.azimuth_deg, origin=(0, 0))
    return affinity.translate(ahead, *panel.at)


def clear_of(design: Design, floor: str, rules: Rules) -> list[tuple[Panel, Any]]:
    """Return the panels of a storey, each with its clear space."""
    panels = design.of(Panel)

    def found() -> list[tuple[Panel, Any]]:
        return [(p, clear_space(p, rules)) for p in panels.values() if p.floor == floor]

    return _clear.get((panels, rules), floor, found)


def footprint(design: Design, floor: str, at: Point, wide_m: float, deep_m: float) -> Any:
    """Return the ground that something takes whose middle is at a point: its back to the wall
    that it stands at, square to the site where it stands at none."""
    walls = design.of(Wall)
    return _footprints.get(
        (walls,), (floor, at, wide_m, deep_m), lambda: _footprint(design, floor, at, wide_m, deep_m)
    )


def _footprint(design: Design, floor: str, at: Point, wide_m: float, deep_m: float) -> Any:
    plain = box(-wide_m / 2, -deep_m / 2, wide_m / 2, deep_m / 2)
    return affinity.translate(affinity.rotate(plain, _along_deg(design, floor, at), origin=(0, 0)), *at)


def panels_blocked(
    design: Design, floor: str, at: Point, size_m: tuple[float, float], rules: Rules
) -> list[Panel]:
    """Return the panels whose clear space something takes from, wide and deep in m."""
    stands = footprint(design, floor, at, *size_m)
    zones = clear_of(design, floor, rules)
    return [panel for panel, area in zones if area.intersection(stands).area > _TOUCHING_M2]


def in_space_said(name: str, panel: Panel, rules: Rules) -> str:
    """Return in words that something stands in a panel's space, and how large that is."""
    wide, deep, high = (metres(rules[path]) for path in SPACE_FIGURES)
    return (
        f"{name} stands in the clear space of {panel.name}: {wide} wide, {deep} deep and {high} high "
        "are kept free. Check your local code."
    )


def _along_deg(design: Design, floor: str, at: Point) -> float:
    """Return the direction of the nearest wall, degrees anticlockwise from east."""
    point = shapely.Point(at)
    best, least = 0.0, _AT_WALL_M
    for wall in design.of(Wall).values():
        if wall.floor != floor:
            continue
        apart = LineString([wall.a, wall.b]).distance(point)
        if apart < least:
            least = apart
            best = math.degrees(math.atan2(wall.b[1] - wall.a[1], wall.b[0] - wall.a[0]))
    return best
