"""Routes for pictures: the client's plans, photographs."""

from __future__ import annotations

from apiflask import APIBlueprint
from flask import Response, request

from ..core.design import DesignError, Problem
from ..formats.pictures import read_picture
from ..formats.straighten import straighten
from ..store.pictures import Kept
from .desk import stores
from .models import KeptPicture, SlantedPicture, StraightPicture
from .wire import json_of, whole_number

routes = APIBlueprint("pictures", __name__, url_prefix="/api/projects/<project_id>/pictures")


@routes.post("")
@routes.output(KeptPicture, status_code=201)
def keep_picture(project_id: str) -> Response:
    """Keep a picture, or the page of a PDF that ``page`` says."""
    file = request.files.get("picture")
    if file is None:
        raise DesignError([Problem("picture", "no picture came with the request")])
    page = request.form.get("page", "1")
    number = whole_number(page, most=100_000)
    if number is None:
        raise DesignError([Problem("page", "should be the number of a page")])
    stores().repository.load(project_id)
    read = read_picture(file.read(), number)
    kept = Kept(read.media, read.data)
    key = stores().pictures.keep(project_id, kept, read.width_px, read.height_px)
    found = KeptPicture(id=key, width_px=read.width_px, height_px=read.height_px, pages=read.pages)
    return json_of(found, 201)


@routes.post("/<key>/straighten")
@routes.input(SlantedPicture, arg_name="slanted")
@routes.output(StraightPicture, status_code=201)
def straighten_picture(project_id: str, key: str, slanted: SlantedPicture) -> Response:
    """Keep a straight picture beside one that was taken at a slant."""
    kept = stores().pictures.get(project_id, key)
    made = straighten(kept.data, slanted.corners, slanted.across_m, slanted.up_m)
    fresh = stores().pictures.keep(project_id, Kept(made.media, made.data), made.width_px, made.height_px)
    size = {"width_px": made.width_px, "height_px": made.height_px, "metres_per_px": made.metres_per_px}
    return json_of(StraightPicture(id=fresh, pages=1, middle=made.middle, **size), 201)


@routes.get("/<key>")
def get_picture(project_id: str, key: str) -> Response:
    kept = stores().pictures.get(project_id, key)
    response = Response(kept.data, mimetype=kept.media)
    # The id is the digest of what is in it.
    response.headers["Cache-Control"] = "private, max-age=31536000, immutable"
    return response
