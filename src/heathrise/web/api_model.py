"""The bases of what goes over the wire."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict


class ApiModel(BaseModel):
    model_config = ConfigDict(extra="forbid")


class LineFault(ApiModel):
    line: int
    what: str
