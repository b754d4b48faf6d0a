"""Lengths, temperatures, speeds and names as they stand in sentences.

A no-break space joins a figure to its unit. A line never breaks inside it, and an interface
that shows feet and Fahrenheit finds by it what to convert.
"""

from __future__ import annotations

from collections.abc import Sequence

_NAMED = 3
_JOIN = "\u00a0"


def metres(value_m: float, digits: int | None = None) -> str:
    """Return a length in words: as short as it is exact, or with so many ``digits``."""
    return f"{value_m:g}{_JOIN}m" if digits is None else f"{value_m:.{digits}f}{_JOIN}m"


def celsius(value_c: float) -> str:
    """Return a temperature in words."""
    return f"{value_c:g}{_JOIN}°C"


def speed(mbps: float, join: str = " ") -> str:
    """Return a link's speed in words."""
    return f"{mbps / 1000:g}{join}Gb/s" if mbps >= 1000 else f"{mbps:g}{join}Mb/s"


def some(names: Sequence[str]) -> str:
    """Return the first few of some names, and how many more there are."""
    more = len(names) - _NAMED
    return ", ".join(names[:_NAMED]) + (f" and {more} more" if more > 0 else "")
