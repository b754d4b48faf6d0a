"""Which unit each thing of a rack takes: heaviest low, panel beside its switch, hot gear apart, a
blank over each fan, cords short. Searched by CP-SAT, which says whether nothing is better."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from ortools.sat.python import cp_model

# What an arrangement costs, in units of cord; the first outweighs all that follows.
_LEFT = 100_000
_NO_BLANK = 60
_HOT_BESIDE = 25
_CORD = 2
_HIGH = 1  # each kilogram, each unit
_SECONDS = 0.3  # of the solver's own time, the same on every machine


@dataclass(frozen=True)
class Placed:
    """A thing that takes units: ``fan`` wants so many blank above, ``at`` is where somebody put it;
    ``stays`` ranks things of equal claim, so that the same rack is arranged the same."""

    key: str
    units: int
    kg: int
    hot: bool = False
    fan: int = 0
    at: int | None = None


@dataclass(frozen=True)
class Arrangement:
    """The lowest unit of each thing; what found no place is left out; blanks over fans."""

    units: dict[str, int]
    blanks: tuple[int, ...]
    proven: bool
    cost: int


@dataclass(frozen=True)
class Stack:
    """Things one on the other, the heaviest to a unit lowest: where each would be, and the sum of
    weight times unit, which no arrangement of all of them goes below."""

    at: dict[str, int]
    weighed: int


def lightest_stack(things: Sequence[Placed]) -> Stack:
    at: dict[str, int] = {}
    following = 1
    for thing in sorted(things, key=lambda t: (-t.kg / t.units, t.key)):
        at[thing.key] = following
        following += thing.units
    return Stack(at, sum(t.kg * at[t.key] for t in things))


def arrange(things: tuple[Placed, ...], near: tuple[tuple[str, str, int], ...], units: int) -> Arrangement:
    """Return where each thing goes in a frame of so many ``units``.

    Args:
        things: those that somebody placed stay where they are.
        near: pairs of things and how many cords join them.
    """
    return _arranged(things, near, units)


@lru_cache(512)
def _arranged(things: tuple[Placed, ...], near: tuple[tuple[str, str, int], ...], units: int) -> Arrangement:
    model = cp_model.CpModel()
    at: dict[str, cp_model.IntVar] = {}
    here: dict[str, cp_model.IntVar] = {}
    blank: dict[str, cp_model.IntVar] = {}
    taken: list[cp_model.IntervalVar] = []
    cost: list[cp_model.LinearExprT] = []
    weighed: list[cp_model.LinearExprT] = []
    for thing in things:
        highest = units - thing.units + 1
        if highest < 1:
            continue
        at[thing.key] = model.new_int_var(1, highest, thing.key)
        here[thing.key] = model.new_bool_var("")
        taken.append(
            model.new_optional_fixed_size_interval_var(at[thing.key], thing.units, here[thing.key], "")
        )
        wanted = _LEFT * thing.units * (2 if thing.at is not None else 1)  # a person's place goes first
        cost.append(wanted * (1 - here[thing.key]))
        height = model.new_int_var(0, highest, "")  # none for what is left out
        model.add(height >= at[thing.key] - highest * (1 - here[thing.key]))
        weighed.append(thing.kg * height)
        cost.append(_HIGH * thing.kg * height)
        if thing.at is not None and 1 <= thing.at <= highest:
            model.add(at[thing.key] == thing.at)
        if thing.fan and units > thing.units:
            over = blank[thing.key] = model.new_bool_var("")
            model.add_implication(over, here[thing.key])
            model.add(at[thing.key] + thing.units + thing.fan <= units + 1).only_enforce_if(over)
            taken.append(
                model.new_optional_fixed_size_interval_var(at[thing.key] + thing.units, thing.fan, over, "")
            )
            cost.append(_NO_BLANK * (1 - over))
    model.add_no_overlap(taken)
    sizes = {t.key: t.units for t in things}
    for one, other, cords in near:
        if one in at and other in at:
            apart = model.new_int_var(0, units, "")
            for ends in (at[one] - at[other], at[other] - at[one]):
                model.add(apart >= ends).only_enforce_if([here[one], here[other]])
            cost.append(_CORD * cords * apart)
    for one, other in itertools.combinations([t.key for t in things if t.hot and t.key in at], 2):
        apart, beside = model.new_int_var(0, units, ""), model.new_bool_var("")
        model.add_abs_equality(apart, at[one] - at[other])
        model.add(apart > max(sizes[one], sizes[other])).only_enforce_if(
            [beside.Not(), here[one], here[other]]
        )
        cost.append(_HOT_BESIDE * beside)
    # No stack is lighter at its top than the one in order of weight to a unit (Smith's rule).
    lowest = lightest_stack([t for t in things if t.key in at])
    for k, units_at in lowest.at.items():
        model.add_hint(at[k], min(units_at, units))
        model.add_hint(here[k], 1)
    model.add(sum(weighed) >= lowest.weighed - sum(lowest.weighed * (1 - h) for h in here.values()))
    model.minimize(sum(cost))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = 7
    solver.parameters.max_deterministic_time = _SECONDS
    status = solver.solve(model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return Arrangement({}, (), False, 0)
    found = {k: solver.value(at[k]) for k in at if solver.value(here[k])}
    fans = {t.key: t.fan for t in things}
    blanks = [
        found[k] + sizes[k] + n
        for k in blank
        if k in found and solver.value(blank[k])
        for n in range(fans[k])
    ]
    return Arrangement(
        found, tuple(sorted(blanks)), status == cp_model.OPTIMAL, round(solver.objective_value)
    )
