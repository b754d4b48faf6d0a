"""Routes for jobs: begin one, see how far it is, stop it."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from apiflask import APIBlueprint
from flask import Response, abort, request

from ..core.base.progress import Progress, ShowBest
from ..core.design import Design, DesignError, Problem
from ..core.several import storeys_joined
from ..formats.dxf import DrawingChoice
from ..formats.dxf_look import LEFT_OUT
from ..formats.sandbox.drawings import import_confined
from ..jobs import KINDS, Stopped, run_kind
from ..jobs.runner import JobCall
from ..questions import parsed
from ..store.drawing_layers import remember_layers
from ..store.jobs import AlreadyRunning, JobRow
from .desk import desk, stores
from .models import Job, JobRequest
from .transfer import choice_of, file_stem
from .wire import AUTHOR, download, json_of

routes = APIBlueprint("jobs", __name__, url_prefix="/api")


def _begun(kind: str, project_id: str | None, call: JobCall, alone: bool = False) -> Response:
    jobs = stores().jobs
    try:
        job_id = jobs.create(kind, project_id, alone)
    except AlreadyRunning:
        abort(409, "One goes on here already, perhaps on another device: wait until it ends, or stop it.")
    desk().runner.begin(job_id, call)
    return json_of(_wire(jobs.get(job_id)), 202)


@routes.post("/projects/<project_id>/jobs")
@routes.input(JobRequest, arg_name="wanted")
@routes.output(Job, status_code=202)
def begin_job(project_id: str, wanted: JobRequest) -> Response:
    if wanted.kind not in KINDS:
        listed = ", ".join(KINDS)
        raise DesignError([Problem("kind", f"there is no such job; there are {listed}")])
    parsed(KINDS[wanted.kind].asked, wanted.arguments)  # what is wrong with them is told at once
    kept, place = stores(), desk().controllers
    saved = kept.repository.load(project_id)  # as it is now, however long the job has to wait

    def call(progress: Progress, show: ShowBest) -> dict[str, Any]:
        return run_kind(kept, saved, wanted.kind, wanted.arguments, progress, show, place)

    return _begun(wanted.kind, project_id, call, KINDS[wanted.kind].alone)


@routes.get("/projects/<project_id>/papers/<key>")
def get_paper(project_id: str, key: str) -> Response:
    found = stores().papers.get(project_id, key)
    stem = file_stem(stores().repository.load(project_id).name)
    return download(found.data, "application/pdf", f"{stem}-{found.name}")


@routes.post("/import/dxf")
@routes.output(Job, status_code=202)
def draw_project() -> Response:
    repository = stores().repository

    def done(choice: DrawingChoice, design: Design) -> dict[str, Any]:
        return {"project": repository.create(choice.name, design, AUTHOR, "Drawn from DXF").id}

    return _drawn(None, done)


@routes.post("/projects/<project_id>/import/dxf")
@routes.output(Job, status_code=202)
def draw_storeys(project_id: str) -> Response:
    """Find the changes that put a drawing's storeys on a building; whoever asked makes them or not."""
    kept = stores()
    building = request.form.get("building", "")
    kept.repository.load(project_id)

    def done(_: DrawingChoice, design: Design) -> dict[str, Any]:
        catalogue = kept.repository.catalogue
        changes = storeys_joined(kept.repository.load(project_id).design, design, building, catalogue)
        return {"changes": [c.model_dump(mode="json") for c in changes]}

    return _drawn(project_id, done)


def _drawn(project_id: str | None, done: Callable[[DrawingChoice, Design], dict[str, Any]]) -> Response:
    """Begin to read the drawing that came with the request, as was chosen; what it gives is ``done`` with."""
    drawing = request.files.get("drawing")
    if drawing is None:
        raise DesignError([Problem("drawing", "no drawing came with the request")])
    choice, data = choice_of(request.form.get("choice", "")), drawing.read()
    repository = stores().repository

    def call(progress: Progress, _show: ShowBest) -> dict[str, Any]:
        try:
            design = import_confined(data, choice, repository.catalogue, progress)
        except DesignError:
            if not progress(0, 0):
                raise Stopped from None  # ended by whoever asked, not by its limits
            raise
        if not progress(1, 1):
            raise Stopped
        found = done(choice, design)
        remember_layers(repository, {**dict.fromkeys(choice.left_out, LEFT_OUT), **choice.layers})
        return found

    return _begun("dxf", project_id, call)


@routes.get("/jobs/<job_id>")
@routes.output(Job)
def get_job(job_id: str) -> Response:
    return json_of(_wire(stores().jobs.get(job_id)))


@routes.post("/jobs/<job_id>/stop")
@routes.output(Job)
def stop_job(job_id: str) -> Response:
    stores().jobs.get(job_id)
    desk().runner.stop(job_id)
    return json_of(_wire(stores().jobs.get(job_id)))


def _wire(row: JobRow) -> Job:
    return Job.model_validate(vars(row))
