"""Findings about signal: rooms that fall short, access points badly set or badly placed."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Any

from shapely import STRtree

from ..base.bands import BANDS, Band
from ..context.findings import Cure, Finding, Place
from ..context.run_decisions import said_over_air
from ..design import Design, Device, Radio, Space, WirelessName, put
from .channels import ChannelPlan
from .enclosing import share_walled, walls_that
from .hearing import hearing_dbm
from .radio_environment import RadioEnvironment
from .rooms import RoomVerdict, target_figures
from .transmit import nearest_step, overrides


def signal_findings(air: RadioEnvironment, rooms: list[RoomVerdict]) -> Iterator[Finding]:
    """Yield the findings of the signal stage, channels apart."""
    if not air.radios:
        # A job may be for cable alone; it is short of something once a name is promised.
        promised = bool(air.design.of(WirelessName))
        yield Finding(
            id="signal-none",
            stage="signal",
            severity="not_met" if promised else "note",
            text="No access point is placed"
            + (", so nobody hears the wireless names that are planned." if promised else "."),
            rule="every needed room hears an access point",
            source=air.rules.source("signal.met_share"),
            searches_cures=any(s.use != "none" for s in air.design.of(Space).values()),
        )
        return
    for room in rooms:
        if room.verdict in ("near", "not_met"):
            yield _room(air, room)
        if room.share_downlink and room.share_first is not None:
            yield from _deaf(air, room)
    shields = walls_that(air.design, air.catalogue, lambda c: c.shields)
    for device in air.design.of(Device).values():
        if device.model in air.catalogue.airs:
            yield from _too_loud(air, device)
            yield from _shielded(air, device, shields)


def _room(air: RadioEnvironment, room: RoomVerdict) -> Finding:
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
    enough = air.rules["signal.met_share"]
    figures = target_figures(air.rules, room.use)
    over = f"over {enough:.0%} of its floor"
    if (room.share or 0) >= enough:
        text = (
            f"{room.name}: {what} {heard}, wants {target:g} {over} and has it, but only over "
            f"{room.share_margin:.0%} with {room.margin_db:g} dB in hand."
        )
    elif binds == "both":
        text = (
            f"{room.name}: first and second access point each reach {enough:.0%} of its floor, "
            f"but not in the same places: {share:.0%} has both."
        )
    else:
        text = f"{room.name}: {what} {heard}, wants {target:g} {over}; {share:.0%} has it."
    text += f" Chance at the worst spot {room.chance:.0%}."
    if room.client != air.client.label:
        text += f" Judged by the weakest there: {room.client}, {room.client_dbm:g} dBm."
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
        rule=f"{room.use}: {what} on {room.band} GHz at {target:g} {unit}, {room.margin_db:g} dB in hand",
        source=air.rules.source(figures[0]),
        used=air.rules.used(*figures, "signal.met_share"),
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


def _deaf(air: RadioEnvironment, room: RoomVerdict) -> Iterator[Finding]:
    """Downlink passes throughout and uplink only just: the access point shouts."""
    gap = (room.share_downlink or 0) - (room.share_first or 0)
    least = "signal.uplink_gap_share"
    if gap > air.rules[least]:
        yield Finding(
            id=f"signal-deaf-{room.space}",
            stage="signal",
            severity="note",
            text=f"{room.name}: {gap:.0%} of its floor hears it but is not heard back.",
            places=(Place(kind="space", id=room.space, floor=room.floor, at=room.worst_at),),
            rule="judge on the client's weak transmitter",
            source=air.rules.source("signal.targets.calls.first_dbm"),
            used=air.rules.used(least),
        )


def _too_loud(air: RadioEnvironment, device: Device) -> Iterator[Finding]:
    client = air.catalogue.clients[air.design.site.client]
    above_db = air.rules["signal.above_client_db"]
    for band in BANDS:
        radio = air.radios.get((device.id, band))
        if radio is None or not radio.on or not radio.by_person:
            continue
        limit = client.power_dbm[band] + client.gain_dbi + above_db
        if radio.power_dbm > limit:
            yield Finding(
                id=f"signal-loud-{device.id}-{band}",
                stage="signal",
                severity="near",
                text=(
                    f"{device.name}: {radio.power_dbm:g} dBm on {band} GHz is more than "
                    f"{above_db:g} dB above the clients. They hear it and are not heard."
                ),
                places=(Place(kind="device", id=device.id, floor=device.floor, at=device.at),),
                figure=radio.power_dbm,
                limit=limit,
                unit="dBm",
                rule=f"no more than {above_db:g} dB above the clients it serves",
                source=air.rules.source("signal.above_client_db"),
                used=air.rules.used("signal.above_client_db"),
            )


def _shielded(air: RadioEnvironment, device: Device, shields: dict[str, STRtree]) -> Iterator[Finding]:
    if device.floor not in shields:
        return
    space = air.terrain.storeys.room_at(device.floor, device.at)
    if space is None:
        return
    share = share_walled(space, shields)
    if share >= air.rules["signal.shielded_share"]:
        yield Finding(
            id=f"signal-shielded-{device.id}",
            stage="signal",
            severity="not_met",
            text=(
                f"{device.name} stands in {space.name}, which concrete or metal encloses: "
                "it serves that room and shields all others."
            ),
            places=(Place(kind="device", id=device.id, floor=device.floor, at=device.at),),
            figure=round(100 * share),
            limit=round(100 * air.rules["signal.shielded_share"]),
            unit="% of its walls",
            rule="not inside a room of concrete or metal",
            source=air.rules.source("signal.shielded_share"),
            used=air.rules.used("signal.shielded_share"),
        )


def channel_findings(air: RadioEnvironment, plans: Mapping[Band, ChannelPlan]) -> Iterator[Finding]:
    """Yield the pairs that share air, with a cure where a person's choice is to blame."""
    yield from _illegal(air)
    yield from _over_the_cap(air)
    for plan in plans.values():
        if plan.cost_db > 0:
            yield from _sharing(air, plan)
            yield from _beside_neighbours(air, plan)


