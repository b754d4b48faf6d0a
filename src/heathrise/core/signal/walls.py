"""Walls with their openings as a flat array of panels, ready for the kernel."""

from __future__ import annotations

from collections.abc import Iterable

import numpy as np
from numpy.typing import NDArray

from ..bands import BANDS
from ..catalogue import Catalogue
from ..design import Design, Floor, Opening, Wall

Array = NDArray[np.float64]

# Columns: ax ay dx dy | t low, t high | z low, z high (m) | length (m) | loss 2.4, 5, 6 (dB).
COLUMNS = 12
_END = 1e-9  # an end that counts is widened by this, one that does not is drawn in by it
_SAME_M = 1e-6


def panels_of(design: Design, catalogue: Catalogue) -> Array:
    """Return every wall of every floor, cut at its openings, shape (p, 12).

    An opening's own loss stands in its place. Where panels share an end, or one ends on another,
    only one of them holds that point, so a ray through it is never counted more than once there.
    """
    storeys = storey_heights(design)
    openings: dict[str, list[Opening]] = {}
    for opening in design.of(Opening).values():
        openings.setdefault(opening.wall, []).append(opening)
    rows: list[list[float]] = []
    for wall in design.of(Wall).values():
        low_m, high_m = storeys[wall.floor]
        for start, end, construction in _pieces(wall, openings.get(wall.id, ())):
            loss = catalogue.constructions[construction].loss_db
            dx, dy = wall.b[0] - wall.a[0], wall.b[1] - wall.a[1]
            share = (end - start) / wall.length_m
            at = start / wall.length_m
            rows.append(
                [wall.a[0] + dx * at, wall.a[1] + dy * at, dx * share, dy * share, 0, 1]
                + [low_m, high_m, end - start]
                + [loss[band] for band in BANDS]
            )
    panels = np.array(rows, dtype=np.float64).reshape(-1, COLUMNS)
    _settle_ends(panels)
    return panels


def storey_heights(design: Design) -> dict[str, tuple[float, float]]:
    """Return for each floor the heights in m its walls reach from and to, up to the next slab."""
    floors = sorted(design.of(Floor).values(), key=lambda f: (f.building, f.level))
    heights: dict[str, tuple[float, float]] = {}
    for i, floor in enumerate(floors):
        above = floors[i + 1] if i + 1 < len(floors) else None
        top_m = floor.elevation_m + floor.ceiling_height_m + 0.3
        if above is not None and above.building == floor.building:
            top_m = max(above.elevation_m, floor.elevation_m + 0.1)
        heights[floor.id] = (floor.elevation_m, top_m)
    return heights


def _pieces(wall: Wall, openings: Iterable[Opening]) -> Iterable[tuple[float, float, str]]:
    """Yield (from_m, to_m, construction) along the wall; of two openings in one place the first."""
    at_m = 0.0
    for opening in sorted(openings, key=lambda o: o.offset_m):
        start_m = max(opening.offset_m, at_m)
        end_m = min(opening.offset_m + opening.width_m, wall.length_m)
        if end_m - start_m < _SAME_M:
            continue
        if start_m - at_m > _SAME_M:
            yield at_m, start_m, wall.construction
        yield start_m, end_m, opening.construction
        at_m = end_m
    if wall.length_m - at_m > _SAME_M:
        yield at_m, wall.length_m, wall.construction


def _settle_ends(panels: Array) -> None:
    """Decide for each end of each panel whether it holds its point (columns 4 and 5).

    Of panels that share an end on one storey the lossiest holds it; an end that lies on the
    inside of another panel is held by that one.
    """
    if not len(panels):
        return
    start, step = panels[:, 0:2], panels[:, 2:4]
    ends = np.stack([start, start + step])  # (2, p, 2)
    storey = panels[:, 6]
    rank = np.argsort(np.argsort(-panels[:, 10], kind="stable"), kind="stable")
    length2 = np.maximum((step**2).sum(axis=1), 1e-12)
    for side in (0, 1):
        relative = ends[side][:, None, :] - start[None, :, :]
        along = (relative * step[None]).sum(axis=2) / length2[None]
        foot = np.abs(relative[..., 0] * step[None, :, 1] - relative[..., 1] * step[None, :, 0])
        near = (foot <= _SAME_M * np.sqrt(length2)[None]) & (storey[:, None] == storey[None, :])
        slack = _SAME_M / np.sqrt(length2)[None]
        inside = near & (along > slack) & (along < 1 - slack)
        at_end = near & ((np.abs(along) <= slack) | (np.abs(along - 1) <= slack))
        np.fill_diagonal(at_end, False)
        yields = inside.any(axis=1) | (at_end & (rank[None, :] < rank[:, None])).any(axis=1)
        panels[:, 4 + side] = (
            np.where(yields, _END, -_END) if side == 0 else 1 - np.where(yields, _END, -_END)
        )
