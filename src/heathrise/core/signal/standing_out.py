"""What one wall or one access point explains of the difference between measured and fitted."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray
from pydantic import BaseModel, ConfigDict

from ..bands import BANDS
from ..design import Device, Opening, Point, Wall
from ..readings import Reading
from .explain import Ray
from .levels import Air
from .terrain import losses_db

Array = NDArray[np.float64]

_SURE = 3.0  # standard errors beyond which something stands out
_LEAST_OF_ONE = 4  # measurements through one wall, or of one access point, to speak of it
_AROUND_M = (2.0, 4.0, 6.0, 9.0)
_BETTER = 0.6  # what is left of the squares once an access point is thought elsewhere


class StandsOut(BaseModel):
    """Something that one wall or one access point explains."""

    model_config = ConfigDict(frozen=True)

    kind: str
    element: str
    floor: str
    at: Point
    text: str


def walls_that_stand_out(
    air: Air, rays: Sequence[Ray], left: Array, sigma: float
) -> list[StandsOut]:
    """Return the walls that explain what is left on the rays through them, the plainest first."""
    factors: dict[str, dict[int, float]] = {}
    places: dict[str, Point] = {}
    kinds: dict[str, str] = {}
    floors: dict[str, str] = {}
    for k, ray in enumerate(rays):
        for c in ray.crossings:
            if c.kind in ("wall", "opening"):
                row = factors.setdefault(c.element, {})
                row[k] = row.get(k, 0.0) + c.factor
                places.setdefault(c.element, c.at)
                kinds[c.element] = c.label
                floors[c.element] = _storey_of(air, c.element)
    found = []
    least_db = air.rules["signal.fit_wall_db"]
    for element, row in factors.items():
        if _LEAST_OF_ONE <= len(row) < len(left):
            here, f = list(row), np.array(list(row.values()))
            more_db = -float(f @ left[here]) / float(f @ f)
            error = sigma / math.sqrt(float(f @ f))
            if abs(more_db) >= least_db and abs(more_db) > _SURE * error:
                floor = floors[element]
                heavier = "heavier" if more_db > 0 else "lighter"
                ask = ": foil, a tank, a cupboard?" if more_db > 0 else ": a door, a gap?"
                text = f"{kinds[element]} here is {abs(more_db):.0f} dB {heavier} than drawn{ask}"
                out = StandsOut(
                    kind="wall", element=element, floor=floor, at=places[element], text=text
                )
                found.append((abs(more_db) / error, out))
    found.sort(key=lambda row: -row[0])
    return [out for _, out in found[:3]]


def _storey_of(air: Air, element: str) -> str:
    """Return the storey of a wall or an opening."""
    opening = air.design.of(Opening).get(element)
    return air.design.of(Wall)[opening.wall if opening is not None else element].floor


def points_that_stand_out(air: Air, readings: Sequence[Reading], left: Array) -> list[StandsOut]:
    """Return the access points that seem to hang elsewhere than drawn."""
    by: dict[str, list[int]] = {}
    for k, r in enumerate(readings):
        by.setdefault(r.device, []).append(k)
    found = []
    for key, rows in by.items():
        if len(rows) < 2 * _LEAST_OF_ONE:
            continue
        device = air.design.of(Device)[key]
        squares = float(left[rows] @ left[rows])
        best = min(
            ((_squares(air, device, at, readings, rows, left), at) for at in _around(device)),
            default=(squares, device.at),
        )
        far_m = math.dist(best[1], device.at)
        if best[0] < _BETTER * squares and far_m >= air.rules["signal.fit_moved_m"]:
            text = f"{device.name} seems to hang {far_m:.0f} m from where it is drawn"
            found.append(
                StandsOut(kind="device", element=key, floor=device.floor, at=best[1], text=text)
            )
    return found


def _around(device: Device) -> list[Point]:
    return [
        (
            round(device.at[0] + far * math.sin(turn), 2),
            round(device.at[1] + far * math.cos(turn), 2),
        )
        for far in _AROUND_M
        for turn in (2 * math.pi * k / 8 for k in range(8))
    ]


def _squares(
    air: Air, device: Device, at: Point, readings: Sequence[Reading], rows: Sequence[int],
    left: Array,
) -> float:  # fmt: skip
    """Return what would be left, squared, if an access point hung elsewhere."""
    model = air.catalogue.airs[device.model]
    moved = device.model_copy(update={"at": at})
    total = 0.0
    floors: dict[str, list[int]] = {}
    for k in rows:
        floors.setdefault(readings[k].floor, []).append(k)
    for floor, here in floors.items():
        x, y = (np.array([readings[k].at[i] for k in here]) for i in (0, 1))
        there = losses_db(air.terrain, moved, model, floor, x, y)
        now = losses_db(air.terrain, device, model, floor, x, y)
        for column, k in enumerate(here):
            band = BANDS.index(readings[k].band)
            total += float(left[k] + there[band, column] - now[band, column]) ** 2
    return total
