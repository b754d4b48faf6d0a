"""A scan of the air as CSV in: the radios of others, their channel, width and level, and where."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ..core.base.bands import Band
from ..core.design import Floor, Neighbour, Point
from ..core.signal import noted
from .tables_in import Fault, Row, floors_by_name, number_of, read_table, said_band

COLUMNS = {
    "name": ("ssid", "bssid", "network", "radio", "neighbour"),
    "channel": ("ch", "primary", "primary_channel"),
    "width_mhz": ("width", "bandwidth", "mhz"),
    "level_dbm": ("level", "dbm", "rssi", "signal", "strength"),
    "band": ("ghz",),
    "frequency_mhz": ("frequency", "freq"),
    "floor": ("storey", "level_name"),
    "x": ("east", "x_m"),
    "y": ("north", "y_m"),
}
_WIDTHS = (20, 40, 80, 160)
_LAST, _LAST_24 = 233, 14
_FIRST_5, _LAST_5 = 36, 177
_FARTHEST_M = 10_000


@dataclass(frozen=True)
class ScanIn:
    """What could be read of a scan, and what could not."""

    neighbours: tuple[Neighbour, ...]
    faults: tuple[Fault, ...]


def read_scan(data: bytes, floors: Sequence[Floor], floor: str, at: Point, taken: Sequence[str]) -> ScanIn:
    """Return the neighbours of a file; a row at fault is told and left out, and so are the faintest
    of more than a plan can hold.

    Args:
        floor, at: where a row without a place was measured.
        taken: ids that are not free.

    Raises:
        DesignError: it is no such file at all.
    """
    by_name = floors_by_name(floors)
    said: list[dict[str, object]] = []
    faults: list[Fault] = []
    line = 0
    for row in read_table(data, COLUMNS, ("channel", "level_dbm")):
        line, found = row.line, _said(row, by_name, floor, at)
        if isinstance(found, str):
            faults.append(Fault(row.line, found))
        else:
            said.append(found)
    neighbours, left_out = noted(said, set(taken), len(taken))
    if left_out:
        what = f"of {len(said):,} neighbours the {len(neighbours):,} loudest are offered"
        faults.append(Fault(line, what))
    return ScanIn(tuple(neighbours), tuple(faults))


def _said(row: Row, floors: Mapping[str, str], floor: str, at: Point) -> dict[str, object] | str:
    """Return the fields that a row says, or what is wrong with it."""
    cells = row.cells
    radio, place = _radio(cells), _place(cells, floors, floor, at)
    if isinstance(radio, str):
        return radio
    return place if isinstance(place, str) else {**radio, **place}


def _radio(cells: Mapping[str, str]) -> dict[str, object] | str:
    channel, level = number_of(cells.get("channel", "")), number_of(cells.get("level_dbm", ""))
    if channel is None or channel != int(channel) or not 1 <= channel <= _LAST:
        return f"{cells.get('channel', '')[:20]!r} is no channel"
    if level is None or not -120 <= level <= 0:
        return f"{cells.get('level_dbm', '')[:20]!r} is no level in dBm, -120 to 0"
    band = _band(cells, int(channel))
    if band is None:
        return f"channel {int(channel)} does not say its band; add a column band"
    width = number_of(cells.get("width_mhz", "") or "20")
    if width is None or width not in _WIDTHS:
        return f"{cells.get('width_mhz', '')[:20]!r} is no width; there are 20, 40, 80, 160 MHz"
    return {
        "name": cells.get("name", "").lstrip("'")[:100].strip() or f"Channel {int(channel)}",
        "band": band,
        "channel": int(channel),
        "width_mhz": int(width),
        "level_dbm": level,
    }


def _place(
    cells: Mapping[str, str], floors: Mapping[str, str], floor: str, at: Point
) -> dict[str, object] | str:
    named = cells.get("floor", "")
    if named and named.lower() not in floors:
        return f"there is no storey {named[:40]!r}"
    x, y = number_of(cells.get("x", "")), number_of(cells.get("y", ""))
    if (x is None) != (y is None):
        return "has one of x and y, and not the other"
    spot = (round(x, 2), round(y, 2)) if x is not None and y is not None else at
    if max(map(abs, spot)) > _FARTHEST_M:
        return "lies more than 10 km away"
    return {"floor": floors[named.lower()] if named else floor, "at": spot}


def _band(cells: Mapping[str, str], channel: int) -> Band | None:
    """Return the band as it is said, by the frequency, or by the channel where only one has it."""
    known = said_band(cells.get("band", ""))
    if known is not None:
        return known
    mhz = number_of(cells.get("frequency_mhz", ""))
    if mhz is not None:
        return "2.4" if mhz < 3000 else "5" if mhz < 5925 else "6"
    if channel <= _LAST_24:
        return "2.4"
    return "5" if _FIRST_5 <= channel <= _LAST_5 and channel % 4 in (0, 1) else None
