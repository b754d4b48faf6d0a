"""Whether a rack has a port left for a way to a far place, and what feeds it there."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from ..base.wording import some, speed
from ..context.far_links import far_link
from ..context.plan import Plan
from ..design import EquipmentRoom, FarPoint, put
from ..far import FarCheck, FarOffer, FarPort
from ..rack import PortUse
from .evaluate import evaluate, power_of


@dataclass(frozen=True)
class PortLeft:
    """What a rack has for a way: the check in words, and the speed of the port that it would have, Mb/s."""

    check: FarCheck
    mbps: int | None


def port_left(plan: Plan, point: FarPoint, room: str, offer: FarOffer, wanted_mbps: float) -> PortLeft | None:
    """Judge the port that a way asks for at its rack: all of the rack is shared out with that way taken.

    None where the way wants no port, or no switch stands there yet.
    """
    port, power = offer.port, evaluate(plan).power
    switches = {b.switch: b.name for b in power.switches if b.room == room}
    if port is None or not switches:
        return None
    wanted = f"a port of {speed(port.mbps)}"
    if port.poe_class is not None:
        wanted += f" that feeds class {port.poe_class}"
    if point.way != offer.id:
        # Places that have none yet ask for the same where they ask for the same watts.
        own = point.id if point.way else ""
        key = f"far_port.{room}.{own}.{port.mbps}.{port.poe_class}.{math.ceil(offer.source_w)}"
        use, others = plan.answer(key, lambda: _with_it(plan, point, offer))
    else:
        use, others = _at(power.ports, point), ()
    if use is None:
        words = f"{wanted} is not left at {plan.drawn.of(EquipmentRoom)[room].name}"
        return PortLeft(FarCheck(state="near", words=words, would=_would(port)), None)
    if others:
        words = f"{wanted} is left only if none is kept for {some(others)}"
        return PortLeft(FarCheck(state="near", words=words, would=_would(port)), None)
    words = f"{wanted}: port {use.port} of {switches.get(use.switch, use.switch)}"
    if use.speed_mbps >= port.mbps:
        return PortLeft(FarCheck(state="met", words=words), use.speed_mbps)
    words += f", which is of {speed(use.speed_mbps)}"
    short = use.speed_mbps < wanted_mbps
    would = "a switch with a faster port" if short else ""
    return PortLeft(FarCheck(state="near" if short else "met", words=words, would=would), use.speed_mbps)


def _would(port: FarPort) -> str:
    return "another switch" if port.poe_class is None else "an injector at the rack, or another switch"


def _with_it(plan: Plan, point: FarPoint, offer: FarOffer) -> tuple[PortUse | None, tuple[str, ...]]:
    """Return the port that a way would have, and who would have none for it."""
    before = evaluate(plan)
    taken = plan.after([put(point.model_copy(update={"way": offer.id}))]).hastily()
    after = power_of(taken, before.cable, full=False)
    had_none = {u.link for u in before.power.left}
    return _at(after.ports, point), tuple(u.name for u in after.left if u.link not in had_none)


def _at(ports: Iterable[PortUse], point: FarPoint) -> PortUse | None:
    link = far_link(point.id)
    return next((p for p in ports if p.link == link), None)
