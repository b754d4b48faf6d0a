"""The points at which rooms are judged: points of each room's own, never outside it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon

from ..base.memo import IdentityMemo
from ..design import Design, Space

Array = NDArray[np.float64]

STEP_M = 0.5
MOST_POINTS = 2_500  # of one room; a larger one is judged at points farther apart
LEAST_POINTS = 12  # of one room; a smaller one is judged at points nearer together
_HALVINGS = 6
_BLOCK_M = 8.0  # neighbours are kept together: they share the walls that shade them


@dataclass(frozen=True, eq=False)
class Survey:
    """The points of all rooms of one floor, and which of them belong to each room."""

    x: Array
    y: Array
    rooms: dict[str, NDArray[np.intp]]

    @property
    def points(self) -> tuple[Array, Array]:
        return self.x, self.y

    @property
    def size(self) -> int:
        return len(self.x)


_surveys: IdentityMemo[dict[str, Survey]] = IdentityMemo(64)
_rooms: IdentityMemo[tuple[Array, Array]] = IdentityMemo(4096)


def survey_of(design: Design) -> dict[str, Survey]:
    """Return the survey of each floor that has rooms in need of signal."""
    spaces = design.of(Space)
    return _surveys.get((spaces,), None, lambda: _make(list(spaces.values())))


def room_points(polygon: Any, apart_m: float = STEP_M) -> tuple[Array, Array]:
    """Return x and y of a room's points: the middles of square cells, all inside it."""
    west, south, east, north = polygon.bounds
    step_m = max(apart_m, math.sqrt(polygon.area / MOST_POINTS))
    step_m = min(step_m, math.sqrt(polygon.area / LEAST_POINTS))
    shapely.prepare(polygon)
    for _ in range(_HALVINGS):
        xs, ys = _middles(west, east, step_m), _middles(south, north, step_m)
        x, y = (a.ravel() for a in np.meshgrid(xs, ys))
        inside = shapely.contains_xy(polygon, x, y)
        if inside.sum() >= LEAST_POINTS / 2:
            return x[inside], y[inside]
        step_m /= 2
    spot = polygon.representative_point()
    return np.array([spot.x]), np.array([spot.y])


def _middles(low: float, high: float, step: float) -> Array:
    cells = max(1, round((high - low) / step))
    return np.asarray(low + (high - low) * (np.arange(cells) + 0.5) / cells)


def _make(spaces: list[Space]) -> dict[str, Survey]:
    by_floor: dict[str, list[Space]] = {}
    for space in spaces:
        if space.use != "none":
            by_floor.setdefault(space.floor, []).append(space)
    return {floor: _survey(rows) for floor, rows in by_floor.items()}


def _survey(spaces: list[Space]) -> Survey:
    parts = [
        _rooms.get((s.outline,), None, lambda s=s: room_points(Polygon(s.outline)))  # type: ignore[misc]
        for s in spaces
    ]
    x, y = (np.concatenate([p[k] for p in parts]) for k in (0, 1))
    order = np.lexsort((np.floor(x / _BLOCK_M), np.floor(y / _BLOCK_M)))
    place = np.empty(len(order), dtype=np.intp)
    place[order] = np.arange(len(order))
    rooms: dict[str, NDArray[np.intp]] = {}
    first = 0
    for space, (xs, _) in zip(spaces, parts, strict=True):
        rooms[space.id] = place[first : first + len(xs)]
        first += len(xs)
    return Survey(x[order], y[order], rooms)
