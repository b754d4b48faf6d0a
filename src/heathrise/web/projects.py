"""Routes for projects: list, open, change, preview, evaluate."""

from __future__ import annotations

import contextlib
from collections.abc import Iterator

from apiflask import APIBlueprint
from flask import Response, current_app, jsonify, request

from ..core.catalogue import Catalogue
from ..core.context.integrity import check
from ..core.context.storeys import SLAB_M
from ..core.design import Building, Design, DesignError, Element, Floor, Site, design_of
from ..core.records import Standing
from ..core.views.shown import shown
from ..store import Saved, UnknownProject
from .breaker import asks_database
from .compress import shared
from .desk import desk, stores
from .memory import KEEPER
from .models import (
    Answer,
    AnswerLine,
    ChangeRequest,
    Elements,
    FirmFigure,
    Known,
    NewProject,
    PreviewRequest,
    ProjectDocument,
    ProjectLine,
    ProjectList,
    Rename,
)
from .signal import relief_of
from .wire import AUTHOR, json_of

LINES = "application/x-ndjson"


def document_of(saved: Saved) -> ProjectDocument:
    rows = {kind: list(table.values()) for kind, table in saved.design.tables.items()}
    return ProjectDocument(id=saved.id, name=saved.name, revision=saved.revision, elements=Elements(**rows))


def blank_design(new: NewProject) -> Design:
    """Return a design with empty storeys, ready to be drawn on."""
    site = Site(id="site", kind=new.kind, domain=new.domain, line_mbps=new.line_mbps)
    elements: list[Element] = [site, Building(id="building-1", name="House")]
    names = ["Ground floor", "First floor", "Second floor", "Third floor", "Fourth floor"]
    for level in range(new.storeys):
        name = names[level] if level < len(names) else f"Floor {level}"
        floor = Floor(
            id=f"floor-{level}",
            building="building-1",
            name=name,
            level=level,
            elevation_m=round(level * (new.ceiling_height_m + SLAB_M), 2),
            ceiling_height_m=new.ceiling_height_m,
        )
        elements.append(floor)
    return design_of(elements)


def _line(answer: bytes) -> bytes:
    return b'{"answer":' + answer + b"}\n"


routes = APIBlueprint("projects", __name__, url_prefix="/api")


@routes.get("/health")
def get_health() -> Response:
    return jsonify(ok=True, database=desk().breaker.answers, memory=KEEPER.told())


@routes.after_request
def answered(response: Response) -> Response:
    if asks_database(request.path) and response.status_code in (200, 201, 409):
        desk().breaker.succeeded()
    return response


@routes.get("/catalogue")
@routes.output(Catalogue)
def get_catalogue() -> Response:
    return json_of(stores().repository.catalogue)


@routes.put("/firm/figures")
@routes.input(FirmFigure, arg_name="own")
@routes.output(Catalogue)
def set_firm_figure(own: FirmFigure) -> Response:
    return json_of(stores().repository.set_firm_figure(own.figure, own.value))


@routes.get("/projects")
@routes.output(ProjectList)
def list_projects() -> Response:
    stands, archived = stores().records.standings(), stores().revisions.archived()
    lines = [
        ProjectLine(
            id=r.id,
            name=r.name,
            revision=r.revision,
            opened=r.opened.isoformat(),
            stand=stands.get(r.id, Standing()),
            archived=r.id in archived,
        )
        for r in stores().repository.projects()
    ]
    return json_of(ProjectList(projects=lines))


@routes.post("/projects")
@routes.input(NewProject, arg_name="new")
@routes.output(ProjectDocument, status_code=201)
def begin_project(new: NewProject) -> Response:
    saved = stores().repository.create(new.name, blank_design(new), AUTHOR, "New project")
    return json_of(document_of(saved), 201)


@routes.get("/projects/<project_id>")
@routes.output(ProjectDocument)
def open_project(project_id: str) -> Response:
    saved = stores().repository.load(project_id)
    stores().repository.opened(project_id)
    return json_of(document_of(saved))


@routes.patch("/projects/<project_id>")
@routes.input(Rename, arg_name="new")
def rename_project(project_id: str, new: Rename) -> Response:
    stores().repository.rename(project_id, new.name)
    return jsonify(name=new.name)


@routes.post("/projects/<project_id>/changes")
@routes.input(ChangeRequest, arg_name="edit")
@routes.output(AnswerLine, description="An AnswerLine in JSON on each line: the answer, then the relief")
def change_project(project_id: str, edit: ChangeRequest) -> Response:
    prepared = stores().repository.prepare(project_id, edit.revision, edit.changes)
    # Worked out before it is saved: what cannot be worked out never locks a project.
    plan, answers = stores().plans.of(prepared), desk().answers
    worked = answers.figures(plan, edit.revision + 1)
    stores().repository.commit(prepared, AUTHOR, edit.label)
    app = current_app._get_current_object()  # type: ignore[attr-defined]

    def lines() -> Iterator[bytes]:
        yield _line(answers.text(worked, edit.base))
        if edit.view is None:
            return
        # What is on view may have gone with the edit: a storey, or what it is compared with.
        with contextlib.suppress(DesignError, UnknownProject):
            # Its own, and never across a line: who hangs up half way leaves none behind.
            with app.app_context():
                drawn = relief_of(project_id, plan, edit.view)
            yield AnswerLine(relief=drawn).model_dump_json().encode() + b"\n"

    return Response(lines(), mimetype=LINES)


@routes.post("/projects/<project_id>/preview")
@routes.input(PreviewRequest, arg_name="edit")
@routes.output(AnswerLine, description="An AnswerLine in JSON on each line: the relief, then the answer")
def preview_project(project_id: str, edit: PreviewRequest) -> Response:
    saved, plan = stores().plans.load(project_id)
    after = plan.after(edit.changes).hastily()
    check(after.drawn, after.shelf)
    drawn = relief_of(project_id, after, edit.view, quick=True) if edit.view else None
    answers = desk().answers

    def lines() -> Iterator[bytes]:
        # The relief is on the screen while the rest is still being worked out.
        if drawn:
            yield AnswerLine(relief=drawn).model_dump_json().encode() + b"\n"
        if edit.figures:
            yield _line(answers.text(answers.once(shown(after), saved.revision), edit.base))

    return Response(lines(), mimetype=LINES)


@routes.get("/projects/<project_id>/evaluation")
@routes.input(Known, location="query", arg_name="known")
@routes.output(Answer)
def get_evaluation(project_id: str, known: Known) -> Response:
    saved, plan = stores().plans.load(project_id)
    answers = desk().answers
    worked = answers.figures(plan, saved.revision)
    return shared(Response(answers.text(worked, known.base), mimetype="application/json"))


@routes.get("/projects/<project_id>/history")
def get_history(project_id: str) -> Response:
    stores().repository.load(project_id)
    rows = stores().repository.history(project_id)
    return jsonify(history=[{**r, "made": r["made"].isoformat()} for r in rows])
