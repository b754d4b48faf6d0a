"""A channel for every radio, so that those which hear each other disturb least."""

from __future__ import annotations

import math
import time
from collections.abc import Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor, wait
from dataclasses import dataclass, field, replace
from itertools import combinations

import numpy as np
from ortools.sat.python import cp_model

from ..base.bands import Band
from ..base.progress import Progress
from ..context.band_plan import BandPlan
from .cliques import least_shared_db
from .exchange import improved
from .hearing import hearing_dbm
from .mesh import mesh_links
from .neighbours import Near, neighbours_near
from .radio_environment import RadioEnvironment
from .transmit import overrides

_SOLVE_SECONDS = 3.0
_LOOK_SECONDS = 0.2
_BOUND_SECONDS = 5.0
_TURNS_EACH = 400
_TINY = 1e-6
_NEVER_DB = 1e9
_SMALL_SITE, _WORKERS = 40, 4
_SWEEPS = 20
_WEIGHT_OVERLAP = 1000
_WEIGHT_RADAR = 20


@dataclass(frozen=True)
class ChannelPlan:
    """A channel for each device of one band. ``cost_db`` is overlap times dB above -82;
    ``neighbours`` is by device the loudest in dBm that it shares its channel with."""

    band: Band
    width_mhz: int
    channels: Mapping[str, int]
    contenders: Mapping[str, tuple[tuple[str, float], ...]]
    cost_db: float
    proven: bool
    bound_db: float
    searching: bool = False
    neighbours: Mapping[str, float] = field(default_factory=dict)


@dataclass(frozen=True)
class ChannelProblem:
    """What a channel search starts from: levels in whole dBm, what a person has set, and the
    neighbours that each radio hears.

    Radios that carry a link between them over the air have one channel: they are one row here, and
    ``members`` says which they are; ``inner_db`` is what they share among themselves whatever it
    is. Without ``members`` each row is one radio.
    """

    band: Band
    width_mhz: int
    options: tuple[int, ...]
    heard_dbm: tuple[tuple[int, ...], ...]
    fixed: tuple[int | None, ...]
    plan: BandPlan
    near: tuple[Near, ...] = ()
    members: tuple[tuple[int, ...], ...] = ()
    inner_db: float = 0.0

    def overlap(self, first: int, second: int) -> float:
        return self.plan.overlap(self.band, self.width_mhz, first, second)

    def radar(self, channel: int) -> bool:
        return self.plan.needs_radar_watch(self.band, channel)

    def pairs(self) -> list[tuple[int, int, int]]:
        """Return (i, j, dB above the level of contention) of the pairs that hear each other."""
        contend_dbm = self.plan.rules["signal.contend_dbm"]
        return [
            (i, j, excess)
            for i, j in combinations(range(len(self.fixed)), 2)
            if (excess := round(self.heard_dbm[i][j] - contend_dbm)) >= 0
        ]

    def alone_db(self, radio: int, channel: int) -> float:
        """Return what a radio shares on a channel with the neighbours that it hears."""
        near = self.near[radio] if self.near else ()
        return float(
            sum(
                self.plan.met_by(self.band, self.width_mhz, channel, other, width) * over
                for other, width, over in near
            )
        )

    def cost_db(self, channels: Sequence[int]) -> float:
        """Return the sum over pairs, and over neighbours heard, of overlap times dB above -82."""
        pairs = sum(self.overlap(channels[i], channels[j]) * e for i, j, e in self.pairs())
        return float(pairs + sum(self.alone_db(i, c) for i, c in enumerate(channels)))


@dataclass(frozen=True)
class Solution:
    """Channels by device, their cost and a proven lower bound in dB, whether proven best."""

    channels: tuple[int, ...]
    cost_db: float
    bound_db: float
    proven: bool


def channel_task(air: RadioEnvironment, band: Band) -> ChannelProblem:
    """Return what the plan of one band starts from; channels it does not have are left out."""
    site = air.design.site
    said = overrides(air.design)
    plan = air.channels
    legal = plan.legal[band]
    width = {"2.4": 20, "5": site.width_5ghz_mhz, "6": plan.width_6_mhz()}[band]
    held = [said.get((d.id, band)) for d in air.access_points(band)]
    task = ChannelProblem(
        band=band,
        width_mhz=width,
        options=plan.primaries(band, width),
        heard_dbm=tuple(map(tuple, np.rint(hearing_dbm(air, band)).astype(int).tolist())),
        fixed=tuple(r.channel if r is not None and r.channel in legal else None for r in held),
        plan=plan,
        near=neighbours_near(air, band, air.access_points(band)),
    )
    return tied(task, _tie(air, task))


