"""Routes for the firm as its papers show it."""

from __future__ import annotations

from apiflask import APIBlueprint
from flask import Response, abort, request

from ..core.context.firm import Firm
from ..core.design import DesignError, Problem
from ..formats.papers import Head
from ..formats.pictures import read_picture
from ..store import Repository
from ..store.firm import FirmHeads
from ..store.pictures import Kept
from .models import FirmSaid
from .wire import json_of

MOST_MARK_BYTES = 2_000_000


def head_of(heads: FirmHeads) -> Head:
    """Return the head of papers."""
    found = heads.get()
    if found.mark is None:
        return Head.of(found.firm)
    return Head.of(found.firm, found.mark.media, found.mark.data)


def make_firm(repository: Repository) -> APIBlueprint:
    """Return the blueprint over a repository."""
    routes = APIBlueprint("firm", __name__, url_prefix="/api/firm")
    heads = FirmHeads(repository.engine) if repository is not None else None

    def answered() -> Response:
        assert heads is not None
        found = heads.get()
        return json_of(FirmSaid(firm=found.firm, has_mark=found.mark is not None))

    @routes.get("/head")
    @routes.output(FirmSaid)
    def seen() -> Response:
        return answered()

    @routes.put("/head")
    @routes.input(Firm, arg_name="firm")
    @routes.output(FirmSaid)
    def said(firm: Firm) -> Response:
        assert heads is not None
        heads.say(firm)
        return answered()

    @routes.get("/mark")
    def mark() -> Response:
        assert heads is not None
        found = heads.get().mark
        if found is None:
            abort(404, "no mark was given yet")
        return Response(found.data, mimetype=found.media)

    @routes.post("/mark")
    @routes.output(FirmSaid)
    def marked() -> Response:
        """Keep a picture as the firm's mark."""
        assert heads is not None
        file = request.files.get("picture")
        if file is None:
            raise DesignError([Problem("picture", "no picture came with the request")])
        read = read_picture(file.read())
        if len(read.data) > MOST_MARK_BYTES:
            what = f"has {len(read.data) / 1e6:.1f} MB as a mark; save it smaller, under 2 MB"
            raise DesignError([Problem("picture", what)])
        heads.mark(Kept(read.media, read.data))
        return answered()

    @routes.delete("/mark")
    @routes.output(FirmSaid)
    def unmarked() -> Response:
        assert heads is not None
        heads.mark(None)
        return answered()

    return routes
