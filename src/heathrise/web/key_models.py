"""What is said of keys over the wire."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import Field

from ..core.design import ElementId, Security
from ..core.records import KeyOf, KeyWay
from ..core.settings import KeyShape
from ..store.keys import MadeHow
from .api_model import ApiModel


class KeyNamed(ApiModel):
    """What one wants the key of."""

    of: KeyOf


class KeyMake(KeyNamed):
    shape: KeyShape


class KeyTyped(KeyNamed):
    key: Annotated[str, Field(max_length=200, repr=False)]


class KeyTold(ApiModel):
    """A key, and a picture as SVG that joins when it is scanned; empty where none can help."""

    key: str
    code: str


class ShownRow(ApiModel):
    at: datetime
    by: str
    way: KeyWay


class KeyRow(ApiModel):
    """Something that has a key, whether one is kept, and who was shown it last."""

    of: KeyOf
    name: str
    network: str
    security: Security | None
    how: MadeHow | None
    bits: float | None
    made: datetime | None
    by: str
    shown: list[ShownRow]


class KeysView(ApiModel):
    rows: list[KeyRow]


class KeysSent(ApiModel):
    """How many keys a controller was given, and what went wrong."""

    sent: int
    wrong: list[str]


class VoucherNamed(ApiModel):
    """The set of vouchers that one wants something of."""

    set: ElementId


class VoucherRow(ApiModel):
    """A set of vouchers: how many codes it wants and how many are kept, guesses to one that is valid, and
    when it was printed last."""

    set: str
    name: str
    total: int
    codes: int
    one_in: float | None
    made: datetime | None
    by: str
    printed: list[ShownRow]


class VouchersView(ApiModel):
    rows: list[VoucherRow]
