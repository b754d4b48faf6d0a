"""How full a pipe may be, and which pipe the cables through a duct ask for."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from ..base.wording import some
from ..catalogue import Catalogue, Rules
from ..context.crossings import crossings
from ..context.findings import Finding, Place
from ..design import Design, Duct, Floor, Riser, Wall
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


def fits_more(rules: Rules, diameters_mm: Sequence[float], inside_mm: float, more_mm: float) -> int:
    """Return how many cables of a diameter a pipe takes beside those in it; mm."""
    count = 0
    while count < _MANY:
        together = [*diameters_mm, *[more_mm] * (count + 1)]
        if fill(together, inside_mm) > rules[_fill_figure(len(together))]:
            break
        count += 1
    return count


_MANY = 200


def duct_findings(design: Design, catalogue: Catalogue, links: Sequence[LinkVerdict]) -> Iterator[Finding]:
    """Yield for each duct and each riser in use what goes through it, the pipe that it asks for, and what
    that still takes."""
    for duct in design.of(Duct).values():
        mine = [k for k in links if any(leg.way == duct.id for leg in k.legs)]
        cables = [_diameter_mm(catalogue, k) for k in mine for _ in range(k.cables)]
        place = Place(kind="duct", id=duct.id, floor=duct.from_floor, at=duct.path[0])
        more_mm = catalogue.rules["cabling.outdoor_diameter_mm"]
        yield from _pipe(
            catalogue.rules, f"cable-duct-{duct.id}", duct.name, cables, "conduit", place, more_mm
        )
    floors = design.of(Floor)
    for riser in design.of(Riser).values():
        through: dict[str, list[LinkVerdict]] = {}
        for link in links:
            # In the order of its legs: of two storeys as full the same is told each time.
            for floor in dict.fromkeys(leg.floor for leg in link.legs if leg.way == riser.id):
                through.setdefault(floor, []).append(link)
        if not through:
            continue
        floor, mine = max(through.items(), key=lambda row: sum(k.cables for k in row[1]))
        cables = [_inside_mm(catalogue, k) for k in mine for _ in range(k.cables)]
        name = f"{riser.name} at {floors[floor].name}"
        place = Place(kind="riser", id=riser.id, floor=floor, at=riser.at)
        more_mm = catalogue.cables[design.site.minimum_category].diameter_mm
        yield from _pipe(catalogue.rules, f"cable-riser-{riser.id}", name, cables, "sleeve", place, more_mm)


def rated_findings(design: Design, links: Sequence[LinkVerdict], rules: Rules) -> Iterator[Finding]:
    """Yield one note for each wall that keeps fire back and has cable through it."""
    for wall in design.of(Wall).values():
        if not wall.rated:
            continue
        mine = [
            k
            for k in links
            if k.chosen_by != "found"
            and any(
                leg.floor == wall.floor and len(leg.points) > 1 and crossings(leg.points, wall)
                for leg in k.legs
                if leg.kind not in ("riser", "duct")
            )
        ]
        if not mine:
            continue
        count = sum(k.cables for k in mine)
        x, y = (wall.a[0] + wall.b[0]) / 2, (wall.a[1] + wall.b[1]) / 2
        yield Finding(
            id=f"cable-rated-{wall.id}",
            stage="cable",
            severity="note",
            text=f"{count} cable{'s' if count > 1 else ''} through a wall that keeps fire back, of "
            f"{some([k.name for k in mine])}: every hole is stopped again with a rated seal, which is "
            "ordered, and a step.",
            places=(Place(kind="wall", id=wall.id, floor=wall.floor, at=(x, y)),),
            figure=count,
            unit="cables",
            rule="every hole through a rated wall or floor is fire-stopped",
            source=rules.sources["practice"].name,
        )


def _inside_mm(catalogue: Catalogue, link: LinkVerdict) -> float:
    """Return the diameter of a link's cable; what goes on into the ground is sheathed for that."""
    if link.medium == "fibre" or link.jacket == "ground":
        return _diameter_mm(catalogue, link)
    return catalogue.cables[link.category].diameter_mm


def _pipe(
    rules: Rules, key: str, name: str, cables: Sequence[float], pipe_word: str, place: Place, more_mm: float
) -> Iterator[Finding]:
    if not cables:
        return
    conduits_mm = rules.table("cabling.conduit_mm")
    widest = max(conduits_mm, key=lambda k: conduits_mm[k])
    figures = [_fill_figure(len(cables))]
    if pipe_word == "conduit":
        figures.append("cabling.outdoor_diameter_mm")
    pipe = conduit_for(rules, cables)
    one = len(cables) == 1
    count = "1 cable" if one else f"{len(cables)} cables"
    limit = rules[figures[0]]
    if pipe is None:
        share = fill(cables, conduits_mm[widest])
        needed = math.ceil(share / limit)
        what = "lay a second one" if needed == 2 else f"{needed} of them do"
        text = f"{name}: {count} are more than a {widest} {pipe_word} takes; {what}."
    else:
        share = fill(cables, conduits_mm[pipe])
        more = fits_more(rules, cables, conduits_mm[pipe], more_mm)
        still = {0: "no more fits", 1: "1 more fits"}.get(more, f"{more} more fit")
        asks = "asks" if one else "ask"
        text = f"{name}: {count} {asks} for a {pipe} {pipe_word}, {share:.0%} full; {still}."
    yield Finding(
        id=key,
        stage="cable",
        severity="near" if pipe is None else "note",
        text=text,
        places=(place,),
        figure=round(100 * share, 1),
        limit=round(100 * limit),
        unit="% of its area",
        rule="cables take a share of their pipe: one, two, three or more",
        source=rules.source(figures[0]),
        used=rules.used(*figures),
    )
