"""How loudly access points hear each other, through both antennas."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from ..base.bands import BANDS, Band
from ..base.memo import IdentityMemo
from ..design import Device
from .antennas import attenuation_db
from .obstacles import losses_to_db, source_of
from .radio_environment import RadioEnvironment

Array = NDArray[np.float64]

_hearing: IdentityMemo[Array] = IdentityMemo(64)


def hearing_dbm(air: RadioEnvironment, band: Band) -> Array:
    """Return how loudly each access point hears each other one, shape (n, n), symmetric.

    References:
        3GPP TR 38.901, table 7.3-1, both antennas; COST 231 for what lies between; dBm.
    """
    return _hearing.get((air,), band, lambda: _hear(air, band))


def _hear(air: RadioEnvironment, band: Band) -> Array:
    devices = air.access_points(band)
    row = BANDS.index(band)
    power = np.array([air.radios[d.id, band].power_dbm for d in devices])
    gain = np.array([air.radios[d.id, band].gain_dbi for d in devices])
    loss = _between.get((air.terrain, air.catalogue, *devices), None, lambda: _all(air, devices))
    heard = np.maximum.outer(power, power) + np.add.outer(gain, gain) - loss[row]
    np.fill_diagonal(heard, -200.0)
    return np.asarray(heard)


# All bands are traced at once, and most access points are on more than one.
_between: IdentityMemo[Array] = IdentityMemo(64)


def _all(air: RadioEnvironment, devices: Sequence[Device]) -> Array:
    """Return the losses between all pairs, shape (bands, n, n)."""
    loss = np.zeros((len(BANDS), len(devices), len(devices)))
    for i, one in enumerate(devices[:-1]):
        row = np.array(_pair_losses_db(air, one, devices[i + 1 :])).T
        loss[:, i, i + 1 :] = loss[:, i + 1 :, i] = row
    return loss


# Moving one access point asks for its own pairs only.
_losses: IdentityMemo[tuple[float, ...]] = IdentityMemo(40_000, weigh=lambda _: 400)


def _pair_losses_db(
    air: RadioEnvironment, speaker: Device, listeners: Sequence[Device]
) -> list[tuple[float, ...]]:
    """Return the loss to each listener, both antennas' patterns in it, by band."""
    keys = [((air.terrain, air.catalogue, speaker, other), None) for other in listeners]
    kept = [_losses.peek(*key) for key in keys]
    missing = [k for k, loss in enumerate(kept) if loss is None]
    fresh = dict(zip(missing, _worked_out(air, speaker, [listeners[k] for k in missing]), strict=True))
    return [
        loss if loss is not None else _losses.get(*keys[k], lambda k=k: fresh[k])  # type: ignore[misc]
        for k, loss in enumerate(kept)
    ]


def _worked_out(
    air: RadioEnvironment, speaker: Device, listeners: Sequence[Device]
) -> list[tuple[float, ...]]:
    """Trace the rays to listeners of one height and one pose of antenna together."""
    models, ground_m = air.catalogue.airs, air.terrain.storeys.ground_m
    z_m = source_of(air.terrain, speaker)[2]
    groups: dict[tuple[object, ...], list[int]] = {}
    ends = [source_of(air.terrain, d) for d in listeners]
    for k, (device, end) in enumerate(zip(listeners, ends, strict=True)):
        pose = (device.mount, device.azimuth_deg, device.tilt_deg, models[device.model].pattern)
        groups.setdefault((end[2], ground_m(device.floor), *pose), []).append(k)
    found: list[tuple[float, ...]] = [()] * len(listeners)
    for rows in groups.values():
        first = listeners[rows[0]]
        x, y = (np.array([listeners[k].at[i] for k in rows]) for i in (0, 1))
        traced = tuple(np.array([ends[k][i] for k in rows]) for i in (0, 1))
        end_z = ends[rows[0]][2]
        model = models[speaker.model]
        ground = ground_m(first.floor)
        loss = losses_to_db(air.terrain, speaker, model, x, y, end_z, ground, traced)  # type: ignore[arg-type]
        rise = np.full(len(rows), z_m - end_z)
        back = np.column_stack([speaker.at[0] - x, speaker.at[1] - y, rise])
        loss += attenuation_db(
            models[first.model].pattern, back, first.mount, first.azimuth_deg, first.tilt_deg
        )
        for column, k in enumerate(rows):
            found[k] = tuple(map(float, loss[:, column]))
    return found
