"""How full a pipe may be, and which pipe the cables through a duct ask for."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ..catalogue import Catalogue
from ..design import Design, Duct
from ..findings import Finding, Place
from .runs import RunVerdict

# Share of a pipe's area that one, two, and three or more cables may take (NFPA 70, chapter 9).
FILL_LIMIT = {1: 0.53, 2: 0.31}
FILL_LIMIT_MORE = 0.40
# Trade sizes by inside diameter in mm, the narrowest first.
CONDUITS_MM: dict[str, float] = {
    "20 mm": 16.9,
    "25 mm": 21.4,
    "1 in": 26.6,
    "32 mm": 27.8,
    "1-1/4 in": 35.1,
    "1-1/2 in": 40.9,
    "2 in": 52.5,
}
OUTDOOR_DIAMETER_MM = 7.5  # cable for the ground is thicker than its category indoors


def fill(diameters_mm: Sequence[float], inside_mm: float) -> float:
    """Return the share of a pipe's area that cables take: ``sum d^2 / D^2``."""
    return sum(d * d for d in diameters_mm) / inside_mm**2


def fill_limit(cables: int) -> float:
    """Return the share that so many cables may take."""
    return FILL_LIMIT.get(cables, FILL_LIMIT_MORE)


def conduit_for(diameters_mm: Sequence[float]) -> str | None:
    """Return the narrowest conduit that takes the cables, or None where none does."""
    limit = fill_limit(len(diameters_mm))
    fitting = (k for k, inside in CONDUITS_MM.items() if fill(diameters_mm, inside) <= limit)
    return next(fitting, None)


def duct_findings(
    design: Design, catalogue: Catalogue, runs: Sequence[RunVerdict]
) -> Iterator[Finding]:
    """Yield for each duct in use what goes through it and the pipe that it asks for."""
    for duct in design.of(Duct).values():
        cables = [
            max(catalogue.cables[run.category].diameter_mm, OUTDOOR_DIAMETER_MM)
            for run in runs
            if any(leg.way == duct.id for leg in run.legs)
            for _ in range(run.cables)
        ]
        if not cables:
            continue
        pipe = conduit_for(cables)
        count = f"{len(cables)} cable{'s' if len(cables) > 1 else ''}"
        if pipe is None:
            text = f"{duct.name}: {count} are more than a 2 in conduit takes; lay a second one."
            share = fill(cables, max(CONDUITS_MM.values()))
        else:
            share = fill(cables, CONDUITS_MM[pipe])
            text = f"{duct.name}: {count} ask for a {pipe} conduit, {share:.0%} full."
        yield Finding(
            id=f"cable-duct-{duct.id}",
            stage="cable",
            severity="near" if pipe is None else "note",
            text=text,
            places=(Place(kind="duct", id=duct.id, floor=duct.from_floor, at=duct.path[0]),),
            figure=round(100 * share, 1),
            limit=round(100 * fill_limit(len(cables))),
            unit="% of its area",
            rule="one cable 53 %, two 31 %, three or more 40 % of the pipe",
            source="NFPA 70, chapter 9; local code comes first",
        )
