"""Records as rows: appended, never changed."""

from __future__ import annotations

import json
from collections.abc import Sequence
from datetime import UTC, datetime
from typing import Any, TypeVar

from sqlalchemy import Engine, func, insert, select
from sqlalchemy.dialects.mysql import insert as upsert
from sqlalchemy.exc import IntegrityError

from ..core.records import HandedOver, Record, Signed, Standing, standing
from .repository import UnknownProject
from .tables import record as table

R = TypeVar("R", bound=Record)
SIGNED = Signed.KIND
_AT_ONCE = 500
_OWN = ("number", "at", "author", "written")  # columns; all else of a record is its body


class Records:
    """The one write path for records."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    @property
    def engine(self) -> Engine:
        return self._engine

    def append(self, project_id: str, record: Record, key: str | None = None) -> int:
        """Write a record and return its number.

        Args:
            key: made by who sends it; what was written of its kind under it is written no
                second time.

        Raises:
            UnknownProject: there is no such project.
        """
        row = insert(table).values(**_row(project_id, record, key))
        try:
            with self._engine.begin() as connection:
                return int(connection.execute(row).lastrowid)
        except IntegrityError as error:
            written = self._sent(project_id, record.KIND, key)
            if written is None:
                raise UnknownProject(project_id) from error
            return written

    def append_all(self, project_id: str, rows: Sequence[tuple[str | None, Record]]) -> None:
        """Write records with their keys, all of them or none; see ``append``.

        Raises:
            UnknownProject: there is no such project.
        """
        try:
            with self._engine.begin() as connection:
                for k in range(0, len(rows), _AT_ONCE):
                    values = [_row(project_id, r, key) for key, r in rows[k : k + _AT_ONCE]]
                    fresh = upsert(table).values(values)
                    # What was written under the same key stays as it is.
                    connection.execute(fresh.on_duplicate_key_update(number=table.c.number))
        except IntegrityError as error:
            raise UnknownProject(project_id) from error

    def _sent(self, project_id: str, kind: str, key: str | None) -> int | None:
        """Return the number of the record of a kind that was sent under a key."""
        same = (table.c.project_id == project_id, table.c.kind == kind, table.c.sent == key)
        wanted = select(table.c.number).where(*same)
        with self._engine.connect() as connection:
            return connection.scalar(wanted) if key is not None else None

    def of(self, project_id: str, cls: type[R]) -> list[R]:
        """Return the records of one kind as they were written, the first first."""
        wanted = select(table).where(table.c.project_id == project_id, table.c.kind == cls.KIND)
        with self._engine.connect() as connection:
            rows = connection.execute(wanted.order_by(table.c.number)).all()
        return [
            cls.model_validate(
                {
                    **json.loads(r.body),
                    "number": r.number,
                    "author": r.author,
                    "at": r.at.replace(tzinfo=UTC),
                    "written": r.written.replace(tzinfo=UTC) if r.written is not None else None,
                }
            )
            for r in rows
        ]

    def standings(self) -> dict[str, Standing]:
        """Return where each job stands by what was said of it; without a word: not listed."""
        kind, last = table.c.kind, func.max(table.c.number).label("last")
        wanted = select(table.c.project_id, kind, last, func.max(table.c.at).label("at"))
        by_job: dict[str, dict[str, Any]] = {}
        with self._engine.connect() as connection:
            for row in connection.execute(wanted.group_by(table.c.project_id, kind)):
                by_job.setdefault(row.project_id, {})[row.kind] = row
            numbers = [rows[SIGNED].last for rows in by_job.values() if SIGNED in rows]
            chosen = select(table.c.project_id, table.c.body).where(table.c.number.in_(numbers))
            signed = {r.project_id: json.loads(r.body) for r in connection.execute(chosen)}
        return {
            job: standing(
                {kind: row.at.date() for kind, row in rows.items()},
                rows[HandedOver.KIND].last if HandedOver.KIND in rows else None,
                signed.get(job),
            )
            for job, rows in by_job.items()
        }

    def last_number(self, project_id: str) -> int:
        """Return the number of the last record of a project, 0 where there is none."""
        wanted = select(func.max(table.c.number)).where(table.c.project_id == project_id)
        with self._engine.connect() as connection:
            return int(connection.scalar(wanted) or 0)


def _row(project_id: str, record: Record, key: str | None) -> dict[str, Any]:
    """Return a record as a row of the table."""
    body = record.model_dump(mode="json", exclude=set(_OWN))
    return {
        "project_id": project_id,
        "kind": record.KIND,
        "author": record.author,
        "at": _plain(record.at),
        "sent": key,
        "written": _plain(datetime.now(UTC)),
        "body": json.dumps(body, ensure_ascii=False),
    }


def _plain(at: datetime) -> datetime:
    """Return a time as its column holds it."""
    return at.astimezone(UTC).replace(tzinfo=None)
