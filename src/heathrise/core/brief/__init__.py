"""The visit: what was asked for, what hurts, what was found, and what becomes of each."""

from .assess import BriefChapter, assess_brief
from .found import Opinion
from .later import Reserve
from .pains import NAMES as COMPLAINTS
from .pains import PainVerdict
from .stand import Free, Level, Spot, Stand
from .verdicts import brief_findings
from .wishes import Wish

__all__ = [
    "COMPLAINTS",
    "BriefChapter",
    "Free",
    "Level",
    "Opinion",
    "PainVerdict",
    "Reserve",
    "Spot",
    "Stand",
    "Wish",
    "assess_brief",
    "brief_findings",
]
