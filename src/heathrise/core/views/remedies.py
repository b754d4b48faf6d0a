"""What would mend a run that is too long, each worked out for this run: reach, speed, watts, price."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar, Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..base.wording import metres, some
from ..cabling import GOOD, UplinkVerdict, carried_mbps
from ..context.fibre_ends import far_ends
from ..context.findings import Cure
from ..context.integrity import check
from ..context.plan import Plan
from ..context.run_decisions import said_over_air
from ..design import Change, DesignError, Device, EquipmentRoom, Point
from ..evaluation.evaluate import Evaluation, evaluate
from ..install import Step
from ..mains import near_socket
from ..order import Order
from ..signal import environment_of, mesh_links
from .bill_of_materials import proven_order
from .remedy_ideas import candidates
from .work_list import steps_of

_NEAR_M = 15.0  # new racks so near to each other are one idea
_SAID = 4
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
    found: list[Remedy] = []
    if run is not None and run.verdict not in GOOD:
        base = _Base(before, proven_order(hasty), steps_of(hasty))
        seen: set[str] = set()
        for cure in candidates(hasty, run, device):
            key = repr(cure.changes)
            if key not in seen and (remedy := _worked_out(hasty, base, device, cure)) is not None:
                found.append(remedy)
            seen.add(key)
    found = _unlike(hasty, sorted(found, key=lambda r: (not r.does, r.price)))
    return Remedies(
        device=device_id,
        name=device.name,
        currency=design.site.currency,
        reason=run.reason if run is not None else "it has no run",
        length_m=run.fixed_m if run is not None else 0.0,
        limit_m=run.limit_m if run is not None else 0.0,
        wanted_mbps=catalogue.model_of(device).speed_mbps,
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
        self.order = order
        self.steps = {s.id for s in steps}
        self.findings = {f.id for f in evaluation.findings}
        self.cable_m = _cable_m(evaluation)


def _cable_m(evaluation: Evaluation) -> float:
    return sum(k.bought_m * k.cables for k in evaluation.cable.links if k.verdict != "no_way")


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
        medium=run.medium,
        length_m=run.fixed_m,
        limit_m=run.limit_m,
        speed_mbps=carried_mbps(plan.design.site, plan.rules, run),
        does=run.verdict in GOOD,
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
            does=up.verdict in GOOD,
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
    lit = {d.id for d, _ in far_ends(then, after.catalogue)} - {
        d.id for d, _ in far_ends(now, plan.catalogue)
    }
    places += [(d.name, d.floor, d.at, d.height_m) for d in then.of(Device).values() if d.id in loose | lit]
    for name, floor, at, height_m in places:
        near = near_socket(after.design, floor, at, height_m)
        if near is None:
            yield f"a mains socket at {name}: none is drawn in its room"
        elif near.reach_m > cord_m:
            yield f"a mains socket at {name}: the nearest is {metres(near.reach_m)} away"
    if licensed := [s.title for s in fresh if s.licensed]:
        yield f"a licensed electrician: {some(licensed)}"
