"""How a model goes over the wire, and in whose name edits are journalled."""

from __future__ import annotations

from flask import Response
from pydantic import BaseModel

AUTHOR = "installer"


def json_of(model: BaseModel, status: int = 200) -> Response:
    """Return a model as a response, written by Pydantic at once."""
    return Response(model.model_dump_json(), status, mimetype="application/json")
