"""How a model goes over the wire, and in whose name edits are journalled."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime
from typing import TypeVar

from flask import Response
from pydantic import BaseModel

from ..core.records import Record, SnagRecord, StepRecord, by_the_server
from ..formats.tables_in import Fault, shown
from .api_model import LineFault
from .models import Snags, Ticks

D = TypeVar("D", StepRecord, SnagRecord)

AUTHOR = "installer"


def line_faults(faults: Sequence[Fault]) -> list[LineFault]:
    """Return what could not be read of a file: the first of many, and how many more there are."""
    return [LineFault(line=f.line, what=f.what) for f in shown(faults)]


def records_of(
    cls: type[D], said: Sequence[Ticks.Tick | Snags.Said], clock: datetime | None
) -> tuple[list[tuple[str | None, Record]], float]:
    """Return what was said on a device as records with their keys, in the time of the server's
    clock, and how far the device's is ahead, in s."""
    times, ahead_s = by_the_server([s.at for s in said], clock, datetime.now(UTC))
    rows: list[tuple[str | None, Record]] = []
    for one, at in zip(said, times, strict=True):
        words = one.model_dump(exclude={"by", "at"})
        record = cls.model_validate({**words, "at": at, "author": one.by, "clock_ahead_s": ahead_s})
        rows.append((one.key, record))
    return rows, ahead_s


def json_of(model: BaseModel, status: int = 200) -> Response:
    """Return a model as a response, written by Pydantic at once."""
    return Response(model.model_dump_json(), status, mimetype="application/json")


def whole_number(text: str, most: int = 2**31 - 1) -> int | None:
    """Return a number that was written in plain digits, or None where it is none or too large."""
    if not (text.isascii() and text.isdecimal() and len(text) <= len(str(most))):
        return None
    return number if (number := int(text)) <= most else None


def download(data: str | bytes, media: str, name: str) -> Response:
    """Return a file that is handed over under a name."""
    response = Response(data, mimetype=media)
    response.headers["Content-Disposition"] = f'attachment; filename="{name}"'
    return response
