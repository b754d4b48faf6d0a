"""The design as it stood before gear was moved within its rooms: who rests on rooms and racks asks it."""

from __future__ import annotations

from ..base.memo import IdentityMemo
from ..design import Design, Device, Run
from .findings import Finding, Place
from .racks import rack_at
from .storeys import storeys_of

_last: IdentityMemo[Design] = IdentityMemo(64, weigh=lambda _: 20_000)


def unmoved(design: Design) -> Design:
    """Return a design that differs at most in where within its room each device hangs; the same object
    as long as nothing else changes.

    What comes to stand in a rack, or leaves one, has moved; so has what hangs on another device or has
    others hang on it, for a cord is only so long.
    """
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
    moved = [(was[k], now[k]) for k in now if was[k] is not now[k]]
    runs = design.of(Run).values()
    tied = {k for run in runs if run.through is not None for k in (run.device, run.through)} if moved else ()
    return all(old.id not in tied and _in_its_place(design, old, new) for old, new in moved)


def _in_its_place(design: Design, old: Device, new: Device) -> bool:
    storeys = storeys_of(design)
    return (
        old.model_copy(update={"at": new.at}) == new
        and storeys.room_at(old.floor, old.at) is storeys.room_at(new.floor, new.at)
        and rack_at(design, old.floor, old.at) is rack_at(design, new.floor, new.at)
    )
