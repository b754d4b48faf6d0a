"""The air of a site as its controller heard it at one time, kept so that busy hours can be told later."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from .kinds import Record


class RadioHeard(BaseModel):
    """One radio, by the device of the plan or, where none is known, by its serial: how many clients were on
    it, what share of its air was in use, how loud the noise was."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    device: Annotated[str, Field(max_length=60)]
    band: Annotated[str, Field(max_length=4)]
    channel: int
    clients: Annotated[int, Field(ge=0)]
    busy: Annotated[float, Field(ge=0, le=1)]
    noise_dbm: float


class AirHeard(Record):
    """All radios of a site at one time, and how many of their clients were faint."""

    KIND = "air_heard"

    clients: int
    weak: int
    radios: Annotated[tuple[RadioHeard, ...], Field(max_length=6_000)]


def busiest_of(records: Iterable[AirHeard]) -> dict[tuple[str, str], tuple[float, datetime]]:
    """Return by device and band the largest share of air that was kept, and when it was; of equal ones the
    first."""
    found: dict[tuple[str, str], tuple[float, datetime]] = {}
    for record in records:
        for radio in record.radios:
            before = found.get((radio.device, radio.band))
            if before is None or radio.busy > before[0]:
                found[radio.device, radio.band] = radio.busy, record.at
    return found
