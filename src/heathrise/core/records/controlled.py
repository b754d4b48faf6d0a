"""What was seen of a site's controller and sent to it: matches, reads, pushes, backups."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from ..controlled import Differs
from ..design import ElementId
from .kinds import Record

Outcome = Literal["done", "refused", "not_held", "cut_off", "away", "dangerous", "stopped"]


class SerialMatched(Record):
    """Which device of the plan a serial is; an empty serial takes the match back."""

    KIND = "serial_matched"

    device: ElementId
    serial: Annotated[str, Field(max_length=60)]


class ReadBack(Record):
    """A read of all that a controller holds: what differed from the plan of that revision."""

    KIND = "read_back"

    revision: int
    settings: int = Field(description="how many settings the plan has")
    differs: tuple[Differs, ...] = ()


class PushedStep(Record):
    """One step of a push as it went. ``push`` tells its push, ``changes`` hold what was there before."""

    KIND = "pushed_step"

    push: Annotated[str, Field(max_length=40)]
    revision: int
    step: int
    of: int
    target: Annotated[str, Field(max_length=80)]
    name: Annotated[str, Field(max_length=120)]
    changes: tuple[Differs, ...]
    outcome: Outcome
    words: Annotated[str, Field(max_length=400)] = ""


class KeptBackup(Record):
    """All that a controller held, in its own words, kept with the project."""

    KIND = "controller_backup"

    text: Annotated[str, Field(max_length=5_000_000)]
    label: Annotated[str, Field(max_length=120)] = ""


class BroughtTick(Record):
    """Something of the bring-up that was ticked by hand, or is open again."""

    KIND = "brought_tick"

    item: Annotated[str, Field(max_length=40)]
    done: bool
    note: Annotated[str, Field(max_length=200)] = ""


class Drift(BaseModel):
    """A value that is held otherwise than it shall be, and since which read."""

    model_config = ConfigDict(frozen=True)

    differs: Differs
    since: datetime | None


def serials_as_matched(records: Sequence[SerialMatched]) -> dict[str, str]:
    """Return by device of the plan its serial: what was said last counts, a serial is one device's."""
    found: dict[str, str] = {}
    for row in records:
        found = {k: v for k, v in found.items() if v != row.serial and k != row.device}
        if row.serial:
            found[row.device] = row.serial
    return found


def since_when(now: Sequence[Differs], reads: Sequence[ReadBack]) -> list[Drift]:
    """Return since which read each value has differed without a break; None where no read saw it yet."""
    found: list[Drift] = []
    for row in now:
        first: datetime | None = None
        for read in reversed(reads):
            if not any((d.target, d.key) == (row.target, row.key) for d in read.differs):
                break
            first = read.at
        found.append(Drift(differs=row, since=first))
    return found


def ticked(records: Sequence[BroughtTick]) -> frozenset[str]:
    """Return what stands ticked: what was said last counts."""
    last = {row.item: row.done for row in records}
    return frozenset(item for item, done in last.items() if done)


def kept_since(steps: Sequence[PushedStep], backups: Sequence[KeptBackup]) -> bool:
    """Whether a backup was kept after the last step that was sent."""
    sent = max((s.number for s in steps if s.outcome not in ("dangerous", "stopped")), default=0)
    return bool(backups) and max(b.number for b in backups) > sent


def undone(steps: Sequence[PushedStep], push: str) -> Mapping[str, Mapping[str, Any]]:
    """Return what was held before a push, by target and key: None where it was not there."""
    found: dict[str, dict[str, Any]] = {}
    for step in steps:
        if step.push == push and step.outcome not in ("dangerous", "stopped", "away"):
            for change in step.changes:
                found.setdefault(step.target, {}).setdefault(change.key, change.held)
    return found
