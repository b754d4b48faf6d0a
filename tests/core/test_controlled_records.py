"""What was said of a controller, as it stands now: serials, since when, what an undo sends; against plain loops."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.controlled import Differs
from heathrise.core.records import (
    BroughtTick,
    KeptBackup,
    PushedStep,
    ReadBack,
    SerialMatched,
    kept_since,
    serials_as_matched,
    since_when,
    ticked,
    undone,
)

from ..thorough import examples

_START = datetime(2026, 3, 1, 9, tzinfo=UTC)
_KEY = st.sampled_from([("device/a", "label"), ("device/a", "dtim"), ("network/n", "vlan")])


def _at(number: int) -> dict[str, Any]:
    return {"number": number, "at": _START + timedelta(minutes=number), "author": "me"}


@examples(100)
@given(st.lists(st.tuples(st.sampled_from("abc"), st.sampled_from(["", "S1", "S2", "S3"])), max_size=8))
def test_what_was_said_last_of_a_device_and_of_a_serial_counts(said: list[tuple[str, str]]) -> None:
    records = [SerialMatched(**_at(k), device=d, serial=s) for k, (d, s) in enumerate(said)]
    found = serials_as_matched(records)
    wanted: dict[str, str] = {}
    for device in "abc":
        mine = [(k, s) for k, (d, s) in enumerate(said) if d == device]
        if not mine or not mine[-1][1]:
            continue
        number, serial = mine[-1]
        taken = any(s == serial and d != device for d, s in said[number + 1 :])
        if not taken:
            wanted[device] = serial
    assert found == wanted and len(set(found.values())) == len(found)


@examples(100)
@given(st.lists(st.lists(_KEY, unique=True), max_size=6), st.lists(_KEY, unique=True))
def test_a_value_has_drifted_since_the_first_read_without_a_break(
    reads: list[list[tuple[str, str]]], now: list[tuple[str, str]]
) -> None:
    def differs(keys: list[tuple[str, str]]) -> tuple[Differs, ...]:
        return tuple(Differs(target=t, key=k, held=1, wanted=2) for t, k in keys)

    records = [
        ReadBack(**_at(k), revision=1, settings=9, differs=differs(keys)) for k, keys in enumerate(reads)
    ]
    for drift in since_when(differs(now), records):
        key = (drift.differs.target, drift.differs.key)
        first = len(reads)
        while first and key in reads[first - 1]:
            first -= 1
        assert drift.since == (records[first].at if first < len(reads) else None)


_STEP = st.tuples(
    st.sampled_from(["p1", "p2"]),
    _KEY,
    st.sampled_from([None, 1, "x", (1, 2)]),
    st.sampled_from(["done", "refused", "not_held", "cut_off", "away", "dangerous", "stopped"]),
)


@examples(100)
@given(st.lists(_STEP, max_size=8), st.lists(st.integers(0, 9), max_size=3))
def test_an_undo_sends_what_was_held_before_the_first_step_that_was_sent(
    steps: list[tuple[str, tuple[str, str], Any, Any]], backups: list[int]
) -> None:
    records = [
        PushedStep(
            **_at(k),
            push=push,
            revision=1,
            step=k,
            of=9,
            target=target,
            name=target,
            changes=(Differs(target=target, key=key, held=held, wanted="new"),),
            outcome=outcome,
        )
        for k, (push, (target, key), held, outcome) in enumerate(steps)
    ]
    wanted: dict[tuple[str, str], Any] = {}
    for push, key, held, outcome in reversed(steps):
        if push == "p1" and outcome in ("done", "refused", "not_held", "cut_off"):
            wanted[key] = held
    found = {(t, k): v for t, values in undone(records, "p1").items() for k, v in values.items()}
    assert found == wanted
    kept = [KeptBackup(**_at(n), text="{}") for n in sorted(backups)]
    sent = [k for k, (_, _, _, outcome) in enumerate(steps) if outcome not in ("dangerous", "stopped")]
    assert kept_since(records, kept) == (bool(backups) and max(backups) > max(sent, default=0))


@given(st.lists(st.tuples(st.sampled_from(["line", "walk"]), st.booleans()), max_size=6))
def test_a_tick_stands_as_it_was_said_last(said: list[tuple[str, bool]]) -> None:
    records = [BroughtTick(**_at(k), item=i, done=d) for k, (i, d) in enumerate(said)]
    wanted = {i for i in ("line", "walk") if [d for j, d in said if j == i][-1:] == [True]}
    assert ticked(records) == wanted
