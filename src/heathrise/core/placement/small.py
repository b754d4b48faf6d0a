"""Small questions about places: where this one is best, and which one is not needed."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from ..base.progress import Progress, always
from ..base.wording import metres
from ..context.findings import Cure
from ..context.plan import Plan
from ..design import Change, DesignError, Device, Problem, put
from ..evaluation.side_effects import broken_walks, spoiled
from ..signal import VERDICT_RANK, RoomVerdict, environment_of, judge_rooms, mesh_links
from ..views.offers import removal
from .ground import Ground, ground_of
from .landings import crossings
from .places import Wishes, movable
from .shift import Rooms, RoomsScore, two_best

_OFFERED = 3
_APART_M = 2.5  # what is nearer than this to a better place is no other one
_LEAST_MOVE_M = 0.5
_TRIED = 12  # places that are really tried, the most promising first
_LEAST_SHARE = 0.02
_HALL_SHARE = 0.1  # a place on a landing is worth so much more over the air: it reaches on
_MOST_ORPHANS = 80  # places without a parent that are passed over


def best_places(plan: Plan, device_id: str, wishes: Wishes, progress: Progress = always) -> list[Cure]:
    """Return the best places for one access point while all others stay, the best first.

    One without a cable is looked at with its back-haul: where it hears no parent it is not hung, of
    places that serve rooms alike the one is better where a user gets more.

    Raises:
        DesignError: it is none that may be moved.
    """
    design, ruled = plan.design, plan.catalogue
    device = next((d for d in movable(design, ruled) if d.id == device_id), None)
    if device is None:
        raise DesignError([Problem("device", "say which new access point")])
    others = tuple(d.id for d in movable(design, ruled) if d.id != device_id)
    own = wishes.model_copy(update={"keep": others, "models": (device.model,)})
    ground = ground_of(plan, own)
    ranked = _ranked(ground, progress)
    standing = environment_of(plan)
    before = judge_rooms(standing)
    now_mbps = next((k.user_mbps for k in mesh_links(standing) if k.device == device_id), 0.0)
    halls = crossings(design, ruled.rules)
    tried: list[tuple[tuple[float, float], Cure]] = []
    taken: list[Device] = []
    orphans = 0
    for place, _ in ranked:
        near = [t for t in taken if t.floor == place.floor and math.dist(t.at, place.at) < _APART_M]
        there = place.floor == device.floor and math.dist(place.at, device.at) < _LEAST_MOVE_M
        if near or there or place.model != device.model:
            continue
        moved = device.model_copy(
            update={k: getattr(place, k) for k in ("floor", "at", "height_m", "mount", "azimuth_deg")}
        )
        after_it = plan.after([put(moved)])
        air = environment_of(after_it)
        after = judge_rooms(air)
        link = next((k for k in mesh_links(air) if k.device == device.id), None)
        if link is not None and link.parent is None:
            orphans += 1
            if orphans == _MOST_ORPHANS:
                break
            continue
        taken.append(place)
        more = link is not None and link.user_mbps > now_mbps
        if _better(before, after) or (more and _worth(after)[0] >= _worth(before)[0]):
            label = f"Move {device.name} {_where(ground, device, place)}"
            said = effect(before, after)
            said += "".join(f"; {w}" for w in broken_walks(plan, after_it))
            rank, shares = _worth(after)
            worth = (rank, shares)
            if link is not None:
                said += f"; {link.user_mbps:.0f} Mb/s for a user over {link.parent_name}"
                room = air.terrain.storeys.room_at(place.floor, place.at)
                hall = room is not None and room.id in halls
                said += ", where ways cross" if hall else ""
                worth = (rank, link.user_mbps * (1 + _HALL_SHARE * hall))
            tried.append((worth, Cure(label=label, effect=said, changes=(put(moved),))))
        if len(taken) == _TRIED or not progress(len(taken), _TRIED):
            break
    tried.sort(key=lambda row: row[0], reverse=True)
    return [cure for _, cure in tried[:_OFFERED]]


def _ranked(ground: Ground, progress: Progress) -> list[tuple[Device, RoomsScore]]:
    """Return the places, the one with which rooms stand best first."""
    rooms = Rooms(ground.asked, ground.share)
    size, fixed = ground.reach.shape[1], len(ground.fixed)
    best, next_best = two_best(ground.reach[:fixed], size)
    found = []
    for k, place in enumerate(ground.places):
        if not progress(k, len(ground.places)):
            break
        own = ground.reach[fixed + k]
        first = np.maximum(best, own)
        second = np.maximum(next_best, np.minimum(best, own))
        found.append((place, rooms.standing(first, second)))
    return sorted(found, key=lambda row: (row[1].met, row[1].worst_db, row[1].mean_db))[::-1]


def _where(ground: Ground, device: Device, place: Device) -> str:
    room = ground.air.terrain.storeys.room_at(place.floor, place.at)
    name = f"into {room.name}" if room is not None else "outside"
    if place.floor != device.floor:
        return name
    return f"by {metres(round(math.dist(place.at, device.at), 1))}, {name}"


def needless(plan: Plan, progress: Progress = always) -> list[Cure]:
    """Return the access points without which no room does worse and no call breaks on a walk, each
    taken alone."""
    design, ruled = plan.design, plan.catalogue
    before = judge_rooms(environment_of(plan))
    points = movable(design, ruled)
    found: list[Cure] = []
    for number, device in enumerate(points):
        if not progress(number, len(points)):
            break
        # Really taken away: what the others then do is planned anew.
        changes: Sequence[Change] = removal(design, device)
        without = plan.after(changes)
        after = judge_rooms(environment_of(without))
        if all(_rank(b) <= _rank(a) for b, a in zip(before, after, strict=True)):
            if spoiled(plan, without):
                continue  # a call breaks on some walk
            label, effect = f"Take {device.name} away", "no room does worse, no call breaks"
            found.append(Cure(label=label, effect=effect, changes=tuple(changes)))
    return found


def _rank(room: RoomVerdict) -> int:
    return VERDICT_RANK[room.verdict]


def _better(before: Sequence[RoomVerdict], after: Sequence[RoomVerdict]) -> bool:
    """Whether more rooms stand better than worse, or the same with more of their floor met."""
    ranks, shares = zip(_worth(before), _worth(after), strict=True)
    spoilt = any(_rank(a) < _rank(b) for b, a in zip(before, after, strict=True))
    return ranks[1] > ranks[0] or (
        ranks[1] == ranks[0] and not spoilt and shares[1] > shares[0] + _LEAST_SHARE
    )


def _worth(rooms: Sequence[RoomVerdict]) -> tuple[float, float]:
    return float(sum(map(_rank, rooms))), sum(r.share_margin or 0.0 for r in rooms)


def effect(before: Sequence[RoomVerdict], after: Sequence[RoomVerdict]) -> str:
    """Return in words what a change does to rooms."""
    met = [sum(r.verdict == "met" for r in rooms) for rooms in (before, after)]
    better = [a.name for b, a in zip(before, after, strict=True) if _rank(a) > _rank(b)]
    worse = [a.name for b, a in zip(before, after, strict=True) if _rank(a) < _rank(b)]
    words = f"{met[1]} rooms met, {met[0]} now"
    if better:
        words += f"; helps {', '.join(better[:3])}"
    if worse:
        words += f"; spoils {', '.join(worse[:3])}"
    return words
