"""Records beside the plan: the last test of a cable counts, whatever the order they came in."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from heathrise.core.catalogue import load_catalogue
from heathrise.core.records import (
    CableTest,
    PlannedCable,
    Standing,
    by_the_server,
    cables_as_tested,
    standing,
)

RULES = load_catalogue().rules
MORNING = datetime(2026, 3, 2, 9, tzinfo=UTC)
PLANNED = PlannedCable("ap-1", "AP-1", 1, fixed_m=40.0, limit_m=90.0)


def said(
    result: str = "pass", length_m: float | None = None, hours: int = 0, number: int = 1, **more: object
) -> CableTest:
    return CableTest.model_validate(
        {
            "number": number,
            "at": MORNING + timedelta(hours=hours),
            "author": "me",
            "device": "ap-1",
            "result": result,
            "length_m": length_m,
            **more,
        }
    )


@pytest.mark.parametrize(
    ("test", "verdict", "words"),
    [
        (None, "untested", "not tested"),
        (said(), "met", "passed"),
        (said(length_m=43.9), "met", "43.9"),  # 40 and a tenth are 44
        (said(length_m=44.1), "near", "planned 40"),
        (said(length_m=90.1), "not_met", "reaches 90"),
        (said("marginal"), "near", "only just"),
        (said("marginal", 95), "not_met", "reaches 90"),
        (said("fail", 12), "not_met", "failed"),
    ],
)
def test_a_test_is_judged_against_the_plan(test: CableTest | None, verdict: str, words: str) -> None:
    (found,) = cables_as_tested(RULES, [PLANNED], [test] if test else [])
    assert (found.verdict, found.tests) == (verdict, 1 if test else 0)
    assert words in found.reason.replace("\u00a0", " ")


@given(
    st.lists(
        st.tuples(
            st.integers(0, 5),
            st.sampled_from(["pass", "marginal", "fail"]),
            st.sampled_from(["ap-1", "ap-2", "gone"]),
            st.integers(1, 2),
        ),
        max_size=12,
    ),
    st.randoms(),
)
def test_the_last_one_of_each_cable_counts(rows: list[tuple], order: object) -> None:
    tests = [
        said(result, None, hours, number, device=device, cable=cable)
        for number, (hours, result, device, cable) in enumerate(rows, start=1)
    ]
    planned = [PlannedCable(d, d, c, 10.0, 90.0) for d in ("ap-1", "ap-2") for c in (1, 2)]
    shuffled = list(tests)
    order.shuffle(shuffled)  # type: ignore[attr-defined]
    for found in cables_as_tested(RULES, planned, shuffled):
        last = None
        for test in tests:  # in order of writing: a later hour, or the same hour written later
            mine = (test.device, test.cable) == (found.device, found.cable)
            if mine and (last is None or test.at >= last.at):
                last = test
        assert found.last == last
        words = {None: "untested", "pass": "met", "marginal": "near", "fail": "not_met"}
        assert found.verdict == words[last.result if last else None]


@pytest.mark.parametrize(
    "wrong",
    [
        {"result": "good"},
        {"length_m": 0},
        {"length_m": float("nan")},
        {"cable": 0},
        {"at": "2026-03-02T09:00:00"},
        {"author": ""},
        {"more": 1},
    ],
)
def test_what_is_no_observation_is_refused(wrong: dict) -> None:
    with pytest.raises(ValidationError):
        CableTest.model_validate({**said().model_dump(), **wrong})


@given(st.lists(st.integers(-10_000, 10_000), min_size=1, max_size=8), st.integers(-90_000, 90_000))
def test_what_a_device_said_keeps_its_order_whatever_its_clock_does(minutes: list[int], lead_s: int) -> None:
    """Against a plain reading: the lead is taken off, nothing is later than what came after it."""
    now = MORNING
    lead = timedelta(seconds=lead_s)
    said = [now + lead + timedelta(minutes=m) for m in minutes]
    times, ahead_s = by_the_server(said, now + lead, now)
    assert ahead_s == (lead_s if abs(lead_s) > 60 else 0)
    off = timedelta(seconds=lead_s - ahead_s)
    for k, at in enumerate(times):
        after = [now, *(now + timedelta(minutes=m) + off for m in minutes[k:])]
        assert at == min(after)
    assert times == sorted(times)


def test_of_a_device_that_says_no_clock_only_the_arrival_is_known() -> None:
    assert by_the_server([MORNING, None], None, MORNING + timedelta(hours=2)) == (
        [MORNING + timedelta(hours=2)] * 2,
        0.0,
    )


KINDS_SAID = ("step", "cable_test", "port_reading", "agreed", "handed_over", "signed")


@given(st.lists(st.tuples(st.sampled_from(KINDS_SAID), st.integers(1, 28), st.booleans())))
def test_where_a_job_stands_against_all_that_was_said_read_in_turn(said: list[tuple[str, int, bool]]) -> None:
    """A plain reading of the whole list, record by record, with its numbers."""
    last: dict[str, date] = {}
    handover, signed = None, None
    for number, (kind, day, for_the_last) in enumerate(said, start=1):
        on = date(2026, 11, day)
        last[kind] = max(on, last.get(kind, on))
        if kind == "handed_over":
            handover = number
        if kind == "signed":
            of = handover if for_the_last and handover else -1
            signed = {"handover": of, "signed_by": f"person {number}"}
    found = standing(last, handover, signed)
    kinds = [kind for kind, _, _ in said]
    if "handed_over" in kinds:
        own = len(kinds) - 1 - kinds[::-1].index("handed_over")
        after = [row for row in said[own:] if row[0] == "signed"]
        received = bool(after) and after[-1][2]
        assert found.stage == ("received" if received else "handed_over")
        assert bool(found.by) == received
    elif set(kinds) & {"step", "cable_test", "port_reading"}:
        days = [d for k, d, _ in said if k in ("step", "cable_test", "port_reading")]
        assert found.stage == "installed" and found.on == date(2026, 11, max(days))
    elif "agreed" in kinds:
        assert found.stage == "agreed"
    else:
        assert found == Standing()
