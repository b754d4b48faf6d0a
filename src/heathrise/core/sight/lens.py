"""A lens: pixels for each metre at a distance, the ground that a tilted picture holds. m, degrees."""

from __future__ import annotations

import math

from ..catalogue import LensView


def density_px_m(lens: LensView, away_m: float) -> float:
    """Return the pixels for each metre across at a distance.

    References:
        IEC 62676-4: pixels across over the width of the picture, `2 d tan(view / 2)`; px/m.
    """
    return lens.pixels / (2 * away_m * math.tan(math.radians(lens.across_deg) / 2))


def reach_m(lens: LensView, px_m: float) -> float:
    """Return the distance up to which a lens has so many pixels for each metre, in m."""
    return density_px_m(lens, 1.0) / px_m


def blind_m(lens: LensView, height_m: float, tilt_deg: float) -> float:
    """Return the nearest ground that is seen from a height with a tilt under the horizontal, in m; none
    is where the lower edge of the picture looks level or up."""
    return _ground_m(height_m, tilt_deg + lens.up_deg / 2)


def far_m(lens: LensView, height_m: float, tilt_deg: float, of_m: float = 0.0) -> float:
    """Return how far the upper edge of the picture sees what stands ``of_m`` over the ground, in m."""
    return _ground_m(height_m - of_m, tilt_deg - lens.up_deg / 2)


def _ground_m(height_m: float, down_deg: float) -> float:
    """Return where a line that looks down by so many degrees meets the level it is over, in m."""
    if height_m <= 0:
        return 0.0 if down_deg > 0 else math.inf
    if down_deg <= 0:
        return math.inf
    return height_m / math.tan(math.radians(down_deg)) if down_deg < 90 else 0.0


def sees_at(lens: LensView, height_m: float, tilt_deg: float, away_m: float, over_m: float) -> bool:
    """Return whether the picture holds a point so far away and so high over the ground."""
    down = math.degrees(math.atan2(height_m - over_m, away_m))
    return abs(down - tilt_deg) <= lens.up_deg / 2 + 1e-9
