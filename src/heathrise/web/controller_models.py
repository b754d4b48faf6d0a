"""What is said of a site's controller over the wire."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ..core.design import ElementId
from .api_model import ApiModel, LineFault


class Serial(ApiModel):
    """A device of the plan and the serial on its label; an empty one takes the match back."""

    device: ElementId
    serial: Annotated[str, Field(max_length=60)]


class SerialsRead(ApiModel):
    """What could be read of a file of serials, and whether it was taken."""

    read: int
    taken: bool
    faults: list[LineFault]


class SettingNamed(ApiModel):
    target: Annotated[str, Field(max_length=80)]
    key: Annotated[str, Field(max_length=80)]


class BackupNote(ApiModel):
    label: Annotated[str, Field(max_length=120)] = ""


class StandinSaid(ApiModel):
    """How a plan is built in a stand-in: so many devices with a fault, by a seed; ``afresh`` forgets what
    was there."""

    faults: Annotated[int, Field(ge=0, le=200)] = 0
    seed: Annotated[int, Field(ge=0, le=1_000_000)] | None = None
    afresh: bool = False


class ScanWhen(ApiModel):
    """When the access points listen to the neighbourhood."""

    when: Literal["quiet", "now"] = "quiet"


class Tick(ApiModel):
    """What was ticked by hand in a bring-up, or is open again."""

    item: Annotated[str, Field(max_length=40)]
    done: bool
    note: Annotated[str, Field(max_length=200)] = ""


class Staging(ApiModel):
    """Whether a site is set up at the bench, and the subnet of the network there."""

    at_bench: bool
    subnet: Annotated[str, Field(max_length=43)] = ""
