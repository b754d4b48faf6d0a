"""Which ports of a rack are kept for the ways to other switches and other racks."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass

from ..catalogue import SwitchModel


@dataclass(frozen=True)
class Shelf:
    """One switch in the rack."""

    id: str
    name: str
    model: SwitchModel


@dataclass(frozen=True)
class Slot:
    """A port: numbered from 1 across the groups of its switch."""

    switch: str
    group: int
    port: int


@dataclass(frozen=True)
class Way:
    """A way to a switch of another rack, or to the line where ``to`` is None."""

    to: str | None
    fibre: bool = False


@dataclass(frozen=True)
class UplinkPort:
    """A port kept for the way to another switch, or to the line where ``to`` is None.

    ``down`` says that the other one leads up here; fibre in a port that is no cage wants a
    converter.
    """

    slot: Slot
    to: str | None
    fibre: bool = False
    converter: bool = False
    down: bool = False


LINE = Way(None)


def uplinks(
    shelves: Sequence[Shelf],
    up: Way = LINE,
    below: Sequence[Way] = (),
    pinned: Collection[tuple[str, int]] = (),
) -> tuple[UplinkPort, ...]:
    """Return the ports kept before devices get theirs: each switch's way up, cages first.

    The first switch leads up, to the line or to the rack above; on it a port is kept for each of
    the others and for each rack below. Fibre has the first pick of cages; a switch without any
    gives its last ports, those without power first. ``pinned`` ports, by switch and number, are not
    given: somebody put a device's cable there.
    """
    kept: list[UplinkPort] = []
    for k, shelf in enumerate(shelves):
        others = [Way(s.id) for s in shelves[1:]]
        ways = [(up, False), *((w, True) for w in (*others, *below))] if k == 0 else []
        ways = ways or [(Way(shelves[0].id), False)]
        kept += _placed(shelf, sorted(ways, key=lambda row: not row[0].fibre), pinned)
    return tuple(kept)


def _placed(
    shelf: Shelf, ways: Sequence[tuple[Way, bool]], pinned: Collection[tuple[str, int]]
) -> list[UplinkPort]:
    slots = [s for s in _last_resorts(shelf) if (s.switch, s.port) not in pinned]
    found: list[UplinkPort] = []
    for (way, down), slot in zip(ways, slots, strict=False):
        cage = shelf.model.groups[slot.group].cage
        found.append(UplinkPort(slot, way.to, way.fibre, way.fibre and not cage, down))
    return found


def _last_resorts(shelf: Shelf) -> list[Slot]:
    """Return a switch's ports, those a device would miss least first."""
    cages: list[Slot] = []
    plain: list[Slot] = []
    powered: list[Slot] = []
    number = 0
    for g, group in enumerate(shelf.model.groups):
        ports = [Slot(shelf.id, g, number + i + 1) for i in range(group.count)]
        number += group.count
        if group.cage:
            cages += ports
        elif group.poe_class is None:
            plain = [*ports[::-1], *plain]
        else:
            powered = [*ports[::-1], *powered]
    return [*cages, *plain, *powered]
