"""Walls that a drawing shows by their two faces, each made one wall with its thickness.

A face is of one wall only. The nearest two that run side by side are taken first, so that the room between
two walls, however narrow, is no wall.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import shapely
from shapely.geometry import LineString
from shapely.strtree import STRtree

from .face_lines import Face, FaceWall, Line, Span, free, mapped, merged, overlap

THINNEST_M, THICKEST_M = 0.04, 0.65
WIDEST_DOOR_M, WIDEST_WINDOW_M = 1.35, 3.2
_PARALLEL = math.cos(math.radians(1.0))
_LEAST_M = 0.05
_SAME_LINE_M = 0.02
_ALIKE_M = 0.03
_CAVITY_M = 0.16
_NO_DOOR_M = 0.45  # a gap no wider is where another wall crosses
_SQUAT = 1.1
_WITHIN_SHARE, _ODD_M = 0.8, 0.13
_SLACK_M = 0.06
_ALONE_M = 0.75  # what is left of a face and shorter is a corner, a jamb or a sill


@dataclass(frozen=True)
class FacesFound:
    """What became of lines: walls, and what share of the lines' length are faces."""

    walls: tuple[FaceWall, ...]
    share: float


def walls_of_faces(lines: Sequence[Line], across: Sequence[Line] = ()) -> FacesFound:
    """Return the walls of lines in m.

    Args:
        across: other lines of the drawing: what of them runs along a gap makes it a window's.
    """
    faces = [Face.of(line) for line in merged(lines)]
    if not faces:
        return FacesFound((), 0.0)
    tree = STRtree([LineString([f.a, f.b]) for f in faces])
    strips = list(_strips(faces, tree))
    paired = sum(high - low for f in faces for low, high in f.used)
    whole = sum(f.size for f in faces)
    walls = _leaves_joined(_not_within(strips))
    walls = list(_in_line(walls, faces, tree, [LineString(line) for line in across]))
    walls += [FaceWall(a, b, None) for a, b in _left(faces, walls)]
    return FacesFound(tuple(walls), paired / whole if whole else 0.0)


def _strips(faces: Sequence[Face], tree: STRtree) -> Iterator[FaceWall]:
    rows: list[tuple[float, float, int, int]] = []
    for i, face in enumerate(faces):
        for j in tree.query(LineString([face.a, face.b]), predicate="dwithin", distance=THICKEST_M):
            if j <= i:
                continue
            other = faces[int(j)]
            if abs(face.way[0] * other.way[0] + face.way[1] * other.way[1]) < _PARALLEL:
                continue
            low, high = overlap(face, other)
            if high - low < _LEAST_M:
                continue
            apart = abs(face.off(other.a) + face.off(other.b)) / 2
            if THINNEST_M <= apart <= THICKEST_M:
                rows.append((round(apart, 3), -(high - low), i, int(j)))
    for apart, _size, i, j in sorted(rows):
        face, other = faces[i], faces[j]
        low, high = overlap(face, other)
        taken = face.used + [mapped(face, other, span) for span in other.used]
        off = (face.off(other.a) + face.off(other.b)) / 2
        for piece in free((low, high), taken):
            # A jamb and a face behind it are no wall: that would be wider than long.
            if piece[1] - piece[0] < max(_LEAST_M, _SQUAT * apart):
                continue
            face.used.append(piece)
            ends = sorted(other.along(face.at(p)) for p in piece)
            other.used.append((ends[0], ends[1]))
            yield FaceWall(face.at(piece[0], off / 2), face.at(piece[1], off / 2), apart)


def _not_within(walls: Sequence[FaceWall]) -> list[FaceWall]:
    """Leave out what lies within a larger wall: its cavity, its insulation, the corners of its leaves."""
    order = sorted(walls, key=lambda w: -w.length_m * (w.thick_m or 0.0))
    lines = [LineString([w.a, w.b]) for w in order]
    solid = [
        line.buffer((w.thick_m or 0.0) / 2 + 0.005, cap_style="square")
        for line, w in zip(lines, order, strict=True)
    ]
    tree, kept = STRtree(solid), set[int]()
    for k, line in enumerate(lines):
        near = [
            solid[int(j)]
            for j in tree.query(line, predicate="intersects")
            if int(j) in kept and (_beside(order[k], order[int(j)]) or order[k].length_m < _ODD_M)
        ]
        if not near or line.intersection(shapely.union_all(near)).length < _WITHIN_SHARE * line.length:
            kept.add(k)
    return [order[k] for k in sorted(kept)]


def _beside(one: FaceWall, other: FaceWall) -> bool:
    return abs(one.way[0] * other.way[0] + one.way[1] * other.way[1]) >= _PARALLEL


