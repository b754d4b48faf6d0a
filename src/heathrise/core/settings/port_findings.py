"""Findings about switch ports: what an unmanaged switch cannot carry, cameras without a network."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ..catalogue import Catalogue
from ..context.findings import Cure, Finding, Place
from ..context.plugged import plugged_of
from ..design import Design, Device, Membership, Network, Switch, put, remove
from .membership import ends_of
from .sheet import PortSheet
from .subnets import free_subnet, parse_subnet

_SOURCE = "IEEE 802.1Q"


def port_findings(design: Design, catalogue: Catalogue, ports: Sequence[PortSheet]) -> Iterator[Finding]:
    """Yield what the planned port profiles ask of switches and networks."""
    for switch in design.of(Switch).values():
        here = [p for p in ports if p.switch == switch.id and p.enabled]
        tagged = [p.name for p in here if p.tagged_vlans]
        mixed = len({p.untagged_vlan for p in here}) > 1
        if catalogue.switches[switch.model].managed or not (tagged or mixed):
            continue
        what = f"{', '.join(tagged[:4])} with several networks" if tagged else "several networks"
        yield Finding(
            id=f"settings-unmanaged-{switch.id}",
            stage="settings",
            severity="not_met",
            text=f"{switch.name} is unmanaged and cannot carry {what}: all of its ports are one network.",
            places=(Place(kind="switch", id=switch.id),),
            rule="a switch that carries several networks is managed",
            source=_SOURCE,
            cures=managed_in_place(design, catalogue, switch),
        )
    yield from _not_alone(design, catalogue)
    yield from _mixed_boxes(design, catalogue)
    yield from _lost_members(design, catalogue, ports)


def _mixed_boxes(design: Design, catalogue: Catalogue) -> Iterator[Finding]:
    """Yield boxes that tell nothing apart and have devices of several networks behind them."""
    devices, ends = design.of(Device), ends_of(design, catalogue)
    by_box: dict[str, list[Device]] = {}
    for plug in plugged_of(design, catalogue):
        if not plug.wrong and catalogue.role_of(devices[plug.host]).passes_on:
            by_box.setdefault(plug.host, []).append(devices[plug.device])
    for box, guests in by_box.items():
        networks = (ends.of_link(d)[0] for d in guests)
        wanted = {n.id for n in networks if n is not None}
        if len(wanted) > 1:
            name, several = devices[box].name, ", ".join(d.name for d in guests[:4])
            yield Finding(
                id=f"settings-box-{box}",
                stage="settings",
                severity="not_met",
                text=f"{name} tells no networks apart, and {several} want several: a "
                "box for each network, or a managed switch in its place.",
                places=(Place(kind="device", id=box, floor=devices[box].floor, at=devices[box].at),),
                rule="what is fed through one plain box is one network",
                source=_SOURCE,
            )


def _lost_members(design: Design, catalogue: Catalogue, ports: Sequence[PortSheet]) -> Iterator[Finding]:
    """Yield ends that somebody put on a network and that are none."""
    used = {(p.switch, p.port) for p in ports if p.enabled and p.whose != "person"}
    known = {(p.switch, p.port) for p in ports}
    for one in design.of(Membership).values():
        device = design.of(Device).get(one.device or "")
        if device is None:
            name = design.of(Switch)[one.switch or ""].name
            here = (one.switch, one.port)
            why = "has no such port" if here not in known else "has it in use" if here in used else ""
        else:
            model, role, name = catalogue.model_of(device), catalogue.role_of(device), device.name
            given = sum(g.count for g in model.ports)
            most = given if one.given else model.sockets if role.links == "every_cable" else 1
            why = f"has {most} of them" if one.port > most else ""
        if why:
            what = "cable" if device is not None and not one.given else "port"
            yield Finding(
                id=f"settings-member-{one.id}",
                stage="settings",
                severity="near",
                text=f"{name}, {what} {one.port}: its network was chosen by hand, and {name} {why}.",
                places=(Place(kind="switch", id=one.switch),)
                if one.switch is not None
                else (Place(kind="device", id=one.device or ""),),
                rule="a network is chosen for an end that there is",
                source="practice",
                cures=(Cure(label="Forget it", effect="nothing else changes", changes=(remove(one),)),),
            )


def _not_alone(design: Design, catalogue: Catalogue) -> Iterator[Finding]:
    """Yield the devices that want a network of their own where none is planned for them."""
    purposes = {n.purpose for n in design.of(Network).values()}
    if not purposes:
        return
    for role in catalogue.roles.values():
        purpose = role.profile.untagged
        mine = [d for d in design.of(Device).values() if d.kind == role.kind]
        if not mine or not role.profile.alone or purpose in purposes:
            continue
        purposes.add(purpose)  # two kinds may want the same one
        what = "reaches the recorder only" if purpose == "cameras" else "reaches the internet only"
        yield Finding(
            id=f"settings-no-{purpose}",
            stage="settings",
            severity="near",
            text=f"{', '.join(d.name for d in mine[:6])}: in the main network, not isolated, "
            f"since no network for {purpose} is planned.",
            places=tuple(Place(kind="device", id=d.id, floor=d.floor, at=d.at) for d in mine),
            rule=f"{purpose} have a network of their own that {what}",
            source="practice",
            cures=_network_for(design, catalogue, purpose),
        )


def _network_for(design: Design, catalogue: Catalogue, purpose: str) -> tuple[Cure, ...]:
    """Offer a network for a purpose on a subnet that nobody has."""
    networks = design.of(Network)
    held = [*(n.subnet for n in networks.values()), design.site.upstream_subnet]
    taken = [subnet for subnet in map(parse_subnet, held) if subnet is not None]
    vlan = int(catalogue.rules[f"settings.offered_vlan.{purpose}"])
    subnet = free_subnet(taken, vlan)
    vlans, new_id = {n.vlan for n in networks.values()}, f"net-{purpose}"
    if subnet is None or vlan in vlans or new_id in networks:
        return ()
    new = Network.model_validate(
        {"id": new_id, "name": purpose.capitalize(), "purpose": purpose, "vlan": vlan, "subnet": str(subnet)}
    )
    label = f"Add a network for {purpose}, {subnet} on VLAN {vlan}"
    return (Cure(label=label, effect="it reaches nobody else", changes=(put(new),)),)


def managed_in_place(design: Design, catalogue: Catalogue, switch: Switch) -> tuple[Cure, ...]:
    """Offer the cheapest managed switch with as many ports, powered ports and watts."""
    owned = catalogue.switches[switch.model]
    fitting = [
        m
        for m in catalogue.sold_switches
        if m.managed
        and m.copper_ports >= owned.copper_ports
        and m.powered_ports >= owned.powered_ports
        and m.budget_w >= owned.budget_w
    ]
    if not fitting:
        return ()
    model = min(fitting, key=lambda m: m.price)
    effect = f"{model.price - owned.price:+g} {design.site.currency}"
    changed = switch.model_copy(update={"model": model.id})
    return (Cure(label=f"Put {model.label} in its place", effect=effect, changes=(put(changed),)),)
