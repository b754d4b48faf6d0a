"""Keys as rows: sealed, one for each thing that has one, the last that was made."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Literal

from sqlalchemy import Engine, delete, func, select
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.exc import IntegrityError

from .repository import UnknownProject
from .tables import sealed_key as table
from .unknown import Unknown
from .vault import Vault

MadeHow = Literal["words", "characters", "typed"]


class UnknownKey(Unknown):
    """No key is kept of this."""

    what = "key of"


@dataclass(frozen=True)
class KeptKey:
    """That a key is kept, or so many ``parts`` as one, and what may be said of it: never the key."""

    of: str
    how: MadeHow
    bits: float
    made: datetime
    author: str
    parts: int = 1


class Keys:
    """The one way to keys: they are sealed before they are written, and opened for who asks by name."""

    def __init__(self, engine: Engine, vault: Vault) -> None:
        self._engine = engine
        self._vault = vault

    def all(self, project_id: str) -> dict[str, KeptKey]:
        """Return what is kept of a project, by what it is the key of."""
        wanted = select(table).where(table.c.project_id == project_id).order_by(table.c.of)
        with self._engine.connect() as connection:
            rows = connection.execute(wanted).all()
        return {
            r.of: KeptKey(r.of, r.how, r.bits, r.made.replace(tzinfo=UTC), r.author, r.parts) for r in rows
        }

    def put(
        self, project_id: str, of: str, key: str, how: MadeHow, bits: float, author: str, parts: int = 1
    ) -> None:
        """Keep a key in place of what was there; ``parts`` says how many codes are in it.

        Raises:
            UnknownProject: there is no such project.
            VaultError: it cannot be sealed.
        """
        with self._engine.connect() as connection:
            first = not connection.scalar(select(func.count()).select_from(table))
        token = self._vault.seal(project_id, of, key, first)
        made = datetime.now(UTC).replace(tzinfo=None)
        row = {"token": token, "how": how, "bits": bits, "parts": parts, "made": made, "author": author}
        fresh = insert(table).values(project_id=project_id, of=of, **row)
        try:
            with self._engine.begin() as connection:
                connection.execute(fresh.on_duplicate_key_update(**row))
        except IntegrityError as error:
            raise UnknownProject(project_id) from error

    def show(self, project_id: str, of: str) -> str:
        """Return a key.

        Raises:
            UnknownKey: none is kept of this.
            VaultError: it cannot be opened.
        """
        wanted = select(table.c.token).where(table.c.project_id == project_id, table.c.of == of)
        with self._engine.connect() as connection:
            token = connection.scalar(wanted)
        if token is None:
            raise UnknownKey(of)
        return self._vault.open(project_id, of, token)

    def forget(self, project_id: str, of: str) -> None:
        with self._engine.begin() as connection:
            connection.execute(delete(table).where(table.c.project_id == project_id, table.c.of == of))
