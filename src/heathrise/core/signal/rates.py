"""What a user gets at a level: rates of IEEE 802.11ax by width and streams."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from ..base.memo import IdentityMemo
from ..catalogue import Rules

Array = NDArray[np.floating]
_tables: IdentityMemo[tuple[list[float], list[float]]] = IdentityMemo(64)


def user_mbps(rules: Rules, level_dbm: float, width_mhz: int) -> float:
    """Return what one user gets at a level in Mb/s, before sharing the air; 0 where it cannot join.

    The fastest rate whose level is reached, each doubling of the width wanting 3 dB more.

    References:
        IEEE 802.11, rates by modulation and width; levels in dBm as planning practice has them.
        Noise grows by 10 log10 of the width: 3 dB for each doubling (ITU-R P.372).
    """
    rates, least = _table(rules, width_mhz)
    return max((rate for rate, dbm in zip(rates, least, strict=True) if level_dbm >= dbm), default=0.0)


def users_mbps(rules: Rules, levels_dbm: Array, width_mhz: int) -> Array:
    """Return ``user_mbps`` at each of many levels, of the shape of ``levels_dbm``."""
    rates, least = (np.array(rows) for rows in _table(rules, width_mhz))
    held = np.where(np.asarray(levels_dbm)[..., None] >= least, rates, 0.0)
    return np.asarray(held.max(axis=-1))


def level_for(rules: Rules, mbps: float, width_mhz: int) -> float | None:
    """Return the least level in dBm at which a user gets so much, None where no level gives it.

    References:
        The inverse of ``user_mbps``; IEEE 802.11, rates by modulation and width.
    """
    held = [least for rate, least in zip(*_table(rules, width_mhz), strict=True) if rate >= mbps]
    return min(held, default=None)


def _table(rules: Rules, width_mhz: int) -> tuple[list[float], list[float]]:
    """Return the rates in Mb/s, and the level in dBm that each wants."""
    return _tables.get((rules,), width_mhz, lambda: _made(rules, width_mhz))


def _made(rules: Rules, width_mhz: int) -> tuple[list[float], list[float]]:
    scale = rules[f"signal.rate_width.{width_mhz}"] * rules["signal.streams"]
    share = rules["signal.user_share"] * scale
    more_db = 3 * math.log2(width_mhz / 20)
    rates = [mbps * share for mbps in rules.numbers("signal.rate_mbps")]
    return rates, [dbm + more_db for dbm in rules.numbers("signal.rate_dbm")]
