"""A link has two ends and a medium: what all of them, to a device or between racks, have."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..catalogue import Rules
from ..design import Jacket, Medium, Site
from .fibre import FibreChoice, FibreSheet, LinkWord
from .routes import Leg, Route


class Hop(Frozen):
    """A piece of a run that has extenders: from the rack or an extender to the next, or the device."""

    length_m: float = Field(description="fixed cable of this piece, m")
    limit_m: float = Field(description="longest that carries the speed here, m")
    speed_mbps: int = Field(description="what is asked of it, Mb/s")
    extender: str | None = Field(None, description="id of the extender at its far end")


class LinkVerdict(Frozen):
    """A link from the rack of ``room``. Lengths in m, of one cable; temperature in C.

    ``figures`` are the paths of the figures that bind; ``outdoor_m`` lies in air outside,
    ``duct_m`` in the ground; ``category`` is a category of copper or a kind of fibre.
    """

    KEY: ClassVar = ("id",)

    id: str
    name: str
    room: str | None = Field(description="rack that it begins in")
    floor: str = Field(description="storey of its far end")
    medium: Medium = "copper"
    category: str = Field(description="category of copper or kind of fibre")
    chosen_by: Literal["plan", "person", "found"]
    cables: int = Field(description="how many are pulled side by side")
    speed_mbps: int = Field(description="speed that is asked of it, Mb/s")
    verdict: LinkWord
    reason: str
    figures: tuple[str, ...] = ()
    limit_m: float = Field(0.0, description="longest fixed run that carries the speed here, m")
    fixed_m: float = Field(0.0, description="fixed run with slack, of one cable, m")
    horizontal_m: float = Field(0.0, description="level stretches in the building and outside, m")
    rise_m: float = Field(0.0, description="climbs, m")
    drop_m: float = Field(0.0, description="drop from the ceiling to the device, m")
    duct_m: float = Field(0.0, description="in the ground, m")
    outdoor_m: float = Field(0.0, description="in air outside, m")
    slack_m: float = Field(0.0, description="slack at both ends, m")
    bought_m: float = Field(0.0, description="bought for one cable, waste included, m")
    cords_m: float = Field(0.0, description="cords at both ends, m")
    hottest_space: str = Field("room", description="kind of space that binds by its heat")
    hottest_c: float = Field(22.0, description="temperature planned there, °C")
    between_buildings: bool = False
    leaves: bool = Field(False, description="whether it leaves its building")
    jacket: Jacket = Field("indoor", description="what its cable is sheathed for")
    legs: tuple[Leg, ...] = ()
    hops: tuple[Hop, ...] = Field((), description="its pieces, where extenders part it")
    tested_mbps: int | None = Field(None, description="fastest that found cable was tested at, Mb/s")
    fibre: FibreSheet | None = Field(None, description="what it loses, where it is fibre")

    @property
    def total_m(self) -> float:
        """Length of all its cables together, as installed."""
        return self.fixed_m * self.cables

    @property
    def outside_m(self) -> float:
        """Length outside of buildings, in air and in the ground."""
        return round(self.outdoor_m + self.duct_m, 1)

    @property
    def wants_surge(self) -> bool:
        """Whether surge protection is due at both its ends."""
        return self.leaves and self.medium == "copper"


def weight_of(link: LinkVerdict) -> int:
    """Return roughly how much memory a verdict takes: by its legs, since it is asked for often."""
    return 4_000 + sum(600 + 120 * len(leg.points) for leg in link.legs)


def leaves_building(route: Route, rules: Rules, on_pole: bool = False) -> bool:
    """Whether a route leaves its building: to another, into the ground, or farther into the air
    than through the wall that a device hangs on."""
    in_air = round(route.outdoor_m, 1) > rules["cabling.surge_outdoor_m"]  # as it is told
    return route.between_buildings or route.duct_m > 0 or in_air or on_pole


def jacket_for(site: Site, route: Route, rules: Rules, leaves: bool) -> Jacket:
    """Return what a cable on a route is sheathed for: outside comes first, then a void that air is
    moved through, then a shaft from storey to storey, which in a home asks for nothing."""
    if route.duct_m > 0 or leaves:
        return "ground" if route.duct_m > 0 else "outdoor"
    if any(leg.kind == "plenum" for leg in route.legs):
        return "plenum"
    pierced = {(leg.way, leg.floor) for leg in route.legs if leg.kind == "riser"}
    least = rules["cabling.riser_jacket_floors"]
    return "riser" if site.kind != "home" and 0 < least <= len(pierced) else "indoor"


def measured(
    site: Site, route: Route, slack_m: float, rules: Rules, on_pole: bool = False
) -> dict[str, object]:
    """Return the lengths of a link over a route, as its verdict has them."""
    fixed = round(route.route_m + slack_m, 1)
    leaves = leaves_building(route, rules, on_pole)
    return {
        "fixed_m": fixed,
        "horizontal_m": round(route.horizontal_m, 1),
        "rise_m": round(route.rise_m, 1),
        "drop_m": round(route.drop_m, 1),
        "duct_m": round(route.duct_m, 1),
        "outdoor_m": round(route.outdoor_m, 1),
        "slack_m": slack_m,
        "bought_m": round(fixed * (1 + rules["cabling.waste_share"]), 1),
        "between_buildings": route.between_buildings,
        "leaves": leaves,
        "jacket": jacket_for(site, route, rules, leaves),
        "legs": route.legs,
    }


def as_fibre(chosen: FibreChoice) -> dict[str, object]:
    """Return what a link of one fibre cable is, as its verdict has it."""
    return {
        "medium": "fibre",
        "category": chosen.kind,
        "cables": 1,
        "verdict": chosen.verdict,
        "reason": chosen.reason,
        "figures": (chosen.figure,),
        "limit_m": chosen.limit_m,
        "fibre": chosen.sheet,
    }


def slack_m(site: Site, between_racks: bool = False) -> float:
    """Return the slack that both ends of a link keep, in m."""
    return site.slack_rack_m + (site.slack_rack_m if between_racks else site.slack_device_m)
