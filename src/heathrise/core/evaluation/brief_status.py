"""How a design stands for the brief: joined of what signal, cable and power have worked out."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping

from ..base.memo import IdentityMemo
from ..brief import BriefChapter, Free, Hop, Level, RunPath, SiteStatus, StoreySpot, Walked, assess_brief
from ..cabling import CableChapter
from ..catalogue import Catalogue
from ..context.plan import Plan
from ..context.scope import has_found_gear
from ..context.storeys import spot_within
from ..design import Complaint, Design, Device, EquipmentRoom, Space, Switch
from ..rack import PowerPlan
from ..signal import (
    MeshLink,
    RadioEnvironment,
    SignalChapter,
    environment_of,
    heard_at,
    mesh_links,
    user_mbps,
)


def planned_stand(
    design: Design,
    catalogue: Catalogue,
    air: RadioEnvironment | None,
    links: CableChapter,
    power: PowerPlan,
    signal: SignalChapter,
) -> SiteStatus:
    """Return how the plan stands once the job is done: what has no cable that does, no port or no
    power takes no part."""
    sockets = _sockets(links, power)
    levels: dict[StoreySpot, tuple[Level, ...]] = {}
    chains: dict[str, tuple[Hop, ...]] = {}
    if air is not None:
        points = {d for d, _ in air.radios}
        mesh = {k.device: k for k in mesh_links(air)}
        dead = frozenset(_unconnected(design, links, power) & points - set(mesh))
        levels = _levels(air.without(dead) if dead else air)
        chains = {d: tuple(_chain(air, mesh, links, power, d)) for d in points - dead}
    loads = signal.busy.loads if signal.busy is not None else ()
    return SiteStatus(
        design,
        catalogue,
        levels,
        {},
        sockets,
        _free(design, power),
        chains,
        {(load.device, load.band): load.total for load in loads},
        _walks(air, signal),
        {r.device: r.reason for r in links.runs if r.verdict in ("not_met", "test_first")},
    )


def _unconnected(design: Design, links: CableChapter, power: PowerPlan) -> set[str]:
    """Return what no way leads to, or what is left without a port or power; nothing as long as no
    rack is placed, and no switch in it."""
    if not design.of(EquipmentRoom):
        return set()
    no_way = {r.device for r in links.runs if r.verdict == "no_way"}
    left = {row.device for row in power.left} if power.switches else set()
    unplugged = {plug.device for plug in power.plugged if plug.wrong}
    return no_way | left | unplugged | {p.device for p in power.plugged if p.host in no_way | left}


def _sockets(links: CableChapter, power: PowerPlan) -> dict[str, int]:
    """Return by device how many of its cables do for their speed and end in a port."""
    good = {r.device: r for r in links.runs if r.verdict in ("met", "near")}
    found: dict[str, int] = {}
    if not power.switches:
        found = {key: run.cables for key, run in good.items()}
    for port in power.ports:
        if port.device in good:
            found[port.device] = found.get(port.device, 0) + 1
    found |= {p.device: 1 for p in power.plugged if not p.wrong and p.host in found}
    return found


def _chain(
    air: RadioEnvironment, mesh: Mapping[str, MeshLink], links: CableChapter, power: PowerPlan, device: str
) -> Iterator[Hop]:
    """Yield the links between an access point and the line that are really in its way."""
    design, catalogue = air.design, air.catalogue
    devices = design.of(Device)
    last = device
    if device in mesh and mesh[device].parent is not None:
        link = mesh[device]
        yield Hop(f"the air to {link.parent_name}", link.user_mbps)
        last = next((d.id for d in devices.values() if d.name == link.path[-1]), device)
    yield Hop(devices[last].name, float(catalogue.model_of(devices[last]).speed_mbps))
    plug = next((p for p in power.plugged if p.device == last and not p.wrong), None)
    if plug is not None:
        yield Hop(f"{plug.host_name} port {plug.port}", float(plug.speed_mbps))
        last = plug.host
    run = next((r for r in links.runs if r.device == last), None)
    port = next((p for p in power.ports if p.device == last), None)
    if port is not None:
        mbps = min(port.speed_mbps, port.wanted_mbps or port.speed_mbps)
        switch = design.of(Switch)[port.switch].name
        yield Hop(f"{switch} port {port.port}", float(mbps))
        ways = {w.switch: w for w in power.ways_up}
        at: str | None = port.switch
        while at in ways:
            way = ways[at]
            yield Hop(f"{way.name} to {way.to_name}", float(way.speed_mbps))
            at = way.to
    elif run is not None:
        yield Hop(f"the cable of {run.name}", float(run.speed_mbps))
    yield Hop("the line", float(design.site.line_mbps))


def _walks(air: RadioEnvironment | None, signal: SignalChapter) -> tuple[Walked, ...]:
    """Return the walks of the brief as they are carried by the plan."""
    if air is None:
        return ()
    found = []
    for habit in signal.habits or ():
        if habit.verdict == "no_way":
            continue
        points = tuple((p.floor, p.at) for p in habit.points)
        found.append(
            Walked(habit.name, habit.verdict == "holds", habit.text.rstrip("."), points, tuple(habit.clings))
        )
    return tuple(found)


def brief_chapter(plan: Plan, planned: SiteStatus) -> BriefChapter:
    """Return the brief's chapter, with how things stand today where any gear was found."""
    today: SiteStatus | None = None
    if has_found_gear(plan.drawn):
        found = plan.as_it_is()
        today = _found.get((found.design, found.catalogue), None, lambda: _as_found(found))
    return assess_brief(plan.drawn, plan.catalogue, planned, today)


