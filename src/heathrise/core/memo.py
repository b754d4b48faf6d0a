"""A cache for results computed from parts of a design, which are compared by identity."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Any, Generic, TypeVar

R = TypeVar("R")


class IdentityMemo(Generic[R]):
    """Keeps the last results by the identity of the objects they were made from.

    It keeps ``size`` of them, or as many as ``weigh`` together to no more than that.

    A design's tables are never changed in place, so the same object means the same content.
    The objects are held with the result; their identity cannot be taken over by another.
    """

    def __init__(self, size: int, weigh: Callable[[R], int] = lambda _: 1) -> None:
        self._size = size
        self._weigh = weigh
        self._held = 0
        self._rows: OrderedDict[Hashable, tuple[tuple[Any, ...], R]] = OrderedDict()
        self._lock = Lock()

    def get(self, objects: tuple[Any, ...], values: Hashable, compute: Callable[[], R]) -> R:
        """Return the result for ``objects`` (by identity) and ``values`` (by equality)."""
        key = (tuple(id(o) for o in objects), values)
        with self._lock:
            if key in self._rows:
                self._rows.move_to_end(key)
                return self._rows[key][1]
        result = compute()
        with self._lock:
            if key not in self._rows:
                self._rows[key] = (objects, result)
                self._held += self._weigh(result)
            while self._held > self._size and len(self._rows) > 1:
                _, (_, dropped) = self._rows.popitem(last=False)
                self._held -= self._weigh(dropped)
        return result
