"""How long work says how far it is, asks whether it is still wanted, and gives way to others."""

from __future__ import annotations

import os
import threading
from collections.abc import Callable, Mapping
from typing import Any

Progress = Callable[[int, int], bool]  # (done, of so many; 0 where nobody knows) -> whether to go on


ShowBest = Callable[[Mapping[str, Any]], None]  # the best so far, to whoever waits for it
_NICENESS = 19


def give_way() -> None:
    """Let this thread, and the threads that it starts, yield the processors to whoever draws.

    There is no way back: it is for a thread that does nothing else.
    """
    os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), _NICENESS)


def always(_done: int, _total: int) -> bool:
    """Go on, whoever asks."""
    return True
