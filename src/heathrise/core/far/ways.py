"""All ways to a far place side by side: what each gives, needs, costs, can hurt, and what rules it out."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Literal, TypeVar

from pydantic import Field

from ..base.frozen import Frozen
from ..catalogue import Catalogue, ExtenderModel, Prices, Rules, Used
from ..design import FarPoint
from .bill import FarCost, FarPart, FarTask
from .line import SightVerdict

Medium = Literal[
    "repeater",
    "mesh",
    "radio_5",
    "radio_60",
    "copper",
    "extender",
    "extenders",
    "switch",
    "fibre",
    "power_line",
    "cellular",
    "satellite",
]
Supply = Literal["mains", "cable", "solar"]
State = Literal["met", "near", "out"]
_WORST: dict[State, int] = {"met": 0, "near": 1, "out": 2}
_ENOUGH = 0.8  # of what is asked for, from which a way is near


class FarCheck(Frozen):
    """One thing that a way is judged by; ``would`` is what would bring it in."""

    state: State
    words: str
    would: str = ""
    used: tuple[Used, ...] = ()


class FarPort(Frozen):
    """The port at the rack that a way goes into, and what is fed at it: watts at the end of pieces of
    cable, of a class, None where nothing is; ``extender`` joins the pieces."""

    mbps: int
    poe_class: int | None = None
    watts: float = 0.0
    pieces_m: tuple[float, ...] = ()
    extender: str | None = None


class LineWeather(Frozen):
    """A radio's line in rain that is exceeded for ``percent`` of a year, 0 for clear weather: what the rain
    takes, the level at either end, what that is over the least of the slowest rate, and the rate that
    keeps its margin."""

    percent: float
    minutes: int = Field(description="of a year in which it is worse")
    rain_db: float
    level_dbm: float
    over_db: float
    mbps: float


class LineRate(Frozen):
    """A rate of a radio and the level from which it is kept, its margin within."""

    from_dbm: float
    mbps: float


class FarWay(Frozen):
    """One way to a place with one supply out there.

    ``air`` is the share of a channel's time that it takes of the plan's air, None where it takes none.
    """

    id: str
    medium: Medium
    supply: Supply
    label: str
    verdict: State
    binds: str = Field(description="the check that decides, in words")
    would: str = ""
    mbps: float
    delay_ms: float
    air: float | None
    watts: float = Field(description="what is drawn out there")
    source_w: float = Field(description="what is drawn for it where it is fed from")
    port: FarPort | None = Field(None, description="at the rack that feeds it, None where it wants none")
    joints: int = Field(0, description="boxes part-way, in pieces of one length")
    level_dbm: float | None = Field(None, description="of a radio's line, in clear weather, both ends")
    weather: tuple[LineWeather, ...] = Field(
        (), description="of a radio's line, clear first, then ever rarer"
    )
    rates: tuple[LineRate, ...] = ()
    needs: tuple[str, ...]
    hurts: tuple[str, ...]
    licensed: tuple[str, ...]
    checks: tuple[FarCheck, ...]
    parts: tuple[FarPart, ...]
    tasks: tuple[FarTask, ...]
    cost: FarCost
    score: float = 0.0
    rank: int = Field(0, description="from 1 on among those that are not ruled out; 0 for one that is")


W = TypeVar("W", bound=FarWay)


class FarDemand(Frozen):
    """What a place asks for: Mb/s, delay in ms where one is said, and the watts of what stands there."""

    mbps: float
    counted: bool
    delay_ms: float | None
    gear_w: float
    node_w: float = Field(description="of them, what serves clients; a way that serves them itself has it")


@dataclass(frozen=True)
class AirHop:
    """What is heard at a place of an access point at the house, dBm, and what a user gets of it, Mb/s."""

    level_dbm: float
    mbps: float


@dataclass(frozen=True)
class Fed:
    """Whether a load runs over pieces of cable, the watts at their near end, and what fails where; the
    class, the watts and the pieces of what is fed."""

    runs: bool
    port_w: float
    words: str
    poe_class: int | None = None
    watts: float = 0.0
    pieces_m: tuple[float, ...] = ()


Feeds = Callable[[float, Sequence[float], ExtenderModel | None], Fed]


@dataclass(frozen=True)
class Wiring:
    """The mains between a rack and a place: panels that the sockets of both hang on, empty where it is not
    known, whether they are one, and the year of the older building of them."""

    here: str = ""
    there: str = ""
    same: bool = False
    built: int | None = None

    def old(self, rules: Rules) -> bool:
        return self.built is not None and self.built < rules["far.power_line_old_year"]


@dataclass(frozen=True)
class FarSite:
    """A place with all that its ways are worked out from; other disciplines' answers come as functions."""

    point: FarPoint
    length_m: float
    sights: dict[str, SightVerdict]
    prices: Prices
    domain: str
    slack_m: float
    channel_m: float
    horizon_deg: float  # how high the ground and the trees about it stand over its horizon
    heard: Callable[[], AirHop]
    feeds: Feeds
    wiring: Wiring

    @property
    def catalogue(self) -> Catalogue:
        return self.prices.catalogue

    @property
    def rules(self) -> Rules:
        return self.catalogue.rules

    @cached_property
    def node(self) -> AirHop:
        """What the best access point of the house is heard with out there."""
        return self.heard()

    @property
    def laid_m(self) -> float:
        """Length of a cable over the land with what is kept at either end."""
        return self.length_m * self.rules["far.route_share"] + self.slack_m

    @property
    def trench_m(self) -> float:
        return self.length_m * self.rules["far.route_share"]


