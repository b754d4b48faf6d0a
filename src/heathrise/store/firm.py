"""The firm as its papers show it, one row: its words, and its mark as a picture."""

from __future__ import annotations

from dataclasses import dataclass

from pydantic import ValidationError
from sqlalchemy import Engine, select, text
from sqlalchemy.dialects.mysql import insert

from ..core.context.firm import Firm
from .pictures import Kept
from .tables import firm as table
from .tables import setting

_ONLY = 1


@dataclass(frozen=True)
class FirmHead:
    """The firm and its mark; none where no picture was given."""

    firm: Firm
    mark: Kept | None


class FirmHeads:
    """The one firm of a database."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def get(self) -> FirmHead:
        """Return the firm; all empty where nothing was said of it yet."""
        with self._engine.connect() as connection:
            row = connection.execute(select(table).where(table.c.id == _ONLY)).first()
        if row is None:
            return FirmHead(Firm(), None)
        try:
            firm = Firm.model_validate(row.said)
        except ValidationError:  # of another version: what it knows of itself is kept
            known = {k: v for k, v in row.said.items() if k in Firm.model_fields}
            firm = Firm.model_validate(known)
        mark = Kept(row.media, row.mark) if row.mark is not None else None
        return FirmHead(firm, mark)

    def say(self, firm: Firm) -> None:
        """Write what the firm is called and how it is reached; its mark stays."""
        fresh = insert(table).values(id=_ONLY, said=firm.model_dump(mode="json"))
        with self._engine.begin() as connection:
            connection.execute(fresh.on_duplicate_key_update(said=fresh.inserted.said))

    def mark(self, picture: Kept | None) -> None:
        """Write the firm's mark, or take it away."""
        values = {
            "media": picture.media if picture is not None else None,
            "mark": picture.data if picture is not None else None,
        }
        fresh = insert(table).values(id=_ONLY, said=Firm().model_dump(mode="json"), **values)
        with self._engine.begin() as connection:
            connection.execute(fresh.on_duplicate_key_update(**values))

    def next_offer(self, year: int) -> str:
        """Return the number of the firm's next offer of a year; none is given twice."""
        name = f"offers-{year}"
        counted = text(
            "INSERT INTO setting (name, value) VALUES (:name, 1) ON DUPLICATE KEY UPDATE value = value + 1"
        )
        with self._engine.begin() as connection:
            connection.execute(counted, {"name": name})
            wanted = select(setting.c.value).where(setting.c.name == name)
            number = int(connection.execute(wanted).scalar_one())
        return f"{year}-{number:03d}"
