"""Routes for what a project has been: revisions by name, beside one another, gone back to; copies."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from apiflask import APIBlueprint
from flask import Response, jsonify
from pydantic import Field

from ..asked import Changes
from ..core.design import DesignError, Problem
from ..core.views.revisions import RevisionDifference, changes_between, difference
from .api_model import ApiModel
from .demo import sketch_of
from .desk import stores
from .models import ProjectDocument, SiteSketch
from .projects import document_of
from .wire import AUTHOR, json_of

routes = APIBlueprint("revisions", __name__, url_prefix="/api/projects/<project_id>")


class RevisionLine(ApiModel):
    """A revision: what was done, and what somebody called it."""

    revision: int
    made: datetime
    author: str
    label: str
    name: str


class RevisionList(ApiModel):
    revisions: list[RevisionLine]


class RevisionName(ApiModel):
    name: Annotated[str, Field(max_length=120)]


class Against(ApiModel):
    """The later of two revisions; the one that is saved where it is not said."""

    to: Annotated[int, Field(ge=1)] | None = None


class CopyAsked(ApiModel):
    name: Annotated[str, Field(min_length=1, max_length=120)]
    revision: Annotated[int, Field(ge=1)] | None = None


class Archived(ApiModel):
    archived: bool


@routes.get("/revisions")
@routes.output(RevisionList)
def list_revisions(project_id: str) -> Response:
    rows = stores().revisions.lines(project_id)
    return json_of(RevisionList(revisions=[RevisionLine(**r._asdict()) for r in rows]))


@routes.put("/revisions/<int:number>")
@routes.input(RevisionName, arg_name="said")
def name_revision(project_id: str, number: int, said: RevisionName) -> Response:
    """Give a revision a name; an empty one takes it away."""
    stores().revisions.call(project_id, number, said.name.strip())
    return jsonify(name=said.name.strip())


@routes.get("/revisions/<int:number>/difference")
@routes.input(Against, location="query", arg_name="against")
@routes.output(RevisionDifference)
def compare_revisions(project_id: str, number: int, against: Against) -> Response:
    """Lay two states of a plan beside each other."""
    plans = stores().plans
    later = plans.load(project_id)[1] if against.to is None else plans.at(project_id, against.to)
    return json_of(difference(plans.at(project_id, number), later))


@routes.get("/revisions/<int:number>/back")
@routes.output(Changes, description="What makes the plan as it was; nothing is saved")
def go_back(project_id: str, number: int) -> Response:
    """Return what would make the plan as it was; made as an edit, what came since stays in the journal."""
    saved, _ = stores().plans.load(project_id)
    changes = changes_between(saved.design, stores().repository.at(project_id, number))
    if not changes:
        raise DesignError([Problem("revision", f"the plan is as it was at revision {number}")])
    return json_of(Changes(changes=tuple(changes)))


@routes.post("/copy")
@routes.input(CopyAsked, arg_name="asked")
@routes.output(ProjectDocument, status_code=201)
def copy_project(project_id: str, asked: CopyAsked) -> Response:
    """Make a project of its own of this one, as it is or was."""
    made = stores().revisions.copy(project_id, asked.name.strip() or "Copy", asked.revision, AUTHOR)
    return json_of(document_of(made), 201)


@routes.put("/archived")
@routes.input(Archived, arg_name="said")
def archive_project(project_id: str, said: Archived) -> Response:
    """Lay a project aside, or fetch it again."""
    stores().revisions.archive(project_id, said.archived)
    return jsonify(archived=said.archived)


@routes.get("/sketch")
@routes.output(SiteSketch)
def sketch_project(project_id: str) -> Response:
    """Return a project's ground floors as a small drawing."""
    return json_of(sketch_of(stores().repository.load(project_id).design))
