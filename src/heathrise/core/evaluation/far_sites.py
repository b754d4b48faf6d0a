"""A place on the land as its ways are worked out from it, and the way that was taken."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

import numpy as np
import shapely

from ..base.memo import IdentityMemo
from ..base.shapes import shape_of
from ..catalogue import ExtenderModel, PowerDemand
from ..context.leaves import leaves_m
from ..context.plan import Plan, answered
from ..context.storeys import storeys_of
from ..design import Building, Device, EquipmentRoom, FarPoint, Floor, Grove, Panel
from ..far import (
    OVER_THE_PLAN,
    AirHop,
    FarOffer,
    FarSite,
    Fed,
    Feeds,
    Wiring,
    foliage_db,
    free_space_db,
    growth_m,
    horizon_deg,
    way_of,
)
from ..mains import feeding_panel, near_socket
from ..power import CableHop, feed_in_hops
from ..signal import environment_of, user_mbps
from .far_lines import FarLine, far_view

_SILENT = AirHop(-200.0, 0.0)
_taken: IdentityMemo[FarOffer | None] = IdentityMemo(128)


@answered
def taken_offers(plan: Plan) -> dict[str, FarOffer]:
    """Return by place the way that was taken; none where it is no way any more, and none of today."""
    if plan.when == "today":
        return {}
    found = {}
    for line in far_view(plan).lines:
        point = plan.drawn.of(FarPoint)[line.point]
        offer = _offer(plan, point, line) if point.way and line.room is not None else None
        if offer is not None:
            found[point.id] = offer
    return found


def _offer(plan: Plan, point: FarPoint, line: FarLine) -> FarOffer | None:
    on_air = any(point.way.startswith(f"{medium}-") for medium in OVER_THE_PLAN)
    node = node_at(plan, point, line) if on_air else None
    rests_on = point, line, plan.drawn.site, plan.catalogue, plan.prices
    wires = wiring_of(plan, point, line)
    return _taken.get(rests_on, (node, wires), lambda: way_of(site_of(plan, point, line), point.way))


def site_of(plan: Plan, point: FarPoint, line: FarLine) -> FarSite:
    """Return a place with what its ways are worked out from: the plan's own air, ports, cables, prices."""
    site, rules = plan.drawn.site, plan.rules
    category = site.minimum_category
    return FarSite(
        point=point,
        length_m=line.length_m,
        sights={s.band: s for s in line.sights},
        prices=plan.priced,
        domain=site.domain,
        slack_m=site.slack_device_m + site.slack_rack_m,
        channel_m=rules[f"cabling.channel_m.{category}.1000"],
        horizon_deg=round(horizon_deg(_horizon(plan, point, line)), 1),
        heard=lambda: node_at(plan, point, line),
        feeds=_feeds(plan),
        wiring=wiring_of(plan, point, line),
    )


def wiring_of(plan: Plan, point: FarPoint, line: FarLine) -> Wiring:
    """Return the panels that both ends' sockets hang on, the rack's by the socket that is near it."""
    design = plan.drawn
    panels, floors, room = design.of(Panel), design.of(Floor), design.of(EquipmentRoom).get(line.room or "")
    there = panels.get(point.panel or "")
    socket = near_socket(design, room.floor, room.at, room.rack_height_m) if room is not None else None
    here = feeding_panel(design, socket.socket) if socket is not None else None
    known = [design.of(Building)[floors[p.floor].building].built for p in (here, there) if p is not None]
    years = [year for year in known if year is not None]
    return Wiring(
        here=here.name if here is not None else "",
        there=there.name if there is not None else "",
        same=here is not None and here is there,
        built=min(years) if years and len(years) == len(known) else None,
    )


def _horizon(plan: Plan, point: FarPoint, line: FarLine) -> Iterator[tuple[float, float]]:
    """Yield what stands about a place, (metres away, metres over its antenna), when its years are over: the
    ground of its line with the trees on it, and trees that are drawn in whichever direction."""
    eye_m = line.slices[-1].ground_m + point.mast_m
    for piece in line.slices[:-1]:
        yield line.length_m - piece.at_m, piece.top_m - eye_m
    grown = grown_m(plan, point.years)
    for key, grove in plan.drawn.of(Grove).items():
        away = float(shape_of(grove.outline).distance(shapely.Point(point.at)))
        yield away, grove.height_m + grown[key] - point.mast_m


def grown_m(plan: Plan, years: float) -> dict[str, float]:
    """Return by drawn trees how much higher they are in so many years."""
    return {k: growth_m(plan.rules, g.grows_m) * years for k, g in plan.drawn.of(Grove).items()}


def node_at(plan: Plan, point: FarPoint, line: FarLine) -> AirHop:
    """Return how the best access point of the plan is heard out there on 5 GHz, through its outer wall and
    the leaves on its own way; those that were said of the line stand on any way."""
    air, rules, storeys = environment_of(plan), plan.rules, storeys_of(plan.design)
    groves, grown = plan.drawn.of(Grove), grown_m(plan, point.years)
    here = (*point.at, point.mast_m)
    best = _SILENT
    for (key, band), radio in air.radios.items():
        device = plan.design.of(Device).get(key)
        if band != "5" or device is None:
            continue
        km = max(math.dist(device.at, point.at), 1.0) / 1000
        spot = (*device.at, storeys.over_ground_m(device.floor, device.height_m))
        there = [np.array([c]) for c in spot]
        leaves = line.said_leaves_m + float(leaves_m(groves, here, there[0], there[1], there[2], grown)[0])
        loss = free_space_db("5", km) + foliage_db("5", leaves)
        if not storeys.outdoors(device.floor, device.at, plan.catalogue.model_of(device).outdoor):
            loss += rules["far.outer_wall_db"]
        level = radio.power_dbm + 2 * radio.gain_dbi - loss
        if level > best.level_dbm:
            best = AirHop(round(level, 1), user_mbps(rules, level, air.width_mhz("5")))
    return best


def hops_of(pieces_m: Sequence[float], extender: ExtenderModel | None) -> list[CableHop]:
    """Return pieces of cable with an extender at the far end of each but the last."""
    last = len(pieces_m) - 1
    return [CableHop(m, extender if k < last else None) for k, m in enumerate(pieces_m)]


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
        hops = hops_of(pieces, extender)
        demand = PowerDemand(poe_class=kind.number, rated_w=watts, typical_w=watts)
        fed = feed_in_hops(rules, demand, watts, hops, heat, to)
        if fed.wrong:
            return Fed(False, 0.0, fed.wrong)
        words = f"{watts:g} W for {to}: class {fed.poe_class} at the port, {fed.loop.device_v:.1f} V arrive"
        return Fed(True, fed.loop.port_w, words, kind.number, watts, tuple(pieces))

    return feeds
