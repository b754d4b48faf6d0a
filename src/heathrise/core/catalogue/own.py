"""The firm's own gear beside what is shipped: checked, and taken into the catalogue."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping
from typing import Any

from pydantic import ValidationError

from ..base.frozen import Strict
from ..base.plain_text import plain_values
from ..design import DesignError, Problem, describe
from .devices import DeviceModel, SplitterModel
from .entries import Entry
from .far_models import BridgeModel, RemoteModel, SunModel
from .models import BatteryModel, ConverterModel, ExtenderModel, FrameModel, InjectorModel, SwitchModel
from .shelves import Catalogue

PLAIN_SHELVES: dict[str, type[Entry]] = {
    "switches": SwitchModel,
    "injectors": InjectorModel,
    "extenders": ExtenderModel,
    "converters": ConverterModel,
    "splitters": SplitterModel,
    "frames": FrameModel,
    "batteries": BatteryModel,
    "bridges": BridgeModel,
    "remotes": RemoteModel,
    "suns": SunModel,
}
MOST_OWN = 2_000
_ID = re.compile(r"^[a-z0-9][a-z0-9_.-]{0,59}$")
_MOST_W = 5_000.0
_MOST_DBM = 36.0
_MOST_LABEL = 80
_DEMAND = "power"  # the field of what a device asks of its port


class OwnGear(Strict):
    """One thing that the firm has or had: the shelf it stands on, and its entry as JSON. What is
    ``withdrawn`` stays in the plans that have it, and is offered no more."""

    shelf: str
    entry: dict[str, Any]
    withdrawn: bool = False

    @property
    def id(self) -> str:
        return str(self.entry.get("id", ""))


def shelves_of(catalogue: Catalogue) -> dict[str, str]:
    """Return by shelf what stands on it, in words, of those that a firm can add to."""
    plain = {
        "switches": "Switch",
        "injectors": "Injector",
        "extenders": "Extender",
        "converters": "Converter",
        "splitters": "Splitter",
        "frames": "Frame",
        "batteries": "Battery",
        "bridges": "Line radio",
        "remotes": "Far router, dish",
        "suns": "Solar gear",
    }
    return {**{role.shelf: role.name for role in catalogue.roles.values()}, **plain}


def kind_on(catalogue: Catalogue, shelf: str) -> str | None:
    """Return the kind of device that stands on a shelf, None where none does."""
    return next((role.kind for role in catalogue.roles.values() if role.shelf == shelf), None)


def on_shelf(catalogue: Catalogue, shelf: str) -> Mapping[str, Entry]:
    """Return what stands on a shelf by id."""
    kind = kind_on(catalogue, shelf)
    held: Mapping[str, Entry] = catalogue.devices[kind] if kind is not None else getattr(catalogue, shelf)
    return held


def read_gear(catalogue: Catalogue, gear: OwnGear, where: str = "") -> Entry:
    """Return an entry, checked.

    Raises:
        DesignError: with each field that cannot be, and what to do.
    """
    of_devices = kind_on(catalogue, gear.shelf) is not None
    cls = PLAIN_SHELVES.get(gear.shelf) or (DeviceModel if of_devices else None)
    if cls is None:
        listed = ", ".join(shelves_of(catalogue))
        raise DesignError(
            [Problem(f"{where}shelf", f"there is no shelf {gear.shelf[:40]!r}; there are {listed}")]
        )
    row = plain_values({**gear.entry, "withdrawn": gear.withdrawn})
    try:
        entry = cls.model_validate(row)
    except ValidationError as error:
        raise DesignError([_plainly(p) for p in describe(error, where.rstrip("."))]) from None
    if problems := [Problem(f"{where}{field}", what) for field, what in _wrong(catalogue, gear.shelf, entry)]:
        raise DesignError(problems)
    return entry


def _plainly(problem: Problem) -> Problem:
    what = "is needed" if problem.what == "Field required" else problem.what
    return Problem(problem.where.lstrip("."), what)


def with_gear(catalogue: Catalogue, rows: Iterable[OwnGear]) -> Catalogue:
    """Return the catalogue with the firm's own gear; the same object where there is none.

    Raises:
        DesignError: an entry cannot be, or has the id of another thing.
    """
    plain: dict[str, dict[str, Entry]] = {}
    devices = {kind: dict(models) for kind, models in catalogue.devices.items()}
    own: dict[str, str] = dict(catalogue.own)
    taken = set(ids_of(catalogue))
    found = False
    for gear in rows:
        entry = read_gear(catalogue, gear, f"gear.{gear.shelf[:40]}[{gear.id[:60]}].")
        if entry.id in taken:
            raise DesignError([Problem(f"gear[{entry.id}].id", "is taken by another thing; choose another")])
        taken.add(entry.id)
        own[entry.id] = gear.shelf
        kind = kind_on(catalogue, gear.shelf)
        if isinstance(entry, DeviceModel) and kind is not None:
            devices[kind][entry.id] = entry
        else:
            plain.setdefault(gear.shelf, dict(on_shelf(catalogue, gear.shelf)))[entry.id] = entry
        found = True
    return catalogue.grown(devices, plain, own) if found else catalogue


def ids_of(catalogue: Catalogue) -> Iterator[str]:
    """Yield every id of gear, of the firm's and of what is shipped."""
    for shelf in PLAIN_SHELVES:
        yield from getattr(catalogue, shelf)
    for models in catalogue.devices.values():
        yield from models
    yield from catalogue.parts


