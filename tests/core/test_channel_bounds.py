"""How good a plan of channels is known to be: against every plan there is."""

from __future__ import annotations

import itertools
import random

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.base.bands import Band
from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.band_plan import band_plan
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Element, Neighbour, Radio, Space, apply, put
from heathrise.core.evaluation.cure_search import search_cures
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.signal import air_of, band_view, judge_rooms
from heathrise.core.signal.channel_alternatives import sleepers
from heathrise.core.signal.channels import (
    ChannelProblem,
    Solution,
    bounded,
    channel_task,
    exchanged,
    greedy,
    plan_channels,
    solve,
)
from heathrise.core.signal.cliques import least_pairs, least_shared_db

from ..thorough import examples
from .plans import access_point, design_of, shell

PLAN = band_plan(load_catalogue().rules, "europe")


def _task(count: int, seed: int, options: tuple[int, ...] = (1, 6, 11), held: int = 0) -> ChannelProblem:
    chance = random.Random(seed)
    heard = np.full((count, count), -200)
    for i, j in itertools.combinations(range(count), 2):
        heard[i, j] = heard[j, i] = chance.choice([-95, -82, -75, -60, -50])
    fixed = tuple(chance.choice(options) if k < held else None for k in range(count))
    near = tuple(
        tuple((chance.randint(1, 13), 20, chance.randint(0, 30)) for _ in range(chance.randint(0, 2)))
        for _ in range(count)
    )
    return ChannelProblem("2.4", 20, options, tuple(map(tuple, heard.tolist())), fixed, PLAN, near)


def _best(task: ChannelProblem) -> float:
    """Every plan there is, each pair's overlap by the distance of its channels."""
    shares = {0: 1, 1: 0.77, 2: 0.54, 3: 0.31, 4: 0.09}
    own = [task.options if held is None else (held,) for held in task.fixed]
    pairs = [
        (i, j, task.heard_dbm[i][j] + 82)
        for i, j in itertools.combinations(range(len(own)), 2)
        if task.heard_dbm[i][j] >= -82
    ]
    return min(
        sum(shares.get(abs(plan[i] - plan[j]), 0) * db for i, j, db in pairs)
        + sum(
            shares.get(abs(plan[i] - channel), 0) * db
            for i, heard in enumerate(task.near)
            for channel, _, db in heard
        )
        for plan in itertools.product(*own)
    )


@given(st.integers(1, 7), st.integers(1, 4))
def test_pairs_that_must_share_by_trying_all(radios: int, channels: int) -> None:
    every = itertools.product(range(channels), repeat=radios)
    assert least_pairs(radios, channels) == min(
        sum(a == b for a, b in itertools.combinations(plan, 2)) for plan in every
    )


@examples(60)
@given(
    st.integers(2, 7), st.integers(0, 10**6), st.sampled_from([(1, 6, 11), (1, 5, 9, 13)]), st.integers(0, 2)
)
def test_no_plan_undercuts_the_bound_and_the_best_is_found(
    count: int, seed: int, options: tuple[int, ...], held: int
) -> None:
    task = _task(count, seed, options, min(held, count))
    best = _best(task)
    free = [h is None for h in task.fixed]
    assert least_shared_db(task.pairs(), free, len(options), 5.0) <= best + 1e-6
    start = greedy(task)
    better = exchanged(task, start)
    assert best - 1e-6 <= better.cost_db <= start.cost_db
    assert all(h is None or h == c for h, c in zip(task.fixed, better.channels, strict=True))
    told = bounded(task, Solution(better.channels, better.cost_db, 0.0, False), 5.0)
    assert told.bound_db <= best + 1e-6
    assert not told.proven or told.cost_db <= best + 1e-6
    assert abs(solve(task).cost_db - best) < 1e-6


def test_what_a_neighbour_meets_by_hand() -> None:
    """36 at 80 MHz holds 36 to 48: met by 44 at 20 as a whole, by 52 not at all; one of 40 MHz on
    2.4 GHz reaches two numbers farther."""
    plan = band_plan(load_catalogue().rules, "americas")
    assert plan.met_by("5", 80, 36, 44, 20) == 1
    assert plan.met_by("5", 20, 36, 44, 80) == 1
    assert plan.met_by("5", 40, 36, 44, 40) == 0 == plan.met_by("5", 80, 36, 52, 80)
    assert plan.met_by("5", 40, 149, 157, 80) == 1
    assert plan.met_by("2.4", 20, 1, 5, 20) == 0.09
    assert plan.met_by("2.4", 20, 1, 5, 40) == 0.54
    quiet = band_plan(load_catalogue().rules, "europe", radar=False)
    assert quiet.primaries("5", 40) == (36, 44) and 100 in quiet.legal["5"]
    assert band_plan(load_catalogue().rules, "europe", four=True).primaries("2.4", 20) == (1, 5, 9, 13)
    # The Americas have no 13: there the school of four falls back to three.
    assert band_plan(load_catalogue().rules, "americas", four=True).primaries("2.4", 20) == (1, 6, 11)


