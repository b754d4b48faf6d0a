"""The practice profile that a design goes by, and whose choice each of its settings is."""

from __future__ import annotations

from typing import Literal

from ..catalogue import Catalogue, Rules, site_of
from ..design import Design, Practice

# Whose a setting is: the practice profile's, the firm's own figure, what the plan works out, what the brief
# says of the site and its rooms, or what a person chose in this project.
SaidBy = Literal["profile", "firm", "plan", "brief", "person"]
_FIGURE: dict[str, SaidBy] = {"shipped": "profile", "profile": "profile", "firm": "firm", "project": "person"}


def practice_of(design: Design, catalogue: Catalogue) -> Practice:
    """Return the profile that a design goes by: the first that ships where none was chosen."""
    first = next(iter(catalogue.practices.values())).practice
    return next(iter(design.of(Practice).values()), first)


def whose_figure(rules: Rules, path: str) -> SaidBy:
    """Return whose choice a figure is."""
    return _FIGURE[rules.figures[path].whose]


def whose_site(design: Design, catalogue: Catalogue, field: str) -> SaidBy:
    """Return whose choice for the site a field is: the profile's where it is as that has it."""
    said = site_of(practice_of(design, catalogue), catalogue.matters)
    return "profile" if said.get(field) == getattr(design.site, field) else "person"
