"""What racks take and how they are built: frames, what goes into them, fixings, earth, cord by cord."""

from __future__ import annotations

import math
from collections import Counter

from ..context.plan import Plan, answered
from ..design import EquipmentRoom, Socket
from ..elevation import Elevation, Thing
from ..evaluation.evaluate import evaluate
from ..install import RackWork, SocketWork
from ..mains import mains_lines, near_socket
from ..order import RackParts

_SCREWS_OF_BAG = 20
_SCREWS = 4  # of a thing with ears
_BOUGHT_HERE = (
    "panel",
    "shelf",
    "strip",
    "battery",
    "converter",
    "splice",
)  # what else stands in a rack is gear of its own
_ADDED = ("panel", "battery", "converter", "splice")  # put into a rack that was there before
_COPPER_LINES = ("dsl", "coax")


@answered
def rack_parts(plan: Plan) -> list[RackParts]:
    """Return what each rack takes. One that was there before takes what is new in it."""
    chapter = evaluate(plan).racks
    found = []
    for rack in chapter.racks:
        things = chapter.things_of(rack.room)
        items: Counter[str] = Counter()
        for thing in things:
            if thing.kind in _BOUGHT_HERE and (rack.fresh or thing.kind in _ADDED):
                items[thing.item] += 1
        if rack.fresh:
            items.update(_frame(rack, things))
        if plan.design.of(EquipmentRoom)[rack.room].vent_m3h:
            items["vent-fan"] += 1
        if any(t.kind == "modem" for t in things) and plan.design.site.line_kind in _COPPER_LINES:
            items["line-surge"] += 1
        mine = [c for c in chapter.cords if c.room == rack.room]
        cords = [(c.link, c.item) for c in mine]
        panelled = any(t.kind == "panel" for t in things)
        found.append(RackParts(rack.room, items, cords, panelled))
    return found


def _frame(rack: Elevation, things: list[Thing]) -> Counter[str]:
    fixing = rack.fixing
    eared = sum(t.units > 0 and not t.on for t in things) + len(rack.blanks)
    items = Counter({rack.frame: 1, "earth-bond": 1})
    items["cage-nuts"] = math.ceil(eared * _SCREWS / _SCREWS_OF_BAG)
    items["rack-blank"] = len(rack.blanks)
    items["feet"] = int(fixing.into == "floor")
    items["backing-board"] = int(fixing.board)
    sets = math.ceil(fixing.fixings / _SCREWS)
    items["frame-screws"] = sets * (fixing.into == "studs")
    items["frame-plugs"] = sets * (fixing.into in ("masonry", "unknown"))
    return items


def rack_works(plan: Plan) -> list[RackWork]:
    """Return what is built of each rack that is set up, in the order in which one bolts."""
    chapter, rooms = evaluate(plan).racks, plan.design.of(EquipmentRoom)
    parts = plan.catalogue.parts
    found = []
    for rack in chapter.racks:
        if not rack.fresh:
            continue
        things = chapter.things_of(rack.room)
        items = next(p.items for p in rack_parts(plan) if p.room == rack.room)
        bolted = [t for t in things if t.units and not t.on and t.unit]
        stood = {t.thing: [o.name for o in things if o.on == t.thing] for t in bolted}
        lines = [
            f"unit {t.unit}{f' to {t.unit + t.units - 1}' if t.units > 1 else ''}: {t.name}, {t.label}"
            + (f", with {', '.join(stood[t.thing])} on it" if stood[t.thing] else "")
            for t in sorted(bolted, key=lambda t: t.unit)
        ]
        lines += [f"unit {unit}: blank, over a fan" for unit in rack.blanks]
        cords = Counter((c.length_m, c.colour) for c in chapter.cords if c.room == rack.room)
        room = rooms[rack.room]
        near = near_socket(plan.design, room.floor, room.at, room.rack_height_m)
        reached = near is not None and near.reach_m <= plan.rules["plan.cord_m"]
        found.append(
            RackWork(
                room=rack.room,
                kg=round(rack.kg - sum(t.kg for t in things if t.old), 1),
                frame=rack.label,
                held=f"{rack.fixing.fixings} fixings; {rack.fixing.reason}",
                board=rack.fixing.board,
                wall=rack.wall,
                bolted=tuple(lines),
                cords=tuple(f"{n} of {m:g} m, {colour}" for (m, colour), n in sorted(cords.items())),
                materials=tuple(parts[i].label for i in items if i in parts and items[i]),
                socket=near.socket.name if near is not None and reached else "",
                vent_m3h=room.vent_m3h,
                line_surge=bool(items.get("line-surge")),
            )
        )
    return found


def socket_works(plan: Plan) -> list[SocketWork]:
    lines = {line.socket: line for line in mains_lines(plan.design)}
    return [
        SocketWork(s.id, s.name, s.floor, lines[s.id].length_m if s.id in lines else 0.0)
        for s in plan.design.of(Socket).values()
        if s.state == "new"
    ]
