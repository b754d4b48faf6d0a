"""The client's plan as it lies under the sheet: walls seen on it, where they stand on the site."""

from __future__ import annotations

import io
import math

import numpy as np
from PIL import Image

from ..core.design import DesignError, Problem, Underlay
from ..core.walling import SeenGap, SeenWall
from .traced import walls_seen

COARSEST_M_PER_PX = 0.032
_FEWEST = 3


def walls_on(data: bytes, underlay: Underlay) -> list[SeenWall]:
    """Return the walls that are seen on a picture, in m of the site.

    Raises:
        DesignError: the picture is too coarse for it, or nothing like walls is on it.
    """
    with Image.open(io.BytesIO(data)) as opened:
        picture = opened.convert("L")
    # The picture is kept at most as fine as it was laid down.
    step = underlay.metres_per_px * underlay.width_px / picture.width
    if step > COARSEST_M_PER_PX:
        what = (
            f"one point of the picture is {100 * step:.1f} cm of the building, and walls are seen up to "
            f"{100 * COARSEST_M_PER_PX:.1f} cm: take a finer picture, or trace the walls by hand"
        )
        raise DesignError([Problem("underlay", what)])
    left, top, right, foot = underlay.crop
    wide, high = picture.size
    grey = np.array(picture, dtype=np.uint8)
    # What is cropped away is paper without ink.
    kept = np.zeros_like(grey, dtype=bool)
    kept[round(top * high) : high - round(foot * high), round(left * wide) : wide - round(right * wide)] = (
        True
    )
    grey[~kept] = 255
    found = walls_seen(grey, step)
    if len(found) < _FEWEST:
        what = (
            "no walls are seen on it: they are told by strokes thicker than letters, or by two lines close "
            "together. Check its scale, or trace them by hand"
        )
        raise DesignError([Problem("underlay", what)])
    turn = math.radians(underlay.turn_deg)

    def placed(p: tuple[float, float]) -> tuple[float, float]:
        x, y = (p[0] - wide / 2) * step, (high / 2 - p[1]) * step
        return (
            underlay.at[0] + x * math.cos(turn) + y * math.sin(turn),
            underlay.at[1] - x * math.sin(turn) + y * math.cos(turn),
        )

    return [
        SeenWall(
            a=placed(wall.a),
            b=placed(wall.b),
            thick_m=wall.thick * step,
            gaps=tuple(
                SeenGap(offset_m=g.offset * step, width_m=g.width * step, lined=g.lined) for g in wall.gaps
            ),
            why=wall.why_unsure,
        )
        for wall in found
    ]
