"""What is held otherwise than it shall be, value by value."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import ClassVar

from pydantic import Field

from ..base.frozen import Frozen

Scalar = bool | int | float | str | None
Value = Scalar | tuple[int, ...] | tuple[str, ...]
# By target, such as ``site`` or ``device/ap-1``, and there by key.
Held = Mapping[str, Mapping[str, Value]]


DEVICE = "device/"


def device_of(target: str) -> str | None:
    """Return the device that a target is, or None where it is what all of a site share."""
    return target.removeprefix(DEVICE) if target.startswith(DEVICE) else None


class Differs(Frozen):
    """One value: as it is held, None where it is not, and as it shall be, None where it shall go."""

    KEY: ClassVar = ("target", "key")

    target: str
    key: str
    held: Value = Field(None, description="as it is held; None where it is not")
    wanted: Value = Field(None, description="as it shall be; None where it shall not be")


def normal(value: object) -> Value:
    """Return a value as JSON gives it back: lists for tuples, no whole number as a broken one."""
    if isinstance(value, list | tuple):
        return tuple(normal(v) for v in value)  # type: ignore[return-value]
    if isinstance(value, float) and value.is_integer():
        return int(value)
    return value  # type: ignore[return-value]


def same(a: object, b: object) -> bool:
    """Whether two values are one: 20 and 20.0 are, on and 1 are not, nothing said and empty are."""
    x, y = (None if v in ("", ()) else normal(v) for v in (normal(a), normal(b)))
    return x == y and isinstance(x, bool) == isinstance(y, bool)


def differences(held: Held, wanted: Held) -> Iterator[Differs]:
    """Yield what differs, target by target in the order of what is wanted, then what is held beside it."""
    for target in dict.fromkeys([*wanted, *held]):
        a, b = held.get(target, {}), wanted.get(target, {})
        for key in dict.fromkeys([*b, *a]):
            if not same(a.get(key), b.get(key)):
                yield Differs(target=target, key=key, held=normal(a.get(key)), wanted=normal(b.get(key)))
