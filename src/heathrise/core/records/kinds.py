"""The kinds of record."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, ClassVar, Literal

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field

from ..context.readings import Reading
from ..design import ElementId

Result = Literal["pass", "marginal", "fail"]
# Made where a thing was said, so that what is sent twice is written once.
RecordKey = Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{8,40}$")]


class Record(BaseModel):
    """One observation.

    ``number`` counts up within a site and is given when it is written; so is ``written``.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)
    KIND: ClassVar[str]

    number: int = 0
    at: AwareDatetime
    author: Annotated[str, Field(min_length=1, max_length=120)]
    written: AwareDatetime | None = None


class FromDevice(BaseModel):
    """What is said on a device, perhaps long before it is sent; ``at`` is by the server's clock.

    ``clock_ahead_s`` says how far that device's clock went ahead of it, 0 where it goes right.
    """

    clock_ahead_s: float = 0.0


class CableResult(BaseModel):
    """What a tester said of one cable of a device's run, or of a way between racks.

    ``device`` is the way's own id where it is one. Length in m; ``wire_map`` is the conductors as
    they arrive, ``12345678`` where all do; ``loss_db`` is that of a fibre.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    device: ElementId
    cable: Annotated[int, Field(ge=1, le=64)] = 1
    result: Result
    length_m: Annotated[float, Field(gt=0, le=2000)] | None = None
    wire_map: Annotated[str, Field(max_length=40)] = ""
    loss_db: Annotated[float, Field(ge=0, le=100)] | None = None
    note: Annotated[str, Field(max_length=300)] = ""


class CableTest(CableResult, Record):
    """A cable tester's result, with when it was seen and by whom."""

    KIND = "cable_test"


MOST_READINGS = 20_000


class MeasuredWalk(Record):
    """Levels that were measured on a walk, each with where and whose."""

    KIND = "measured_walk"

    name: Annotated[str, Field(max_length=120)] = ""
    readings: Annotated[tuple[Reading, ...], Field(min_length=1, max_length=MOST_READINGS)]


StepState = Literal["open", "done", "skipped", "blocked"]


class StepWords(BaseModel):
    """What was said of a step of the work: done, skipped, blocked, or open again.

    ``key`` is made where it was said, so that what is sent twice counts once; ``licensed_by``
    names who did what is kept for licensed people; ``photo`` is a kept picture. A photograph
    alone has no ``state``: the step stands as it did.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    key: RecordKey
    step: Annotated[str, Field(min_length=1, max_length=80)]
    state: StepState | None
    reason: Annotated[str, Field(max_length=300)] = ""
    note: Annotated[str, Field(max_length=300)] = ""
    minutes: Annotated[float, Field(ge=0, le=5000)] | None = None
    licensed_by: Annotated[str, Field(max_length=120)] = ""
    photo: ElementId | None = None


class WalkCounts(Record):
    """Whether a measured walk counts from now on; ``walk`` is the number of its record."""

    KIND = "walk_counts"

    walk: Annotated[int, Field(ge=1)]
    counts: bool


class StepRecord(StepWords, FromDevice, Record):
    """A step as somebody left it, with when and by whom."""

    KIND = "step"


class PortReading(Record):
    """What a switch, or a meter at its port, said: link speed in Mb/s (0 without a link), watts.

    ``device`` and ``cable`` say what was plugged in by the plan of that day, so that a reading
    stays with its cable when ports are shared out anew.
    """

    KIND = "port_reading"

    switch: ElementId
    port: Annotated[int, Field(ge=1, le=1000)]
    device: ElementId | None = None
    cable: Annotated[int, Field(ge=1, le=64)] = 1
    mbps: Annotated[int, Field(ge=0, le=400_000)] | None = None
    watts: Annotated[float, Field(ge=0, le=200)] | None = None


SnagState = Literal["open", "closed"]


class SnagWords(BaseModel):
    """Something left to mend, as it is said: ``snag`` is its id, made where it was first seen.

    ``kind`` and ``element`` name what it is about, ``owner`` who mends it, ``due`` by when. A
    photograph alone has no ``state``: the snag stands as it did.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    key: RecordKey
    snag: Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{4,40}$")]
    state: SnagState | None = "open"
    what: Annotated[str, Field(max_length=300)] = ""
    kind: Annotated[str, Field(max_length=40)] = ""
    element: ElementId | None = None
    floor: ElementId | None = None
    owner: Annotated[str, Field(max_length=120)] = ""
    due: date | None = None
    photo: ElementId | None = None


class SnagRecord(SnagWords, FromDevice, Record):
    """A snag as somebody left it, with when and by whom."""

    KIND = "snag"


class Agreed(Record):
    """The client has agreed to a revision of the plan: what is built is compared with it."""

    KIND = "agreed"

    revision: Annotated[int, Field(ge=1)]


class HandedOver(Record):
    """A hand-over: the revision and the last record it rests on, its papers, what was open then."""

    KIND = "handed_over"

    revision: Annotated[int, Field(ge=1)]
    last_record: int
    papers: dict[str, str] = Field(description="ids of the kept papers by their kind")
    still_open: tuple[str, ...] = ()


class Signed(Record):
    """A hand-over was signed for; ``handover`` is the number of its record."""

    KIND = "signed"

    handover: int
    signed_by: Annotated[str, Field(min_length=1, max_length=120)]


_ALL: tuple[type[Record], ...] = (
    CableTest,
    MeasuredWalk,
    WalkCounts,
    StepRecord,
    PortReading,
    SnagRecord,
    Agreed,
    HandedOver,
    Signed,
)
RECORD_KINDS: dict[str, type[Record]] = {cls.KIND: cls for cls in _ALL}


def place_in_time(record: Record) -> tuple[datetime, int]:
    """Return what records are ordered by: when it was observed, then when it was written.

    Nothing was observed after it was written, whatever the clock of an instrument says.
    """
    at = record.at if record.written is None else min(record.at, record.written)
    return at, record.number


def says_the_same(one: Record, other: Record) -> bool:
    """Whether two records say the same, whoever said it and when."""
    own = set(Record.model_fields)
    return one.model_dump(exclude=own) == other.model_dump(exclude=own)
