"""Evaluations as they go over the wire: each made once, whoever waits for it, and kept, so that
whoever has one is told only what is different in the next."""

from __future__ import annotations

import json
import secrets
import time
from concurrent.futures import Future
from dataclasses import dataclass, field, replace
from itertools import count
from threading import Lock

from ..core.base.memo import IdentityMemo
from ..core.catalogue import Catalogue
from ..core.evaluation.evaluate import Evaluation, evaluate
from ..store import Saved
from .patches import Tree, patch

KEPT = 200
_FRESH_SECONDS = 0.4
_OVER_TEXT = 8  # times that plain data weighs more than its text


@dataclass(frozen=True, eq=False)
class Worked:
    """An evaluation of one revision as plain data. ``mark`` is what it is known by; ``weight``
    is that of one which is kept, in bytes of memory."""

    mark: str
    revision: int
    tree: Tree
    searching: bool
    weight: int = 0
    made_s: float = field(default_factory=time.monotonic)

    @property
    def is_fresh(self) -> bool:
        """Whether it was worked out just now."""
        return time.monotonic() - self.made_s < _FRESH_SECONDS


class Answers:
    """The evaluations of the last revisions, under the catalogue they were made with. What is kept
    counts within the budget of all that is."""

    def __init__(self) -> None:
        self._lock, self._writing = Lock(), Lock()
        self._under_way: dict[tuple[int, int], Future[Worked]] = {}
        self._settled: IdentityMemo[Worked] = IdentityMemo(KEPT, weigh=lambda w: w.weight)
        self._by_mark: IdentityMemo[Worked] = IdentityMemo(KEPT, weigh=lambda w: w.weight)
        self._texts: IdentityMemo[bytes] = IdentityMemo(KEPT)
        # Marks of another process mean nothing here.
        self._run, self._numbers = secrets.token_hex(4), count(1)

    def figures(self, saved: Saved, catalogue: Catalogue) -> Worked:
        """Return the evaluation, channels as far as they are known by now."""
        kept = self._settled.peek((saved.design, catalogue), None)
        # One with channels still searched for is worked out anew, but not for each who asks.
        if kept is not None and (not kept.searching or kept.is_fresh):
            return kept
        key = (id(saved.design), id(catalogue))  # both are held for as long as it is under way
        with self._lock:
            theirs = self._under_way.get(key)
            if theirs is None:
                mine = self._under_way[key] = Future()
        if theirs is not None:
            return theirs.result()
        try:
            result = evaluate(saved.design, catalogue, "figures")
            worked = self.keep(result, saved.revision)
            self.settle(saved, catalogue, worked)
            mine.set_result(worked)
        except BaseException as error:
            mine.set_exception(error)
            raise
        finally:
            with self._lock:
                del self._under_way[key]
        return worked

    def keep(self, result: Evaluation, revision: int) -> Worked:
        """Keep an evaluation, so that the next can be told by what is different."""
        weight = _OVER_TEXT * len(result.model_dump_json())
        worked = replace(self.once(result, revision), weight=weight)
        self._by_mark.put((), worked.mark, worked)
        return worked

    def once(self, result: Evaluation, revision: int) -> Worked:
        """Return an evaluation that nothing will be told by."""
        mark = f"{self._run}-{next(self._numbers)}"
        return Worked(mark, revision, result.model_dump(mode="json"), result.searching)

    def settle(self, saved: Saved, catalogue: Catalogue, worked: Worked) -> None:
        """Note that an evaluation that was kept is that of a saved revision."""
        self._settled.put((saved.design, catalogue), None, worked)

    def text(self, worked: Worked, base: str | None) -> bytes:
        """Return an ``Answer``: what is different from the one known by ``base``, else all. All who
        ask for the same are given the same object."""
        before = self._by_mark.peek((), base) if base else None
        known = base if before is not None else None

        def write() -> bytes:
            answer = {
                "revision": worked.revision,
                "mark": worked.mark,
                "base": known,
                "evaluation": worked.tree if before is None else None,
                "patch": patch(before.tree, worked.tree) if before is not None else None,
            }
            return json.dumps(answer, separators=(",", ":"), ensure_ascii=False).encode()

        with self._writing:  # who comes second waits for the first rather than write it again
            return self._texts.get((worked,), known, write)

    def whole(self, saved: Saved, catalogue: Catalogue) -> Evaluation:
        """Return the evaluation for a file: it waits for the search that all share."""
        return evaluate(saved.design, catalogue)
