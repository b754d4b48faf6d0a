"""What a switch's table or a meter says of its ports, as CSV in: by port, or by a cable's label."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime

from ..core.design import DesignError, Problem
from ..core.install import Label
from ..core.records import PlannedPort, PortReading
from .tables_in import Fault, Once, Row, number_of, read_table, taken_at

COLUMNS = {
    "switch": ("switch_name", "host", "unit"),
    "port": ("interface", "number"),
    "label": ("cable_id", "id", "cable"),
    "link_mbps": ("mbps", "speed_mbps", "speed", "link"),
    "watts": ("w", "power_w", "power", "drawn_w"),
    "date": ("at", "time", "read"),
    "meter": ("by", "operator", "author"),
}
MOST_READINGS = 20_000
_FASTEST_MBPS, _MOST_W = 400_000, 200.0
_DOWN = {"down", "none", "no link", "no_link", "-"}


@dataclass(frozen=True)
class ReadPort:
    """A reading, and the key under which it is written once.

    There is no key where nothing tells a reading from the one before: see ``anew``.
    """

    key: str | None
    reading: PortReading


@dataclass(frozen=True)
class PortsIn:
    """What could be read of a file of ports, and what could not."""

    readings: tuple[ReadPort, ...]
    faults: tuple[Fault, ...]


def read_ports(
    data: bytes, ports: Sequence[PlannedPort], labels: Sequence[Label], runs: Mapping[str, str], now: datetime
) -> PortsIn:
    """Return the readings of a file; a row at fault is told and left out.

    Args:
        ports: those with a link by the plan.
        runs: the device of each run, by the run's id.

    Raises:
        DesignError: it is no such file at all.
    """
    by_place = {(p.switch_name.lower(), p.port): p for p in ports}
    by_cable = {(p.device, p.cable): p for p in ports}
    by_label = {x.text: by_cable.get((runs[x.link], x.cable)) for x in labels if x.link in runs}
    found: list[ReadPort] = []
    faults: list[Fault] = []
    once = Once()
    for row in read_table(data, COLUMNS, ("link_mbps", "watts"), needs="any"):
        port = _port(row, by_place, by_label)
        said, taken = _said(row), taken_at(row.cells.get("date", ""), now)
        digest = hashlib.sha256("|".join(row.cells.values()).encode()).hexdigest()[:32]
        if isinstance(port, str):
            faults.append(Fault(row.line, port))
        elif isinstance(said, str):
            faults.append(Fault(row.line, said))
        elif isinstance(taken, str):
            faults.append(Fault(row.line, taken))
        elif (again := once.again(row, (port.switch, port.port), digest, taken.exact)) is not None:
            faults.append(Fault(row.line, again))
        else:
            reading = PortReading(
                switch=port.switch,
                port=port.port,
                device=port.device,
                cable=port.cable,
                mbps=said[0],
                watts=said[1],
                at=taken.at,
                author=row.cells.get("meter", "")[:120] or "meter",
            )
            found.append(ReadPort(digest if taken.exact else None, reading))
            if len(found) > MOST_READINGS:
                what = f"has more than {MOST_READINGS:,} readings; take in the latest of each port"
                raise DesignError([Problem("file", what)])
    return PortsIn(tuple(found), tuple(faults))


def _port(
    row: Row, by_place: Mapping[tuple[str, int], PlannedPort], by_label: Mapping[str, PlannedPort | None]
) -> PlannedPort | str:
    """Return the port that a row is of, or why there is none."""
    text = row.cells.get("label", "").lstrip("'").upper().removesuffix("/A").removesuffix("/B")
    if text:
        if text not in by_label:
            return f"no cable of this plan is labelled {text[:30]!r}"
        return by_label[text] or f"{text} is in no port by this plan"
    switch = row.cells.get("switch", "").lstrip("'")
    number = number_of(row.cells.get("port", ""))
    if not switch or number is None or number != int(number):
        return "names neither a cable's label nor a switch and the number of its port"
    found = by_place.get((switch.lower(), int(number)))
    if found is None:
        return f"{switch[:30]} port {int(number)} has no link by this plan"
    return found


def _said(row: Row) -> tuple[int | None, float | None] | str:
    """Return speed and watts of a row, or what is wrong with it."""
    speed, drawn = row.cells.get("link_mbps", ""), row.cells.get("watts", "")
    mbps = 0.0 if speed.lower() in _DOWN else number_of(speed) if speed else None
    if speed and (mbps is None or mbps != int(mbps) or not 0 <= mbps <= _FASTEST_MBPS):
        return f"{speed[:20]!r} is no speed of a link in Mb/s"
    watts = number_of(drawn) if drawn else None
    if drawn and (watts is None or not 0 <= watts <= _MOST_W):
        return f"{drawn[:20]!r} is no power of a port in W"
    if mbps is None and watts is None:
        return "says neither a speed nor watts"
    return (int(mbps) if mbps is not None else None), watts
