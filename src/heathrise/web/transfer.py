"""Routes that bring files in and out."""

from __future__ import annotations

import re
from collections.abc import Callable

from apiflask import APIBlueprint
from flask import Response, abort, request
from pydantic import ValidationError

from ..core.design import DesignError, Problem, describe
from ..core.evaluate import Evaluation
from ..formats.confined import import_confined, inspect_confined
from ..formats.dxf import Choice, Inspection
from ..formats.project_file import Project, dump_project, load_project, project_schema
from ..formats.settings_export import settings_json, settings_yaml
from ..formats.tables_csv import cable_schedule, port_map
from ..store import Repository, Saved
from .answers import Answers
from .models import ProjectDocument
from .projects import AUTHOR, document_of, json_of

_Writer = Callable[[Saved, Evaluation], str]
_CSV, _JSON, _YAML = "text/csv", "application/json", "application/yaml"
PROJECT_FILE = "project.json"
EXPORTS: dict[str, tuple[str, _Writer]] = {
    "cables.csv": (_CSV, lambda s, e: cable_schedule(s.design, e)),
    "ports.csv": (_CSV, lambda s, e: port_map(s.design, e)),
    "settings.json": (_JSON, lambda s, e: settings_json(s.name, e)),
    "settings.yaml": (_YAML, lambda s, e: settings_yaml(s.name, e)),
    "evaluation.json": (_JSON, lambda _, e: e.model_dump_json(indent=1)),
}


def make_transfer(repository: Repository, answers: Answers) -> APIBlueprint:
    """Return the blueprint over a repository."""
    routes = APIBlueprint("transfer", __name__, url_prefix="/api")

    @routes.get("/projects/<project_id>/export/<what>")
    def export(project_id: str, what: str) -> Response:
        if what not in EXPORTS and what != PROJECT_FILE:
            listed = ", ".join((PROJECT_FILE, *EXPORTS))
            abort(404, f"There is no export {what[:40]!r}; there are {listed}.")
        saved = repository.load(project_id)
        if what == PROJECT_FILE:
            # What was drawn can be taken away whatever becomes of working it out.
            kind, text = _JSON, dump_project(Project(saved.name, saved.design))
        else:
            kind, write = EXPORTS[what]
            text = write(saved, answers.whole(saved, repository.catalogue))
        stem = re.sub(r"[^A-Za-z0-9]+", "-", saved.name).strip("-").lower() or "project"
        response = Response(text, mimetype=kind)
        response.headers["Content-Disposition"] = f'attachment; filename="{stem}-{what}"'
        return response

    @routes.get("/schema/project-3.json")
    def schema() -> dict[str, object]:
        return project_schema()

    @routes.post("/import/project")
    @routes.output(ProjectDocument, status_code=201)
    def open_file() -> Response:
        project = load_project(request.get_data(), repository.catalogue)
        saved = repository.create(project.name, project.design, AUTHOR, "Opened from a file")
        return json_of(document_of(saved), 201)

    @routes.post("/import/dxf/inspect")
    @routes.output(Inspection)
    def look() -> Response:
        return json_of(inspect_confined(request.get_data()))

    @routes.post("/import/dxf")
    @routes.output(ProjectDocument, status_code=201)
    def draw() -> Response:
        drawing = request.files.get("drawing")
        if drawing is None:
            raise DesignError([Problem("drawing", "no drawing came with the request")])
        try:
            choice = Choice.model_validate_json(request.form.get("choice", ""))
        except ValidationError as error:
            raise DesignError(list(describe(error, "choice"))) from None
        design = import_confined(drawing.read(), choice, repository.catalogue)
        saved = repository.create(choice.name, design, AUTHOR, "Drawn from DXF")
        return json_of(document_of(saved), 201)

    return routes
