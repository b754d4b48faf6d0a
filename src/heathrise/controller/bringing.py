"""The shapes of a bring-up, and its fourteen steps as they ship."""

from __future__ import annotations

from functools import cache
from importlib.resources import files
from typing import ClassVar, Literal

import yaml
from pydantic import BaseModel, ConfigDict, Field

from ..core.base.frozen import Frozen

State = Literal["done", "ready", "waits", "blocked"]
Does = Literal[
    "", "tick", "update_itself", "release", "adopt", "update", "match", "push", "keys", "speed", "backup"
]


class BringItem(Frozen):
    """One thing of a step, for one device or for the site. ``does`` is what does it, ``words`` say what
    stands in its way, or what it waits for."""

    KEY: ClassVar = ("id",)

    id: str
    name: str
    state: State
    words: str = ""
    does: Does = ""
    device: str | None = None
    serial: str = ""
    target: str = Field("", description="what is pushed, empty for everything")


class BringStep(Frozen):
    """One of the fourteen steps, in the order in which they cost least."""

    KEY: ClassVar = ("number",)

    number: int
    title: str
    why: str
    caution: str = ""
    state: State
    items: tuple[BringItem, ...]


class BringUp(Frozen):
    """A site on its way up. ``ready`` counts what can be done now, ``blocked`` names what stands still."""

    steps: tuple[BringStep, ...]
    done: int
    of: int
    blocked: tuple[str, ...]
    bench: str | None = Field(None, description="subnet of the bench that it stands at; None on site")


class StepData(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")

    title: str
    why: str
    caution: str = ""
    ticks: dict[str, str] = {}


@cache
def steps_data() -> tuple[StepData, ...]:
    """Return the fourteen steps as they ship."""
    text = files(__package__).joinpath("steps.yaml").read_text("utf-8")
    return tuple(StepData.model_validate(row) for row in yaml.safe_load(text))


def ticks() -> frozenset[str]:
    """Return the ids of all that is ticked by hand."""
    return frozenset(key for step in steps_data() for key in step.ticks)
