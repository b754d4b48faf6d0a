"""Routes for jobs: begin one, see how far it is, stop it."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Any

from apiflask import APIBlueprint
from flask import Response, request

from ..core.base.progress import Progress, ShowBest
from ..core.design import DesignError, Problem
from ..formats.papers import History
from ..formats.sandbox.drawings import import_confined
from ..jobs import KINDS, EmbeddedRunner, Stopped, Work
from ..jobs.runner import JobCall
from ..store import Repository, Saved
from ..store.firm import FirmHeads
from ..store.jobs import JobRow, Jobs
from ..store.observed import observed
from ..store.papers import Papers
from ..store.prices import FirmPrices
from ..store.records import Records
from .firm import head_of
from .models import Job, JobRequest
from .transfer import choice_of, file_stem
from .wire import AUTHOR, json_of

_HISTORY = 20  # lines of the journal on a technician's paper


def make_work(repository: Repository) -> APIBlueprint:
    """Return the blueprint over a repository, with the runner embedded."""
    routes = APIBlueprint("work", __name__, url_prefix="/api")
    jobs = Jobs(repository.engine) if repository is not None else None
    papers = Papers(repository.engine) if repository is not None else None
    runner = EmbeddedRunner(jobs) if jobs is not None else None

    def begun(kind: str, project_id: str | None, task: JobCall) -> Response:
        assert jobs is not None and runner is not None
        job_id = jobs.create(kind, project_id)
        runner.begin(job_id, task)
        return json_of(_wire(jobs.get(job_id)), 202)

    @routes.post("/projects/<project_id>/jobs")
    @routes.input(JobRequest, arg_name="wanted")
    @routes.output(Job, status_code=202)
    def begin(project_id: str, wanted: JobRequest) -> Response:
        if wanted.kind not in KINDS:
            listed = ", ".join(KINDS)
            raise DesignError([Problem("kind", f"there is no such job; there are {listed}")])
        KINDS[wanted.kind].parse(wanted.arguments)  # what is wrong with them is told at once
        saved = repository.load(project_id)  # as it is now, however long the job has to wait

        def task(progress: Progress, show: ShowBest) -> dict[str, Any]:
            return run_kind(repository, saved, wanted.kind, wanted.arguments, progress, show)

        return begun(wanted.kind, project_id, task)

    @routes.get("/projects/<project_id>/papers/<key>")
    def paper(project_id: str, key: str) -> Response:
        assert papers is not None
        found = papers.get(project_id, key)
        response = Response(found.data, mimetype="application/pdf")
        stem = file_stem(repository.load(project_id).name)
        response.headers["Content-Disposition"] = f'attachment; filename="{stem}-{found.name}"'
        return response

    @routes.post("/import/dxf")
    @routes.output(Job, status_code=202)
    def draw() -> Response:
        drawing = request.files.get("drawing")
        if drawing is None:
            raise DesignError([Problem("drawing", "no drawing came with the request")])
        choice, data = choice_of(request.form.get("choice", "")), drawing.read()

        def work(progress: Progress, _show: ShowBest) -> dict[str, Any]:
            try:
                design = import_confined(data, choice, repository.catalogue, progress)
            except DesignError:
                if not progress(0, 0):
                    raise Stopped from None  # ended by whoever asked, not by its limits
                raise
            if not progress(1, 1):
                raise Stopped
            saved = repository.create(choice.name, design, AUTHOR, "Drawn from DXF")
            return {"project": saved.id}

        return begun("dxf", None, work)

    @routes.get("/jobs/<job_id>")
    @routes.output(Job)
    def seen(job_id: str) -> Response:
        assert jobs is not None
        return json_of(_wire(jobs.get(job_id)))

    @routes.post("/jobs/<job_id>/stop")
    @routes.output(Job)
    def stop(job_id: str) -> Response:
        assert jobs is not None and runner is not None
        jobs.get(job_id)
        runner.stop(job_id)
        return json_of(_wire(jobs.get(job_id)))

    return routes


def run_kind(
    repository: Repository,
    saved: Saved,
    kind: str,
    arguments: Mapping[str, Any],
    progress: Progress,
    show: ShowBest = lambda _: None,
) -> dict[str, Any]:
    """Run a kind of job on a project as it was saved, and return its result."""
    papers, records = Papers(repository.engine), Records(repository.engine)
    firm = FirmHeads(repository.engine)
    today = datetime.now(UTC).date()
    work = Work(
        saved.name,
        saved.revision,
        saved.design,
        repository.catalogue,
        progress,
        lambda what, name, data: papers.keep(saved.id, what, name, saved.revision, data),
        FirmPrices(repository.engine).all,
        lambda evaluation: observed(repository, saved, evaluation, today),
        lambda: _history(repository, saved.id),
        lambda record: records.append(saved.id, record),
        lambda: records.last_number(saved.id),
        show,
        lambda: head_of(firm),
        lambda: firm.next_offer(today.year),
    )
    return KINDS[kind].run(work, KINDS[kind].parse(arguments))


def _history(repository: Repository, project_id: str) -> list[History]:
    return [
        History(row["revision"], f"{row['made']:%Y-%m-%d}", row["author"], row["label"])
        for row in repository.history(project_id, _HISTORY)
    ]


def _wire(row: JobRow) -> Job:
    return Job.model_validate(vars(row))
