"""2.4 GHz at the lowest power that still meets the brief of the rooms around it."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..bands import BANDS
from ..design import Space
from .levels import Air, grid_levels_dbm
from .rooms import TARGETS, room_points
from .terrain import grid_losses_db, survey_grid
from .transmit import nearest_step

DATA_DBM = -70.0
SENSOR_DBM = -75.0
SHARE_OF_CELL = 0.95


def quieten(air: Air) -> Air:
    """Return the same air with each planned 2.4 GHz radio at the lowest step that will do.

    A radio's cell is the needed area where it is the strongest on 5 GHz; 95 % of it shall hear
    at least -70 dBm on 2.4 GHz (-75 where only sensors are). Power set by a person is left alone.
    """
    worst = _needed_loss_db(air)
    radios = dict(air.radios)
    for (device_id, band), radio in air.radios.items():
        if band != "2.4" or radio.by_person or device_id not in worst:
            continue
        loss, target = worst[device_id]
        model = air.catalogue.access_points[
            next(d.model for d in air.access_points("5") if d.id == device_id)
        ].radios["2.4"]
        needed = target + loss - radio.gain_dbi
        power = min(radio.power_dbm, nearest_step(model, needed + model.step_db))
        if power < radio.power_dbm:
            reason = f"lowest step that gives {target:g} dBm over 95 % of its rooms"
            radios[device_id, band] = replace(radio, power_dbm=power, reason=reason)
    return replace(air, radios=radios)


def _needed_loss_db(air: Air) -> dict[str, tuple[float, float]]:
    """Return for each access point the 2.4 GHz loss to the edge of its cell, and the target."""
    devices = air.access_points("5")
    losses: dict[str, list[np.ndarray]] = {}
    targets: dict[str, float] = {}
    for floor, by_target in _needed_points(air).items():
        grid = survey_grid(air.terrain, floor)
        if grid is None or not devices:
            continue
        best = grid_levels_dbm(air, floor, grid, "5", "weaker").argmax(axis=0)
        for target, points in by_target.items():
            strongest = best[points]
            for index in np.unique(strongest):
                device = devices[index]
                model = air.catalogue.access_points[device.model]
                loss = grid_losses_db(air.terrain, device, model, floor, grid)
                mine = points[strongest == index]
                losses.setdefault(device.id, []).append(loss[BANDS.index("2.4")][mine])
                targets[device.id] = max(target, targets.get(device.id, SENSOR_DBM))
    return {
        device: (float(np.quantile(np.concatenate(rows), SHARE_OF_CELL)), targets[device])
        for device, rows in losses.items()
    }


def _needed_points(air: Air) -> dict[str, dict[float, np.ndarray]]:
    """Return by floor, then target, which points of the survey grid lie in rooms in need."""
    found: dict[str, dict[float, list[np.ndarray]]] = {}
    for space in air.design.of(Space).values():
        grid = survey_grid(air.terrain, space.floor)
        if TARGETS[space.use] is None or grid is None:
            continue
        target = SENSOR_DBM if space.use == "sensors" else DATA_DBM
        points = room_points(air.design, air.terrain, space, grid)
        found.setdefault(space.floor, {}).setdefault(target, []).append(points)
    return {f: {t: np.concatenate(p) for t, p in rows.items()} for f, rows in found.items()}
