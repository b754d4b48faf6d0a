"""A plan as a value: what is drawn, under which figures and prices, and what follows from it.

A question about a plan is a function of it. What it is answered with is kept, so that whoever
asks next is given the same answer: screen, order, offer and hand-over cannot tell two figures.
"""

from __future__ import annotations

import time
from collections.abc import Callable, Hashable, Mapping, Sequence
from concurrent.futures import Future
from dataclasses import dataclass, field, replace
from datetime import UTC, date, datetime
from functools import cached_property, wraps
from threading import Lock
from types import MappingProxyType
from typing import Any, Literal, TypeVar, cast

from ..base.memo import IdentityMemo, bytes_of
from ..catalogue import Catalogue, FirmPrice, Prices, Rules
from ..design import Change, Design, apply
from .effective_rules import in_force
from .scope import as_planned, as_today

T = TypeVar("T")
NO_PRICES: Mapping[str, FirmPrice] = MappingProxyType({})


def utc_today() -> date:
    """Return the day it is, as every stamp of this program counts it."""
    return datetime.now(UTC).date()


@dataclass(frozen=True)
class _Answer:
    value: Any
    made_s: float


_answers: IdentityMemo[_Answer] = IdentityMemo(512, weigh=lambda answer: bytes_of(answer.value))
_scopes: IdentityMemo[Design] = IdentityMemo(64, weigh=lambda _: 20_000)
_under_way: dict[Hashable, Future[Any]] = {}
_lock = Lock()


def _always(_value: object, _age_s: float) -> bool:
    return True


@dataclass(frozen=True, eq=False)
class Plan:
    """A drawn design under a catalogue and the firm's prices.

    ``when`` says which gear takes part: as planned, or what was found; ``on`` is the day prices
    are asked for. A ``quick`` plan is looked at while something is dragged: what takes a search
    is left out. Answers are kept for as long as the plan itself; those of a ``shared`` one, which is
    a revision that many ask for, by what it is made of and as long as the budget of memory has room.
    """

    drawn: Design
    shelf: Catalogue
    prices: Mapping[str, FirmPrice] = field(default_factory=lambda: NO_PRICES)
    on: date = field(default_factory=utc_today)
    when: Literal["planned", "today"] = "planned"
    quick: bool = False
    shared: bool = False

    @cached_property
    def design(self) -> Design:
        """What takes part of what is drawn."""
        scope = as_planned if self.when == "planned" else as_today
        return _scopes.get((self.drawn,), self.when, lambda: scope(self.drawn))

    @cached_property
    def catalogue(self) -> Catalogue:
        """The catalogue under the figures that hold for this design."""
        return in_force(self.drawn, self.shelf)

    @property
    def rules(self) -> Rules:
        return self.catalogue.rules

    @cached_property
    def priced(self) -> Prices:
        """What each item costs: the firm's prices before those that are shipped."""
        return Prices(self.catalogue, self.prices)

    def redrawn(self, drawn: Design) -> Plan:
        """Return the plan of another drawing under the same catalogue and prices."""
        return replace(self, drawn=drawn, shared=False)

    def after(self, changes: Sequence[Change]) -> Plan:
        """Return the plan after some changes, which are not checked against the whole."""
        return self.redrawn(apply(self.drawn, list(changes))) if changes else self

    def as_it_is(self) -> Plan:
        """Return what was found there as a plan."""
        return replace(self, when="today")

    def hastily(self) -> Plan:
        """Return the plan as it is looked at while something is dragged."""
        return replace(self, quick=True, shared=False)

    def answer(
        self, question: str, work_out: Callable[[], T], stands: Callable[[T, float], bool] = _always
    ) -> T:
        """Return what a question is answered with, worked out once for all who ask.

        Args:
            stands: whether a kept answer, so many seconds old, still does.
        """
        kept = self._kept(question)
        if kept is not None and stands(kept.value, time.monotonic() - kept.made_s):
            return cast(T, kept.value)
        if not self.shared:
            value = work_out()
            self._own[question] = _Answer(value, time.monotonic())
            return value
        key = tuple(map(id, self._objects)), self._values(question)
        with _lock:
            theirs = _under_way.get(key)
            if theirs is None:
                mine = _under_way[key] = Future()
        if theirs is not None:
            value = theirs.result()
            return value if stands(value, 0.0) else self.answer(question, work_out, stands)
        try:
            value = work_out()
            _answers.put(self._objects, self._values(question), _Answer(value, time.monotonic()))
            mine.set_result(value)
        except BaseException as error:
            mine.set_exception(error)
            raise
        finally:
            with _lock:
                del _under_way[key]
        return value

    @cached_property
    def _own(self) -> dict[str, _Answer]:
        return {}

    @property
    def _objects(self) -> tuple[object, ...]:
        return self.drawn, self.shelf, self.prices

    def _values(self, question: str) -> Hashable:
        return question, self.on, self.when, self.quick

    def _kept(self, question: str) -> _Answer | None:
        if self.shared:
            return _answers.peek(self._objects, self._values(question))
        return self._own.get(question)


def answered(question: Callable[[Plan], T]) -> Callable[[Plan], T]:
    """Keep what a question about a plan is answered with."""
    name = f"{question.__module__}.{question.__qualname__}"

    @wraps(question)
    def ask(plan: Plan) -> T:
        return plan.answer(name, lambda: question(plan))

    return ask
