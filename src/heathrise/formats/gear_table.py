"""The firm's own gear as plain fields: of a form, or of a CSV with a row for each thing.

Ports are written as ``8 x 2500 class 6, 16 x 1000, 2 x 10000 cage``, radios as
``2.4: 6 to 20 dBm, 4 dBi; 5: 6 to 25 dBm, 5 dBi``, packs as ``2: 259, 3: 369``, rates of a radio for a line,
from dBm on Mb/s, as ``-90: 20, -80: 90``.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from pydantic import Field

from ..core.base.frozen import Frozen
from ..core.base.wording import some
from ..core.catalogue import Catalogue, OwnGear, ids_of, read_gear, shelves_of
from ..core.design import DesignError, Problem
from .tables_csv import write_rows
from .tables_in import Fault, number_of, read_table

_DEVICES = "devices"
Kind = Literal["text", "number", "flag", "choice", "ports", "radios", "packs", "rates", "words"]


class GearField(Frozen):
    """A field of gear: its name in a table, what it is called, its unit, and where it counts."""

    name: str
    label: str
    unit: str = ""
    kind: Kind = "number"
    choices: tuple[str, ...] = ()
    shelves: tuple[str, ...] = Field((), description="on which shelves; none for all")


def _f(
    name: str, label: str, unit: str = "", kind: Kind = "number", *on: str, choices: str = ""
) -> GearField:
    return GearField(name=name, label=label, unit=unit, kind=kind, shelves=on, choices=tuple(choices.split()))


_IN_LINE = ("injectors", "extenders", "splitters", "converters")
_PLUGGED = ("injectors", "batteries", "converters")
# In the order of a form. ``devices`` stands for every shelf of devices.
FIELDS: tuple[GearField, ...] = (
    _f("label", "Name", kind="text"),
    _f("price", "Price, before tax"),
    _f("packs", "Packs, pieces: price", "", "packs", _DEVICES),
    _f("speed_mbps", "Speed of its port", "Mb/s", "number", _DEVICES, *_IN_LINE),
    _f("groups", "Ports", "", "ports", "switches"),
    _f("ports", "Ports for others", "", "ports", _DEVICES),
    _f("budget_w", "Watts for its ports together", "W", "number", "switches"),
    _f("allocates", "Allots watts by", "", "choice", "switches", choices="class negotiated"),
    _f("managed", "Tells networks apart", "", "flag", "switches"),
    _f("power.poe_class", "Class of power it asks for", "", "number", _DEVICES),
    _f("power.rated_w", "Draws at most", "W", "number", _DEVICES),
    _f("power.typical_w", "Draws usually", "W", "number", _DEVICES),
    _f("poe_class", "Class of power", "", "number", "injectors", "splitters", "bridges"),
    _f("band", "Band", "GHz", "choice", "bridges", choices="5 60"),
    _f("power_dbm", "Sends with", "dBm", "number", "bridges"),
    _f("gain_dbi", "Gain of its antenna", "dBi", "number", "bridges"),
    _f("beam_deg", "Width of its beam", "°", "number", "bridges"),
    _f("rates", "Rates, from dBm: Mb/s", "", "rates", "bridges"),
    _f("kind", "Reaches a place over", "", "choice", "remotes", choices="power_line cellular satellite"),
    _f("label_mbps", "Its label says", "Mb/s", "number", "remotes"),
    _f("delay_ms", "Delay there and back", "ms", "number", "remotes"),
    _f("gives_v", "Gives on", "V", "number", "splitters"),
    _f("gives_w", "Gives on at most", "W", "number", "splitters"),
    _f("dc_v", "Volts of its plug-in supply", "V", "number", _DEVICES),
    _f("in_class", "Class of power it takes", "", "number", "extenders"),
    _f("gives_class", "Class of power it gives on", "", "number", "extenders", "converters"),
    _f("own_w", "Draws itself", "W", "number"),
    _f("noise_db", "Sound at a metre", "dB(A)", "number", _DEVICES, "switches", *_PLUGGED),
    _f("units", "Units of a rack, 0 for a shelf", "", "number"),
    _f("wide_mm", "Wide", "mm", "number"),
    _f("deep_mm", "Deep, with its plugs", "mm", "number"),
    _f("kg", "Weighs", "kg", "number"),
    _f("least_c", "Made for, from", "°C", "number", _DEVICES),
    _f("most_c", "Made for, up to", "°C", "number", _DEVICES, "switches", *_PLUGGED),
    _f("outdoor", "Made for outdoors", "", "flag", _DEVICES, "extenders"),
    _f("mounts", "Mounts", "", "words", _DEVICES, choices="ceiling wall desk pole"),
    _f("air.generation", "Generation of its radios", "", "choice", _DEVICES, choices="4 5 6 6E 7"),
    _f("air.pattern", "Shape of its antenna", "", "choice", _DEVICES, choices="dome omni panel"),
    _f("air.radios", "Radios", "", "radios", _DEVICES),
    _f("sockets", "Sockets", "", "number", "outlets"),
    _f("inspect_mbps", "Passes with inspection on", "Mb/s", "number", "routers"),
    _f("records", "Takes cameras", "", "number", "recorders"),
    _f("bays", "Bays for disks", "", "number", "recorders", "storage"),
    _f("view.pixels", "Pixels across", "", "number", "cameras", "doorbells"),
    _f("view.across_deg", "Sees across", "°", "number", "cameras", "doorbells"),
    _f("view.up_deg", "Sees from top to bottom", "°", "number", "cameras", "doorbells"),
    _f("stream.day_mbps", "Sends by day", "Mb/s", "number", "cameras"),
    _f("stream.night_mbps", "Sends by night", "Mb/s", "number", "cameras"),
    _f("wall", "Screwed to a wall", "", "flag", "frames"),
    _f("bears_kg", "Bears", "kg", "number", "frames"),
    _f("holes_mm", "Its two rows of holes are apart", "mm", "number", "frames"),
    _f("va", "Gives", "VA", "number", "batteries"),
    _f("watts", "Gives", "W", "number", "batteries", "suns"),
    _f("wh", "Holds when new", "Wh", "number", "batteries", "suns"),
    _f("chemistry", "Made of", "", "choice", "suns", choices="lead_acid lithium"),
)
_BARE = ("noise_db", "units", "wide_mm", "deep_mm", "kg")
_NOT_RACKED = {"extenders": _BARE, "splitters": _BARE, "frames": ("own_w",)}
_NOT_RACKED |= {"bridges": _BARE, "remotes": _BARE, "suns": (*_BARE, "own_w")}
_WHOLE = {"speed_mbps", "units", "poe_class", "power.poe_class", "in_class", "gives_class", "sockets"}
_WHOLE |= {"inspect_mbps", "records", "bays", "view.pixels"}
_PORTS = re.compile(r"^(\d+)\s*[x×*]\s*(\d+)(?:\s+class\s+(\d))?(\s+cage)?$")
_RADIO = re.compile(
    r"^(2\.4|5|6):\s*(-?[\d.]+)\s+to\s+(-?[\d.]+)\s*dBm\s*,\s*(-?[\d.]+)\s*dBi$", re.IGNORECASE
)


def fields_of(catalogue: Catalogue, shelf: str) -> list[GearField]:
    """Return the fields that count on a shelf, in the order of a form."""
    devices = {role.shelf for role in catalogue.roles.values()}

    def counts(field: GearField) -> bool:
        on = field.shelves
        here = not on or shelf in on or (_DEVICES in on and shelf in devices)
        return here and field.name not in _NOT_RACKED.get(shelf, ())

    return [field for field in FIELDS if counts(field)]


def flat_of(catalogue: Catalogue, shelf: str, entry: Mapping[str, Any]) -> dict[str, str]:
    """Return an entry as texts by field; what it leaves out is empty."""
    return {field.name: _text(field, _at(entry, field.name)) for field in fields_of(catalogue, shelf)}


def gear_from(
    catalogue: Catalogue, shelf: str, values: Mapping[str, str], key: str = "", where: str = ""
) -> OwnGear:
    """Return gear of the firm's own from texts by field, checked; without a ``key`` it is named by its label.

    Raises:
        DesignError: with each field that cannot be read, or cannot be.
    """
    if shelf not in shelves_of(catalogue):
        what = f"there is no shelf {shelf[:40]!r}; there are {', '.join(shelves_of(catalogue))}"
        raise DesignError([Problem(f"{where}shelf", what)])
    entry: dict[str, Any] = {}
    problems: list[Problem] = []
    if not values.get("label", "").strip():
        problems.append(Problem(f"{where}label", "is needed: what it is called"))
    for field in fields_of(catalogue, shelf):
        text = values.get(field.name, "").strip()
        if not text:
            continue
        try:
            _set(entry, field.name, _read(field, text))
        except ValueError as error:
            problems.append(Problem(f"{where}{field.name}", str(error)))
    if problems:
        raise DesignError(problems)
    entry["id"] = key or named(str(entry.get("label", "")))
    if shelf == "switches":
        entry.setdefault("groups", [])
    gear = OwnGear(shelf=shelf, entry=entry)
    read_gear(catalogue, gear, where)
    return gear


def named(label: str) -> str:
    """Return the id of gear that is called so."""
    plain = re.sub(r"[^a-z0-9]+", "-", label.lower()).strip("-")
    return f"own-{plain}"[:60].rstrip("-")


# -- in and out ------------------------------------------------------------------------------------


@dataclass(frozen=True)
class GearRead:
    """What could be read of a table of gear, and what could not."""

    gear: Sequence[OwnGear]
    faults: tuple[Fault, ...]


def read_gear_table(data: bytes, catalogue: Catalogue) -> GearRead:
    """Read a table of gear; a row at fault is told and left out.

    Raises:
        DesignError: it is no such table at all.
    """
    columns = {"id": ("item", "article"), "shelf": ("kind",)} | {f.name: _names(f) for f in FIELDS}
    shipped = set(ids_of(catalogue)) - set(catalogue.own)
    found: dict[str, OwnGear] = {}
    faults: list[Fault] = []
    for row in read_table(data, columns, ("shelf", "label")):
        shelf, key = row.cells["shelf"].lower(), row.cells.get("id", "").lstrip("'")
        if not key and not row.cells["label"]:
            continue
        try:
            gear = gear_from(catalogue, shelf, row.cells, key)
        except DesignError as error:
            faults.append(Fault(row.line, some([str(p) for p in error.problems])))
            continue
        if gear.id in shipped:
            faults.append(Fault(row.line, f"{gear.id} is shipped; leave its id out, or choose another"))
        elif gear.id in found:
            faults.append(Fault(row.line, f"{gear.id} stands twice; the first counts"))
        else:
            found[gear.id] = gear
    return GearRead(list(found.values()), tuple(faults))


def write_gear_table(catalogue: Catalogue, rows: Iterable[OwnGear]) -> str:
    """Return gear as a table with every field; read again it is the same."""
    header = ("shelf", "id", *(f.name for f in FIELDS))

    def cells() -> Iterator[tuple[object, ...]]:
        for gear in rows:
            flat = flat_of(catalogue, gear.shelf, gear.entry)
            yield (gear.shelf, gear.id, *(flat.get(f.name, "") for f in FIELDS))

    return write_rows(header, cells())


def _names(field: GearField) -> tuple[str, ...]:
    """Return what a column may be called beside its field's own name."""
    more = {"groups": ("switch_ports",), "label": ("name",), "price": ("net", "price_each")}
    return more.get(field.name, ())


