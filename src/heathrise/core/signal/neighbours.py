"""Radios of others as they were measured, and what each of ours hears of them."""

from __future__ import annotations

import math
from collections.abc import Collection, Mapping, Sequence
from itertools import count

import numpy as np

from ..base.bands import Band
from ..context.integrity import MAX_ELEMENTS
from ..design import Device, Neighbour
from .radio_environment import RadioEnvironment

Near = tuple[tuple[int, int, int], ...]  # channel, width in MHz, whole dB above contention


def noted(
    said: Sequence[Mapping[str, object]], taken: Collection[str], there: int
) -> tuple[list[Neighbour], int]:
    """Return neighbours of which everything but an id is said, and how many were left out: of more than a
    plan can hold the faintest.

    Args:
        taken: ids that are not free.
        there: how many the plan holds besides.
    """
    room = max(0, MAX_ELEMENTS["neighbour"] - there)
    kept = range(len(said))
    if len(said) > room:
        levels = np.array([row["level_dbm"] for row in said], dtype=np.float64)
        kept = np.sort(np.argsort(-levels, kind="stable")[:room]).tolist()
    free = (key for key in (f"nb-{n}" for n in count(1)) if key not in taken)
    return [Neighbour.model_validate({"id": next(free), **said[k]}) for k in kept], len(said) - len(kept)


def neighbours_near(air: RadioEnvironment, band: Band, devices: list[Device]) -> tuple[Near, ...]:
    """Return by radio the neighbours that it contends with.

    A measurement counts for the radios of its storey within some metres of it; of several of one
    neighbour the nearest counts.
    """
    rows = [n for n in air.design.of(Neighbour).values() if n.band == band]
    if not rows:
        return ((),) * len(devices)
    reach_m = air.rules["signal.neighbour_reach_m"]
    contend_dbm = air.rules["signal.contend_dbm"]
    found = []
    for device in devices:
        nearest: dict[tuple[str, int], tuple[float, Neighbour]] = {}
        for row in rows:
            far_m = math.dist(row.at, device.at)
            key = (row.name, row.channel)
            if row.floor != device.floor or far_m > reach_m:
                continue
            if key not in nearest or far_m < nearest[key][0]:
                nearest[key] = (far_m, row)
        heard = [
            (n.channel, n.width_mhz, over)
            for _, n in nearest.values()
            if (over := round(n.level_dbm - contend_dbm)) >= 0
        ]
        found.append(tuple(sorted(heard)))
    return tuple(found)
