"""Cables as they were tested, against what was planned."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from ..catalogue import Rules
from ..wording import metres
from .kinds import CableTest, Result, place_in_time

LONGER = "cabling.tested_longer_share"


@dataclass(frozen=True)
class PlannedCable:
    """One cable as planned: fixed length in m, and the longest that carries its speed there."""

    device: str
    name: str
    cable: int
    fixed_m: float
    limit_m: float


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

    A cable that passes and is much longer than planned took another way: that is near, and not
    met beyond what carries its speed.
    """
    by_cable: dict[tuple[str, int], list[CableTest]] = {}
    for test in tests:
        by_cable.setdefault((test.device, test.cable), []).append(test)
    return [
        _judge(rules, cable, by_cable.get((cable.device, cable.cable), [])) for cable in planned
    ]


def as_judged(rules: Rules, result: Result, margin_db: float | None) -> Result:
    """Return a tester's result, a pass with too little margin being marginal."""
    little = margin_db is not None and margin_db < rules["install.marginal_db"]
    return "marginal" if result == "pass" and little else result


def _judge(rules: Rules, cable: PlannedCable, tests: Sequence[CableTest]) -> TestedCable:
    last = max(tests, key=place_in_time, default=None)
    verdict, reason = _verdict(rules, cable, last)
    return TestedCable(
        device=cable.device, name=cable.name, cable=cable.cable, planned_m=round(cable.fixed_m, 1),
        verdict=verdict, reason=reason, tests=len(tests), last=last,
    )  # fmt: skip


def _verdict(
    rules: Rules, cable: PlannedCable, last: CableTest | None
) -> tuple[Literal["untested", "met", "near", "not_met"], str]:
    if last is None:
        return "untested", "not tested yet"
    if last.result == "fail":
        return "not_met", "failed its last test"
    said = last.length_m
    if said is not None and cable.limit_m and said > cable.limit_m:
        limit = metres(cable.limit_m)
        return "not_met", f"measured {metres(said)}, its speed reaches {limit} here"
    if last.result == "marginal":
        return "near", "passed only just: test it again after it is dressed"
    if said is not None and said > cable.fixed_m * (1 + rules[LONGER]):
        return "near", f"measured {metres(said)}, planned {metres(round(cable.fixed_m, 1))}"
    return "met", "passed" if said is None else f"passed at {metres(said)}"
