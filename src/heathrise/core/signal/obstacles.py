"""What stands between an antenna and a client: walls, slabs, roofs and trees."""

from __future__ import annotations

from collections import deque
from collections.abc import Hashable, Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.ops import unary_union

from ..base.bands import BANDS, FREQUENCY_MHZ
from ..base.foliage import foliage_db
from ..base.memo import IdentityMemo
from ..catalogue import AirModel, Catalogue
from ..context.leaves import leaves_m
from ..context.storeys import Storeys, storeys_of
from ..design import Building, Design, Device, Floor, Grove, Opening, Space, Wall
from .antennas import open_loss_db
from .grid import Grid
from .kernel import add_wall_losses_db, wall_losses_db
from .panel_changes import changed_panels
from .propagation import distance_loss_db
from .slabs import Layers, add_slabs_db, layers_of
from .survey import Survey, survey_of
from .wall_side import standing
from .walls import COLUMNS, panels_of

Array = NDArray[np.float64]

RELIEF_STEP_M = 0.25
DRAG_STEP_M = 0.4  # coarser while something is dragged, for a quicker answer
RELIEF_POINTS = 24_000
_APART_M = 60.0  # what is drawn farther apart than this has a relief of its own
_ONE_SITE_M = 200.0  # what is no larger than this has one relief
_UNDER_SLAB_M = 0.05


@dataclass(frozen=True, eq=False)
class Likeness:
    """Another terrain that differs by a few panels only, as ``changed_panels`` tells them."""

    terrain: Obstacles
    changed: Array


@dataclass(frozen=True, eq=False)
class Obstacles:
    """The parts of a design that rays pass through; made once for each set of walls."""

    panels: Array
    storeys: Storeys
    layers: Layers
    surveys: dict[str, Survey]
    bounds: dict[str, list[tuple[float, float, float, float]]]
    client_height_m: float
    exponent: float
    groves: Mapping[str, Grove]
    like: Likeness | None = None

    def height_m(self, device: Device) -> float:
        """Return an antenna's height above the site's zero.

        Where storeys contradict each other, a device within its room stays under the slab.
        """
        storeys = self.storeys
        low_m = storeys.elevation_m[device.floor]
        z_m = low_m + device.height_m
        room = storeys.room_at(device.floor, device.at)
        if room is None or device.height_m > storeys.ceiling_m(room, device.floor):
            return z_m
        point = shapely.Point(device.at)
        for slab in storeys.slabs:
            if not slab.roof and low_m < slab.z_m <= z_m and slab.area.contains(point):
                return slab.z_m - _UNDER_SLAB_M
        return z_m


_layers: IdentityMemo[Layers] = IdentityMemo(64)
_terrains: IdentityMemo[Obstacles] = IdentityMemo(64)
# Every access point over every floor of a large site, and some positions of one that is dragged.
_losses: IdentityMemo[NDArray[np.float32]] = IdentityMemo(20_000)
_grids: IdentityMemo[tuple[Grid, ...]] = IdentityMemo(64)
_sources: IdentityMemo[tuple[float, float, float]] = IdentityMemo(4096)


def terrain_of(design: Design, catalogue: Catalogue) -> Obstacles:
    """Return the terrain of a design; the same object as long as nothing of it changes."""
    parts = tuple(design.of(cls) for cls in (Wall, Opening, Floor, Space, Building, Grove))
    return _terrains.get((*parts, catalogue), None, lambda: _make(design, catalogue))


# The last terrains that were worked out from nothing: a wall that is dragged changes one of
# them by a few panels.
_roots: deque[Obstacles] = deque(maxlen=4)
MOST_CHANGED_PANELS = 24
_MOST_CHANGED_SHARE = 0.25  # a line of walls goes on through a storey; more is traced anew as fast


def _make(design: Design, catalogue: Catalogue) -> Obstacles:
    storeys = storeys_of(design)
    layers = _layers.get((storeys, catalogue), None, lambda: layers_of(storeys.slabs, catalogue))
    panels = panels_of(design, catalogue)
    height_m = catalogue.rules["signal.client_height_m"]
    exponent = catalogue.rules["signal.exponent"]
    groves = design.of(Grove)
    like = _likeness(panels, storeys, layers, groves)
    survey, bounds = survey_of(design), _bounds(design)
    made = Obstacles(panels, storeys, layers, survey, bounds, height_m, exponent, groves, like)
    if like is None:
        _roots.append(made)
    return made


