"""The settings sheet: every value with the reason for it."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import ClassVar

from pydantic import Field

from ..base.bands import Band
from ..base.frozen import Frozen
from ..catalogue import Catalogue, Rules
from ..context.far_links import far_place
from ..context.on_air import Broadcast, apart_by, broadcasts, fast_transition_of, on_air_at
from ..context.run_decisions import cable_of_link, said_over_air
from ..design import Design, Device, Network, Switch, WirelessName
from .membership import Ends, Whose, ends_of
from .networks import NetworkSheet, network_sheet
from .portals import PortalSheet, VoucherSheet


class NameSheet(Frozen):
    """One wireless name; its key is made when the controller is set up and never kept here."""

    KEY: ClassVar = ("id",)

    id: str
    ssid: str
    network: str
    vlan: int
    bands: tuple[Band, ...]
    security: str
    client_isolation: bool
    fast_transition: bool
    steering: bool
    dtim: int
    lowest_rate_mbps: int
    access_points: tuple[str, ...] = Field((), description="access points that it is on")
    everywhere: bool = Field(True, description="whether that is all of them")
    on_air: tuple[Broadcast, ...] = Field((), description="what clients see, each with its places")
    limit_mbps: float | None = Field(None, description="what one client gets at most, Mb/s")
    hours: str = Field("", description="when it is on, nothing for always")
    reason: str


class PortSheet(Frozen):
    """One port of a switch, or that a device gives on: VLANs, power, speed in Mb/s."""

    KEY: ClassVar = ("switch", "port")

    switch: str
    switch_name: str
    port: int
    name: str
    enabled: bool
    untagged_vlan: int | None
    tagged_vlans: tuple[int, ...]
    power: bool
    speed_mbps: int
    reason: str
    whose: Whose = Field("plan", description="whose choice its network is")


class ServiceSheet(Frozen):
    """What goes over a cable beside the networks, in a VLAN of its own."""

    KEY: ClassVar = ("service",)

    service: str
    name: str
    vlan: int
    reason: str


class HostSheet(Frozen):
    """Whoever may be plugged in or joins on the air: the network that it is planned on, and the one that its
    frames are in."""

    KEY: ClassVar = ("id",)

    id: str
    name: str
    device: str | None
    switch: str | None
    network: str | None
    lands: str | None
    stopped: str = Field("", description="what stops its frames before the router")
    whose: Whose = "plan"
    reason: str = ""


class SettingsSheet(Frozen):
    """What the controller will hold beside its radios."""

    networks: tuple[NetworkSheet, ...]
    names: tuple[NameSheet, ...]
    ports: tuple[PortSheet, ...]
    mesh: bool = False
    mesh_reason: str
    optimiser: bool = False
    optimiser_reason: str = ""
    services: tuple[ServiceSheet, ...] = ()
    hosts: tuple[HostSheet, ...] = ()
    portals: tuple[PortalSheet, ...] = ()
    vouchers: tuple[VoucherSheet, ...] = ()


class Plug(Frozen):
    """What settings need to know of a port: what kind of thing is in it."""

    switch: str
    port: int
    device: str | None
    role: str
    name: str | None
    speed_mbps: int
    power: bool
    uplink: bool = False
    uplink_to: str | None = None
    link: str | None = None


def mesh_reason(design: Design, catalogue: Catalogue, wired: Collection[str]) -> str:
    """Return why mesh stays off; ``wired`` holds the devices that a run reaches."""
    points = [d for d in design.of(Device).values() if d.model in catalogue.airs]
    loose = said_over_air(design)
    if loose:
        names = ", ".join(d.name for d in points if d.id in loose)
        return f"back-haul of {names} is over the air; the strongest are wired"
    without = [d.name for d in points if d.id not in wired]
    if not without:
        return "every access point is wired"
    return f"back-haul is by wire, and a run is still to be found for {', '.join(without[:6])}"


def name_sheets(design: Design, catalogue: Catalogue) -> tuple[NameSheet, ...]:
    """Return the wireless names with the house rules applied where nobody said otherwise."""
    networks, rules = design.of(Network), catalogue.rules
    points = [d for d in design.of(Device).values() if d.model in catalogue.airs]
    on_air = broadcasts(design, catalogue)
    sheets: list[NameSheet] = []
    for name in design.of(WirelessName).values():
        network = networks[name.network]
        on = [d for d in points if on_air_at(name, d.id)]
        sheets.append(
            NameSheet(
                id=name.id,
                ssid=name.ssid,
                network=network.name,
                vlan=network.vlan,
                bands=name.bands,
                security=name.security,
                client_isolation=name.client_isolation,
                fast_transition=fast_transition_of(design, rules, name),
                steering=steers(rules, name),
                dtim=dtim_of(rules, network, name),
                lowest_rate_mbps=lowest_rate_mbps(rules, network, name),
                access_points=tuple(d.id for d in on),
                everywhere=len(on) == len(points),
                on_air=on_air[name.id],
                limit_mbps=name.limit_mbps,
                hours=hours_said(name),
                reason=_name_reason(design, rules, name, network),
            )
        )
    return tuple(sheets)


def steers(rules: Rules, name: WirelessName) -> bool:
    """Whether clients of a name are steered to 5 GHz: where it is one name on several bands, or as said."""
    one = len(name.bands) > 1 and not apart_by(rules, name)[1]
    return one if name.steering is None else name.steering and one


def hours_said(name: WirelessName) -> str:
    """Return when a name is on, nothing where it always is."""
    if name.from_hour is None or name.to_hour is None:
        return ""
    return f"{name.from_hour} to {name.to_hour}"


def dtim_of(rules: Rules, network: Network, name: WirelessName) -> int:
    return int(rules[f"settings.dtim.{network.purpose}"]) if name.dtim is None else name.dtim


def lowest_rate_mbps(rules: Rules, network: Network, name: WirelessName | None = None) -> int:
    """Return the lowest rate of a name on a network: lower where sensors may need it."""
    if name is not None and name.lowest_rate_mbps is not None:
        return name.lowest_rate_mbps
    return int(rules.text(f"settings.lowest_rate_mbps.{network.purpose}"))


def _name_reason(design: Design, rules: Rules, name: WirelessName, network: Network) -> str:
    rate, dtim = lowest_rate_mbps(rules, network, name), dtim_of(rules, network, name)
    by_hand = [
        word
        for word, said in (
            ("fast transition", name.fast_transition),
            ("steering", name.steering),
            ("DTIM", name.dtim),
            ("lowest rate", name.lowest_rate_mbps),
        )
        if said is not None
    ]
    more = f"; by hand: {', '.join(by_hand)}" if by_hand else ""
    if network.purpose == "devices":
        return f"sensors: DTIM {dtim}, {rate} Mb/s for devices that need it{more}"
    each, split = apart_by(rules, name)
    fast = fast_transition_of(design, rules, name)
    roam = "calls survive roaming" if fast else "no fast transition: whoever cannot do it joins too"
    roam = "each access point has a name of its own, so that devices stay where they are" if each else roam
    waits = "spares phones' batteries" if dtim > 1 else "lets nothing wait"
    bands = "; a name for each band" if split else ""
    return f"{roam}; DTIM {dtim} {waits}; {rate} Mb/s shortens beacons{bands}{more}"


def network_sheets(design: Design, rules: Rules) -> tuple[NetworkSheet, ...]:
    return tuple(network_sheet(design, rules, n) for n in design.of(Network).values())


_UPLINK = "management untagged, all networks tagged"


@dataclass(frozen=True, eq=False)
class _Ports:
    """The ports of a design by who belongs where."""

    design: Design
    catalogue: Catalogue
    ends: Ends

    @cached_property
    def every(self) -> frozenset[int]:
        return frozenset(n.vlan for n in self.design.of(Network).values())

    @cached_property
    def unmanaged(self) -> frozenset[str]:
        rows = self.design.of(Switch).values()
        return frozenset(s.id for s in rows if not self.catalogue.switches[s.model].managed)

    def names_at(self, device: str) -> set[int]:
        """Return the VLANs of the names that are on an access point."""
        networks = self.design.of(Network)
        rows = self.design.of(WirelessName).values()
        return {networks[n.network].vlan for n in rows if on_air_at(n, device)}

    def tagged(self, device: Device) -> set[int]:
        """Return what a device's link carries beside its own network: its names', and what hangs on it."""
        role = self.catalogue.role_of(device)
        found = self.names_at(device.id) if role.profile.tagged == "names" else set()
        found |= self.every if role.profile.tagged == "all" else set()
        if role.passes_on:
            return found  # it tells nothing apart
        number = 0
        for group in self.catalogue.model_of(device).ports:
            for _ in range(group.count):
                number += 1
                guest = self.ends.guest_at(device.id, number)
                if guest is None and self.ends.said(device.id, number, "given") is None:
                    continue
                network, _, _ = self.ends.of_given(device, number)
                found |= {network.vlan} if network is not None else set()
                found |= self.tagged(guest) if guest is not None else set()
        return found

    def sheet(self, plug: Plug) -> PortSheet:
        """Return a switch's port by what stands at its other end."""
        vlan: int | None = None
        tagged: set[int] = set()
        reason, whose = "unused, so off", "plan"
        device = self.design.of(Device).get(plug.device or "")
        far = far_place(plug.link) is not None
        enabled = bool(plug.role or plug.uplink or far)
        if device is not None:
            network, whose, reason = self._own(device, cable_of_link(plug.link))
            vlan = network.vlan if network is not None else None
            tagged = self.tagged(device)
        elif plug.role:
            role = self.catalogue.roles[plug.role]
            network, whose, reason = self.ends.of_kind(role)
            vlan = network.vlan if network is not None else None
        elif plug.uplink and {plug.switch, plug.uplink_to} & self.unmanaged:
            vlan, reason = self._main(), "an unmanaged switch carries one network"
        elif plug.uplink:
            vlan, tagged, reason = self._management(), set(self.every), f"uplink: {_UPLINK}"
        elif far and plug.switch in self.unmanaged:
            vlan, reason = self._main(), "an unmanaged switch carries one network"
        elif far:
            vlan, tagged, reason = self._management(), set(self.every), f"far place: {_UPLINK}"
        else:
            said = self.ends.said(plug.switch, plug.port, "switch")
            if said is not None:
                enabled, vlan, whose, reason = True, said.vlan, "person", f"{said.name}, by hand"
        return PortSheet(
            switch=plug.switch,
            switch_name=self.design.of(Switch)[plug.switch].name,
            port=plug.port,
            name=plug.name or "",
            enabled=enabled,
            untagged_vlan=vlan,
            tagged_vlans=tuple(sorted(tagged - {vlan})),
            power=plug.power,
            speed_mbps=plug.speed_mbps,
            reason=reason,
            whose=whose,
        )

    def _own(self, device: Device, cable: int) -> tuple[Network | None, Whose, str]:
        """Return the network of a device's own link; a box that tells nothing apart has its first guest's."""
        role = self.catalogue.role_of(device)
        guests = self.ends.guests_of(device.id)
        if role.passes_on and guests and self.ends.said(device.id, cable, "link") is None:
            network, whose, _ = self.ends.of_link(guests[0][1])
            return network, whose, f"{role.name.lower()}: {role.profile.words}"
        return self.ends.of_link(device, cable)

    def _main(self) -> int | None:
        main = self.ends.first.get("main")
        return main.vlan if main is not None else None

    def _management(self) -> int | None:
        management = self.ends.first.get("management")
        return management.vlan if management is not None else self._main()

    def given(self) -> Iterator[PortSheet]:
        """Yield the ports of devices that others can be plugged into, such as a wall plate's."""
        for device in self.design.of(Device).values():
            if self.catalogue.role_of(device).passes_on:
                continue  # nothing is set on it
            number = 0
            for group in self.catalogue.model_of(device).ports:
                for _ in range(group.count):
                    number += 1
                    guest = self.ends.guest_at(device.id, number)
                    network, whose, reason = self.ends.of_given(device, number)
                    who = f"for {guest.name}" if guest is not None else "for who is plugged in there"
                    vlan = network.vlan if network is not None else None
                    tagged = self.tagged(guest) if guest is not None else set()
                    yield PortSheet(
                        switch=device.id,
                        switch_name=device.name,
                        port=number,
                        name=guest.name if guest is not None else "",
                        enabled=True,
                        untagged_vlan=vlan,
                        tagged_vlans=tuple(sorted(tagged - {vlan})),
                        power=group.poe_class is not None,
                        speed_mbps=group.speed_mbps,
                        reason=f"{who}: {reason}",
                        whose=whose,
                    )


def port_sheets(design: Design, catalogue: Catalogue, plugs: Sequence[Plug]) -> tuple[PortSheet, ...]:
    """Return every port's profile by what stands at its other end, then the ports that devices
    themselves give on."""
    ports = _Ports(design, catalogue, ends_of(design, catalogue))
    return (*(ports.sheet(plug) for plug in plugs), *ports.given())


def beacon_share(rules: Rules, names: int, sharing: int, lowest_rate_mbps: int) -> float:
    """Return the share of the air that beacons take on one channel.

    Args:
        names: wireless names on each access point.
        sharing: access points that share the channel and hear each other, itself included.
    """
    return names * sharing * rules[f"settings.beacon_share.{lowest_rate_mbps}"]
