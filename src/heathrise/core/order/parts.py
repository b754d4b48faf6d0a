"""What a plan takes: each thing with the places it is for."""

from __future__ import annotations

import itertools
import math
from collections.abc import Mapping, Sequence
from typing import Literal, get_args

from pydantic import BaseModel, ConfigDict

from ..catalogue import Catalogue
from ..design import Design, Device, Duct, EquipmentRoom, Injector, Switch
from ..over_air import feeds
from .holes import Hole
from .links import Link

Group = Literal["gear", "cable", "ends", "mounting", "ways", "protection", "rack", "spares"]
GROUPS: tuple[Group, ...] = get_args(Group)
_CORDS_M = (0.5, 1.0, 2.0, 3.0, 5.0)
_PORTS_OF_PANEL = 24


class Where(BaseModel):
    """What a part is for, and how much of it."""

    model_config = ConfigDict(frozen=True)

    kind: str
    id: str
    name: str
    floor: str | None = None
    quantity: float = 1


class Need(BaseModel):
    """So much of an item, of one group, for these places."""

    model_config = ConfigDict(frozen=True)

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
                item=item, group=group, where=tuple(where),
                quantity=round(sum(w.quantity for w in where), 2),
            )
            for item, (group, where) in self._rows.items()
        ]  # fmt: skip
        return sorted(rows, key=lambda n: GROUPS.index(n.group))


def gather(
    design: Design,
    catalogue: Catalogue,
    links: Sequence[Link],
    holes: Sequence[Hole],
    boxes: Mapping[str, int],
) -> list[Need]:
    """Return everything that a plan takes.

    Args:
        links: runs and ways between racks.
        holes: through masonry.
        boxes: of cable to buy, by category.
    """
    parts = Parts()
    _gear(parts, design, catalogue)
    _cable(parts, links, boxes)
    _ends(parts, design, catalogue, links)
    _ways(parts, design, links, holes)
    _racks(parts, design, links)
    _recording(parts, design, catalogue)
    _spares(parts, catalogue)
    return parts.needs()


def _of(device: Device, quantity: float = 1) -> Where:
    return Where(
        kind="device", id=device.id, name=device.name, floor=device.floor, quantity=quantity
    )


def place_of(link: Link, quantity: float = 1) -> Where:
    if link.device is None:
        return Where(kind="link", id=link.id, name=link.name, floor=link.floor, quantity=quantity)
    return Where(kind="device", id=link.device, name=link.name, floor=link.floor, quantity=quantity)


def _gear(parts: Parts, design: Design, catalogue: Catalogue) -> None:
    rooms = design.of(EquipmentRoom)
    brackets = {m: p.id for p in catalogue.parts.values() for m in p.mounts}
    for device in design.of(Device).values():
        if device.state != "new":
            continue
        parts.add(device.model, "gear", _of(device))
        model, role = catalogue.model_of(device), catalogue.role_of(device)
        if role.links == "every_cable":
            parts.add("back-box", "mounting", _of(device))
            parts.add("plate-double" if model.sockets > 1 else "plate-single", "ends", _of(device))
        elif not role.leads_out:
            parts.add(brackets[device.mount], "mounting", _of(device))
            if model.outdoor:
                parts.add("outdoor-kit", "mounting", _of(device))
    for switch in design.of(Switch).values():
        if switch.state == "new":
            room = rooms[switch.equipment_room]
            where = Where(kind="switch", id=switch.id, name=switch.name, floor=room.floor)
            parts.add(switch.model, "gear", where)
    for device, feed in feeds(design, catalogue):
        where = Where(kind="device", id=device.id, name=f"{device.name}, at its socket",
                      floor=device.floor)  # fmt: skip
        parts.add(feed.id, "gear", where)
        parts.add(cord_for(0.0, 0.0), "ends", _of(device))
    for injector in design.of(Injector).values():
        device = design.of(Device)[injector.device]
        where = Where(kind="injector", id=injector.id, name=device.name, floor=device.floor)
        parts.add(injector.model, "gear", where)


def _cable(parts: Parts, links: Sequence[Link], boxes: Mapping[str, int]) -> None:
    for category, count in boxes.items():
        mine = [k for k in links if k.category == category and k.bought_m and not k.found]
        total = sum(k.bought_m * k.cables for k in mine)
        for link in mine:
            share = count * link.bought_m * link.cables / total
            parts.add(f"cable-{category.lower()}", "cable", place_of(link, share))
    for link in links:
        if link.medium == "fibre" and link.bought_m:
            metres = math.ceil(link.bought_m)
            parts.add(f"fibre-{link.category}", "cable", place_of(link, metres * link.cables))
            parts.add(f"optic-{link.category}", "cable", place_of(link, 2 * link.cables))


