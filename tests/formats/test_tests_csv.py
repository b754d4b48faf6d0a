"""A tester's file: whatever it looks like, matched by label; the stand-in's faults are found."""

from __future__ import annotations

from datetime import UTC, datetime
from functools import cache

import pytest

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import DesignError
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.install import Label
from heathrise.core.records import PlannedCable, cables_as_tested
from heathrise.core.views.labels import project_labels
from heathrise.demo import SITES
from heathrise.formats.tests_csv import TestsIn, read_tests
from heathrise.standins import FAULTS, measured_csv

NOW = datetime(2026, 11, 25, 12, tzinfo=UTC)
RULES = load_catalogue().rules


@cache
def _site(key: str) -> tuple[list[Label], dict[str, str], dict[str, float], list[PlannedCable]]:
    design = next(s for s in SITES if s.key == key).make()
    evaluation = evaluate(Plan(design, load_catalogue()))
    labels = project_labels(Plan(design, load_catalogue()))
    runs = {r.id: r.device for r in evaluation.runs}
    lengths = {k.id: k.fixed_m for k in evaluation.cable.links}
    planned = [
        PlannedCable(r.device, r.name, n, r.fixed_m, r.limit_m)
        for r in evaluation.runs
        for n in range(1, r.cables + 1)
    ]
    return labels, runs, lengths, planned


def _read(text: str | bytes, key: str = "school") -> TestsIn:
    labels, runs, _, _ = _site(key)
    data = text.encode() if isinstance(text, str) else text
    return read_tests(data, labels, runs, RULES, NOW)


@pytest.mark.parametrize("seed", range(12))
def test_the_faults_of_the_stand_in_are_found_and_nothing_else(seed: int) -> None:
    labels, runs, lengths, planned = _site("school")
    text, hidden = measured_csv(labels, lengths, seed, 7, "2026-11-24")
    assert text == measured_csv(labels, lengths, seed, 7, "2026-11-24")[0]
    read = _read(text)
    assert not read.faults and len(read.tests) == len(labels)
    stands = cables_as_tested(RULES, planned, [r.test for r in read.tests])
    told = {(s.device, s.cable): s.verdict for s in stands}
    wanted = {"fail": "not_met", "pass": "near"}
    for label in labels:
        kind = hidden.get(label.text)
        verdict = told[runs[label.link], label.cable]
        if kind is not None:
            limit = next(p for p in planned if p.device == runs[label.link]).limit_m
            beyond = lengths[label.link] * 1.25 > limit > 0
            allowed = {wanted[FAULTS[kind].result]} | ({"not_met"} if beyond else set())
            assert verdict in allowed, kind
        elif verdict != "met":
            # Only a run that is longer than its speed reaches is told of without a fault.
            assert (
                lengths[label.link] * 1.1 > next(p for p in planned if p.device == runs[label.link]).limit_m
            )


def test_any_order_delimiter_and_sign_is_read() -> None:
    text = _site("school")[0][0].text
    for data in (
        f"label,result,length_m\n{text}/A,PASS,12.5\n".encode(),
        f"\ufeffLength;Cable ID;Status\n12,5;{text.lower()}/b;passed\n".encode(),
        f"tester\tresult\tlength_m\tlabel\nJo\tp\t12.5\t'{text}\n".encode("utf-16"),
    ):
        read = _read(data)
        assert not read.faults
        assert (read.tests[0].test.length_m, read.tests[0].test.result) == (12.5, "pass")


def test_each_fault_is_told_with_its_line() -> None:
    text = _site("school")[0][0].text
    read = _read(
        f"label,result,length_m,worst_margin_db\n{text},pass,12,0.4\n=EVIL(),pass,1,9\n{text},maybe,1,9\n"
        f"{text},pass,-4,9\n{text},pass,12,0.4\n{text},fail,,\n"
    )
    assert [r.test.result for r in read.tests] == ["marginal", "fail"]
    faults = {f.line: f.what for f in read.faults}
    assert set(faults) == {3, 4, 5, 6}
    assert "'=EVIL()'" in faults[3] and "'maybe' is no result" in faults[4]
    assert "no length" in faults[5] and "same as line 2" in faults[6]


def test_two_hundred_thousand_rows_are_read() -> None:
    text = _site("school")[0][0].text
    rows = "".join(f"{text},pass,{10 + k % 500 / 10},2026-11-24T10:00\n" for k in range(200_000))
    read = _read("label,result,length_m,date\n" + rows)
    assert len(read.tests) == 500 and len(read.faults) == 199_500
    with pytest.raises(DesignError, match="more than 20,000 tests"):
        _read("label,result,length_m\n" + rows)


def test_a_cable_may_pass_fail_and_pass_again() -> None:
    """Without a time of day each row is a test of its own, unless it repeats the one before."""
    text = _site("school")[0][0].text
    for date in ("", "2026-11-24"):
        said = [f"{text},{word},{date}\n" for word in ("pass", "pass", "fail", "pass")]
        read = _read("label,result,date\n" + "".join(said))
        assert [t.test.result for t in read.tests] == ["pass", "fail", "pass"]
        assert [t.key for t in read.tests] == [None] * 3
        assert [f.line for f in read.faults] == [3]
    timed = _read(f"label,result,date\n{text},pass,2026-11-24T10:00\n{text},pass,2026-11-24T11:00")
    assert len({t.key for t in timed.tests}) == 2 and None not in {t.key for t in timed.tests}
    wrong = _read(f"label,result,date\n{text},pass,24.11.2026\n{text},pass,0001-01-01T00:00+14:00")
    assert not wrong.tests and all("is no day" in f.what for f in wrong.faults)


def test_a_way_between_racks_is_tested_like_a_run() -> None:
    labels, runs, _, _ = _site("practice")
    between = next(x for x in labels if x.link not in runs)
    read = _read(f"label,result,loss_db\n{between.near},pass,1.4\n", "practice")
    (row,) = read.tests
    assert (row.test.device, row.test.loss_db) == (between.link, 1.4) and not read.faults
    bad = _read(f"label,result,loss_db\n{between.near},pass,lots\n", "practice")
    assert "no loss in dB" in bad.faults[0].what
