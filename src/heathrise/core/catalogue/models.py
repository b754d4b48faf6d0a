"""The shapes of catalogue entries. Levels in dBm, gains in dBi, power in W, prices without tax."""

from __future__ import annotations

from functools import cached_property
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from ..base.bands import BANDS, Band
from ..base.mounts import Mount
from ..design import Jacket, Purpose
from .poe_classes import poe_rank
from .rules import Rules

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


class Construction(Entry):
    """A wall, door, window, slab or roof: loss in dB at square incidence for each band.

    ``studs`` says that a frame is screwed into studs behind it, not into the wall itself.
    """

    kind: Literal["wall", "door", "window", "gap", "slab", "roof"]
    loss_db: dict[Band, Positive]
    masonry: bool = False
    wet: bool = False
    studs: bool = False
    shields: bool = False


def calibrated(listed: dict[str, Construction], rules: Rules) -> dict[str, Construction]:
    """Return what constructions take by the scales and corrections that hold; the same dict where
    nothing was measured."""
    scales = {
        kind: rules["signal.floor_scale" if kind in ("slab", "roof") else "signal.wall_scale"]
        for kind in ("wall", "door", "window", "gap", "slab", "roof")
    }
    more = rules.table("signal.correction_db")
    if set(scales.values()) == {1.0} and not any(more.values()):
        return listed
    return {
        key: one.model_copy(
            update={
                "loss_db": {
                    band: max(0.0, round(scales[one.kind] * loss + more.get(key, 0.0), 3))
                    for band, loss in one.loss_db.items()
                }
            }
        )
        for key, one in listed.items()
    }


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
    packs: dict[str, Positive] = {}
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

    @property
    def takes_splitter(self) -> bool:
        """Whether a splitter can feed it: it has a plug-in supply, and no power over its cable."""
        return self.power is None and self.dc_v > 0 and self.own_w > 0

    @property
    def over_air(self) -> bool:
        """Whether its link is the air: no cable goes to it."""
        return self.old is not None and self.old.repeats


class ClientModel(Entry):
    """A kind of client: conducted power in dBm for each band it can, gain in dBi, Mb/s needed in
    the busy hour, how much a wire is wished, and what its user feels first."""

    power_dbm: dict[Band, float]
    gain_dbi: float = 0.0
    down_mbps: Positive = 0.0
    up_mbps: Positive = 0.0
    wire: Literal["no", "at_desk", "wished", "always"] = "no"
    feels: str = ""

    @property
    def judges(self) -> bool:
        """Whether a whole site can be judged by it: it can all bands."""
        return len(self.power_dbm) == len(BANDS)


class SwitchModel(Entry, Racked):
    """A switch. ``budget_w`` is what its supply has for all powered ports together."""

    groups: tuple[PortGroup, ...]
    budget_w: Positive = 0.0
    allocates: Literal["class", "negotiated"] = "class"
    managed: bool = True
    price: Positive
    old: OldGear | None = None

    @property
    def copper_ports(self) -> int:
        return sum(g.count for g in self.groups if not g.cage)

    @property
    def powered_ports(self) -> int:
        return sum(g.count for g in self.groups if g.poe_class is not None)


class InjectorModel(Entry, Racked):
    """A power source for one cable, with its own supply; one with ``passive_v`` asks nobody before it
    feeds, so that its class means nothing."""

    poe_class: Annotated[int, Field(ge=0, le=8)] = 0
    passive_v: Literal[24, 48] | None = None
    speed_mbps: int
    price: Positive

    def does(self, poe_class: int, speed_mbps: float) -> bool:
        """Whether it feeds a class at a speed."""
        return (
            self.passive_v is None
            and poe_rank(self.poe_class) >= poe_rank(poe_class)
            and self.speed_mbps >= speed_mbps
        )


class ExtenderModel(Entry):
    """What begins a cable's hundred metres anew: fed by a port of ``in_class`` at most, it takes
    ``own_w`` and gives on what is left, up to ``gives_class``."""

    speed_mbps: int
    in_class: Annotated[int, Field(ge=0, le=8)]
    gives_class: Annotated[int, Field(ge=0, le=8)]
    own_w: Positive
    outdoor: bool = False
    price: Positive


