"""Places on the land that are to be reached: what they ask for, what lies between, trees that grow there."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, field_validator, model_validator

from .values import Element, Height, Name, Outline, PanelRef, Point, RoomRef

FarKind = Literal["outbuilding", "gate", "pond", "field", "car_park", "tower"]
FarPower = Literal["none", "socket", "own_supply"]
LandKind = Literal["lawn", "paving", "drive", "water", "trees"]

_Along = Annotated[float, Field(ge=0, le=10_000, allow_inf_nan=False)]
_Rise = Annotated[float, Field(ge=-500, le=500, allow_inf_nan=False)]
Mast = Annotated[float, Field(ge=0, le=60, allow_inf_nan=False)]
_Growth = Annotated[float, Field(ge=0, le=5, allow_inf_nan=False)]
_CellLevel = Annotated[float, Field(ge=-150, le=-30, allow_inf_nan=False)]
_CellQuality = Annotated[float, Field(ge=-30, le=40, allow_inf_nan=False)]
_Trees = tuple[_Along, _Along, Mast, _Growth | None]
MOST_PROFILE, MOST_TREES = 2_000, 200


class FarPoint(Element):
    """A place beyond the buildings that is to be reached.

    ``ground_m`` is how high it lies above the site's zero. It is fed from a rack, the nearest where none is
    said; ``mast_m`` and ``room_mast_m`` are antennas over the ground at either end. ``profile`` holds heights
    of the ground at metres from the rack on, ``trees`` what stands there: from, to, how high it is now and
    what it grows in a year, None as trees do. ``mbps`` and ``delay_ms`` come before what is counted.
    ``way`` is how somebody chose to reach it: the medium and what feeds it there. ``cell_dbm`` and
    ``cell_db`` are level and quality of a cellular network as measured there, None where nobody did. With an
    ``injector`` at the rack what is fed over the cable takes a port that need not feed. ``panel`` is the one
    that its socket hangs on, None where nobody told.
    """

    name: Name
    what: FarKind = "outbuilding"
    at: Point
    ground_m: Height = 0.0
    mast_m: Mast = 3.0
    room: RoomRef | None = None
    room_mast_m: Mast = 4.0
    clients: Annotated[int, Field(ge=0, le=5_000)] = 0
    cameras: Annotated[int, Field(ge=0, le=200)] = 0
    doors: Annotated[int, Field(ge=0, le=200)] = 0
    sensors: Annotated[int, Field(ge=0, le=5_000)] = 0
    mbps: Annotated[float, Field(gt=0, le=100_000)] | None = None
    delay_ms: Annotated[float, Field(gt=0, le=10_000)] | None = None
    years: Annotated[int, Field(ge=1, le=40)] = 10
    power: FarPower = "none"
    land: LandKind = "lawn"
    services_known: bool = False
    way: Annotated[str, Field(max_length=40, pattern=r"^([a-z0-9_]+-(mains|cable|solar))?$")] = ""
    cell_dbm: _CellLevel | None = None
    cell_db: _CellQuality | None = None
    injector: bool = False
    panel: PanelRef | None = None
    profile: Annotated[tuple[tuple[_Along, _Rise], ...], Field(max_length=MOST_PROFILE)] = ()
    trees: Annotated[tuple[_Trees, ...], Field(max_length=MOST_TREES)] = ()

    @field_validator("trees")
    @classmethod
    def _stretch(cls, trees: tuple[_Trees, ...]) -> tuple[_Trees, ...]:
        if any(end <= start for start, end, *_ in trees):
            raise ValueError("trees stand from one distance to a larger one")
        return trees


class Grove(Element):
    """Trees or a hedge as seen from above. Over the ground that they stand on, ``height_m`` is how high they
    are now, ``clear_m`` where their lowest leaves hang; ``grows_m`` is what they grow in a year, None as
    trees do."""

    name: Name
    outline: Outline
    height_m: Annotated[float, Field(gt=0, le=60, allow_inf_nan=False)] = 8.0
    clear_m: Mast = 0.0
    grows_m: _Growth | None = None

    @model_validator(mode="after")
    def _leaves(self) -> Self:
        if self.clear_m >= self.height_m:
            raise ValueError("the lowest leaves hang below the tops; lower them, or raise the tops")
        return self
