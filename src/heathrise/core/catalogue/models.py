"""The shapes of catalogue entries. Levels in dBm, gains in dBi, power in W, prices without tax."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from ..base.bands import BANDS, Band
from ..base.mounts import Mount
from ..design import Jacket, PortalWay, Purpose, Weekday
from .devices import OldGear, PortGroup
from .entries import Entry, Positive, Racked
from .poe_classes import poe_rank
from .rules import Rules


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


class ClientModel(Entry):
    """A kind of client: conducted power in dBm for each band it can, gain in dBi, Mb/s needed in
    the busy hour, how much a wire is wished, what its user feels first, and the purpose of the network
    that it belongs to on a wire."""

    power_dbm: dict[Band, float]
    gain_dbi: float = 0.0
    down_mbps: Positive = 0.0
    up_mbps: Positive = 0.0
    wire: Literal["no", "at_desk", "wished", "always"] = "no"
    feels: str = ""
    network: Purpose = "main"
    page: bool = False  # whether one can read a page on it, and press what is asked there

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


class ConverterModel(Entry, Racked):
    """What light and copper are joined by: a cage and a port of one speed, with a supply of its own; one
    with ``gives_class`` feeds what hangs on its port."""

    speed_mbps: int
    gives_class: Annotated[int, Field(ge=0, le=8)] | None = None
    price: Positive


class ExtenderModel(Entry):
    """What begins a cable's hundred metres anew: fed by a port of ``in_class`` at most, it takes
    ``own_w`` and gives on what is left, up to ``gives_class``."""

    speed_mbps: int
    in_class: Annotated[int, Field(ge=0, le=8)]
    gives_class: Annotated[int, Field(ge=0, le=8)]
    own_w: Positive
    outdoor: bool = False
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


class UsualVouchers(BaseModel):
    """The vouchers that a kind of site usually has."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    name: str
    number: int
    rooms: bool = False
    hours: int
    devices: int


class UsualGuests(BaseModel):
    """How guests of a kind of site usually come past the page that they meet first; ``open`` where their
    name on the air asks for no key."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    way: PortalWay
    session_h: int
    open: bool = False
    vouchers: UsualVouchers | None = None


class Forgotten(BaseModel):
    """How something often forgotten is known to have been thought of: by words in the names of
    rooms, or by kinds of client."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    words: tuple[str, ...] = ()
    clients: tuple[str, ...] = ()


class SiteKindModel(Entry):
    """What a kind of site brings along: hours, and the uses of rooms by words in their names,
    rooms that guests live in, the page that guests meet."""

    quiet_hour: str
    opens: str
    closes: str
    calls: tuple[str, ...]
    everyday: tuple[str, ...]
    sensors: tuple[str, ...]
    networks: dict[Purpose, tuple[str, ...]] = Field(default_factory=dict)
    quiet_day: Weekday | None = None
    guest_rooms: tuple[str, ...] = ()
    guests: UsualGuests
    forgotten: dict[str, Forgotten]
