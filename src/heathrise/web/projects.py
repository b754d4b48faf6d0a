"""Routes for projects: list, open, change, preview, evaluate."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator

from apiflask import APIBlueprint
from flask import Response, jsonify, request
from pydantic import BaseModel

from ..core.bands import BANDS, Band
from ..core.catalogue import Catalogue
from ..core.design import (
    Building,
    Design,
    DesignError,
    Element,
    Floor,
    Problem,
    Site,
    apply,
    design_of,
)
from ..core.evaluate import evaluate
from ..core.integrity import check
from ..core.kept import as_planned, as_today
from ..core.signal import (
    MOST_SECONDS,
    Relief,
    SpotView,
    Walk,
    air_of,
    explain_spot,
    readings_at,
    relief,
    walk,
)
from ..core.storeys import SLAB_M, storeys_of
from ..store import Repository, Saved
from .answers import Answers
from .breaker import Breaker
from .models import (
    Answer,
    ChangeRequest,
    Elements,
    FirmFigure,
    Known,
    LevelList,
    LevelReading,
    Line,
    NewProject,
    PreviewRequest,
    ProjectDocument,
    ProjectLine,
    ProjectList,
    Rename,
    View,
    WalkRequest,
)

AUTHOR = "installer"
LINES = "application/x-ndjson"


def json_of(model: BaseModel, status: int = 200) -> Response:
    """Return a model as a response, written by Pydantic at once."""
    return Response(model.model_dump_json(), status, mimetype="application/json")


def document_of(saved: Saved) -> ProjectDocument:
    rows = {kind: list(table.values()) for kind, table in saved.design.tables.items()}
    return ProjectDocument(
        id=saved.id, name=saved.name, revision=saved.revision, elements=Elements(**rows)
    )


def blank_design(new: NewProject) -> Design:
    """Return a design with empty storeys, ready to be drawn on."""
    site = Site(id="site", kind=new.kind, domain=new.domain, line_mbps=new.line_mbps)
    elements: list[Element] = [site, Building(id="building-1", name="House")]
    names = ["Ground floor", "First floor", "Second floor", "Third floor", "Fourth floor"]
    for level in range(new.storeys):
        name = names[level] if level < len(names) else f"Floor {level}"
        floor = Floor(
            id=f"floor-{level}", building="building-1", name=name, level=level,
            elevation_m=round(level * (new.ceiling_height_m + SLAB_M), 2),
            ceiling_height_m=new.ceiling_height_m,
        )  # fmt: skip
        elements.append(floor)
    return design_of(elements)


def make_projects(repository: Repository, answers: Answers, breaker: Breaker) -> APIBlueprint:
    """Return the blueprint over a repository."""
    routes = APIBlueprint("projects", __name__, url_prefix="/api")

    @routes.get("/health")
    def health() -> Response:
        return jsonify(ok=True, database=breaker.answers)

    @routes.after_request
    def answered(response: Response) -> Response:
        asked = request.endpoint not in ("projects.health",)
        if asked and response.status_code in (200, 201, 409):
            breaker.succeeded()
        return response

    @routes.get("/catalogue")
    @routes.output(Catalogue)
    def shelf() -> Response:
        return json_of(repository.catalogue)

    @routes.put("/firm/figures")
    @routes.input(FirmFigure, arg_name="own")
    @routes.output(Catalogue)
    def firm_figure(own: FirmFigure) -> Response:
        return json_of(repository.set_firm_figure(own.figure, own.value))

    @routes.get("/projects")
    @routes.output(ProjectList)
    def listed() -> Response:
        lines = [
            ProjectLine(id=r.id, name=r.name, revision=r.revision, opened=r.opened.isoformat())
            for r in repository.projects()
        ]
        return json_of(ProjectList(projects=lines))

    @routes.post("/projects")
    @routes.input(NewProject, arg_name="new")
    @routes.output(ProjectDocument, status_code=201)
    def begin(new: NewProject) -> Response:
        saved = repository.create(new.name, blank_design(new), AUTHOR, "New project")
        return json_of(document_of(saved), 201)

    @routes.get("/projects/<project_id>")
    @routes.output(ProjectDocument)
    def opened(project_id: str) -> Response:
        saved = repository.load(project_id)
        repository.opened(project_id)
        return json_of(document_of(saved))

    @routes.patch("/projects/<project_id>")
    @routes.input(Rename, arg_name="new")
    def rename(project_id: str, new: Rename) -> Response:
        repository.rename(project_id, new.name)
        return jsonify(name=new.name)

    @routes.post("/projects/<project_id>/changes")
    @routes.input(ChangeRequest, arg_name="edit")
    @routes.output(Line, description="A Line in JSON on each line: the answer, then the relief")
    def change(project_id: str, edit: ChangeRequest) -> Response:
        prepared = repository.prepare(project_id, edit.revision, edit.changes)
        # Worked out before it is saved: what cannot be worked out never locks a project.
        catalogue = repository.catalogue
        worked = answers.keep(evaluate(prepared.design, catalogue, "figures"), edit.revision + 1)
        saved = repository.commit(prepared, AUTHOR, edit.label)
        answers.settle(saved, catalogue, worked)

        def lines() -> Iterator[str]:
            yield f'{{"answer":{answers.text(worked, edit.base)}}}\n'
            if edit.view is not None and edit.view.floor in saved.design.of(Floor):
                yield Line(relief=_relief(saved.design, edit.view)).model_dump_json() + "\n"

        return Response(lines(), mimetype=LINES)

    @routes.post("/projects/<project_id>/preview")
    @routes.input(PreviewRequest, arg_name="edit")
    @routes.output(Line, description="A Line in JSON on each line: the relief, then the answer")
    def preview(project_id: str, edit: PreviewRequest) -> Response:
        saved = repository.load(project_id)
        design = apply(saved.design, edit.changes) if edit.changes else saved.design
        catalogue = repository.catalogue
        check(design, catalogue)
        drawn = _relief(design, edit.view, quick=True) if edit.view else None

        def lines() -> Iterator[str]:
            # The relief is on the screen while the rest is still being worked out.
            if drawn:
                yield Line(relief=drawn).model_dump_json() + "\n"
            if edit.figures:
                worked = answers.once(evaluate(design, catalogue, "preview"), saved.revision)
                yield f'{{"answer":{answers.text(worked, edit.base)}}}\n'

        return Response(lines(), mimetype=LINES)

    @routes.get("/projects/<project_id>/evaluation")
    @routes.input(Known, location="query", arg_name="known")
    @routes.output(Answer)
    def evaluation(project_id: str, known: Known) -> Response:
        worked = answers.figures(repository.load(project_id), repository.catalogue)
        text = answers.text(worked, known.base)
        return Response(text, mimetype="application/json")

    @routes.get("/projects/<project_id>/relief")
    @routes.input(View, location="query", arg_name="view")
    @routes.output(Relief)
    def drawn(project_id: str, view: View) -> Response:
        return json_of(_relief(repository.load(project_id).design, view))

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
        known: Band | None = next((b for b in BANDS if b == band), None)
        if known is None:
            raise DesignError([Problem("band", f"there are {', '.join(BANDS)}")])
        at = _number(x, "x"), _number(y, "y")
        air = air_of(as_planned(design), repository.catalogue)
        return json_of(explain_spot(air, floor, at, known))

    @routes.post("/projects/<project_id>/walk")
    @routes.input(WalkRequest, arg_name="wanted")
    @routes.output(Walk)
    def walked(project_id: str, wanted: WalkRequest) -> Response:
        """Carry a call along a path over rooms, stairs and storeys."""
        design = as_planned(repository.load(project_id).design)
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

    @routes.get("/projects/<project_id>/history")
    def history(project_id: str) -> Response:
        repository.load(project_id)
        rows = repository.history(project_id)
        return jsonify(history=[{**r, "made": r["made"].isoformat()} for r in rows])

    def _relief(design: Design, view: View, quick: bool = False) -> Relief:
        _known_floor(design, view.floor)
        standing = as_today(design) if view.when == "today" else as_planned(design)
        air = air_of(standing, repository.catalogue, view.band)
        return relief(air, view.floor, view.band, view.rank, view.direction, quick, view.show)

    return routes


def _known_floor(design: Design, floor: str) -> None:
    if floor not in design.of(Floor):
        raise DesignError([Problem("floor", f"there is no floor {floor[:40]!r}")])


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
