"""What a plan takes: each thing with the places it is for."""

from __future__ import annotations

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from ..base.frozen import Frozen
from ..catalogue import Catalogue
from ..context.fibre_ends import far_ends
from ..context.plugged import plugged_of
from ..context.recording import disks_in, recordings_of
from ..context.run_decisions import feeds, split_by
from ..design import Design, Device, Duct, EquipmentRoom, Extender, Injector, Socket, Switch
from ..laying import Hole, Link, climbs_of, duct_m
from ..mains import mains_lines
from .places import Where, at_device, of_link

Group = Literal["gear", "cable", "ends", "mounting", "ways", "protection", "rack", "spares"]
GROUPS: tuple[Group, ...] = get_args(Group)
FIBRE_CORD, FIBRE_CORD_M = "cord-fibre", 2.0
_CORDS_M = (0.5, 1.0, 2.0, 3.0, 5.0)


@dataclass(frozen=True)
class Bulk:
    """Boxes or reels of one kind of cable, and the ids of the links that are cut from them."""

    item: str
    count: int
    links: Collection[str]


@dataclass(frozen=True)
class RackParts:
    """What a rack takes: items with their number, and cords by the link whose cable they go on to,
    "" for those between the rack's own things; ``panelled`` says that cables end in a panel."""

    room: str
    items: Mapping[str, int]
    cords: Sequence[tuple[str, str]] = ()
    panelled: bool = False


class Need(Frozen):
    """So much of an item, of one group, for these places."""

    item: str
    group: Group
    quantity: float
    where: tuple[Where, ...]


class Parts:
    """Gathers what is needed, item by item."""

    def __init__(self) -> None:
        self._rows: dict[str, tuple[Group, list[Where]]] = {}

    def add(self, item: str, group: Group, where: Where) -> None:
        if where.quantity > 0:
            self._rows.setdefault(item, (group, []))[1].append(where)

    def count(self, item: str) -> float:
        return sum(w.quantity for w in self._rows.get(item, ("gear", []))[1])

    def items(self) -> list[str]:
        return list(self._rows)

    def needs(self) -> list[Need]:
        """Return the needs, group by group, in the order in which they came up."""
        rows = [
            Need(
                item=item, group=group, where=tuple(where), quantity=round(sum(w.quantity for w in where), 2)
            )
            for item, (group, where) in self._rows.items()
        ]
        return sorted(rows, key=lambda n: GROUPS.index(n.group))


@dataclass(frozen=True)
class FarParts:
    """What the way to a far place takes, (item, unit, quantity), and how it is judged as the plan stands."""

    where: Where
    items: tuple[tuple[str, str, float], ...]
    state: Literal["met", "near", "out"]
    label: str
    binds: str
    would: str
    told: str = ""  # what of it no order holds


def gather(
    design: Design,
    catalogue: Catalogue,
    links: Sequence[Link],
    holes: Sequence[Hole],
    bought: Sequence[Bulk],
    racks: Sequence[RackParts] = (),
    far: Sequence[FarParts] = (),
) -> list[Need]:
    """Return everything that a plan takes.

    Args:
        links: runs, ways between racks, spares for what comes later.
        holes: through masonry.
        bought: copper as it is bought.
        racks: what each rack takes.
        far: what the ways to far places take.
    """
    parts = Parts()
    _gear(parts, design, catalogue)
    _cable(parts, catalogue, links, bought)
    _ends(parts, design, catalogue, links, racks)
    _ways(parts, design, links, holes)
    _racks(parts, design, racks)
    _mains(parts, design)
    _recording(parts, design, catalogue)
    _far(parts, far)
    _spares(parts, catalogue)
    return parts.needs()


_FAR_GROUPS: dict[str, Group] = {
    "duct": "ways",
    "warning-tape": "ways",
    "mast": "mounting",
    "mast-foot": "mounting",
    "bracket-pole": "mounting",
    "outdoor-kit": "mounting",
    "sun-frame": "mounting",
    "mast-earth": "protection",
    "surge": "protection",
    "jack": "ends",
    "pigtail": "ends",
    "fibre-end-box": "ends",
}


def _far(parts: Parts, far: Sequence[FarParts]) -> None:
    for way in far:
        for item, unit, quantity in way.items:
            group = _FAR_GROUPS.get(item, "cable" if unit == "m" else "gear")
            parts.add(item, group, way.where.model_copy(update={"quantity": quantity}))


