"""The kinds of element an installer decides on. Everything else is computed from these."""

from __future__ import annotations

import math
from typing import Annotated, Literal

from pydantic import Field, field_validator

from ..base.bands import Band
from ..base.mounts import Mount
from .values import (
    BackHaul,
    BuildingRef,
    Carries,
    Category,
    ChannelsBy,
    Clock,
    Day,
    Degrees,
    DeviceKind,
    DeviceRef,
    Domain,
    Dug,
    Element,
    FloorRef,
    Height,
    HouseRule,
    LineAddress,
    LineKind,
    LineSpeed,
    Medium,
    ModelId,
    MountFirst,
    Name,
    Outline,
    Overhead,
    Point,
    Polyline,
    Redundancy,
    RoomRef,
    Short,
    SiteKind,
    Span,
    State,
    SwitchRef,
    Units,
    Use,
    WallRef,
    Weekday,
)


class Site(Element):
    """The job as a whole; a design has exactly one, with the id ``site``."""

    kind: SiteKind = "office"
    client_name: Short = ""
    contact: Short = ""
    visited_on: Day | None = None
    start_on: Day | None = None
    due_on: Day | None = None
    budget: Annotated[float, Field(ge=0, le=1e9)] | None = None
    house_rules: Annotated[tuple[HouseRule, ...], Field(max_length=5)] = ()
    quiet_hour: Clock = "03:00"
    quiet_day: Weekday | None = None
    opens: Clock = "08:00"
    closes: Clock = "18:00"
    units: Units = "metric"
    domain: Domain = "europe"
    line_kind: LineKind = "fibre"
    line_mbps: LineSpeed = 500.0
    line_up_mbps: LineSpeed = 100.0
    line_address: LineAddress = "automatic"
    television: bool = False
    upstream_gear: Short = ""
    upstream_subnet: Annotated[str, Field(max_length=43)] = "192.168.1.0/24"
    client: ModelId = "phone"
    minimum_category: Category = "6"
    cables_per_access_point: Annotated[int, Field(ge=1, le=4)] = 2
    cords_m: Annotated[float, Field(ge=0, le=20)] = 5.0
    slack_device_m: Annotated[float, Field(ge=0, le=20)] = 3.0
    slack_rack_m: Annotated[float, Field(ge=0, le=20)] = 3.0
    power_headroom: Annotated[float, Field(ge=0, le=0.9)] = 0.2
    width_5ghz_mhz: Literal[20, 40, 80] = 40
    channels_149_up: bool = False
    radar_channels: bool = True
    four_channels_24: bool = False
    channels_by: ChannelsBy = "plan"
    asks_second: bool = True
    mount_first: MountFirst = "ceiling"
    back_haul: BackHaul = "wired"
    margin_db: Annotated[float, Field(ge=0, le=20)] = 3.0
    tight_bundles: bool = False
    currency: Annotated[str, Field(pattern=r"^[A-Z]{3}$")] = "EUR"

    @property
    def quiet_time(self) -> str:
        """When nobody works there: an hour, of one day of the week where one is said."""
        return f"{self.quiet_day.capitalize()} {self.quiet_hour}" if self.quiet_day else self.quiet_hour

    @field_validator("kind", mode="before")
    @classmethod
    def _former_kind(cls, value: object) -> object:
        """Files and databases of before knew no kinds of business."""
        return "office" if value == "business" else value


class Building(Element):
    """A building of the site; its storeys refer to it. ``built`` is the year it was built in."""

    name: Name
    roof: ModelId = "roof-tiles"
    built: Annotated[int, Field(ge=1000, le=2200)] | None = None


class Floor(Element):
    """A storey. ``elevation_m`` is its finished floor above the site's zero."""

    building: BuildingRef
    name: Name
    level: Annotated[int, Field(ge=-9, le=50)]
    elevation_m: Height = 0.0
    ceiling_height_m: Annotated[float, Field(gt=1.5, le=30)] = 2.7
    slab: ModelId = "floor-concrete"
    overhead: Overhead = "ceiling_void"


