"""Cable: what each category carries, ways through the building, lengths and boxes."""

from .assess import CableChapter, assess_cable
from .boxes import Bought, Cut, boxes_for, cable_bought
from .cutting import cut_from
from .first_room import is_wet
from .lattice import OVERHEADS
from .links import LinkVerdict
from .routes import Leg
from .runs import RunVerdict, carried_mbps, judge_runs
from .second_room import GOOD, room_at, second_room, spot_within
from .shared import SharedLoad, shared_load
from .trunks import Trunk, bundle_findings, trunks_of
from .uplinks import BesideVerdict, UplinkVerdict
from .verdicts import cable_findings

__all__ = [
    "GOOD",
    "OVERHEADS",
    "BesideVerdict",
    "Bought",
    "CableChapter",
    "Cut",
    "Leg",
    "LinkVerdict",
    "RunVerdict",
    "SharedLoad",
    "Trunk",
    "UplinkVerdict",
    "assess_cable",
    "boxes_for",
    "bundle_findings",
    "cable_bought",
    "cable_findings",
    "carried_mbps",
    "cut_from",
    "is_wet",
    "judge_runs",
    "room_at",
    "second_room",
    "shared_load",
    "spot_within",
    "trunks_of",
]
