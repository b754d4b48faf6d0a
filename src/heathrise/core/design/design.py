"""The design as an immutable whole, and the changes that lead from one to the next."""

from __future__ import annotations

import itertools
from collections.abc import Container, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from types import MappingProxyType
from typing import Any, Literal, TypeVar

from pydantic import BaseModel, ConfigDict, ValidationError

from ..base.plain_text import plain_values
from .elements import Site
from .kinds import KIND_OF, KINDS
from .values import Element, ElementId

E = TypeVar("E", bound=Element)


class DesignError(ValueError):
    """A design or change that cannot be accepted.

    ``problems`` holds one ``Problem`` for each fault: where it is and what to do.
    """

    def __init__(self, problems: Sequence[Problem]) -> None:
        self.problems = tuple(problems)
        more = f" (and {len(problems) - 1} more)" if len(problems) > 1 else ""
        super().__init__(f"{problems[0]}{more}" if problems else "the design cannot be accepted")


@dataclass(frozen=True)
class Problem:
    """One fault in what was handed in: ``where`` is a path such as ``wall[w12].a``."""

    where: str
    what: str

    def __str__(self) -> str:
        return f"{self.where}: {self.what}" if self.where else self.what


@dataclass(frozen=True)
class Design:
    """Everything the installer has decided. Never changed; ``apply`` gives a new one."""

    tables: Mapping[str, Mapping[str, Element]] = field(default_factory=dict)

    def of(self, cls: type[E]) -> Mapping[str, E]:
        """Return the elements of one class by id, in order of placing."""
        return self.tables.get(KIND_OF[cls], _EMPTY)  # type: ignore[return-value]

    def get(self, kind: str, element_id: str) -> Element | None:
        return self.tables.get(kind, _EMPTY).get(element_id)

    @property
    def site(self) -> Site:
        return next(iter(self.of(Site).values()), _PLAIN_SITE)

    def elements(self) -> Iterable[tuple[str, Element]]:
        for kind in KINDS:
            for element in self.tables.get(kind, _EMPTY).values():
                yield kind, element


_EMPTY: Mapping[str, Any] = MappingProxyType({})
_PLAIN_SITE = Site(id="site")


class Put(BaseModel):
    """Place an element, or replace the one with its id."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    op: Literal["put"] = "put"
    kind: str
    element: dict[str, Any]

    @property
    def id(self) -> str:
        return str(self.element.get("id", ""))


class Remove(BaseModel):
    """Take an element away."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    op: Literal["remove"] = "remove"
    kind: str
    id: ElementId


Change = Put | Remove


def put(element: Element) -> Put:
    """Return the change that places ``element``."""
    return Put(kind=KIND_OF[type(element)], element=element.model_dump(mode="json"))


def remove(element: Element) -> Remove:
    return Remove(kind=KIND_OF[type(element)], id=element.id)


def parse_element(kind: str, data: Mapping[str, Any], where: str = "") -> Element:
    """Read one element from plain data.

    Raises:
        DesignError: with the path of every field that is wrong.
    """
    cls = KINDS.get(kind)
    place = where or f"{kind}[{data.get('id', '?')}]"
    if cls is None:
        raise DesignError([Problem(place, f"there is no kind of element called {kind[:40]!r}")])
    try:
        return cls.model_validate(plain_values(data, cls.LINES))
    except ValidationError as error:
        raise DesignError(list(describe(error, place))) from None


def describe(error: ValidationError, place: str) -> Iterable[Problem]:
    """Turn Pydantic's errors into problems with a path a person can follow."""
    for item in error.errors(include_url=False, include_context=False):
        path = "".join(f"[{p}]" if isinstance(p, int) else f".{p}" for p in item["loc"])
        yield Problem(f"{place}{path}", item["msg"])


def design_of(elements: Iterable[Element]) -> Design:
    """Return the design that holds these elements, each kind in the order given."""
    tables: dict[str, dict[str, Element]] = {}
    for element in elements:
        tables.setdefault(KIND_OF[type(element)], {})[element.id] = element
    return Design(tables)


def apply(design: Design, changes: Sequence[Change]) -> Design:
    """Return the design after ``changes``, in order. References are not checked here.

    Raises:
        DesignError: an element is malformed or one to be removed does not exist.
    """
    # Tables that no change touches stay the same objects: what was computed from them holds.
    tables = dict(design.tables)
    fresh = {c.kind: dict(tables.get(c.kind, _EMPTY)) for c in changes if c.kind in KINDS}
    tables.update(fresh)
    for change in changes:
        if isinstance(change, Put):
            element = parse_element(change.kind, change.element)
            fresh[change.kind][element.id] = element
        elif fresh.get(change.kind, {}).pop(change.id, None) is None:
            what = "is not in the design, so it cannot be removed"
            raise DesignError([Problem(f"{change.kind}[{change.id}]", what)])
    return Design(tables)


def inverse(design: Design, changes: Sequence[Change]) -> list[Change]:
    """Return the changes that lead back to ``design`` once ``changes`` were applied to it."""
    back: dict[tuple[str, str], Change] = {}
    for change in changes:
        before = design.get(change.kind, change.id)
        key = (change.kind, change.id)
        if before is not None:
            back[key] = put(before)
        elif isinstance(change, Put):
            back[key] = Remove(kind=change.kind, id=change.id)
        else:
            back.pop(key, None)
    return sorted(back.values(), key=_inverse_order)


def _inverse_order(change: Change) -> tuple[int, int]:
    rank = list(KINDS).index(change.kind)
    return (1, -rank) if isinstance(change, Remove) else (0, rank)


def free_number(taken: Container[str], stem: str) -> int:
    """Return the first number from 1 that makes a name of a stem which is not taken: ``sw-3``."""
    return next(k for k in itertools.count(1) if f"{stem}-{k}" not in taken)
