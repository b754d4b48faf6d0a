"""Papers as rows: what was printed of a project, from which revision and when."""

from __future__ import annotations

import secrets
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import Engine, insert, select
from sqlalchemy.exc import IntegrityError

from .repository import UnknownProject
from .tables import paper as table
from .unknown import Unknown


class UnknownPaper(Unknown):
    """There is no such paper in the project."""

    what = "paper"


@dataclass(frozen=True)
class Paper:
    """A printed paper. It does not change when the project does."""

    id: str
    kind: str
    name: str
    revision: int
    made: datetime
    data: bytes = b""


class Papers:
    """The papers of projects."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def keep(self, project_id: str, kind: str, name: str, revision: int, data: bytes) -> str:
        """Write a paper and return its id.

        Raises:
            UnknownProject: there is no such project.
        """
        key = secrets.token_hex(8)
        row = {
            "project_id": project_id,
            "id": key,
            "kind": kind,
            "name": name,
            "revision": revision,
            "data": data,
        }
        try:
            with self._engine.begin() as connection:
                connection.execute(insert(table).values(**row))
        except IntegrityError as error:
            raise UnknownProject(project_id) from error
        return key

    def get(self, project_id: str, key: str) -> Paper:
        """Return a paper.

        Raises:
            UnknownPaper: there is none.
        """
        wanted = select(table).where(table.c.project_id == project_id, table.c.id == key)
        with self._engine.connect() as connection:
            row = connection.execute(wanted).first()
        if row is None:
            raise UnknownPaper(key)
        return Paper(row.id, row.kind, row.name, row.revision, row.made, row.data)
