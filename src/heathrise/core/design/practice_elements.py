"""The practice profile that a project goes by: on each matter the school, its number, the firm's reason."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from ..base.frozen import Strict
from .values import Element, Name

_Key = Annotated[str, Field(pattern=r"^[a-z0-9_]+$", max_length=40)]


class SchoolChoice(Strict):
    """The school taken on one matter; ``value`` where it takes a number, ``reason`` in the firm's words."""

    matter: _Key
    school: _Key
    value: Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)] | None = None
    reason: Annotated[str, Field(max_length=200)] = ""


class Practice(Element):
    """A practice profile; matters that it does not name are by their first school. A project has one at
    most, kept with it so that it is read the same where the firm has changed its own since."""

    name: Name
    choices: Annotated[tuple[SchoolChoice, ...], Field(max_length=60)] = ()
