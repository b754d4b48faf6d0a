"""Switch ports: which cable goes into which, or why it cannot."""

from .assign import Assignment, Demand, assign, fits, group_of, reserved_w
from .choose import Chosen, KeptFree, choose
from .uplinks import LINE, NOTHING_CHOSEN, Shelf, UplinkPort, Way, uplinks

__all__ = [
    "LINE",
    "NOTHING_CHOSEN",
    "Assignment",
    "Chosen",
    "Demand",
    "KeptFree",
    "Shelf",
    "UplinkPort",
    "Way",
    "assign",
    "choose",
    "fits",
    "group_of",
    "reserved_w",
    "uplinks",
]
