"""The relief of a difference: what another plan, or a failure, does to the level at every spot."""

from __future__ import annotations

import numpy as np

from ..base.bands import Band
from .grid import Grid
from .obstacles import relief_grids
from .radio_environment import Direction, RadioEnvironment, grid_levels_dbm, ranked_dbm
from .relief import UNITS, Array, Relief, contours_of, tinted

_MOST_DB = 400.0


def difference(
    now: RadioEnvironment,
    then: RadioEnvironment,
    floor: str,
    band: Band,
    rank: int,
    direction: Direction,
    quick: bool = False,
) -> Relief:
    """Return what ``now`` has over ``then`` in dB, of the ``rank``-th strongest access point.

    Levels below the noise count as the noise: what nobody can use neither falls nor rises. Drawn
    over what is drawn of ``now``; both have the floor.
    """
    noise = now.noise_dbm(band)

    def heard(air: RadioEnvironment, grid: Grid) -> Array:
        levels = grid_levels_dbm(air, floor, grid, band, direction)
        return np.maximum(ranked_dbm(levels, rank), noise)

    grids = relief_grids(now.terrain, floor, quick)
    makers = [contours_of(grid, heard(now, grid) - heard(then, grid)) for grid in grids]
    figures = sorted(now.rules.numbers("signal.contours_difference_db"))
    return Relief(
        floor=floor,
        show="difference",
        unit=UNITS["difference"],
        band=band,
        rank=rank,
        direction=direction,
        step_m=min((g.step_m for g in grids), default=0.0),
        **tinted(makers, [(db, db) for db in figures], -_MOST_DB, _MOST_DB),
    )
