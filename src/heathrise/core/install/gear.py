"""The steps of gear: racks, what is mounted, what is switched on, what is taken away."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..base.wording import celsius
from ..catalogue import Catalogue, DeviceModel, Rules
from ..context.fibre_ends import far_ends
from ..context.plugged import plugged_of
from ..context.run_decisions import feeds, said_over_air, split_by
from ..design import Design, Device, EquipmentRoom, Extender, Injector, Switch
from ..laying import Hazard
from .cables import Pull
from .hazards import lifting_said, old_walls_said
from .step import TodoList


@dataclass(frozen=True)
class MountPlace:
    """Where a device hangs: whether outdoors, how high over the ground, in what building."""

    outdoors: bool
    over_ground_m: float
    built: int | None


def on_roof(rules: Rules, stand: MountPlace) -> bool:
    """Return whether fall protection is due where a device hangs."""
    return stand.outdoors and stand.over_ground_m > rules["install.roof_m"]


def mount_kind(rules: Rules, kind: str, outdoors: bool) -> str:
    """Return the kind of mounting that a device's minutes are for."""
    outside = f"{kind}_outside"
    return outside if outdoors and outside in rules.table("order.mount_minutes") else kind


def mount_minutes(rules: Rules, kind: str, outdoors: bool) -> float:
    """Return the minutes in which one person mounts a device of a kind."""
    rates = rules.table("order.mount_minutes")
    return rates.get(mount_kind(rules, kind, outdoors), rates["other"])


@dataclass(frozen=True)
class RackWork:
    """A rack that is set up: what is lifted, how its frame is held, what is bolted in from below,
    which cords join it; ``socket`` is the nearest, none where none is drawn."""

    room: str
    kg: float
    frame: str
    held: str
    board: bool
    wall: bool
    bolted: tuple[str, ...]
    cords: tuple[str, ...]
    materials: tuple[str, ...]
    socket: str
    vent_m3h: float
    line_surge: bool


@dataclass(frozen=True)
class SocketWork:
    """A socket that a licensed electrician makes, with the mains cable to it, m."""

    id: str
    name: str
    floor: str
    metres: float


def racks(todo: TodoList, design: Design, works: Sequence[RackWork]) -> None:
    """Add the steps of each rack that is set up: its frame first, then what is bolted into it."""
    rules = todo.rules
    share = rules["order.rack_fit_share"]
    for work in works:
        room = design.of(EquipmentRoom)[work.room]
        heavy = work.kg > rules["install.lift_kg"]
        hazards: list[Hazard] = ["drilling", "mains"]
        said = []
        if heavy:
            hazards.append("lifting")
            said.append(lifting_said(work.kg))
        place = ("equipment_room", room.id, room.floor)
        backing = "Screw the backing board across two studs first" if work.board else ""
        behind = "A stud, masonry or a backing board behind each hole"
        stands = behind if work.wall else "Levelled, and held at its top"
        socket = f"Its socket, {work.socket}," if work.socket else "A socket"
        todo.add(
            f"rack-{room.id}",
            "rack",
            f"Set up {room.name}: {'backing board, ' if work.board else ''}{work.frame}",
            place,
            [("rack", 1, rules["order.rack_minutes"] * (1 - share))],
            ("safe",),
            hazards,
            said,
            tools=("level", "drill", "screwdriver", "stud finder"),
            materials=work.materials,
            checks=tuple(
                c
                for c in (
                    backing,
                    f"Held by {work.held}",
                    stands,
                    "Clear of the electrical panel and its space",
                    f"{socket} is within the cord; if not, a licensed electrician makes one",
                    "Photograph the place before",
                )
                if c
            ),
        )
        air = f"{work.vent_m3h:g} m³/h pass through the closet: grilles low and high"
        moved = air if work.vent_m3h else ""
        todo.add(
            f"fit-{room.id}",
            "rack",
            f"Bolt into {room.name}, the heaviest lowest",
            place,
            [("fit", 1, rules["order.rack_minutes"] * share)],
            (f"rack-{room.id}",),
            ["lifting"] if heavy else [],
            said,
            tools=("screwdriver",),
            checks=tuple(c for c in (*work.bolted, *(f"Cords: {c}" for c in work.cords), moved) if c),
        )


def earthing(
    todo: TodoList, design: Design, works: Sequence[RackWork], sockets: Sequence[SocketWork]
) -> None:
    """Add what a licensed electrician does: sockets, bonding of frames, surge protection of the line."""
    rules = todo.rules
    for socket in sockets:
        metres = f", {socket.metres:.0f} m of cable from its panel" if socket.metres else ""
        todo.add(
            f"socket-{socket.id}",
            "protect",
            f"Make {socket.name}{metres}",
            ("socket", socket.id, socket.floor),
            [("socket", 1, rules["install.socket_minutes"] + rules["install.mains_minutes"] * socket.metres)],
            ("safe",),
            ("mains",),
            licensed=True,
            checks=("Its circuit is named in the panel", "Tested and noted by whoever made it"),
        )
    for work in works:
        room = design.of(EquipmentRoom)[work.room]
        line = ", protect the line where it comes in" if work.line_surge else ""
        todo.add(
            f"bond-{room.id}",
            "protect",
            f"Bond {room.name} to the building's earth{line}",
            ("equipment_room", room.id, room.floor),
            [("bond", 1, rules["install.bond_minutes"])],
            (f"fit-{room.id}",),
            ("mains",),
            licensed=True,
            checks=("Frame, strip and surge protection on one earth",),
        )


