"""Who keeps what cameras send: recorders that are drawn, and those that the plan puts into the rack."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..catalogue import Catalogue, DeviceModel, Rules
from ..design import Design, Device

_BITS = 8_000_000
_SECONDS_A_DAY = 86_400


@dataclass(frozen=True)
class Recording:
    """One recorder: the device that is drawn for it, or None where the plan puts it into the rack; the
    cameras it keeps, and the disks that takes."""

    device: str | None
    model: DeviceModel
    cameras: tuple[str, ...]
    disks: int


def recordings_of(design: Design, catalogue: Catalogue) -> list[Recording]:
    """Return the recorders, those drawn first, each full before the next; the plan's share evenly."""
    there = [d for d in design.of(Device).values() if d.state in ("new", "keep")]
    cameras = [d.id for d in there if catalogue.role_of(d).films]
    drawn = [d for d in there if catalogue.role_of(d).records]
    found: list[Recording] = []
    for device in drawn:
        model = catalogue.model_of(device)
        mine, cameras = cameras[: model.records], cameras[model.records :]
        found.append(Recording(device.id, model, tuple(mine), _disks(catalogue.rules, len(mine))))
    usual = planned_recorder(catalogue)
    count = math.ceil(len(cameras) / usual.records)
    for number in range(count):
        mine = cameras[number::count]
        found.append(Recording(None, usual, tuple(mine), _disks(catalogue.rules, len(mine))))
    return found


def recorder_name(number: int, count: int) -> str:
    """Return what one of so many recorders in a rack is called."""
    return "Recorder" if count == 1 else f"Recorder {number}"


def recorder_link(number: int) -> str:
    """Return the id of the link that a recorder in a rack has to its switch."""
    return f"recorder-{number}"


def planned_recorder(catalogue: Catalogue) -> DeviceModel:
    """Return the recorder that is planned where none is drawn: the first of its shelf."""
    kind = next(role.kind for role in catalogue.roles.values() if role.records)
    return catalogue.sold(kind)[0]


def _disks(rules: Rules, cameras: int) -> int:
    mbps, days, disk_tb = (rules[f"order.{name}"] for name in ("camera_mbps", "recording_days", "disk_tb"))
    return disks_for(cameras * mbps, days, disk_tb) if cameras else 0


def disks_for(mbps: float, days: float, disk_tb: float) -> int:
    """Return how many disks of one recorder keep streams of so many Mb/s for so many days.

    ``days = usable TB x 8,000,000 / (Mb/s x 86,400)``, usable being all disks but one for parity.
    """
    usable_tb = days * mbps * _SECONDS_A_DAY / _BITS
    return math.ceil(usable_tb / disk_tb - 1e-9) + 1
