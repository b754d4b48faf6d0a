"""Walls with their openings as a flat array of panels, ready for the kernel."""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Iterator
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import LineString

from ..base.bands import BANDS
from ..catalogue import Catalogue
from ..context.storeys import SLAB_M, Storeys, storeys_of
from ..design import Design, Opening, Space, Wall
from .overlaps import Panel, dissolved

Array = NDArray[np.float64]

# Columns: ax ay dx dy | t low, t high | z low, z high (m) | length (m) | loss 2.4, 5, 6 (dB).
COLUMNS = 12
_END = 1e-9  # an end that counts is widened by this, one that does not is drawn in by it
_SAME_M = 1e-6
_BESIDE_M = 0.15  # a room whose outline runs this near along a wall stands beside it


def panels_of(design: Design, catalogue: Catalogue) -> Array:
    """Return every wall of every floor, cut at its openings, shape (p, 12).

    An opening's own loss stands in its place. Walls drawn on one another are one wall, of the
    lossier construction. Where panels share an end, or one ends on another, only one of them
    holds that point, so a ray through it is never counted more than once there.
    """
    return named_panels_of(design, catalogue)[0]


def named_panels_of(design: Design, catalogue: Catalogue) -> tuple[Array, list[Panel]]:
    """Return ``panels_of``, and for each row the piece of a wall that it is."""
    pieces = dissolved(list(_pieces_of(design, catalogue)))
    pieces = _cut_level(pieces)
    panels = np.array([_row(p) for p in pieces], dtype=np.float64).reshape(-1, COLUMNS)
    _settle_ends(panels, np.array([p.origin for p in pieces], dtype=np.intp))
    return panels, pieces


def _row(panel: Panel) -> list[float]:
    (ax, ay), (bx, by) = panel.a, panel.b
    return [ax, ay, bx - ax, by - ay, 0, 1, panel.low_m, panel.high_m, panel.length_m, *panel.loss]


def _pieces_of(design: Design, catalogue: Catalogue) -> Iterator[Panel]:
    storeys = storeys_of(design)
    tall = _tall_rooms(storeys)
    openings: dict[str, list[Opening]] = {}
    for opening in design.of(Opening).values():
        openings.setdefault(opening.wall, []).append(opening)
    for number, wall in enumerate(design.of(Wall).values()):
        low_m, high_m = storeys.elevation_m[wall.floor], storeys.top_m[wall.floor]

        def panel(
            start_m: float,
            end_m: float,
            construction: str,
            low: float,
            high: float,
            opening: str = "",
            wall: Wall = wall,
            number: int = number,
        ) -> Panel:
            loss = catalogue.constructions[construction].loss_db
            return Panel(
                a=_along(wall, start_m),
                b=_along(wall, end_m),
                low_m=low,
                high_m=high,
                loss=(loss[BANDS[0]], loss[BANDS[1]], loss[BANDS[2]]),
                origin=number,
                floor=wall.floor,
                opening=bool(opening),
                construction=construction,
                element=opening or wall.id,
            )

        for start, end, construction, opened in _pieces(wall, openings.get(wall.id, ())):
            yield panel(start, end, construction, low_m, high_m, opened)
        for start, end, top_m in _raised(wall, tall.get(wall.floor, ())):
            if top_m > high_m:
                yield panel(start, end, wall.construction, high_m, top_m)


def _along(wall: Wall, at_m: float) -> tuple[float, float]:
    share = at_m / wall.length_m
    if share >= 1:
        return wall.b
    (ax, ay), (bx, by) = wall.a, wall.b
    return ax + (bx - ax) * share, ay + (by - ay) * share


def _tall_rooms(storeys: Storeys) -> dict[str, list[tuple[Any, float]]]:
    """Return by floor the rooms with a ceiling above their storey's, and where they end."""
    found: dict[str, list[tuple[Any, float]]] = {}
    for floor, rows in storeys.rooms.items():
        for space, polygon in rows:
            top_m = storeys.elevation_m[floor] + storeys.ceiling_m(space, floor) + SLAB_M
            if not space.outdoor and top_m > storeys.top_m[floor] + _SAME_M:
                found.setdefault(floor, []).append((polygon, _built_up_m(storeys, space, polygon, top_m)))
    return found


def _built_up_m(storeys: Storeys, space: Space, polygon: Any, top_m: float) -> float:
    """Return how high a tall room's walls reach: a storey that lies over it ends them."""
    if space.open_above:
        return top_m
    over = storeys.above(space.floor, polygon)
    return storeys.elevation_m[over[0]] if over else top_m


