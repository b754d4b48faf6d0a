"""What feeds a far place: mains there, power along the cable, the sun; and with it each way as a whole."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping

from pydantic import Field

from ..base.frozen import Frozen
from ..base.wording import metres
from ..catalogue import Prices, Rules
from ..design import FarPoint
from .bill import Bill, FarCost
from .by_others import over_mast, power_line
from .direct_current import Node, feed_tree, loop_ohm, sound_gauges
from .in_ground import copper, extended, fibre, switch_between
from .media import LIGHTNING, Draft, Draw, hang_node
from .one_feed import KINDS, add_feed, fuse_for
from .over_air import mesh, radio, repeater
from .solar import SunKit, solar
from .ways import FarCheck, FarDemand, FarPort, FarSite, FarWay, Medium, Supply, demand_of, ranked, worst_of

_ALONE: tuple[Supply, ...] = ("mains", "solar")
_ANY: tuple[Supply, ...] = ("mains", "cable", "solar")
# Each way, and what can feed its far end.
MEDIA: Mapping[Medium, tuple[Draw, tuple[Supply, ...]]] = {
    "repeater": (repeater, _ALONE),
    "mesh": (mesh, _ALONE),
    "radio_5": (radio("5"), _ALONE),
    "radio_60": (radio("60"), _ALONE),
    "copper": (copper, _ANY),
    "extender": (extended(1), _ANY),
    "extenders": (extended(2), _ANY),
    "switch": (switch_between, _ANY),
    "fibre": (fibre, _ANY),
    "power_line": (power_line, ("mains",)),
    "cellular": (over_mast("cellular"), _ALONE),
    "satellite": (over_mast("satellite"), _ALONE),
}
OVER_THE_PLAN: frozenset[Medium] = frozenset({"repeater", "mesh"})  # these rest on the plan's own air
_SAID: dict[Supply, str] = {"mains": "power there", "cable": "power along it", "solar": "solar there"}


class FeedChoice(Frozen):
    """A voltage to begin a feed with: by converter the thinnest conductor on which the load runs and starts,
    None where on none of those that there are."""

    source_v: float
    plain_mm2: float | None
    boost_mm2: float | None


class FeedLine(Frozen):
    """A feed of direct current beside a fibre: the conductor, the converter, volts at its end; and what other
    voltages would take."""

    mm2: float
    kind: str
    source_v: float
    end_v: float
    least_v: float = Field(description="at which its converter gives up")
    amperes: float
    lost_w: float
    choices: tuple[FeedChoice, ...]


class FarOffer(FarWay):
    """A way with what feeds it."""

    feed: FeedLine | None = None
    sun: SunKit | None = None


def all_ways(site: FarSite) -> tuple[FarDemand, tuple[FarOffer, ...]]:
    """Return what a place asks for, and every way to it, the best first."""
    demand = demand_of(site.rules, site.point)
    return demand, ranked(site.rules, demand, list(_offers(site, demand)))


def way_of(site: FarSite, name: str) -> FarOffer | None:
    """Return one way by its medium and its supply, without a rank; None where there is no such way."""
    demand = demand_of(site.rules, site.point)
    for medium, (draw, supplies) in MEDIA.items():
        for supply in supplies:
            if name == f"{medium}-{supply}":
                return _offer(site, demand, draw, supply)
    return None


def cell_cost(prices: Prices, years: int) -> FarCost:
    """Return what an access point of its own takes at a place whose way serves no clients itself."""
    bill = Bill(prices, years)
    hang_node(bill)
    return bill.cost()


def _offers(site: FarSite, demand: FarDemand) -> Iterator[FarOffer]:
    for draw, supplies in MEDIA.values():
        for supply in supplies:
            offer = _offer(site, demand, draw, supply)
            if offer is not None:
                yield offer


def _offer(site: FarSite, demand: FarDemand, draw: Draw, supply: Supply) -> FarOffer | None:
    draft = draw(site, demand, Bill(site.prices, site.point.years))
    # What serves clients itself stands in for the access point that would; a node has its own watts.
    load_w = round(draft.link_w + demand.gear_w - (demand.node_w if draft.serves else 0.0), 1)
    if load_w == 0 and supply != "mains":
        return None  # nothing out there wants power
    feed: FeedLine | None = None
    sun: SunKit | None = None
    source_w = draft.near_w
    if supply == "mains":
        draft.checks.append(_mains(site.point, load_w))
        draft.bill.energy_w += load_w
        source_w += _passing(site, draft, 0.0)
    elif supply == "solar":
        sun = solar(site, draft, demand, load_w)
        source_w += _passing(site, draft, 0.0)
    elif draft.medium == "fibre":
        feed, fed_w = _direct(site, draft, load_w)
        source_w += fed_w
    else:
        source_w += _passing(site, draft, load_w)
    draft.bill.energy_w += source_w
    if site.point.injector:
        _inject(site, draft)
    if draft.port_need:
        draft.needs.append(draft.port_need)
    label = (
        "Composite fibre with direct current"
        if feed or (supply == "cable" and draft.medium == "fibre")
        else ""
    )
    binding = worst_of(draft.checks)
    return FarOffer(
        id=f"{draft.medium}-{supply}",
        medium=draft.medium,
        supply=supply,
        label=label or (draft.label if load_w == 0 else f"{draft.label}, {_SAID[supply]}"),
        verdict=binding.state,
        binds=binding.words if binding.state != "met" else "all that is asked for holds",
        would="; ".join(c.would for c in draft.checks if c.state != "met" and c.would),
        mbps=round(draft.mbps, 1),
        delay_ms=draft.delay_ms,
        air=round(draft.air, 3) if draft.air is not None else None,
        watts=load_w,
        source_w=round(source_w, 1),
        port=draft.port,
        joints=draft.joints,
        level_dbm=draft.level_dbm,
        weather=draft.weather,
        rates=draft.rates,
        needs=tuple(dict.fromkeys(draft.needs)),
        hurts=tuple(dict.fromkeys(draft.hurts)),
        licensed=tuple(dict.fromkeys(draft.licensed)),
        checks=tuple(draft.checks),
        parts=tuple(draft.bill.parts),
        tasks=tuple(draft.bill.tasks),
        cost=draft.bill.cost(),
        feed=feed,
        sun=sun,
    )


def _inject(site: FarSite, draft: Draft) -> None:
    """Let an injector at the rack feed what a port of its switch would."""
    port = draft.port
    if port is None or port.poe_class is None:
        return
    model = site.catalogue.injector_for(port.poe_class, port.mbps)
    if model is None:
        words = f"no injector feeds class {port.poe_class} at {port.mbps:g} Mb/s"
        would = "a port of the switch that feeds it, without an injector"
        draft.checks.append(FarCheck(state="near", words=words, would=would))
        return
    draft.bill.add(model.id)
    draft.port_need = f"a socket at the rack for its injector, {model.label}"
    draft.port = FarPort(mbps=port.mbps)


def _mains(point: FarPoint, load_w: float) -> FarCheck:
    if load_w == 0:
        return FarCheck(state="met", words="nothing out there wants power")
    if point.power == "none":
        would = "a supply laid by a licensed electrician, power along the cable, or the sun"
        return FarCheck(
            state="out", words=f"{load_w:g} W are wanted, and there is no power there", would=would
        )
    there = "a socket" if point.power == "socket" else "a supply of its own"
    return FarCheck(state="met", words=f"{load_w:g} W out of {there} there")


def _passing(site: FarSite, draft: Draft, load_w: float) -> float:
    """Judge power over copper's own pieces, and what extenders take where nothing beyond them is fed; return
    the watts at the near end."""
    if load_w == 0 and draft.extender is None:
        return 0.0
    fed = site.feeds(load_w, draft.hops_m, draft.extender)
    would = "" if fed.runs else "less drawn out there, or power there"
    draft.checks.append(FarCheck(state="met" if fed.runs else "out", words=fed.words, would=would))
    draft.port_need = "a port that feeds it"
    if fed.runs and draft.port is not None and draft.medium != "switch":  # that one feeds from its cabinet
        joined = draft.extender.id if draft.extender is not None else None
        own = {"poe_class": fed.poe_class, "watts": fed.watts, "pieces_m": fed.pieces_m, "extender": joined}
        draft.port = draft.port.model_copy(update=own)
    return fed.port_w


def _direct(site: FarSite, draft: Draft, load_w: float) -> tuple[FeedLine | None, float]:
    """Judge a feed beside the fibre: the cheapest conductor and converter over which it runs and starts."""
    rules, bill = site.rules, draft.bill
    source_v, length, heat = rules["far.feed_v"], site.laid_m, rules["far.feed_c"]
    taken = load_w / rules["far.boost_share"]
    used = rules.used("far.feed_v", "far.feed_least_v.plain", "far.feed_least_v.boost", "far.start_up")
    draft.hurts.append(LIGHTNING)
    draft.licensed.append(
        "A feed of direct current with its breaker and earth: licensed work, by local code."
    )
    draft.needs.append("a breaker and earth at both ends")
    most = rules["far.feed_most_m"]
    if length > most:
        words = f"{metres(length, 0)} of {metres(most, 0)} that a feed may have"
        draft.checks.append(FarCheck(state="out", words=words, would="power there, or the sun"))
        return None, 0.0
    choices = tuple(_choices(rules, length, taken, heat))
    planned = next(c for c in choices if c.source_v == source_v)
    rows = [
        (site.prices.each(f"feed-{mm2:g}") * length + site.prices.each(f"dc-{kind}"), kind, mm2)
        for kind, mm2 in zip(KINDS, (planned.plain_mm2, planned.boost_mm2), strict=True)
        if mm2 is not None
    ]
    if not rows:
        most_w = _most_w(site, length)
        words = (
            f"{load_w:g} W do not start over {metres(length, 0)} even on the thickest conductor with boost"
        )
        would = f"no more than {most_w:.0f} W out there, or power there"
        able = next((c.source_v for c in choices if c.source_v > source_v and c.boost_mm2), None)
        if able is not None:
            would = f"a feed that begins with {able:g} V, or {would}"
        draft.checks.append(FarCheck(state="out", words=words, would=would, used=used))
        return None, 0.0
    _, kind, mm2 = min(rows)
    least_v = rules[f"far.feed_least_v.{kind}"]
    ohm = loop_ohm(rules, mm2, length, heat)
    settled = feed_tree(source_v, [Node(None, ohm, taken, least_v)])
    starting = feed_tree(source_v, [Node(None, ohm, taken * rules["far.start_up"])])
    start_a = starting.branches[0].amperes
    fuse = fuse_for(rules, start_a)
    branch = settled.branches[0]
    words = (
        f"{load_w:g} W over {mm2:g} mm²: {branch.volts:.1f} V arrive, the converter gives up at {least_v:g}"
    )
    draft.checks.append(FarCheck(state="met", words=words, used=used))
    add_feed(bill, kind, mm2, length, 2)
    draft.needs.append(
        f"a fuse of {fuse:g} A at the supply, for {start_a:.2f} A as it starts"
        if fuse is not None
        else f"a fuse for {start_a:.1f} A as it starts, larger than any that is listed"
    )
    line = FeedLine(
        mm2=mm2,
        kind=kind,
        source_v=source_v,
        end_v=round(branch.volts, 2),
        least_v=least_v,
        amperes=round(branch.amperes, 3),
        lost_w=round(branch.lost_w, 2),
        choices=choices,
    )
    return line, settled.source_w


def _choices(rules: Rules, length_m: float, watts: float, heat_c: float) -> Iterator[FeedChoice]:
    """Yield by voltage, from the lowest on, the thinnest conductors over which a load runs and starts."""
    for source_v in sorted({*rules.numbers("far.feed_volts"), rules["far.feed_v"]}):
        thinnest = []
        for kind in KINDS:
            least_v = rules[f"far.feed_least_v.{kind}"]
            gauges = sound_gauges(rules, source_v, length_m, watts, least_v, heat_c)
            thinnest.append(gauges[0] if gauges else None)
        plain, boost = thinnest
        yield FeedChoice(source_v=source_v, plain_mm2=plain, boost_mm2=boost)


def _most_w(site: FarSite, length: float) -> float:
    """Return the watts that still start over the thickest conductor into a boosting converter: the most that
    a loop gives into a load of constant power, ``(Vs - V) V / R``, over what starting takes."""
    rules = site.rules
    source_v = rules["far.feed_v"]
    at_v = max(rules["far.feed_least_v.boost"], source_v / 2)
    ohm = loop_ohm(rules, max(rules.numbers("far.gauges_mm2")), length, rules["far.feed_c"])
    return math.floor((source_v - at_v) * at_v / ohm / rules["far.start_up"] * rules["far.boost_share"])
