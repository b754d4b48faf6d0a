"""Lays a diagram out: columns from the line on, rows, racks as frames; what is alike folds into one card.

A thing stands in the row of the first that hangs on it, so that the way from the line to the first switches
is one straight row, and what stands in one rack lies together. Lines between things and what they hang on
never cross; a second way may cross some, since things keep the order of their ports.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass

from ..base.wording import some
from .values import GRID, Card, Diagram, FrameBox, Node, Picture
from .words import connected, pace

ROWS_AT_ONCE = 12
_LEAST_FOLD = 3


@dataclass(frozen=True)
class _Fold:
    """Things that hang on the same, are alike, and have nothing behind them."""

    id: str
    nodes: tuple[Node, ...]


def lay_out(
    diagram: Diagram,
    opened: Collection[str] = (),
    shut: Collection[str] = (),
    rows_at_once: int | None = ROWS_AT_ONCE,
) -> Picture:
    """Return where each thing of a diagram stands.

    Args:
        opened: folds that somebody opened.
        shut: things whose branch somebody folded away, and folds that he closed.
        rows_at_once: above how many rows what is alike is folded, the most first; None for never.
    """
    below: dict[str | None, list[Node]] = defaultdict(list)
    for node in diagram.nodes:
        below[node.parent].append(node)
    hidden = frozenset(k for k in shut if below.get(k))
    folds = _folds(below)
    closed = {k for k in folds if k in shut}
    if rows_at_once is not None:
        candidates = sorted(
            (f for k, f in folds.items() if k not in opened and k not in closed),
            key=lambda f: (-len(f.nodes), f.id),
        )
        for fold in candidates:
            if _rows(below, hidden, {k: folds[k] for k in closed}) <= rows_at_once:
                break
            closed.add(fold.id)
    return _placed(diagram, below, hidden, folds, closed)


def _folds(below: Mapping[str | None, Sequence[Node]]) -> dict[str, _Fold]:
    found: dict[str, list[Node]] = defaultdict(list)
    for parent, nodes in below.items():
        for node in nodes:
            if node.kind == "device" and not below.get(node.id):
                kind = node.joint.kind if node.joint is not None else ""
                found[f"fold:{parent}:{node.role}:{'air' if kind == 'air' else ''}"].append(node)
    return {k: _Fold(k, tuple(rows)) for k, rows in found.items() if len(rows) >= _LEAST_FOLD}


def _rows(
    below: Mapping[str | None, Sequence[Node]], hidden: Collection[str], closed: Mapping[str, _Fold]
) -> int:
    inside = {n.id for f in closed.values() for n in f.nodes}
    rows = 0
    todo: list[str | None] = [None]
    while todo:
        at = todo.pop()
        children = [] if at in hidden else below.get(at, [])
        left = [n for n in children if n.id not in inside]
        todo += [n.id for n in left]
        ends = sum(1 for n in left if n.id in hidden or not below.get(n.id))
        rows += ends + sum(1 for f in closed.values() if at not in hidden and f.nodes[0].parent == at)
    return rows


def _placed(
    diagram: Diagram,
    below: Mapping[str | None, Sequence[Node]],
    hidden: Collection[str],
    folds: Mapping[str, _Fold],
    closed: Collection[str],
) -> Picture:
    fold_of = {n.id: k for k, f in folds.items() for n in f.nodes}
    cards: list[Card] = []
    stands: dict[str, Card] = {}
    row = 0

    def put(card: Card, *ids: str) -> None:
        cards.append(card)
        stands.update(dict.fromkeys(ids, card))

    def place(node: Node, column: int) -> None:
        nonlocal row
        children = () if node.id in hidden else below.get(node.id, ())
        behind = sum(1 for _ in _under(below, node.id)) if node.id in hidden else 0
        card = Card(
            id=node.id,
            column=column,
            row=row,
            parent=node.parent,
            nodes=(node.id,),
            name=node.name,
            says=node.says,
            behind=behind,
            folds=bool(below.get(node.id)) and node.kind != "line",
            folded=node.id in hidden,
        )
        put(card, node.id)
        shown: set[str] = set()
        for child in children:
            fold = fold_of.get(child.id, "")
            if fold in closed:
                if fold not in shown:
                    shown.add(fold)
                    put(_folded(folds[fold], node.id, column + 1, row), *(n.id for n in folds[fold].nodes))
                    row += 1
                continue
            place(child, column + 1)
        if not children:
            row += 1

    for root in below.get(None, ()):
        place(root, 0)
    seconds = [(s.below, s.above) for s in diagram.seconds if s.below in stands and s.above in stands]
    frames = tuple(_frames(diagram, stands))
    columns = 1 + max((c.column for c in cards), default=0)
    tops = tuple(_tops(row, frames))
    return Picture(
        columns=columns,
        rows=row,
        tops=tops,
        wide=2 * GRID.margin + (columns - 1) * GRID.column + GRID.card_wide,
        high=(tops[-1] if tops else 0.0) + GRID.card_high + GRID.frame_pad + GRID.margin,
        cards=tuple(cards),
        frames=frames,
        seconds=tuple(dict.fromkeys((stands[b].id, stands[a].id) for b, a in seconds)),
    )


def _tops(rows: int, frames: Sequence[FrameBox]) -> Iterator[float]:
    """Yield where each row begins: below a frame's name where one begins, clear of one that ends above."""
    begins, ends = {f.row for f in frames}, {f.last_row for f in frames}
    top = GRID.margin
    for row in range(rows):
        if row in begins:
            top += GRID.frame_head
        yield top
        top += GRID.row + (GRID.frame_pad if row in ends else 0.0)