def cord_for(reach_m: float, spare_m: float) -> str:
    """Return the shortest cord that reaches with some to spare; the longest where none does."""
    fitting = [m for m in _CORDS_M if m >= reach_m + spare_m - 1e-9]
    return f"cord-{(fitting or [_CORDS_M[-1]])[0]:g}"


def _ends(parts: Parts, design: Design, catalogue: Catalogue, links: Sequence[Link]) -> None:
    rules = catalogue.rules
    rack_cord = cord_for(rules["order.rack_cord_reach_m"], rules["order.cord_spare_m"])
    for link in links:
        if link.medium != "copper":
            continue
        parts.add("label", "ends", place_of(link, 2 * link.cables))
        if link.coil:
            parts.add("coil-plate", "ends", place_of(link, link.cables))
            continue
        if not link.found:
            parts.add("jack", "ends", place_of(link, link.cables))  # at the panel
        parts.add(rack_cord, "ends", place_of(link, link.cables))
        device = design.of(Device).get(link.device or "")
        if device is None or catalogue.role_of(device).links == "every_cable":
            if not link.found:
                parts.add("jack", "ends", place_of(link, link.cables))
        elif not link.found:
            parts.add("plug", "ends", place_of(link, link.cables))


def _ways(parts: Parts, design: Design, links: Sequence[Link], holes: Sequence[Hole]) -> None:
    names = {k.id: k for k in links}
    for hole in holes:
        used = [names[k].name for k in hole.links if k in names]
        where = Where(kind="wall", id=hole.wall, name=", ".join(used), floor=hole.floor)
        parts.add("sleeve", "ways", where)
    for duct in design.of(Duct).values():
        metres = sum(math.dist(a, b) for a, b in itertools.pairwise(duct.path))
        where = Where(
            kind="duct", id=duct.id, name=duct.name, floor=duct.from_floor,
            quantity=math.ceil(metres),
        )  # fmt: skip
        parts.add("duct", "ways", where)
    climbs: dict[tuple[str, str], list[str]] = {}
    for link in links:
        for stretch in link.stretches:
            if stretch.way is not None and stretch.kind != "duct" and not link.found:
                climbs.setdefault((stretch.way, stretch.floor), []).append(link.name)
    for (riser, floor), used in climbs.items():
        name = ", ".join(dict.fromkeys(used))
        parts.add("fire-stop", "ways", Where(kind="riser", id=riser, name=name, floor=floor))
    for link in links:
        metres = sum(s.length_m for s in link.stretches if s.kind == "raceway")
        if metres and not link.found:
            parts.add("raceway", "ways", place_of(link, math.ceil(metres)))
    for link in links:
        if link.medium == "copper" and link.leaves:
            parts.add("surge", "protection", place_of(link, 2 * link.cables))


def _racks(parts: Parts, design: Design, links: Sequence[Link]) -> None:
    switches = [s for s in design.of(Switch).values() if s.state == "new"]
    for room in design.of(EquipmentRoom).values():
        here = [s for s in switches if s.equipment_room == room.id]
        where = Where(kind="equipment_room", id=room.id, name=room.name, floor=room.floor)
        if not here:
            continue
        for item in ("rack-frame", "rack-shelf", "rack-blank", "rack-strip", "cage-nuts"):
            parts.add(item, "rack", where)
        cables = sum(k.cables for k in links if k.medium == "copper" and _begins_in(k, room.id))
        panels = math.ceil(cables / _PORTS_OF_PANEL)
        parts.add("rack-panel", "rack", where.model_copy(update={"quantity": panels}))


def _begins_in(link: Link, room: str) -> bool:
    return link.id.endswith(f"@{room}")


def _recording(parts: Parts, design: Design, catalogue: Catalogue) -> None:
    cameras = [
        d
        for d in design.of(Device).values()
        if catalogue.role_of(d).profile.untagged == "cameras" and d.state in ("new", "keep")
    ]
    if not cameras:
        return
    disks = disks_for(
        len(cameras) * catalogue.rules["order.camera_mbps"],
        catalogue.rules["order.recording_days"],
        catalogue.rules["order.disk_tb"],
    )
    recorders = math.ceil(len(cameras) / _CAMERAS_OF_RECORDER)
    for camera in cameras:
        parts.add("recorder", "gear", _of(camera, recorders / len(cameras)))
        parts.add("disk-6tb", "gear", _of(camera, disks / len(cameras)))


_CAMERAS_OF_RECORDER = 8
_BITS = 8_000_000
_SECONDS_A_DAY = 86_400


def disks_for(mbps: float, days: float, disk_tb: float) -> int:
    """Return how many disks keep streams of so many Mb/s for so many days.

    ``days = usable TB x 8,000,000 / (Mb/s x 86,400)``, usable being all disks but one for parity.
    """
    usable_tb = days * mbps * _SECONDS_A_DAY / _BITS
    return math.ceil(usable_tb / disk_tb - 1e-9) + 1


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
