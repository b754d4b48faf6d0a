"""Where what is dug comes near to what others have in the ground."""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

import shapely
from shapely.geometry import LineString
from shapely.ops import nearest_points, substring

from ..design import BuriedService, Design, Duct

CARRIED = {
    "electricity": "electricity cable",
    "gas": "gas pipe",
    "water": "water pipe",
    "drain": "drain",
    "telecom": "telephone cable",
    "heating": "heating pipe",
    "unknown": "service of unknown kind",
}
_LEAST_M = 0.05


@dataclass(frozen=True)
class Meeting:
    """A stretch of a trench, of a duct or to a far place, in m from its start, that lies near to a buried
    service; ``at`` is where they come nearest. One that ``crosses`` goes over or under it, any other lies
    beside it."""

    trench: str
    service: str
    from_m: float
    to_m: float
    at: tuple[float, float]
    crosses: bool

    @property
    def said(self) -> str:
        """Where it is, counted along the trench."""
        if self.to_m - self.from_m < _LEAST_M:
            return f"at {self.from_m:.1f} m"
        return f"from {self.from_m:.1f} to {self.to_m:.1f} m"


def meetings_of(design: Design, apart_m: float) -> list[Meeting]:
    """Return by duct, from its start on, every stretch that is dug so near to a buried service."""
    found: list[Meeting] = []
    for duct in design.of(Duct).values():
        if duct.dug != "there":
            found += meetings_along(design, duct.id, duct.path, apart_m)
    return found


def meetings_along(
    design: Design, key: str, path: Sequence[tuple[float, float]], apart_m: float
) -> list[Meeting]:
    """Return every stretch of one trench that is so near to a buried service, from its start on."""
    line = LineString(path)
    found = [m for s in design.of(BuriedService).values() for m in _of(key, path, line, s, apart_m)]
    return sorted(found, key=lambda m: (m.from_m, m.service))


def named(design: Design, meeting: Meeting) -> str:
    """Return a meeting in words: which service, and where along the trench."""
    return f"{design.of(BuriedService)[meeting.service].name} {meeting.said}"


def _of(
    key: str, path: Sequence[tuple[float, float]], line: LineString, service: BuriedService, apart_m: float
) -> Iterator[Meeting]:
    other = LineString(service.path)
    if line.distance(other) > apart_m:
        return
    about = other.buffer(apart_m)
    for from_m, to_m in _near(path, about):
        stretch = substring(line, from_m, to_m)
        spot = nearest_points(stretch, other)[0]
        yield Meeting(
            trench=key,
            service=service.id,
            from_m=round(from_m, 2),
            to_m=round(to_m, 2),
            at=(round(spot.x, 2), round(spot.y, 2)),
            crosses=bool(stretch.intersects(other)),
        )


def _near(path: Sequence[tuple[float, float]], about: Any) -> Iterator[tuple[float, float]]:
    """Yield the stretches of a trench within an area, m from its start; each metre of one that doubles back
    is told apart."""
    done, held = 0.0, None
    for a, b in itertools.pairwise(path):
        side = LineString([a, b])
        for ends in sorted(_spans(side, side.intersection(about))):
            low, high = ends[0] + done, ends[1] + done
            if held is not None and low <= held[1] + _LEAST_M:
                held = (held[0], high)
                continue
            if held is not None:
                yield held
            held = (low, high)
        done += side.length
    if held is not None:
        yield held


def _spans(side: LineString, inside: Any) -> Iterator[tuple[float, float]]:
    """Yield from where to where along a side its pieces lie."""
    for part in getattr(inside, "geoms", [inside]):
        if not part.is_empty:
            low, high = sorted(side.project(shapely.Point(part.coords[k])) for k in (0, -1))
            yield low, high
