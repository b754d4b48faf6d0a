"""Walls seen on a picture of a plan: thick straight strokes of ink, and the gaps in them.

All lengths here are px of the picture unless a name says m. What is seen is a proposal: people's own words
and pieces of furniture can look like walls.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import cv2
import numpy as np
from numpy.typing import NDArray
from shapely.geometry import LineString

from .inked import SHORTEST_M, THINNEST_M, Mask, fill_outlined, inked, slope_deg

Spot = tuple[float, float]

WORK_M_PER_PX = 0.015  # a wall of 10 cm is then 7 px wide
MOST_PX = 24_000_000
_THICKEST_M = 0.9
_WIDEST_GAP_M, _WIDEST_DOOR_M = 2.6, 1.35


@dataclass(frozen=True)
class SeenGap:
    """A gap in a wall, from its first end on; ``lined`` says that lines run along it, as windows have."""

    offset: float
    width: float
    lined: bool


@dataclass(frozen=True)
class SeenWall:
    """A wall by the middle of its ends; ``why_unsure`` is empty where nothing is doubtful."""

    a: Spot
    b: Spot
    thick: float
    gaps: tuple[SeenGap, ...] = ()
    why_unsure: str = ""

    @property
    def length(self) -> float:
        return math.dist(self.a, self.b)


def walls_seen(grey: Mask, metres_per_px: float) -> list[SeenWall]:
    """Return the walls on a grey picture, the longest first, ends in px of it.

    Args:
        grey: shape (height, width), 0 is black.
        metres_per_px: its scale, on which it rests what is thick enough to be a wall.
    """
    high, wide = grey.shape
    factor = min(4.0, metres_per_px / WORK_M_PER_PX, math.sqrt(MOST_PX / max(1, high * wide)))
    small = cv2.resize(
        grey, None, fx=factor, fy=factor, interpolation=cv2.INTER_AREA if factor < 1 else cv2.INTER_CUBIC
    )
    tracer = _Tracer(np.asarray(small, dtype=np.uint8), metres_per_px / factor)
    found = [_scaled(w, 1 / factor) for w in tracer.walls()]
    return sorted(found, key=lambda w: -w.length)


def _scaled(wall: SeenWall, by: float) -> SeenWall:
    # The middle of a pixel of the smaller picture lies half of one from its edge.
    def spot(p: Spot) -> Spot:
        return ((p[0] + 0.5) * by, (p[1] + 0.5) * by)

    gaps = tuple(SeenGap(g.offset * by, g.width * by, g.lined) for g in wall.gaps)
    return replace(wall, a=spot(wall.a), b=spot(wall.b), thick=wall.thick * by, gaps=gaps)


@dataclass
class _Strip:
    """A straight piece along one axis: across it lies at ``at``, along it runs from ``low`` to ``high``."""

    at: float
    low: float
    high: float
    thick: float
    gaps: tuple[tuple[float, float, bool], ...] = ()


Side = Literal["across", "up"]


class _Tracer:
    def __init__(self, grey: Mask, m_per_px: float) -> None:
        self.step = m_per_px
        ink = inked(grey, m_per_px)
        fill_outlined(ink, m_per_px, cv2.countNonZero(self._thick(ink)))
        self.ink = ink
        self.turn_deg = slope_deg(self._thick(ink))

    def px(self, metres: float, least: int = 1) -> int:
        return max(least, round(metres / self.step))

    def _thick(self, ink: Mask) -> Mask:
        """What is as thick as a wall: letters, lines and hatching are thinner."""
        side = self.px(THINNEST_M, 3)
        return np.asarray(
            cv2.morphologyEx(ink, cv2.MORPH_OPEN, cv2.getStructuringElement(cv2.MORPH_RECT, (side, side))),
            dtype=np.uint8,
        )

    def walls(self) -> Iterator[SeenWall]:
        high, wide = self.ink.shape
        middle = (wide / 2, high / 2)
        level = cv2.getRotationMatrix2D(middle, self.turn_deg, 1.0)
        back = np.asarray(cv2.invertAffineTransform(level), dtype=np.float64)
        ink = np.asarray(
            cv2.warpAffine(self.ink, level, (wide, high), flags=cv2.INTER_LINEAR), dtype=np.uint8
        )
        ink = np.asarray((ink > 127) * np.uint8(255), dtype=np.uint8)
        thick = self._thick(ink)
        across = self._strips(thick, ink)
        up = self._strips(np.ascontiguousarray(thick.T), np.ascontiguousarray(ink.T))
        _meet(across, up, self.px(0.15))
        rows: list[tuple[Side, _Strip]] = [("across", s) for s in across] + [("up", s) for s in up]
        held = [_wall(side, s) for side, s in rows]
        held += self._slanting(thick, held)
        for wall in self._doubted(held):
            yield replace(wall, a=_moved(back, wall.a), b=_moved(back, wall.b))

    def _strips(self, thick: Mask, ink: Mask) -> list[_Strip]:
        """Return the pieces that run along the rows of a mask, joined over doors and windows."""
        longest_side = self.px(SHORTEST_M)
        kernel = cv2.getStructuringElement(cv2.MORPH_RECT, (longest_side, 1))
        rows = cv2.morphologyEx(thick, cv2.MORPH_OPEN, kernel)
        # What is far thicker is a wall that runs the other way: pieces go on behind it.
        upright = cv2.getStructuringElement(cv2.MORPH_RECT, (1, self.px(_THICKEST_M) + 1))
        rows = cv2.subtract(rows, cv2.morphologyEx(rows, cv2.MORPH_OPEN, upright))
        count, labels, boxes, _ = cv2.connectedComponentsWithStats(rows, connectivity=4)
        found: list[_Strip] = []
        for k in range(1, count):
            x, y, w, h, _area = (int(v) for v in boxes[k])
            piece = labels[y : y + h, x : x + w] == k
            found += self._pieces(piece, x, y)
        return self._joined(found, ink)

    def _pieces(self, piece: NDArray[np.bool_], x: int, y: int) -> Iterator[_Strip]:
        """Yield a component cut where its thickness or its middle changes."""
        high, wide = piece.shape
        first = piece.argmax(axis=0)
        last = high - 1 - piece[::-1].argmax(axis=0)
        size = piece.sum(axis=0)
        solid = size >= last - first  # nothing hollow above one another
        begun = 0
        for k in range(1, wide + 1):
            if k < wide and solid[k] == solid[begun] and _level(first, last, begun, k):
                continue
            if solid[begun]:
                top, foot = float(np.median(first[begun:k])), float(np.median(last[begun:k]))
                thick = foot - top + 1
                long_enough = k - begun >= max(1.2 * thick, self.px(SHORTEST_M))
                if thick <= self.px(_THICKEST_M) and long_enough:
                    yield _Strip(y + (top + foot) / 2, x + begun, x + k - 1, thick)
            begun = k

    def _joined(self, strips: list[_Strip], ink: Mask) -> list[_Strip]:
        """Join pieces that go on in one line over a gap that a door or a window could be."""
        left = sorted(strips, key=lambda s: s.low)
        done: list[_Strip] = []
        while left:
            strip = left.pop(0)
            while True:
                near = [s for s in left if self._goes_on(ink, strip, s)]
                if not near:
                    break
                other = min(near, key=lambda s: s.low)
                left.remove(other)
                filled, lined = self._between(ink, strip, other)
                gap = (strip.high, other.low, lined)
                gaps = () if filled or gap[1] - gap[0] < self.px(0.3) else (gap,)
                size, more = strip.high - strip.low, other.high - other.low
                strip = _Strip(
                    (strip.at * size + other.at * more) / max(1.0, size + more),
                    strip.low,
                    max(strip.high, other.high),
                    (strip.thick * size + other.thick * more) / max(1.0, size + more),
                    strip.gaps + gaps + other.gaps,
                )
            done.append(strip)
        return done

    def _goes_on(self, ink: Mask, strip: _Strip, other: _Strip) -> bool:
        gap = other.low - strip.high
        if gap > self.px(_WIDEST_DOOR_M) and not any(self._between(ink, strip, other)):
            return False  # a room lies between two walls in one line
        level = abs(other.at - strip.at) <= max(2.0, 0.3 * min(strip.thick, other.thick))
        alike = max(strip.thick, other.thick) <= 1.7 * min(strip.thick, other.thick) + 2
        return -self.px(0.3) <= gap <= self.px(_WIDEST_GAP_M) and level and alike

    def _between(self, ink: Mask, strip: _Strip, other: _Strip) -> tuple[bool, bool]:
        """Whether what lies between two pieces is ink, and whether lines run along it."""
        half = max(2, round(strip.thick / 2))
        top, foot = max(0, round(strip.at) - half), round(strip.at) + half + 1
        gap = ink[top:foot, round(strip.high) + 2 : round(other.low) - 1] > 0
        if not gap.size:
            return True, False
        # A thin line may wander by a pixel or two.
        wider = cv2.dilate(gap.astype(np.uint8), np.ones((5, 1), np.uint8)) > 0
        return bool(gap.mean() > 0.7), bool((wider.mean(axis=1) > 0.8).any())

    def _slanting(self, thick: Mask, held: Sequence[SeenWall]) -> Iterator[SeenWall]:
        """Yield long thick pieces at other angles."""
        rest = thick.copy()
        for wall in held:
            a, b = ((round(p[0]), round(p[1])) for p in (wall.a, wall.b))
            cv2.line(rest, a, b, 0, round(wall.thick) + 4)
        count, labels, boxes, _ = cv2.connectedComponentsWithStats(rest, connectivity=8)
        for k in range(1, count):
            if max(boxes[k][2], boxes[k][3]) < self.px(0.6):
                continue
            spots = np.argwhere(labels == k)[:, ::-1].astype(np.float32)
            (x, y), (w, h), turn = cv2.minAreaRect(spots)
            long, thin = max(w, h), min(w, h)
            if long < 3 * thin or thin > self.px(_THICKEST_M) or len(spots) < 0.75 * w * h:
                continue
            angle = math.radians(turn if w >= h else turn + 90)
            dx, dy = math.cos(angle) * long / 2, math.sin(angle) * long / 2
            yield SeenWall((x - dx, y - dy), (x + dx, y + dy), thin)

    def _doubted(self, walls: list[SeenWall]) -> Iterator[SeenWall]:
        """Yield walls with what is doubtful about them; what touches nothing and is short is left out."""
        net = sorted(_groups(walls, self.px(0.35)), key=lambda g: -sum(walls[k].length for k in g))
        if not net:
            return
        most = sum(walls[k].length for k in net[0])
        about = _hull([walls[k] for k in net[0]])
        for group in net:
            size = sum(walls[k].length for k in group)
            inside = all(
                cv2.pointPolygonTest(about, p, False) >= 0 for k in group for p in (walls[k].a, walls[k].b)
            )
            if group is not net[0] and (size < self.px(1.0) if inside else size < 0.5 * most):
                continue
            for k in group:
                why = "" if group is net[0] else "it stands apart from the other walls"
                if walls[k].length < self.px(0.7):
                    why = why or "it is short: it may be a pillar or a piece of furniture"
                elif walls[k].thick > self.px(0.6):
                    why = why or "it is very thick: it may be a filled area"
                yield replace(walls[k], why_unsure=why)


def _hull(walls: Sequence[SeenWall]) -> NDArray[np.float32]:
    return np.asarray(
        cv2.convexHull(np.array([p for w in walls for p in (w.a, w.b)], dtype=np.float32)), dtype=np.float32
    )


def _level(first: NDArray[np.intp], last: NDArray[np.intp], begun: int, k: int) -> bool:
    """Whether a column goes on as the piece began, a pixel aside."""
    was = slice(begun, max(begun + 1, k - 3))
    top, foot = float(np.median(first[was][-12:])), float(np.median(last[was][-12:]))
    return abs(float(first[k]) - top) <= 2 and abs(float(last[k]) - foot) <= 2


def _meet(across: list[_Strip], up: list[_Strip], slack: float) -> None:
    """Let pieces end in the middle of those that they run into."""
    for mine, others in ((across, up), (up, across)):
        for strip in mine:
            for end in ("low", "high"):
                value = getattr(strip, end)
                meets = [
                    o.at
                    for o in others
                    if o.low - slack <= strip.at <= o.high + slack
                    and abs(o.at - value) <= o.thick / 2 + slack
                ]
                if meets:
                    setattr(strip, end, min(meets, key=lambda at: abs(at - value)))


def _wall(side: Side, strip: _Strip) -> SeenWall:
    a, b = (strip.low, strip.at), (strip.high, strip.at)
    if side == "up":
        a, b = (a[1], a[0]), (b[1], b[0])
    gaps = tuple(SeenGap(low - strip.low, high - low, lined) for low, high, lined in strip.gaps)
    return SeenWall(a, b, strip.thick, tuple(g for g in gaps if g.offset > 0))


def _groups(walls: Sequence[SeenWall], reach: float) -> list[list[int]]:
    """Return which walls hang together, those that come as near as ``reach``."""
    home = list(range(len(walls)))

    def root(k: int) -> int:
        while home[k] != k:
            k = home[k]
        return k

    lines = [LineString([w.a, w.b]) for w in walls]
    for i, one in enumerate(walls):
        for j, other in enumerate(walls[:i]):
            if lines[i].distance(lines[j]) <= reach + (one.thick + other.thick) / 2:
                home[root(i)] = root(j)
    found: dict[int, list[int]] = {}
    for k in range(len(walls)):
        found.setdefault(root(k), []).append(k)
    return list(found.values())


def _moved(matrix: NDArray[np.floating], p: Spot) -> Spot:
    x, y = matrix @ np.array([p[0], p[1], 1.0])
    return (float(x), float(y))
