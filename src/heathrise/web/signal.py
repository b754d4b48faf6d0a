"""Routes for what is heard where: relief, levels, rays and walks."""

from __future__ import annotations

import hashlib
from datetime import UTC, datetime

from apiflask import APIBlueprint
from flask import Response, request
from pydantic import TypeAdapter, ValidationError

from ..asked import Asked, ChannelsAsked, FarAsked, RoomAsked, SectionAsked, SpotAsked, WalkAsked
from ..core.base.memo import IdentityMemo
from ..core.context.plan import Plan
from ..core.context.readings import Reading
from ..core.context.storeys import storeys_of
from ..core.design import Design, DesignError, Device, Floor, Neighbour, Problem, Variant
from ..core.evaluation.far_lines import FarView
from ..core.placement import MeshView
from ..core.records import MOST_READINGS, MeasuredWalk, WalkCounts, WalkTaken, walks_as_taken
from ..core.signal import (
    BandView,
    RadioEnvironment,
    Relief,
    SpotView,
    Walk,
    connected,
    difference,
    environment_of,
    readings_at,
    relief,
)
from ..core.views.busy_hour import BusyView
from ..core.views.calibration import CalibrationView, calibration_view, proposals
from ..core.views.channel_width import WidthView
from ..core.views.far_land import LandView
from ..core.views.far_ways import FarWays
from ..core.views.offers import with_changes
from ..core.views.room_chain import RoomChain
from ..core.views.section import SectionView
from ..core.views.site import SiteView
from ..formats.scan_csv import read_scan
from ..formats.survey_csv import read_survey
from ..questions import QUESTIONS, known_floor
from ..store.measured import MOST_COUNTED
from .desk import stores
from .signal_models import (
    LevelList,
    LevelReading,
    ScanQuery,
    ScanRead,
    SurveyQuery,
    SurveyRead,
    View,
    WalkMark,
)
from .wire import AUTHOR, json_of, line_faults, whole_number

routes = APIBlueprint("signal", __name__, url_prefix="/api/projects/<project_id>")


_fits: IdentityMemo[CalibrationView] = IdentityMemo(
    16, weigh=lambda view: 800 * len(view.calibration.residuals)
)


@routes.get("/relief")
@routes.input(View, location="query", arg_name="view")
@routes.output(Relief)
def get_relief(project_id: str, view: View) -> Response:
    _, plan = stores().plans.load(project_id)
    return json_of(relief_of(project_id, plan, view))


@routes.get("/channels")
@routes.input(ChannelsAsked, location="query", arg_name="asked")
@routes.output(BandView)
def get_channels(project_id: str, asked: ChannelsAsked) -> Response:
    """Show the channels of a band; with a device, what each of them would cost it."""
    return _answer(project_id, "channels", asked)


@routes.get("/busy")
@routes.output(BusyView)
def get_busy_hour(project_id: str) -> Response:
    """Show the busiest hour by the brief's clients, and what would relieve it."""
    return _answer(project_id, "busy")


@routes.get("/widths")
@routes.output(WidthView)
def get_channel_widths(project_id: str) -> Response:
    """Show what each width of channels comes to on 5 GHz."""
    return _answer(project_id, "widths")


@routes.get("/mesh")
@routes.output(MeshView)
def get_mesh(project_id: str) -> Response:
    """Show the back-haul over the air, and what a cable instead would take and bring."""
    return _answer(project_id, "mesh")


@routes.get("/levels")
@routes.input(SpotAsked, location="query", arg_name="asked")
@routes.output(LevelList)
def get_levels(project_id: str, asked: SpotAsked) -> Response:
    """Show what is heard at a spot."""
    _, plan = stores().plans.load(project_id)
    known_floor(plan.drawn, asked.floor)
    found = readings_at(environment_of(plan), asked.floor, asked.x, asked.y)
    readings = [LevelReading(**vars(r)) for r in found]
    room = storeys_of(plan.drawn).room_at(asked.floor, (asked.x, asked.y))
    return json_of(LevelList(readings=readings, space=room.name if room else None))


@routes.get("/room_chain")
@routes.input(RoomAsked, location="query", arg_name="asked")
@routes.output(RoomChain)
def get_room_chain(project_id: str, asked: RoomAsked) -> Response:
    """Show the links from the line to a room's worst spot, and which of them binds."""
    return _answer(project_id, "room_chain", asked)


