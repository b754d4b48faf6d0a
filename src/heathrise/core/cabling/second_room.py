"""A second equipment room, nearer to what the first one cannot reach."""

from __future__ import annotations

import math

import shapely
from shapely.geometry import Polygon

from ..base.wording import metres
from ..catalogue import Catalogue
from ..context.findings import Cure
from ..context.racks import top_room
from ..design import (
    Building,
    Design,
    Device,
    Duct,
    Element,
    EquipmentRoom,
    Floor,
    Medium,
    Point,
    Riser,
    Space,
    Switch,
    Uplink,
    apply,
    put,
)
from .runs import RunVerdict, judge_runs
from .uplinks import judge_uplinks

GOOD = ("met", "near")
_INSIDE_M = 0.5  # a rack stands this far from the wall that a duct comes in through


def second_room(design: Design, catalogue: Catalogue, run: RunVerdict, device: Device) -> tuple[Cure, ...]:
    """Offer a room with a switch in the building of a device that is out of reach, if that mends
    its run: where the cable comes in there, else under the riser, else at the device itself."""
    spot = _spot(design, device)
    if spot is None:
        return ()
    floor, at = spot
    name = _name(design, floor)
    return room_at(design, catalogue, run, device, floor.id, at, name, f"A second room, {name}")


def new_room(design: Design, floor: str, name: str, at: Point) -> EquipmentRoom:
    """Return a room that is not there yet, under an id that is free."""
    taken = design.of(EquipmentRoom)
    free = next(f"rack-{k}" for k in range(2, 100) if f"rack-{k}" not in taken)
    return EquipmentRoom(id=free, floor=floor, name=name, at=at)


def room_at(
    design: Design,
    catalogue: Catalogue,
    run: RunVerdict,
    device: Device,
    floor: str,
    at: Point,
    name: str,
    label: str,
    medium: Medium | None = None,
) -> tuple[Cure, ...]:
    """Offer a room with a switch at a spot, if that mends a device's run.

    Args:
        medium: of its way up, by plan without one; over fibre its switch has a cage.
    """
    room = new_room(design, floor, name, at)
    room_id = room.id
    new: list[Element] = [room]
    if medium is not None:
        top = top_room(design)
        if top is None:
            return ()
        new.append(Uplink(id=f"u-{room_id}"[:40], room=room_id, to=top, medium=medium))
    after = apply(design, [put(element) for element in new])
    if judge_runs(after, catalogue, device)[0].verdict not in GOOD:
        return ()
    up = next((u for u in judge_uplinks(after, catalogue) if u.room == room_id), None)
    if up is None or up.verdict not in GOOD:
        return ()
    runs = {r.device: r for r in judge_runs(after, catalogue)}
    mine = [r for r in runs.values() if r.room == room_id]
    switch = switch_for(design, catalogue, room_id, mine, up.medium == "fibre")
    if switch is None:
        return ()
    now = runs[device.id].fixed_m
    effect = (
        f"{device.name}: {metres(run.fixed_m)} becomes {metres(now)}; {len(mine)} "
        f"run{'s' if len(mine) > 1 else ''} begin there, {metres(up.fixed_m)} of {up.medium} "
        "lead up; "
        f"{catalogue.switches[switch.model].price:+g} {design.site.currency} for its switch"
    )
    return (Cure(label=label, effect=effect, changes=tuple(put(e) for e in (*new, switch))),)


def _spot(design: Design, device: Device) -> tuple[Floor, Point] | None:
    """Return where a rack would stand in a device's building."""
    floors = design.of(Floor)
    building = floors[device.floor].building
    for duct in design.of(Duct).values():
        for key, end in ((duct.from_floor, duct.path[0]), (duct.to_floor, duct.path[-1])):
            if floors[key].building == building and not _has_room(design, building):
                return floors[key], spot_within(design, key, None, end)
    for riser in design.of(Riser).values():
        level = floors[device.floor].level
        if riser.building == building and riser.lowest_level <= level <= riser.highest_level:
            return floors[device.floor], spot_within(design, device.floor, None, riser.at)
    inside = spot_within(design, device.floor, None, device.at)
    return floors[device.floor], inside


def _has_room(design: Design, building: str) -> bool:
    floors = design.of(Floor)
    return any(floors[r.floor].building == building for r in design.of(EquipmentRoom).values())


def spot_within(design: Design, floor: str, room: Space | None, at: Point) -> Point:
    """Return the point nearest to a spot that lies within a room, a little off its walls.

    Any indoor room of the floor will do where none is given.
    """
    rooms = [
        Polygon(s.outline).buffer(-_INSIDE_M)
        for s in design.of(Space).values()
        if s.floor == floor and not s.outdoor and room in (None, s)
    ]
    point = shapely.Point(at)
    best, least = at, math.inf
    for inner in rooms:
        if inner.is_empty:
            continue
        near = shapely.ops.nearest_points(inner, point)[0]
        if near.distance(point) < least:
            best, least = (round(near.x, 2), round(near.y, 2)), near.distance(point)
    return best


def _name(design: Design, floor: Floor) -> str:
    building = design.of(Building)[floor.building].name
    base = f"{building} rack" if not _has_room(design, floor.building) else f"{floor.name} rack"
    return base[:120]


def switch_for(
    design: Design, catalogue: Catalogue, room: str, runs: list[RunVerdict], fibre: bool, more: int = 0
) -> Switch | None:
    """Return the cheapest managed switch with enough ports of each kind for the runs, and a cage where
    fibre leads up; ``more`` ports are wanted for what has no run."""
    devices = design.of(Device)
    fed = [p for r in runs if (p := catalogue.model_of(devices[r.device]).power) is not None]
    watts = sum(catalogue.rules.poe_classes[p.poe_class].reserved_w for p in fed)
    links = sum(r.cables if catalogue.role_of(devices[r.device]).links == "every_cable" else 1 for r in runs)
    fitting = [
        m
        for m in catalogue.sold_switches
        if m.managed
        and (not fibre or any(g.cage for g in m.groups))
        and m.copper_ports > links + more - any(g.cage for g in m.groups)
        and m.powered_ports >= len(fed)
        and m.budget_w * (1 - design.site.power_headroom) >= watts
    ]
    if not fitting:
        return None
    taken = design.of(Switch)
    number = next(k for k in range(1, 500) if f"sw-{k}" not in taken)
    model = min(fitting, key=lambda m: m.price)
    return Switch(id=f"sw-{number}", equipment_room=room, name=f"SW-{len(taken) + 1}", model=model.id)
