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


def whole_number(text: str, most: int = 2**31 - 1) -> int | None:
    """Return a number that was written in plain digits, or None where it is none or too large."""
    if not (text.isascii() and text.isdecimal() and len(text) <= len(str(most))):
        return None
    return number if (number := int(text)) <= most else None
