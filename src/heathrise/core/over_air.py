"""Devices whose link is the air: which were said to be, and what feeds each at its own place."""

from __future__ import annotations

from collections.abc import Iterator

from .catalogue import Catalogue, InjectorModel
from .design import Design, Device, Run


def said_over_air(design: Design) -> set[str]:
    """Return the devices that no cable goes to because somebody said so."""
    return {r.device for r in design.of(Run).values() if r.over_air}


def feeds(design: Design, catalogue: Catalogue) -> Iterator[tuple[Device, InjectorModel]]:
    """Yield each new device without a cable with the injector that feeds it from a socket beside
    it; one that asks for no power over its cable has a supply of its own."""
    loose = said_over_air(design)
    for device in design.of(Device).values():
        power = catalogue.model_of(device).power
        if device.id in loose and device.state == "new" and power is not None:
            found = catalogue.injector_for(power.poe_class, 0)
            if found is not None:
                yield device, found
