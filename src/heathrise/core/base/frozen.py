"""A model that does not change once it is made."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict


class Frozen(BaseModel):
    """What is worked out or said: read by many, changed by nobody."""

    model_config = ConfigDict(frozen=True)


class Strict(Frozen):
    """The same of what comes in from outside: a field that is not known is refused."""

    model_config = ConfigDict(frozen=True, extra="forbid")
