"""How runs lie to mains cables: how far beside them, how near, and how they cross.

On the drawing both are lines seen from above; where the heights are not known they are taken to lie in
the same space, which is the safe side.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from shapely.geometry import LineString

from ..base.memo import IdentityMemo
from ..base.wording import metres, some
from ..catalogue import Rules
from ..context.findings import Finding, Place
from ..mains import MainsLine
from .lattice import OVERHEADS
from .runs import RunVerdict
from .ways import ALONG

_FIGURES = ("plan.mains_apart_m", "plan.mains_beside_apart_m", "plan.mains_beside_m")


@dataclass(frozen=True)
class Beside:
    """A run and a mains cable: metres that lie along it nearer than they may for long, how near at the
    least, and the flattest angle at which they cross, degrees; none where they do not."""

    line: MainsLine
    along_m: float
    apart_m: float
    crosses_deg: float | None


def beside(run: RunVerdict, lines: Sequence[MainsLine], apart_m: float) -> list[Beside]:
    """Return how a run lies to each mains cable that it comes near to or crosses."""
    found = []
    for line in lines:
        legs = [leg for leg in run.legs if leg.floor == line.floor and leg.kind in OVERHEADS]
        kept = [
            _kept.get((leg, line), apart_m, lambda leg=leg, line=line: _measured(leg.points, line, apart_m))  # type: ignore[misc]
            for leg in legs
            if len(leg.points) > 1
        ]
        along_m = sum(k[0] for k in kept)
        crossings = [k[2] for k in kept if k[2] is not None]
        if along_m or crossings:
            near_m = min((k[1] for k in kept if k[0]), default=math.inf)
            found.append(Beside(line, round(along_m, 1), round(near_m, 2), min(crossings, default=None)))
    return found


_kept: IdentityMemo[tuple[float, float, float | None]] = IdentityMemo(4096, weigh=lambda _: 200)


def _measured(
    points: Sequence[tuple[float, float]], line: MainsLine, apart_m: float
) -> tuple[float, float, float | None]:
    along_m, near_m, flattest = 0.0, math.inf, None
    for a, b in itertools.pairwise(points):
        step = LineString([a, b])
        for p, q in itertools.pairwise(line.points):
            piece = LineString([p, q])
            if not step.length or not piece.length or step.distance(piece) > apart_m:
                continue
            turn = abs(
                ((b[0] - a[0]) * (q[0] - p[0]) + (b[1] - a[1]) * (q[1] - p[1])) / (step.length * piece.length)
            )
            if turn > ALONG:
                mine = step.intersection(piece.buffer(apart_m, cap_style="flat"))
                along_m += mine.length
                if mine.length:
                    near_m = min(near_m, mine.distance(piece))
            elif step.crosses(piece):
                angle = math.degrees(math.acos(min(1.0, turn)))
                flattest = angle if flattest is None else min(flattest, angle)
    return along_m, near_m, flattest


def mains_findings(rules: Rules, runs: Sequence[RunVerdict], lines: Sequence[MainsLine]) -> Iterator[Finding]:
    """Yield runs that lie too long beside mains, and those that cross it aslant."""
    apart_m, long_m = rules["plan.mains_beside_apart_m"], rules["plan.mains_beside_m"]
    square_deg = rules["plan.mains_square_deg"]
    near_m = rules["plan.mains_apart_m"]
    aslant: list[tuple[RunVerdict, Beside]] = []
    for run in runs if lines else ():
        rows = beside(run, lines, apart_m)
        aslant += [(run, r) for r in rows if r.crosses_deg is not None and r.crosses_deg < square_deg]
        long = [r for r in rows if r.along_m > long_m]
        close = [r for r in rows if r.along_m and r.apart_m < near_m and r not in long]
        for row, limit in (*((r, apart_m) for r in long), *((r, near_m) for r in close)):
            guess = " Nobody has seen that cable: its way is a guess." if row.line.guessed else ""
            yield Finding(
                id=f"cable-mains-{run.device}-{row.line.id}",
                stage="cable",
                severity="note" if row.line.guessed or row in close else "near",
                text=f"{run.name} lies {metres(row.along_m, 1)} beside {row.line.name}, "
                f"{metres(row.apart_m)} from it; keep {metres(limit)} there, or draw the mains where it "
                f"really lies.{guess}",
                places=(Place(kind="device", id=run.device, floor=row.line.floor),),
                figure=row.apart_m,
                limit=limit,
                unit="m",
                rule="data cable keeps off mains, the farther the longer they lie together",
                source=rules.source(_FIGURES[0]),
                used=rules.used(*_FIGURES),
            )
    if aslant:
        worst = min(r.crosses_deg or 0.0 for _, r in aslant)
        yield Finding(
            id="cable-mains-aslant",
            stage="cable",
            severity="note",
            text=f"{some(list(dict.fromkeys(run.name for run, _ in aslant)))} cross mains at {worst:.0f}° as "
            "drawn: cross it square.",
            places=tuple(Place(kind="device", id=run.device) for run, _ in aslant),
            figure=round(worst),
            limit=square_deg,
            unit="°",
            rule="data cable crosses mains square",
            source=rules.source("plan.mains_square_deg"),
            used=rules.used("plan.mains_square_deg"),
        )
