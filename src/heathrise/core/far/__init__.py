"""Places beyond the building: the line of a radio over the land, power over long cables and from the sun."""

from __future__ import annotations

from .bill import DIGS, FarCost, FarPart, FarTask
from .direct_current import Branch, Node, feed_tree, longest_m, loop_ohm, sound_gauges
from .land import LandGap, MeshLink, MeshPlace, gaps_along, hectares, mesh_of, path_of, reach_of
from .line import SightVerdict, WayLoss, growth_m, judge_sight, trees_of
from .media import CAUTIONS, horizon_deg
from .one_feed import FedPlace, OneFeed, one_feed
from .radio_link import (
    MHZ,
    Budget,
    LinkBand,
    Weather,
    budget_of,
    eirp_limit_dbm,
    foliage_db,
    free_space_db,
    oxygen_db,
    rain_db,
)
from .sight_line import Clearance, Ground, Trees, bearing_deg, clearance, fresnel_m, least_masts
from .sun import Sunlit, battery_wh, dark_hour, panel_w, sun_hours
from .supplies import OVER_THE_PLAN, FarOffer, all_ways, cell_cost, way_of
from .ways import AirHop, FarCheck, FarDemand, FarPort, FarSite, FarWay, Fed, Feeds, Wiring, ranked

__all__ = [
    "CAUTIONS",
    "DIGS",
    "MHZ",
    "OVER_THE_PLAN",
    "AirHop",
    "Branch",
    "Budget",
    "Clearance",
    "FarCheck",
    "FarCost",
    "FarDemand",
    "FarOffer",
    "FarPart",
    "FarPort",
    "FarSite",
    "FarTask",
    "FarWay",
    "Fed",
    "FedPlace",
    "Feeds",
    "Ground",
    "LandGap",
    "LinkBand",
    "MeshLink",
    "MeshPlace",
    "Node",
    "OneFeed",
    "SightVerdict",
    "Sunlit",
    "Trees",
    "WayLoss",
    "Weather",
    "Wiring",
    "all_ways",
    "battery_wh",
    "bearing_deg",
    "budget_of",
    "cell_cost",
    "clearance",
    "dark_hour",
    "eirp_limit_dbm",
    "feed_tree",
    "foliage_db",
    "free_space_db",
    "fresnel_m",
    "gaps_along",
    "growth_m",
    "hectares",
    "horizon_deg",
    "judge_sight",
    "least_masts",
    "longest_m",
    "loop_ohm",
    "mesh_of",
    "one_feed",
    "oxygen_db",
    "panel_w",
    "path_of",
    "rain_db",
    "ranked",
    "reach_of",
    "sound_gauges",
    "sun_hours",
    "trees_of",
    "way_of",
]
