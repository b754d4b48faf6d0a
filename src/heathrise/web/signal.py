"""Routes for what is heard where: relief, levels, rays and walks."""

from __future__ import annotations

import hashlib
import itertools
import math
from datetime import UTC, datetime

from apiflask import APIBlueprint
from flask import Response, request
from pydantic import TypeAdapter, ValidationError

from ..core.base.bands import BANDS, Band
from ..core.base.memo import IdentityMemo
from ..core.catalogue import Catalogue
from ..core.context.scope import as_planned, as_today
from ..core.context.storeys import storeys_of
from ..core.design import Design, DesignError, Device, Floor, Neighbour, Problem, UsualRoute, Variant
from ..core.placement import MeshView, mesh_view
from ..core.records import MOST_READINGS, MeasuredWalk, WalkCounts, WalkTaken, walks_as_taken
from ..core.signal import (
    MOST_SECONDS,
    BandView,
    RadioEnvironment,
    Relief,
    SpotView,
    Walk,
    air_of,
    band_view,
    channel_plans,
    channel_tasks,
    connected,
    difference,
    explain_spot,
    readings_at,
    relief,
    walk,
    walk_of,
)
from ..core.views.busy_hour import BusyView, busy_view
from ..core.views.calibration import CalibrationView, calibration_view, proposals
from ..core.views.channel_width import WidthView, width_view
from ..core.views.offers import with_changes
from ..formats.scan_csv import read_scan
from ..formats.survey_csv import read_survey
from ..store import Repository
from ..store.measured import MOST_COUNTED, Measured
from ..store.prices import FirmPrices
from ..store.records import Records
from .models import (
    ChannelQuery,
    LevelList,
    LevelReading,
    ScanQuery,
    ScanRead,
    SurveyQuery,
    SurveyRead,
    View,
    WalkMark,
    WalkRequest,
)
from .wire import AUTHOR, json_of, line_faults, whole_number


