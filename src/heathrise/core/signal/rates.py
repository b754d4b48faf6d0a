"""What a user gets at a level: rates of IEEE 802.11ax by width and streams."""

from __future__ import annotations

import math

from ..catalogue import Rules


def user_mbps(rules: Rules, level_dbm: float, width_mhz: int) -> float:
    """Return what one user gets at a level in Mb/s, before sharing the air; 0 where it cannot join.

    The fastest rate whose level is reached, each doubling of the width wanting 3 dB more.
    """
    held = [
        mbps for mbps, least in zip(*_table(rules, width_mhz), strict=True) if level_dbm >= least
    ]
    return max(held, default=0.0)


def level_for(rules: Rules, mbps: float, width_mhz: int) -> float | None:
    """Return the least level in dBm at which a user gets so much, None where no level gives it."""
    held = [least for rate, least in zip(*_table(rules, width_mhz), strict=True) if rate >= mbps]
    return min(held, default=None)


def _table(rules: Rules, width_mhz: int) -> tuple[list[float], list[float]]:
    scale = rules[f"signal.rate_width.{width_mhz}"] * rules["signal.streams"]
    share = rules["signal.user_share"] * scale
    more_db = 3 * math.log2(width_mhz / 20)
    rates = [mbps * share for mbps in rules.numbers("signal.rate_mbps")]
    return rates, [dbm + more_db for dbm in rules.numbers("signal.rate_dbm")]
