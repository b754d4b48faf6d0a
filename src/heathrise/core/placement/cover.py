"""Which of many places to take: what has to be covered, the fewest or cheapest that cover it."""

from __future__ import annotations

import math
import time
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor, wait
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray
from ortools.sat.python import cp_model

from ..base.progress import Progress, always

Flags = NDArray[np.bool_]

_WORKERS = 8  # different ways of looking, more than there are processors
# Covering is proven by its relaxation.
_WAYS = ("max_lp", "reduced_costs", "core", "pseudo_costs", "quick_restart")
_LOOK_SECONDS = 0.1
_MOST_KINDS = 6_000  # of points that may be left out; beyond, a search proves nothing in its time
_GREEDY_TURNS, _GREEDY_SPREAD = 150, 0.4


@dataclass(frozen=True)
class Lacking:
    """A room that no choice of places meets: the share of its points that can be served."""

    room: int
    share: float


@dataclass(frozen=True, eq=False)
class Kind:
    """Points of a room that the same places serve: how many, and the rows they want, each with how
    many of its places."""

    points: int
    wants: tuple[tuple[int, int], ...]


@dataclass(frozen=True, eq=False)
class Spared:
    """A room of which so many points may be left without: the choice says which."""

    may: int
    kinds: tuple[Kind, ...]


@dataclass(frozen=True, eq=False)
class Demands:
    """Rows of places, shape (rows, places), of each of which so many have to be taken.

    Here the points that a room may leave out are those that the fewest places serve. ``exact``
    leaves them open: ``all_rows`` are the rows it speaks of, ``must`` those that hold anyhow.
    """

    rows: Flags
    counts: NDArray[np.intp]
    lacking: tuple[Lacking, ...] = ()
    all_rows: Flags | None = None
    must: tuple[tuple[int, int], ...] = ()
    spared: tuple[Spared, ...] = ()

    @property
    def exact(self) -> bool:
        """Whether a choice over these says itself which points are left out."""
        return self.all_rows is not None


def demands_of(
    first: Flags, second: Flags, seconds_wanted: Flags, rooms: NDArray[np.intp], share: float
) -> Demands:
    """Return what has to be covered for every room to have its share of points served.

    A point wants one of the places that reach its first target and two of those that reach its
    second. A room leaves out the points that the fewest places serve, no more than it may.

    Args:
        first, second: whether a place reaches a point's target, shape (places, points).
        seconds_wanted: whether a point wants a second, shape (points,).
        rooms: which room a point lies in, shape (points,).
    """
    found: dict[bytes, int] = {}
    lacking: list[Lacking] = []
    open_rooms: list[tuple[NDArray[np.intp], int]] = []
    for room in np.unique(rooms):
        points = np.flatnonzero(rooms == room)
        ease = first[:, points].sum(axis=0)
        two = second[:, points].sum(axis=0) - 1
        ease = np.where(seconds_wanted[points], np.minimum(ease, two), ease)
        wanted = int(np.ceil(share * len(points) - 1e-9))
        served = points[np.argsort(-ease, kind="stable")][: min(wanted, int((ease > 0).sum()))]
        if len(served) < wanted:
            lacking.append(Lacking(int(room), float((ease > 0).sum() / len(points))))
        servable = points[ease > 0]
        open_rooms.append((servable, max(0, len(servable) - min(wanted, len(servable)))))
        for point in served:
            _want(found, first[:, point], 1)
            if seconds_wanted[point]:
                _want(found, second[:, point], 2)
    rows = np.array([np.frombuffer(key, dtype=np.bool_) for key in found]).reshape(len(found), first.shape[0])
    counts = np.array(list(found.values()), dtype=np.intp)
    kept = _binding(rows, counts)
    plain = Demands(rows[kept], counts[kept], tuple(lacking))
    return _opened(plain, first, second, seconds_wanted, open_rooms)


def _opened(
    plain: Demands,
    first: Flags,
    second: Flags,
    seconds_wanted: Flags,
    rooms: Sequence[tuple[NDArray[np.intp], int]],
) -> Demands:
    """Return demands that leave open which points of a room are left out; as they are where there
    is nothing to leave out, or too much to look at."""
    numbers: dict[bytes, int] = {}

    def number(row: Flags) -> int:
        return numbers.setdefault(row.tobytes(), len(numbers))

    must: dict[int, int] = {}
    spared: list[Spared] = []
    for points, may in rooms:
        kinds: dict[tuple[tuple[int, int], ...], int] = {}
        for point in points:
            wants = [(number(first[:, point]), 1)]
            if seconds_wanted[point]:
                wants.append((number(second[:, point]), 2))
            key = tuple(wants)
            kinds[key] = kinds.get(key, 0) + 1
        left = tuple(Kind(n, key) for key, n in kinds.items() if n <= may)
        for key, n in kinds.items():
            if n > may:  # too many to be left out together
                for row, count in key:
                    must[row] = max(count, must.get(row, 0))
        if left:
            spared.append(Spared(may, left))
    if sum(len(s.kinds) for s in spared) > _MOST_KINDS or not spared:
        return plain
    rows = np.array([np.frombuffer(key, dtype=np.bool_) for key in numbers]).reshape(
        len(numbers), first.shape[0]
    )
    return replace(plain, all_rows=rows, must=tuple(must.items()), spared=tuple(spared))


