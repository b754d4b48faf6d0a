"""The order of a plan: parts, work, price."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence
from datetime import date, timedelta
from typing import Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..catalogue import Prices, Rules, Used
from ..context.findings import Finding, Place
from ..design import Design, Device, Switch
from ..laying import Hole, Link
from .packs import cheapest_cover
from .parts import Bulk, FarParts, Group, Need, RackParts, gather
from .places import Where
from .work import Done, LabourLine, tasks_of


class PartLine(Frozen):
    """A line of the list of parts. ``price`` is without margin and tax, for all of it."""

    item: str
    label: str
    group: Group
    unit: str
    quantity: float
    each: float = Field(description="price of one")
    price: float = Field(description="price of all that is bought, packs counted")
    charged: float = Field(description="the same with the margin, rounded to the cent")
    whose: Literal["shipped", "firm"]
    note: str = ""
    one_more: float | None = Field(None, description="what one more would cost, packs counted")
    where: tuple[Where, ...]


class Sum(Frozen):
    """The price of a job, step by step, in the site's currency."""

    parts: float
    minutes: float = Field(description="person-minutes of work, rest and clearing up included")
    days: int = Field(description="days on site of one person, with a helper where two are needed")
    labour: float
    travel: float
    net: float
    tax: float
    total: float
    used: tuple[Used, ...] = ()


class Order(Frozen):
    """All that is bought and done for a plan; ``told`` is what to know of the prices."""

    currency: str
    lines: tuple[PartLine, ...]
    kept: tuple[Where, ...]
    tasks: tuple[LabourLine, ...]
    sum: Sum
    told: tuple[str, ...]
    findings: tuple[Finding, ...] = ()

    @property
    def boxes(self) -> int:
        """How many boxes and reels of copper are bought."""
        return int(sum(k.quantity for k in self.lines if k.unit in ("box", "reel")))


def assess_order(
    design: Design,
    prices: Prices,
    links: Sequence[Link],
    holes: Sequence[Hole],
    bought: Sequence[Bulk],
    work: Iterable[Done],
    today: date,
    told: Sequence[str] = (),
    racks: Sequence[RackParts] = (),
    far: Sequence[FarParts] = (),
) -> Order:
    """Return the order of a design as planned.

    Args:
        prices: what each item of the catalogue costs.
        links: runs that have a way, and ways between racks.
        holes: through masonry, of what is laid anew.
        bought: copper as it is bought.
        work: pieces of the steps of the work list, clearing up included.
        told: what else is to know of the parts.
        racks: what each rack takes.
        far: what the ways to far places take.
    """
    catalogue = prices.catalogue
    rules = catalogue.rules
    needs = gather(design, catalogue, links, holes, bought, racks, far)
    lines = tuple(_line(need, prices, rules) for need in _together(needs))
    tasks = tasks_of(work)
    total = _sum(rules, lines, tasks)
    return Order(
        currency=design.site.currency,
        lines=lines,
        kept=_kept(design),
        tasks=tuple(tasks),
        sum=total,
        told=(*told, *_told(rules, lines, prices, today), *(way.told for way in far if way.told)),
        findings=(*_budget(design, total), *_days(design, total), *_far(far)),
    )


def _days(design: Design, total: Sum) -> Iterator[Finding]:
    """Yield that the days on site do not fit between the beginning and the end that were agreed."""
    start, due = design.site.start_on, design.site.due_on
    if not start or not due:
        return
    first, last = date.fromisoformat(start), date.fromisoformat(due)
    there = sum((first + timedelta(days=k)).weekday() < _WEEKEND for k in range((last - first).days + 1))
    if 0 < there < total.days:
        yield Finding(
            id="order-days",
            stage="order",
            severity="near",
            text=f"The work takes one person, with a helper where two are needed, {total.days} "
            f"days; from {start} to {due} there are {there} working days.",
            figure=float(total.days),
            limit=float(there),
            unit="days",
            rule="the work fits between the days that were agreed",
            source="the brief",
            used=total.used,
        )


def _budget(design: Design, total: Sum) -> Iterator[Finding]:
    """Yield that the price is over what the client said he would spend."""
    budget, currency = design.site.budget, design.site.currency
    if budget is not None and total.total > budget:
        over = total.total - budget
        yield Finding(
            id="order-budget",
            stage="order",
            severity="not_met",
            text=f"The job costs {total.total:,.2f} {currency} with tax, {over:,.2f} over the "
            f"budget of {budget:,.2f}.",
            figure=total.total,
            limit=budget,
            unit=currency,
            rule="the price stays within what the client will spend",
            source="the brief",
            used=total.used,
        )


