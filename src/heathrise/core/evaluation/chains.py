"""From the line to a device as one chain: what each link passes, and which of them binds."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence
from typing import ClassVar, Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..base.wording import some, speed
from ..cabling import RunVerdict, SharedLoad, carried_mbps
from ..catalogue import Catalogue, DeviceModel
from ..context.findings import Finding, Place
from ..context.one_cable import said
from ..context.racks import stand_in_racks
from ..design import Design, Device
from ..rack import PluggedDevice, PortUse, PowerPlan, SwitchUplink
from ..signal import user_mbps

LinkKind = Literal["line", "router", "uplink", "port", "cable", "device", "air"]
_BESIDE_DBM = -45.0  # heard a few steps from an access point
_OWN: frozenset[LinkKind] = frozenset({"line", "device", "air"})  # what no cable work widens


class ChainLink(Frozen):
    """One link of a chain, from the line on; ``mbps`` is what it passes."""

    kind: LinkKind
    name: str
    mbps: float
    element: str = Field("", description="id of the switch or device that it is at")


class Chain(Frozen):
    """From the line to one device. ``binds`` is the place of the narrowest link, ``inside`` that of the
    narrowest behind the router; ``says`` decides in words what it is worth."""

    KEY: ClassVar = ("device",)

    device: str
    name: str
    links: tuple[ChainLink, ...]
    binds: int
    inside: int
    says: str


class ChainChapter(Frozen):
    """A chain for each device that has a port, in order of placing."""

    chains: tuple[Chain, ...] = ()


def chains_of(
    design: Design,
    catalogue: Catalogue,
    runs: Sequence[RunVerdict],
    power: PowerPlan,
    shared: SharedLoad | None = None,
) -> tuple[Chain, ...]:
    """Return a chain for each device that has a port; ``shared`` is what the line shares a cable by."""
    ups = {way.switch: way for way in power.ways_up}
    ports = {use.device: use for use in reversed(power.ports) if use.device is not None}
    names = {s.switch: s.name for s in power.switches}
    router = next((d for d in design.of(Device).values() if catalogue.role_of(d).leads_out), None)
    before = {switch: tuple(_ways_up(switch, ups))[::-1] for switch in names}
    found = []
    for run in runs:
        use = ports.get(run.device)
        if use is None or run.verdict == "no_way":
            continue
        device = design.of(Device)[run.device]
        head = _head(design, catalogue, router, before.get(use.switch, ()), use, names, shared)
        # Most devices have the chain they had while one of them moves.
        found.append(
            _kept.get(
                (design.site, catalogue, device, run),
                head,
                lambda device=device, run=run, head=head: _chain(  # type: ignore[misc]
                    device, (*head, *_tail(design, catalogue, device, run))
                ),
            )
        )
    for key in stand_in_racks(design, catalogue):
        if key in ports:
            device, use = design.of(Device)[key], ports[key]
            head = _head(design, catalogue, router, before.get(use.switch, ()), use, names, shared)
            end = _end(design, catalogue, device, catalogue.model_of(device))
            found.append(_chain(device, (*head, *end)))
    by_device = {chain.device: chain for chain in found}
    for plug in power.plugged:
        host = by_device.get(plug.host)
        if host is not None and not plug.wrong:
            own = next((r for r in runs if r.device == plug.device and r.verdict != "no_way"), None)
            found.append(_chain(design.of(Device)[plug.device], _behind(design, catalogue, host, plug, own)))
    return tuple(found)


def _behind(
    design: Design, catalogue: Catalogue, host: Chain, plug: PluggedDevice, own: RunVerdict | None
) -> tuple[ChainLink, ...]:
    """Return the links to a device that is plugged into another one, or whose run begins there."""
    device = design.of(Device)[plug.device]
    model = catalogue.model_of(device)
    name = f"{plug.host_name} port {plug.port}"
    return (
        *(link for link in host.links if link.kind != "air"),
        ChainLink(kind="port", name=name, mbps=plug.speed_mbps, element=plug.host),
        *(
            _tail(design, catalogue, device, own)
            if own is not None
            else _end(design, catalogue, device, model)
        ),
    )


_kept: IdentityMemo[Chain] = IdentityMemo(4096, weigh=lambda _: 2000)


def _head(
    design: Design,
    catalogue: Catalogue,
    router: Device | None,
    ways: Sequence[ChainLink],
    use: PortUse,
    names: Mapping[str, str],
    shared: SharedLoad | None,
) -> tuple[ChainLink, ...]:
    """Return the links from the line to a port."""
    rows = [ChainLink(kind="line", name="the line", mbps=design.site.line_mbps)]
    if shared is not None:
        name = f"{shared.name}, shared by {said(shared.cable.services)}"
        rows.append(ChainLink(kind="uplink", name=name, mbps=shared.left, element=shared.cable.router))
    if router is not None:
        model = catalogue.model_of(router)
        mbps = model.inspect_mbps or model.speed_mbps
        rows.append(ChainLink(kind="router", name=f"{router.name}, inspecting", mbps=mbps, element=router.id))
    name = f"{names.get(use.switch, use.switch)} port {use.port}"
    return (*rows, *ways, ChainLink(kind="port", name=name, mbps=use.speed_mbps, element=use.switch))


def _tail(design: Design, catalogue: Catalogue, device: Device, run: RunVerdict) -> Iterator[ChainLink]:
    """Yield the links from a port to a device and into its air."""
    carried = carried_mbps(design.site, catalogue.rules, run)
    name = f"cable, category {run.category}" if run.medium == "copper" else f"fibre, {run.category.upper()}"
    yield ChainLink(kind="cable", name=name, mbps=carried, element=device.id)
    yield from _end(design, catalogue, device, catalogue.model_of(device))


def _end(design: Design, catalogue: Catalogue, device: Device, model: DeviceModel) -> Iterator[ChainLink]:
    """Yield a device's own port and its air."""
    yield ChainLink(kind="device", name=f"{device.name}'s own port", mbps=model.speed_mbps, element=device.id)
    if model.air is not None:
        width = design.site.width_5ghz_mhz if "5" in model.air.radios else 20
        mbps = round(user_mbps(catalogue.rules, _BESIDE_DBM, width))
        yield ChainLink(kind="air", name="air, beside it", mbps=mbps, element=device.id)


