"""The settings sheet: every value with the reason for it."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import ClassVar

from ..base.bands import Band
from ..base.frozen import Frozen
from ..catalogue import Catalogue, PortProfile, Role, Rules
from ..context.plugged import plugged_of
from ..context.run_decisions import said_over_air
from ..design import Design, Device, Network, Switch, WirelessName
from .networks import NetworkSheet, network_sheet


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


class ServiceSheet(Frozen):
    """What goes over a cable beside the networks, in a VLAN of its own."""

    KEY: ClassVar = ("service",)

    service: str
    name: str
    vlan: int
    reason: str


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


def name_sheets(design: Design, rules: Rules) -> tuple[NameSheet, ...]:
    """Return the wireless names with the house rules applied."""
    networks = design.of(Network)
    sheets: list[NameSheet] = []
    for name in design.of(WirelessName).values():
        network = networks[name.network]
        sheets.append(
            NameSheet(
                id=name.id,
                ssid=name.ssid,
                network=network.name,
                vlan=network.vlan,
                bands=name.bands,
                security=name.security,
                client_isolation=name.client_isolation,
                fast_transition=name.fast_transition,
                steering=len(name.bands) > 1,
                dtim=int(rules[f"settings.dtim.{network.purpose}"]),
                lowest_rate_mbps=lowest_rate_mbps(rules, network),
                reason=_name_reason(rules, name, network),
            )
        )
    return tuple(sheets)


def lowest_rate_mbps(rules: Rules, network: Network) -> int:
    """Return the lowest rate of a name on a network: lower where sensors may need it."""
    return int(rules.text(f"settings.lowest_rate_mbps.{network.purpose}"))


def _name_reason(rules: Rules, name: WirelessName, network: Network) -> str:
    rate = lowest_rate_mbps(rules, network)
    if network.purpose == "devices":
        return f"sensors: default DTIM, {rate} Mb/s for devices that need it"
    dtim = rules[f"settings.dtim.{network.purpose}"]
    roam = "calls survive roaming" if name.fast_transition else "fast transition off by hand"
    return f"{roam}; DTIM {dtim:g} spares phones' batteries; {rate} Mb/s shortens beacons"


def network_sheets(design: Design, rules: Rules) -> tuple[NetworkSheet, ...]:
    return tuple(network_sheet(design, rules, n) for n in design.of(Network).values())


@dataclass(frozen=True)
class _Vlans:
    """The VLANs that ports are given: the first of each purpose, the names', all of them."""

    first: Mapping[str, int]
    names: frozenset[int]
    every: frozenset[int]

    @classmethod
    def of(cls, design: Design) -> _Vlans:
        networks = design.of(Network)
        return cls(
            first={n.purpose: n.vlan for n in reversed(list(networks.values()))},
            names=frozenset(networks[n.network].vlan for n in design.of(WirelessName).values()),
            every=frozenset(n.vlan for n in networks.values()),
        )

    @property
    def main(self) -> int | None:
        return self.first.get("main")

    def untagged(self, profile: PortProfile) -> int | None:
        return self.first.get(profile.untagged, self.main)

    def tagged(self, profile: PortProfile) -> tuple[int, ...]:
        several = {"none": frozenset[int](), "names": self.names, "all": self.every}
        return tuple(sorted(several[profile.tagged] - {self.untagged(profile)}))


_UPLINK = PortProfile(untagged="management", tagged="all", words="management untagged, all networks tagged")
_GIVEN = PortProfile(untagged="main", words="main network, nothing tagged")


def port_sheets(design: Design, catalogue: Catalogue, plugs: Sequence[Plug]) -> tuple[PortSheet, ...]:
    """Return every port's profile by what stands at its other end, then the ports that devices
    themselves give on."""
    vlans = _Vlans.of(design)
    guests = _Guests.of(design, catalogue)
    switches = design.of(Switch)
    unmanaged = frozenset(s.id for s in switches.values() if not catalogue.switches[s.model].managed)
    return (
        *(_port_sheet(design, catalogue, plug, vlans, unmanaged, guests) for plug in plugs),
        *_given_ports(design, catalogue, vlans, guests),
    )


