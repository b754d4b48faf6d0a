"""What would mend a run that is too long, each worked out for this run: reach, speed, watts, price."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar, Literal

from pydantic import Field
from shapely.geometry import LineString

from ..base.frozen import Frozen
from ..base.wording import metres, some
from ..cabling import (
    OVERHEADS,
    RunVerdict,
    UplinkVerdict,
    carried_mbps,
    judge_runs,
    room_at,
    second_room,
    spot_within,
)
from ..context.findings import Cure
from ..context.integrity import check
from ..context.plan import Plan
from ..context.run_decisions import run_said, said_over_air
from ..context.storeys import storeys_of
from ..design import (
    Change,
    DesignError,
    Device,
    EquipmentRoom,
    Extender,
    Floor,
    Medium,
    Point,
    Space,
    apply,
    put,
    remove,
)
from ..elevation import clear_spot
from ..evaluation.evaluate import Evaluation, evaluate
from ..install import Step
from ..mains import near_socket
from ..order import Order
from ..signal import environment_of, mesh_links
from .bill_of_materials import proven_order
from .work_list import steps_of

_GOOD = ("met", "near")
_SPARES_M = (2.0, 8.0, 16.0)  # of the reach that is left for a rack's own place
_SHELF_M = (0.6, 0.4)  # what a small frame takes, wide and deep
_WORTH_M = 0.5  # a way that is shorter by less is no other way
_NEAR_M = 15.0  # new racks so near to each other are one idea
_SAID = 4
_MEDIA: tuple[Medium, ...] = ("fibre", "copper")
_CABLED = ("uplink", "port", "cable")


class Piece(Frozen):
    """A piece of the way from the rack to the device, against the farthest it may be, m."""

    to: str
    medium: Literal["copper", "fibre", "air"]
    length_m: float
    limit_m: float
    speed_mbps: float
    does: bool


class Remedy(Frozen):
    """One way to mend a run, really worked out. Money with tax, in the site's currency."""

    label: str
    effect: str
    changes: tuple[Change, ...]
    does: bool = Field(description="whether the run then does, with the port and the watts it asks for")
    lacks: str = Field("", description="what is still missing then")
    pieces: tuple[Piece, ...]
    speed_mbps: float = Field(description="what then goes through, from the first rack to the device")
    volts: float | None = Field(None, description="volts at the device, where it is fed over cable")
    fed_by: str = ""
    cable_m: float = Field(description="metres of cable bought more, of copper and fibre together")
    hours: float = Field(description="person-hours more")
    price: float = Field(description="what the job costs more, with tax")
    needs: tuple[str, ...] = Field((), description="what must be there or be made")
    hurts: tuple[str, ...] = Field((), description="cautions of the steps that come with it")
    spoils: tuple[str, ...] = Field((), description="findings that it brings")


class Remedies(Frozen):
    """A device's run as it is, and everything that would mend it: what does first, then the cheapest."""

    KEY: ClassVar = ("device",)

    device: str
    name: str
    currency: str
    reason: str
    length_m: float
    limit_m: float
    wanted_mbps: int
    remedies: tuple[Remedy, ...] = ()


def remedies_of(plan: Plan, device_id: str) -> Remedies:
    """Return what would mend a device's run; nothing where it does as it is."""
    design, catalogue = plan.design, plan.catalogue
    device = design.of(Device)[device_id]
    hasty = plan.hastily()
    before = evaluate(hasty)
    run = next((r for r in before.runs if r.device == device_id), None)
    asked = catalogue.model_of(device).speed_mbps
    if run is None:
        return Remedies(
            device=device_id,
            name=device.name,
            currency=design.site.currency,
            reason="it has no run",
            length_m=0.0,
            limit_m=0.0,
            wanted_mbps=asked,
        )
    found: list[Remedy] = []
    if run.verdict not in _GOOD:
        base = _Base(before, proven_order(hasty), steps_of(hasty))
        seen: set[str] = set()
        for cure in _candidates(hasty, run, device):
            key = repr(cure.changes)
            if key not in seen and (remedy := _worked_out(hasty, base, device, cure)) is not None:
                found.append(remedy)
            seen.add(key)
    found = _unlike(hasty, sorted(found, key=lambda r: (not r.does, r.price)))
    return Remedies(
        device=device_id,
        name=device.name,
        currency=design.site.currency,
        reason=run.reason,
        length_m=run.fixed_m,
        limit_m=run.limit_m,
        wanted_mbps=asked,
        remedies=tuple(found),
    )


