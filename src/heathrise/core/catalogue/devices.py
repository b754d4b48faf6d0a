"""What stands at the end of a cable: its power, its air, its ports, its lens; and what feeds it there."""

from __future__ import annotations

from functools import cached_property
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from ..base.bands import Band
from ..base.mounts import Mount
from .entries import Entry, Positive, Racked


class PowerDemand(BaseModel):
    """What a powered device asks of its port (IEEE 802.3 class) and draws, in watts."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    poe_class: Annotated[int, Field(ge=0, le=8)]
    rated_w: Positive
    typical_w: Positive


class RadioModel(BaseModel):
    """One band of an access point: conducted power range in dBm and its steps."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    gain_dbi: float
    min_power_dbm: float
    max_power_dbm: float
    step_db: Annotated[float, Field(gt=0)] = 1.0


class PortGroup(BaseModel):
    """Ports of one sort on a switch. ``poe_class`` is the highest class fed, None for no power."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    count: Annotated[int, Field(ge=1)]
    speed_mbps: int
    poe_class: Annotated[int, Field(ge=0, le=8)] | None = None
    cage: bool = False


class AirModel(BaseModel):
    """What gives a device air of its own: its generation, its antenna and its radios."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    generation: Literal["4", "5", "6", "6E", "7"]
    pattern: Literal["dome", "omni", "panel"]
    radios: dict[Band, RadioModel]


class LensView(BaseModel):
    """What a camera's picture holds: pixels and degrees across, degrees from top to bottom."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    pixels: Annotated[int, Field(ge=160, le=30_000)]
    across_deg: Annotated[float, Field(gt=1, lt=180)]
    up_deg: Annotated[float, Field(gt=1, lt=180)]


class Stream(BaseModel):
    """What a camera sends to its recorder, Mb/s: noise makes it more by night."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    day_mbps: Positive
    night_mbps: Positive


class ReducedMode(BaseModel):
    """What a device does on fewer watts than it asks for, as its sheet says: what it asks for then, the
    speed of its port where that is slower, by how many dB its radios are weaker, which bands it does
    ``without``, the cold it then bears, C, and the rest in words.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    power: PowerDemand
    speed_mbps: int | None = None
    less_db: dict[Band, Positive] = {}
    without: tuple[Band, ...] = ()
    least_c: float | None = None
    words: str = ""

    @property
    def said(self) -> str:
        """What is missing then, in words."""
        less = [f"{db:g} dB less at {band} GHz" for band, db in self.less_db.items()]
        return "; ".join(
            [*less, *(f"no {band} GHz" for band in self.without), *([self.words] if self.words else [])]
        )


class OldGear(BaseModel):
    """What is known of gear that is met and never bought: its security, whether it is looked
    after, whether it repeats over the air, and the passive feed that it wants, V and W: such a feed is
    negotiated by nobody."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    security: Literal["none", "broken", "wpa2", "wpa3"]
    updates: bool
    repeats: bool = False
    passive_v: Literal[24, 48] | None = None
    passive_w: Positive = 0.0


class SplitterModel(Entry):
    """What takes power off the end of a cable and gives it on at ``gives_v`` volts, up to ``gives_w``, to
    a device that has no power over its cable; ``own_w`` it keeps."""

    poe_class: Annotated[int, Field(ge=0, le=8)]
    gives_v: Positive
    gives_w: Positive
    own_w: Positive
    speed_mbps: int
    price: Positive


class DeviceModel(Entry, Racked):
    """Anything at the far end of a run, of whatever kind, by what it asks for and gives.

    ``power`` is what it asks of its port, ``air`` what it gives clients, ``ports`` what others can
    be plugged into; ``mounts`` are those it has, none for as one likes; ``least_c`` to ``most_c``
    is the air it is made for, in C, where its sheet says so; ``inspect_mbps`` what a router passes
    with inspection on, 0 where the sheet says nothing; ``records`` the cameras that a recorder takes;
    ``reduced`` how it runs where its port gives less than it asks for; ``view`` what its lens sees,
    ``stream`` what it sends; ``bays`` the disks that a store takes;
    ``dc_v`` the volts that its plug-in supply gives it, where it has one.
    """

    speed_mbps: int
    price: Positive
    power: PowerDemand | None = None
    air: AirModel | None = None
    ports: tuple[PortGroup, ...] = ()
    sockets: Annotated[int, Field(ge=1)] = 1
    mounts: tuple[Mount, ...] = ()
    outdoor: bool = False
    least_c: float | None = None
    inspect_mbps: Annotated[int, Field(ge=0)] = 0
    records: Annotated[int, Field(ge=0)] = 0
    old: OldGear | None = None
    packs: dict[str, Positive] = Field(default_factory=dict)
    reduced: ReducedMode | None = None
    view: LensView | None = None
    stream: Stream | None = None
    bays: Annotated[int, Field(ge=0, le=48)] = 0
    dc_v: Positive = 0.0

    @cached_property
    def on_less(self) -> DeviceModel:
        """The device in the reduced mode of its sheet; itself where that has none."""
        mode = self.reduced
        if mode is None:
            return self
        air = self.air
        if air is not None:
            radios = {
                band: radio.model_copy(
                    update={
                        "max_power_dbm": max(
                            radio.min_power_dbm, radio.max_power_dbm - mode.less_db.get(band, 0.0)
                        )
                    }
                )
                for band, radio in air.radios.items()
                if band not in mode.without
            }
            air = air.model_copy(update={"radios": radios})
        speed = self.speed_mbps if mode.speed_mbps is None else mode.speed_mbps
        cold = self.least_c if mode.least_c is None else mode.least_c
        less = {"power": mode.power, "air": air, "speed_mbps": speed, "least_c": cold}
        return self.model_copy(update=less)

    def behind(self, splitter: SplitterModel) -> DeviceModel:
        """Return the device as a splitter at its cable's end feeds it: no plug, a class at its port."""
        watts = round(self.own_w + splitter.own_w, 2)
        power = PowerDemand(poe_class=splitter.poe_class, rated_w=watts, typical_w=watts)
        speed = min(self.speed_mbps, splitter.speed_mbps)
        return self.model_copy(update={"power": power, "own_w": 0.0, "speed_mbps": speed})

    def bears(self, cold_c: float, hot_c: float) -> bool:
        """Whether its sheet says nothing against air from so cold to so hot."""
        return (self.least_c is None or self.least_c <= cold_c) and (
            self.most_c is None or hot_c <= self.most_c
        )

    @property
    def takes_splitter(self) -> bool:
        """Whether a splitter can feed it: it has a plug-in supply, and no power over its cable."""
        return self.power is None and self.dc_v > 0 and self.own_w > 0

    @property
    def over_air(self) -> bool:
        """Whether its link is the air: no cable goes to it."""
        return self.old is not None and self.old.repeats
