"""What stands in a rack: panels, switches, the line's gear, injectors, recorders, strips, shelves."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from ..catalogue import Catalogue, ConverterModel, Racked
from ..context.racks import stand_in_racks
from ..context.recording import Recording, disks_in, recorder_name
from ..design import Design, Device, EquipmentRoom, Injector, Switch
from .heat import heat_w
from .values import Thing, ThingKind

SPLICE_PORTS = 6  # of two strands each, in one splice box
_SHELF_MM = 440.0
_FRONT_MM = 15.0  # between things on a shelf


@dataclass(frozen=True)
class RackConverter:
    """A converter in a rack: its key there, whose it is, and which."""

    key: str
    name: str
    model: ConverterModel


@dataclass(frozen=True)
class RackLoad:
    """What a rack is to hold beside what stands in the design.

    ``panels`` are the site's numbers of those that end here; ``poe_w`` is what each switch gives at
    its ports as rated; ``recorders`` are those that the plan puts here; ``modem`` says that the line's
    own box stands here; ``converters`` are those that fibre wants here, ``splices`` how many boxes
    its strands end in.
    """

    room: str
    panels: tuple[int, ...] = ()
    poe_w: Mapping[str, float] | None = None
    injected_w: Mapping[str, float] | None = None
    recorders: Sequence[Recording] = ()
    modem: str = ""
    converters: Sequence[RackConverter] = ()
    splices: int = 0


def contents_of(design: Design, catalogue: Catalogue, load: RackLoad) -> list[Thing]:
    """Return everything in a rack, from what takes units of its own to what stands on shelves."""
    room = design.of(EquipmentRoom)[load.room]
    things = [*_own(design, catalogue, room, load), *_line(design, catalogue, room, load)]
    things += _injectors(design, catalogue, load)
    for one in load.converters:
        name, model = f"Converter of {one.name}", one.model
        things.append(_thing(load.room, "converter", one.key, name, model.label, model, model.id))
    splice = catalogue.parts["fibre-box"]
    for number in range(1, load.splices + 1):
        name = f"F{number}"
        things.append(
            _thing(
                load.room, "splice", str(number), name, splice.label, splice, splice.id, ports=SPLICE_PORTS
            )
        )
    things += _strips(catalogue, load.room, things)
    if room.battery is not None:
        battery = catalogue.batteries[room.battery]
        things.append(_thing(load.room, "battery", "1", "Battery", battery.label, battery, battery.id))
    return [
        *(t for t in things if t.units),
        *_shelved(catalogue, load.room, [t for t in things if not t.units]),
    ]


def _thing(
    room: str, kind: ThingKind, key: str, name: str, label: str, model: Racked, item: str, **more: object
) -> Thing:
    fields = {
        "room": room,
        "thing": f"{kind}:{key}",
        "kind": kind,
        "name": name,
        "label": label,
        "item": item,
        "units": model.units,
        "wide_mm": model.wide_mm,
        "deep_mm": model.deep_mm,
        "kg": model.kg,
        "watts": model.own_w,
        "noise_db": model.noise_db,
        "most_c": model.most_c,
        **more,
    }
    return Thing.model_validate(fields)


def _own(design: Design, catalogue: Catalogue, room: EquipmentRoom, load: RackLoad) -> Iterator[Thing]:
    panel, disk = catalogue.parts["rack-panel"], catalogue.parts["disk-6tb"]
    for number in load.panels:
        yield _thing(load.room, "panel", str(number), f"P{number}", panel.label, panel, panel.id, ports=24)
    loss = catalogue.rules["rack.poe_loss_share"]
    for switch in design.of(Switch).values():
        if switch.equipment_room != room.id:
            continue
        model = catalogue.switches[switch.model]
        poe = (load.poe_w or {}).get(switch.id, 0.0)
        watts, _ = heat_w(model.own_w, poe, loss)
        yield _thing(
            room.id,
            "switch",
            switch.id,
            switch.name,
            model.label,
            model,
            model.id,
            element=switch.id,
            watts=round(watts, 2),
            carried_w=round(poe, 2),
            ports=sum(g.count for g in model.groups),
            old=switch.state == "keep",
        )
    for number, keeps in enumerate(load.recorders, start=1):
        yield _thing(
            room.id,
            "recorder",
            str(number),
            recorder_name(number, len(load.recorders)),
            keeps.model.label,
            keeps.model,
            keeps.model.id,
            ports=1,
            kg=round(keeps.model.kg + keeps.disks * disk.kg, 2),
            watts=round(keeps.model.own_w + keeps.disks * disk.own_w, 2),
        )


def _line(design: Design, catalogue: Catalogue, room: EquipmentRoom, load: RackLoad) -> Iterator[Thing]:
    """Yield the line's gear, and what else was drawn at the rack."""
    disk = catalogue.parts["disk-6tb"]
    here = [d for d, rack in stand_in_racks(design, catalogue).items() if rack == room.id]
    disks = disks_in(design, catalogue) if here else {}
    for key in here:
        device = design.of(Device)[key]
        model, role, count = catalogue.model_of(device), catalogue.role_of(device), disks.get(key, 0)
        yield _thing(
            room.id,
            role.racked,
            device.id,
            device.name,
            model.label,
            model,
            model.id,
            element=device.id,
            ports=sum(g.count for g in model.ports) or 1,
            old=device.state == "keep",
            kg=round(model.kg + count * disk.kg, 2),
            watts=round(model.own_w + count * disk.own_w, 2),
        )
    if load.modem:
        box = Racked(own_w=catalogue.rules["rack.modem_w"])
        yield _thing(room.id, "modem", "1", load.modem, load.modem, box, "", old=True)


