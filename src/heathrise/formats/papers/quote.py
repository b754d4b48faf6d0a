"""The offer on paper: what is promised and what is not, what it costs; the parts as an annex."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import timedelta

from ...core.context.firm import Firm
from ...core.context.plan import Plan
from ...core.design import Design
from ...core.diagram import diagram_of
from ...core.evaluation.evaluate import Evaluation, evaluate
from ...core.order import GROUPS, Order
from ...core.views.bill_of_materials import order_of
from ...core.views.offers import Offer
from ...core.views.promises import RoomPromise, promised
from .diagram import network_figure
from .head import NO_HEAD, Head
from .render import Papers, html_of, pdf_of, style

GROUP_NAMES = {
    "gear": "Gear",
    "cable": "Cable",
    "ends": "Jacks, plugs, cords",
    "mounting": "Mounting",
    "ways": "Holes and ways",
    "protection": "Surge protection",
    "rack": "Rack",
    "spares": "Spares",
}
_NETWORK_MM = (182.0, 120.0)
_UNITS = {"box": "boxes", "m": "m", "piece": ""}


@dataclass(frozen=True)
class Quote:
    """What an offer is made of. ``options`` are other ways of doing the job, beside the plan."""

    name: str
    revision: int
    plan: Plan
    options: Sequence[Offer] = ()
    number: str = ""


def quote_pdf(quote: Quote, head: Head = NO_HEAD) -> bytes:
    """Return the offer as PDF, A4 or Letter by the site's units."""
    return pdf_of(quote_html(quote, head))


def quote_html(quote: Quote, head: Head = NO_HEAD) -> str:
    """Return the offer as the page that is printed."""
    plan = quote.plan
    design, order, said = plan.drawn, order_of(plan), promised(plan)
    papers, firm = Papers(design.site.units), head.firm
    return html_of(
        "quote.html",
        style=style(),
        size=papers.size,
        head=head,
        name=quote.name,
        number=quote.number,
        revision=quote.revision,
        today=plan.on.isoformat(),
        valid=(plan.on + timedelta(days=firm.valid_days)).isoformat(),
        client=design.site.client_name,
        work=_window(design.site.start_on, design.site.due_on),
        pains=[
            {
                "name": name,
                "words": words,
                "word": "mended" if mended else "not mended",
                "tone": "met" if mended else "not_met",
            }
            for name, words, mended in said.complaints
        ],
        rooms=_rooms(said.rooms),
        wishes=said.wishes,
        refused=[papers.words(r) for r in said.not_promised],
        sums=_sums(order),
        budget=_budget(order),
        options=_options(quote),
        facts=_facts(design, evaluate(plan), order),
        network=network_figure(diagram_of(plan), *_NETWORK_MM),
        client_does=[papers.words(c) for c in said.client_does],
        later=_later(design, evaluate(plan)),
        terms=_terms(firm),
        groups=_groups(order) if firm.parts_annex else [],
        kept=[w.name for w in order.kept],
        tasks=[
            {
                "label": t.label + (", licensed" if t.licensed else ""),
                "quantity": f"{t.quantity:g}",
                "unit": _unit(t.unit, t.quantity),
                "hours": f"{t.minutes / 60:.1f}",
            }
            for t in order.tasks
        ],
        hours=f"{order.sum.minutes / 60:.1f}",
    )


def _rooms(rooms: Sequence[RoomPromise]) -> list[dict[str, str]]:
    """Return the rooms that are promised their use, by use and storey."""
    by_use: dict[str, dict[str, list[str]]] = {}
    for room in rooms:
        if room.kept:
            by_use.setdefault(room.use, {}).setdefault(room.floor, []).append(room.name)
    return [
        {
            "use": use[:1].upper() + use[1:],
            "names": "; ".join(f"{floor}: {', '.join(names)}" for floor, names in floors.items()),
        }
        for use, floors in by_use.items()
    ]


