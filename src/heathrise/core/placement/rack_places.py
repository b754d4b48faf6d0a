"""Where a rack could stand: rooms side by side, by cable, heat, sound, socket, panel, water, wall, lock.

Each place is tried in full; the panel's space and doors are kept clear of by the spot itself.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import shapely
from pydantic import Field

from ..base.frozen import Frozen
from ..base.progress import Progress
from ..base.wording import metres
from ..cabling import RunVerdict, is_wet, judge_runs
from ..catalogue import Used, on_offer
from ..context.plan import Plan
from ..design import Change, Device, EquipmentRoom, Floor, Panel, Point, Socket, Space, apply, put
from ..elevation import Elevation, clear_spot, heard
from ..evaluation.evaluate import evaluate
from ..mains import near_socket, panels_blocked

_TRIED = 10
_QUIET_DB = 10.0  # so much over what a use bears is as bad as it gets
_FAR_M = 10.0  # a socket so far away is as bad as none
_UNKNOWN = 0.5
Matter = Literal["cable", "heat", "noise", "socket", "panel", "water", "wall", "lock"]


class Judged(Frozen):
    """One matter of one place: its figure in words, and how bad it is, 0 to 1."""

    matter: Matter
    said: str
    bad: float


class RackSpot(Frozen):
    """A place for a rack with what it would come to; ``changes`` move it there."""

    space: str
    name: str
    floor: str
    floor_name: str
    at: Point
    here: bool = Field(description="whether it stands there now")
    score: float = Field(description="100 where nothing is bad, by the weights in force")
    cable_m: float
    not_met: int = Field(description="runs that would not do")
    judged: tuple[Judged, ...]
    changes: tuple[Change, ...]


class RackPlaces(Frozen):
    """Places for one rack, the best first; ``without`` are rooms with no wall that is clear."""

    room: str
    name: str
    places: tuple[RackSpot, ...]
    without: tuple[str, ...]
    used: tuple[Used, ...]


def rack_places(plan: Plan, room_id: str, progress: Progress) -> RackPlaces:
    """Return where a rack could stand, the best first. A search that is stopped gives what it has."""
    design, catalogue = plan.design, plan.catalogue
    room = design.of(EquipmentRoom)[room_id]
    now = evaluate(plan, wait=False)
    rack = now.racks.of(room_id)
    frame = catalogue.frames[rack.frame] if rack is not None else on_offer(catalogue.frames)[0]
    size_m = frame.wide_mm / 1000, frame.deep_mm / 1000
    spaces = _candidates(plan, room)
    found: list[tuple[Space, Point, list[RunVerdict]]] = []
    without = []
    for done, space in enumerate(spaces):
        if not progress(done, len(spaces)):
            break
        near = _towards(plan, space, room)
        at = room.at if _stands_in(room, space) else clear_spot(design, catalogue, space, near, size_m)
        if at is None:
            without.append(space.name)
            continue
        moved = room.model_copy(update={"floor": space.floor, "at": at})
        after = apply(design, [put(moved)])
        found.append((space, at, judge_runs(after, catalogue)))
    least = _Least(
        min((_bought_m(runs) for *_, runs in found), default=0.0),
        min((_failing(runs) for *_, runs in found), default=0),
    )
    rows = [_spot(plan, room, rack, space, at, runs, least) for space, at, runs in found]
    rows.sort(key=lambda row: (row.not_met, -row.score))
    weights = tuple(f"rack.place_weight.{m}" for m in plan.rules.table("rack.place_weight"))
    return RackPlaces(
        room=room.id,
        name=room.name,
        places=tuple(rows),
        without=tuple(without),
        used=plan.rules.used(*weights),
    )


@dataclass(frozen=True)
class _Least:
    """The least cable of all places, m, and the fewest runs that would not do."""

    cable_m: float
    failing: int


def _bought_m(runs: Sequence[RunVerdict]) -> float:
    return sum(r.bought_m * r.cables for r in runs)


def _failing(runs: Sequence[RunVerdict]) -> int:
    return sum(r.verdict not in ("met", "near") for r in runs)


def _stands_in(room: EquipmentRoom, space: Space) -> bool:
    outline = shapely.Polygon(space.outline)
    return space.floor == room.floor and bool(outline.covers(shapely.Point(room.at)))


def _candidates(plan: Plan, room: EquipmentRoom) -> list[Space]:
    """Return the rooms that are tried: that in which it stands, then those nearest to what it serves."""
    design = plan.design
    floors = design.of(Floor)
    building = floors[room.floor].building
    runs = evaluate(plan).cable.runs
    mine = [design.of(Device)[r.device] for r in runs if r.room == room.id]

    def far(space: Space) -> float:
        spot = shapely.Polygon(space.outline).representative_point()
        up = floors[space.floor].elevation_m
        return sum(
            math.dist(d.at, (spot.x, spot.y)) + abs(floors[d.floor].elevation_m - up) for d in mine
        ) * (0.8 if space.use == "none" else 1.0)  # where nobody sits goes before where they do

    rooms = [
        s
        for s in design.of(Space).values()
        if not s.outdoor and not s.stairs and floors[s.floor].building == building
    ]
    here = [s for s in rooms if _stands_in(room, s)]
    others = sorted((s for s in rooms if s not in here), key=far)
    return [*here[:1], *others[: _TRIED - 1]]


def _towards(plan: Plan, space: Space, room: EquipmentRoom) -> Point:
    """Return the point of a room that a rack is put near to: its socket, else where the rack was."""
    outline = shapely.Polygon(space.outline).buffer(0.3)
    inside = [
        s.at
        for s in plan.design.of(Socket).values()
        if s.floor == space.floor and s.state in ("new", "keep") and outline.covers(shapely.Point(s.at))
    ]
    return inside[0] if inside else room.at


def _spot(
    plan: Plan,
    room: EquipmentRoom,
    rack: Elevation | None,
    space: Space,
    at: Point,
    runs: Sequence[RunVerdict],
    least: _Least,
) -> RackSpot:
    design, rules = plan.design, plan.rules
    cable_m, bad_runs = _bought_m(runs), _failing(runs)
    moved = room.model_copy(update={"floor": space.floor, "at": at})
    after = plan.after([put(moved)])
    there = evaluate(after.hastily(), wait=False).racks.of(room.id) if rack is not None else None
    judged = [
        Judged(
            matter="cable",
            said=f"{metres(cable_m, 0)}"
            + (f", {bad_runs} of {len(runs)} runs will not do" if bad_runs else ""),
            bad=min(1.0, (cable_m - least.cable_m) / max(least.cable_m, 1.0) + bad_runs - least.failing),
        ),
        *(_air(there) if there is not None else ()),
        _noise(plan, after, there, at, space),
        _socket(plan, space, at, room),
        _panel(plan, space, at, there),
        Judged(
            matter="water",
            said="water runs there" if (wet := is_wet(design, plan.catalogue, space)) else "dry",
            bad=float(wet),
        ),
        *(_wall(there) if there is not None else ()),
        Judged(
            matter="lock",
            said={True: "locked", False: "open to all", None: "not said"}[space.locks],
            bad={True: 0.0, False: 1.0, None: _UNKNOWN}[space.locks],
        ),
    ]
    weight = {j.matter: rules[f"rack.place_weight.{j.matter}"] for j in judged}
    total = sum(weight.values()) or 1.0
    score = 100 * (1 - sum(weight[j.matter] * j.bad for j in judged) / total)
    here = at == room.at and space.floor == room.floor
    return RackSpot(
        space=space.id,
        name=space.name,
        floor=space.floor,
        floor_name=design.of(Floor)[space.floor].name,
        at=at,
        here=here,
        score=round(score, 1),
        cable_m=round(cable_m, 1),
        not_met=bad_runs,
        judged=tuple(judged),
        changes=() if here else (put(moved),),
    )


def _air(rack: Elevation) -> tuple[Judged, ...]:
    closet = rack.closet
    now = closet.now_c
    span = max(closet.limit_c - closet.room_c, 1.0)
    said = f"{now:.0f}\u00a0°C of {closet.limit_c:g}"
    return (Judged(matter="heat", said=said, bad=min(1.0, max(0.0, (now - closet.room_c) / span))),)


def _noise(plan: Plan, after: Plan, rack: Elevation | None, at: Point, space: Space) -> Judged:
    level = rack.noise_db if rack is not None else 0.0
    rows = heard(after.design, plan.catalogue, space.floor, at, level)
    if not rows:
        return Judged(matter="noise", said="no fan" if not level else "nobody near", bad=0.0)
    worst, there, bears = max(rows, key=lambda row: row[1] - row[2])
    said = f"{there:.0f} of {bears:g} dB(A), {worst.name}"
    return Judged(matter="noise", said=said, bad=min(1.0, max(0.0, (there - bears) / _QUIET_DB)))


def _socket(plan: Plan, space: Space, at: Point, room: EquipmentRoom) -> Judged:
    near = near_socket(plan.design, space.floor, at, room.rack_height_m)
    if near is None:
        return Judged(matter="socket", said="none drawn", bad=1.0 if plan.design.of(Socket) else _UNKNOWN)
    within = near.reach_m <= plan.rules["plan.cord_m"]
    bad = 0.0 if within else min(1.0, near.reach_m / _FAR_M)
    return Judged(matter="socket", said=f"{metres(near.reach_m, 1)} away", bad=bad)


def _panel(plan: Plan, space: Space, at: Point, rack: Elevation | None) -> Judged:
    size_m = (rack.wide_mm / 1000, rack.deep_mm / 1000) if rack is not None else (0.6, 0.45)
    within = bool(panels_blocked(plan.design, space.floor, at, size_m, plan.rules))
    drawn = any(p.floor == space.floor for p in plan.design.of(Panel).values())
    said = "in the space before a panel" if within else "clear" if drawn else "none drawn"
    return Judged(matter="panel", said=said, bad=float(within))


def _wall(rack: Elevation) -> tuple[Judged, ...]:
    fixing = rack.fixing
    bad = {"masonry": 0.0, "floor": 0.0, "studs": _UNKNOWN if fixing.board else 0.1, "unknown": 1.0}
    said = {"masonry": "masonry", "floor": "on the floor", "studs": "studs", "unknown": "bears no frame"}
    board = ", a board" if fixing.board else ""
    return (Judged(matter="wall", said=said[fixing.into] + board, bad=bad[fixing.into]),)
