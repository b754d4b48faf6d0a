"""The rack as a whole: ports and watts together, what is left over and what would mend it.

It joins the disciplines ``ports`` and ``power``, which do not know each other.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

from pydantic import BaseModel, ConfigDict

from .catalogue import Catalogue, poe_rank
from .design import Design, Device, Injector, Network, Switch
from .findings import Cure
from .ports.assign import Assignment, Demand, Shelf, assign, uplinks
from .power.budget import PoweredDevice, SwitchBudget, budget_of, over_run, sources
from .rack_cures import WeakInjector, device_of, rack_cures, weak_injectors

REASONS = {
    "no_ports": "no port is left",
    "no_powered_ports": "no powered port is left",
    "no_watts": "the powered ports left have no watts behind them",
    "no_class": "no port feeds its class",
}


class PortUse(BaseModel):
    """One port of the rack and the link in it."""

    model_config = ConfigDict(frozen=True)

    switch: str
    port: int
    speed_mbps: int
    poe_class: int | None
    cage: bool
    link: str | None = None
    device: str | None = None
    name: str | None = None
    wanted_mbps: int | None = None
    feeds: bool = False
    uplink: bool = False
    uplink_to: str | None = None


class LeftOver(BaseModel):
    """A link that got no port, and why."""

    model_config = ConfigDict(frozen=True)

    link: str
    device: str
    name: str
    reason: str
    poe_class: int | None


class PowerPlan(BaseModel):
    """Budgets, ports and devices of the whole rack."""

    model_config = ConfigDict(frozen=True)

    switches: tuple[SwitchBudget, ...]
    ports: tuple[PortUse, ...]
    devices: tuple[PoweredDevice, ...]
    left: tuple[LeftOver, ...]
    proven: bool
    cures: tuple[Cure, ...] = ()
    weak_injectors: tuple[WeakInjector, ...] = ()


NO_POWER = PowerPlan(switches=(), ports=(), devices=(), left=(), proven=True)


class Wire(BaseModel):
    """What power needs to know of a run; lengths in m with cords, temperature in C."""

    model_config = ConfigDict(frozen=True)

    device: str
    loop_m: float
    heat_c: float
    cables: int


def plan_power(
    design: Design, catalogue: Catalogue, wires: Mapping[str, Wire], with_cures: bool = True
) -> PowerPlan:
    """Return ports and budgets for every wired device."""
    powered = _powered(design, catalogue, wires)
    injected = {i.device: i for i in design.of(Injector).values()}
    demands = _demands(design, catalogue, wires, powered, frozenset(injected))
    shelves = _shelves(design, catalogue)
    pairs = _neighbours(design, catalogue)
    result = assign(demands, shelves, pairs)
    fed_by = _fed_by(result, demands, shelves)
    fed_by |= {
        i: _injector_feed(catalogue, injected[i], powered[i]) for i in injected if i in powered
    }
    budgets = tuple(
        _budget(shelf, result, demands, powered, design.site.power_headroom, shelves)
        for shelf in shelves
    )
    devices = tuple(sources(powered, fed_by))
    by_link = {d.id: d for d in demands}
    left = tuple(
        LeftOver(
            link=link,
            device=device_of(link),
            name=by_link[link].name,
            reason=REASONS[why],
            poe_class=by_link[link].poe_class,
        )
        for link, why in result.left.items()
    )
    cures = rack_cures(design, catalogue, demands, shelves, result) if left and with_cures else ()
    return PowerPlan(
        switches=budgets,
        ports=tuple(_port_map(shelves, result, by_link, _line(design, catalogue))),
        devices=devices,
        left=left,
        proven=result.proven,
        cures=cures,
        weak_injectors=tuple(weak_injectors(design, catalogue)),
    )


def _powered(
    design: Design, catalogue: Catalogue, wires: Mapping[str, Wire]
) -> dict[str, PoweredDevice]:
    found: dict[str, PoweredDevice] = {}
    for device in design.of(Device).values():
        model = catalogue.model_of(device)
        wire = wires.get(device.id)
        if model.power is not None and wire is not None:
            found[device.id] = over_run(
                catalogue.rules, device.id, device.name, model.label, model.power,
                wire.loop_m, wire.heat_c,
            )  # fmt: skip
    return found


def _demands(
    design: Design,
    catalogue: Catalogue,
    wires: Mapping[str, Wire],
    powered: Mapping[str, PoweredDevice],
    injected: frozenset[str],
) -> tuple[Demand, ...]:
    """Return the links that ask for a port: one for each device, or for each of its cables."""
    order = catalogue.kind_order
    devices = sorted(design.of(Device).values(), key=lambda d: (order[d.kind], d.name, d.id))
    several = len(design.of(Network)) > 1
    found: list[Demand] = []
    for device in devices:
        role, model = catalogue.role_of(device), catalogue.model_of(device)
        if device.id not in wires or role.leads_out:
            continue  # what leads out has the first switch's way up
        links = wires[device.id].cables if role.links == "every_cable" else 1
        own = powered.get(device.id) if device.id not in injected else None
        for k in range(links):
            suffix, name = (
                (f"/{k + 1}", f"{device.name}.{k + 1}") if links > 1 else ("", device.name)
            )
            # Tenths of a watt: the answer is kept while a run changes by a metre or two.
            watts = math.ceil(own.port_w * 10) / 10 if own else 0.0
            poe, class_w = (own.poe_class, own.reserved_w) if own else (None, 0.0)
            vlans = several and (role.profile.tagged != "none" or role.profile.alone)
            link = f"run-{device.id}{suffix}"
            found.append(Demand(link, name, model.speed_mbps, poe, watts, class_w, vlans))
    return tuple(found)


def _shelves(design: Design, catalogue: Catalogue) -> tuple[Shelf, ...]:
    return tuple(
        Shelf(s.id, s.name, catalogue.switches[s.model]) for s in design.of(Switch).values()
    )


def _neighbours(design: Design, catalogue: Catalogue) -> tuple[tuple[str, str], ...]:
    """Return each access point paired with its nearest on the same floor."""
    points = [d for d in design.of(Device).values() if d.model in catalogue.airs]
    pairs: set[tuple[str, str]] = set()
    for point in points:
        others = [o for o in points if o.floor == point.floor and o.id != point.id]
        if others:
            nearest = min(others, key=lambda o: math.dist(o.at, point.at))
            one, other = sorted((point.id, nearest.id))
            pairs.add((f"run-{one}", f"run-{other}"))
    return tuple(sorted(pairs))


def _fed_by(
    result: Assignment, demands: Sequence[Demand], shelves: Sequence[Shelf]
) -> dict[str, str]:
    names = {s.id: s.name for s in shelves}
    return {
        device_of(d.id): f"{names[result.slots[d.id].switch]} port {result.slots[d.id].port}"
        for d in demands
        if d.poe_class is not None and d.id in result.slots
    }


def _injector_feed(catalogue: Catalogue, injector: Injector, device: PoweredDevice) -> str:
    model = catalogue.injectors[injector.model]
    return model.label if poe_rank(model.poe_class) >= poe_rank(device.poe_class) else "none"


def _budget(
    shelf: Shelf,
    result: Assignment,
    demands: Sequence[Demand],
    powered: Mapping[str, PoweredDevice],
    headroom: float,
    shelves: Sequence[Shelf],
) -> SwitchBudget:
    here = [d for d in demands if d.id in result.slots and result.slots[d.id].switch == shelf.id]
    groups = shelf.model.groups
    kept = [u.slot for u in uplinks(shelves) if u.slot.switch == shelf.id]
    copper = len(here) + sum(not groups[s.group].cage for s in kept)
    on_power = sum(groups[result.slots[d.id].group].poe_class is not None for d in here)
    fed = [powered[device_of(d.id)] for d in here if d.poe_class is not None]
    return budget_of(shelf.id, shelf.name, shelf.model, fed, copper, on_power, headroom)


def _line(design: Design, catalogue: Catalogue) -> str:
    """Return what the first switch's way up ends in."""
    out = (d.name for d in design.of(Device).values() if catalogue.role_of(d).leads_out)
    return next(out, "the line")


def _port_map(
    shelves: Sequence[Shelf], result: Assignment, demands: Mapping[str, Demand], line: str
) -> Sequence[PortUse]:
    held = {(slot.switch, slot.port): link for link, slot in result.slots.items()}
    kept = {(u.slot.switch, u.slot.port): u for u in uplinks(shelves)}
    names = {s.id: s.name for s in shelves}
    uses: list[PortUse] = []
    for shelf in shelves:
        number = 0
        for group in shelf.model.groups:
            for _ in range(group.count):
                number += 1
                link = held.get((shelf.id, number))
                demand = demands[link] if link else None
                up = kept.get((shelf.id, number))
                way = f"to {names[up.to] if up.to else line}" if up else None
                uses.append(
                    PortUse(
                        switch=shelf.id,
                        port=number,
                        speed_mbps=group.speed_mbps,
                        poe_class=group.poe_class,
                        cage=group.cage,
                        link=link,
                        device=device_of(link) if link else None,
                        name=demand.name if demand else way,
                        wanted_mbps=demand.speed_mbps if demand else None,
                        feeds=demand is not None and demand.poe_class is not None,
                        uplink=up is not None,
                        uplink_to=up.to if up else None,
                    )
                )
    return uses
