"""The busiest hour: what share of the air each radio's clients take, and who gets none."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import ClassVar, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field
from shapely.geometry import Polygon

from ..base.bands import BANDS, Band
from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..base.wording import some
from ..catalogue import ClientModel
from ..context.findings import Finding, Place
from ..design import ClientGroup, Device, Space
from .channels import ChannelPlan
from .mesh import mesh_links
from .obstacles import losses_db
from .radio_environment import RadioEnvironment
from .rates import users_mbps
from .survey import room_points

Array = NDArray[np.float64]

POINTS_M = 1.0
_FAST: tuple[Band, ...] = ("6", "5")  # tried first, if heard well enough to stay


class Using(Frozen):
    """Clients of one kind in one room that one radio serves."""

    group: str
    room: str
    kind: str
    clients: float = Field(description="how many of them, those at the room's edge in part")
    mbps: float = Field(description="what they ask for together, Mb/s")
    rate_mbps: float = Field(description="what one of them would get alone, Mb/s")
    share: float = Field(description="share of the air that takes, 0 to 1 and more")


class Load(Frozen):
    """One radio in the busiest hour: shares of its air, 0 to 1 and more."""

    KEY: ClassVar = ("device", "band")

    device: str
    name: str
    floor: str
    band: Band
    channel: int
    own: float = Field(description="what its own clients take")
    relayed: float = Field(0.0, description="what its link over the air takes for all that hang on it")
    beacons: float = Field(description="what its own beacons take")
    others: float = Field(description="what radios take that it shares its channel with")
    total: float
    verdict: Literal["met", "near", "not_met"]
    using: tuple[Using, ...]

    @property
    def clients(self) -> float:
        """How many clients are on it."""
        return sum(u.clients for u in self.using)


class Starved(Frozen):
    """Clients that no radio serves, and why."""

    group: str
    room: str
    kind: str
    clients: float
    why: str


class Busy(Frozen):
    """The busiest hour: every radio, the busiest first, and who is served by none.

    Radios of all bands take part. What hangs on an access point without a cable goes through the
    air twice: to it, and over its link to its parent.
    """

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


def busy_hour(
    air: RadioEnvironment, plans: Mapping[Band, ChannelPlan], beacons: Mapping[Band, float]
) -> Busy:
    """Return the busiest hour by the brief's clients.

    A client uses 6 GHz, then 5 GHz where it hears it well enough to stay, else 2.4 GHz, else what
    it gets; an old one 2.4 GHz alone. What it asks for over what it gets alone is its share of the
    air; radios that contend share one air. What neighbours send is not known and not counted.

    Args:
        beacons: share of the air that one radio's own beacons take, by band.

    References:
        Airtime of a client: bits a second it asks for over bits a second it is sent at, over one radio.
        IEEE 802.11, one sender at a time within hearing; practice for the share that can be used.
    """
    rules = air.rules
    served = _Served()
    groups = air.design.of(ClientGroup)
    for group in groups.values():
        _serve(air, group, served)
    relayed = _relayed(air, served)
    own = {key: sum(s.share for s in rows.values()) for key, rows in served.sums.items()}
    loads = []
    for (device, band), radio in air.radios.items():
        plan = plans.get(band)
        if not radio.on or plan is None or device not in plan.channels:
            continue
        loads.append(_load(air, plan, device, own, relayed, beacons.get(band, 0.0), served))
    loads.sort(key=lambda load: -load.total)
    return Busy(
        loads=tuple(loads),
        starved=tuple(served.starved),
        clients=sum(max(0, g.count - g.wired) for g in groups.values()),
        near_share=rules["signal.busy_near_share"],
        most_share=rules["signal.busy_share"],
    )


def _relayed(air: RadioEnvironment, served: _Served) -> dict[tuple[str, Band], float]:
    """Return the share of the air that each link to a parent takes, by the radio that hangs on it:
    what its own clients ask for, and what hangs on it in turn."""
    links = {k.device: k for k in mesh_links(air) if k.parent is not None}
    if not links:
        return {}
    asks: dict[str, float] = {}
    for (device, _), rows in served.sums.items():
        asks[device] = asks.get(device, 0.0) + sum(s.mbps for s in rows.values())
    found: dict[tuple[str, Band], float] = {}
    for link in sorted(links.values(), key=lambda k: -k.hops):
        mbps = asks.get(link.device, 0.0)
        rate = link.rate_mbps * air.rules["signal.user_share"]
        found[link.device, link.band] = mbps / rate if rate > 0 else 0.0
        if link.parent is not None:
            asks[link.parent] = asks.get(link.parent, 0.0) + mbps
    return found


def _serve(air: RadioEnvironment, group: ClientGroup, served: _Served) -> None:
    """Give the clients of a group to radios, point by point of their room."""
    client = air.catalogue.clients[group.kind]
    count = max(0, group.count - group.wired)
    if not count:
        return
    space = air.design.of(Space)[group.space]
    if not client.power_dbm:
        served.starved.append(_starved(group, space, client, count, "it has no radio: it wants a wire"))
        return
    x, y = _points_of(space)
    best = _best(air, space, client, x, y)
    if group.old and "2.4" in best:
        best = {"2.4": best["2.4"]}
    asks_mbps = client.down_mbps + client.up_mbps
    stays_dbm = air.rules["signal.roam_below_dbm"]
    each, without = count / len(x), 0.0
    for k in range(len(x)):
        band = _choice(best, k, stays_dbm)
        if band is None:
            without += each
            continue
        row = served.sums.setdefault((best[band].devices[k], band), {}).setdefault(group.id, _Sum())
        row.clients += each
        row.mbps += each * asks_mbps
        row.share += each * asks_mbps / float(best[band].mbps[k])
    if without > 0:
        why = "no access point is loud enough where they are used"
        served.starved.append(_starved(group, space, client, without, why))


@dataclass(frozen=True, eq=False)
class _Best:
    """The loudest access point of a band at each point: its id, its level, what one user gets."""

    devices: list[str]
    dbm: Array
    mbps: NDArray[np.floating]


def _choice(best: Mapping[Band, _Best], k: int, stays_dbm: float) -> Band | None:
    """Return the band that a client uses at a point, or None where it gets nothing on any."""
    gets = [band for band, row in best.items() if row.mbps[k] > 0]
    fast = (band for band in _FAST if band in gets and best[band].dbm[k] >= stays_dbm)
    return next(fast, gets[0] if gets else None)  # else 2.4 GHz comes first


# Moving one access point changes what one of them gives in each room.
_points: IdentityMemo[tuple[Array, Array]] = IdentityMemo(4096)
_losses: IdentityMemo[Array] = IdentityMemo(20_000)


def _points_of(space: Space) -> tuple[Array, Array]:
    """Return where in a room its clients are thought to be."""
    return _points.get((space,), None, lambda: room_points(Polygon(space.outline), POINTS_M))


def _best(air: RadioEnvironment, space: Space, client: ClientModel, x: Array, y: Array) -> dict[Band, _Best]:
    """Return the loudest access point at each point by band, the bands that the client has."""
    losses = {
        device.id: _losses.get(
            (air.terrain, device, model, space),
            None,
            lambda d=device, m=model: losses_db(air.terrain, d, m, space.floor, x, y),  # type: ignore[misc]
        )
        for device in air.design.of(Device).values()
        if (model := air.catalogue.air_of(device)) is not None
    }
    found: dict[Band, _Best] = {}
    for row, band in enumerate(BANDS):
        devices = air.access_points(band)
        if band not in client.power_dbm or not devices:
            continue
        levels = np.array([air.lossless_dbm(d, band, "weaker", client) - losses[d.id][row] for d in devices])
        loudest = levels.max(axis=0)
        ids = [devices[int(k)].id for k in levels.argmax(axis=0)]
        found[band] = _Best(ids, loudest, users_mbps(air.rules, loudest, air.width_mhz(band)))
    return found


def _starved(group: ClientGroup, space: Space, client: ClientModel, clients: float, why: str) -> Starved:
    return Starved(group=group.id, room=space.name, kind=client.label, clients=round(clients, 1), why=why)


def _load(
    air: RadioEnvironment,
    plan: ChannelPlan,
    device: str,
    own: Mapping[tuple[str, Band], float],
    relayed: Mapping[tuple[str, Band], float],
    beacons: float,
    served: _Served,
) -> Load:
    band, rules = plan.band, air.rules
    channel = plan.channels[device]
    others = sum(
        air.channels.overlap(band, plan.width_mhz, channel, plan.channels[other])
        * (own.get((other, band), 0.0) + relayed.get((other, band), 0.0) + beacons)
        for other, _ in plan.contenders.get(device, ())
    )
    mine = own.get((device, band), 0.0)
    link = relayed.get((device, band), 0.0)
    total = mine + link + beacons + others
    verdict: Literal["met", "near", "not_met"] = "met"
    if total > rules["signal.busy_share"]:
        verdict = "not_met"
    elif total > rules["signal.busy_near_share"]:
        verdict = "near"
    groups, spaces = air.design.of(ClientGroup), air.design.of(Space)
    rows = served.sums.get((device, band), {})
    using = [
        Using(
            group=key,
            room=spaces[groups[key].space].name,
            kind=air.catalogue.clients[groups[key].kind].label,
            clients=round(row.clients, 1),
            mbps=round(row.mbps, 1),
            rate_mbps=round(row.mbps / row.share, 1) if row.share else 0.0,
            share=round(row.share, 4),
        )
        for key, row in rows.items()
    ]
    point = air.design.of(Device)[device]
    return Load(
        device=device,
        name=point.name,
        floor=point.floor,
        band=band,
        channel=channel,
        own=round(mine, 4),
        relayed=round(link, 4),
        beacons=round(beacons, 4),
        others=round(others, 4),
        total=round(total, 4),
        verdict=verdict,
        using=tuple(sorted(using, key=lambda u: -u.share)),
    )


def busy_findings(air: RadioEnvironment, busy: Busy) -> Iterator[Finding]:
    """Yield the bands on which radios have more to carry than their air holds, and those whom no
    radio serves."""
    rules, devices = air.rules, air.design.of(Device)
    paths = ("signal.busy_share", "signal.busy_near_share", "signal.user_share")
    for band in BANDS:
        loads = [load for load in busy.loads if load.band == band and load.verdict != "met"]
        if not loads:
            continue
        worst = loads[0]
        more = [load.name for load in loads[1:] if load.verdict == worst.verdict]
        text = f"In the busiest hour {worst.name} has {worst.total:.0%} of its air on {band} GHz "
        text += "to carry"
        if more:
            text += f", and {some(more)} more than {busy.near_share:.0%} as well"
        yield Finding(
            id=f"signal-busy-{band}",
            stage="signal",
            severity="not_met" if worst.verdict == "not_met" else "near",
            text=f"{text}.",
            places=tuple(
                Place(kind="device", id=d.id, floor=d.floor, at=d.at)
                for d in (devices[load.device] for load in loads)
            ),
            figure=round(100 * worst.total, 1),
            limit=round(100 * busy.most_share, 1),
            unit="% of the air",
            rule="what clients ask for in the busiest hour fits into the air",
            source=rules.source(paths[0]),
            used=rules.used(*paths),
            searches_cures=True,
        )
    if busy.starved:
        rooms = list(dict.fromkeys(s.room for s in busy.starved))
        clients = sum(s.clients for s in busy.starved)
        groups = air.design.of(ClientGroup)
        yield Finding(
            id="signal-busy-unserved",
            stage="signal",
            severity="not_met",
            text=f"{clients:g} clients get nothing over the air, in {some(rooms)}: {busy.starved[0].why}.",
            places=tuple(
                Place(kind="space", id=key, floor=air.design.of(Space)[key].floor)
                for key in dict.fromkeys(groups[s.group].space for s in busy.starved)
            ),
            figure=clients,
            unit="clients",
            rule="every client that is noted is served",
            source=rules.source(paths[2]),
            used=rules.used(paths[2]),
            searches_cures=True,
        )
