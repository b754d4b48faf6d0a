"""Every way to a place on the land, worked out by the plan's own radios, ports, cables and prices."""

from __future__ import annotations

import math
from collections.abc import Sequence

from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..catalogue import ExtenderModel, PowerDemand
from ..context.plan import Plan
from ..context.storeys import storeys_of
from ..design import DesignError, Device, FarPoint, Problem
from ..far import (
    AirHop,
    FarDemand,
    FarOffer,
    FarSite,
    Fed,
    Feeds,
    all_ways,
    foliage_db,
    free_space_db,
    trees_of,
    trees_over_deg,
)
from ..power import CableHop, feed_in_hops
from ..signal import environment_of, user_mbps
from .far import FarLine, far_view

_SILENT = AirHop(-200.0, 0.0)
_WHERE = "far"


_kept: IdentityMemo[tuple[FarDemand, tuple[FarOffer, ...]]] = IdentityMemo(128)


class FarWays(Frozen):
    """A place, what it asks for, and all ways to it; the first is the best by the firm's weights."""

    point: str
    name: str
    length_m: float
    years: int
    currency: str
    demand: FarDemand
    ways: tuple[FarOffer, ...]


def far_ways(plan: Plan, point: str) -> FarWays:
    """Return all ways to a place.

    Raises:
        DesignError: there is no such place, or no rack to feed it from.
    """
    return plan.answer(f"far_ways.{point}", lambda: _ways(plan, point))


def _ways(plan: Plan, key: str) -> FarWays:
    point = plan.drawn.of(FarPoint).get(key)
    if point is None:
        raise DesignError([Problem(_WHERE, f"there is no far place {key!r}; open the site again")])
    line = next(row for row in far_view(plan).lines if row.point == key)
    if line.room is None:
        what = f"{point.name} has no rack to be fed from, or stands on it; place a rack on the plan first"
        raise DesignError([Problem(_WHERE, what)])
    node = node_at(plan, point, line)
    site, catalogue = plan.drawn.site, plan.catalogue
    # Whatever else of the plan is moved, what a place is reached by stays.
    demand, ways = _kept.get(
        (point, line, site, catalogue, plan.prices), node, lambda: all_ways(_site(plan, point, line, node))
    )
    return FarWays(
        point=key,
        name=point.name,
        length_m=line.length_m,
        years=point.years,
        currency=plan.drawn.site.currency,
        demand=demand,
        ways=ways,
    )


def _site(plan: Plan, point: FarPoint, line: FarLine, node: AirHop) -> FarSite:
    site, rules = plan.drawn.site, plan.rules
    category = site.minimum_category
    trees = trees_of(rules, point.trees)
    seen = ((line.length_m - t.to_m, t.height_m + t.grows_m * point.years - point.mast_m) for t in trees)
    return FarSite(
        point=point,
        length_m=line.length_m,
        sights={s.band: s for s in line.sights},
        prices=plan.priced,
        domain=site.domain,
        slack_m=site.slack_device_m + site.slack_rack_m,
        channel_m=rules[f"cabling.channel_m.{category}.1000"],
        trees_deg=round(trees_over_deg(seen), 1),
        node=node,
        feeds=_feeds(plan),
    )


def node_at(plan: Plan, point: FarPoint, line: FarLine) -> AirHop:
    """Return how the best access point of the plan is heard out there on 5 GHz, through its outer wall."""
    air, rules, storeys = environment_of(plan), plan.rules, storeys_of(plan.design)
    leaves = next((s.leaves_m for s in line.sights if s.band == "5"), 0.0)
    best = _SILENT
    for (key, band), radio in air.radios.items():
        device = plan.design.of(Device).get(key)
        if band != "5" or device is None:
            continue
        km = max(math.dist(device.at, point.at), 1.0) / 1000
        loss = free_space_db("5", km) + foliage_db("5", leaves)
        if not storeys.outdoors(device.floor, device.at, plan.catalogue.model_of(device).outdoor):
            loss += rules["far.outer_wall_db"]
        level = radio.power_dbm + 2 * radio.gain_dbi - loss
        if level > best.level_dbm:
            best = AirHop(round(level, 1), user_mbps(rules, level, air.width_mhz("5")))
    return best


def _feeds(plan: Plan) -> Feeds:
    rules = plan.rules
    heat = rules["far.feed_c"]
    kinds = sorted(rules.poe_classes.values(), key=lambda k: (k.device_w, k.number))

    def feeds(load_w: float, hops_m: Sequence[float], extender: ExtenderModel | None) -> Fed:
        pieces, to, watts = list(hops_m), "what stands there", load_w
        if load_w == 0:
            if extender is None:
                return Fed(True, 0.0, "nothing is fed over it")
            # The last piece feeds nothing; the extender before it is what the others feed.
            pieces, to, watts = pieces[:-1], extender.label, extender.own_w
        kind = next((k for k in kinds if k.device_w >= watts), None)
        if kind is None:
            return Fed(
                False,
                0.0,
                f"{watts:g} W is more than any class of power over a cable has, {kinds[-1].device_w:g}",
            )
        last = len(pieces) - 1
        hops = [CableHop(m, extender if k < last else None) for k, m in enumerate(pieces)]
        demand = PowerDemand(poe_class=kind.number, rated_w=watts, typical_w=watts)
        fed = feed_in_hops(rules, demand, watts, hops, heat, to)
        if fed.wrong:
            return Fed(False, 0.0, fed.wrong)
        words = f"{watts:g} W for {to}: class {fed.poe_class} at the port, {fed.loop.device_v:.1f} V arrive"
        return Fed(True, fed.loop.port_w, words)

    return feeds
