"""As built beside as agreed: what differs between two revisions of a design, in words."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Mapping
from typing import Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..base.wording import metres
from ..catalogue import Catalogue
from ..design import (
    KIND_OF,
    Design,
    Device,
    Duct,
    Element,
    EquipmentRoom,
    Floor,
    Injector,
    Network,
    Opening,
    Point,
    Riser,
    Space,
    Switch,
    Wall,
    WirelessName,
)


class Difference(Frozen):
    """One thing that is built otherwise than agreed; points in m on its storey's sheet."""

    kind: str
    element: str
    name: str
    change: Literal["added", "left_out", "moved", "other"]
    what: str
    floor: str | None = None
    was_at: Point | None = Field(None, description="where it was agreed, if it stands elsewhere")


def differences(
    agreed: Design,
    built: Design,
    catalogue: Catalogue,
    runs_agreed_m: Mapping[str, float],
    runs_built_m: Mapping[str, float],
) -> list[Difference]:
    """Return what differs, things before ground, each in order of placing.

    Args:
        runs_agreed_m: fixed length of each device's run, m, as it was agreed.
        runs_built_m: the same as it is drawn now.
    """
    found: list[Difference] = []
    for cls in (Device, EquipmentRoom, Riser, Switch, Injector, Duct):
        found += _things(agreed, built, catalogue, cls)
    told = {d.element for d in found}
    found += _runs(built, catalogue, runs_agreed_m, runs_built_m, told)
    for named in (Network, WirelessName):
        found += _settings(agreed, built, named)
    return [*found, *_ground(agreed, built)]


def _things(agreed: Design, built: Design, catalogue: Catalogue, cls: type[Element]) -> Iterator[Difference]:
    before, now = agreed.of(cls), built.of(cls)
    for key, row in before.items():
        if key not in now:
            what = "agreed, and not built"
            yield _difference(agreed, row, "left_out", what, getattr(row, "at", None))
    for key, row in now.items():
        was = before.get(key)
        if was is None:
            yield _difference(built, row, "added", "not in what was agreed")
        elif was is not row and was != row:
            yield from _changed(built, catalogue, was, row)


def _changed(built: Design, catalogue: Catalogue, was: Element, row: Element) -> Iterator[Difference]:
    said: list[str] = []
    moved = _moved_m(was, row)
    if getattr(was, "floor", None) != getattr(row, "floor", None):
        said.append(f"on {built.of(Floor)[row.floor].name}")  # type: ignore[attr-defined]
    if moved >= catalogue.rules["handover.moved_m"]:
        said.append(f"{metres(moved, 1)} from where it was agreed")
    if getattr(was, "model", None) != getattr(row, "model", None):
        said.append(f"{_model(catalogue, row)} instead of {_model(catalogue, was)}")
    if getattr(was, "name", None) != getattr(row, "name", None):
        said.append(f"called {was.name} when it was agreed")  # type: ignore[attr-defined]
    if abs(getattr(was, "height_m", 0.0) - getattr(row, "height_m", 0.0)) >= 0.1:
        said.append(f"at {metres(row.height_m, 1)} instead of {metres(was.height_m, 1)}")  # type: ignore[attr-defined]
    elsewhere = moved >= catalogue.rules["handover.moved_m"]
    if said:
        change: Literal["moved", "other"] = "moved" if elsewhere else "other"
        at = was.at if elsewhere and hasattr(was, "at") else None
        yield _difference(built, row, change, ", ".join(said), at)


def _moved_m(was: Element, row: Element) -> float:
    one, other = getattr(was, "at", None), getattr(row, "at", None)
    if one is not None and other is not None:
        return math.dist(one, other)
    path, now = getattr(was, "path", None), getattr(row, "path", None)
    if path and now and path != now:
        ends = max(math.dist(path[0], now[0]), math.dist(path[-1], now[-1]))
        return max(ends, abs(_length(path) - _length(now)))
    return 0.0


def _length(path: tuple[Point, ...]) -> float:
    return sum(math.dist(a, b) for a, b in itertools.pairwise(path))


def _model(catalogue: Catalogue, row: Element) -> str:
    if isinstance(row, Device):
        return catalogue.model_of(row).label
    shelf = catalogue.switches if isinstance(row, Switch) else catalogue.injectors
    return shelf[row.model].label  # type: ignore[attr-defined]


def _difference(
    design: Design,
    row: Element,
    change: Literal["added", "left_out", "moved", "other"],
    what: str,
    was_at: Point | None = None,
) -> Difference:
    floor = getattr(row, "floor", None) or getattr(row, "from_floor", None)
    room = design.of(EquipmentRoom).get(getattr(row, "equipment_room", ""))
    device = design.of(Device).get(getattr(row, "device", ""))
    place = room or device
    name = getattr(row, "name", "") or (f"Injector of {device.name}" if device else KIND_OF[type(row)])
    return Difference(
        kind=KIND_OF[type(row)],
        element=row.id,
        name=name,
        change=change,
        what=what,
        floor=floor or (place.floor if place is not None else None),
        was_at=was_at,
    )


def _runs(
    built: Design, catalogue: Catalogue, before: Mapping[str, float], now: Mapping[str, float], told: set[str]
) -> Iterator[Difference]:
    for key, length in now.items():
        was = before.get(key)
        if was is None or key in told or key not in built.of(Device):
            continue
        if abs(length - was) >= catalogue.rules["handover.longer_m"]:
            device = built.of(Device)[key]
            what = f"its run is {metres(length, 1)}, agreed {metres(was, 1)}"
            yield Difference(
                kind="device", element=key, name=device.name, change="other", what=what, floor=device.floor
            )


def _settings(agreed: Design, built: Design, cls: type[Element]) -> Iterator[Difference]:
    before, now = agreed.of(cls), built.of(cls)
    for key in {**before, **now}:
        one, other = before.get(key), now.get(key)
        if one == other:
            continue
        row = other or one
        assert row is not None
        what = "set otherwise than agreed"
        if one is None or other is None:
            what = "not in what was agreed" if one is None else "agreed, and not set up"
        change: Literal["added", "left_out", "other"] = (
            "added" if one is None else "left_out" if other is None else "other"
        )
        name = getattr(row, "name", "") or getattr(row, "ssid", "")
        yield Difference(kind=KIND_OF[type(row)], element=key, name=name, change=change, what=what)


def _ground(agreed: Design, built: Design) -> Iterator[Difference]:
    """Yield one line a storey for what of the building turned out to be otherwise."""
    floors = {**agreed.of(Floor), **built.of(Floor)}
    counts: dict[str, dict[str, int]] = {key: {} for key in floors}
    hosts = {**agreed.of(Wall), **built.of(Wall)}
    kinds: tuple[tuple[type[Element], str], ...] = ((Wall, "walls"), (Opening, "openings"), (Space, "rooms"))
    for cls, word in kinds:
        before, now = agreed.of(cls), built.of(cls)
        for key in {**before, **now}:
            if before.get(key) == now.get(key):
                continue
            row = now.get(key) or before[key]
            host = hosts.get(getattr(row, "wall", ""))
            floor = getattr(row, "floor", None) or (host.floor if host is not None else "")
            if floor in counts:
                counts[floor][word] = counts[floor].get(word, 0) + 1
    for key, found in counts.items():
        if found:
            words = ", ".join(f"{n} {word if n > 1 else word[:-1]}" for word, n in found.items())
            yield Difference(
                kind="floor",
                element=key,
                name=floors[key].name,
                change="other",
                what=f"{words} drawn otherwise than agreed",
                floor=key,
            )
