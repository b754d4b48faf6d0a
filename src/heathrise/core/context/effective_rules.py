"""Which figures of the trade hold for a design: the project's, else the firm's, else as shipped."""

from __future__ import annotations

from ..base.memo import IdentityMemo
from ..catalogue import Catalogue
from ..design import Design, OwnFigure

_ruled: IdentityMemo[Catalogue] = IdentityMemo(8, weigh=lambda _: 200_000)


def in_force(design: Design, catalogue: Catalogue) -> Catalogue:
    """Return the catalogue under a design's own figures; the same object for the same figures."""
    table = design.of(OwnFigure)
    wanted = {own.figure: own.value for own in table.values()}
    if wanted == catalogue.rules.own("project"):
        return catalogue
    return _ruled.get(
        (catalogue, table), None, lambda: catalogue.ruled_by(catalogue.rules.by_project(wanted))
    )
