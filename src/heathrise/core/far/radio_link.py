"""What comes over a radio's line from point to point, in clear weather and in rain. dB, dBm, km, GHz."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from ..base.foliage import foliage_db as leaves_take_db
from ..catalogue import BridgeModel, Rules

LinkBand = Literal["5", "60"]
MHZ: dict[LinkBand, float] = {"5": 5600.0, "60": 60480.0}
_MOST_FACTOR = 2.5
_PERCENT = 0.01  # of the time that a region's rain is said for


@dataclass(frozen=True)
class Weather:
    """Rain of a region, mm/h exceeded 0.01 % of the time, and the percentage of a year that is asked for."""

    rain_mm_h: float
    percent: float = _PERCENT


@dataclass(frozen=True)
class Budget:
    """A line's budget one way: what is sent, what each thing takes, what is left over what a rate needs.

    ``mbps`` is the fastest rate that keeps the margin in that weather, 0 where none does; ``margin_db``
    what there is over the slowest.
    """

    eirp_dbm: float
    capped: bool
    free_db: float
    oxygen_db: float
    rain_db: float
    leaves_db: float
    level_dbm: float
    margin_db: float
    mbps: float


def free_space_db(band: LinkBand, km: float) -> float:
    """Return ``20 log10(f) + 20 log10(d) + 32.45``: f in MHz, d in km.

    References:
        ITU-R P.525, free-space loss; dB.
    """
    return 20 * math.log10(MHZ[band]) + 20 * math.log10(km) + 32.45


def foliage_db(band: LinkBand, leaves_m: float) -> float:
    """Return what leaves take on a line's band, dB."""
    return float(leaves_take_db(MHZ[band], leaves_m))


def oxygen_db(rules: Rules, band: LinkBand, km: float) -> float:
    return rules.table("far.oxygen_db_km")[band] * km


def rain_db(rules: Rules, band: LinkBand, km: float, weather: Weather) -> float:
    """Return the rain that is exceeded for a percentage of a year, 0.001 to 1 %.

    ``k R^a`` dB/km over the length times the distance factor, scaled from 0.01 % to the one asked for.

    References:
        ITU-R P.838, rain in dB/km; ITU-R P.530, distance factor at most 2.5 and percentages; GHz, km.
    """
    if weather.rain_mm_h <= 0 or km <= 0:
        return 0.0
    figures, ghz = rules.table(f"far.rain.{band}"), MHZ[band] / 1000
    exponent = figures["exponent"]
    a_km = figures["k"] * weather.rain_mm_h**exponent
    bent = 0.477 * km**0.633 * weather.rain_mm_h ** (0.073 * exponent) * ghz**0.123
    bent -= 10.579 * (1 - math.exp(-0.024 * km))
    factor = _MOST_FACTOR if bent <= 1 / _MOST_FACTOR else 1 / bent
    return float(a_km * km * factor * _at_percent(ghz, weather.percent))


def _at_percent(ghz: float, percent: float) -> float:
    """Return what rain exceeded for a percentage is of that of 0.01 %."""
    c0 = 0.12 + (0.4 * math.log10((ghz / 10) ** 0.8) if ghz >= 10 else 0.0)
    c1 = 0.07**c0 * 0.12 ** (1 - c0)
    c2 = 0.855 * c0 + 0.546 * (1 - c0)
    c3 = 0.139 * c0 + 0.043 * (1 - c0)
    p = min(max(percent, 0.001), 1.0)
    return float(c1 * p ** -(c2 + c3 * math.log10(p)))


def way_losses_db(
    rules: Rules, band: LinkBand, km: float, weather: Weather, leaves_m: float
) -> tuple[float, float, float, float]:
    """Return what the way takes of a signal: free space, oxygen, rain, leaves."""
    return (
        free_space_db(band, km),
        oxygen_db(rules, band, km),
        rain_db(rules, band, km, weather),
        foliage_db(band, leaves_m),
    )


def eirp_limit_dbm(rules: Rules, domain: str, band: LinkBand) -> float:
    return rules.table(f"far.link_eirp_dbm.{domain}")[band]


def budget_of(
    rules: Rules,
    domain: str,
    sends: BridgeModel,
    hears: BridgeModel,
    km: float,
    weather: Weather,
    leaves_m: float = 0.0,
) -> Budget:
    """Return what one radio hears of another: ``P + G1 + G2 - losses``, under the EIRP of the domain.

    References:
        ITU-R P.530, line-of-sight links; dBm, dB.
    """
    most = eirp_limit_dbm(rules, domain, sends.band)
    full = sends.power_dbm + sends.gain_dbi
    eirp = min(full, most)
    losses = way_losses_db(rules, sends.band, km, weather, leaves_m)
    level = eirp + hears.gain_dbi - sum(losses)
    margin = rules["far.margin_db"]
    rates = [mbps for least, mbps in hears.rates if level >= least + margin]
    return Budget(
        eirp, full > most, *losses, level, level - min(r[0] for r in hears.rates), max(rates, default=0.0)
    )
