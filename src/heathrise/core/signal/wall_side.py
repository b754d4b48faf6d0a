"""On which side of a wall a device stands that is drawn on the wall's line."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from ..context.storeys import Storeys
from ..design import Device

Array = NDArray[np.float64]

WALL_MOUNT_M = 0.15  # a wall mount this near stands on the face it looks away from
ON_LINE_M = 0.01  # any other device this near stands on the wall's line
_CLEAR_M = 0.011
_PROBE_M = 0.05
_FACES = 0.17  # cosine of the angle from a wall's normal beyond which a mount looks along it


def standing(device: Device, z_m: float, panels: Array, storeys: Storeys) -> tuple[float, float]:
    """Return where a device's rays begin: beside a wall that it is drawn on, never inside it.

    A wall mount stands on the side that it faces, any other device on the side of the room it
    belongs to.
    """
    x, y = device.at
    for row in _near(panels, x, y, z_m):
        ax, ay, dx, dy = panels[row, :4]
        length = panels[row, 8]
        nx, ny = -dy / length, dx / length
        off_m = (x - ax) * nx + (y - ay) * ny
        side = _side(device, (nx, ny), (x, y), off_m, storeys)
        if side and off_m * side < _CLEAR_M:
            x, y = x + (side * _CLEAR_M - off_m) * nx, y + (side * _CLEAR_M - off_m) * ny
    return x, y


def _near(panels: Array, x: float, y: float, z_m: float) -> list[int]:
    """Return the panels at a device's height that it is drawn on or nearly so, nearest first."""
    if not len(panels):
        return []
    across, up, length = x - panels[:, 0], y - panels[:, 1], np.maximum(panels[:, 8], 1e-9)
    dx, dy = panels[:, 2], panels[:, 3]
    along = np.clip((across * dx + up * dy) / (length * length), 0, 1)
    away = np.hypot(across - along * dx, up - along * dy)
    rows = np.flatnonzero((away <= WALL_MOUNT_M) & (panels[:, 6] <= z_m) & (z_m < panels[:, 7]))
    return [int(r) for r in rows[np.argsort(away[rows], kind="stable")]]


def _side(
    device: Device, normal: tuple[float, float], at: tuple[float, float], off_m: float, storeys: Storeys
) -> int:
    """Return 1 or -1 for the side of a wall a device stands on, 0 where it is clear of it."""
    if device.mount == "wall":
        azimuth = math.radians(device.azimuth_deg)
        facing = math.sin(azimuth) * normal[0] + math.cos(azimuth) * normal[1]
        if abs(facing) > _FACES:
            return 1 if facing > 0 else -1
    if abs(off_m) > ON_LINE_M:
        return 0
    room = storeys.room_at(device.floor, device.at)
    sides = []
    for side in (1, -1):
        probe = (at[0] + side * _PROBE_M * normal[0], at[1] + side * _PROBE_M * normal[1])
        found = storeys.room_at(device.floor, probe, 0.0)
        sides.append((found is not None and room is not None and found.id == room.id, side))
    return max(sides)[1]
