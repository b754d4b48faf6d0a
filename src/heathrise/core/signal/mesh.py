"""Back-haul over the air: who hangs on whom, over how many hops, and what a user gets of it."""

from __future__ import annotations

import itertools
from collections import Counter
from collections.abc import Collection, Iterator
from dataclasses import dataclass, replace
from typing import Any, ClassVar, Literal

import numpy as np
from pydantic import Field

from ..base.bands import Band
from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..catalogue import Catalogue
from ..context.findings import Finding, Place
from ..context.run_decisions import said_over_air
from ..design import Design, Device
from .hearing import hearing_dbm
from .radio_environment import RadioEnvironment
from .rates import user_mbps, users_mbps
from .rooms import target_of
from .transmit import overrides

MOST_HOPS = 2
BAND: Band = "5"
_SHARE = "signal.user_share"


class MeshLink(Frozen):
    """One access point without a cable: its way to one that has one, and what a user gets there.

    ``user_mbps`` is the user's own end to end where back-haul and users share one radio,
    ``kept_mbps`` where a radio is kept for the back-haul; ``shared_mbps`` if all on the branch ask
    at once. ``repeater`` says that it repeats what it hears, on the band that it has.
    """

    KEY: ClassVar = ("device",)

    device: str
    name: str
    parent: str | None
    parent_name: str | None
    path: tuple[str, ...] = Field(description="names from it to the wired one")
    hops: int
    band: Band
    level_dbm: float | None = Field(description="what it and its parent hear of each other, dBm")
    rate_mbps: float = Field(description="rate of the link to its parent, Mb/s")
    user_mbps: float
    kept_mbps: float
    shared_mbps: float
    on_branch: int = Field(description="access points without a cable on the same wired one")
    second: str | None = Field(None, description="another parent near enough in level")
    second_name: str | None = None
    second_mbps: float = Field(0.0, description="what a user gets once the parent is gone")
    wired_mbps: float = Field(0.0, description="what a user would get with a cable")
    direct_mbps: float = Field(
        description="what a user beside it would get from the wired ones themselves, without it"
    )
    repeater: bool = False


def over_the_air(design: Design, catalogue: Catalogue) -> set[str]:
    """Return the access points whose link is the air."""
    said = said_over_air(design)
    return {
        d.id
        for d in design.of(Device).values()
        if d.model in catalogue.airs and (d.id in said or catalogue.model_of(d).over_air)
    }


def connected(air: RadioEnvironment) -> RadioEnvironment:
    """Return the air with what leads to no cable silent: a client hears it and gets nothing."""
    orphans: set[str] = set()
    for _, net, mine in _nets(air):
        leading = {net.devices[k].id for k in _ways(net)}
        orphans |= {d.id for d in net.devices if d.id in mine} - leading
    gone = frozenset(orphans)
    return replace(air.without(gone), cut_off=air.cut_off | gone) if gone else air


def _orphan(air: RadioEnvironment, device: Device) -> MeshLink:
    band: Band = BAND if (device.id, BAND) in air.radios else "2.4"
    return MeshLink(
        device=device.id,
        name=device.name,
        band=band,
        parent=None,
        parent_name=None,
        path=(device.name,),
        hops=0,
        level_dbm=None,
        rate_mbps=0,
        user_mbps=0,
        kept_mbps=0,
        shared_mbps=0,
        on_branch=0,
        wired_mbps=round(_at_target(air, band) * air.rules[_SHARE], 1),
        direct_mbps=0,
        repeater=air.catalogue.model_of(device).over_air,
    )


def _at_target(air: RadioEnvironment, band: Band) -> float:
    """Return the rate of a user at the level that calls ask for, Mb/s."""
    call = target_of(air.rules, "calls")
    assert call is not None  # calls are judged by levels that a firm changes, never by none
    return user_mbps(air.rules, call.first_dbm, air.width_mhz(band)) / air.rules[_SHARE]


@dataclass(frozen=True)
class _Net:
    """Access points of one band, how they hear each other, and what each link carries."""

    devices: list[Device]
    heard_dbm: np.ndarray
    mbps: np.ndarray
    wired: frozenset[int]


_kept_links: IdentityMemo[list[MeshLink]] = IdentityMemo(8)


def mesh_links(air: RadioEnvironment) -> list[MeshLink]:
    """Return each access point without a cable with its back-haul, in order of placing.

    References:
        A relay on one radio sends each bit twice: what a user gets over links r1, r2 is 1 / (1/r1 + 1/r2).
    """
    return _kept_links.get((air,), None, lambda: _found_links(air))


def _found_links(air: RadioEnvironment) -> list[MeshLink]:
    devices = air.design.of(Device)
    found = {d: _orphan(air, devices[d]) for d in air.cut_off}
    for band, net, mine in _nets(air):
        found |= {k.device: k for k in _links(air, band, net, mine)}
    return [found[d] for d in devices if d in found]


