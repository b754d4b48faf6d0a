"""A cache for results computed from parts of a design, which are compared by identity.

All caches together keep no more than one budget of memory: what was asked for longest ago goes
first, whichever cache it lies in.
"""

from __future__ import annotations

import os
from collections import OrderedDict
from collections.abc import Callable, Hashable, Mapping, Sequence
from dataclasses import fields, is_dataclass
from threading import RLock
from typing import Any, Generic, TypeVar

import numpy as np
from pydantic import BaseModel

R = TypeVar("R")

BUDGET_MB = 800
BUDGET_VARIABLE = "HEATHRISE_CACHE_MB"
_OBJECT_BYTES = 200
_DEEPEST = 4
_LONG = 24
_FEW = 6
_PLAIN = frozenset({int, float, bool, type(None)})


def bytes_of(value: object, depth: int = 0) -> int:
    """Return roughly how much memory a result takes."""
    if isinstance(value, np.ndarray):
        return int(value.nbytes) + _OBJECT_BYTES
    if isinstance(value, str | bytes):
        return len(value) + _OBJECT_BYTES
    return _OBJECT_BYTES if depth == _DEEPEST else _of_all(_inside(value), depth + 1)


def _inside(value: object) -> Sequence[object]:
    if isinstance(value, tuple | list):
        return value
    if isinstance(value, BaseModel):
        return list(value.__dict__.values())  # another thread may keep what it works out there
    if isinstance(value, Mapping):
        return list(value.values())
    if is_dataclass(value):
        return [getattr(value, f.name) for f in fields(value)]
    return ()


def _of_all(values: Sequence[object], depth: int) -> int:
    """Return the weight of what holds these; of many, which are much alike, a few tell."""
    few = values[:: len(values) // _FEW] if len(values) > _LONG else values
    # Most are numbers; a call for each would take longer than much of what is weighed.
    weight = sum(_OBJECT_BYTES if type(v) in _PLAIN else bytes_of(v, depth) for v in few)
    if few is not values:
        weight = 8 * len(values) + len(values) * weight // len(few)
    return _OBJECT_BYTES + weight


class Budget:
    """What all caches may weigh together, and what lies in them, the longest unasked first."""

    def __init__(self, limit_bytes: int) -> None:
        self.limit_bytes = limit_bytes
        self.held_bytes = 0
        self.lock = RLock()
        self._order: OrderedDict[tuple[int, Hashable], tuple[IdentityMemo[Any], int]] = OrderedDict()

    def touch(self, memo: IdentityMemo[Any], key: Hashable) -> None:
        self._order.move_to_end((id(memo), key))

    def add(self, memo: IdentityMemo[Any], key: Hashable, weight: int) -> None:
        """Take a result in, and let others go until all fits; the newest always stays."""
        self._order[id(memo), key] = (memo, weight)
        self.held_bytes += weight
        while self.held_bytes > self.limit_bytes and len(self._order) > 1:
            (_, oldest), (owner, _) = next(iter(self._order.items()))
            owner.forget(oldest)

    def shrink(self, to_bytes: int) -> None:
        """Let what was asked for longest ago go until no more than this is left."""
        with self.lock:
            while self.held_bytes > to_bytes and self._order:
                (_, oldest), (owner, _) = next(iter(self._order.items()))
                owner.forget(oldest)

    def remove(self, memo: IdentityMemo[Any], key: Hashable) -> None:
        _, weight = self._order.pop((id(memo), key))
        self.held_bytes -= weight


def _limit_bytes() -> int:
    text = os.environ.get(BUDGET_VARIABLE, "")
    return 1_000_000 * (int(text) if text.isdigit() and int(text) > 0 else BUDGET_MB)


BUDGET = Budget(_limit_bytes())


class IdentityMemo(Generic[R]):
    """Keeps the last ``size`` results by the identity of the objects they were made from.

    A design's tables are never changed in place, so the same object means the same content.
    The objects are held with the result; their identity cannot be taken over by another.
    """

    def __init__(self, size: int, weigh: Callable[[R], int] = bytes_of, budget: Budget = BUDGET) -> None:
        self._size = size
        self._weigh = weigh
        self._budget = budget
        self._rows: OrderedDict[Hashable, tuple[tuple[Any, ...], R]] = OrderedDict()

    def get(self, objects: tuple[Any, ...], values: Hashable, compute: Callable[[], R]) -> R:
        """Return the result for ``objects`` (by identity) and ``values`` (by equality)."""
        key = (tuple(id(o) for o in objects), values)
        with self._budget.lock:
            if key in self._rows:
                self._rows.move_to_end(key)
                self._budget.touch(self, key)
                return self._rows[key][1]
        result = compute()
        self._add(key, objects, result)
        return result

    def put(self, objects: tuple[Any, ...], values: Hashable, result: R) -> None:
        """Keep a result in place of one that is kept already."""
        key = (tuple(id(o) for o in objects), values)
        with self._budget.lock:
            if key in self._rows:
                self.forget(key)
        self._add(key, objects, result)

    def _add(self, key: Hashable, objects: tuple[Any, ...], result: R) -> None:
        weight = self._weigh(result)
        with self._budget.lock:
            if key not in self._rows:
                self._rows[key] = (objects, result)
                self._budget.add(self, key, weight)
            while len(self._rows) > self._size:
                self.forget(next(iter(self._rows)))

    def peek(self, objects: tuple[Any, ...], values: Hashable) -> R | None:
        """Return what is kept, or None; nothing is worked out."""
        key = (tuple(id(o) for o in objects), values)
        with self._budget.lock:
            row = self._rows.get(key)
            if row is None:
                return None
            self._rows.move_to_end(key)
            self._budget.touch(self, key)
        return row[1]

    def forget(self, key: Hashable) -> None:
        """Let one result go."""
        del self._rows[key]
        self._budget.remove(self, key)
