"""What things cost: the firm's prices before those that the catalogue ships with."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from functools import cached_property

from ..design import Jacket
from .devices import DeviceModel, SplitterModel
from .models import (
    JACKETS,
    BatteryModel,
    ConverterModel,
    ExtenderModel,
    FrameModel,
    InjectorModel,
    SwitchModel,
)
from .shelves import Catalogue


@dataclass(frozen=True)
class Pack:
    """So many together at one price."""

    count: int
    price: float


@dataclass(frozen=True)
class Item:
    """A thing that can be bought: its unit, the price that is shipped, packs it comes in."""

    id: str
    label: str
    unit: str
    price: float
    packs: tuple[Pack, ...] = ()
    sold: bool = True


@dataclass(frozen=True)
class FirmPrice:
    """What the firm pays for an item, and since when."""

    price: float
    on: date


def items_of(catalogue: Catalogue) -> dict[str, Item]:
    """Return everything that an order can hold, by id; with what nobody sells any more, since an
    older plan may have it as new."""
    found: dict[str, Item] = {}
    for models in catalogue.devices.values():
        for model in models.values():
            packs = tuple(Pack(int(n), p) for n, p in model.packs.items())
            found[model.id] = _item(model, model.old is None and not model.withdrawn, packs)
    for switch in catalogue.switches.values():
        found[switch.id] = _item(switch, switch.old is None and not switch.withdrawn)
    for injector in catalogue.injectors.values():
        found[injector.id] = _item(injector, not injector.withdrawn)
    for extender in catalogue.extenders.values():
        found[extender.id] = _item(extender, not extender.withdrawn)
    for converter in catalogue.converters.values():
        found[converter.id] = _item(converter, not converter.withdrawn)
    for splitter in catalogue.splitters.values():
        found[splitter.id] = _item(splitter, not splitter.withdrawn)
    for frame in catalogue.frames.values():
        found[frame.id] = _item(frame, not frame.withdrawn)
    for battery in catalogue.batteries.values():
        found[battery.id] = _item(battery, not battery.withdrawn)
    for cable in catalogue.cables.values():
        for jacket, sold in cable.jackets.items():
            label = f"{cable.label}{JACKETS[jacket]}"
            box, reel = cable.item(jacket), cable.item(jacket, reel=True)
            found[box] = Item(box, f"{label}, box of {cable.box_m:g} m", "box", sold.box_price)
            found[reel] = Item(reel, f"{label}, reel of {cable.reel_m:g} m", "reel", sold.reel_price)
    for key, fibre in catalogue.fibres.items():
        for jacket, price in (
            ("indoor", fibre.price_per_m),
            ("riser", fibre.riser_price_per_m),
            ("plenum", fibre.plenum_price_per_m),
            ("outdoor", fibre.outside_price_per_m),
        ):
            item = fibre.item(jacket)
            said = ", for outdoors and the ground" if jacket == "outdoor" else JACKETS[jacket]
            found[item] = Item(item, f"{fibre.label}{said}", "m", price)
        found[f"optic-{key}"] = Item(f"optic-{key}", f"Optic for {fibre.label}", "piece", fibre.optic_price)
    for shelf in (catalogue.bridges, catalogue.remotes, catalogue.suns):
        for far in shelf.values():
            found[far.id] = Item(far.id, far.label, "piece", far.price, sold=not far.withdrawn)
    for part in catalogue.parts.values():
        found[part.id] = Item(part.id, part.label, part.unit, part.price)
    return found


def priced_items(catalogue: Catalogue) -> dict[str, Item]:
    """Return what the firm can have a price for, by id."""
    return {key: item for key, item in items_of(catalogue).items() if item.sold}


def _item(
    model: DeviceModel
    | SwitchModel
    | InjectorModel
    | ExtenderModel
    | ConverterModel
    | FrameModel
    | SplitterModel
    | BatteryModel,
    sold: bool,
    packs: tuple[Pack, ...] = (),
) -> Item:
    label = model.label if sold else f"{model.label}, no longer sold: choose another"
    return Item(model.id, label, "piece", model.price, packs, sold)


@dataclass(frozen=True, eq=False)
class Prices:
    """Items with their prices in force."""

    catalogue: Catalogue
    firm: Mapping[str, FirmPrice]

    @cached_property
    def items(self) -> Mapping[str, Item]:
        return items_of(self.catalogue)

    def each(self, item: str) -> float:
        """Return the price of one."""
        own = self.firm.get(item)
        return own.price if own is not None else self.items[item].price

    def cable_metre(self, category: str, jacket: Jacket) -> float:
        """Return the price of a metre of cable out of a box."""
        cable = self.catalogue.cables[category]
        return self.each(cable.item(jacket)) / cable.box_m

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
