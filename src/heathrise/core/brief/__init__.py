"""The visit: what was asked for, what hurts, what was found, and what becomes of each."""

from .assess import BriefChapter, assess_brief
from .found import Opinion
from .later import Reserve, nearest_rack
from .pains import Outcome, PainVerdict
from .stand import Free, Hop, Level, SiteStatus, StoreySpot, Walked
from .verdicts import RunPath, brief_findings
from .wishes import Wish

__all__ = [
    "BriefChapter",
    "Free",
    "Hop",
    "Level",
    "Opinion",
    "Outcome",
    "PainVerdict",
    "Reserve",
    "RunPath",
    "SiteStatus",
    "StoreySpot",
    "Walked",
    "Wish",
    "assess_brief",
    "brief_findings",
    "nearest_rack",
]
