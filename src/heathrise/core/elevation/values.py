"""What is said of a rack as a thing: what is in it and where, cords, heat, sound, battery, fixing."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from ..base.frozen import Frozen

ThingKind = Literal[
    "panel",
    "switch",
    "router",
    "modem",
    "recorder",
    "storage",
    "converter",
    "splice",
    "injector",
    "shelf",
    "strip",
    "battery",
]


class Thing(Frozen):
    """A thing in a rack. ``unit`` is the lowest it takes, from below, 0 where it found no place; what
    has no ears stands ``on`` a shelf. Watts as rated, heat without what its ports carry away."""

    KEY: ClassVar = ("room", "thing")

    room: str
    thing: str = Field(description="what it is called by, such as switch:sw-1")
    kind: ThingKind
    element: str = Field("", description="id of the element it stands for")
    name: str
    label: str
    item: str = Field("", description="id in the catalogue, none for what is the client's")
    units: int
    unit: int = 0
    by: Literal["plan", "person"] = "plan"
    on: str = Field("", description="shelf that it stands on")
    wide_mm: float
    deep_mm: float
    kg: float
    watts: float = Field(description="taken from the mains")
    carried_w: float = Field(0.0, description="of those, carried away to devices")
    noise_db: float = 0.0
    most_c: float | None = None
    ports: int = Field(0, description="ports on its face")
    old: bool = Field(False, description="whether it was there before")

    @property
    def heat_w(self) -> float:
        return round(self.watts - self.carried_w, 2)


class Cord(Frozen):
    """A cord in a rack, from one thing's port to another's; port 0 where it has no numbers."""

    KEY: ClassVar = ("room", "from_thing", "from_port", "to_thing", "to_port")

    room: str
    from_thing: str
    from_port: int
    to_thing: str
    to_port: int
    link: str = Field("", description="link whose cable it goes on to")
    name: str
    reach_m: float = Field(description="way between the two ports, m")
    item: str
    length_m: float
    colour: str


class Closet(Frozen):
    """Air about a rack. ``area_m2`` is what walls and ceiling of its room have together."""

    space: str | None
    name: str
    room_c: float
    area_m2: float
    closed_c: float = Field(description="with its door shut and no air moved")
    vented_c: float | None = Field(None, description="with the air that is moved now")
    vent_m3h: float = 0.0
    wanted_m3h: float = Field(0.0, description="air to be moved so that it stays under the warning")
    limit_c: float
    limit_of: str = Field(description="the thing whose sheet sets the limit")
    verdict: Literal["met", "near", "not_met"]

    @property
    def now_c(self) -> float:
        """The air as things stand: vented where air is moved, else closed."""
        return self.vented_c if self.vented_c is not None else self.closed_c


class Shed(Frozen):
    """What goes dark at one step, in the order of shedding, and how long the rest then lasts."""

    name: str
    watts: float
    left_w: float
    minutes: float


class Battery(Frozen):
    """A battery under a rack's whole load. Minutes as new, and after the years it is judged at."""

    item: str
    label: str
    load_w: float
    load_va: float
    load_share: float = Field(description="of its rating in watts or volt-amperes, whichever is more")
    minutes: float
    minutes_old: float
    years: int
    verdict: Literal["met", "near", "not_met"]
    sheds: tuple[Shed, ...] = ()


class Fixing(Frozen):
    """How a frame is held: into what, whether a board backs it, with how many fixings."""

    into: Literal["studs", "masonry", "floor", "unknown"]
    wall: str | None = None
    stud_m: float | None = None
    measured: bool = False
    holes_mm: float = 0.0
    board: bool = False
    fixings: int
    bears_kg: float
    reason: str


class Elevation(Frozen):
    """One rack as it is built."""

    KEY: ClassVar = ("room",)

    room: str
    name: str
    frame: str
    label: str
    units: int
    wall: bool
    wide_mm: float
    deep_mm: float
    bears_kg: float
    chosen_by: Literal["plan", "person"]
    fits: bool
    fresh: bool = Field(description="whether it is bought")
    used_units: int
    blanks: tuple[int, ...] = Field((), description="units with a blank over a fan")
    spare_units: int
    later_units: int = Field(0, description="units kept for what comes later")
    kg: float = Field(description="with its frame")
    watts: float
    carried_w: float
    heat_w: float
    noise_db: float
    strips: int
    proven: bool = Field(description="whether no arrangement is better by its own measure")
    closet: Closet
    battery: Battery | None = None
    fixing: Fixing


class RackChapter(Frozen):
    """Every rack as a thing, with what is in it, cord by cord."""

    racks: tuple[Elevation, ...] = ()
    things: tuple[Thing, ...] = ()
    cords: tuple[Cord, ...] = ()

    def of(self, room: str) -> Elevation | None:
        return next((r for r in self.racks if r.room == room), None)

    def things_of(self, room: str) -> list[Thing]:
        return [t for t in self.things if t.room == room]