def _under(below: Mapping[str | None, Sequence[Node]], key: str) -> Iterator[Node]:
    for child in below.get(key, ()):
        yield child
        yield from _under(below, child.id)


def _folded(fold: _Fold, parent: str, column: int, row: int) -> Card:
    many = len(fold.nodes)
    role = fold.nodes[0].role.lower()
    says = {key: _together([n.says.get(key, "") for n in fold.nodes]) for key in fold.nodes[0].says}
    says["cables"] = _joints(fold.nodes)
    serves = round(sum(n.clients for n in fold.nodes if n.joint is not None and connected(n.joint)))
    says["client"] = some([n.place or n.name for n in fold.nodes]) + (f", serve {serves}" if serves else "")
    if watts := sum(n.joint.watts for n in fold.nodes if n.joint is not None):
        says["power"] = f"{watts:.0f}\u00a0W together"
    return Card(
        id=fold.id,
        column=column,
        row=row,
        parent=parent,
        nodes=tuple(n.id for n in fold.nodes),
        name=f"{many} {role}{'' if role.endswith('s') else 'es' if role.endswith('ch') else 's'}",
        says=says,
        folds=True,
        folded=True,
    )


def _together(rows: Sequence[str]) -> str:
    """Return what several say, once where they say the same."""
    return " or ".join(dict.fromkeys(r for r in rows if r))


def _joints(nodes: Sequence[Node]) -> str:
    """Return the ports, lengths and speeds of several cables."""
    joints = [n.joint for n in nodes if n.joint is not None]
    ports = sorted(p for j in joints for p in j.ports)
    lengths = [j.length_m for j in joints if j.length_m]
    speeds = [j.speed_mbps for j in joints if j.speed_mbps]
    parts = [f"ports {_ranges(ports)}" if ports else ""]
    if lengths:
        least, most = round(min(lengths)), round(max(lengths))
        parts.append(f"{least} to {most}\u00a0m" if least != most else f"{least}\u00a0m")
    if speeds:
        least_mbps, most_mbps = min(speeds), max(speeds)
        one = pace(least_mbps)
        parts.append(one if least_mbps == most_mbps else f"{one} to {pace(most_mbps)}")
    return " · ".join(p for p in parts if p)


def _ranges(numbers: Sequence[int]) -> str:
    """Return numbers in words, runs of them as from and to."""
    runs: list[list[int]] = []
    for n in numbers:
        if runs and n == runs[-1][1] + 1:
            runs[-1][1] = n
        elif not runs or n != runs[-1][1]:
            runs.append([n, n])
    return ", ".join(str(a) if a == b else f"{a} to {b}" if b > a + 1 else f"{a}, {b}" for a, b in runs)


def _frames(diagram: Diagram, stands: Mapping[str, Card]) -> Iterator[FrameBox]:
    """Yield a frame for each rack round what stands in it and hangs together."""
    by_id = {n.id: n for n in diagram.nodes}
    group: dict[str, str] = {}
    for node in diagram.nodes:  # each after what it hangs on
        if node.room and node.id in stands and stands[node.id].id == node.id:
            above = by_id.get(node.parent or "")
            together = above is not None and above.room == node.room and above.id in group
            group[node.id] = group[above.id] if together and above is not None else node.id
    pieces: dict[str, list[Card]] = defaultdict(list)
    for key, head in group.items():
        pieces[head].append(stands[key])
    for head, cards in pieces.items():
        yield FrameBox(
            room=by_id[head].room,
            name=by_id[head].place,
            says=diagram.racks.get(by_id[head].room, {}),
            column=min(c.column for c in cards),
            row=min(c.row for c in cards),
            last_column=max(c.column for c in cards),
            last_row=max(c.row for c in cards),
        )
