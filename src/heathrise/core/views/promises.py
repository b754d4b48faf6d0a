"""What an offer promises, room by room in a client's words, what it does not, and what the client
has to see to: joined of an evaluation and of the work list."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ..base.frozen import Frozen
from ..base.wording import some
from ..context.plan import Plan, answered
from ..context.run_decisions import feeds
from ..design import Design, Device, Duct, EquipmentRoom, Floor
from ..evaluation.evaluate import Evaluation, evaluate
from ..signal import RoomVerdict, environment_of, judge_rooms
from .work_list import steps_of

USE_WORDS: dict[str, str] = {
    "calls": "calls and video, also while walking about",
    "everyday": "browsing, mail and films",
    "sensors": "sensors and small devices",
    "none": "",
}


class RoomPromise(Frozen):
    """One room and what is promised there; ``why_not`` says why it is not."""

    space: str
    name: str
    floor: str
    use: str
    kept: bool
    why_not: str = ""


class Promised(Frozen):
    """What is promised, what is not, and what the client sees to, each in words."""

    rooms: tuple[RoomPromise, ...]
    wishes: tuple[str, ...]
    complaints: tuple[tuple[str, str, bool], ...]
    not_promised: tuple[str, ...]
    client_does: tuple[str, ...]


def promised(plan: Plan) -> Promised:
    """Return what an offer promises of a plan."""
    evaluation, rooms = evaluate(plan), promised_rooms(plan)
    brief = evaluation.brief
    return Promised(
        rooms=tuple(rooms),
        wishes=tuple(
            f"{w.name}: {w.wanted} socket{'s' if w.wanted > 1 else ''}, as wished for"
            for w in brief.wishes
            if not w.missing
        ),
        complaints=tuple(
            (p.name[:1].upper() + p.name[1:], p.words, p.outcome == "mended") for p in brief.pains
        ),
        not_promised=tuple(_not_promised(evaluation, rooms)),
        client_does=tuple(_client_does(plan)),
    )


def unconnected(plan: Plan) -> set[str]:
    """Return the access points that the plan leaves without a cable, a port or power."""
    evaluation = evaluate(plan)
    no_way = {r.device for r in evaluation.runs if r.verdict == "no_way"}
    left = {row.device for row in evaluation.power.left}
    points = {d.id for d in plan.design.of(Device).values() if d.model in plan.catalogue.airs}
    return (no_way | left) & points


@answered
def promised_rooms(plan: Plan) -> list[RoomPromise]:
    """Return each room whose use asks for signal, and whether that is promised: with nothing but
    the access points that are connected."""
    evaluation, dead = evaluate(plan), unconnected(plan)
    rooms = list(evaluation.rooms)
    if dead:
        alive = environment_of(plan).without(frozenset(dead))
        rooms = judge_rooms(alive)
    planned = {r.space: r for r in evaluation.rooms}
    return [
        _room(plan.design, r, lost=r.verdict != "met" and planned[r.space].verdict == "met")
        for r in rooms
        if r.verdict != "not_needed"
    ]


def _room(design: Design, room: RoomVerdict, lost: bool) -> RoomPromise:
    kept = room.verdict == "met"
    why = "an access point that serves it is not connected" if lost else noticed(room)
    return RoomPromise(
        space=room.space,
        name=room.name,
        floor=design.of(Floor)[room.floor].name,
        use=USE_WORDS[room.use],
        kept=kept,
        why_not="" if kept else why,
    )


def noticed(room: RoomVerdict) -> str:
    """Return what somebody notices in a room that does not meet its use."""
    share = max(0.01, 1 - (room.share or 0.0))
    if room.binds == "second":
        return f"a call may break off while one walks, on {share:.0%} of its floor"
    if room.use == "calls":
        return f"the signal is too weak for calls on {share:.0%} of its floor"
    return f"the signal is too weak on {share:.0%} of its floor"


def _not_promised(evaluation: Evaluation, rooms: Sequence[RoomPromise]) -> Iterator[str]:
    """Yield what the offer does not promise: rooms, links, ports, complaints, wires."""
    for room in rooms:
        if not room.kept:
            yield f"{room.name}: {room.use}; {room.why_not}."
    for link in evaluation.cable.links:
        if link.verdict in ("not_met", "no_way", "test_first"):
            yield f"The cable of {link.name}: {link.reason}."
    by_reason: dict[str, list[str]] = {}
    for left in evaluation.power.left:
        by_reason.setdefault(left.reason, []).append(left.name)
    for reason, names in by_reason.items():
        which = ", ".join(dict.fromkeys(names))
        yield f"{which} {'are' if len(names) > 1 else 'is'} not connected: {reason}."
    for pain in evaluation.brief.pains:
        if pain.outcome != "mended":
            how = "gets better and is not ended" if pain.outcome == "better" else "stays as it is"
            yield f"“{pain.words or pain.name}” {how}."
    for wish in evaluation.brief.wishes:
        if wish.missing:
            many = f"{wish.missing} of {wish.wanted}"
            yield f"{wish.name}: {many} sockets wished for are not planned."
    for reserve in evaluation.brief.reserves:
        if reserve.lacks:
            yield f"Room for {reserve.name} later: the plan lacks {reserve.lacks}."


def _client_does(plan: Plan) -> Iterator[str]:
    """Yield what the client sees to before the work can be done."""
    design, catalogue, steps = plan.design, plan.catalogue, steps_of(plan)
    phases = {s.phase for s in steps}
    rules = design.site.house_rules
    holes = [s for s in steps if s.phase == "holes"]
    if holes:
        whose = " and of the landlord" if "landlord" in rules else ""
        listed = ", for a listed building also of the authority" if "listed" in rules else ""
        yield f"Permission of the owner{whose} for {len(holes)} holes{listed}."
    dug = [d.name for d in design.of(Duct).values() if d.dug != "there"]
    if dug:
        yield f"Plans of buried services, and leave to dig: {some(dug)}."
    racks = [r.name for r in design.of(EquipmentRoom).values()]
    if racks:
        yield f"A mains socket within reach of {some(racks)}."
    fed = [device.name for device, _ in feeds(design, catalogue)]
    if fed:
        yield f"A mains socket beside {some(fed)}."
    if any(s.licensed for s in steps):
        yield "A licensed electrician for surge protection and bonding, named before the work."
    if any(c.startswith("Attic") for s in steps for c in s.cautions):
        yield "Access to the attic, cleared of what stands in the way."
    if "mount" in phases:
        yield "Access to every room on the days agreed."
    ports = (catalogue.role_of(d).profile.untagged for d in design.of(Device).values())
    if "cameras" in ports:
        yield "A say in what the cameras may see, and notice to those who live or work there."
