"""Gear for far places: radios for a line, what reaches a place otherwise, what makes power out there."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from .entries import Entry, Positive


class BridgeModel(Entry):
    """A radio for a line from point to point, two to a line: conducted power, gain, and what it takes.

    ``rates`` are (least dBm, Mb/s of both ways together), the slowest first; ``beam_deg`` is its width.
    """

    band: Literal["5", "60"]
    power_dbm: Annotated[float, Field(ge=-20, le=40)]
    gain_dbi: Annotated[float, Field(ge=0, le=60)]
    beam_deg: Annotated[float, Field(gt=0, le=360)]
    poe_class: Annotated[int, Field(ge=0, le=8)]
    own_w: Positive
    rates: Annotated[tuple[tuple[float, float], ...], Field(min_length=1)]
    price: Positive


class RemoteModel(Entry):
    """What reaches a place over wires or masts of others: ``label_mbps`` is what its box says."""

    kind: Literal["power_line", "cellular", "satellite"]
    label_mbps: Annotated[float, Field(gt=0)]
    delay_ms: Positive
    own_w: Positive
    price: Positive


class SunModel(Entry):
    """A solar panel of ``watts``, or a battery of ``wh`` as rated and what it is made of."""

    watts: Positive = 0.0
    wh: Positive = 0.0
    chemistry: Literal["lead_acid", "lithium"] | None = None
    price: Positive

    @model_validator(mode="after")
    def _one_of_both(self) -> SunModel:
        if (self.watts > 0) == (self.wh > 0) or (self.wh > 0) != (self.chemistry is not None):
            raise ValueError("is a panel with watts, or a battery with Wh and what it is made of")
        return self
