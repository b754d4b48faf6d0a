"""The one write path: changes, checked as a whole design, saved with their journal entry."""

from __future__ import annotations

import contextlib
import json
import secrets
from collections import OrderedDict
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from threading import Lock
from typing import Any

from pydantic import TypeAdapter
from sqlalchemy import Connection, Engine, delete, func, insert, select, update
from sqlalchemy.dialects.mysql import insert as mysql_insert
from sqlalchemy.exc import SQLAlchemyError

from ..core.catalogue import MOST_OWN, Catalogue, OwnGear, Value, with_gear
from ..core.context.integrity import check, check_edit
from ..core.design import KINDS, Change, Design, DesignError, Problem, Put, apply, parse_element, put
from .gear import FirmGear, grown
from .tables import ELEMENT_TABLES, firm_figure, journal, project, setting, trouble_of
from .unknown import Unknown

_CHANGES: TypeAdapter[list[Change]] = TypeAdapter(list[Change])
_RANK = {kind: rank for rank, kind in enumerate(KINDS)}
_KEPT_DESIGNS = 64
MAX_LABEL = 120


class UnknownProject(Unknown):
    """There is no project with this id."""

    what = "project"


class StaleRevision(RuntimeError):
    """The change was made on an older revision; ``since`` holds what came in between."""

    def __init__(self, revision: int, since: list[Change]) -> None:
        super().__init__(f"the project is at revision {revision} by now")
        self.revision = revision
        self.since = since


@dataclass(frozen=True)
class ProjectRow:
    """A line in the list of projects."""

    id: str
    name: str
    revision: int
    opened: datetime


@dataclass(frozen=True)
class Saved:
    """A design as it stands in the store."""

    id: str
    name: str
    revision: int
    design: Design


@dataclass(frozen=True)
class Prepared(Saved):
    """What an edit would give: a checked design that is not saved yet."""

    changes: tuple[Change, ...]


