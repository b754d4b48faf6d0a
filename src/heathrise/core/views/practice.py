"""How a plan goes about each matter: the school of its practice profile, and what stands in its place."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar

from pydantic import Field

from ..base.frozen import Frozen
from ..catalogue import Matter, School, choice_of, site_of, wrong_number
from ..context.plan import Plan
from ..context.practice import practice_of
from ..design import Change, DesignError, OwnFigure, Practice, Problem, free_number, put, remove

KEPT_AS = "practice"  # the id of the one that a project goes by


class SchoolRow(Frozen):
    """One school of a matter; ``value`` is its number where it takes one, else None."""

    KEY: ClassVar = ("key",)

    key: str
    label: str
    reason: str
    does: str
    unit: str = ""
    value: float | None = None
    least: float = 0
    most: float = 0


class MatterRow(Frozen):
    """A matter: the school of the profile, the one that holds in this project, and why."""

    KEY: ClassVar = ("matter",)

    matter: str
    label: str
    schools: tuple[SchoolRow, ...]
    profile: str = Field(description="school of the profile")
    taken: str | None = Field(description="school that holds here; None where its figures are mixed")
    value: float | None
    own: bool = Field(description="whether somebody chose otherwise for this project")
    reason: str


class PracticeView(Frozen):
    """The practice profile that a plan goes by, matter by matter."""

    name: str
    rows: tuple[MatterRow, ...]


def practice_view(plan: Plan) -> PracticeView:
    """Return how a plan goes about every matter."""
    practice = practice_of(plan.drawn, plan.shelf)
    return PracticeView(
        name=practice.name,
        rows=tuple(_row(plan, practice, key, matter) for key, matter in plan.catalogue.matters.items()),
    )


def _row(plan: Plan, practice: Practice, key: str, matter: Matter) -> MatterRow:
    choice = choice_of(practice, key, matter)
    theirs = matter.schools[choice.school]
    taken = _taken(plan, matter)
    school = matter.schools[taken] if taken is not None else None
    value = _number(plan, school) if school is not None else None
    wanted = _value(theirs, choice.value)
    own = taken != choice.school or value != wanted
    reason = choice.reason or theirs.reason
    if own:
        reason = f"chosen for this project; {school.reason}" if school else "its figures are set one by one"
    return MatterRow(
        matter=key,
        label=matter.label,
        schools=tuple(_school(k, s) for k, s in matter.schools.items()),
        profile=choice.school,
        taken=taken,
        value=value,
        own=own,
        reason=reason,
    )


def _school(key: str, school: School) -> SchoolRow:
    row = SchoolRow(key=key, label=school.label, reason=school.reason, does=school.does)
    if school.takes is None:
        return row
    takes = school.takes
    bounds = {"unit": takes.unit, "value": takes.value, "least": takes.least, "most": takes.most}
    return row.model_copy(update=bounds)


def _value(school: School, said: float | None) -> float | None:
    return None if school.takes is None else school.takes.value if said is None else said


def _number(plan: Plan, school: School) -> float | None:
    """Return the number that a school has in a plan; of several figures the first."""
    takes = school.takes
    if takes is None:
        return None
    return float(getattr(plan.drawn.site, takes.site)) if takes.site else plan.rules[takes.paths[0]]


def _taken(plan: Plan, matter: Matter) -> str | None:
    """Return the school that a plan goes by: one whose own number it has before one that can take it."""
    for usual in (True, False):
        for key, school in matter.schools.items():
            takes, number = school.takes, _number(plan, school)
            if takes is not None and number is not None:
                fits = number == takes.value if usual else takes.least <= number <= takes.most
            else:
                fits = usual
            if fits and _holds(plan, school, number):
                return key
    return None


def _holds(plan: Plan, school: School, number: float | None) -> bool:
    """Whether a plan has all that a school with a number stands for."""
    site, figures = plan.drawn.site, plan.rules.figures
    return all(figures[p].value == v for p, v in school.figures_with(number).items()) and all(
        getattr(site, f) == v for f, v in school.site_with(number).items()
    )


def school_changes(plan: Plan, key: str, school: str, value: float | None) -> tuple[Change, ...]:
    """Return the changes by which one project goes by a school, whatever its profile says.

    Raises:
        DesignError: there is no such matter or school, or the number is out of its bounds.
    """
    matter = plan.catalogue.matters.get(key)
    chosen = matter.schools.get(school) if matter is not None else None
    if matter is None or chosen is None:
        raise DesignError([Problem("school", f"there is no school {school[:40]!r} of {key[:40]!r}")])
    if value is not None and (wrong := wrong_number(matter, chosen, value)) is not None:
        raise DesignError([Problem("value", wrong)])
    changes: list[Change] = []
    site = plan.drawn.site.model_copy(update=chosen.site_with(value))
    if site != plan.drawn.site:
        changes.append(put(site))
    wanted = chosen.figures_with(value)
    figures = plan.rules.figures
    own = {o.figure: o for o in plan.drawn.of(OwnFigure).values()}
    every = {p for s in matter.schools.values() for p in s.figures_with(None)}
    ids = set(plan.drawn.of(OwnFigure))
    for path in sorted(every):
        needed = path in wanted and figures[path].usual != wanted[path]
        if not needed and path in own:
            changes.append(remove(own[path]))
        elif needed and (path not in own or own[path].value != wanted[path]):
            at = own[path].id if path in own else f"figure-{free_number(ids, 'figure')}"
            ids.add(at)
            changes.append(put(OwnFigure(id=at, figure=path, value=wanted[path])))
    return tuple(changes)


def profile_changes(plan: Plan, practice: Practice) -> tuple[Change, ...]:
    """Return the changes by which a plan goes by another profile. What somebody chose for this project
    stays: figures of its own, and choices for the site that are not as the profile of before has them."""
    matters, site = plan.catalogue.matters, plan.drawn.site
    before = site_of(practice_of(plan.drawn, plan.shelf), matters)
    wanted = {f: v for f, v in site_of(practice, matters).items() if getattr(site, f) == before.get(f)}
    changed = site.model_copy(update=wanted)
    kept = practice.model_copy(update={"id": KEPT_AS})
    return (put(kept), *((put(changed),) if changed != site else ()))


def differing_matters(plan: Plan, practice: Practice) -> Iterator[tuple[Matter, School, School]]:
    """Yield the matters that another profile sees differently, with both schools."""
    now = practice_of(plan.drawn, plan.shelf)
    for key, matter in plan.catalogue.matters.items():
        old, new = (choice_of(p, key, matter) for p in (now, practice))
        a, b = matter.schools[old.school], matter.schools[new.school]
        if old.school != new.school or _value(a, old.value) != _value(b, new.value):
            yield matter, a, b
