"""Signal as relief: tints, contour lines and the area that falls short, as paths to draw."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from statistics import NormalDist
from typing import Any, Literal, get_args

import numpy as np
from contourpy import FillType, LineType, contour_generator
from numpy.typing import NDArray
from shapely.geometry import Polygon

from ..base.bands import Band
from ..base.frozen import Frozen
from ..catalogue import Rules
from ..design import Spot, Use
from .grid import Grid
from .obstacles import relief_grids
from .radio_environment import Direction, RadioEnvironment, grid_levels_dbm, ranked_dbm
from .rates import level_for
from .rooms import target_in, target_of

Array = NDArray[np.floating]

_LOWEST_DBM = -200.0
_HIGHEST_DBM = 50.0
_LABEL_EVERY_M = 9.0
_SHORTEST_LINE_M = 2.0


# What a relief is of: a level, what follows from it, how many are heard, who serves where.
Show = Literal["level", "snr", "rate", "chance", "heard", "serves", "difference"]
UNITS: dict[Show, str] = {
    "level": "dBm",
    "snr": "dB",
    "rate": "Mb/s",
    "chance": "%",
    "heard": "heard",
    "serves": "",
    "difference": "dB",
}
MOST_HEARD = 5


class Contour(Frozen):
    """Lines at one figure, as a path, with the spots in metres where it is written."""

    figure: float
    path: str
    labels: tuple[Spot, ...]


class Shortfall(Frozen):
    """Where the level is below what rooms of one use ask for."""

    use: str
    target_dbm: float
    path: str


class Served(Frozen):
    """Where one access point is the strongest; ``at`` is a spot in the largest piece of that."""

    device: str
    name: str
    path: str
    at: Spot


class Relief(Frozen):
    """What is drawn for one floor, band, rank and direction. Paths are in site centimetres.

    ``figures`` are those between the tints, in ``unit``, the lowest first.
    """

    floor: str
    show: Show
    unit: str
    figures: tuple[float, ...]
    band: Band
    rank: int
    direction: Direction
    step_m: float
    tints: tuple[str, ...]
    contours: tuple[Contour, ...]
    shortfalls: tuple[Shortfall, ...]
    serves: tuple[Served, ...] = ()


def relief(
    air: RadioEnvironment,
    floor: str,
    band: Band,
    rank: int,
    direction: Direction,
    quick: bool = False,
    show: Show = "level",
) -> Relief:
    """Return the relief of the ``rank``-th strongest access point over a floor.

    Signal over noise, rate and chance rise with the level: their relief is the level's, cut at the
    levels that give those figures. How many are heard and who serves have no rank.

    Args:
        quick: from a coarser grid, for while something is dragged.
    """
    grids = relief_grids(air.terrain, floor, quick) if air.access_points(band) else ()
    drawn = {"heard": _heard, "serves": _serves}.get(show, _ranked)
    rows = drawn(air, floor, band, rank, direction, grids, show)
    return Relief(
        floor=floor,
        show=show,
        unit=UNITS[show],
        band=band,
        rank=rank,
        direction=direction,
        step_m=min((grid.step_m for grid in grids), default=0.0),
        **rows,
    )


def _ranked(
    air: RadioEnvironment,
    floor: str,
    band: Band,
    rank: int,
    direction: Direction,
    grids: Sequence[Grid],
    show: Show,
) -> dict[str, Any]:
    cuts = _cuts(air, band, rank, show)
    makers = [
        contours_of(grid, ranked_dbm(grid_levels_dbm(air, floor, grid, band, direction), rank))
        for grid in grids
    ]
    drawn = tinted(makers, cuts, _LOWEST_DBM, _HIGHEST_DBM)
    if makers:
        drawn["shortfalls"] = tuple(
            Shortfall(
                use=use,
                target_dbm=limit,
                path="".join(areas_path(m.filled(_LOWEST_DBM, limit)) for m in makers),
            )
            for use, limit in _limits(air, band, rank, show)
        )
    return drawn


def tinted(
    makers: Sequence[Any], cuts: Sequence[tuple[float, float]], lowest: float, highest: float
) -> dict[str, Any]:
    """Return tints between figures and lines at them, over all grids.

    Args:
        makers: what draws the values of each grid.
        cuts: the figures, and the value at which each is reached, the lowest first.
        lowest, highest: values beyond all that there are.
    """
    figures = tuple(figure for figure, _ in cuts)
    if not makers:
        return nothing_drawn(figures)
    edges = itertools.pairwise((lowest, *(at for _, at in cuts), highest))
    return {
        **nothing_drawn(figures),
        "tints": tuple(
            "".join(areas_path(m.filled(low, high)) for m in makers) if high > low else ""
            for low, high in edges
        ),
        "contours": tuple(
            contour_lines(figure, [line for m in makers for line in m.lines(at)]) for figure, at in cuts
        ),
    }


def _cuts(air: RadioEnvironment, band: Band, rank: int, show: Show) -> list[tuple[float, float]]:
    """Return the figures between the tints and the level in dBm at which each is reached."""
    rules, width = air.rules, air.width_mhz(band)
    if show == "snr":
        noise = air.noise_dbm(band)
        return [(db, db + noise) for db in _sorted(rules, "contours_snr_db")]
    if show == "rate":
        levels = [(mbps, level_for(rules, mbps, width)) for mbps in _sorted(rules, "contours_mbps")]
        return [(mbps, _HIGHEST_DBM if at is None else at) for mbps, at in levels]
    if show == "chance":
        call = target_of(rules, "calls")
        assert call is not None  # calls are judged by levels that a firm changes, never by none
        wants = call.first_dbm if rank == 1 else call.second_dbm or call.first_dbm
        deviation = rules["signal.deviation_db"]
        return [
            (round(100 * share, 1), wants + deviation * NormalDist().inv_cdf(share))
            for share in _sorted(rules, "contours_chance")
        ]
    # The targets for first and second access point are among the levels.
    return [(dbm, dbm) for dbm in _sorted(rules, "contours_dbm")]


def _sorted(rules: Rules, name: str) -> list[float]:
    return sorted(rules.numbers(f"signal.{name}"))


def nothing_drawn(figures: tuple[float, ...]) -> dict[str, Any]:
    """Return the fields of a relief on which there is nothing."""
    return {"figures": figures, "tints": (), "contours": (), "shortfalls": ()}


def _heard(
    air: RadioEnvironment,
    floor: str,
    band: Band,
    _rank: int,
    direction: Direction,
    grids: Sequence[Grid],
    _show: Show,
) -> dict[str, Any]:
    """Return where at least so many are heard; each lies over the one of fewer."""
    limit = air.rules["signal.contend_dbm"]
    figures = tuple(float(k) for k in range(1, MOST_HEARD + 1))
    if not grids:
        return nothing_drawn(figures)
    tints, lines = [""] * (MOST_HEARD + 1), [[] for _ in figures]  # type: ignore[var-annotated]
    for grid in grids:
        levels = grid_levels_dbm(air, floor, grid, band, direction)
        for k in range(1, MOST_HEARD + 1):
            maker = contours_of(grid, ranked_dbm(levels, k))
            if k == 1:
                tints[0] += areas_path(maker.filled(_LOWEST_DBM, _HIGHEST_DBM))
            tints[k] += areas_path(maker.filled(limit, _HIGHEST_DBM))
            lines[k - 1] += maker.lines(limit)
    return {
        "figures": figures,
        "tints": tuple(tints),
        "shortfalls": (),
        "contours": tuple(map(contour_lines, figures, lines)),
    }


def _serves(
    air: RadioEnvironment,
    floor: str,
    band: Band,
    _rank: int,
    direction: Direction,
    grids: Sequence[Grid],
    _show: Show,
) -> dict[str, Any]:
    """Return where each access point is louder than all others."""
    devices = air.access_points(band)
    areas: dict[str, str] = {}
    pieces: dict[str, list[Polygon]] = {d.id: [] for d in devices}
    for grid in grids:
        levels = grid_levels_dbm(air, floor, grid, band, direction)
        for k, device in enumerate(devices):
            others = np.delete(levels, k, axis=0)
            rest = others.max(axis=0) if len(others) else np.full(levels.shape[1], _LOWEST_DBM)
            maker = contours_of(grid, np.clip(levels[k] - rest, -_FAR_DB, _FAR_DB))
            filled = maker.filled(0.0, _FAR_DB + 1)
            areas[device.id] = areas.get(device.id, "") + areas_path(filled)
            for points, offsets in zip(*filled, strict=True):
                pieces[device.id].append(Polygon(points[offsets[0] : offsets[1]]))
    found = []
    for device in (d for d in devices if pieces[d.id]):
        spot = max(pieces[device.id], key=lambda p: p.area).representative_point()
        at = (round(float(spot.x), 2), round(float(spot.y), 2))
        found.append(Served(device=device.id, name=device.name, path=areas[device.id], at=at))
    return {**nothing_drawn(()), "serves": tuple(found)}


_FAR_DB = 200.0


def contours_of(grid: Grid, levels: Array) -> Any:
    """Return what draws lines and areas of figures at a grid's points, in block order."""
    return contour_generator(
        grid.eastings,
        grid.northings,
        grid.sheet(levels.astype(np.float64)),
        fill_type=FillType.OuterOffset,
        line_type=LineType.Separate,
    )


