"""What one wall or one access point explains of the difference between measured and fitted."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..base.bands import BANDS
from ..base.frozen import Frozen
from ..context.readings import Reading
from ..design import Device, Opening, Point, Wall
from .obstacles import losses_db
from .overlaps import Panel
from .radio_environment import RadioEnvironment

Array = NDArray[np.float64]

_SURE = 3.0  # standard errors beyond which something stands out
_LEAST_OF_ONE = 4  # measurements through one wall, or of one access point, to speak of it
_ENOUGH_OF_ONE = 300  # of an access point's measurements tell where it hangs
_AROUND_M = (2.0, 4.0, 6.0, 9.0)
_BETTER = 0.6  # what is left of the squares once an access point is thought elsewhere


class StandsOut(Frozen):
    """Something that one wall or one access point explains."""

    kind: str
    element: str
    floor: str
    at: Point
    text: str


@dataclass(frozen=True, eq=False)
class Through:
    """Which piece of a wall which ray goes through, a row each: its factor for the angle, where."""

    pieces: Sequence[Panel]
    ray: NDArray[np.intp]
    panel: NDArray[np.intp]
    factor: Array
    x: Array
    y: Array

    def of(self, rays: NDArray[np.bool_]) -> Through:
        """Return what some of the rays go through, those counted anew."""
        kept = rays[self.ray]
        number = np.cumsum(rays) - 1
        return Through(
            self.pieces,
            number[self.ray[kept]],
            self.panel[kept],
            self.factor[kept],
            self.x[kept],
            self.y[kept],
        )


def walls_that_stand_out(
    air: RadioEnvironment, through: Through, left: Array, sigma: float
) -> list[StandsOut]:
    """Return the walls that explain what is left on the rays through them, the plainest first."""
    found = []
    least_db = air.rules["signal.fit_wall_db"]
    elements, code = np.unique([p.element for p in through.pieces], return_inverse=True)
    of_row = code[through.panel]
    order = np.argsort(of_row, kind="stable")
    ends = np.searchsorted(of_row[order], np.arange(len(elements) + 1))
    for k, element in enumerate(elements):
        rows = order[ends[k] : ends[k + 1]]
        here, back = np.unique(through.ray[rows], return_inverse=True)
        if not _LEAST_OF_ONE <= len(here) < len(left):
            continue
        f = np.bincount(back, through.factor[rows])
        more_db = -float(f @ left[here]) / float(f @ f)
        error = sigma / math.sqrt(float(f @ f))
        if abs(more_db) >= least_db and abs(more_db) > _SURE * error:
            piece = through.pieces[through.panel[rows[0]]]
            label = air.catalogue.constructions[piece.construction].label
            heavier = "heavier" if more_db > 0 else "lighter"
            ask = ": foil, a tank, a cupboard?" if more_db > 0 else ": a door, a gap?"
            at = round(float(through.x[rows[0]]), 2), round(float(through.y[rows[0]]), 2)
            out = StandsOut(
                kind="wall",
                element=str(element),
                floor=_storey_of(air, str(element)),
                at=at,
                text=f"{label} here is {abs(more_db):.0f} dB {heavier} than drawn{ask}",
            )
            found.append((abs(more_db) / error, out))
    found.sort(key=lambda row: -row[0])
    return [out for _, out in found[:3]]


def _storey_of(air: RadioEnvironment, element: str) -> str:
    """Return the storey of a wall or an opening."""
    opening = air.design.of(Opening).get(element)
    return air.design.of(Wall)[opening.wall if opening is not None else element].floor


def points_that_stand_out(air: RadioEnvironment, readings: Sequence[Reading], left: Array) -> list[StandsOut]:
    """Return the access points that seem to hang elsewhere than drawn."""
    by: dict[str, list[int]] = {}
    for k, r in enumerate(readings):
        by.setdefault(r.device, []).append(k)
    found = []
    for key, its in by.items():
        if len(its) < 2 * _LEAST_OF_ONE:
            continue
        device = air.design.of(Device)[key]
        rows = its[:: max(1, len(its) // _ENOUGH_OF_ONE)]
        squares = float(left[rows] @ left[rows])
        best = min(
            ((_squares(air, device, at, readings, rows, left), at) for at in _around(device)),
            default=(squares, device.at),
        )
        far_m = math.dist(best[1], device.at)
        if best[0] < _BETTER * squares and far_m >= air.rules["signal.fit_moved_m"]:
            text = f"{device.name} seems to hang {far_m:.0f} m from where it is drawn"
            found.append(StandsOut(kind="device", element=key, floor=device.floor, at=best[1], text=text))
    return found


def _around(device: Device) -> list[Point]:
    return [
        (round(device.at[0] + far * math.sin(turn), 2), round(device.at[1] + far * math.cos(turn), 2))
        for far in _AROUND_M
        for turn in (2 * math.pi * k / 8 for k in range(8))
    ]


def _squares(
    air: RadioEnvironment,
    device: Device,
    at: Point,
    readings: Sequence[Reading],
    rows: Sequence[int],
    left: Array,
) -> float:
    """Return what would be left, squared, if an access point hung elsewhere."""
    model = air.catalogue.radios_of(device)
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
