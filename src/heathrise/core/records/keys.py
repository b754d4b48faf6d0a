"""What became of a key: who was shown it, and to which controller it went. The key itself is in none."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AwareDatetime, Field

from .kinds import Record

KeyWay = Literal["screen", "sealed_copy"]
KeyOf = Annotated[str, Field(pattern=r"^(name/[A-Za-z0-9-]{1,40}|account/local)$")]


class KeyShown(Record):
    """That somebody was shown a key, on the screen or on the sealed copy."""

    KIND = "key_shown"

    of: KeyOf
    way: KeyWay


class KeySent(Record):
    """That a controller was given the key that was made at ``made``, and how often its key was set then.

    ``same`` says whether it had just this one when it was asked afterwards.
    """

    KIND = "key_sent"

    of: KeyOf
    target: Annotated[str, Field(max_length=80)]
    made: AwareDatetime
    count: int
    same: bool
