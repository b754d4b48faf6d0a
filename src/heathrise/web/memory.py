"""Holds the whole process to its budget of memory: what is kept is let go before more is taken."""

from __future__ import annotations

import contextlib
import ctypes
import gc
import threading
import time
from pathlib import Path

from ..core.base.memo import BUDGET, Budget

LOOKS_EVERY_SECONDS = 1.0
_SHRINK_TO = 0.7  # of what is kept, each time it is too much
_TIMES = 8  # that it is shrunk in a row, after which nothing that is kept is to blame
_MB = 1e6


def resident_bytes() -> int:
    """Return how much memory this process holds, as the system counts it."""
    pages = int(Path("/proc/self/statm").read_text("ascii").split()[1])
    return pages * 4096


def give_back() -> None:
    """Let go of what nothing refers to, and hand it back to the system."""
    gc.collect()
    with contextlib.suppress(OSError, AttributeError):
        ctypes.CDLL("libc.so.6").malloc_trim(0)


class MemoryKeeper:
    """Looks from time to time at what the process holds beyond its base: what it holds once it is
    warm and nothing is kept yet."""

    def __init__(self, budget: Budget = BUDGET) -> None:
        self._budget = budget
        self.base_bytes = 0

    def settle(self) -> None:
        """Take what the process holds now, less what it keeps, for its base."""
        give_back()
        self.base_bytes = max(0, resident_bytes() - self._budget.held_bytes)

    @property
    def limit_bytes(self) -> int:
        return self.base_bytes + self._budget.limit_bytes

    def look(self) -> bool:
        """Let go of what was asked for longest ago while the process holds too much; return
        whether it holds no more than it may."""
        for _ in range(_TIMES):
            if not self.base_bytes or resident_bytes() <= self.limit_bytes:
                return True
            self._budget.shrink(int(_SHRINK_TO * self._budget.held_bytes))
            give_back()
        return resident_bytes() <= self.limit_bytes

    def told(self) -> dict[str, float]:
        """Return what is held and what may be, in MB."""
        return {
            "held_mb": round(resident_bytes() / _MB, 1),
            "kept_mb": round(self._budget.held_bytes / _MB, 1),
            "base_mb": round(self.base_bytes / _MB, 1),
            "budget_mb": round(self._budget.limit_bytes / _MB, 1),
            "limit_mb": round(self.limit_bytes / _MB, 1),
        }

    def begin(self) -> None:
        """Look for as long as the process lives."""
        threading.Thread(target=self._keep_looking, daemon=True, name="memory").start()

    def _keep_looking(self) -> None:
        while True:
            time.sleep(LOOKS_EVERY_SECONDS)
            self.look()


KEEPER = MemoryKeeper()
