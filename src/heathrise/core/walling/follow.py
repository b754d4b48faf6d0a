"""Rooms come from walls: what becomes of them when walls are drawn, moved or taken away.

A room is *walled* where its outline is a place that the walls close. Such a room goes with its place: it
is known by what it covers and by which walls stand about it. A room that is only part of a place, because no
wall stands where it ends, keeps that end and goes with the walls that it touches.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np
import shapely
from scipy.optimize import linear_sum_assignment
from shapely.geometry import LineString, Polygon

from ..base.frozen import Frozen
from ..base.shapes import shape_of
from ..design import Change, Design, Floor, Space, Wall, put
from .names import fresh_names
from .net import JOIN_M, LEAST_ROOM_M2, Point, WallNet, nets_of
from .outlines import SAME_M, alike, outline_of, pairs, same, twins
from .questions import RoomQuestion, are_one, which_part

WALLED = 0.9  # an outline drawn to the faces of walls is still the place between them
PART = 0.5  # of the lesser of two that has to lie in both, for one to have come from the other
ADOPTED = 0.6  # alike enough for an outline drawn by hand to be meant by walls drawn about it
COVERED = 0.2  # of a place that rooms cover already, above which none is made of it


class Followed(Frozen):
    """What rooms do after an edit of walls."""

    changes: tuple[Change, ...] = ()
    questions: tuple[RoomQuestion, ...] = ()


def follow(before: Design, after: Design) -> Followed:
    """Return what becomes of rooms where the walls of ``after`` differ from those of ``before``.

    A room is put at its new outline, a place that nobody drew a room in becomes one. None is taken away.
    """
    changes: list[Change] = []
    questions: list[RoomQuestion] = []
    old_nets, new_nets = nets_of(before), nets_of(after)
    names = fresh_names(after)
    for floor in _touched(before, after):
        storey = _Storey(before, after, floor, old_nets.get(floor), new_nets.get(floor))
        followed = storey.follow(names)
        changes += followed.changes
        questions += followed.questions
    return Followed(changes=tuple(changes), questions=tuple(questions))


def _touched(before: Design, after: Design) -> Iterator[str]:
    old, new = before.of(Wall), after.of(Wall)
    if old is new:
        return
    of = {w.floor for k, w in old.items() if new.get(k) is not w and new.get(k) != w}
    of |= {w.floor for k, w in new.items() if old.get(k) is not w and old.get(k) != w}
    yield from (floor for floor in after.of(Floor) if floor in of)


@dataclass
class _Storey:
    """The rooms and places of one storey, before and after."""

    before: Design
    after: Design
    floor: str
    old: WallNet | None
    new: WallNet | None
    changes: list[Change] = field(default_factory=list)
    questions: list[RoomQuestion] = field(default_factory=list)
    settled: set[str] = field(default_factory=set)

    def follow(self, names: Iterator[tuple[str, str]]) -> Followed:
        kept, gone, born = differences(self.old, self.new)
        spaces = {
            s.id: (s, shape_of(s.outline)) for s in self.after.of(Space).values() if s.floor == self.floor
        }
        born = self._held(spaces, kept, born)
        walled = self._walled(spaces, gone)
        free = self._matched(walled, spaces, born, names)
        for place in self._adopted(spaces, free, walled):
            if _covered(place, spaces) < COVERED:
                self._made(names, place, None)
        self._pulled(spaces)
        return Followed(changes=tuple(self.changes), questions=tuple(self.questions))

    def _held(
        self, spaces: Mapping[str, tuple[Space, Any]], kept: Sequence[Any], born: Sequence[Any]
    ) -> list[Any]:
        """Settle rooms that have their new place already: the edit itself put them there."""
        keys, outlines = list(spaces), [p for _, p in spaces.values()]
        there = twins(born, outlines)
        self.settled |= {keys[k] for k in there.values()}
        left = [p for k, p in enumerate(born) if k not in there]
        # A room at a place that is as it was has nothing to follow.
        settled = set(twins(outlines, kept))
        loose = [k for k in range(len(keys)) if k not in settled]
        settled |= {loose[s] for s, _, _ in pairs([outlines[k] for k in loose], kept, WALLED)}
        self.settled |= {keys[k] for k in settled}
        return left

    def _walled(self, spaces: Mapping[str, tuple[Space, Any]], gone: Sequence[Any]) -> dict[str, Any]:
        """Return the rooms that were places which are no more, with those places."""
        rooms = self.before.of(Space)
        keys = [k for k in spaces if k not in self.settled and k in rooms]
        best: dict[str, tuple[float, Any]] = {}
        for one, other, by in pairs([shape_of(rooms[k].outline) for k in keys], gone, WALLED):
            if by > best.get(keys[one], (0.0, None))[0]:
                best[keys[one]] = (by, gone[other])
        return {k: best[k][1] for k in keys if k in best}

    def _matched(
        self,
        walled: Mapping[str, Any],
        spaces: Mapping[str, tuple[Space, Any]],
        born: Sequence[Any],
        names: Iterator[tuple[str, str]],
    ) -> list[Any]:
        """Give each walled room the place that became of its own; return the places left over."""
        keys = list(walled)
        if not keys or not born:
            return list(born)
        weight = self._weights([walled[k] for k in keys], born)
        rows, columns = linear_sum_assignment(-weight)
        mine = {int(b): int(s) for s, b in zip(rows, columns, strict=True) if weight[s, b] > 0}
        for b, s in mine.items():
            space = spaces[keys[s]][0]
            others = [o for o in range(len(keys)) if weight[o, b] > 0 and o not in mine.values()]
            if others:
                self._one([space, *(spaces[keys[o]][0] for o in others)], born[b])
                continue
            self._put(space, born[b])
            cut_off = [p for p in range(len(born)) if p not in mine and _most(weight, p) == s]
            parts = [(self._made(names, born[p], space), born[p]) for p in cut_off]
            told = which_part(self.after, space, born[b], [(room, p) for room, p in parts if room])
            self.questions += [told] if told else []
        return [place for b, place in enumerate(born) if not weight[:, b].any()]

    def _one(self, rooms: Sequence[Space], place: Any) -> None:
        """Let rooms stay that no wall parts any more, and ask about them."""
        self.settled |= {r.id for r in rooms}
        told = are_one(self.after, rooms, place)
        self.questions += [told] if told else []

    def _weights(self, olds: Sequence[Any], born: Sequence[Any]) -> Any:
        """Return how much each new place (columns) has of each old one, 0 where it did not come of it."""
        about_old = _walls_about(olds, self.before, self.floor)
        about_new = _walls_about(born, self.after, self.floor)
        walls = np.array([[_jaccard(one, other) for other in about_new] for one in about_old])
        ones, others = np.array(olds, dtype=object)[:, None], np.array(born, dtype=object)[None, :]
        shared = shapely.area(shapely.intersection(ones, others))
        mine, theirs = shapely.area(ones), shapely.area(others)
        came = (shared >= PART * np.minimum(mine, theirs)) | (walls >= WALLED)
        return np.where(came, shared / (mine + theirs - shared) + walls, 0.0)

    def _adopted(
        self, spaces: Mapping[str, tuple[Space, Any]], free: Sequence[Any], walled: Mapping[str, Any]
    ) -> Iterator[Any]:
        """Give places to rooms that were drawn by hand where walls now stand; yield those left."""
        for place in free:
            rows = [
                (alike(p, place), k)
                for k, (s, p) in spaces.items()
                if not s.outdoor and k not in self.settled and k not in walled
            ]
            best = max(rows, default=(0.0, ""))
            if best[0] >= ADOPTED:
                self._put(spaces[best[1]][0], place)
            else:
                yield place

    def _pulled(self, spaces: Mapping[str, tuple[Space, Any]]) -> None:
        """Move the corners of rooms that only touch walls with those walls."""
        moved = [
            (wall, now)
            for key, wall in self.before.of(Wall).items()
            if wall.floor == self.floor
            and (now := self.after.of(Wall).get(key))
            and (now.a, now.b) != (wall.a, wall.b)
        ]
        if not moved:
            return
        for key, (space, _) in spaces.items():
            if key in self.settled:
                continue
            corners = tuple(_pulled(corner, moved) for corner in space.outline)
            pulled = Polygon(corners)
            if corners != space.outline and pulled.is_valid and pulled.area > SAME_M:
                self.changes.append(put(space.model_copy(update={"outline": corners})))

    def _put(self, space: Space, place: Any) -> None:
        self.settled.add(space.id)
        outline = outline_of(place)
        if outline is not None and not same(shape_of(space.outline), place):
            self.changes.append(put(space.model_copy(update={"outline": outline})))

    def _made(self, names: Iterator[tuple[str, str]], place: Any, like: Space | None) -> Space | None:
        """Make a room of a place, used as the one that it was part of."""
        outline = outline_of(place) if place.area >= LEAST_ROOM_M2 else None
        if outline is None:
            return None
        key, name = next(names)
        fields = {"id": key, "name": name, "floor": self.floor, "outline": outline}
        room = like.model_copy(update=fields) if like else Space.model_validate(fields)
        self.changes.append(put(room))
        return room


def differences(old: WallNet | None, new: WallNet | None) -> tuple[list[Any], list[Any], list[Any]]:
    """Return the places that stay as they are, those that are no more, and those that are new."""
    olds, news = (old.places if old else ()), (new.places if new else ())
    stay = twins(olds, news)
    kept = [news[n] for n in sorted(stay.values())]
    gone = [p for k, p in enumerate(olds) if k not in stay]
    fresh = set(range(len(news))) - set(stay.values())
    return kept, gone, [news[k] for k in sorted(fresh)]


def _most(weight: Any, place: int) -> int | None:
    """Return the room that a place has most of."""
    return int(weight[:, place].argmax()) if weight[:, place].any() else None


def _covered(place: Any, spaces: Mapping[str, tuple[Space, Any]]) -> float:
    """Return the share of a place on which a room is drawn already."""
    over = [p for s, p in spaces.values() if not s.outdoor and p.intersects(place)]
    return float(place.intersection(shapely.union_all(over)).area / place.area) if over else 0.0


def _walls_about(places: Sequence[Any], design: Design, floor: str) -> list[dict[str, float]]:
    """Return the walls that stand about each place, with the metres of each."""
    walls = [w for w in design.of(Wall).values() if w.floor == floor]
    found: list[dict[str, float]] = [{} for _ in places]
    if not walls:
        return found
    lines = shapely.linestrings([(w.a, w.b) for w in walls])
    edges = shapely.boundary(np.array(places, dtype=object))
    at, near = shapely.STRtree(lines).query(edges, predicate="dwithin", distance=JOIN_M)
    strips = shapely.buffer(lines[near], JOIN_M, cap_style="flat")
    along = shapely.length(shapely.intersection(strips, edges[at]))
    for place, wall, metres in zip(at.tolist(), near.tolist(), along.tolist(), strict=True):
        if metres > 2 * JOIN_M:
            found[place][walls[wall].id] = metres
    return found


def _jaccard(one: Mapping[str, float], other: Mapping[str, float]) -> float:
    if not one.keys() & other.keys():
        return 0.0
    both = {*one, *other}
    most = sum(max(one.get(k, 0.0), other.get(k, 0.0)) for k in both)
    return sum(min(one.get(k, 0.0), other.get(k, 0.0)) for k in both) / most if most else 0.0


def _pulled(corner: Point, moved: Iterable[tuple[Wall, Wall]]) -> Point:
    """Return where a corner goes that lies on a wall which moved: at its end with the end."""
    point = shapely.Point(corner)
    for wall, now in moved:
        line = LineString([wall.a, wall.b])
        if line.distance(point) > JOIN_M:
            continue
        share = min(max(line.project(point) / wall.length_m, 0.0), 1.0)
        x, y = (now.a[k] + (now.b[k] - now.a[k]) * share for k in (0, 1))
        return (round(x, 4), round(y, 4))
    return corner
