"""Storeys of another drawing, put on a building of this one."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from ..catalogue import Catalogue, drawing_style
from ..design import (
    Building,
    Change,
    Design,
    DesignError,
    Duct,
    Element,
    Floor,
    Problem,
    Riser,
    Wall,
    apply,
    free_number,
    put,
)
from .copies import Copier
from .images import bounds, moved

_SLAB_M = drawing_style().measures.slab_m
_ON_FLOORS = ("wall", "opening", "space", "device", "equipment_room")


def storeys_joined(design: Design, drawn: Design, building: str, catalogue: Catalogue) -> list[Change]:
    """Return the changes that put all storeys of ``drawn`` on a building, from its highest one up.

    A storey goes where one of its name is empty already. The south-west corner of its walls comes to lie
    under, or over, that of the building's; where nothing is drawn yet it lies at the site's zero.

    Raises:
        DesignError: there is no such building.
    """
    if building not in design.of(Building):
        what = f"there is no building {building[:40]!r} in the plan"
        raise DesignError([Problem("building", what)])
    made: list[Change] = []
    floors: dict[str, Floor] = {}
    for storey in sorted(drawn.of(Floor).values(), key=lambda f: f.level):
        floor = _empty(design, building, storey.name) or _above(apply(design, made), building, storey)
        if floor.id not in design.of(Floor):
            made.append(put(floor))
        floors[storey.id] = floor
    by = _corner_to(design, drawn, building)
    copier = Copier(apply(design, made), catalogue)
    for key, floor in floors.items():
        chosen = {(kind, e.id): e for kind, e in drawn.elements() if _stands_on(drawn, kind, e, key)}
        made += copier.copies(chosen, moved(by), floor.id, keep_names=True)
    made += _ways(apply(design, made), drawn, floors, by, building)
    return made


def _empty(design: Design, building: str, name: str) -> Floor | None:
    """Return the storey of a name on which nothing is drawn."""
    walls = {w.floor for w in design.of(Wall).values()}
    rows = (f for f in design.of(Floor).values() if f.building == building and f.id not in walls)
    return next((f for f in rows if f.name.casefold() == name.casefold()), None)


def _above(design: Design, building: str, storey: Floor) -> Floor:
    """Return a storey like another, on top of a building, or at its ground where it has none."""
    there = [f for f in design.of(Floor).values() if f.building == building]
    top = max(there, key=lambda f: f.level, default=None)
    fields: dict[str, Any] = {
        "id": f"floor-{free_number(design.of(Floor), 'floor')}",
        "building": building,
        "level": top.level + 1 if top else 0,
        "elevation_m": round(top.elevation_m + top.ceiling_height_m + _SLAB_M, 3) if top else 0.0,
    }
    return storey.model_copy(update=fields)


def _corner_to(design: Design, drawn: Design, building: str) -> tuple[float, float]:
    """Return the way from the corner of what is drawn to that of the building."""
    own = {f.id for f in design.of(Floor).values() if f.building == building}
    there = [w for w in design.of(Wall).values() if w.floor in own]
    come = list(drawn.of(Wall).values())
    if not there or not come:
        return 0.0, 0.0
    (west, south, *_), (left, low, *_) = bounds(there), bounds(come)
    return west - left, south - low


def _stands_on(drawn: Design, kind: str, element: Element, floor: str) -> bool:
    if kind == "opening":
        return bool(drawn.of(Wall)[getattr(element, "wall")].floor == floor)  # noqa: B009
    return kind in _ON_FLOORS and getattr(element, "floor", None) == floor


def _ways(
    design: Design, drawn: Design, floors: dict[str, Floor], by: tuple[float, float], building: str
) -> Iterator[Change]:
    """Yield risers and ducts, which belong to no single storey."""
    level = {drawn.of(Floor)[key].level: floor.level for key, floor in floors.items()}
    image = moved(by)
    taken = set(design.of(Riser))
    for riser in drawn.of(Riser).values():
        through: dict[str, Any] = {
            "id": f"riser-{free_number(taken, 'riser')}",
            "building": building,
            "lowest_level": level[riser.lowest_level],
            "highest_level": level[riser.highest_level],
        }
        taken.add(through["id"])
        yield put(image.of(riser).model_copy(update=through))
    taken = set(design.of(Duct))
    for duct in drawn.of(Duct).values():
        between: dict[str, Any] = {
            "id": f"duct-{free_number(taken, 'duct')}",
            "from_floor": floors[duct.from_floor].id,
            "to_floor": floors[duct.to_floor].id,
        }
        taken.add(between["id"])
        yield put(image.of(duct).model_copy(update=between))
