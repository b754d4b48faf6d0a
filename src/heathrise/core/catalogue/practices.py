"""Matters on which practitioners disagree, their schools, and the practice profiles that ship."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from pydantic import BaseModel, ConfigDict

from ..design import Practice, Problem, SchoolChoice, Site
from .rules import Rules, Value


class _Data(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)


class Taken(_Data):
    """The number that a school takes: into figures, or into a choice for the site."""

    paths: tuple[str, ...] = ()
    site: str | None = None
    value: float
    least: float = 1
    most: float = 1000
    unit: str


class School(_Data):
    """One way to see a matter: the figures and the choices for the site that it stands for."""

    label: str
    reason: str
    does: str = ""
    figures: dict[str, Value] = {}
    site: dict[str, Any] = {}
    takes: Taken | None = None

    def figures_with(self, value: float | None) -> dict[str, Value]:
        """Return its figures, those that take its number included."""
        if self.takes is None:
            return dict(self.figures)
        number = self.takes.value if value is None else value
        return {**self.figures, **dict.fromkeys(self.takes.paths, float(number))}

    def site_with(self, value: float | None) -> dict[str, Any]:
        """Return its choices for the site, that which takes its number included."""
        if self.takes is None or self.takes.site is None:
            return dict(self.site)
        number = self.takes.value if value is None else value
        return {**self.site, self.takes.site: int(number)}


class Matter(_Data):
    """What practitioners disagree about."""

    label: str
    schools: dict[str, School]

    @property
    def usual(self) -> str:
        """The school where nobody chose."""
        return next(iter(self.schools))


class ShippedPractice(_Data):
    """A practice profile that ships, and what it is about in words."""

    about: str
    practice: Practice


def choice_of(practice: Practice, key: str, matter: Matter) -> SchoolChoice:
    """Return what a profile takes on a matter."""
    found = next((c for c in practice.choices if c.matter == key), None)
    return found or SchoolChoice(matter=key, school=matter.usual)


def figures_of(practice: Practice, matters: Mapping[str, Matter]) -> dict[str, Value]:
    """Return all figures that a profile stands for by their path."""
    found: dict[str, Value] = {}
    for key, matter in matters.items():
        choice = choice_of(practice, key, matter)
        if (school := matter.schools.get(choice.school)) is not None:  # else it is refused elsewhere
            found |= school.figures_with(choice.value)
    return found


def site_of(practice: Practice, matters: Mapping[str, Matter]) -> dict[str, Any]:
    """Return all choices for the site that a profile stands for by their field."""
    found: dict[str, Any] = {}
    for key, matter in matters.items():
        choice = choice_of(practice, key, matter)
        if (school := matter.schools.get(choice.school)) is not None:
            found |= school.site_with(choice.value)
    return found


def wrong_number(matter: Matter, school: School, value: float) -> str | None:
    """Return why a school cannot take a number, or None where it can."""
    takes = school.takes
    if takes is None:
        return f"{matter.label}, {school.label} takes no number; leave it out"
    if takes.least <= value <= takes.most and value == int(value):
        return None
    return f"{matter.label} takes a whole number from {takes.least:g} to {takes.most:g} {takes.unit}"


def wrong_in(practice: Practice, matters: Mapping[str, Matter], where: str) -> Iterator[Problem]:
    """Yield what cannot be in a profile: matters and schools that there are not, numbers out of bounds."""
    seen: set[str] = set()
    for number, choice in enumerate(practice.choices):
        place = f"{where}.choices[{number}]"
        matter = matters.get(choice.matter)
        school = matter.schools.get(choice.school) if matter is not None else None
        if matter is None:
            yield Problem(f"{place}.matter", f"there is no matter {choice.matter!r}; take it out")
        elif school is None:
            known = ", ".join(matter.schools)
            what = f"{matter.label} has no school {choice.school!r}; there are {known}"
            yield Problem(f"{place}.school", what)
        elif choice.value is not None and (wrong := wrong_number(matter, school, choice.value)):
            yield Problem(f"{place}.value", wrong)
        if choice.matter in seen:
            yield Problem(place, f"{choice.matter} stands twice; keep one of them")
        seen.add(choice.matter)


def shipped(rows: Mapping[str, Any]) -> dict[str, ShippedPractice]:
    """Return the profiles that ship from their data."""
    found = {}
    for key, row in rows.items():
        choices = tuple(SchoolChoice(matter=m, **c) for m, c in row["choices"].items())
        made = Practice(id=key, name=row["name"], choices=choices)
        found[key] = ShippedPractice(about=row["about"], practice=made)
    return found


def check_matters(
    matters: Mapping[str, Matter], practices: Mapping[str, ShippedPractice], rules: Rules
) -> None:
    """Refuse shipped data that would refuse itself.

    Raises:
        ValueError: a school names a figure that there is not, or a value that it cannot have.
    """
    for key, matter in matters.items():
        for name, school in matter.schools.items():
            for path, value in school.figures_with(None).items():
                figure = rules.figures.get(path)
                if figure is None or figure.wrong(value) is not None:
                    raise ValueError(f"matters.{key}.{name}: {path} cannot be {value!r}")
            if unknown := set(school.site_with(None)) - set(Site.model_fields):
                raise ValueError(f"matters.{key}.{name}: a site has no {unknown}")
    for key, row in practices.items():
        for problem in wrong_in(row.practice, matters, key):
            raise ValueError(str(problem))
