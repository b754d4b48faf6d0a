"""A whole building put elsewhere on the site."""

from __future__ import annotations

import math
from typing import Any

from shapely.affinity import translate
from shapely.ops import nearest_points

from ..catalogue import Catalogue
from ..context.storeys import footprints_of
from ..design import Building, Change, Design, DesignError, Duct, Floor, Problem, Riser, put
from .hand import Apart, Carry
from .images import Spot, moved

_TRIES = 40
_EXACT_M = 5e-5
_PLACES = 4  # tenths of a millimetre, as all that is put elsewhere


def carry(design: Design, gesture: Carry, _: Catalogue) -> list[Change]:
    """Return what moves a building.

    Raises:
        DesignError: there is no such building.
    """
    return _carried(design, _known(design, gesture.building, "building"), gesture.by)


def apart(design: Design, gesture: Apart, _: Catalogue) -> list[Change]:
    """Return what puts a building so far from another, along the line between them at their nearest.

    Raises:
        DesignError: there is no such building, nothing is drawn of one, or they stand in one another.
    """
    building, other = _known(design, gesture.building, "building"), _known(design, gesture.other, "other")
    prints = footprints_of(design)
    for key in (building, other):
        if key not in prints:
            what = f"nothing is drawn of {design.of(Building)[key].name} yet: draw a room of it first"
            raise DesignError([Problem("building", what)])
    mine, theirs = prints[building], prints[other]
    if mine.intersects(theirs):
        names = f"{design.of(Building)[building].name} and {design.of(Building)[other].name}"
        raise DesignError([Problem("gap_m", f"{names} stand in one another: drag one off first")])
    by = (0.0, 0.0)
    # Once it has moved other corners may be the nearest, so it is measured anew.
    for _try in range(_TRIES):
        a, b = nearest_points(translate(mine, *by), theirs)
        now_m = math.dist((a.x, a.y), (b.x, b.y))
        if abs(now_m - gesture.gap_m) < _EXACT_M or now_m == 0:
            break
        share = (now_m - gesture.gap_m) / now_m
        by = (by[0] + (b.x - a.x) * share, by[1] + (b.y - a.y) * share)
    return _carried(design, building, (round(by[0], _PLACES), round(by[1], _PLACES)))


def _known(design: Design, building: str, where: str) -> str:
    if building not in design.of(Building):
        raise DesignError([Problem(where, f"there is no building {building[:40]!r} in the plan")])
    return building


def _carried(design: Design, building: str, by: Spot) -> list[Change]:
    floors = {f.id for f in design.of(Floor).values() if f.building == building}
    image = moved(by)
    found: list[Change] = []
    for _, element in design.elements():
        own: Any = element
        if isinstance(element, Duct):
            path = list(element.path)
            ends = [k for k, f in ((0, element.from_floor), (-1, element.to_floor)) if f in floors]
            if len(ends) == 2:
                path = list(image.of(element).path)  # type: ignore[attr-defined]
            else:
                for k in ends:
                    path[k] = image.of(element).path[k]  # type: ignore[attr-defined]
            own = element.model_copy(update={"path": tuple(path)})
        elif (isinstance(element, Riser) and element.building == building) or (
            getattr(element, "floor", None) in floors
        ):
            own = image.of(element)
        if own != element:
            found.append(put(own))
    return found
