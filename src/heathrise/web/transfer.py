"""Routes that bring files in and out."""

from __future__ import annotations

import json
import re
from collections.abc import Sequence

from apiflask import APIBlueprint
from flask import Response, abort, request
from pydantic import ValidationError

from ..core.catalogue import Catalogue, OwnGear
from ..core.design import DesignError, Problem, describe
from ..formats.dxf import DrawingChoice, Inspection
from ..formats.dxf_look import as_remembered
from ..formats.geojson import is_geojson, read_geojson
from ..formats.project_file import load_project, once, project_schema
from ..formats.registry import formats
from ..formats.sandbox.drawings import inspect_confined
from ..formats.settings_export import SettingsRead, read_settings, settings_schema
from ..formats.whole_file import is_whole, pack, unpack
from ..store.drawing_layers import remembered_layers
from ..store.whole import restore, whole_of
from .desk import stores
from .models import ProjectDocument
from .projects import document_of
from .wire import AUTHOR, download, json_of

SCHEMA_FILE = "project-19.json"
SETTINGS_SCHEMA_FILE = "settings-2.json"
OUT = {name: row for name, row in formats("out").items() if not row.paper}


routes = APIBlueprint("transfer", __name__, url_prefix="/api")


@routes.get("/projects/<project_id>/export/<what>")
def export_project(project_id: str, what: str) -> Response:
    row = OUT.get(what)
    if row is None:
        abort(404, f"There is no export {what[:40]!r}; there are {', '.join(OUT)}.")
    saved, plan = stores().plans.load(project_id)
    text = row.write(saved.name, plan)
    return download(text, row.media, f"{file_stem(saved.name)}-{what}")


@routes.get(f"/schema/{SCHEMA_FILE}")
def get_schema() -> dict[str, object]:
    return project_schema()


@routes.get(f"/schema/{SETTINGS_SCHEMA_FILE}")
def get_settings_schema() -> dict[str, object]:
    return settings_schema()


@routes.post("/projects/<project_id>/settings/read")
@routes.output(SettingsRead)
def read_settings_file(project_id: str) -> Response:
    """Show what a settings file would change in the plan; whoever looked takes the changes or leaves them."""
    _, plan = stores().plans.load(project_id)
    return json_of(read_settings(request.get_data(), plan))


@routes.get("/projects/<project_id>/whole.zip")
def export_whole(project_id: str) -> Response:
    """Hand over a project with all its revisions, records, pictures and papers; its keys stay."""
    saved, plan = stores().plans.load(project_id)
    data = pack(whole_of(stores().repository, project_id), plan)
    return download(data, "application/zip", f"{file_stem(saved.name)}-whole.zip")


@routes.post("/import/project")
@routes.output(ProjectDocument, status_code=201)
def open_project_file() -> Response:
    """Open a project file, a whole project, or a plan as GeoJSON."""
    if is_whole(request.get_data()):
        whole = unpack(request.get_data(), stores().repository.catalogue, _taken)
        return json_of(document_of(restore(stores().repository, whole)), 201)
    read = read_geojson if is_geojson(request.get_data()) else load_project
    project = read(request.get_data(), stores().repository.catalogue)
    _taken(project.gear)
    saved = stores().repository.create(project.name, project.design, AUTHOR, "Opened from a file")
    return json_of(document_of(saved), 201)


def _taken(gear: Sequence[OwnGear]) -> Catalogue:
    """Take in what a plan brings along: it stays with this plan, the firm offers it when it says so."""
    return stores().repository.put_gear([g.model_copy(update={"withdrawn": True}) for g in gear])


@routes.post("/import/dxf/inspect")
@routes.output(Inspection)
def inspect_drawing() -> Response:
    found = inspect_confined(request.get_data())
    return json_of(as_remembered(found, remembered_layers(stores().repository)))


def file_stem(name: str) -> str:
    """Return what the files of a project begin with."""
    return re.sub(r"[^A-Za-z0-9]+", "-", name).strip("-").lower() or "project"


def choice_of(text: str) -> DrawingChoice:
    """Read what was chosen of a drawing's layers.

    Raises:
        DesignError: with the path of what is wrong.
    """
    try:
        return DrawingChoice.model_validate(json.loads(text, object_pairs_hook=once))
    except ValueError as error:
        if not isinstance(error, ValidationError):
            raise DesignError([Problem("choice", "should be what was chosen, in JSON")]) from None
        raise DesignError(list(describe(error, "choice"))) from None
