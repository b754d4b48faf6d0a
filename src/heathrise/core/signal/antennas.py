"""Antenna patterns as parabolas, after 3GPP TR 38.901: ``min(12 (a / w)^2, Am)`` in dB."""

from __future__ import annotations

import math
from typing import Literal

import numba
import numpy as np
from numpy.typing import NDArray

from .propagation import EXPONENT

Array = NDArray[np.float64]
Pattern = Literal["dome", "omni", "panel"]

# Full width between the -3 dB points in degrees, and the greatest attenuation in dB.
DOME = (120.0, 12.0)
OMNI = (60.0, 12.0)
PANEL = (65.0, 25.0)


def attenuation_db(pattern: Pattern, offset: Array, mount: str, azimuth_deg: float, tilt_deg: float) -> Array:
    """Return how far below its boresight gain an antenna radiates towards each point.

    Args:
        pattern: dome, omni or panel.
        offset: shape (n, 3), metres east, north and up from the antenna to the points.
        mount: a ceiling dome looks down, any other dome or panel along ``azimuth_deg``.
        azimuth_deg: clockwise from north.
        tilt_deg: downward from the level; for a ceiling mount, off the plumb towards the azimuth.

    Returns:
        Attenuation in dB, shape (n,), never negative.

    References:
        3GPP TR 38.901, table 7.3-1: parabolas of angle, in dB, held at a floor.
    """
    unit = offset / np.maximum(np.linalg.norm(offset, axis=1, keepdims=True), 1e-9)
    if pattern == "omni":
        elevation = np.degrees(np.arcsin(np.clip(unit[:, 2], -1, 1)))
        return _parabola(elevation, *OMNI)
    down = tilt_deg if mount != "ceiling" else 90.0 - tilt_deg
    if pattern == "dome":
        boresight = _direction(azimuth_deg, -down)
        angle = np.degrees(np.arccos(np.clip(unit @ boresight, -1, 1)))
        return _parabola(angle, *DOME)
    # A panel's two planes: bearing off its azimuth, elevation off its tilt.
    bearing = np.degrees(np.arctan2(unit[:, 0], unit[:, 1])) - azimuth_deg
    sideways = (bearing + 180) % 360 - 180
    upward = np.degrees(np.arcsin(np.clip(unit[:, 2], -1, 1))) + down
    width, most = PANEL
    both = _parabola(sideways, width, most) + _parabola(upward, width, most)
    return np.minimum(both, most)


def _parabola(angle_deg: Array, width_deg: float, most_db: float) -> Array:
    return np.minimum(12 * (angle_deg / width_deg) ** 2, most_db)


def _direction(azimuth_deg: float, elevation_deg: float) -> Array:
    azimuth, elevation = math.radians(azimuth_deg), math.radians(elevation_deg)
    return np.array(
        [
            math.sin(azimuth) * math.cos(elevation),
            math.cos(azimuth) * math.cos(elevation),
            math.sin(elevation),
        ]
    )


_CODES: dict[Pattern, int] = {"dome": 0, "omni": 1, "panel": 2}


@numba.njit(cache=True, nogil=True, error_model="numpy")
def _open_loss(x, y, rise, at, code, aim, azimuth, down, widths, most, exponent, out):  # type: ignore[no-untyped-def] # pragma: no cover
    for i in range(x.shape[0]):
        dx = x[i] - at[0]
        dy = y[i] - at[1]
        flat2 = dx * dx + dy * dy
        d2 = flat2 + rise * rise
        length = max(math.sqrt(d2), 1e-9)
        width = widths[code]
        if code == 0:
            cosine = (dx * aim[0] + dy * aim[1] + rise * aim[2]) / length
            off = math.degrees(math.acos(min(1.0, max(-1.0, cosine))))
            loss = min(12.0 * (off / width) ** 2, most[code])
        else:
            elevation = math.degrees(math.asin(min(1.0, max(-1.0, rise / length))))
            if code == 1:
                loss = min(12.0 * (elevation / width) ** 2, most[code])
            else:
                bearing = math.degrees(math.atan2(dx, dy)) - azimuth
                sideways = (bearing + 180.0) % 360.0 - 180.0
                loss = min(12.0 * (sideways / width) ** 2, most[code])
                loss += min(12.0 * ((elevation + down) / width) ** 2, most[code])
                loss = min(loss, most[code])
        out[i] = loss + 5.0 * exponent * math.log10(max(d2, 1.0))


def open_loss_db(
    pattern: Pattern,
    x: Array,
    y: Array,
    rise_m: float,
    at: tuple[float, float],
    mount: str,
    azimuth_deg: float,
    tilt_deg: float,
    exponent: float = EXPONENT,
) -> Array:
    """Return ``attenuation_db`` and ``10 n log10(d)``, ``d`` at least 1 m, in one pass.

    Args:
        x, y: shape (n,), points in m, all ``rise_m`` above the antenna.
        at: the antenna's x and y in m.

    References:
        3GPP TR 38.901, table 7.3-1; ITU-R P.1238 for the exponent n.
    """
    down = tilt_deg if mount != "ceiling" else 90.0 - tilt_deg
    out = np.empty(len(x))
    widths, most = np.array([DOME, OMNI, PANEL]).T.copy()
    aim = _direction(azimuth_deg, -down)
    code = _CODES[pattern]
    _open_loss(
        x,
        y,
        float(rise_m),
        at,
        code,
        aim,
        float(azimuth_deg),
        float(down),
        widths,
        most,
        float(exponent),
        out,
    )
    return out
