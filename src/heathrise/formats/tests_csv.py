"""A cable tester's results, as CSV in: matched to cables by their labels."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime

from ..core.catalogue import Rules
from ..core.design import DesignError, Problem
from ..core.install import Label
from ..core.records import CableTest, as_judged
from .tables_in import Fault, Once, Row, number_of, read_table, taken_at

COLUMNS = {
    "label": ("cable_id", "id", "cable", "name"),
    "result": ("verdict", "pass_fail", "status"),
    "wire_map": ("wiremap", "map"),
    "length_m": ("length", "len_m"),
    "worst_margin_db": ("margin_db", "margin", "headroom_db"),
    "loss_db": ("loss", "attenuation_db"),
    "date": ("at", "time", "tested"),
    "tester": ("by", "operator", "author"),
}
_PASSED = {"pass", "passed", "ok", "p"}
_MARGINAL = {"marginal", "pass*", "warning", "near"}
_FAILED = {"fail", "failed", "f", "fail*"}
_LONGEST_M = 2000.0
_MOST_LOSS_DB = 100.0
MOST_TESTS = 20_000


@dataclass(frozen=True)
class Read:
    """A test of a cable that was read, and the key under which it is written once.

    There is no key where nothing tells a test from the one before: see ``anew``.
    """

    key: str | None
    test: CableTest


@dataclass(frozen=True)
class TestsIn:
    """What could be read of a tester's file, and what could not."""

    __test__ = False  # no test of pytest's
    tests: tuple[Read, ...]
    faults: tuple[Fault, ...]


def read_tests(
    data: bytes, labels: Sequence[Label], runs: Mapping[str, str], rules: Rules, now: datetime
) -> TestsIn:
    """Return the tests of a file; a row at fault is told and left out.

    Args:
        labels: of the project's cables.
        runs: the device of each run, by the run's id; a way between racks is called by its own.

    Raises:
        DesignError: it is no such file at all.
    """
    by_text = {x.text: x for x in labels}
    found: list[Read] = []
    faults: list[Fault] = []
    once = Once()
    for row in read_table(data, COLUMNS, ("label", "result")):
        text = row.cells["label"].lstrip("'").upper().removesuffix("/A").removesuffix("/B")
        label = by_text.get(text)
        said, taken = _said(row, rules), taken_at(row.cells.get("date", ""), now)
        digest = hashlib.sha256("|".join([text, *row.cells.values()]).encode()).hexdigest()[:32]
        if label is None:
            faults.append(Fault(row.line, f"no cable of this plan is labelled {text[:30]!r}"))
        elif isinstance(said, str):
            faults.append(Fault(row.line, said))
        elif isinstance(taken, str):
            faults.append(Fault(row.line, taken))
        elif (again := once.again(row, text, digest, taken.exact)) is not None:
            faults.append(Fault(row.line, again))
        else:
            test = CableTest(
                device=runs.get(label.link, label.link),
                cable=label.cable,
                at=taken.at,
                author=row.cells.get("tester", "")[:120] or "tester",
                **said,
            )
            found.append(Read(digest if taken.exact else None, test))
            if len(found) > MOST_TESTS:
                what = f"has more than {MOST_TESTS:,} tests; take in the latest of each cable"
                raise DesignError([Problem("file", what)])
    return TestsIn(tuple(found), tuple(faults))


def _said(row: Row, rules: Rules) -> dict[str, object] | str:
    """Return the result of a row as a record has it, or what is wrong with it."""
    word = row.cells["result"].lower()
    if word not in _PASSED | _MARGINAL | _FAILED:
        return f"{word[:20]!r} is no result; it should be pass, marginal or fail"
    length = number_of(row.cells.get("length_m", "")) if row.cells.get("length_m") else None
    if row.cells.get("length_m") and (length is None or not 0 < length <= _LONGEST_M):
        return f"{row.cells['length_m'][:20]!r} is no length of a cable in m"
    margin = number_of(row.cells.get("worst_margin_db", ""))
    said = "fail" if word in _FAILED else "marginal" if word in _MARGINAL else "pass"
    result = as_judged(rules, said, margin)  # type: ignore[arg-type]
    loss = number_of(row.cells.get("loss_db", "")) if row.cells.get("loss_db") else None
    if row.cells.get("loss_db") and (loss is None or not 0 <= loss <= _MOST_LOSS_DB):
        return f"{row.cells['loss_db'][:20]!r} is no loss in dB"
    wire_map = row.cells.get("wire_map", "")[:40]
    notes = [
        f"wire map {wire_map}" if wire_map else "",
        f"worst margin {margin:g} dB" if margin is not None else "",
    ]
    note = ", ".join(n for n in notes if n)[:300]
    return {"result": result, "length_m": length, "wire_map": wire_map, "loss_db": loss, "note": note}
