"""Which names are on the air of which access point."""

from __future__ import annotations

from ..base.bands import Band
from ..catalogue import Catalogue
from ..design import Design, Device, WirelessName


def on_air_at(name: WirelessName, device: str) -> bool:
    """Whether a name is on an access point: on those that are named, else on all."""
    return not name.access_points or device in name.access_points


def fullest_names(design: Design, catalogue: Catalogue, band: Band | None = None) -> list[WirelessName]:
    """Return the names of the access point that has most, on a band or on any."""
    names = [n for n in design.of(WirelessName).values() if band is None or band in n.bands]
    if all(not n.access_points for n in names):
        return names  # each is on all of them
    points = [d.id for d in design.of(Device).values() if d.model in catalogue.airs]
    by_point = [[n for n in names if on_air_at(n, point)] for point in points]
    return max(by_point, key=len, default=[])
