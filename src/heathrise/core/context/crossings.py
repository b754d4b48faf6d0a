"""Where a way passes through a wall."""

from __future__ import annotations

import itertools
from collections.abc import Sequence

from ..design import Point, Wall


def crossings(points: Sequence[Point], wall: Wall) -> list[tuple[float, float]]:
    """Return the spots at which a way passes from one side of a wall to the other."""
    spots = []
    (ax, ay), (bx, by) = wall.a, wall.b

    def side(x: float, y: float) -> float:
        return (bx - ax) * (y - ay) - (by - ay) * (x - ax)

    for (px, py), (qx, qy) in itertools.pairwise(points):
        one, other = side(px, py), side(qx, qy)
        if (one >= 0) == (other >= 0):
            continue
        t = one / (one - other)
        x, y = px + t * (qx - px), py + t * (qy - py)
        along = ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / wall.length_m
        if 0 <= along <= wall.length_m:
            spots.append((round(x, 2), round(y, 2)))
    return spots