class _Pool:
    """Walls that are left to be joined, the longest first, and which of them lie near to a line."""

    def __init__(self, walls: Sequence[FaceWall]) -> None:
        self._walls = sorted(walls, key=lambda w: -w.length_m)
        self._tree = STRtree([LineString([w.a, w.b]) for w in self._walls])
        self._gone: set[int] = set()

    def __iter__(self) -> Iterator[FaceWall]:
        for k, wall in enumerate(self._walls):
            if k not in self._gone:
                self._gone.add(k)
                yield wall

    def near(self, wall: FaceWall, within_m: float) -> Iterator[tuple[int, FaceWall]]:
        """Yield those that run the same way as a wall and have a thickness, by number."""
        line = LineString([wall.a, wall.b])
        for k in sorted(map(int, self._tree.query(line, predicate="dwithin", distance=within_m))):
            other = self._walls[k]
            if k not in self._gone and other.thick_m is not None and _beside(wall, other):
                yield k, other

    def take(self, number: int) -> None:
        self._gone.add(number)


def _leaves_joined(walls: Sequence[FaceWall]) -> list[FaceWall]:
    """Make the two leaves of a cavity wall one."""
    pool, done = _Pool(walls), []
    for wall in pool:
        done.append(wall)
        own = Face.of((wall.a, wall.b))
        for number, other in pool.near(wall, THICKEST_M):
            if wall.thick_m is None or other.thick_m is None:
                continue
            off = (own.off(other.a) + own.off(other.b)) / 2
            between = abs(off) - (wall.thick_m + other.thick_m) / 2
            whole = abs(off) + (wall.thick_m + other.thick_m) / 2
            low, high = overlap(own, Face.of((other.a, other.b)))
            alike = high - low > 0.6 * max(wall.length_m, other.length_m)
            if -0.01 <= between <= _CAVITY_M and whole <= THICKEST_M and alike:
                edge = math.copysign(whole / 2 - wall.thick_m / 2, off)
                done[-1] = FaceWall(own.at(0, edge), own.at(own.size, edge), whole)
                pool.take(number)
                break
    return done


def _in_line(
    walls: Sequence[FaceWall], faces: Sequence[Face], tree: STRtree, across: Sequence[LineString]
) -> Iterator[FaceWall]:
    """Join walls that go on in one line: over what meets them, and over doors and windows."""
    bridges = _Bridges(faces, tree, across, STRtree(across) if across else None)
    pool = _Pool(walls)
    for first in pool:
        wall = first
        while (found := _next(wall, pool, bridges)) is not None:
            wall = found
        yield wall


@dataclass(frozen=True)
class _Bridges:
    """What may lead over a gap: faces, and other lines of the drawing."""

    faces: Sequence[Face]
    tree: STRtree
    across: Sequence[LineString]
    beside: STRtree | None


def _next(wall: FaceWall, pool: _Pool, bridges: _Bridges) -> FaceWall | None:
    """Return a wall with the nearest one that it goes on in, None where there is none."""
    own, thick_m = Face.of((wall.a, wall.b)), wall.thick_m or 0.0
    near: list[tuple[float, int, FaceWall]] = []
    for number, other in pool.near(wall, WIDEST_WINDOW_M):
        in_line = max(abs(own.off(other.a)), abs(own.off(other.b))) <= _SAME_LINE_M
        if wall.thick_m is None or not in_line or abs(thick_m - (other.thick_m or 0.0)) > _ALIKE_M:
            continue
        low, high = sorted((own.along(other.a), own.along(other.b)))
        gap = max(low - own.size, -high, 0.0)
        if gap <= WIDEST_WINDOW_M and not (low < own.size - _ALIKE_M and high > _ALIKE_M):
            near.append((gap, number, other))
    for gap, number, other in sorted(near, key=lambda row: row[:2]):
        ends = sorted((own.along(other.a), own.along(other.b)))
        span = (own.size, ends[0]) if ends[0] >= own.size - _ALIKE_M else (ends[1], 0.0)
        bridged = gap <= _NO_DOOR_M or _bridged(own, span, thick_m, bridges.faces, bridges.tree)
        lined = bridged or _lined(own, span, thick_m, bridges.beside, bridges.across)
        if not bridged and gap > WIDEST_DOOR_M and not lined:
            continue
        low, high = min(0.0, ends[0]), max(own.size, ends[1])
        gaps = [(p - low, q - low) for p, q in wall.gaps]
        flip = own.along(other.a) > own.along(other.b)
        for p, q in other.gaps:
            start = own.along(other.a) + (-q if flip else p)
            gaps.append((start - low, start - low + q - p))
        if not bridged:
            gaps.append((span[0] - low, span[1] - low))
        pool.take(number)
        return replace(wall, a=own.at(low), b=own.at(high), gaps=tuple(sorted(gaps)))
    return None


