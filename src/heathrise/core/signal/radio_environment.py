"""Levels in dBm that clients and access points hear from each other."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ..base.bands import BANDS, Band
from ..base.memo import IdentityMemo
from ..catalogue import Catalogue, ClientModel, Rules
from ..context.band_plan import BandPlan
from ..context.line_channels import channels_left
from ..design import ClientGroup, Design, Device, Point
from .grid import Grid
from .obstacles import Obstacles, all_losses_db, losses_db
from .propagation import noise_floor_dbm
from .survey import Survey
from .transmit import Transmit

Array = NDArray[np.floating]
Direction = Literal["downlink", "uplink", "weaker"]

SILENT_DBM = -140.0


@dataclass(frozen=True)
class RadioEnvironment:
    """All that levels depend on: the terrain, the radios and the client judged by.

    ``cut_off`` are access points over the air whose link leads to none with a cable: silent here.
    """

    design: Design
    catalogue: Catalogue
    terrain: Obstacles
    radios: dict[tuple[str, Band], Transmit]
    cut_off: frozenset[str] = frozenset()

    @property
    def rules(self) -> Rules:
        return self.catalogue.rules

    @property
    def channels(self) -> BandPlan:
        """The channels that access points are planned on."""
        return channels_left(self.design, self.catalogue)

    def width_mhz(self, band: Band) -> int:
        """Return the width of the channels of a band."""
        return self.design.site.width_5ghz_mhz if band == "5" else 20

    def noise_dbm(self, band: Band) -> float:
        """Return the noise in a channel of a band, a receiver's own with it."""
        return noise_floor_dbm(self.width_mhz(band), self.rules["signal.noise_figure_db"])

    def access_points(self, band: Band) -> list[Device]:
        """Return the access points whose radio is on in ``band``."""
        return [
            device
            for device in self.design.of(Device).values()
            if (radio := self.radios.get((device.id, band))) is not None and radio.on
        ]

    def without(self, gone: frozenset[str]) -> RadioEnvironment:
        """Return the air with some access points silent; all else stays as it is."""
        radios = {
            key: replace(radio, on=False) if key[0] in gone else radio for key, radio in self.radios.items()
        }
        return replace(self, radios=radios)

    @property
    def client(self) -> ClientModel:
        """The client that the site is judged by: it is carried everywhere."""
        return self.catalogue.clients[self.design.site.client]

    def client_in(self, space: str, band: Band) -> ClientModel:
        """Return the weakest client that a room is judged by on a band: the site's own, or one of
        those that are used there over the air."""
        here = [c for c in self._used_in.get(space, ()) if band in c.power_dbm]
        # Of equals the site's own.
        return min((self.client, *here), key=lambda c: c.power_dbm[band] + c.gain_dbi)

    @cached_property
    def _used_in(self) -> dict[str, list[ClientModel]]:
        found: dict[str, list[ClientModel]] = {}
        for group in self.design.of(ClientGroup).values():
            if group.count > group.wired:
                found.setdefault(group.space, []).append(self.catalogue.clients[group.kind])
        return found

    def level_dbm(self, device: Device, band: Band, direction: Direction, loss: Array) -> Array:
        """Return the level over a path of ``loss`` dB, any shape."""
        return self.lossless_dbm(device, band, direction) - loss

    def lossless_dbm(
        self, device: Device, band: Band, direction: Direction, client: ClientModel | None = None
    ) -> float:
        """Return the level over a path without loss, for the site's client or another.

        Downlink ``P_ap + G_ap - PL + G_client``, uplink ``P_client + G_client - PL + G_ap``.
        """
        radio = self.radios[device.id, band]
        client = client or self.client
        both = radio.gain_dbi + client.gain_dbi
        power = {"downlink": radio.power_dbm, "uplink": client.power_dbm[band]}
        chosen = power[direction] if direction != "weaker" else min(power.values())
        return chosen + both


def grid_levels_dbm(
    air: RadioEnvironment, floor: str, grid: Grid | Survey, band: Band, direction: Direction
) -> Array:
    """Return each access point's level at each point of a grid, shape (devices, n)."""
    devices = air.access_points(band)
    levels = np.empty((len(devices), grid.size), dtype=np.float32)
    for device, level, loss in zip(devices, levels, band_losses(air, floor, grid, band), strict=True):
        np.subtract(np.float32(air.lossless_dbm(device, band, direction)), loss, out=level)
    return levels


