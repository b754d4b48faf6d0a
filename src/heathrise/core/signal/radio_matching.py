"""Whose radio it is that a survey calls by an address: the one whose levels fit the plan best."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

import numpy as np
from scipy.optimize import linear_sum_assignment

from ..base.bands import BANDS
from ..context.readings import Reading
from ..design import Device
from .obstacles import losses_db
from .radio_environment import RadioEnvironment

_NO_FIT_DB = 25.0
_ENOUGH = 100  # of a radio's measurements tell whose it is


def proposed_names(
    air: RadioEnvironment, heard: Mapping[str, Sequence[Reading]]
) -> dict[str, tuple[str, float]]:
    """Return by an unknown address the access point whose levels fit best, and by how many dB.

    Args:
        heard: readings by address; their ``device`` is not looked at.

    References:
        Kuhn, assignment at least cost; the cost is how far levels spread about the expected, dB.
    """
    points = {d for d, _ in air.radios}
    devices = [d for d in air.design.of(Device).values() if d.id in points]
    addresses = list(heard)
    if not devices or not addresses:
        return {}
    cost = np.full((len(addresses), len(devices)), 99.0)
    for i, address in enumerate(addresses):
        enough = heard[address][:: max(1, len(heard[address]) // _ENOUGH)]
        for j, device in enumerate(devices):
            apart = _apart(air, device, enough)
            if apart is not None:
                cost[i, j] = apart
    rows, columns = linear_sum_assignment(cost)
    return {
        addresses[i]: (devices[j].id, round(float(cost[i, j]), 1))
        for i, j in zip(rows, columns, strict=True)
        if cost[i, j] < _NO_FIT_DB
    }


def _apart(air: RadioEnvironment, device: Device, readings: Sequence[Reading]) -> float | None:
    """Return how far readings are from what is planned of an access point, dB, root mean square."""
    model = air.catalogue.radios_of(device)
    squares = 0.0
    count = 0
    places = {(r.band, r.floor) for r in readings}
    for band, floor in places:
        if (device.id, band) not in air.radios or floor not in air.terrain.storeys.elevation_m:
            continue
        here = [r for r in readings if (r.band, r.floor) == (band, floor)]
        x, y = (np.array([r.at[k] for r in here]) for k in (0, 1))
        loss = losses_db(air.terrain, device, model, floor, x, y)[BANDS.index(band)]
        level = air.lossless_dbm(device, band, "downlink") - loss
        squares += float(np.sum((np.array([r.dbm for r in here]) - level) ** 2))
        count += len(here)
    return math.sqrt(squares / count) if count else None


_CLEARLY_DB = 3.0  # by so much better a radio's levels fit another's place than its own
_LEAST_TOLD = 4  # measurements of a radio that tell whose they are


def swapped(air: RadioEnvironment, readings: Sequence[Reading]) -> list[tuple[str, str]]:
    """Return the access points whose levels on a walk are clearly those of another's place, each
    with that other: two that were hung in each other's stead, or three in a round."""
    heard: dict[str, list[Reading]] = {}
    for reading in readings:
        heard.setdefault(reading.device, []).append(reading)
    devices = air.design.of(Device)
    told = {k: v for k, v in heard.items() if k in devices and len(v) >= _LEAST_TOLD}
    fits = proposed_names(air, told)
    away = {k: to for k, (to, _) in fits.items() if to != k and to in told}
    found = []
    for key, other in away.items():
        if other not in away:
            continue  # nobody stands where it seems to be, or the one there stands right
        own = _apart(air, devices[key], told[key])
        if own is not None and own - fits[key][1] >= _CLEARLY_DB:
            found.append((key, other))
    return found
