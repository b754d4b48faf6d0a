"""The hand-over of a project: joined of its evaluation, its records and its work list."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..base.wording import metres
from ..brief import Outcome, PainVerdict
from ..cabling import assess_cable
from ..catalogue import Catalogue
from ..context.plan import Plan
from ..context.readings import Reading
from ..context.storeys import storeys_of
from ..design import Complaint, Design, Device, EquipmentRoom, Floor, Network, Switch
from ..evaluation.evaluate import Evaluation, evaluate
from ..handover import (
    CheckItem,
    Difference,
    Handover,
    Left,
    Proof,
    Reach,
    RoomProof,
    Seen,
    after_a_power_cut,
    device_states,
    differences,
    joins_of,
    open_points,
    promises_of,
    reach_of,
)
from ..install import Step
from ..records import SeenPort, SeenSpeed, Snag, StepStand, SwitchDraw, TestedCable
from .promises import promised_rooms
from .walked_rooms import Heard, RoomSeen, rooms_as_walked

_LINES = {
    "fibre": "the fibre box",
    "coax": "the cable modem",
    "dsl": "the telephone modem",
    "radio": "the radio receiver",
    "mobile": "the mobile modem",
    "leased": "the line's own box",
}
_OUTCOMES: dict[Outcome, Seen] = {"mended": "met", "better": "near", "not_addressed": "not_met"}
_WALK = "walk"  # the step of the work list that walks all rooms


@dataclass(frozen=True)
class Observed:
    """What was seen and said on the site, each already compared with the plan."""

    cables: Sequence[TestedCable] = ()
    ports: Sequence[SeenPort] = ()
    draws: Sequence[SwitchDraw] = ()
    speeds: Sequence[SeenSpeed] = ()
    snags: Sequence[Snag] = ()
    steps: Sequence[Step] = ()
    stands: Sequence[StepStand] = ()
    levels: Sequence[Reading] = ()
    agreed: Design | None = None
    agreed_revision: int | None = None


def handover_of(plan: Plan, seen: Observed) -> Handover:
    """Return a job as it would be handed over now."""
    design, ruled, evaluation = plan.design, plan.catalogue, evaluate(plan)
    rooms = _rooms(plan, seen)
    rows = list(_watched(design, evaluation, seen, rooms))
    placed = [(d.id, d.floor) for d in design.of(Device).values()]
    spare = sum(r.cables for r in evaluation.runs) - sum(
        1 for p in evaluation.power.ports if p.device is not None
    )
    return Handover(
        done=tuple(_done(design, ruled, evaluation)),
        still_open=tuple(open_points(rows)),
        promises=tuple(promises_of(_proofs(evaluation, rows, seen, rooms))),
        reaches=tuple(_reaches(design, evaluation)),
        joins=tuple(joins_of(design, ruled)),
        restart=tuple(_restart(design, ruled, evaluation)),
        left=tuple(
            Left(
                switch=s.switch,
                name=s.name,
                ports=s.ports - s.ports_used,
                powered=s.powered_ports - s.powered_used,
                watts=round(max(0.0, s.usable_w - s.counted_w), 1),
            )
            for s in evaluation.power.switches
        ),
        spare_cables=max(0, spare),
        built=tuple(as_built(plan, seen.agreed)),
        agreed_revision=seen.agreed_revision,
        devices=tuple(device_states(placed, rows)),
        rooms=tuple(_room_proof(design, r) for r in rooms),
        complaints={p.pain: _complaint(design, p, rooms)[0] for p in evaluation.brief.pains},
    )


def as_built(plan: Plan, agreed: Design | None) -> list[Difference]:
    """Return what is built otherwise than agreed; nothing where nothing was agreed."""
    if agreed is None or agreed is plan.drawn:
        return []
    before = plan.redrawn(agreed)
    links = assess_cable(before.design, before.catalogue)
    return differences(
        before.design,
        plan.design,
        plan.catalogue,
        {r.device: r.fixed_m for r in links.runs if r.verdict != "no_way"},
        {r.device: r.fixed_m for r in evaluate(plan).runs if r.verdict != "no_way"},
    )


def _rooms(plan: Plan, seen: Observed) -> list[RoomSeen]:
    """Return the rooms that are promised, each as it is known."""
    walked = next((s for s in seen.stands if s.step == _WALK and s.state == "done"), None)
    heard = Heard(walked.by, walked.at[:10]) if walked is not None else None
    promised = {r.space for r in promised_rooms(plan) if r.kept}
    rooms = rooms_as_walked(plan, seen.levels, heard)
    return [r for r in rooms if r.space in promised]


def _room_proof(design: Design, room: RoomSeen) -> RoomProof:
    says = {
        "measured": f"{room.good} of {room.spots} spots as its use asks",
        "heard": f"heard by {room.by}",
        "planned": "computed, not walked",
    }[room.how]
    return RoomProof(
        name=room.name, floor=design.of(Floor)[room.floor].name, how=room.how, verdict=_seen(room), says=says
    )


def _seen(room: RoomSeen) -> Seen:
    return "heard" if room.how == "heard" else room.verdict


def _watched(
    design: Design, evaluation: Evaluation, seen: Observed, rooms: Sequence[RoomSeen]
) -> Iterator[CheckItem]:
    """Yield all that is looked at before a job is handed over."""
    for room in rooms:
        reason = {
            "measured": f"{room.good} of {room.spots} spots measured as its use asks",
            "heard": f"by {room.by}",
            "planned": "no level was measured, nobody walked it",
        }[room.how]
        yield CheckItem("signal", _seen(room), room.name, reason, "signal", "space", room.space)
    for left in evaluation.power.left:
        yield CheckItem("ports", "not_met", left.name, left.reason, "power", "device", left.device)
    for link in evaluation.cable.links:
        if link.verdict == "no_way":
            device = getattr(link, "device", None)
            yield CheckItem("cables", "not_met", link.name, link.reason, "cable", "device", device)
    for snag in seen.snags:
        who = f", {snag.owner}" if snag.owner else ""
        due = f" by {snag.due.isoformat()}" if snag.due else ""
        late = " (late)" if snag.late else ""
        yield CheckItem(
            "snags",
            "met" if snag.state == "closed" else "not_met",
            "Snag",
            f"{snag.what}{who}{due}{late}",
            "install",
            snag.kind or None,
            snag.element,
        )
    for cable in seen.cables:
        verdict: Seen = "unknown" if cable.verdict == "untested" else cable.verdict
        yield CheckItem(
            "cables",
            verdict,
            f"{cable.name}, cable {cable.cable}",
            cable.reason,
            "install",
            "device",
            cable.device,
        )
    for port in seen.ports:
        verdict = "unknown" if port.verdict == "unread" else port.verdict
        kind = "device" if port.device is not None else "switch"
        yield CheckItem(
            "ports",
            verdict,
            f"{port.switch_name} port {port.port}, {port.name}",
            port.reason,
            "install",
            kind,
            port.device or port.switch,
        )
    for spot in seen.speeds:
        if spot.verdict != "unread":  # what nobody wanted measured is not open
            at = ("space", spot.where) if spot.floor else (None, None)
            yield CheckItem("speed", spot.verdict, spot.name, spot.reason, "install", *at)
    yield from _work(seen)
    for pain in evaluation.brief.pains:
        verdict, reason = _complaint(design, pain, rooms)
        yield CheckItem("complaints", verdict, f"Complaint, {pain.name}", reason, "brief", "pain", pain.pain)
    for wish in evaluation.brief.wishes:
        lacks = f"{wish.missing} of {wish.wanted} wires wished for are not there"
        yield CheckItem(
            "wishes", "near" if wish.missing else "met", wish.name, lacks, "brief", "space", wish.space
        )
    for finding in evaluation.findings:
        if finding.severity == "not_met" and finding.stage != "brief":
            place = finding.places[0] if finding.places else None
            yield CheckItem(
                "plan",
                "not_met",
                "",
                finding.text,
                finding.stage,
                place.kind if place is not None else None,
                place.id if place is not None else None,
            )


def _complaint(design: Design, pain: PainVerdict, rooms: Sequence[RoomSeen]) -> tuple[Seen, str]:
    """Return how a complaint stands: mended by the plan is known as well as its room is."""
    if pain.outcome != "mended":
        return _OUTCOMES[pain.outcome], pain.planned
    space = storeys_of(design).room_at(pain.floor, design.of(Complaint)[pain.pain].at)
    room = next((r for r in rooms if space is not None and r.space == space.id), None)
    if room is None or room.how == "planned":
        return "unknown", f"mended by the plan, nobody looked yet: {pain.planned}"
    if room.how == "heard":
        return "heard", f"by {room.by}"
    return room.verdict, f"{room.good} of {room.spots} spots of its room measured as they should be"


def _work(seen: Observed) -> Iterator[CheckItem]:
    stands = {s.step: s for s in seen.stands}
    for step in seen.steps:
        if step.id == "papers":
            continue  # this very hand-over
        stand = stands.get(step.id)
        if stand is None or stand.state == "open":
            verdict = None
            reason = "not done yet"
        else:
            verdict = stand.state
            why = f": {stand.reason}" if stand.reason else ""
            reason = f"{stand.state} by {stand.by}{why}"
        yield CheckItem(
            "work",
            _STATES[verdict],
            step.title,
            reason,
            "install",
            step.kind if step.kind != "site" else None,
            step.element,
        )


_STATES: dict[str | None, Seen] = {None: "unknown", "done": "met", "skipped": "near", "blocked": "not_met"}


def _proofs(
    evaluation: Evaluation, rows: Sequence[CheckItem], seen: Observed, rooms: Sequence[RoomSeen]
) -> Iterator[Proof]:
    totals = evaluation.totals

    def of(group: str) -> list[CheckItem]:
        return [r for r in rows if r.group == group]

    yield Proof(
        "Signal in the rooms",
        f"{len(rooms)} of {totals.rooms_needed} rooms meet their use",
        "",
        of("signal"),
        _rooms_said(rooms),
    )
    cables = of("cables")
    yield Proof("Cables", f"{len(cables)} cables carry their speed", "cables passed", cables)
    ports = of("ports")
    yield Proof("Links", f"{len(ports)} links at their speed and watts", "links as planned", ports)
    draws = [d for d in seen.draws if d.fed]
    if draws:
        expected, drawn = sum(d.expected_w for d in draws), sum(d.drawn_w for d in draws)
        read = any(d.read for d in draws)
        states = [
            CheckItem("ports", "unknown" if d.verdict == "unread" else d.verdict, d.name, "", "power")
            for d in draws
        ]
        yield Proof(
            "Watts",
            f"{totals.expected_w:.0f} W of {totals.budget_w:.0f} W",
            "",
            states,
            f"{drawn:.0f} W where {expected:.0f} W were expected" if read else "",
        )
    speeds = of("speed")
    if speeds:
        again = sum(s.hand_over is not None for s in seen.speeds)
        yield Proof(
            "Speed",
            f"{len(seen.speeds)} places at what the plan lets through",
            f"places as planned, {again} measured again at the hand-over",
            speeds,
        )
    complaints = of("complaints")
    if complaints:
        counts = [
            (sum(r.verdict == tone for r in complaints), said)
            for tone, said in (
                ("met", "mended where it was measured"),
                ("heard", "mended by ear"),
                ("near", "better"),
                ("not_met", "not mended"),
                ("unknown", "mended by the plan alone"),
            )
        ]
        words = ", ".join(f"{n} {said}" for n, said in counts if n)
        yield Proof("Complaints", f"{len(complaints)} are to be mended", "", complaints, words)


def _rooms_said(rooms: Sequence[RoomSeen]) -> str:
    """Return how the rooms are known, in words: measured, heard, or only planned."""
    measured = [r for r in rooms if r.how == "measured"]
    heard = [r for r in rooms if r.how == "heard"]
    planned = sum(r.how == "planned" for r in rooms)
    said = []
    if measured:
        good = sum(r.verdict == "met" for r in measured)
        spots = sum(r.spots for r in measured)
        said.append(f"{good} of {len(measured)} rooms as promised, measured at {spots} spots")
    if heard:
        said.append(f"{len(heard)} heard by {heard[0].by}, not measured")
    if planned and said:
        said.append(f"{planned} not walked")
    return "; ".join(said)


def _done(design: Design, catalogue: Catalogue, evaluation: Evaluation) -> Iterator[str]:
    totals = evaluation.totals
    counts: dict[str, int] = {}
    for device in design.of(Device).values():
        counts[device.kind] = counts.get(device.kind, 0) + 1
    for kind, count in counts.items():
        name = catalogue.roles[kind].name.lower()
        yield f"{count} {name}{'s' if count > 1 and not name.endswith('s') else ''}"
    cables = sum(r.cables for r in evaluation.runs if r.verdict != "no_way" and r.medium == "copper")
    if cables:
        yield f"{cables} cables, {metres(totals.cable_m, 0)} in all, each labelled at both ends"
    if totals.fibre_m:
        yield f"{metres(totals.fibre_m, 0)} of fibre, spliced and labelled at both ends"
    racks, switches = len(design.of(EquipmentRoom)), len(design.of(Switch))
    if switches:
        yield (
            f"{switches} switch{'es' if switches > 1 else ''} in {racks} rack"
            f"{'s' if racks > 1 else ''}, {totals.ports_used} of {totals.ports} ports in use"
        )
    networks = [n.name for n in design.of(Network).values()]
    if networks:
        yield f"{len(networks)} networks kept apart: {', '.join(networks)}"


def _reaches(design: Design, evaluation: Evaluation) -> list[Reach]:
    sheet = evaluation.settings
    if sheet is None:
        return []
    names = {n.id: n.name for n in design.of(Network).values()}
    return reach_of(
        (n.name, n.vlan, n.internet, n.client_isolation, tuple(names[r] for r in n.reaches if r != n.id))
        for n in sheet.networks
    )


def _restart(design: Design, catalogue: Catalogue, evaluation: Evaluation) -> list[str]:
    rooms, switches, floors = design.of(EquipmentRoom), design.of(Switch), design.of(Floor)
    site = design.site
    router = [d for d in design.of(Device).values() if catalogue.role_of(d).leads_out]
    ways = sorted(evaluation.power.ways_up, key=lambda w: w.depth)
    order = [w.switch for w in ways] + [s for s in switches if s not in {w.switch for w in ways}]
    places = []
    for key in order:
        room = rooms[switches[key].equipment_room]
        places.append((switches[key].name, f"{room.name}, {floors[room.floor].name}"))
    return after_a_power_cut(
        catalogue.rules,
        f"the line's own box ({site.upstream_gear})" if site.upstream_gear else _LINES[site.line_kind],
        router[0].name if router else "",
        places,
        evaluation.totals.access_points,
        site.contact,
    )
