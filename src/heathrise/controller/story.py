"""What a stand-in tells of a site afterwards: what was under way when, what it would not do, its faults."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

Doing = Literal["adopt", "update", "restart", "dark", "apply", "deaf", "itself", "scan"]
What = Literal["refused", "released", "sent", "keyed", "came"]


class _Told(BaseModel):
    model_config = ConfigDict(frozen=True, extra="ignore")


class Span(_Told):
    """Something that took a device its time, in seconds by the site's clock; ``itself`` is the controller."""

    serial: str
    doing: Doing
    begin_s: float
    end_s: float


class Mark(_Told):
    """Something that happened at once: what was refused, released, sent, or a fault that came about."""

    at_s: float
    serial: str = ""
    what: What
    words: str = Field("", max_length=300)


class Afterwards(_Told):
    """A device as it stands in the end, and which faults it was given: whether each has come about."""

    serial: str
    faults: dict[str, bool]


class Story(_Told):
    now_s: float
    pace: float = Field(description="seconds of the site that go by in each")
    spans: list[Span] = Field(max_length=10_000)
    marks: list[Mark] = Field(max_length=10_000)
    gear: list[Afterwards] = Field(max_length=2_000)
