"""A radio's line judged: what stands in it now and in some years, what the way takes, what would clear it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..base.wording import metres
from ..catalogue import Rules, Used
from .radio_link import MHZ, LinkBand, Weather, way_losses_db
from .sight_line import Clearance, Ground, Trees, clearance, least_masts

MOST_MAST_M = 30.0


class WayLoss(Frozen):
    """What the way itself takes of a signal, dB."""

    free_db: float
    oxygen_db: float
    rain_db: float
    leaves_db: float
    total_db: float


class SightVerdict(Frozen):
    """How a line stands on one band. ``masts_m`` are heights over the ground of least sum that clear it,
    None where masts up to 30 m do not."""

    band: LinkBand
    verdict: Literal["clear", "near", "blocked"]
    why: str
    at_m: float
    zone_m: float
    free_m: float
    share: float
    wanted_share: float = Field(description="of the zone that has to be free")
    leaves_m: float
    masts_m: tuple[float, float] | None
    loss: WayLoss
    used: tuple[Used, ...]


def growth_m(rules: Rules, grows_m: float | None) -> float:
    """Return what trees grow in a year, where nobody says as trees do."""
    return rules["far.growth_m"] if grows_m is None else grows_m


def trees_of(rules: Rules, trees: Sequence[tuple[float, float, float, float | None]]) -> tuple[Trees, ...]:
    """Return trees, (from, to, height, growth a year or None), each with what it grows."""
    return tuple(Trees(a, b, height, growth_m(rules, grows)) for a, b, height, grows in trees)


def judge_sight(
    rules: Rules, band: LinkBand, ground: Ground, masts_m: tuple[float, float], years: float
) -> SightVerdict:
    """Judge the line between antennas at heights over the ground of its two ends, as it is in some years."""
    ghz, share = MHZ[band] / 1000, rules["far.zone_share"]
    seen = clearance(ground, *masts_m, ghz, years)
    verdict, why = _said(seen, share, years)
    return SightVerdict(
        band=band,
        verdict=verdict,
        why=why,
        at_m=round(seen.at_m, 1),
        zone_m=round(seen.zone_m, 2),
        free_m=round(seen.free_m, 2),
        share=round(seen.share, 3),
        wanted_share=share,
        leaves_m=round(seen.leaves_m, 1),
        masts_m=_masts(ground, ghz, share, years),
        loss=_loss(rules, band, ground, masts_m, seen.leaves_m),
        used=rules.used("far.zone_share", "far.rain_mm_h", f"far.oxygen_db_km.{band}"),
    )


def _loss(
    rules: Rules, band: LinkBand, ground: Ground, masts_m: tuple[float, float], leaves_m: float
) -> WayLoss:
    rise = ground.height_m[-1] + masts_m[1] - ground.height_m[0] - masts_m[0]
    km = math.hypot(ground.length_m, rise) / 1000
    rows = way_losses_db(rules, band, km, Weather(rules["far.rain_mm_h"]), leaves_m)
    free, oxygen, rain, leaves = (round(v, 1) for v in rows)
    return WayLoss(
        free_db=free, oxygen_db=oxygen, rain_db=rain, leaves_db=leaves, total_db=round(sum(rows), 1)
    )


def _masts(ground: Ground, ghz: float, share: float, years: float) -> tuple[float, float] | None:
    found = least_masts(ground, ghz, share, years, most_m=(MOST_MAST_M, MOST_MAST_M))
    # Up to the next decimetre: a mast is cut no finer, and never shorter than it must be.
    return (_up(found[0]), _up(found[1])) if found else None


def _up(height_m: float) -> float:
    return math.ceil(height_m * 10 - 1e-6) / 10


def _said(seen: Clearance, share: float, years: float) -> tuple[Literal["clear", "near", "blocked"], str]:
    trees = f"in {years:g} years trees stand" if years else "trees stand"
    thing = trees if seen.trees else "the ground stands"
    where = f"{metres(seen.at_m, 0)} along"
    if seen.free_m < 0:
        return "blocked", f"{thing} {metres(-seen.free_m, 1)} into the line itself, {where}"
    if seen.share < share:
        wanted = f"{share:.0%} of the first Fresnel zone, {metres(share * seen.zone_m, 2)}, should be free"
        return "near", f"{thing} {metres(seen.free_m, 2)} below the line, {where}; {wanted}"
    return "clear", f"{metres(seen.free_m, 2)} free where it is tightest, {where}"
