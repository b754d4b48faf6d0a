"""From places to changes: what stands is moved to the nearest place, the rest comes or goes."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Literal

import numpy as np
from pydantic import Field
from scipy.optimize import linear_sum_assignment

from ..base.frozen import Frozen
from ..catalogue import Catalogue
from ..design import Change, Design, Device, Spot, put
from ..views.offers import removal
from .places import air_role

_ANOTHER_FLOOR_M = 60.0
_ANOTHER_MODEL_M = 15.0
_STAYS_M = 0.05


class Moved(Frozen):
    """What becomes of one access point."""

    device: str
    name: str
    what: Literal["stays", "moved", "new", "gone"]
    floor: str
    at: Spot
    metres: float = Field(0.0, description="how far it is moved on its storey, m")


def changes_to(
    design: Design, catalogue: Catalogue, free: Sequence[Device], places: Sequence[Device]
) -> tuple[list[Change], list[Moved]]:
    """Return the changes that bring access points to places, each the shortest way.

    What stands keeps its id, its name and what was decided about it.
    """
    cost = np.array([[_apart(d, p) for p in places] for d in free]).reshape(len(free), len(places))
    rows, columns = linear_sum_assignment(cost)
    to = dict(zip(map(int, columns), (free[int(r)] for r in rows), strict=True))
    staying = {d.id for d in to.values()}
    names = _Names(design, catalogue)
    changes: list[Change] = []
    moved: list[Moved] = []
    for k, place in enumerate(places):
        device = to.get(k)
        if device is None:
            key, name = names.next()
            fresh = place.model_copy(update={"id": key, "name": name})
            changes.append(put(fresh))
            moved.append(_moved(fresh, "new"))
            continue
        pose = ("floor", "model", "at", "height_m", "mount", "azimuth_deg", "tilt_deg")
        after = device.model_copy(update={field: getattr(place, field) for field in pose})
        metres = math.dist(device.at, after.at)
        same = after.model_copy(update={"at": device.at}) == device
        if same and metres <= _STAYS_M:
            moved.append(_moved(device, "stays"))
            continue
        changes.append(put(after))
        moved.append(_moved(after, "moved", round(metres, 2)))
    for device in free:
        if device.id not in staying:
            changes += removal(design, device)
            moved.append(_moved(device, "gone"))
    return changes, moved


def _moved(device: Device, what: Literal["stays", "moved", "new", "gone"], metres: float = 0.0) -> Moved:
    return Moved(
        device=device.id, name=device.name, what=what, floor=device.floor, at=device.at, metres=metres
    )


def _apart(device: Device, place: Device) -> float:
    metres = math.dist(device.at, place.at)
    if device.floor != place.floor:
        metres += _ANOTHER_FLOOR_M
    return metres + (_ANOTHER_MODEL_M if device.model != place.model else 0.0)


class _Names:
    """Ids and names that are not taken yet."""

    def __init__(self, design: Design, catalogue: Catalogue) -> None:
        self.role = air_role(catalogue)
        self.ids = set(design.of(Device))
        self.names = {d.name for d in design.of(Device).values()}

    def next(self) -> tuple[str, str]:
        stem, prefix = self.role.stem, self.role.prefix
        number = next(
            k
            for k in range(1, 100_000)
            if f"{stem}-{k}" not in self.ids and f"{prefix}-{k}" not in self.names
        )
        key, name = f"{stem}-{number}", f"{prefix}-{number}"
        self.ids.add(key)
        self.names.add(name)
        return key, name
