"""The brief on paper: two pages to agree with the client."""

from __future__ import annotations

from markupsafe import Markup

from ...core.catalogue import Catalogue
from ...core.context.plan import Plan
from ...core.design import ClientGroup, Complaint, Design, Floor, LineEntry, Space, Zone
from ...core.evaluation.evaluate import Evaluation, evaluate
from ..sheets import draw_sheet
from .head import NO_HEAD, Head
from .render import Papers, html_of, pdf_of, style

_RULES = {
    "no_drilling": "no drilling without asking",
    "listed": "listed building",
    "landlord": "landlord's consent needed",
    "no_visible_cable": "no cable in sight",
    "quiet_hours": "noise in set hours only",
}
_LINES = {
    "fibre": "fibre",
    "coax": "coaxial",
    "dsl": "telephone pair",
    "radio": "radio link",
    "mobile": "mobile",
    "leased": "leased line",
}
_ADDRESSES = {"automatic": "automatic address", "pppoe": "PPPoE", "fixed": "fixed address"}
_USES = {"calls": "calls and video", "everyday": "everyday data", "sensors": "sensors", "none": "not needed"}
_SHEET_MM = (88.0, 60.0)
_MOST_SHEETS = 4


def brief_pdf(name: str, revision: int, plan: Plan, head: Head = NO_HEAD) -> bytes:
    """Return the brief as PDF, A4 or Letter by the site's units."""
    design, catalogue, evaluation = plan.drawn, plan.catalogue, evaluate(plan)
    brief = evaluation.brief
    html = html_of(
        "brief.html",
        style=style(),
        head=head,
        size=Papers(design.site.units).size,
        name=name,
        revision=revision,
        today=plan.on.isoformat(),
        facts=_facts(design, catalogue),
        pains=brief.pains,
        tones={"mended": "met", "better": "near", "not_addressed": "not_met"},
        outcomes={"mended": "mended", "better": "better", "not_addressed": "not yet"},
        sheets=_sheets(design, catalogue, evaluation),
        rooms=_rooms(design, catalogue, evaluation),
        walks=evaluation.signal.habits or (),
        held={"holds": "met", "breaks": "not_met", "no_way": "near"},
        found=brief.found,
        states={"keep": "kept", "retire": "retired", "unknown": "to be decided", "new": "new"},
        advice={"keep": "keep", "retire": "retire", "test_first": "test first"},
        limits=_limits(design, evaluation),
    )
    return pdf_of(html)


def _facts(design: Design, catalogue: Catalogue) -> list[tuple[str, str]]:
    site = design.site
    hours = "day and night" if site.opens == site.closes else f"{site.opens} to {site.closes}"
    days = " to ".join(d for d in (site.start_on, site.due_on) if d)
    rows = [
        ("Client", site.client_name),
        ("Kind of site", catalogue.site_kinds[site.kind].label),
        ("Visited", site.visited_on or ""),
        ("Work", days),
        ("Budget", f"{site.budget:,.0f} {site.currency}" if site.budget else ""),
        ("Open", hours),
        ("Updates at", site.quiet_time),
        ("Rules of the house", ", ".join(_RULES[r] for r in site.house_rules)),
        ("Line", f"{_LINES[site.line_kind]}, {site.line_mbps:g} / {site.line_up_mbps:g} Mb/s"),
        ("Address", _ADDRESSES[site.line_address]),
        ("Upstream", ", ".join(t for t in (site.upstream_gear, site.upstream_subnet) if t)),
        ("Television", "comes over the line" if site.television else ""),
        ("Afterwards call", site.contact),
    ]
    return [(label, said) for label, said in rows if said]


def _sheets(design: Design, catalogue: Catalogue, evaluation: Evaluation) -> list[dict[str, object]]:
    """Return the storeys that the visit left a mark on, each as large as two in a row can be."""
    marked = [
        *(p.floor for p in design.of(Complaint).values()),
        *(e.floor for e in design.of(LineEntry).values()),
        *(z.floor for z in design.of(Zone).values()),
        *(f.floor for f in evaluation.brief.found),
    ]
    floors = [f for f in design.of(Floor).values() if f.id in marked][:_MOST_SHEETS]
    found = []
    for floor in floors:
        drawn = draw_sheet(design, catalogue, floor.id, _SHEET_MM, ("brief",), evaluation.brief.pains)
        found.append({"svg": Markup(drawn.svg), "name": floor.name, "scale": drawn.scale})
    return found


def _rooms(design: Design, catalogue: Catalogue, evaluation: Evaluation) -> list[dict[str, str]]:
    wishes = {w.space: w for w in evaluation.brief.wishes}
    rows = []
    for space in design.of(Space).values():
        groups = [g for g in design.of(ClientGroup).values() if g.space == space.id]
        if not groups:
            continue
        wish = wishes.get(space.id)
        wires = f"{wish.given} of {wish.wanted} planned" if wish is not None else ""
        who = ", ".join(
            f"{g.count} × {catalogue.clients[g.kind].label.lower()}{' (old)' if g.old else ''}"
            for g in groups
        )
        rows.append({"name": space.name, "who": who, "use": _USES[space.use], "wires": wires})
    return rows


def _limits(design: Design, evaluation: Evaluation) -> list[str]:
    papers = Papers(design.site.units)
    lines = [
        f"Nothing is drilled: {z.name} ({design.of(Floor)[z.floor].name})."
        for z in design.of(Zone).values()
        if z.kind == "no_drilling"
    ]
    for row in evaluation.brief.reserves:
        kept = (
            f"{row.ports} ports, {row.watts:g} W and {row.cables} spare cables of "
            f"{papers.length(row.cable_m, 0)} in all"
        )
        lacks = f" The plan still lacks {row.lacks}." if row.lacks else ""
        lines.append(f"Comes later: {row.name}. Kept for it: {kept}.{lacks}")
    thought = [r.what for r in evaluation.brief.reminders if not r.seen]
    if thought:
        lines.append(f"Often forgotten, and not spoken of yet: {', '.join(thought)}.")
    return lines
