"""Each radio as it is to be set, with the reasons: channel, width, power."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import ClassVar, Literal

from ..base.bands import Band
from ..base.frozen import Frozen
from ..design import Device
from .channels import ChannelPlan
from .radio_environment import RadioEnvironment
from .transmit import overrides

Origin = Literal["plan", "house rule", "person"]


class RadioSheet(Frozen):
    """One radio: channel, width in MHz, power and EIRP in dBm, with reasons."""

    KEY: ClassVar = ("device", "band")

    device: str
    name: str
    model: str
    band: Band
    on: bool
    channel: int
    width_mhz: int
    power_dbm: float
    eirp_dbm: float
    cap_dbm: float
    origin: Origin
    channel_reason: str
    power_reason: str
    contenders: tuple[str, ...] = ()
    radar: bool = False


class Fence(Frozen):
    """What a controller's own optimiser is kept within on one band: channels, MHz, dBm."""

    KEY: ClassVar = ("band",)

    band: Band
    channels: tuple[int, ...]
    width_mhz: int
    least_dbm: float
    most_dbm: float


def fences(air: RadioEnvironment, plans: Mapping[Band, ChannelPlan]) -> Iterator[Fence]:
    """Yield for each band what an optimiser may use: the channels the plan may, and no power below
    the quietest or above the loudest that the brief asks of a radio."""
    for band, plan in plans.items():
        powers = [r.power_dbm for (_, b), r in air.radios.items() if b == band and r.on]
        if powers:
            yield Fence(
                band=band,
                channels=air.channels.primaries(band, plan.width_mhz),
                width_mhz=plan.width_mhz,
                least_dbm=min(powers),
                most_dbm=max(powers),
            )


def proof_of(plans: Mapping[Band, ChannelPlan]) -> str:
    """Return in words how good the channels of each band are known to be."""
    parts = []
    for band, plan in plans.items():
        left = f"{plan.cost_db:.0f} dB of shared air" if plan.cost_db else "no two share air"
        proof = "proven best" if plan.proven else f"at best {plan.bound_db:.0f} dB"
        proof = "a better plan is being looked for" if plan.searching else proof
        parts.append(f"{band} GHz: {left}, {proof}")
    return "; ".join(parts)


def radio_sheets(air: RadioEnvironment, plans: Mapping[Band, ChannelPlan]) -> Iterator[RadioSheet]:
    """Yield every radio of every access point, in order of placing."""
    devices = air.design.of(Device)
    said = overrides(air.design)
    for (device_id, band), radio in air.radios.items():
        device = devices[device_id]
        plan = plans.get(band)
        channel = plan.channels.get(device_id, 0) if plan else 0
        held = said.get((device_id, band))
        by_hand = held is not None and held.channel is not None
        contenders = plan.contenders.get(device_id, ()) if plan else ()
        names = tuple(devices[other].name for other, _ in contenders)
        origin: Origin = "person" if by_hand or radio.by_person else "plan"
        yield RadioSheet(
            device=device_id,
            name=device.name,
            model=air.catalogue.model_of(device).label,
            band=band,
            on=radio.on,
            channel=channel,
            width_mhz=_width_mhz(air, band, plan.width_mhz, channel) if plan else 20,
            power_dbm=radio.power_dbm,
            eirp_dbm=radio.eirp_dbm,
            cap_dbm=radio.cap_dbm,
            origin=origin,
            channel_reason=_channel_reason(
                by_hand, radio.on, names, plan.neighbours.get(device_id) if plan else None
            ),
            power_reason=radio.reason,
            contenders=names,
            radar=air.channels.needs_radar_watch(band, channel),
        )


def _width_mhz(air: RadioEnvironment, band: Band, width_mhz: int, channel: int) -> int:
    """Return the width of the legal block that holds a channel, in MHz."""
    return 20 * len(air.channels.block(band, width_mhz, channel))


def _channel_reason(by_hand: bool, on: bool, contenders: tuple[str, ...], neighbour_dbm: float | None) -> str:
    if not on:
        return "radio off"
    start = "set by hand" if by_hand else "by plan"
    shares = list(contenders[:3])
    if neighbour_dbm is not None:
        shares.append(f"a neighbour at {neighbour_dbm:.0f} dBm")
    if not shares:
        return f"{start}: nobody it hears is on it"
    return f"{start}: shares air with {', '.join(shares)}"