class Wall(Element):
    """A wall; ``rated`` says that it keeps fire back, so that every hole through it is stopped again."""

    floor: FloorRef
    a: Point
    b: Point
    construction: ModelId
    rated: bool = False

    @property
    def length_m(self) -> float:
        return math.dist(self.a, self.b)


class Opening(Element):
    """A door, window or gap; it stands ``offset_m`` from the wall's end ``a``."""

    wall: WallRef
    kind: Literal["door", "window", "gap"]
    offset_m: Annotated[float, Field(ge=0, le=10_000)]
    width_m: Span
    construction: ModelId

    def ends_in(self, wall: Wall) -> tuple[Point, Point]:
        """Return where it begins and ends on the sheet, in the wall that it refers to."""
        ux, uy = ((wall.b[k] - wall.a[k]) / wall.length_m for k in (0, 1))
        low, high = self.offset_m, self.offset_m + self.width_m
        return (wall.a[0] + ux * low, wall.a[1] + uy * low), (wall.a[0] + ux * high, wall.a[1] + uy * high)


class Space(Element):
    """A named room or outdoor area with the use that its signal is judged by.

    One with ``stairs`` holds a flight that leads up to the storey above. ``water`` says whether
    water runs there, ``locks`` whether it is locked; unknown where nobody said.
    """

    floor: FloorRef
    name: Name
    use: Use = "everyday"
    outline: Outline
    overhead: Overhead | None = None
    ceiling_height_m: Annotated[float, Field(gt=1.5, le=30)] | None = None
    open_above: bool = False
    stairs: bool = False
    outdoor: bool = False
    water: bool | None = None
    locks: bool | None = None


class Riser(Element):
    """A way up and down through a building's floors, from one level to another."""

    building: BuildingRef
    name: Name
    at: Point
    lowest_level: Annotated[int, Field(ge=-9, le=50)]
    highest_level: Annotated[int, Field(ge=-9, le=50)]


class Duct(Element):
    """A duct in the ground from one floor to another, usually of another building; ``dug`` says in
    what ground and how, or that it lies there already."""

    name: Name
    from_floor: FloorRef
    to_floor: FloorRef
    path: Polyline
    depth_m: Annotated[float, Field(ge=0, le=5)] = 0.6
    dug: Dug = "loam"


class BuriedService(Element):
    """A pipe or cable of somebody's in the ground: ``found`` where it was located there, else it lies as a
    paper or a word has it. ``depth_m`` is None where nobody knows."""

    name: Name
    carries: Carries = "electricity"
    path: Polyline
    depth_m: Annotated[float, Field(ge=0, le=5)] | None = None
    found: bool = False


class EquipmentRoom(Element):
    """Where a rack stands and runs begin. The line comes in at the first, or where one says so.

    ``frame`` and ``battery`` are what somebody chose; without one the plan takes the frame that
    fits, and no battery. ``stud_m`` is the spacing measured behind it, ``vent_m3h`` the air that is
    moved through its closet.
    """

    floor: FloorRef
    name: Name
    at: Point
    rack_height_m: Annotated[float, Field(ge=0, le=3)] = 1.2
    frame: ModelId | None = None
    battery: ModelId | None = None
    stud_m: Annotated[float, Field(gt=0.05, le=3)] | None = None
    vent_m3h: Annotated[float, Field(ge=0, le=100_000)] = 0.0


class RackPlace(Element):
    """Where somebody put a thing of a rack: ``unit`` is the lowest it takes, counted from below.

    ``thing`` is what the rack's contents are called by, such as ``switch:sw-1`` or ``panel:2``.
    """

    equipment_room: RoomRef
    thing: Annotated[str, Field(pattern=r"^[a-z]+:[a-z0-9_-]{1,40}$")]
    unit: Annotated[int, Field(ge=1, le=60)]


