"""A walk and what becomes of a call on it, as it is told."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ..base.bands import Band
from ..base.frozen import Frozen
from ..catalogue import Used
from ..design import Point


class Sample(Frozen):
    """Half a second of a walk: where it is, and who serves."""

    t_s: float
    floor: str
    at: Point
    serving: str | None
    band: Band = Field(description="that it is served on")
    dbm: float = Field(description="of the weaker direction, from who serves")


class LevelTrace(Frozen):
    """The level of one access point along the way, dBm of the weaker direction, a step each."""

    device: str
    band: Band
    name: str
    floor: str
    dbm: tuple[float, ...]


class Event(Frozen):
    """Something that happens on the way; ``until_s`` for what lasts."""

    kind: Literal["hand_over", "lost", "back", "clings"]
    t_s: float
    until_s: float
    floor: str
    at: Point
    device: str | None
    to: str | None
    gap_ms: float
    bad: bool
    text: str


class Walk(Frozen):
    """A walk and what becomes of a call on it."""

    seconds: float
    metres: float
    band: Band
    name: str = Field(description="wireless name whose settings make the gaps")
    samples: tuple[Sample, ...]
    lines: tuple[LevelTrace, ...]
    events: tuple[Event, ...]
    verdict: Literal["holds", "breaks"]
    text: str
    drop_dbm: float = Field(description="level under which a call is lost")
    used: tuple[Used, ...]
