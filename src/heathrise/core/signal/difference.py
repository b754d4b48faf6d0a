"""The relief of a difference: what another plan, or a failure, does to the level at every spot."""

from __future__ import annotations

import itertools

import numpy as np

from ..bands import Band
from .levels import Air, Direction, grid_levels_dbm, ranked_dbm
from .relief import (
    UNITS,
    Array,
    Contour,
    Relief,
    areas_path,
    contour_lines,
    contours_of,
    nothing_drawn,
)
from .terrain import relief_grids

_MOST_DB = 400.0


def difference(
    now: Air, then: Air, floor: str, band: Band, rank: int, direction: Direction,
    quick: bool = False,
) -> Relief:  # fmt: skip
    """Return what ``now`` has over ``then`` in dB, of the ``rank``-th strongest access point.

    Levels below the noise count as the noise: what nobody can use neither falls nor rises. Drawn
    over what is drawn of ``now``; both have the floor.
    """
    figures = tuple(sorted(now.rules.numbers("signal.contours_difference_db")))
    grids = relief_grids(now.terrain, floor, quick)
    edges = list(itertools.pairwise((-_MOST_DB, *figures, _MOST_DB)))
    tints = [""] * len(edges)
    lines: list[list[Array]] = [[] for _ in figures]
    for grid in grids:
        noise = now.noise_dbm(band)
        of_now, of_then = (
            np.maximum(ranked_dbm(grid_levels_dbm(air, floor, grid, band, direction), rank), noise)
            for air in (now, then)
        )
        maker = contours_of(grid, of_now - of_then)
        for k, (low, high) in enumerate(edges):
            tints[k] += areas_path(maker.filled(low, high))
        for k, figure in enumerate(figures):
            lines[k] += maker.lines(figure)
    rows = nothing_drawn(figures)
    if grids:
        contours: list[Contour] = list(map(contour_lines, figures, lines))
        rows |= {"tints": tuple(tints), "contours": tuple(contours)}
    return Relief(
        floor=floor, show="difference", unit=UNITS["difference"], band=band, rank=rank,
        direction=direction, step_m=min((g.step_m for g in grids), default=0.0), **rows,
    )  # fmt: skip
