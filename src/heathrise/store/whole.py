"""A whole project out of the database, and into it again."""

from __future__ import annotations

import json
import secrets
from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import Connection, insert, select

from ..core.design import put
from ..formats.whole_file import JournalRow, PaperRow, PictureRow, RecordRow, WholeProject
from .repository import Repository, Saved, write_elements
from .tables import journal, paper, picture, project, record

# What of a record is the number of another one, by its kind.
_EARLIER = {"signed": "handover", "walk_counts": "walk"}
_UP_TO = "last_record"


def whole_of(repository: Repository, project_id: str) -> WholeProject:
    """Return all that is kept of a project but its keys.

    Raises:
        UnknownProject: there is none.
    """
    saved = repository.load(project_id)
    with repository.engine.connect() as connection:

        def rows(table: Any, order: Any) -> list[Mapping[str, Any]]:
            wanted = select(table).where(table.c.project_id == project_id).order_by(order)
            return [dict(r._mapping) for r in connection.execute(wanted)]

        pictures, papers = rows(picture, picture.c.id), rows(paper, paper.c.made)
        return WholeProject(
            saved.name,
            tuple(
                JournalRow(
                    revision=r["revision"],
                    made=r["made"].isoformat(),
                    author=r["author"],
                    label=r["label"],
                    name=r["name"] or "",
                    changes=json.loads(r["changes"]),
                )
                for r in rows(journal, journal.c.revision)
            ),
            tuple(
                RecordRow(
                    number=r["number"],
                    kind=r["kind"],
                    at=r["at"].replace(tzinfo=UTC).isoformat(),
                    author=r["author"],
                    written=r["written"].isoformat() if r["written"] is not None else None,
                    body=json.loads(r["body"]),
                )
                for r in rows(record, record.c.number)
            ),
            tuple(
                PictureRow(id=r["id"], media=r["media"], width_px=r["width_px"], height_px=r["height_px"])
                for r in pictures
            ),
            tuple(
                PaperRow(
                    id=r["id"],
                    kind=r["kind"],
                    name=r["name"],
                    revision=r["revision"],
                    made=r["made"].isoformat(),
                )
                for r in papers
            ),
            {r["id"]: bytes(r["data"]) for r in (*pictures, *papers)},
        )


def restore(repository: Repository, whole: WholeProject) -> Saved:
    """Write a whole project under an id of its own, with every revision; records get numbers of their own."""
    project_id = f"p-{secrets.token_hex(6)}"
    design = whole.design
    with repository.engine.begin() as connection:
        fresh = {"id": project_id, "name": whole.name, "revision": len(whole.journal)}
        connection.execute(insert(project).values(**fresh))
        write_elements(connection, project_id, design, [put(e) for _, e in design.elements()])
        for row in whole.journal:
            changes = json.dumps([c.model_dump(mode="json") for c in row.changes], ensure_ascii=False)
            values = row.model_dump(exclude={"changes", "made", "name"})
            named = {"made": _moment(row.made), "name": row.name or None, "changes": changes}
            connection.execute(insert(journal).values(project_id=project_id, **values, **named))
        for shown in whole.pictures:
            values = shown.model_dump()
            data = whole.files[shown.id]
            connection.execute(insert(picture).values(project_id=project_id, data=data, **values))
        for printed in whole.papers:
            values = printed.model_dump(exclude={"made"})
            data = whole.files[printed.id]
            made = _moment(printed.made)
            connection.execute(insert(paper).values(project_id=project_id, data=data, made=made, **values))
        _records(connection, project_id, whole)
    return repository.load(project_id)


def _records(connection: Connection, project_id: str, whole: WholeProject) -> None:
    numbers: dict[int, int] = {}
    for row in whole.records:
        body = dict(row.body)
        earlier = _EARLIER.get(row.kind)
        if earlier in body:
            body[earlier] = numbers.get(body[earlier], body[earlier])
        if _UP_TO in body:
            body[_UP_TO] = max((new for old, new in numbers.items() if old <= body[_UP_TO]), default=0)
        values = {
            "project_id": project_id,
            "kind": row.kind,
            "at": _moment(row.at),
            "author": row.author,
            "body": json.dumps(body, ensure_ascii=False),
            "written": _moment(row.written) if row.written is not None else None,
        }
        made = connection.execute(insert(record).values(**values))
        numbers[row.number] = int(made.lastrowid)


def _moment(said: str) -> datetime:
    """Return a time as its column holds it, UTC without saying so."""
    moment = datetime.fromisoformat(said)
    return moment.astimezone(UTC).replace(tzinfo=None) if moment.tzinfo is not None else moment