def _tie(air: RadioEnvironment, task: ChannelProblem) -> list[tuple[int, int]]:
    """Return the radios that hang on one another over the air, but for two that a person has set
    to different channels."""
    number = {d.id: k for k, d in enumerate(air.access_points(task.band))}
    pairs = []
    for link in mesh_links(air):
        if link.band != task.band or link.parent not in number or link.device not in number:
            continue
        a, b = number[link.device], number[link.parent]
        if None in (task.fixed[a], task.fixed[b]) or task.fixed[a] == task.fixed[b]:
            pairs.append((a, b))
    return pairs


def tied(task: ChannelProblem, pairs: Sequence[tuple[int, int]]) -> ChannelProblem:
    """Return a task in which radios that are tied pair by pair are one."""
    if not pairs:
        return task
    root = list(range(len(task.fixed)))

    def find(k: int) -> int:
        while root[k] != k:
            k = root[k]
        return k

    for a, b in pairs:
        held = {task.fixed[k] for k in range(len(root)) if find(k) in (find(a), find(b))} - {None}
        if len(held) <= 1:
            root[find(a)] = find(b)
    members: dict[int, list[int]] = {}
    for k in range(len(root)):
        members.setdefault(find(k), []).append(k)
    groups = [tuple(g) for g in members.values()]
    contend = task.plan.rules["signal.contend_dbm"]
    excess = {(i, j): e for i, j, e in task.pairs()}

    def between(one: tuple[int, ...], other: tuple[int, ...]) -> int:
        """What two groups hear of each other: all their pairs together, as one level."""
        over = [excess[min(i, j), max(i, j)] for i in one for j in other if (min(i, j), max(i, j)) in excess]
        loudest = max(task.heard_dbm[i][j] for i in one for j in other)
        return round(contend + sum(over)) if over else int(loudest)

    inner = sum(excess.get((min(i, j), max(i, j)), 0) for g in groups for i, j in combinations(g, 2))
    heard = tuple(tuple(0 if a is b else between(a, b) for b in groups) for a in groups)
    fixed = tuple(next((task.fixed[k] for k in g if task.fixed[k] is not None), None) for g in groups)
    near = tuple(tuple(n for k in g for n in task.near[k]) for g in groups) if task.near else ()
    return replace(
        task, heard_dbm=heard, fixed=fixed, near=near, members=tuple(groups), inner_db=float(inner)
    )


def plan_channels(
    air: RadioEnvironment, task: ChannelProblem, solution: Solution, searching: bool = False
) -> ChannelPlan:
    """Return the plan that a solution of ``task`` stands for."""
    devices = [d.id for d in air.access_points(task.band)]
    heard = hearing_dbm(air, task.band)
    channels, near_each = solution.channels, task.near
    if task.members:
        of_radio = {k: c for g, c in zip(task.members, channels, strict=True) for k in g}
        channels = tuple(of_radio[k] for k in range(len(devices)))
        near_each = neighbours_near(air, task.band, air.access_points(task.band))
    contend_dbm = air.rules["signal.contend_dbm"]
    contenders = {
        device: tuple(
            (devices[j], float(round(heard[i, j], 1)))
            for j in range(len(devices))
            if i != j and heard[i, j] >= contend_dbm and task.overlap(channels[i], channels[j]) > 0
        )
        for i, device in enumerate(devices)
    }
    chosen = dict(zip(devices, channels, strict=True))
    neighbours = {
        device: contend_dbm + max(over)
        for device, channel, near in zip(devices, channels, near_each, strict=bool(near_each))
        if (over := [o for c, w, o in near if task.plan.met_by(task.band, task.width_mhz, channel, c, w) > 0])
    }
    return ChannelPlan(
        task.band,
        task.width_mhz,
        chosen,
        contenders,
        solution.cost_db + task.inner_db,
        solution.proven,
        solution.bound_db + task.inner_db,
        searching,
        neighbours,
    )


