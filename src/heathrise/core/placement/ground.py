"""What a search for places stands on: what stays, the places, what each of them reaches."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from shapely.geometry import Point, Polygon

from ..catalogue import Catalogue
from ..context.plan import Plan
from ..design import Design, DesignError, Device, Problem, Space, apply, put
from ..signal import Asked, RadioEnvironment, air_of, asked_rooms, reach_dbm, rooms_of
from .cover import Demands, demands_of
from .places import Excluded, Wishes, free_part, movable, places_of
from .shift import Levels

_SAME_SPOT_M = 0.3
_MOST_POINTS = 4_000


@dataclass(frozen=True, eq=False)
class Ground:
    """All that a search stands on: what stays, the places, what each of them reaches."""

    design: Design
    catalogue: Catalogue
    wishes: Wishes
    air: RadioEnvironment
    free: tuple[Device, ...]
    fixed: tuple[Device, ...]
    places: tuple[Device, ...]
    excluded: tuple[Excluded, ...]
    asked: tuple[Asked, ...]
    reach: Levels

    @property
    def columns(self) -> tuple[Device, ...]:
        """What stays, then the places: what a choice is made of."""
        return (*self.fixed, *self.places)

    @property
    def margin_db(self) -> float:
        return self.wishes.margin_in_db(self.design.site)

    @property
    def share(self) -> float:
        return self.catalogue.rules["signal.met_share"]

    def demands(self) -> Demands:
        """Return what has to be covered."""
        first, second, wanted = self.flags()
        return demands_of(first, second, wanted, rooms_of(self.asked), self.share)

    def flags(self) -> tuple[NDArray[np.bool_], NDArray[np.bool_], NDArray[np.bool_]]:
        """Return what reaches first and second targets, and where a second is wanted."""
        sizes = [len(a.x) for a in self.asked]
        first = np.repeat([a.first_dbm for a in self.asked], sizes)
        seconds = [math.inf if a.second_dbm is None else a.second_dbm for a in self.asked]
        second = np.repeat(seconds, sizes)
        return self.reach >= first, self.reach >= second, np.isfinite(second)

    def with_second(self, rooms: Sequence[Asked], more_db: int) -> tuple[Asked, ...]:
        """Return rooms that ask for their second by so much more; where none asks for one, all do."""
        calls_dbm = self.catalogue.rules["signal.targets.calls.second_dbm"] + self.margin_db
        anywhere = any(a.second_dbm is not None for a in self.asked)

        def stronger(room: Asked) -> Asked:
            target = room.second_dbm
            if target is None and not anywhere and room.band == "5":
                target = calls_dbm
            return room if target is None else replace(room, second_dbm=target + more_db)

        return tuple(map(stronger, rooms))

    def allows(self, device: Device) -> bool:
        """Whether a shifted place lies in the room of the place it was shifted from."""
        if device.mount != "ceiling":
            return False  # a wall mount stays on its wall
        edge_m = self.catalogue.rules["signal.place_edge_m"]
        room = self.air.terrain.storeys.room_at(device.floor, device.at)
        if room is None or room.id not in self.design.of(Space) or room.outdoor:
            return False
        if room.id in {e.space for e in self.excluded}:
            return False
        return bool(free_part(self.design, room).buffer(-edge_m).contains(Point(device.at)))

    def apart(self) -> tuple[tuple[int, int], ...]:
        """Return pairs of which one alone is taken: on one spot, or too near within a room."""
        apart_m = self.catalogue.rules["signal.place_apart_m"]
        storeys = self.air.terrain.storeys
        rooms = [storeys.room_at(d.floor, d.at) for d in self.columns]
        at = np.array([d.at for d in self.columns]).reshape(-1, 2)
        pairs = []
        for i, (one, room) in enumerate(zip(self.columns, rooms, strict=True)):
            far = np.hypot(*(at[i + 1 :] - at[i]).T)
            for j in np.flatnonzero(far < max(apart_m, _SAME_SPOT_M)) + i + 1:
                other = self.columns[j]
                same = room is not None and rooms[j] is not None and rooms[j].id == room.id  # type: ignore[union-attr]
                if one.floor == other.floor and (same or far[j - i - 1] < _SAME_SPOT_M):
                    pairs.append((i, int(j)))
        return tuple(pairs)


def _apart_m(design: Design) -> float:
    """Return how far apart points lie of which a site has no more than can be looked at."""
    rooms = [s for s in design.of(Space).values() if s.use != "none"]
    return math.sqrt(sum(Polygon(s.outline).area for s in rooms) / _MOST_POINTS)


def ground_of(plan: Plan, wishes: Wishes) -> Ground:
    """Return what a search for places stands on.

    Raises:
        DesignError: nothing asks for signal, or there is no place to look at.
    """
    design, ruled = plan.design, plan.catalogue
    kept = set(wishes.keep)
    free = tuple(d for d in movable(design, ruled) if d.id not in kept)
    moved = {d.id for d in free}
    found, excluded = places_of(design, ruled, wishes)
    # Where they hang now is a place like any other.
    now = [d.model_copy(update={"id": f"now-{d.id}"}) for d in free]
    standing = {k: d for k, d in design.of(Device).items() if k not in moved}
    base = Design({**design.tables, "device": standing})
    places = [*found, *now]
    air = air_of(apply(base, [put(p) for p in places]), ruled, "5")
    fixed = tuple(d for d in standing.values() if d.model in ruled.airs)
    apart_m = max(ruled.rules["signal.place_point_m"], _apart_m(design))
    asked = asked_rooms(air, wishes.margin_in_db(design.site), apart_m, wishes.second)
    if not asked:
        raise DesignError([Problem("space", "no room asks for signal: say what each is for")])
    if not places:
        raise DesignError([Problem("models", "no model that is wished fits any place")])
    reach = reach_dbm(air, [*fixed, *places], asked)
    return Ground(
        design, ruled, wishes, air, free, fixed, tuple(places), tuple(excluded), tuple(asked), reach
    )
