"""Routes for the firm as its papers show it."""

from __future__ import annotations

from apiflask import APIBlueprint
from flask import Response, abort, request

from ..core.context.firm import Firm
from ..core.design import DesignError, Problem
from ..formats.pictures import read_picture
from ..store.pictures import Kept
from .desk import stores
from .models import FirmSaid
from .wire import json_of

MOST_MARK_BYTES = 2_000_000


routes = APIBlueprint("firm", __name__, url_prefix="/api/firm")


def _answered() -> Response:
    found = stores().heads.get()
    return json_of(FirmSaid(firm=found.firm, has_mark=found.mark is not None))


@routes.get("/head")
@routes.output(FirmSaid)
def get_firm() -> Response:
    return _answered()


@routes.put("/head")
@routes.input(Firm, arg_name="firm")
@routes.output(FirmSaid)
def set_firm(firm: Firm) -> Response:
    stores().heads.say(firm)
    return _answered()


@routes.get("/mark")
def get_mark() -> Response:
    found = stores().heads.get().mark
    if found is None:
        abort(404, "no mark was given yet")
    return Response(found.data, mimetype=found.media)


@routes.post("/mark")
@routes.output(FirmSaid)
def set_mark() -> Response:
    """Keep a picture as the firm's mark."""
    file = request.files.get("picture")
    if file is None:
        raise DesignError([Problem("picture", "no picture came with the request")])
    read = read_picture(file.read())
    if len(read.data) > MOST_MARK_BYTES:
        what = f"has {len(read.data) / 1e6:.1f} MB as a mark; save it smaller, under 2 MB"
        raise DesignError([Problem("picture", what)])
    stores().heads.mark(Kept(read.media, read.data))
    return _answered()


@routes.delete("/mark")
@routes.output(FirmSaid)
def remove_mark() -> Response:
    stores().heads.mark(None)
    return _answered()
