"""Assign every link a port, or prove that it cannot be done.

Three limits apply to each switch separately: ports, powered ports and watts; a fourth is what a
single port feeds. Constraint programming decides; the answer says whether it is proven best.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from ortools.sat.python import cp_model

from ..catalogue import PortGroup, SwitchModel, poe_rank
from .uplinks import Shelf, Slot, UplinkPort, uplinks

Reason = Literal["no_ports", "no_powered_ports", "no_watts", "no_class"]

_SOLVE_SECONDS = 2.0
# Objective weights, each above the sum of what lies below it for the sizes that are planned.
_LEFT_POWERED = 100_000
_LEFT_PLAIN = 60_000
_UNMANAGED = 20_000
_RANK = 1_000  # of two that cannot both be served the one that is shed first goes without
_SLOWER = 300
_CONVERTER = 30  # fibre in a port that is no cage
_WASTES_POWER = 20
_WASTES_SPEED = 4
_SAME_SWITCH = 1
_OVER = 1  # a tenth of a watt that a switch gives beyond its headroom


@dataclass(frozen=True)
class Demand:
    """What one link asks of its port. ``port_w`` is the draw that counts, seen at the port, ``class_w``
    what its class reserves there.

    ``rank`` is how late it is shed where not all can be served; ``vlans`` says that it carries a
    network of its own, which an unmanaged switch cannot. ``role`` is the kind of what is in it;
    ``pin`` the switch and the port that somebody chose for it, which must be able to serve it;
    ``fibre`` goes into a cage, or with a converter into another port.
    """

    id: str
    name: str
    speed_mbps: int
    poe_class: int | None = None
    port_w: float = 0.0
    class_w: float = 0.0
    vlans: bool = False
    device: str = ""
    rank: int = 0
    role: str = ""
    pin: tuple[str, int] | None = None
    fibre: bool = False


@dataclass(frozen=True)
class Assignment:
    """Who got which port, who got none and why, and whether fewer left over is impossible."""

    slots: dict[str, Slot]
    left: dict[str, Reason]
    proven: bool


def reserved_w(model: SwitchModel, demand: Demand) -> float:
    """Return the watts a switch sets aside for a device, by the way it allocates."""
    if demand.poe_class is None:
        return 0.0
    return demand.class_w if model.allocates == "class" else demand.port_w


def fits(group: PortGroup, demand: Demand) -> bool:
    """Return whether a port of the group can serve the link at all."""
    if group.cage:
        return demand.fibre and group.speed_mbps >= demand.speed_mbps
    if demand.poe_class is None:
        return True
    return group.poe_class is not None and poe_rank(group.poe_class) >= poe_rank(demand.poe_class)


@lru_cache(maxsize=256)
def assign(
    demands: tuple[Demand, ...],
    shelves: tuple[Shelf, ...],
    neighbours: tuple[tuple[str, str], ...] = (),
    kept: tuple[UplinkPort, ...] | None = None,
    beside: tuple[tuple[str, str], ...] = (),
    headroom: float = 0.0,
) -> Assignment:
    """Return the assignment that leaves least over; see ``_objective`` for what comes after.

    Args:
        demands: the links, in the order in which equals get their ports.
        shelves: the switches, from the top of the rack.
        neighbours: pairs of links that had better be on different switches.
        kept: ports that are not given away; without a word, those of a rack that stands alone.
        beside: pairs of links that had better be on one switch.
        headroom: share of each switch's watts that had better be kept free.
    """
    model = cp_model.CpModel()
    places = {
        (d.id, s.id, g): model.new_bool_var(f"{d.id}/{s.id}/{g}")
        for d in demands
        for s in shelves
        for g, group in enumerate(s.model.groups)
        if fits(group, d) and _may(d, s, g)
    }
    ways = uplinks(shelves) if kept is None else kept
    gone = Counter((u.slot.switch, u.slot.group) for u in ways)
    left = {d.id: model.new_bool_var(f"{d.id}/left") for d in demands}
    mine: dict[str, list[cp_model.IntVar]] = {d.id: [left[d.id]] for d in demands}
    for (d, _, _), place in places.items():
        mine[d].append(place)
    for options in mine.values():
        model.add_exactly_one(options)
    over: list[cp_model.LinearExprT] = []
    for shelf in shelves:
        watts = []
        for g, group in enumerate(shelf.model.groups):
            inside = [(d, places[key]) for d in demands if (key := (d.id, shelf.id, g)) in places]
            model.add(sum(v for _, v in inside) <= group.count - gone[shelf.id, g])
            watts += [round(10 * reserved_w(shelf.model, d)) * v for d, v in inside]
        model.add(sum(watts) <= round(10 * shelf.model.budget_w))
        if watts and headroom:
            beyond = model.new_int_var(0, round(10 * shelf.model.budget_w), "")
            model.add(sum(watts) - math.floor(10 * shelf.model.budget_w * (1 - headroom) + 1e-9) <= beyond)
            over.append(_OVER * beyond)
    wishes = _objective(model, demands, shelves, neighbours, beside, places, left)
    model.minimize(sum([wishes, *over]))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = 1
    # Nearly a transport problem, so its linear relaxation is close to whole numbers.
    solver.parameters.linearization_level = 2
    solver.parameters.max_time_in_seconds = _SOLVE_SECONDS
    status = solver.solve(model)
    solved = status in (cp_model.OPTIMAL, cp_model.FEASIBLE)
    chosen = {d: (s, g) for (d, s, g), v in places.items() if solved and solver.boolean_value(v)}
    used = gone + Counter(chosen.values())
    return Assignment(
        _numbered(demands, shelves, chosen, {(u.slot.switch, u.slot.port) for u in ways}),
        {d.id: _why(d, shelves, used) for d in demands if d.id not in chosen},
        status == cp_model.OPTIMAL,
    )


def _objective(
    model: cp_model.CpModel,
    demands: Sequence[Demand],
    shelves: Sequence[Shelf],
    neighbours: Sequence[tuple[str, str]],
    beside: Sequence[tuple[str, str]],
    places: dict[tuple[str, str, int], cp_model.IntVar],
    left: dict[str, cp_model.IntVar],
) -> cp_model.LinearExprT:
    """Leave nothing over; no VLAN on an unmanaged switch; then no port slower than asked; then
    waste no power and no speed; then neighbours apart, and what talks most with one another together.
    The watts beyond a switch's headroom count beside these."""
    by_id = {d.id: d for d in demands}
    unmanaged = {s.id for s in shelves if not s.model.managed}
    groups = {(s.id, g): group for s in shelves for g, group in enumerate(s.model.groups)}
    terms: list[cp_model.LinearExprT] = []
    for demand in demands:
        cost = _LEFT_PLAIN if demand.poe_class is None else _LEFT_POWERED
        terms.append((cost + _RANK * demand.rank) * left[demand.id])
    for (d, s, g), place in places.items():
        group, demand = groups[s, g], by_id[d]
        cost = _UNMANAGED if demand.vlans and s in unmanaged else 0
        if group.speed_mbps < demand.speed_mbps:
            cost += _SLOWER
        if demand.fibre and not group.cage:
            cost += _CONVERTER
        if demand.poe_class is None and group.poe_class is not None:
            cost += _WASTES_POWER
        if group.speed_mbps > demand.speed_mbps:
            cost += _WASTES_SPEED
        terms.append(cost * place)
    inside: dict[tuple[str, str], list[cp_model.IntVar]] = {}
    for (d, s, _), place in places.items():
        inside.setdefault((d, s), []).append(place)
    for one, other in neighbours if len(shelves) > 1 else ():
        for shelf in shelves:
            ones, others = inside.get((one, shelf.id)), inside.get((other, shelf.id))
            if ones and others:
                both = model.new_bool_var("")
                model.add(sum(ones) + sum(others) <= 1 + both)
                terms.append(_SAME_SWITCH * both)
    for one, other in beside if len(shelves) > 1 else ():
        for shelf in shelves:
            ones, others = inside.get((one, shelf.id)), inside.get((other, shelf.id))
            if ones and others:
                together = model.new_bool_var("")
                model.add(together <= sum(ones))
                model.add(together <= sum(others))
                terms.append(-_SAME_SWITCH * together)
    return sum(terms)


