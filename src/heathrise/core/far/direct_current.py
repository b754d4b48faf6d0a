"""Direct current over a long cable, to one load or to several on one feed. V, A, W, ohm, m, mm2."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..base.copper import warm_copper
from ..catalogue import Rules
from ..design import DesignError, Problem

_ROUNDS = 20_000
_SAME_V = 1e-10


@dataclass(frozen=True)
class Node:
    """A place of a feed: the row of the one before it, None where it hangs on the source; the ohms of the
    loop between both; what is drawn there, and at how many volts its converter gives up."""

    before: int | None
    ohm: float
    watts: float = 0.0
    least_v: float = 0.0


@dataclass(frozen=True)
class Branch:
    """What arrives at a place, and what its piece of cable carries and takes."""

    volts: float
    amperes: float
    lost_w: float


@dataclass(frozen=True)
class Fed:
    """A feed as it settles; ``runs`` is false where no current satisfies it or a converter gives up, and
    ``lowest`` the row of the place with the least in hand."""

    runs: bool
    source_w: float
    branches: tuple[Branch, ...]
    lowest: int


def loop_ohm(rules: Rules, mm2: float, length_m: float, temperature_c: float = 20.0) -> float:
    """Return ``2 l rho / A (1 + 0.00393 (T - 20))`` of a pair of conductors, not less than at 20 C.

    References:
        IEC 60228, conductors of cables; annealed copper at 20 C; ohm, mm2, m, C.
    """
    return 2 * length_m * rules["far.copper_ohm_mm2_m"] / mm2 * warm_copper(temperature_c)


def feed_tree(source_v: float, nodes: Sequence[Node]) -> Fed:
    """Return how a feed of constant-power loads settles; each node comes after the one before it.

    From the source's volts downwards until the volts agree, which is the higher of two answers: the one that
    a feed comes to rest at. Where they fall without end there is none.

    References:
        Kirchhoff's laws on a tree with loads of constant power; V, A, W, ohm.
    """
    volts = [source_v] * len(nodes)
    amperes = [0.0] * len(nodes)
    for _ in range(_ROUNDS):
        amperes = [n.watts / v for n, v in zip(nodes, volts, strict=True)]
        for row in range(len(nodes) - 1, -1, -1):
            before = nodes[row].before
            if before is not None:
                amperes[before] += amperes[row]
        fresh: list[float] = []
        for row, node in enumerate(nodes):
            above = source_v if node.before is None else fresh[node.before]
            fresh.append(above - amperes[row] * node.ohm)
        if min(fresh, default=source_v) <= 0:
            return _none(nodes)
        moved = max((abs(a - b) for a, b in zip(fresh, volts, strict=True)), default=0.0)
        volts = fresh
        if moved < _SAME_V:
            break
    else:
        return _none(nodes)
    branches = tuple(Branch(v, a, a * a * n.ohm) for v, a, n in zip(volts, amperes, nodes, strict=True))
    in_hand = [v - n.least_v for v, n in zip(volts, nodes, strict=True)]
    lowest = min(range(len(nodes)), key=in_hand.__getitem__, default=0)
    source_a = sum(a for a, n in zip(amperes, nodes, strict=True) if n.before is None)
    return Fed(min(in_hand, default=0.0) >= 0, source_v * source_a, branches, lowest)


def _none(nodes: Sequence[Node]) -> Fed:
    dead = tuple(Branch(0.0, 0.0, 0.0) for _ in nodes)
    farthest = max(range(len(nodes)), key=lambda k: _ohms(nodes, k), default=0)
    return Fed(False, 0.0, dead, farthest)


def _ohms(nodes: Sequence[Node], row: int) -> float:
    node = nodes[row]
    return node.ohm + (_ohms(nodes, node.before) if node.before is not None else 0.0)


def sound_gauges(
    rules: Rules, source_v: float, length_m: float, watts: float, least_v: float, temperature_c: float = 20.0
) -> tuple[float, ...]:
    """Return the conductors, mm2, over which one load runs and also starts; the thinnest first.

    Raises:
        DesignError: the source is no extra-low voltage.
    """
    if source_v >= rules["far.safe_v"]:
        what = f"{source_v:g} V is no extra-low voltage; feed with less than {rules['far.safe_v']:g} V"
        raise DesignError([Problem("source_v", what)])
    found = []
    for mm2 in sorted(rules.numbers("far.gauges_mm2")):
        ohm = loop_ohm(rules, mm2, length_m, temperature_c)
        loads = (watts, watts * rules["far.start_up"])
        if all(feed_tree(source_v, [Node(None, ohm, w, least_v)]).runs for w in loads):
            found.append(mm2)
    return tuple(found)


def longest_m(rules: Rules, source_v: float, mm2: float, watts: float, least_v: float) -> float:
    """Return how far a load still runs over a conductor: ``I = P / V``, ``R = (Vs - V) / I`` at the volts at
    which its converter gives up, or at half of the source's where that is more.

    References:
        Greatest power into a load of constant power comes over at half the source's volts; m.
    """
    at_v = max(least_v, source_v / 2)
    ohm = (source_v - at_v) * at_v / watts
    return max(0.0, ohm / loop_ohm(rules, mm2, 1.0))