def _far(far: Sequence[FarParts]) -> Iterator[Finding]:
    """Yield that the way which was taken to a far place does not hold as the plan stands."""
    for way in far:
        if way.state == "met":
            continue
        name = way.where.name
        would = f" What would bring it in: {way.would}." if way.would else ""
        yield Finding(
            id=f"order-far-{way.where.id}",
            stage="order",
            severity="not_met" if way.state == "out" else "near",
            text=f"{name} is reached over {way.label}: {way.binds}.{would}",
            rule="the way that was taken to a far place holds",
            source="the land as it is drawn, and the figures in force",
            places=(Place(kind="far_point", id=way.where.id),),
        )


def _together(needs: Sequence[Need]) -> list[Need]:
    """Return one need for each item: what is spare is bought with the rest."""
    found: dict[str, Need] = {}
    for need in needs:
        one = found.get(need.item)
        if one is None:
            found[need.item] = need
        else:
            both = {"quantity": round(one.quantity + need.quantity, 2), "where": (*one.where, *need.where)}
            found[need.item] = one.model_copy(update=both)
    return list(found.values())


def _line(need: Need, prices: Prices, rules: Rules) -> PartLine:
    row = prices.items[need.item]
    each = prices.each(need.item)
    whole = row.unit in ("piece", "box", "reel")
    quantity = math.ceil(need.quantity - 1e-6) if whole else need.quantity
    price, note, more = quantity * each, "", None
    if row.packs:
        cover = cheapest_cover(int(quantity), prices.packs(need.item))
        price = cover.price
        more = round(cheapest_cover(int(quantity) + 1, prices.packs(need.item)).price - price, 2)
        note = ", ".join(f"{n} × pack of {p.count}" for p, n in cover.packs)
        if cover.left_over:
            note += f"; {cover.left_over} left over, may serve as a spare"
    spare = sum(w.quantity for w in need.where if w.kind == "spare")
    if spare:
        note = "; ".join(t for t in (note, f"{spare:g} of them spare") if t)
    return PartLine(
        item=need.item,
        label=row.label,
        group=need.group,
        unit=row.unit,
        quantity=quantity,
        each=each,
        price=_cents(price),
        charged=_cents(price * (1 + rules["order.margin_share"])),
        whose="firm" if prices.since(need.item) is not None else "shipped",
        note=note,
        one_more=more,
        where=need.where,
    )


def _cents(amount: float) -> float:
    """Return an amount to the cent, half a cent up; a sum's last binary digits do not count."""
    return math.floor(amount * 100 + 0.5 + 1e-7) / 100


def _kept(design: Design) -> tuple[Where, ...]:
    devices = [d for d in design.of(Device).values() if d.state == "keep"]
    switches = [s for s in design.of(Switch).values() if s.state == "keep"]
    return (
        *(Where(kind="device", id=d.id, name=d.name, floor=d.floor) for d in devices),
        *(Where(kind="switch", id=s.id, name=s.name) for s in switches),
    )


_WEEKEND = 5  # Saturday, counted from Monday
_USED = (
    "order.margin_share",
    "order.rate_per_hour",
    "order.travel_per_visit",
    "order.day_minutes",
    "order.tax_share",
)


def _sum(rules: Rules, lines: Sequence[PartLine], tasks: Sequence[LabourLine]) -> Sum:
    minutes = round(sum(t.minutes for t in tasks), 1)
    days = int(sum(t.quantity for t in tasks if t.task == "clean"))
    parts = round(sum(line.charged for line in lines), 2)
    labour = _cents(minutes / 60 * rules["order.rate_per_hour"])
    travel = _cents(days * rules["order.travel_per_visit"])
    net = round(parts + labour + travel, 2)
    tax = _cents(net * rules["order.tax_share"])
    return Sum(
        parts=parts,
        minutes=minutes,
        days=days,
        labour=labour,
        travel=travel,
        net=net,
        tax=tax,
        total=round(net + tax, 2),
        used=rules.used(*_USED),
    )


def _told(rules: Rules, lines: Sequence[PartLine], prices: Prices, today: date) -> tuple[str, ...]:
    told = []
    shipped = [line.label for line in lines if line.whose == "shipped"]
    if shipped:
        told.append(
            f"{len(shipped)} of {len(lines)} prices are not the firm's but come with the program: "
            f"{', '.join(shipped[:3])}{' and others' if len(shipped) > 3 else ''}."
        )
    age = int(rules["order.price_age_days"])
    old = [
        line.label
        for line in lines
        if (since := prices.since(line.item)) is not None and (today - since).days > age
    ]
    if old:
        more = " and others" if len(old) > 3 else ""
        told.append(f"{len(old)} prices are older than {age} days: {', '.join(old[:3])}{more}.")
    return tuple(told)
