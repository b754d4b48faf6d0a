"""What each of many access points, standing or thought of, gives at the points of rooms."""

from __future__ import annotations

import os
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from shapely.geometry import Polygon

from ..base.bands import BANDS, Band
from ..design import Device, Space
from .obstacles import losses_db
from .radio_environment import SILENT_DBM, RadioEnvironment
from .rooms import target_in
from .survey import STEP_M, room_points

Array = NDArray[np.float32]


@dataclass(frozen=True, eq=False)
class Asked:
    """A room that asks for signal: its points, what is wanted there in dBm, the margin in it.

    ``first_dbm`` has the wanted signal over the noise in it; ``second_dbm`` is None where no
    second access point is asked for.
    """

    space: Space
    band: Band
    first_dbm: float
    second_dbm: float | None
    x: NDArray[np.float64]
    y: NDArray[np.float64]


def asked_rooms(
    air: RadioEnvironment, margin_db: float, apart_m: float = STEP_M, second: bool = True
) -> list[Asked]:
    """Return the rooms that ask for signal, with their points so far apart."""
    found = []
    for space in air.design.of(Space).values():
        target = target_in(air, space.use)
        if target is None:
            continue
        first = target.first_dbm
        if target.snr_db:
            first = max(first, target.snr_db + air.noise_dbm(target.band))
        wants_second = second and target.second_dbm is not None
        found.append(
            Asked(
                space,
                target.band,
                first + margin_db,
                (target.second_dbm or 0.0) + margin_db if wants_second else None,
                *room_points(Polygon(space.outline), apart_m),
            )
        )
    return found


def reach_dbm(air: RadioEnvironment, devices: Sequence[Device], asked: Sequence[Asked]) -> Array:
    """Return the level in dBm that each device gives at each point of each room.

    The weaker direction, for the weakest client of the room on its band, radios as planned.

    Returns:
        Shape (devices, points), the rooms' points one after the other.
    """
    sizes = np.cumsum([0, *(len(a.x) for a in asked)])
    found = np.full((len(devices), int(sizes[-1])), SILENT_DBM, dtype=np.float32)
    floors: dict[str, list[int]] = {}
    for k, room in enumerate(asked):
        floors.setdefault(room.space.floor, []).append(k)
    points = {
        floor: (np.concatenate([asked[k].x for k in rooms]), np.concatenate([asked[k].y for k in rooms]))
        for floor, rooms in floors.items()
    }

    def fill(row: int) -> None:
        device = devices[row]
        model = air.catalogue.radios_of(device)
        for floor, rooms in floors.items():
            loss = losses_db(air.terrain, device, model, floor, *points[floor])
            at = 0
            for k in rooms:
                room, size = asked[k], len(asked[k].x)
                radio = air.radios.get((device.id, room.band))
                if radio is not None and radio.on:
                    client = air.client_in(room.space.id, room.band)
                    level = air.lossless_dbm(device, room.band, "weaker", client)
                    here = loss[BANDS.index(room.band), at : at + size]
                    found[row, sizes[k] : sizes[k + 1]] = np.maximum(level - here, SILENT_DBM)
                at += size

    with ThreadPoolExecutor(os.cpu_count(), thread_name_prefix="reach") as beside:
        list(beside.map(fill, range(len(devices))))
    return found


def rooms_of(asked: Sequence[Asked]) -> NDArray[np.intp]:
    """Return which room each point of ``reach_dbm`` lies in."""
    return np.repeat(np.arange(len(asked)), [len(a.x) for a in asked])
