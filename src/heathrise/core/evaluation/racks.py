"""What the racks are told: the panels that cables end in, the cords that join them, what they feed."""

from __future__ import annotations

import math
from collections import Counter, defaultdict
from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass

from ..cabling import BesideVerdict, LinkVerdict, RunVerdict, UplinkVerdict
from ..catalogue import Catalogue
from ..context.one_cable import LAN_IN, LINE_OUT, TV_IN, SharedCable, shared_cable
from ..context.racks import stand_in_racks
from ..context.recording import recorder_link, recordings_of
from ..context.run_decisions import cable_of_link
from ..design import Design, Device, EquipmentRoom, Injector, LineEntry, Switch
from ..elevation import SPLICE_PORTS, Patch, RackChapter, RackConverter, RackDraw, RackLoad, assess_racks
from ..install import PORTS_OF_PANEL, Cabled, Label, far_end, labels_of
from ..rack import PortUse, PowerPlan


def labels_for(design: Design, links: Sequence[LinkVerdict]) -> list[Label]:
    """Return a label for every cable that has a way, fibre between racks too."""
    rooms = design.of(EquipmentRoom)
    cabled = []
    for link in links:
        rack: EquipmentRoom | Device | None = rooms.get(link.room or "")
        if isinstance(link, RunVerdict) and link.begins:
            rack = design.of(Device)[link.begins]  # its ports are numbered like a panel's
        if link.verdict == "no_way" or rack is None:
            continue
        if isinstance(link, RunVerdict):
            floor, at = far_end(design, link.device)
        else:
            upper = rooms[link.to_room]  # type: ignore[attr-defined]
            floor, at = upper.floor, upper.at
        cabled.append(Cabled(link.id, link.name, rack.id, rack.name, floor, at, link.cables))
    return labels_of(design, cabled)


def rack_chapter(
    design: Design, catalogue: Catalogue, links: Sequence[LinkVerdict], power: PowerPlan
) -> RackChapter:
    """Return the racks of a design as things."""
    labels = labels_for(design, links)
    panels = _panels(design, catalogue, links, labels)
    recorders = [keeps for keeps in recordings_of(design, catalogue) if keeps.device is None]
    with_switch = {s.equipment_room for s in design.of(Switch).values()}
    poe = {s.switch: s.rated_w for s in power.switches}
    by_room = {link.device: link.room for link in links if isinstance(link, RunVerdict)}
    at_port = {d.device: d.port_w for d in power.devices}
    passive = {d.id: old.passive_w for d in design.of(Device).values() if (old := catalogue.model_of(d).old)}
    splices = _splices(catalogue, links)
    converters = _converters(design, catalogue, links, power)
    lit = {k.device for k in links if isinstance(k, RunVerdict) and k.medium == "fibre"}
    loads = []
    for room in design.of(EquipmentRoom):
        if room not in with_switch and not panels.of[room] and not splices.of[room]:
            continue
        injected = {
            i.device: at_port.get(i.device, passive.get(i.device, 0.0))
            for i in design.of(Injector).values()
            if by_room.get(i.device) == room and i.device not in lit
        }
        here = room == power.line_room
        loads.append(
            RackLoad(
                room=room,
                panels=panels.of[room],
                poe_w=poe,
                injected_w=injected,
                recorders=recorders if here else (),
                modem=design.site.upstream_gear[:60] if here else "",
                converters=converters[room],
                splices=splices.of[room],
            )
        )
    patches = tuple(_patches(design, catalogue, links, labels, panels, splices, power))
    return assess_racks(design, catalogue, loads, patches, _draws(design, catalogue, power, by_room))


@dataclass(frozen=True)
class _Panels:
    """The patch panels of a site: their numbers by room, and where the upper ends of ways between racks
    are put, by link and cable; those follow what is labelled there."""

    of: dict[str, tuple[int, ...]]
    far: dict[tuple[str, int], tuple[int, int]]


def _panels(
    design: Design, catalogue: Catalogue, links: Sequence[LinkVerdict], labels: Sequence[Label]
) -> _Panels:
    """Return the panels; none where cables are so few that they go straight into the switch."""
    ends: Counter[str] = Counter()
    upper: dict[str, list[tuple[str, int]]] = defaultdict(list)
    for link in links:
        if link.verdict == "no_way" or link.medium != "copper" or link.chosen_by == "found":
            continue
        ends[link.room or ""] += link.cables
        if isinstance(link, UplinkVerdict | BesideVerdict):
            ends[link.to_room] += link.cables
            upper[link.to_room] += [(link.id, k) for k in range(1, link.cables + 1)]
    of_link = {link.id: link.room or "" for link in links}
    labelled: dict[str, list[Label]] = defaultdict(list)
    for label in labels:
        labelled[of_link[label.link]].append(label)
    last = max((label.panel for label in labels), default=0)
    of: dict[str, tuple[int, ...]] = {}
    far: dict[tuple[str, int], tuple[int, int]] = {}
    for room in design.of(EquipmentRoom):
        of[room] = ()
        if ends[room] <= catalogue.rules["order.panel_from_runs"]:
            continue
        mine = sorted({label.panel for label in labelled[room]})
        used = [k.port for k in labelled[room] if k.panel == mine[-1]]
        taken = max(used, default=PORTS_OF_PANEL)
        for end in upper[room]:
            taken += 1
            if taken > PORTS_OF_PANEL:
                last, taken = last + 1, 1
                mine.append(last)
            far[end] = mine[-1], taken
        of[room] = tuple(mine)
    return _Panels(of, far)


