"""The firm as its papers show it."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, field_validator

from ..base.frozen import Strict
from ..base.plain_text import plain

_Line = Annotated[str, Field(max_length=120)]
_Text = Annotated[str, Field(max_length=1_200)]


class Firm(Strict):
    """Who offers, hands over and is called; every field may be empty, an address has lines.

    ``valid_days`` is how long an offer holds, ``parts_annex`` whether it lists its parts as an
    annex.
    """

    name: _Line = ""
    address: Annotated[tuple[_Line, ...], Field(max_length=5)] = ()
    tax_number: _Line = ""
    contact: _Line = ""
    bank: _Line = ""
    payment: _Text = ""
    terms: _Text = ""
    warranty: _Text = ""
    valid_days: Annotated[int, Field(ge=1, le=365)] = 30
    parts_annex: bool = True

    @field_validator("*", mode="before")
    @classmethod
    def _printable(cls, value: object) -> object:
        if isinstance(value, list | tuple):
            return [plain(v).strip() for v in value if isinstance(v, str) and v.strip()]
        return plain(value).strip() if isinstance(value, str) else value