def make_signal(repository: Repository) -> APIBlueprint:
    """Return the routes for what is heard where."""
    routes = APIBlueprint("signal", __name__, url_prefix="/api")
    records = Records(repository.engine) if repository is not None else None
    measured = Measured(records) if records is not None else None
    prices = FirmPrices(repository.engine) if repository is not None else None
    fits: IdentityMemo[CalibrationView] = IdentityMemo(
        16, weigh=lambda view: 800 * len(view.calibration.residuals)
    )

    @routes.get("/projects/<project_id>/relief")
    @routes.input(View, location="query", arg_name="view")
    @routes.output(Relief)
    def drawn(project_id: str, view: View) -> Response:
        return json_of(relief_of(repository, project_id, repository.load(project_id).design, view))

    @routes.get("/projects/<project_id>/channels/<band>")
    @routes.input(ChannelQuery, location="query", arg_name="asked")
    @routes.output(BandView)
    def channels(project_id: str, band: str, asked: ChannelQuery) -> Response:
        """Show the channels of a band; with a device, what each of them would cost it."""
        known = _known_band(band)
        design = as_planned(repository.load(project_id).design)
        air = air_of(design, repository.catalogue)
        tasks = {b: t for b, t in channel_tasks(air, begin=True).items() if b == known}
        plan = channel_plans(air, tasks, wait=False).get(known)
        return json_of(band_view(air, known, plan, asked.device or None))

    @routes.get("/projects/<project_id>/busy")
    @routes.output(BusyView)
    def busy(project_id: str) -> Response:
        """Show the busiest hour by the brief's clients, and what would relieve it."""
        return json_of(busy_view(repository.load(project_id).design, repository.catalogue))

    @routes.get("/projects/<project_id>/widths")
    @routes.output(WidthView)
    def widths(project_id: str) -> Response:
        """Show what each width of channels comes to on 5 GHz."""
        return json_of(width_view(repository.load(project_id).design, repository.catalogue))

    @routes.get("/projects/<project_id>/mesh")
    @routes.output(MeshView)
    def mesh(project_id: str) -> Response:
        """Show the back-haul over the air, and what a cable instead would take and bring."""
        assert prices is not None
        design = repository.load(project_id).design
        return json_of(mesh_view(design, repository.catalogue, prices.all()))

    @routes.post("/projects/<project_id>/survey")
    @routes.input(SurveyQuery, location="query", arg_name="asked")
    @routes.output(SurveyRead)
    def survey(project_id: str, asked: SurveyQuery) -> Response:
        """Read a measured walk. It is taken once each radio is known, or ``take`` says so."""
        assert records is not None
        design = repository.load(project_id).design
        _known_floor(design, asked.floor)
        floors, devices = list(design.of(Floor).values()), list(design.of(Device).values())
        at = (asked.x, asked.y) if asked.x is not None and asked.y is not None else None
        read = read_survey(request.get_data(), floors, devices, asked.floor, at)
        found = proposals(design, repository.catalogue, read.heard)
        names = _names_of(asked.names, design)
        if asked.take:
            rows = [
                r.model_copy(update={"device": names.get(who, r.device)})
                for who, heard in read.heard.items()
                for r in heard
            ]
            known = tuple(r for r in rows if r.device in design.of(Device))
            if not known:
                raise DesignError([Problem("names", "no radio of the file is known to be ours")])
            if len(known) > MOST_READINGS:
                what = f"has {len(known):,} levels of our radios; at most {MOST_READINGS:,} are one"
                raise DesignError([Problem("file", f"{what} walk. Send it a storey at a time.")])
            _room_for(project_id, len(known))
            digest = hashlib.sha256(request.get_data() + asked.names.encode()).hexdigest()[:32]
            walked = MeasuredWalk(at=datetime.now(UTC), author=AUTHOR, readings=known)
            number = records.append(project_id, walked, digest)
            if any(w.number == number and not w.counts for w in walks_of(project_id)):
                _count(project_id, number, True)  # left out before, and now sent again
        faults = line_faults(read.faults)
        count = sum(map(len, read.heard.values()))
        return json_of(SurveyRead(read=count, taken=asked.take, proposed=found, faults=faults))

    @routes.get("/projects/<project_id>/calibration")
    @routes.output(CalibrationView)
    def calibration(project_id: str) -> Response:
        """Show what was measured beside the plan, and the model fitted to it."""
        assert measured is not None
        design = repository.load(project_id).design
        walks = walks_of(project_id)
        counted = tuple(w.number for w in walks if w.counts)
        readings = measured.of(project_id, counted)
        catalogue = repository.catalogue
        view = fits.get(
            (design, catalogue, readings), None, lambda: calibration_view(design, catalogue, readings)
        )
        return json_of(view.model_copy(update={"walks": tuple(walks)}))

    @routes.post("/projects/<project_id>/walks/<int:number>")
    @routes.input(WalkMark, arg_name="mark")
    @routes.output(WalkMark)
    def mark_walk(project_id: str, number: int, mark: WalkMark) -> Response:
        """Leave a measured walk out, or count it again; it stays on record."""
        repository.load(project_id)
        if number not in {w.number for w in walks_of(project_id)}:
            raise DesignError([Problem("walk", f"there is no measured walk {number}")])
        _count(project_id, number, mark.counts)
        return json_of(mark)

    def walks_of(project_id: str) -> list[WalkTaken]:
        assert records is not None and measured is not None
        return walks_as_taken(measured.all(project_id), records.of(project_id, WalkCounts))

    def _room_for(project_id: str, more: int) -> None:
        """Refuse a walk with which more would count than can be fitted while one waits."""
        counted = sum(w.readings for w in walks_of(project_id) if w.counts)
        if counted + more > MOST_COUNTED:
            what = (
                f"has {more:,} levels; with the {counted:,} that count already that is more than "
                f"{MOST_COUNTED:,}. Leave an earlier walk out first."
            )
            raise DesignError([Problem("file", what)])

    def _count(project_id: str, number: int, counts: bool) -> None:
        assert records is not None
        now = datetime.now(UTC)
        records.append(project_id, WalkCounts(at=now, author=AUTHOR, walk=number, counts=counts))

    @routes.post("/projects/<project_id>/scan")
    @routes.input(ScanQuery, location="query", arg_name="asked")
    @routes.output(ScanRead)
    def scan(project_id: str, asked: ScanQuery) -> Response:
        """Read a scan; what it holds is taken as an edit, by whoever asked."""
        design = repository.load(project_id).design
        _known_floor(design, asked.floor)
        floors = list(design.of(Floor).values())
        taken = list(design.of(Neighbour))
        read = read_scan(request.get_data(), floors, asked.floor, (asked.x, asked.y), taken)
        faults = line_faults(read.faults)
        return json_of(ScanRead(neighbours=list(read.neighbours), faults=faults))

    @routes.get("/projects/<project_id>/levels/<floor>/<x>/<y>")
    @routes.output(LevelList)
    def levels(project_id: str, floor: str, x: str, y: str) -> Response:
        design = repository.load(project_id).design
        _known_floor(design, floor)
        at = _number(x, "x"), _number(y, "y")
        found = readings_at(air_of(as_planned(design), repository.catalogue), floor, *at)
        readings = [LevelReading(**vars(r)) for r in found]
        return json_of(LevelList(readings=readings, space=_space_name(design, floor, *at)))

    @routes.get("/projects/<project_id>/rays/<floor>/<x>/<y>/<band>")
    @routes.output(SpotView)
    def rays(project_id: str, floor: str, x: str, y: str, band: str) -> Response:
        """Explain what is heard at a spot, ray by ray."""
        design = repository.load(project_id).design
        _known_floor(design, floor)
        known = _known_band(band)
        at = _number(x, "x"), _number(y, "y")
        air = air_of(as_planned(design), repository.catalogue)
        return json_of(explain_spot(air, floor, at, known))

    @routes.post("/projects/<project_id>/walk")
    @routes.input(WalkRequest, arg_name="wanted")
    @routes.output(Walk)
    def walked(project_id: str, wanted: WalkRequest) -> Response:
        """Carry a call along a path over rooms, stairs and storeys."""
        design = as_planned(repository.load(project_id).design)
        if wanted.habit:
            return json_of(_habitual(design, repository.catalogue, wanted))
        if len(wanted.points) < 2:
            raise DesignError([Problem("points", "a path has two spots at least")])
        for number, point in enumerate(wanted.points):
            if point.floor not in design.of(Floor):
                what = f"there is no floor {point.floor!r}"
                raise DesignError([Problem(f"points[{number}].floor", what)])
        air = air_of(design, repository.catalogue)
        far = sum(math.dist(a.at, b.at) for a, b in itertools.pairwise(wanted.points))
        most = MOST_SECONDS * air.rules["signal.walk_mps"]
        if far > most:
            what = f"the path is {far:.0f} m long; at most {most:.0f} m are walked"
            raise DesignError([Problem("points", what)])
        return json_of(walk(air, wanted.points, wanted.band))

    return routes


