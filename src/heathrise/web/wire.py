"""How a model goes over the wire, and in whose name edits are journalled."""

from __future__ import annotations

from collections.abc import Sequence

from flask import Response
from pydantic import BaseModel

from ..formats.tables_in import Fault, shown
from .models import LineFault

AUTHOR = "installer"


def line_faults(faults: Sequence[Fault]) -> list[LineFault]:
    """Return what could not be read of a file: the first of many, and how many more there are."""
    return [LineFault(line=f.line, what=f.what) for f in shown(faults)]


def json_of(model: BaseModel, status: int = 200) -> Response:
    """Return a model as a response, written by Pydantic at once."""
    return Response(model.model_dump_json(), status, mimetype="application/json")
