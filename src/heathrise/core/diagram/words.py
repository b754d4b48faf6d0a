"""What each thing of a diagram says of itself, in each of the four readings."""

from __future__ import annotations

from ..base.wording import metres, speed
from ..context.plan import Plan
from ..design import Device, Network
from ..elevation import Elevation
from ..power import PoweredDevice, SwitchBudget
from .values import Joint, NodeKind

_JOIN = "\u00a0"
_DOT = " · "
MEDIA = {"copper": "cat ", "fibre": "", "cord": "cord", "line": "", "air": "over the air", "none": ""}


def says_of(
    plan: Plan,
    kind: NodeKind,
    joint: Joint | None,
    line_mbps: float = 0.0,
    device: Device | None = None,
    powered: PoweredDevice | None = None,
    budget: SwitchBudget | None = None,
    managed: bool = True,
    place: str = "",
    clients: float = 0.0,
) -> dict[str, str]:
    """Return the line of a thing in each reading.

    Args:
        line_mbps: of the line, what it gives.
        powered: watts of a device that is fed over its cable.
        budget: watts of a switch.
        place: the room of the house.
        clients: that an access point has at the busiest hour.
    """
    if kind == "line" or joint is None:
        gives = f"gives {speed(line_mbps, _JOIN)}"
        return dict.fromkeys(("cables", "networks", "power", "client"), gives)
    return {
        "cables": cables_said(joint),
        "networks": _networks(plan, joint, kind, managed),
        "power": _power(plan, joint, device, powered, budget),
        "client": _client(kind, joint, place, clients),
    }


def rack_says(rack: Elevation) -> dict[str, str]:
    """Return the line of a rack: its units, its watts and how long a battery carries them."""
    used = f"{rack.used_units} of {rack.units} units"
    power = f"{rack.watts:.0f}{_JOIN}W"
    if rack.battery is not None:
        power += f", {rack.battery.minutes_old:.0f} minutes on its battery"
    return {"cables": used, "networks": "", "power": power, "client": ""}


def cables_said(joint: Joint) -> str:
    """Return port, cable, length and speed, or what is missing."""
    if not connected(joint):
        return joint.why
    ports = f"port{'s' if len(joint.ports) > 1 else ''} {', '.join(map(str, joint.ports))}"
    cable = f"{MEDIA[joint.kind]}{joint.category}".strip()
    length = metres(joint.length_m, 0) if joint.length_m else ""
    if joint.extenders:
        cable += f" over {joint.extenders} extender{'s' if joint.extenders > 1 else ''}"
    parts = [ports if joint.ports else "", f"{length} {cable}".strip()]
    if joint.kind == "air" and joint.level_dbm is not None:
        parts.append(f"{joint.level_dbm:.0f}{_JOIN}dBm".replace("-", "\u2212"))
    if joint.came_mbps is None:
        parts.append(pace(joint.speed_mbps))
    else:
        came = speed(joint.came_mbps, _JOIN) if joint.came_mbps else "no link"
        planned = f", {pace(joint.speed_mbps)} planned" if joint.came_mbps != joint.speed_mbps else ""
        parts.append(f"{came} read{planned}")
    return _DOT.join(p for p in parts if p)


def pace(mbps: float) -> str:
    """Return a speed as it stands on a card: what is promised, or that nothing is."""
    return speed(round(mbps), _JOIN) if mbps > 0 else "not for sure"


def connected(joint: Joint) -> bool:
    """Whether there is a way at all: a port, the air, or a cord in the rack."""
    return joint.kind != "none" and not (joint.why and not joint.ports and joint.kind != "air")


def _networks(plan: Plan, joint: Joint, kind: NodeKind, managed: bool) -> str:
    """Return the network of an end, and what its port carries besides."""
    names = {n.vlan: n.name for n in plan.design.of(Network).values()}
    if not connected(joint):
        return joint.why
    if not names:
        return "no networks are planned"
    if kind == "router":
        return "between all of them"
    own = names.get(joint.untagged, f"VLAN {joint.untagged}") if joint.untagged is not None else ""
    if kind == "switch" and not managed:
        return f"tells no networks apart: {own}" if own else "tells no networks apart"
    if kind == "switch" and not joint.ports:
        return "all, to the router"
    tagged = ", ".join(names.get(v, str(v)) for v in joint.tagged)
    if tagged and len(joint.tagged) == len(set(names) - {joint.untagged}):
        tagged = "all others" if own else "all"
    return _DOT.join(p for p in (own, f"with {tagged}" if own and tagged else tagged) if p) or "none"


def _power(
    plan: Plan,
    joint: Joint,
    device: Device | None,
    powered: PoweredDevice | None,
    budget: SwitchBudget | None,
) -> str:
    if budget is not None:
        if not budget.budget_w:
            return "gives no power"
        return f"gives {budget.expected_w:.0f} of {budget.budget_w:g}{_JOIN}W expected"
    if joint.watts and powered is not None:
        return f"{joint.watts:.1f}{_JOIN}W from {joint.fed_by or powered.source}"
    if device is None:
        return "its own supply"
    role, model = plan.catalogue.role_of(device), plan.catalogue.model_of(device)
    if role.links == "every_cable":
        return "no power of its own"
    hungry = powered is not None or (model.power is not None and joint.kind != "air")
    return "nothing feeds it" if hungry else "its own supply"


def _client(kind: NodeKind, joint: Joint, place: str, clients: float) -> str:
    """Return in plain words where a thing is, how it is joined and how many it serves."""
    if kind == "router":
        return "where the internet comes in"
    how = {"air": "over the air", "none": "not connected", "fibre": "by fibre"}.get(joint.kind, "on a wire")
    if not connected(joint):
        how = "not connected yet"
    many = round(clients) if connected(joint) else 0
    serves = f"serves {many}" if many else ""
    return ", ".join(filter(None, (place, how, serves)))
