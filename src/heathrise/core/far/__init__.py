"""Places beyond the building: the line of a radio over the land, power over long cables and from the sun."""

from __future__ import annotations

from .direct_current import Branch, Fed, Node, feed_tree, longest_m, loop_ohm, sound_gauges
from .line import SightVerdict, WayLoss, ground_of, judge_sight
from .radio_link import (
    MHZ,
    Bridge,
    Budget,
    LinkBand,
    Weather,
    budget_of,
    eirp_limit_dbm,
    foliage_db,
    oxygen_db,
    rain_db,
)
from .sight_line import Clearance, Ground, Trees, bearing_deg, clearance, fresnel_m, least_masts
from .sun import Sunlit, battery_wh, dark_hour, panel_w, sun_hours

__all__ = [
    "MHZ",
    "Branch",
    "Bridge",
    "Budget",
    "Clearance",
    "Fed",
    "Ground",
    "LinkBand",
    "Node",
    "SightVerdict",
    "Sunlit",
    "Trees",
    "WayLoss",
    "Weather",
    "battery_wh",
    "bearing_deg",
    "budget_of",
    "clearance",
    "dark_hour",
    "eirp_limit_dbm",
    "feed_tree",
    "foliage_db",
    "fresnel_m",
    "ground_of",
    "judge_sight",
    "least_masts",
    "longest_m",
    "loop_ohm",
    "oxygen_db",
    "panel_w",
    "rain_db",
    "sound_gauges",
    "sun_hours",
]
