"""Power over Ethernet: classes, what a loop takes, budgets."""

from .budget import PoweredDevice, SwitchBudget, budget_of, over_run, sources
from .hops import CableHop, HopPower, feed_in_hops

__all__ = [
    "CableHop",
    "HopPower",
    "PoweredDevice",
    "SwitchBudget",
    "budget_of",
    "feed_in_hops",
    "over_run",
    "sources",
]