def _nets(air: RadioEnvironment) -> Iterator[tuple[Band, _Net, set[str]]]:
    """Yield each band over which somebody hangs on the air, with those who do."""
    loose = over_the_air(air.design, air.catalogue) - air.cut_off
    on_5 = {d.id for d in air.access_points(BAND)}
    split: tuple[tuple[Band, set[str]], ...] = ((BAND, loose & on_5), ("2.4", loose - on_5))
    for band, mine in split:
        if mine:
            yield band, _net(air, band, loose), mine


def _net(air: RadioEnvironment, band: Band, loose: Collection[str]) -> _Net:
    devices = air.access_points(band)
    heard = hearing_dbm(air, band)
    share = air.rules["signal.user_share"]
    mbps = users_mbps(air.rules, heard, air.width_mhz(band)) / share
    wired = frozenset(k for k, d in enumerate(devices) if d.id not in loose)
    return _Net(devices, heard, mbps, wired)


def _ways(net: _Net, gone: int | None = None) -> dict[int, tuple[int, ...]]:
    """Return by access point the way to a wired one that carries most, itself first."""
    ways: dict[int, tuple[int, ...]] = {k: (k,) for k in net.wired if k != gone}
    for _ in range(MOST_HOPS):
        longer = dict(ways)
        for k in range(len(net.devices)):
            if k in net.wired or k == gone:
                continue
            for parent, way in ways.items():
                if k in way or len(way) > MOST_HOPS or net.mbps[k, parent] <= 0:
                    continue
                if k not in longer or _carries(net, (k, *way)) > _carries(net, longer[k]) + 1e-9:
                    longer[k] = (k, *way)
        ways = longer
    return {k: way for k, way in ways.items() if k not in net.wired}


def _carries(net: _Net, way: tuple[int, ...]) -> float:
    """Return what a way carries where all its hops share one radio, Mb/s."""
    inverse = sum(1 / net.mbps[a, b] for a, b in itertools.pairwise(way))
    return float("inf") if inverse == 0 else float(1 / inverse)


def _links(air: RadioEnvironment, band: Band, net: _Net, mine: Collection[str]) -> Iterator[MeshLink]:
    share, at_target = air.rules[_SHARE], _at_target(air, band)
    ways = _ways(net)
    branches = Counter(way[-1] for way in ways.values())
    for k, device in enumerate(net.devices):
        if device.id not in mine:
            continue
        repeater = air.catalogue.model_of(device).over_air
        way = ways.get(k, ())
        common: dict[str, Any] = {
            "device": device.id,
            "name": device.name,
            "band": band,
            "repeater": repeater,
        }
        if not way:
            yield _orphan(air, device)
            continue
        parent = way[1]
        user = _user_mbps(net, way, share, at_target)
        kept = share * min(at_target, *(net.mbps[a, b] for a, b in itertools.pairwise(way)))
        second, second_mbps = _second(air, net, k, parent, at_target)
        on_branch = branches[way[-1]]
        yield MeshLink(
            **common,
            parent=net.devices[parent].id,
            parent_name=net.devices[parent].name,
            path=tuple(net.devices[j].name for j in way),
            hops=len(way) - 1,
            level_dbm=round(float(net.heard_dbm[k, parent]), 1),
            rate_mbps=round(float(net.mbps[k, parent]), 1),
            user_mbps=round(user, 1),
            kept_mbps=round(kept, 1),
            shared_mbps=round(user / on_branch, 1),
            on_branch=on_branch,
            second=net.devices[second].id if second is not None else None,
            second_name=net.devices[second].name if second is not None else None,
            second_mbps=round(second_mbps, 1),
            wired_mbps=round(at_target * share, 1),
            direct_mbps=_direct(air, net, band, k),
        )


def _user_mbps(net: _Net, way: tuple[int, ...], share: float, at_target: float) -> float:
    """Return what a user's own end to end is over a way whose hops and users share one radio, Mb/s."""
    return share / (1 / _carries(net, way) + 1 / at_target)


def shared_by_cable(air: RadioEnvironment) -> tuple[float, dict[str, float]]:
    """Return what all access points over the air get together if all ask at once, Mb/s, and what they would
    if one of them, by its id, had a cable. Those that lead nowhere, and repeaters, are not asked for."""
    share, models = air.rules[_SHARE], air.catalogue.model_of
    nets = [(net, mine, _at_target(air, band)) for band, net, mine in _nets(air)]

    def together(wired: str | None) -> float:
        return sum(_together(net, mine, wired, share, target) for net, mine, target in nets)

    asking = [
        net.devices[k]
        for net, mine, _ in nets
        for k in _ways(net)
        if net.devices[k].id in mine and not models(net.devices[k]).over_air
    ]
    return together(None), {d.id: together(d.id) for d in asking}


def _together(net: _Net, mine: Collection[str], wired: str | None, share: float, at_target: float) -> float:
    """Return what those of a band get together, one of them with a cable where that is said."""
    cabled = frozenset(k for k, d in enumerate(net.devices) if d.id == wired)
    ways = _ways(replace(net, wired=net.wired | cabled))
    branches = Counter(way[-1] for way in ways.values())
    shared = (
        round(_user_mbps(net, way, share, at_target) / branches[way[-1]], 1)
        for k, way in ways.items()
        if net.devices[k].id in mine
    )
    return sum(shared) + (round(at_target * share, 1) if wired in mine else 0.0)


