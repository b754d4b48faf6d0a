"""Which rack a thing stands in."""

from __future__ import annotations

import math

from ..catalogue import drawing_style
from ..design import Design, EquipmentRoom, Point

RACK_REACH_M = drawing_style().measures.rack_reach_m  # what the line comes in at is in a rack so near to it


def rack_at(design: Design, floor: str, at: Point) -> EquipmentRoom | None:
    """Return the rack within an arm's length of a spot, or None."""
    near = (r for r in design.of(EquipmentRoom).values() if r.floor == floor)
    best = min(near, key=lambda r: math.dist(r.at, at), default=None)
    return best if best is not None and math.dist(best.at, at) <= RACK_REACH_M else None
