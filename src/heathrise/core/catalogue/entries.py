"""What every entry has, and every thing in a rack. Watts, millimetres, kilogrammes, dB(A)."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

Positive = Annotated[float, Field(ge=0, allow_inf_nan=False)]


class Entry(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    id: str
    label: str
    withdrawn: bool = False  # it stays in the plans that have it and is offered no more


class Racked(BaseModel):
    """What a rack has to know of a thing. One of no ``units`` has no ears and stands on a shelf.

    ``own_w`` is what it draws from the mains by itself, power over its ports not counted;
    ``noise_db`` its sound a metre away, dB(A), none without a fan; ``most_c`` the air it bears.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    units: Annotated[int, Field(ge=0, le=10)] = 0
    wide_mm: Positive = 200.0
    deep_mm: Positive = 150.0
    kg: Positive = 0.5
    own_w: Positive = 0.0
    noise_db: Positive = 0.0
    most_c: float | None = None
