"""Findings about signal: rooms that fall short, access points badly set or badly placed."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from shapely import STRtree
from shapely.geometry import LineString, Polygon
from shapely.ops import unary_union

from ..bandplan import channels_of, no_such_channel
from ..bands import BANDS, Band
from ..design import Design, Device, Radio, Wall, WirelessName, put
from ..findings import Cure, Finding, Place
from .channels import ChannelPlan
from .levels import Air
from .rooms import MET_SHARE, RoomVerdict
from .transmit import ABOVE_CLIENT_DB

_SOURCE = "planning targets for voice and data; levels judged in the weaker direction"
_SHIELDED_SHARE = 0.6
_WALL_NEAR_M = 0.3


def signal_findings(air: Air, rooms: list[RoomVerdict]) -> Iterator[Finding]:
    """Yield the findings of the signal stage, channels apart."""
    if not any(d.kind == "access_point" for d in air.design.of(Device).values()):
        # A job may be for cable alone; it is short of something once a name is promised.
        promised = bool(air.design.of(WirelessName))
        yield Finding(
            id="signal-none",
            stage="signal",
            severity="not_met" if promised else "note",
            text="No access point is placed"
            + (", so nobody hears the wireless names that are planned." if promised else "."),
            rule="every needed room hears an access point",
            source=_SOURCE,
        )
        return
    for room in rooms:
        if room.verdict in ("near", "not_met"):
            yield _room(air, room)
        elif room.share_downlink and room.share_first is not None:
            yield from _deaf(room)
    shields = _shields(air)
    for device in air.design.of(Device).values():
        if device.kind == "access_point":
            yield from _too_loud(air, device)
            yield from _shielded(air, device, shields)


def _room(air: Air, room: RoomVerdict) -> Finding:
    binds = room.binds or "first"
    by_second = binds == "second"
    level = room.worst_second_dbm if by_second else room.worst_first_dbm
    target, unit = (room.target_second_dbm if by_second else room.target_first_dbm), "dBm"
    what = f"{'second' if by_second else 'first'} access point"
    if binds == "width":
        level, target, unit, what = room.worst_snr_db, room.target_snr_db, "dB", "signal over noise"
    heard = f"{level:g} {unit} at worst" if level is not None else "none heard at worst"
    share = room.share_second if by_second else room.share_first
    if binds in ("width", "both"):
        share = room.share
    over = f"over {MET_SHARE:.0%} of its floor"
    if (room.share or 0) >= MET_SHARE:
        text = (
            f"{room.name}: {what} {heard}, wants {target:g} {over} and has it, but only over "
            f"{room.share_margin:.0%} with {room.margin_db:g} dB in hand."
        )
    elif binds == "both":
        text = (
            f"{room.name}: first and second access point each reach {MET_SHARE:.0%} of its floor, "
            f"but not in the same places: {share:.0%} has both."
        )
    else:
        text = f"{room.name}: {what} {heard}, wants {target:g} {over}; {share:.0%} has it."
    text += f" Chance at the worst spot {room.chance:.0%}."
    if binds == "uplink":
        text += " Downlink passes: it is heard there, but does not hear the clients."
    if binds == "downlink":
        text += " Uplink passes: clients are heard there, but do not hear it."
    cures: tuple[Cure, ...] = ()
    if binds == "width":
        width = air.design.site.width_5ghz_mhz
        text += f" The noise of {width} MHz is what binds: a narrower channel has less."
        cures = _narrower(air.design)
    return Finding(
        id=f"signal-room-{room.space}",
        stage="signal",
        severity="near" if room.verdict == "near" else "not_met",
        text=text,
        places=(Place(kind="space", id=room.space, floor=room.floor, at=room.worst_at),),
        figure=level,
        limit=target,
        unit=unit,
        rule=f"{room.use}: {what} on {room.band} GHz at {target:g} {unit}, "
        f"{room.margin_db:g} dB in hand",
        source=_SOURCE,
        searches_cures=True,
        cures=cures,
    )


def _narrower(design: Design) -> tuple[Cure, ...]:
    half = {80: 40, 40: 20}.get(design.site.width_5ghz_mhz)
    if half is None:
        return ()
    site = design.site.model_copy(update={"width_5ghz_mhz": half})
    effect = "3 dB less noise everywhere, half the rate"
    return (Cure(label=f"Plan {half} MHz channels on 5 GHz", effect=effect, changes=(put(site),)),)


def _deaf(room: RoomVerdict) -> Iterator[Finding]:
    """Downlink passes throughout and uplink only just: the access point shouts."""
    gap = (room.share_downlink or 0) - (room.share_first or 0)
    if gap > 0.15:
        yield Finding(
            id=f"signal-deaf-{room.space}",
            stage="signal",
            severity="note",
            text=f"{room.name}: {gap:.0%} of its floor hears it but is not heard back.",
            places=(Place(kind="space", id=room.space, floor=room.floor, at=room.worst_at),),
            rule="judge on the client's weak transmitter",
            source=_SOURCE,
        )


def _too_loud(air: Air, device: Device) -> Iterator[Finding]:
    client = air.catalogue.clients[air.design.site.client]
    for band in BANDS:
        radio = air.radios.get((device.id, band))
        if radio is None or not radio.on or not radio.by_person:
            continue
        limit = client.power_dbm[band] + client.gain_dbi + ABOVE_CLIENT_DB
        if radio.power_dbm > limit:
            yield Finding(
                id=f"signal-loud-{device.id}-{band}",
                stage="signal",
                severity="near",
                text=(
                    f"{device.name}: {radio.power_dbm:g} dBm on {band} GHz is more than "
                    f"{ABOVE_CLIENT_DB:g} dB above the clients. They hear it and are not heard."
                ),
                places=(Place(kind="device", id=device.id, floor=device.floor, at=device.at),),
                figure=radio.power_dbm,
                limit=limit,
                unit="dBm",
                rule="no more than 3 dB above the clients it serves",
                source=_SOURCE,
            )


def _shields(air: Air) -> dict[str, STRtree]:
    """Return by floor the walls that shield."""
    lines: dict[str, list[LineString]] = {}
    for wall in air.design.of(Wall).values():
        if air.catalogue.constructions[wall.construction].shields:
            lines.setdefault(wall.floor, []).append(LineString([wall.a, wall.b]))
    return {floor: STRtree(rows) for floor, rows in lines.items()}


def _shielded(air: Air, device: Device, shields: Mapping[str, STRtree]) -> Iterator[Finding]:
    if device.floor not in shields:
        return
    space = air.terrain.storeys.room_at(device.floor, device.at)
    if space is None:
        return
    ring = Polygon(space.outline).exterior
    beside = ring.buffer(_WALL_NEAR_M)
    tree = shields[device.floor]
    near = unary_union([tree.geometries[k] for k in tree.query(beside, predicate="intersects")])
    shielded_m = near.intersection(beside).length
    if shielded_m / ring.length >= _SHIELDED_SHARE:
        yield Finding(
            id=f"signal-shielded-{device.id}",
            stage="signal",
            severity="not_met",
            text=(
                f"{device.name} stands in {space.name}, which concrete or metal encloses: "
                "it serves that room and shields all others."
            ),
            places=(Place(kind="device", id=device.id, floor=device.floor, at=device.at),),
            figure=round(100 * shielded_m / ring.length),
            limit=round(100 * _SHIELDED_SHARE),
            unit="% of its walls",
            rule="not inside a room of concrete or metal",
            source="practice; losses after ITU-R P.2040",
        )


def channel_findings(air: Air, plans: Mapping[Band, ChannelPlan]) -> Iterator[Finding]:
    """Yield the pairs that share air, with a cure where a person's choice is to blame."""
    yield from _illegal(air)
    names = {d.id: d for d in air.design.of(Device).values()}
    for band, plan in plans.items():
        if plan.cost_db <= 0:
            continue
        pairs = {
            tuple(sorted((one, other))): level
            for one, rows in plan.contenders.items()
            for other, level in rows
        }
        (one, other), loudest = max(pairs.items(), key=lambda row: row[1])
        proof = "proven the least there is" if plan.proven else f"at least {plan.bound_db:.0f} dB"
        proof = "a better plan is being looked for" if plan.searching else proof
        first, second = names[one], names[other]
        yield Finding(
            id=f"signal-channel-{band}",
            stage="signal",
            severity="note" if band == "2.4" else "near",
            text=(
                f"{band} GHz: {len(pairs)} pairs of access points share air, {first.name} and "
                f"{second.name} at {loudest:.0f} dBm most; {proof}."
            ),
            places=tuple(
                Place(kind="device", id=d.id, floor=d.floor, at=d.at) for d in (first, second)
            ),
            figure=loudest,
            limit=-82,
            unit="dBm",
            rule="two radios on one channel contend when they hear each other at -82 dBm",
            source="IEEE 802.11 clear-channel assessment",
            cures=_free_channels(air.design, band),
        )