# -- single fields -----------------------------------------------------------------------------------


def _at(entry: Mapping[str, Any], path: str) -> Any:
    value: Any = entry
    for part in path.split("."):
        value = value.get(part) if isinstance(value, Mapping) else None
    return value


def _set(entry: dict[str, Any], path: str, value: Any) -> None:
    *parts, last = path.split(".")
    for part in parts:
        entry = entry.setdefault(part, {})
    entry[last] = value


def _text(field: GearField, value: Any) -> str:
    if value is None or value in ((), [], {}):
        return ""
    return _TEXTS.get(field.kind, _plain_text)(value)


def _plain_text(value: Any) -> str:
    return f"{value:g}" if isinstance(value, int | float) else str(value)


def _radios_text(radios: Mapping[str, Mapping[str, float]]) -> str:
    return "; ".join(
        f"{band}: {r['min_power_dbm']:g} to {r['max_power_dbm']:g} dBm, {r['gain_dbi']:g} dBi"
        for band, r in radios.items()
    )


def _port_text(group: Mapping[str, Any]) -> str:
    power = f" class {group['poe_class']}" if group.get("poe_class") is not None else ""
    return f"{group['count']} x {group['speed_mbps']}{power}{' cage' if group.get('cage') else ''}"


def _read(field: GearField, text: str) -> Any:
    """Return a field's value.

    Raises:
        ValueError: it is none, with what to write.
    """
    return _READS[field.kind](field, text)


