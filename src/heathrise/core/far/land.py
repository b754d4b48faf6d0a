"""Wide land: places as cells of their own, or all of them as one mesh. Metres, dBm, Mb/s."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
import shapely
from numpy.typing import NDArray

from ..base.frozen import Frozen
from ..design import Point
from .radio_link import free_space_db

Rate = Callable[[str, str], float]
Array = NDArray[np.float64]
Hears = Callable[[str, Array, Array], NDArray[np.bool_]]
MOST_HOPS = 2
HECTARE_M2 = 10_000.0
_SIDES = 128
_HALVES = 40
_HAIR_M = 1e-6


@dataclass(frozen=True)
class MeshPlace:
    """A place as a node of a mesh, and the rate over which it hears the house, 0 where not."""

    key: str
    house_mbps: float


class MeshLink(Frozen):
    """A node's way home: over which place, None for the house; over how many hops, and what a user gets."""

    point: str
    parent: str | None
    hops: int
    mbps: float


class LandGap(Frozen):
    """A stretch of the path between two places that neither serves."""

    start: str
    end: str
    apart_m: float
    gap_m: float


def mesh_of(places: Sequence[MeshPlace], rate: Rate) -> dict[str, MeshLink]:
    """Return by place the way home of at most two hops that carries most; those that have none are left out.

    Args:
        rate: Mb/s of a link between two nodes, by their keys.

    References:
        Times of a bit over links on one radio add up, and the user's own is one more: 1 / sum(1 / r).
    """
    found: dict[str, MeshLink] = {}
    for place in places:
        options = [MeshLink(point=place.key, parent=None, hops=1, mbps=_user((place.house_mbps,)))]
        for other in places:
            if other.key != place.key:
                links = (rate(place.key, other.key), other.house_mbps)
                options.append(MeshLink(point=place.key, parent=other.key, hops=MOST_HOPS, mbps=_user(links)))
        best = max(options, key=lambda o: o.mbps)
        if best.mbps > 0:
            found[place.key] = best.model_copy(update={"mbps": round(best.mbps, 1)})
    return found


def _user(links: Sequence[float]) -> float:
    """Return what a user gets beside a node over links on one radio; his own is as fast as the slowest."""
    if min(links) <= 0:
        return 0.0
    return 1 / (sum(1 / r for r in links) + 1 / min(links))


def path_of(start: Point, places: Mapping[str, Point]) -> list[str]:
    """Return places in the order of a walk from a spot on, each time to the nearest that is left."""
    left, order, here = dict(places), [], start
    while left:
        key = min(left, key=lambda k: (math.dist(left[k], here), k))
        here = left.pop(key)
        order.append(key)
    return order


def reaches(hears: Hears, key: str, at: Point, sides_rad: Array, most_m: float) -> Array:
    """Return how far off a client hears a place to each side, anticlockwise from east; farther out it is
    never heard better. Bisected, m."""
    low, high = np.zeros(len(sides_rad)), np.full(len(sides_rad), most_m)
    for _ in range(_HALVES):
        middle = (low + high) / 2
        heard = hears(key, at[0] + middle * np.cos(sides_rad), at[1] + middle * np.sin(sides_rad))
        low, high = np.where(heard, middle, low), np.where(heard, high, middle)
    return low


def gaps_along(
    order: Sequence[str], places: Mapping[str, Point], most_m: float, hears: Hears
) -> list[LandGap]:
    """Return between each two places of a walk the stretch that neither reaches.

    Args:
        most_m: how far a place is heard over open land.
        hears: whether a client hears a place, by its key, at spots x and y.
    """
    rows = []
    for a, b in itertools.pairwise(order):
        apart = math.dist(places[a], places[b])
        side = math.atan2(places[b][1] - places[a][1], places[b][0] - places[a][0])
        heard = sum(
            float(reaches(hears, key, places[key], np.array([towards]), most_m)[0])
            for key, towards in ((a, side), (b, side + math.pi))
        )
        gap = apart - heard
        if gap > _HAIR_M:
            rows.append(LandGap(start=a, end=b, apart_m=round(apart, 1), gap_m=round(gap, 1)))
    return rows


def hectares(places: Mapping[str, Point], most_m: float, hears: Hears) -> float:
    """Return the land that places serve: what they reach together to all sides, ha."""
    if most_m <= 0:
        return 0.0
    sides = np.linspace(0.0, 2 * math.pi, _SIDES, endpoint=False)
    shapes = []
    for key, (x, y) in places.items():
        out = reaches(hears, key, (x, y), sides, most_m)
        rim = np.column_stack([x + out * np.cos(sides), y + out * np.sin(sides)])
        shapes.append(shapely.Polygon(rim).buffer(0))
    return float(shapely.union_all(shapes).area) / HECTARE_M2


def reach_of(eirp_dbm: float, least_dbm: float) -> float:
    """Return how far off a client still hears so much on 5 GHz over open land, m."""
    km = 10 ** ((eirp_dbm - least_dbm - free_space_db("5", 1.0)) / 20)
    return km * 1000
