"""Switch ports: which cable goes into which, or why it cannot."""

from .assign import Assignment, Demand, assign, fits, group_of, reserved_w
from .uplinks import LINE, Shelf, UplinkPort, Way, uplinks

__all__ = [
    "LINE",
    "Assignment",
    "Demand",
    "Shelf",
    "UplinkPort",
    "Way",
    "assign",
    "fits",
    "group_of",
    "reserved_w",
    "uplinks",
]
