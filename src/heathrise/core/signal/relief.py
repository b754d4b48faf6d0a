"""Signal as relief: tints, contour lines and the area that falls short, as paths to draw."""

from __future__ import annotations

import itertools
from typing import Any, get_args

import numpy as np
from contourpy import FillType, LineType, contour_generator
from numpy.typing import NDArray
from pydantic import BaseModel, ConfigDict

from ..bands import Band
from ..catalogue import Rules
from ..design import Spot, Use
from .grid import Grid
from .levels import Air, Direction, grid_levels_dbm, ranked_dbm
from .rooms import target_of
from .terrain import relief_grids

Array = NDArray[np.floating]

_LOWEST_DBM = -200.0
_HIGHEST_DBM = 50.0
_LABEL_EVERY_M = 9.0
_SHORTEST_LINE_M = 2.0


class Contour(BaseModel):
    """Lines at one level, as a path, with the spots in metres for its figure."""

    model_config = ConfigDict(frozen=True)

    level_dbm: float
    path: str
    labels: tuple[Spot, ...]


class Shortfall(BaseModel):
    """Where the level is below what rooms of one use ask for."""

    model_config = ConfigDict(frozen=True)

    use: str
    target_dbm: float
    path: str


class Relief(BaseModel):
    """What is drawn for one floor, band, rank and direction. Paths are in site centimetres."""

    model_config = ConfigDict(frozen=True)

    floor: str
    band: Band
    rank: int
    direction: Direction
    step_m: float
    tints: tuple[str, ...]
    contours: tuple[Contour, ...]
    shortfalls: tuple[Shortfall, ...]


def relief(
    air: Air, floor: str, band: Band, rank: int, direction: Direction, quick: bool = False
) -> Relief:
    """Return the relief of the ``rank``-th strongest access point over a floor.

    ``quick`` draws it from a coarser grid, for while something is dragged.
    """
    grids = relief_grids(air.terrain, floor, quick)
    if not air.access_points(band):
        grids = ()
    limits = _limits(air.rules, band, rank)
    # Boundaries of the tints; the targets for first and second access point are among them.
    levels = sorted(air.rules.numbers("signal.contours_dbm"))
    edges = list(itertools.pairwise((_LOWEST_DBM, *levels, _HIGHEST_DBM)))
    tints = [""] * len(edges)
    short = [""] * len(limits)
    lines: list[list[Array]] = [[] for _ in levels]
    for grid in grids:
        maker = _maker(grid, ranked_dbm(grid_levels_dbm(air, floor, grid, band, direction), rank))
        for k, (low, high) in enumerate(edges):
            tints[k] += _areas(maker.filled(low, high))
        for k, (_, limit) in enumerate(limits):
            short[k] += _areas(maker.filled(_LOWEST_DBM, limit))
        for k, level in enumerate(levels):
            lines[k] += maker.lines(level)
    return Relief(
        floor=floor,
        band=band,
        rank=rank,
        direction=direction,
        step_m=min((grid.step_m for grid in grids), default=0.0),
        tints=tuple(tints) if grids else (),
        contours=tuple(map(_contour, levels, lines)) if grids else (),
        shortfalls=tuple(
            Shortfall(use=use, target_dbm=limit, path=path)
            for (use, limit), path in zip(limits, short, strict=True)
        )
        if grids
        else (),
    )


def _maker(grid: Grid, levels: Array) -> Any:
    return contour_generator(
        grid.eastings,
        grid.northings,
        grid.sheet(levels.astype(np.float64)),
        fill_type=FillType.OuterOffset,
        line_type=LineType.Separate,
    )


def _limits(rules: Rules, band: Band, rank: int) -> list[tuple[str, float]]:
    limits: list[tuple[str, float]] = []
    for use in get_args(Use):
        target = target_of(rules, use)
        if target is None or target.band != band:
            continue
        limit = target.first_dbm if rank == 1 else target.second_dbm if rank == 2 else None
        if limit is not None:
            limits.append((use, limit))
    return limits


def _areas(filled: tuple[list[Array], list[NDArray[np.uint32]]]) -> str:
    parts: list[str] = []
    for points, offsets in zip(*filled, strict=True):
        for start, end in itertools.pairwise(offsets):
            parts.append(f"M{_joined(points[start : end - 1])}Z")
    return "".join(parts)


def _joined(points: Array) -> str:
    # Whole centimetres: half the length of decimals, and quick to write.
    return " ".join(map(str, np.rint(points * 100).astype(np.int64).ravel().tolist()))


def _contour(level: float, lines: list[Array]) -> Contour:
    parts: list[str] = []
    labels: list[Spot] = []
    for line in lines:
        steps = np.hypot(*np.diff(line, axis=0).T)
        along = np.cumsum(steps)
        if not len(along) or along[-1] < _SHORTEST_LINE_M:
            continue
        parts.append(f"M{_joined(line)}")
        count = max(1, int(along[-1] // _LABEL_EVERY_M)) if along[-1] > 4 else 0
        for k in range(count):
            spot = line[int(np.searchsorted(along, along[-1] * (k + 0.5) / count))]
            labels.append((round(float(spot[0]), 2), round(float(spot[1]), 2)))
    return Contour(level_dbm=level, path="".join(parts), labels=tuple(labels))
