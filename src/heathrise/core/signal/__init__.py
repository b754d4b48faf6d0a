"""Radio: propagation, antennas, coverage, channels and power."""

from .assess import (
    SignalChapter,
    air_of,
    channel_plans,
    channel_tasks,
    radios_of,
    search_longer,
    sharing,
)
from .channels import ChannelPlan, Task
from .difference import difference
from .explain import SpotView, explain_spot
from .levels import Air, Direction, heard_at, readings_at
from .relief import Relief, Show, relief
from .rooms import RoomVerdict, judge_rooms
from .verdicts import channel_findings, signal_findings
from .walk import MOST_POINTS, MOST_SECONDS, Walk, WalkPoint, walk

__all__ = [
    "MOST_POINTS",
    "MOST_SECONDS",
    "Air",
    "ChannelPlan",
    "Direction",
    "Relief",
    "RoomVerdict",
    "Show",
    "SignalChapter",
    "SpotView",
    "Task",
    "Walk",
    "WalkPoint",
    "air_of",
    "channel_findings",
    "channel_plans",
    "channel_tasks",
    "difference",
    "explain_spot",
    "heard_at",
    "judge_rooms",
    "radios_of",
    "readings_at",
    "relief",
    "search_longer",
    "sharing",
    "signal_findings",
    "walk",
]