class Repository:
    """Projects in the database, and the firm's own figures.

    Designs are kept in memory by revision, never changed there.
    """

    def __init__(self, engine: Engine, catalogue: Catalogue) -> None:
        self._engine = engine
        self._shipped = catalogue
        self._gear = FirmGear(engine)
        self._ruled: Catalogue | None = None
        self._designs: OrderedDict[tuple[str, int], Design] = OrderedDict()
        self._lock = Lock()

    @property
    def engine(self) -> Engine:
        return self._engine

    @property
    def catalogue(self) -> Catalogue:
        """The catalogue under the firm's figures; the same object until one is changed."""
        ruled = self._ruled
        if ruled is None:
            with self._engine.connect() as connection:
                rows = connection.execute(select(firm_figure.c.path, firm_figure.c.value))
                own = {path: _value(value) for path, value in rows}
            rules = self._shipped.rules
            ruled = self._shipped.ruled_by(rules.by_firm(own)) if own else self._shipped
            ruled = grown(ruled, self._gear.all())
            self._ruled = ruled
        return ruled

    @property
    def shipped(self) -> Catalogue:
        """The catalogue as it ships, whatever the firm has of its own."""
        return self._shipped

    @property
    def gear(self) -> FirmGear:
        return self._gear

    def put_gear(self, rows: Sequence[OwnGear]) -> Catalogue:
        """Keep gear of the firm's own, all of it or none.

        Raises:
            DesignError: an entry cannot be, has the id of what is shipped, or is one too many.
        """
        if not rows:
            return self.catalogue
        kept = {g.id: g for g in self._gear.all()}
        kept |= {g.id: g for g in rows}
        if len(kept) > MOST_OWN:
            raise DesignError([Problem("gear", f"{len(kept)} things; {MOST_OWN} at most")])
        with_gear(self._shipped, kept.values())
        self._gear.put(rows)
        self._ruled = None
        return self.catalogue

    def remove_gear(self, key: str) -> Catalogue:
        """Take gear away; what a project has or had is withdrawn instead.

        Raises:
            DesignError: the firm has no such gear.
        """
        found = next((g for g in self._gear.all() if g.id == key), None)
        if found is None:
            raise DesignError([Problem("id", f"the firm has no gear {key[:60]!r} of its own")])
        if not self._gear.remove(key):
            self._gear.put([found.model_copy(update={"withdrawn": True})])
        self._ruled = None
        return self.catalogue

    def set_firm_figure(self, path: str, value: Value | None) -> Catalogue:
        """Keep how the firm sees a figure, or forget it with None.

        Raises:
            DesignError: there is no such figure, or the value cannot stand there.
        """
        figure = self._shipped.rules.figures.get(path)
        if figure is None:
            raise DesignError([Problem("figure", f"there is no figure {path[:60]!r}")])
        if value is not None and (wrong := figure.wrong(value)) is not None:
            raise DesignError([Problem(path, f"{figure.label} {wrong}")])
        with self._engine.begin() as connection:
            if value is None:
                connection.execute(delete(firm_figure).where(firm_figure.c.path == path))
            else:
                row = mysql_insert(firm_figure).values(path=path, value=value)
                connection.execute(row.on_duplicate_key_update(value=row.inserted.value))
        self._ruled = None
        return self.catalogue

    def projects(self) -> list[ProjectRow]:
        """Return all projects, the last opened first."""
        rows = select(project.c.id, project.c.name, project.c.revision, project.c.opened)
        with self._engine.connect() as connection:
            found = connection.execute(rows.order_by(project.c.opened.desc(), project.c.id))
            return [ProjectRow(*row) for row in found]

    def create(
        self, name: str, design: Design, author: str, label: str, project_id: str | None = None
    ) -> Saved:
        """Save a whole new project as its first revision.

        Args:
            project_id: of the caller's own; a project that is there under it is left as it is.
        """
        if project_id is not None:
            with contextlib.suppress(UnknownProject):
                return self.load(project_id)
        check(design, self.catalogue)
        project_id = project_id or f"p-{secrets.token_hex(6)}"
        changes: list[Change] = [put(element) for _, element in design.elements()]
        with self._engine.begin() as connection:
            connection.execute(insert(project).values(id=project_id, name=name, revision=1))
            write_elements(connection, project_id, design, changes)
            _log(connection, project_id, 1, author, label, changes)
        self._keep(project_id, 1, design)
        return Saved(project_id, name, 1, design)

    def load(self, project_id: str) -> Saved:
        """Return a project as last saved."""
        with self._engine.connect() as connection:
            row = _row(connection, project_id)
            design = self._design(connection, project_id, row.revision)
        return Saved(project_id, row.name, row.revision, design)

    def at(self, project_id: str, revision: int) -> Design:
        """Return a project as it was at an earlier revision, made again from the journal.

        Raises:
            UnknownProject: there is no such project, or no such revision of it.
        """
        with self._lock:
            kept = self._designs.get((project_id, revision))
        if kept is not None:
            return kept
        wanted = select(journal.c.changes).where(
            journal.c.project_id == project_id, journal.c.revision <= revision
        )
        design = Design({})
        with self._engine.connect() as connection:
            if not 1 <= revision <= _row(connection, project_id).revision:
                raise UnknownProject(f"{project_id}, revision {revision}")
            for text in connection.scalars(wanted.order_by(journal.c.revision)):
                design = apply(design, _CHANGES.validate_json(text))
        self._keep(project_id, revision, design)
        return design

    def opened(self, project_id: str) -> None:
        """Note that a project was opened; a database that has no room to note it is read all the same."""
        now = func.now(6)
        noted = update(project).where(project.c.id == project_id).values(opened=now)
        try:
            with self._engine.begin() as connection:
                connection.execute(noted)
        except SQLAlchemyError as error:
            if trouble_of(error) != "full":
                raise

    def rename(self, project_id: str, name: str) -> None:
        with self._engine.begin() as connection:
            _row(connection, project_id)
            connection.execute(update(project).where(project.c.id == project_id).values(name=name))

    def remove(self, project_id: str) -> None:
        """Delete a project with everything in it."""
        with self._engine.begin() as connection:
            _row(connection, project_id)
            for kind in reversed(KINDS):
                table = ELEMENT_TABLES[kind]
                connection.execute(delete(table).where(table.c.project_id == project_id))
            connection.execute(delete(project).where(project.c.id == project_id))

    def prepare(self, project_id: str, revision: int, changes: Sequence[Change]) -> Prepared:
        """Return what ``changes`` made on ``revision`` would give, checked and not yet saved.

        Raises:
            StaleRevision: somebody saved in between.
            DesignError: the design that would result is not valid.
        """
        with self._engine.connect() as connection:
            row = _row(connection, project_id)
            if row.revision != revision:
                raise StaleRevision(row.revision, _since(connection, project_id, revision))
            before = self._design(connection, project_id, revision)
        design = apply(before, changes)
        check(design, self.catalogue)
        check_edit(before, design, changes, self.catalogue)
        return Prepared(project_id, row.name, revision, design, tuple(changes))

    def change(
        self, project_id: str, revision: int, changes: Sequence[Change], author: str, label: str
    ) -> Saved:
        """Apply changes that were made on ``revision`` and save the result; see ``prepare``."""
        return self.commit(self.prepare(project_id, revision, changes), author, label)

    def commit(self, prepared: Prepared, author: str, label: str) -> Saved:
        """Save what was prepared.

        Raises:
            StaleRevision: somebody saved in between; nothing was written.
        """
        project_id, revision, design = prepared.id, prepared.revision, prepared.design
        with self._engine.begin() as connection:
            row = _row(connection, project_id, lock=True)
            if row.revision != revision:
                raise StaleRevision(row.revision, _since(connection, project_id, revision))
            write_elements(connection, project_id, design, prepared.changes)
            _log(connection, project_id, revision + 1, author, label, prepared.changes)
            connection.execute(
                update(project).where(project.c.id == project_id).values(revision=revision + 1)
            )
        self._keep(project_id, revision + 1, design)
        return Saved(project_id, row.name, revision + 1, design)

    def history(self, project_id: str, most: int = 200) -> list[dict[str, Any]]:
        """Return the journal's lines, the newest first, without the changes themselves."""
        columns = (journal.c.revision, journal.c.made, journal.c.author, journal.c.label)
        rows = select(*columns).where(journal.c.project_id == project_id)
        with self._engine.connect() as connection:
            found = connection.execute(rows.order_by(journal.c.revision.desc()).limit(most))
            return [dict(row._mapping) for row in found]

    def setting(self, name: str) -> str | None:
        with self._engine.connect() as connection:
            return connection.scalar(select(setting.c.value).where(setting.c.name == name))

    def set_setting(self, name: str, value: str) -> None:
        with self._engine.begin() as connection:
            row = mysql_insert(setting).values(name=name, value=value)
            connection.execute(row.on_duplicate_key_update(value=value))

    def _design(self, connection: Connection, project_id: str, revision: int) -> Design:
        with self._lock:
            kept = self._designs.get((project_id, revision))
        if kept is None:
            kept = _read(connection, project_id)
            self._keep(project_id, revision, kept)
        return kept

    def _keep(self, project_id: str, revision: int, design: Design) -> None:
        with self._lock:
            self._designs[project_id, revision] = design
            while len(self._designs) > _KEPT_DESIGNS:
                self._designs.popitem(last=False)


