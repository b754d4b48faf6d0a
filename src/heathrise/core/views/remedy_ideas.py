"""What might mend a run that is too long: other ways, other racks, what the finding offers."""

from __future__ import annotations

from collections.abc import Iterator

from shapely.geometry import LineString

from ..base.wording import metres
from ..cabling import GOOD, OVERHEADS, RunVerdict, judge_runs, room_at, second_room, spot_within
from ..context.findings import Cure
from ..context.plan import Plan
from ..context.run_decisions import run_said
from ..context.storeys import storeys_of
from ..design import Device, EquipmentRoom, Extender, Floor, Medium, Point, Space, apply, put, remove
from ..elevation import clear_spot
from ..evaluation.evaluate import evaluate

_SPARES_M = (2.0, 8.0, 16.0)  # of the reach that is left for a rack's own place
_SHELF_M = (0.6, 0.4)  # what a small frame takes, wide and deep
_WORTH_M = 0.5  # a way that is shorter by less is no other way
_MEDIA: tuple[Medium, ...] = ("fibre", "copper")


def candidates(plan: Plan, run: RunVerdict, device: Device) -> Iterator[Cure]:
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
        if judge_runs(tried, plan.catalogue, device)[0].verdict in GOOD:
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
