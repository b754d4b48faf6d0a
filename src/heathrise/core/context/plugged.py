"""Devices that are plugged into a port of another one, such as a wall plate: a cord, no run of their own."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..catalogue import Catalogue, PortGroup, poe_rank
from ..design import Design, Device, Run
from .storeys import storeys_of


@dataclass(frozen=True)
class Plugged:
    """A device at a port of its ``host``, from 1; the cord between them as it lies, m; ``wrong`` says why
    it cannot be, and then it has no port."""

    device: str
    host: str
    port: int
    group: PortGroup | None
    cord_m: float
    wrong: str = ""


def said_plugged(design: Design) -> dict[str, str]:
    """Return by device what it is plugged into, because somebody said so."""
    return {r.device: r.through for r in design.of(Run).values() if r.through and not r.over_air}


def plugged_of(design: Design, catalogue: Catalogue) -> tuple[Plugged, ...]:
    """Return what is plugged into other devices, host by host: who asks for power first, and of those
    who asks for most, each to the least port that feeds it."""
    through = said_plugged(design)
    if not through:
        return ()
    devices = design.of(Device)
    by_host: dict[str, list[Device]] = {}
    for key, host in through.items():
        by_host.setdefault(host, []).append(devices[key])
    rows: list[Plugged] = []
    for host, guests in by_host.items():
        free = _ports(catalogue, devices[host])
        for guest in sorted(guests, key=lambda d: (-_class(catalogue, d), d.id)):
            rows.append(_plugged(design, catalogue, devices[host], guest, host in through, free))
    return tuple(rows)


def begun_at(design: Design, catalogue: Catalogue) -> dict[str, str]:
    """Return by device the box that its run begins at: cable goes there, not a cord."""
    devices = design.of(Device)
    return {
        guest: host
        for guest, host in said_plugged(design).items()
        if host in devices and catalogue.role_of(devices[host]).passes_on
    }


def _class(catalogue: Catalogue, device: Device) -> int:
    power = catalogue.model_of(device).power
    return poe_rank(power.poe_class) + 1 if power is not None else 0


def _ports(catalogue: Catalogue, host: Device) -> list[tuple[int, PortGroup]]:
    model = catalogue.model_of(host)
    groups = (g for g in model.ports for _ in range(g.count))
    return list(enumerate(groups, start=1))


def _plugged(
    design: Design,
    catalogue: Catalogue,
    host: Device,
    guest: Device,
    host_plugged: bool,
    free: list[tuple[int, PortGroup]],
) -> Plugged:
    cord_m = reach_m(host, guest)
    rules, power = catalogue.rules, catalogue.model_of(guest).power
    most_m = rules["power.plugged_cord_m"]
    fitting = [(n, g) for n, g in free if power is None or _feeds(g, power.poe_class)]
    rank = {g: (-1 if g.poe_class is None else poe_rank(g.poe_class)) for _, g in free}
    wrong = ""
    far = catalogue.role_of(host).passes_on
    if catalogue.role_of(host).leads_out or not catalogue.model_of(host).ports:
        wrong = f"{host.name} has no ports for others"
    elif host_plugged:
        wrong = f"{host.name} is plugged into another device itself"
    elif not far and not same_room(design, host, guest):
        wrong = f"it is not in the room of {host.name}"
    elif not far and cord_m > most_m:
        wrong = f"{host.name} is {cord_m:.1f}\u00a0m of cord away, {most_m:g}\u00a0m at most"
    elif not free:
        wrong = f"no port of {host.name} is left"
    elif not fitting:
        wrong = f"no port left of {host.name} feeds class {power.poe_class if power else 0}"
    if wrong:
        return Plugged(guest.id, host.id, 0, None, cord_m, wrong)
    port, group = min(fitting, key=lambda row: (rank[row[1]], row[0]))
    free.remove((port, group))
    return Plugged(guest.id, host.id, port, group, cord_m)


def _feeds(group: PortGroup, poe_class: int) -> bool:
    return group.poe_class is not None and poe_rank(group.poe_class) >= poe_rank(poe_class)


def reach_m(host: Device, guest: Device) -> float:
    """Return how long a cord between two devices lies: straight in plan, and up or down."""
    return round(math.dist(host.at, guest.at) + abs(host.height_m - guest.height_m), 2)


def same_room(design: Design, host: Device, guest: Device) -> bool:
    """Whether no wall lies between two devices."""
    if host.floor != guest.floor:
        return False
    storeys = storeys_of(design)
    rooms = [storeys.room_at(d.floor, d.at) for d in (host, guest)]
    return rooms[0] is rooms[1]
