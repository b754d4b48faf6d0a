"""The inner loop: what every wall takes from every ray, all three bands in one pass."""

from __future__ import annotations

import numba
import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

_TILE = 256
_NEVER_ZERO = 1e-12


@numba.njit(cache=True, nogil=True, error_model="numpy")
def _misses(ax, ay, dx, dy, west, east, south, north):  # type: ignore[no-untyped-def] # pragma: no cover
    """Whether no ray from the origin into the box can cross the wall from a to a + d."""
    bx = ax + dx
    by = ay + dy
    side = ax * dy - ay * dx
    left = right = near = True
    for k in range(4):
        cx = west if k & 1 else east
        cy = south if k & 2 else north
        a_turn = cx * ay - cy * ax
        b_turn = cx * by - cy * bx
        left = left and a_turn > 0 and b_turn > 0
        right = right and a_turn < 0 and b_turn < 0
        # The wall's line lies beyond every corner of the box, seen from the source.
        corner = (ax - cx) * dy - (ay - cy) * dx
        near = near and corner * side > 0
    return left or right or near


@numba.njit(cache=True, nogil=True, error_model="numpy")
def _accumulate(x, y, panels, source, target_z, max_factor, out):  # type: ignore[no-untyped-def] # pragma: no cover
    px, py, pz = source
    n = x.shape[0]
    rx = np.empty(_TILE)
    ry = np.empty(_TILE)
    length = np.empty(_TILE)
    sums = np.zeros((3, _TILE))
    dz = target_z - pz
    for start in range(0, n, _TILE):
        m = min(_TILE, n - start)
        west = south = np.inf
        east = north = -np.inf
        for i in range(m):
            rx[i] = x[start + i] - px
            ry[i] = y[start + i] - py
            length[i] = np.sqrt(rx[i] * rx[i] + ry[i] * ry[i] + dz * dz)
            west = min(west, rx[i])
            east = max(east, rx[i])
            south = min(south, ry[i])
            north = max(north, ry[i])
        sums[:] = 0.0
        sum0 = sums[0]
        sum1 = sums[1]
        sum2 = sums[2]
        for w in range(panels.shape[0]):
            ax = panels[w, 0] - px
            ay = panels[w, 1] - py
            dx = panels[w, 2]
            dy = panels[w, 3]
            z_low = panels[w, 6] - pz
            z_high = panels[w, 7] - pz
            if max(0.0, dz) < z_low or min(0.0, dz) >= z_high:
                continue
            # The stretch of the rays that lies at the panel's height, and the box it fills.
            near = 0.0
            far = 1.0
            if dz != 0.0:
                near = min(1.0, max(0.0, min(z_low / dz, z_high / dz)))
                far = max(0.0, min(1.0, max(z_low / dz, z_high / dz)))
            if (
                max(ax, ax + dx) < min(west * near, west * far)
                or min(ax, ax + dx) > max(east * near, east * far)
                or max(ay, ay + dy) < min(south * near, south * far)
                or min(ay, ay + dy) > max(north * near, north * far)
            ):
                continue
            if _misses(ax, ay, dx, dy, west, east, south, north):
                continue
            low = panels[w, 4]
            high = panels[w, 5]
            side = ax * dy - ay * dx
            wall_length = panels[w, 8]
            loss0 = panels[w, 9]
            loss1 = panels[w, 10]
            loss2 = panels[w, 11]
            for i in range(m):
                inverse = 1.0 / (rx[i] * dy - ry[i] * dx + _NEVER_ZERO)
                along_ray = side * inverse
                along_wall = (ax * ry[i] - ay * rx[i]) * inverse
                z = along_ray * dz
                factor = min(length[i] * wall_length * abs(inverse), max_factor)
                crossed = (
                    (along_ray > 0.0)
                    & (along_ray < 1.0)
                    & (along_wall >= low)
                    & (along_wall <= high)
                    & (z >= z_low)
                    & (z < z_high)
                )
                factor = factor if crossed else 0.0
                sum0[i] += loss0 * factor
                sum1[i] += loss1 * factor
                sum2[i] += loss2 * factor
        for i in range(m):
            out[0, start + i] += sum0[i]
            out[1, start + i] += sum1[i]
            out[2, start + i] += sum2[i]


def wall_losses_db(
    x: Array, y: Array, target_z_m: float, source: tuple[float, float, float], panels: Array
) -> Array:
    """Return what walls take from the rays of one source.

    Args:
        x, y: shape (n,), points in metres; all at the height ``target_z_m``.
        source: x, y, z of the antenna in metres.
        panels: shape (p, 12) as ``walls.panels_of`` makes them.

    Returns:
        Loss in dB, shape (3, n), in the order of ``BANDS``. A wall crossed at an angle counts
        ``1 / cos`` of the angle from its normal, at most twice.

    References:
        COST 231 final report, chapter 4, multi-wall model: losses of walls crossed add up, dB.
        ITU-R P.2040, losses of building materials at square incidence.
    """
    out = np.zeros((3, x.shape[0]))
    add_wall_losses_db(out, x, y, target_z_m, source, panels)
    return out


def add_wall_losses_db(
    out: NDArray[np.floating],
    x: Array,
    y: Array,
    target_z_m: float,
    source: tuple[float, float, float],
    panels: Array,
) -> None:
    """Add ``wall_losses_db`` to ``out``, shape (3, n), of single or double precision."""
    _accumulate(x, y, panels, source, float(target_z_m), 2.0, out)
