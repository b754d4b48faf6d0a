"""2.4 GHz at the lowest power that still meets the brief of the rooms it serves."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numba
import numpy as np
from numpy.typing import NDArray

from ..base.bands import BANDS
from ..base.memo import IdentityMemo
from ..design import Device, Space
from .radio_environment import RadioEnvironment, band_losses
from .rooms import Target, target_in
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


def quieten(air: RadioEnvironment) -> RadioEnvironment:
    """Return the same air with each planned 2.4 GHz radio at the lowest step that will do.

    A radio serves the points of needed rooms where it is the best on 2.4 GHz. Of its part of
    each room 95 % shall go on hearing -70 dBm (-75 where only sensors are, with the margin if
    that can be had), or as much as did at the planned power. Power set by a person is left alone.
    """
    devices = air.access_points("2.4")
    parts = _parts(air, devices)
    radios = dict(air.radios)
    for k, (power, part) in _powers(air, devices, parts).items():
        key = (devices[k].id, BANDS[0])
        room = air.design.of(Space)[part.room].name
        least = f"that gives {room} its {part.target_dbm:g} dBm"
        lowered = power < radios[key].power_dbm
        reason = f"lowest step {least}" if lowered else f"no lower step {least}"
        radios[key] = replace(radios[key], power_dbm=power, reason=reason)
    return replace(air, radios=radios)


# Moving one access point changes what few rooms hear best.
_kept: IdentityMemo[list[_Part]] = IdentityMemo(4096, weigh=lambda _: 6_000)


def _parts(air: RadioEnvironment, devices: list[Device]) -> list[_Part]:
    if not devices:
        return []
    served = _Served.of(air, devices)
    found: list[_Part] = []
    bests: dict[str, tuple[NDArray[np.intp], NDArray[np.float32]]] = {}
    for space in air.design.of(Space).values():
        target = target_in(air, space.use)
        if target is None:
            continue
        survey = air.terrain.surveys[space.floor]
        if space.floor not in bests:
            losses = band_losses(air, space.floor, survey, BANDS[0])
            bests[space.floor] = _bests(losses, served.weaker_dbm, survey.size)
        points = survey.rooms[space.id]
        best, loss = (rows[points] for rows in bests[space.floor])
        values = (target, air.design.site.margin_db, served.key, best.tobytes(), loss.tobytes())
        found += _kept.get(
            (space, air.catalogue),
            values,
            lambda s=space, t=target, b=best, far=loss: _parts_of(air, served, s, t, b, far),  # type: ignore[misc]
        )
    return found


@dataclass(frozen=True)
class _Served:
    """By radio: power that is of use, gain with the client's, in dBm and dB."""

    limit_dbm: Array
    gain_db: Array

    @classmethod
    def of(cls, air: RadioEnvironment, devices: list[Device]) -> _Served:
        client = air.catalogue.clients[air.design.site.client]
        planned = np.array([air.radios[d.id, BANDS[0]].power_dbm for d in devices])
        gain = np.array([air.radios[d.id, BANDS[0]].gain_dbi for d in devices]) + client.gain_dbi
        # A client that is not heard back is not helped by more power.
        return cls(np.minimum(planned, client.power_dbm[BANDS[0]]), gain)

    @property
    def weaker_dbm(self) -> Array:
        """The weaker direction over a path without loss, as rooms are judged."""
        return self.limit_dbm + self.gain_db

    @property
    def key(self) -> bytes:
        return self.limit_dbm.tobytes() + self.gain_db.tobytes()


def _bests(
    losses: list[NDArray[np.float32]], weaker_dbm: Array, size: int
) -> tuple[NDArray[np.intp], NDArray[np.float32]]:
    """Return for every point the radio heard best, and the loss to it in dB."""
    best, loss = np.zeros(size, dtype=np.intp), np.zeros(size, dtype=np.float32)
    level = np.full(size, -np.inf)
    for k, (row, weaker) in enumerate(zip(losses, weaker_dbm, strict=True)):
        _take_better(row, weaker, k, level, best, loss)
    return best, loss


@numba.njit(cache=True, nogil=True)
def _take_better(row, weaker, k, level, best, loss):  # type: ignore[no-untyped-def] # pragma: no cover
    for i in range(row.shape[0]):
        heard = weaker - row[i]
        if heard > level[i]:
            level[i], best[i], loss[i] = heard, k, row[i]


def _parts_of(
    air: RadioEnvironment,
    served: _Served,
    space: Space,
    target: Target,
    best: NDArray[np.intp],
    loss: NDArray[np.float32],
) -> list[_Part]:
    kept_share = air.rules["signal.quiet_share"]
    judged = target.band == BANDS[0]
    plain = target.first_dbm if judged else air.rules["signal.quiet_dbm"]
    margin = air.design.site.margin_db if judged else 0.0
    found: list[_Part] = []
    for k in np.unique(best):
        mine = loss[best == k]
        for wanted in (plain + margin, plain):
            needs = wanted - served.gain_db[k] + mine
            within = np.sort(needs[needs <= served.limit_dbm[k] + 1e-9])
            if len(within) >= kept_share * len(needs):
                break  # where the margin cannot be kept, the target itself still is
        found.append(_Part(space.id, int(k), wanted, within, len(needs)))
    return found


def _powers(
    air: RadioEnvironment, devices: list[Device], parts: list[_Part]
) -> dict[int, tuple[float, _Part]]:
    """Return for each radio that may be quietened its power in dBm and the part that binds."""
    kept_share = air.rules["signal.quiet_share"]
    strict = _rooms_in_parts_unmet(parts, kept_share)
    found: dict[int, tuple[float, _Part]] = {}
    for part in parts:
        device = devices[part.device]
        radio = air.radios[device.id, BANDS[0]]
        if radio.by_person:
            continue
        model = air.catalogue.radios_of(device).radios[BANDS[0]]
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
