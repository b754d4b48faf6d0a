"""Which rack a thing stands in, and which rack leads up to which."""

from __future__ import annotations

import math

from ..catalogue import Catalogue, drawing_style
from ..design import Design, Device, EquipmentRoom, Point, Uplink

RACK_REACH_M = drawing_style().measures.rack_reach_m  # what the line comes in at is in a rack so near to it


def rack_at(design: Design, floor: str, at: Point, reach_m: float = RACK_REACH_M) -> EquipmentRoom | None:
    """Return the rack nearest to a spot within reach, an arm's length if nothing is said, or None."""
    near = (r for r in design.of(EquipmentRoom).values() if r.floor == floor)
    best = min(near, key=lambda r: math.dist(r.at, at), default=None)
    return best if best is not None and math.dist(best.at, at) <= reach_m else None


def stand_in_racks(design: Design, catalogue: Catalogue) -> dict[str, str]:
    """Return by device the rack that it stands in: what the line comes in at, and what is put down and
    not screwed on, at a rack. Cords go to it, no run."""
    found = {}
    for device in design.of(Device).values():
        role = catalogue.role_of(device)
        if (role.leads_out or role.stands_free) and device.state in ("new", "keep"):
            rack = rack_at(design, device.floor, device.at)
            if rack is not None:
                found[device.id] = rack.id
    return found


def leads_up(design: Design) -> dict[str, str]:
    """Return the room that each other room leads up to; the one that leads nowhere comes first.

    Without a word of the installer's every room leads to the one where the line comes in: the
    first that was not told to lead elsewhere.
    """
    said = {u.room: u.to for u in design.of(Uplink).values()}
    rooms = list(design.of(EquipmentRoom))
    top = next((r for r in rooms if r not in said), None)
    return {r: said.get(r, top or "") for r in rooms if r != top}


def top_room(design: Design) -> str | None:
    """Return the room where the line comes in."""
    up = leads_up(design)
    return next((r for r in design.of(EquipmentRoom) if r not in up), None)
