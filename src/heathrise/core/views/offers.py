"""The plan beside others made by a policy: what each does to rooms, metres, watts, hours, price."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from pydantic import Field, TypeAdapter

from ..base.frozen import Frozen
from ..base.progress import Progress, always
from ..context.integrity import REFERENCES, check
from ..context.plan import Plan
from ..context.storeys import spot_within
from ..design import KINDS, Change, Design, DesignError, Device, Problem, Remove, Space, Variant, put
from ..evaluation.cure_search import added_in
from ..evaluation.evaluate import evaluate
from ..signal import RoomVerdict, environment_of, judge_rooms
from .added_ports import with_ports
from .bill_of_materials import order_of
from .promises import promised_rooms

Policy = Literal["first_only", "second_everywhere"]
POLICY_NAMES: dict[Policy, str] = {
    "first_only": "First coverage, one cable each",
    "second_everywhere": "Second everywhere, 6A, spare pulled",
}
_CHANGES: TypeAdapter[list[Change]] = TypeAdapter(list[Change])
_MOST_ADDED = 12


class Offer(Frozen):
    """One way of doing the job, in figures. ``variant`` is none for the plan as it stands."""

    variant: str | None
    name: str
    fits: str = Field("", description="why it does not fit the plan any more, or nothing")
    access_points: int = 0
    rooms_needed: int = 0
    rooms_met: int = Field(0, description="rooms whose use is promised, over what is connected")
    rooms_first: int = 0
    rooms_second_needed: int = 0
    rooms_second: int = 0
    cable_m: float = Field(0.0, description="copper as installed, m")
    boxes: int = 0
    expected_w: float = Field(0.0, description="watts expected at the ports")
    ports_left: int = 0
    hours: float = Field(0.0, description="work of one person, h")
    total: float = Field(0.0, description="price with tax, in the site's currency")
    busiest: float = Field(0.0, description="share of its air of the busiest radio")
    not_met: int = Field(0, description="findings that are not met")


def with_changes(plan: Plan, variant: Variant) -> Plan:
    """Return the plan as a variant would have it.

    Raises:
        DesignError: it does not fit the plan any more.
    """
    after = plan.after(changes_of(variant))
    check(after.drawn, plan.shelf)
    return after


def changes_of(variant: Variant) -> list[Change]:
    """Return a variant's changes, read and checked in their form."""
    try:
        return _CHANGES.validate_python(list(variant.changes))
    except ValueError:
        raise DesignError([Problem(f"variant[{variant.id}]", "holds no changes")]) from None


def offers(plan: Plan) -> list[Offer]:
    """Return the plan as it stands and each of its variants, all of them really evaluated."""
    found = [offer_of(None, "The plan as it stands", plan)]
    for variant in plan.drawn.of(Variant).values():
        try:
            other = with_changes(plan, variant)
        except DesignError as error:
            found.append(Offer(variant=variant.id, name=variant.name, fits=str(error)))
            continue
        found.append(offer_of(variant.id, variant.name, other))
    return found


def offer_of(variant: str | None, name: str, plan: Plan) -> Offer:
    """Return one way of doing the job in figures, really evaluated."""
    evaluation, order = evaluate(plan), order_of(plan)
    totals = evaluation.totals
    rooms = promised_rooms(plan)
    return Offer(
        variant=variant,
        name=name,
        access_points=totals.access_points,
        rooms_needed=totals.rooms_needed,
        rooms_met=sum(r.kept for r in rooms),
        rooms_first=totals.rooms_first,
        rooms_second_needed=totals.rooms_second_needed,
        rooms_second=totals.rooms_second,
        cable_m=totals.cable_m,
        boxes=order.boxes,
        expected_w=totals.expected_w,
        ports_left=totals.ports - totals.ports_used,
        hours=round(order.sum.minutes / 60, 1),
        total=order.sum.total,
        not_met=totals.not_met,
        busiest=evaluation.signal.busy.worst if evaluation.signal.busy is not None else 0.0,
    )


def make_variant(plan: Plan, policy: Policy, progress: Progress = always) -> list[Change]:
    """Return the changes that a policy makes of a plan; stopped, those found by then."""
    makers: dict[Policy, Callable[[Plan, Progress], list[Change]]] = {
        "first_only": _first_only,
        "second_everywhere": _second_everywhere,
    }
    changes = makers[policy](plan, progress)
    # What a policy adds has a port, and is priced with the switch that it needs.
    bought, _ = with_ports(plan.after(changes))
    return [*changes, *bought]


def _judged(plan: Plan) -> list[RoomVerdict]:
    return judge_rooms(environment_of(plan))


def _first_only(plan: Plan, progress: Progress) -> list[Change]:
    """One cable to each access point, and only those without which a room loses its first."""
    site = plan.drawn.site.model_copy(update={"cables_per_access_point": 1, "minimum_category": "6"})
    changes: list[Change] = [put(site)]
    now = plan.after(changes)
    met = plan.rules["signal.met_share"]

    def heard(at: Plan) -> set[str]:
        return {r.space for r in _judged(at) if (r.share_first or 0) >= met}

    wanted = heard(now)
    points = [
        d
        for d in now.drawn.of(Device).values()
        if d.state == "new" and plan.catalogue.role_of(d).cables == "policy"
    ]
    for number, device in enumerate(points):
        if not progress(number, len(points)):
            break
        fewer = removal(now.drawn, device)
        after = now.after(fewer)
        if heard(after) >= wanted:
            now, changes = after, [*changes, *fewer]
    return changes


def _second_everywhere(plan: Plan, progress: Progress) -> list[Change]:
    """Category 6A and a spare cable to each access point; one more wherever the second lacks."""
    most = min(4, plan.drawn.site.cables_per_access_point + 1)
    site = plan.drawn.site.model_copy(update={"cables_per_access_point": most, "minimum_category": "6A"})
    changes: list[Change] = [put(site)]
    now = plan.after(changes)
    met = plan.rules["signal.met_share"]
    given_up: set[str] = set()
    for number in range(_MOST_ADDED):
        short = [
            r
            for r in _judged(now)
            if r.share_second is not None and r.share_second < met and r.space not in given_up
        ]
        if not short or not progress(number, _MOST_ADDED):
            break
        worst = min(short, key=lambda r: r.share_second or 0.0)
        space = now.drawn.of(Space)[worst.space]
        new = next(added_in(now, space, spot_within(space), list(now.design.of(Device).values())), None)
        given_up.add(worst.space)  # one more in the same room would not be a second
        if new is not None:
            changes.append(put(new[1]))
            now = now.after([put(new[1])])
    return changes


def removal(design: Design, device: Device) -> list[Change]:
    """Return the changes that take a device away with what cannot stand without it."""
    changes: list[Change] = []
    for kind in reversed(KINDS):
        for field, (target, many) in REFERENCES[kind].items():
            if target != "device":
                continue
            for row in design.tables.get(kind, {}).values():
                said = getattr(row, field)
                if many and device.id in said:
                    kept = tuple(key for key in said if key != device.id)
                    changes.append(put(row.model_copy(update={field: kept})))
                elif said == device.id:
                    changes.append(Remove(kind=kind, id=row.id))
    return [*changes, Remove(kind="device", id=device.id)]
