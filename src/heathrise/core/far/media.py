"""A way to a far place as it is put together, and what several of them share."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field

from ..catalogue import ExtenderModel, Prices, on_offer
from .bill import Bill
from .ways import (
    FarCheck,
    FarDemand,
    FarPort,
    FarSite,
    LineRate,
    LineWeather,
    Medium,
    judge_delay,
    judge_rate,
)

TRENCH = "Have buried services located before anything is dug; local code has the depth."
MAST = "Work on masts and ladders by two, tied on; wind and guys by local code."
LIGHTNING = "Bond masts and both ends to earth, with surge protection; a buried cable carries lightning, too."
EARTHS = "Copper joins the earths of two places; where their supplies differ, take fibre."
LASER = "Light of a laser is not seen: never look into a fibre or an optic."
BATTERY = "Batteries burn and gas: vented, fused at the battery, kept from children and cattle."
PANELS = "Solar panels are heavy and catch wind, and are live as soon as light falls on them: two people."
MAINS = "Mains work by a licensed electrician, by local code."


# What of them is said at which kind of work, beside what its hazards say by themselves.
CAUTIONS: Mapping[str, tuple[str, ...]] = {
    "mast": (LIGHTNING,),
    "end": (LIGHTNING, EARTHS),
    "feed": (LIGHTNING,),
    "store": (BATTERY,),
    "sun": (PANELS,),
}


@dataclass
class Draft:
    """A way as it is put together; ``link_w`` is what it draws out there itself, ``near_w`` at the house."""

    medium: Medium
    label: str
    bill: Bill
    mbps: float = 0.0
    delay_ms: float = 0.0
    air: float | None = None
    link_w: float = 0.0
    near_w: float = 0.0
    serves: bool = False  # it serves clients itself
    extender: ExtenderModel | None = None
    port: FarPort | None = None
    port_need: str = ""  # what is said of a port that feeds it
    level_dbm: float | None = None
    weather: tuple[LineWeather, ...] = ()
    rates: tuple[LineRate, ...] = ()
    hops_m: tuple[float, ...] = ()
    joints: int = 0
    checks: list[FarCheck] = field(default_factory=list)
    needs: list[str] = field(default_factory=list)
    hurts: list[str] = field(default_factory=list)
    licensed: list[str] = field(default_factory=list)

    def judged(self, demand: FarDemand) -> Draft:
        self.checks.append(judge_rate(demand, self.mbps))
        self.checks.append(judge_delay(demand, self.delay_ms))
        return self


PORTS_MBPS = (1_000, 2_500, 10_000)


def port_for(mbps: float) -> FarPort:
    """Return the slowest port that a rate goes through."""
    return FarPort(mbps=next((p for p in PORTS_MBPS if p >= mbps), PORTS_MBPS[-1]))


Draw = Callable[[FarSite, FarDemand, Bill], Draft]


def hang_node(bill: Bill) -> None:
    """Add an access point on a pole out there."""
    bill.add(node_model(bill.prices))
    bill.add("bracket-pole")
    bill.add("outdoor-kit")
    bill.work("node", "mount", "Hang and set up a node", bill.rules["far.minutes.node"], 1, ("ladder",))


def node_model(prices: Prices) -> str:
    """Return the cheapest access point that hangs outdoors."""
    rows = on_offer(prices.catalogue.devices["access_point"])
    able = [m for m in rows if m.outdoor] or rows
    return min(able, key=lambda m: (prices.each(m.id), m.id)).id


def horizon_deg(things: Iterator[tuple[float, float]]) -> float:
    """Return how high things, (metres away, metres over the eye), stand over the horizon at most."""
    rows = [math.degrees(math.atan2(high, max(away, 1.0))) for away, high in things if high > 0]
    return max(rows, default=0.0)
