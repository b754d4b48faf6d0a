"""Evaluations as they go over the wire: each made once, whoever waits for it, and kept."""

from __future__ import annotations

from collections import OrderedDict
from concurrent.futures import Future
from threading import Lock

from ..core.catalogue import Catalogue
from ..core.evaluate import Evaluation, evaluate
from ..store import Saved
from .models import Answer

_KEPT = 12


class Answers:
    """The evaluation of each project's last revision under a catalogue, as JSON."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._made: OrderedDict[tuple[str, int, int], Future[tuple[str, bool]]] = OrderedDict()

    def figures(self, saved: Saved, catalogue: Catalogue) -> str:
        """Return the evaluation as an ``Answer``, channels as far as they are known by now."""
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
            return under_way.result()[0]
        try:
            result = evaluate(saved.design, catalogue, "figures")
            text = Answer(revision=saved.revision, evaluation=result).model_dump_json()
            mine.set_result((text, result.searching))
        except BaseException as error:
            mine.set_exception(error)
            raise
        return text

    def whole(self, saved: Saved, catalogue: Catalogue) -> Evaluation:
        """Return the evaluation for a file: it waits for the search that all share."""
        return evaluate(saved.design, catalogue)


def _unfinished(made: Future[tuple[str, bool]]) -> bool:
    return made.exception() is not None or made.result()[1]
