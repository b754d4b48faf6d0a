"""Power over Ethernet: classes, what a loop takes, budgets."""

from .budget import PoweredDevice, SwitchBudget, budget_of, over_run, sources
from .hops import CableHop, HopPower, feed_in_hops
from .loop import feed, loop_resistance_ohm

__all__ = [
    "CableHop",
    "HopPower",
    "PoweredDevice",
    "SwitchBudget",
    "budget_of",
    "feed",
    "feed_in_hops",
    "loop_resistance_ohm",
    "over_run",
    "sources",
]
