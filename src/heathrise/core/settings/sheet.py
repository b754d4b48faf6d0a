"""The settings sheet: every value with the reason for it."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from ..bands import Band
from ..catalogue import Rules
from ..design import Design, Device, Network, Switch, WirelessName
from .networks import NetworkSheet, network_sheet

Origin = Literal["plan", "house rule", "person"]


class RadioSheet(BaseModel):
    """One radio: channel, width in MHz, power and EIRP in dBm, with reasons."""

    model_config = ConfigDict(frozen=True)

    device: str
    name: str
    model: str
    band: Band
    on: bool
    channel: int
    width_mhz: int
    power_dbm: float
    eirp_dbm: float
    cap_dbm: float
    origin: Origin
    channel_reason: str
    power_reason: str
    contenders: tuple[str, ...] = ()
    radar: bool = False


class NameSheet(BaseModel):
    """One wireless name; its key is made when the controller is set up and never kept here."""

    model_config = ConfigDict(frozen=True)

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


class PortSheet(BaseModel):
    """One switch port: untagged and tagged VLANs, power, speed in Mb/s."""

    model_config = ConfigDict(frozen=True)

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


class SettingsSheet(BaseModel):
    """All that the controller will hold, and which channels each band has on this site."""

    model_config = ConfigDict(frozen=True)

    networks: tuple[NetworkSheet, ...]
    names: tuple[NameSheet, ...]
    radios: tuple[RadioSheet, ...]
    ports: tuple[PortSheet, ...]
    mesh: bool = False
    mesh_reason: str
    optimiser: bool = False
    optimiser_reason: str = "channels and power are by plan; look again after a measured scan"
    channels: dict[Band, tuple[int, ...]] = Field(default_factory=dict)
    channels_proven: bool = True
    channels_note: str = ""


class Plug(BaseModel):
    """What settings need to know of a port: who is in it."""

    model_config = ConfigDict(frozen=True)

    switch: str
    port: int
    device: str | None
    name: str | None
    speed_mbps: int
    power: bool
    uplink: bool = False
    uplink_to: str | None = None


def mesh_reason(design: Design, wired: Collection[str]) -> str:
    """Return why mesh stays off; ``wired`` holds the devices that a run reaches."""
    points = [d for d in design.of(Device).values() if d.kind == "access_point"]
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
    """The VLANs that ports are given: by purpose, those of the wireless names, all of them."""

    main: int | None
    management: int | None
    cameras: int | None
    names: frozenset[int]
    every: frozenset[int]

    @classmethod
    def of(cls, design: Design) -> _Vlans:
        networks = design.of(Network)
        first: dict[str, int] = {n.purpose: n.vlan for n in reversed(list(networks.values()))}
        main = first.get("main")
        return cls(
            main=main,
            management=first.get("management", main),
            cameras=first.get("cameras"),
            names=frozenset(networks[n.network].vlan for n in design.of(WirelessName).values()),
            every=frozenset(n.vlan for n in networks.values()),
        )

    def tagged(self, vlans: frozenset[int]) -> tuple[int, ...]:
        return tuple(sorted(vlans - {self.management}))


def port_sheets(
    design: Design, plugs: Sequence[Plug], unmanaged: Collection[str] = ()
) -> tuple[PortSheet, ...]:
    """Return every port's profile: by what stands at the other end.

    ``unmanaged`` holds the switches that know no VLANs.
    """
    vlans = _Vlans.of(design)
    switches, devices = design.of(Switch), design.of(Device)
    return tuple(
        _port_sheet(plug, switches[plug.switch].name, devices, vlans, frozenset(unmanaged))
        for plug in plugs
    )


def _port_sheet(
    plug: Plug,
    switch_name: str,
    devices: Mapping[str, Device],
    vlans: _Vlans,
    unmanaged: frozenset[str],
) -> PortSheet:
    kind = devices[plug.device].kind if plug.device else None
    untagged: int | None = None
    tagged: tuple[int, ...] = ()
    reason = "unused, so off"
    if kind == "access_point":
        untagged, tagged = vlans.management, vlans.tagged(vlans.names)
        reason = "access point: management untagged, the names' networks tagged"
    elif kind == "camera":
        untagged, reason = vlans.cameras, "camera: its own network only"
        if untagged is None:
            untagged, reason = vlans.main, "camera on the main network: none is planned for cameras"
    elif kind == "outlet":
        untagged, reason = vlans.main, "outlet: main network, nothing tagged"
    elif plug.uplink and {plug.switch, plug.uplink_to} & unmanaged:
        untagged, reason = vlans.main, "an unmanaged switch carries one network"
    elif plug.uplink:
        untagged, tagged = vlans.management, vlans.tagged(vlans.every)
        reason = "uplink: management untagged, all networks tagged"
    return PortSheet(
        switch=plug.switch,
        switch_name=switch_name,
        port=plug.port,
        name=plug.name or "",
        enabled=kind is not None or plug.uplink,
        untagged_vlan=untagged,
        tagged_vlans=tagged,
        power=plug.power,
        speed_mbps=plug.speed_mbps,
        reason=reason,
    )


def beacon_share(rules: Rules, names: int, sharing: int, lowest_rate_mbps: int) -> float:
    """Return the share of the air that beacons take on one channel.

    Args:
        names: wireless names on each access point.
        sharing: access points that share the channel and hear each other, itself included.
    """
    return names * sharing * rules[f"settings.beacon_share.{lowest_rate_mbps}"]
