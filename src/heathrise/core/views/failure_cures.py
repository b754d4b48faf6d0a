"""What would shorten a failure, or do without what failed, and what that is bought for."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ..cabling import UplinkVerdict
from ..catalogue import poe_rank
from ..context.plan import Plan
from ..design import EquipmentRoom, Switch
from ..elevation import good_batteries
from ..evaluation.evaluate import Evaluation
from ..rack import PortUse


def cure_of(plan: Plan, evaluation: Evaluation, kind: str, element: str) -> tuple[str, float | None]:
    """Return in words what would help against one failure, and its price before margin and tax."""
    if kind == "mains":
        return _mains(plan, evaluation, element)
    if kind == "uplink":
        up = next(u for u in evaluation.uplinks if u.room == element)
        return _way(plan, up)
    things: Mapping[str, Any] = plan.design.tables[kind]
    model = things[element].model
    label = plan.priced.items[model].label
    return f"one more {label}, kept ready", plan.priced.each(model)


def port_cure(plan: Plan, evaluation: Evaluation, use: PortUse) -> tuple[str, float | None]:
    """Return which free port of the rack does for what is in one, the same switch's before another's, and
    that it costs nothing; else one more switch."""
    power, switches = evaluation.power, plan.design.of(Switch)
    here = switches[use.switch]
    fed = next((d for d in power.devices if d.device == use.device), None) if use.feeds else None
    budgets = {b.switch: b for b in power.switches}
    speed = min(use.speed_mbps, use.wanted_mbps or use.speed_mbps)

    def does(port: PortUse) -> bool:
        if port.link is not None or port.uplink or port.cage != use.cage or port.speed_mbps < speed:
            return False
        if switches[port.switch].equipment_room != here.equipment_room:
            return False
        if fed is None:
            return True
        if port.poe_class is None or poe_rank(port.poe_class) < poe_rank(fed.poe_class):
            return False
        budget = budgets[port.switch]
        more = fed.reserved_w if budget.allocates == "class" else fed.negotiated_w
        return port.switch == use.switch or budget.counted_w + more <= budget.budget_w

    fitting = [p for p in power.ports if does(p)]
    best = min(fitting, key=lambda p: p.switch != use.switch, default=None)
    if best is not None:
        return f"port {best.port} of {switches[best.switch].name} is free and does: change the cord over", 0.0
    label = plan.priced.items[here.model].label
    return f"no free port does: one more {label}, kept ready", plan.priced.each(here.model)


def _way(plan: Plan, up: UplinkVerdict) -> tuple[str, float | None]:
    if up.medium == "fibre":
        free = up.fibre.free if up.fibre is not None else 0
        strands = f", and {free} strands that are ready" if free else ""
        return f"an optic for each end, kept ready{strands}", 2 * plan.priced.each(f"optic-{up.category}")
    if up.cables > 1:
        return "its second cable, which lies there: two cords changed over", 0.0
    if up.bought_m <= 0:
        return "a second cable beside it", None
    metre = plan.priced.cable_metre(up.category, up.jacket)
    return f"a second cable beside it, {up.bought_m:.0f}\u00a0m", round(metre * up.bought_m, 2)


def _mains(plan: Plan, evaluation: Evaluation, room: str) -> tuple[str, float | None]:
    """Return the cheapest battery that carries a rack as long as is wished, or that it has one."""
    rack = evaluation.racks.of(room)
    if rack is None:
        return "", None
    name = plan.design.of(EquipmentRoom)[room].name
    if rack.battery is not None:
        return f"the battery of {name}: what is shed first stands with its rack", None
    fitting = good_batteries(plan.catalogue, rack.watts, rack.closet.now_c)
    if not fitting:
        return "no battery of the catalogue carries it as long as is wished", None
    model = min(fitting, key=lambda m: plan.priced.each(m.id))
    minutes = plan.rules["rack.battery_minutes"]
    return f"{model.label}, {minutes:g} min once it is old", plan.priced.each(model.id)
