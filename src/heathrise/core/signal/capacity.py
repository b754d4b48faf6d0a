"""The busiest hour: what share of the air each radio's clients take, and who gets none."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import ClassVar, Literal

import numpy as np
from pydantic import BaseModel, ConfigDict, Field
from shapely.geometry import Polygon

from ..bands import BANDS, Band
from ..catalogue import ClientModel
from ..design import ClientGroup, Device, Space
from .channels import ChannelPlan
from .levels import Air
from .rates import user_mbps
from .survey import room_points
from .terrain import losses_db

POINTS_M = 1.0


class Using(BaseModel):
    """Clients of one kind in one room that one radio serves."""

    model_config = ConfigDict(frozen=True)

    group: str
    room: str
    kind: str
    clients: float = Field(description="how many of them, those at the room's edge in part")
    mbps: float = Field(description="what they ask for together, Mb/s")
    rate_mbps: float = Field(description="what one of them would get alone, Mb/s")
    share: float = Field(description="share of the air that takes, 0 to 1 and more")


class Load(BaseModel):
    """One radio in the busiest hour: shares of its air, 0 to 1 and more."""

    model_config = ConfigDict(frozen=True)
    KEY: ClassVar = ("device", "band")

    device: str
    name: str
    floor: str
    band: Band
    channel: int
    own: float = Field(description="what its own clients take")
    beacons: float = Field(description="what its own beacons take")
    others: float = Field(description="what radios take that it shares its channel with")
    total: float
    verdict: Literal["met", "near", "not_met"]
    using: tuple[Using, ...]


class Starved(BaseModel):
    """Clients that no radio serves, and why."""

    model_config = ConfigDict(frozen=True)

    group: str
    room: str
    kind: str
    clients: float
    why: str


class Busy(BaseModel):
    """The busiest hour: every radio, the busiest first, and who is served by none."""

    model_config = ConfigDict(frozen=True)

    loads: tuple[Load, ...]
    starved: tuple[Starved, ...]
    clients: int = Field(description="clients that are used over the air")
    near_share: float
    most_share: float

    @property
    def worst(self) -> float:
        return max((load.total for load in self.loads), default=0.0)


@dataclass
class _Sum:
    clients: float = 0.0
    mbps: float = 0.0
    share: float = 0.0


@dataclass
class _Served:
    """What is gathered by radio and group."""

    sums: dict[tuple[str, Band], dict[str, _Sum]] = field(default_factory=dict)
    starved: list[Starved] = field(default_factory=list)


def busy_hour(air: Air, plans: Mapping[Band, ChannelPlan], beacons: Mapping[Band, float]) -> Busy:
    """Return the busiest hour by the brief's clients.

    A client uses 5 GHz where it hears it well enough to stay, else 2.4 GHz, else 5 GHz as far as
    it goes. What it asks for over what it gets alone is its share of the air; radios that contend
    share one air. What neighbours send is not known and not counted.

    Args:
        beacons: share of the air that one radio's own beacons take, by band.
    """
    rules = air.rules
    served = _Served()
    groups = air.design.of(ClientGroup)
    for group in groups.values():
        _serve(air, group, served)
    own = {key: sum(s.share for s in rows.values()) for key, rows in served.sums.items()}
    loads = []
    for (device, band), radio in air.radios.items():
        plan = plans.get(band)
        if not radio.on or plan is None or device not in plan.channels:
            continue
        loads.append(_load(air, plan, device, own, beacons.get(band, 0.0), served))
    loads.sort(key=lambda load: -load.total)
    return Busy(
        loads=tuple(loads), starved=tuple(served.starved),
        clients=sum(max(0, g.count - g.wired) for g in groups.values()),
        near_share=rules["signal.busy_near_share"], most_share=rules["signal.busy_share"],
    )  # fmt: skip


def _serve(air: Air, group: ClientGroup, served: _Served) -> None:
    """Give the clients of a group to radios, point by point of their room."""
    client = air.catalogue.clients[group.kind]
    count = max(0, group.count - group.wired)
    if not count:
        return
    space = air.design.of(Space)[group.space]
    if not client.power_dbm:
        served.starved.append(
            _starved(group, space, client, count, "it has no radio: it wants a wire")
        )
        return
    x, y = room_points(Polygon(space.outline), POINTS_M)
    best = {b: _best(air, space, client, b, x, y) for b in BANDS[:2] if b in client.power_dbm}
    stays_dbm = air.rules["signal.roam_below_dbm"]
    each, without = count / len(x), 0.0
    for k in range(len(x)):
        band, rate = _choice(air, best, k, stays_dbm)
        if band is None:
            without += each
            continue
        device = best[band][0][int(best[band][1][k])]
        row = served.sums.setdefault((device.id, band), {}).setdefault(group.id, _Sum())
        row.clients += each
        row.mbps += each * (client.down_mbps + client.up_mbps)
        row.share += each * (client.down_mbps + client.up_mbps) / rate
    if without > 0:
        why = "no access point is loud enough where they are used"
        served.starved.append(_starved(group, space, client, without, why))


def _choice(
    air: Air, best: Mapping[Band, tuple[list[Device], np.ndarray, np.ndarray]], k: int,
    stays_dbm: float,
) -> tuple[Band | None, float]:  # fmt: skip
    """Return the band that a client uses at a point, and what it gets there alone in Mb/s."""
    rates = {
        band: user_mbps(air.rules, float(levels[k]), air.width_mhz(band))
        for band, (_, _, levels) in best.items()
    }
    if "5" in best and best["5"][2][k] >= stays_dbm and rates["5"] > 0:
        return "5", rates["5"]
    for band in BANDS[:2]:
        if rates.get(band, 0.0) > 0:
            return band, rates[band]
    return None, 0.0


def _best(
    air: Air, space: Space, client: ClientModel, band: Band, x: np.ndarray, y: np.ndarray
) -> tuple[list[Device], np.ndarray, np.ndarray]:
    """Return the access points of a band, which of them is loudest at each point, and how loud."""
    devices = air.access_points(band)
    levels = np.full((len(devices) + 1, len(x)), -200.0)
    for row, device in zip(levels, devices, strict=False):
        loss = losses_db(air.terrain, device, air.catalogue.airs[device.model], space.floor, x, y)
        row[:] = air.lossless_dbm(device, band, "weaker", client) - loss[BANDS.index(band)]
    return devices, levels.argmax(axis=0), levels.max(axis=0)


def _starved(
    group: ClientGroup, space: Space, client: ClientModel, clients: float, why: str
) -> Starved:
    return Starved(
        group=group.id, room=space.name, kind=client.label, clients=round(clients, 1), why=why
    )


def _load(
    air: Air, plan: ChannelPlan, device: str, own: Mapping[tuple[str, Band], float],
    beacons: float, served: _Served,
) -> Load:  # fmt: skip
    band, rules = plan.band, air.rules
    channel = plan.channels[device]
    others = sum(
        air.channels.overlap(band, plan.width_mhz, channel, plan.channels[other])
        * (own.get((other, band), 0.0) + beacons)
        for other, _ in plan.contenders.get(device, ())
    )
    mine = own.get((device, band), 0.0)
    total = mine + beacons + others
    verdict: Literal["met", "near", "not_met"] = "met"
    if total > rules["signal.busy_share"]:
        verdict = "not_met"
    elif total > rules["signal.busy_near_share"]:
        verdict = "near"
    groups, spaces = air.design.of(ClientGroup), air.design.of(Space)
    rows = served.sums.get((device, band), {})
    using = [
        Using(
            group=key, room=spaces[groups[key].space].name,
            kind=air.catalogue.clients[groups[key].kind].label, clients=round(row.clients, 1),
            mbps=round(row.mbps, 1), rate_mbps=round(row.mbps / row.share, 1) if row.share else 0.0,
            share=round(row.share, 4),
        )
        for key, row in rows.items()
    ]  # fmt: skip
    point = air.design.of(Device)[device]
    return Load(
        device=device, name=point.name, floor=point.floor, band=band, channel=channel,
        own=round(mine, 4), beacons=round(beacons, 4), others=round(others, 4),
        total=round(total, 4), verdict=verdict,
        using=tuple(sorted(using, key=lambda u: -u.share)),
    )  # fmt: skip
