"""Wide land: places as cells of their own, or all of them as one mesh. Metres, dBm, Mb/s."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

import shapely

from ..base.frozen import Frozen
from ..design import Point
from .radio_link import free_space_db

Rate = Callable[[float], float]
MOST_HOPS = 2
HECTARE_M2 = 10_000.0


@dataclass(frozen=True)
class MeshPlace:
    """A place as a node of a mesh: where it is, and the rate over which it hears the house, 0 where not."""

    key: str
    at: Point
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
        rate: Mb/s of a link between two nodes so many metres apart.

    References:
        Times of a bit over links on one radio add up, and the user's own is one more: 1 / sum(1 / r).
    """
    found: dict[str, MeshLink] = {}
    for place in places:
        options = [MeshLink(point=place.key, parent=None, hops=1, mbps=_user((place.house_mbps,)))]
        for other in places:
            if other.key != place.key:
                links = (rate(math.dist(place.at, other.at)), other.house_mbps)
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


def gaps_along(order: Sequence[str], places: Mapping[str, Point], reach_m: float) -> list[LandGap]:
    """Return between each two places of a walk the stretch that neither reaches."""
    rows = []
    for a, b in itertools.pairwise(order):
        apart = math.dist(places[a], places[b])
        gap = max(0.0, apart - 2 * reach_m)
        if gap > 0:
            rows.append(LandGap(start=a, end=b, apart_m=round(apart, 1), gap_m=round(gap, 1)))
    return rows


def hectares(spots: Sequence[Point], reach_m: float) -> float:
    """Return the land that places serve: what their circles cover together, ha."""
    if not spots or reach_m <= 0:
        return 0.0
    area = shapely.union_all([shapely.Point(s).buffer(reach_m, quad_segs=32) for s in spots]).area
    return float(area) / HECTARE_M2


def reach_of(eirp_dbm: float, least_dbm: float) -> float:
    """Return how far off a client still hears so much on 5 GHz over open land, m."""
    km = 10 ** ((eirp_dbm - least_dbm - free_space_db("5", 1.0)) / 20)
    return km * 1000
