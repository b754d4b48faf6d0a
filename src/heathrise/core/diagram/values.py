"""What a diagram of a network is made of: what stands in it, what joins it, where each is placed."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..design import State

NodeKind = Literal["line", "router", "switch", "device", "recorder", "far", "loose"]
LinkKind = Literal["line", "cord", "copper", "fibre", "air", "none"]
Reading = Literal["cables", "networks", "power", "client"]
ShapeName = Literal["nothing", "star", "chain", "tree", "hybrid"]
READINGS: tuple[Reading, ...] = ("cables", "networks", "power", "client")


class Joint(Frozen):
    """What joins one thing to the one above it; speeds in Mb/s, lengths in m of one cable.

    ``ports`` are those of the thing above, as many as cables go there; ``own_port`` is the port at the
    lower end where that has several. ``why`` says what is missing of it, where something is.
    """

    kind: LinkKind
    link: str = Field("", description="id of the cable")
    ports: tuple[int, ...] = ()
    own_port: int | None = None
    category: str = ""
    length_m: float = 0.0
    extenders: int = Field(0, description="that part its cable")
    speed_mbps: float = Field(0.0, description="what it passes as planned")
    came_mbps: float | None = Field(None, description="at which it came up, where somebody has seen it")
    watts: float = Field(0.0, description="expected at the port that feeds what is below")
    fed_by: str = Field("", description="what feeds it, where that is not the port")
    untagged: int | None = None
    tagged: tuple[int, ...] = ()
    level_dbm: float | None = None
    verdict: Literal["met", "near", "not_met"] = "met"
    why: str = ""


class Node(Frozen):
    """One thing of a network, and its joint to what it hangs on; ``says`` is its line in each reading."""

    KEY: ClassVar = ("id",)

    id: str
    kind: NodeKind
    name: str
    model: str = ""
    role: str = Field("", description="kind of device in words")
    mark: str = ""
    element: str = Field("", description="id of the switch or device, none for the line")
    room: str = Field("", description="rack that it stands in")
    floor: str = ""
    place: str = Field("", description="room of the house that it stands in")
    state: State = "new"
    parent: str | None = None
    joint: Joint | None = None
    clients: float = Field(0.0, description="that it serves at the busiest hour")
    narrow: bool = Field(False, description="whether its joint is the narrowest of somebody's way out")
    says: dict[str, str] = Field(default_factory=dict)


class Second(Frozen):
    """A way that is there beside the one that is used: the next parent over the air."""

    KEY: ClassVar = ("below", "above")

    below: str
    above: str
    mbps: float
    says: str


class Shape(Frozen):
    """How a network hangs together, in words and in numbers."""

    name: ShapeName
    says: str
    switches: int = 0
    deepest: int = Field(0, description="switches one behind the other")
    over_air: int = 0
    buildings: int = 1


class Diagram(Frozen):
    """All of a network, each thing after what it hangs on."""

    nodes: tuple[Node, ...] = ()
    seconds: tuple[Second, ...] = ()
    racks: dict[str, dict[str, str]] = Field(
        default_factory=dict, description="by rack its line in each reading"
    )
    shape: Shape


class Card(Frozen):
    """A node where it is drawn, or a fold of several: its column and row, and what is behind it."""

    KEY: ClassVar = ("id",)

    id: str
    column: int
    row: int
    parent: str | None
    nodes: tuple[str, ...] = Field(description="the node, or those that are folded into one")
    name: str
    says: dict[str, str] = Field(default_factory=dict)
    behind: int = Field(0, description="things below it that are folded away")
    folds: bool = Field(False, description="whether it can be folded or unfolded")
    folded: bool = False


class FrameBox(Frozen):
    """A rack as a frame round what stands in it, in columns and rows, both ends included."""

    KEY: ClassVar = ("room", "column", "row")

    room: str
    name: str
    says: dict[str, str] = Field(default_factory=dict)
    column: int
    row: int
    last_column: int
    last_row: int


class Grid(Frozen):
    """How columns and rows become a drawing: a card's sizes, from one to the next, and what a rack's frame
    takes round them and above for its name."""

    card_wide: float = 172.0
    card_high: float = 34.0
    column: float = 200.0
    row: float = 42.0
    margin: float = 12.0
    frame_pad: float = 8.0
    frame_head: float = 16.0


GRID = Grid()


class Picture(Frozen):
    """A diagram laid out: cards in columns from the line on, and rows."""

    grid: Grid = GRID
    columns: int
    rows: int
    tops: tuple[float, ...] = Field((), description="where the card of each row begins, from above")
    wide: float = 0.0
    high: float = 0.0
    cards: tuple[Card, ...] = ()
    frames: tuple[FrameBox, ...] = ()
    seconds: tuple[tuple[str, str], ...] = Field((), description="cards that a second way joins")