class Device(Element):
    """Whatever stands at the far end of a run, with the pose its antenna or lens has.

    ``kind`` is one of the catalogue's roles. One that runs ``reduced`` asks for the fewer watts that its
    sheet names and does less. ``disks`` and their ``redundancy`` are what somebody chose for a store,
    ``splitter`` what feeds it off its cable.
    """

    floor: FloorRef
    kind: DeviceKind
    model: ModelId
    name: Name
    at: Point
    height_m: Height = 2.7
    mount: Mount = "ceiling"
    azimuth_deg: Degrees = 0.0
    tilt_deg: Degrees = 0.0
    state: State = "new"
    reduced: bool = False
    disks: Annotated[int, Field(ge=0, le=48)] | None = None
    redundancy: Redundancy | None = None
    splitter: ModelId | None = None


class Run(Element):
    """What the installer decided about a device's cable; without one the plan decides.

    One that is ``over_air`` is none: the device's link is the air. One ``through`` another device
    begins at a port that this gives on, such as a wall plate's, and not at a rack. One that is
    ``shortest`` takes the fewest metres there are, whatever its way costs to work. One whose ``medium`` is
    fibre ends in a converter at the device, which is plugged into the mains there.
    """

    device: DeviceRef
    category: Category | None = None
    cables: Annotated[int, Field(ge=1, le=4)] | None = None
    equipment_room: RoomRef | None = None
    over_air: bool = False
    through: DeviceRef | None = None
    shortest: bool = False
    medium: Medium | None = None


class WayPoint(Element):
    """A spot that a device's run goes by, because somebody said so; ``rank`` orders several from the rack
    on."""

    device: DeviceRef
    floor: FloorRef
    at: Point
    rank: Annotated[float, Field(ge=0, le=1000)] = 1.0


class Uplink(Element):
    """What the installer decided about a room's way up; without one it leads to the first room."""

    room: RoomRef
    to: RoomRef
    medium: Medium | None = None


class Switch(Element):
    equipment_room: RoomRef
    name: Name
    model: ModelId
    state: State = "new"


class PortPin(Element):
    """The port that somebody chose for a device's cable: it stays there whatever else is planned."""

    switch: SwitchRef
    port: Annotated[int, Field(ge=1, le=128)]
    device: DeviceRef
    cable: Annotated[int, Field(ge=1, le=4)] = 1


class WayPin(Element):
    """The port of a switch that somebody chose for its way to another, or to the line where ``to`` is
    the switch itself."""

    switch: SwitchRef
    port: Annotated[int, Field(ge=1, le=128)]
    to: SwitchRef

    @property
    def leads_to(self) -> str | None:
        """The other switch, None for the line."""
        return self.to if self.to != self.switch else None


class Injector(Element):
    """A single-port power source put in a device's run at the rack."""

    device: DeviceRef
    model: ModelId


class Extender(Element):
    """An extender in a device's run: it begins the hundred metres anew, fed over the cable it lies in.

    ``share`` is where along the run it stands, from the rack.
    """

    device: DeviceRef
    model: ModelId
    share: Annotated[float, Field(gt=0, lt=1)] = 0.5


class Neighbour(Element):
    """A radio of somebody else's as it was measured: where, on which channel, how loud."""

    floor: FloorRef
    name: Name
    at: Point
    band: Band
    channel: Annotated[int, Field(ge=1, le=233)]
    width_mhz: Literal[20, 40, 80, 160] = 20
    level_dbm: Annotated[float, Field(ge=-120, le=0)]


class OwnFigure(Element):
    """A figure of the trade that this project sees differently; ``figure`` is its path."""

    figure: Annotated[str, Field(min_length=3, max_length=100)]
    value: float | Annotated[str, Field(max_length=40)] | Annotated[tuple[float, ...], Field(max_length=80)]
