"""A photograph taken at a slant, made straight by four corners of a rectangle whose sides are known.

What lies in the rectangle's plane is to scale afterwards; what stands out of it is not.
"""

from __future__ import annotations

import io
import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from PIL import Image
from shapely.geometry import Polygon

from ..core.design import DesignError, Problem

Point = tuple[float, float]
Matrix = npt.NDArray[np.float64]

CORNERS = 4
MAX_SIDE_PX = 4_000
LEAST_SHARE = 0.001  # of the picture that the rectangle has to cover
BEYOND = 2.0  # so many of its sides around it are kept: farther out a slant stretches what is seen beyond use
_QUALITY = 90
_DENTED = 1.0001
_ALONG_EDGE = 20


@dataclass(frozen=True)
class Straightened:
    """A straight picture: its scale, and where the middle of the rectangle lies in it, as shares from the
    upper left."""

    media: str
    data: bytes
    width_px: int
    height_px: int
    metres_per_px: float
    middle: Point


def straighten(data: bytes, corners: Sequence[Point], across_m: float, up_m: float) -> Straightened:
    """Return a picture on which a rectangle is straight and of its size.

    Args:
        corners: of the rectangle, as shares of the picture's width and height from its upper left, in any
            order round it; the two that are uppermost are its upper side.
        across_m: the rectangle's upper side, and ``up_m`` its other one.

    Raises:
        DesignError: the corners are no four-sided figure that a rectangle could be seen as.
    """
    with Image.open(io.BytesIO(data)) as opened:
        picture = opened.convert("RGB")
    seen = _in_order([(u * picture.width, v * picture.height) for u, v in corners], picture.size)
    px_per_m = _scale(seen, across_m, up_m)
    wide, high = across_m * px_per_m, up_m * px_per_m
    flat = [(0.0, 0.0), (wide, 0.0), (wide, high), (0.0, high)]
    west, north, east, south = _kept(homography(seen, flat), picture.size, wide, high)
    shrink = min(1.0, MAX_SIDE_PX / max(east - west, south - north))
    size = (max(1, round((east - west) * shrink)), max(1, round((south - north) * shrink)))
    placed = [((x - west) * shrink, (y - north) * shrink) for x, y in flat]
    back = homography(placed, seen)
    straight = picture.transform(
        size,
        Image.Transform.PERSPECTIVE,
        tuple((back / back[2, 2]).ravel()[:8]),
        Image.Resampling.BICUBIC,
        fillcolor=(255, 255, 255),
    )
    out = io.BytesIO()
    straight.save(out, "JPEG", quality=_QUALITY)
    middle = ((wide / 2 - west) * shrink / size[0], (high / 2 - north) * shrink / size[1])
    return Straightened("image/jpeg", out.getvalue(), *size, 1 / (px_per_m * shrink), middle)


def homography(source: Sequence[Point], target: Sequence[Point]) -> Matrix:
    """Return the 3 x 3 matrix that takes four points to four others, straight lines to straight lines."""
    rows: list[list[float]] = []
    for (x, y), (u, v) in zip(source, target, strict=True):
        rows.append([x, y, 1, 0, 0, 0, -u * x, -u * y])
        rows.append([0, 0, 0, x, y, 1, -v * x, -v * y])
    solved = np.linalg.solve(np.array(rows), np.array(target, dtype=float).ravel())
    return np.append(solved, 1.0).reshape(3, 3)


def _in_order(points: Sequence[Point], size: tuple[int, int]) -> list[Point]:
    """Return the corners from the upper left on, clockwise as one looks at the picture."""
    if len(points) != CORNERS:
        raise DesignError([Problem("corners", f"press four corners; there are {len(points)}")])
    x0, y0 = (sum(p[k] for p in points) / CORNERS for k in (0, 1))
    round_it = sorted(points, key=lambda p: math.atan2(p[1] - y0, p[0] - x0))
    figure = Polygon(round_it)
    hull = figure.convex_hull
    if (
        not figure.is_valid
        or figure.area < LEAST_SHARE * size[0] * size[1]
        or hull.area > figure.area * 1.0001
    ):
        what = (
            "do not stand as those of a rectangle do that is looked at from aside: "
            "press the four corners of one that is large on the picture"
        )
        raise DesignError([Problem("corners", what)])
    upper = sorted(round_it, key=lambda p: p[1])[:2]
    first = round_it.index(min(upper))
    return [round_it[(first + k) % CORNERS] for k in range(CORNERS)]


def _scale(seen: Sequence[Point], across_m: float, up_m: float) -> float:
    """Return px to the metre at which nothing that is seen of the rectangle gets lost."""
    across = max(math.dist(seen[0], seen[1]), math.dist(seen[3], seen[2])) / across_m
    up = max(math.dist(seen[0], seen[3]), math.dist(seen[1], seen[2])) / up_m
    return max(across, up)


def _kept(
    flatten: Matrix, size: tuple[int, int], wide: float, high: float
) -> tuple[float, float, float, float]:
    """Return west, north, east and south of what of the picture is kept, in px of the straight one."""
    shares = [k / _ALONG_EDGE for k in range(_ALONG_EDGE + 1)]
    edge = [(u * size[0], v * size[1]) for u in shares for v in shares if {u, v} & {0.0, 1.0}]
    ahead = [flatten @ np.array([x, y, 1.0]) for x, y in edge]
    # What lies beyond the horizon comes out on the other side of it.
    front = np.sign(flatten @ np.array([*np.linalg.solve(flatten, [wide / 2, high / 2, 1.0])[:2], 1.0]))[2]
    spots = [(p[0] / p[2], p[1] / p[2]) for p in ahead if p[2] * front > 1e-9] or [(0.0, 0.0), (wide, high)]
    xs, ys = zip(*spots, strict=True)
    return (
        max(min(*xs, 0.0), -BEYOND * wide),
        max(min(*ys, 0.0), -BEYOND * high),
        min(max(*xs, wide), (1 + BEYOND) * wide),
        min(max(*ys, high), (1 + BEYOND) * high),
    )
