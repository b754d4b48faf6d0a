"""Racks as a whole: ports and watts together, room by room; what would mend them, in words."""

from .assess import plan_power
from .findings import power_findings
from .values import NO_POWER, PortUse, PowerPlan, PowerRun, RoomUp, SwitchUplink

__all__ = [
    "NO_POWER",
    "PortUse",
    "PowerPlan",
    "PowerRun",
    "RoomUp",
    "SwitchUplink",
    "plan_power",
    "power_findings",
]
