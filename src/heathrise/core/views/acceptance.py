"""What is planned and can be proven on the site: cables by a tester, ports by a meter."""

from __future__ import annotations

from ..cabling import LinkVerdict
from ..context.plan import Plan
from ..context.run_decisions import cable_of_link
from ..design import Switch
from ..evaluation.evaluate import evaluate
from ..rack import PortUse
from ..records import PlannedCable, PlannedPort


def planned_cables(plan: Plan) -> list[PlannedCable]:
    """Return every cable of every run and of every way between racks; a way is called by its id."""
    links = evaluate(plan).cable
    found = [
        PlannedCable(r.device, r.name, number, r.fixed_m, r.limit_m, *_losses(r))
        for r in links.runs
        if r.verdict != "no_way"
        for number in range(1, r.cables + 1)
    ]
    for spare in links.beside:
        found += [
            PlannedCable(spare.id, spare.name, number, spare.fixed_m, spare.limit_m)
            for number in range(1, spare.cables + 1)
        ]
    for up in links.uplinks:
        if up.verdict == "no_way":
            continue
        found += [
            PlannedCable(up.id, up.name, number, up.fixed_m, up.limit_m, *_losses(up))
            for number in range(1, up.cables + 1)
        ]
    return found


def _losses(link: LinkVerdict) -> tuple[float | None, float | None]:
    return (link.fibre.loss_db, link.fibre.budget_db) if link.fibre is not None else (None, None)


def planned_ports(plan: Plan) -> list[PlannedPort]:
    """Return every port of the racks that has a link: what should come up, and what it feeds."""
    power, switches = evaluate(plan).power, plan.design.of(Switch)
    fed = {d.device: d for d in power.devices}
    up_mbps = {(w.switch, w.port): w.speed_mbps for w in power.ways_up}
    up_mbps |= {
        (w.to, w.to_port): w.speed_mbps for w in power.ways_up if w.to is not None and w.to_port is not None
    }
    found = []
    for port in power.ports:
        if port.link is None and not port.uplink:
            continue
        wanted = up_mbps.get((port.switch, port.port)) or port.wanted_mbps or port.speed_mbps
        device = fed.get(port.device or "") if port.feeds else None
        found.append(
            PlannedPort(
                switch=port.switch,
                switch_name=switches[port.switch].name,
                port=port.port,
                name=port.name or "",
                device=port.device,
                cable=cable_of(port),
                mbps=min(port.speed_mbps, wanted),
                expected_w=device.expected_w if device is not None else None,
                reserved_w=device.reserved_w if device is not None else None,
            )
        )
    return found


def cable_of(port: PortUse) -> int:
    """Return which cable of its run is in a port, from 1."""
    return cable_of_link(port.link)
