"""Speeds against what the plan lets through, and against their own baseline."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.handover import open_points
from heathrise.core.records import (
    Occasion,
    PlannedSpeed,
    SeenSpeed,
    SpeedReading,
    Staged,
    bench_of,
    on_site_since,
    speeds_as_seen,
)
from heathrise.core.views.handover import Observed, handover_of
from heathrise.core.views.speeds import planned_speeds
from heathrise.demo import SITES

RULES = load_catalogue().rules
NOW = datetime(2026, 5, 4, 9, tzinfo=UTC)
ROOM = PlannedSpeed(where="hall", name="Hall", floor="Ground", mbps=400, binds="its air")


def _reading(
    mbps: float, occasion: Occasion = "baseline", minute: int = 0, where: str = "hall"
) -> SpeedReading:
    at = NOW + timedelta(minutes=minute)
    return SpeedReading(at=at, author="Ann", where=where, occasion=occasion, down_mbps=mbps)


def _seen(*readings: SpeedReading) -> SeenSpeed:
    (found,) = speeds_as_seen(RULES, [ROOM], readings)
    return found


@pytest.mark.parametrize(
    "readings, verdict, words",
    [
        ((), "unread", "not measured yet"),
        ((_reading(320),), "met", "320 Mb/s of 400 Mb/s, at the bring-up; its air is the narrowest"),
        ((_reading(319),), "near", "measure again at a quiet hour"),
        ((_reading(199),), "not_met", "something else binds here"),
        ((_reading(0),), "not_met", "something else binds here"),
        ((_reading(390), _reading(330, "hand_over")), "met", "at the hand-over"),
        ((_reading(390), _reading(311, "hand_over")), "near", "it was 390 Mb/s at the bring-up"),
        ((_reading(100), _reading(380, "hand_over")), "met", "380 Mb/s of 400 Mb/s, at the hand-over"),
        ((_reading(100), _reading(350, minute=5)), "met", "350 Mb/s"),
        ((_reading(350, minute=5), _reading(100)), "met", "350 Mb/s"),
        ((_reading(90, where="elsewhere"),), "unread", "not measured yet"),
    ],
)
def test_a_place_is_judged_by_plan_and_baseline(
    readings: tuple[SpeedReading, ...], verdict: str, words: str
) -> None:
    found = _seen(*readings)
    assert found.verdict == verdict and words in found.reason


def test_where_the_plan_lets_nothing_through_anything_is_more() -> None:
    nowhere = ROOM.model_copy(update={"mbps": 0.0})
    for mbps, verdict in ((0, "near"), (3, "met")):
        (found,) = speeds_as_seen(RULES, [nowhere], [_reading(mbps)])
        assert found.verdict == verdict and "where the plan lets nothing through: its air" in found.reason


@given(
    st.floats(1, 10_000),
    st.lists(st.tuples(st.sampled_from(["baseline", "hand_over"]), st.floats(0, 20_000)), max_size=8),
)
def test_what_is_said_follows_from_the_last_of_each_occasion(
    planned: float, story: list[tuple[Occasion, float]]
) -> None:
    """Against the same read plainly, the last first."""
    place = ROOM.model_copy(update={"mbps": planned})
    readings = [_reading(mbps, occasion, minute) for minute, (occasion, mbps) in enumerate(story)]
    (found,) = speeds_as_seen(RULES, [place], readings)
    last = dict(story)
    before, after = last.get("baseline"), last.get("hand_over")
    now = after if after is not None else before
    if now is None:
        wanted = "unread"
    elif now / planned < 0.5:
        wanted = "not_met"
    elif before is not None and after is not None and after < 0.8 * before:
        wanted = "near"
    else:
        wanted = "met" if now >= 0.8 * planned else "near"
    assert found.verdict == wanted
    assert (found.baseline and found.baseline.down_mbps) == before


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_the_plan_says_for_each_room_what_binds(key: str) -> None:
    plan = Plan(next(s for s in SITES if s.key == key).make(), load_catalogue(), quick=True)
    places = planned_speeds(plan)
    assert places[0].where == "line" and places[0].mbps == plan.design.site.line_mbps
    assert len({p.where for p in places}) == len(places) > 3
    served = {r.space: r for r in evaluate(plan).rooms}
    for place in places[1:]:
        assert served[place.where].name == place.name and place.binds
        assert 0 <= place.mbps <= plan.design.site.line_mbps


def test_a_hand_over_tells_what_was_measured_and_no_more() -> None:
    plan = Plan(next(s for s in SITES if s.key == "terrace").make(), load_catalogue(), quick=True)
    places = planned_speeds(plan)
    silent = handover_of(plan, Observed(speeds=speeds_as_seen(RULES, places, [])))
    assert "Speed" not in {p.what for p in silent.promises}
    readings = [_reading(p.mbps * 0.9, where=p.where) for p in places[:3]]
    readings += [_reading(places[1].mbps * 0.4, "hand_over", 9, places[1].where)]
    seen = speeds_as_seen(RULES, places, readings)
    told = handover_of(plan, Observed(speeds=seen))
    (speed,) = [p for p in told.promises if p.what == "Speed"]
    assert (speed.met, speed.not_met, speed.unknown, speed.verdict) == (2, 1, 0, "not_met")
    assert speed.measured == "2 of 3 places as planned, 1 measured again at the hand-over"
    assert speed.promised == f"{len(places)} places at what the plan lets through"
    wrong = [p for p in told.still_open if p.group == "speed"]
    assert [(p.element, p.tone) for p in wrong] == [(places[1].where, "not_met")]
    assert len(open_points([])) == 0


@given(st.lists(st.booleans(), max_size=8))
def test_a_site_is_on_site_since_it_last_left_the_bench(story: list[bool]) -> None:
    rows = [
        Staged(
            at=NOW + timedelta(minutes=k), author="Ann", at_bench=at, subnet="192.168.1.0/24" if at else ""
        )
        for k, at in enumerate(story)
    ]
    left = None
    for k in range(1, len(story)):
        if story[k - 1] and not story[k]:
            left = NOW + timedelta(minutes=k)
    assert on_site_since(rows) == left
    assert bench_of(rows) == ("192.168.1.0/24" if story and story[-1] else None)
