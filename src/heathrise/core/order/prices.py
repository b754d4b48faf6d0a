"""What things cost: the firm's prices before those that the catalogue ships with."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date

from ..catalogue import Catalogue
from .packs import Pack


@dataclass(frozen=True)
class Item:
    """A thing that can be bought: its unit, the price that is shipped, packs it comes in."""

    id: str
    label: str
    unit: str
    price: float
    packs: tuple[Pack, ...] = ()


@dataclass(frozen=True)
class FirmPrice:
    """What the firm pays for an item, and since when."""

    price: float
    on: date


def items_of(catalogue: Catalogue) -> dict[str, Item]:
    """Return everything that an order can hold, by id."""
    found: dict[str, Item] = {}
    for kind in catalogue.devices:
        for model in catalogue.sold(kind):
            packs = tuple(Pack(int(n), p) for n, p in model.packs.items())
            found[model.id] = Item(model.id, model.label, "piece", model.price, packs)
    for shelf in (catalogue.sold_switches, catalogue.injectors.values()):
        for row in shelf:
            found[row.id] = Item(row.id, row.label, "piece", row.price)
    for key, cable in catalogue.cables.items():
        label = f"{cable.label}, box of {cable.box_m:g} m"
        found[f"cable-{key.lower()}"] = Item(f"cable-{key.lower()}", label, "box", cable.box_price)
    for key, fibre in catalogue.fibres.items():
        found[f"fibre-{key}"] = Item(f"fibre-{key}", fibre.label, "m", fibre.price_per_m)
        found[f"optic-{key}"] = Item(
            f"optic-{key}", f"Optic for {fibre.label}", "piece", fibre.optic_price
        )
    for part in catalogue.parts.values():
        found[part.id] = Item(part.id, part.label, part.unit, part.price)
    return found


@dataclass(frozen=True)
class Prices:
    """Items with their prices in force."""

    items: Mapping[str, Item]
    firm: Mapping[str, FirmPrice]

    def each(self, item: str) -> float:
        """Return the price of one."""
        own = self.firm.get(item)
        return own.price if own is not None else self.items[item].price

    def packs(self, item: str) -> tuple[Pack, ...]:
        """Return the packs an item comes in; the firm's price for one moves them alike."""
        row = self.items[item]
        factor = self.each(item) / row.price if row.price else 1.0
        single = Pack(1, self.each(item))
        return (single, *(Pack(p.count, round(p.price * factor, 2)) for p in row.packs))

    def since(self, item: str) -> date | None:
        """Return the day of the firm's price, or None where it has none."""
        own = self.firm.get(item)
        return own.on if own is not None else None
