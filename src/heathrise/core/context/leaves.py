"""How much of a way goes through trees that are drawn: a canopy is a prism between its lowest leaves and
its tops. Metres."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..design import Grove, Point

Array = NDArray[np.float64]
Spot = tuple[float, float, float]
_AT_ONCE = 200_000  # crossings that are worked out together: memory


@dataclass(frozen=True)
class Stretch:
    """A piece of a way that goes through one grove: shares of the way, and its metres."""

    grove: str
    start: float
    end: float
    leaves_m: float


def leaves_m(
    groves: Mapping[str, Grove],
    source: Spot,
    x: Array,
    y: Array,
    height_m: Array | float,
    grown: Mapping[str, float] | None = None,
) -> Array:
    """Return the metres of leaves between a spot and others. What two groves share counts twice.

    Args:
        source: x, y, and the height over the ground there. Between two ends the land goes straight.
        x, y: shape (n,).
        height_m: of the others over the ground where each is.
        grown: by grove how much higher its tops are than today.

    Returns:
        m, shape (n,).
    """
    found = np.zeros(len(x))
    heights = np.broadcast_to(np.asarray(height_m, dtype=np.float64), x.shape)
    way = np.sqrt((x - source[0]) ** 2 + (y - source[1]) ** 2 + (heights - source[2]) ** 2)
    for key, grove in groves.items():
        if _beside(grove, source, x, y):
            continue
        top_m = grove.height_m + (grown or {}).get(key, 0.0)
        for some in np.array_split(np.arange(len(x)), 1 + len(x) * len(grove.outline) // _AT_ONCE):
            starts, ends = _within(grove, top_m, source, x[some], y[some], heights[some])
            found[some] += (ends - starts).sum(axis=1) * way[some]
    return found


def stretches(groves: Mapping[str, Grove], source: Spot, end: Spot) -> Iterator[Stretch]:
    """Yield grove by grove the pieces of one way that go through its leaves."""
    x, y, height_m = (np.array([c]) for c in end)
    way = float(np.linalg.norm(np.subtract(end, source)))
    for grove in groves.values():
        starts, ends = _within(grove, grove.height_m, source, x, y, height_m)
        for start, stop in zip(starts[0].tolist(), ends[0].tolist(), strict=True):
            if stop > start:
                yield Stretch(grove.id, start, stop, (stop - start) * way)


def over_the_line(grove: Grove, start: Point, end: Point) -> list[tuple[float, float]]:
    """Return where a line seen from above enters a grove and leaves it, as shares of the line."""
    x, y = np.array([end[0]]), np.array([end[1]])
    starts, ends = _crossed(grove, start, x, y)
    rows = zip(starts[0].clip(0, 1).tolist(), ends[0].clip(0, 1).tolist(), strict=True)
    return [(a, b) for a, b in rows if b > a]


def _beside(grove: Grove, source: Spot, x: Array, y: Array) -> bool:
    """Whether the box of a grove lies beside the box that holds all the ways."""
    xs, ys = zip(*grove.outline, strict=True)
    if not len(x):
        return True
    return bool(
        max(xs) < min(source[0], x.min())
        or min(xs) > max(source[0], x.max())
        or max(ys) < min(source[1], y.min())
        or min(ys) > max(source[1], y.max())
    )


def _crossed(grove: Grove, source: Point, x: Array, y: Array) -> tuple[Array, Array]:
    """Return where the lines through a spot and others are within an outline, by even and odd crossings.

    Returns:
        Shares of the way where they enter and where they leave, each (n, m); both infinite where there
        is no such piece. Below 0 and above 1 they lie beyond its ends.
    """
    corners = np.array(grove.outline) - np.asarray(source)
    ahead = np.roll(corners, -1, axis=0)
    dx, dy = (x - source[0])[:, None], (y - source[1])[:, None]
    side = dx * corners[:, 1] - dy * corners[:, 0]
    beyond = dx * ahead[:, 1] - dy * ahead[:, 0]
    meets = (side > 0) != (beyond > 0)
    part = np.divide(side, side - beyond, out=np.zeros_like(side), where=meets)
    at = corners + part[..., None] * (ahead - corners)
    length = dx**2 + dy**2
    along = np.divide(at[..., 0] * dx + at[..., 1] * dy, length, out=np.zeros_like(side), where=length > 0)
    rows = np.sort(np.where(meets, along, np.inf), axis=1)
    if rows.shape[1] % 2:
        rows = np.pad(rows, ((0, 0), (0, 1)), constant_values=np.inf)
    return rows[:, 0::2], rows[:, 1::2]


def _within(
    grove: Grove, top_m: float, source: Spot, x: Array, y: Array, height_m: Array
) -> tuple[Array, Array]:
    """Return ``_crossed`` cut to the way itself, and to where it is as high as the leaves are."""
    start_m, rise = source[2], height_m - source[2]
    level = rise == 0
    slope = np.where(level, 1.0, rise)
    bounds = np.sort(np.stack([(grove.clear_m - start_m) / slope, (top_m - start_m) / slope]), axis=0)
    in_leaves = grove.clear_m <= start_m <= top_m
    low = np.where(level, 0.0 if in_leaves else 1.0, bounds[0].clip(0, 1))[:, None]
    high = np.where(level, 1.0, bounds[1].clip(0, 1))[:, None]
    starts, ends = _crossed(grove, source[:2], x, y)
    return starts.clip(low, high), ends.clip(low, high)
