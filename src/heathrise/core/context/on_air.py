"""Which names are on the air of which access point, and how they are called there."""

from __future__ import annotations

from ..base.bands import Band
from ..base.frozen import Frozen
from ..catalogue import Catalogue, Rules
from ..design import Design, Device, Network, WirelessName

_MOST_SSID = 32  # octets, IEEE 802.11


class Broadcast(Frozen):
    """A name as it is on the air: its id, what clients see, on which bands of which access points."""

    id: str
    ssid: str
    bands: tuple[Band, ...]
    access_points: tuple[str, ...]


def on_air_at(name: WirelessName, device: str) -> bool:
    """Whether a name is on an access point: on those that are named, else on all."""
    return not name.access_points or device in name.access_points


def fast_transition_of(design: Design, rules: Rules, name: WirelessName) -> bool:
    """Whether clients of a name change access points fast: as somebody said, else by its purpose."""
    if name.fast_transition is not None:
        return name.fast_transition
    purpose = design.of(Network)[name.network].purpose
    return rules.text(f"settings.fast_transition.{purpose}") == "on"


def apart_by(rules: Rules, name: WirelessName) -> tuple[bool, bool]:
    """Return whether a name is another one on each access point, and on each band."""
    bands = len(name.bands) > 1 and rules.text("settings.bands_by") == "apart"
    return rules.text("settings.names_by") == "access_point", bands


def broadcasts(design: Design, catalogue: Catalogue) -> dict[str, tuple[Broadcast, ...]]:
    """Return by name what is on the air of it: itself, or one for each access point or band, as the school
    of the firm has it. No two are called alike."""
    points = [d for d in design.of(Device).values() if d.model in catalogue.airs]
    names = design.of(WirelessName)
    taken = {name.ssid for name in names.values()}
    found: dict[str, tuple[Broadcast, ...]] = {}
    for name in names.values():
        on = [d for d in points if on_air_at(name, d.id)]
        each, split = apart_by(catalogue.rules, name)
        parts: list[Broadcast] = []
        for device in on if each and len(on) > 1 else [None]:
            for band in name.bands if split else [None]:
                words = [w for w in (device.name if device else "", band or "") if w]
                key = "-".join([name.id, *([device.id] if device else []), *([band] if band else [])])
                ssid = _called(name.ssid, words, taken) if words else name.ssid
                taken.add(ssid)
                where = (device.id,) if device else tuple(d.id for d in on)
                parts.append(
                    Broadcast(id=key, ssid=ssid, bands=(band,) if band else name.bands, access_points=where)
                )
        found[name.id] = tuple(parts)
    return found


def _called(ssid: str, words: list[str], taken: set[str]) -> str:
    """Return a name with words behind it, in 32 octets, unlike those that are taken."""
    tail, number = " ".join(["", *words]), 1
    while True:
        room = _MOST_SSID - len(tail.encode()[: _MOST_SSID - 8])
        wanted = _cut(ssid, room) + _cut(tail, _MOST_SSID - len(_cut(ssid, room).encode()))
        if wanted not in taken:
            return wanted
        number += 1
        tail = f" {number}{' '.join(['', *words])}"


def _cut(text: str, octets: int) -> str:
    """Return as much of a text as so many octets hold."""
    return text.encode()[: max(octets, 0)].decode(errors="ignore")


def fullest_names(design: Design, catalogue: Catalogue, band: Band | None = None) -> list[WirelessName]:
    """Return the names of the access point that has most, on a band or on any."""
    names = [n for n in design.of(WirelessName).values() if band is None or band in n.bands]
    if all(not n.access_points for n in names):
        return names  # each is on all of them
    points = [d.id for d in design.of(Device).values() if d.model in catalogue.airs]
    by_point = [[n for n in names if on_air_at(n, point)] for point in points]
    return max(by_point, key=len, default=[])
