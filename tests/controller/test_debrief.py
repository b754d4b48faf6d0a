"""What is told of a round, against a plain account of what happened; and how long the gear itself takes."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.controller.bring_up import BringItem, BringStep, BringUp
from heathrise.controller.debrief import Debrief, allowed_s, debrief_of, idle, lessons
from heathrise.controller.story import Afterwards, Mark, Span, Story
from heathrise.core.catalogue import load_catalogue
from heathrise.core.records import BroughtTick, PushedStep
from heathrise.core.records.controlled import Outcome
from heathrise.standins.controller.gear import FAULTS, Fault, Planted
from heathrise.standins.controller.par import par_seconds

NOW = datetime(2026, 5, 4, 9, tzinfo=UTC)
NAMES = {"A": "Hall", "B": "Foyer"}


def _up(*items: BringItem) -> BringUp:
    step = BringStep(number=7, title="Update the gear", why="it is old", state="ready", items=items)
    done = sum(i.state == "done" for i in items)
    return BringUp(steps=(step,), done=done, of=len(items), blocked=())


DONE = BringItem(id="a", name="Hall", state="done", device="hall", serial="A")
OPEN = BringItem(id="b", name="Foyer", state="ready", device="foyer", serial="B")


def _told(
    spans: tuple[Span, ...] = (),
    marks: tuple[Mark, ...] = (),
    gear: tuple[Afterwards, ...] = (),
    ticks: tuple[BroughtTick, ...] = (),
    pushed: tuple[PushedStep, ...] = (),
    now_s: float = 100,
    brought: BringUp | None = None,
) -> Debrief:
    story = Story(now_s=now_s, pace=1, spans=list(spans), marks=list(marks), gear=list(gear))
    return debrief_of(story, brought or _up(DONE), NAMES, ticks, pushed, 600, 300, dict(FAULTS))


def _span(serial: str, doing: str, begin: float, end: float) -> Span:
    return Span.model_validate({"serial": serial, "doing": doing, "begin_s": begin, "end_s": end})


def _pushed(
    minute: int, outcome: Outcome = "done", target: str = "network/a", name: str = "Main"
) -> PushedStep:
    at = NOW + timedelta(minutes=minute)
    more = {"push": "p", "revision": 1, "step": 1, "of": 1, "changes": ()}
    return PushedStep.model_validate(
        {"at": at, "author": "Ann", "outcome": outcome, "target": target, "name": name, **more}
    )


def _tick(item: str, minute: int) -> BroughtTick:
    return BroughtTick(at=NOW + timedelta(minutes=minute), author="Ann", item=item, done=True)


def test_each_fault_has_a_lesson_and_no_lesson_is_without_one() -> None:
    assert set(lessons().faults) == set(FAULTS) == set(get_args(Fault))


def test_who_did_all_in_time_missed_nothing() -> None:
    told = _told((_span("A", "adopt", 0, 20), _span("A", "update", 20, 80)))
    assert told.missed == () and (told.used_s, told.par_s, told.allowed_s) == (100, 300, 600)
    assert [(u.device, u.doing, u.end_s) for u in told.under] == [
        ("Hall", "adopt", 20),
        ("Hall", "update", 80),
    ]


@pytest.mark.parametrize(
    "marks, what",
    [
        ((Mark(at_s=1, what="refused", words="too early"),), "Once refused: too early"),
        ((Mark(at_s=1, what="refused", words="no"),) * 3, "3 times refused: no"),
    ],
)
def test_what_was_refused_is_told_once_with_how_often(marks: tuple[Mark, ...], what: str) -> None:
    assert [m.what for m in _told(marks=marks).missed] == [what]


def test_settings_before_an_update_are_told_by_device() -> None:
    sent = tuple(Mark(at_s=at, serial=s, what="sent") for s, at in (("A", 30), ("B", 90)))
    spans = (_span("A", "update", 40, 90), _span("B", "update", 40, 85))
    told = _told(spans, sent)
    assert [m.what for m in told.missed] == ["Settings before the update: Hall"]
    assert not _told(spans, sent[1:]).missed


def test_ticks_before_what_they_are_about_are_told() -> None:
    early = _told(ticks=(_tick("walk", 1), _tick("leases", 1)), pushed=(_pushed(2),))
    assert {m.step for m in early.missed} == {11, 14}
    assert not _told(ticks=(_tick("walk", 3), _tick("leases", 3)), pushed=(_pushed(2),)).missed
    assert {m.step for m in _told(ticks=(_tick("leases", 3),)).missed} == {11}, "nothing was sent"


def test_who_cuts_off_and_who_is_late_is_told() -> None:
    told = _told(pushed=(_pushed(1, "cut_off", name="Switch 1"),), now_s=700)
    assert [m.what for m in told.missed] == [
        "Cut off by a push: Switch 1",
        "Late: 12 min, and 10 min were given",
    ]


def test_what_is_left_is_named_and_its_fault_is_not_mended() -> None:
    gear = (Afterwards(serial="A", faults={"slow": False}), Afterwards(serial="B", faults={"deaf": True}))
    came = (Mark(at_s=42, serial="B", what="came", words="deaf"),)
    told = _told(gear=gear, marks=came, brought=_up(DONE, OPEN))
    assert [(m.step, m.what, m.why) for m in told.missed] == [
        (7, "Update the gear: 1 of 2 left: Foyer", "It is old.")
    ]
    assert [(f.device, f.came_s, f.mended) for f in told.faults] == [
        ("Hall", None, True),
        ("Foyer", 42, False),
    ]


def test_a_round_is_given_half_as_much_again_as_gear_hands_and_meter_take() -> None:
    items = [
        BringItem(id="t", name="Tick", state="ready", does="tick"),
        BringItem(id="k", name="Key", state="blocked"),
        BringItem(id="w", name="Adopt", state="ready", does="adopt", device="hall"),
        BringItem(id="s", name="Hall", state="ready", does="speed"),
        BringItem(id="p", name="Networks", state="ready", does="push"),
    ]
    # 1.5 times 300 s, two things of 10 s each at 12 seconds a second, and 20 s with the meter.
    assert allowed_s(load_catalogue().rules, _up(*items), 300, 12) == 1.5 * (300 + 2 * 10 * 12 + 20)


def test_keys_that_are_left_have_a_reason_of_their_own() -> None:
    key = BringItem(id="key-name-a", name="Key of A", state="blocked")
    told = _told(brought=_up(DONE, OPEN, key))
    assert [(m.what, m.why.split()[0]) for m in told.missed] == [
        ("Update the gear: 1 of 2 left: Foyer", "It"),
        ("Keys: 1 of 1 left: Key of A", "Without"),
    ]


@given(st.lists(st.tuples(st.integers(0, 60), st.integers(1, 30)), max_size=12))
def test_idle_is_every_second_before_the_last_begin_in_which_nothing_was_under_way(
    rows: list[tuple[int, int]],
) -> None:
    spans = [_span("A", "adopt", begin, begin + long) for begin, long in rows]
    last = max((begin for begin, _ in rows), default=0)
    plain = sum(not any(a <= second < a + long for a, long in rows) for second in range(last))
    assert idle(spans) == plain


def _line(many: int) -> list[Planted]:
    """A switch and so many devices on it."""
    switch = Planted(serial="S", model="s", kind="switch")
    devices = [
        Planted(serial=f"D{k}", model="d", kind="ap", parent="S", port=k + 1, fed=True) for k in range(many)
    ]
    return [switch, *devices]


def test_par_is_what_the_gear_takes_by_hand() -> None:
    """The controller twice 60 s; a switch adopts in 20 s, updates once or twice in 60 + 45 s, and takes its
    settings in 4 s; what hangs on it is adopted once it is there, and waits while it restarts."""
    alone = par_seconds(_line(0), seed=1, faults=0)
    assert alone in (120 + 20 + 105 + 4, 120 + 20 + 210 + 4)
    assert par_seconds(_line(5), seed=1, faults=0) >= alone
    assert par_seconds(_line(5), seed=1, faults=6) > par_seconds(_line(5), seed=1, faults=0)
