"""Records as rows: appended, never changed."""

from __future__ import annotations

import json
from datetime import UTC
from typing import Any, TypeVar

from sqlalchemy import Engine, insert, select
from sqlalchemy.exc import IntegrityError

from ..core.records import Record
from .repository import UnknownProject
from .tables import record as table

R = TypeVar("R", bound=Record)
_OWN = ("number", "at", "author")  # columns; all else of a record is its body


class Records:
    """The one write path for records."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def append(self, project_id: str, record: Record) -> int:
        """Write a record and return its number.

        Raises:
            UnknownProject: there is no such project.
        """
        body = record.model_dump(mode="json", exclude=set(_OWN))
        row: dict[str, Any] = {
            "project_id": project_id, "kind": record.KIND, "author": record.author,
            "at": record.at.astimezone(UTC).replace(tzinfo=None),
            "body": json.dumps(body, ensure_ascii=False),
        }  # fmt: skip
        try:
            with self._engine.begin() as connection:
                return int(connection.execute(insert(table).values(**row)).lastrowid)
        except IntegrityError as error:
            raise UnknownProject(project_id) from error

    def of(self, project_id: str, cls: type[R]) -> list[R]:
        """Return the records of one kind as they were written, the first first."""
        wanted = select(table).where(table.c.project_id == project_id, table.c.kind == cls.KIND)
        with self._engine.connect() as connection:
            rows = connection.execute(wanted.order_by(table.c.number)).all()
        return [
            cls.model_validate(
                {**json.loads(r.body), "number": r.number, "author": r.author,
                 "at": r.at.replace(tzinfo=UTC)}
            )
            for r in rows
        ]  # fmt: skip
