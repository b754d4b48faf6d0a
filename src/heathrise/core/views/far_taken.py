"""Ways to far places that somebody took: their parts for the order, their work for the work list."""

from __future__ import annotations

from dataclasses import dataclass

from ..context.buried import Meeting, meetings_along, named
from ..context.plan import Plan, answered
from ..design import FarPoint
from ..evaluation.far_lines import FarLine, far_view
from ..evaluation.far_sites import taken_offers
from ..far import CAUTIONS, FarOffer
from ..install import FarWork, FarWorkTask
from ..order import FarParts, Where

_LICENSED_TASKS = frozenset({"feed", "cabinet"})


@dataclass(frozen=True)
class TakenWay:
    """A far place, the line to it, and the way that was taken, None where there is no such way any more."""

    point: FarPoint
    line: FarLine | None
    offer: FarOffer | None


@answered
def taken_ways(plan: Plan) -> list[TakenWay]:
    """Return the ways that were taken; none of what stands there today."""
    if plan.when == "today":
        return []
    offers, lines = taken_offers(plan), {row.point: row for row in far_view(plan).lines}
    points = [p for p in plan.drawn.of(FarPoint).values() if p.way]
    return [TakenWay(p, lines.get(p.id), offers.get(p.id)) for p in points]


def far_parts(plan: Plan) -> list[FarParts]:
    """Return what the taken ways take of parts, each as the way itself has it."""
    rows = []
    for taken in taken_ways(plan):
        offer, point = taken.offer, taken.point
        items = tuple((p.item, p.unit, p.quantity) for p in offer.parts) if offer is not None else ()
        where = Where(kind="far_point", id=point.id, name=point.name)
        state = offer.verdict if offer is not None else "out"
        binds = offer.binds if offer is not None else "it has no rack to be fed from, or no such way"
        label = offer.label if offer is not None else point.way
        would = offer.would if offer is not None else ""
        told = ""
        if offer is not None and offer.cost.monthly:
            currency = plan.drawn.site.currency
            told = (
                f"{point.name} over {label}: a plan of {offer.cost.monthly:,.2f} {currency} a month is the "
                "client's own contract and not in this price."
            )
        rows.append(FarParts(where, items, state, label, binds, would, told))
    return rows


def far_works(plan: Plan) -> list[FarWork]:
    """Return the work of the taken ways, task by task."""
    found = []
    for taken in taken_ways(plan):
        offer, point = taken.offer, taken.point
        if offer is None:
            continue
        met = far_meetings(plan, taken) if any(t.trench is not None for t in offer.tasks) else []
        tasks = tuple(
            FarWorkTask(
                key=t.key,
                phase=t.phase,
                task=t.task,
                title=f"{point.name}: {t.label[0].lower()}{t.label[1:]}",
                quantity=t.quantity,
                minutes=t.minutes,
                hazards=t.hazards,
                licensed=t.task in _LICENSED_TASKS and bool(offer.licensed),
                checks=_aim(taken) if t.task == "aim" else (),
                said=_said(offer, t.task),
                trench=t.trench,
                near=tuple(named(plan.drawn, m) for m in met) if t.trench is not None else (),
            )
            for t in offer.tasks
        )
        found.append(FarWork(point.id, plan.catalogue.parts["duct"].label, tasks))
    return found


def far_meetings(plan: Plan, taken: TakenWay) -> list[Meeting]:
    """Return where a trench, drawn straight, comes near to buried services."""
    line = taken.line
    if line is None or line.from_at is None:
        return []
    path = (line.from_at, line.to_at)
    return meetings_along(plan.drawn, taken.point.id, path, plan.rules["plan.service_apart_m"])


def _said(offer: FarOffer, task: str) -> tuple[str, ...]:
    licensed = offer.licensed if task in _LICENSED_TASKS else ()
    return (*CAUTIONS.get(task, ()), *licensed)


def _aim(taken: TakenWay) -> tuple[str, ...]:
    """Return what both ends are turned to, and the level that says that they are."""
    line, offer = taken.line, taken.offer
    if line is None or offer is None or offer.level_dbm is None:
        return ()
    compass = ""
    if line.compass_deg is not None:
        back = (line.compass_deg + 180) % 360
        compass = f". By compass {line.compass_deg:.0f}° and {back:.0f}°"
    return (
        f"At the house {line.bearing_deg:.0f}° from true north, tilt {line.tilt_deg:+.1f}°; "
        f"there {line.back_deg:.0f}°, tilt {-line.tilt_deg:+.1f}°{compass}",
        f"Level to reach in clear weather, both ends: {offer.level_dbm:.0f} dBm",
    )
