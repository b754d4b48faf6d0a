"""How many boxes of cable the runs take, since a run may not be joined."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from ortools.sat.python import cp_model

_SOLVE_SECONDS = 1.0


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
    """
    # Whole metres, rounded up: nobody cuts closer, and the answer can be kept.
    cuts = tuple(sorted((math.ceil(m) for m in lengths_m), reverse=True))
    fitting = tuple(c for c in cuts if c <= box_m)
    found = _pack(fitting, int(box_m), prove)
    return Boxes(found.count, found.proven, len(cuts) - len(fitting))


@lru_cache(maxsize=512)
def _pack(cuts: tuple[int, ...], box_m: int, prove: bool) -> Boxes:
    fewest = math.ceil(sum(cuts) / box_m)
    quick = _first_fit(cuts, box_m)
    if quick == fewest or not prove:
        return Boxes(quick, quick == fewest)
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
    model.minimize(sum(used))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.max_time_in_seconds = _SOLVE_SECONDS
    status = solver.solve(model)
    if status in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return Boxes(round(solver.objective_value), status == cp_model.OPTIMAL)
    return Boxes(quick, False)


def _first_fit(cuts: tuple[int, ...], box_m: int) -> int:
    rests: list[int] = []
    for cut in cuts:
        for i, rest in enumerate(rests):
            if rest >= cut:
                rests[i] -= cut
                break
        else:
            rests.append(box_m - cut)
    return len(rests)
