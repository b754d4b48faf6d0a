"""What leaves on its way take of a signal."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

_THIN_M = 14.0


def foliage_db(mhz: float, leaves_m: Array | float) -> Array:
    """Return ``0.45 f^0.284 d`` up to 14 m, beyond ``1.33 f^0.284 d^0.588``, f in GHz; any shape.

    References:
        Modified exponential decay, as in reports to ITU-R P.833; dB, m.
    """
    bent = (mhz / 1000) ** 0.284
    metres = np.asarray(leaves_m, dtype=np.float64)
    thin = 0.45 * bent * np.minimum(metres, _THIN_M)
    # Where both forms meet, the second is a hair below the first: more leaves never take less.
    thick = np.maximum(thin, 1.33 * bent * metres**0.588)
    return np.asarray(np.where(metres <= _THIN_M, thin, thick))
