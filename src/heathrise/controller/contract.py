"""What goes between this program and a controller of a site: version 1, as OpenAPI in ``contract.json``.

A real controller would be put behind it by whoever knows it; the stand-in that ships speaks it itself.
Settings are plain values by key, such as ``{"radio.5.channel": 36}``, under what they belong to.
"""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

CONTRACT = 1
Scalar = bool | int | float | str | None
Value = Scalar | list[int] | list[str]
Values = dict[Annotated[str, Field(max_length=80)], Value]
Stand = Literal[
    "found",  # in factory state, waiting to be adopted
    "held_elsewhere",  # held by another controller; released there and reset it is found
    "adopting",
    "updating",
    "online",
    "offline",  # without power, or restarting
    "cut_off",  # it has power and cannot be reached any more
    "scanning",  # its radios listen to the neighbourhood; its clients are off until that is over
]


class _Said(BaseModel):
    # What a later version says more is no concern of this one.
    model_config = ConfigDict(frozen=True, extra="ignore")


class About(_Said):
    """The controller itself: which contract it speaks, whose site it holds, its own firmware."""

    contract: int
    name: str = Field(max_length=120)
    site: str = Field(max_length=120)
    firmware: int
    offers: int | None = Field(None, description="newer firmware of its own, or none")
    updating: bool = False
    now_s: float = Field(description="seconds by its own clock")
    local: datetime | None = Field(None, description="time of day on site as it has it, without a zone")


class Gear(_Said):
    """One device that a controller sees; ``parent``, a serial, and ``port`` say where it is plugged in."""

    serial: str = Field(max_length=60)
    model: str = Field(max_length=120)
    kind: str = Field(max_length=40)
    label: str = Field("", max_length=120)
    stand: Stand
    address: str = Field("", max_length=60)
    firmware: int = 0
    offers: int | None = None
    held_by: str = Field("", max_length=120)
    parent: str | None = None
    port: int | None = None
    link_mbps: int | None = None
    watts: float | None = None
    blinking: bool = False
    version: int = Field(0, description="of the settings that it was last sent")
    applied: int = Field(0, description="of the settings that it says it has")
    refuses: dict[str, str] = Field(
        {}, description="keys of the last settings that it would not take, and why"
    )


class GearList(_Said):
    gear: list[Gear] = Field(max_length=2_000)


Target = Annotated[str, Field(max_length=80)]


class Held(_Said):
    """All that a controller holds, by what it belongs to: ``site``, ``network/..``, ``name/..``,
    ``vouchers/..``, and ``device/`` with a serial. It tells no key, but of each the number under which it
    was set, which never comes again: who set it last knows whether somebody else has since."""

    held: dict[Target, Values]
    keyed: dict[Target, int] = {}


class KeySaid(_Said):
    """A key, or the codes of a set of vouchers, one a line, on their way to a controller; it tells none."""

    key: str = Field(min_length=1, max_length=40_000, repr=False)


class KeyChecked(_Said):
    """Whether a controller has just the key that it was asked about."""

    same: bool


class Sent(_Said):
    """Settings for one target: those that are to be others; what is None is taken away."""

    values: Values


class Taken(_Said):
    """That settings were taken on; whether they hold is seen when they are read back."""

    version: int


class Client(_Said):
    """One client: on which access point and band, how loud, what it is moving."""

    mac: str = Field(max_length=40)
    device: str = Field(max_length=60)
    band: str = Field(max_length=4)
    name: str = Field("", max_length=32)
    dbm: float
    mbps: float


class Air(_Said):
    """One radio as it hears its channel: share of air in use, noise, strangers on it."""

    serial: str = Field(max_length=60)
    band: str = Field(max_length=4)
    channel: int
    busy: float = Field(ge=0, le=1)
    noise_dbm: float
    clients: int = Field(ge=0)


class Measured(_Said):
    clients: list[Client] = Field(max_length=20_000)
    air: list[Air] = Field(max_length=6_000)


class ScanAsked(_Said):
    """Devices that are to listen to the neighbourhood, in so many seconds; clients are off meanwhile."""

    serials: list[str] = Field(min_length=1, max_length=2_000)
    in_s: float = Field(0.0, ge=0, le=1_000_000)


class Stranger(_Said):
    """A radio of somebody else's as one device heard it; ``name`` is empty where it tells none."""

    serial: str = Field(max_length=60)
    bssid: str = Field(max_length=40)
    name: str = Field("", max_length=100)
    band: Literal["2.4", "5", "6"]
    channel: int = Field(ge=1, le=233)
    width_mhz: int = Field(ge=5, le=320)
    dbm: float = Field(ge=-120, le=0)


class Scan(_Said):
    """The scan that waits or is under way, by the controller's own clock; else what the last one heard."""

    state: Literal["none", "waits", "under_way", "over"]
    takes_s: float = Field(ge=0, description="how long one takes")
    serials: list[str] = Field([], max_length=2_000, description="of those that listen or did")
    begins_s: float | None = None
    ends_s: float | None = None
    heard: list[Stranger] = Field([], max_length=50_000)


class Backup(_Said):
    """Everything that a controller holds, as it wants to have it back."""

    text: str = Field(max_length=5_000_000)


class Blink(_Said):
    on: bool
