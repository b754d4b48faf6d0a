"""The design as it stood before gear was moved within its rooms: who rests on rooms alone, asks it."""

from __future__ import annotations

from ..base.memo import IdentityMemo
from ..design import Design, Device
from .findings import Finding, Place
from .storeys import Storeys, storeys_of

_last: IdentityMemo[Design] = IdentityMemo(64, weigh=lambda _: 20_000)


def unmoved(design: Design) -> Design:
    """Return a design that differs at most in where within its room each device hangs; the same object
    as long as nothing else changes."""
    rest = tuple(table for kind, table in design.tables.items() if kind != "device")
    known = _last.peek(rest, None)
    if known is not None and _only_moved(known, design):
        return known
    _last.put(rest, None, design)
    return design


def as_they_hang(findings: tuple[Finding, ...], design: Design) -> tuple[Finding, ...]:
    """Return findings with their devices where this design has them."""
    devices = design.of(Device)

    def now(place: Place) -> Place:
        device = devices.get(place.id) if place.kind == "device" and place.at is not None else None
        return place.model_copy(update={"at": device.at}) if device is not None else place

    return tuple(f.model_copy(update={"places": tuple(map(now, f.places))}) for f in findings)


def _only_moved(known: Design, design: Design) -> bool:
    was, now = known.of(Device), design.of(Device)
    if was is now:
        return True
    if [*was] != [*now]:
        return False
    storeys = storeys_of(design)
    return all(was[k] is now[k] or _in_its_room(storeys, was[k], now[k]) for k in now)


def _in_its_room(storeys: Storeys, was: Device, now: Device) -> bool:
    return was.model_copy(update={"at": now.at}) == now and storeys.room_at(
        was.floor, was.at
    ) is storeys.room_at(now.floor, now.at)