def _illegal(air: Air) -> Iterator[Finding]:
    """Channels that an older project or another domain has left behind; the plan ignores them."""
    site, devices = air.design.site, air.design.of(Device)
    for radio in air.design.of(Radio).values():
        legal = channels_of(radio.band, site.domain, site.channels_149_up)
        if radio.channel is None or radio.channel in legal:
            continue
        device = devices[radio.device]
        freed = put(radio.model_copy(update={"channel": None}))
        yield Finding(
            id=f"signal-illegal-{radio.id}",
            stage="signal",
            severity="not_met",
            text=f"{device.name}: {no_such_channel(radio.band, radio.channel, site.domain, legal)} "
            "The plan chooses one instead.",
            places=(Place(kind="device", id=device.id, floor=device.floor, at=device.at),),
            rule="a channel that the band and the domain have",
            source="IEEE 802.11; national rules, to be checked",
            cures=(Cure(label="Let the plan choose its channel", changes=(freed,)),),
        )


def _free_channels(design: Design, band: Band) -> tuple[Cure, ...]:
    held = [r for r in design.of(Radio).values() if r.band == band and r.channel is not None]
    if not held:
        return ()
    freed = tuple(put(r.model_copy(update={"channel": None})) for r in held)
    return (Cure(label="Let the plan choose these channels", changes=freed),)
