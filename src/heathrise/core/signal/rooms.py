"""Whether each room meets the use it is put to."""

from __future__ import annotations

from typing import Literal

import numpy as np
import shapely
from numpy.typing import NDArray
from pydantic import BaseModel, ConfigDict
from shapely.geometry import Polygon

from ..bands import Band
from ..design import Design, Point, Space
from ..memo import IdentityMemo
from .grid import Grid
from .levels import SILENT_DBM, Air, grid_levels_dbm, ranked_dbm
from .propagation import noise_floor_dbm
from .terrain import Terrain, survey_grid

Array = NDArray[np.float64]
Verdict = Literal["met", "near", "not_met", "not_needed"]

MET_SHARE = 0.95
NEAR_SHARE = 0.90


class Target(BaseModel):
    """What a use asks for: levels in dBm of the weaker direction, SNR in dB."""

    model_config = ConfigDict(frozen=True)

    band: Band
    first_dbm: float
    second_dbm: float | None = None
    snr_db: float = 0.0


TARGETS: dict[str, Target | None] = {
    "calls": Target(band="5", first_dbm=-67, second_dbm=-72, snr_db=25),
    "everyday": Target(band="5", first_dbm=-70, snr_db=20),
    "sensors": Target(band="2.4", first_dbm=-75),
    "none": None,
}


class RoomVerdict(BaseModel):
    """One room: shares of its area from 0 to 1, levels in dBm at its worst points."""

    model_config = ConfigDict(frozen=True)

    space: str
    name: str
    floor: str
    use: str
    area_m2: float
    verdict: Verdict
    band: Band | None = None
    target_first_dbm: float | None = None
    target_second_dbm: float | None = None
    target_snr_db: float | None = None
    share: float | None = None
    share_first: float | None = None
    share_second: float | None = None
    share_downlink: float | None = None
    worst_first_dbm: float | None = None
    worst_second_dbm: float | None = None
    worst_snr_db: float | None = None
    worst_at: Point | None = None


_masks: IdentityMemo[dict[str, NDArray[np.intp]]] = IdentityMemo(64)


def judge_rooms(air: Air) -> list[RoomVerdict]:
    """Return a verdict for every space of the design, in order of placing."""
    design = air.design
    verdicts: list[RoomVerdict] = []
    by_floor: dict[str, dict[Band, _Heard]] = {}
    for space in design.of(Space).values():
        target = TARGETS[space.use]
        grid = survey_grid(air.terrain, space.floor)
        area = round(float(Polygon(space.outline).area), 1)
        if target is None or grid is None:
            verdicts.append(
                RoomVerdict(
                    space=space.id, name=space.name, floor=space.floor, use=space.use,
                    area_m2=area, verdict="not_needed",
                )
            )  # fmt: skip
            continue
        heard = by_floor.setdefault(space.floor, {})
        if target.band not in heard:
            heard[target.band] = _hear(air, space.floor, grid, target.band)
        points = room_points(design, air.terrain, space, grid)
        verdicts.append(_judge(air, space, area, target, grid, heard[target.band], points))
    return verdicts


class _Heard(BaseModel):
    model_config = ConfigDict(frozen=True, arbitrary_types_allowed=True)

    first: Array
    second: Array
    downlink: Array


def _hear(air: Air, floor: str, grid: Grid, band: Band) -> _Heard:
    weaker = grid_levels_dbm(air, floor, grid, band, "weaker")
    down = grid_levels_dbm(air, floor, grid, band, "downlink")
    return _Heard(
        first=ranked_dbm(weaker, 1), second=ranked_dbm(weaker, 2), downlink=ranked_dbm(down, 1)
    )


def room_points(design: Design, terrain: Terrain, space: Space, grid: Grid) -> NDArray[np.intp]:
    """Return which points of a grid lie in a space; the nearest one where none does."""
    rooms = _masks.get(
        (terrain, design.of(Space)),
        (space.floor, grid),
        lambda: _mask_floor(design, space.floor, grid),
    )
    return rooms[space.id]


def _mask_floor(design: Design, floor: str, grid: Grid) -> dict[str, NDArray[np.intp]]:
    x, y = grid.points
    found: dict[str, NDArray[np.intp]] = {}
    for space in design.of(Space).values():
        if space.floor != floor:
            continue
        polygon = Polygon(space.outline)
        shapely.prepare(polygon)
        inside = np.flatnonzero(shapely.contains_xy(polygon, x, y))
        if not len(inside):
            middle = polygon.representative_point()
            inside = np.array([np.argmin((x - middle.x) ** 2 + (y - middle.y) ** 2)])
        found[space.id] = inside
    return found


def _judge(
    air: Air, space: Space, area: float, target: Target, grid: Grid, heard: _Heard,
    points: NDArray[np.intp],
) -> RoomVerdict:  # fmt: skip
    width = air.design.site.width_5ghz_mhz if target.band == "5" else 20
    noise = noise_floor_dbm(width)
    first, second = heard.first[points], heard.second[points]
    meets_first = first >= target.first_dbm
    meets_second = np.ones_like(meets_first)
    if target.second_dbm is not None:
        meets_second = second >= target.second_dbm
    meets_snr = first - noise >= target.snr_db
    share = float((meets_first & meets_second & meets_snr).mean())
    short = first - target.first_dbm
    if target.second_dbm is not None:
        short = np.minimum(short, second - target.second_dbm)
    worst = points[int(np.argmin(short))]
    x, y = grid.points
    return RoomVerdict(
        space=space.id,
        name=space.name,
        floor=space.floor,
        use=space.use,
        area_m2=area,
        verdict="met" if share >= MET_SHARE else "near" if share >= NEAR_SHARE else "not_met",
        band=target.band,
        target_first_dbm=target.first_dbm,
        target_second_dbm=target.second_dbm,
        target_snr_db=target.snr_db or None,
        share=share,
        share_first=float((meets_first & meets_snr).mean()),
        share_second=float(meets_second.mean()) if target.second_dbm is not None else None,
        share_downlink=float((heard.downlink[points] >= target.first_dbm).mean()),
        worst_first_dbm=_shown(first.min()),
        worst_second_dbm=_shown(second.min()),
        worst_snr_db=round(float(first.min() - noise), 1),
        worst_at=(round(float(x[worst]), 2), round(float(y[worst]), 2)),
    )


def _shown(level: float) -> float | None:
    return None if level <= SILENT_DBM else round(float(level), 1)
