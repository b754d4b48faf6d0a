"""A walk with a survey meter as CSV in: where, whose radio, how loud; any order and delimiter."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ..core.base.bands import Band
from ..core.context.readings import Reading
from ..core.design import Device, Floor, Point
from .tables_in import Fault, Row, floors_by_name, number_of, read_table, said_band

COLUMNS = {
    "who": ("access_point", "ap", "bssid", "address", "name", "radio"),
    "dbm": ("level", "level_dbm", "rssi", "signal"),
    "band": ("ghz",),
    "channel": ("ch",),
    "floor": ("storey",),
    "x": ("east", "x_m"),
    "y": ("north", "y_m"),
}
_LAST_24 = 14
_FARTHEST_M = 10_000


@dataclass(frozen=True)
class SurveyIn:
    """Readings by what the file calls each radio, and what could not be read."""

    heard: Mapping[str, tuple[Reading, ...]]
    faults: tuple[Fault, ...]


def read_survey(
    data: bytes, floors: Sequence[Floor], devices: Sequence[Device], floor: str, at: Point | None = None
) -> SurveyIn:
    """Return the readings of a file by the radio they are of; a row at fault is told and left out.

    A radio that is called as an access point of the plan is that one's; others wait for a name.

    Args:
        floor: the storey of a row that names none.
        at: where a row without a place was measured; without it such a row is at fault.

    Raises:
        DesignError: it is no such file at all.
    """
    by_floor = floors_by_name(floors)
    by_name = {d.name.lower(): d.id for d in devices} | {d.id.lower(): d.id for d in devices}
    heard: dict[str, list[Reading]] = {}
    faults: list[Fault] = []
    for row in read_table(data, COLUMNS, ("who", "dbm")):
        found = _reading(row, by_floor, by_name, floor, at)
        if isinstance(found, str):
            faults.append(Fault(row.line, found))
        else:
            heard.setdefault(row.cells["who"].lstrip("'").strip()[:60], []).append(found)
    return SurveyIn({who: tuple(rows) for who, rows in heard.items()}, tuple(faults))


def _reading(
    row: Row, floors: Mapping[str, str], names: Mapping[str, str], floor: str, at: Point | None
) -> Reading | str:
    cells = row.cells
    who, storey = cells["who"].lstrip("'").strip(), cells.get("floor", "")
    dbm, x, y = (number_of(cells.get(c, "")) for c in ("dbm", "x", "y"))
    if at is not None and not cells.get("x") and not cells.get("y"):
        x, y = at
    band = _band(cells)
    what = ""
    if not who:
        what = "does not say whose radio it is of"
    elif dbm is None or not -120 <= dbm <= 0:
        what = f"{cells['dbm'][:20]!r} is no level in dBm, -120 to 0"
    elif x is None or y is None or max(abs(x), abs(y)) > _FARTHEST_M:
        what = f"{cells.get('x', '')[:12]!r}, {cells.get('y', '')[:12]!r} is no place in m"
    elif band is None:
        what = "does not say its band: a column band with 2.4, 5 or 6, or a channel"
    elif storey and storey.lower() not in floors:
        what = f"there is no storey {storey[:40]!r}"
    if what or dbm is None or x is None or y is None or band is None:
        return what
    return Reading(
        floor=floors[storey.lower()] if storey else floor,
        at=(round(x, 2), round(y, 2)),
        device=names.get(who.lower(), _UNKNOWN),
        band=band,
        dbm=dbm,
    )


_UNKNOWN = "unknown"


def _band(cells: Mapping[str, str]) -> Band | None:
    if cells.get("band", ""):
        return said_band(cells["band"])
    channel = number_of(cells.get("channel", ""))
    if channel is None:
        return None
    return "2.4" if channel <= _LAST_24 else "5"