def _words(field: GearField, text: str) -> list[str]:
    words = [w.strip().lower() for w in re.split(r"[,;]", text) if w.strip()]
    if unknown := [w for w in words if w not in field.choices]:
        raise ValueError(f"{unknown[0][:20]!r} is none of {', '.join(field.choices)}")
    return words


def _flag(_: GearField, text: str) -> bool:
    if text.lower() not in _FLAGS:
        raise ValueError(f"{text[:20]!r} is neither yes nor no")
    return _FLAGS[text.lower()]


def _choice(field: GearField, text: str) -> str:
    match = next((c for c in field.choices if c.lower() == text.lower()), None)
    if match is None:
        raise ValueError(f"{text[:20]!r} is none of {', '.join(field.choices)}")
    return match


def _number(field: GearField, text: str) -> float:
    number = number_of(text)
    if number is None:
        raise ValueError(f"{text[:20]!r} is no number")
    if field.name not in _WHOLE:
        return number
    if number != int(number):
        raise ValueError(f"{text[:20]!r} should be a whole number")
    return int(number)


def _port(text: str) -> dict[str, Any]:
    match = _PORTS.match(text)
    if match is None:
        raise ValueError(f"{text[:40]!r} are no ports; write 8 x 1000 class 4, or 2 x 10000 cage")
    count, speed, poe, cage = match.groups()
    return {
        "count": int(count),
        "speed_mbps": int(speed),
        "poe_class": int(poe) if poe is not None else None,
        "cage": cage is not None,
    }


