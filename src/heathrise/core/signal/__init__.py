"""Radio: propagation, antennas, coverage, channels and power."""

from ..walkways import WalkPoint
from .assess import (
    SignalChapter,
    air_of,
    channel_plans,
    channel_tasks,
    environment_of,
    quick_plans,
    radios_of,
    search_longer,
    sharing,
)
from .calibrate import Calibration, calibrate
from .capacity import Busy, busy_findings, busy_hour
from .channel_alternatives import BandView, band_view
from .channels import ChannelPlan, ChannelProblem
from .difference import difference
from .enclosing import share_walled, walls_that
from .explain import SpotView, explain_spot
from .habits import HabitVerdict, habit_findings, judge_habits, walk_of, way_of
from .mesh import MeshLink, connected, mesh_findings, mesh_links, over_the_air, rates_over_air
from .mesh_cables import CableWish, cable_wishes, mesh_cable_findings
from .neighbours import noted
from .obstacles import losses_db
from .radio_environment import Direction, RadioEnvironment, heard_along, heard_at, readings_at
from .radio_matching import proposed_names
from .radios import RadioSheet
from .rates import user_mbps
from .reach import Asked, asked_rooms, reach_dbm, rooms_of
from .relief import Relief, Show, relief
from .rooms import VERDICT_RANK, RoomVerdict, judge_rooms
from .survey import room_points
from .verdicts import channel_findings, signal_findings
from .walk import MOST_POINTS, MOST_SECONDS, STEP_S, walk
from .walk_values import Walk

__all__ = [
    "MOST_POINTS",
    "MOST_SECONDS",
    "STEP_S",
    "VERDICT_RANK",
    "Asked",
    "BandView",
    "Busy",
    "CableWish",
    "Calibration",
    "ChannelPlan",
    "ChannelProblem",
    "Direction",
    "HabitVerdict",
    "MeshLink",
    "RadioEnvironment",
    "RadioSheet",
    "Relief",
    "RoomVerdict",
    "Show",
    "SignalChapter",
    "SpotView",
    "Walk",
    "WalkPoint",
    "air_of",
    "asked_rooms",
    "band_view",
    "busy_findings",
    "busy_hour",
    "cable_wishes",
    "calibrate",
    "channel_findings",
    "channel_plans",
    "channel_tasks",
    "connected",
    "difference",
    "environment_of",
    "explain_spot",
    "habit_findings",
    "heard_along",
    "heard_at",
    "judge_habits",
    "judge_rooms",
    "losses_db",
    "mesh_cable_findings",
    "mesh_findings",
    "mesh_links",
    "noted",
    "over_the_air",
    "proposed_names",
    "quick_plans",
    "radios_of",
    "rates_over_air",
    "reach_dbm",
    "readings_at",
    "relief",
    "room_points",
    "rooms_of",
    "search_longer",
    "share_walled",
    "sharing",
    "signal_findings",
    "user_mbps",
    "walk",
    "walk_of",
    "walls_that",
    "way_of",
]
