"""Routes for snags: what is left to mend, said on site as it is seen."""

from __future__ import annotations

from datetime import UTC, datetime

from apiflask import APIBlueprint
from flask import Response

from ..core.records import SnagRecord, snags_as_left
from ..store import Repository
from ..store.records import Records
from .models import SnagList, Snags
from .wire import json_of


def make_snags(repository: Repository) -> APIBlueprint:
    """Return the blueprint over a repository."""
    routes = APIBlueprint("snags", __name__, url_prefix="/api/projects/<project_id>/snags")
    records = Records(repository.engine) if repository is not None else None

    def answered(project_id: str) -> Response:
        assert records is not None
        rows = records.of(project_id, SnagRecord)
        return json_of(SnagList(snags=snags_as_left(rows, datetime.now(UTC).date())))

    @routes.get("")
    @routes.output(SnagList)
    def seen(project_id: str) -> Response:
        repository.load(project_id)  # one that is not there has no snags to be empty of
        return answered(project_id)

    @routes.post("")
    @routes.input(Snags, arg_name="snags")
    @routes.output(SnagList)
    def told(project_id: str, snags: Snags) -> Response:
        """Write what was said; each once, however often it is sent."""
        assert records is not None
        for said in snags.said:
            words = said.model_dump(exclude={"by", "at"})
            record = SnagRecord(at=said.at or datetime.now(UTC), author=said.by, **words)
            records.append(project_id, record, said.key)
        return answered(project_id)

    return routes
