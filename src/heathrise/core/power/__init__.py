"""Power over Ethernet: classes, what a loop takes, budgets."""

from .budget import PoweredDevice, SwitchBudget, budget_of, over_run, sources

__all__ = ["PoweredDevice", "SwitchBudget", "budget_of", "over_run", "sources"]
