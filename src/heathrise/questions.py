"""Everything that can be asked of a plan beside its evaluation: what it is called, what may be said
with it, what it is answered with. Command line, jobs and browser read this one list."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

from pydantic import BaseModel, ValidationError

from .asked import (
    Asked,
    BestPlacesAsked,
    Changes,
    ChannelsAsked,
    Cures,
    CuresAsked,
    DeviceAsked,
    DrillAsked,
    Failures,
    FarAsked,
    Labels,
    OfferList,
    PacketAsked,
    PlannedWork,
    PracticeAsked,
    RackPlacesAsked,
    RoomAsked,
    SavingsFound,
    SchoolAsked,
    SectionAsked,
    SitesAsked,
    SpotAsked,
    ToBeProven,
    VariantAsked,
    VariantMade,
    WalkAsked,
    WayTold,
)
from .core.base.progress import Progress, ShowBest, always
from .core.context.plan import Plan
from .core.design import Design, DesignError, Device, EquipmentRoom, Floor, Problem, Space, UsualRoute
from .core.evaluation.cure_search import search_cures
from .core.evaluation.evaluate import Evaluation, evaluate
from .core.evaluation.far_lines import FarView, far_view
from .core.handover import Handover
from .core.order import Order
from .core.placement import (
    MeshView,
    RackPlaces,
    Sited,
    best_places,
    mesh_view,
    needless,
    rack_places,
    search_sites,
)
from .core.settings import PacketWalk
from .core.signal import (
    MOST_SECONDS,
    BandView,
    SpotView,
    Walk,
    WalkPoint,
    band_view,
    channel_plans,
    channel_tasks,
    environment_of,
    explain_spot,
    walk,
    walk_of,
)
from .core.views.acceptance import planned_cables, planned_ports
from .core.views.bill_of_materials import order_of
from .core.views.busy_hour import BusyView, busy_view
from .core.views.category_steps import CategorySteps, category_steps
from .core.views.channel_width import WidthView, width_view
from .core.views.cutting_list import CuttingList, cutting_list
from .core.views.failures import drill
from .core.views.far_land import LandView, far_land
from .core.views.far_ways import FarWays, far_ways
from .core.views.handover import Observed, handover_of
from .core.views.held import HeldSettings, held_settings
from .core.views.labels import project_labels
from .core.views.offers import POLICY_NAMES, make_variant, offers
from .core.views.packets import packet_of
from .core.views.practice import PracticeView, practice_view, school_changes
from .core.views.practice_change import PracticeChange, practice_change
from .core.views.pull_list import PullList, pull_list
from .core.views.remedies import Remedies, remedies_of
from .core.views.room_chain import RoomChain, room_chain
from .core.views.savings import savings_of
from .core.views.section import SectionView, section_view
from .core.views.site import SiteView, site_view
from .core.views.switch_choice import SwitchChoices, switch_choices
from .core.views.way import way_of
from .core.views.work_list import steps_of

A = TypeVar("A", bound=Asked)
R = TypeVar("R", bound=BaseModel)


@dataclass(frozen=True)
class Question(Generic[A, R]):
    """A question about a plan. A ``long`` one is a job where there is a server: it tells how far it
    is, can be stopped, and then gives what was found by then."""

    asked: type[A]
    answer: type[R]
    work_out: Callable[[Plan, A, Progress, ShowBest], R]
    long: bool = False

    def ask(
        self,
        plan: Plan,
        arguments: Mapping[str, Any] | A | None = None,
        progress: Progress = always,
        show: ShowBest = lambda _: None,
    ) -> R:
        """Return the answer.

        Raises:
            DesignError: an argument is missing, too much, or not what it should be.
        """
        asked = arguments if isinstance(arguments, self.asked) else parsed(self.asked, arguments or {})
        return self.work_out(plan, asked, progress, show)


def parsed(cls: type[A], arguments: Mapping[str, Any] | BaseModel) -> A:
    """Return what was asked, checked.

    Raises:
        DesignError: an argument is missing, too much, or not what it should be.
    """
    try:
        return cls.model_validate(arguments)
    except ValidationError as error:
        problems = [Problem(".".join(map(str, e["loc"])) or "arguments", e["msg"]) for e in error.errors()]
        raise DesignError(problems) from None


def _cures(plan: Plan, asked: CuresAsked, progress: Progress, _: ShowBest) -> Cures:
    if asked.finding.startswith("signal-busy"):
        return Cures(cures=busy_view(plan).cures)
    return Cures(cures=tuple(search_cures(plan, asked.finding, progress)))


def _rack_places(plan: Plan, asked: RackPlacesAsked, progress: Progress, _: ShowBest) -> RackPlaces:
    if asked.room not in plan.design.of(EquipmentRoom):
        raise DesignError([Problem("room", f"there is no rack {asked.room[:40]!r}")])
    return rack_places(plan, asked.room, progress)


def _room_chain(plan: Plan, asked: RoomAsked, _progress: Progress, _: ShowBest) -> RoomChain:
    if asked.space not in plan.design.of(Space):
        raise DesignError([Problem("space", f"there is no room {asked.space[:40]!r}")])
    return room_chain(plan, asked.space)


def _known_device(plan: Plan, device: str) -> str:
    if device not in plan.design.of(Device):
        raise DesignError([Problem("device", f"there is no device {device[:40]!r} in the plan")])
    return device


def _remedies(plan: Plan, asked: DeviceAsked, _progress: Progress, _: ShowBest) -> Remedies:
    return remedies_of(plan, _known_device(plan, asked.device))


def _far_ways(plan: Plan, asked: FarAsked, _progress: Progress, _: ShowBest) -> FarWays:
    return far_ways(plan, asked.point)


def _way(plan: Plan, asked: DeviceAsked, _progress: Progress, _: ShowBest) -> WayTold:
    return WayTold(way=way_of(plan, _known_device(plan, asked.device)))


def _packet(plan: Plan, asked: PacketAsked, _progress: Progress, _: ShowBest) -> PacketWalk:
    try:
        return packet_of(plan, asked.start, asked.goal)
    except KeyError as error:
        raise DesignError([Problem("host", f"there is no host {str(error)[:60]} in the plan")]) from None


def _school(plan: Plan, asked: SchoolAsked, _progress: Progress, _: ShowBest) -> Changes:
    return Changes(changes=school_changes(plan, asked.matter, asked.school, asked.value))


def _variant(plan: Plan, asked: VariantAsked, progress: Progress, _: ShowBest) -> VariantMade:
    policy = next((p for p in POLICY_NAMES if p == asked.policy), None)
    if policy is None:
        raise DesignError([Problem("policy", f"there are {', '.join(POLICY_NAMES)}")])
    changes = make_variant(plan, policy, progress)
    return VariantMade(name=POLICY_NAMES[policy], changes=tuple(changes))


def _drill(plan: Plan, asked: DrillAsked, progress: Progress, _: ShowBest) -> Failures:
    # Storeys that are no more are left out of the walk.
    path = [p for p in asked.path if p.floor in plan.design.of(Floor)]
    return Failures(failures=tuple(drill(plan, progress, path)))


def _channels(plan: Plan, asked: ChannelsAsked, _progress: Progress, _: ShowBest) -> BandView:
    air = environment_of(plan)
    tasks = {b: t for b, t in channel_tasks(air, begin=True).items() if b == asked.band}
    channels = channel_plans(air, tasks, wait=False).get(asked.band)
    return band_view(air, asked.band, channels, asked.device or None)


def _walk(plan: Plan, asked: WalkAsked, _progress: Progress, _: ShowBest) -> Walk:
    air = environment_of(plan)
    if not asked.habit:
        _walkable(plan, asked.points)
        return walk(air, asked.points, asked.band)
    habit = plan.design.of(UsualRoute).get(asked.habit)
    if habit is None:
        raise DesignError([Problem("habit", f"there is no walk {asked.habit[:40]!r}")])
    found = walk_of(air, habit, asked.band)
    if found is None:
        what = "no stair leads from storey to storey; say in which room one does"
        raise DesignError([Problem("habit", what)])
    return found


def _walkable(plan: Plan, points: Sequence[WalkPoint]) -> None:
    if len(points) < 2:
        raise DesignError([Problem("points", "a path has two spots at least")])
    for number, point in enumerate(points):
        if point.floor not in plan.design.of(Floor):
            raise DesignError([Problem(f"points[{number}].floor", f"there is no floor {point.floor!r}")])
    far = sum(math.dist(a.at, b.at) for a, b in itertools.pairwise(points))
    most = MOST_SECONDS * plan.rules["signal.walk_mps"]
    if far > most:
        what = f"the path is {far:.0f} m long; at most {most:.0f} m are walked"
        raise DesignError([Problem("points", what)])


def _rays(plan: Plan, asked: SpotAsked, _progress: Progress, _: ShowBest) -> SpotView:
    known_floor(plan.drawn, asked.floor)
    return explain_spot(environment_of(plan), asked.floor, (asked.x, asked.y), asked.band)


def _section(plan: Plan, asked: SectionAsked, _progress: Progress, _: ShowBest) -> SectionView:
    known_floor(plan.drawn, asked.floor)
    ends = (asked.ax, asked.ay, asked.bx, asked.by)
    said = [e for e in ends if e is not None]
    if said and len(said) < len(ends):
        raise DesignError([Problem("cut", "say both ends of the cut, ax, ay, bx and by, or none of them")])
    return section_view(plan, asked.floor, ((said[0], said[1]), (said[2], said[3])) if said else None)


def known_floor(design: Design, floor: str) -> None:
    """Refuse a storey that a design has not.

    Raises:
        DesignError: it has none of this id.
    """
    if floor not in design.of(Floor):
        raise DesignError([Problem("floor", f"there is no floor {floor[:40]!r}")])


def _plain(answer: type[R], work_out: Callable[[Plan], R]) -> Question[Asked, R]:
    """Return a question that is asked by its name alone."""
    return Question(Asked, answer, lambda plan, _asked, _progress, _show: work_out(plan))


QUESTIONS: dict[str, Question[Any, Any]] = {
    "evaluation": _plain(Evaluation, lambda plan: evaluate(plan, wait=True)),
    "order": _plain(Order, order_of),
    "offers": _plain(
        OfferList, lambda plan: OfferList(currency=plan.drawn.site.currency, offers=tuple(offers(plan)))
    ),
    "work": _plain(PlannedWork, lambda plan: PlannedWork(steps=tuple(steps_of(plan)))),
    "labels": _plain(Labels, lambda plan: Labels(labels=tuple(project_labels(plan)))),
    "tests": _plain(
        ToBeProven,
        lambda plan: ToBeProven(cables=tuple(planned_cables(plan)), ports=tuple(planned_ports(plan))),
    ),
    "handover": _plain(Handover, lambda plan: handover_of(plan, Observed(steps=steps_of(plan)))),
    "busy": _plain(BusyView, busy_view),
    "widths": _plain(WidthView, width_view),
    "categories": _plain(CategorySteps, category_steps),
    "cutting": _plain(CuttingList, cutting_list),
    "pulls": _plain(PullList, pull_list),
    "mesh": _plain(MeshView, mesh_view),
    "site": _plain(SiteView, site_view),
    "far": _plain(FarView, far_view),
    "far_land": _plain(LandView, far_land),
    "far_ways": Question(FarAsked, FarWays, _far_ways),
    "settings": _plain(HeldSettings, held_settings),
    "practice": _plain(PracticeView, practice_view),
    "school": Question(SchoolAsked, Changes, _school),
    "channels": Question(ChannelsAsked, BandView, _channels),
    "walk": Question(WalkAsked, Walk, _walk),
    "remedies": Question(DeviceAsked, Remedies, _remedies),
    "way": Question(DeviceAsked, WayTold, _way),
    "packet": Question(PacketAsked, PacketWalk, _packet),
    "room_chain": Question(RoomAsked, RoomChain, _room_chain),
    "rays": Question(SpotAsked, SpotView, _rays),
    "section": Question(SectionAsked, SectionView, _section),
    "cures": Question(CuresAsked, Cures, _cures, long=True),
    "drill": Question(DrillAsked, Failures, _drill, long=True),
    "variant": Question(VariantAsked, VariantMade, _variant, long=True),
    "savings": Question(
        Asked,
        SavingsFound,
        lambda plan, _, progress, _show: SavingsFound(savings=tuple(savings_of(plan, progress))),
        long=True,
    ),
    "sites": Question(
        SitesAsked,
        Sited,
        lambda plan, asked, progress, show: search_sites(plan, asked.wishes, progress, show),
        long=True,
    ),
    "best_places": Question(
        BestPlacesAsked,
        Cures,
        lambda plan, asked, progress, _: Cures(
            cures=tuple(best_places(plan, asked.device, asked.wishes, progress))
        ),
        long=True,
    ),
    "switches": Question(
        Asked, SwitchChoices, lambda plan, _, progress, _show: switch_choices(plan, progress), long=True
    ),
    "rack_places": Question(RackPlacesAsked, RackPlaces, _rack_places, long=True),
    "needless": Question(
        SitesAsked,
        Cures,
        lambda plan, _, progress, _show: Cures(cures=tuple(needless(plan, progress))),
        long=True,
    ),
    "practice_change": Question(
        PracticeAsked,
        PracticeChange,
        lambda plan, asked, progress, _: practice_change(plan, asked.practice, progress),
        long=True,
    ),
}