def _want(found: dict[bytes, int], row: Flags, count: int) -> None:
    key = row.tobytes()
    found[key] = max(count, found.get(key, 0))


def _binding(rows: Flags, counts: NDArray[np.intp]) -> Flags:
    """Return which rows are not met already where another is: fewer places, no fewer wanted."""
    if not len(rows):
        return np.zeros(0, dtype=bool)
    plain = rows.astype(np.float32)
    inside = plain @ plain.T >= plain.sum(axis=1)[:, None] - 0.5  # row i lies in row j
    follows = inside & (counts[:, None] >= counts[None, :])
    np.fill_diagonal(follows, False)
    return np.asarray(~follows.any(axis=0))


@dataclass(frozen=True)
class Priced:
    """What more than each place's own price is paid, in cents.

    ``packs``: by group of places, what so many together cost. Ports and watts beyond those that
    are free come with one more switch of ``switch`` (ports, watts, price).
    """

    packs: tuple[tuple[tuple[int, ...], tuple[tuple[int, int], ...]], ...] = ()
    free_ports: int = 10**6
    free_w: float = 1e9
    watts: tuple[float, ...] = ()
    switch: tuple[int, float, int] = (1, 1.0, 0)

    def after(self, others: int) -> Priced:
        """Return the same with so many that are not paid for before the places."""
        packs = tuple((tuple(k + others for k in rows), packs) for rows, packs in self.packs)
        watts = (0.0,) * others + self.watts
        return replace(self, packs=packs, watts=watts, free_ports=self.free_ports + others)


@dataclass(frozen=True, eq=False)
class CoverProblem:
    """A choice to be made. ``prices`` are by place, in whole units; ``fixed`` are taken anyway.

    Of two places in ``apart`` only one is taken; no more than ``most`` in all, and no fewer than
    ``least``, which says what is known already. Where ``any_will_do`` the first choice that is
    found ends the search.
    """

    demands: Demands
    prices: tuple[int, ...]
    fixed: frozenset[int] = frozenset()
    apart: tuple[tuple[int, int], ...] = ()
    most: int | None = None
    least: int = 0
    priced: Priced | None = None
    any_will_do: bool = False
    start: tuple[int, ...] = field(default=())


@dataclass(frozen=True)
class Cover:
    """Places taken, what that comes to, the bound that no choice beats, whether it is proven."""

    places: tuple[int, ...]
    value: float
    bound: float
    proven: bool

    @property
    def impossible(self) -> bool:
        """Whether it is proven that there is no choice."""
        return math.isinf(self.bound)


Found = Callable[[tuple[int, ...], float, float], None]


def greedy(task: CoverProblem) -> tuple[int, ...]:
    """Return a choice at once: the place that meets most for its price first, then none too many;
    the best of some that begin a little otherwise.

    Places that would be too near to one taken are left out as long as others do.
    """
    near: dict[int, set[int]] = {}
    for a, b in task.apart:
        near.setdefault(a, set()).add(b)
        near.setdefault(b, set()).add(a)
    chance = np.random.default_rng(1)
    price = np.maximum(np.array(task.prices, dtype=float), 1e-9)
    found = []
    for turn in range(_GREEDY_TURNS):
        liked = chance.uniform(1 - _GREEDY_SPREAD, 1, len(price)) if turn else np.ones(len(price))
        found.append(_greedy(task, near, price, liked))
    return min(found, key=lambda places: price[list(places)].sum())


def _greedy(
    task: CoverProblem, near: dict[int, set[int]], price: NDArray[np.float64], liked: NDArray[np.float64]
) -> tuple[int, ...]:
    rows = task.demands.rows
    left = task.demands.counts - rows[:, sorted(task.fixed)].sum(axis=1)
    taken = set(task.fixed)
    barred = set().union(*(near.get(p, set()) for p in taken))
    while (left > 0).any():
        gain = rows[left > 0].sum(axis=0) * liked / price
        gain[sorted(taken)] = 0
        clear = gain.copy()
        clear[sorted(barred)] = 0
        best = int((clear if clear.any() else gain).argmax())
        if gain[best] <= 0:
            break
        taken.add(best)
        barred |= near.get(best, set())
        left = left - rows[:, best]
    over = rows[:, sorted(taken)].sum(axis=1) - task.demands.counts
    for place in sorted(taken - task.fixed, key=lambda p: (-price[p], liked[p])):
        if (over - rows[:, place] >= 0).all():
            taken.discard(place)
            over = over - rows[:, place]
    return tuple(sorted(taken))


def too_near(task: CoverProblem, places: Sequence[int]) -> tuple[tuple[int, int], ...]:
    """Return the pairs taken of which only one should be."""
    taken = set(places)
    return tuple(pair for pair in task.apart if taken.issuperset(pair))


