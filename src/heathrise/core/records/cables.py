"""Cables as they were tested, against what was planned."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from ..base.wording import metres
from ..catalogue import Rules
from .kinds import CableTest, Result, place_in_time

OTHER, OTHER_M = "cabling.tested_other_share", "cabling.tested_other_m"
IN_HAND = "cabling.fibre_in_hand_db"
GOOD_MAP = "12345678"
_PAIR_OF = {c: pair for pair in ("1-2", "3-6", "4-5", "7-8") for c in pair if c != "-"}


@dataclass(frozen=True)
class PlannedCable:
    """One cable as planned: fixed length in m, and the longest that carries its speed there.

    For a fibre ``expected_db`` is the loss of its length and connectors, ``budget_db`` what its
    speed bears.
    """

    device: str
    name: str
    cable: int
    fixed_m: float
    limit_m: float
    expected_db: float | None = None
    budget_db: float | None = None


class TestedCable(BaseModel):
    """One cable and what is known of it."""

    __test__ = False  # no test of pytest's
    model_config = ConfigDict(frozen=True)

    device: str
    name: str
    cable: int
    planned_m: float = Field(description="fixed run as planned, m")
    verdict: Literal["untested", "met", "near", "not_met"]
    reason: str
    tests: int = Field(description="how often it was tested")
    last: CableTest | None = Field(None, description="the test that counts")


def cables_as_tested(
    rules: Rules, planned: Iterable[PlannedCable], tests: Iterable[CableTest]
) -> list[TestedCable]:
    """Return every planned cable with the last test of it, in order of planning.

    Whatever a tester called its result, a wire map that is not straight is a fault, and so is a
    loss over what the speed bears. A length off the plan by more than a tenth and 2 m, either way,
    is told: another run, a coil in the wall, or a drawing that is wrong.
    """
    by_cable: dict[tuple[str, int], list[CableTest]] = {}
    for test in tests:
        by_cable.setdefault((test.device, test.cable), []).append(test)
    return [_judge(rules, cable, by_cable.get((cable.device, cable.cable), [])) for cable in planned]


def as_judged(rules: Rules, result: Result, margin_db: float | None) -> Result:
    """Return a tester's result, a pass with too little margin being marginal."""
    little = margin_db is not None and margin_db < rules["install.marginal_db"]
    return "marginal" if result == "pass" and little else result


def _judge(rules: Rules, cable: PlannedCable, tests: Sequence[CableTest]) -> TestedCable:
    last = max(tests, key=place_in_time, default=None)
    verdict, reason = _verdict(rules, cable, last)
    return TestedCable(
        device=cable.device,
        name=cable.name,
        cable=cable.cable,
        planned_m=round(cable.fixed_m, 1),
        verdict=verdict,
        reason=reason,
        tests=len(tests),
        last=last,
    )


def _verdict(
    rules: Rules, cable: PlannedCable, last: CableTest | None
) -> tuple[Literal["untested", "met", "near", "not_met"], str]:
    if last is None:
        return "untested", "not tested yet"
    fault = next(_faults(rules, cable, last), None)
    if fault is not None:
        return fault
    said, loss = last.length_m, last.loss_db
    parts = [
        f"at {metres(said)}" if said is not None else "",
        f"loses {loss:g} dB" if loss is not None else "",
    ]
    return "met", " ".join(["passed", ", ".join(p for p in parts if p)]).strip()


def _faults(
    rules: Rules, cable: PlannedCable, last: CableTest
) -> Iterator[tuple[Literal["near", "not_met"], str]]:
    """Yield what is wrong with a cable by its last test, what does not do before what is near."""
    said, loss, budget = last.length_m, last.loss_db, cable.budget_db
    if wrong := wire_map_said(last.wire_map):
        yield "not_met", wrong
    if last.result == "fail":
        yield "not_met", "failed its last test"
    if loss is not None and budget is not None and loss > budget:
        yield "not_met", f"loses {loss:g} dB, its speed bears {budget:g}"
    if said is not None and cable.limit_m and said > cable.limit_m:
        yield "not_met", f"measured {metres(said)}, its speed reaches {metres(cable.limit_m)} here"
    if last.result == "marginal":
        yield "near", "passed only just: test it again after it is dressed"
    if loss is not None and budget is not None and loss > budget - rules[IN_HAND]:
        hand = f"{budget:g} with {rules[IN_HAND]:g} in hand"
        yield "near", f"loses {loss:g} dB of {hand}: clean its ends and test again"
    if said is not None and is_other(rules, said, cable.fixed_m):
        longer = said > cable.fixed_m
        guess = "another way, or a coil in the wall" if longer else "another cable, or a wrong drawing"
        planned = metres(round(cable.fixed_m, 1))
        yield "near", f"measured {metres(said)}, planned {planned}: {guess}"


def is_other(rules: Rules, measured_m: float, planned_m: float) -> bool:
    """Whether a length is off the planned one by more than a share of it and some metres."""
    off_m = abs(measured_m - planned_m)
    return off_m > rules[OTHER] * planned_m and off_m > rules[OTHER_M]


def wire_map_said(text: str) -> str:
    """Return what is wrong by a wire map, naming the pairs, or nothing where it is straight.

    What is written in other ways than conductor by conductor is left to the tester's own result.
    """
    plain = "".join(text.split()).lower()
    if len(plain) != len(GOOD_MAP) or plain == GOOD_MAP or set(plain) - set("12345678x-0"):
        return ""
    lost = [c for c, seen in zip(GOOD_MAP, plain, strict=True) if seen in "x-0"]
    if lost:
        pairs = " and ".join(dict.fromkeys(_PAIR_OF[c] for c in lost))
        return f"wire map {text}: {', '.join(lost)} not through, pair {pairs}"
    moved = [c for c, seen in zip(GOOD_MAP, plain, strict=True) if seen != c]
    pairs = " and ".join(dict.fromkeys(_PAIR_OF[c] for c in moved))
    return f"wire map {text}: {', '.join(moved)} on other pins, pairs {pairs}"