@routes.get("/rays")
@routes.input(SpotAsked, location="query", arg_name="asked")
@routes.output(SpotView)
def explain_rays(project_id: str, asked: SpotAsked) -> Response:
    """Explain what is heard at a spot, ray by ray."""
    return _answer(project_id, "rays", asked)


@routes.post("/walk")
@routes.input(WalkAsked, arg_name="asked")
@routes.output(Walk)
def walk_path(project_id: str, asked: WalkAsked) -> Response:
    """Carry a call along a path over rooms, stairs and storeys."""
    return _answer(project_id, "walk", asked)


@routes.get("/section")
@routes.input(SectionAsked, location="query", arg_name="asked")
@routes.output(SectionView)
def cut_section(project_id: str, asked: SectionAsked) -> Response:
    """Cut through the site: storeys, walls, slabs, what hangs near the cut and is heard on it."""
    return _answer(project_id, "section", asked)


@routes.get("/site")
@routes.output(SiteView)
def see_site(project_id: str) -> Response:
    """See all of the site from above: buildings, what lies between them and in the ground."""
    return _answer(project_id, "site")


def _answer(project_id: str, question: str, asked: Asked | None = None) -> Response:
    _, plan = stores().plans.load(project_id)
    return json_of(QUESTIONS[question].ask(plan, asked))


@routes.post("/survey")
@routes.input(SurveyQuery, location="query", arg_name="asked")
@routes.output(SurveyRead)
def read_survey_list(project_id: str, asked: SurveyQuery) -> Response:
    """Read a measured walk. It is taken once each radio is known, or ``take`` says so."""
    _, plan = stores().plans.load(project_id)
    design = plan.drawn
    known_floor(design, asked.floor)
    floors, devices = list(design.of(Floor).values()), list(design.of(Device).values())
    at = (asked.x, asked.y) if asked.x is not None and asked.y is not None else None
    read = read_survey(request.get_data(), floors, devices, asked.floor, at)
    found = proposals(plan, read.heard)
    if asked.take:
        names = _names_of(asked.names, design)
        rows = [
            r.model_copy(update={"device": names.get(who, r.device)})
            for who, heard in read.heard.items()
            for r in heard
        ]
        _take_walk(project_id, tuple(r for r in rows if r.device in design.of(Device)), asked.names)
    faults = line_faults(read.faults)
    count = sum(map(len, read.heard.values()))
    return json_of(SurveyRead(read=count, taken=asked.take, proposed=found, faults=faults))


def _take_walk(project_id: str, known: tuple[Reading, ...], names: str) -> None:
    """Write a walk with the levels of radios that are ours.

    Raises:
        DesignError: there are none, or more than a walk or a fit takes.
    """
    if not known:
        raise DesignError([Problem("names", "no radio of the file is known to be ours")])
    if len(known) > MOST_READINGS:
        what = f"has {len(known):,} levels of our radios; at most {MOST_READINGS:,} are one"
        raise DesignError([Problem("file", f"{what} walk. Send it a storey at a time.")])
    counted = sum(w.readings for w in _walks_of(project_id) if w.counts)
    if counted + len(known) > MOST_COUNTED:
        what = (
            f"has {len(known):,} levels; with the {counted:,} that count already that is more than "
            f"{MOST_COUNTED:,}. Leave an earlier walk out first."
        )
        raise DesignError([Problem("file", what)])
    digest = hashlib.sha256(request.get_data() + names.encode()).hexdigest()[:32]
    walked = MeasuredWalk(at=datetime.now(UTC), author=AUTHOR, readings=known)
    number = stores().records.append(project_id, walked, digest)
    if any(w.number == number and not w.counts for w in _walks_of(project_id)):
        _count(project_id, number, True)  # left out before, and now sent again


@routes.get("/calibration")
@routes.output(CalibrationView)
def get_calibration(project_id: str) -> Response:
    """Show what was measured beside the plan, and the model fitted to it."""
    _, plan = stores().plans.load(project_id)
    walks = _walks_of(project_id)
    counted = tuple(w.number for w in walks if w.counts)
    readings = stores().measured.of(project_id, counted)
    view = _fits.get((plan.drawn, plan.shelf, readings), None, lambda: calibration_view(plan, readings))
    return json_of(view.model_copy(update={"walks": tuple(walks)}))


