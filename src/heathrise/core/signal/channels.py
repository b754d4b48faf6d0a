"""A channel for every radio, so that those which hear each other disturb least."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations

import numpy as np
from numpy.typing import NDArray
from ortools.sat.python import cp_model

from ..bands import BANDS, Band
from ..design import Device
from ..memo import IdentityMemo
from .levels import Air
from .terrain import losses_db

Array = NDArray[np.float64]

CONTEND_DBM = -82.0
# 2.4 GHz overlap by distance in channel numbers, 0 to 5 and more.
OVERLAP_24 = (1.0, 0.77, 0.54, 0.31, 0.09, 0.0)
CHANNELS_24 = (1, 6, 11)
CHANNELS_5: dict[int, tuple[int, ...]] = {
    20: (36, 40, 44, 48, 52, 56, 60, 64, *range(100, 145, 4), 149, 153, 157, 161, 165),
    40: (36, 44, 52, 60, 100, 108, 116, 124, 132, 140, 149, 157),
    80: (36, 52, 100, 116, 132, 149),
}
CHANNELS_6_PREFERRED = tuple(range(5, 230, 16))
LAST_6_EUROPE = 93
WIDTH_6_MHZ = 80

_SOLVE_SECONDS = 3.0
_WEIGHT_OVERLAP = 1000
_WEIGHT_RADAR = 20


@dataclass(frozen=True)
class ChannelPlan:
    """A channel for each device of one band. ``cost_db`` is overlap times dB above -82."""

    band: Band
    width_mhz: int
    channels: Mapping[str, int]
    contenders: Mapping[str, tuple[tuple[str, float], ...]]
    cost_db: float
    proven: bool
    bound_db: float


def allowed_channels(band: Band, domain: str, width_mhz: int) -> tuple[int, ...]:
    """Return the primary channels the plan may use, lowest first."""
    if band == "2.4":
        return CHANNELS_24
    if band == "6":
        last = LAST_6_EUROPE if domain == "europe" else 233
        return tuple(c for c in CHANNELS_6_PREFERRED if c <= last)
    options = CHANNELS_5[width_mhz]
    return tuple(c for c in options if c < 149) if domain == "europe" else options


def needs_radar_watch(channel: int) -> bool:
    """Return whether a 5 GHz channel may have to be left to radar (52 to 144)."""
    return 52 <= channel <= 144


def overlap(band: Band, width_mhz: int, first: int, second: int) -> float:
    """Return from 0 to 1 how much two channels share."""
    distance = abs(first - second)
    if band == "2.4":
        return OVERLAP_24[min(distance, 5)]
    # Channel numbers count 5 MHz; two blocks share what their spans share.
    return max(0.0, 1 - distance * 5 / width_mhz)


def hearing_dbm(air: Air, band: Band) -> Array:
    """Return how loudly each access point hears each other one, shape (n, n), symmetric."""
    devices = air.access_points(band)
    row = BANDS.index(band)
    heard = np.full((len(devices), len(devices)), -200.0)
    for i, j in combinations(range(len(devices)), 2):
        one, other = air.radios[devices[i].id, band], air.radios[devices[j].id, band]
        worse_db = max(
            _loss_db(air, devices[i], devices[j])[row], _loss_db(air, devices[j], devices[i])[row]
        )
        power = max(one.power_dbm, other.power_dbm)
        heard[i, j] = heard[j, i] = power + one.gain_dbi + other.gain_dbi - worse_db
    return heard


# Moving one access point asks for its own pairs only.
_losses: IdentityMemo[tuple[float, ...]] = IdentityMemo(40_000)


def _loss_db(air: Air, speaker: Device, listener: Device) -> tuple[float, ...]:
    """Return the loss from one access point to another, without the latter's antenna, by band."""

    def work_out() -> tuple[float, ...]:
        model = air.catalogue.access_points[speaker.model]
        spot = np.array([listener.at[0]]), np.array([listener.at[1]])
        loss = losses_db(air.terrain, speaker, model, listener.floor, *spot, listener.height_m)
        return tuple(map(float, loss[:, 0]))

    return _losses.get((air.terrain, air.catalogue, speaker, listener), None, work_out)


