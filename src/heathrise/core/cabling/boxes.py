"""How many boxes of cable the runs take, since a run may not be joined."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache, partial

import numpy as np
from numpy.typing import NDArray
from ortools.sat.python import cp_model
from scipy.optimize import linprog

from ..catalogue import CableModel, Catalogue
from ..design import Jacket
from .cutting import first_fit

_SOLVE_SECONDS = 1.0
_MOST_CHOICES = 20_000  # of a box for a cut: beyond, a search finds nothing in its time
_MOST_PATTERNS = 400
_TINY, _SURE = 1e-7, 1e-6


@dataclass(frozen=True)
class Boxes:
    """The fewest boxes found, and whether fewer are proven impossible."""

    count: int
    proven: bool
    too_long: int = 0


def boxes_for(lengths_m: Sequence[float], box_m: float, prove: bool = True) -> Boxes:
    """Return the boxes from which runs of these lengths can be cut whole.

    Args:
        lengths_m: lengths to cut, waste included. Those longer than a box count as too long.
        prove: search for fewer than first-fit finds; without it the answer is quick.

    References:
        Gilmore and Gomory, cutting stock by patterns; Martello and Toth for the bound; m.
    """
    # Whole metres, rounded up: nobody cuts closer, and the answer can be kept.
    cuts = tuple(sorted((math.ceil(m) for m in lengths_m), reverse=True))
    fitting = tuple(c for c in cuts if c <= box_m)
    found = _pack(fitting, int(box_m), prove)
    return Boxes(found.count, found.proven, len(cuts) - len(fitting))


@dataclass(frozen=True)
class Cut:
    """Cables to be cut for one link: how many, and the length of each with its waste, m."""

    name: str
    category: str
    jacket: Jacket
    length_m: float
    cables: int


@dataclass(frozen=True)
class Bought:
    """What is bought of one category under one jacket, and the jackets that it is ``cut_for``: a box
    for a shaft serves rooms as well. ``boxed`` and ``reeled`` are what is cut from boxes and from reels;
    ``too_long`` names the links of which neither holds a cable in one piece."""

    category: str
    jacket: Jacket
    boxes: int
    reels: int
    proven: bool
    too_long: tuple[str, ...] = ()
    cut_for: tuple[Jacket, ...] = ()
    boxed: tuple[Cut, ...] = ()
    reeled: tuple[Cut, ...] = ()


# Each of these jackets may lie wherever the ones before it may.
_SERVES: tuple[Jacket, ...] = ("indoor", "riser", "plenum")


def cable_bought(
    catalogue: Catalogue, cuts: Sequence[Cut], price: Callable[[str], float], prove: bool = True
) -> list[Bought]:
    """Return the boxes and reels from which all cables can be cut whole, by category and jacket.

    What is longer than a box comes off a reel; what is longer than a reel is told. What is for rooms
    is cut from boxes for shafts or moving air where that costs less than boxes of its own.

    Args:
        price: of a box or a reel by its item.
    """
    groups: dict[str, dict[Jacket, list[Cut]]] = {}
    for cut in cuts:
        if cut.length_m > 0 and cut.cables:
            groups.setdefault(cut.category, {}).setdefault(cut.jacket, []).append(cut)
    found = []
    for category, rows in groups.items():
        model = catalogue.cables[category]
        inside = [j for j in _SERVES if j in rows]
        ways = [[_bought(model, of, rows, prove) for of in parts] for parts in _shared(inside)]

        found += min(ways, key=partial(_cost, model, price))
        found += [_bought(model, (j,), rows, prove) for j in rows if j not in _SERVES]
    return found


def _cost(model: CableModel, price: Callable[[str], float], way: Sequence[Bought]) -> tuple[float, int]:
    """Return what a way to buy costs; of equals the one that mixes less is the less."""
    boxes = sum(b.boxes * price(model.item(b.jacket)) for b in way)
    reels = sum(b.reels * price(model.item(b.jacket, reel=True)) for b in way)
    return round(boxes + reels, 2), -len(way)


def _shared(jackets: Sequence[Jacket]) -> Iterator[list[tuple[Jacket, ...]]]:
    """Yield each way to cut the cables of some jackets from the boxes of those that serve more: groups
    of which the last is what is bought."""
    for taken in itertools.product(*(jackets[k:] for k in range(len(jackets)))):
        if all(taken[jackets.index(t)] == t for t in taken):
            yield [
                tuple(j for j, t in zip(jackets, taken, strict=True) if t == of)
                for of in dict.fromkeys(taken)
            ]


def _bought(
    model: CableModel, of: tuple[Jacket, ...], rows: Mapping[Jacket, Sequence[Cut]], prove: bool
) -> Bought:
    """Return what is bought of the last of these jackets for the cuts of all of them."""
    cuts = [c for jacket in of for c in rows[jacket]]

    def between(least_m: float, most_m: float) -> tuple[Cut, ...]:
        return tuple(c for c in cuts if least_m < math.ceil(c.length_m) <= most_m)

    def counted(held: Sequence[Cut], holds_m: float) -> Boxes:
        return boxes_for([c.length_m for c in held for _ in range(c.cables)], holds_m, prove)

    boxed, reeled = between(0, model.box_m), between(model.box_m, model.reel_m)
    boxes, reels = counted(boxed, model.box_m), counted(reeled, model.reel_m)
    long = tuple(c.name for c in between(model.reel_m, math.inf))
    proven = boxes.proven and reels.proven
    return Bought(model.id, of[-1], boxes.count, reels.count, proven, long, of, boxed, reeled)


@lru_cache(maxsize=512)
def _pack(cuts: tuple[int, ...], box_m: int, prove: bool) -> Boxes:
    fewest = least_boxes(cuts, box_m)
    quick = len(first_fit(cuts, box_m))
    if quick == fewest or not prove:
        return Boxes(quick, quick == fewest)
    found = _by_patterns(cuts, box_m, quick, fewest)
    if found.proven or len(cuts) * found.count > _MOST_CHOICES:
        return found
    quick = found.count
    model = cp_model.CpModel()
    boxes = range(quick)
    into = [[model.new_bool_var("") for _ in boxes] for _ in cuts]
    used = [model.new_bool_var("") for _ in boxes]
    for row in into:
        model.add_exactly_one(row)
    for b in boxes:
        model.add(sum(c * row[b] for c, row in zip(cuts, into, strict=True)) <= box_m * used[b])
        if b:
            model.add_implication(used[b], used[b - 1])
    model.add(sum(used) >= fewest)
    model.minimize(sum(used))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.max_time_in_seconds = _SOLVE_SECONDS
    status = solver.solve(model)
    if status in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return Boxes(round(solver.objective_value), status == cp_model.OPTIMAL)
    return Boxes(quick, False)


def _by_patterns(cuts: tuple[int, ...], box_m: int, quick: int, fewest: int) -> Boxes:
    """Return how many boxes do where many cuts are of a few lengths: patterns by which a box is cut
    are found one by one as the linear program asks for them (Gilmore and Gomory), whole boxes are
    taken of each, and what is left over is packed by itself."""
    lengths = np.array(sorted(set(cuts), reverse=True))
    wanted = np.array([cuts.count(int(c)) for c in lengths], dtype=np.float64)
    patterns = np.diag(np.floor(box_m / lengths))
    for _ in range(_MOST_PATTERNS):
        solved = linprog(np.ones(patterns.shape[1]), -patterns, -wanted, method="highs")
        worth = -solved.ineqlin.marginals
        pattern, value = _fullest(lengths, worth, box_m)
        # A bound whether or not more patterns are to come (Farley).
        fewest = max(fewest, math.ceil(float(solved.fun or 0) / max(value, 1.0) - _SURE))
        if value <= 1 + _TINY:
            break
        patterns = np.column_stack([patterns, pattern])
    whole = np.floor(np.asarray(solved.x) + _TINY)
    left = np.maximum(wanted - patterns[:, : len(whole)] @ whole, 0)
    rest = tuple(int(c) for c, n in zip(lengths, left, strict=True) for _ in range(int(n)))
    count = min(quick, int(whole.sum()) + len(first_fit(rest, box_m)))
    return Boxes(count, count == fewest)


def _fullest(
    lengths: NDArray[np.int64], worth: NDArray[np.float64], box_m: int
) -> tuple[NDArray[np.float64], float]:
    """Return how a box is cut for the most worth, by how often each length, and that worth."""
    best, taken = np.zeros(box_m + 1), np.full(box_m + 1, -1)
    for room in range(1, box_m + 1):
        best[room] = best[room - 1]
        fits = np.flatnonzero(lengths <= room)
        if len(fits):
            values = best[room - lengths[fits]] + worth[fits]
            k = int(values.argmax())
            if values[k] > best[room]:
                best[room], taken[room] = values[k], fits[k]
    pattern, room = np.zeros(len(lengths)), box_m
    while room > 0:
        k = int(taken[room])
        room -= 1 if k < 0 else int(lengths[k])
        if k >= 0:
            pattern[k] += 1
    return pattern, float(best[box_m])


def least_boxes(cuts: Sequence[int], box_m: int) -> int:
    """Return a number of boxes that no cutting beats: the longest cuts each want one of their own,
    the middling share only among themselves, the rest fill up (bound L2 of Martello and Toth)."""
    cuts = sorted(cuts, reverse=True)
    best = math.ceil(sum(cuts) / box_m)
    for shortest in {0, *(c for c in cuts if 2 * c <= box_m)}:
        alone = [c for c in cuts if c > box_m - shortest]
        large = [c for c in cuts if box_m - shortest >= c and 2 * c > box_m]
        small = [c for c in cuts if shortest <= c and 2 * c <= box_m]
        room = len(large) * box_m - sum(large)
        more = max(0, math.ceil((sum(small) - room) / box_m))
        best = max(best, len(alone) + len(large) + more)
    return best
