"""How good a plan of channels is known to be: against every plan there is."""

from __future__ import annotations

import itertools
import random

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from heathrise.core.bandplan import band_plan
from heathrise.core.catalogue import load_catalogue
from heathrise.core.signal.channels import Solution, Task, bounded, exchanged, greedy, solve
from heathrise.core.signal.cliques import least_pairs, least_shared_db

PLAN = band_plan(load_catalogue().rules, "europe")


def _task(count: int, seed: int, options: tuple[int, ...] = (1, 6, 11), held: int = 0) -> Task:
    chance = random.Random(seed)
    heard = np.full((count, count), -200)
    for i, j in itertools.combinations(range(count), 2):
        heard[i, j] = heard[j, i] = chance.choice([-95, -82, -75, -60, -50])
    fixed = tuple(chance.choice(options) if k < held else None for k in range(count))
    return Task("2.4", 20, options, tuple(map(tuple, heard.tolist())), fixed, PLAN)


def _best(task: Task) -> float:
    """Every plan there is, each pair's overlap by the distance of its channels."""
    shares = {0: 1, 1: 0.77, 2: 0.54, 3: 0.31, 4: 0.09}
    own = [task.options if held is None else (held,) for held in task.fixed]
    pairs = [
        (i, j, task.heard_dbm[i][j] + 82)
        for i, j in itertools.combinations(range(len(own)), 2)
        if task.heard_dbm[i][j] >= -82
    ]
    return min(
        sum(shares.get(abs(plan[i] - plan[j]), 0) * db for i, j, db in pairs)
        for plan in itertools.product(*own)
    )


@given(st.integers(1, 7), st.integers(1, 4))
def test_pairs_that_must_share_by_trying_all(radios: int, channels: int) -> None:
    every = itertools.product(range(channels), repeat=radios)
    assert least_pairs(radios, channels) == min(
        sum(a == b for a, b in itertools.combinations(plan, 2)) for plan in every
    )


@settings(deadline=None, max_examples=60)
@given(
    st.integers(2, 7), st.integers(0, 10**6), st.sampled_from([(1, 6, 11), (1, 5, 9, 13)]),
    st.integers(0, 2),
)  # fmt: skip
def test_no_plan_undercuts_the_bound_and_the_best_is_found(
    count: int, seed: int, options: tuple[int, ...], held: int
) -> None:
    task = _task(count, seed, options, min(held, count))
    best = _best(task)
    free = [h is None for h in task.fixed]
    assert least_shared_db(task.pairs(), free, len(options), 5.0) <= best + 1e-6
    start = greedy(task)
    better = exchanged(task, start)
    assert best - 1e-6 <= better.cost_db <= start.cost_db
    assert all(h is None or h == c for h, c in zip(task.fixed, better.channels, strict=True))
    told = bounded(task, Solution(better.channels, better.cost_db, 0.0, False), 5.0)
    assert told.bound_db <= best + 1e-6
    assert not told.proven or told.cost_db <= best + 1e-6
    assert abs(solve(task).cost_db - best) < 1e-6


def test_a_hall_where_all_hear_each_other_is_told_within_its_bound() -> None:
    """Sixty in one hall on three channels: twenty on each; 3 times 190 of 1770 pairs share, 22 dB
    above contention each."""
    heard = np.full((60, 60), -60)
    np.fill_diagonal(heard, -200)
    task = Task("2.4", 20, (1, 6, 11), tuple(map(tuple, heard.tolist())), (None,) * 60, PLAN)
    found = bounded(task, exchanged(task, greedy(task)), 8.0)
    assert found.cost_db == 3 * 190 * 22 == found.bound_db
    assert found.proven
