"""Channel searches: each made once, whoever waits for it, and kept."""

from __future__ import annotations

from collections import OrderedDict
from concurrent.futures import Future, ThreadPoolExecutor
from threading import Lock

from ..base.progress import give_way
from .channels import ChannelProblem, Solution, greedy, solve

_KEPT = 256
_AT_ONCE = 1


class Searches:
    """Solutions by task. One search serves all who ask for the same."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._found: OrderedDict[ChannelProblem, Future[Solution]] = OrderedDict()
        self._pool = ThreadPoolExecutor(_AT_ONCE, thread_name_prefix="channels", initializer=give_way)

    def begin(self, task: ChannelProblem) -> Future[Solution]:
        """Return the search of a task, begun now unless it is known or under way."""
        with self._lock:
            found = self._found.get(task)
            if found is None:
                found = self._found[task] = self._pool.submit(solve, task)
            self._found.move_to_end(task)
            while len(self._found) > _KEPT:
                _, dropped = self._found.popitem(last=False)
                dropped.cancel()
            return found

    def now(self, task: ChannelProblem) -> tuple[Solution, bool]:
        """Return the best known at once, and whether a search for better is still under way."""
        found = self.begin(task)
        if found.done() and not found.cancelled():
            return found.result(), False
        return greedy(task), True


searches = Searches()
