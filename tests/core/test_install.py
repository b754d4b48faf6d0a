"""The work list: what comes before what, what can hurt, and when it is done."""

from __future__ import annotations

import itertools
import math
from functools import cache

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.context.scope import as_planned
from heathrise.core.design import Device, OwnFigure, Run, apply, put
from heathrise.core.install import PHASES, Step, finish_for
from heathrise.core.views.work_list import steps_of
from heathrise.demo import SITES

from ..thorough import examples

KEYS = [s.key for s in SITES]
CATALOGUE = load_catalogue()


@cache
def _steps(key: str) -> tuple[Step, ...]:
    design = next(s for s in SITES if s.key == key).make()
    return tuple(steps_of(Plan(design, CATALOGUE)))


def _before(steps: tuple[Step, ...], first: str, later: str) -> bool:
    """Whether one step is done before another in whatever order: by walking all waits."""
    by_id = {s.id: s for s in steps}
    todo, seen = [later], set()
    while todo:
        for wait in by_id[todo.pop()].waits:
            if wait not in seen:
                seen.add(wait)
                todo.append(wait)
    return first in seen


@pytest.mark.parametrize("key", KEYS)
def test_what_has_to_come_first_does(key: str) -> None:
    steps = _steps(key)
    ids = {s.id for s in steps}
    assert len(ids) == len(steps)
    assert all(w in ids for s in steps for w in s.waits)
    for run in [s.removeprefix("far-") for s in ids if s.startswith("far-")]:
        assert _before(steps, f"pull-{run}", f"far-{run}")
        assert _before(steps, f"far-{run}", f"near-{run}")  # the far end first
        assert _before(steps, f"near-{run}", f"test-{run}")
        device = run.removeprefix("run-")
        if f"adopt-{device}" in ids:
            assert _before(steps, f"test-{run}", f"adopt-{device}")  # tested before any power
            assert _before(steps, "controller", f"adopt-{device}")
    for stop in [s for s in ids if s.startswith("stop-")]:
        assert _before(steps, stop.removeprefix("stop-"), stop)
    for surge in [s for s in steps if s.id.startswith("surge-")]:
        assert surge.licensed and any("licensed" in c for c in surge.cautions)


@pytest.mark.parametrize("key", KEYS)
def test_every_new_device_is_mounted_and_every_height_has_its_caution(key: str) -> None:
    design = as_planned(next(s for s in SITES if s.key == key).make())
    steps = {s.id: s for s in _steps(key)}
    for device in (d for d in design.of(Device).values() if d.state == "new"):
        mount = steps[f"mount-{device.id}"]
        ladder = any(c.startswith("Ladder") for c in mount.cautions)
        assert ladder == (device.height_m > 2.2), device.name
        assert mount.people == (2 if ladder else 1)


def test_what_hangs_on_the_air_is_adopted_last_from_its_socket() -> None:
    """No cable is pulled to it; an injector goes up with it, the socket is the electrician's."""
    design = next(s for s in SITES if s.key == "school").make()
    run = Run(id="air", device="ap-14", over_air=True)
    loose = apply(design, [put(run)])
    steps = tuple(steps_of(Plan(loose, CATALOGUE)))
    by_id = {s.id: s for s in steps}
    assert "run-ap-14" not in " ".join(by_id) and "pull-run-ap-14" in {s.id for s in _steps("school")}
    mount = by_id["mount-ap-14"]
    assert any("injector" in m for m in mount.materials)
    assert any("electrician" in c for c in mount.cautions)
    assert not any("injector" in m for m in by_id["mount-ap-13"].materials)
    adopt = by_id["adopt-ap-14"]
    assert "at its socket" in adopt.title
    others = [s.id for s in steps if s.phase == "adopt" and s.id.startswith("adopt-ap-")]
    assert all(_before(steps, k, adopt.id) for k in others if k != adopt.id)


def test_heat_allows_its_minutes_and_the_firm_may_see_it_differently() -> None:
    design = next(s for s in SITES if s.key == "mill").make()
    said = [c for s in _steps("mill") for c in s.cautions if c.startswith("Heat")]
    assert said and all("45 °C: 15 minutes an hour" in c for c in said)
    for heat, words in ((50.0, "early in the morning or not at all"), (35.0, "30 minutes an hour")):
        own = OwnFigure(id="heat", figure="cabling.space_c.attic", value=heat)
        hot = apply(design, [put(own)])
        steps = steps_of(Plan(hot, CATALOGUE))
        assert any(words in c for s in steps for c in s.cautions)


@pytest.mark.parametrize("key", KEYS)
@pytest.mark.parametrize("people", [1, 2])
def test_a_schedule_can_be_walked(key: str, people: int) -> None:
    steps = _steps(key)
    _check_schedule(list(steps), people)