def greedy(task: ChannelProblem) -> Solution:
    """Return a plan at once: the most disturbed radio first, each where it is disturbed least."""
    n = len(task.fixed)
    disturbs = np.zeros((n, n))
    for i, j, excess in task.pairs():
        disturbs[i, j] = disturbs[j, i] = max(1, excess)
    channels: dict[int, int] = {i: c for i, c in enumerate(task.fixed) if c is not None}
    order = sorted(range(n), key=lambda i: -disturbs[i].sum())
    quiet = sorted(task.options, key=lambda c: (task.radar(c), c))
    known = sorted({*quiet, *channels.values()})
    shared = {d: np.array([task.overlap(c, d) for c in quiet]) for d in known}
    alone = [np.array([task.alone_db(i, c) for c in quiet]) for i in range(n)]

    def least_disturbed(i: int) -> int:
        around = [j for j in map(int, np.flatnonzero(disturbs[i])) if j in channels]
        costs = sum((shared[channels[j]] * disturbs[i, j] for j in around), alone[i])
        return quiet[int(np.round(costs, 6).argmin())]  # of equals the first

    free = [i for i in order if i not in channels]
    for i in free:
        channels[i] = least_disturbed(i)
    for _ in range(_SWEEPS):  # each looks about once more, now that all are placed
        before = dict(channels)
        for i in free:
            channels[i] = least_disturbed(i)
        if channels == before:
            break
    found = tuple(channels[i] for i in range(n))
    cost = task.cost_db(found)
    return Solution(found, cost, 0.0, cost == 0 and task.band != "5")


def exchanged(task: ChannelProblem, start: Solution) -> Solution:
    """Return a plan made better radio by radio; never worse than its start."""
    n = len(task.fixed)
    options = sorted({*task.options, *start.channels})
    share = np.array([[task.overlap(c, d) for d in options] for c in options], dtype=float)
    cost = np.zeros((n, n))
    for i, j, excess in task.pairs():
        cost[i, j] = cost[j, i] = excess
    free = np.array([held is None for held in task.fixed])
    chosen = np.array([options.index(c) for c in start.channels])
    alone = np.array([[task.alone_db(i, c) for c in options] for i in range(n)]).reshape(n, -1)
    # A channel that a person holds is none to move to.
    held_only = np.array([c not in task.options for c in options])
    alone[np.ix_(free, held_only)] = _NEVER_DB
    found = improved(cost, share, alone, free, chosen, _TURNS_EACH * n)
    channels = tuple(options[int(k)] for k in found)
    return replace(start, channels=channels, cost_db=task.cost_db(channels))


def bounded(task: ChannelProblem, solution: Solution, seconds: float) -> Solution:
    """Return a solution with the bound that groups give which all hear each other."""
    apart = all(task.overlap(c, d) < 1 for c, d in combinations(task.options, 2))
    if not apart or solution.proven:
        return solution
    free = [held is None for held in task.fixed]
    least = least_shared_db(task.pairs(), free, len(task.options), seconds)
    least += sum(
        min(task.alone_db(i, c) for c in (task.options if held is None else (held,)))
        for i, held in enumerate(task.fixed)
    )
    bound = min(max(solution.bound_db, least), solution.cost_db)
    whole = all(task.overlap(c, d) in (0, 1) for c in task.options for d in task.options)
    whole = whole and not any(task.near)
    if whole and all(free):
        bound = float(math.ceil(bound - _TINY))
    proven = bound >= solution.cost_db - _TINY
    return replace(solution, bound_db=bound, proven=proven)


def _watched(
    solver: cp_model.CpSolver, model: cp_model.CpModel, seconds: float, progress: Progress
) -> cp_model.CpSolverStatus:
    """Solve beside a watch that says how long it has taken, and stops it when told to."""
    start = time.monotonic()
    with ThreadPoolExecutor(1, thread_name_prefix="channels") as beside:
        under_way = beside.submit(solver.solve, model)
        while not under_way.done():
            wait([under_way], timeout=_LOOK_SECONDS)
            if not progress(round(10 * (time.monotonic() - start)), round(10 * seconds)):
                solver.stop_search()
        return under_way.result()


