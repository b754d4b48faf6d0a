"""Where things are once they are moved, turned or mirrored, whatever kind of thing they are."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from typing import Any

from ..design import Design, DesignError, Element, Opening, Problem, Underlay
from .hand import Pick

Spot = tuple[float, float]
_POINTS = ("at", "a", "b")
_LINES = ("outline", "path")


@dataclass(frozen=True)
class Image:
    """A way to put things elsewhere: how a point goes, and how a direction (degrees clockwise from north)."""

    point: Callable[[Spot], Spot]
    bearing: Callable[[float], float] = lambda degrees: degrees

    def of(self, element: Element) -> Element:
        """Return a thing where it is put; an opening keeps its place in its wall."""
        fields: dict[str, Any] = {}
        for name in _POINTS:
            if hasattr(element, name):
                fields[name] = _exact(self.point(getattr(element, name)))
        for name in _LINES:
            if hasattr(element, name):
                fields[name] = tuple(_exact(self.point(p)) for p in getattr(element, name))
        azimuth = getattr(element, "azimuth_deg", None)
        if azimuth is not None:
            fields["azimuth_deg"] = round(self.bearing(azimuth) % 360, 3) % 360
        if isinstance(element, Underlay):
            fields["turn_deg"] = round((self.bearing(element.turn_deg) + 180) % 360 - 180, 3)
        return element.model_copy(update=fields) if fields else element

    def then(self, other: Image) -> Image:
        """Return this way and then another."""
        return Image(lambda p: other.point(self.point(p)), lambda d: other.bearing(self.bearing(d)))


def moved(by: Spot) -> Image:
    return Image(lambda p: (p[0] + by[0], p[1] + by[1]))


def turned(degrees: float, about: Spot) -> Image:
    """Return what turns things clockwise."""
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))

    def point(p: Spot) -> Spot:
        x, y = p[0] - about[0], p[1] - about[1]
        return (about[0] + x * c + y * s, about[1] - x * s + y * c)

    return Image(point, lambda bearing: bearing + degrees)


def mirrored(across: str, about: Spot) -> Image:
    """Return what mirrors things: west becomes east, or south north."""
    if across == "east_west":
        return Image(lambda p: (2 * about[0] - p[0], p[1]), lambda bearing: -bearing)
    return Image(lambda p: (p[0], 2 * about[1] - p[1]), lambda bearing: 180 - bearing)


def picked(design: Design, picks: Iterable[Pick]) -> dict[tuple[str, str], Element]:
    """Return what was chosen, by kind and id, doors and windows of the walls chosen too.

    Raises:
        DesignError: something is not in the plan.
    """
    found: dict[tuple[str, str], Element] = {}
    for pick in picks:
        element = design.get(pick.kind, pick.id)
        if element is None:
            raise DesignError([Problem("picks", f"there is no {pick.kind} {pick.id[:40]!r} in the plan")])
        found[pick.kind, pick.id] = element
    for opening in design.of(Opening).values():
        if ("wall", opening.wall) in found:
            found["opening", opening.id] = opening
    return found


def spots(elements: Iterable[Element]) -> Iterator[Spot]:
    """Yield every point that things are drawn by."""
    for element in elements:
        yield from (getattr(element, name) for name in _POINTS if hasattr(element, name))
        for name in _LINES:
            yield from getattr(element, name, ())


def bounds(elements: Iterable[Element]) -> tuple[float, float, float, float]:
    """Return west, south, east and north of things.

    Raises:
        DesignError: there is nothing among them that is anywhere by itself.
    """
    found = list(spots(elements))
    if not found:
        raise DesignError([Problem("picks", "a door or window is where its wall is: choose the wall")])
    xs, ys = zip(*found, strict=True)
    return min(xs), min(ys), max(xs), max(ys)


def _exact(point: Spot) -> Spot:
    return (round(point[0], 4), round(point[1], 4))
