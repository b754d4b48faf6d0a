"""The wall kernel again in plain vectorised NumPy: what the compiled one is measured against."""

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]


def wall_losses_numpy(
    x: Array, y: Array, target_z_m: float, source: tuple[float, float, float], panels: Array
) -> Array:
    """Return the same as ``heathrise.core.signal.kernel.wall_losses_db``, shape (3, n)."""
    px, py, pz = source
    rx, ry, dz = x - px, y - py, target_z_m - pz
    length = np.sqrt(rx**2 + ry**2 + dz**2)
    out = np.zeros((3, len(x)))
    with np.errstate(divide="ignore", invalid="ignore"):
        for ax, ay, dx, dy, low, high, z_low, z_high, wall_m, *loss in panels:
            crossing = rx * dy - ry * dx
            along_ray = ((ax - px) * dy - (ay - py) * dx) / crossing
            along_wall = ((ax - px) * ry - (ay - py) * rx) / crossing
            z = pz + along_ray * dz
            crossed = (along_ray > 0) & (along_ray < 1) & (along_wall >= low)
            crossed &= (along_wall <= high) & (z >= z_low) & (z < z_high)
            factor = np.where(crossed, np.minimum(length * wall_m / np.abs(crossing), 2.0), 0.0)
            out += np.asarray(loss)[:, None] * factor
    return out


def wall_losses_broadcast(
    x: Array, y: Array, target_z_m: float, source: tuple[float, float, float], panels: Array
) -> Array:
    """Return the same again, every point against every wall at once."""
    px, py, pz = source
    rx, ry, dz = (x - px)[:, None], (y - py)[:, None], target_z_m - pz
    ax, ay, dx, dy, low, high, z_low, z_high, wall_m = panels[:, :9].T[:, None, :]
    length = np.sqrt(rx**2 + ry**2 + dz**2)
    with np.errstate(divide="ignore", invalid="ignore"):
        crossing = rx * dy - ry * dx
        along_ray = ((ax - px) * dy - (ay - py) * dx) / crossing
        along_wall = ((ax - px) * ry - (ay - py) * rx) / crossing
        z = pz + along_ray * dz
        crossed = (along_ray > 0) & (along_ray < 1) & (along_wall >= low)
        crossed &= (along_wall <= high) & (z >= z_low) & (z < z_high)
        factor = np.where(crossed, np.minimum(length * wall_m / np.abs(crossing), 2.0), 0.0)
    return np.asarray((factor @ panels[:, 9:]).T)
