"""Findings of the brief: what was asked for and is not in the plan yet."""

from __future__ import annotations

import itertools
from collections import Counter
from collections.abc import Iterator, Sequence

from shapely.geometry import LineString, Point, Polygon

from ..base.wording import some
from ..catalogue import Catalogue, DeviceModel, Role
from ..context.findings import Cure, Finding, Place
from ..context.on_air import fast_transition_of
from ..design import (
    ClientGroup,
    Complaint,
    Design,
    Device,
    EquipmentRoom,
    Network,
    Space,
    Switch,
    WirelessName,
    Zone,
    free_number,
    put,
)
from .found import Opinion
from .later import Reserve
from .pains import PainVerdict
from .stand import SiteStatus
from .visit import usual_uses
from .wishes import Wish

_FROM_WALL_M = 0.15
# A device, a storey, the points of its run there.
RunPath = tuple[str, str, tuple[tuple[float, float], ...]]


def brief_findings(
    stand: SiteStatus,
    pains: Sequence[PainVerdict],
    wishes: Sequence[Wish],
    found: Sequence[Opinion],
    reserves: Sequence[Reserve],
    paths: Sequence[RunPath],
) -> Iterator[Finding]:
    """Yield the findings of the brief stage."""
    yield from _facts(stand.design, stand.catalogue)
    for pain in pains:
        if pain.outcome != "mended":
            yield _pain(stand, pain)
    for wish in wishes:
        if wish.missing:
            yield _wish(stand, wish)
    for row in found:
        yield from _found(stand, row)
    for reserve in reserves:
        if reserve.verdict != "met":
            yield _later(stand, reserve)
    yield from _drilling(stand, paths)
    yield from _old(stand)


def _facts(design: Design, catalogue: Catalogue) -> Iterator[Finding]:
    site, source = design.site, catalogue.rules.sources["practice"].name
    closed = site.quiet_day is not None and site.quiet_day == catalogue.site_kinds[site.kind].quiet_day
    if site.opens < site.closes and site.opens <= site.quiet_hour < site.closes and not closed:
        usual = catalogue.site_kinds[site.kind].quiet_hour
        cures: tuple[Cure, ...] = ()
        if not site.opens <= usual < site.closes:
            changed = site.model_copy(update={"quiet_hour": usual})
            cures = (Cure(label=f"Update at {usual}", changes=(put(changed),)),)
        yield Finding(
            id="brief-quiet",
            stage="brief",
            severity="near",
            text=f"Updates are planned at {site.quiet_hour}, while the place is open "
            f"({site.opens} to {site.closes}).",
            rule="updates run while nobody works",
            source=source,
            cures=cures,
        )
    if site.start_on and site.due_on and site.due_on < site.start_on:
        yield Finding(
            id="brief-dates",
            stage="brief",
            severity="not_met",
            text=f"The job is due on {site.due_on}, before it begins on {site.start_on}.",
            rule="a job ends after it begins",
            source=source,
        )
    changes = usual_uses(design, catalogue)
    if changes:
        kind = catalogue.site_kinds[site.kind].label.lower()
        names = [str(c.element["name"]) for c in changes if c.op == "put"]
        shown = ", ".join(names[:4]) + (f" and {len(names) - 4} more" if len(names) > 4 else "")
        yield Finding(
            id="brief-uses",
            stage="brief",
            severity="note",
            text=f"By their names some rooms have another use than everyday data: {shown}.",
            rule=f"usual uses of the rooms of a {kind}",
            source=source,
            cures=(
                Cure(
                    label="Set the usual uses",
                    effect=f"{len(names)} rooms; each can be changed again",
                    changes=tuple(changes),
                ),
            ),
        )


def _old(stand: SiteStatus) -> Iterator[Finding]:
    """Yield that old clients are noted and no name is one that they can join."""
    design, catalogue = stand.design, stand.catalogue
    groups = [g for g in design.of(ClientGroup).values() if g.old and g.count > g.wired]
    groups = [g for g in groups if catalogue.clients[g.kind].power_dbm]
    names = [
        n
        for n in design.of(WirelessName).values()
        if "2.4" in n.bands
        and n.security in ("wpa2", "wpa3_wpa2")
        and not fast_transition_of(design, catalogue.rules, n)
    ]
    if not groups or names:
        return
    spaces = design.of(Space)
    count = sum(g.count - g.wired for g in groups)
    rooms = some(list(dict.fromkeys(spaces[g.space].name for g in groups)))
    yield Finding(
        id="brief-old",
        stage="brief",
        severity="not_met",
        text=f"{count} older clients, in {rooms}, speak 2.4 GHz and WPA2 alone and fail with fast "
        "transition; no name is one that they can join. On a wire they come up at 100 Mb/s.",
        places=tuple(
            Place(kind="space", id=k, floor=spaces[k].floor) for k in dict.fromkeys(g.space for g in groups)
        ),
        rule="older clients find a name on 2.4 GHz with WPA2 and without fast transition",
        source=catalogue.rules.sources["practice"].name,
        cures=tuple(_name_for_old(stand)),
    )


