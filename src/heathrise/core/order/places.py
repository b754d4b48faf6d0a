"""What a part or a piece of work is for."""

from __future__ import annotations

from ..base.frozen import Frozen
from ..design import Device
from ..laying import Link


class Where(Frozen):
    """What a part or a piece of work is for, and how much of it."""

    kind: str
    id: str
    name: str
    floor: str | None = None
    quantity: float = 1


def at_device(device: Device, quantity: float = 1) -> Where:
    return Where(kind="device", id=device.id, name=device.name, floor=device.floor, quantity=quantity)


def of_link(link: Link, quantity: float = 1) -> Where:
    if link.device is None:
        return Where(kind="link", id=link.id, name=link.name, floor=link.floor, quantity=quantity)
    return Where(kind="device", id=link.device, name=link.name, floor=link.floor, quantity=quantity)
