"""Findings about switch ports: what an unmanaged switch cannot carry, cameras without a network."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ..catalogue import Catalogue
from ..design import Design, Device, Network, Switch, put
from ..findings import Cure, Finding, Place
from .networks import free_subnet, parse_subnet
from .sheet import PortSheet

CAMERAS_ID = "net-cameras"

_SOURCE = "IEEE 802.1Q"


def port_findings(
    design: Design, catalogue: Catalogue, ports: Sequence[PortSheet]
) -> Iterator[Finding]:
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
            text=f"{switch.name} is unmanaged and cannot carry {what}: "
            "all of its ports are one network.",
            places=(Place(kind="switch", id=switch.id),),
            rule="a switch that carries several networks is managed",
            source=_SOURCE,
            cures=_managed(design, catalogue, switch),
        )
    purposes = {n.purpose for n in design.of(Network).values()}
    cameras = [d for d in design.of(Device).values() if d.kind == "camera"]
    if cameras and purposes and "cameras" not in purposes:
        yield Finding(
            id="settings-no-cameras",
            stage="settings",
            severity="near",
            text=f"{', '.join(d.name for d in cameras[:6])}: in the main network, not isolated, "
            "since no network for cameras is planned.",
            places=tuple(Place(kind="device", id=d.id, floor=d.floor, at=d.at) for d in cameras),
            rule="cameras have a network of their own that reaches the recorder only",
            source="practice",
            cures=_for_cameras(design, catalogue),
        )


def _for_cameras(design: Design, catalogue: Catalogue) -> tuple[Cure, ...]:
    """Offer a network for the cameras on a subnet that nobody has."""
    networks = design.of(Network)
    held = [*(n.subnet for n in networks.values()), design.site.upstream_subnet]
    taken = [subnet for subnet in map(parse_subnet, held) if subnet is not None]
    vlan = int(catalogue.rules["settings.cameras_vlan"])
    subnet = free_subnet(taken, vlan)
    vlans = {n.vlan for n in networks.values()}
    if subnet is None or vlan in vlans or CAMERAS_ID in networks:
        return ()
    new = Network(id=CAMERAS_ID, name="Cameras", purpose="cameras", vlan=vlan, subnet=str(subnet))
    label = f"Add a network for cameras, {subnet} on VLAN {vlan}"
    return (Cure(label=label, effect="it reaches nobody else", changes=(put(new),)),)


def _managed(design: Design, catalogue: Catalogue, switch: Switch) -> tuple[Cure, ...]:
    """Offer the cheapest managed switch with as many ports, powered ports and watts."""
    owned = catalogue.switches[switch.model]
    fitting = [
        m
        for m in catalogue.switches.values()
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