_HOSTS: tuple[str, ...] = ("devices", "main", "staff")  # networks that older clients may join


def _name_for_old(stand: SiteStatus) -> Iterator[Cure]:
    """Offer a name of their own on the network for devices, else on the main one."""
    design = stand.design
    networks = sorted(
        (n for n in design.of(Network).values() if n.purpose in _HOSTS), key=lambda n: _HOSTS.index(n.purpose)
    )
    if not networks:
        return
    host, known = networks[0], design.of(WirelessName)
    key = f"ssid-old-{free_number(known, 'ssid-old')}"
    first = next(iter(known.values()), None)
    ssid = f"{first.ssid if first is not None else host.name} older"[:32]
    name = WirelessName(
        id=key, network=host.id, ssid=ssid, bands=("2.4",), security="wpa2", fast_transition=False
    )
    effect = f"on {host.name}; one more name takes air for its beacons"
    yield Cure(label=f"Add the name {ssid}", effect=effect, changes=(put(name),))


def _pain(stand: SiteStatus, pain: PainVerdict) -> Finding:
    element = stand.design.of(Complaint)[pain.pain]
    words = {"better": "gets better and is not mended", "not_addressed": "is not addressed"}
    return Finding(
        id=f"brief-pain-{pain.pain}",
        stage="brief",
        severity="near" if pain.outcome == "better" else "not_met",
        text=f"“{pain.words or pain.name}” {words[pain.outcome]}: {pain.planned}.",
        places=(Place(kind="pain", id=pain.pain, floor=pain.floor, at=element.at),),
        figure=pain.planned_dbm,
        unit="dBm" if pain.planned_dbm is not None else "",
        rule="what the client complains of is mended",
        source=pain.used[0].source if pain.used else stand.catalogue.rules.sources["practice"].name,
        used=pain.used,
    )


def _wish(stand: SiteStatus, wish: Wish) -> Finding:
    return Finding(
        id=f"brief-wire-{wish.space}",
        stage="brief",
        severity="not_met" if wish.always else "near",
        text=f"{wish.name}: a wire is wished for {wish.who}; {wish.given} of {wish.wanted} "
        f"{'has' if wish.given == 1 else 'have'} one.",
        places=(Place(kind="space", id=wish.space, floor=wish.floor),),
        figure=float(wish.given),
        limit=float(wish.wanted),
        unit="wires",
        rule="a wire that was wished for ends in an outlet with a run, or in the thing itself",
        source=stand.catalogue.rules.sources["practice"].name,
        cures=_placed(stand, wish),
    )