def _port_sheet(
    design: Design,
    catalogue: Catalogue,
    plug: Plug,
    vlans: _Vlans,
    unmanaged: frozenset[str],
    guests: _Guests,
) -> PortSheet:
    profile: PortProfile | None = None
    reason = "unused, so off"
    if plug.role:
        role = catalogue.roles[plug.role]
        profile, reason = role.profile, f"{role.name.lower()}: {role.profile.words}"
        if profile.alone and profile.untagged not in vlans.first:
            reason = f"{role.name.lower()} on the main network: none is planned for "
            reason += profile.untagged
        if role.passes_on:
            profile = guests.alike(plug.device) or profile
            reason = f"{role.name.lower()}: {role.profile.words}"
    elif plug.uplink and {plug.switch, plug.uplink_to} & unmanaged:
        profile, reason = _GIVEN, "an unmanaged switch carries one network"
    elif plug.uplink:
        profile, reason = _UPLINK, f"uplink: {_UPLINK.words}"
    return PortSheet(
        switch=plug.switch,
        switch_name=design.of(Switch)[plug.switch].name,
        port=plug.port,
        name=plug.name or "",
        enabled=profile is not None,
        untagged_vlan=vlans.untagged(profile) if profile else None,
        tagged_vlans=guests.behind(plug.device, vlans, profile) if profile else (),
        power=plug.power,
        speed_mbps=plug.speed_mbps,
        reason=reason,
    )


@dataclass(frozen=True)
class _Guests:
    """What is plugged into devices: by host and port the kind and the name of each."""

    at: Mapping[tuple[str, int], tuple[Role, str]]

    @classmethod
    def of(cls, design: Design, catalogue: Catalogue) -> _Guests:
        devices = design.of(Device)
        return cls(
            {
                (plug.host, plug.port): (catalogue.role_of(devices[plug.device]), devices[plug.device].name)
                for plug in plugged_of(design, catalogue)
                if not plug.wrong
            }
        )

    def alike(self, device: str | None) -> PortProfile | None:
        """Return the profile of the first guest of a box that tells nothing apart, None without any."""
        mine = sorted((port, role) for (host, port), (role, _) in self.at.items() if host == device)
        return mine[0][1].profile if mine else None

    def behind(self, device: str | None, vlans: _Vlans, profile: PortProfile) -> tuple[int, ...]:
        """Return what a port carries tagged: its own profile's, and what the device's guests need."""
        mine = {vlans.untagged(r.profile) for (host, _), (r, _) in self.at.items() if host == device}
        for (host, _), (role, _) in self.at.items():
            mine |= set(vlans.tagged(role.profile)) if host == device else set()
        more = {v for v in mine if v is not None and v != vlans.untagged(profile)}
        return tuple(sorted({*vlans.tagged(profile), *more}))


def _given_ports(design: Design, catalogue: Catalogue, vlans: _Vlans, guests: _Guests) -> Iterator[PortSheet]:
    """Yield the ports of devices that others can be plugged into, such as a wall plate's."""
    for device in design.of(Device).values():
        if catalogue.role_of(device).passes_on:
            continue  # nothing is set on it
        number = 0
        for group in catalogue.model_of(device).ports:
            for _ in range(group.count):
                number += 1
                role, name = guests.at.get((device.id, number), (None, ""))
                profile = role.profile if role is not None else _GIVEN
                who = f"for {name}" if role is not None else "for who is plugged in there"
                yield PortSheet(
                    switch=device.id,
                    switch_name=device.name,
                    port=number,
                    name=name,
                    enabled=True,
                    untagged_vlan=vlans.untagged(profile),
                    tagged_vlans=vlans.tagged(profile),
                    power=group.poe_class is not None,
                    speed_mbps=group.speed_mbps,
                    reason=f"{who}: {profile.words}",
                )


def beacon_share(rules: Rules, names: int, sharing: int, lowest_rate_mbps: int) -> float:
    """Return the share of the air that beacons take on one channel.

    Args:
        names: wireless names on each access point.
        sharing: access points that share the channel and hear each other, itself included.
    """
    return names * sharing * rules[f"settings.beacon_share.{lowest_rate_mbps}"]