def mounts(
    todo: TodoList, design: Design, catalogue: Catalogue, pulls: Sequence[Pull], stands: dict[str, MountPlace]
) -> None:
    rules = todo.rules
    by_device = {p.device: p for p in pulls if p.device is not None and not p.coil}
    fed = {device.id: (feed.label,) for device, feed in feeds(design, catalogue)}
    fed |= {device.id: (end.label,) for device, end in far_ends(design, catalogue)}
    plugs = {p.device: p for p in plugged_of(design, catalogue) if not p.wrong}
    for device in design.of(Device).values():
        if device.state != "new":
            continue
        model, pull, stand = catalogue.model_of(device), by_device.get(device.id), stands[device.id]
        key = mount_kind(rules, device.kind, stand.outdoors)
        name = catalogue.roles[device.kind].name.lower()
        hazards = list(_of_mount(rules, device, stand))
        if device.id in fed:
            hazards.append("mains")  # a socket that is missing is no work of the installer's
        drilled = "drilling" in hazards
        free = catalogue.role_of(device).stands_free
        plug = plugs.get(device.id)
        ready = (f"far-{pull.id}",) if pull is not None else (f"mount-{plug.host}",) if plug else ("safe",)
        todo.add(
            f"mount-{device.id}",
            "mount",
            f"{'Put down' if free else 'Mount'} {device.name}: {model.label}",
            ("device", device.id, device.floor),
            [(f"mount-{key}", 1, mount_minutes(rules, device.kind, stand.outdoors))],
            ready,
            hazards,
            [old_walls_said(rules, stand.built)] if drilled and not stand.outdoors else [],
            label=f"Mount: {name}{' outside' if key != device.kind else ''}",
            materials=(
                model.label,
                *(() if free else ("bracket or box",)),
                *fed.get(device.id, ()),
                *_split(catalogue, device),
            ),
            tools=("level", "drill", "screwdriver"),
            checks=tuple(_seen_to(rules, model, stand)),
        )


def _split(catalogue: Catalogue, device: Device) -> tuple[str, ...]:
    splitter = split_by(catalogue, device)
    return (splitter.label,) if splitter is not None else ()


def _of_mount(rules: Rules, device: Device, stand: MountPlace) -> Iterator[Hazard]:
    if device.height_m > rules["install.ladder_m"]:
        yield "ladder"
    yield from _roof(rules, stand)
    if stand.outdoors:
        yield "lightning"
    if device.mount in ("ceiling", "wall"):
        yield "drilling"


def _seen_to(rules: Rules, model: DeviceModel, stand: MountPlace) -> Iterator[str]:
    if not stand.outdoors:
        return
    yield "Cable enters from below with a drip loop; gland tight, cover snapped"
    if model.outdoor:
        yield "Under an eave where its sheet says not in direct weather"
    else:
        yield "It is not made for weather: only under a roof, out of rain and sun"
    coldest, hottest = rules["install.coldest_c"], rules["cabling.space_c.outdoor"]
    place = f"this place is planned at {celsius(coldest)} to {celsius(hottest)}"
    if model.least_c is None or model.most_c is None:
        yield f"Its sheet's temperatures against the place: {place}"
        return
    made = f"Made for {celsius(model.least_c)} to {celsius(model.most_c)}; {place}"
    yield made if model.bears(coldest, hottest) else f"{made}: find a place in the shade or another model"


def extenders(todo: TodoList, design: Design, catalogue: Catalogue, pulls: Sequence[Pull]) -> None:
    """Add a step for each extender: where along its run it stands, its two ends made off."""
    rules = todo.rules
    by_device = {p.device: p for p in pulls if p.device is not None and not p.coil}
    for extender in design.of(Extender).values():
        device, pull = design.of(Device)[extender.device], by_device.get(extender.device)
        if pull is None:
            continue
        model = catalogue.extenders[extender.model]
        far = extender.share * pull.metres
        rates = rules.table("order.mount_minutes")
        todo.add(
            f"extend-{extender.id}",
            "ends",
            f"Mount {model.label} in the run of {device.name}, {far:.0f} m from the rack",
            ("device", device.id, device.floor),
            [("extend", 1, rates["other"]), ("end", 2, 2 * rules["order.end_minutes"])],
            (f"pull-{pull.id}",),
            ["powered", *(["ladder"] if pull.high else [])],  # type: ignore[list-item]
            materials=(model.label, "plugs"),
            checks=("Where one can reach it again, noted on the drawing", "Both pieces tested by themselves"),
        )