def _direct(air: RadioEnvironment, net: _Net, band: Band, k: int) -> float:
    """Return what a client at an access point's own place gets from the best wired one."""
    own, client = air.radios[net.devices[k].id, band], air.client
    best = 0.0
    for other in net.wired:
        radio = air.radios[net.devices[other].id, band]
        loss_db = max(own.power_dbm, radio.power_dbm) + own.gain_dbi + radio.gain_dbi
        loss_db -= float(net.heard_dbm[k, other])
        level = min(radio.power_dbm, client.power_dbm[band]) + radio.gain_dbi + client.gain_dbi
        best = max(best, user_mbps(air.rules, level - loss_db, air.width_mhz(band)))
    return round(best, 1)


def rates_over_air(air: RadioEnvironment) -> tuple[list[Device], np.ndarray]:
    """Return the access points, and what a user at each would get if another were its only one
    with a cable: shape (n, n), Mb/s, by the row's way of at most two hops to the column's.

    References:
        Times of a bit over hops on one radio add up: 1 / (1/r1 + 1/r2), Mb/s.
    """
    net = _net(air, BAND, ())
    share, at_target = air.rules[_SHARE], _at_target(air, BAND)
    with np.errstate(divide="ignore"):
        inverse = np.where(net.mbps > 0, 1 / net.mbps, np.inf)
    np.fill_diagonal(inverse, 0.0)
    best = inverse.copy()
    for between in range(len(net.devices)):
        best = np.minimum(best, inverse[:, between, None] + inverse[None, between, :])
    return net.devices, share / (best + 1 / at_target)


def _second(
    air: RadioEnvironment, net: _Net, k: int, parent: int, at_target: float
) -> tuple[int | None, float]:
    """Return the parent it would take if its own were gone: of all that are near enough in level
    and lead to a cable the one over which a user gets most, and what that is."""
    ways = _ways(net, gone=parent)
    ways |= {w: (w,) for w in net.wired if w != parent}
    least_db = net.heard_dbm[k, parent] - air.rules["signal.mesh_second_db"]
    best, most = None, 0.0
    for other, way in ways.items():
        near = net.heard_dbm[k, other] >= least_db and net.mbps[k, other] > 0
        if other == k or k in way or len(way) > MOST_HOPS or not near:
            continue
        whole = _user_mbps(net, (k, *way), air.rules["signal.user_share"], at_target)
        if whole > most + 1e-9:
            best, most = other, float(whole)
    return best, most


def _split(air: RadioEnvironment, link: MeshLink) -> bool:
    """Whether a person has set a link's two ends to different channels, so that it cannot stand."""
    said = overrides(air.design)
    ends = [said.get((d, link.band)) for d in (link.device, link.parent) if d is not None]
    set_to = {r.channel for r in ends if r is not None and r.channel is not None}
    return len(set_to) > 1


def mesh_findings(air: RadioEnvironment) -> Iterator[Finding]:
    """Yield what is wrong with the back-haul over the air."""
    devices, rules = air.design.of(Device), air.rules
    for link in mesh_links(air):
        device = devices[link.device]
        severity: Literal["not_met", "near", "note"] = "note"
        least = rules["signal.mesh_least_mbps"]
        if link.parent is None:
            severity = "not_met"
            text = f"{link.name} has no cable, and hears no access point that leads to one: it is "
            text += "counted as silent."
        elif _split(air, link):
            severity = "not_met"
            text = f"{link.name} hangs on {link.parent_name} over the air, and the two are set to "
            text += "different channels: one radio carries both, so they share one."
        elif link.repeater and link.direct_mbps >= link.user_mbps:
            severity = "near"
            text = (
                f"{link.name} repeats what it hears: beside it a user gets {link.user_mbps:.0f} "
                f"Mb/s through it and {link.direct_mbps:.0f} without it."
            )
        elif link.user_mbps < least:
            severity = "near"
            text = (
                f"{link.name} over {' and '.join(link.path[1:])}: a user gets {link.user_mbps:.0f} "
                f"Mb/s of the {link.wired_mbps:.0f} that a cable would give."
            )
        elif link.second is None:
            text = f"{link.name} has no second parent: without {link.parent_name} it is cut off."
        else:
            continue
        yield Finding(
            id=f"signal-mesh-{link.device}",
            stage="signal",
            severity=severity,
            text=text,
            places=(Place(kind="device", id=device.id, floor=device.floor, at=device.at),),
            figure=link.user_mbps,
            limit=least,
            unit="Mb/s",
            rule=f"at most {MOST_HOPS} hops, {least:g} Mb/s for a user, a second parent within "
            f"{rules['signal.mesh_second_db']:g} dB",
            source=rules.source("signal.mesh_least_mbps"),
            used=rules.used("signal.mesh_least_mbps", "signal.mesh_second_db", "signal.user_share"),
        )