def _radio(text: str) -> tuple[str, dict[str, float]]:
    match = _RADIO.match(text)
    if match is None:
        raise ValueError(f"{text[:40]!r} is no radio; write 5: 6 to 23 dBm, 4 dBi")
    band, least, most, gain = match.groups()
    return band, {"gain_dbi": float(gain), "min_power_dbm": float(least), "max_power_dbm": float(most)}


def _pack(text: str) -> tuple[str, float]:
    count, _, price = text.partition(":")
    number = number_of(price)
    if not count.strip().isdigit() or number is None:
        raise ValueError(f"{text[:20]!r} is no pack; write 3: 369")
    return count.strip(), number


def _rate(text: str) -> tuple[float, float]:
    least, _, mbps = text.partition(":")
    dbm, rate = number_of(least), number_of(mbps)
    if dbm is None or rate is None:
        raise ValueError(f"{text[:20]!r} is no rate; write -80: 90, for 90 Mb/s from -80 dBm on")
    return dbm, rate


_FLAGS = {"yes": True, "true": True, "1": True, "x": True, "no": False, "false": False, "0": False}
_TEXTS: dict[str, Callable[[Any], str]] = {
    "ports": lambda groups: ", ".join(_port_text(group) for group in groups),
    "radios": _radios_text,
    "packs": lambda packs: ", ".join(f"{count}: {price:g}" for count, price in packs.items()),
    "rates": lambda rates: ", ".join(f"{dbm:g}: {mbps:g}" for dbm, mbps in rates),
    "words": ", ".join,
    "flag": lambda value: "yes" if value else "no",
}
_READS: dict[Kind, Callable[[GearField, str], Any]] = {
    "ports": lambda _, text: [_port(part.strip()) for part in re.split(r"[,;]", text) if part.strip()],
    "radios": lambda _, text: dict(_radio(part.strip()) for part in text.split(";") if part.strip()),
    "packs": lambda _, text: dict(_pack(part.strip()) for part in text.split(",") if part.strip()),
    "rates": lambda _, text: [_rate(part.strip()) for part in text.split(",") if part.strip()],
    "words": _words,
    "flag": _flag,
    "choice": _choice,
    "text": lambda _, text: text,
    "number": _number,
}