def _proof(plan: ChannelPlan) -> str:
    if plan.searching:
        return "a better plan is being looked for"
    return "proven the least there is" if plan.proven else f"at least {plan.bound_db:.0f} dB"


def _sharing(air: RadioEnvironment, plan: ChannelPlan) -> Iterator[Finding]:
    """Radios of the site that share air with each other."""
    pairs = {
        tuple(sorted((one, other))): level for one, rows in plan.contenders.items() for other, level in rows
    }
    if not pairs:
        return
    (one, other), loudest = max(pairs.items(), key=lambda row: row[1])
    devices, band = air.design.of(Device), plan.band
    first, second = devices[one], devices[other]
    yield Finding(
        id=f"signal-channel-{band}",
        text=(
            f"{band} GHz: {len(pairs)} pairs of access points share air, {first.name} and "
            f"{second.name} at {loudest:.0f} dBm most; {_proof(plan)}."
        ),
        figure=loudest,
        **_contention(air, plan, (first, second)),
        cures=(*_free_channels(air.design, band), *_as_the_clients(air, plan)),
    )


def _beside_neighbours(air: RadioEnvironment, plan: ChannelPlan) -> Iterator[Finding]:
    """Radios of the site that share air with a network that was measured beside it."""
    if not plan.neighbours:
        return
    worst, loudest = max(plan.neighbours.items(), key=lambda row: row[1])
    device, band = air.design.of(Device)[worst], plan.band
    many = len(plan.neighbours)
    yield Finding(
        id=f"signal-neighbour-{band}",
        text=(
            f"{band} GHz: {many} of {len(plan.channels)} access points "
            f"{'share' if many > 1 else 'shares'} air with measured neighbours, {device.name} "
            f"at {loudest:.0f} dBm most; {_proof(plan)}."
        ),
        figure=round(loudest, 1),
        **_contention(air, plan, (device,)),
        cures=_free_channels(air.design, band),
    )


def _contention(air: RadioEnvironment, plan: ChannelPlan, devices: Sequence[Device]) -> dict[str, Any]:
    """Return the fields that findings of shared air have in common."""
    contend_dbm = air.rules["signal.contend_dbm"]
    return {
        "stage": "signal",
        "severity": "note" if plan.band == "2.4" else "near",
        "places": tuple(Place(kind="device", id=d.id, floor=d.floor, at=d.at) for d in devices),
        "limit": contend_dbm,
        "unit": "dBm",
        "rule": f"two radios on one channel contend when they hear each other at {contend_dbm:g} dBm",
        "source": air.rules.source("signal.contend_dbm"),
        "used": air.rules.used("signal.contend_dbm"),
        "searches_cures": not plan.proven and not plan.searching,
    }


