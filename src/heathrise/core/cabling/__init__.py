"""Cable: what each category carries, ways through the building, lengths and boxes."""

from .assess import CableChapter, assess_cable
from .boxes import Bought, Cut, boxes_for, cable_bought
from .first_room import is_wet
from .lattice import OVERHEADS
from .links import LinkVerdict
from .runs import RunVerdict, carried_mbps, judge_runs
from .second_room import room_at, second_room, spot_within
from .uplinks import UplinkVerdict
from .verdicts import cable_findings

__all__ = [
    "OVERHEADS",
    "Bought",
    "CableChapter",
    "Cut",
    "LinkVerdict",
    "RunVerdict",
    "UplinkVerdict",
    "assess_cable",
    "boxes_for",
    "cable_bought",
    "cable_findings",
    "carried_mbps",
    "is_wet",
    "judge_runs",
    "room_at",
    "second_room",
    "spot_within",
]
