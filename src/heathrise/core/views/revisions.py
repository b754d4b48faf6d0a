"""Two states of one plan beside each other: what came, what went, what was moved, and both feet's figures."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..context.plan import Plan
from ..design import KINDS, Change, Design, Element, Opening, Wall, put, remove
from ..evaluation.totals import Totals
from .shown import Price, shown

Spot = tuple[float, float]
How = Literal["added", "removed", "moved", "changed"]
_PLACES = ("at", "a", "b", "outline", "path", "offset_m", "floor")


class Differs(Frozen):
    """One thing that differs: as it lay and as it lies, in m; ``fields`` are those that differ."""

    kind: str
    id: str
    name: str
    how: How
    floor: str | None
    was: tuple[Spot, ...] = ()
    now: tuple[Spot, ...] = ()
    closed: bool = Field(False, description="a room's outline, that comes round")
    fields: tuple[str, ...] = ()


class Foot(Frozen):
    """What stands at the foot of a plan."""

    totals: Totals
    price: Price | None


class RevisionDifference(Frozen):
    """From an earlier state to a later one."""

    rows: tuple[Differs, ...]
    then: Foot
    now: Foot


def difference(then: Plan, now: Plan) -> RevisionDifference:
    """Return what differs between two states of a plan."""
    return RevisionDifference(rows=tuple(_rows(then.drawn, now.drawn)), then=_foot(then), now=_foot(now))


def _foot(plan: Plan) -> Foot:
    seen = shown(plan)
    return Foot(totals=seen.totals, price=seen.price)


def _rows(then: Design, now: Design) -> list[Differs]:
    found: list[Differs] = []
    for kind in KINDS:
        was, here = then.tables.get(kind, {}), now.tables.get(kind, {})
        for key in [*was, *(k for k in here if k not in was)]:
            before, after = was.get(key), here.get(key)
            if before != after:
                found.append(_differs(kind, (then, before), (now, after)))
    return found


def _differs(kind: str, then: tuple[Design, Element | None], now: tuple[Design, Element | None]) -> Differs:
    before, after = then[1], now[1]
    one = after or before
    assert one is not None
    fields: tuple[str, ...] = ()
    how: How = "added" if before is None else "removed"
    if before is not None and after is not None:
        names = type(after).model_fields
        fields = tuple(f for f in names if getattr(before, f) != getattr(after, f))
        how = "moved" if any(f in _PLACES for f in fields) else "changed"
    design = now[0] if after is not None else then[0]
    return Differs(
        kind=kind,
        id=one.id,
        name=str(getattr(one, "name", "")),
        how=how,
        floor=_floor(design, one),
        was=_shape(*then),
        now=_shape(*now),
        closed=hasattr(one, "outline"),
        fields=fields,
    )


def _floor(design: Design, element: Element) -> str | None:
    if isinstance(element, Opening):
        wall = design.of(Wall).get(element.wall)
        return wall.floor if wall is not None else None
    floor = getattr(element, "floor", None) or getattr(element, "from_floor", None)
    return str(floor) if floor is not None else None


def _shape(design: Design, element: Element | None) -> tuple[Spot, ...]:
    """Return where a thing lies: a spot, the ends of a line, corners; none where it lies nowhere."""
    if element is None:
        return ()
    if isinstance(element, Opening):
        wall = design.of(Wall).get(element.wall)
        return element.ends_in(wall) if wall is not None else ()
    for name in ("outline", "path"):
        if hasattr(element, name):
            return tuple(getattr(element, name))
    if hasattr(element, "a") and hasattr(element, "b"):
        return (element.a, element.b)
    return (element.at,) if hasattr(element, "at") else ()


def changes_between(before: Design, after: Design) -> list[Change]:
    """Return the changes that make one design of another; applied, each table has the same rows."""
    found: list[Change] = []
    for kind in KINDS:
        was = before.tables.get(kind, {})
        found += [put(e) for key, e in after.tables.get(kind, {}).items() if was.get(key) != e]
    for kind in reversed(KINDS):
        here = after.tables.get(kind, {})
        found += [remove(e) for key, e in before.tables.get(kind, {}).items() if key not in here]
    return found
