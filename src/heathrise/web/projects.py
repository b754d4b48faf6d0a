"""Routes for projects: list, open, change, preview, evaluate."""

from __future__ import annotations

import contextlib
from collections.abc import Iterator

from apiflask import APIBlueprint
from flask import Response, jsonify, request

from ..core.catalogue import Catalogue
from ..core.context.integrity import check
from ..core.context.storeys import SLAB_M
from ..core.design import Building, Design, DesignError, Element, Floor, Site, apply, design_of
from ..core.evaluation.evaluate import evaluate
from ..core.records import Standing
from ..store import Repository, Saved, UnknownProject
from ..store.records import Records
from .answers import Answers
from .breaker import Breaker
from .compress import shared
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


def make_projects(repository: Repository, answers: Answers, breaker: Breaker) -> APIBlueprint:
    """Return the blueprint over a repository."""
    routes = APIBlueprint("projects", __name__, url_prefix="/api")

    @routes.get("/health")
    def health() -> Response:
        return jsonify(ok=True, database=breaker.answers, memory=KEEPER.told())

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
        stands = Records(repository.engine).standings()
        lines = [
            ProjectLine(
                id=r.id,
                name=r.name,
                revision=r.revision,
                opened=r.opened.isoformat(),
                stand=stands.get(r.id, Standing()),
            )
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
    @routes.output(AnswerLine, description="A Line in JSON on each line: the answer, then the relief")
    def change(project_id: str, edit: ChangeRequest) -> Response:
        prepared = repository.prepare(project_id, edit.revision, edit.changes)
        # Worked out before it is saved: what cannot be worked out never locks a project.
        catalogue = repository.catalogue
        worked = answers.keep(evaluate(prepared.design, catalogue, "figures"), edit.revision + 1)
        saved = repository.commit(prepared, AUTHOR, edit.label)
        answers.settle(saved, catalogue, worked)

        def lines() -> Iterator[bytes]:
            yield _line(answers.text(worked, edit.base))
            if edit.view is None:
                return
            # What is on view may have gone with the edit: a storey, or what it is compared with.
            with contextlib.suppress(DesignError, UnknownProject):
                drawn = relief_of(repository, project_id, saved.design, edit.view)
                yield AnswerLine(relief=drawn).model_dump_json().encode() + b"\n"

        return Response(lines(), mimetype=LINES)

    @routes.post("/projects/<project_id>/preview")
    @routes.input(PreviewRequest, arg_name="edit")
    @routes.output(AnswerLine, description="A Line in JSON on each line: the relief, then the answer")
    def preview(project_id: str, edit: PreviewRequest) -> Response:
        saved = repository.load(project_id)
        design = apply(saved.design, edit.changes) if edit.changes else saved.design
        catalogue = repository.catalogue
        check(design, catalogue)
        drawn = relief_of(repository, project_id, design, edit.view, quick=True) if edit.view else None

        def lines() -> Iterator[bytes]:
            # The relief is on the screen while the rest is still being worked out.
            if drawn:
                yield AnswerLine(relief=drawn).model_dump_json().encode() + b"\n"
            if edit.figures:
                worked = answers.once(evaluate(design, catalogue, "preview"), saved.revision)
                yield _line(answers.text(worked, edit.base))

        return Response(lines(), mimetype=LINES)

    @routes.get("/projects/<project_id>/evaluation")
    @routes.input(Known, location="query", arg_name="known")
    @routes.output(Answer)
    def evaluation(project_id: str, known: Known) -> Response:
        worked = answers.figures(repository.load(project_id), repository.catalogue)
        return shared(Response(answers.text(worked, known.base), mimetype="application/json"))

    @routes.get("/projects/<project_id>/history")
    def history(project_id: str) -> Response:
        repository.load(project_id)
        rows = repository.history(project_id)
        return jsonify(history=[{**r, "made": r["made"].isoformat()} for r in rows])

    return routes
