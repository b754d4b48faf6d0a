"""Antenna patterns as parabolas, after 3GPP TR 38.901: ``min(12 (a / w)^2, Am)`` in dB."""

from __future__ import annotations

import math
from typing import Literal

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
Pattern = Literal["dome", "omni", "panel"]

# Full width between the -3 dB points in degrees, and the greatest attenuation in dB.
DOME = (120.0, 12.0)
OMNI = (60.0, 12.0)
PANEL = (65.0, 25.0)


def attenuation_db(
    pattern: Pattern, offset: Array, mount: str, azimuth_deg: float, tilt_deg: float
) -> Array:
    """Return how far below its boresight gain an antenna radiates towards each point.

    Args:
        pattern: dome, omni or panel.
        offset: shape (n, 3), metres east, north and up from the antenna to the points.
        mount: a ceiling dome looks down, any other dome or panel along ``azimuth_deg``.
        azimuth_deg: clockwise from north.
        tilt_deg: downward from the level; for a ceiling mount, off the plumb towards the azimuth.

    Returns:
        Attenuation in dB, shape (n,), never negative.
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