def powering(todo: TodoList, design: Design, catalogue: Catalogue, pulls: Sequence[Pull]) -> None:
    rules, rooms = todo.rules, design.of(EquipmentRoom)
    between = [p for p in pulls if p.far_rack is not None]
    for switch in design.of(Switch).values():
        if switch.state != "new":
            continue
        room = switch.equipment_room
        ups = [p for p in between if room in (p.rack, p.far_rack)]
        hazards: list[Hazard] = ["mains"]
        if any(p.fibre for p in ups):
            hazards.append("fibre")
        todo.add(
            f"switch-{switch.id}",
            "power",
            f"Put {switch.name} on, see its way up alive",
            ("switch", switch.id, rooms[room].floor),
            [("switch", 1, rules["install.switch_minutes"])],
            (f"fit-{room}", f"bond-{room}", *(f"test-{p.id}" for p in between)),
            hazards,
        )
    adopted = [
        d
        for d in design.of(Device).values()
        if catalogue.role_of(d).links != "every_cable" and not catalogue.role_of(d).passes_on
    ]
    if not adopted:
        return
    todo.add(
        "controller",
        "power",
        "Bring the controller up to date before anything is adopted",
        ("site", "site", None),
        [("controller", 1, rules["install.controller_minutes"])],
        todo.of("power"),
    )
    by_device = {p.device: p for p in pulls if p.device is not None and not p.coil}
    loose = said_over_air(design)
    plugs = {p.device: p for p in plugged_of(design, catalogue) if not p.wrong}
    injected = {i.device for i in design.of(Injector).values()}
    lit = {device.id: end for device, end in far_ends(design, catalogue)}
    # What hangs on the air, or on another device, is adopted over what has a cable.
    for device in sorted(adopted, key=lambda d: d.id in loose or d.id in plugs):
        pull = by_device.get(device.id)
        place = ("device", device.id, device.floor)
        ready = ["controller", f"mount-{device.id}"]
        if pull is not None:
            ready += [f"test-{pull.id}", f"surge-{pull.id}"]
        if device.state == "keep":
            todo.add(
                f"reset-{device.id}",
                "adopt",
                f"Reset {device.name}, it was used before",
                place,
                [("reset", 1, rules["install.reset_minutes"])],
            )
            ready.append(f"reset-{device.id}")
        said = f"Patch {device.name} last, adopt, name, see it alive"
        if device.id in plugs:
            plug = plugs[device.id]
            host = design.of(Device)[plug.host].name
            said = f"Plug {device.name} into {host} port {plug.port}, adopt, name, see it alive"
            ready.append(f"adopt-{plug.host}")
        if device.id in loose:
            said = f"Plug {device.name} in at its socket, adopt over the air, name, read its link"
            ready += [k for k in todo.of("adopt") if k.removeprefix("adopt-") not in loose]
        elif device.id in lit:
            end = lit[device.id]
            said = f"Plug {end.label} of {device.name} in at its socket, adopt, name, see it alive"
        elif device.id in injected:
            said = f"Plug the injector of {device.name} in last, adopt, name, see it alive"
        powered: list[Hazard] = ["powered"] if device.id in injected and device.id not in lit else []
        if device.id in lit:
            powered += ["mains", "fibre"]
        todo.add(
            f"adopt-{device.id}",
            "adopt",
            said,
            place,
            [("adopt", 1, rules["order.adopt_minutes"])],
            ready,
            powered,
        )


def take_away(todo: TodoList, drawn: Design, stands: dict[str, MountPlace]) -> None:
    """Add a step for each piece of old gear that goes, once what is new is alive."""
    rules, rooms = todo.rules, drawn.of(EquipmentRoom)
    alive = ["settings", *todo.of("adopt")]
    work = [("remove", 1.0, rules["order.remove_minutes"])]
    for device in drawn.of(Device).values():
        if device.state == "retire":
            high = device.height_m > rules["install.ladder_m"]
            todo.add(
                f"remove-{device.id}",
                "finish",
                f"Take {device.name} away",
                ("device", device.id, device.floor),
                work,
                alive,
                [*(["ladder"] if high else []), *_roof(rules, stands[device.id])],  # type: ignore[list-item]
                checks=("Its settings are wiped; the client says what becomes of it",),
            )
    for switch in drawn.of(Switch).values():
        if switch.state == "retire":
            todo.add(
                f"remove-{switch.id}",
                "finish",
                f"Take {switch.name} away",
                ("switch", switch.id, rooms[switch.equipment_room].floor),
                work,
                alive,
                ("mains",),
                checks=("Nothing is plugged into it any more",),
            )


def _roof(rules: Rules, stand: MountPlace) -> list[Hazard]:
    return ["roof", "alone"] if on_roof(rules, stand) else []
