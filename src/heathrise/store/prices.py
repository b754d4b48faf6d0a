"""The firm's prices as rows."""

from __future__ import annotations

from collections.abc import Mapping

from sqlalchemy import Engine, select
from sqlalchemy.dialects.mysql import insert

from ..core.order import FirmPrice
from .tables import firm_price as table


class FirmPrices:
    """What the firm pays, by item."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def all(self) -> dict[str, FirmPrice]:
        """Return the firm's prices."""
        with self._engine.connect() as connection:
            return {r.item: FirmPrice(r.price, r.on) for r in connection.execute(select(table))}

    def take(self, prices: Mapping[str, FirmPrice]) -> None:
        """Write prices, all of them or none; those of other items stay."""
        rows = [{"item": item, "price": p.price, "on": p.on} for item, p in prices.items()]
        if rows:
            fresh = insert(table).values(rows)
            with self._engine.begin() as connection:
                connection.execute(
                    fresh.on_duplicate_key_update(price=fresh.inserted.price, on=fresh.inserted.on)
                )
