"""The classes of Power over Ethernet, IEEE 802.3af, at and bt."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class PoeClass:
    """One class: watts kept at the port, watts assured at the device, lowest volts at each."""

    number: int
    standard: str
    reserved_w: float
    device_w: float
    pairs: int
    port_v: float
    device_v: float


POE_CLASSES: dict[int, PoeClass] = {
    0: PoeClass(0, "802.3af", 15.4, 12.95, 2, 44.0, 37.0),
    1: PoeClass(1, "802.3af", 4.0, 3.84, 2, 44.0, 37.0),
    2: PoeClass(2, "802.3af", 7.0, 6.49, 2, 44.0, 37.0),
    3: PoeClass(3, "802.3af", 15.4, 12.95, 2, 44.0, 37.0),
    4: PoeClass(4, "802.3at", 30.0, 25.5, 2, 50.0, 42.5),
    5: PoeClass(5, "802.3bt type 3", 45.0, 40.0, 4, 50.0, 42.5),
    6: PoeClass(6, "802.3bt type 3", 60.0, 51.0, 4, 50.0, 42.5),
    7: PoeClass(7, "802.3bt type 4", 75.0, 62.0, 4, 52.0, 41.1),
    8: PoeClass(8, "802.3bt type 4", 90.0, 71.3, 4, 52.0, 41.1),
}
POE_SOURCE = "IEEE 802.3af, 802.3at, 802.3bt"


def poe_rank(poe_class: int) -> int:
    """Return the class by the power it asks for: class 0 stands with class 3."""
    return 3 if poe_class == 0 else poe_class
