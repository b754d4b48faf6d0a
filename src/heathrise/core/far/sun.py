"""Gear on a panel and a battery: the worst month, days of cloud, the hour it goes dark. W, Wh, h, C."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..catalogue import Rules
from ..design import DesignError, Problem

Chemistry = Literal["lead_acid", "lithium"]
HOURS = 24
_NOON = 12
_AXIS_DEG = 23.45
_STEEPER_DEG = 15.0  # than the latitude, where nothing else is said


@dataclass(frozen=True)
class Sunlit:
    """A panel, a battery of what can be used of it, and what they feed."""

    panel_w: float
    battery_wh: float
    load_w: float


@dataclass(frozen=True)
class SunLoad:
    """One of the things that are fed; ``off_below`` is the charge, a share, below which it is switched off
    and stays off; 0 for what never is."""

    name: str
    watts: float
    off_below: float = 0.0


@dataclass(frozen=True)
class Held:
    """How a battery stands: its charge after each hour, a share, the hour in which it is empty, None where it
    never is, and what was switched off in which hour."""

    charge: tuple[float, ...]
    dark_h: int | None
    off: tuple[tuple[int, SunLoad], ...]


def sun_hours(rules: Rules, latitude_deg: float, tilt_deg: float = 0.0) -> float:
    """Return the worst month's hours of full sun a day, linear between the latitudes that are known.

    They are those of a panel at latitude + 15; another ``tilt_deg`` has of them what it has of the light at
    noon of the shortest day, ``cos(latitude + 23.45 - tilt) / cos 8.45``.
    """
    rows = sorted((float(at), hours) for at, hours in rules.table("far.sun_hours").items())
    at = abs(latitude_deg)
    if at >= rows[-1][0]:
        return rows[-1][1] * _tilted(at, tilt_deg) if at == rows[-1][0] else 0.0
    (low, first), (high, second) = next((a, b) for a, b in itertools.pairwise(rows) if at <= b[0])
    return (first + (second - first) * (at - low) / (high - low)) * _tilted(at, tilt_deg)


def _tilted(latitude_deg: float, tilt_deg: float) -> float:
    if tilt_deg == 0:
        return 1.0
    off = math.radians(latitude_deg + _AXIS_DEG - tilt_deg)
    return max(0.0, math.cos(off) / math.cos(math.radians(_AXIS_DEG - _STEEPER_DEG)))


def panel_w(rules: Rules, load_w: float, hours: float) -> float:
    """Return the panel that keeps a load up in the worst month: ``24 P / (h x 0.7)``.

    Raises:
        DesignError: there is no sun.
    """
    if hours <= 0:
        what = "has no hour of sun in the worst month: no panel keeps gear up there"
        raise DesignError([Problem("sun_hours", what)])
    return load_w * HOURS / (hours * rules["far.sun_share"])


def battery_wh(
    rules: Rules, load_w: float, chemistry: Chemistry, days: float, coldest_c: float = 20.0
) -> float:
    """Return the battery, as it is rated, that bridges days of cloud.

    Lead-acid loses of its capacity in the cold; lithium keeps it but is not charged below 0 C.
    """
    return load_w * HOURS * days / usable_share(rules, chemistry, coldest_c)


def usable_share(rules: Rules, chemistry: Chemistry, coldest_c: float = 20.0) -> float:
    """Return the share of what a battery is rated for that can be had of it in the cold."""
    share = rules.table("far.battery_share")[chemistry]
    if chemistry == "lead_acid":
        share *= max(0.1, 1 - rules["far.lead_acid_share_per_k"] * max(0.0, 20 - coldest_c))
    return share


def dark_hour(rules: Rules, gear: Sunlit, days: Sequence[float]) -> int | None:
    """Return the hour, from the first midnight on, in which a full battery is empty; None where it never is.

    Args:
        days: hours of full sun of each day, spread evenly about noon.
    """
    return held_by_hour(rules, gear.panel_w, gear.battery_wh, [SunLoad("", gear.load_w)], days).dark_h


def held_by_hour(
    rules: Rules, panel_w: float, battery_wh: float, loads: Sequence[SunLoad], days: Sequence[float]
) -> Held:
    """Return how a battery that is full at the first midnight stands hour by hour, until it is empty.

    Args:
        battery_wh: what can be used of it.
        days: hours of full sun of each day, spread evenly about noon.
    """
    held, charge, on = battery_wh, list[float](), list(loads)
    off: list[tuple[int, SunLoad]] = []
    for day, hours in enumerate(days):
        lit = max(1, math.ceil(hours))
        first = _NOON - lit // 2
        for hour in range(HOURS):
            now = day * HOURS + hour
            shed = [load for load in on if load.off_below > held / battery_wh]
            off += [(now, load) for load in shed]
            on = [load for load in on if load not in shed]
            came = panel_w * rules["far.sun_share"] * hours / lit if first <= hour < first + lit else 0.0
            held = min(battery_wh, held + came - sum(load.watts for load in on))
            if held < 0:
                return Held((*charge, 0.0), now, tuple(off))
            charge.append(held / battery_wh)
    return Held(tuple(charge), None, tuple(off))
