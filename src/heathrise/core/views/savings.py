"""What could be left out of a plan: what it saves now, what it would cost to do it later, and what
it spoils. Each is really worked out."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from pydantic import Field

from ..base.frozen import Frozen
from ..base.progress import Progress
from ..base.wording import some
from ..catalogue import Catalogue
from ..context.integrity import check
from ..context.plan import Plan
from ..context.storeys import storeys_of
from ..design import Change, Design, DesignError, Device, Duct, Space, Zone, apply, put
from ..evaluation.evaluate import Evaluation, evaluate
from ..laying import Link, pulling_of
from .bill_of_materials import order_of
from .laid_links import fresh_holes, links_of
from .offers import removal

_LEAST_SHARE = 0.002
_OFFERED = 10


class Saving(Frozen):
    """One thing that could be left out. Prices with tax, in the site's currency."""

    label: str
    changes: tuple[Change, ...]
    saves: float = Field(description="what the job costs less")
    later: float | None = Field(description="what it would cost by itself later on, if it can be")
    spoils: tuple[str, ...] = Field(description="what was right and is not any more")


def savings_of(plan: Plan, progress: Progress) -> list[Saving]:
    """Return what could be left out, what spoils nothing first, then the dearest.

    Stopped, it gives those tried by then.
    """
    order, ideas = order_of(plan), list(_ideas(plan.drawn, plan.catalogue))
    found: list[Saving] = []
    for number, (label, changes, can_wait) in enumerate(ideas):
        if not progress(number, len(ideas)):
            break
        after = plan.after(changes)
        try:
            check(after.drawn, plan.shelf)
        except DesignError:
            continue
        saves = round(order.sum.total - order_of(after).sum.total, 2)
        if saves < _LEAST_SHARE * order.sum.total:
            continue
        later = _later(plan, after, saves) if can_wait else None
        found.append(
            Saving(
                label=label,
                changes=tuple(changes),
                saves=saves,
                later=later,
                spoils=(*_taken(plan, after), *_spoils(evaluate(plan), evaluate(after))),
            )
        )
    found.sort(key=lambda s: (len(s.spoils) > 0, -s.saves))
    return found[:_OFFERED]


def _ideas(drawn: Design, catalogue: Catalogue) -> Iterator[tuple[str, list[Change], bool]]:
    """Yield what might be left out, and whether it can be done later."""
    site = drawn.site
    for zone in drawn.of(Zone).values():
        if zone.kind == "later":
            none = zone.model_copy(update={"access_points": 0, "outlets": 0, "cameras": 0})
            yield f"Leave out the spare cable for {zone.name}", [put(none)], True
    if site.cables_per_access_point > 1:
        one = site.model_copy(update={"cables_per_access_point": 1})
        yield "Leave out the second cable of each access point", [put(one)], True
    for duct in drawn.of(Duct).values():
        if duct.dug in ("loam", "clay", "stony"):
            yield (
                f"Dig {duct.name} with a small machine instead of by hand",
                [put(duct.model_copy(update={"dug": "machine"}))],
                False,
            )
            there = duct.model_copy(update={"dug": "there"})
            yield f"The client digs {duct.name} and lays its duct", [put(there)], False
    rooms: dict[str, list[Device]] = {}
    for device in drawn.of(Device).values():
        role = catalogue.role_of(device)
        if device.state != "new" or role.leads_out:
            continue
        if role.links == "every_cable":
            rooms.setdefault(_room_of(drawn, device), []).append(device)
        else:
            yield f"Leave out {device.name}", list(removal(drawn, device)), True
    for room, outlets in rooms.items():
        changes: list[Change] = []
        now = drawn
        for device in outlets:
            less = removal(now, device)
            now, changes = apply(now, less), [*changes, *less]
        what = "the outlet" if len(outlets) == 1 else f"the {len(outlets)} outlets"
        yield f"Leave out {what} of {room}", changes, True


def _room_of(design: Design, device: Device) -> str:
    room = storeys_of(design).room_at(device.floor, device.at, within_m=0.3)
    return room.name if isinstance(room, Space) else device.name


def _later(plan: Plan, after: Plan, saves: float) -> float:
    """Return what it would cost to do later what is left out now: what it saves, a visit of its
    own, cable pulled by itself, holes that are shared now made once more."""
    rules = plan.rules
    now = {k.id: k for k in links_of(plan) if not k.found}
    then = {k.id: k for k in links_of(after)}
    gone = [_less(k, then.get(k.id)) for k in now.values()]
    lost = [k for k in gone if k is not None]
    minutes = rules["order.prepare_minutes"] + rules["order.clean_minutes"]
    charged = sum(p.minutes for p in pulling_of(rules, now.values()).values())
    kept = [k for k in then.values() if k.id in now]
    charged -= sum(p.minutes for p in pulling_of(rules, kept).values())
    minutes += max(0.0, sum(p.minutes for p in pulling_of(rules, lost).values()) - charged)
    keys = {k.id for k in lost}
    shared = [h for h in fresh_holes(plan) if keys & set(h.links) and set(h.links) - keys]
    minutes += len(shared) * rules["order.drill_minutes.masonry"]
    visit = minutes / 60 * rules["order.rate_per_hour"] + rules["order.travel_per_visit"]
    return round(saves + visit * (1 + rules["order.tax_share"]), 2)


def _less(link: Link, kept: Link | None) -> Link | None:
    """Return the cables of a link that are left out, as a link of their own; None where none is."""
    cables = link.cables - (kept.cables if kept is not None else 0)
    if cables <= 0:
        return None
    stretches = tuple(replace(s, cables=cables) for s in link.stretches)
    return replace(link, cables=cables, stretches=stretches)


def _taken(plan: Plan, after: Plan) -> Iterator[str]:
    """Yield what is simply not there any more: what is no access point is there for itself."""
    for key, device in plan.drawn.of(Device).items():
        if key not in after.drawn.of(Device) and device.model not in plan.catalogue.airs:
            role = plan.catalogue.role_of(device)
            if role.links == "one":
                yield f"no {role.name.lower()} there"


def _spoils(before: Evaluation, after: Evaluation) -> Iterator[str]:
    """Yield what was right before and is not after, in words."""
    good = {r.space for r in before.rooms if r.verdict == "met"}
    rooms = [r.name for r in after.rooms if r.space in good and r.verdict != "met"]
    if rooms:
        yield f"{some(rooms)} no longer {'meet their' if len(rooms) > 1 else 'meets its'} use"
    mended = {p.pain for p in before.brief.pains if p.outcome == "mended"}
    pains = [p.name for p in after.brief.pains if p.pain in mended and p.outcome != "mended"]
    if pains:
        yield f"not mended any more: {some(pains)}"
    met = {w.space: w.missing for w in before.brief.wishes}
    wishes = [w.name for w in after.brief.wishes if w.missing > met.get(w.space, w.missing)]
    if wishes:
        yield f"wires wished for lack in {some(wishes)}"
    holds = {h.habit for h in before.signal.habits or () if h.verdict == "holds"}
    walks = [h.name for h in after.signal.habits or () if h.habit in holds and h.verdict != "holds"]
    if walks:
        yield f"a call breaks on the way {some(walks)}"