def _gear(parts: Parts, design: Design, catalogue: Catalogue) -> None:
    rooms = design.of(EquipmentRoom)
    brackets = {m: p.id for p in catalogue.parts.values() for m in p.mounts}
    for device in design.of(Device).values():
        if device.state != "new":
            continue
        parts.add(device.model, "gear", at_device(device))
        model, role = catalogue.model_of(device), catalogue.role_of(device)
        if role.links == "every_cable":
            parts.add("back-box", "mounting", at_device(device))
            parts.add("plate-double" if model.sockets > 1 else "plate-single", "ends", at_device(device))
        elif not role.leads_out and not role.stands_free:
            parts.add(brackets[device.mount], "mounting", at_device(device))
            if model.outdoor:
                parts.add("outdoor-kit", "mounting", at_device(device))
    for switch in design.of(Switch).values():
        if switch.state == "new":
            room = rooms[switch.equipment_room]
            where = Where(kind="switch", id=switch.id, name=switch.name, floor=room.floor)
            parts.add(switch.model, "gear", where)
    for device, feed in feeds(design, catalogue):
        where = Where(kind="device", id=device.id, name=f"{device.name}, at its socket", floor=device.floor)
        parts.add(feed.id, "gear", where)
        parts.add(cord_for(0.0, 0.0), "ends", at_device(device))
    for device, end in far_ends(design, catalogue):
        where = Where(kind="device", id=device.id, name=f"{device.name}, at its end", floor=device.floor)
        parts.add(end.converter.id, "gear", where)
        chosen = any(i.device == device.id for i in design.of(Injector).values())
        if end.injector is not None and not chosen:
            parts.add(end.injector.id, "gear", where)
        parts.add(cord_for(0.0, 0.0), "ends", where.model_copy(update={"quantity": end.plugs}))
    for plug in plugged_of(design, catalogue):
        guest = design.of(Device)[plug.device]
        if not plug.wrong and guest.state == "new":
            parts.add(cord_for(plug.cord_m, catalogue.rules["order.cord_spare_m"]), "ends", at_device(guest))
    for extender in design.of(Extender).values():
        device = design.of(Device)[extender.device]
        where = Where(kind="extender", id=extender.id, name=device.name, floor=device.floor)
        parts.add(extender.model, "gear", where)
        parts.add("plug", "ends", where.model_copy(update={"quantity": 2}))
    for device in design.of(Device).values():
        if device.splitter is not None and split_by(catalogue, device) is not None:
            where = Where(kind="device", id=device.id, name=f"{device.name}, at its end", floor=device.floor)
            parts.add(device.splitter, "gear", where)
    for injector in design.of(Injector).values():
        device = design.of(Device)[injector.device]
        where = Where(kind="injector", id=injector.id, name=device.name, floor=device.floor)
        parts.add(injector.model, "gear", where)


def _cable(parts: Parts, catalogue: Catalogue, links: Sequence[Link], bought: Sequence[Bulk]) -> None:
    for bulk in bought:
        mine = [k for k in links if k.id in bulk.links and k.bought_m and not k.found]
        total = sum(k.bought_m * k.cables for k in mine)
        for link in mine:
            share = bulk.count * link.bought_m * link.cables / total
            parts.add(bulk.item, "cable", of_link(link, share))
    for link in links:
        if link.medium == "fibre" and link.bought_m:
            metres = math.ceil(link.bought_m)
            item = catalogue.fibres[link.category].item(link.jacket)
            parts.add(item, "cable", of_link(link, metres * link.cables))
            parts.add(f"optic-{link.category}", "cable", of_link(link, 2 * link.cables))


def cord_for(reach_m: float, spare_m: float) -> str:
    """Return the shortest cord that reaches with some to spare; the longest where none does."""
    fitting = [m for m in _CORDS_M if m >= reach_m + spare_m - 1e-9]
    return f"cord-{(fitting or [_CORDS_M[-1]])[0]:g}"


def cord_length_m(item: str) -> float:
    """Return the length of a cord by what it is called."""
    return float(item.rsplit("-", 1)[-1])


def _ends(
    parts: Parts, design: Design, catalogue: Catalogue, links: Sequence[Link], racks: Sequence[RackParts]
) -> None:
    rules = catalogue.rules
    spare_m = rules["order.cord_spare_m"]
    outlet_cord = cord_for(rules["order.outlet_cord_reach_m"], spare_m)
    panels = {rack.room: rack.panelled for rack in racks}
    corded = {link for rack in racks for link, _ in rack.cords}
    plain_cord = cord_for(rules["order.rack_cord_reach_m"], spare_m)

    def in_rack(link: Link, room: str) -> None:
        """Add what one end in a rack takes: a jack of the panel, else a plug; a cable that was there
        and ends in no panel has a cord of its own."""
        if link.found and link.id not in corded:
            parts.add(plain_cord, "ends", of_link(link, link.cables))
        if not link.found:
            parts.add("jack" if panels.get(room) else "plug", "ends", of_link(link, link.cables))

    by_id = {link.id: link for link in links}
    rooms = design.of(EquipmentRoom)
    for rack in racks:
        room = rooms[rack.room]
        for key, item in rack.cords:
            here = Where(kind="equipment_room", id=room.id, name=room.name, floor=room.floor)
            parts.add(item, "ends", of_link(by_id[key]) if key in by_id else here)
    for link in links:
        if link.coil:
            parts.add("coil-plate", "ends", of_link(link, link.cables))
            continue
        parts.add("label", "ends", of_link(link, 2 * link.cables))
        if link.medium != "copper":
            parts.add("pigtail", "ends", of_link(link, 2 * link.cables * int(rules["cabling.fibre_spliced"])))
            if link.far_rack is None:
                parts.add("fibre-end-box", "ends", of_link(link, link.cables))
                parts.add(FIBRE_CORD, "ends", of_link(link, link.cables))
            continue
        in_rack(link, link.rack)
        device = design.of(Device).get(link.device or "")
        if link.far_rack is not None:
            in_rack(link, link.far_rack)
        elif device is not None and catalogue.role_of(device).links == "every_cable":
            parts.add(outlet_cord, "ends", of_link(link, link.cables))
            if not link.found:
                parts.add("jack", "ends", of_link(link, link.cables))
        elif not link.found:
            parts.add("plug", "ends", of_link(link, link.cables))


