"""What is plugged in on a simulated site, and how each of it stands."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any, Literal

from pydantic import BaseModel, Field

from ...controller.story import Mark, Span
from .held_keys import HeldKeys
from .scanning import Near, Scanning

Fault = Literal[
    "held_elsewhere", "slow", "power_loss", "moved", "refuses", "lies", "deaf", "old_twice", "strays"
]
# Each fault, and what one sees of it.
FAULTS: dict[Fault, str] = {
    "held_elsewhere": "another controller holds it; it must be released there and reset",
    "slow": "takes many times as long",
    "power_loss": "loses power half-way through its update",
    "moved": "comes back at another address",
    "refuses": "does not know one of the settings",
    "lies": "says that it took a setting, and did not",
    "deaf": "does not answer for a while after settings",
    "old_twice": "wants two updates, one after the other",
    "strays": "hangs on another over the air than was planned",
}
LATEST = 7
MOST_TOLD = 10_000


class Planted(BaseModel):
    """A device as it is plugged in: where, by which of its own ports, whether that feeds it."""

    serial: str
    model: str
    kind: str
    parent: str | None = None
    port: int | None = None
    own_port: int | None = None
    fed: bool = False
    managed: bool = True
    over_air: bool = False
    link_mbps: int | None = None
    watts: float | None = None
    radios: dict[str, int] = Field({}, description="channel of each band out of the box")
    clients: dict[str, float] = Field({}, description="clients at the busiest hour, by band")
    busy: dict[str, float] = Field({}, description="share of its air at the busiest hour, by band")
    near: list[Near] = Field([], description="radios of others that it can hear")


class Gear(BaseModel):
    planted: Planted
    stand: str = "found"
    firmware: int = LATEST - 1
    address: str = ""
    values: dict[str, Any] = {}
    coming: dict[str, Any] = {}
    version: int = 0
    applied: int = 0
    refuses: dict[str, str] = {}
    until_s: float = 0.0  # when what it does is done
    doing: str = ""
    blinking: bool = False
    faults: dict[str, bool] = {}  # by name whether it has come about
    strayed_to: str | None = None  # what it hangs on over the air where that is not as planned

    @property
    def parent(self) -> str | None:
        """Serial of what it hangs on."""
        return self.strayed_to or self.planted.parent


class State(BaseModel):
    site: str
    seed: int = 1
    now_s: float = 0.0
    firmware: int = LATEST - 2
    updating_until_s: float | None = None
    held: dict[str, dict[str, Any]] = {}
    keys: HeldKeys = HeldKeys()
    gear: dict[str, Gear] = {}
    spans: list[Span] = []
    marks: list[Mark] = []
    began: datetime = datetime(2026, 3, 3, 9)  # time of day on site when its clock stood at nought
    scan: Scanning = Scanning()

    @property
    def local(self) -> datetime:
        """Time of day on site."""
        return self.began + timedelta(seconds=self.now_s)
