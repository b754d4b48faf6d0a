"""Evaluations as they go over the wire: each made once, whoever waits for it, and kept, so that
whoever has one is told only what is different in the next."""

from __future__ import annotations

import json
import secrets
from collections import OrderedDict
from concurrent.futures import Future
from dataclasses import dataclass
from itertools import count
from threading import Lock

from ..core.catalogue import Catalogue
from ..core.evaluate import Evaluation, evaluate
from ..store import Saved
from .patches import Tree, patch

_KEPT = 24


@dataclass(frozen=True)
class Worked:
    """An evaluation of one revision as plain data. ``mark`` is what it is known by."""

    mark: str
    revision: int
    tree: Tree
    searching: bool


class Answers:
    """The evaluations of the last revisions, under the catalogue they were made with."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._made: OrderedDict[tuple[str, int, int], Future[Worked]] = OrderedDict()
        self._by_mark: OrderedDict[str, Worked] = OrderedDict()
        # Marks of another process mean nothing here.
        self._run, self._numbers = secrets.token_hex(4), count(1)

    def figures(self, saved: Saved, catalogue: Catalogue) -> Worked:
        """Return the evaluation, channels as far as they are known by now."""
        key = (saved.id, saved.revision, id(catalogue))
        with self._lock:
            under_way = self._made.get(key)
            if under_way is None or (under_way.done() and _unfinished(under_way)):
                mine = self._made[key] = Future()
            else:
                mine = None
            self._made.move_to_end(key)
            while len(self._made) > _KEPT:
                self._made.popitem(last=False)
        if mine is None:
            assert under_way is not None
            return under_way.result()
        try:
            result = evaluate(saved.design, catalogue, "figures")
            worked = self.keep(result, saved.revision)
            mine.set_result(worked)
        except BaseException as error:
            mine.set_exception(error)
            raise
        return worked

    def keep(self, result: Evaluation, revision: int) -> Worked:
        """Keep an evaluation, so that the next can be told by what is different."""
        worked = self.once(result, revision)
        with self._lock:
            self._by_mark[worked.mark] = worked
            while len(self._by_mark) > _KEPT:
                self._by_mark.popitem(last=False)
        return worked

    def once(self, result: Evaluation, revision: int) -> Worked:
        """Return an evaluation that nothing will be told by."""
        mark = f"{self._run}-{next(self._numbers)}"
        return Worked(mark, revision, result.model_dump(mode="json"), result.searching)

    def settle(self, saved: Saved, catalogue: Catalogue, worked: Worked) -> None:
        """Note that an evaluation that was kept is that of a saved revision."""
        done: Future[Worked] = Future()
        done.set_result(worked)
        with self._lock:
            self._made[saved.id, saved.revision, id(catalogue)] = done

    def text(self, worked: Worked, base: str | None) -> str:
        """Return an ``Answer``: what is different from the one known by ``base``, else all."""
        with self._lock:
            before = self._by_mark.get(base or "")
        known = before is not None
        answer = {
            "revision": worked.revision,
            "mark": worked.mark,
            "base": base if known else None,
            "evaluation": None if known else worked.tree,
            "patch": patch(before.tree, worked.tree) if before is not None else None,
        }
        return json.dumps(answer, separators=(",", ":"), ensure_ascii=False)

    def whole(self, saved: Saved, catalogue: Catalogue) -> Evaluation:
        """Return the evaluation for a file: it waits for the search that all share."""
        return evaluate(saved.design, catalogue)


def _unfinished(made: Future[Worked]) -> bool:
    return made.exception() is not None or made.result().searching
