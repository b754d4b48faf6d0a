"""The firm's price list, as CSV in and out."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import date

from ..core.catalogue import FirmPrice, Item
from .tables_csv import write_rows
from .tables_in import Fault, Sign, decimal_sign, number_by, read_table, signs_of

COLUMNS = {
    "item": ("id", "article", "part", "sku"),
    "price": ("net", "price_each", "cost"),
    "on": ("date", "since", "valid_from"),
}
LEAST_PRICE, MOST_PRICE = 0.01, 1_000_000.0


@dataclass(frozen=True)
class PriceList:
    """What could be read of a list, and what could not.

    ``asks`` are prices of which nobody can tell whether a sign in them stands before thousands or
    before decimals: with any of them nothing is read until somebody says.
    """

    prices: Mapping[str, FirmPrice]
    faults: tuple[Fault, ...]
    asks: tuple[str, ...] = ()


def read_prices(
    data: bytes, items: Mapping[str, Item], today: date, decimal: Sign | None = None
) -> PriceList:
    """Return the prices of a list; a row at fault is told and left out.

    Args:
        decimal: the sign before decimals, if somebody said; else the whole column decides.

    Raises:
        DesignError: it is no list of prices at all.
    """
    rows = list(read_table(data, COLUMNS, ("item", "price")))
    texts = [row.cells["price"] for row in rows]
    sign = decimal or decimal_sign(texts)
    asks = dict.fromkeys(t for t in texts if len(signs_of(t)) == 2 and any(c in t for c in ".,"))
    if sign is None and asks:
        return PriceList({}, (), tuple(asks))
    prices: dict[str, FirmPrice] = {}
    faults: list[Fault] = []
    for row in rows:
        item, text = row.cells["item"].lstrip("'"), row.cells["price"]
        price, on = number_by(text, sign or "."), _day(row.cells.get("on", ""), today)
        wrong = ""
        if item not in items:
            wrong = f"{item[:40] or 'nothing'!r} is not an item of the catalogue"
        elif item in prices:
            wrong = f"{item} stands twice; the first counts"
        elif not text:
            continue  # no price yet: the shipped one holds
        elif price is None:
            wrong = f"{text[:30]!r} is no price"
        elif not LEAST_PRICE <= price <= MOST_PRICE:
            wrong = f"{price:g} cannot be a price; it should be {LEAST_PRICE} at least"
        elif on is None:
            wrong = f"{row.cells['on'][:20]!r} is no day; write it as 2026-11-25"
        if wrong:
            faults.append(Fault(row.line, wrong))
        elif price is not None and on is not None:
            prices[item] = FirmPrice(round(price, 4), on)
    return PriceList(prices, tuple(faults))


def write_prices(items: Iterable[Item], firm: Mapping[str, FirmPrice]) -> str:
    """Return the list of all items, with the firm's prices where it has them."""
    header = ("item", "label", "unit", "price", "on", "shipped_price")
    rows = (
        (
            i.id,
            i.label,
            i.unit,
            firm[i.id].price if i.id in firm else "",
            firm[i.id].on.isoformat() if i.id in firm else "",
            i.price,
        )
        for i in items
    )
    return write_rows(header, rows)


def _day(text: str, today: date) -> date | None:
    if not text:
        return today
    try:
        return date.fromisoformat(text)
    except ValueError:
        return None
