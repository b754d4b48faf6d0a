"""What asks for the ports of each rack: a link for each cable, with the watts of all that hangs on it."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence

from ..catalogue import Catalogue, PowerDemand
from ..context.one_cable import LAN_IN, LINE_OUT, shared_cable
from ..context.plugged import Plugged, plugged_of
from ..context.racks import stand_in_racks
from ..context.recording import recorder_link, recorder_name, recordings_of
from ..design import Design, Device, EquipmentRoom, Injector, Network, Switch
from ..ports import LINE, Demand, Shelf, Way
from ..power import CableHop, PoweredDevice, over_run
from .cures import Rack
from .values import FarLoad, PowerRun, RoomUp


def loads_of(
    design: Design,
    catalogue: Catalogue,
    wires: Mapping[str, PowerRun],
    rooms_up: Mapping[str, RoomUp],
    powered: Mapping[str, PoweredDevice],
    far: Sequence[FarLoad] = (),
) -> list[tuple[Rack, tuple[Demand, ...]]]:
    """Return the racks, the one where the line comes in first, each with the links that ask for ports."""
    without = frozenset(i.device for i in design.of(Injector).values())
    without |= {w.device for w in wires.values() if w.fibre}
    return [
        (rack, (*_demands(design, catalogue, wires, powered, without, rack), *_beyond(design, far, rack)))
        for rack in _racks(design, catalogue, rooms_up)
    ]


def rack_loads(
    design: Design,
    catalogue: Catalogue,
    wires: Mapping[str, PowerRun],
    rooms_up: Mapping[str, RoomUp],
    far: Sequence[FarLoad] = (),
) -> list[tuple[Rack, tuple[Demand, ...]]]:
    """Return each rack with the links that ask for its ports, whatever switches stand in it."""
    plugs = plugged_of(design, catalogue)
    guests = guests_of(design, catalogue, plugs, wires)
    powered = powered_of(design, catalogue, wires, guests, plugs)
    return loads_of(design, catalogue, wires, rooms_up, powered, far)


def _racks(design: Design, catalogue: Catalogue, rooms_up: Mapping[str, RoomUp]) -> Sequence[Rack]:
    """Return the racks, the one where the line comes in first and each after the one above it."""
    shelves: dict[str, list[Shelf]] = {room: [] for room in design.of(EquipmentRoom)}
    for s in design.of(Switch).values():
        shelves[s.equipment_room].append(Shelf(s.id, s.name, catalogue.switches[s.model]))

    def way(room: str, fibre: bool) -> Way:
        return Way(shelves[room][0].id if shelves.get(room) else None, fibre)

    found: list[Rack] = []
    waiting = [r for r in shelves if r not in rooms_up]
    while waiting:
        room = waiting.pop(0)
        below = [r for r, up in rooms_up.items() if up.to_room == room]
        waiting += below
        above = rooms_up.get(room)
        up = way(above.to_room, above.medium == "fibre") if above else LINE
        down = tuple(way(r, rooms_up[r].medium == "fibre") for r in below if shelves[r])
        found.append(Rack(room, tuple(shelves[room]), up, down, top=not found))
    return found


def guests_of(
    design: Design, catalogue: Catalogue, plugs: Sequence[Plugged], wires: Mapping[str, PowerRun]
) -> dict[str, PoweredDevice]:
    """Return what asks for power at a port of another device, over its cord, or its run from there."""
    found: dict[str, PoweredDevice] = {}
    for plug in plugs:
        device = design.of(Device)[plug.device]
        model = catalogue.model_of(device)
        if model.power is not None:
            # A cord lies in the room.
            heat_c, name = catalogue.rules["cabling.space_c.room"], device.name
            wire = wires.get(device.id)
            loop_m, heat_c = (wire.loop_m, wire.heat_c) if wire is not None else (plug.cord_m, heat_c)
            fed = over_run(catalogue.rules, device.id, name, model.label, model.power, loop_m, heat_c)
            found[device.id] = fed.model_copy(update={"verdict": "not_met"}) if plug.wrong else fed
    return found


def _with_guests(
    demand: PowerDemand, device: str, plugs: Sequence[Plugged], guests: Mapping[str, PoweredDevice]
) -> PowerDemand:
    """Return what a device asks for with what it feeds on at its own ports."""
    own = [guests[p.device] for p in plugs if p.host == device and not p.wrong and p.device in guests]
    return demand.model_copy(
        update={
            "rated_w": round(demand.rated_w + sum(g.port_w for g in own), 2),
            "typical_w": round(demand.typical_w + sum(g.expected_w for g in own), 2),
        }
    )


def powered_of(
    design: Design,
    catalogue: Catalogue,
    wires: Mapping[str, PowerRun],
    guests: Mapping[str, PoweredDevice],
    plugs: Sequence[Plugged],
) -> dict[str, PoweredDevice]:
    found: dict[str, PoweredDevice] = {}
    for device in design.of(Device).values():
        model = catalogue.model_of(device)
        wire = wires.get(device.id)
        if model.power is not None and wire is not None and device.id not in guests:
            fed = over_run(
                catalogue.rules,
                device.id,
                device.name,
                model.label,
                _with_guests(model.power, device.id, plugs, guests),
                wire.loop_m,
                wire.heat_c,
                [CableHop(m, catalogue.extenders[e] if e else None) for m, e in wire.hops],
            )
            mode = model.reduced if device.reduced else None
            found[device.id] = fed.model_copy(update={"reduced": mode.said}) if mode is not None else fed
    return found


def _demands(
    design: Design,
    catalogue: Catalogue,
    wires: Mapping[str, PowerRun],
    powered: Mapping[str, PoweredDevice],
    injected: frozenset[str],
    rack: Rack,
) -> tuple[Demand, ...]:
    """Return the links that ask for a port of a rack: one a device, or one a cable of it."""
    order = catalogue.kind_order
    devices = sorted(design.of(Device).values(), key=lambda d: (order[d.kind], d.name, d.id))
    several = len(design.of(Network)) > 1
    stand_here = {d for d, room in stand_in_racks(design, catalogue).items() if room == rack.room}
    found: list[Demand] = []
    for device in devices:
        role, model = catalogue.role_of(device), catalogue.model_of(device)
        wire = wires.get(device.id)
        comes_here = device.id in stand_here if wire is None else wire.room == rack.room
        if not comes_here or role.leads_out:
            continue  # what leads out has the first switch's way up
        links = wire.cables if wire is not None and role.links == "every_cable" else 1
        own = powered.get(device.id) if device.id not in injected else None
        for k in range(links):
            suffix, name = (f"/{k + 1}", f"{device.name}.{k + 1}") if links > 1 else ("", device.name)
            # Tenths of a watt: the answer is kept while a run changes by a metre or two.
            watts = math.ceil(own.negotiated_w * 10) / 10 if own else 0.0
            poe, class_w = (own.poe_class, own.reserved_w) if own else (None, 0.0)
            vlans = several and (role.profile.tagged != "none" or role.profile.alone)
            link = f"run-{device.id}{suffix}"
            speed = model.speed_mbps
            rank = role.sheds if poe is not None else 0
            fibre = wire is not None and wire.fibre
            found.append(
                Demand(
                    link, name, speed, poe, watts, class_w, vlans, device.id, rank, device.kind, fibre=fibre
                )
            )
    if rack.top:
        found += _recorders(design, catalogue, several)
    found += _shared(design, catalogue, rack.room)
    return tuple(found)


def _beyond(design: Design, far: Sequence[FarLoad], rack: Rack) -> Iterable[Demand]:
    """Yield a link for each far place that is reached from a rack."""
    several = len(design.of(Network)) > 1
    for load in far:
        if load.room == rack.room:
            fed = load.fed
            watts = math.ceil(fed.negotiated_w * 10) / 10 if fed is not None else 0.0
            poe, class_w = (fed.poe_class, fed.reserved_w) if fed is not None else (None, 0.0)
            yield Demand(load.link, load.name, load.mbps, poe, watts, class_w, vlans=several)


def _shared(design: Design, catalogue: Catalogue, room: str) -> Iterable[Demand]:
    """Yield the links that ask for a port at either end of old cable that carries several things."""
    shared = shared_cable(design, catalogue)
    if shared is None:
        return
    router = design.of(Device)[shared.router]
    speed = min(catalogue.model_of(router).speed_mbps, int(catalogue.rules["cabling.found_mbps"]))
    names = {LINE_OUT: f"{router.name}, line", LAN_IN: router.name}
    for link, asks_in in shared.links.items():
        if asks_in == room:
            role = router.kind if link == LAN_IN else ""
            yield Demand(link, names.get(link, "Television"), speed, vlans=True, role=role)


def _recorders(design: Design, catalogue: Catalogue, several: bool) -> Iterable[Demand]:
    """Yield a link for each recorder that the plan puts into the rack where the line comes in."""
    planned = [keeps for keeps in recordings_of(design, catalogue) if keeps.device is None]
    role = next((r for r in catalogue.roles.values() if r.records), None)
    for number, keeps in enumerate(planned, start=1):
        if role is not None:
            name = recorder_name(number, len(planned))
            speed = keeps.model.speed_mbps
            yield Demand(recorder_link(number), name, speed, vlans=several, role=role.kind)


def beside_of(design: Design, catalogue: Catalogue) -> tuple[tuple[str, str], ...]:
    """Return each recorder's link paired with those of its cameras: what they send stays in one switch."""
    pairs: list[tuple[str, str]] = []
    number = 0
    for keeps in recordings_of(design, catalogue):
        number += keeps.device is None
        link = f"run-{keeps.device}" if keeps.device is not None else recorder_link(number)
        pairs += [(link, f"run-{camera}") for camera in keeps.cameras]
    return tuple(pairs)


def neighbours_of(design: Design, catalogue: Catalogue) -> tuple[tuple[str, str], ...]:
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
