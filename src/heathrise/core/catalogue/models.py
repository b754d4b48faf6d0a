"""The shapes of catalogue entries. Levels in dBm, gains in dBi, power in W, prices without tax."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from ..bands import Band
from .rules import Rules

Positive = Annotated[float, Field(ge=0, allow_inf_nan=False)]


class Entry(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")

    id: str
    label: str


class Construction(Entry):
    """A wall, door, window, slab or roof: loss in dB at square incidence for each band."""

    kind: Literal["wall", "door", "window", "gap", "slab", "roof"]
    loss_db: dict[Band, Positive]
    masonry: bool = False
    shields: bool = False


class PowerDemand(BaseModel):
    """What a powered device asks of its port (IEEE 802.3 class) and draws, in watts."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    poe_class: Annotated[int, Field(ge=0, le=8)]
    rated_w: Positive
    typical_w: Positive


class RadioModel(BaseModel):
    """One band of an access point: conducted power range in dBm and its steps."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    gain_dbi: float
    min_power_dbm: float
    max_power_dbm: float
    step_db: Annotated[float, Field(gt=0)] = 1.0


class WiredModel(Entry):
    """Anything at the far end of a run."""

    speed_mbps: int
    price: Positive
    power: PowerDemand | None = None


class AccessPointModel(WiredModel):
    generation: Literal["4", "5", "6", "6E", "7"]
    pattern: Literal["dome", "omni", "panel"]
    mounts: tuple[Literal["ceiling", "wall", "desk", "pole"], ...]
    radios: dict[Band, RadioModel]
    outdoor: bool = False


class CameraModel(WiredModel):
    outdoor: bool = False


class OutletModel(WiredModel):
    sockets: int = 2


class ClientModel(Entry):
    """A client's transmitter: conducted power in dBm for each band, gain in dBi."""

    power_dbm: dict[Band, float]
    gain_dbi: float = 0.0


class PortGroup(BaseModel):
    """Ports of one sort on a switch. ``poe_class`` is the highest class fed, None for no power."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    count: Annotated[int, Field(ge=1)]
    speed_mbps: int
    poe_class: Annotated[int, Field(ge=0, le=8)] | None = None
    cage: bool = False


class SwitchModel(Entry):
    groups: tuple[PortGroup, ...]
    budget_w: Positive = 0.0
    allocates: Literal["class", "negotiated"] = "class"
    managed: bool = True
    price: Positive

    @property
    def copper_ports(self) -> int:
        return sum(g.count for g in self.groups if not g.cage)

    @property
    def powered_ports(self) -> int:
        return sum(g.count for g in self.groups if g.poe_class is not None)


class InjectorModel(Entry):
    poe_class: Annotated[int, Field(ge=0, le=8)]
    speed_mbps: int
    price: Positive


class CableModel(Entry):
    """A category of cable as it is bought."""

    box_m: Positive
    box_price: Positive
    diameter_mm: Positive


class Catalogue(BaseModel):
    """All entries by id, and the figures of the trade."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    constructions: dict[str, Construction]
    access_points: dict[str, AccessPointModel]
    cameras: dict[str, CameraModel]
    outlets: dict[str, OutletModel]
    clients: dict[str, ClientModel]
    switches: dict[str, SwitchModel]
    injectors: dict[str, InjectorModel]
    cables: dict[str, CableModel]
    rules: Rules

    def ruled_by(self, rules: Rules) -> Catalogue:
        """Return the same gear under other figures."""
        return self.model_copy(update={"rules": rules})

    def devices_of(self, kind: str) -> Mapping[str, WiredModel]:
        """Return the models that a device of ``kind`` may be."""
        shelves: dict[str, Mapping[str, WiredModel]] = {
            "access_point": self.access_points,
            "camera": self.cameras,
            "outlet": self.outlets,
        }
        return shelves[kind]
