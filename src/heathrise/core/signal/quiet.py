"""2.4 GHz at the lowest power that still meets the brief of the rooms it serves."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ..bands import BANDS
from ..design import Device, Space
from .levels import Air, band_losses
from .rooms import target_of
from .transmit import nearest_step

Array = NDArray[np.float64]


@dataclass(frozen=True)
class _Part:
    """The part of a room that one radio serves: power in dBm that each of its points needs."""

    room: str
    device: int
    target_dbm: float
    needs_dbm: Array
    points: int


def quieten(air: Air) -> Air:
    """Return the same air with each planned 2.4 GHz radio at the lowest step that will do.

    A radio serves the points of needed rooms where it is the best on 2.4 GHz. Of its part of
    each room 95 % shall go on hearing -70 dBm (-75 where only sensors are, with the margin if
    that can be had), or as much as did at the planned power. Power set by a person is left alone.
    """
    devices = air.access_points("2.4")
    parts = list(_parts(air, devices))
    radios = dict(air.radios)
    for k, (power, part) in _powers(air, devices, parts).items():
        key = (devices[k].id, BANDS[0])
        room = air.design.of(Space)[part.room].name
        least = f"that gives {room} its {part.target_dbm:g} dBm"
        lowered = power < radios[key].power_dbm
        reason = f"lowest step {least}" if lowered else f"no lower step {least}"
        radios[key] = replace(radios[key], power_dbm=power, reason=reason)
    return replace(air, radios=radios)


def _parts(air: Air, devices: list[Device]) -> Iterator[_Part]:
    client = air.catalogue.clients[air.design.site.client]
    kept_share = air.rules["signal.quiet_share"]
    if not devices:
        return
    planned = np.array([air.radios[d.id, BANDS[0]].power_dbm for d in devices])
    gain = np.array([air.radios[d.id, BANDS[0]].gain_dbi for d in devices]) + client.gain_dbi
    # As rooms are judged: by the weaker direction of the one that serves a point best.
    weaker = np.minimum(planned, client.power_dbm[BANDS[0]]) + gain
    losses: dict[str, Array] = {}
    bests: dict[str, NDArray[np.intp]] = {}
    for space in air.design.of(Space).values():
        target = target_of(air.rules, space.use)
        if target is None:
            continue
        survey = air.terrain.surveys[space.floor]
        if space.floor not in losses:
            losses[space.floor] = np.stack(band_losses(air, space.floor, survey, BANDS[0]))
            bests[space.floor] = (weaker[:, None] - losses[space.floor]).argmax(axis=0)
        loss, points = losses[space.floor], survey.rooms[space.id]
        judged = target.band == BANDS[0]
        plain = target.first_dbm if judged else air.rules["signal.quiet_dbm"]
        margin = air.design.site.margin_db if judged else 0.0
        best = bests[space.floor][points]
        for k in np.unique(best):
            mine = points[best == k]
            # A client that is not heard back is not helped by more power.
            limit = min(planned[k], client.power_dbm[BANDS[0]])
            for wanted in (plain + margin, plain):
                needs = wanted - gain[k] + loss[k][mine]
                within = np.sort(needs[needs <= limit + 1e-9])
                if len(within) >= kept_share * len(needs):
                    break  # where the margin cannot be kept, the target itself still is
            yield _Part(space.id, int(k), wanted, within, len(needs))


def _powers(air: Air, devices: list[Device], parts: list[_Part]) -> dict[int, tuple[float, _Part]]:
    """Return for each radio that may be quietened its power in dBm and the part that binds."""
    kept_share = air.rules["signal.quiet_share"]
    strict = _rooms_in_parts_unmet(parts, kept_share)
    found: dict[int, tuple[float, _Part]] = {}
    for part in parts:
        device = devices[part.device]
        radio = air.radios[device.id, BANDS[0]]
        if radio.by_person:
            continue
        model = air.catalogue.airs[device.model].radios[BANDS[0]]
        power = model.min_power_dbm
        if len(part.needs_dbm):
            count = len(part.needs_dbm)
            if part.room not in strict:
                count = min(count, int(np.ceil(kept_share * part.points)))
            needed = float(part.needs_dbm[count - 1])
            step = nearest_step(model, needed)
            power = step if step >= needed - 1e-9 else step + model.step_db
        power = min(radio.power_dbm, power)
        if part.device not in found or power > found[part.device][0]:
            found[part.device] = (power, part)
    return found


def _rooms_in_parts_unmet(parts: list[_Part], kept_share: float) -> set[str]:
    """Return the rooms of which some radio serves less than 95 % of its part: of those nothing
    that is heard now may be given up."""
    return {p.room for p in parts if len(p.needs_dbm) < kept_share * p.points}
