"""The firm's prices as rows."""

from __future__ import annotations

from collections.abc import Mapping

from sqlalchemy import Engine, select
from sqlalchemy.dialects.mysql import insert

from ..core.catalogue import FirmPrice
from ..core.context.plan import NO_PRICES
from .tables import firm_price as table


class FirmPrices:
    """What the firm pays, by item."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self._last: Mapping[str, FirmPrice] = NO_PRICES

    def all(self) -> Mapping[str, FirmPrice]:
        """Return the firm's prices; the same object for as long as they stay as they are."""
        with self._engine.connect() as connection:
            found = {r.item: FirmPrice(r.price, r.on) for r in connection.execute(select(table))}
        if found != self._last:
            self._last = found
        return self._last

    def take(self, prices: Mapping[str, FirmPrice]) -> None:
        """Write prices, all of them or none; those of other items stay."""
        rows = [{"item": item, "price": p.price, "on": p.on} for item, p in prices.items()]
        if rows:
            fresh = insert(table).values(rows)
            with self._engine.begin() as connection:
                connection.execute(
                    fresh.on_duplicate_key_update(price=fresh.inserted.price, on=fresh.inserted.on)
                )