def _illegal(air: RadioEnvironment) -> Iterator[Finding]:
    """Channels that an older project or another domain has left behind; the plan ignores them."""
    plan, devices = air.channels, air.design.of(Device)
    for radio in air.design.of(Radio).values():
        if radio.channel is None or radio.channel in plan.legal[radio.band]:
            continue
        device = devices[radio.device]
        freed = put(radio.model_copy(update={"channel": None}))
        yield Finding(
            id=f"signal-illegal-{radio.id}",
            stage="signal",
            severity="not_met",
            text=f"{device.name}: {plan.refusal(radio.band, radio.channel)} The plan chooses one instead.",
            places=(Place(kind="device", id=device.id, floor=device.floor, at=device.at),),
            rule="a channel that the band and the domain have",
            source=air.rules.source(f"bands.channels.{plan.domain}.{radio.band}"),
            cures=(Cure(label="Let the plan choose its channel", changes=(freed,)),),
        )


def _over_the_cap(air: RadioEnvironment) -> Iterator[Finding]:
    """Radios of which the lowest step and the antenna together are louder than is allowed."""
    said, devices = overrides(air.design), air.design.of(Device)
    for (key, band), radio in air.radios.items():
        if not radio.on or radio.eirp_dbm <= radio.cap_dbm + 1e-6:
            continue
        device = devices[key]
        own = Radio(id=f"rad-{key}-{band}"[:40], device=key, band=band)
        off = put(said.get((key, band), own).model_copy(update={"on": False}))
        path = f"bands.eirp_dbm.{air.channels.domain}.{band}"
        yield Finding(
            id=f"signal-eirp-{key}-{band}",
            stage="signal",
            severity="not_met",
            text=f"{device.name} on {band} GHz: its lowest step, {radio.power_dbm:g} dBm, and its "
            f"antenna's {radio.gain_dbi:g} dBi are {radio.eirp_dbm:g} dBm EIRP; "
            f"{radio.cap_dbm:g} are allowed. Choose a model with less gain.",
            places=(Place(kind="device", id=key, floor=device.floor, at=device.at),),
            figure=radio.eirp_dbm,
            limit=radio.cap_dbm,
            unit="dBm",
            rule="no radio is louder than its band and channel allow",
            source=air.rules.source(path),
            used=air.rules.used(path),
            cures=(Cure(label=f"Switch off its {band} GHz radio", changes=(off,)),),
        )


def _as_the_clients(air: RadioEnvironment, plan: ChannelPlan) -> tuple[Cure, ...]:
    """Offer radios that share air the power of their clients: up it is no louder than that anyhow,
    so no room loses, and the radios hear less of each other."""
    band, client_dbm = plan.band, air.client.power_dbm[plan.band]
    devices, said = air.design.of(Device), overrides(air.design)
    lower: dict[str, float] = {}
    for device in (d for d, rows in plan.contenders.items() if rows):
        model = air.catalogue.radios_of(devices[device]).radios[band]
        step_dbm = nearest_step(model, client_dbm)
        if step_dbm < client_dbm:
            step_dbm += model.step_db
        radio = air.radios[device, band]
        if not radio.by_person and client_dbm <= step_dbm < radio.power_dbm:
            lower[device] = step_dbm
    if band == "2.4" or not lower or said_over_air(air.design):  # links of air want what there is
        return ()
    radios = dict(air.radios)
    for device, power_dbm in lower.items():
        radios[device, band] = replace(radios[device, band], power_dbm=power_dbm)
    heard = hearing_dbm(replace(air, radios=radios), band)
    at = {d.id: k for k, d in enumerate(air.access_points(band))}
    pairs = {tuple(sorted((a, b))) for a, rows in plan.contenders.items() for b, _ in rows}
    contend_dbm = air.rules["signal.contend_dbm"]
    still = [p for p in pairs if heard[at[p[0]], at[p[1]]] >= contend_dbm]
    changes = []
    for device, power_dbm in lower.items():
        own = Radio(id=f"rad-{device}-{band}"[:40], device=device, band=band)
        kept = said.get((device, band), own)
        changes.append(put(kept.model_copy(update={"power_dbm": power_dbm})))
    quieter_db = max(air.radios[d, band].power_dbm - power for d, power in lower.items())
    effect = f"each hears up to {quieter_db:g} dB less of the others: {len(pairs)} pairs share air "
    effect += f"now, {len(still)} then; rooms stand as they do"
    label = f"{len(changes)} radios on {band} GHz as loud as the clients"
    return (Cure(label=label, effect=effect, changes=tuple(changes)),)


def _free_channels(design: Design, band: Band) -> tuple[Cure, ...]:
    held = [r for r in design.of(Radio).values() if r.band == band and r.channel is not None]
    if not held:
        return ()
    freed = tuple(put(r.model_copy(update={"channel": None})) for r in held)
    return (Cure(label="Let the plan choose these channels", changes=freed),)
