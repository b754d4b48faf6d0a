"""The cheapest way to buy so many of a thing that is sold in packs."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from ortools.sat.python import cp_model

from ..catalogue import Pack

_CENTS = 100
_SOLVE_SECONDS = 2.0


@dataclass(frozen=True)
class Packed:
    """What is bought: how many of each pack, what it costs, what is left over."""

    packs: tuple[tuple[Pack, int], ...]
    price: float
    left_over: int
    proven: bool


def cheapest_cover(wanted: int, packs: Sequence[Pack]) -> Packed:
    """Return the cheapest packs that hold at least so many; of equals those with most left over.

    Args:
        packs: at least one; those of a count that stands twice compete by price.
    """
    return _solve(wanted, tuple(sorted(packs, key=lambda p: (p.count, p.price))))


@lru_cache(maxsize=1024)
def _solve(wanted: int, packs: tuple[Pack, ...]) -> Packed:
    if wanted <= 0:
        return Packed((), 0.0, 0, True)
    model = cp_model.CpModel()
    most = [-(-wanted // p.count) for p in packs]
    bought = [model.new_int_var(0, m, "") for m in most]
    held = sum(p.count * b for p, b in zip(packs, bought, strict=True))
    model.add(held >= wanted)
    price = sum(round(p.price * _CENTS) * b for p, b in zip(packs, bought, strict=True))
    largest = wanted + max(p.count for p in packs)
    model.minimize(price * (largest + 1) - held)
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.max_time_in_seconds = _SOLVE_SECONDS
    status = solver.solve(model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        single = packs[0]
        count = -(-wanted // single.count)
        left = count * single.count - wanted
        return Packed(((single, count),), round(count * single.price, 2), left, False)
    rows = tuple((p, solver.value(b)) for p, b in zip(packs, bought, strict=True) if solver.value(b))
    total = sum(p.price * n for p, n in rows)
    left = sum(p.count * n for p, n in rows) - wanted
    return Packed(rows, round(total, 2), left, status == cp_model.OPTIMAL)
