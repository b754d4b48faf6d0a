"""What can hurt at work, and who is there for it."""

from __future__ import annotations

from collections.abc import Collection
from typing import Literal

from ..catalogue import Rules

Hazard = Literal[
    "ladder",
    "roof",
    "heat",
    "attic",
    "drilling",
    "old_walls",
    "rated",
    "mains",
    "powered",
    "fibre",
    "trench",
    "lightning",
    "lifting",
    "fire",
    "alone",
]
_ALWAYS_TWO: frozenset[Hazard] = frozenset({"ladder", "roof", "heat", "attic", "lifting", "trench"})
# Where the second person is there for the first's sake work goes no faster; in a trench both dig.
_SHARED: frozenset[Hazard] = frozenset({"trench"})


def crew_for(rules: Rules, hazards: Collection[Hazard]) -> tuple[int, float]:
    """Return how many are there, and how much faster than one they are together."""
    two = [h for h in hazards if h in _ALWAYS_TWO]
    shared = bool(two) and all(h in _SHARED for h in two)
    return 2 if two else 1, rules["order.two_people_times"] if shared else 1.0
