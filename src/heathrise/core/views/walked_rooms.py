"""Rooms as they were walked: measured by levels at their spots, heard by somebody, or only planned.

What was heard by ear is never called measured, and what nobody walked stays what the plan says.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..context.plan import Plan
from ..context.readings import Reading
from ..context.storeys import storeys_of
from ..design import Design, Point
from ..evaluation.evaluate import evaluate
from ..signal import RadioEnvironment, RoomVerdict, environment_of

How = Literal["measured", "heard", "planned"]


class RoomSeen(Frozen):
    """One room whose use is promised: how it is known, and how it does. ``good`` of ``spots``
    have the levels that its use asks for."""

    space: str
    name: str
    floor: str
    how: How
    verdict: Literal["met", "near", "not_met", "unknown"]
    spots: int = 0
    good: int = 0
    by: str = Field("", description="who walked it, and when")


@dataclass(frozen=True)
class Heard:
    """Who walked all rooms by ear, and on which day."""

    by: str
    day: str


def rooms_as_walked(plan: Plan, readings: Sequence[Reading], heard: Heard | None) -> list[RoomSeen]:
    """Return how each room that asks for signal is known.

    At a spot the loudest access point measured there stands against the room's first target and
    the next against its second, each in the weaker direction: what the client sends arrives by so
    much weaker as it is than the access point. A room does as measured where as many of its spots
    do as a plan asks of its floor.
    """
    air = environment_of(plan)
    spots = _spots(plan.design, readings)
    met = air.rules["signal.met_share"]
    near = air.rules["signal.near_share"]
    found = []
    for room in evaluate(plan).rooms:
        if room.verdict == "not_needed":
            continue
        row = RoomSeen(space=room.space, name=room.name, floor=room.floor, how="planned", verdict="unknown")
        mine = spots.get(room.space, {})
        judged = [g for at in mine.values() if (g := _good(air, room, at)) is not None]
        if judged:
            share = sum(judged) / len(judged)
            verdict = "met" if share >= met else "near" if share >= near else "not_met"
            row = row.model_copy(
                update={"how": "measured", "verdict": verdict, "spots": len(judged), "good": sum(judged)}
            )
        elif heard is not None:
            row = row.model_copy(update={"how": "heard", "by": f"{heard.by}, {heard.day}"})
        found.append(row)
    return found


def _spots(design: Design, readings: Sequence[Reading]) -> dict[str, dict[Point, list[Reading]]]:
    """Return the readings by room and spot."""
    plan = storeys_of(design)
    found: dict[str, dict[Point, list[Reading]]] = {}
    for reading in readings:
        if reading.floor not in plan.floors:
            continue  # of a storey that is no more
        room = plan.room_at(reading.floor, reading.at)
        if room is not None:
            found.setdefault(room.id, {}).setdefault(reading.at, []).append(reading)
    return found


def _good(air: RadioEnvironment, room: RoomVerdict, readings: Sequence[Reading]) -> bool | None:
    """Whether a spot has the levels that its room's use asks for; None where nothing was measured
    there on its band."""
    band, first, client = room.band, room.target_first_dbm, room.client_dbm
    if band is None or first is None:
        return None
    levels: dict[str, float] = {}
    for reading in readings:
        radio = air.radios.get((reading.device, band))
        if reading.band != band or radio is None:
            continue
        weaker = min(0.0, client - radio.power_dbm) if client is not None else 0.0
        levels[reading.device] = max(levels.get(reading.device, -999.0), reading.dbm + weaker)
    if not levels:
        return None
    loudest = sorted(levels.values(), reverse=True)
    second = room.target_second_dbm
    return loudest[0] >= first and (second is None or (len(loudest) > 1 and loudest[1] >= second))
