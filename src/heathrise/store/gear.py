"""The firm's own gear as rows. What a project has, or once had, is withdrawn and never taken away."""

from __future__ import annotations

import json
import logging
from collections import Counter
from collections.abc import Iterable, Sequence

from sqlalchemy import Engine, delete, func, select
from sqlalchemy.dialects.mysql import insert

from ..core.catalogue import Catalogue, OwnGear, with_gear
from ..core.context.integrity import GEAR_FIELDS
from ..core.design import DesignError
from .tables import ELEMENT_TABLES, journal
from .tables import firm_gear as table

_log = logging.getLogger(__name__)


class FirmGear:
    """What the firm has beside what is shipped."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def all(self) -> list[OwnGear]:
        """Return the firm's gear in order of its ids."""
        with self._engine.connect() as connection:
            rows = connection.execute(select(table).order_by(table.c.id)).all()
        return [OwnGear(shelf=r.shelf, entry=json.loads(r.entry), withdrawn=bool(r.withdrawn)) for r in rows]

    def put(self, rows: Sequence[OwnGear]) -> None:
        """Write gear, all of it or none; what has an id already is replaced."""
        if not rows:
            return
        values = [
            {"id": g.id, "shelf": g.shelf, "entry": json.dumps(g.entry), "withdrawn": g.withdrawn}
            for g in rows
        ]
        fresh = insert(table).values(values)
        columns = {name: fresh.inserted[name] for name in ("shelf", "entry", "withdrawn")}
        with self._engine.begin() as connection:
            connection.execute(fresh.on_duplicate_key_update(columns))

    def remove(self, key: str) -> bool:
        """Take gear away that no project has or had; return whether it was."""
        with self._engine.begin() as connection:
            named = select(func.count()).where(journal.c.changes.contains(f'"{key}"', autoescape=True))
            if self.used([key])[key] or connection.execute(named).scalar_one():
                return False
            return bool(connection.execute(delete(table).where(table.c.id == key)).rowcount)

    def used(self, keys: Iterable[str]) -> Counter[str]:
        """Return by id in how many projects gear stands."""
        wanted = list(keys)
        places: set[tuple[str, str]] = set()
        with self._engine.connect() as connection:
            for kind, field in GEAR_FIELDS:
                held = ELEMENT_TABLES[kind].c
                rows = select(held.project_id, held[field]).where(held[field].in_(wanted)).distinct()
                places |= {(r[0], r[1]) for r in connection.execute(rows)}
        return Counter(key for _, key in places)


def grown(catalogue: Catalogue, gear: Sequence[OwnGear]) -> Catalogue:
    """Return the catalogue with the firm's own gear; what cannot be any more, since a later version ships
    its name, is left out and told."""
    try:
        return with_gear(catalogue, gear)
    except DesignError:
        for row in gear:
            try:
                catalogue = with_gear(catalogue, [row])
            except DesignError as error:
                _log.error("gear %s of the firm's own is left out: %s", row.id, error)
        return catalogue