def plan_channels(air: Air, band: Band, fixed: Mapping[str, int]) -> ChannelPlan:
    """Return the channel plan of one band; ``fixed`` holds what a person has set."""
    devices = [d.id for d in air.access_points(band)]
    site = air.design.site
    width = {"2.4": 20, "5": site.width_5ghz_mhz, "6": WIDTH_6_MHZ}[band]
    heard = hearing_dbm(air, band)
    channels, cost, bound, proven = solve_channels(
        band,
        width,
        allowed_channels(band, site.domain, width),
        tuple(map(tuple, np.rint(heard).astype(int).tolist())),
        tuple(fixed.get(device) for device in devices),
    )
    contenders = {
        device: tuple(
            (devices[j], float(round(heard[i, j], 1)))
            for j in range(len(devices))
            if i != j
            and heard[i, j] >= CONTEND_DBM
            and overlap(band, width, channels[i], channels[j]) > 0
        )
        for i, device in enumerate(devices)
    }
    chosen = dict(zip(devices, channels, strict=True))
    return ChannelPlan(band, width, chosen, contenders, cost, proven, bound)


@lru_cache(maxsize=64)
def solve_channels(
    band: Band,
    width_mhz: int,
    options: Sequence[int],
    heard_dbm: tuple[tuple[int, ...], ...],
    fixed: tuple[int | None, ...],
) -> tuple[tuple[int, ...], float, float, bool]:
    """Choose channels by constraint programming.

    Minimises the sum over pairs of overlap times dB above -82; among equals it keeps off radar
    channels and gives the loudest pair the widest separation.

    Args:
        heard_dbm: symmetric, shape (n, n), whole dBm.
        fixed: a channel for each device that may not be changed, else None.

    Returns:
        channels, cost and proven lower bound in dB, and whether the choice is proven best.
    """
    n = len(heard_dbm)
    if n == 0:
        return (), 0.0, 0.0, True
    model = cp_model.CpModel()
    picks = [
        {c: model.new_bool_var(f"{i}@{c}") for c in (options if held is None else (held,))}
        for i, held in enumerate(fixed)
    ]
    for pick in picks:
        model.add_exactly_one(pick.values())
    known = sorted({c for pick in picks for c in pick})
    sharing = [(c, d, s) for c in known for d in known if (s := overlap(band, width_mhz, c, d)) > 0]
    terms: list[cp_model.LinearExprT] = []
    for i, j in combinations(range(n), 2):
        excess = heard_dbm[i][j] - CONTEND_DBM
        if excess < 0:
            continue
        # A pair overlaps by one amount at most, so one variable serves each amount.
        shared: dict[float, cp_model.IntVar] = {}
        for c, d, share in sharing:
            if c in picks[i] and d in picks[j]:
                both = shared.setdefault(share, model.new_bool_var(""))
                model.add_bool_or([~picks[i][c], ~picks[j][d], both])
        terms += [max(1, round(_WEIGHT_OVERLAP * s * excess)) * v for s, v in shared.items()]
    if band == "5":
        terms += [_WEIGHT_RADAR * v for p in picks for c, v in p.items() if needs_radar_watch(c)]
    terms += _separation(model, picks, heard_dbm)
    model.minimize(sum(terms))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = 1
    # With channels to spare the relaxation proves the plan; with three it only slows the search.
    solver.parameters.linearization_level = 1 if len(options) <= 4 else 2
    solver.parameters.max_time_in_seconds = _SOLVE_SECONDS
    status = solver.solve(model)
    channels = tuple(next(c for c, v in p.items() if solver.boolean_value(v)) for p in picks)
    cost = sum(
        overlap(band, width_mhz, channels[i], channels[j]) * (heard_dbm[i][j] - CONTEND_DBM)
        for i, j in combinations(range(n), 2)
        if heard_dbm[i][j] >= CONTEND_DBM
    )
    proven = status == cp_model.OPTIMAL
    bound = cost if proven else max(0.0, solver.best_objective_bound / _WEIGHT_OVERLAP - n)
    return channels, float(cost), float(min(bound, cost)), proven


def _separation(
    model: cp_model.CpModel,
    picks: list[dict[int, cp_model.IntVar]],
    heard_dbm: tuple[tuple[int, ...], ...],
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
