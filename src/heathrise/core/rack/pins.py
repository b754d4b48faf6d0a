"""Ports that somebody chose: each pin that a port can keep, and what is wrong with the others."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace

from ..catalogue import SwitchModel
from ..context.findings import Cure
from ..context.run_decisions import cable_of_link
from ..design import Change, Design, Device, PortPin, Switch, WayPin, free_number, put, remove
from ..ports import Demand, Shelf, UplinkPort, fits, group_of
from .values import LostPin, PortUse


@dataclass(frozen=True)
class Pinned:
    """Links with the ports that were chosen for them, and the pins that cannot be kept."""

    demands: tuple[Demand, ...]
    lost: tuple[LostPin, ...]


def pinned(
    design: Design, demands: tuple[Demand, ...], shelves: Sequence[Shelf], kept_ways: Sequence[UplinkPort]
) -> Pinned:
    """Return the links of a rack as they are pinned.

    Args:
        kept_ways: ports for the ways to others as they would be without pins of devices: as many must
            be left, and those that somebody chose are not given to a device.
    """
    ways = Counter(u.slot.switch for u in kept_ways)
    chosen = {(w.switch, w.port) for w in design.of(WayPin).values()}
    taken = chosen & {(u.slot.switch, u.slot.port) for u in kept_ways}
    of_link = {(d.device, cable_of_link(d.id)): d for d in demands if d.device}
    by_id = {s.id: s for s in shelves}
    free = {s.id: _ports(s.model) - ways.get(s.id, 0) for s in shelves}
    held: dict[tuple[str, int], str] = {}
    kept: dict[str, tuple[str, int]] = {}
    lost: list[LostPin] = []
    for pin in design.of(PortPin).values():
        shelf = by_id.get(pin.switch)
        if shelf is None:
            continue
        demand = of_link.get((pin.device, pin.cable))
        why = _why_not(pin, shelf, demand)
        other = held.get((pin.switch, pin.port))
        if not why and other is not None:
            why = f"{other} is pinned there already"
        if not why and demand is not None and demand.id in kept:
            why = f"it is pinned to port {kept[demand.id][1]} already"
        if not why and (pin.switch, pin.port) in taken:
            why = "a way to another switch is kept there by hand"
        if not why and free[shelf.id] <= 0:
            why = "the ways up to other switches need a port"
        if why or demand is None:
            lost.append(_lost(design, pin, shelf, why))
            continue
        free[shelf.id] -= 1
        held[pin.switch, pin.port] = demand.name
        kept[demand.id] = (pin.switch, pin.port)
    return Pinned(tuple(replace(d, pin=kept[d.id]) if d.id in kept else d for d in demands), tuple(lost))


def lost_ways(design: Design, shelves: Sequence[Shelf], kept: Sequence[UplinkPort]) -> Iterator[LostPin]:
    """Yield the ports chosen for ways that are not followed, and why."""
    at = {(u.slot.switch, u.to): u.slot.port for u in kept}
    by_id = {s.id: s for s in shelves}
    for pin in design.of(WayPin).values():
        shelf = by_id.get(pin.switch)
        if shelf is None or at.get((pin.switch, pin.leads_to)) == pin.port:
            continue
        if (pin.switch, pin.leads_to) not in at:
            why = "no way leads there from it"
        elif pin.port > _ports(shelf.model):
            why = f"{shelf.name} has {_ports(shelf.model)} ports"
        else:
            why = "another way is there"
        to = design.of(Switch)[pin.to].name if pin.leads_to is not None else "the line"
        cure = Cure(
            label="Let the plan choose its port", effect="the pin is taken away", changes=(remove(pin),)
        )
        text = f"The way of {shelf.name} to {to} cannot keep port {pin.port}: {why}."
        yield LostPin(pin=pin.id, switch=pin.switch, text=text, cures=(cure,))


def keep_ports(design: Design, ports: Iterable[PortUse]) -> list[Change]:
    """Return the changes that keep every device at the port where it is."""
    pins = [p for p in ports if p.device is not None and not p.pinned]
    taken = set(design.of(PortPin))
    changes: list[Change] = []
    for use in pins:
        key = f"pin-{free_number(taken, 'pin')}"
        taken.add(key)
        cable = cable_of_link(use.link)
        pin = PortPin(id=key, switch=use.switch, port=use.port, device=use.device or "", cable=cable)
        changes.append(put(pin))
    return changes


def _why_not(pin: PortPin, shelf: Shelf, demand: Demand | None) -> str:
    if demand is None:
        return f"its run does not end in the rack of {shelf.name}"
    group = group_of(shelf.model, pin.port)
    if group is None:
        return f"{shelf.name} has {_ports(shelf.model)} ports"
    given = shelf.model.groups[group]
    if given.cage and not demand.fibre:
        return "that is a cage for fibre"
    if not fits(given, demand):
        gives = f"feeds class {given.poe_class}" if given.poe_class is not None else "feeds nothing"
        return f"that port {gives}, it asks for class {demand.poe_class}"
    return ""


def _ports(model: SwitchModel) -> int:
    return sum(group.count for group in model.groups)


def _lost(design: Design, pin: PortPin, shelf: Shelf, why: str) -> LostPin:
    name = design.of(Device)[pin.device].name
    cure = Cure(label="Let the plan choose its port", effect="the pin is taken away", changes=(remove(pin),))
    return LostPin(
        pin=pin.id,
        switch=pin.switch,
        device=pin.device,
        text=f"{name} cannot keep {shelf.name} port {pin.port}: {why}.",
        cures=(cure,),
    )
