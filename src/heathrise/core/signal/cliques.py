"""How little air radios can share at best: a bound from groups that all hear each other.

Of ``m`` radios on ``k`` channels that share nothing, no fewer pairs are on one channel than where
the groups are as even as can be (Turán). Each such group is a cut of a linear program.
"""

from __future__ import annotations

import math
import time
from collections.abc import Callable, Sequence
from itertools import combinations

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import csr_matrix

Array = NDArray[np.float64]

_ROUNDS = 200
_TINY = 1e-6


def least_pairs(radios: int, channels: int) -> int:
    """Return how many pairs of so many radios share a channel at least.

    References:
        Turan, graphs without large cliques: groups as equal as they can be.
    """
    each, more = divmod(radios, channels)
    return more * (each + 1) * each // 2 + (channels - more) * each * (each - 1) // 2


def least_shared_db(
    pairs: Sequence[tuple[int, int, int]],
    free: Sequence[bool],
    channels: int,
    seconds: float,
    go_on: Callable[[], bool] = lambda: True,
) -> float:
    """Return a bound in dB that no plan of channels undercuts.

    Args:
        pairs: radios that hear each other, and what it costs in dB if they share a channel whole.
        free: whether a radio may take any of the channels; the others bind nothing.
        channels: how many of them share nothing with one another.

    References:
        Chopra and Rao, the partition problem: each clique of q radios has ``least_pairs`` at least; dB.
    """
    rows = [(i, j, cost) for i, j, cost in pairs if cost > 0 and free[i] and free[j]]
    if not rows:
        return 0.0
    number = np.full((len(free), len(free)), -1)
    for k, (i, j, _) in enumerate(rows):
        number[i, j] = number[j, i] = k
    cost = np.array([c for _, _, c in rows], dtype=float)
    cuts: list[list[int]] = []
    least: list[int] = []
    known: set[tuple[int, ...]] = set()
    shared, bound = np.zeros(len(rows)), 0.0
    until = time.monotonic() + seconds
    for _ in range(_ROUNDS):
        fresh = [g for g in _violated(number, shared, channels) if g not in known]
        if not fresh or time.monotonic() > until or not go_on():
            break
        known.update(fresh)
        for group in fresh:
            cuts.append([int(number[a, b]) for a, b in combinations(group, 2)])
            least.append(least_pairs(len(group), channels))
        ends = np.cumsum([0, *map(len, cuts)])
        cells = np.concatenate([np.array(c) for c in cuts])
        matrix = csr_matrix((np.ones(len(cells)), cells, ends), shape=(len(cuts), len(rows)))
        solved = milp(  # without whole numbers it is a linear program
            cost,
            bounds=Bounds(0, 1),
            constraints=LinearConstraint(matrix, least, np.inf),
            options={"time_limit": max(0.5, until - time.monotonic())},
        )
        if solved.x is None or solved.status != 0:
            break  # the bound of the round before still holds
        shared, bound = solved.x, float(solved.fun)
    return bound


def _violated(number: NDArray[np.int_], shared: Array, channels: int) -> list[tuple[int, ...]]:
    """Return groups that all hear each other and share less than they can, one from each radio."""
    hears = number >= 0
    between = np.where(hears, shared[np.maximum(number, 0)], np.inf)
    found = []
    for first in range(len(number)):
        group, others = [first], hears[first].copy()
        more, total = between[first].copy(), 0.0
        best, chosen = _TINY, None
        while others.any():
            nearest = int(np.where(others, more, np.inf).argmin())
            total += more[nearest]
            group.append(nearest)
            others &= hears[nearest]
            more = more + between[nearest]
            size = len(group)
            lacks = (least_pairs(size, channels) - total) / math.sqrt(size * (size - 1) / 2)
            if lacks > best:
                best, chosen = lacks, tuple(sorted(group))
        if chosen is not None:
            found.append(chosen)
    return list(dict.fromkeys(found))