@dataclass(frozen=True)
class _Splices:
    """The splice boxes of a site: how many by room, and the box and place of each fibre's end, by room and
    link."""

    of: Counter[str]
    at: dict[tuple[str, str], tuple[str, int]]


def _splices(catalogue: Catalogue, links: Sequence[LinkVerdict]) -> _Splices:
    """Return where the strands of each fibre end; those of one cable end in one box."""
    pairs = math.ceil(catalogue.rules["cabling.fibre_spliced"] / 2)
    used: Counter[str] = Counter()
    of: Counter[str] = Counter()
    at: dict[tuple[str, str], tuple[str, int]] = {}
    for link in links:
        if link.medium != "fibre" or link.verdict == "no_way":
            continue
        ends = [link.room, link.to_room if isinstance(link, UplinkVerdict) else None]
        for room in (r for r in ends if r is not None):
            if not of[room] or used[room] + pairs > SPLICE_PORTS:
                of[room], used[room] = of[room] + 1, 0
            at[room, link.id] = (f"splice:{of[room]}", used[room] + 1)
            used[room] += pairs
    return _Splices(of, at)


def _converter(key: str) -> str:
    return f"converter:{key}"


def _converters(
    design: Design, catalogue: Catalogue, links: Sequence[LinkVerdict], power: PowerPlan
) -> dict[str, list[RackConverter]]:
    """Return by room the converters of fibre that ends in ports without a cage, each as fast as its port or
    what is at the other end."""
    switches, devices = design.of(Switch), design.of(Device)
    ports = {(p.switch, p.port): p for p in power.ports}
    found: dict[str, list[RackConverter]] = defaultdict(list)

    def add(room: str, key: str, name: str, mbps: int) -> None:
        model = catalogue.converter_for(mbps)
        if model is not None:
            found[room].append(RackConverter(key, name, model))

    for way in power.ways_up:
        for near, number in ((way.switch, way.port), (way.to or "", way.to_port or 0)):
            if near in way.converters:
                name = switches[way.switch].name
                add(switches[near].equipment_room, way.switch, name, ports[near, number].speed_mbps)
    lit = {k.device: k.lit_mbps for k in links if isinstance(k, RunVerdict) and k.lit_mbps is not None}
    for use in power.ports:
        if use.device in lit and not use.cage:
            name = devices[use.device].name
            add(switches[use.switch].equipment_room, f"run-{use.device}", name, lit[use.device])
    return found


def _lit(room: str, use: PortUse, run: str, splices: _Splices, colour: str) -> Iterator[Patch]:
    """Yield the cords of a run of fibre: from its splice box to a cage, or by a converter to a port."""
    end, name = (f"switch:{use.switch}", use.port), use.name or ""
    if not use.cage:
        between = (_converter(run), 0)
        yield Patch(room, *between, *end, name, colour)
        end = between
    yield Patch(room, *splices.at[room, run], *end, name, colour, run, fibre=True)


def _patches(
    design: Design,
    catalogue: Catalogue,
    links: Sequence[LinkVerdict],
    labels: Sequence[Label],
    panels: _Panels,
    splices: _Splices,
    power: PowerPlan,
) -> Iterator[Patch]:
    rules = catalogue.rules
    room_of = {s.id: s.equipment_room for s in design.of(Switch).values()}
    ports = {(label.link, label.cable): label for label in labels}
    injected = {i.device: i.id for i in design.of(Injector).values()}
    devices = design.of(Device)
    planned = sum(keeps.device is None for keeps in recordings_of(design, catalogue))
    recorders = {recorder_link(k): (f"recorder:{k}", 1) for k in range(1, planned + 1)}
    shared = shared_cable(design, catalogue)
    sharing = _shared_ends(shared) if shared is not None else {}
    standing = stand_in_racks(design, catalogue)
    for use in power.ports:
        room = room_of[use.switch]
        if use.link in sharing:
            colour = rules.text("rack.cord_colour.uplink")
            ends = (sharing[use.link], 0, f"switch:{use.switch}", use.port)
            yield Patch(room, *ends, use.name or "", colour)
        if use.link in recorders:
            colour = rules.text(f"rack.cord_colour.{catalogue.roles[use.role].profile.untagged}")
            ends = (*recorders[use.link], f"switch:{use.switch}", use.port)
            yield Patch(room, *ends, use.name or "", colour)
        if use.link is None or use.device is None:
            continue
        run = f"run-{use.device}"
        label = ports.get((run, cable_of_link(use.link)))
        colour = rules.text(f"rack.cord_colour.{catalogue.role_of(devices[use.device]).profile.untagged}")
        if use.device in standing:
            thing = f"{catalogue.role_of(devices[use.device]).racked}:{use.device}"
            yield Patch(room, thing, 1, f"switch:{use.switch}", use.port, use.name or "", colour)
            continue
        if (room, run) in splices.at:
            yield from _lit(room, use, run, splices, colour)
            continue
        end = (f"panel:{label.panel}", label.port) if label is not None and panels.of[room] else None
        switch = (f"switch:{use.switch}", use.port)
        name = use.name or ""
        if use.device in injected:
            between = (f"injector:{injected[use.device]}", 0)
            yield Patch(room, *between, *switch, name, colour)
            if end is not None:
                yield Patch(room, *end, *between, name, colour, run)
        elif end is not None:
            yield Patch(room, *end, *switch, name, colour, run)
    yield from _ways_up(design, catalogue, links, ports, panels, splices, power, room_of, sharing)