def _likeness(
    panels: Array, storeys: Storeys, layers: Layers, groves: Mapping[str, Grove]
) -> Likeness | None:
    mine = {row.tobytes(): row for row in panels}
    for other in reversed(list(_roots)):  # another thread may add to them meanwhile
        if other.groves != groves or not _slabs_as(storeys, layers, other):
            continue
        theirs = {row.tobytes(): row for row in other.panels}
        come = [row for key, row in mine.items() if key not in theirs]
        gone = [row for key, row in theirs.items() if key not in mine]
        if len(come) + len(gone) <= max(MOST_CHANGED_PANELS, _MOST_CHANGED_SHARE * len(panels)):
            return Likeness(other, changed_panels(_panels(gone), _panels(come)))
    return None


def _slabs_as(storeys: Storeys, layers: Layers, other: Obstacles) -> bool:
    """Whether slabs take the same from rays: rooms that follow a wall leave most of them alone."""
    if layers is other.layers:
        return True
    return np.array_equal(layers.loss_db, other.layers.loss_db) and storeys.stand_as(other.storeys)


def _panels(rows: list[Array]) -> Array:
    return np.array(rows, dtype=np.float64).reshape(-1, COLUMNS)


def _bounds(design: Design) -> dict[str, list[tuple[float, float, float, float]]]:
    """Return by floor the boxes round what is drawn, one for each group that lies apart."""
    boxes: dict[str, list[Any]] = {}
    for space in design.of(Space).values():
        boxes.setdefault(space.floor, []).append(shapely.box(*_box(space.outline)))
    for wall in design.of(Wall).values():
        boxes.setdefault(wall.floor, []).append(shapely.box(*_box((wall.a, wall.b))))
    found: dict[str, list[tuple[float, float, float, float]]] = {}
    for floor, drawn in boxes.items():
        whole = tuple(map(float, shapely.total_bounds(drawn)))
        if max(whole[2] - whole[0], whole[3] - whole[1]) < _ONE_SITE_M:
            found[floor] = [whole]  # type: ignore[list-item]
            continue
        wider = unary_union(shapely.buffer(drawn, _APART_M / 2, cap_style="square"))
        groups = list(getattr(wider, "geoms", [wider]))
        tree = shapely.STRtree(drawn)
        found[floor] = [
            tuple(shapely.total_bounds([drawn[k] for k in tree.query(g, predicate="intersects")]))
            for g in groups
        ]
    return found


def _box(points: tuple[tuple[float, float], ...]) -> tuple[float, float, float, float]:
    xs, ys = zip(*points, strict=True)
    return min(xs), min(ys), max(xs), max(ys)


def relief_grids(terrain: Obstacles, floor: str, quick: bool = False) -> tuple[Grid, ...]:
    """Return the grids on which relief is drawn: one for each group of rooms that lies apart."""
    step_m = DRAG_STEP_M if quick else RELIEF_STEP_M
    return _grids.get((terrain,), (floor, step_m), lambda: _over(terrain, floor, step_m))


def _over(terrain: Obstacles, floor: str, step_m: float) -> tuple[Grid, ...]:
    boxes = terrain.bounds.get(floor, [])
    areas = [max((e - w) * (n - s), step_m**2) for w, s, e, n in boxes]
    return tuple(
        Grid.over(box, step_m, max(64, int(RELIEF_POINTS * area / sum(areas))))
        for box, area in zip(boxes, areas, strict=True)
    )


def grid_losses_db(
    terrain: Obstacles, device: Device, model: AirModel, floor: str, grid: Grid | Survey
) -> NDArray[np.float32]:
    """Return ``losses_db`` at every point of a grid, kept for as long as nothing moves.

    Single precision, 0.00001 dB, is kept: a large site's losses take half the memory.
    """

    def work_out() -> NDArray[np.float32]:
        changed = _changed(terrain, device, model, floor, grid)
        if changed is not None:
            return changed
        return losses_db(terrain, device, model, floor, *grid.points).astype(np.float32)

    return _losses.get((terrain,), _loss_key(device, model, floor, grid), work_out)


def _loss_key(device: Device, model: AirModel, floor: str, grid: Grid | Survey) -> Hashable:
    pose = (device.floor, device.at, device.height_m, device.mount, device.azimuth_deg, device.tilt_deg)
    return floor, grid, *pose, model.pattern