def solve(
    task: ChannelProblem, seconds: float = _SOLVE_SECONDS, progress: Progress | None = None
) -> Solution:
    """Choose channels by constraint programming, from a greedy plan on.

    Minimises the sum over pairs of overlap times dB above -82; among equals it keeps off radar
    channels and gives the loudest pair the widest separation. Never worse than ``greedy``.

    Args:
        progress: is told how many tenths of a second of how many have passed, and may stop it.

    References:
        IEEE 802.11, preamble detection at -82 dBm over 20 MHz; weighted graph colouring, with clauses.
    """
    if not task.fixed:
        return Solution((), 0.0, 0.0, True)
    start = greedy(task)
    if start.cost_db > 0:
        start = exchanged(task, start)
    model = cp_model.CpModel()
    picks = [
        {c: model.new_bool_var(f"{i}@{c}") for c in (task.options if held is None else (held,))}
        for i, held in enumerate(task.fixed)
    ]
    for pick, hint in zip(picks, start.channels, strict=True):
        model.add_exactly_one(pick.values())
        for channel, chosen in pick.items():
            model.add_hint(chosen, channel == hint)
    known = sorted({c for pick in picks for c in pick})
    sharing = [(c, d, s) for c in known for d in known if (s := task.overlap(c, d)) > 0]
    terms: list[cp_model.LinearExprT] = []
    for i, j, excess in task.pairs():
        # A pair overlaps by one amount at most, so one variable serves each amount.
        shared: dict[float, cp_model.IntVar] = {}
        for c, d, share in sharing:
            if c in picks[i] and d in picks[j]:
                both = shared.setdefault(share, model.new_bool_var(""))
                model.add_bool_or([~picks[i][c], ~picks[j][d], both])
        terms += [max(1, round(_WEIGHT_OVERLAP * s * excess)) * v for s, v in shared.items()]
    if any(task.near):
        terms += [
            round(_WEIGHT_OVERLAP * share) * v
            for i, p in enumerate(picks)
            for c, v in p.items()
            if (share := task.alone_db(i, c)) > 0
        ]
    if task.band == "5":
        terms += [_WEIGHT_RADAR * v for p in picks for c, v in p.items() if task.radar(c)]
    terms += _separation(model, picks, task.heard_dbm)
    model.minimize(sum(terms))
    solver = cp_model.CpSolver()
    # Alone it gives the same plan each time; a large site wants several ways of looking.
    solver.parameters.num_workers = 1 if len(task.fixed) <= _SMALL_SITE else _WORKERS
    solver.parameters.random_seed = 1
    # With channels to spare the relaxation proves the plan; with three it only slows the search.
    solver.parameters.linearization_level = 1 if len(task.options) <= 4 else 2
    solver.parameters.max_time_in_seconds = seconds
    status = solver.solve(model) if progress is None else _watched(solver, model, seconds, progress)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return bounded(task, start, _BOUND_SECONDS)
    channels = tuple(next(c for c, v in p.items() if solver.boolean_value(v)) for p in picks)
    cost = task.cost_db(channels)
    proven = status == cp_model.OPTIMAL
    if cost > start.cost_db and not proven:
        channels, cost = start.channels, start.cost_db
    slack = len(task.fixed) * (1 + _WEIGHT_RADAR / _WEIGHT_OVERLAP)
    bound = cost if proven else max(0.0, solver.best_objective_bound / _WEIGHT_OVERLAP - slack)
    found = Solution(channels, cost, float(min(bound, cost)), proven)
    return bounded(task, found, _BOUND_SECONDS)


def _separation(
    model: cp_model.CpModel, picks: list[dict[int, cp_model.IntVar]], heard_dbm: tuple[tuple[int, ...], ...]
) -> list[cp_model.LinearExprT]:
    """Reward, least of all terms, the widest separation for the pair that hears best."""
    pairs = list(combinations(range(len(picks)), 2))
    if not pairs:
        return []
    i, j = max(pairs, key=lambda p: heard_dbm[p[0]][p[1]])
    one = sum(c * v for c, v in picks[i].items())
    other = sum(c * v for c, v in picks[j].items())
    gap = model.new_int_var(0, 233, "gap")
    model.add_abs_equality(gap, one - other)
    tenth = model.new_int_var(0, 23, "tenth")
    model.add_division_equality(tenth, gap, 10)
    return [-1 * tenth]