def _unlike(plan: Plan, rows: list[Remedy]) -> list[Remedy]:
    """Keep of new racks near to one another, joined by one medium, the first."""
    kept: list[Remedy] = []
    seen: list[tuple[str, Point, str]] = []
    for row in rows:
        rooms = plan.after(row.changes).drawn.of(EquipmentRoom)
        by = row.pieces[0].medium if row.pieces else ""
        new = [(r.floor, r.at, by) for key, r in rooms.items() if key not in plan.drawn.of(EquipmentRoom)]
        if not new or not all(any(_alike(one, other) for other in seen) for one in new):
            kept.append(row)
        seen += new
    return kept


def _alike(one: tuple[str, Point, str], other: tuple[str, Point, str]) -> bool:
    return one[0] == other[0] and one[2] == other[2] and math.dist(one[1], other[1]) < _NEAR_M


class _Base:
    """The plan as it is: what a remedy is compared with."""

    def __init__(self, evaluation: Evaluation, order: Order, steps: list[Step]) -> None:
        self.evaluation = evaluation
        self.order = order
        self.steps = {s.id for s in steps}
        self.findings = {f.id for f in evaluation.findings}
        self.cable_m = _cable_m(evaluation)


def _cable_m(evaluation: Evaluation) -> float:
    return sum(k.bought_m * k.cables for k in evaluation.cable.links if k.verdict != "no_way")


# -- what is tried ---------------------------------------------------------------------------------


def _candidates(plan: Plan, run: RunVerdict, device: Device) -> Iterator[Cure]:
    """Yield what is offered with the finding, then what takes another way or another rack; with those
    the extenders of its run go."""
    for finding in evaluate(plan).findings:
        if finding.id in (f"cable-length-{device.id}", f"cable-way-{device.id}"):
            yield from finding.cures
    gone = tuple(remove(e) for e in plan.design.of(Extender).values() if e.device == device.id)
    bare = plan.after(gone)
    for cure in _other_ways(bare, run if not gone else _run_of(bare, device), device):
        yield cure.model_copy(update={"changes": (*gone, *cure.changes)})


def _run_of(plan: Plan, device: Device) -> RunVerdict:
    return judge_runs(plan.design, plan.catalogue, device)[0]


def _other_ways(plan: Plan, run: RunVerdict, device: Device) -> Iterator[Cure]:
    design, catalogue = plan.design, plan.catalogue
    said = run_said(design, device.id)
    if not said.shortest and run.verdict != "no_way":
        changes = (put(said.model_copy(update={"shortest": True})),)
        (shorter,) = judge_runs(apply(design, changes), catalogue, device)
        if shorter.fixed_m < run.fixed_m - _WORTH_M:
            effect = f"{metres(run.fixed_m)} becomes {metres(shorter.fixed_m)}, whatever it costs to work"
            yield Cure(label="Take the shortest way", effect=effect, changes=changes)
    here = spot_within(design, device.floor, None, device.at)
    room = _room_name(plan, device.floor, here)
    name = f"{device.name} cabinet"[:120]
    for medium in _MEDIA:
        by = "Fibre to a switch with power in" if medium == "fibre" else "Copper to a switch with power in"
        yield from room_at(design, catalogue, run, device, device.floor, here, name, f"{by} {room}", medium)
    yield from second_room(design, catalogue, run, device)
    rack = design.of(EquipmentRoom).get(run.room or "")
    part_way = _part_way(plan, run, device, rack) if rack is not None else None
    if part_way is None or rack is None:
        return
    floor, at = part_way
    room = _room_name(plan, floor, at)
    label = f"A cabinet part-way, in {room}"
    yield from room_at(design, catalogue, run, device, floor, at, "Part-way cabinet", label)
    floors = design.of(Floor)
    if floors[rack.floor].building == floors[floor].building:
        moved = rack.model_copy(update={"floor": floor, "at": at})
        label = f"Move {rack.name} nearer, into {room}"
        yield Cure(label=label, effect="all its runs begin there then", changes=(put(moved),))


