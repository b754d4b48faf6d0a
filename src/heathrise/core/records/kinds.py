"""The kinds of record."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, ClassVar, Literal

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field

from ..design import ElementId

Result = Literal["pass", "marginal", "fail"]


class Record(BaseModel):
    """One observation. ``number`` counts up within a site and is given when it is written."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)
    KIND: ClassVar[str]

    number: int = 0
    at: AwareDatetime
    author: Annotated[str, Field(min_length=1, max_length=120)]


class CableResult(BaseModel):
    """What a cable tester said of one cable of a device's run; lengths in m."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    device: ElementId
    cable: Annotated[int, Field(ge=1, le=64)] = 1
    result: Result
    length_m: Annotated[float, Field(gt=0, le=2000)] | None = None
    note: Annotated[str, Field(max_length=300)] = ""


class CableTest(CableResult, Record):
    """A cable tester's result, with when it was seen and by whom."""

    KIND = "cable_test"


StepState = Literal["open", "done", "skipped", "blocked"]


class StepWords(BaseModel):
    """What was said of a step of the work: done, skipped, blocked, or open again.

    ``key`` is made where it was said, so that what is sent twice counts once; ``licensed_by``
    names who did what is kept for licensed people; ``photo`` is a kept picture.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    key: Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{8,40}$")]
    step: Annotated[str, Field(min_length=1, max_length=80)]
    state: StepState
    reason: Annotated[str, Field(max_length=300)] = ""
    note: Annotated[str, Field(max_length=300)] = ""
    minutes: Annotated[float, Field(ge=0, le=5000)] | None = None
    licensed_by: Annotated[str, Field(max_length=120)] = ""
    photo: ElementId | None = None


class StepRecord(StepWords, Record):
    """A step as somebody left it, with when and by whom."""

    KIND = "step"


RECORD_KINDS: dict[str, type[Record]] = {cls.KIND: cls for cls in (CableTest, StepRecord)}


def place_in_time(record: Record) -> tuple[datetime, int]:
    """Return what records are ordered by: when it was observed, then when it was written."""
    return record.at, record.number