@routes.post("/walks/<int:number>")
@routes.input(WalkMark, arg_name="mark")
@routes.output(WalkMark)
def mark_walk(project_id: str, number: int, mark: WalkMark) -> Response:
    """Leave a measured walk out, or count it again; it stays on record."""
    stores().repository.load(project_id)
    if number not in {w.number for w in _walks_of(project_id)}:
        raise DesignError([Problem("walk", f"there is no measured walk {number}")])
    _count(project_id, number, mark.counts)
    return json_of(mark)


def _walks_of(project_id: str) -> list[WalkTaken]:
    kept = stores()
    return walks_as_taken(kept.measured.all(project_id), kept.records.of(project_id, WalkCounts))


def _count(project_id: str, number: int, counts: bool) -> None:
    now = datetime.now(UTC)
    stores().records.append(project_id, WalkCounts(at=now, author=AUTHOR, walk=number, counts=counts))


@routes.post("/scan")
@routes.input(ScanQuery, location="query", arg_name="asked")
@routes.output(ScanRead)
def read_scan_list(project_id: str, asked: ScanQuery) -> Response:
    """Read a scan; what it holds is taken as an edit, by whoever asked."""
    _, plan = stores().plans.load(project_id)
    known_floor(plan.drawn, asked.floor)
    floors, taken = list(plan.drawn.of(Floor).values()), list(plan.drawn.of(Neighbour))
    read = read_scan(request.get_data(), floors, asked.floor, (asked.x, asked.y), taken)
    faults = line_faults(read.faults)
    return json_of(ScanRead(neighbours=list(read.neighbours), faults=faults))


def relief_of(project_id: str, plan: Plan, view: View, quick: bool = False) -> Relief:
    """Return the relief that a view asks for of a plan of a project."""
    known_floor(plan.drawn, view.floor)
    if view.when == "today":
        plan = plan.as_it_is()
    spread = (view.floor, view.band, view.rank, view.direction)
    quick = quick or view.quick
    air = environment_of(plan, view.band)
    if view.show != "difference":
        return relief(air, *spread, quick, view.show)
    now, then = _compared(project_id, plan, view)
    for one in (now, then):
        known_floor(one.design, view.floor)
    return difference(now, then, *spread, quick)


def _compared(project_id: str, plan: Plan, view: View) -> tuple[RadioEnvironment, RadioEnvironment]:
    """Return what a difference is of, and what it is from."""
    air = environment_of(plan, view.band)
    kind, _, key = view.against.partition(":")
    if kind == "without":
        return connected(air.without(frozenset(key.split(",")))), air
    if kind == "revision" and (number := whole_number(key)) is not None:
        return air, environment_of(stores().plans.at(project_id, number), view.band)
    variant = plan.drawn.of(Variant).get(key)
    if kind == "variant" and variant is not None:
        return environment_of(with_changes(plan, variant), view.band), air
    what = "say revision:, variant: or without: and what of it"
    raise DesignError([Problem("against", what)])


def _names_of(text: str, design: Design) -> dict[str, str]:
    """Return whose each radio is, as it was confirmed."""
    if not text:
        return {}
    try:
        names = TypeAdapter(dict[str, str]).validate_json(text)
    except ValidationError:
        raise DesignError([Problem("names", "should be names by address, in JSON")]) from None
    for device in names.values():
        if device not in design.of(Device):
            raise DesignError([Problem("names", f"there is no device {device[:40]!r}")])
    return names


@routes.get("/far")
@routes.output(FarView)
def see_far(project_id: str) -> Response:
    """See each place on the land with the line to the rack that feeds it, when its years are over."""
    return _answer(project_id, "far")


@routes.get("/far/ways")
@routes.input(FarAsked, location="query", arg_name="asked")
@routes.output(FarWays)
def see_far_ways(project_id: str, asked: FarAsked) -> Response:
    """See every way to a place on the land beside one another, the best first, and what rules one out."""
    return _answer(project_id, "far_ways", asked)


@routes.get("/far/land")
@routes.output(LandView)
def see_far_land(project_id: str) -> Response:
    """See all places on the land as cells with a line each, and as one mesh."""
    return _answer(project_id, "far_land")
