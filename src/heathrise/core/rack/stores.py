"""Stores judged: whether their disks fit, stand in for one another, and keep recordings long enough."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar, Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..catalogue import Catalogue, DeviceModel
from ..context.findings import Cure
from ..context.recording import (
    LEAST_DISKS,
    days_kept,
    disks_for,
    disks_in,
    disks_spared,
    recorder_name,
    recordings_of,
    redundancy_of,
    usable_tb,
)
from ..design import Design, Device, Redundancy, put

REDUNDANCY: dict[Redundancy, str] = {
    "none": "no disk standing in for another",
    "mirror": "each disk twice",
    "single": "one disk for parity",
    "double": "two disks for parity",
}


class Store(Frozen):
    """A recorder or storage with its disks. Days are those that recordings are kept."""

    KEY: ClassVar = ("name",)

    device: str | None = Field(description="none for a recorder that the plan puts into the rack")
    name: str
    bays: int
    disks: int
    redundancy: Redundancy
    spared: int = Field(description="of the disks, those that only stand in for others")
    usable_tb: float
    cameras: int = 0
    mbps: float = Field(0.0, description="of its cameras together, by day or by night, what is more")
    days: float | None = Field(None, description="that recordings are kept")
    wanted_days: float = 0.0
    verdict: Literal["met", "near", "not_met"] = "met"
    text: str = ""
    cures: tuple[Cure, ...] = ()


def stores_of(design: Design, catalogue: Catalogue) -> Iterator[Store]:
    """Yield every recorder and storage of a design, judged."""
    rules, devices = catalogue.rules, design.of(Device)
    recordings = recordings_of(design, catalogue)
    planned = sum(r.device is None for r in recordings)
    number = 0
    for keeps in recordings:
        number += keeps.device is None
        device = devices[keeps.device] if keeps.device is not None else None
        name = device.name if device is not None else recorder_name(number, planned)
        yield _judged(
            catalogue,
            device,
            name,
            keeps.model,
            keeps.disks,
            keeps.redundancy,
            len(keeps.cameras),
            keeps.mbps,
        )
    recorders = {r.device for r in recordings}
    for key, disks in disks_in(design, catalogue).items():
        if key not in recorders:
            device = devices[key]
            model = catalogue.model_of(device)
            # Two disks or more of a store of files mirror each other unless somebody says otherwise.
            alike: Redundancy = device.redundancy or (
                "mirror" if disks == 2 else redundancy_of(rules, device)
            )
            yield _judged(catalogue, device, device.name, model, disks, alike, 0, 0.0)


def _judged(
    catalogue: Catalogue,
    device: Device | None,
    name: str,
    model: DeviceModel,
    disks: int,
    redundancy: Redundancy,
    cameras: int,
    mbps: float,
) -> Store:
    rules = catalogue.rules
    disk_tb, wanted = rules["order.disk_tb"], rules["order.recording_days"]
    usable = usable_tb(disks, disk_tb, redundancy)
    days = days_kept(usable, mbps) if cameras else None
    verdict: Literal["met", "near", "not_met"] = "met"
    text = ""
    least = LEAST_DISKS[redundancy]
    held = f"{disks} disks of {disk_tb:g} TB, {REDUNDANCY[redundancy]}"
    if model.bays and disks > model.bays:
        verdict, text = "not_met", f"{name} has {model.bays} bays for {disks} disks."
    elif disks and disks < least:
        verdict, text = (
            "not_met",
            f"{name}: {REDUNDANCY[redundancy]} takes {least} disks at least, it has {disks}.",
        )
    elif redundancy == "mirror" and disks % 2:
        verdict, text = "not_met", f"{name}: {disks} disks cannot each stand twice."
    elif cameras and (disks == 0 or (days is not None and days < wanted - 1e-9)):
        kept = math.floor(days or 0.0)
        verdict = "near"
        filmed = f"{cameras} camera{'s' if cameras > 1 else ''} at {mbps:g} Mb/s together"
        text = f"{name} keeps {filmed} for {kept} days on {held}; {wanted:g} are wanted."
    elif device is not None and not cameras and disks == 0:
        verdict, text = "near", f"{name} has no disk: nothing is kept on it."
    cures = tuple(_cures(catalogue, device, model, disks, redundancy, mbps)) if verdict != "met" else ()
    return Store(
        device=device.id if device is not None else None,
        name=name,
        bays=model.bays,
        disks=disks,
        redundancy=redundancy,
        spared=disks_spared(disks, redundancy),
        usable_tb=round(usable, 2),
        cameras=cameras,
        mbps=round(mbps, 2),
        days=round(days, 1) if days is not None and math.isfinite(days) else None,
        wanted_days=wanted if cameras else 0.0,
        verdict=verdict,
        text=text,
        cures=cures,
    )


def _cures(
    catalogue: Catalogue,
    device: Device | None,
    model: DeviceModel,
    disks: int,
    redundancy: Redundancy,
    mbps: float,
) -> Iterator[Cure]:
    """Offer the disks that are wanted here, a model with bays for them, and to let no disk stand in."""
    if device is None:
        return
    rules = catalogue.rules
    disk_tb, days = rules["order.disk_tb"], rules["order.recording_days"]
    want = disks_for(mbps, days, disk_tb, redundancy) if mbps else max(disks, LEAST_DISKS[redundancy])
    want += redundancy == "mirror" and want % 2
    price = catalogue.parts["disk-6tb"].price
    if not model.bays or want <= model.bays:
        if want != disks:
            extra = f"{(want - disks) * price:+g} for disks"
            changed = device.model_copy(update={"disks": want})
            yield Cure(label=f"Put {want} disks into it", effect=extra, changes=(put(changed),))
    else:
        fitting = (m for m in catalogue.sold(device.kind) if m.bays >= want and m.records >= model.records)
        other = min(fitting, key=lambda m: m.price, default=None)
        if other is not None:
            changed = device.model_copy(update={"model": other.id, "disks": want})
            extra = f"{other.price - model.price + max(0, want - disks) * price:+g} with disks"
            yield Cure(label=f"Take {other.label} with {want} disks", effect=extra, changes=(put(changed),))
    few = disks_for(mbps, days, disk_tb, "none") if mbps else 1
    if redundancy != "none" and few <= max(disks, 1) and (not model.bays or disks <= model.bays):
        changed = device.model_copy(update={"redundancy": "none", "disks": max(disks, 1)})
        effect = "spoils: a disk that dies takes what is on it along"
        yield Cure(label="Let no disk stand in for another", effect=effect, changes=(put(changed),))
