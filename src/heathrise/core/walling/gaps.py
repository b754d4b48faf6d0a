"""Gaps that keep a room open: walls that would close one if they went on a little."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import Any, ClassVar

import numpy as np
import shapely
from scipy.spatial import cKDTree
from shapely.geometry import LineString

from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..design import Design, Wall
from .net import JOIN_M, Point, WallNet, faces_of, nets_of
from .outlines import alike

_SAME_PLACE = 0.999
_IN_LINE = math.cos(math.radians(20))  # two ends that look at each other


class Gap(Frozen):
    """A stretch from a wall's free end to where it would close a room; ``closes_m2`` is how large."""

    KEY: ClassVar = ("id",)

    id: str
    floor: str
    start: Point
    end: Point
    wall: str
    closes_m2: float

    @property
    def width_m(self) -> float:
        return math.dist(self.start, self.end)


_gaps: IdentityMemo[tuple[Gap, ...]] = IdentityMemo(32)


def gaps_of(design: Design, widest_m: float) -> tuple[Gap, ...]:
    """Return the gaps of every storey that are no wider than so many metres, the narrowest first."""
    walls = design.of(Wall)

    def find() -> tuple[Gap, ...]:
        nets = nets_of(design)
        return tuple(gap for floor, net in nets.items() for gap in _of_storey(design, floor, net, widest_m))

    return _gaps.get((walls,), widest_m, find)


def _of_storey(design: Design, floor: str, net: WallNet, widest_m: float) -> Iterator[Gap]:
    ends = net.free_ends
    if not ends or net.tangled:
        return
    stretches = list(dict.fromkeys(_stretches(net, ends, widest_m)))
    if not stretches:
        return
    joined = [LineString(s) for s in stretches]
    made = faces_of([*net.lines, *joined])
    fresh = [p for p in made if not any(alike(p, q) > _SAME_PLACE for q in net.faces if q.intersects(p))]
    walls = [w for w in design.of(Wall).values() if w.floor == floor]
    found = []
    for (start, end), line in zip(stretches, joined, strict=True):
        middle = line.interpolate(0.5, normalized=True)
        beside = [p for p in fresh if p.boundary.distance(middle) < JOIN_M]
        if not beside or not _opens(line, beside, net, ends):
            continue
        # The wall that stops is the one that would go on.
        way = np.subtract(end, start) / line.length
        if not _leads(start, net, way) and end in ends and _leads(end, net, way):
            found.append(_gap(walls, end, start, beside))
        else:
            found.append(_gap(walls, start, end, beside))
    yield from sorted(found, key=lambda g: g.width_m)


def _gap(walls: Sequence[Wall], start: Point, end: Point, closes: Sequence[Any]) -> Gap:
    """Return the gap before a wall's end: the one that would go on, where several end there."""
    way = np.subtract(end, start) / math.dist(start, end)
    wall = min(walls, key=lambda w: (_off_end(w, start), -abs(float(np.dot(_way(w), way)))))
    least = round(min(p.area for p in closes), 2)
    x, y = (round((start[k] + end[k]) * 50) for k in (0, 1))
    key = f"{wall.floor}-{x}-{y}"
    return Gap(id=key, floor=wall.floor, start=start, end=end, wall=wall.id, closes_m2=least)


def _stretches(net: WallNet, ends: Sequence[Point], widest_m: float) -> Iterator[tuple[Point, Point]]:
    """Yield from each free end the shortest way to another one, or else to another wall."""
    tree, points = shapely.STRtree(net.lines), np.array(ends)
    near = cKDTree(points)
    for k, end in enumerate(ends):
        at = shapely.Point(end)
        others = [o for o in near.query_ball_point(end, widest_m) if o != k]
        facing = min(others, key=lambda o: math.dist(end, ends[o]), default=None)
        own = [int(n) for n in tree.query(at, predicate="dwithin", distance=JOIN_M)]
        reach = tree.query(at, predicate="dwithin", distance=widest_m)
        walls = [(net.lines[n].distance(at), int(n)) for n in reach if int(n) not in own]
        wall = min(walls, default=None)
        if facing is not None and (wall is None or math.dist(end, ends[facing]) <= wall[0] + JOIN_M):
            yield (min(end, ends[facing]), max(end, ends[facing]))
        elif wall is not None:
            line = net.lines[wall[1]]
            ahead = _ahead(end, net, own, line, widest_m)
            foot = ahead or line.interpolate(line.project(at))
            yield (end, (round(foot.x, 4), round(foot.y, 4)))


def _ahead(end: Point, net: WallNet, own: Sequence[int], line: Any, widest_m: float) -> Any:
    """Return where a wall meets a line if it goes on straight; None where it does not."""
    for number in own:
        (ax, ay), (bx, by) = net.lines[number].coords
        fx, fy = (ax, ay) if math.dist((bx, by), end) < math.dist((ax, ay), end) else (bx, by)
        size = math.dist((fx, fy), end)
        far = (end[0] + (end[0] - fx) / size * widest_m, end[1] + (end[1] - fy) / size * widest_m)
        met = LineString([end, far]).intersection(line)
        if met.geom_type == "Point" and not met.is_empty:
            return met
    return None


def _opens(line: Any, beside: Sequence[Any], net: WallNet, ends: Sequence[Point]) -> bool:
    """Whether closing a gap is likely meant.

    It closes what was open to the outside, or stands between two walls' ends in line, as at a doorway;
    a wall that stops in the middle of a room leaves a passage.
    """
    if any(not any(q.contains(p.representative_point()) for q in net.faces) for p in beside):
        return True
    start, end = line.coords
    if not all(any(math.dist(p, e) <= JOIN_M for e in ends) for p in (start, end)):
        return False
    way = np.subtract(end, start) / line.length
    return all(_leads(p, net, way) for p in (start, end))


def _off_end(wall: Wall, at: Point) -> bool:
    return min(math.dist(wall.a, at), math.dist(wall.b, at)) > JOIN_M


def _way(wall: Wall) -> Any:
    return np.subtract(wall.b, wall.a) / wall.length_m


def _leads(end: Point, net: WallNet, way: Any) -> bool:
    """Whether the wall at an end runs along a direction."""
    for line in net.lines:
        (ax, ay), (bx, by) = line.coords
        if min(math.dist((ax, ay), end), math.dist((bx, by), end)) > JOIN_M:
            continue
        if abs(np.dot(np.subtract((bx, by), (ax, ay)) / line.length, way)) >= _IN_LINE:
            return True
    return False
