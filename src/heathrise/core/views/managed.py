"""What a plan has for a controller: its devices as they hang on one another, and all that each shall hold."""

from __future__ import annotations

from collections import deque

from ..context.plan import Plan, answered
from ..context.plugged import plugged_of
from ..context.run_decisions import said_over_air
from ..controlled import Held, Managed, Tree, normal
from ..design import Device, Switch
from ..evaluation.evaluate import evaluate
from ..signal import environment_of, mesh_links
from .held import held_settings


@answered
def tree_of(plan: Plan) -> Tree:
    """Return the switches and devices of a plan as they hang on one another; the controller is taken to be
    plugged into the first switch."""
    design, catalogue, power = plan.design, plan.catalogue, evaluate(plan).power
    switches, devices = design.of(Switch), design.of(Device)
    ways = {(p.switch, p.uplink_to): p for p in power.ports if p.uplink and p.uplink_to}
    lines = [p.switch for p in power.ports if p.uplink and not p.uplink_to]
    rows: dict[str, Managed] = {}
    first = next(iter([*lines, *switches]), None)
    todo = deque([first] if first is not None else [])
    todo += [key for key in switches if key != first]
    for key in list(todo):
        if key not in rows:
            _walk(plan, key, ways, rows)
    for port in power.ports:
        device = devices.get(port.device or "")
        if device is not None and device.id not in rows:
            rows[device.id] = _device(plan, device, port.switch, port.port, port.feeds, port.speed_mbps)
    for plug in plugged_of(design, catalogue):
        device = devices[plug.device]
        if device.id not in rows and plug.host in rows:
            rows[device.id] = _device(plan, device, plug.host, plug.port, False, None)
    over_air = said_over_air(design)
    for link in mesh_links(environment_of(plan)) if over_air else ():
        device = devices.get(link.device)
        if device is not None and link.parent is not None and device.id in over_air:
            hung = _device(plan, device, link.parent, None, False, None)
            rows[device.id] = hung.model_copy(update={"over_air": True})
    held = {s.target.removeprefix("device/") for s in held_settings(plan).settings}
    for device in devices.values():
        if device.id in held and device.id not in rows:
            rows[device.id] = _device(plan, device, None, None, False, None)
    known = {k: r if r.parent in rows else r.model_copy(update={"parent": None}) for k, r in rows.items()}
    return Tree({k: r.model_copy(update={"managed": k in held}) for k, r in known.items()}, first)


def _walk(plan: Plan, first: str, ways: dict, rows: dict[str, Managed]) -> None:  # type: ignore[type-arg]
    switches, catalogue = plan.design.of(Switch), plan.catalogue
    todo: deque[tuple[str, str | None]] = deque([(first, None)])
    while todo:
        key, parent = todo.popleft()
        if key in rows or key not in switches:
            continue
        down, up = ways.get((parent, key)), ways.get((key, parent))
        rows[key] = Managed(
            id=key,
            name=switches[key].name,
            model=catalogue.switches[switches[key].model].label,
            kind="switch",
            parent=parent,
            port=down.port if down is not None else None,
            own_port=up.port if up is not None else None,
            fed=bool(down is not None and down.feeds),
            link_mbps=down.speed_mbps if down is not None else None,
        )
        todo += [(other, key) for switch, other in ways if switch == key and other != parent]


def _device(
    plan: Plan, device: Device, parent: str | None, port: int | None, fed: bool, mbps: int | None
) -> Managed:
    model = plan.catalogue.model_of(device)
    return Managed(
        id=device.id,
        name=device.name,
        model=model.label,
        kind=device.kind,
        parent=parent,
        port=port,
        fed=fed,
        link_mbps=min(model.speed_mbps, mbps) if mbps else None,
    )


def wanted_of(plan: Plan) -> Held:
    """Return all that a controller shall hold, by target and key."""
    found: dict[str, dict[str, object]] = {}
    for row in held_settings(plan).settings:
        found.setdefault(row.target, {})[row.key] = normal(row.value)
    return found  # type: ignore[return-value]
