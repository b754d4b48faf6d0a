"""What slabs and roofs take from rays: each that a ray really crosses, edges and holes minded."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numba
import numpy as np
import shapely
from numpy.typing import NDArray

from ..base.bands import BANDS
from ..catalogue import Catalogue
from ..context.storeys import Slab
from .propagation import floors_loss_db

Array = NDArray[np.float64]

_TILE = 256


@dataclass(frozen=True, eq=False)
class Layers:
    """Slabs as arrays: heights (l,), losses (l, 3), edges (e, 4) and where each one's begin."""

    z_m: Array
    loss_db: Array
    edges: Array
    first: NDArray[np.int64]


def layers_of(slabs: Sequence[Slab], catalogue: Catalogue) -> Layers:
    """Return slabs ready for the kernel."""
    edges: list[Array] = []
    first = [0]
    for slab in slabs:
        edges += list(_rings(slab.area))
        first.append(sum(map(len, edges)))
    loss = [[catalogue.constructions[s.construction].loss_db[b] for b in BANDS] for s in slabs]
    return Layers(
        np.array([s.z_m for s in slabs], dtype=np.float64),
        np.array(loss, dtype=np.float64).reshape(-1, 3),
        np.concatenate(edges) if edges else np.empty((0, 4)),
        np.array(first, dtype=np.int64),
    )


def _rings(area: Any) -> Sequence[Array]:
    """Return the sides of an area's outlines and holes, each ring (k, 4)."""
    found: list[Array] = []
    for part in getattr(area, "geoms", [area]):
        if isinstance(part, shapely.Polygon):
            for ring in (part.exterior, *part.interiors):
                corners = np.asarray(ring.coords)[:, :2]
                found.append(np.hstack([corners[:-1], corners[1:]]))
    return found


@numba.njit(cache=True, nogil=True, error_model="numpy")
def _inside(x, y, edges, first, last):  # type: ignore[no-untyped-def] # pragma: no cover
    inside = False
    for e in range(first, last):
        y1 = edges[e, 1]
        y2 = edges[e, 3]
        if (y1 > y) != (y2 > y):
            x1 = edges[e, 0]
            if x < (edges[e, 2] - x1) * (y - y1) / (y2 - y1) + x1:
                inside = not inside
    return inside


@numba.njit(cache=True, nogil=True, error_model="numpy")
def _cross(x, y, target_z, source, z_m, loss, edges, first, count, sums):  # type: ignore[no-untyped-def] # pragma: no cover
    sx, sy, sz = source
    n = x.shape[0]
    low = min(sz, target_z)
    high = max(sz, target_z)
    for layer in range(z_m.shape[0]):
        z = z_m[layer]
        if not low < z < high:
            continue
        share = (z - sz) / (target_z - sz)
        begin = first[layer]
        end = first[layer + 1]
        for start in range(0, n, _TILE):
            stop = min(n, start + _TILE)
            west = south = np.inf
            east = north = -np.inf
            for i in range(start, stop):
                cx = sx + (x[i] - sx) * share
                cy = sy + (y[i] - sy) * share
                west = min(west, cx)
                east = max(east, cx)
                south = min(south, cy)
                north = max(north, cy)
            near = False
            for e in range(begin, end):
                if (
                    max(edges[e, 0], edges[e, 2]) >= west
                    and min(edges[e, 0], edges[e, 2]) <= east
                    and max(edges[e, 1], edges[e, 3]) >= south
                    and min(edges[e, 1], edges[e, 3]) <= north
                ):
                    near = True
                    break
            # No side of the slab comes near: all points of the tile lie on one side of it.
            whole = (not near) and _inside(west, south, edges, begin, end)
            if not near and not whole:
                continue
            for i in range(start, stop):
                cx = sx + (x[i] - sx) * share
                cy = sy + (y[i] - sy) * share
                if whole or _inside(cx, cy, edges, begin, end):
                    count[i] += 1
                    sums[0, i] += loss[layer, 0]
                    sums[1, i] += loss[layer, 1]
                    sums[2, i] += loss[layer, 2]


def slabs_crossed(
    x: Array, y: Array, target_z_m: float, source: tuple[float, float, float], layers: Layers
) -> tuple[Array, NDArray[np.int64], Array] | None:
    """Return what slabs and roofs take from the rays of one source, in parts.

    Returns:
        The sum of the losses of those crossed, shape (3, n), their number ``k``, shape (n,), and
        by that number the share of the sum that counts; None where none lies between the heights.
        ``Lf k^((k+2)/(k+1) - 0.46)`` (COST 231) is the sum times that share, ``Lf`` the mean.

    References:
        COST 231 final report, chapter 4: k floors crossed count k^((k+2)/(k+1) - b) of their mean.
    """
    low_m, high_m = sorted((source[2], target_z_m))
    between = int(((layers.z_m > low_m) & (layers.z_m < high_m)).sum())
    if not between:
        return None
    count = np.zeros(len(x), dtype=np.int64)
    sums = np.zeros((3, len(x)))
    _cross(
        x, y, float(target_z_m), source, layers.z_m, layers.loss_db, layers.edges, layers.first, count, sums
    )
    k = np.arange(between + 1, dtype=np.float64)
    return sums, count, floors_loss_db(1.0, k) / np.maximum(k, 1)


@numba.njit(cache=True, nogil=True, error_model="numpy")
def _add(loss, sums, count, share):  # type: ignore[no-untyped-def] # pragma: no cover
    for i in range(count.shape[0]):
        if count[i]:
            part = share[count[i]]
            loss[0, i] += sums[0, i] * part
            loss[1, i] += sums[1, i] * part
            loss[2, i] += sums[2, i] * part


def add_slabs_db(
    loss: Array, x: Array, y: Array, target_z_m: float, source: tuple[float, float, float], layers: Layers
) -> None:
    """Add to ``loss``, shape (3, n), what slabs and roofs take from the rays of one source.

    Args:
        x, y: shape (n,), points in metres; all at the height ``target_z_m``.
        source: x, y, z of the antenna in metres.

    References:
        COST 231 final report, chapter 4; losses in dB for each band.
    """
    crossed = slabs_crossed(x, y, target_z_m, source, layers)
    if crossed is not None:
        _add(loss, *crossed)
