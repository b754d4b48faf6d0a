"""Walls that belong together: what meets a wall goes with it, and what stands in a wall stays where it is."""

from __future__ import annotations

import math
from collections.abc import Container, Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from typing import Literal

import numpy as np
import numpy.typing as npt

from ..context.integrity import MIN_WALL_M
from ..design import Change, Design, DesignError, Opening, Problem, Wall, put
from .net import JOIN_M

Spot = tuple[float, float]
End = Literal["a", "b"]

MEETS_M = JOIN_M  # ends that lie so near to something are meant to be at it
_PARALLEL = math.sin(math.radians(8))
_FAR_M = 500.0
_FITS_M = 0.005


@dataclass
class Joints:
    """The walls of one storey while some of them are moved."""

    design: Design
    floor: str
    now: dict[str, Wall] = field(default_factory=dict)

    def __post_init__(self) -> None:
        self.was: Mapping[str, Wall] = {
            k: w for k, w in self.design.of(Wall).items() if w.floor == self.floor
        }
        self.now = dict(self.was)
        self._keys = list(self.was)
        self._ends = np.array([(w.a, w.b) for w in self.was.values()], dtype=float).reshape(-1, 2, 2)
        self._reach = self._ends.min(axis=1) - MEETS_M, self._ends.max(axis=1) + MEETS_M

    def put_ends(self, wall: str, **ends: Spot) -> None:
        """Put one or both ends of a wall elsewhere."""
        exact = {end: (round(x, 4), round(y, 4)) for end, (x, y) in ends.items()}
        self.now[wall] = self.now[wall].model_copy(update=exact)

    def ends_at(self, spot: Spot, but: Container[str] = ()) -> Iterator[tuple[str, End]]:
        """Yield the ends of walls that lie at a spot, as the walls stood."""
        near = np.hypot(self._ends[:, :, 0] - spot[0], self._ends[:, :, 1] - spot[1]) <= MEETS_M
        for row in np.flatnonzero(near.any(axis=1)).tolist():
            if self._keys[row] not in but:
                yield self._keys[row], "a" if near[row, 0] else "b"

    def meeting(self, wall: str, but: Container[str] = ()) -> Iterator[tuple[str, End]]:
        """Yield the ends that lie on a wall between its own ends."""
        own = self.was[wall]
        on = _off(np.array([own.a, own.b]), self._ends.reshape(-1, 2)) <= MEETS_M
        for at in (own.a, own.b):
            on &= np.hypot(*(self._ends.reshape(-1, 2) - at).T) > MEETS_M
        for number in np.flatnonzero(on).tolist():
            key = self._keys[number // 2]
            if key != wall and key not in but:
                yield key, "b" if number % 2 else "a"

    def passing(self, spot: Spot, but: Container[str] = ()) -> Iterator[str]:
        """Yield the walls that pass a spot, which is none of their ends."""
        rows = self._about(spot)
        off = [float(_off(ends, np.array([spot]))[0]) for ends in self._ends[rows]]
        for row, far in zip(rows.tolist(), off, strict=True):
            near_end = min(math.dist(spot, tuple(p)) for p in self._ends[row]) <= MEETS_M
            if far <= MEETS_M and not near_end and self._keys[row] not in but:
                yield self._keys[row]

    def _about(self, spot: Spot) -> npt.NDArray[np.intp]:
        """Return the rows of walls within whose reach a spot lies."""
        low, high = self._reach
        return np.flatnonzero(((low <= spot) & (spot <= high)).all(axis=1))

    def in_line(self, walls: Iterable[str]) -> set[str]:
        """Return walls with those that go on from them in a straight line."""
        found, waiting = set(walls), list(walls)
        while waiting:
            wall = self.was[waiting.pop()]
            for spot in (wall.a, wall.b):
                for key, _ in self.ends_at(spot, found):
                    if abs(_sine(wall, self.was[key])) < _PARALLEL / 4:
                        found.add(key)
                        waiting.append(key)
        return found

    def changes(self) -> list[Change]:
        """Return walls that moved and the openings in them, which stay where they were.

        Raises:
            DesignError: a wall would be too short, or too short for what is in it.
        """
        moved = {k: w for k, w in self.now.items() if w != self.was[k]}
        for key, wall in moved.items():
            if wall.length_m < MIN_WALL_M:
                refuse(f"wall[{key}]", f"would be {wall.length_m:.2f} m long; take it away instead")
        made: list[Change] = [put(w) for w in moved.values()]
        for opening in self.design.of(Opening).values():
            if opening.wall in moved:
                stays = staying(opening, self.was[opening.wall], moved[opening.wall])
                made += [put(stays)] if stays != opening else []
        return made


def refuse(where: str, what: str) -> None:
    raise DesignError([Problem(where, what)])


def staying(opening: Opening, was: Wall, now: Wall) -> Opening:
    """Return an opening where it was, measured from where its wall begins now.

    A wall that moved sideways takes it along. One that is shorter pushes it back from its end.

    Raises:
        DesignError: the wall is too short for it.
    """
    if opening.width_m > now.length_m + _FITS_M:
        refuse(
            f"opening[{opening.id}]",
            f"the wall would be {now.length_m:.2f} m long, "
            f"and the {opening.kind} in it is {opening.width_m:.2f} m wide",
        )
    if math.dist(_way(was.a, now.a), _way(was.b, now.b)) <= _FITS_M:
        return opening  # the wall went as it is, and takes it along
    (ux, uy) = ((was.b[k] - was.a[k]) / was.length_m for k in (0, 1))
    held_a = math.dist(was.a, now.a) <= math.dist(was.b, now.b)
    along = (now.a[0] - was.a[0]) * ux + (now.a[1] - was.a[1]) * uy
    beyond = (now.b[0] - was.b[0]) * ux + (now.b[1] - was.b[1]) * uy
    # From the end that stands; of a wall that went sideways both ends say the same.
    offset = opening.offset_m - along if held_a else opening.offset_m + (now.length_m - was.length_m) - beyond
    offset = min(max(offset, 0.0), max(now.length_m - opening.width_m, 0.0))
    return opening.model_copy(update={"offset_m": round(offset, 4)})


def _off(line: npt.NDArray[np.float64], points: npt.NDArray[np.float64]) -> npt.NDArray[np.float64]:
    """Return how far points (n, 2) lie off a stretch (2, 2)."""
    a, way = line[0], line[1] - line[0]
    share = np.clip(((points - a) @ way) / (way @ way), 0.0, 1.0)
    off: npt.NDArray[np.float64] = np.hypot(*(points - a - share[:, None] * way).T)
    return off


def _way(start: Spot, end: Spot) -> Spot:
    return end[0] - start[0], end[1] - start[1]


def crossing(one: Wall, other: tuple[Spot, Spot]) -> Spot | None:
    """Return where the line of a wall meets another line; None where they run alongside one another, or
    meet far away."""
    (ax, ay), (bx, by) = one.a, one.b
    (cx, cy), (dx, dy) = other
    rx, ry, sx, sy = bx - ax, by - ay, dx - cx, dy - cy
    size = math.hypot(rx, ry) * math.hypot(sx, sy)
    turn = rx * sy - ry * sx
    if size == 0 or abs(turn) / size < _PARALLEL:
        return None
    share = ((cx - ax) * sy - (cy - ay) * sx) / turn
    met = (ax + rx * share, ay + ry * share)
    return met if math.dist(met, one.a) < _FAR_M else None


def _sine(one: Wall, other: Wall) -> float:
    (ax, ay), (bx, by) = ((w.b[0] - w.a[0], w.b[1] - w.a[1]) for w in (one, other))
    return (ax * by - ay * bx) / (one.length_m * other.length_m)


def known(design: Design, wall: str) -> Wall:
    """Return a wall that a gesture names.

    Raises:
        DesignError: it is not there.
    """
    if wall not in design.of(Wall):
        refuse("wall", f"there is no wall {wall[:40]!r} in the plan")
    return design.of(Wall)[wall]


def along(wall: Wall, metres: float) -> Spot:
    """Return the point so far along a wall, from its end a."""
    share = metres / wall.length_m
    return (wall.a[0] + (wall.b[0] - wall.a[0]) * share, wall.a[1] + (wall.b[1] - wall.a[1]) * share)


def shifted(spot: Spot, by: Spot) -> Spot:
    return spot[0] + by[0], spot[1] + by[1]
