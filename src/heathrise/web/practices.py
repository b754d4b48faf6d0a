"""Routes for practice profiles: those that ship, the firm's own, what one would change in a plan."""

from __future__ import annotations

from apiflask import APIBlueprint
from flask import Response, abort

from ..asked import Asked, Changes, SchoolAsked
from ..core.design import DesignError, Practice, Problem
from ..core.views.held import HeldSettings
from ..core.views.practice import PracticeView
from ..questions import QUESTIONS
from .desk import stores
from .models import Practices
from .wire import json_of

routes = APIBlueprint("practices", __name__, url_prefix="/api")


def _all() -> Response:
    catalogue = stores().repository.catalogue
    return json_of(
        Practices(
            shipped=[row.practice for row in catalogue.practices.values()],
            about={key: row.about for key, row in catalogue.practices.items()},
            own=stores().practices.all(),
            matters=catalogue.matters,
        )
    )


@routes.get("/firm/practices")
@routes.output(Practices)
def list_practices() -> Response:
    return _all()


@routes.put("/firm/practices/<key>")
@routes.input(Practice, arg_name="practice")
@routes.output(Practices)
def keep_practice(key: str, practice: Practice) -> Response:
    """Keep a profile as the firm's own, in place of what it had under this id."""
    if key in stores().repository.catalogue.practices:
        what = "is the id of a profile that ships, which stays as it is; keep yours under another"
        raise DesignError([Problem("id", what)])
    if practice.id != key:
        raise DesignError([Problem("id", "should be the same as in the address")])
    stores().practices.put(practice)
    return _all()


@routes.delete("/firm/practices/<key>")
@routes.output(Practices)
def remove_practice(key: str) -> Response:
    if not stores().practices.remove(key):
        abort(404, f"the firm has no profile {key[:40]!r}")
    return _all()


@routes.get("/projects/<project_id>/practice")
@routes.output(PracticeView)
def get_practice(project_id: str) -> Response:
    _, plan = stores().plans.load(project_id)
    return json_of(QUESTIONS["practice"].ask(plan, Asked()))


@routes.get("/projects/<project_id>/settings")
@routes.output(HeldSettings)
def get_settings(project_id: str) -> Response:
    """Show every setting that a controller will hold, with its reason and whose it is."""
    _, plan = stores().plans.load(project_id)
    return json_of(QUESTIONS["settings"].ask(plan, Asked()))


@routes.get("/projects/<project_id>/school")
@routes.input(SchoolAsked, location="query", arg_name="asked")
@routes.output(Changes)
def get_school(project_id: str, asked: SchoolAsked) -> Response:
    """Return the changes by which this project alone goes by a school."""
    _, plan = stores().plans.load(project_id)
    return json_of(QUESTIONS["school"].ask(plan, asked))
