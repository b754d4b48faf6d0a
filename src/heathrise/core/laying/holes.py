"""Where cables go through masonry and from storey to storey: each hole once, whoever uses it."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from ..base.memo import IdentityMemo
from ..catalogue import Catalogue
from ..context.crossings import crossings
from ..design import Design, Wall
from .links import Link, Stretch

_ONE_HOLE_M = 0.5  # cables through a wall this near to one another share a hole


@dataclass(frozen=True)
class Hole:
    """A hole through a wall, with the links that go through it; one that is ``rated`` is stopped again."""

    floor: str
    wall: str
    at: tuple[float, float]
    links: tuple[str, ...]
    rated: bool = False


def holes_of(design: Design, catalogue: Catalogue, stretches: Iterable[Stretch]) -> list[Hole]:
    """Return the holes that links need through masonry and through what keeps fire back, in order of the
    walls."""
    table = design.of(Wall)
    walls: dict[str, list[Wall]] = {}
    for wall in table.values():
        if wall.rated or catalogue.constructions[wall.construction].masonry:
            walls.setdefault(wall.floor, []).append(wall)
    found: dict[str, list[tuple[tuple[float, float], list[str]]]] = {}
    of_floor: dict[str, str] = {}
    for stretch in stretches:
        if len(stretch.points) < 2 or stretch.kind == "duct":
            continue
        here = walls.get(stretch.floor, [])
        crossed = _crossed.get(
            (stretch.points, table, catalogue),
            stretch.floor,
            lambda way=stretch.points, here=here: [(w.id, s) for w in here for s in crossings(way, w)],  # type: ignore[misc]
        )
        for key, spot in crossed:
            of_floor[key] = stretch.floor
            _join(found.setdefault(key, []), spot, stretch.link)
    return [
        Hole(of_floor[wall], wall, at, tuple(dict.fromkeys(links)), table[wall].rated)
        for wall, rows in found.items()
        for at, links in rows
    ]


# Most ways lie where they lay while one device is moved.
_crossed: IdentityMemo[list[tuple[str, tuple[float, float]]]] = IdentityMemo(4096, weigh=lambda _: 600)


def _join(rows: list[tuple[tuple[float, float], list[str]]], spot: tuple[float, float], link: str) -> None:
    for at, links in rows:
        if math.dist(at, spot) <= _ONE_HOLE_M:
            links.append(link)
            return
    rows.append((spot, [link]))


def climbs_of(links: Iterable[Link]) -> list[tuple[str, str, tuple[str, ...]]]:
    """Return the openings from storey to storey, each once: riser, storey, links through it."""
    found: dict[tuple[str, str], dict[str, None]] = {}
    for link in links:
        for stretch in link.stretches:
            if stretch.way is not None and stretch.kind != "duct":
                found.setdefault((stretch.way, stretch.floor), {})[link.id] = None
    return [(riser, floor, tuple(keys)) for (riser, floor), keys in found.items()]
