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


@dataclass(frozen=True)
class Sunlit:
    """A panel, a battery of what can be used of it, and what they feed."""

    panel_w: float
    battery_wh: float
    load_w: float


def sun_hours(rules: Rules, latitude_deg: float) -> float:
    """Return the worst month's hours of full sun a day, linear between the latitudes that are known."""
    rows = sorted((float(at), hours) for at, hours in rules.table("far.sun_hours").items())
    at = abs(latitude_deg)
    if at >= rows[-1][0]:
        return rows[-1][1] if at == rows[-1][0] else 0.0
    (low, first), (high, second) = next((a, b) for a, b in itertools.pairwise(rows) if at <= b[0])
    return first + (second - first) * (at - low) / (high - low)


def panel_w(rules: Rules, load_w: float, hours: float) -> float:
    """Return the panel that keeps a load up in the worst month: ``24 P / (h x 0.7)``.

    Raises:
        DesignError: there is no sun.
    """
    if hours <= 0:
        what = "has no hour of sun in the worst month: no panel keeps gear up there"
        raise DesignError([Problem("sun_hours", what)])
    return load_w * HOURS / (hours * rules["far.sun_share"])


def battery_wh(rules: Rules, load_w: float, chemistry: Chemistry, coldest_c: float = 20.0) -> float:
    """Return the battery, as it is rated, that bridges the days of cloud.

    Lead-acid loses of its capacity in the cold; lithium keeps it but is not charged below 0 C.
    """
    return load_w * HOURS * rules["far.cloud_days"] / usable_share(rules, chemistry, coldest_c)


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
    held = gear.battery_wh
    for day, hours in enumerate(days):
        lit = max(1, math.ceil(hours))
        first = _NOON - lit // 2
        for hour in range(HOURS):
            came = 0.0
            if first <= hour < first + lit:
                came = gear.panel_w * rules["far.sun_share"] * hours / lit
            held = min(gear.battery_wh, held + came - gear.load_w)
            if held < 0:
                return day * HOURS + hour
    return None