def _limits(air: RadioEnvironment, band: Band, rank: int, show: Show) -> list[tuple[str, float]]:
    """Return by use the level below which it is short, where what is shown has a target."""
    limits: list[tuple[str, float]] = []
    for use in get_args(Use):
        target = target_in(air, use)
        if target is None or target.band != band:
            continue
        limit = target.first_dbm if rank == 1 else target.second_dbm if rank == 2 else None
        if show == "snr":
            limit = target.snr_db + air.noise_dbm(band) if target.snr_db else None
        if limit is not None and show in ("level", "snr"):
            limits.append((use, limit))
    return limits


def areas_path(filled: tuple[list[Array], list[NDArray[np.uint32]]]) -> str:
    """Return areas with their holes as one path."""
    parts: list[str] = []
    for points, offsets in zip(*filled, strict=True):
        for start, end in itertools.pairwise(offsets):
            parts.append(f"M{_joined(points[start : end - 1])}Z")
    return "".join(parts)


def _joined(points: Array) -> str:
    # Whole centimetres: half the length of decimals, and quick to write.
    return " ".join(map(str, np.rint(points * 100).astype(np.int64).ravel().tolist()))


def contour_lines(figure: float, lines: list[Array]) -> Contour:
    """Return the lines at a figure, the short ones left out."""
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
    return Contour(figure=figure, path="".join(parts), labels=tuple(labels))
