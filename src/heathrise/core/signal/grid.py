"""Points over a floor at which signal is worked out."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

BLOCK = 16  # points on a side of a block; neighbours in a block share the walls that shade them


@dataclass(frozen=True)
class Grid:
    """A lattice of ``columns x rows`` points, the first at (west_m, south_m)."""

    west_m: float
    south_m: float
    step_m: float
    columns: int
    rows: int

    @classmethod
    def over(cls, bounds: tuple[float, float, float, float], step_m: float, most: int) -> Grid:
        """Return a grid over (west, south, east, north), coarser if ``most`` points ask for it."""
        west, south, east, north = bounds
        width, height = max(east - west, step_m), max(north - south, step_m)
        step = max(step_m, math.sqrt(width * height / most))
        return cls(west, south, step, math.ceil(width / step) + 1, math.ceil(height / step) + 1)

    @property
    def size(self) -> int:
        return self.rows * self.columns

    @cached_property
    def order(self) -> NDArray[np.intp]:
        """The row-major index of each point in block order."""
        index = np.arange(self.rows * self.columns).reshape(self.rows, self.columns)
        blocks = [
            index[r : r + BLOCK, c : c + BLOCK].ravel()
            for r in range(0, self.rows, BLOCK)
            for c in range(0, self.columns, BLOCK)
        ]
        return np.concatenate(blocks)

    @cached_property
    def points(self) -> tuple[Array, Array]:
        """x and y of every point in block order, shape (n,)."""
        x, y = np.meshgrid(self.eastings, self.northings)
        return x.ravel()[self.order], y.ravel()[self.order]

    @cached_property
    def eastings(self) -> Array:
        return self.west_m + self.step_m * np.arange(self.columns, dtype=np.float64)

    @cached_property
    def northings(self) -> Array:
        return self.south_m + self.step_m * np.arange(self.rows, dtype=np.float64)

    def sheet(self, values: Array) -> Array:
        """Lay values in block order out as (rows, columns), south row first."""
        laid = np.empty(self.rows * self.columns)
        laid[self.order] = values
        return laid.reshape(self.rows, self.columns)
