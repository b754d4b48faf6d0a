"""What may be said with a question about a plan, and the answers that have no shape of their own."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from .core.base.bands import Band
from .core.base.frozen import Frozen, Strict
from .core.context.findings import Cure
from .core.design import Change, ElementId, Practice
from .core.install import Label, Step
from .core.placement import Wishes
from .core.records import PlannedCable, PlannedPort
from .core.signal import MOST_POINTS, WalkPoint
from .core.views.failures import Failure
from .core.views.offers import Offer
from .core.views.savings import Saving
from .core.views.way import Way

Coordinate = Annotated[float, Field(ge=-10_000, le=10_000)]


class Asked(Strict):
    """What may be said with a question; by itself nothing."""


class CuresAsked(Asked):
    finding: Annotated[str, Field(max_length=200)]


class VariantAsked(Asked):
    policy: Annotated[str, Field(max_length=40)]


class PacketAsked(Asked):
    start: Annotated[str, Field(max_length=140)]
    goal: Annotated[str, Field(max_length=140)]


class SchoolAsked(Asked):
    """A school of a matter for one project, with its number where it takes one."""

    matter: Annotated[str, Field(max_length=40)]
    school: Annotated[str, Field(max_length=40)]
    value: Annotated[float, Field(ge=0, le=100_000)] | None = None


class PracticeAsked(Asked):
    practice: Practice


class DrillAsked(Asked):
    path: Annotated[tuple[WalkPoint, ...], Field(max_length=MOST_POINTS)] = ()


class SitesAsked(Asked):
    wishes: Wishes = Wishes()


class BestPlacesAsked(SitesAsked):
    device: ElementId


class FarAsked(Asked):
    point: ElementId


class RackPlacesAsked(Asked):
    room: ElementId


class RoomAsked(Asked):
    space: ElementId


class DeviceAsked(Asked):
    device: ElementId


class ChannelsAsked(Asked):
    """Of which band; with a device, what each channel would cost it."""

    band: Band
    device: Annotated[str, Field(max_length=60)] = ""


class SpotAsked(Asked):
    """A spot of a storey, in m."""

    floor: ElementId
    x: Coordinate
    y: Coordinate
    band: Band = "5"


class WalkAsked(Asked):
    """A path to walk with a call: spots storey by storey, at least two of them, or a walk of the
    brief by its id."""

    points: Annotated[tuple[WalkPoint, ...], Field(max_length=MOST_POINTS)] = ()
    habit: str = ""
    band: Band = "5"


class SectionAsked(Asked):
    """A cut through the site by its ends, in m, or along the building of a storey where none is said."""

    floor: ElementId
    ax: Coordinate | None = None
    ay: Coordinate | None = None
    bx: Coordinate | None = None
    by: Coordinate | None = None


class Answer(Frozen):
    """What a question is answered with."""


class Cures(Answer):
    cures: tuple[Cure, ...]


class Changes(Answer):
    changes: tuple[Change, ...]


class Failures(Answer):
    failures: tuple[Failure, ...]


class VariantMade(Answer):
    name: str
    changes: tuple[Change, ...]


class SavingsFound(Answer):
    savings: tuple[Saving, ...]


class OfferList(Answer):
    """The plan as it stands, and its variants beside it."""

    currency: str
    offers: tuple[Offer, ...]


class PlannedWork(Answer):
    steps: tuple[Step, ...]


class Labels(Answer):
    labels: tuple[Label, ...]


class WayTold(Answer):
    """How a run lies, or nothing where a device has none."""

    way: Way | None


class ToBeProven(Answer):
    """What a tester and a meter can prove of a plan."""

    cables: tuple[PlannedCable, ...]
    ports: tuple[PlannedPort, ...]
