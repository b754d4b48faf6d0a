"""A gesture on many things is answered by changes of the design, one edit for all of them."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any, cast

import shapely
from shapely.geometry import LineString, Point

from ..catalogue import Catalogue, drawing_style
from ..design import (
    Change,
    Design,
    DesignError,
    Element,
    Floor,
    Problem,
    Space,
    Wall,
    apply,
    free_number,
    put,
)
from ..walling import Gesture as WallGesture
from ..walling import drawn as walls_drawn
from ..walling import move_as_one
from .buildings import apart, carry
from .copies import Copier
from .hand import Align, Apart, Carry, Copy, Fit, Gesture, Mirror, Pick, Raise, Shift, Spread, Turn
from .images import bounds, mirrored, moved, picked, turned

_SLAB_M = drawing_style().measures.slab_m
_BESIDE_M = drawing_style().measures.beside_m
_LEAST_APART_M = 1.0


def drawn(design: Design, gesture: Gesture, catalogue: Catalogue) -> list[Change]:
    """Return what a gesture changes; rooms follow their walls afterwards.

    Raises:
        DesignError: something is not there, or cannot be where it would be.
    """
    work_out = _DO.get(type(gesture))
    return (
        work_out(design, gesture, catalogue)
        if work_out
        else walls_drawn(design, cast("WallGesture", gesture))
    )


def _shift(design: Design, gesture: Shift, _: Catalogue) -> list[Change]:
    chosen = picked(design, gesture.picks)
    walls = [e for e in chosen.values() if isinstance(e, Wall)]
    # What meets the walls goes along as when walls are moved alone, and so does what hangs on them.
    made = move_as_one(design, walls, gesture.by)
    along = {(c.kind, c.id) for c in made}
    image = moved(gesture.by)
    rest = [e for key, e in chosen.items() if key[0] not in ("wall", "opening") and key not in along]
    return [*made, *(put(image.of(e)) for e in rest)]


def _copy(design: Design, gesture: Copy, catalogue: Catalogue) -> list[Change]:
    chosen = picked(design, gesture.picks)
    copier = Copier(design, catalogue)
    made: list[Change] = []
    for k in range(1, gesture.times + 1):
        by = (gesture.by[0] * k, gesture.by[1] * k)
        made += copier.copies(chosen, moved(by), gesture.floor)
    if not made:
        raise DesignError([Problem("picks", "all of it stands there already: say how far off the copy is")])
    return made


def _turn(design: Design, gesture: Turn, _: Catalogue) -> list[Change]:
    chosen = picked(design, gesture.picks)
    west, south, east, north = bounds(chosen.values())
    image = turned(gesture.degrees, ((west + east) / 2, (south + north) / 2))
    return [put(image.of(e)) for (kind, _), e in chosen.items() if kind != "opening"]


def _mirror(design: Design, gesture: Mirror, catalogue: Catalogue) -> list[Change]:
    chosen = picked(design, gesture.picks)
    west, south, east, north = bounds(chosen.values())
    if not gesture.beside:
        image = mirrored(gesture.across, ((west + east) / 2, (south + north) / 2))
        return [put(image.of(e)) for (kind, _), e in chosen.items() if kind != "opening"]
    made = list(Copier(design, catalogue).copies(chosen, mirrored(gesture.across, (east, north))))
    if not made:
        raise DesignError([Problem("picks", "all of its image stands there already")])
    return made


def _marks(design: Design, picks: tuple[Pick, ...], least: int) -> list[Element]:
    marks = [e for e in picked(design, picks).values() if hasattr(e, "at")]
    if len(marks) < least:
        what = f"choose {least} marks at least, such as access points or outlets; there are {len(marks)}"
        raise DesignError([Problem("picks", what)])
    return marks


def _align(design: Design, gesture: Align, _: Catalogue) -> list[Change]:
    marks = _marks(design, gesture.picks, 2)
    west, south, east, north = bounds(marks)
    axis, line = {
        "west": (0, west),
        "east": (0, east),
        "south": (1, south),
        "north": (1, north),
        "middle_across": (0, (west + east) / 2),
        "middle_up": (1, (south + north) / 2),
    }[gesture.to]
    return [_at(mark, axis, line) for mark in marks]


def _spread(design: Design, gesture: Spread, _: Catalogue) -> list[Change]:
    marks = _marks(design, gesture.picks, 3)
    west, south, east, north = bounds(marks)
    axis, low, high = (0, west, east) if east - west >= north - south else (1, south, north)
    marks.sort(key=lambda m: _spot(m)[axis])
    step = (high - low) / (len(marks) - 1)
    return [_at(mark, axis, low + step * k) for k, mark in enumerate(marks)]


def _spot(mark: Element) -> tuple[float, float]:
    at: tuple[float, float] = getattr(mark, "at")  # noqa: B009 - several classes share the field
    return at


def _at(mark: Element, axis: int, value: float) -> Change:
    at = list(_spot(mark))
    at[axis] = round(value, 4)
    return put(mark.model_copy(update={"at": tuple(at)}))


def _raise(design: Design, gesture: Raise, catalogue: Catalogue) -> list[Change]:
    floors = design.of(Floor)
    below = floors.get(gesture.floor)
    if below is None:
        raise DesignError([Problem("floor", f"there is no storey {gesture.floor[:40]!r} in the plan")])
    made: list[Change] = []
    to = gesture.to
    if to is None:
        over = [f.level for f in floors.values() if f.building == below.building]
        if below.level + 1 in over:
            raise DesignError([Problem("to", "there is a storey above already: say that it is meant")])
        key = f"floor-{free_number(floors, 'floor')}"
        rise = below.ceiling_height_m + _SLAB_M
        fields = {
            "id": key,
            "name": f"{below.name}, storey above",
            "level": below.level + 1,
            "elevation_m": round(below.elevation_m + rise, 3),
        }
        storey = below.model_copy(update=fields)
        made.append(put(storey))
        design, to = apply(design, made), key
    picks = [Pick(kind="wall", id=w.id) for w in _walls(design, gesture)]
    if gesture.what == "rooms":
        rooms = [s for s in design.of(Space).values() if s.floor == gesture.floor and not s.outdoor]
        picks += [Pick(kind="space", id=s.id) for s in rooms]
    if not picks:
        raise DesignError([Problem("floor", f"{below.name} has no wall to copy")])
    chosen = picked(design, picks)
    if gesture.what == "outer":
        # The way in from the street is on one storey; what is above has windows.
        chosen = {k: e for k, e in chosen.items() if getattr(e, "kind", "") not in ("door", "gap")}
    return [*made, *Copier(design, catalogue).copies(chosen, moved((0.0, 0.0)), to)]


def _fit(design: Design, gesture: Fit, _: Catalogue) -> list[Change]:
    if gesture.floor not in design.of(Floor):
        raise DesignError([Problem("floor", f"there is no storey {gesture.floor[:40]!r} in the plan")])
    (a, b), (c, d) = gesture.are, gesture.belong
    if min(math.dist(a, b), math.dist(c, d)) < _LEAST_APART_M:
        what = f"the two points lie closer than {_LEAST_APART_M:.0f} m: take two that are far apart"
        raise DesignError([Problem("points", what)])
    turn = math.atan2(b[0] - a[0], b[1] - a[1]) - math.atan2(d[0] - c[0], d[1] - c[1])
    middle = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
    to = ((c[0] + d[0]) / 2, (c[1] + d[1]) / 2)
    image = turned(-math.degrees(turn), middle).then(moved((to[0] - middle[0], to[1] - middle[1])))
    here = [e for _, e in design.elements() if getattr(e, "floor", None) == gesture.floor]
    placed = [(e, image.of(e)) for e in here]
    return [put(now) for was, now in placed if now != was]


def _walls(design: Design, gesture: Raise) -> list[Wall]:
    walls = [w for w in design.of(Wall).values() if w.floor == gesture.floor]
    if gesture.what != "outer":
        return walls
    rooms = [s for s in design.of(Space).values() if s.floor == gesture.floor and not s.outdoor]
    outside = _outside(rooms)
    return [w for w in walls if outside is not None and outside.distance(Point(_middle(w))) <= _BESIDE_M]


def _outside(rooms: list[Space]) -> Any:
    """Return the line about all rooms, courts left aside."""
    if not rooms:
        return None
    # A little wider, so that rooms side by side become one place.
    wide = [shapely.Polygon(s.outline).buffer(_BESIDE_M / 4, join_style="mitre") for s in rooms]
    whole = shapely.union_all(wide)
    return whole.buffer(-_BESIDE_M / 4, join_style="mitre").boundary


def _middle(wall: Wall) -> tuple[float, float]:
    point = LineString([wall.a, wall.b]).interpolate(0.5, normalized=True)
    return (point.x, point.y)


_DO: dict[type, Callable[[Design, Any, Catalogue], list[Change]]] = {
    Shift: _shift,
    Copy: _copy,
    Turn: _turn,
    Mirror: _mirror,
    Align: _align,
    Spread: _spread,
    Raise: _raise,
    Fit: _fit,
    Carry: carry,
    Apart: apart,
}
