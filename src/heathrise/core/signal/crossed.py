"""What many rays of one access point cross, all at once: for a fit to thousands of measurements.

The same geometry as an explained ray, piece by piece in NumPy; a test holds the two together.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray
from shapely import contains_xy

from ..base.bands import BANDS, FREQUENCY_MHZ, Band
from ..base.foliage import foliage_db
from ..base.memo import IdentityMemo
from ..context.leaves import leaves_m
from ..context.readings import Reading
from ..design import Device
from .antennas import attenuation_db
from .obstacles import source_of
from .propagation import MAX_ANGLE_FACTOR, distance_loss_db, floors_loss_db
from .radio_environment import RadioEnvironment
from .ray_pieces import named_panels

Array = NDArray[np.float64]
Places = NDArray[np.intp]

_BLOCK = 2_000_000  # of rays times panels that are looked at together


@dataclass(frozen=True, eq=False)
class Heard:
    """Measurements of one radio on one storey: which they are, and where, in m."""

    device: str
    band: Band
    floor: str
    rows: Places
    x: Array
    y: Array


@dataclass(frozen=True, eq=False)
class Crossed:
    """What the rays to some measurements cross.

    ``distance_m``, ``antenna_db``, ``walls_db``, ``slabs_db`` and ``leaves_db`` are by measurement.
    Crossings of walls and openings are rows: ``ray`` says whose, ``panel`` which piece of a wall, ``factor``
    how much thicker it is for the angle, ``x`` and ``y`` where.
    """

    distance_m: Array
    antenna_db: Array
    walls_db: Array
    slabs_db: Array
    leaves_db: Array
    ray: Places
    panel: Places
    factor: Array
    x: Array
    y: Array


_groups: IdentityMemo[list[Heard]] = IdentityMemo(8, weigh=lambda rows: sum(3 * g.x.nbytes for g in rows))
_crossed: IdentityMemo[Crossed] = IdentityMemo(2000)


def heard_by_radio(readings: Sequence[Reading]) -> list[Heard]:
    """Return measurements by radio and storey, kept for as long as the same are asked for."""

    def group() -> list[Heard]:
        found: dict[tuple[str, Band, str], list[int]] = {}
        for k, r in enumerate(readings):
            found.setdefault((r.device, r.band, r.floor), []).append(k)
        return [
            Heard(
                *key,
                np.array(rows, dtype=np.intp),
                *(np.array([readings[k].at[i] for k in rows], dtype=np.float64) for i in (0, 1)),
            )
            for key, rows in found.items()
        ]

    return _groups.get((readings,), None, group)


def crossed(air: RadioEnvironment, heard: Heard) -> Crossed:
    """Return what the rays from a radio to its measurements cross; kept while walls, slabs and its
    access point stay as they are."""
    device = air.design.of(Device)[heard.device]
    panels, _ = named_panels(air.design, air.catalogue)
    return _crossed.get(
        (air.terrain, air.catalogue, device, panels, heard), None, lambda: _cross(air, device, heard, panels)
    )


def _cross(air: RadioEnvironment, device: Device, heard: Heard, panels: Array) -> Crossed:
    terrain, model = air.terrain, air.catalogue.radios_of(device)
    sx, sy, sz = source_of(terrain, device)
    z_m = terrain.storeys.elevation_m[heard.floor] + terrain.client_height_m
    rise = z_m - sz
    # Distance and antenna look from where the device hangs, walls from the side it stands on.
    flat = [heard.x - device.at[0], heard.y - device.at[1], np.full(len(heard.x), rise)]
    offset = np.column_stack(flat)
    aside = attenuation_db(model.pattern, offset, device.mount, device.azimuth_deg, device.tilt_deg)
    loss_db = panels[:, 9 + BANDS.index(heard.band)]
    parts = [
        _through(panels, (sx, sy, sz), heard.x[here], heard.y[here], rise, here.start)
        for here in _blocks(len(heard.x), len(panels))
    ]
    ray, panel, factor, x, y = (np.concatenate(column) for column in zip(*parts, strict=True))
    walls = np.bincount(ray, factor * loss_db[panel], len(heard.x)).astype(np.float64)
    return Crossed(
        np.linalg.norm(offset, axis=1),
        aside,
        walls,
        _slabs(air, (sx, sy, sz), heard, z_m),
        _leaves(air, device, (sx, sy, sz), heard, z_m),
        ray,
        panel,
        factor,
        x,
        y,
    )


def _blocks(rays: int, panels: int) -> list[slice]:
    step = max(1, _BLOCK // max(1, panels))
    return [slice(k, min(k + step, rays)) for k in range(0, rays, step)]


def _through(
    panels: Array, source: tuple[float, float, float], x: Array, y: Array, rise: float, first: int
) -> tuple[NDArray[Any], ...]:
    """Return of the panels that rays cross: ray, panel, factor for the angle, where."""
    sx, sy, sz = source
    ax, ay, dx, dy, low, high, z_low, z_high, wide = panels[:, :9].T
    rx, ry = (x - sx)[:, None], (y - sy)[:, None]
    across = rx * dy - ry * dx
    with np.errstate(divide="ignore", invalid="ignore"):
        along_ray = ((ax - sx) * dy - (ay - sy) * dx) / across
        along_wall = ((ax - sx) * ry - (ay - sy) * rx) / across
    z = sz + along_ray * rise
    met = (across != 0) & (along_ray > 0) & (along_ray < 1)
    met &= (along_wall >= low) & (along_wall <= high) & (z_low <= z) & (z < z_high)
    ray, panel = np.nonzero(met)
    length = np.sqrt(rx[:, 0] ** 2 + ry[:, 0] ** 2 + rise**2)
    factor = np.minimum(length[ray] * wide[panel] / np.abs(across[met]), MAX_ANGLE_FACTOR)
    share = along_ray[met]
    return ray + first, panel, factor, sx + share * rx[ray, 0], sy + share * ry[ray, 0]


def _slabs(air: RadioEnvironment, source: tuple[float, float, float], heard: Heard, z_m: float) -> Array:
    """Return what slabs and roofs take of each ray, shared out among those met (COST 231)."""
    sx, sy, sz = source
    losses, count = np.zeros(len(heard.x)), np.zeros(len(heard.x))
    low, high = sorted((sz, z_m))
    for slab in air.terrain.storeys.slabs:
        if low < slab.z_m < high:
            share = (slab.z_m - sz) / (z_m - sz)
            met = contains_xy(slab.area, sx + (heard.x - sx) * share, sy + (heard.y - sy) * share)
            losses += met * air.catalogue.constructions[slab.construction].loss_db[heard.band]
            count += met
    return losses * floors_loss_db(1.0, count) / np.maximum(count, 1)


def _leaves(
    air: RadioEnvironment, device: Device, source: tuple[float, float, float], heard: Heard, z_m: float
) -> Array:
    """Return what trees take of each ray."""
    storeys, groves = air.terrain.storeys, air.terrain.groves
    start = (*source[:2], source[2] - storeys.ground_m(device.floor))
    over_m = z_m - storeys.ground_m(heard.floor)
    return foliage_db(FREQUENCY_MHZ[heard.band], leaves_m(groves, start, heard.x, heard.y, over_m))


def fixed_dbm(air: RadioEnvironment, heard: Heard, found: Crossed) -> Array:
    """Return the level of a radio at 1 m in the directions of its measurements, less what trees take on
    the way, dBm."""
    device = air.design.of(Device)[heard.device]
    first_metre = distance_loss_db(1.0, FREQUENCY_MHZ[heard.band])
    return air.lossless_dbm(device, heard.band, "downlink") - first_metre - found.antenna_db - found.leaves_db