def _part_way(plan: Plan, run: RunVerdict, device: Device, rack: EquipmentRoom) -> tuple[str, Point] | None:
    """Return the spot on a run's way that is as near to its rack as the device's reach allows, at a
    wall of its room that is clear, and farther on where the way to that wall is too long."""
    for spare_m in _SPARES_M:
        spot = _spot_on_way(plan, run, spare_m)
        if spot is None:
            return None
        moved = rack.model_copy(update={"floor": spot[0], "at": spot[1]})
        tried = apply(plan.design, [put(moved)])
        if judge_runs(tried, plan.catalogue, device)[0].verdict in _GOOD:
            return spot
    return None


def _spot_on_way(plan: Plan, run: RunVerdict, spare_m: float) -> tuple[str, Point] | None:
    site, design = plan.design.site, plan.design
    reach_m = run.limit_m - site.slack_device_m - site.slack_rack_m - spare_m
    gone, best = 0.0, None
    for leg in reversed(run.legs):
        if leg.kind in OVERHEADS and len(leg.points) > 1 and gone < reach_m:
            back = LineString(leg.points[::-1])
            spot = back.interpolate(min(reach_m - gone, back.length))
            best = leg.floor, (round(spot.x, 2), round(spot.y, 2))
        gone += leg.length_m
    if best is None or gone <= reach_m:
        return None
    floor, at = best
    room = storeys_of(design).room_at(floor, at)
    if not isinstance(room, Space) or room.outdoor:
        return floor, spot_within(design, floor, None, at)
    clear = clear_spot(design, plan.catalogue, room, at, _SHELF_M)
    return floor, clear or spot_within(design, floor, room, at)


def _room_name(plan: Plan, floor: str, at: Point) -> str:
    room = storeys_of(plan.design).room_at(floor, at)
    return room.name if isinstance(room, Space) else "the building"


# -- what comes of it ------------------------------------------------------------------------------


def _worked_out(plan: Plan, base: _Base, device: Device, cure: Cure) -> Remedy | None:
    after = plan.after(cure.changes)
    try:
        check(after.drawn, plan.shelf)
    except DesignError:
        return None
    seen, order, steps = evaluate(after), proven_order(after), steps_of(after)
    pieces = tuple(_pieces(after, seen, device))
    fresh = [s for s in steps if s.id not in base.steps]
    fed = next((d for d in seen.power.devices if d.device == device.id), None)
    lacks = _lacks(seen, device, pieces)
    chain = next((c for c in seen.chains.chains if c.device == device.id), None)
    speed = min((p.speed_mbps for p in pieces), default=0.0)
    if chain is not None:
        speed = min(speed, *(link.mbps for link in chain.links if link.kind in _CABLED))
    return Remedy(
        label=cure.label,
        effect=cure.effect,
        changes=cure.changes,
        does=not lacks,
        lacks=lacks,
        pieces=pieces,
        speed_mbps=round(speed, 1),
        volts=fed.device_v if fed is not None else None,
        fed_by=fed.source if fed is not None and fed.source != "none" else "",
        cable_m=round(_cable_m(seen) - base.cable_m, 1),
        hours=round((order.sum.minutes - base.order.sum.minutes) / 60, 1),
        price=round(order.sum.total - base.order.sum.total, 2),
        needs=tuple(_needs(plan, after, fresh)),
        hurts=tuple(dict.fromkeys(c for s in fresh for c in s.cautions))[:_SAID],
        spoils=tuple(
            f.text
            for f in seen.findings
            if f.id not in base.findings and f.severity == "not_met" and not f.id.endswith(f"-{device.id}")
        )[:_SAID],
    )