def band_losses(
    air: RadioEnvironment, floor: str, grid: Grid | Survey, band: Band
) -> list[NDArray[np.float32]]:
    """Return the loss from each access point to each point of a grid on one band."""
    models = air.catalogue.airs
    found = all_losses_db(air.terrain, air.access_points(band), models, floor, grid)
    return [losses[BANDS.index(band)] for losses in found]


def ranked_dbm(levels: Array, rank: int) -> Array:
    """Return the ``rank``-th strongest level (1 is the strongest) at each point, shape (n,)."""
    if len(levels) < rank:
        return np.full(levels.shape[1], SILENT_DBM, dtype=np.float32)
    if rank == 1:
        first: Array = np.maximum(levels.max(axis=0), SILENT_DBM)
        return first
    strongest: Array = np.partition(levels, len(levels) - rank, axis=0)[len(levels) - rank]
    return np.maximum(strongest, SILENT_DBM)


@dataclass(frozen=True)
class SpotLevel:
    """What one access point gives at one spot, in dBm."""

    device: str
    name: str
    band: Band
    downlink_dbm: float
    uplink_dbm: float


# The spots that a brief asks about stay while an access point is moved.
_spots: IdentityMemo[Array] = IdentityMemo(20_000, weigh=lambda _: 500)


def heard_at(air: RadioEnvironment, floor: str, at: Point) -> list[tuple[Device, Band, float]]:
    """Return each access point's level at a spot in dBm, band by band, of the weaker direction, for
    the weakest client of the room that it lies in."""
    room = air.terrain.storeys.room_at(floor, at)
    x, y = np.array([at[0]]), np.array([at[1]])
    found: list[tuple[Device, Band, float]] = []
    for device in air.design.of(Device).values():
        model = air.catalogue.air_of(device)
        if model is None:
            continue
        loss = _spots.get(
            (air.terrain, device, model),
            (floor, at),
            lambda d=device, m=model: losses_db(air.terrain, d, m, floor, x, y)[:, 0],  # type: ignore[misc]
        )
        for row, band in enumerate(BANDS):
            if (device.id, band) in air.radios and air.radios[device.id, band].on:
                client = air.client_in(room.id, band) if room is not None else None
                level = air.lossless_dbm(device, band, "weaker", client) - float(loss[row])
                found.append((device, band, level))
    return found


def readings_at(air: RadioEnvironment, floor: str, x_m: float, y_m: float) -> list[SpotLevel]:
    """Return the level of every access point at one spot, the strongest on 5 GHz first."""
    spot = np.array([x_m]), np.array([y_m])
    found: list[SpotLevel] = []
    for device in air.design.of(Device).values():
        model = air.catalogue.air_of(device)
        if model is None:
            continue
        loss = losses_db(air.terrain, device, model, floor, *spot)[:, 0]
        for row, band in enumerate(BANDS):
            if (device.id, band) in air.radios and air.radios[device.id, band].on:
                down = air.level_dbm(device, band, "downlink", loss[row])
                up = air.level_dbm(device, band, "uplink", loss[row])
                found.append(
                    SpotLevel(device.id, device.name, band, round(float(down), 1), round(float(up), 1))
                )
    return sorted(found, key=lambda r: -min(r.downlink_dbm, r.uplink_dbm))


def heard_along(
    air: RadioEnvironment, floor: str, x_m: NDArray[np.float64], y_m: NDArray[np.float64], band: Band = "5"
) -> list[tuple[float | None, str | None]]:
    """Return at each of some spots of a storey the strongest access point on a band: its level in dBm, of
    the weaker direction for the site's client, and its id; (None, None) where none is on."""
    devices = air.access_points(band)
    if not devices or not len(x_m):
        return [(None, None)] * len(x_m)
    row = BANDS.index(band)
    levels = np.empty((len(devices), len(x_m)))
    for k, device in enumerate(devices):
        model = air.catalogue.radios_of(device)
        loss = losses_db(air.terrain, device, model, floor, x_m, y_m)[row]
        levels[k] = air.lossless_dbm(device, band, "weaker") - loss
    best = levels.argmax(axis=0)
    return [(round(float(levels[d, k]), 1), devices[d].id) for k, d in enumerate(best.tolist())]
