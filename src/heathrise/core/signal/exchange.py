"""A plan of channels made better radio by radio, without going round in circles."""

from __future__ import annotations

import numba
import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]


@numba.njit(cache=True, nogil=True)
def _improve(cost, share, alone, free, chosen, turns, seed):  # type: ignore[no-untyped-def] # pragma: no cover
    n, options = cost.shape[0], share.shape[0]
    np.random.seed(seed)
    # What each radio would suffer on each channel, as all others stand.
    suffers = alone.copy()
    for i in range(n):
        for j in range(n):
            if cost[i, j] > 0:
                for c in range(options):
                    suffers[i, c] += cost[i, j] * share[c, chosen[j]]
    total = 0.0
    for i in range(n):
        total += (suffers[i, chosen[i]] + alone[i, chosen[i]]) / 2
    best, best_plan = total, chosen.copy()
    barred = np.zeros((n, options), dtype=np.int64)
    for turn in range(turns):
        gain, radio, channel = np.inf, -1, -1
        for i in range(n):
            if not free[i]:
                continue
            for c in range(options):
                if c == chosen[i]:
                    continue
                change = suffers[i, c] - suffers[i, chosen[i]]
                # A move that was taken back lately is open only if it leads to the best so far.
                if barred[i, c] > turn and total + change >= best - 1e-9:
                    continue
                if change < gain:
                    gain, radio, channel = change, i, c
        if radio < 0:
            continue
        before = chosen[radio]
        for j in range(n):
            if cost[radio, j] > 0:
                for c in range(options):
                    suffers[j, c] += cost[radio, j] * (share[c, channel] - share[c, before])
        chosen[radio] = channel
        total += gain
        barred[radio, before] = turn + 5 + n // 10 + np.random.randint(0, 10)
        if total < best - 1e-9:
            best, best_plan = total, chosen.copy()
    return best_plan


def improved(
    cost: Array, share: Array, alone: Array, free: NDArray[np.bool_], chosen: NDArray[np.int_], turns: int
) -> NDArray[np.int_]:
    """Return a plan that is no worse than ``chosen``; the same each time.

    Args:
        cost: of two radios that share a channel whole, shape (n, n), symmetric, 0 within itself.
        share: how much two options overlap, 0 to 1, shape (options, options).
        alone: what each suffers on each option from others than these, shape (n, options).
        free: which radios may change, shape (n,).
        chosen: the option of each, shape (n,).

    References:
        Hertz and de Werra, tabu search for colouring graphs: the best single move, lately left ones barred.
    """
    return np.asarray(_improve(cost, share, alone, free, chosen.astype(np.int64), turns, 1))
