"""Serials as CSV in: which device of the plan has which label, as it was scanned or typed in the van."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from .tables_in import Fault, read_table

COLUMNS = {"device": ("name", "label", "device_name", "id"), "serial": ("serial_number", "serial_no", "sn")}
MOST_CHARACTERS = 60


@dataclass(frozen=True)
class SerialsIn:
    """What could be read of a file of serials, by the device's id, and what could not."""

    serials: Mapping[str, str]
    faults: tuple[Fault, ...]


def read_serials(data: bytes, devices: Mapping[str, str]) -> SerialsIn:
    """Return the serials of a file; a row at fault is told and left out.

    Args:
        devices: what each device and switch is called, by its id.

    Raises:
        DesignError: it is no such file at all.
    """
    by_name: dict[str, list[str]] = {}
    for key, name in devices.items():
        by_name.setdefault(name.casefold(), []).append(key)
    found: dict[str, str] = {}
    faults: list[Fault] = []
    for row in read_table(data, COLUMNS, ("device", "serial")):
        called = row.cells.get("device", "").strip().lstrip("'")
        serial = row.cells.get("serial", "").strip().lstrip("'")
        mine = [called] if called in devices else by_name.get(called.casefold(), [])
        taken = next((k for k, s in found.items() if s == serial), None)
        if len(mine) != 1:
            many = f"{len(mine)} devices of this plan are" if mine else "no device of this plan is"
            faults.append(Fault(row.line, f"{many} called {called[:40]!r}"))
        elif not serial or len(serial) > MOST_CHARACTERS or not serial.isprintable():
            faults.append(Fault(row.line, f"says no serial of up to {MOST_CHARACTERS} characters"))
        elif mine[0] in found:
            faults.append(Fault(row.line, f"{called[:40]} stands in the file twice"))
        elif taken is not None:
            faults.append(Fault(row.line, f"{serial[:40]} is {devices[taken][:40]}'s already"))
        else:
            found[mine[0]] = serial
    return SerialsIn(found, tuple(faults))