class _Watch(cp_model.CpSolverSolutionCallback):
    def __init__(self, chosen: Sequence[cp_model.IntVar], found: Found) -> None:
        super().__init__()
        self._chosen, self._found = chosen, found

    def on_solution_callback(self) -> None:
        places = tuple(k for k, v in enumerate(self._chosen) if self.boolean_value(v))
        self._found(places, self.objective_value, self.best_objective_bound)


def choose(
    task: CoverProblem,
    seconds: float,
    progress: Progress = always,
    found: Found = lambda _places, _value, _bound: None,
) -> Cover | None:
    """Return the best choice that is found in so many seconds, None where none was found; one that
    is ``impossible`` says that there is none.

    Args:
        progress: is told tenths of a second of how many, and may stop it.
        found: is told each better choice at once.
    """
    rows, counts = task.demands.rows, task.demands.counts
    model = cp_model.CpModel()
    taken = [model.new_bool_var("") for _ in task.prices]
    if task.demands.exact:
        _cover_but_some(model, taken, task.demands)
    else:
        for row, count in zip(rows, counts, strict=True):
            _cover(model, [taken[k] for k in np.flatnonzero(row)], int(count))
    for k in task.fixed:
        model.add(taken[k] == 1)
    for a, b in task.apart:
        if not {a, b} <= task.fixed:
            model.add_bool_or([~taken[a], ~taken[b]])
    if task.most is not None:
        model.add(sum(taken) <= task.most)
    model.add(sum(taken) >= task.least)
    own = [p * v for p, v in zip(task.prices, taken, strict=True)]
    model.minimize(cp_model.LinearExpr.sum([*own, *_more(model, taken, task.priced)]))
    for k in range(len(taken)):
        model.add_hint(taken[k], k in task.start)
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = _WORKERS
    solver.parameters.linearization_level = 2
    solver.parameters.subsolvers.extend(_WAYS)
    solver.parameters.random_seed = 1
    solver.parameters.stop_after_first_solution = task.any_will_do
    solver.parameters.max_time_in_seconds = seconds
    status = _watched(solver, model, _Watch(taken, found), seconds, progress)
    if status == cp_model.INFEASIBLE:
        return Cover((), math.inf, math.inf, True)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    places = tuple(k for k, v in enumerate(taken) if solver.boolean_value(v))
    proven = status == cp_model.OPTIMAL
    value, bound = (round(v, 6) for v in (solver.objective_value, solver.best_objective_bound))
    return Cover(places, value, bound, proven)


def _cover(
    model: cp_model.CpModel, some: list[cp_model.IntVar], count: int, when: cp_model.IntVar | None = None
) -> None:
    held = model.add_bool_or(*some) if count == 1 else model.add(sum(some) >= count)
    if when is not None:
        held.only_enforce_if(when)


def _cover_but_some(model: cp_model.CpModel, taken: Sequence[cp_model.IntVar], demands: Demands) -> None:
    """Have all points served but as many of each room as it may leave out, whichever those are."""
    assert demands.all_rows is not None
    places = [[taken[int(k)] for k in np.flatnonzero(row)] for row in demands.all_rows]
    for row, count in demands.must:
        _cover(model, places[row], count)
    known: dict[tuple[tuple[int, int], ...], cp_model.IntVar] = {}
    for room in demands.spared:
        left = []
        for kind in room.kinds:
            served = known.get(kind.wants)
            if served is None:
                served = known[kind.wants] = model.new_bool_var("")
                for row, count in kind.wants:
                    _cover(model, places[row], count, served)
            left.append(kind.points * (1 - served))
        model.add(sum(left) <= room.may)


def _watched(
    solver: cp_model.CpSolver, model: cp_model.CpModel, watch: _Watch, seconds: float, progress: Progress
) -> cp_model.CpSolverStatus:
    begun = time.monotonic()
    with ThreadPoolExecutor(1, thread_name_prefix="places") as beside:
        under_way = beside.submit(solver.solve, model, watch)
        while not under_way.done():
            wait([under_way], timeout=_LOOK_SECONDS)
            if not progress(round(10 * (time.monotonic() - begun)), round(10 * seconds)):
                solver.stop_search()
        return under_way.result()


def _more(
    model: cp_model.CpModel, taken: Sequence[cp_model.IntVar], priced: Priced | None
) -> list[cp_model.LinearExprT]:
    """Return what is paid beyond each place's own price: packs, switches for ports and watts."""
    if priced is None:
        return []
    terms: list[cp_model.LinearExprT] = []
    for places, packs in priced.packs:
        bought = [model.new_int_var(0, len(places), "") for _ in packs]
        model.add(
            sum(n * v for (n, _), v in zip(packs, bought, strict=True)) >= sum(taken[k] for k in places)
        )
        terms += [price * v for (_, price), v in zip(packs, bought, strict=True)]
    ports, watts, price = priced.switch
    more = model.new_int_var(0, len(taken), "switches")
    model.add(sum(taken) <= priced.free_ports + ports * more)
    if priced.watts:
        tenths = [round(10 * w) for w in priced.watts]
        drawn = sum(w * v for w, v in zip(tenths, taken, strict=True))
        model.add(drawn <= round(10 * min(priced.free_w, 1e7)) + round(10 * watts) * more)
    return [*terms, price * more]