def demand_of(rules: Rules, point: FarPoint) -> FarDemand:
    """Return what a place asks for: as it is said, else what is counted there."""
    counted = (
        point.clients * rules["far.mbps.client"]
        + point.cameras * rules["order.camera_mbps"]
        + point.doors * rules["far.mbps.door"]
        + point.sensors * rules["far.mbps.sensor"]
    )
    node_w = rules["far.draw_w.access_point"] if point.clients else 0.0
    gear_w = (
        node_w
        + point.cameras * rules["far.draw_w.camera"]
        + point.doors * rules["far.draw_w.door"]
        + (rules["far.draw_w.sensors"] if point.sensors else 0.0)
    )
    mbps = point.mbps if point.mbps is not None else max(counted, 1.0)
    return FarDemand(
        mbps=round(mbps, 2),
        counted=point.mbps is None,
        delay_ms=point.delay_ms,
        gear_w=round(gear_w, 1),
        node_w=node_w,
    )


def judge_rate(demand: FarDemand, mbps: float) -> FarCheck:
    """Judge what a way gives against what is asked for."""
    if mbps >= demand.mbps:
        return FarCheck(state="met", words=f"gives {mbps:.0f} Mb/s, {demand.mbps:.0f} are asked for")
    state: State = "near" if mbps >= _ENOUGH * demand.mbps else "out"
    return FarCheck(
        state=state,
        words=f"gives {mbps:.0f} Mb/s, {demand.mbps:.0f} are asked for",
        would=f"enough if no more than {mbps:.0f} Mb/s were asked for" if mbps >= 1 else "",
    )


def judge_delay(demand: FarDemand, delay_ms: float) -> FarCheck:
    if demand.delay_ms is None or delay_ms <= demand.delay_ms:
        return FarCheck(state="met", words=f"{delay_ms:g} ms there and back")
    return FarCheck(
        state="out", words=f"{delay_ms:g} ms there and back, {demand.delay_ms:g} at most are asked for"
    )


def worst_of(checks: Sequence[FarCheck]) -> FarCheck:
    """Return the check that decides: the first of the worst."""
    return max(checks, key=lambda c: _WORST[c.state])


def ranked(rules: Rules, demand: FarDemand, ways: Sequence[W]) -> tuple[W, ...]:
    """Return ways the best first, those that are ruled out last, by weights of the firm.

    Each weight times a share from 0 to 1: what it costs over the least, what it lacks of twice what is asked
    for, its delay over 200 ms, the air it takes, fees and upkeep of its cost. A way that is met comes before
    one that is near.
    """
    weights = rules.table("far.weight")
    whole = sum(weights.values()) or 1.0
    running = [w for w in ways if w.verdict != "out"]
    least = min((w.cost.total for w in running), default=0.0)

    def score(way: W) -> float:
        cost, years = way.cost, max(way.cost.total, 0.01)
        kept = cost.total - cost.once - cost.later
        parts = {
            "cost": 1 - least / years,
            "speed": 1 - min(1.0, way.mbps / (2 * demand.mbps)),
            "delay": min(1.0, way.delay_ms / 200),
            "air": min(1.0, way.air or 0.0),
            "upkeep": min(1.0, kept / years),
        }
        return round(sum(weights[k] * parts[k] for k in parts) / whole, 4)

    scored = [w.model_copy(update={"score": score(w)}) for w in running]
    scored.sort(key=lambda w: (_WORST[w.verdict], w.score, w.cost.total, w.id))
    numbered = [w.model_copy(update={"rank": k}) for k, w in enumerate(scored, start=1)]
    out = sorted((w for w in ways if w.verdict == "out"), key=lambda w: (w.cost.total, w.id))
    return (*numbered, *out)