def test_a_measured_neighbour_moves_the_plan(catalogue: Catalogue) -> None:
    """One access point, a neighbour loud on what it would take; too far away it moves nothing."""
    alone = design_of(*shell(10, 10), access_point(5, 5))
    before = _plan(alone, catalogue)
    loud = Neighbour(
        id="nb-1", floor="f", name="Next door", at=(6, 5), band="5", channel=before, level_dbm=-55
    )
    assert _plan(apply(alone, [put(loud)]), catalogue) != before
    far = loud.model_copy(update={"at": (5, 25)})
    assert _plan(apply(alone, [put(far)]), catalogue) == before
    held = apply(alone, [put(loud), put(Radio(id="r", device="ap-1", band="5", channel=before))])
    (sheet,) = [r for r in evaluate(Plan(held, catalogue), wait=True).signal.radios or () if r.band == "5"]
    assert "shares air with a neighbour at -55 dBm" in sheet.channel_reason


@pytest.mark.parametrize("others", [[], [access_point(500, 5, "ap-2")]])
@pytest.mark.parametrize("band", ["2.4", "5"])
def test_what_shares_air_with_neighbours_alone_is_told(
    others: list[Element], band: Band, catalogue: Catalogue
) -> None:
    """Neighbours on every channel; the access points of the site do not hear each other."""
    design = design_of(*shell(10, 10), access_point(5, 5), *others)
    legal = band_plan(catalogue.rules, design.site.domain).legal[band]
    around = [
        Neighbour(id=f"nb-{c}", floor="f", name="N", at=(6, 5), band=band, channel=c, level_dbm=-50 - k)
        for k, c in enumerate(legal)
    ]
    found = evaluate(Plan(apply(design, [put(n) for n in around]), catalogue), wait=True)
    assert not [f for f in found.findings if f.id.startswith(("failed", f"signal-channel-{band}"))]
    told = next(f for f in found.findings if f.id == f"signal-neighbour-{band}")
    plan = next(r for r in found.signal.radios or () if r.band == band and r.device == "ap-1")
    # By hand: the loudest of all neighbours whose channel lies in the one that was chosen.
    rules, width = band_plan(catalogue.rules, design.site.domain), plan.width_mhz
    met = [n.level_dbm for n in around if rules.met_by(band, width, plan.channel, n.channel, 20) > 0]
    assert told.figure == max(met)
    assert told.text.startswith(f"{band} GHz: 1 of {1 + len(others)} access points shares air")
    assert search_cures(Plan(design, catalogue), told.id) == []


def _plan(design: Design, catalogue: Catalogue) -> int:
    radios = evaluate(Plan(design, catalogue), wait=True).signal.radios or ()
    return next(r.channel for r in radios if r.band == "5")


def test_the_cost_of_deviating_against_the_plain_sum(catalogue: Catalogue, school: Design) -> None:
    air = air_of(school, catalogue)
    task = channel_task(air, "2.4")
    plan = plan_channels(air, task, solve(task))
    view = band_view(air, "2.4", plan, "ap-3")
    points = [d.id for d in air.access_points("2.4")]
    now = [plan.channels[p] for p in points]
    for choice in view.choices:
        there = [choice.channel if p == "ap-3" else c for p, c in zip(points, now, strict=True)]
        shares = {0: 1, 1: 0.77, 2: 0.54, 3: 0.31, 4: 0.09}
        plain = [
            sum(shares.get(abs(some[i] - some[j]), 0) * db for i, j, db in task.pairs())
            for some in (there, now)
        ]
        assert choice.stays_db == pytest.approx(plain[0] - plain[1], abs=0.06)
        assert choice.follows_db <= choice.stays_db
        if choice.channel == plan.channels["ap-3"]:
            assert choice.stays_db == 0


def test_radios_that_may_sleep_leave_every_room_its_share(catalogue: Catalogue) -> None:
    """Two side by side in one room: one may sleep, the other covers; really asleep the sensors'
    room is met as before."""
    design = design_of(
        *shell(8, 8)[:3],
        Space(id="room", floor="f", name="Room", use="sensors", outline=((0, 0), (8, 0), (8, 8), (0, 8))),
        access_point(3, 4),
        access_point(5, 4, "ap-2"),
    )
    air = air_of(design, catalogue)
    (one,) = band_view(air, "2.4", None).sleepers or sleepers(air)
    assert one.covers == ({"AP-1": "AP-2", "AP-2": "AP-1"}[one.name],)
    asleep = apply(design, one.changes)
    assert [r.verdict for r in judge_rooms(air_of(asleep, catalogue))] == ["met"]
    assert sleepers(air_of(asleep, catalogue)) == []


def test_a_hall_where_all_hear_each_other_is_told_within_its_bound() -> None:
    """Sixty in one hall on three channels: twenty on each; 3 times 190 of 1770 pairs share, 22 dB
    above contention each."""
    heard = np.full((60, 60), -60)
    np.fill_diagonal(heard, -200)
    task = ChannelProblem("2.4", 20, (1, 6, 11), tuple(map(tuple, heard.tolist())), (None,) * 60, PLAN)
    found = bounded(task, exchanged(task, greedy(task)), 3.0)
    assert found.cost_db == 3 * 190 * 22 == found.bound_db
    assert found.proven
