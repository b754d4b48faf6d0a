"""What goes over the wire, validated on the way in and documented in OpenAPI."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import AwareDatetime, Field, create_model

from ..core.catalogue import Matter, Value
from ..core.context.firm import Firm
from ..core.design import KINDS, Change, Practice
from ..core.design.values import Domain, LineSpeed, Name, Point, SiteKind
from ..core.handover import Handover
from ..core.install import Finish, Step
from ..core.records import (
    CableResult,
    OurTime,
    RecordKey,
    SeenPort,
    Snag,
    SnagWords,
    Standing,
    StepStand,
    StepWords,
    SwitchDraw,
    TestedCable,
)
from ..core.signal import Relief
from ..core.views.shown import Shown
from ..formats.gear_table import GearField
from .api_model import ApiModel, LineFault
from .signal_models import View

Changes = Annotated[list[Change], Field(min_length=1, max_length=20_000)]
Label = Annotated[str, Field(max_length=120)]
Revision = Annotated[int, Field(ge=0)]
Share = Annotated[float, Field(ge=-0.5, le=1.5)]


class ProjectLine(ApiModel):
    id: str
    name: str
    revision: int
    opened: str
    stand: Standing
    archived: bool = False


class ProjectList(ApiModel):
    projects: list[ProjectLine]


class SiteSketch(ApiModel):
    """The ground floors of a site in m: rooms, yards, gear."""

    kind: str
    rooms: list[tuple[Point, ...]]
    yards: list[tuple[Point, ...]]
    marks: list[Point]
    storeys: int
    devices: int
    needed: int


class DemoLine(SiteSketch):
    """A made-up site: what it teaches, and a sketch of its ground floors."""

    project: str
    name: str
    teaches: str


class DemoList(ApiModel):
    sites: list[DemoLine]


class TestedCables(ApiModel):
    cables: list[TestedCable]


class CableTestSaid(CableResult):
    """A test as it is noted by hand, by whom and when; kept on the device until it is sent."""

    key: RecordKey | None = None
    by: Annotated[str, Field(max_length=120)] = ""
    at: OurTime | None = None
    clock: OurTime | None = Field(None, description="what the device's clock shows as it sends")


_LISTS: dict[str, Any] = {kind: (list[cls], []) for kind, cls in KINDS.items()}  # type: ignore[valid-type]
Elements = create_model("Elements", **_LISTS)


class ProjectDocument(ApiModel):
    """A project with all its elements, by kind."""

    id: str
    name: str
    revision: int
    elements: Elements


class KeptPicture(ApiModel):
    """A picture that was kept; ``pages`` is how many its file has."""

    id: str
    width_px: int
    height_px: int
    pages: int


class SlantedPicture(ApiModel):
    """Four corners of a rectangle on a kept picture, as shares of its width and height from the upper
    left, and how long its upper side and its other side are."""

    corners: Annotated[list[tuple[Share, Share]], Field(min_length=4, max_length=4)]
    across_m: Annotated[float, Field(gt=0.05, le=500)]
    up_m: Annotated[float, Field(gt=0.05, le=500)]


class StraightPicture(KeptPicture):
    """A picture that was made straight: its scale, and where the rectangle's middle lies on it."""

    metres_per_px: float
    middle: tuple[float, float]


class WorkList(ApiModel):
    """The steps of a job, when one and two people are through, and how each step stands."""

    steps: list[Step]
    finishes: list[Finish]
    stands: list[StepStand]
    day_minutes: float


class StepStands(ApiModel):
    stands: list[StepStand]
    clock_ahead_s: float = Field(0.0, description="of the device that has just sent, in s")


class Ticks(ApiModel):
    """What was said of steps, by whom and when; kept on the device until it is sent."""

    class Tick(StepWords):
        by: Annotated[str, Field(min_length=1, max_length=120)]
        at: OurTime | None = None

    ticks: Annotated[list[Tick], Field(min_length=1, max_length=500)]
    clock: OurTime | None = Field(None, description="what the device's clock shows as it sends")


class TestsRead(ApiModel):
    """What could be read of a tester's file, whether it was taken, and how all cables stand."""

    __test__ = False  # no test of pytest's

    read: int
    taken: bool
    faults: list[LineFault]
    cables: list[TestedCable]


class SeenPorts(ApiModel):
    """Ports as they came up beside as they are planned, and what each switch gives in all."""

    ports: list[SeenPort]
    switches: list[SwitchDraw]


class PortsRead(SeenPorts):
    """What could be read of a meter's file, whether it was taken, and how all ports stand."""

    read: int
    taken: bool
    faults: list[LineFault]


class SnagList(ApiModel):
    snags: list[Snag]
    clock_ahead_s: float = Field(0.0, description="of the device that has just sent, in s")


class Snags(ApiModel):
    """What was said of snags, by whom and when; kept on the device until it is sent."""

    class Said(SnagWords):
        by: Annotated[str, Field(min_length=1, max_length=120)]
        at: OurTime | None = None

    said: Annotated[list[Said], Field(min_length=1, max_length=500)]
    clock: OurTime | None = Field(None, description="what the device's clock shows as it sends")


