"""Outlines as shapes, each made once: most of a drawing stays as it is from one edit to the next."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

from shapely.geometry import Polygon

_KEPT = 4096


@lru_cache(maxsize=_KEPT)
def shape_of(outline: tuple[tuple[float, float], ...]) -> Any:
    """Return the area within an outline, in m; it may cross itself."""
    return Polygon(outline)
