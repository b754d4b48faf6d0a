"""Heat and sound of a rack: what its closet gets to, the air that is to be moved, what is heard beside."""

from __future__ import annotations

import math
from collections.abc import Iterable

# 3600 s/h over air's 1.2 kg/m3 and 1005 J/kgK: m3/h for each watt and kelvin.
_M3H_K_PER_W = 3.0


def heat_w(own_w: float, poe_w: float, loss_share: float) -> tuple[float, float]:
    """Return the watts that a switch takes from the mains, and those that stay in it as heat.

    ``in = own + poe (1 + loss)``, ``heat = own + poe loss``: what its ports carry away is heat elsewhere.

    References:
        Energy kept: watts in less watts carried away; loss of a switch's PoE supply, W.
    """
    return own_w + poe_w * (1 + loss_share), own_w + poe_w * loss_share


def closet_c(room_c: float, heat: float, area_m2: float, w_m2k: float, moved_m3h: float = 0.0) -> float:
    """Return the air temperature about a rack in a closet, C.

    ``T = T0 + P / (U A + q / 3.0)``: heat goes through walls and ceiling and with the air that is moved.

    References:
        Steady heat balance of a room; air of 1.2 kg/m3 and 1005 J/kgK; W, m2, m3/h, C.
    """
    passed = w_m2k * area_m2 + moved_m3h / _M3H_K_PER_W
    return room_c + heat / passed if passed > 0 else math.inf


def airflow_m3h(heat: float, rise_k: float) -> float:
    """Return the air that carries heat away at a chosen rise: ``q = 3.0 P / dT``, m3/h.

    References:
        Air of 1.2 kg/m3 and 1005 J/kgK; W, K, m3/h. What the walls take as well is kept in hand.
    """
    return _M3H_K_PER_W * heat / rise_k if rise_k > 0 else math.inf


def together_db(levels: Iterable[float]) -> float:
    """Return what several sources are together: ``10 log10(sum 10^(L/10))``, dB(A); 0 for none.

    References:
        ISO 3744, energetic sum of sound levels.
    """
    rows = [level for level in levels if level > 0]
    return 10 * math.log10(sum(10 ** (level / 10) for level in rows)) if rows else 0.0
