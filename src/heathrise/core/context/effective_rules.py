"""Which figures of the trade hold for a design: the project's, else its profile's, the firm's, as shipped."""

from __future__ import annotations

from ..base.memo import IdentityMemo
from ..catalogue import Catalogue, figures_of
from ..design import Design, OwnFigure, Practice

_ruled: IdentityMemo[Catalogue] = IdentityMemo(8, weigh=lambda _: 200_000)


def in_force(design: Design, catalogue: Catalogue) -> Catalogue:
    """Return the catalogue under a design's own figures; the same object for the same figures."""
    table, practices = design.of(OwnFigure), design.of(Practice)
    wanted = {own.figure: own.value for own in table.values()}
    practice = next(iter(practices.values()), None)
    profile = figures_of(practice, catalogue.matters) if practice is not None else {}
    rules = catalogue.rules
    if wanted == rules.own("project") and profile == rules.own("profile"):
        return catalogue
    return _ruled.get(
        (catalogue, table, practices),
        None,
        lambda: catalogue.ruled_by(rules.by_profile(profile).by_project(wanted)),
    )
