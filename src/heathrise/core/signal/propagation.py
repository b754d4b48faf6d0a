"""Path loss of one ray: free space, walls at an angle, floors.

All losses in dB, distances in m, frequencies in MHz.
"""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

MIN_DISTANCE_M = 1.0
MAX_ANGLE_FACTOR = 2.0
EXPONENT = 2.0  # walls are drawn, so the open stretches between them are free space


def distance_loss_db(distance_m: Array | float, frequency_mhz: float, n: float = EXPONENT) -> Array:
    """Return ``20 log10(f) - 27.55 + 10 n log10(d)``, ``d`` at least 1 m.

    Free-space loss at 1 m after ITU-R P.525; the exponent after ITU-R P.1238.

    References:
        ITU-R P.525, free-space loss in dB, f in MHz, d in m.
        ITU-R P.1238, distance exponents indoors.
    """
    d = np.maximum(distance_m, MIN_DISTANCE_M)
    return np.asarray(20 * math.log10(frequency_mhz) - 27.55 + 10 * n * np.log10(d))


def angle_factor(cosine_from_normal: float) -> float:
    """Return how much thicker a wall is to a slanting ray: ``1 / cos``, at most 2.

    The geometry of a slab; past 60 degrees what goes round it is stronger (planning practice).

    References:
        Geometry of a plane slab; ITU-R P.2040 for materials at square incidence.
    """
    cosine = abs(cosine_from_normal)
    return MAX_ANGLE_FACTOR if cosine * MAX_ANGLE_FACTOR <= 1 else 1 / cosine


def floors_loss_db(floor_loss_db: Array | float, floors_crossed: Array | int) -> Array:
    """Return the loss through ``k`` floors, ``Lf k^((k+2)/(k+1) - 0.46)`` (COST 231).

    References:
        COST 231 final report, chapter 4, multi-floor term with b = 0.46.
    """
    k = np.asarray(floors_crossed, dtype=np.float64)
    exponent = (k + 2) / (k + 1) - 0.46
    return np.asarray(floor_loss_db * np.where(k > 0, np.maximum(k, 1) ** exponent, 0.0))


def noise_floor_dbm(width_mhz: float, noise_figure_db: float) -> float:
    """Return ``-174 + 10 log10(B) + NF``: noise in ``width_mhz`` plus the receiver's own, in dBm.

    Thermal noise ``kT`` of a hertz at 290 K, after ITU-R P.372.

    References:
        ITU-R P.372, thermal noise kT at 290 K; width in MHz, figure in dB.
    """
    return -174 + 10 * math.log10(width_mhz * 1e6) + noise_figure_db


def chance_of(over_target_db: float, deviation_db: float) -> float:
    """Return how likely a target is met where the model is ``over_target_db`` above it.

    ``Phi((level - target) / sigma)``, log-normal shadowing as in ITU-R P.1411.

    References:
        ITU-R P.1411, log-normal shadowing: the normal distribution of what is over the target.
    """
    return 0.5 * (1 + math.erf(over_target_db / deviation_db / math.sqrt(2)))