class SplitterModel(Entry):
    """What takes power off the end of a cable and gives it on at ``gives_v`` volts, up to ``gives_w``, to
    a device that has no power over its cable; ``own_w`` it keeps."""

    poe_class: Annotated[int, Field(ge=0, le=8)]
    gives_v: Positive
    gives_w: Positive
    own_w: Positive
    speed_mbps: int
    price: Positive


class FrameModel(Entry):
    """A rack's frame: ``deep_mm`` is the deepest that fits in it, ``bears_kg`` what it carries;
    one for the ``wall`` has two rows of holes ``holes_mm`` apart and is screwed to it."""

    units: Annotated[int, Field(ge=1, le=60)]
    wall: bool
    wide_mm: Positive = 600.0
    deep_mm: Positive
    kg: Positive
    bears_kg: Positive
    holes_mm: Positive = 0.0
    price: Positive


class BatteryModel(Entry, Racked):
    """A battery with its inverter: ``va`` and ``watts`` are what it can give at once, ``wh`` what
    it holds when new."""

    va: Positive
    watts: Positive
    wh: Positive
    price: Positive


class Sheathed(BaseModel):
    """What a box and a reel of a cable cost under one jacket."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    box_price: Positive
    reel_price: Positive


JACKETS: dict[Jacket, str] = {
    "indoor": "",
    "riser": ", riser",
    "plenum": ", plenum",
    "outdoor": ", for outdoors",
    "ground": ", for the ground",
}


class CableModel(Entry):
    """A category of cable as it is bought: in boxes, or on reels for what is longer than a box."""

    box_m: Positive
    reel_m: Positive
    diameter_mm: Positive
    jackets: dict[Jacket, Sheathed]

    @property
    def box_price(self) -> float:
        """Price of a box for indoors."""
        return self.jackets["indoor"].box_price

    def item(self, jacket: Jacket = "indoor", reel: bool = False) -> str:
        """Return the id under which a box or a reel of it is ordered."""
        parts = [f"cable-{self.id.lower()}", jacket if jacket != "indoor" else "", "reel" * reel]
        return "-".join(p for p in parts if p)


class FibreModel(Entry):
    """A kind of fibre cable by its jacket, with what the optic at each end of a link costs."""

    strands: Annotated[int, Field(ge=12, le=288)]

    price_per_m: Positive
    riser_price_per_m: Positive
    plenum_price_per_m: Positive
    outside_price_per_m: Positive
    optic_price: Positive
    diameter_mm: Positive

    def item(self, jacket: Jacket = "indoor") -> str:
        """Return the id under which a metre of it is ordered; one jacket serves outdoors and the ground."""
        by = {
            "indoor": "",
            "riser": "-riser",
            "plenum": "-plenum",
            "outdoor": "-outside",
            "ground": "-outside",
        }
        return f"fibre-{self.id}{by[jacket]}"


class PartModel(Entry, Racked):
    """A small part, by the piece or the metre; ``mounts`` are those that a bracket is for, ``kg``
    what it weighs where that counts for lifting."""

    unit: Literal["piece", "m"]
    price: Positive
    mounts: tuple[Mount, ...] = ()
    kg: Positive = 0.0


class LabelSheet(Entry):
    """A sheet of labels: its page, columns and rows, and where each label lies, in mm."""

    page: Literal["A4", "letter"]
    columns: Annotated[int, Field(ge=1, le=20)]
    rows: Annotated[int, Field(ge=1, le=60)]
    wide_mm: Positive
    high_mm: Positive
    left_mm: Positive
    top_mm: Positive
    step_x_mm: Positive
    step_y_mm: Positive


class UsualNetwork(BaseModel):
    """One of the networks that a kind of site usually has; without bands it has no name on air."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    name: str
    purpose: Purpose
    clients: int
    bands: tuple[Band, ...] = ()


class Forgotten(BaseModel):
    """How something often forgotten is known to have been thought of: by words in the names of
    rooms, or by kinds of client."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    words: tuple[str, ...] = ()
    clients: tuple[str, ...] = ()


class SiteKindModel(Entry):
    """What a kind of site brings along: hours, and the uses of rooms by words in their names."""

    quiet_hour: str
    opens: str
    closes: str
    calls: tuple[str, ...]
    everyday: tuple[str, ...]
    sensors: tuple[str, ...]
    forgotten: dict[str, Forgotten]
