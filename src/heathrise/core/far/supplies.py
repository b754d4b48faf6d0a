"""What feeds a far place: mains there, power along the cable, the sun; and with it each way as a whole."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping

from pydantic import Field

from ..base.frozen import Frozen
from ..base.wording import metres
from ..catalogue import Prices, SunModel, on_offer
from ..design import FarPoint
from .bill import Bill, FarCost
from .by_others import over_mast, power_line
from .direct_current import Node, feed_tree, loop_ohm, sound_gauges
from .in_ground import copper, extended, fibre, switch_between
from .media import BATTERY, LIGHTNING, PANELS, Draft, Draw, hang_node
from .over_air import mesh, radio, repeater
from .sun import HOURS, Chemistry, Sunlit, battery_wh, dark_hour, panel_w, sun_hours, usable_share
from .ways import FarCheck, FarDemand, FarSite, FarWay, Medium, Supply, demand_of, ranked, worst_of

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
_CHEMISTRY: dict[Chemistry, str] = {"lead_acid": "lead-acid", "lithium": "lithium"}
_KINDS = ("plain", "boost")


class FeedLine(Frozen):
    """A feed of direct current beside a fibre: the conductor, the converter, volts at its end."""

    mm2: float
    kind: str
    source_v: float
    end_v: float
    least_v: float = Field(description="at which its converter gives up")
    amperes: float
    lost_w: float


class SunKit(Frozen):
    """Panels and batteries that keep a load up through the worst month."""

    hours: float = Field(description="of full sun a day in the worst month")
    panels: int
    panel_w: float = Field(description="of all panels together")
    wanted_w: float
    batteries: int
    battery_wh: float = Field(description="as rated, all together")
    chemistry: str
    days: float = Field(description="without sun that they bridge")
    dark_h: int = Field(description="hour without any sun in which a full battery is empty")


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
        sun = _sun(site, draft, load_w)
        source_w += _passing(site, draft, 0.0)
    elif draft.medium == "fibre":
        feed, fed_w = _direct(site, draft, load_w)
        source_w += fed_w
    else:
        source_w += _passing(site, draft, load_w)
    draft.bill.energy_w += source_w
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
        level_dbm=draft.level_dbm,
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
    draft.needs.append("a port that feeds it")
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
    rows = []
    for kind in _KINDS:
        gauges = sound_gauges(rules, source_v, length, taken, rules[f"far.feed_least_v.{kind}"], heat)
        if gauges:
            price = site.prices.each(f"feed-{gauges[0]:g}") * length + site.prices.each(f"dc-{kind}")
            rows.append((price, kind, gauges[0]))
    if not rows:
        most_w = _most_w(site, length)
        words = (
            f"{load_w:g} W do not start over {metres(length, 0)} even on the thickest conductor with boost"
        )
        would = f"no more than {most_w:.0f} W out there, or power there"
        draft.checks.append(FarCheck(state="out", words=words, would=would, used=used))
        return None, 0.0
    _, kind, mm2 = min(rows)
    least_v = rules[f"far.feed_least_v.{kind}"]
    ohm = loop_ohm(rules, mm2, length, heat)
    settled = feed_tree(source_v, [Node(None, ohm, taken, least_v)])
    starting = feed_tree(source_v, [Node(None, ohm, taken * rules["far.start_up"])])
    start_a = starting.branches[0].amperes
    fuse = next((a for a in sorted(rules.numbers("far.fuses_a")) if a >= start_a), None)
    branch = settled.branches[0]
    words = (
        f"{load_w:g} W over {mm2:g} mm²: {branch.volts:.1f} V arrive, the converter gives up at {least_v:g}"
    )
    draft.checks.append(FarCheck(state="met", words=words, used=used))
    bill.add("dc-supply")
    bill.add(f"feed-{mm2:g}", length)
    bill.add(f"dc-{kind}")
    bill.add("mast-earth", 2)
    bill.add("surge", 2)
    bill.work(
        "feed",
        "protect",
        "End, fuse and earth a feed of direct current",
        2 * rules["far.minutes.feed_end"],
        2,
        ("mains", "lightning"),
    )
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
    )
    return line, settled.source_w


def _most_w(site: FarSite, length: float) -> float:
    """Return the watts that still start over the thickest conductor into a boosting converter: the most that
    a loop gives into a load of constant power, ``(Vs - V) V / R``, over what starting takes."""
    rules = site.rules
    source_v = rules["far.feed_v"]
    at_v = max(rules["far.feed_least_v.boost"], source_v / 2)
    ohm = loop_ohm(rules, max(rules.numbers("far.gauges_mm2")), length, rules["far.feed_c"])
    return math.floor((source_v - at_v) * at_v / ohm / rules["far.start_up"] * rules["far.boost_share"])


def _sun(site: FarSite, draft: Draft, load_w: float) -> SunKit | None:
    """Judge panels and batteries for a load; the cheapest over the years."""
    rules, bill, years = site.rules, draft.bill, site.point.years
    typed = rules["far.sun_hours_here"]
    hours = typed or sun_hours(rules, rules["far.latitude_deg"])
    used = rules.used(
        "far.sun_hours_here" if typed else "far.latitude_deg", "far.sun_share", "far.cloud_days"
    )
    if hours <= 0:
        words = "the worst month has no hour of sun there"
        draft.checks.append(
            FarCheck(state="out", words=words, would="power there, or along a cable", used=used)
        )
        return None
    wanted_w = panel_w(rules, load_w, hours)
    panels = [(m, math.ceil(wanted_w / m.watts)) for m in _suns(site) if m.watts]
    panel, count = min(
        panels, key=lambda r: (r[1] * (site.prices.each(r[0].id) + site.prices.each("sun-frame")), r[0].id)
    )
    cells = [_battery(site, m, load_w, years) for m in _suns(site) if m.chemistry]
    _, later, cell, number = min(cells, key=lambda r: (r[0] + r[1], r[2].id))
    assert cell.chemistry is not None
    most, days = int(rules["far.most_panels"]), rules["far.cloud_days"]
    words = (
        f"{load_w:g} W want {wanted_w:.0f} W of panels at {hours:g} h of sun a day: {count} of them, and "
        f"{number * cell.wh / 1000:.1f} kWh of {_CHEMISTRY[cell.chemistry]} for {days:g} days of cloud"
    )
    few = count <= most
    would = "" if few else f"less drawn out there: no more than {most} panels stand at one place"
    draft.checks.append(FarCheck(state="met" if few else "near", words=words, would=would, used=used))
    bill.add(panel.id, count)
    bill.add("sun-frame", count)
    bill.add("sun-charger")
    bill.add(cell.id, number)
    bill.later += later
    bill.work("sun", "mount", "Put up solar panels", count * rules["far.minutes.panel"], count, ("lifting",))
    stored = number * rules["far.minutes.battery"] + rules["far.minutes.charger"]
    bill.work("store", "power", "Set batteries and the charger, and wire them", stored, number, ("lifting",))
    bill.upkeep_minutes += rules["far.upkeep_minutes.solar"] + number * rules["far.upkeep_minutes.battery"]
    draft.needs.append("open sky to the south" if rules["far.latitude_deg"] >= 0 else "open sky to the north")
    if cell.chemistry == "lithium" and rules["far.coldest_c"] < 0:
        draft.needs.append("a battery that is kept above 0 °C while it charges")
    draft.hurts += [PANELS, BATTERY]
    return SunKit(
        hours=hours,
        panels=count,
        panel_w=count * panel.watts,
        wanted_w=round(wanted_w, 1),
        batteries=number,
        battery_wh=number * cell.wh,
        chemistry=cell.chemistry,
        days=days,
        dark_h=_dark_h(site, cell, number, count * panel.watts, load_w),
    )


def _dark_h(site: FarSite, cell: SunModel, number: int, panels_w: float, load_w: float) -> int:
    rules = site.rules
    assert cell.chemistry is not None
    usable = number * cell.wh * usable_share(rules, cell.chemistry, rules["far.coldest_c"])
    grey = [0.0] * (math.ceil(usable / load_w / HOURS) + 1)
    hour = dark_hour(rules, Sunlit(panels_w, usable, load_w), grey)
    assert hour is not None  # without sun every battery is empty some day
    return hour


def _suns(site: FarSite) -> list[SunModel]:
    return on_offer(site.catalogue.suns)


def _battery(site: FarSite, model: SunModel, load_w: float, years: int) -> tuple[float, float, SunModel, int]:
    """Return what batteries of a kind cost at once and later, and how many they are."""
    rules = site.rules
    assert model.chemistry is not None
    number = math.ceil(battery_wh(rules, load_w, model.chemistry, rules["far.coldest_c"]) / model.wh)
    once = number * site.prices.each(model.id)
    times = math.ceil(years / rules[f"far.battery_years.{model.chemistry}"]) - 1
    return once, once * times, model, number