def _ways_up(switch: str, ups: Mapping[str, SwitchUplink]) -> Iterator[ChainLink]:
    """Yield the ways from a switch up to the line, that nearest to the device first."""
    passed: set[str] = set()
    at: str | None = switch
    while at is not None and at in ups and at not in passed:
        passed.add(at)
        way = ups[at]
        yield ChainLink(kind="uplink", name=f"{way.name} to {way.to_name}", mbps=way.speed_mbps, element=at)
        at = way.to


def to_spot(device: Device, chain: Chain, spot: str, mbps: float) -> Chain:
    """Return a device's chain with what its air passes at a spot in place of that beside it."""
    air = ChainLink(kind="air", name=spot, mbps=mbps, element=device.id)
    return _chain(device, (*(link for link in chain.links if link.kind != "air"), air))


def _chain(device: Device, links: tuple[ChainLink, ...]) -> Chain:
    def narrowest(rows: Sequence[int]) -> int:
        # Of equals the last: what a device itself passes needs no wider way to it.
        return min(rows, key=lambda k: (links[k].mbps, -k))

    every = range(len(links))
    binds = narrowest(every)
    inside = narrowest([k for k in every if links[k].kind not in ("line", "router")])
    return Chain(
        device=device.id,
        name=device.name,
        links=links,
        binds=binds,
        inside=inside,
        says=_said(links, binds, inside),
    )


def _said(links: Sequence[ChainLink], binds: int, inside: int) -> str:
    least, within = links[binds], links[inside]
    if least.mbps <= 0:
        return f"Nothing may be promised: {least.name} does not carry what is asked of it."
    to_line = f"{least.name} is the narrowest, {speed_said(least.mbps)}"
    if least.kind == "line":
        to_line += ": no wider cable or switch makes the internet faster here"
    if within.mbps > least.mbps:
        to_line += f"; between devices inside it is {within.name}, {speed_said(within.mbps)}"
    return f"{to_line[0].upper()}{to_line[1:]}."


def speed_said(mbps: float) -> str:
    return speed(mbps, "\u00a0")


def chain_findings(design: Design, catalogue: Catalogue, chains: Sequence[Chain]) -> Iterator[Finding]:
    """Yield what holds devices back that the line would serve faster, one finding for each such link."""
    held: dict[tuple[LinkKind, str], list[Chain]] = defaultdict(list)
    line = design.site.line_mbps
    for chain in chains:
        link = chain.links[chain.binds]
        if link.kind not in _OWN and 0 < link.mbps < line:
            held[link.kind, link.element].append(chain)
    for (kind, element), rows in held.items():
        link = rows[0].links[rows[0].binds]
        names = some([c.name for c in rows])
        which = f"{link.name[0].upper()}{link.name[1:]}"
        yield Finding(
            id=f"power-chain-{kind}-{element}",
            stage="power",
            severity="near",
            text=f"{which} passes {speed_said(link.mbps)} and holds {names} back; the line has "
            f"{speed_said(line)}.",
            places=tuple(Place(kind="device", id=c.device) for c in rows),
            figure=link.mbps,
            limit=line,
            unit="Mb/s",
            rule="the narrowest link binds",
            source=catalogue.rules.source("cabling.channel_m.6A.1000"),
        )
