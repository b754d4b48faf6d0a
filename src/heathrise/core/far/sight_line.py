"""A radio's line over the ground: what stands in it, and how high masts have to be. Metres, GHz."""

from __future__ import annotations

import itertools
import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import linprog

from ..design import DesignError, Problem

Array = NDArray[np.float64]

EARTH_M = 6_371_000.0
REFRACTION = 4 / 3  # how much flatter the earth is to a ray in a usual atmosphere
MOST_POINTS = 2_000
_SAMPLES = 600
_HAIR_M = 1e-6


@dataclass(frozen=True)
class Trees:
    """Trees, or whatever else stands on a stretch: how high they are now, how much they grow in a year,
    how high over the ground their lowest leaves hang."""

    from_m: float
    to_m: float
    height_m: float
    grows_m: float = 0.0
    clear_m: float = 0.0


@dataclass(frozen=True)
class Ground:
    """The ground along a line: heights at points from its beginning to its end, and what stands there."""

    at_m: tuple[float, ...]
    height_m: tuple[float, ...]
    trees: tuple[Trees, ...] = ()

    def __post_init__(self) -> None:
        count = len(self.at_m)
        if not 2 <= count <= MOST_POINTS:
            what = f"has {count} point{'s' if count != 1 else ''}; a profile has 2 to {MOST_POINTS:,}"
            raise DesignError([Problem("profile", what)])
        if len(self.height_m) != count or not all(map(math.isfinite, (*self.at_m, *self.height_m))):
            raise DesignError([Problem("profile", "wants a distance and a height at each point")])
        if any(b <= a for a, b in itertools.pairwise(self.at_m)):
            raise DesignError([Problem("profile", "goes on from point to point: sort it by distance")])

    @property
    def length_m(self) -> float:
        return self.at_m[-1] - self.at_m[0]

    def over(self, at: Array, years: float) -> tuple[Array, Array]:
        """Return at each place the height of the ground, and of what stands on it in so many years."""
        ground = np.interp(at, self.at_m, self.height_m)
        top = ground.copy()
        for tree in self.trees:
            there = (at >= tree.from_m) & (at <= tree.to_m)
            top[there] = np.maximum(top[there], (ground + tree.height_m + tree.grows_m * years)[there])
        return ground, top

    def in_leaves(self, at: Array, line: Array, years: float) -> NDArray[np.bool_]:
        """Return at each place whether a line at a height goes through leaves in so many years."""
        over = line - np.interp(at, self.at_m, self.height_m)
        found = np.zeros(at.shape, dtype=np.bool_)
        for tree in self.trees:
            there = (at >= tree.from_m) & (at <= tree.to_m)
            found |= there & (over > tree.clear_m) & (over < tree.height_m + tree.grows_m * years)
        return found

    def places(self, count: int) -> Array:
        """Return so many places from end to end, each point of the profile, and the edges of trees."""
        start, end = self.at_m[0], self.at_m[-1]
        edges = [e for t in self.trees for e in (t.from_m, t.to_m) if start < e < end]
        rows = np.concatenate([np.linspace(start, end, count), self.at_m, edges])
        return np.asarray(np.unique(rows), dtype=np.float64)

    def samples(self) -> Array:
        """Return where a line is looked at: at its ends themselves the zone is a point."""
        rows = self.places(_SAMPLES)
        return rows[(rows > self.at_m[0] + _HAIR_M) & (rows < self.at_m[-1] - _HAIR_M)]


@dataclass(frozen=True)
class Clearance:
    """Where a line is nearest to what stands below it, as a share of the first Fresnel zone there.

    ``free_m`` is below 0 where it stands in the line itself; ``leaves_m`` are the metres of the line
    that go through trees.
    """

    at_m: float
    zone_m: float
    free_m: float
    share: float
    trees: bool
    leaves_m: float


def fresnel_m(first_m: Array | float, second_m: Array | float, ghz: float) -> Array:
    """Return the radius of the first Fresnel zone, ``17.32 sqrt(d1 d2 / (f D))``: d in km, f in GHz.

    References:
        ITU-R P.526, first Fresnel ellipsoid; m.
    """
    d1, d2 = np.asarray(first_m) / 1000, np.asarray(second_m) / 1000
    return np.asarray(17.32 * np.sqrt(d1 * d2 / (ghz * (d1 + d2))))


def bulge_m(first_m: Array | float, second_m: Array | float) -> Array:
    """Return how far the earth stands up between two places, ``d1 d2 / (2 k R)``, k of 4/3; m.

    References:
        ITU-R P.530, effective radius of the earth; m.
    """
    return np.asarray(np.asarray(first_m) * np.asarray(second_m) / (2 * REFRACTION * EARTH_M))


def clearance(ground: Ground, near_m: float, far_m: float, ghz: float, years: float = 0.0) -> Clearance:
    """Return the tightest place of a line between antennas at heights over the ground at its two ends."""
    at = ground.samples()
    low, top = ground.over(at, years)
    done = at - ground.at_m[0]
    left = ground.at_m[-1] - at
    start, end = ground.height_m[0] + near_m, ground.height_m[-1] + far_m
    line = start + (end - start) * done / ground.length_m - bulge_m(done, left)
    zone = fresnel_m(done, left, ghz)
    share = (line - top) / zone
    k = int(share.argmin())
    within = ground.in_leaves(at, line, years)
    steps = np.diff(at, prepend=ground.at_m[0], append=ground.at_m[-1])
    leaves = float(((steps[:-1] + steps[1:]) / 2)[within].sum())
    return Clearance(
        at_m=float(at[k]),
        zone_m=float(zone[k]),
        free_m=float(line[k] - top[k]),
        share=float(share[k]),
        trees=bool(top[k] > low[k]),
        leaves_m=leaves,
    )


def least_masts(
    ground: Ground,
    ghz: float,
    share: float,
    years: float = 0.0,
    least_m: tuple[float, float] = (0.0, 0.0),
    most_m: tuple[float, float] = (30.0, 30.0),
) -> tuple[float, float] | None:
    """Return the heights over the ground, of least sum, that leave a share of the zone free; or None.

    A line that clears each place is a half-plane of heights: a linear programme of two of them.
    """
    at = ground.samples()
    _, top = ground.over(at, years)
    done, left = at - ground.at_m[0], ground.at_m[-1] - at
    s = done / ground.length_m
    wanted = top + share * fresnel_m(done, left, ghz) + bulge_m(done, left)
    wanted = wanted - (1 - s) * ground.height_m[0] - s * ground.height_m[-1]
    rows = -np.stack([1 - s, s], axis=1)
    bounds = list(zip(least_m, most_m, strict=True))
    found = linprog([1.0, 1.0], A_ub=rows, b_ub=-wanted, bounds=bounds, method="highs")
    return (float(found.x[0]), float(found.x[1])) if found.success and found.x is not None else None


def bearing_deg(start: tuple[float, float], end: tuple[float, float], declination_deg: float = 0.0) -> float:
    """Return the way from one spot to another clockwise from north; by a compass where its declination,
    east of north, is said.

    Raises:
        DesignError: both spots are one.
    """
    dx, dy = end[0] - start[0], end[1] - start[1]
    if math.hypot(dx, dy) < _HAIR_M:
        raise DesignError([Problem("at", "both ends are at one place; move one of them")])
    return (math.degrees(math.atan2(dx, dy)) - declination_deg) % 360