def _pieces(plan: Plan, seen: Evaluation, device: Device) -> Iterator[Piece]:
    """Yield the pieces from the first rack on: ways between racks, then the run, or the air."""
    if device.id in said_over_air(plan.design):
        links = {link.device: link for link in mesh_links(environment_of(plan))}
        link = links.get(device.id)
        mbps = link.user_mbps if link is not None else 0.0
        to = (
            f"{link.parent_name}, over the air"
            if link is not None and link.parent_name
            else "nobody hears it"
        )
        yield Piece(to=to, medium="air", length_m=0.0, limit_m=0.0, speed_mbps=round(mbps), does=mbps > 0)
        return
    run = next((r for r in seen.runs if r.device == device.id), None)
    if run is None:
        return
    ups = {u.room: u for u in seen.uplinks}
    yield from reversed(list(_up(run.room, ups)))
    if run.hops:
        for k, hop in enumerate(run.hops):
            far = device.name if k == len(run.hops) - 1 else "extender"
            good = hop.length_m <= hop.limit_m
            yield Piece(
                to=far,
                medium="copper",
                length_m=hop.length_m,
                limit_m=hop.limit_m,
                speed_mbps=hop.speed_mbps,
                does=good,
            )
        return
    yield Piece(
        to=device.name,
        medium="copper",
        length_m=run.fixed_m,
        limit_m=run.limit_m,
        speed_mbps=carried_mbps(plan.design.site, plan.rules, run),
        does=run.verdict in _GOOD,
    )


def _up(room: str | None, ups: dict[str | None, UplinkVerdict]) -> Iterator[Piece]:
    passed: set[str | None] = set()
    while room in ups and room not in passed:
        passed.add(room)
        up = ups[room]
        yield Piece(
            to=up.name,
            medium=up.medium,
            length_m=up.fixed_m,
            limit_m=up.limit_m,
            speed_mbps=up.speed_mbps,
            does=up.verdict in _GOOD,
        )
        room = up.to_room


def _lacks(seen: Evaluation, device: Device, pieces: tuple[Piece, ...]) -> str:
    """Return what a remedy leaves undone; nothing where the device then has all it asks for."""
    if not pieces:
        return "it still has no run"
    short = next((p for p in pieces if not p.does), None)
    if pieces[-1].medium == "air":
        return "no access point with a cable hears it" if short is not None else ""
    if short is not None:
        return f"{short.to}: {metres(short.length_m)} of {metres(short.limit_m)}"
    left = next((row for row in seen.power.left if row.device == device.id), None)
    if left is not None:
        return f"{device.name} has no port: {left.reason}"
    fed = next((d for d in seen.power.devices if d.device == device.id), None)
    if fed is None or fed.verdict != "not_met":
        return ""
    return fed.wrong or f"{device.name} gets {fed.device_v:g} V, wants {fed.least_v:g}"


def _needs(plan: Plan, after: Plan, fresh: list[Step]) -> Iterator[str]:
    """Yield what must be there: a socket for what has a supply of its own, a licensed electrician."""
    now, then = plan.drawn, after.drawn
    cord_m = plan.rules["plan.cord_m"]
    places = [
        (room.name, room.floor, room.at, room.rack_height_m)
        for key, room in then.of(EquipmentRoom).items()
        if now.of(EquipmentRoom).get(key) != room
    ]
    loose = said_over_air(then) - said_over_air(now)
    places += [(d.name, d.floor, d.at, d.height_m) for d in then.of(Device).values() if d.id in loose]
    for name, floor, at, height_m in places:
        near = near_socket(after.design, floor, at, height_m)
        if near is None:
            yield f"a mains socket at {name}: none is drawn in its room"
        elif near.reach_m > cord_m:
            yield f"a mains socket at {name}: the nearest is {metres(near.reach_m)} away"
    if licensed := [s.title for s in fresh if s.licensed]:
        yield f"a licensed electrician: {some(licensed)}"
