"""The firm's own practice profiles as rows."""

from __future__ import annotations

import logging
from collections.abc import Mapping

from sqlalchemy import Engine, delete, select
from sqlalchemy.dialects.mysql import insert

from ..core.catalogue import Matter, wrong_in
from ..core.design import DesignError, Practice, Problem, parse_element
from .tables import firm_practice as table

MOST_PRACTICES = 40
_log = logging.getLogger(__name__)


class FirmPractices:
    """What the firm has beside the profiles that ship."""

    def __init__(self, engine: Engine, matters: Mapping[str, Matter]) -> None:
        self._engine = engine
        self._matters = matters

    def all(self) -> list[Practice]:
        """Return the firm's profiles by id; one that cannot be any more is told and left out."""
        with self._engine.connect() as connection:
            rows = connection.execute(select(table).order_by(table.c.id)).all()
        found: list[Practice] = []
        for row in rows:
            try:
                found.append(self._checked({**row.said, "id": row.id}))
            except DesignError as error:
                _log.error("practice profile %s is left out: %s", row.id, error)
        return found

    def put(self, practice: Practice) -> None:
        """Keep a profile; one of its id is replaced.

        Raises:
            DesignError: it names what there is not, or is one too many.
        """
        self._checked(practice.model_dump(mode="json"))
        if len({p.id for p in self.all()} | {practice.id}) > MOST_PRACTICES:
            what = f"at most {MOST_PRACTICES} are kept; take one away that nobody goes by"
            raise DesignError([Problem("practice", what)])
        said = practice.model_dump(mode="json", exclude={"id"})
        fresh = insert(table).values(id=practice.id, said=said)
        with self._engine.begin() as connection:
            connection.execute(fresh.on_duplicate_key_update(said=fresh.inserted.said))

    def remove(self, key: str) -> bool:
        """Take a profile away; projects that go by it keep their own copy."""
        with self._engine.begin() as connection:
            return bool(connection.execute(delete(table).where(table.c.id == key)).rowcount)

    def _checked(self, row: dict[str, object]) -> Practice:
        practice = parse_element("practice", row, "practice")
        assert isinstance(practice, Practice)
        if problems := list(wrong_in(practice, self._matters, "practice")):
            raise DesignError(problems)
        return practice