def relief_of(
    repository: Repository, project_id: str, design: Design, view: View, quick: bool = False
) -> Relief:
    """Return the relief that a view asks for of a design of a project."""
    _known_floor(design, view.floor)
    standing = as_today(design) if view.when == "today" else as_planned(design)
    air = air_of(standing, repository.catalogue, view.band)
    spread = (view.floor, view.band, view.rank, view.direction)
    quick = quick or view.quick
    if view.show != "difference":
        return relief(air, *spread, quick, view.show)
    now, then = _compared(repository, project_id, design, air, view)
    for one in (now, then):
        _known_floor(one.design, view.floor)
    return difference(now, then, *spread, quick)


def _compared(
    repository: Repository, project_id: str, design: Design, plan: RadioEnvironment, view: View
) -> tuple[RadioEnvironment, RadioEnvironment]:
    """Return what a difference is of, and what it is from."""
    catalogue = repository.catalogue
    kind, _, key = view.against.partition(":")
    if kind == "without":
        return connected(plan.without(frozenset(key.split(",")))), plan
    if kind == "revision" and (number := whole_number(key)) is not None:
        earlier = as_planned(repository.at(project_id, number))
        return plan, air_of(earlier, catalogue, view.band)
    variant = design.of(Variant).get(key)
    if kind == "variant" and variant is not None:
        other = as_planned(with_changes(design, variant, catalogue))
        return air_of(other, catalogue, view.band), plan
    what = "say revision:, variant: or without: and what of it"
    raise DesignError([Problem("against", what)])


def _habitual(design: Design, catalogue: Catalogue, wanted: WalkRequest) -> Walk:
    """Return a walk of the brief."""
    habit = design.of(UsualRoute).get(wanted.habit)
    if habit is None:
        raise DesignError([Problem("habit", f"there is no walk {wanted.habit[:40]!r}")])
    found = walk_of(air_of(design, catalogue), habit, wanted.band)
    if found is None:
        what = "no stair leads from storey to storey; say in which room one does"
        raise DesignError([Problem("habit", what)])
    return found


def _known_floor(design: Design, floor: str) -> None:
    if floor not in design.of(Floor):
        raise DesignError([Problem("floor", f"there is no floor {floor[:40]!r}")])


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


def _known_band(band: str) -> Band:
    known: Band | None = next((b for b in BANDS if b == band), None)
    if known is None:
        raise DesignError([Problem("band", f"there are {', '.join(BANDS)}")])
    return known


def _number(text: str, where: str) -> float:
    try:
        value = float(text)
    except ValueError:
        value = float("nan")
    if not abs(value) <= 10_000:
        raise DesignError([Problem(where, "should be a distance in metres")])
    return value


def _space_name(design: Design, floor: str, x: float, y: float) -> str | None:
    room = storeys_of(design).room_at(floor, (x, y))
    return room.name if room else None