class PastHandover(ApiModel):
    """A hand-over as it was made; it does not change."""

    number: int
    at: AwareDatetime
    by: str
    revision: int
    papers: dict[str, str]
    still_open: list[str]
    signed_by: str | None
    signed_at: AwareDatetime | None


class HandoverView(ApiModel):
    """The job as it would be handed over now, and the hand-overs that were made."""

    now: Handover
    past: list[PastHandover]


class ProjectProgress(ApiModel):
    """How far the work and the hand-over of a project are, in a few numbers."""

    steps: int
    done: int
    blocked: int
    still_open: int
    agreed: int | None = Field(description="revision that was agreed to last")
    handed_over: int | None = Field(description="revision that was handed over last")
    signed: bool
    over_budget: float = Field(0.0, description="by how much the price is over the budget")


class Agreement(ApiModel):
    revision: Annotated[int, Field(ge=1)]
    by: Annotated[str, Field(min_length=1, max_length=120)]


class Signature(ApiModel):
    signed_by: Annotated[str, Field(min_length=1, max_length=120)]
    by: Annotated[str, Field(min_length=1, max_length=120)]


class FirmSaid(ApiModel):
    """The firm as its papers show it, and whether it has a mark."""

    firm: Firm
    has_mark: bool


class Practices(ApiModel):
    """Practice profiles: those that ship with what they are about, the firm's own, and the matters that
    they are made of."""

    shipped: list[Practice]
    about: dict[str, str]
    own: list[Practice]
    matters: dict[str, Matter]


class GearRow(ApiModel):
    """One thing of the firm's own gear, by its fields in words; ``used`` in so many projects."""

    id: str
    shelf: str
    values: dict[str, str]
    withdrawn: bool = False
    used: int = 0


class GearShelf(ApiModel):
    """A shelf that the firm can add to: its fields, and what is on it already to begin from."""

    shelf: str
    name: str
    fields: list[GearField]
    like: list[GearRow]


class GearList(ApiModel):
    """The firm's own gear, and the shelves it stands on."""

    rows: list[GearRow]
    shelves: list[GearShelf]


class GearSaid(ApiModel):
    """Gear as a form has it; without an id it is named by its label."""

    shelf: Annotated[str, Field(max_length=40)]
    id: Annotated[str, Field(max_length=60)] = ""
    values: dict[str, Annotated[str, Field(max_length=400)]]
    withdrawn: bool = False


class GearRead(ApiModel):
    """What could be read of a table of gear, whether it was taken, and what is at fault."""

    read: int
    taken: bool
    faults: list[LineFault]


class PricesRead(ApiModel):
    """What could be read of a price list, whether it was taken, and what is at fault; ``asks`` are
    prices that can be read in two ways, of which somebody has to say one."""

    read: int
    taken: bool
    faults: list[LineFault]
    asks: list[str] = Field(default_factory=list)


class NewProject(ApiModel):
    name: Name
    storeys: Annotated[int, Field(ge=1, le=6)] = 1
    kind: SiteKind = "office"
    domain: Domain = "europe"
    line_mbps: LineSpeed = 500.0
    ceiling_height_m: Annotated[float, Field(gt=1.5, le=30)] = 2.7


class Rename(ApiModel):
    name: Name


class Known(ApiModel):
    """The mark of the evaluation that the asker has, to be told only what is different."""

    base: Annotated[str, Field(max_length=60)] = ""


class ChangeRequest(ApiModel):
    """Changes to save. ``base`` is the mark of the evaluation that the asker has; the relief of
    ``view`` follows the figures."""

    revision: Revision
    label: Label
    changes: Changes
    base: str | None = None
    view: View | None = None


class PreviewRequest(ApiModel):
    """Changes to try; the relief of ``view`` comes first, then the evaluation unless declined."""

    changes: Annotated[list[Change], Field(max_length=2_000)]
    base: str | None = None
    view: View | None = None
    figures: bool = True


class RowsPatch(ApiModel):
    """Rows that are new or different, the names of those that are gone, all names in order."""

    put: list[dict[str, Any]]
    gone: list[str]
    order: list[str] | None = None


class ChapterPatch(ApiModel):
    set: dict[str, Any]
    rows: dict[str, RowsPatch]


class Answer(ApiModel):
    """An evaluation and the revision it belongs to: whole, or what is different from the one that
    is known by the mark ``base``."""

    revision: int
    mark: str
    base: str | None
    evaluation: Shown | None
    patch: dict[str, ChapterPatch] | None


class AnswerLine(ApiModel):
    """One line of the answer to an edit or a preview: an evaluation, or the relief of the view."""

    answer: Answer | None = None
    relief: Relief | None = None


class FirmFigure(ApiModel):
    """How the firm sees a figure of the trade; without a value it sees it as shipped."""

    figure: Annotated[str, Field(max_length=100)]
    value: Value | None = None


class JobRequest(ApiModel):
    kind: Annotated[str, Field(max_length=40)]
    arguments: dict[str, Any] = Field(default_factory=dict)


class Job(ApiModel):
    """A job as it stands; ``total`` is 0 as long as nobody knows."""

    id: str
    kind: str
    state: Literal["running", "done", "stopped", "failed"]
    done: int
    total: int
    result: dict[str, Any] | None
    message: str
