"""Closets that stand over one another: where a riser goes through a building in nobody's way."""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Sequence
from typing import Any

import shapely

from ..base.frozen import Frozen
from ..catalogue import Catalogue
from ..context.findings import Cure, Finding, Place
from ..context.storeys import Storeys, storeys_of
from ..design import Building, Design, Floor, Riser, Space, free_number, put

_WALL_M = 0.1  # half a wall: what is shared has to lie clear of it
_OFFERED = 3


class Stack(Frozen):
    """Closets over one another from one storey to another, and a spot that lies in all of them."""

    building: str
    spaces: tuple[str, ...]
    lowest_level: int
    highest_level: int
    at: tuple[float, float]
    shared_m2: float


def stacks_of(design: Design, catalogue: Catalogue) -> list[Stack]:
    """Return the stacks of each building, those of most storeys first, then those that share most."""
    storeys = storeys_of(design)
    found = [s for b in design.of(Building) for s in _of_building(storeys, catalogue, b)]
    return sorted(found, key=lambda s: (-len(s.spaces), -s.shared_m2))


def _of_building(storeys: Storeys, catalogue: Catalogue, building: str) -> Iterator[Stack]:
    closet_m2, least_m2 = catalogue.rules["plan.closet_m2"], catalogue.rules["plan.riser_room_m2"]
    closets = [
        [(s, p) for s, p in storeys.rooms.get(floor, ()) if _is_closet(s, p, closet_m2)]
        for floor in storeys.ordered(building)
    ]
    for start, row in enumerate(closets):
        for space, place in row:
            chain, shared = [space], place.buffer(-_WALL_M)
            for over in closets[start + 1 :]:
                rows = [(shared.intersection(p.buffer(-_WALL_M)), s) for s, p in over]
                best = max(rows, key=_area, default=None)
                if best is None or best[0].area < least_m2:
                    break
                shared = best[0]
                chain.append(best[1])
            below = closets[start - 1] if start else ()
            if len(chain) > 1 and not any(p.intersection(shared).area >= least_m2 for _, p in below):
                yield _stack(storeys, building, chain, shared)


def _area(row: tuple[Any, Space]) -> float:
    return float(row[0].area)


def _is_closet(space: Space, place: Any, closet_m2: float) -> bool:
    return not (space.outdoor or space.stairs or space.water) and place.area <= closet_m2


def _stack(storeys: Storeys, building: str, chain: Sequence[Space], shared: Any) -> Stack:
    levels = [storeys.floors[s.floor].level for s in chain]
    spot = shapely.maximum_inscribed_circle(shared).coords[0] if shared.geom_type == "Polygon" else None
    x, y = spot or (shared.representative_point().x, shared.representative_point().y)
    return Stack(
        building=building,
        spaces=tuple(s.id for s in chain),
        lowest_level=min(levels),
        highest_level=max(levels),
        at=(round(x, 2), round(y, 2)),
        shared_m2=round(shared.area, 2),
    )


def stack_findings(design: Design, catalogue: Catalogue) -> Iterator[Finding]:
    """Yield each building that has storeys which no riser joins, though closets stack there."""
    stacks = stacks_of(design, catalogue)
    for building in design.of(Building).values():
        mine = [s for s in stacks if s.building == building.id]
        levels = sorted(f.level for f in design.of(Floor).values() if f.building == building.id)
        bare = [(a, b) for a, b in itertools.pairwise(levels) if not _joined(design, building.id, a, b)]
        joins = [s for s in mine if any(s.lowest_level <= a and b <= s.highest_level for a, b in bare)]
        offered = joins[:_OFFERED]
        if not offered:
            continue
        names = design.of(Space)
        best = offered[0]
        yield Finding(
            id=f"plan-stack-{building.id}",
            stage="plan",
            severity="note",
            text=f"{building.name}: no riser joins its storeys, and "
            f"{_all(design, best)} stand over one another.",
            places=tuple(Place(kind="space", id=s, floor=names[s].floor, at=best.at) for s in best.spaces),
            rule="a riser goes through closets that stack, where nobody sees it and every storey reaches it",
            source="geometry of the drawing",
            used=catalogue.rules.used("plan.closet_m2", "plan.riser_room_m2"),
            cures=tuple(_cure(design, stack) for stack in offered),
        )


def _all(design: Design, stack: Stack) -> str:
    names = [design.of(Space)[s].name for s in stack.spaces]
    return f"{', '.join(names[:-1])} and {names[-1]}"


def _joined(design: Design, building: str, low: int, high: int) -> bool:
    risers = design.of(Riser).values()
    return any(r.building == building and r.lowest_level <= low and high <= r.highest_level for r in risers)


def _cure(design: Design, stack: Stack) -> Cure:
    names = [design.of(Space)[s].name for s in stack.spaces]
    riser = Riser(
        id=f"riser-{free_number(design.of(Riser), 'riser')}",
        building=stack.building,
        name=f"Riser {names[0]}"[:120],
        at=stack.at,
        lowest_level=stack.lowest_level,
        highest_level=stack.highest_level,
    )
    effect = f"{stack.shared_m2:.2f} m² are shared by all of them; have the floors opened as local rules ask"
    return Cure(label=f"Make a riser through {_all(design, stack)}", effect=effect, changes=(put(riser),))
