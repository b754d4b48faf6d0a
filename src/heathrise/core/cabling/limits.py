"""How far each category of copper carries each speed."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np

from ..design import Category
from ..wording import celsius, metres

Verdict = Literal["met", "near", "test_first", "not_met"]
CATEGORIES: tuple[Category, ...] = ("5", "5e", "6", "6A")
SPEEDS_MBPS = (100, 1000, 2500, 5000, 10000)

# Channel length in m for each speed; 0 cannot, a negative length only after a field test.
# IEEE 802.3; TSB-5021 for 2.5 and 5 G on installed cable, TSB-155 for 10 G on category 6.
CHANNEL_M: dict[Category, tuple[float, ...]] = {
    "5": (100, -100, 0, 0, 0),
    "5e": (100, 100, 100, -100, 0),
    "6": (100, 100, 100, 100, 55),
    "6A": (100, 100, 100, 100, 100),
}
CATEGORY_6_TIGHT_BUNDLE_M = 37.0
FIXED_LIMIT_M = 90.0
# Unshielded fixed run in m by the temperature of its hottest space in C, linear between.
HEAT_C = (20, 25, 30, 35, 40, 45, 50, 55, 60)
HEAT_LIMIT_M = (90.0, 89.0, 87.0, 85.5, 84.0, 81.7, 79.5, 77.2, 75.0)
HOT_SHARE = 0.10
NEAR_SHARE_OF_LIMIT = 0.95
# Temperatures in C planned for each kind of space.
SPACE_C: dict[str, float] = {
    "room": 22,
    "ceiling_void": 28,
    "joists": 28,
    "raceway": 22,
    "attic": 45,
    "basement": 18,
    "duct": 15,
    "outdoor": 50,
    "riser": 22,
}
SOURCE = "TIA-568 channel model, IEEE 802.3, TSB-155 and TSB-5021"


@dataclass(frozen=True)
class CableVerdict:
    """Whether a fixed run carries a speed; lengths in m, temperature in C."""

    verdict: Verdict
    limit_m: float
    reason: str


def heat_limit_m(temperature_c: float) -> float:
    """Return the longest fixed run in m whose hottest space is at ``temperature_c``."""
    return float(np.interp(temperature_c, HEAT_C, HEAT_LIMIT_M))


def cords_limit_m(fixed_m: float) -> float:
    """Return the total of stranded cords allowed beside a fixed run, ``(102 - H) / 1.2``."""
    return max(0.0, (102 - fixed_m) / 1.2)


def hottest_c(lengths_m: Mapping[str, float]) -> tuple[str, float]:
    """Return the hottest kind of space holding at least a tenth of the run, and its heat in C."""
    total = sum(lengths_m.values())
    counted = [k for k, m in lengths_m.items() if total and m / total >= HOT_SHARE]
    kind = max(counted, key=lambda k: SPACE_C[k], default="room")
    return kind, SPACE_C[kind]


def channel_limit_m(category: Category, speed_mbps: int, tight_bundle: bool = False) -> float:
    """Return the channel length in m; negative where it must be field tested first, 0 for never."""
    column = next(i for i, speed in enumerate(SPEEDS_MBPS) if speed >= speed_mbps)
    limit = CHANNEL_M[category][column]
    if category == "6" and SPEEDS_MBPS[column] == 10000 and tight_bundle:
        return CATEGORY_6_TIGHT_BUNDLE_M
    return float(limit)


def check_channel(category: Category, speed_mbps: int, channel_m: float) -> Verdict:
    """Return whether a whole channel, fixed cable and cords, carries a speed."""
    limit = channel_limit_m(category, speed_mbps)
    if limit == 0 or channel_m > abs(limit):
        return "not_met"
    return "test_first" if limit < 0 else "met"


def check_run(
    category: Category,
    speed_mbps: int,
    fixed_m: float,
    cords_m: float,
    temperature_c: float = 20.0,
    tight_bundle: bool = False,
) -> CableVerdict:
    """Judge a fixed run with its cords.

    The fixed run is bounded by heat, by the cords (``H <= 102 - 1.2 C``, since stranded cords
    lose 20 % more) and, where the category reaches less than 100 m, by that length less cords.
    """
    label, speed = f"category {category}", _speed(speed_mbps)
    channel = channel_limit_m(category, speed_mbps, tight_bundle)
    if channel == 0:
        return CableVerdict("not_met", 0.0, f"{label} does not carry {speed}")
    bounds = [
        (heat_limit_m(temperature_c), f"{celsius(temperature_c)} in its hottest space"),
        (102 - 1.2 * cords_m, f"{metres(cords_m)} of cords"),
    ]
    if abs(channel) < 100:
        bounds.append((abs(channel) - cords_m, f"{label} at {speed}"))
    limit, why = min(bounds)
    limit = round(limit, 1)
    room = f"{metres(fixed_m, 1)} of {metres(limit)} ({why})"
    if fixed_m > limit:
        return CableVerdict("not_met", limit, f"too long for {speed} on {label}: {room}")
    if channel < 0:
        return CableVerdict("test_first", limit, f"{speed} on {label}: test before promising it")
    if fixed_m > NEAR_SHARE_OF_LIMIT * limit:
        return CableVerdict("near", limit, f"carries {speed} with little to spare: {room}")
    return CableVerdict("met", limit, f"carries {speed}: {room}")


def _speed(mbps: int) -> str:
    return f"{mbps / 1000:g} Gb/s" if mbps >= 1000 else f"{mbps} Mb/s"
