"""What laying takes: minutes of a pull by its spaces, and of a trench by its ground."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from ..base.memo import IdentityMemo
from ..catalogue import Rules
from ..design import Duct, Dug
from .links import Link, Stretch

_CELL_M = 0.6  # cables this near to one another, the same way, are pulled together


@dataclass(frozen=True)
class Pulling:
    """Minutes of pulling one link for one person, and how many of them are in an attic."""

    minutes: float
    attic_minutes: float


def way_cells(link: Link) -> dict[tuple[object, ...], float]:
    """Return the metres of a link in each cell that it passes; cables in one cell lie together."""
    found: dict[tuple[object, ...], float] = {}
    for stretch in link.stretches:
        pieces = _cells(stretch)
        for cell in pieces:
            found[cell] = found.get(cell, 0.0) + stretch.length_m / len(pieces)
    return found


def pulling_of(rules: Rules, links: Iterable[Link]) -> dict[str, Pulling]:
    """Return the minutes of pulling by link.

    A metre costs what its space is to work in. Of cables that lie together the first counts in
    full and each other a quarter; the first is the one that is planned first.
    """
    rates = rules.table("order.pull_minutes")
    beside = rules["order.pulled_beside_share"]
    taken: set[tuple[object, ...]] = set()
    found: dict[str, Pulling] = {}
    for link in links:
        mine: set[tuple[object, ...]] = set()
        by_kind: dict[str, float] = {}
        for stretch in link.stretches:
            rate = rates.get(stretch.kind, rates["ceiling_void"])
            pieces = _cells(stretch)
            each = stretch.length_m / len(pieces)
            for cell in pieces:
                share = beside if cell in taken else 1.0
                cost = each * rate * (share + beside * (stretch.cables - 1))
                by_kind[stretch.kind] = by_kind.get(stretch.kind, 0.0) + cost
                mine.add(cell)
        taken |= mine
        found[link.id] = Pulling(sum(by_kind.values()), by_kind.get("attic", 0.0))
    return found


# Most ways lie where they lay while one device is moved.
_kept: IdentityMemo[list[tuple[object, ...]]] = IdentityMemo(4096, weigh=lambda rows: 200 * len(rows))


def _cells(stretch: Stretch) -> list[tuple[object, ...]]:
    """Return the cells that a stretch passes, a piece of it in each."""
    lies = stretch.floor, stretch.kind, stretch.way
    return _kept.get((stretch.points,), lies, lambda: _passed(stretch))


def _passed(stretch: Stretch) -> list[tuple[object, ...]]:
    points = stretch.points
    if len(points) < 2 or stretch.kind in ("rise", "drop"):
        spot = points[0] if points else (0.0, 0.0)
        return [(stretch.floor, stretch.kind, _cell(spot), stretch.way)]
    found: list[tuple[object, ...]] = []
    for (ax, ay), (bx, by) in itertools.pairwise(points):
        count = max(1, math.ceil(math.dist((ax, ay), (bx, by)) / _CELL_M))
        for k in range(count):
            t = (k + 0.5) / count
            spot = (ax + (bx - ax) * t, ay + (by - ay) * t)
            found.append((stretch.floor, stretch.kind, _cell(spot), stretch.way))
    return found


def _cell(spot: Sequence[float]) -> tuple[int, int]:
    return round(spot[0] / _CELL_M), round(spot[1] / _CELL_M)


def duct_m(duct: Duct) -> float:
    """Return the length of a duct along the ground, m."""
    return sum(math.dist(a, b) for a, b in itertools.pairwise(duct.path))


def trench_minutes(rules: Rules, duct: Duct) -> float:
    """Return the minutes in which one person digs and fills a duct's trench; none where the duct
    lies there already. A deeper one takes longer in proportion to what is deeper."""
    return digging_minutes(rules, duct_m(duct), duct.depth_m, duct.dug)


def digging_minutes(rules: Rules, metres: float, depth_m: float, dug: Dug) -> float:
    """Return the minutes of one person for a trench of so many metres in such ground."""
    if dug == "there":
        return 0.0
    planned_m, deep_m = rules["order.trench_depth_m"], rules["order.trench_deep_m"]
    more = (rules["order.trench_deep_share"] - 1) * (depth_m - planned_m)
    factor = max(rules["order.trench_least_share"], 1 + more / (deep_m - planned_m))
    once = rules.table("order.trench_once").get(dug, 0.0)
    return once + metres * rules.table("order.trench_minutes")[dug] * factor
