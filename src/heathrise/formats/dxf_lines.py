"""Lines of a drawing's entities: straight ones as they are, everything bent in short chords."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Any

Segment = tuple[float, float, float, float]

ARC_STEP_DEG = 15.0
ARC_SEGMENTS = 24
_SPLINE_SEGMENTS = 8  # of each of its control points
_MOST_SPLINE = 400
_SWING_DEG = (55.0, 125.0)


@dataclass(frozen=True)
class Swing:
    """A quarter of a circle, as a door's leaf draws it: about its hinge, from one end to the other."""

    hinge: tuple[float, float]
    one: tuple[float, float]
    other: tuple[float, float]

    @property
    def width(self) -> float:
        return math.dist(self.hinge, self.one)


def weight_of(entity: Any) -> int:
    """Return how many lines an entity may become, without making them."""
    kind = entity.dxftype()
    if kind in ("LWPOLYLINE", "POLYLINE"):
        return max(1, len(entity)) * (ARC_SEGMENTS if getattr(entity, "has_arc", False) else 1)
    if kind == "MLINE":
        elements = len(entity.style.elements) if entity.style is not None else 2
        return max(1, len(entity.vertices)) * max(1, elements) * 2
    if kind == "SPLINE":
        return min(_MOST_SPLINE, _SPLINE_SEGMENTS * max(1, len(entity.control_points)))
    if kind == "HATCH":
        return sum(_edge_weight(path) for path in entity.paths) if entity.dxf.solid_fill else 1
    return {"ARC": ARC_SEGMENTS, "CIRCLE": ARC_SEGMENTS, "ELLIPSE": ARC_SEGMENTS, "SOLID": 4}.get(kind, 1)


def _edge_weight(path: Any) -> int:
    corners: Any = getattr(path, "vertices", None) or getattr(path, "edges", ())
    return ARC_SEGMENTS * max(1, len(corners))


def lines_of(entity: Any) -> Iterator[Segment]:
    """Yield the lines of an entity; none of what is not drawn as lines."""
    kind = entity.dxftype()
    if kind == "LINE":
        start, end = entity.dxf.start, entity.dxf.end
        yield (start.x, start.y, end.x, end.y)
    elif kind in ("LWPOLYLINE", "POLYLINE", "MLINE"):
        for part in entity.virtual_entities():
            yield from lines_of(part)
    elif kind in ("ARC", "CIRCLE"):
        yield from _chain(entity.flattening(sagitta=_sagitta(entity.dxf.radius)))
    elif kind == "ELLIPSE":
        size = max(entity.dxf.major_axis.magnitude, 1e-9)
        yield from _chain(entity.flattening(distance=_sagitta(size)))
    elif kind == "SPLINE":
        count = min(_MOST_SPLINE, _SPLINE_SEGMENTS * max(1, len(entity.control_points)))
        yield from _chain(entity.construction_tool().approximate(count))
    elif kind in ("SOLID", "TRACE"):
        points = entity.wcs_vertices(close=True)
        yield from _chain(points)
    elif kind == "HATCH" and entity.dxf.solid_fill:
        for path in entity.paths:
            yield from _hatched(path)


def _hatched(path: Any) -> Iterator[Segment]:
    """Yield the outline of what is filled."""
    vertices = getattr(path, "vertices", None)
    if vertices is not None:
        points = [(v[0], v[1]) for v in vertices]
        for (ax, ay), (bx, by) in zip(points, points[1:] + points[:1], strict=True):
            yield (float(ax), float(ay), float(bx), float(by))
        return
    for edge in path.edges:
        start, end = getattr(edge, "start", None), getattr(edge, "end", None)
        if start is not None and end is not None:
            yield (float(start[0]), float(start[1]), float(end[0]), float(end[1]))


def _chain(points: Iterable[Any]) -> Iterator[Segment]:
    for a, b in itertools.pairwise(points):
        yield (float(a.x), float(a.y), float(b.x), float(b.y))


def _sagitta(radius: float) -> float:
    return max(abs(radius) * (1 - math.cos(math.radians(ARC_STEP_DEG / 2))), 1e-6)


def swings_of(entity: Any) -> Iterator[Swing]:
    """Yield the quarter circles of an entity, as doors draw them."""
    kind = entity.dxftype()
    if kind in ("LWPOLYLINE", "POLYLINE") and getattr(entity, "has_arc", False):
        for part in entity.virtual_entities():
            yield from swings_of(part)
    elif kind == "ARC" and entity.dxf.radius > 0:
        turned = (entity.dxf.end_angle - entity.dxf.start_angle) % 360
        if _SWING_DEG[0] <= turned <= _SWING_DEG[1]:
            hinge = entity.ocs().to_wcs(entity.dxf.center)
            one, other = entity.start_point, entity.end_point
            spots = [(p.x, p.y) for p in (hinge, one, other)]
            if all(math.isfinite(v) for p in spots for v in p):
                yield Swing(*spots)
