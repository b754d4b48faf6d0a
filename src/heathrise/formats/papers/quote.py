"""The offer on paper: what is bought, what is done, what it costs."""

from __future__ import annotations

from datetime import date

from ...core.design import Design
from ...core.evaluate import Evaluation
from ...core.order import GROUPS, Order
from .render import Papers, html_of, pdf_of, style

GROUP_NAMES = {
    "gear": "Gear", "cable": "Cable", "ends": "Jacks, plugs, cords", "mounting": "Mounting",
    "ways": "Holes and ways", "protection": "Surge protection", "rack": "Rack", "spares": "Spares",
}  # fmt: skip


def quote_pdf(
    name: str, design: Design, evaluation: Evaluation, order: Order, revision: int, on: date
) -> bytes:
    """Return the offer as PDF, A4 or Letter by the site's units."""
    html = html_of(
        "quote.html",
        style=style(),
        size=Papers(design.site.units).size,
        name=name,
        revision=revision,
        today=on.isoformat(),
        client=design.site.client_name,
        facts=_facts(design, evaluation),
        groups=[
            {"name": GROUP_NAMES[group], "lines": lines}
            for group in GROUPS
            if (lines := _lines(order, group))
        ],
        kept=[w.name for w in order.kept],
        tasks=[
            {"label": t.label, "quantity": f"{t.quantity:g}",
             "unit": t.unit if t.unit == "m" or t.quantity == 1 else f"{t.unit}s",
             "hours": f"{t.minutes / 60:.1f}"}
            for t in order.tasks
        ],
        sums=_sums(order),
        later=_later(design, evaluation),
    )  # fmt: skip
    return pdf_of(html)


def _facts(design: Design, evaluation: Evaluation) -> list[tuple[str, str]]:
    tally, papers = evaluation.tally, Papers(design.site.units)
    days = " to ".join(d for d in (design.site.start_on, design.site.due_on) if d)
    rows = [
        ("Rooms served", f"{tally.rooms_met} of {tally.rooms_needed} meet their use"),
        ("Access points", str(tally.access_points)),
        ("Cable", papers.length(tally.cable_m, 0)),
        ("Ports left", f"{tally.ports - tally.ports_used} of {tally.ports}"),
        ("Watts", f"{tally.counted_w:g} of {tally.budget_w:g} W"),
        ("Work", days),
    ]
    return [(label, said) for label, said in rows if said]


def _lines(order: Order, group: str) -> list[dict[str, str]]:
    return [
        {
            "label": line.label, "quantity": f"{line.quantity:g}",
            "unit": "" if line.unit == "piece" else line.unit,
            "charged": f"{line.charged:,.2f}", "note": line.note,
        }
        for line in order.lines
        if line.group == group
    ]  # fmt: skip


def _sums(order: Order) -> list[tuple[str, str]]:
    total = order.sum
    hours = f"Work, {total.minutes / 60:.1f} hours"
    visits = f"Travel, {total.days} day{'s' if total.days != 1 else ''}"
    rows = [
        ("Parts", total.parts), (hours, total.labour), (visits, total.travel), ("Net", total.net),
        ("Tax", total.tax), (f"Total, {order.currency}", total.total),
    ]  # fmt: skip
    return [(label, f"{amount:,.2f}") for label, amount in rows]


def _later(design: Design, evaluation: Evaluation) -> list[str]:
    papers = Papers(design.site.units)
    return [
        f"{r.name}: {r.ports} ports, {r.watts:g} W and {r.cables} spare cables of "
        f"{papers.length(r.cable_m, 0)} in all are kept for it"
        + (f"; the plan lacks {r.lacks}." if r.lacks else ".")
        for r in evaluation.brief.reserves
    ]