def _may(demand: Demand, shelf: Shelf, group: int) -> bool:
    """Return whether a link may go into a group: anywhere, unless somebody chose its port."""
    if demand.pin is None:
        return True
    switch, port = demand.pin
    return switch == shelf.id and group == group_of(shelf.model, port)


def group_of(model: SwitchModel, port: int) -> int | None:
    """Return the place of the group that a port belongs to, or None where a switch has no such port."""
    last = 0
    for g, group in enumerate(model.groups):
        last += group.count
        if 0 < port <= last:
            return g
    return None


def _numbered(
    demands: Sequence[Demand],
    shelves: Sequence[Shelf],
    chosen: dict[str, tuple[str, int]],
    kept: set[tuple[str, int]],
) -> dict[str, Slot]:
    """Return the port of each link: the pinned one, else the next free one of its group."""
    gone = kept | {d.pin for d in demands if d.pin is not None and d.id in chosen}
    free: dict[tuple[str, int], list[int]] = {}
    for shelf in shelves:
        first = 1
        for g, group in enumerate(shelf.model.groups):
            numbers = range(first, first + group.count)
            free[shelf.id, g] = [n for n in numbers if (shelf.id, n) not in gone]
            first += group.count
    slots: dict[str, Slot] = {}
    for demand in demands:
        if demand.id in chosen:
            key = chosen[demand.id]
            slots[demand.id] = Slot(*key, demand.pin[1] if demand.pin else free[key].pop(0))
    return slots


def _why(demand: Demand, shelves: Sequence[Shelf], used: Counter[tuple[str, int]]) -> Reason:
    """Return what a link lacks; ``used`` counts the ports gone of each switch's groups."""
    free = [
        (shelf, group)
        for shelf in shelves
        for g, group in enumerate(shelf.model.groups)
        if (demand.fibre or not group.cage) and used[shelf.id, g] < group.count
    ]
    if demand.poe_class is None:
        return "no_ports"
    if any(fits(group, demand) for _, group in free):
        return "no_watts"
    suited = [g for s in shelves for g in s.model.groups if fits(g, demand)]
    if not suited and any(g.poe_class is not None for s in shelves for g in s.model.groups):
        return "no_class"
    return "no_powered_ports"
