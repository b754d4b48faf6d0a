"""The racks as things: what is in each, in which unit, joined by which cords, how warm and how loud."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ..base.memo import IdentityMemo
from ..catalogue import SHED_LAST, Catalogue, FrameModel
from ..context.storeys import Storeys, storeys_of
from ..context.unmoved import unmoved
from ..design import Design, EquipmentRoom, RackPlace, Space, Switch, Zone
from .arrange import Arrangement, Placed, arrange
from .battery import judge_battery
from .contents import RackLoad, contents_of, placed
from .cords import Patch, cords_of
from .frame import fixing_of, frame_for, units_wanted
from .heat import airflow_m3h, closet_c, together_db
from .values import Battery, Closet, Elevation, RackChapter, Thing

_PORTS_OF_PANEL = 24
_LATER_UNITS = 2  # a panel and a switch for each panel's worth of what comes later


@dataclass(frozen=True)
class RackDraw:
    """What hangs on a rack's battery beside what stands in it: rank of shedding, name, watts at the port."""

    rank: int
    name: str
    watts: float


def assess_racks(
    design: Design,
    catalogue: Catalogue,
    loads: Sequence[RackLoad],
    patches: Sequence[Patch],
    draws: Mapping[str, Sequence[RackDraw]],
) -> RackChapter:
    """Return every rack as it is built.

    Args:
        loads: what each rack holds beside what stands in the design.
        patches: cords that are wanted.
        draws: by room, what its switches feed.
    """
    racks: list[Elevation] = []
    things: list[Thing] = []
    near = Counter((p.room, *sorted((p.from_thing, p.to_thing))) for p in patches)
    # Most racks stay what they are while gear is moved within its rooms.
    still = unmoved(design)
    switches = {s.id: s.equipment_room for s in design.of(Switch).values()}
    for load in loads:
        room, fed = design.of(EquipmentRoom)[load.room], tuple(draws.get(load.room, ()))
        holds = (
            load.panels,
            tuple((k, w) for k, w in (load.poe_w or {}).items() if switches.get(k) == room.id),
            tuple((load.injected_w or {}).items()),
            bool(load.recorders),
            load.modem,
            tuple((c.key, c.name, c.model.id) for c in load.converters),
            load.splices,
            tuple(row for row in near.items() if row[0][0] == room.id),
        )
        mine, rack = _kept.get(
            (still, catalogue),
            (room.id, holds, fed),
            lambda room=room, load=load, fed=fed: _rack(design, catalogue, room, load, near, fed),  # type: ignore[misc]
        )
        things += mine
        racks.append(rack)
    cords = tuple(cords_of(catalogue.rules, things, patches))
    return RackChapter.model_construct(racks=tuple(racks), things=tuple(things), cords=cords)


_kept: IdentityMemo[tuple[list[Thing], Elevation]] = IdentityMemo(256)


def _rack(
    design: Design,
    catalogue: Catalogue,
    room: EquipmentRoom,
    load: RackLoad,
    near: Mapping[tuple[str, ...], int],
    draws: Sequence[RackDraw],
) -> tuple[list[Thing], Elevation]:
    rules = catalogue.rules
    things = contents_of(design, catalogue, load)
    later = _later_units(design) if load.modem or len(design.of(EquipmentRoom)) == 1 else 0
    frame, fits = frame_for(catalogue, room, things, units_wanted(rules, things, later))
    arrangement, people = _arrangement(design, catalogue, room, frame, things, near)
    things = placed(things, arrangement.units, people)
    watts, carried = sum(t.watts for t in things), sum(t.carried_w for t in things)
    kg = round(frame.kg + sum(t.kg for t in things), 1)
    closet = _closet(design, catalogue, room, things)
    used = sum(t.units for t in things if not t.on and t.unit)
    switches = [s for s in design.of(Switch).values() if s.equipment_room == room.id]
    return things, Elevation(
        room=room.id,
        name=room.name,
        frame=frame.id,
        label=frame.label,
        units=frame.units,
        wall=frame.wall,
        wide_mm=frame.wide_mm,
        deep_mm=frame.deep_mm,
        bears_kg=frame.bears_kg,
        chosen_by="person" if room.frame is not None else "plan",
        fits=fits and all(t.unit for t in things),
        fresh=not switches or any(s.state == "new" for s in switches),
        used_units=used,
        blanks=arrangement.blanks,
        spare_units=frame.units - used - len(arrangement.blanks),
        later_units=later,
        kg=kg,
        watts=round(watts, 1),
        carried_w=round(carried, 1),
        heat_w=round(watts - carried, 1),
        noise_db=round(together_db(t.noise_db for t in things), 1),
        strips=sum(t.kind == "strip" for t in things),
        proven=arrangement.proven,
        closet=closet,
        battery=_battery(catalogue, room, things, closet, draws),
        fixing=fixing_of(design, catalogue, room, frame, kg),
    )


def _later_units(design: Design) -> int:
    """Return the units that what comes later will take: a panel and a switch for so many links."""
    zones = [z for z in design.of(Zone).values() if z.kind == "later"]
    links = sum(z.access_points + z.outlets + z.cameras for z in zones)
    return _LATER_UNITS * math.ceil(links / _PORTS_OF_PANEL)


