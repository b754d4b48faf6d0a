"""What a cable's loop takes from a powered device. Watts, volts, amperes, ohms, metres."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..base.copper import warm_copper
from ..catalogue import PoeClass

# 24 AWG conductor, 9.38 ohm per 100 m: two pairs are a loop of 0.0938 ohm/m, four of half that.
_OHM_PER_M = {2: 0.0938, 4: 0.0469}
_OHM_PER_CONNECTION = {2: 0.2, 4: 0.1}
_CONNECTIONS = 2


@dataclass(frozen=True)
class Loop:
    """What a loop does to a device's supply; ``starts`` is false where no current satisfies it."""

    starts: bool
    current_a: float = 0.0
    port_w: float = 0.0
    device_v: float = 0.0


def loop_resistance_ohm(
    length_m: float, pairs: int, temperature_c: float = 20.0, connections: int = _CONNECTIONS
) -> float:
    """Return ``R = l r (1 + 0.00393 (T - 20)) + n r'`` of a loop in ohm, not less than at 20 C.

    Annealed copper after IEC 60028, 24 AWG after TIA-568; each connection adds its own.

    References:
        IEC 60028, annealed copper: 0.00393 a kelvin at 20 C; TIA-568, 24 AWG; ohm, m, C.
    """
    return (
        length_m * _OHM_PER_M[pairs] * warm_copper(temperature_c) + connections * _OHM_PER_CONNECTION[pairs]
    )


def feed(device_w: float, source_v: float, resistance_ohm: float) -> Loop:
    """Return the loop of a constant-power load: ``I = (V - sqrt(V^2 - 4 R P)) / (2 R)``.

    From ``P = (V - R I) I``, the smaller current; a powered device is such a load (IEEE 802.3).

    References:
        IEEE 802.3, powered devices as constant-power loads; V, W, ohm, A.
    """
    if resistance_ohm <= 0:
        return Loop(True, device_w / source_v, device_w, source_v)
    square = source_v**2 - 4 * resistance_ohm * device_w
    if square < 0:
        return Loop(False)
    current = (source_v - math.sqrt(square)) / (2 * resistance_ohm)
    return Loop(True, current, source_v * current, source_v - resistance_ohm * current)


def feed_over_run(kind: PoeClass, device_w: float, length_m: float, temperature_c: float = 20.0) -> Loop:
    """Return the loop of a powered device over its own run, at the class's lowest port volts."""
    return feed(device_w, kind.port_v, loop_resistance_ohm(length_m, kind.pairs, temperature_c))
