"""What would shorten a failure, or do without what failed, and what that is bought for."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ..cabling import UplinkVerdict
from ..context.plan import Plan
from ..design import EquipmentRoom
from ..elevation import good_batteries
from ..evaluation.evaluate import Evaluation


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
