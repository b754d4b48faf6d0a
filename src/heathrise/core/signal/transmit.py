"""How loud each radio is planned to be, and why."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..base.bands import BANDS, Band
from ..catalogue import AirModel, Catalogue, RadioModel
from ..context.band_plan import BandPlan, band_plan_of
from ..design import Design, Device, Radio


@dataclass(frozen=True)
class Transmit:
    """What one radio is set to: conducted power in dBm, gain in dBi, and the reason."""

    device: str
    band: Band
    on: bool
    power_dbm: float
    gain_dbi: float
    cap_dbm: float
    reason: str
    by_person: bool = False

    @property
    def eirp_dbm(self) -> float:
        return self.power_dbm + self.gain_dbi


def overrides(design: Design) -> dict[tuple[str, Band], Radio]:
    """Return what a person has set, by device and band."""
    return {(r.device, r.band): r for r in design.of(Radio).values()}


def transmits(design: Design, catalogue: Catalogue) -> dict[tuple[str, Band], Transmit]:
    """Return the planned setting of every radio of every access point.

    References:
        National limits of EIRP, to be checked; practice: 3 dB over the power that clients answer with, dBm.
    """
    client = catalogue.clients[design.site.client]
    said = overrides(design)
    channels = band_plan_of(design.site, catalogue)
    above_db = catalogue.rules["signal.above_client_db"]
    plan: dict[tuple[str, Band], Transmit] = {}
    for device in design.of(Device).values():
        model = catalogue.air_of(device)
        if model is None:
            continue
        for band in BANDS:
            if band in model.radios:
                held = said.get((device.id, band))
                plan[device.id, band] = _transmit(
                    channels, device.id, model, band, client.power_dbm[band] + client.gain_dbi, held, above_db
                )
    return plan


def _transmit(
    channels: BandPlan,
    device: str,
    model: AirModel,
    band: Band,
    client_dbm: float,
    said: Radio | None,
    above_db: float,
) -> Transmit:
    radio = model.radios[band]
    # A channel that the domain does not have is left to the plan.
    channel = said.channel if said is not None else None
    if channel not in channels.legal[band]:
        channel = None
    cap = channels.eirp_cap_dbm(band, channel)
    most = min(radio.max_power_dbm, cap - radio.gain_dbi)
    if said is not None and said.power_dbm is not None:
        power = nearest_step(radio, min(said.power_dbm, most))
        held = f", held to {power:g} by the {cap:g} dBm EIRP cap" if power < said.power_dbm else ""
        reason = f"set by hand to {said.power_dbm:g} dBm{held}"
        return Transmit(device, band, said.on, power, radio.gain_dbi, cap, reason, True)
    wanted = client_dbm + above_db
    power = nearest_step(radio, min(wanted, most))
    if wanted <= most:
        reason = f"{above_db:g} dB above the client's {client_dbm:g} dBm: louder gains nothing"
    elif most < radio.max_power_dbm:
        reason = f"EIRP cap {cap:g} dBm less {radio.gain_dbi:g} dBi of gain"
    else:
        reason = "the radio's own maximum"
    on = said.on if said is not None else True
    return Transmit(device, band, on, power, radio.gain_dbi, cap, reason)


def nearest_step(radio: RadioModel, power_dbm: float) -> float:
    """Return the radio's highest power step not above ``power_dbm``, or its lowest step."""
    steps = math.floor((power_dbm - radio.min_power_dbm) / radio.step_db + 1e-9)
    return radio.min_power_dbm + max(steps, 0) * radio.step_db
