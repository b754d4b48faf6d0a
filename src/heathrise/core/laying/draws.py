"""Which cables are pulled at once: far first, those that share most of the way, each off its own box."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

from ..catalogue import Rules
from .links import Link
from .pulling import way_cells

Box = tuple[str, int]  # item and number of a box or a reel


@dataclass(frozen=True)
class Draw:
    """Links that are pulled at once, the farthest first, and the metres that each shares with it."""

    links: tuple[str, ...]
    shared_m: tuple[float, ...]


def draws_of(rules: Rules, links: Sequence[Link], boxes: Mapping[str, Collection[Box]]) -> list[Draw]:
    """Return the pulls of a site, rack by rack, the farthest link first.

    With it go, those that share most with it first, links of its rack whose way lies beside its own for
    a share of the whole, off boxes that nothing else of the pull comes off, up to so many cables.

    Args:
        boxes: by link the boxes that its cables come off; a link without any is pulled by itself.
    """
    most, share = int(rules["install.pulled_at_once"]), rules["install.pulled_share"]
    cells = {k.id: way_cells(k) for k in links}
    far_m = {k.id: sum(cells[k.id].values()) for k in links}
    racks = list(dict.fromkeys(k.rack for k in links))
    left = sorted(links, key=lambda k: (racks.index(k.rack), -far_m[k.id], k.id))
    found: list[Draw] = []
    while left:
        first = left.pop(0)
        taken, used, count = [(first, far_m[first.id])], set(boxes.get(first.id, ())), first.cables
        beside = [(_shared_m(cells[k.id], cells[first.id]), k) for k in left if k.rack == first.rack]
        for shared, other in sorted(beside, key=lambda row: (-row[0], row[1].id)):
            mine = set(boxes.get(other.id, ()))
            apart = bool(used) and bool(mine) and not mine & used
            if apart and shared >= share * far_m[other.id] > 0 and count + other.cables <= most:
                taken.append((other, shared))
                used |= mine
                count += other.cables
        gone = {k.id for k, _ in taken}
        left = [k for k in left if k.id not in gone]
        taken.sort(key=lambda row: -far_m[row[0].id])
        found.append(Draw(tuple(k.id for k, _ in taken), tuple(round(m, 1) for _, m in taken)))
    return found


def _shared_m(mine: Mapping[tuple[object, ...], float], others: Mapping[tuple[object, ...], float]) -> float:
    """Return the metres of a way that lie in cells of another."""
    return sum(m for cell, m in mine.items() if cell in others)
