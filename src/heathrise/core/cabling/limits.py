"""How far each category of copper carries each speed (TIA-568, IEEE 802.3, TSB-155, TSB-5021)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np

from ..base.wording import celsius, metres
from ..base.wording import speed as speed_said
from ..catalogue import Rules
from ..design import Category

Verdict = Literal["met", "near", "test_first", "not_met"]
CATEGORIES: tuple[Category, ...] = ("5", "5e", "6", "6A")

FULL_CHANNEL_M = 100


@dataclass(frozen=True)
class CableVerdict:
    """Whether a fixed run carries a speed; lengths in m. ``figures`` are paths of what binds."""

    verdict: Verdict
    limit_m: float
    reason: str
    figures: tuple[str, ...] = ()


def heat_limit_m(rules: Rules, temperature_c: float) -> float:
    """Return the longest fixed run in m whose hottest space is at ``temperature_c``.

    Linear between the rows of the table, whose losses grow with heat as in TIA-568.

    References:
        TIA-568: insertion loss grows with the temperature of the cable.
    """
    limits = rules.table("cabling.heat_limit_m")
    return float(np.interp(temperature_c, list(map(float, limits)), list(limits.values())))


def cords_limit_m(rules: Rules, fixed_m: float) -> float:
    """Return the total in m of stranded cords beside a fixed run, ``C = (102 - H) / 1.2``.

    TIA-568's formula for long cords: a stranded metre loses a fifth more than a solid one.

    References:
        TIA-568, length of cords in open offices, C and H in m.
    """
    return max(0.0, (rules["cabling.cord_budget_m"] - fixed_m) / rules["cabling.stranded_factor"])


def fixed_limit_m(rules: Rules, cords_m: float) -> float:
    """Return the fixed run in m that cords of a total length leave, ``102 - 1.2 C`` (TIA-568).

    References:
        TIA-568, length of cords in open offices, C and H in m.
    """
    return rules["cabling.cord_budget_m"] - rules["cabling.stranded_factor"] * cords_m


def hottest_c(rules: Rules, lengths_m: Mapping[str, float]) -> tuple[str, float]:
    """Return the hottest kind of space holding at least a tenth of the run, and its heat in C."""
    total, least = sum(lengths_m.values()), rules["cabling.hot_share"]
    heat_c = rules.table("cabling.space_c")
    counted = [k for k, m in lengths_m.items() if total and m / total >= least]
    kind = max(counted, key=lambda k: heat_c[k], default="room")
    return kind, heat_c[kind]


def channel_limit_m(
    rules: Rules, category: str, speed_mbps: int, tight_bundle: bool = False
) -> tuple[float, str]:
    """Return the channel length in m and the path of that figure.

    A negative length must be field tested first, 0 is never.

    References:
        TIA-568, channels by category and speed; m.
    """
    lengths = rules.table(f"cabling.channel_m.{category}")
    speed = next(s for s in lengths if int(s) >= speed_mbps)
    if category == "6" and speed == "10000" and tight_bundle:
        return rules["cabling.tight_bundle_m"], "cabling.tight_bundle_m"
    return lengths[speed], f"cabling.channel_m.{category}.{speed}"


def check_channel(rules: Rules, category: str, speed_mbps: int, channel_m: float) -> Verdict:
    """Return whether a whole channel, fixed cable and cords, carries a speed."""
    limit, _ = channel_limit_m(rules, category, speed_mbps)
    if limit == 0 or channel_m > abs(limit):
        return "not_met"
    return "test_first" if limit < 0 else "met"


def check_tested(tested_mbps: int, speed_mbps: int, fixed_m: float) -> CableVerdict:
    """Judge a cable that lies there by what it was tested at: neither its print nor its length counts."""
    tests = f"tests at {speed_said(tested_mbps)}"
    if tested_mbps >= speed_mbps:
        return CableVerdict("met", fixed_m, f"{tests}, {speed_said(speed_mbps)} asked")
    return CableVerdict("not_met", 0.0, f"{tests} and is asked for {speed_said(speed_mbps)}")


def check_run(
    rules: Rules,
    category: str,
    speed_mbps: int,
    fixed_m: float,
    cords_m: float,
    temperature_c: float = 20.0,
    tight_bundle: bool = False,
    space: str = "room",
) -> CableVerdict:
    """Judge a fixed run with its cords.

    The fixed run is bounded by heat, by the cords (``H <= 102 - 1.2 C``, since stranded cords
    lose 20 % more) and, where the category reaches less than 100 m, by that length less cords.

    Args:
        space: the kind of space whose planned heat ``temperature_c`` is.
    """
    label, speed = f"category {category}", speed_said(speed_mbps)
    channel, path = channel_limit_m(rules, category, speed_mbps, tight_bundle)
    if channel == 0:
        return CableVerdict("not_met", 0.0, f"{label} does not carry {speed}", (path,))
    heat = f"{celsius(temperature_c)} in its hottest space"
    by_cords = ("cabling.cord_budget_m", "cabling.stranded_factor")
    bounds: list[tuple[float, str, tuple[str, ...]]] = [
        (heat_limit_m(rules, temperature_c), heat, (f"cabling.space_c.{space}",)),
        (fixed_limit_m(rules, cords_m), f"{metres(cords_m)} of cords", by_cords),
    ]
    if abs(channel) < FULL_CHANNEL_M:
        bounds.append((abs(channel) - cords_m, f"{label} at {speed}", (path,)))
    limit, why, figures = min(bounds)
    limit = round(limit, 1)
    room = f"{metres(fixed_m, 1)} of {metres(limit)} ({why})"
    if fixed_m > limit:
        return CableVerdict("not_met", limit, f"too long for {speed} on {label}: {room}", figures)
    if channel < 0:
        text = f"{speed} on {label}: test before promising it"
        return CableVerdict("test_first", limit, text, (path,))
    if fixed_m > rules["cabling.near_share"] * limit:
        text = f"carries {speed} with little to spare: {room}"
        return CableVerdict("near", limit, text, (*figures, "cabling.near_share"))
    return CableVerdict("met", limit, f"carries {speed}: {room}", figures)