def _arrangement(
    design: Design,
    catalogue: Catalogue,
    room: EquipmentRoom,
    frame: FrameModel,
    things: Sequence[Thing],
    near: Mapping[tuple[str, ...], int],
) -> tuple[Arrangement, frozenset[str]]:
    rules = catalogue.rules
    fan, hot_w = int(rules["rack.fan_blank_units"]), rules["rack.hot_w"]
    own = [t for t in things if not t.on]
    at = places_said(design, room, own, frame.units)
    on_shelf: Counter[str] = Counter()
    for thing in things:
        on_shelf[thing.on] += round(thing.kg)
    rows = tuple(
        Placed(
            t.thing,
            t.units,
            round(t.kg) + on_shelf[t.thing],
            t.heat_w >= hot_w,
            fan if t.noise_db > 0 else 0,
            at.get(t.thing),
        )
        for t in own
    )
    holder = {t.thing: t.on or t.thing for t in things}
    pairs: Counter[tuple[str, str]] = Counter()
    for (where, one, other), cords in near.items():
        ends = holder.get(one), holder.get(other)
        if where == room.id and ends[0] and ends[1] and ends[0] != ends[1]:
            pairs[min(ends), max(ends)] += cords  # type: ignore[type-var, index]
    return arrange(rows, tuple((a, b, n) for (a, b), n in sorted(pairs.items())), frame.units), frozenset(at)


def places_said(design: Design, room: EquipmentRoom, things: Sequence[Thing], units: int) -> dict[str, int]:
    """Return where somebody put things: what would not fit in the frame, or lie on what was placed
    before, is left to the plan."""
    known = {t.thing: t for t in things}
    taken: set[int] = set()
    found: dict[str, int] = {}
    for place in design.of(RackPlace).values():
        thing = known.get(place.thing)
        if place.equipment_room != room.id or thing is None or place.thing in found:
            continue
        mine = set(range(place.unit, place.unit + thing.units))
        if max(mine) <= units and not mine & taken:
            taken |= mine
            found[place.thing] = place.unit
    return found


def _closet(design: Design, catalogue: Catalogue, room: EquipmentRoom, things: Sequence[Thing]) -> Closet:
    rules, storeys = catalogue.rules, storeys_of(design)
    space = storeys.room_at(room.floor, room.at)
    below = storeys.floors[room.floor].level < 0
    room_c = rules["cabling.space_c.basement" if below else "cabling.space_c.room"]
    heat = sum(t.heat_w for t in things)
    limits = [
        (t.most_c if t.most_c is not None else rules["rack.limit_c"], t.name) for t in things if t.watts
    ]
    limit_c, limit_of = min(limits, default=(rules["rack.limit_c"], ""))
    area = _surface_m2(storeys, space) if space is not None and not space.outdoor else math.inf
    passes = rules["rack.closet_w_m2k"]
    closed = room_c if math.isinf(area) else closet_c(room_c, heat, area, passes)
    vented = (
        closet_c(room_c, heat, area, passes, room.vent_m3h)
        if room.vent_m3h and not math.isinf(area)
        else None
    )
    now, warn_c = (vented if vented is not None else closed), min(rules["rack.warn_c"], limit_c)
    wanted = airflow_m3h(heat, warn_c - room_c) if closed > warn_c else 0.0
    return Closet(
        space=space.id if space is not None else None,
        name=space.name if space is not None else "",
        room_c=room_c,
        area_m2=round(area, 1),
        closed_c=round(closed, 1),
        vented_c=round(vented, 1) if vented is not None else None,
        vent_m3h=room.vent_m3h,
        wanted_m3h=round(wanted, 1) if math.isfinite(wanted) else 0.0,
        limit_c=limit_c,
        limit_of=limit_of,
        verdict="not_met" if now > limit_c else "near" if now > warn_c else "met",
    )


def _surface_m2(storeys: Storeys, space: Space) -> float:
    """Return what walls and ceiling of a room have together, m2."""
    corners = space.outline
    around = sum(math.dist(a, b) for a, b in zip(corners, (*corners[1:], corners[0]), strict=True))
    polygon = next(p for s, p in storeys.rooms[space.floor] if s.id == space.id)
    return float(around * storeys.ceiling_m(space, space.floor) + polygon.area)


def _battery(
    catalogue: Catalogue,
    room: EquipmentRoom,
    things: Sequence[Thing],
    closet: Closet,
    draws: Sequence[RackDraw],
) -> Battery | None:
    if room.battery is None:
        return None
    fed = [(d.rank, d.name, d.watts * (1 + catalogue.rules["rack.poe_loss_share"])) for d in draws]
    load_w = sum(t.watts for t in things if t.kind != "battery")
    own = load_w - sum(w for *_, w in fed)
    parts = [*fed, (SHED_LAST, "line, router, switches", own)]
    place_c = closet.now_c
    return judge_battery(catalogue.rules, catalogue.batteries[room.battery], load_w, place_c, parts)
