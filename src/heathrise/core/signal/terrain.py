"""What stands between an antenna and a client: walls, slabs and the holes in them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon
from shapely.ops import unary_union

from ..bands import BANDS, FREQUENCY_MHZ
from ..catalogue import AccessPointModel, Catalogue
from ..design import Design, Device, Floor, Opening, Space, Wall
from ..memo import IdentityMemo
from .antennas import attenuation_db
from .grid import Grid
from .kernel import wall_losses_db
from .propagation import distance_loss_db, floors_loss_db
from .walls import panels_of

Array = NDArray[np.float64]

CLIENT_HEIGHT_M = 1.2
SURVEY_STEP_M = 0.5
SURVEY_POINTS = 12_000
RELIEF_STEP_M = 0.25
DRAG_STEP_M = 0.4  # coarser while something is dragged, for a quicker answer
RELIEF_POINTS = 24_000


@dataclass(frozen=True, eq=False)
class Terrain:
    """The parts of a design that rays pass through; made once for each set of walls."""

    panels: Array
    floors: dict[str, Floor]
    slab_loss_db: dict[str, Array]
    holes: dict[str, Any]
    bounds: dict[str, tuple[float, float, float, float]]


_terrains: IdentityMemo[Terrain] = IdentityMemo(8)
# Every access point over every floor of a large site, and some positions of one that is dragged.
_losses: IdentityMemo[Array] = IdentityMemo(400_000_000, weigh=lambda losses: losses.nbytes)
_grids: IdentityMemo[Grid] = IdentityMemo(64)


def terrain_of(design: Design, catalogue: Catalogue) -> Terrain:
    """Return the terrain of a design; the same object as long as nothing of it changes."""
    parts = tuple(design.of(cls) for cls in (Wall, Opening, Floor, Space))
    return _terrains.get(parts, None, lambda: _make(design, catalogue))


def _make(design: Design, catalogue: Catalogue) -> Terrain:
    floors = dict(design.of(Floor))
    losses = {
        f.id: np.array([catalogue.constructions[f.slab].loss_db[b] for b in BANDS])
        for f in floors.values()
    }
    holes: dict[str, Any] = {}
    for space in design.of(Space).values():
        if space.open_above:
            holes.setdefault(space.floor, []).append(Polygon(space.outline))
    bounds = {floor: b for floor in floors if (b := _bounds(design, floor)) is not None}
    merged = {floor: unary_union(polygons) for floor, polygons in holes.items()}
    for union in merged.values():
        shapely.prepare(union)
    return Terrain(panels_of(design, catalogue), floors, losses, merged, bounds)


def _bounds(design: Design, floor: str) -> tuple[float, float, float, float] | None:
    points = [p for s in design.of(Space).values() if s.floor == floor for p in s.outline]
    points += [p for w in design.of(Wall).values() if w.floor == floor for p in (w.a, w.b)]
    if not points:
        return None
    xs, ys = zip(*points, strict=True)
    return min(xs), min(ys), max(xs), max(ys)


def survey_grid(terrain: Terrain, floor: str) -> Grid | None:
    """Return the grid on which rooms are judged, or None for a floor with nothing drawn."""
    return _grid(terrain, floor, SURVEY_STEP_M, SURVEY_POINTS)


def relief_grid(terrain: Terrain, floor: str, quick: bool = False) -> Grid | None:
    """Return the finer grid on which relief is drawn."""
    return _grid(terrain, floor, DRAG_STEP_M if quick else RELIEF_STEP_M, RELIEF_POINTS)


def _grid(terrain: Terrain, floor: str, step_m: float, most: int) -> Grid | None:
    if floor not in terrain.bounds:
        return None
    west, south, east, north = terrain.bounds[floor]
    # Rooms are judged at the middle of cells, so that no point lies in a wall.
    inset = step_m / 2 if step_m == SURVEY_STEP_M else 0.0
    inner = (west + inset, south + inset, east - inset, north - inset)
    return _grids.get((terrain,), (floor, step_m), lambda: Grid.over(inner, step_m, most))


def grid_losses_db(
    terrain: Terrain, device: Device, model: AccessPointModel, floor: str, grid: Grid
) -> Array:
    """Return ``losses_db`` at every point of a grid, kept for as long as nothing moves."""
    pose = (device.floor, device.at, device.height_m, device.mount, device.azimuth_deg)
    key = (floor, grid, *pose, device.tilt_deg, model.pattern)
    return _losses.get(
        (terrain,), key, lambda: losses_db(terrain, device, model, floor, *grid.points)
    )


def losses_db(
    terrain: Terrain,
    device: Device,
    model: AccessPointModel,
    floor: str,
    x: Array,
    y: Array,
    height_m: float = CLIENT_HEIGHT_M,
) -> Array:
    """Return the loss from an access point to points on a floor.

    Distance, walls, floors and the antenna's own attenuation off its boresight.

    Args:
        x, y: shape (n,), metres.
        height_m: of the points above ``floor``.

    Returns:
        dB, shape (3, n), in the order of ``BANDS``.
    """
    client_z = terrain.floors[floor].elevation_m + height_m
    z = terrain.floors[device.floor].elevation_m + device.height_m
    offset = np.column_stack([x - device.at[0], y - device.at[1], np.full(len(x), client_z - z)])
    distance_m = np.sqrt((offset**2).sum(axis=1))
    loss = wall_losses_db(x, y, client_z, (*device.at, z), terrain.panels)
    loss += _slabs_db(terrain, device, floor, offset, z)
    loss += attenuation_db(
        model.pattern, offset, device.mount, device.azimuth_deg, device.tilt_deg
    )[None, :]
    for row, band in enumerate(BANDS):
        loss[row] += distance_loss_db(distance_m, FREQUENCY_MHZ[band])
    return loss


def _slabs_db(terrain: Terrain, device: Device, floor: str, offset: Array, z: float) -> Array:
    """Return what the slabs between two storeys of one building take, shape (3, n) or (3, 1)."""
    here, there = terrain.floors[device.floor], terrain.floors[floor]
    low_m, high_m = sorted((z, z + float(offset[0, 2])))
    slabs = [
        f
        for f in terrain.floors.values()
        if f.building == here.building and low_m < f.elevation_m < high_m
    ]
    if here.building != there.building or not slabs:
        return np.zeros((3, 1))
    crossed = np.zeros(len(offset))
    for slab in slabs:
        crossed += _through(terrain, slab, device, offset, z)
    mean_db = np.mean([terrain.slab_loss_db[s.id] for s in slabs], axis=0)
    return floors_loss_db(mean_db[:, None], crossed[None, :])


def _through(
    terrain: Terrain, slab: Floor, device: Device, offset: Array, z: float
) -> NDArray[np.bool_]:
    """Whether each ray passes the slab itself, not a hole over a double-height space."""
    below = next(
        (
            terrain.holes[f.id]
            for f in terrain.floors.values()
            if f.building == slab.building and f.level == slab.level - 1 and f.id in terrain.holes
        ),
        None,
    )
    if below is None:
        return np.ones(len(offset), dtype=bool)
    share = (slab.elevation_m - z) / offset[0, 2]
    x, y = device.at[0] + offset[:, 0] * share, device.at[1] + offset[:, 1] * share
    inside: NDArray[np.bool_] = shapely.contains_xy(below, x, y)
    return ~inside
