"""Racks as a whole: ports and watts together, room by room; what would mend them, in words."""

from .assess import plan_power
from .cures import Rack
from .findings import power_findings
from .loads import rack_loads
from .pins import keep_ports
from .values import NO_POWER, FarLoad, PluggedDevice, PortUse, PowerPlan, PowerRun, RoomUp, SwitchUplink

__all__ = [
    "NO_POWER",
    "FarLoad",
    "PluggedDevice",
    "PortUse",
    "PowerPlan",
    "PowerRun",
    "Rack",
    "RoomUp",
    "SwitchUplink",
    "keep_ports",
    "plan_power",
    "power_findings",
    "rack_loads",
]
