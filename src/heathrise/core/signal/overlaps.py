"""Walls drawn on one another, made into one wall of the lossier construction."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
import shapely
from scipy.sparse import coo_array
from scipy.sparse.csgraph import connected_components

ON_LINE_M = 0.02  # walls this near to one line along their length are drawn on one another
_SAME_M = 1e-6
_SHARED_M = 1e-4  # walls that only meet share less of their line than this
_PARALLEL = 0.02  # sine of the angle between walls that can lie on one another
Losses = tuple[float, float, float]
Corner = tuple[float, float]


@dataclass(frozen=True)
class Panel:
    """An upright sheet from ``a`` to ``b`` and ``low_m`` to ``high_m`` that takes ``loss`` dB.

    ``element`` is the wall or opening that it is a piece of.
    """

    a: Corner
    b: Corner
    low_m: float
    high_m: float
    loss: Losses
    origin: int
    floor: str
    opening: bool = False
    construction: str = ""
    element: str = ""

    @property
    def length_m(self) -> float:
        return math.dist(self.a, self.b)

    def between(self, low_m: float, high_m: float) -> Panel:
        return replace(self, low_m=low_m, high_m=high_m)


def dissolved(panels: list[Panel]) -> list[Panel]:
    """Return panels of which no two lie on one another.

    Where they did, the lossiest wall counts, band by band; an opening stands for all walls of
    its storey in its place, so that a wall drawn twice needs its door only once.
    """
    pairs = _on_one_another(panels)
    if not len(pairs):
        return panels
    ones = np.ones(len(pairs))
    graph: Any = coo_array((ones, (pairs[:, 0], pairs[:, 1])), shape=(len(panels),) * 2)
    _, group = connected_components(graph, directed=False)
    members: dict[int, list[Panel]] = {}
    for panel, key in zip(panels, group, strict=True):
        members.setdefault(int(key), []).append(panel)
    found: list[Panel] = []
    for rows in members.values():
        found += rows if len(rows) == 1 else _one_wall(rows)
    return found


def _on_one_another(panels: Sequence[Panel]) -> np.ndarray:
    """Return the pairs (i, j) of panels that share a stretch of line and of height."""
    if len(panels) < 2:
        return np.empty((0, 2), dtype=np.intp)
    a, b = np.array([p.a for p in panels]), np.array([p.b for p in panels])
    lines = shapely.linestrings(np.stack([a, b], axis=1))
    tree = shapely.STRtree(lines)
    i, j = tree.query(lines, predicate="dwithin", distance=ON_LINE_M)
    low, high = (np.array([getattr(p, k) for p in panels]) for k in ("low_m", "high_m"))
    keep = (i < j) & (np.minimum(high[i], high[j]) > np.maximum(low[i], low[j]) + _SAME_M)
    i, j = i[keep], j[keep]
    length = np.maximum(np.linalg.norm(b - a, axis=1), 1e-9)
    unit = (b - a) / length[:, None]
    sine = np.abs(unit[i, 0] * unit[j, 1] - unit[i, 1] * unit[j, 0])
    # Both ends of the shorter one, seen along and across the longer one.
    longer = np.where(length[i] >= length[j], i, j)
    other = np.where(longer == i, j, i)
    along, across = [], []
    for end in (a[other], b[other]):
        offset = end - a[longer]
        along.append((offset * unit[longer]).sum(axis=1))
        across.append(np.abs(offset[:, 0] * unit[longer, 1] - offset[:, 1] * unit[longer, 0]))
    shared = np.minimum(np.maximum(*along), length[longer]) - np.maximum(np.minimum(*along), 0)
    lies = (sine < _PARALLEL) & (np.maximum(*across) <= ON_LINE_M) & (shared > _SHARED_M)
    return np.column_stack([i[lies], j[lies]])


def _one_wall(rows: Sequence[Panel]) -> list[Panel]:
    """Return the same walls as rectangles side by side on the longest one's line."""
    axis = max(rows, key=lambda p: (p.length_m, -p.origin))
    (ax, ay), length = axis.a, axis.length_m
    ux, uy = (axis.b[0] - ax) / length, (axis.b[1] - ay) / length

    def project(point: Corner) -> float:
        return (point[0] - ax) * ux + (point[1] - ay) * uy

    # A corner that was drawn stays exactly where it was drawn.
    drawn = {round(project(end), 6): end for p in rows for end in (p.a, p.b)}

    def spot(t: float) -> Corner:
        return drawn.get(round(t, 6), (ax + ux * t, ay + uy * t))

    spans = [tuple(sorted((project(p.a), project(p.b)))) for p in rows]
    t_edges = _edges([t for span in spans for t in span])
    found: list[Panel] = []
    for low, high in itertools.pairwise(_edges([z for p in rows for z in (p.low_m, p.high_m)])):
        layer = [
            (p, span)
            for p, span in zip(rows, spans, strict=True)
            if p.low_m <= low + _SAME_M and p.high_m >= high - _SAME_M
        ]
        cells = [
            (start, end, _lossiest([p for p, (s, e) in layer if _covers(s, e, start, end)]))
            for start, end in itertools.pairwise(t_edges)
        ]
        for held, run in itertools.groupby(cells, key=lambda cell: cell[2] and cell[2].loss):
            first, *more = run
            if held and first[2]:
                a, b = spot(first[0]), spot((more[-1] if more else first)[1])
                found.append(replace(first[2], a=a, b=b, low_m=low, high_m=high))
    return found


def _covers(start: float, end: float, low: float, high: float) -> bool:
    return start <= low + _SAME_M and end >= high - _SAME_M


def _lossiest(here: Sequence[Panel]) -> Panel | None:
    """Return the panel that counts of those in one place, with the greatest loss of each band."""
    open_on = {p.floor for p in here if p.opening}
    counted = [p for p in here if p.opening or p.floor not in open_on]
    if not counted:
        return None
    low, middle, high = (max(p.loss[k] for p in counted) for k in range(3))
    holder = max(counted, key=lambda p: (p.loss[1], -p.origin))
    return replace(holder, loss=(low, middle, high))


def _edges(values: Sequence[float]) -> list[float]:
    kept: list[float] = []
    for value in sorted(values):
        if not kept or value - kept[-1] > _SAME_M:
            kept.append(value)
    return kept
