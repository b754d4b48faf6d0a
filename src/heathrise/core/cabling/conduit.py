"""How full a pipe may be, and which pipe the cables through a duct ask for."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ..catalogue import Catalogue, Rules
from ..context.findings import Finding, Place
from ..design import Design, Duct
from .links import LinkVerdict


def fill(diameters_mm: Sequence[float], inside_mm: float) -> float:
    """Return the share of a pipe's area that cables take, ``sum d^2 / D^2``; mm.

    References:
        NFPA 70, chapter 9, areas of cables over the area of a conduit.
    """
    return sum(d * d for d in diameters_mm) / inside_mm**2


def _fill_figure(cables: int) -> str:
    """Return the path of the share that so many cables may take; three stand for more."""
    return f"cabling.fill_share.{min(cables, 3)}"


def conduit_for(rules: Rules, diameters_mm: Sequence[float]) -> str | None:
    """Return the narrowest conduit that takes the cables, or None where none does.

    References:
        NFPA 70, chapter 9, table 1: shares for one, two, and three cables or more.
    """
    limit = rules[_fill_figure(len(diameters_mm))]
    sizes = sorted(rules.table("cabling.conduit_mm").items(), key=lambda row: row[1])
    fitting = (k for k, inside in sizes if fill(diameters_mm, inside) <= limit)
    return next(fitting, None)


def _diameter_mm(catalogue: Catalogue, link: LinkVerdict) -> float:
    if link.medium == "fibre":
        return catalogue.fibres[link.category].diameter_mm
    ground_mm = catalogue.rules["cabling.outdoor_diameter_mm"]
    return max(catalogue.cables[link.category].diameter_mm, ground_mm)


def duct_findings(design: Design, catalogue: Catalogue, links: Sequence[LinkVerdict]) -> Iterator[Finding]:
    """Yield for each duct in use what goes through it and the pipe that it asks for."""
    rules = catalogue.rules
    conduits_mm = rules.table("cabling.conduit_mm")
    widest = max(conduits_mm, key=lambda k: conduits_mm[k])
    for duct in design.of(Duct).values():
        cables = [
            _diameter_mm(catalogue, link)
            for link in links
            if any(leg.way == duct.id for leg in link.legs)
            for _ in range(link.cables)
        ]
        if not cables:
            continue
        figures = (_fill_figure(len(cables)), "cabling.outdoor_diameter_mm")
        pipe = conduit_for(rules, cables)
        count = f"{len(cables)} cable{'s' if len(cables) > 1 else ''}"
        if pipe is None:
            text = f"{duct.name}: {count} are more than a {widest} conduit takes; lay a second one."
            share = fill(cables, conduits_mm[widest])
        else:
            share = fill(cables, conduits_mm[pipe])
            text = f"{duct.name}: {count} ask for a {pipe} conduit, {share:.0%} full."
        yield Finding(
            id=f"cable-duct-{duct.id}",
            stage="cable",
            severity="near" if pipe is None else "note",
            text=text,
            places=(Place(kind="duct", id=duct.id, floor=duct.from_floor, at=duct.path[0]),),
            figure=round(100 * share, 1),
            limit=round(100 * rules[figures[0]]),
            unit="% of its area",
            rule="cables take a share of their pipe: one, two, three or more",
            source=rules.source(figures[0]),
            used=rules.used(*figures),
        )
