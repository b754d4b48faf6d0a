"""Which ports of a rack are kept for the ways to other switches and other racks."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

from ..base.memo import IdentityMemo
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
NOTHING_CHOSEN: Mapping[tuple[str, str | None], int] = MappingProxyType({})


def uplinks(
    shelves: Sequence[Shelf],
    up: Way = LINE,
    below: Sequence[Way] = (),
    pinned: Collection[tuple[str, int]] = (),
    chosen: Mapping[tuple[str, str | None], int] = NOTHING_CHOSEN,
) -> tuple[UplinkPort, ...]:
    """Return the ports kept before devices get theirs: each switch's way up, cages first.

    The first switch leads up, to the line or to the rack above; on it a port is kept for each of
    the others and for each rack below. Fibre has the first pick of cages; a switch without any
    gives its last ports, those without power first. ``pinned`` ports, by switch and number, are not
    given: somebody put a device's cable there. ``chosen`` has the port of a switch for its way to
    another, or to the line; what its switch has not is not followed.
    """
    kept: list[UplinkPort] = []
    for k, shelf in enumerate(shelves):
        others = [Way(s.id) for s in shelves[1:]]
        ways = [(up, False), *((w, True) for w in (*others, *below))] if k == 0 else []
        ways = ways or [(Way(shelves[0].id), False)]
        kept += _placed(shelf, sorted(ways, key=lambda row: not row[0].fibre), pinned, chosen)
    return tuple(kept)


def _placed(
    shelf: Shelf,
    ways: Sequence[tuple[Way, bool]],
    pinned: Collection[tuple[str, int]],
    chosen: Mapping[tuple[str, str | None], int],
) -> list[UplinkPort]:
    slots = [s for s in _last_resorts(shelf) if (s.switch, s.port) not in pinned]
    by_port = {s.port: s for s in slots}
    at: dict[int, Slot] = {}  # by place in the ways
    for k, (way, _) in enumerate(ways):
        slot = by_port.get(chosen.get((shelf.id, way.to), 0))
        if slot is not None and slot not in at.values():
            at[k] = slot
    rest = iter([s for s in slots if s not in at.values()])
    found: list[UplinkPort] = []
    for k, (way, down) in enumerate(ways):
        slot = at.get(k) or next(rest, None)
        if slot is None:
            break
        cage = shelf.model.groups[slot.group].cage
        found.append(UplinkPort(slot, way.to, way.fibre, way.fibre and not cage, down))
    return found


_resorts: IdentityMemo[tuple[Slot, ...]] = IdentityMemo(256)


def _last_resorts(shelf: Shelf) -> tuple[Slot, ...]:
    """Return a switch's ports, those a device would miss least first."""
    return _resorts.get((shelf.model,), shelf.id, lambda: _by_worth(shelf))


def _by_worth(shelf: Shelf) -> tuple[Slot, ...]:
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
    return *cages, *plain, *powered
