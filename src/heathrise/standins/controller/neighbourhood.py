"""Who else is on the air around a site that a stand-in plays: what the plan knows of, and made-up others."""

from __future__ import annotations

import hashlib
import math
import random
from collections.abc import Sequence

from ...core.base.bands import Band
from ...core.design import Design, Device, Neighbour, Point
from .scanning import Near

_NAMES = ("Heron", "Bramble", "Corner shop", "Lantern", "Flat 2", "Thistle", "Magpie", "", "Quarry")
_SENDS_DBM = 18.0
_AT_1_M_DB: dict[str, float] = {"2.4": 40.0, "5": 47.0, "6": 49.0}
_PER_TENFOLD_DB = 35.0
_STOREY_DB = 12.0
_CHOICES: dict[Band, tuple[tuple[int, int], ...]] = {
    "2.4": ((1, 20), (6, 20), (11, 20), (1, 20), (6, 20), (3, 40)),
    "5": ((36, 80), (44, 80), (52, 80), (100, 40), (36, 20)),
    "6": ((37, 80),),
}
_SENDS_ON: dict[Band, float] = {"2.4": 1.0, "5": 0.7, "6": 0.2}
_MOST = 14
_NEAREST_M, _FARTHEST_M = 4.0, 30.0


def near_each(design: Design, site: str) -> dict[str, list[Near]]:
    """Return by device what it can hear of others: of the plan's neighbours on its storey and beside it,
    and of some homes around, always the same for one site."""
    devices = list(design.of(Device).values())
    if not devices:
        return {}
    chance = random.Random(site)
    around = _around(chance, devices)
    found = {}
    for device in devices:
        rows = [_of_plan(n, device) for n in design.of(Neighbour).values()]
        rows += [_at(near, math.dist(device.at, at)) for near, at in around]
        found[device.id] = rows
    return found


def _around(chance: random.Random, devices: Sequence[Device]) -> list[tuple[Near, Point]]:
    xs, ys = zip(*(d.at for d in devices), strict=True)
    middle = (sum(xs) / len(xs), sum(ys) / len(ys))
    reach = max(math.dist(middle, d.at) for d in devices)
    found = []
    for number in range(chance.randint(6, _MOST)):
        turn, out = chance.uniform(0, math.tau), reach + chance.uniform(_NEAREST_M, _FARTHEST_M)
        at = (middle[0] + out * math.cos(turn), middle[1] + out * math.sin(turn))
        name = _NAMES[number % len(_NAMES)]
        for band in (b for b, share in _SENDS_ON.items() if chance.random() < share):
            channel, width = chance.choice(_CHOICES[band])
            bssid = "06:" + ":".join(f"{chance.randrange(256):02x}" for _ in range(5))
            near = Near(bssid=bssid, name=name, band=band, channel=channel, width_mhz=width, dbm=0.0)
            found.append((near, at))
    return found


def _at(near: Near, far: float) -> Near:
    loss = _AT_1_M_DB[near.band] + _PER_TENFOLD_DB * math.log10(max(1.0, far))
    return near.model_copy(update={"dbm": _SENDS_DBM - loss})


def _of_plan(row: Neighbour, device: Device) -> Near:
    """Return a neighbour as loud as it was measured, and fainter the farther from there."""
    far = math.dist(row.at, device.at)
    dbm = row.level_dbm - _PER_TENFOLD_DB * math.log10(max(1.0, far / 3.0))
    if row.floor != device.floor:
        dbm -= _STOREY_DB
    mark = hashlib.sha256(f"{row.name}/{row.channel}".encode()).hexdigest()
    bssid = ":".join(["0a", *(mark[k : k + 2] for k in range(0, 10, 2))])
    more = row.model_dump(include={"name", "band", "channel", "width_mhz"})
    return Near(bssid=bssid, dbm=dbm, **more)
