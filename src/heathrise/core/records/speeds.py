"""Speeds as they were measured at the line and in the rooms, beside what the plan lets through there."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..base.wording import speed
from ..catalogue import Rules
from ..design import ElementId
from .kinds import Record, place_in_time

LINE = "line"
Occasion = Literal["baseline", "hand_over"]
SpeedVerdict = Literal["unread", "met", "near", "not_met"]
_WORDS: dict[Occasion, str] = {"baseline": "at the bring-up", "hand_over": "at the hand-over"}


class SpeedReading(Record):
    """What a speed test said at a place: Mb/s down and up, delay in ms. ``where`` is a room's id, or ``line``
    for a cable at the router itself."""

    KIND = "speed_reading"

    where: ElementId
    occasion: Occasion
    down_mbps: Annotated[float, Field(ge=0, le=400_000)]
    up_mbps: Annotated[float, Field(ge=0, le=400_000)] | None = None
    delay_ms: Annotated[float, Field(ge=0, le=60_000)] | None = None


class PlannedSpeed(Frozen):
    """What the plan lets through to a place, and the link that binds there."""

    KEY: ClassVar = ("where",)

    where: str
    name: str
    floor: str = Field("", description="what its storey is called, empty for the line")
    mbps: float
    binds: str


class SeenSpeed(Frozen):
    """A place with what was measured there last, on either occasion; the later is held against the first."""

    KEY: ClassVar = ("where",)

    where: str
    name: str
    floor: str
    planned_mbps: float
    binds: str
    baseline: SpeedReading | None
    hand_over: SpeedReading | None
    verdict: SpeedVerdict
    reason: str


def speeds_as_seen(
    rules: Rules, planned: Iterable[PlannedSpeed], readings: Sequence[SpeedReading]
) -> list[SeenSpeed]:
    """Return each place with its last reading of either occasion, judged by plan and baseline."""
    last: dict[tuple[str, Occasion], SpeedReading] = {}
    for row in sorted(readings, key=place_in_time):
        last[row.where, row.occasion] = row
    found = []
    for place in planned:
        baseline, hand_over = last.get((place.where, "baseline")), last.get((place.where, "hand_over"))
        verdict, reason = _judged(rules, place, baseline, hand_over)
        found.append(
            SeenSpeed(
                where=place.where,
                name=place.name,
                floor=place.floor,
                planned_mbps=place.mbps,
                binds=place.binds,
                baseline=baseline,
                hand_over=hand_over,
                verdict=verdict,
                reason=reason,
            )
        )
    return found


def _judged(
    rules: Rules, place: PlannedSpeed, baseline: SpeedReading | None, hand_over: SpeedReading | None
) -> tuple[SpeedVerdict, str]:
    now = hand_over or baseline
    if now is None:
        return "unread", "not measured yet"
    got = now.down_mbps
    if place.mbps <= 0:
        said = f"{speed(got)} {_WORDS[now.occasion]}, where the plan lets nothing through: {place.binds}"
        return ("met" if got > 0 else "near"), said
    said = f"{speed(got)} of {speed(place.mbps)}, {_WORDS[now.occasion]}; {place.binds} is the narrowest"
    if got < rules["install.speed_near_share"] * place.mbps:
        return "not_met", f"{said} by the plan, something else binds here"
    if baseline is not None and hand_over is not None:
        before = baseline.down_mbps
        if got < rules["install.speed_kept_share"] * before:
            return "near", f"{said}; it was {speed(before)} at the bring-up: ask what changed since"
    if got < rules["install.speed_met_share"] * place.mbps:
        return "near", f"{said} by the plan: measure again at a quiet hour, then at the line"
    return "met", said
