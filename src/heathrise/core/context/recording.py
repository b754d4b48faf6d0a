"""What keeps files and recordings: recorders that are drawn or that the plan puts into the rack, and
storage, each with its disks."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..catalogue import Catalogue, DeviceModel, Rules
from ..design import Design, Device, Redundancy

_BITS = 8_000_000
_SECONDS_A_DAY = 86_400
LEAST_DISKS: dict[Redundancy, int] = {"none": 1, "mirror": 2, "single": 2, "double": 3}


@dataclass(frozen=True)
class Recording:
    """One recorder: the device that is drawn for it, or None where the plan puts it into the rack; the
    cameras it keeps, the Mb/s they send at most, and the disks that takes."""

    device: str | None
    model: DeviceModel
    cameras: tuple[str, ...]
    mbps: float
    disks: int
    redundancy: Redundancy


def recordings_of(design: Design, catalogue: Catalogue) -> list[Recording]:
    """Return the recorders, those drawn first, each full before the next; the plan's share evenly."""
    there = [d for d in design.of(Device).values() if d.state in ("new", "keep")]
    cameras = [d for d in there if catalogue.role_of(d).films]
    found: list[Recording] = []
    for device in there:
        if catalogue.role_of(device).records:
            model = catalogue.model_of(device)
            mine, cameras = cameras[: model.records], cameras[model.records :]
            found.append(_recording(catalogue, device, model, mine))
    usual = planned_recorder(catalogue)
    count = math.ceil(len(cameras) / usual.records)
    for number in range(count):
        found.append(_recording(catalogue, None, usual, cameras[number::count]))
    return found


def _recording(
    catalogue: Catalogue, device: Device | None, model: DeviceModel, cameras: list[Device]
) -> Recording:
    rules = catalogue.rules
    mbps = sum(recorded_mbps(rules, catalogue.model_of(camera)) for camera in cameras)
    redundancy = redundancy_of(rules, device)
    wanted = device.disks if device is not None else None
    if wanted is None:
        days, disk_tb = rules["order.recording_days"], rules["order.disk_tb"]
        wanted = disks_for(mbps, days, disk_tb, redundancy) if cameras else 0
        wanted = min(wanted, model.bays or wanted)
    key = device.id if device is not None else None
    return Recording(key, model, tuple(c.id for c in cameras), mbps, wanted, redundancy)


def recorded_mbps(rules: Rules, camera: DeviceModel) -> float:
    """Return what a camera sends to its recorder in Mb/s: by night more than by day."""
    stream = camera.stream
    return max(stream.day_mbps, stream.night_mbps) if stream is not None else rules["order.camera_mbps"]


def redundancy_of(rules: Rules, device: Device | None) -> Redundancy:
    """Return how a store's disks stand in for one another: as said, else as the firm has it."""
    if device is not None and device.redundancy is not None:
        return device.redundancy
    return rules.text("order.redundancy")  # type: ignore[return-value]


def disks_in(design: Design, catalogue: Catalogue) -> dict[str, int]:
    """Return the disks of each recorder that is drawn and of each storage, as said or as planned."""
    found = {r.device: r.disks for r in recordings_of(design, catalogue) if r.device is not None}
    for device in design.of(Device).values():
        role, model = catalogue.role_of(device), catalogue.model_of(device)
        if model.bays and not role.records and device.state in ("new", "keep"):
            usual = min(int(catalogue.rules["order.storage_disks"]), model.bays)
            found[device.id] = device.disks if device.disks is not None else usual
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


def usable_tb(disks: int, disk_tb: float, redundancy: Redundancy) -> float:
    """Return what so many equal disks hold, TB: of a mirror half, of parity all but one or two."""
    return (disks - disks_spared(disks, redundancy)) * disk_tb


def disks_spared(disks: int, redundancy: Redundancy) -> int:
    """Return how many of so many disks only stand in for others."""
    spared = {"none": 0, "mirror": math.ceil(disks / 2), "single": 1, "double": 2}[redundancy]
    return min(spared, disks)


def days_kept(usable: float, mbps: float) -> float:
    """Return the days for which so many TB hold streams of so many Mb/s together.

    ``days = usable TB x 8,000,000 / (Mb/s x 86,400)``.
    """
    return usable * _BITS / (mbps * _SECONDS_A_DAY) if mbps > 0 else math.inf


def disks_for(mbps: float, days: float, disk_tb: float, redundancy: Redundancy = "single") -> int:
    """Return the fewest disks that keep streams of so many Mb/s for so many days."""
    data = max(1, math.ceil(days * mbps * _SECONDS_A_DAY / _BITS / disk_tb - 1e-9))
    return {"none": data, "mirror": 2 * data, "single": data + 1, "double": data + 2}[redundancy]