def _placed(stand: SiteStatus, wish: Wish) -> tuple[Cure, ...]:
    """Offer what is missing along the longest wall: things of their own kind, and the fewest outlets
    with as many sockets as the others want."""
    catalogue, design = stand.catalogue, stand.design
    wanted: list[tuple[Role, DeviceModel]] = []
    for kind, count in wish.lacks.items():
        if sold := catalogue.sold(kind):
            wanted += [(catalogue.roles[kind], sold[0])] * count
    outlet = next((r for r in catalogue.roles.values() if r.links == "every_cable"), None)
    if wish.sockets and outlet is not None and (models := catalogue.sold(outlet.kind)):
        models = sorted(models, key=lambda m: m.sockets)
        model = next((m for m in models if m.sockets >= wish.sockets), models[-1])
        wanted += [(outlet, model)] * -(-wish.sockets // model.sockets)
    if not wanted:
        return ()
    space, taken, placed = design.of(Space)[wish.space], set(design.of(Device)), []
    for spot, (role, model) in zip(_along_wall(space, len(wanted)), wanted, strict=True):
        number = free_number(taken, role.stem)
        taken.add(f"{role.stem}-{number}")
        device = Device(
            id=f"{role.stem}-{number}",
            floor=space.floor,
            kind=role.kind,
            model=model.id,
            name=f"{role.prefix}-{number}",
            at=spot,
            height_m=role.height_m or 0.3,
            mount=role.mount,
        )
        placed.append(put(device))
    counts = Counter(model.label for _, model in wanted)
    effect = ", ".join(f"{n} × {label}" for label, n in counts.items())
    one = wanted[0][0].name.lower()
    what = f"{'an' if one[0] in 'aeiou' else 'a'} {one}" if len(wanted) == 1 else f"{len(wanted)} things"
    label = f"Place {what} in {wish.name}"
    return (Cure(label=label, effect=f"{effect}; move it to where it is wanted", changes=tuple(placed)),)


def _along_wall(space: Space, count: int) -> list[tuple[float, float]]:
    """Return spots just inside the longest wall of a room, evenly spread."""
    ring = Polygon(space.outline).exterior.coords
    sides = [LineString(pair) for pair in itertools.pairwise(ring)]
    longest = max(sides, key=lambda s: s.length)
    inside = Polygon(space.outline).representative_point()
    spots = []
    for k in range(count):
        on = longest.interpolate((k + 1) / (count + 1), normalized=True)
        share = min(1.0, _FROM_WALL_M / max(on.distance(inside), 1e-9))
        spots.append((round(on.x + (inside.x - on.x) * share, 2), round(on.y + (inside.y - on.y) * share, 2)))
    return spots


def _found(stand: SiteStatus, row: Opinion) -> Iterator[Finding]:
    against = {("keep", "retire"), ("keep", "test_first")}
    if row.state != "unknown" and (row.state, row.advice) not in against:
        return
    undecided = row.state == "unknown"
    advice = row.advice.replace("_", " ")
    text = f"{row.name} is not decided on. Advice: {advice}, {row.reason}."
    if not undecided:
        text = f"{row.name} is kept, though the advice is: {advice}, {row.reason}."
    yield Finding(
        id=f"brief-found-{row.kind}-{row.id}",
        stage="brief",
        severity="note" if undecided else "near",
        text=text,
        places=(Place(kind=row.kind, id=row.id, floor=row.floor),),
        rule="what is there is kept, retired or tested first",
        source=row.used[0].source if row.used else stand.catalogue.rules.sources["practice"].name,
        used=row.used,
    )


def _later(stand: SiteStatus, row: Reserve) -> Finding:
    return Finding(
        id=f"brief-later-{row.zone}",
        stage="brief",
        severity="not_met",
        text=f"{row.name} comes later and wants {row.ports} ports, {row.powered} of them powered "
        f"with {row.watts:g} W; the plan lacks {row.lacks}.",
        places=(Place(kind="zone", id=row.zone, floor=row.floor),),
        rule="ports, watts and cable are kept for what comes later",
        source=row.used[0].source,
        used=row.used,
        cures=_larger(stand, row),
    )


def _larger(stand: SiteStatus, row: Reserve) -> tuple[Cure, ...]:
    """Offer the cheapest switch beside those there that has what the zone wants."""
    rooms = list(stand.design.of(EquipmentRoom))
    owned = stand.design.of(Switch)
    keep = 1 - stand.design.site.power_headroom
    for model in stand.catalogue.sold_switches if rooms else ():
        enough = model.copper_ports > row.ports and model.powered_ports >= row.powered
        if enough and model.budget_w * keep >= row.watts and model.managed:
            number = free_number(owned, "sw")
            new = Switch(
                id=f"sw-{number}", equipment_room=rooms[0], name=f"SW-{len(owned) + 1}", model=model.id
            )
            effect = f"room for {row.name}; {model.price:+g} {stand.design.site.currency}"
            return (Cure(label=f"Add {model.label}", effect=effect, changes=(put(new),)),)
    return ()


def _drilling(stand: SiteStatus, paths: Sequence[RunPath]) -> Iterator[Finding]:
    devices = stand.design.of(Device)
    for zone in stand.design.of(Zone).values():
        if zone.kind != "no_drilling":
            continue
        area = Polygon(zone.outline)
        through = {
            key
            for key, floor, points in paths
            if floor == zone.floor and len(points) > 1 and LineString(points).intersects(area)
        }
        hung = {
            d.id
            for d in devices.values()
            if d.state == "new" and d.floor == zone.floor and area.contains(Point(d.at))
        }
        if not through | hung:
            continue
        names = [devices[k].name for k in sorted(through | hung) if k in devices]
        shown = ", ".join(names[:4]) + (f" and {len(names) - 4} more" if len(names) > 4 else "")
        yield Finding(
            id=f"brief-drill-{zone.id}",
            stage="brief",
            severity="near",
            text=f"Nothing may be drilled in {zone.name}, and it is on the way of {shown}. Fix "
            "without holes there, or lead the runs another way.",
            places=(Place(kind="zone", id=zone.id, floor=zone.floor),),
            rule="rules of the house",
            source=stand.catalogue.rules.sources["house-rule"].name,
        )