def _value(value: Any) -> Value:
    return tuple(map(float, value)) if isinstance(value, list) else value


def _row(connection: Connection, project_id: str, lock: bool = False) -> Any:
    columns = (project.c.id, project.c.name, project.c.revision)
    rows = select(*columns).where(project.c.id == project_id)
    found = connection.execute(rows.with_for_update() if lock else rows).first()
    # The database takes capitals and small letters for one; ids do not.
    if found is None or found.id != project_id:
        raise UnknownProject(project_id)
    return found


def _read(connection: Connection, project_id: str) -> Design:
    tables: dict[str, dict[str, Any]] = {}
    for kind, table in ELEMENT_TABLES.items():
        rows = select(table).where(table.c.project_id == project_id).order_by(table.c.placed)
        found = {}
        for row in connection.execute(rows).mappings():
            data = {k: v for k, v in row.items() if k not in ("project_id", "placed")}
            found[str(data["id"])] = parse_element(kind, data)
        if found:
            tables[kind] = found
    return Design(tables)


def write_elements(
    connection: Connection, project_id: str, design: Design, changes: Sequence[Change]
) -> None:
    """Write the elements that changed: what stays first, so that nothing refers any more to what
    then goes, children before what they stand on."""
    touched = {(c.kind, c.id) for c in changes}
    gone = [(k, i) for k, i in touched if design.get(k, i) is None]
    rows: dict[str, list[dict[str, Any]]] = {}
    anew = {(c.kind, c.id) for c in changes if not isinstance(c, Put)}
    for change in changes:
        element = design.get(change.kind, change.id)
        if isinstance(change, Put) and element is not None and (change.kind, change.id) in touched:
            touched.discard((change.kind, change.id))
            data = element.model_dump(mode="json")
            rows.setdefault(change.kind, []).append({"project_id": project_id, **data})
    for kind in sorted(rows, key=_RANK.__getitem__):
        table = ELEMENT_TABLES[kind]
        last = select(func.max(table.c.placed)).where(table.c.project_id == project_id)
        first = (connection.scalar(last) or 0) + 1
        numbered = [{**row, "placed": first + k} for k, row in enumerate(rows[kind])]
        # What was taken away and placed again comes last, as it does in the design itself.
        for again in (False, True):
            part = [row for row in numbered if ((kind, row["id"]) in anew) == again]
            if part:
                statement = mysql_insert(table)
                kept = {c.name: statement.inserted[c.name] for c in table.c}
                if not again:
                    del kept["placed"]
                connection.execute(statement.on_duplicate_key_update(kept), part)
    for kind, element_id in sorted(gone, key=lambda row: -_RANK[row[0]]):
        table = ELEMENT_TABLES[kind]
        connection.execute(delete(table).where(table.c.project_id == project_id, table.c.id == element_id))


def _log(
    connection: Connection, project_id: str, revision: int, author: str, label: str, changes: Sequence[Change]
) -> None:
    text = json.dumps([c.model_dump(mode="json") for c in changes], ensure_ascii=False)
    connection.execute(
        insert(journal).values(
            project_id=project_id, revision=revision, author=author, label=label[:MAX_LABEL], changes=text
        )
    )


def _since(connection: Connection, project_id: str, revision: int) -> list[Change]:
    rows = select(journal.c.changes).where(journal.c.project_id == project_id, journal.c.revision > revision)
    found: list[Change] = []
    for text in connection.scalars(rows.order_by(journal.c.revision)):
        found += _CHANGES.validate_json(text)
    return found
