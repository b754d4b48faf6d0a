"""Evaluations as they go over the wire: each made once, whoever waits for it, and kept, so that
whoever has one is told only what is different in the next."""

from __future__ import annotations

import secrets
from dataclasses import dataclass, replace
from itertools import count
from threading import Lock

from pydantic_core import to_json

from ..core.base.memo import IdentityMemo, bytes_of
from ..core.context.plan import Plan
from ..core.views.shown import Shown, shown
from .patches import Tree, patch

KEPT = 200


@dataclass(frozen=True, eq=False)
class Worked:
    """An evaluation of one revision as plain data. ``mark`` is what it is known by; ``weight``
    is that of one which is kept, in bytes of memory."""

    mark: str
    revision: int
    tree: Tree
    searching: bool
    weight: int = 0


class Answers:
    """What is shown of the last revisions. What is kept counts within the budget of all that is."""

    def __init__(self) -> None:
        self._keeping, self._writing = Lock(), Lock()
        self._by_what: IdentityMemo[Worked] = IdentityMemo(KEPT, weigh=lambda _: 0)
        self._by_mark: IdentityMemo[Worked] = IdentityMemo(KEPT, weigh=lambda w: w.weight)
        self._texts: IdentityMemo[bytes] = IdentityMemo(KEPT)
        # Marks of another process mean nothing here.
        self._run, self._numbers = secrets.token_hex(4), count(1)

    def figures(self, plan: Plan, revision: int) -> Worked:
        """Return what is shown of a plan, channels as far as they are known by now."""
        seen = shown(plan)
        with self._keeping:  # one mark for all who ask for the same
            return self._by_what.get((seen,), revision, lambda: self.keep(seen, revision))

    def keep(self, seen: Shown, revision: int) -> Worked:
        """Keep what is shown, so that the next can be told by what is different."""
        worked = self.once(seen, revision)
        worked = replace(worked, weight=bytes_of(worked.tree))
        self._by_mark.put((), worked.mark, worked)
        return worked

    def once(self, seen: Shown, revision: int) -> Worked:
        """Return what is shown as something that nothing will be told by."""
        mark = f"{self._run}-{next(self._numbers)}"
        return Worked(mark, revision, seen.model_dump(mode="json"), seen.searching)

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
            return to_json(answer)

        with self._writing:  # who comes second waits for the first rather than write it again
            return self._texts.get((worked,), known, write)
