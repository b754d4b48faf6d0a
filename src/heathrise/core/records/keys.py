"""What became of a key: who was shown it, and to which controller it went. The key itself is in none."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AwareDatetime, Field

from .kinds import Record

KeyWay = Literal["screen", "sealed_copy", "slips"]
KeyOf = Annotated[str, Field(pattern=r"^((name|vouchers)/[A-Za-z0-9_-]{1,40}|account/local)$")]


class KeyShown(Record):
    """That somebody was shown a key or codes: on the screen, the sealed copy, or slips."""

    KIND = "key_shown"

    of: KeyOf
    way: KeyWay


class KeySent(Record):
    """That a controller was given the key that was made at ``made``, and the number under which it has it.

    ``same`` says whether it had just this one when it was asked afterwards.
    """

    KIND = "key_sent"

    of: KeyOf
    target: Annotated[str, Field(max_length=80)]
    made: AwareDatetime
    count: int
    same: bool