def _injectors(design: Design, catalogue: Catalogue, load: RackLoad) -> Iterator[Thing]:
    devices = design.of(Device)
    for injector in design.of(Injector).values():
        poe = (load.injected_w or {}).get(injector.device)
        if poe is None:
            continue
        model = catalogue.injectors[injector.model]
        name = f"Injector of {devices[injector.device].name}"
        watts = round(poe + model.own_w, 2)
        yield _thing(
            load.room,
            "injector",
            injector.id,
            name,
            model.label,
            model,
            model.id,
            element=injector.id,
            watts=watts,
            carried_w=round(poe, 2),
        )


def _strips(catalogue: Catalogue, room: str, things: Sequence[Thing]) -> Iterator[Thing]:
    plugs = sum(t.watts > 0 for t in things)
    strip = catalogue.parts["rack-strip"]
    for number in range(1, math.ceil(plugs / catalogue.rules["rack.strip_sockets"]) + 1):
        yield _thing(room, "strip", str(number), "Power strip", strip.label, strip, strip.id)


def _shelved(catalogue: Catalogue, room: str, loose: Sequence[Thing]) -> list[Thing]:
    """Return shelves with what has no ears on them, each as wide as a shelf bears, the widest first."""
    part = catalogue.parts["rack-shelf"]
    left: list[float] = []
    put: list[Thing] = []
    for thing in sorted(loose, key=lambda t: -t.wide_mm):
        wide = thing.wide_mm + _FRONT_MM
        number = next((k for k, free in enumerate(left) if free >= wide), len(left))
        if number == len(left):
            left.append(_SHELF_MM + _FRONT_MM)
        left[number] -= wide
        put.append(thing.model_copy(update={"on": f"shelf:{number + 1}"}))
    shelves = [
        _thing(room, "shelf", str(k), f"Shelf {k}" if len(left) > 1 else "Shelf", part.label, part, part.id)
        for k in range(1, len(left) + 1)
    ]
    return [*shelves, *put]


def placed(things: Sequence[Thing], units: Mapping[str, int], people: frozenset[str]) -> list[Thing]:
    """Return the things with the unit that each takes; what stands on a shelf has its shelf's."""
    found = []
    for thing in things:
        holder = thing.on or thing.thing
        by = "person" if holder in people else "plan"
        found.append(thing.model_copy(update={"unit": units.get(holder, 0), "by": by}))
    return found
