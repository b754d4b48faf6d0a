"""Storeys that contradict each other, with cures that make sense of them."""

from __future__ import annotations

import itertools
from collections.abc import Iterator

from ..base.wording import metres
from ..catalogue import Catalogue
from ..context.findings import Cure, Finding, Place
from ..context.storeys import OVERLAP_M2, SLAB_M, Storeys, storeys_of
from ..design import Building, Design, Floor, put

_RULE = "each storey stands above the ceiling of the one below, with a slab between"
_SOURCE = "geometry of the drawing"


def storey_findings(design: Design, catalogue: Catalogue) -> Iterator[Finding]:
    """Yield each pair of storeys, and each room, that the drawing makes stand in another."""
    storeys = storeys_of(design)
    least_m = catalogue.rules["plan.least_ceiling_m"]
    for building in design.of(Building).values():
        floors = [f for f in design.of(Floor).values() if f.building == building.id]
        floors.sort(key=lambda f: f.level)
        for lower, upper in itertools.pairwise(floors):
            yield from _order(design, lower, upper)
        for number, lower in enumerate(floors):
            over = (f for f in floors[number + 1 :] if _over(storeys, lower.id, f.id))
            yield from _ceiling(design, lower, next(over, None), least_m)
    yield from _tall_rooms(storeys, least_m)


def _order(design: Design, lower: Floor, upper: Floor) -> Iterator[Finding]:
    if upper.elevation_m <= lower.elevation_m:
        text = f"{upper.name} at {metres(upper.elevation_m)} does not stand above {lower.name}"
        text += f" at {metres(lower.elevation_m)}. It is read as standing on the storey below."
        yield _finding(f"storeys-{upper.id}", text, lower, upper, _raise(design, lower, upper))


def _ceiling(design: Design, lower: Floor, upper: Floor | None, least_m: float) -> Iterator[Finding]:
    """Yield where a storey's ceiling reaches into the next that lies over it."""
    ceiling_m = lower.elevation_m + lower.ceiling_height_m
    if upper is None or not lower.elevation_m < upper.elevation_m <= ceiling_m:
        return
    text = (
        f"{lower.name}: its ceiling at {metres(round(ceiling_m, 2))} leaves no slab under "
        f"{upper.name} at {metres(upper.elevation_m)}. Its rooms are read as ending there."
    )
    cures = (*_lower_ceiling(lower, upper, least_m), _raise(design, lower, upper))
    yield _finding(f"ceiling-{lower.id}", text, lower, upper, *cures)


def _finding(key: str, text: str, lower: Floor, upper: Floor, *cures: Cure) -> Finding:
    ceiling_m = lower.elevation_m + lower.ceiling_height_m
    return Finding(
        id=f"plan-{key}",
        stage="plan",
        severity="not_met",
        text=text,
        places=tuple(Place(kind="floor", id=f.id, floor=f.id) for f in (upper, lower)),
        figure=round(ceiling_m, 2),
        limit=upper.elevation_m,
        unit="m",
        rule=_RULE,
        source=_SOURCE,
        cures=cures,
    )


def _over(storeys: Storeys, lower: str, upper: str) -> bool:
    """Whether rooms of both lie over one another; half-storeys side by side may differ freely."""
    if lower not in storeys.regions or upper not in storeys.regions:
        return True
    shared = storeys.regions[lower].intersection(storeys.regions[upper])
    return bool(shared.area > OVERLAP_M2)


def _raise(design: Design, lower: Floor, upper: Floor) -> Cure:
    """Return the cure that lifts a storey, and all above it, clear of the one below."""
    wanted_m = round(lower.elevation_m + lower.ceiling_height_m + SLAB_M, 2)
    lift_m = wanted_m - upper.elevation_m
    lifted = [
        f.model_copy(update={"elevation_m": round(f.elevation_m + lift_m, 2)})
        for f in design.of(Floor).values()
        if f.building == upper.building and f.level >= upper.level
    ]
    effect = f"lifts it and what is above by {metres(round(lift_m, 2))}"
    label = f"Put {upper.name} at {metres(wanted_m)}"
    return Cure(label=label, effect=effect, changes=tuple(put(f) for f in lifted))


def _lower_ceiling(lower: Floor, upper: Floor, least_m: float) -> tuple[Cure, ...]:
    height_m = round(upper.elevation_m - lower.elevation_m - SLAB_M, 2)
    if height_m < least_m:
        return ()
    changed = lower.model_copy(update={"ceiling_height_m": height_m})
    label = f"Make the ceiling of {lower.name} {metres(height_m)} high"
    return (Cure(label=label, changes=(put(changed),)),)


def _tall_rooms(storeys: Storeys, least_m: float) -> Iterator[Finding]:
    for floor, rows in storeys.rooms.items():
        for space, polygon in rows:
            if space.ceiling_height_m is None or space.open_above or space.outdoor:
                continue
            top_m = storeys.elevation_m[floor] + space.ceiling_height_m
            over = [f for f in storeys.above(floor, polygon) if storeys.elevation_m[f] <= top_m]
            if not over:
                continue
            upper = storeys.floors[over[0]]
            opened = space.model_copy(update={"open_above": True})
            cures = [Cure(label=f"{space.name} is open to {upper.name}", changes=(put(opened),))]
            height_m = round(storeys.elevation_m[upper.id] - storeys.elevation_m[floor] - SLAB_M, 2)
            if height_m >= least_m:
                changed = space.model_copy(update={"ceiling_height_m": height_m})
                label = f"Make its ceiling {metres(height_m)} high"
                cures.append(Cure(label=label, changes=(put(changed),)))
            yield Finding(
                id=f"plan-tall-{space.id}",
                stage="plan",
                severity="not_met",
                text=f"{space.name}: its ceiling at {metres(space.ceiling_height_m)} reaches into "
                f"{upper.name}, which has rooms over it. It is read as ending at the slab.",
                places=(Place(kind="space", id=space.id, floor=floor),),
                figure=round(top_m, 2),
                limit=storeys.elevation_m[upper.id],
                unit="m",
                rule=_RULE,
                source=_SOURCE,
                cures=tuple(cures),
            )
