"""What warmth does to copper."""

from __future__ import annotations

_PER_DEGREE = 0.00393


def warm_copper(temperature_c: float) -> float:
    """Return the resistance of copper against that at 20 C, ``1 + 0.00393 (T - 20)``, not less than 1.

    References:
        IEC 60028, annealed copper: 0.00393 a kelvin at 20 C.
    """
    return 1 + _PER_DEGREE * max(0.0, temperature_c - 20)
