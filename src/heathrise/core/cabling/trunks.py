"""Trunks: where cables lie side by side, each stretch once, with all that share it."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Mapping, Sequence
from typing import ClassVar

from pydantic import Field

from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..base.wording import metres
from ..catalogue import Catalogue, Rules
from ..context.findings import Finding, Place
from ..design import Spot
from .links import LinkVerdict
from .routes import Leg

_SIDE_M = 0.05  # lines nearer than this to each other are one
_SHORT_M = 0.02
_UPRIGHT = ("riser", "duct")


class Trunk(Frozen):
    """A straight stretch of a storey that cables share: its ends, m on the sheet, what lies there.

    ``wide_mm`` is the width of the bundle as a round one, 60 % of it filled.
    """

    KEY: ClassVar = ("id",)

    id: str
    floor: str
    a: Spot
    b: Spot
    links: tuple[str, ...] = Field(description="runs and ways between racks, in order of planning")
    cables: int
    wide_mm: float


_BUNDLED_SHARE = 0.6  # of a bundle's round, round cables fill about so much
_Line = tuple[str, float, int]  # storey, direction, and how far from the zero in steps
_kept: IdentityMemo[list[tuple[_Line, float, float]]] = IdentityMemo(4096, weigh=lambda rows: 120 * len(rows))


def trunks_of(catalogue: Catalogue, links: Sequence[LinkVerdict], turns: Mapping[str, float]) -> list[Trunk]:
    """Return every straight stretch that any cable lies in, each once, cut where one joins or leaves.

    Args:
        turns: by storey the direction of its building, radians: cables lie along it or across.
    """
    lines: dict[_Line, list[tuple[float, float, int]]] = {}
    for number, link in enumerate(links):
        if link.verdict == "no_way":
            continue
        mine = tuple((leg.floor, turns.get(leg.floor, 0.0)) for leg in link.legs)
        pieces = _kept.get((link.legs,), mine, lambda link=link: list(_pieces(link.legs, turns)))  # type: ignore[misc]
        for line, low, high in pieces:
            lines.setdefault(line, []).append((low, high, number))
    found: list[Trunk] = []
    for line, rows in lines.items():
        here = {number: k for k, number in enumerate(dict.fromkeys(number for _, _, number in rows))}
        thick = [(links[n].id, links[n].cables, _diameter_mm(catalogue, links[n])) for n in here]
        key = line, tuple((low, high, here[n]) for low, high, n in rows), tuple(thick)
        found += _lines.get((), key, lambda key=key: list(_along(*key)))  # type: ignore[misc]
    return found


# While one device is moved most lines hold what they held.
_lines: IdentityMemo[list[Trunk]] = IdentityMemo(4096, weigh=lambda rows: 1_500 * len(rows))
_Thick = tuple[str, int, float]  # a link, its cables, and how thick each is, mm


def _along(line: _Line, rows: Sequence[tuple[float, float, int]], links: Sequence[_Thick]) -> Iterator[Trunk]:
    """Yield the stretches of a line with who lies in each; rows have a link by its place."""
    for low, high, inside in _cut(rows):
        there = [links[k] for k in inside]
        area = sum(cables * mm**2 for _, cables, mm in there)
        a, b = _spot(line, low), _spot(line, high)
        yield Trunk(
            id=f"{line[0]}:{a[0]},{a[1]}:{b[0]},{b[1]}",
            floor=line[0],
            a=a,
            b=b,
            links=tuple(name for name, _, _ in there),
            cables=sum(cables for _, cables, _ in there),
            wide_mm=round(math.sqrt(area / _BUNDLED_SHARE), 1),
        )


def bundle_findings(rules: Rules, trunks: Sequence[Trunk], watts: Mapping[str, float]) -> Iterator[Finding]:
    """Yield where more cables that carry much lie side by side than one bundle may hold: one finding, at
    the fullest stretch.

    Args:
        watts: by link what each of its cables carries at most, W.
    """
    most, from_w = int(rules["cabling.bundle_cables"]), rules["cabling.bundle_w"]
    found: list[tuple[int, Trunk]] = []
    for trunk in trunks:
        hot = sum(watts.get(link, 0.0) > from_w for link in trunk.links)
        if hot > most:
            found.append((hot, trunk))
    if not found:
        return
    hot, trunk = max(found, key=lambda row: row[0])
    far_m = sum(math.dist(t.a, t.b) for _, t in found)
    yield Finding(
        id="cable-bundle",
        stage="cable",
        severity="near",
        text=f"{hot} cables that carry more than {from_w:g} W each lie side by side, over "
        f"{metres(far_m, 0)} more than {most}: part them into {-(-hot // most)} bundles, each by itself.",
        places=(Place(kind="floor", id=trunk.floor, floor=trunk.floor, at=trunk.a),),
        figure=hot,
        limit=most,
        unit="cables",
        rule="cables that carry much are bundled in small numbers, so that their heat gets out",
        source=rules.source("cabling.bundle_cables"),
        used=rules.used("cabling.bundle_cables", "cabling.bundle_w"),
    )


def _diameter_mm(catalogue: Catalogue, link: LinkVerdict) -> float:
    if link.medium == "fibre":
        return catalogue.fibres[link.category].diameter_mm
    return catalogue.cables[link.category].diameter_mm


def _pieces(legs: Sequence[Leg], turns: Mapping[str, float]) -> Iterator[tuple[_Line, float, float]]:
    """Yield a link's straight stretches: the line of each, and from where to where along it."""
    for leg in legs:
        if leg.kind in _UPRIGHT:
            continue
        for (ax, ay), (bx, by) in itertools.pairwise(leg.points):
            far = math.hypot(bx - ax, by - ay)
            if far < _SHORT_M:
                continue
            turn = _direction(math.atan2(by - ay, bx - ax), turns.get(leg.floor, 0.0), far)
            c, s = math.cos(turn), math.sin(turn)
            line = leg.floor, turn, round((ay * c - ax * s) / _SIDE_M)
            ends = sorted((ax * c + ay * s, bx * c + by * s))
            yield line, ends[0], ends[1]


def _direction(angle: float, turn: float, far_m: float) -> float:
    """Return the direction of a stretch: along the building or across it where it strays from that by
    less than cables do, else its own."""
    for quarter in (0.0, math.pi / 2):
        off = (angle - turn - quarter + math.pi / 2) % math.pi - math.pi / 2
        if abs(math.sin(off)) * far_m < _SIDE_M / 2:
            return round(turn + quarter, 9)
    return round(angle % math.pi, 9)


def _cut(rows: Sequence[tuple[float, float, int]]) -> Iterator[tuple[float, float, list[int]]]:
    """Yield the stretches of a line between any two ends that lie apart, with who lies in each;
    neighbours that hold the same are one."""
    cuts: list[float] = []
    for at in sorted({end for low, high, _ in rows for end in (low, high)}):
        if not cuts or at - cuts[-1] > _SHORT_M:
            cuts.append(at)
    last: tuple[float, float, list[int]] | None = None
    for low, high in itertools.pairwise(cuts):
        middle = (low + high) / 2
        inside = sorted({k for a, b, k in rows if a <= middle <= b})
        if last is not None and inside == last[2] and inside:
            last = last[0], high, inside
            continue
        if last is not None and last[2]:
            yield last
        last = low, high, inside
    if last is not None and last[2]:
        yield last


def _spot(line: _Line, along: float) -> Spot:
    _, turn, side = line
    c, s = math.cos(turn), math.sin(turn)
    across = side * _SIDE_M
    return round(along * c - across * s, 3), round(along * s + across * c, 3)
