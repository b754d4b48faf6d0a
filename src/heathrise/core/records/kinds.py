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


RECORD_KINDS: dict[str, type[Record]] = {cls.KIND: cls for cls in (CableTest,)}


def place_in_time(record: Record) -> tuple[datetime, int]:
    """Return what records are ordered by: when it was observed, then when it was written."""
    return record.at, record.number
