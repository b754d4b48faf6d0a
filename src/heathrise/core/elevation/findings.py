"""Findings about racks as things: a panel's space, sockets, what does not fit, heat, sound, battery."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

import shapely

from ..base.wording import celsius, metres, some
from ..catalogue import Catalogue, on_offer
from ..context.findings import Cure, Finding, Place
from ..context.storeys import storeys_of
from ..design import Design, EquipmentRoom, RackPlace, Socket, put, remove
from ..mains import SPACE_FIGURES, in_space_said, made_socket, near_socket, panels_blocked
from .battery import good_batteries, judge_battery
from .frame import frame_for, units_wanted
from .surroundings import clear_spot, heard
from .values import Elevation, RackChapter, Thing

_OFFERED = 2


def rack_findings(design: Design, catalogue: Catalogue, chapter: RackChapter) -> Iterator[Finding]:
    """Yield what is wrong with racks and what would mend it."""
    for rack in chapter.racks:
        room = design.of(EquipmentRoom)[rack.room]
        yield from _panel_space(design, catalogue, room, rack)
        yield from _socket(design, catalogue, room)
        yield from _size(design, catalogue, room, rack, chapter.things_of(rack.room))
        yield from _fixing(catalogue, room, rack)
        yield from _heat(catalogue, room, rack)
        yield from _noise(design, catalogue, room, rack)
        yield from _battery(catalogue, room, rack)


def _panel_space(
    design: Design, catalogue: Catalogue, room: EquipmentRoom, rack: Elevation
) -> Iterator[Finding]:
    rules = catalogue.rules
    if room.rack_height_m >= rules["plan.panel_space_m.high"]:
        return
    size_m = rack.wide_mm / 1000, rack.deep_mm / 1000
    blocked = panels_blocked(design, room.floor, room.at, size_m, rules)
    if not blocked:
        return
    space = storeys_of(design).room_at(room.floor, room.at)
    spot = clear_spot(design, catalogue, space, room.at, size_m) if space is not None else None
    cures: tuple[Cure, ...] = ()
    if spot is not None:
        moved = room.model_copy(update={"at": spot})
        far = shapely.Point(spot).distance(shapely.Point(room.at))
        label = f"Move {room.name} {metres(far, 1)}, out of it"
        cures = (Cure(label=label, effect="its back to the wall", changes=(put(moved),)),)
    yield _finding(
        catalogue,
        room,
        "panel",
        "not_met",
        in_space_said(room.name, blocked[0], rules),
        "nothing stands in the space in front of an electrical panel",
        SPACE_FIGURES,
        stage="plan",
        cures=cures,
        places=(
            Place(kind="equipment_room", id=room.id, floor=room.floor, at=room.at),
            Place(kind="panel", id=blocked[0].id, floor=room.floor, at=blocked[0].at),
        ),
    )


def _socket(design: Design, catalogue: Catalogue, room: EquipmentRoom) -> Iterator[Finding]:
    rules = catalogue.rules
    near = near_socket(design, room.floor, room.at, room.rack_height_m)
    cord_m = rules["plan.cord_m"]
    if near is not None and near.reach_m <= cord_m:
        return
    if near is None and not design.of(Socket):
        return  # nobody looked for sockets yet; the work list has it checked
    nearest = (
        f"its nearest socket, {near.socket.name}, is {metres(near.reach_m, 1)} away"
        if near is not None
        else "no socket is drawn in its room"
    )
    yield _finding(
        catalogue,
        room,
        "socket",
        "near",
        f"{room.name}: {nearest} and its cord {metres(cord_m)} long. No extension lead stays there for good.",
        "gear that wants a socket has one within its cord",
        ("plan.cord_m",),
        figure=near.reach_m if near is not None else None,
        limit=cord_m,
        unit="m",
        cures=(made_socket(design, room.floor, room.at, room.rack_height_m, room.name),),
    )


def _size(
    design: Design, catalogue: Catalogue, room: EquipmentRoom, rack: Elevation, things: Sequence[Thing]
) -> Iterator[Finding]:
    """Yield what does not fit, else units that are not kept free, else places that could not be kept."""
    rules = catalogue.rules
    own = sum(t.units for t in things if not t.on)
    said = [p for p in design.of(RackPlace).values() if p.equipment_room == room.id]
    wrong = list(_wrong_of(catalogue, rack, things, own))
    wanted = max(rack.later_units, math.ceil(rules["rack.spare_share"] * own - 1e-9))
    if wrong:
        cures = list(_fitting(catalogue, room, rack, things))
        if said and own <= rack.units:
            cures.append(Cure(label="Arrange it anew", changes=tuple(remove(p) for p in said)))
        yield _finding(
            catalogue,
            room,
            "size",
            "not_met",
            f"{room.name}, {rack.label}: {'; '.join(wrong)}."
            + ("" if cures else " Share it out over two racks."),
            "everything fits in the frame",
            ("rack.plug_mm",),
            figure=float(own),
            limit=float(rack.units),
            unit="units",
            cures=tuple(cures),
        )
    elif rack.spare_units < wanted:
        yield _finding(
            catalogue,
            room,
            "spare",
            "note",
            f"{room.name} has {rack.spare_units} units free; {wanted} are kept for what comes later.",
            "units are kept free for what comes",
            ("rack.spare_share",),
            figure=float(rack.spare_units),
            limit=float(wanted),
            unit="units",
            cures=tuple(_fitting(catalogue, room, rack, things)),
        )
    by_hand = {t.thing for t in things if t.by == "person"}
    gone = [p for p in said if p.thing not in by_hand]
    if gone and not wrong:
        yield _finding(
            catalogue,
            room,
            "places",
            "note",
            f"{room.name}: {len(gone)} of the places that were chosen by hand cannot be kept; the plan chose "
            "others.",
            "what somebody placed stays where it fits",
            ("rack.spare_share",),
            cures=(Cure(label="Forget those places", changes=tuple(remove(p) for p in gone)),),
        )


def _wrong_of(catalogue: Catalogue, rack: Elevation, things: Sequence[Thing], own: int) -> Iterator[str]:
    """Yield in words what of a rack does not fit in its frame."""
    plug_mm = catalogue.rules["rack.plug_mm"]
    deepest = max(things, key=lambda t: t.deep_mm, default=None)
    kg = sum(t.kg for t in things)
    if own > rack.units:
        yield f"{own} units of gear in a frame of {rack.units}"
    elif left := [t.name for t in things if not t.unit]:
        yield f"no free units for {some(left)} as things were placed by hand"
    if deepest is not None and deepest.deep_mm + plug_mm > rack.deep_mm:
        wants = deepest.deep_mm + plug_mm
        yield f"{deepest.name} wants {wants:g} mm with its plugs, it is {rack.deep_mm:g} deep"
    if kg > rack.bears_kg:
        yield f"{kg:.0f} kg in a frame for {rack.bears_kg:g}"


def _fitting(
    catalogue: Catalogue, room: EquipmentRoom, rack: Elevation, things: Sequence[Thing]
) -> Iterator[Cure]:
    """Yield the frame that the plan would take in place of one that somebody chose."""
    free = room.model_copy(update={"frame": None})
    frame, fits = frame_for(catalogue, free, things, units_wanted(catalogue.rules, things, rack.later_units))
    if rack.chosen_by == "person" and fits:
        more = frame.price - catalogue.frames[rack.frame].price
        yield Cure(label=f"Take {frame.label}", effect=f"{more:+g} each", changes=(put(free),))


def _fixing(catalogue: Catalogue, room: EquipmentRoom, rack: Elevation) -> Iterator[Finding]:
    fixing = rack.fixing
    if fixing.into == "unknown":
        yield _finding(
            catalogue,
            room,
            "fixing",
            "near",
            f"{room.name} is a wall frame of {rack.kg:g} kg: {fixing.reason}. Hang it on studs or "
            "masonry, or take a floor frame.",
            "a wall frame hangs on something that bears it",
            ("rack.fixing_safety",),
            cures=tuple(_floor_frame(catalogue, room, rack)),
        )
    elif fixing.board:
        yield _finding(
            catalogue,
            room,
            "studs",
            "note",
            f"{room.name}: {fixing.reason}. It is ordered and stands in the work list.",
            "each hole of a frame finds a stud, or a board backs it",
            ("rack.stud_m", "rack.stud_reach_mm"),
        )


def _floor_frame(catalogue: Catalogue, room: EquipmentRoom, rack: Elevation) -> Iterator[Cure]:
    frames = [f for f in on_offer(catalogue.frames) if not f.wall and f.units >= rack.units]
    for frame in sorted(frames, key=lambda f: f.price)[:1]:
        more = frame.price - catalogue.frames[rack.frame].price
        changed = room.model_copy(update={"frame": frame.id})
        yield Cure(label=f"Take {frame.label}", effect=f"{more:+g} each", changes=(put(changed),))


def _heat(catalogue: Catalogue, room: EquipmentRoom, rack: Elevation) -> Iterator[Finding]:
    closet = rack.closet
    if closet.verdict == "met":
        return
    rules = catalogue.rules
    now = closet.now_c
    state = f"with {closet.vent_m3h:g} m³/h moved" if closet.vented_c is not None else "closed"
    warn_c = min(rules["rack.warn_c"], closet.limit_c)
    wants = f"Move {closet.wanted_m3h:.0f} m³/h and it stays under {celsius(warn_c)}"
    vented = room.model_copy(update={"vent_m3h": round(closet.wanted_m3h)})
    label = f"Vent {closet.name} with {closet.wanted_m3h:.0f} m³/h"
    yield _finding(
        catalogue,
        room,
        "heat",
        closet.verdict,
        f"{closet.name} gets to {celsius(now)} {state}: {rack.heat_w:.0f} W stay in {room.name}, "
        f"{closet.area_m2:.0f} m² of walls and ceiling pass them. {closet.limit_of} bears "
        f"{celsius(closet.limit_c)}. {wants}.",
        "a closet stays under what its gear bears",
        ("rack.closet_w_m2k", "rack.warn_c", "rack.limit_c"),
        figure=now,
        limit=closet.limit_c if closet.verdict == "not_met" else warn_c,
        unit="°C",
        cures=(
            Cure(
                label=label,
                effect="a fan with grilles low and high; its sound comes on top",
                changes=(put(vented),),
            ),
        ),
    )


def _noise(design: Design, catalogue: Catalogue, room: EquipmentRoom, rack: Elevation) -> Iterator[Finding]:
    loud = [row for row in heard(design, catalogue, room.floor, room.at, rack.noise_db) if row[1] > row[2]]
    if not loud:
        return
    space, level, limit = max(loud, key=lambda row: row[1] - row[2])
    inside = space.id == rack.closet.space
    yield _finding(
        catalogue,
        room,
        "noise",
        "near",
        f"{space.name} hears {room.name} at {level:.0f} dB(A){'' if inside else ', through its wall'}; "
        f"its use bears {limit:g}. The rack makes {rack.noise_db:.0f} dB(A) a metre away: take switches "
        "without fans, or a room farther off.",
        "fans stay out of quiet rooms",
        (f"rack.noise_db.{space.use}", "rack.near_db" if inside else "rack.wall_db"),
        figure=level,
        limit=limit,
        unit="dB(A)",
    )


def _battery(catalogue: Catalogue, room: EquipmentRoom, rack: Elevation) -> Iterator[Finding]:
    held = rack.battery
    if held is None or held.verdict == "met":
        return
    rules = catalogue.rules
    wanted = rules["rack.battery_minutes"]
    yield _finding(
        catalogue,
        room,
        "battery",
        held.verdict,
        f"{held.label} carries {held.load_w:.0f} W, {held.load_share:.0%} of its rating, for "
        f"{held.minutes:.0f} minutes new and {held.minutes_old:.0f} after {held.years} years; {wanted:g} "
        f"are wanted at {rules['rack.battery_load_share']:.0%} load at most.",
        "a battery lasts as long as it should, also when it is old",
        (
            "rack.battery_minutes",
            "rack.battery_load_share",
            "rack.battery_fade_share",
            "rack.battery_efficiency",
        ),
        figure=held.minutes_old,
        limit=wanted,
        unit="min",
        cures=tuple(_larger(catalogue, room, rack, held.load_w)),
    )


def _larger(catalogue: Catalogue, room: EquipmentRoom, rack: Elevation, load_w: float) -> Iterator[Cure]:
    closet = rack.closet
    place_c = closet.now_c
    now = catalogue.batteries[room.battery or ""]
    for model in good_batteries(catalogue, load_w, place_c)[:_OFFERED]:
        after = judge_battery(catalogue.rules, model, load_w, place_c, [])
        yield Cure(
            label=f"Take {model.label}",
            effect=f"{after.minutes:.0f} minutes new, {after.minutes_old:.0f} after {after.years} years; "
            f"{model.price - now.price:+g} each, {model.units} units",
            changes=(put(room.model_copy(update={"battery": model.id})),),
        )


def _finding(
    catalogue: Catalogue,
    room: EquipmentRoom,
    key: str,
    severity: str,
    text: str,
    rule: str,
    figures: tuple[str, ...],
    **more: object,
) -> Finding:
    place = Place(kind="equipment_room", id=room.id, floor=room.floor, at=room.at)
    return Finding.model_validate(
        {
            "id": f"rack-{key}-{room.id}",
            "stage": "power",
            "severity": severity,
            "text": text,
            "places": (place,),
            "rule": rule,
            "source": catalogue.rules.source(figures[0]),
            "used": catalogue.rules.used(*figures),
            **more,
        }
    )