def _raised(wall: Wall, tall: Iterable[tuple[Any, float]]) -> Iterator[tuple[float, float, float]]:
    """Yield (from_m, to_m, top_m) of the stretches beside rooms higher than the storey."""
    line = LineString([wall.a, wall.b])
    for polygon, top_m in tall:
        if polygon.distance(line) > _BESIDE_M:
            continue
        beside = line.intersection(polygon.boundary.buffer(_BESIDE_M, cap_style="flat"))
        for part in getattr(beside, "geoms", [beside]):
            if part.length < _BESIDE_M * 3:
                continue  # the wall only meets the room, it does not run along it
            ends = sorted(line.project(shapely.Point(c)) for c in (part.coords[0], part.coords[-1]))
            yield _snapped(wall, ends[0]), _snapped(wall, ends[1]), top_m


def _snapped(wall: Wall, at_m: float) -> float:
    if at_m < 2 * _BESIDE_M:
        return 0.0
    return wall.length_m if at_m > wall.length_m - 2 * _BESIDE_M else at_m


def _pieces(wall: Wall, openings: Iterable[Opening]) -> Iterable[tuple[float, float, str, str]]:
    """Yield (from_m, to_m, construction, id of the opening or nothing); of two openings in one
    place the first."""
    at_m = 0.0
    for opening in sorted(openings, key=lambda o: o.offset_m):
        start_m = max(opening.offset_m, at_m)
        end_m = min(opening.offset_m + opening.width_m, wall.length_m)
        if end_m - start_m < _SAME_M:
            continue
        if start_m - at_m > _SAME_M:
            yield at_m, start_m, wall.construction, ""
        yield start_m, end_m, opening.construction, opening.id
        at_m = end_m
    if wall.length_m - at_m > _SAME_M:
        yield at_m, wall.length_m, wall.construction, ""


def _cut_level(panels: list[Panel]) -> list[Panel]:
    """Cut panels of unlike height that touch at each other's ends, so that each end is shared
    over the whole of its height or not at all."""
    if not panels:
        return panels
    low, high = (np.array([getattr(p, k) for p in panels]) for k in ("low_m", "high_m"))
    tree = shapely.STRtree([LineString([p.a, p.b]) for p in panels])
    ends = shapely.points([p.a for p in panels] + [p.b for p in panels])
    i, j = tree.query(ends, predicate="dwithin", distance=_SAME_M)
    i = i % len(panels)
    cuts: dict[int, set[float]] = {}
    for one, other in ((i, j), (j, i)):
        for edge in (low, high):
            inside = (low[one] + _SAME_M < edge[other]) & (edge[other] < high[one] - _SAME_M)
            for k, z_m in zip(one[inside], edge[other[inside]], strict=True):
                cuts.setdefault(int(k), set()).add(float(z_m))
    if not cuts:
        return panels
    found: list[Panel] = []
    for k, panel in enumerate(panels):
        edges = [panel.low_m, *sorted(cuts.get(k, ())), panel.high_m]
        found += [panel.between(a, b) for a, b in itertools.pairwise(edges)]
    return found


def _settle_ends(panels: Array, origin: NDArray[np.intp]) -> None:
    """Decide for each end of each panel whether it holds its point (columns 4 and 5).

    Of panels that share an end and a height the lossiest holds it; an end that lies on the
    inside of another panel is held by that one.
    """
    if not len(panels):
        return
    panels[:, 4], panels[:, 5] = -_END, 1 + _END
    start, step = panels[:, 0:2], panels[:, 2:4]
    length_m = np.maximum(panels[:, 8], 1e-9)
    # Lossiest on 5 GHz first, then on the others; then as drawn.
    order = np.lexsort((origin, -panels[:, 11], -panels[:, 9], -panels[:, 10]))
    rank = np.empty(len(panels), dtype=np.intp)
    rank[order] = np.arange(len(panels))
    lines = shapely.linestrings(np.stack([start, start + step], axis=1))
    tree = shapely.STRtree(lines)
    for side in (0, 1):
        point = start + side * step
        mine, other = tree.query(shapely.points(point), predicate="dwithin", distance=_SAME_M)
        together = (mine != other) & (
            np.minimum(panels[mine, 7], panels[other, 7])
            > np.maximum(panels[mine, 6], panels[other, 6]) + _SAME_M
        )
        mine, other = mine[together], other[together]
        along = ((point[mine] - start[other]) * step[other]).sum(axis=1) / length_m[other]
        inside = (along > _SAME_M) & (along < length_m[other] - _SAME_M)
        yields = np.zeros(len(panels), dtype=bool)
        np.logical_or.at(yields, mine, inside | (rank[other] < rank[mine]))
        panels[yields, 4 + side] = _END if side == 0 else 1 - _END