def _changed(
    terrain: Obstacles, device: Device, model: AirModel, floor: str, grid: Grid | Survey
) -> NDArray[np.float32] | None:
    """Return the losses of the terrain that is nearly this one, set right by what changed."""
    like = terrain.like
    if like is None:
        return None
    if isinstance(grid, Survey) and terrain.storeys is not like.terrain.storeys:
        return None  # its spots are of the rooms as they are now
    source = source_of(terrain, device)
    if source_of(like.terrain, device) != source:
        return None
    # Where that one is not worked out yet it is now: the next step of the drag finds it.
    before = grid_losses_db(like.terrain, device, model, floor, grid)
    target_z = terrain.storeys.elevation_m[floor] + terrain.client_height_m
    low_m, high_m = sorted((source[2], target_z))
    panels = like.changed
    reached = panels[(panels[:, 6] <= high_m) & (panels[:, 7] > low_m)]
    if not len(reached):
        return before
    found = before.copy()
    add_wall_losses_db(found, *grid.points, target_z, source, reached)
    return found


_workers = ThreadPoolExecutor(thread_name_prefix="rays")
_WORTH_THREADS = 4  # below so many, handing them over takes longer than it saves


def all_losses_db(
    terrain: Obstacles,
    devices: Sequence[Device],
    models: Mapping[str, AirModel],
    floor: str,
    grid: Grid | Survey,
) -> list[NDArray[np.float32]]:
    """Return ``grid_losses_db`` of many access points; what is not kept is worked out side by side."""

    def one(device: Device) -> NDArray[np.float32]:
        return grid_losses_db(terrain, device, models[device.model], floor, grid)

    kept = [_losses.peek((terrain,), _loss_key(d, models[d.model], floor, grid)) for d in devices]
    if sum(row is None for row in kept) < _WORTH_THREADS:
        return [one(d) for d in devices]
    # Where rays begin is told first: told side by side it would hold up those who trace.
    for device in devices:
        source_of(terrain, device)
    return list(_workers.map(one, devices, chunksize=1))


def source_of(terrain: Obstacles, device: Device) -> tuple[float, float, float]:
    """Return x, y, z in m from which a device's rays are traced."""

    def work_out() -> tuple[float, float, float]:
        z_m = terrain.height_m(device)
        return (*standing(device, z_m, terrain.panels, terrain.storeys), z_m)

    return _sources.get((terrain, device), None, work_out)


def losses_db(
    terrain: Obstacles,
    device: Device,
    model: AirModel,
    floor: str,
    x: Array,
    y: Array,
    height_m: float | None = None,
) -> Array:
    """Return the loss from an access point to points on a floor.

    Distance, walls, slabs, roofs, leaves and the antenna's own attenuation off its boresight.

    Args:
        x, y: shape (n,), metres.
        height_m: of the points above ``floor``; as clients are held where it is not given.

    Returns:
        dB, shape (3, n), in the order of ``BANDS``.
    """
    if height_m is None:
        height_m = terrain.client_height_m
    storeys = terrain.storeys
    z_m = storeys.elevation_m[floor] + height_m
    return losses_to_db(terrain, device, model, x, y, z_m, storeys.ground_m(floor))


def losses_to_db(
    terrain: Obstacles,
    device: Device,
    model: AirModel,
    x: Array,
    y: Array,
    z_m: float,
    ground_m: Array | float,
    traced: tuple[Array, Array] | None = None,
) -> Array:
    """Return ``losses_db`` to points at the height ``z_m`` above the site's zero.

    ``ground_m`` is where the ground lies there. ``traced`` holds where the rays end that walls and slabs
    are asked for, where that is not the points themselves.
    """
    source = source_of(terrain, device)
    ends = traced or (x, y)
    loss = wall_losses_db(*ends, z_m, source, terrain.panels)
    add_slabs_db(loss, *ends, z_m, source, terrain.layers)
    if terrain.groves:
        over_m = source[2] - terrain.storeys.ground_m(device.floor)
        leaves = leaves_m(terrain.groves, (*source[:2], over_m), *ends, z_m - ground_m)
        loss += np.stack([foliage_db(FREQUENCY_MHZ[band], leaves) for band in BANDS])
    apart = open_loss_db(
        model.pattern,
        x,
        y,
        z_m - source[2],
        device.at,
        device.mount,
        device.azimuth_deg,
        device.tilt_deg,
        terrain.exponent,
    )
    loss += apart[None, :] + _FREE_AT_1_M_DB
    return loss


_FREE_AT_1_M_DB = np.array([[distance_loss_db(1.0, FREQUENCY_MHZ[band])] for band in BANDS])
