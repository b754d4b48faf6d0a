"""Routes for snags: what is left to mend, said on site as it is seen."""

from __future__ import annotations

from datetime import UTC, datetime

from apiflask import APIBlueprint
from flask import Response

from ..core.design import DesignError, Problem
from ..core.records import SnagRecord, snags_as_left
from .desk import stores
from .models import SnagList, Snags
from .wire import json_of, records_of

routes = APIBlueprint("snags", __name__, url_prefix="/api/projects/<project_id>/snags")


def _answered(project_id: str, ahead_s: float = 0.0) -> Response:
    rows = stores().records.of(project_id, SnagRecord)
    snags = snags_as_left(rows, datetime.now(UTC).date())
    return json_of(SnagList(snags=snags, clock_ahead_s=ahead_s))


@routes.get("")
@routes.output(SnagList)
def list_snags(project_id: str) -> Response:
    stores().repository.load(project_id)  # one that is not there has no snags to be empty of
    return _answered(project_id)


@routes.post("")
@routes.input(Snags, arg_name="snags")
@routes.output(SnagList)
def note_snags(project_id: str, snags: Snags) -> Response:
    """Write what was said; each once, however often it is sent. All of it or nothing."""
    stores().repository.load(project_id)
    known = {r.snag for r in stores().records.of(project_id, SnagRecord)}
    known |= {said.snag for said in snags.said if said.state is not None}
    problems = [p for k, said in enumerate(snags.said) for p in _wrong(k, said, known)]
    if problems:
        raise DesignError(problems)
    rows, ahead_s = records_of(SnagRecord, snags.said, snags.clock)
    stores().records.append_all(project_id, rows)
    return _answered(project_id, ahead_s)


def _wrong(number: int, said: Snags.Said, known: set[str]) -> list[Problem]:
    where = f"said[{number}]"
    if said.state is None and said.photo is None:
        return [Problem(f"{where}.state", "say whether it is open or closed")]
    if said.snag not in known:
        return [Problem(f"{where}.snag", "nobody has noted this snag yet; note it first")]
    if said.state is not None and not said.what.strip():
        return [Problem(f"{where}.what", "say what is left to mend")]
    return []