def _window(start: str | None, due: str | None) -> str:
    """Return when the work is, in words; days that cannot be are not printed as a promise."""
    if start and due:
        in_order = start <= due
        return f"work from {start} to {due}" if in_order else "days of work still to be agreed"
    if start:
        return f"work from {start}"
    return f"work done by {due}" if due else ""


def _facts(design: Design, evaluation: Evaluation, order: Order) -> list[tuple[str, str]]:
    totals, papers = evaluation.totals, Papers(design.site.units)
    days = order.sum.days
    return [
        ("Access points", str(totals.access_points)),
        ("Copper cable", papers.length(totals.cable_m, 0)),
        ("Days on site", f"{days} of one person, with a second where two are needed"),
        ("Free ports", f"{totals.ports - totals.ports_used} of {totals.ports}"),
        ("Watts of the switches", f"{totals.counted_w:g} of {totals.budget_w:g} W used"),
    ]


def _groups(order: Order) -> list[dict[str, object]]:
    found: list[dict[str, object]] = []
    for group in GROUPS:
        lines = [k for k in order.lines if k.group == group]
        rows = [
            {
                "label": k.label,
                "quantity": f"{k.quantity:g}",
                "unit": _unit(k.unit, k.quantity),
                "charged": f"{k.charged:,.2f}",
                "note": k.note,
            }
            for k in lines
        ]
        if rows:
            total = f"{sum(k.charged for k in lines):,.2f}"
            found.append({"name": GROUP_NAMES[group], "lines": rows, "sum": total})
    return found


def _unit(unit: str, count: float) -> str:
    plural = _UNITS.get(unit, f"{unit}s")
    return plural if count != 1 or unit in ("m", "piece") else unit


def _sums(order: Order) -> list[dict[str, object]]:
    total = order.sum
    used = {u.figure: u.value for u in total.used}
    rows = (
        ("Parts", "", total.parts),
        ("Work", f"{total.minutes / 60:.1f} hours at {used.get('order.rate_per_hour', '')}", total.labour),
        (
            "Travel",
            f"{total.days} day{'s' if total.days != 1 else ''} at {used.get('order.travel_per_visit', '')}",
            total.travel,
        ),
        ("Net", "", total.net),
        ("Tax", used.get("order.tax_share", ""), total.tax),
        (f"Total, {order.currency}", "", total.total),
    )
    last = len(rows) - 1
    return [
        {"label": label, "how": how, "amount": f"{amount:,.2f}", "total": k == last}
        for k, (label, how, amount) in enumerate(rows)
    ]


def _budget(order: Order) -> str:
    return " ".join(f.text for f in order.findings if f.id == "order-budget")


def _options(quote: Quote) -> list[dict[str, str]]:
    """Return other ways of doing the job that fit the plan, each against this offer's price."""
    here = order_of(quote.plan).sum.total
    return [
        {
            "name": o.name,
            "rooms": f"{o.rooms_met} of {o.rooms_needed}",
            "points": str(o.access_points),
            "total": f"{o.total:,.2f}",
            "gap": f"{'+' if o.total >= here else '−'}{abs(o.total - here):,.2f}",
        }
        for o in quote.options
        if o.variant is not None and not o.fits
    ]


def _terms(firm: Firm) -> list[tuple[str, str]]:
    rows = [
        ("Payment", firm.payment),
        ("Bank", firm.bank),
        ("Warranty", firm.warranty),
        ("Terms", firm.terms),
    ]
    return [(label, said) for label, said in rows if said]


def _later(design: Design, evaluation: Evaluation) -> list[str]:
    papers = Papers(design.site.units)
    return [
        f"{r.name}: {r.ports} ports, {r.watts:g} W and {r.cables} spare cables of "
        f"{papers.length(r.cable_m, 0)} in all are kept for it"
        + (f"; the plan lacks {r.lacks}." if r.lacks else ".")
        for r in evaluation.brief.reserves
    ]
