"""What was said of runs: of one device's, which are the air, and what feeds those devices."""

from __future__ import annotations

import itertools
from collections.abc import Iterator

from ..catalogue import Catalogue, InjectorModel, SplitterModel
from ..design import Design, Device, Run


def said_over_air(design: Design) -> set[str]:
    """Return the devices that no cable goes to because somebody said so."""
    return {r.device for r in design.of(Run).values() if r.over_air}


def run_said(design: Design, device: str) -> Run:
    """Return what was said of a device's run, or one of which nothing is said yet."""
    runs = design.of(Run)
    said = next((r for r in runs.values() if r.device == device), None)
    if said is not None:
        return said
    ids = itertools.chain((f"r-{device}"[:40],), (f"r{n}-{device}"[:40] for n in itertools.count(1)))
    return Run(id=next(k for k in ids if k not in runs), device=device)


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


def split_by(catalogue: Catalogue, device: Device) -> SplitterModel | None:
    """Return the splitter that feeds a device off its cable, where it takes one."""
    takes = catalogue.sheet_of(device).takes_splitter
    return catalogue.splitters.get(device.splitter or "") if takes else None


def cable_of_link(link: str | None) -> int:
    """Return which cable of its run a link is, from 1: ``run-out-1/2`` is the second."""
    _, _, number = (link or "").partition("/")
    return int(number) if number.isdigit() else 1