_found: IdentityMemo[SiteStatus] = IdentityMemo(64)


def _as_found(found: Plan) -> SiteStatus:
    air = environment_of(found)
    chains = {d: tuple(_today(air, d)) for d, _ in air.radios}
    return SiteStatus(found.design, found.catalogue, _levels(air), _served(air), chains=chains)


def _today(air: RadioEnvironment, device: str) -> Iterator[Hop]:
    """Yield what is known of the way from an access point that was found to the line."""
    design, row = air.design, air.design.of(Device)[device]
    model = air.catalogue.model_of(row)
    repeats = "repeats over the air" if model.over_air else f"{model.speed_mbps:g} Mb/s"
    mbps = model.speed_mbps / 2 if model.over_air else model.speed_mbps
    yield Hop(f"{row.name}, {repeats}", float(mbps))
    for switch in design.of(Switch).values():
        groups = air.catalogue.switches[switch.model].groups
        yield Hop(switch.name, float(max(g.speed_mbps for g in groups)))
    yield Hop("the line", float(design.site.line_mbps))


def paths_of(links: CableChapter) -> list[RunPath]:
    """Return where the run of each device lies, storey by storey."""
    return [(run.device, leg.floor, leg.points) for run in links.runs for leg in run.legs]


def _levels(air: RadioEnvironment) -> dict[StoreySpot, tuple[Level, ...]]:
    return {
        (pain.floor, pain.at): tuple(
            Level(device.id, band, dbm, user_mbps(air.rules, dbm, air.width_mhz(band)))
            for device, band, dbm in heard_at(air, pain.floor, pain.at)
        )
        for pain in air.design.of(Complaint).values()
    }


def _served(air: RadioEnvironment) -> dict[str, int]:
    """Return how many rooms each access point serves: is heard best in the middle of."""
    found: Counter[str] = Counter()
    for space in air.design.of(Space).values():
        if space.use == "none":
            continue
        heard = heard_at(air, space.floor, spot_within(space))
        if heard:
            found[max(heard, key=lambda row: row[2])[0].id] += 1
    return dict(found)


def _free(design: Design, power: PowerPlan) -> Free:
    headroom = 1 - design.site.power_headroom
    return Free(
        ports=sum(s.ports - s.ports_used for s in power.switches),
        powered=sum(s.powered_ports - s.powered_used for s in power.switches),
        watts=sum(max(0.0, s.budget_w * headroom - s.counted_w) for s in power.switches),
    )
