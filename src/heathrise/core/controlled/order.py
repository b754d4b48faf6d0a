"""In what order a push goes: what is new to all first, then device by device from the far ends, last the
branch that one sits on; and who would be cut off by a step."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from typing import ClassVar, Literal

from pydantic import Field

from ..base.frozen import Frozen
from .difference import Differs, Held, Value, device_of
from .tree import Tree

Phase = Literal["add", "device", "remove"]


class PushStep(Frozen):
    """What is sent to one target at once. ``cuts`` names who is out of reach only afterwards."""

    KEY: ClassVar = ("number",)

    number: int
    target: str
    name: str
    phase: Phase
    changes: tuple[Differs, ...]
    cuts: tuple[str, ...] = Field((), description="ids of what is out of reach after it")
    branch: bool = Field(False, description="whether the controller sits on this branch")


def push_steps(
    differs: Iterable[Differs], held: Held, tree: Tree, names: Mapping[str, str]
) -> list[PushStep]:
    """Return the steps of a push in their order.

    Networks and names come before the ports that carry them, and go after the last port has let go of
    them. Of devices the farthest comes first, so that none is configured over a way that was changed
    before; those between the controller and the first switch come last, from their far end on.

    Args:
        names: what each target is called.
    """
    by_target: dict[str, list[Differs]] = {}
    for row in differs:
        by_target.setdefault(row.target, []).append(row)
    steps: list[PushStep] = []
    now = {target: dict(values) for target, values in held.items()}
    for target, phase, rows in _in_order(by_target, held, tree):
        values = dict(now.get(target, {}))
        for row in rows:
            _set(values, row.key, row.wanted)
        after = {**now, target: values}
        cuts = sorted(tree.reached(now) - tree.reached(after)) if phase == "device" else []
        now = now if cuts else after  # what cuts off is not sent unless somebody says so
        steps.append(
            PushStep(
                number=len(steps) + 1,
                target=target,
                name=names.get(target, target),
                phase=phase,
                changes=tuple(rows),
                cuts=tuple(cuts),
                branch=device_of(target) in tree.branch,
            )
        )
    return steps


def _in_order(
    by_target: Mapping[str, list[Differs]], held: Held, tree: Tree
) -> Iterator[tuple[str, Phase, list[Differs]]]:
    devices = {key: target for target in by_target if (key := device_of(target)) is not None}
    shared = [t for t in by_target if device_of(t) is None]
    gone = [t for t in shared if t in held and all(d.wanted is None for d in by_target[t])]
    for target in sorted((t for t in shared if t not in gone), key=_rank):
        yield target, "add", by_target[target]
    for key in sorted(devices, key=lambda k: _far_first(k, tree)):
        yield devices[key], "device", by_target[devices[key]]
    for target in sorted(gone, key=lambda t: -_rank(t)):
        yield target, "remove", by_target[target]


# Each after what it refers to; what a controller has beside these comes last.
_RANKS = {"site": 0, "network": 1, "name": 2, "vouchers": 3}


def _rank(target: str) -> int:
    return _RANKS.get(target.split("/", maxsplit=1)[0], len(_RANKS))


def _far_first(key: str, tree: Tree) -> tuple[bool, int, str]:
    return key in tree.branch, -tree.depth.get(key, 0), key


def _set(values: dict[str, Value], key: str, value: Value) -> None:
    if value is None:
        values.pop(key, None)
    else:
        values[key] = value
