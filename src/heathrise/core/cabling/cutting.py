"""Which cable is cut from which box, so that what is left over is left in one piece."""

from __future__ import annotations

from collections.abc import Sequence

from ortools.sat.python import cp_model

_SOLVE_SECONDS = 1.5
_MOST_CHOICES = 6_000  # cables times boxes: beyond, what first-fit finds is kept


def cut_from(lengths: Sequence[int], box_m: int, count: int) -> tuple[list[list[int]], bool]:
    """Return the places of the lengths that are cut from each box, the fullest boxes first, and whether
    no other way to cut leaves a longer rest in one of them.

    Args:
        lengths: whole metres, none longer than a box.
        count: boxes that are there; where these lengths are not known to fit, as many as they take.

    References:
        Bin packing with the number of bins given; the least filled bin is made as empty as can be, m.
    """
    if not lengths:
        return [[] for _ in range(count)], True
    first = first_fit(lengths, box_m)
    if count == 1 or len(lengths) * count > _MOST_CHOICES:
        return _in_order(first, lengths, max(count, len(first))), count == 1 and len(first) == 1
    model = cp_model.CpModel()
    into = [[model.new_bool_var("") for _ in range(count)] for _ in lengths]
    for row in into:
        model.add_exactly_one(row)
    loads = [sum(m * row[b] for m, row in zip(lengths, into, strict=True)) for b in range(count)]
    for load in loads:
        model.add(load <= box_m)
    for load in loads[:-1]:
        model.add(load >= loads[-1])
    if len(first) <= count:
        by_load = _in_order(first, lengths, count)
        for b, box in enumerate(by_load):
            for i, row in enumerate(into):
                model.add_hint(row[b], i in box)
    model.minimize(loads[-1])
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = 1
    solver.parameters.max_time_in_seconds = _SOLVE_SECONDS
    status = solver.solve(model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return _in_order(first, lengths, max(count, len(first))), False
    boxes = [[i for i, row in enumerate(into) if solver.value(row[b])] for b in range(count)]
    return _in_order(boxes, lengths, count), status == cp_model.OPTIMAL


def first_fit(lengths: Sequence[int], box_m: int) -> list[list[int]]:
    """Return the places of the lengths in each box, the longest put first into the first that has room."""
    boxes: list[list[int]] = []
    rests: list[int] = []
    for i in sorted(range(len(lengths)), key=lambda i: -lengths[i]):
        for b, rest in enumerate(rests):
            if rest >= lengths[i]:
                boxes[b].append(i)
                rests[b] -= lengths[i]
                break
        else:
            boxes.append([i])
            rests.append(box_m - lengths[i])
    return boxes


def _in_order(boxes: Sequence[Sequence[int]], lengths: Sequence[int], count: int) -> list[list[int]]:
    """Return boxes the fullest first, and in each the longest cable first: what is pulled far comes
    off a full box."""
    filled = [sorted(box, key=lambda i: (-lengths[i], i)) for box in boxes]
    filled += [[] for _ in range(count - len(filled))]
    return sorted(filled, key=lambda box: (-sum(lengths[i] for i in box), box))