def _check_schedule(steps: list[Step], people: int) -> None:
    """Nothing begins before what it waits for is done, nobody is in two places, and each step gets
    the work it takes: beside another each of two goes at 0.85 of the pace of one alone."""
    found = finish_for(steps, people)
    starts, ends = found.starts, found.ends
    for step in steps:
        for wait in step.waits:
            assert starts[step.id] >= ends[wait] - 0.11
    edges = sorted({*starts.values(), *ends.values()})
    done: dict[str, float] = {s.id: 0.0 for s in steps}
    for low, high in itertools.pairwise(edges):
        if high - low <= 0.3:
            continue
        middle = (low + high) / 2
        busy = [s for s in steps if starts[s.id] < middle < ends[s.id]]
        hands = [p for s in busy for p in found.who[s.id]]
        assert len(hands) == len(set(hands)) <= people
        for step in busy:
            assert len(found.who[step.id]) == min(step.people, people)
            done[step.id] += (high - low) * (1.0 if len(busy) == 1 else 0.85)
    short = sum(1 for a, b in itertools.pairwise(edges) if b - a <= 0.3)
    for step in steps:
        assert done[step.id] == pytest.approx(step.minutes, abs=0.5 + 0.3 * short)
    assert found.minutes == pytest.approx(max(ends.values(), default=0), abs=0.2)
    assert found.minutes >= found.bound_minutes - 0.11
    if people == 1:
        work = sum(s.minutes for s in steps)
        assert found.minutes == pytest.approx(work, abs=0.11) and found.proven


def _step(key: int, minutes: int, people: int, waits: list[int]) -> Step:
    return Step(
        id=f"s{key}",
        phase=PHASES[0],
        title="x",
        kind="site",
        element="site",
        floor=None,
        minutes=minutes,
        people=people,
        waits=tuple(f"s{w}" for w in waits),
    )


_rows = st.lists(
    st.tuples(st.integers(0, 60), st.sampled_from([1, 1, 1, 2]), st.sets(st.integers(0, 30))), max_size=14
)


@examples(150)
@given(_rows)
def test_schedules_hold_whatever_waits_for_what(rows: list[tuple[int, int, set[int]]]) -> None:
    steps = [
        _step(k, minutes, people, [w for w in waits if w < k])
        for k, (minutes, people, waits) in enumerate(rows)
    ]
    for people in (1, 2):
        _check_schedule(steps, people)


def test_two_people_by_hand() -> None:
    """A for 10, then B for 20 and C for 30 beside each other, D for two people for 5. Beside each
    other B takes 20 / 0.85 = 23.5; of C 10 are left then, which one does alone: 48.5."""
    steps = [_step(0, 10, 1, []), _step(1, 20, 1, [0]), _step(2, 30, 1, [0]), _step(3, 5, 2, [1, 2])]
    two = finish_for(steps, 2)
    assert two.minutes == pytest.approx(10 + 20 / 0.85 + 10 + 5, abs=0.06)
    assert two.bound_minutes <= two.minutes
    one = finish_for(steps, 1)
    assert (one.minutes, one.alone_minutes) == (65, 5)


def test_two_get_one_and_seven_tenths_done_where_one_would_do() -> None:
    steps = [_step(k, 17, 1, []) for k in range(10)]
    two = finish_for(steps, 2)
    assert (two.minutes, two.proven) == (100.0, True)


def _best_of_all_orders(steps: list[Step]) -> float:
    """The shortest time for two of all ways to choose what begins when, tried one by one."""
    by_id = {s.id: s for s in steps}
    best = math.inf

    def walk(now: float, running: tuple[tuple[str, float], ...], done: frozenset[str]) -> None:
        nonlocal best
        if now >= best - 1e-9:
            return
        if len(done) == len(steps):
            best = now
            return
        busy = sum(by_id[k].people for k, _ in running)
        begun = {k for k, _ in running} | done
        ready = [s for s in steps if s.id not in begun and set(s.waits) <= done]
        options = [s for s in ready if s.people + busy <= 2]
        for step in options:
            walk(now, (*running, (step.id, float(step.minutes))), done)
        if running:  # or wait for the next end
            pace = 1.0 if len(running) == 1 else 0.85
            least = min(left for _, left in running)
            rest = tuple((k, left - least) for k, left in running if left - least > 1e-9)
            ended = {k for k, left in running if left - least <= 1e-9}
            walk(now + least / pace, rest, done | ended)

    walk(0.0, (), frozenset())
    return best


@examples(80)
@example([(6, 1, set()), (30, 1, set()), (38, 1, {0}), (1, 1, {0, 1, 2}), (38, 1, set()), (35, 1, set())])
@given(
    st.lists(
        st.tuples(st.integers(1, 60), st.sampled_from([1, 1, 2]), st.sets(st.integers(0, 5))),
        min_size=1,
        max_size=6,
    )
)
def test_small_jobs_end_as_early_as_any_order_lets_them(rows: list[tuple[int, int, set[int]]]) -> None:
    steps = [
        _step(k, minutes, people, [w for w in waits if w < k])
        for k, (minutes, people, waits) in enumerate(rows)
    ]
    best = _best_of_all_orders(steps)
    found = finish_for(steps, 2)
    assert found.bound_minutes <= best + 0.11
    assert found.minutes <= best + 0.11
    if found.proven:
        assert found.minutes == pytest.approx(best, abs=0.2)
