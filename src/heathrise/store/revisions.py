"""Revisions by name, projects laid aside, projects copied."""

from __future__ import annotations

from datetime import datetime
from typing import NamedTuple

from sqlalchemy import Engine, literal, select, update
from sqlalchemy.dialects.mysql import insert

from .repository import Repository, Saved, UnknownProject
from .tables import journal, picture, project

MOST_LINES = 400


class RevisionRow(NamedTuple):
    """A line of the journal; ``name`` is what somebody called it, or empty."""

    revision: int
    made: datetime
    author: str
    label: str
    name: str


class Revisions:
    """The states that a project has been in."""

    def __init__(self, repository: Repository) -> None:
        self._repository = repository

    @property
    def _engine(self) -> Engine:
        return self._repository.engine

    def lines(self, project_id: str) -> list[RevisionRow]:
        """Return the newest lines of the journal, and with them every one that has a name.

        Raises:
            UnknownProject: there is none.
        """
        self._repository.load(project_id)
        columns = (journal.c.revision, journal.c.made, journal.c.author, journal.c.label, journal.c.name)
        rows = select(*columns).where(journal.c.project_id == project_id).order_by(journal.c.revision.desc())
        with self._engine.connect() as connection:
            found = {r.revision: r for r in connection.execute(rows.limit(MOST_LINES))}
            found |= {r.revision: r for r in connection.execute(rows.where(journal.c.name.is_not(None)))}
        ordered = sorted(found.values(), key=lambda r: -r.revision)
        return [RevisionRow(r.revision, r.made, r.author, r.label, r.name or "") for r in ordered]

    def call(self, project_id: str, revision: int, name: str) -> None:
        """Give a revision a name; an empty one takes it away.

        Raises:
            UnknownProject: there is no such project, or no such revision of it.
        """
        mine = (journal.c.project_id == project_id) & (journal.c.revision == revision)
        with self._engine.begin() as connection:
            if connection.scalar(select(journal.c.revision).where(mine)) is None:
                raise UnknownProject(f"{project_id}, revision {revision}")
            connection.execute(update(journal).where(mine).values(name=name or None))

    def archive(self, project_id: str, archived: bool) -> None:
        """Lay a project aside, or fetch it again; nothing of it is lost.

        Raises:
            UnknownProject: there is none.
        """
        self._repository.load(project_id)
        with self._engine.begin() as connection:
            connection.execute(update(project).where(project.c.id == project_id).values(archived=archived))

    def archived(self) -> set[str]:
        """Return the projects that are laid aside."""
        with self._engine.connect() as connection:
            return set(connection.scalars(select(project.c.id).where(project.c.archived)))

    def copy(self, project_id: str, name: str, revision: int | None, author: str) -> Saved:
        """Make a project of its own of another as it is, or was; its pictures come along, what was
        recorded on site does not.

        Raises:
            UnknownProject: there is no such project, or no such revision of it.
        """
        source = self._repository.load(project_id)
        design = source.design if revision is None else self._repository.at(project_id, revision)
        label = f"Copied from {source.name}, revision {revision or source.revision}"[:120]
        made = self._repository.create(name, design, author, label)
        columns = [c for c in picture.c if c.name != "project_id"]
        rows = select(literal(made.id), *columns).where(picture.c.project_id == project_id)
        with self._engine.begin() as connection:
            names = ["project_id", *(c.name for c in columns)]
            connection.execute(insert(picture).from_select(names, rows))
        return made