def _shared_ends(shared: SharedCable) -> dict[str, str]:
    """Return the other end of each cord that old cable asks for because it carries several things; where
    the television stands nobody says, so its cord is its own."""
    here = {LINE_OUT: f"router:{shared.router}", LAN_IN: f"router:{shared.router}", TV_IN: "modem:1"}
    return {link: here[link] for link in shared.links if link in here}


def _ways_up(
    design: Design,
    catalogue: Catalogue,
    links: Sequence[LinkVerdict],
    ports: dict[tuple[str, int], Label],
    panels: _Panels,
    splices: _Splices,
    power: PowerPlan,
    room_of: dict[str, str],
    sharing: Collection[str],
) -> Iterator[Patch]:
    """Yield the cords of ways up: switch to switch, to the router, through the panel to another rack."""
    colour = catalogue.rules.text("rack.cord_colour.uplink")
    faces: dict[tuple[str, int], PortUse] = {(p.switch, p.port): p for p in power.ports}
    over = {link.room: link for link in links if isinstance(link, UplinkVerdict)}
    routers = _routers(design, catalogue)
    for way in power.ways_up:
        room, switch = room_of[way.switch], (f"switch:{way.switch}", way.port)
        for near, number in ((way.switch, way.port), (way.to or "", way.to_port or 0)):
            there, end = room_of.get(near, ""), (f"switch:{near}", number)
            if near in way.converters:
                between = (_converter(way.switch), 0)
                yield Patch(there, *between, *end, f"{way.name} to {way.to_name}, converter", colour)
                end = between
            if way.medium == "fibre" and room in over and (there, over[room].id) in splices.at:
                link = over[room]
                yield Patch(there, *splices.at[there, link.id], *end, link.name, colour, link.id, fibre=True)
        if way.to is None:
            router = routers.get(room)
            to = f"router:{router}" if router else "modem:1"
            yield Patch(room, *switch, to, 0, f"{way.name} to {way.to_name}", colour)
        elif room_of[way.to] == room:
            other = (f"switch:{way.to}", way.to_port or 0)
            both = faces[way.switch, way.port].cage and way.to_port and faces[way.to, way.to_port].cage
            name = f"{way.name} to {way.to_name}"
            yield Patch(room, *switch, *other, name, colour, cage=bool(both))
        elif way.medium == "copper" and room in over:
            link, above = over[room], room_of[way.to]
            label, far = ports.get((link.id, 1)), panels.far.get((link.id, 1))
            if label is not None and panels.of[room]:
                yield Patch(room, f"panel:{label.panel}", label.port, *switch, link.name, colour, link.id)
            if far is not None:
                end = (f"panel:{far[0]}", far[1])
                yield Patch(above, *end, f"switch:{way.to}", way.to_port or 0, link.name, colour, link.id)
    for room, router in routers.items():
        if LINE_OUT not in sharing and (design.of(LineEntry) or design.site.upstream_gear):
            yield Patch(room, f"router:{router}", 0, "modem:1", 0, "Line", colour)


def _routers(design: Design, catalogue: Catalogue) -> dict[str, str]:
    found: dict[str, str] = {}
    for device, rack in stand_in_racks(design, catalogue).items():
        if catalogue.role_of(design.of(Device)[device]).leads_out:
            found.setdefault(rack, device)
    return found


def _draws(
    design: Design, catalogue: Catalogue, power: PowerPlan, by_room: dict[str, str | None]
) -> dict[str, list[RackDraw]]:
    """Return by room what its switches and injectors feed, by what is shed together."""
    found: dict[str, list[RackDraw]] = defaultdict(list)
    devices = design.of(Device)
    for fed in power.devices:
        room = by_room.get(fed.device)
        if room is not None and fed.source != "none":
            role = catalogue.role_of(devices[fed.device])
            found[room].append(RackDraw(role.sheds, f"{role.name.lower()}s", fed.port_w))
    return found
