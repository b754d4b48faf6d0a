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


@dataclass(frozen=True)
class Panel:
    """An upright sheet from ``a`` to ``b`` and ``low_m`` to ``high_m`` that takes ``loss`` dB."""

    a: tuple[float, float]
    b: tuple[float, float]
    low_m: float
    high_m: float
    loss: Losses
    origin: int
    floor: str
    opening: bool = False

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

    def project(point: tuple[float, float]) -> float:
        return (point[0] - ax) * ux + (point[1] - ay) * uy

    spans = [tuple(sorted((project(p.a), project(p.b)))) for p in rows]
    t_edges = _edges([t for span in spans for t in span])
    z_edges = _edges([z for p in rows for z in (p.low_m, p.high_m)])

    def spot(t: float) -> tuple[float, float]:
        return ax + ux * t, ay + uy * t

    ends = {round(t, 6): e for p, span in zip(rows, spans, strict=True)
            for t, e in ((project(p.a), p.a), (project(p.b), p.b)) if span}  # fmt: skip
    found: list[Panel] = []
    for low, high in itertools.pairwise(z_edges):
        run: tuple[float, float, Losses, Panel] | None = None
        for start, end in itertools.pairwise(t_edges):
            here = [
                p
                for p, (s, e) in zip(rows, spans, strict=True)
                if s <= start + _SAME_M and e >= end - _SAME_M
                and p.low_m <= low + _SAME_M and p.high_m >= high - _SAME_M
            ]  # fmt: skip
            loss, holder = _lossiest(here)
            if run and holder and loss == run[2] and start <= run[1] + _SAME_M:
                run = (run[0], end, run[2], run[3])
                continue
            if run:
                found.append(_piece(run, low, high, spot, ends))
            run = (start, end, loss, holder) if holder else None
        if run:
            found.append(_piece(run, low, high, spot, ends))
    return found


def _piece(run: Any, low: float, high: float, spot: Any, ends: Any) -> Panel:
    start, end, loss, holder = run
    # A corner that was drawn stays exactly where it was drawn.
    a, b = ends.get(round(start, 6), spot(start)), ends.get(round(end, 6), spot(end))
    return replace(holder, a=a, b=b, low_m=low, high_m=high, loss=loss, opening=False)


def _lossiest(here: Sequence[Panel]) -> tuple[Losses, Panel | None]:
    if not here:
        return (0.0, 0.0, 0.0), None
    open_on = {p.floor for p in here if p.opening}
    counted = [p for p in here if p.opening or p.floor not in open_on]
    loss = tuple(max(p.loss[k] for p in counted) for k in range(3))
    return loss, max(counted, key=lambda p: (p.loss[1], -p.origin))  # type: ignore[return-value]


def _edges(values: Sequence[float]) -> list[float]:
    kept: list[float] = []
    for value in sorted(values):
        if not kept or value - kept[-1] > _SAME_M:
            kept.append(value)
    return kept
