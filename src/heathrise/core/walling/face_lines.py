"""Lines of a drawing as faces of walls: put together where they go on, laid beside one another."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field

Spot = tuple[float, float]
Line = tuple[Spot, Spot]
Span = tuple[float, float]

_SPECK_M = 0.005
_SAME_WAY, _SAME_OFF_M = math.radians(0.05), 0.003


@dataclass(frozen=True)
class FaceWall:
    """A wall by the middle of its ends; ``thick_m`` is None where one line alone was drawn. ``gaps`` are
    holes in it, m from its first end, that no face bridges."""

    a: Spot
    b: Spot
    thick_m: float | None
    gaps: tuple[Span, ...] = ()

    @property
    def length_m(self) -> float:
        return math.dist(self.a, self.b)

    @property
    def way(self) -> Spot:
        size = self.length_m
        return ((self.b[0] - self.a[0]) / size, (self.b[1] - self.a[1]) / size)


@dataclass
class Face:
    a: Spot
    b: Spot
    size: float
    used: list[Span] = field(default_factory=list)

    @classmethod
    def of(cls, line: Line) -> Face:
        return cls(line[0], line[1], math.dist(*line))

    @property
    def way(self) -> Spot:
        return ((self.b[0] - self.a[0]) / self.size, (self.b[1] - self.a[1]) / self.size)

    def along(self, p: Spot) -> float:
        ux, uy = self.way
        return (p[0] - self.a[0]) * ux + (p[1] - self.a[1]) * uy

    def off(self, p: Spot) -> float:
        ux, uy = self.way
        return (p[1] - self.a[1]) * ux - (p[0] - self.a[0]) * uy

    def at(self, along: float, off: float = 0.0) -> Spot:
        ux, uy = self.way
        return (self.a[0] + ux * along - uy * off, self.a[1] + uy * along + ux * off)


def merged(lines: Iterable[Line]) -> list[Line]:
    """Join pieces of one straight line, so that a face is one line however it was drawn."""
    rows = [(_angle(line), line) for line in lines if math.dist(*line) >= _SPECK_M]
    found: list[Line] = []
    for same_way in _clusters(rows, _SAME_WAY):
        angle = sum(a * math.dist(*line) for a, line in same_way) / sum(math.dist(*r[1]) for r in same_way)
        ux, uy = math.cos(angle), math.sin(angle)
        offs = [(sum(ux * y - uy * x for x, y in line) / 2, line) for _, line in same_way]
        for in_line in _clusters(offs, _SAME_OFF_M):
            spans: list[tuple[float, float, Line]] = []
            for _, line in in_line:
                ends = [ux * x + uy * y for x, y in line]
                spans.append((min(ends), max(ends), line))
            found += _runs(sorted(spans, key=lambda s: s[:2]))
    return found


def _angle(line: Line) -> float:
    """Return a line's direction, either way round, as one angle from 0 to pi; nearly pi counts as 0."""
    angle = math.atan2(line[1][1] - line[0][1], line[1][0] - line[0][0]) % math.pi
    return angle - math.pi if math.pi - angle < _SAME_WAY else angle


def _clusters(rows: list[tuple[float, Line]], apart: float) -> Iterator[list[tuple[float, Line]]]:
    """Yield rows together whose values follow one another within ``apart``."""
    held: list[tuple[float, Line]] = []
    for row in sorted(rows):
        if held and row[0] - held[-1][0] > apart:
            yield held
            held = []
        held.append(row)
    if held:
        yield held


def _runs(spans: Sequence[tuple[float, float, Line]]) -> Iterator[Line]:
    held: list[Line] = []
    reach = -math.inf
    for low, high, line in spans:
        if held and low > reach + _SPECK_M:
            yield _outer(held)
            held, reach = [], -math.inf
        held.append(line)
        reach = max(reach, high)
    if held:
        yield _outer(held)


def _outer(rows: Sequence[Line]) -> Line:
    """The longest line over pieces: its ends are ends that were drawn."""
    (ax, ay), (bx, by) = rows[0]
    ends = sorted((p for line in rows for p in line), key=lambda p: p[0] * (bx - ax) + p[1] * (by - ay))
    return (ends[0], ends[-1])


def overlap(face: Face, other: Face) -> Span:
    low, high = sorted((face.along(other.a), face.along(other.b)))
    return max(0.0, low), min(face.size, high)


def mapped(face: Face, other: Face, span: Span) -> Span:
    low, high = sorted(face.along(other.at(p)) for p in span)
    return low, high


def free(span: Span, taken: Iterable[Span]) -> list[Span]:
    left = [span]
    for low, high in taken:
        left = [
            piece
            for a, b in left
            for piece in ((a, min(b, low)), (max(a, high), b))
            if piece[1] - piece[0] > 1e-9
        ]
    return left
