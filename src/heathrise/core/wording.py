"""Lengths and temperatures as they stand in sentences.

A no-break space joins such a figure to its unit. A line never breaks inside it, and an interface
that shows feet and Fahrenheit finds by it what to convert.
"""

from __future__ import annotations

_JOIN = "\u00a0"


def metres(value_m: float, digits: int | None = None) -> str:
    """Return a length in words: as short as it is exact, or with so many ``digits``."""
    return f"{value_m:g}{_JOIN}m" if digits is None else f"{value_m:.{digits}f}{_JOIN}m"


def celsius(value_c: float) -> str:
    """Return a temperature in words."""
    return f"{value_c:g}{_JOIN}°C"
