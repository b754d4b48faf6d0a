"""The brief's chapter: what was asked for and found at the visit, against the plan."""

from __future__ import annotations

from ..base.frozen import Frozen
from ..catalogue import Catalogue
from ..context.findings import Finding
from ..design import Design
from .found import Opinion, judge_found
from .later import Reserve, judge_later
from .pains import PainVerdict, judge_pains
from .stand import SiteStatus
from .visit import Reminder, reminders
from .wishes import Wish, judge_wishes


class BriefChapter(Frozen):
    """Complaints, wishes, what was found, what comes later, what is often forgotten."""

    pains: tuple[PainVerdict, ...] = ()
    wishes: tuple[Wish, ...] = ()
    found: tuple[Opinion, ...] = ()
    reserves: tuple[Reserve, ...] = ()
    reminders: tuple[Reminder, ...] = ()
    findings: tuple[Finding, ...] = ()


def assess_brief(
    drawn: Design, catalogue: Catalogue, planned: SiteStatus, today: SiteStatus | None
) -> BriefChapter:
    """Return what becomes of the brief.

    Args:
        drawn: the design as it is drawn, with all gear that goes.
        planned: how it stands once the job is done.
        today: how it stands with nothing but what was found; None where nothing was.
    """
    return BriefChapter.model_construct(
        pains=tuple(judge_pains(planned, today)),
        wishes=tuple(judge_wishes(planned)),
        found=tuple(judge_found(drawn, catalogue, today)),
        reserves=tuple(judge_later(planned)),
        reminders=tuple(reminders(drawn, catalogue)),
    )
