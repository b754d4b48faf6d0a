"""How frames go: from every host over the ports that it hangs on up to the router, VLAN by VLAN."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

from ..catalogue import Catalogue
from ..context.on_air import on_air_at
from ..context.plugged import plugged_of
from ..context.run_decisions import cable_of_link, said_over_air
from ..design import Design, Device, Network, Switch, WirelessName
from .membership import Ends, Whose
from .sheet import Plug, PortSheet

INTERNET = "internet"


@dataclass(frozen=True)
class Hop:
    """A thing that frames go through: what it is, and the link that they come over to it."""

    kind: str
    element: str
    words: str
    link: str = ""


@dataclass(frozen=True)
class Host:
    """Whoever may open a connection: at a device's own link, a socket, a port that is given on, a spare port
    of a switch, or on the air of a name at an access point. ``network`` is the one it is planned on."""

    id: str
    name: str
    network: str | None
    device: str | None = None
    switch: str | None = None
    port: int = 0
    air: str | None = None
    given: int = 0
    whose: Whose = "plan"
    reason: str = ""


@dataclass(frozen=True)
class Ascent:
    """A host's way up: the VLAN that its frames get, each thing on it, and what stops it before the router.

    ``flat`` names what on the way tells no networks apart, first the nearest to the host.
    """

    vlan: int | None
    hops: tuple[Hop, ...]
    stopped: str = ""
    flat: tuple[str, ...] = ()

    @property
    def access(self) -> str:
        """The thing that the host itself is plugged into, where that tells no networks apart."""
        first = next((h for h in self.hops if h.kind in ("switch", "device")), None)
        plain = self.flat[0] if self.flat else None
        here = plain is not None and first is not None and first.words.startswith(f"{plain} port")
        return plain if plain is not None and here else ""


@dataclass(frozen=True, eq=False)
class Fabric:
    """The switches of a design with their ports as they are set, and every host on them."""

    design: Design
    catalogue: Catalogue
    plugs: Sequence[Plug]
    ports: Sequence[PortSheet]
    ends: Ends
    _ascents: dict[str, Ascent] = field(default_factory=dict)

    @cached_property
    def sheets(self) -> Mapping[tuple[str, int], PortSheet]:
        return {(p.switch, p.port): p for p in self.ports}

    @cached_property
    def up(self) -> Mapping[str, tuple[Plug, Plug | None]]:
        """The way up of each switch: its own port, and that of the switch above; none at the line."""
        by_pair = {(p.switch, p.uplink_to): p for p in self.plugs if p.uplink}
        above: dict[str, tuple[Plug, Plug | None]] = {}
        for switch in self._order:
            for (own, to), plug in by_pair.items():
                if own == switch and (to is None or (to in above and to != own)):
                    above[switch] = plug, by_pair.get((to, own)) if to is not None else None
                    break
        return above

    @cached_property
    def _order(self) -> list[str]:
        """Switches from the line on, each after the one above it."""
        ups = {(p.switch, p.uplink_to) for p in self.plugs if p.uplink}
        found = [s for s, to in ups if to is None]
        for switch in found:
            found += sorted(s for s, to in ups if to == switch and s not in found)
        return found

    @cached_property
    def unmanaged(self) -> frozenset[str]:
        rows = self.design.of(Switch).values()
        return frozenset(s.id for s in rows if not self.catalogue.switches[s.model].managed)

    @cached_property
    def by_vlan(self) -> Mapping[int, Network]:
        return {n.vlan: n for n in reversed(list(self.design.of(Network).values()))}

    @cached_property
    def _plug_of(self) -> Mapping[tuple[str, int], Plug]:
        """The port that each cable of a device is in."""
        return {(p.device, cable_of_link(p.link)): p for p in self.plugs if p.device is not None}

    @cached_property
    def _host_of(self) -> Mapping[str, tuple[str, int]]:
        """The device and port that a device is plugged into."""
        rows = plugged_of(self.design, self.catalogue)
        return {plug.device: (plug.host, plug.port) for plug in rows if not plug.wrong}

    @cached_property
    def hosts(self) -> tuple[Host, ...]:
        return tuple(self._hosts())

    @cached_property
    def by_id(self) -> Mapping[str, Host]:
        return {h.id: h for h in self.hosts}

    def _hosts(self) -> Iterator[Host]:
        devices = self.design.of(Device)
        for plug in self.plugs:
            if plug.device is not None and plug.device in devices:
                device, cable = devices[plug.device], cable_of_link(plug.link)
                network, whose, why = self.ends.of_link(device, cable)
                several = self.catalogue.role_of(device).links == "every_cable"
                key = f"socket:{device.id}:{cable}" if several else f"device:{device.id}"
                name = plug.name or device.name
                yield Host(key, name, _id(network), device.id, port=cable, whose=whose, reason=why)
            elif plug.role and plug.link is not None:
                network, _, _ = self.ends.of_kind(self.catalogue.roles[plug.role])
                yield Host(
                    f"link:{plug.link}", plug.name or plug.link, _id(network), None, plug.switch, plug.port
                )
            elif not plug.uplink and self.ends.said(plug.switch, plug.port, "switch") is not None:
                network = self.ends.said(plug.switch, plug.port, "switch")
                name = f"{self.design.of(Switch)[plug.switch].name} port {plug.port}"
                yield Host(
                    f"port:{plug.switch}:{plug.port}",
                    name,
                    _id(network),
                    None,
                    plug.switch,
                    plug.port,
                    whose="person",
                    reason="a spare port, by hand",
                )
        for device in devices.values():
            if device.id in self._host_of:
                network, whose, why = self.ends.of_link(device)
                key = f"device:{device.id}"
                yield Host(key, device.name, _id(network), device.id, port=1, whose=whose, reason=why)
        yield from self._given()
        yield from self._on_air()

    def _given(self) -> Iterator[Host]:
        for sheet in self.ports:
            device = self.design.of(Device).get(sheet.switch)
            if device is None or self.ends.guest_at(device.id, sheet.port) is not None:
                continue
            network, whose, why = self.ends.of_given(device, sheet.port)
            key, name = f"given:{device.id}:{sheet.port}", f"{device.name} port {sheet.port}"
            yield Host(key, name, _id(network), device.id, given=sheet.port, whose=whose, reason=why)

    def _on_air(self) -> Iterator[Host]:
        for name in self.design.of(WirelessName).values():
            for device in self.design.of(Device).values():
                if device.model in self.catalogue.airs and on_air_at(name, device.id):
                    key = f"air:{name.id}:{device.id}"
                    yield Host(key, f"{name.ssid} at {device.name}", name.network, device.id, air=name.id)

    # -- the way up --------------------------------------------------------------------------------

    def ascent(self, host: Host) -> Ascent:
        """Return a host's way up to the router."""
        if host.id not in self._ascents:
            self._ascents[host.id] = self._ascent(host)
        return self._ascents[host.id]

    def _ascent(self, host: Host) -> Ascent:
        hops: list[Hop] = []
        flat: list[str] = []
        tag: int | None = None  # of its frames on the cable just now, none for untagged
        device = self.design.of(Device).get(host.device or "")
        if host.air is not None and device is not None:
            name = self.design.of(WirelessName)[host.air]
            tag = self.design.of(Network)[name.network].vlan
            hops.append(Hop("device", device.id, f"{device.name}, on {name.ssid}"))
        elif host.given and device is not None:
            sheet = self.sheets.get((device.id, host.given))
            tag = sheet.untagged_vlan if sheet is not None else None
            hops.append(Hop("device", device.id, f"{device.name} port {host.given}"))
        if device is None:
            return self._through(host.switch or "", host.port, None, hops, flat, "")
        cable = host.port or 1
        while device.id in self._host_of:
            above, port = self._host_of[device.id]
            link, sheet = f"run-{device.id}", self.sheets.get((above, port))
            device, cable = self.design.of(Device)[above], 1
            hops.append(Hop("device", device.id, f"{device.name} port {port}", link))
            if sheet is None:
                flat.append(device.name)  # it tells nothing apart
            elif tag is None:
                tag = sheet.untagged_vlan
            elif not carries(sheet, tag):
                stop = f"{device.name} port {port} does not carry VLAN {tag}"
                return Ascent(tag, tuple(hops), stop, tuple(flat))
        plug = self._plug_of.get((device.id, cable))
        if plug is None and device.id in said_over_air(self.design):
            return Ascent(tag, (*hops, Hop("air", device.id, "over the air to the others")), "", tuple(flat))
        if plug is None:
            return Ascent(tag, tuple(hops), f"{device.name} has no port", tuple(flat))
        return self._through(plug.switch, plug.port, tag, hops, flat, f"run-{device.id}")

    def _through(
        self, switch: str, port: int, tag: int | None, hops: list[Hop], flat: list[str], link: str
    ) -> Ascent:
        """Go on from a switch's port up to the router. A plain switch lets tags through and knows of none."""
        switches = self.design.of(Switch)

        def stopped(at: int | None, why: str) -> Ascent:
            return Ascent(at, tuple(hops), why, tuple(flat))

        while True:
            name, plain = switches[switch].name, switch in self.unmanaged
            hops.append(Hop("switch", switch, f"{name} port {port}", link))
            sheet = self.sheets[switch, port]
            if plain:
                flat.append(name)
            elif tag is not None and not carries(sheet, tag):
                return stopped(tag, f"{name} port {port} does not carry VLAN {tag}")
            vlan = tag if plain or tag is not None else sheet.untagged_vlan
            if switch not in self.up:
                return stopped(vlan, f"{name} has no way up")
            own, above = self.up[switch]
            out = self.sheets[switch, own.port]
            if not plain and (vlan is None or not carries(out, vlan)):
                said = f"VLAN {vlan}" if vlan is not None else "what has no network"
                return stopped(vlan, f"{name} port {own.port}, its way up, does not carry {said}")
            if above is None:
                main = self.ends.first.get("main")
                landed = vlan if vlan is not None else main.vlan if main is not None else None
                hops.append(Hop("router", self._router, self._router_name))
                return Ascent(landed, tuple(hops), "", tuple(flat))
            tag = vlan if plain or vlan != out.untagged_vlan else None
            link = f"up-{switches[switch].equipment_room}"
            switch, port = above.switch, above.port

    @cached_property
    def _router_device(self) -> Device | None:
        rows = self.design.of(Device).values()
        return next((d for d in rows if self.catalogue.role_of(d).leads_out), None)

    @property
    def _router(self) -> str:
        return self._router_device.id if self._router_device is not None else ""

    @property
    def _router_name(self) -> str:
        if self._router_device is not None:
            return self._router_device.name
        return self.design.site.upstream_gear or "the line's own router"

    def lands_on(self, host: Host) -> Network | None:
        """Return the network that a host's frames are in, whatever it is planned on."""
        vlan = self.ascent(host).vlan
        return self.by_vlan.get(vlan) if vlan is not None else None

    def landing_id(self, host: Host) -> str | None:
        return _id(self.lands_on(host))


def carries(sheet: PortSheet, vlan: int) -> bool:
    """Whether a port lets the frames of a VLAN through."""
    return vlan == sheet.untagged_vlan or vlan in sheet.tagged_vlans


def _id(network: Network | None) -> str | None:
    return network.id if network is not None else None
