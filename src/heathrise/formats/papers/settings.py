"""Settings on paper: every one with its reason and whose it is; no key."""

from __future__ import annotations

from ...core.context.plan import Plan
from ...core.context.practice import SaidBy
from ...core.handover import joins_of
from ...core.views.held import held_settings
from ...core.views.settings_paper import settings_on_paper
from .handover import joined
from .head import NO_HEAD, Head
from .render import Papers, html_of, pdf_of, style

_WHOSE: dict[SaidBy, str] = {
    "profile": "profile",
    "firm": "firm",
    "plan": "plan",
    "brief": "brief",
    "person": "by hand",
}


def settings_pdf(name: str, revision: int, plan: Plan, head: Head = NO_HEAD) -> bytes:
    """Return every setting that a controller will hold as PDF, and how each name is joined, without keys."""
    held, papers = held_settings(plan), Papers(plan.design.site.units)
    html = html_of(
        "settings.html",
        style=style(),
        size=papers.size,
        head=head,
        name=name,
        revision=revision,
        today=plan.on.isoformat(),
        practice=held.practice,
        count=len(held.settings),
        by=[(count, _WHOSE[whose]) for whose, count in held.by.items()],
        parts=settings_on_paper(plan),
        whose=_WHOSE,
        joins=[joined(j) for j in joins_of(plan.design, plan.catalogue)],
    )
    return pdf_of(html)
