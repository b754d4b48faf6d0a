"""The process is held to its budget, and says what it holds."""

from __future__ import annotations

import random

import numpy as np
import pytest
from flask.testing import FlaskClient

from heathrise.core.base.memo import Budget, IdentityMemo, bytes_of
from heathrise.core.context.readings import Reading
from heathrise.store import Repository
from heathrise.web import memory
from heathrise.web.app import create_app
from heathrise.web.memory import MemoryKeeper, resident_bytes

_MB = 1_000_000


def _filled(budget: Budget, megabytes: int) -> list[IdentityMemo[np.ndarray]]:
    memos: list[IdentityMemo[np.ndarray]] = [IdentityMemo(1000, budget=budget) for _ in range(3)]
    for k in range(megabytes):
        memos[k % 3].get((), k, lambda: np.ones(_MB, dtype=np.uint8))
    return memos


def test_what_was_asked_for_longest_ago_goes_until_the_process_holds_no_more_than_it_may() -> None:
    budget = Budget(300 * _MB)
    keeper = MemoryKeeper(budget)
    keeper.settle()
    assert 0 < keeper.base_bytes <= resident_bytes()
    memos = _filled(budget, 250)
    assert budget.held_bytes > 240 * _MB and keeper.look()
    budget.limit_bytes = 60 * _MB  # as where what is kept weighs more than it was thought to
    assert keeper.look()
    assert resident_bytes() <= keeper.limit_bytes and budget.held_bytes < 120 * _MB
    told = keeper.told()
    assert told["held_mb"] <= told["limit_mb"] == pytest.approx(told["base_mb"] + 60, abs=0.2)
    # The newest is there still, the oldest is not.
    assert memos[249 % 3].peek((), 249) is not None and memos[0].peek((), 0) is None


def test_what_nothing_kept_is_to_blame_for_is_told(monkeypatch: pytest.MonkeyPatch) -> None:
    budget = Budget(50 * _MB)
    keeper = MemoryKeeper(budget)
    keeper.base_bytes = 10 * _MB
    monkeypatch.setattr(memory, "resident_bytes", lambda: 500 * _MB)
    _filled(budget, 20)
    assert not keeper.look() and budget.held_bytes < 5 * _MB


def test_weights_by_hand_and_of_random_things() -> None:
    assert bytes_of(np.zeros(1000)) == 8200
    assert bytes_of("a" * 50) == 250
    reading = Reading(floor="f", at=(1.0, 2.0), device="ap-1", band="5", dbm=-60)
    one = bytes_of(reading)
    assert 800 < one < 3000  # five fields of their own, one of two numbers
    many = bytes_of([reading] * 5000)
    assert many == pytest.approx(5000 * (bytes_of(reading, 1) + 8), rel=0.01)
    chance = random.Random(1)
    mixed = ["x" * chance.randint(1, 400) for _ in range(4000)]
    whole = sum(bytes_of(text) + 8 for text in mixed)
    assert bytes_of(mixed) == pytest.approx(whole, rel=0.4)  # a few tell of all


def test_the_health_says_what_is_held(repository: Repository) -> None:
    client: FlaskClient = create_app(repository).test_client()
    told = client.get("/api/health").get_json()["memory"]
    assert told["held_mb"] > 50 and told["budget_mb"] == 800
    assert told["limit_mb"] == pytest.approx(told["base_mb"] + told["budget_mb"], abs=0.2)
