"""What is laid: links, the holes they need, what pulling and digging take, and who is there."""

from .crew import Hazard, crew_for
from .draws import Box, Draw, draws_of
from .holes import Hole, climbs_of, holes_of
from .links import Link, Stretch
from .pulling import Pulling, digging_minutes, duct_m, pulling_of, trench_minutes
from .trench import DUG_SAID, TrenchSize, trench_of

__all__ = [
    "DUG_SAID",
    "Box",
    "Draw",
    "Hazard",
    "Hole",
    "Link",
    "Pulling",
    "Stretch",
    "TrenchSize",
    "climbs_of",
    "crew_for",
    "digging_minutes",
    "draws_of",
    "duct_m",
    "holes_of",
    "pulling_of",
    "trench_minutes",
    "trench_of",
]
