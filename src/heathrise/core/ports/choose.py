"""Which switches a rack is bought: the cheapest that serve every link, with what is kept free.

A link is served in full: a port of its class and at least its speed, watts behind it, no unmanaged
switch where it carries a network of its own. Constraint programming decides and says whether it is proven.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

from ortools.sat.python import cp_model

from ..catalogue import SwitchModel
from .assign import Demand, fits, reserved_w

_SOLVE_SECONDS = 4.0
_SLOWER = 10_000_000  # cents: a port slower than asked only where there is none that is faster
_CENTS, _TENTHS = 100, 10
_BEFORE_COUNT = 10  # a cent counts more than a switch more


@dataclass(frozen=True)
class Chosen:
    """The switches of a rack, those kept first; their price without those; how many links run slower
    than asked; the least price there can be, and whether this is proven to be it."""

    models: tuple[SwitchModel, ...]
    price: float
    slower: int
    bound: float
    proven: bool


@dataclass(frozen=True)
class KeptFree:
    """What is kept free: ports as a share of those in use, watts as a share of each budget."""

    ports_share: float
    watts_share: float


class _Choice:
    """The problem as it is built up: which model each slot of the rack holds, what it serves."""

    def __init__(
        self, demands: Sequence[Demand], sold: Sequence[SwitchModel], there: Sequence[SwitchModel], most: int
    ) -> None:
        self.model = cp_model.CpModel()
        self.there = len(there)
        self.kinds = Counter(
            Demand("", "", d.speed_mbps, d.poe_class, d.port_w, d.class_w, d.vlans, fibre=d.fibre)
            for d in demands
        )
        self.slots = [[m] for m in there] + [list(sold)] * most
        self.used = [[self.model.new_bool_var("") for _ in options] for options in self.slots]
        self.served: list[list[cp_model.IntVar]] = [[] for _ in self.kinds]
        self.slower: list[cp_model.IntVar] = []
        self.free: list[cp_model.LinearExprT] = []

    def hold(self) -> None:
        """What is there stays; slots that are alike, the first is not, are filled the dearer before."""
        alike = max(1, self.there)
        for k, row in enumerate(self.used):
            if k < self.there:
                self.model.add(row[0] == 1)
                continue
            self.model.add(sum(row) <= 1)
            if k > alike:
                self.model.add(sum(row) <= sum(self.used[k - 1]))
                self.model.add(self.cents(k) <= self.cents(k - 1))
        self.model.add(sum(self.used[0]) == 1)

    def cents(self, slot: int) -> cp_model.LinearExprT:
        row = zip(self.slots[slot], self.used[slot], strict=True)
        return sum(round(_CENTS * m.price) * v for m, v in row)

    def serve(self, slot: int, watts_share: float) -> list[cp_model.IntVar]:
        """Let a slot serve what it can; returns the ports that its ways take."""
        ways: list[cp_model.IntVar] = []
        for switch, here in zip(self.slots[slot], self.used[slot], strict=True):
            watts: list[cp_model.LinearExprT] = []
            for group in switch.groups:
                way = self.model.new_int_var(0, group.count, "")
                inside = [way]
                ways.append(way)
                for t, (asked, number) in enumerate(self.kinds.items()):
                    if not fits(group, asked) or (asked.vlans and not switch.managed):
                        continue
                    count = self.model.new_int_var(0, min(group.count, number), "")
                    inside.append(count)
                    self.served[t].append(count)
                    if group.speed_mbps < asked.speed_mbps:
                        self.slower.append(count)
                    if asked.poe_class is not None:
                        watts.append(math.ceil(_TENTHS * reserved_w(switch, asked) - 1e-9) * count)
                self.model.add(sum(inside) <= group.count * here)
                if not group.cage:
                    self.free.append(group.count * here - sum(inside))
            usable = math.floor(_TENTHS * switch.budget_w * (1 - watts_share) + 1e-9)
            self.model.add(sum(watts) <= usable)
        return ways


def choose(
    demands: Sequence[Demand],
    sold: Sequence[SwitchModel],
    there: Sequence[SwitchModel],
    ways: int,
    kept: KeptFree,
    most: int = 6,
) -> Chosen | None:
    """Return the cheapest switches for a rack, or None where no choice of so many serves all.

    Args:
        there: switches that stay, the first of the rack before any that is bought.
        ways: ways to racks below, and the one up, that the first switch has beside those to the others.
        most: switches that are bought at most.
    """
    if not demands and not there:
        return Chosen((), 0.0, 0, 0.0, True)
    asked = _Choice(demands, sold, there, most)
    asked.hold()
    total = sum(v for row in asked.used for v in row)
    for slot in range(len(asked.slots)):
        taken = asked.serve(slot, kept.watts_share)
        # The first has the ways of the rack, and one to each of the others.
        wanted = ways + total - 1 if slot == 0 else sum(asked.used[slot])
        asked.model.add(sum(taken) == wanted)
    for served, number in zip(asked.served, asked.kinds.values(), strict=True):
        asked.model.add(sum(served) == number)
    asked.model.add(sum(asked.free) >= math.ceil(kept.ports_share * len(demands) - 1e-9))
    price = sum(asked.cents(slot) for slot in range(len(there), len(asked.slots)))
    worth: list[cp_model.LinearExprT] = [_BEFORE_COUNT * price, total]
    asked.model.minimize(sum([*worth, *(_BEFORE_COUNT * _SLOWER * slow for slow in asked.slower)]))
    return _solved(asked)


def _solved(asked: _Choice) -> Chosen | None:
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = 1
    solver.parameters.max_time_in_seconds = _SOLVE_SECONDS
    status = solver.solve(asked.model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    picked = [
        option
        for options, row in zip(asked.slots, asked.used, strict=True)
        for option, v in zip(options, row, strict=True)
        if solver.boolean_value(v)
    ]
    slower = sum(solver.value(v) for v in asked.slower)
    bound = (solver.best_objective_bound / _BEFORE_COUNT - _SLOWER * slower) / _CENTS
    price = round(sum(option.price for option in picked[asked.there :]), 2)
    proven = status == cp_model.OPTIMAL
    return Chosen(tuple(picked), price, slower, price if proven else max(0.0, round(bound, 2)), proven)
