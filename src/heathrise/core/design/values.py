"""Value types that the elements of a design are made of.

Lengths are metres on one site-wide grid (x east, y north), heights metres above the floor
the element stands on, angles degrees clockwise from north.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

SITE_LIMIT_M = 10_000.0

ElementId = Annotated[str, StringConstraints(pattern=r"^[a-z0-9][a-z0-9_-]*$", min_length=1, max_length=40)]
Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
ModelId = Annotated[str, StringConstraints(pattern=r"^[a-z0-9][a-z0-9_.-]*$", max_length=60)]
Metres = Annotated[float, Field(ge=-SITE_LIMIT_M, le=SITE_LIMIT_M, allow_inf_nan=False)]
Height = Annotated[float, Field(ge=-50, le=200, allow_inf_nan=False)]
Span = Annotated[float, Field(gt=0, le=SITE_LIMIT_M, allow_inf_nan=False)]
Degrees = Annotated[float, Field(ge=-360, le=360, allow_inf_nan=False)]
Point = tuple[Metres, Metres]
Spot = tuple[float, float]  # a place worked out, which may lie a little beyond what may be drawn
Outline = Annotated[tuple[Point, ...], Field(min_length=3, max_length=500)]
Polyline = Annotated[tuple[Point, ...], Field(min_length=2, max_length=500)]

SiteKind = Literal["home", "school", "clinic", "shop", "workshop", "office", "guest_house"]
Share = Annotated[float, Field(ge=0, le=1)]
Units = Literal["metric", "imperial"]
Day = Annotated[str, Field(pattern=r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$")]
Weekday = Literal["monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday"]
Clock = Annotated[str, Field(pattern=r"^([01]\d|2[0-3]):[0-5]\d$")]
Words = Annotated[str, Field(max_length=400)]
Short = Annotated[str, Field(max_length=120)]
HouseRule = Literal["no_drilling", "listed", "landlord", "no_visible_cable", "quiet_hours"]
LineKind = Literal["fibre", "coax", "dsl", "radio", "mobile", "leased"]
LineAddress = Literal["automatic", "pppoe", "fixed"]
ComplaintKind = Literal["dead", "slow", "drops", "lags", "full_bars", "clings", "one_device", "heap"]
# What becomes of a thing: it is bought, or it was there and stays, goes, or is undecided.
Redundancy = Literal["none", "mirror", "single", "double"]
State = Literal["new", "keep", "retire", "unknown"]
ChannelsBy = Literal["plan", "controller"]
MountFirst = Literal["ceiling", "wall"]
BackHaul = Literal["wired", "mesh"]
ZoneKind = Literal["later", "no_drilling"]
CableState = Literal["good", "damaged", "untested"]
Domain = Literal["americas", "europe"]
LineSpeed = Annotated[float, Field(gt=0, le=100_000)]
Category = Literal["5", "5e", "6", "6A"]
Medium = Literal["copper", "fibre"]
# What a cable is sheathed for: rooms, shafts from storey to storey, voids that air is moved through,
# weather and sun, or the ground.
Jacket = Literal["indoor", "riser", "plenum", "outdoor", "ground"]
# How a duct gets into the ground; "there" lies in it already.
Carries = Literal["electricity", "gas", "water", "drain", "telecom", "heating", "unknown"]
Dug = Literal["loam", "clay", "stony", "machine", "plough", "paving", "drive", "there"]
Use = Literal["calls", "everyday", "sensors", "none"]
DeviceKind = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z_]*$", max_length=40)]
Overhead = Literal["ceiling_void", "attic", "joists", "raceway", "plenum"]
Purpose = Literal[
    "main", "staff", "pupils", "tills", "guest", "devices", "cameras", "management", "administrators"
]
Security = Literal["wpa3", "wpa3_wpa2", "wpa2", "enterprise", "open_portal"]
# How one comes past the page that a network shows first: by agreeing, by saying who one is, by a code.
PortalWay = Literal["agree", "register", "voucher"]
AskedOf = Literal["name", "room", "email", "phone"]
KEYED: frozenset[Security] = frozenset({"wpa3", "wpa3_wpa2", "wpa2"})  # who joins is asked for a key


@dataclass(frozen=True)
class Reference:
    """Marks a field that holds the id of another element; read by integrity and by the store."""

    kind: str


class Element(BaseModel):
    """What every element has: a frozen record with an id that is unique within its kind."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True, allow_inf_nan=False)

    # References that may be empty, and without which it is nothing where they are not.
    NEEDS: ClassVar[tuple[str, ...]] = ()
    LINES: ClassVar[tuple[str, ...]] = ()  # texts that may have several lines

    id: ElementId


BuildingRef = Annotated[ElementId, Reference("building")]
FloorRef = Annotated[ElementId, Reference("floor")]
SpaceRef = Annotated[ElementId, Reference("space")]
WallRef = Annotated[ElementId, Reference("wall")]
DeviceRef = Annotated[ElementId, Reference("device")]
RoomRef = Annotated[ElementId, Reference("equipment_room")]
SwitchRef = Annotated[ElementId, Reference("switch")]
NetworkRef = Annotated[ElementId, Reference("network")]
PanelRef = Annotated[ElementId, Reference("panel")]
PortalRef = Annotated[ElementId, Reference("portal")]