def _ways(parts: Parts, design: Design, links: Sequence[Link], holes: Sequence[Hole]) -> None:
    names = {k.id: k for k in links}
    for hole in holes:
        used = [names[k].name for k in hole.links if k in names]
        where = Where(kind="wall", id=hole.wall, name=", ".join(used), floor=hole.floor)
        parts.add("sleeve", "ways", where)
        if hole.rated:
            parts.add("fire-stop", "ways", where)
    for duct in design.of(Duct).values():
        if duct.dug == "there":
            continue
        where = Where(
            kind="duct", id=duct.id, name=duct.name, floor=duct.from_floor, quantity=math.ceil(duct_m(duct))
        )
        parts.add("duct", "ways", where)
    for riser, floor, keys in climbs_of([k for k in links if not k.found]):
        name = ", ".join(names[k].name for k in keys)
        parts.add("fire-stop", "ways", Where(kind="riser", id=riser, name=name, floor=floor))
    for link in links:
        metres = sum(s.length_m for s in link.stretches if s.kind == "raceway")
        if metres and not link.found:
            parts.add("raceway", "ways", of_link(link, math.ceil(metres)))
    for link in links:
        if link.medium == "copper" and link.leaves and not link.coil:
            parts.add("surge", "protection", of_link(link, 2 * link.cables))


def _racks(parts: Parts, design: Design, racks: Sequence[RackParts]) -> None:
    for rack in racks:
        room = design.of(EquipmentRoom)[rack.room]
        where = Where(kind="equipment_room", id=room.id, name=room.name, floor=room.floor)
        for item, quantity in rack.items.items():
            parts.add(item, "rack", where.model_copy(update={"quantity": quantity}))


def _mains(parts: Parts, design: Design) -> None:
    """Add what a licensed electrician brings for sockets that are made for this job."""
    lengths = {line.socket: line.length_m for line in mains_lines(design) if line.socket is not None}
    for socket in design.of(Socket).values():
        if socket.state == "new":
            where = Where(kind="socket", id=socket.id, name=socket.name, floor=socket.floor)
            parts.add("socket", "protection", where)
            metres = math.ceil(lengths.get(socket.id, 0.0))
            parts.add("mains-cable", "protection", where.model_copy(update={"quantity": metres}))


def _recording(parts: Parts, design: Design, catalogue: Catalogue) -> None:
    """Add disks of new stores that are drawn, and the plan's recorders, each shared by its cameras."""
    devices = design.of(Device)
    for key, disks in disks_in(design, catalogue).items():
        if disks and devices[key].state == "new":
            parts.add("disk-6tb", "gear", at_device(devices[key], disks))
    for keeps in recordings_of(design, catalogue):
        if keeps.device is not None:
            continue
        share = len(keeps.cameras)
        for camera in keeps.cameras:
            parts.add(keeps.model.id, "gear", at_device(devices[camera], 1 / share))
            parts.add("disk-6tb", "gear", at_device(devices[camera], keeps.disks / share))


def _spares(parts: Parts, catalogue: Catalogue) -> None:
    rules = catalogue.rules

    def spare(item: str, count: float, why: str) -> None:
        parts.add(item, "spares", Where(kind="spare", id=item, name=why, quantity=count))

    plugs = parts.count("plug")
    if plugs:
        least = rules["order.spare_plugs_least"]
        spare("plug", max(least, math.ceil(plugs * rules["order.spare_plug_share"])), "spare")
    for item in [i for i in parts.items() if i.startswith("cord-")]:
        spare(item, rules["order.spare_cords"], "spare")
    air = {i: parts.count(i) for i in parts.items() if i in catalogue.airs}
    if sum(air.values()) > rules["order.spare_from_access_points"]:
        commonest = max(air, key=lambda i: air[i])
        spare(commonest, 1, "spare, of the commonest kind")