def _bridged(own: Face, span: Span, thick_m: float, faces: Sequence[Face], tree: STRtree) -> bool:
    """Whether one of the two faces goes on over a gap: another wall meets there from the other side."""
    size = span[1] - span[0]
    for side in (thick_m / 2, -thick_m / 2):
        line = LineString([own.at(span[0], side), own.at(span[1], side)])
        near = tree.query(line, predicate="dwithin", distance=_SAME_LINE_M)
        covered = 0.0
        for k in near:
            face = faces[int(k)]
            if abs(face.way[0] * own.way[0] + face.way[1] * own.way[1]) < _PARALLEL:
                continue
            low, high = sorted((own.along(face.a), own.along(face.b)))
            covered += max(0.0, min(high, span[1]) - max(low, span[0]))
        if covered > 0.9 * size:
            return True
    return False


def _lined(
    own: Face, span: Span, thick_m: float, beside: STRtree | None, across: Sequence[LineString]
) -> bool:
    """Whether lines of the drawing run along a gap, as a window's do."""
    if beside is None:
        return False
    middle = LineString([own.at(span[0]), own.at(span[1])])
    near = beside.query(middle, predicate="dwithin", distance=thick_m / 2 + _SAME_LINE_M)
    for k in near:
        (ax, ay), (bx, by) = across[int(k)].coords
        size = math.dist((ax, ay), (bx, by))
        if size < _LEAST_M or abs((bx - ax) * own.way[0] + (by - ay) * own.way[1]) / size < _PARALLEL:
            continue
        low, high = sorted((own.along((ax, ay)), own.along((bx, by))))
        if min(high, span[1]) - max(low, span[0]) > 0.8 * (span[1] - span[0]):
            return True
    return False


def _left(faces: Sequence[Face], walls: Sequence[FaceWall]) -> Iterator[Line]:
    """Yield what is no face of a wall and long enough to be a wall drawn as one line."""
    solid = [LineString([w.a, w.b]).buffer((w.thick_m or 0.0) / 2 + _SLACK_M) for w in walls]
    tree = STRtree(solid)
    for face in faces:
        for low, high in free((0.0, face.size), face.used):
            if high - low < _ALONE_M and walls:
                continue
            line = LineString([face.at(low), face.at(high)])
            near = [solid[int(k)] for k in tree.query(line, predicate="intersects")]
            bare = line.difference(shapely.union_all(near)) if near else line
            if bare.length > 0.5 * (high - low):
                yield (face.at(low), face.at(high))


def faces_met(walls: Sequence[FaceWall]) -> list[FaceWall]:
    """Let walls end where their middles cross: a face ends half a wall before that, or beyond."""
    found: list[FaceWall] = []
    lines = [LineString([w.a, w.b]) for w in walls]
    tree = STRtree(lines)
    for k, wall in enumerate(walls):
        own = Face.of((wall.a, wall.b))
        low = _end(own, 0.0, wall, k, walls, tree)
        high = _end(own, own.size, wall, k, walls, tree)
        if high - low < _LEAST_M:
            found.append(wall)
            continue
        gaps = tuple((p - low, q - low) for p, q in wall.gaps)
        found.append(replace(wall, a=own.at(low), b=own.at(high), gaps=gaps))
    return found


def _end(own: Face, end: float, wall: FaceWall, k: int, walls: Sequence[FaceWall], tree: STRtree) -> float:
    spot = own.at(end)
    best: tuple[float, float] | None = None
    for j in tree.query(shapely.Point(spot), predicate="dwithin", distance=2 * THICKEST_M):
        other = walls[int(j)]
        if j == k:
            continue
        cross = own.way[0] * other.way[1] - own.way[1] * other.way[0]
        if abs(cross) < math.sin(math.radians(8)):
            continue
        # Where the two middles cross, in m along each.
        dx, dy = other.a[0] - own.a[0], other.a[1] - own.a[1]
        along = (dx * other.way[1] - dy * other.way[0]) / cross
        there = (dx * own.way[1] - dy * own.way[0]) / cross
        reach = ((wall.thick_m or 0.0) / 2 + (other.thick_m or 0.0) / 2) / abs(cross) + _SLACK_M
        beyond = max(-there, there - other.length_m, 0.0)
        if abs(along - end) <= reach and beyond <= reach:
            found = (abs(along - end), along)
            best = min(best, found) if best else found
    return best[1] if best else end


__all__ = ["FaceWall", "FacesFound", "faces_met", "walls_of_faces"]
