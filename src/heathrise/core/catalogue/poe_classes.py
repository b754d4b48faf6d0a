"""The shape of a class of Power over Ethernet; its figures are in ``data/rules/power.yaml``."""

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


def poe_rank(poe_class: int) -> int:
    """Return the class by the power it asks for: class 0 stands with class 3."""
    return 3 if poe_class == 0 else poe_class