def gear_of(catalogue: Catalogue, ids: Iterable[str]) -> list[OwnGear]:
    """Return the firm's own gear among some ids, as it is written to a file."""
    found = []
    for key in dict.fromkeys(ids):
        shelf = catalogue.own.get(key)
        if shelf is not None:
            held = on_shelf(catalogue, shelf)
            entry = held[key].model_dump(mode="json", exclude_defaults=True, exclude={"withdrawn"})
            found.append(OwnGear(shelf=shelf, entry=entry, withdrawn=held[key].withdrawn))
    return found


def _wrong(catalogue: Catalogue, shelf: str, entry: Entry) -> Iterator[tuple[str, str]]:
    """Yield what no sheet says: by field what is wrong, and what to do."""
    if not _ID.match(entry.id):
        yield "id", "should be small letters, digits, dots and dashes, 60 at most"
    if not 0 < len(entry.label.strip()) <= _MOST_LABEL:
        yield "label", f"a name of 1 to {_MOST_LABEL} characters is needed"
    if isinstance(entry, SwitchModel):
        yield from _wrong_switch(entry)
    if isinstance(entry, DeviceModel):
        yield from _wrong_device(catalogue, shelf, entry)
    watts = getattr(entry, "own_w", 0.0)
    if watts > _MOST_W:
        yield "own_w", f"{watts:g} W are no draw of a thing in a house; {_MOST_W:g} at most"
    if isinstance(entry, BatteryModel) and not (entry.wh > 0 and entry.watts > 0 and entry.va >= entry.watts):
        yield "va", "a battery holds Wh, gives W, and at least as many VA"
    if isinstance(entry, ExtenderModel) and entry.gives_class > entry.in_class:
        yield "gives_class", f"it cannot give class {entry.gives_class} on out of class {entry.in_class}"
    if isinstance(entry, BridgeModel) and entry.rates != tuple(sorted(set(entry.rates))):
        yield "rates", "each faster rate wants a higher level, and no level stands twice: the slowest first"
    if isinstance(entry, FrameModel) and entry.wall and not entry.holes_mm:
        yield "holes_mm", "a wall frame has two rows of holes: say how far they are apart"


def _wrong_switch(entry: SwitchModel) -> Iterator[tuple[str, str]]:
    if not entry.groups:
        yield "groups", "a switch has ports: say how many, how fast, and what power they give"
    if entry.powered_ports and entry.budget_w <= 0:
        yield "budget_w", f"{entry.powered_ports} ports give power and nothing is behind them: say its watts"
    if entry.budget_w > _MOST_W:
        yield "budget_w", f"{entry.budget_w:g} W are no budget of a switch; {_MOST_W:g} at most"


def _wrong_device(catalogue: Catalogue, shelf: str, entry: DeviceModel) -> Iterator[tuple[str, str]]:
    role = next(r for r in catalogue.roles.values() if r.shelf == shelf)
    if entry.speed_mbps < 1:
        yield "speed_mbps", "its port has a speed"
    power = entry.power
    if power is not None:
        has = catalogue.rules.poe_classes[power.poe_class].device_w
        if power.rated_w > has:
            yield (
                f"{_DEMAND}.rated_w",
                f"class {power.poe_class} has {has:g} W at the device, not {power.rated_w:g}",
            )
        if power.rated_w <= 0 or power.typical_w > power.rated_w:
            yield f"{_DEMAND}.typical_w", "it draws watts, usually no more than at most"
    elif entry.own_w <= 0 and role.links == "one":
        yield _DEMAND, "say its class and watts, or what it draws from the mains"
    for band, radio in (entry.air.radios if entry.air is not None else {}).items():
        if not radio.min_power_dbm <= radio.max_power_dbm <= _MOST_DBM:
            yield f"air.radios.{band}", f"power from least to most, {_MOST_DBM:g} dBm at most"
    if role.records and entry.records < 1:
        yield "records", "say how many cameras it takes"
