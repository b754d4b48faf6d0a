"""The frame that a rack's contents fit in, with what comes later, and how it is held."""

from __future__ import annotations

import math
from collections.abc import Sequence

from shapely.geometry import LineString, Point

from ..base.wording import metres
from ..catalogue import Catalogue, FrameModel, Rules, on_offer
from ..design import Design, EquipmentRoom, Wall
from .values import Fixing, Thing

_AT_WALL_M = 1.5


def units_wanted(rules: Rules, things: Sequence[Thing], later_units: int) -> int:
    """Return the units that a rack's things take with blanks over fans, those kept for what comes
    later, and the share that is kept free."""
    own = sum(t.units for t in things if not t.on)
    fans = sum(t.noise_db > 0 and t.units > 0 for t in things)
    blanks = fans * int(rules["rack.fan_blank_units"])
    return own + blanks + max(later_units, math.ceil(rules["rack.spare_share"] * own - 1e-9))


def fits(rules: Rules, frame: FrameModel, things: Sequence[Thing], units: int) -> bool:
    deep = max((t.deep_mm for t in things), default=0.0) + rules["rack.plug_mm"]
    return frame.units >= units and frame.deep_mm >= deep and frame.bears_kg >= sum(t.kg for t in things)


def frame_for(
    catalogue: Catalogue, room: EquipmentRoom, things: Sequence[Thing], units: int
) -> tuple[FrameModel, bool]:
    """Return the frame of a rack and whether everything fits: the one that was chosen, else the
    cheapest that does, else the largest there is."""
    rules = catalogue.rules
    if room.frame is not None:
        chosen = catalogue.frames[room.frame]
        own = sum(t.units for t in things if not t.on)
        return chosen, fits(rules, chosen, things, own)
    fitting = [f for f in on_offer(catalogue.frames) if fits(rules, f, things, units)]
    if fitting:
        return min(fitting, key=lambda f: (f.price, f.units)), True
    largest = max(on_offer(catalogue.frames), key=lambda f: (f.units, f.deep_mm))
    return largest, fits(rules, largest, things, sum(t.units for t in things if not t.on))


def fixing_of(
    design: Design, catalogue: Catalogue, room: EquipmentRoom, frame: FrameModel, kg: float
) -> Fixing:
    """Return how a frame is held: on its feet, in masonry, in two studs, or on a board across them."""
    rules = catalogue.rules
    if not frame.wall:
        return Fixing(
            into="floor", fixings=4, bears_kg=frame.bears_kg, reason="on its feet, fixed against tipping"
        )
    wall = wall_behind(design, room)
    if wall is None:
        return Fixing(into="unknown", fixings=0, bears_kg=0.0, reason="no wall is drawn behind it")
    made = catalogue.constructions[wall.construction]
    each = rules["rack.fixing_kg.studs" if made.studs else "rack.fixing_kg.masonry"]
    wanted = max(4, math.ceil(kg * rules["rack.fixing_safety"] / each - 1e-9))
    wanted += wanted % 2  # as many at either side
    common = {"wall": wall.id, "fixings": wanted, "bears_kg": wanted * each, "holes_mm": frame.holes_mm}
    if not made.studs:
        said = f"anchors into {made.label.lower()}"
        if not made.masonry:
            common |= {"fixings": 0, "bears_kg": 0.0}
            said = f"{made.label.lower()} bears no frame"
        into = "masonry" if made.masonry else "unknown"
        return Fixing.model_validate({"into": into, "reason": said, **common})
    stud_m = room.stud_m or rules["rack.stud_m"]
    hits = meets_studs(frame.holes_mm, stud_m * 1000, rules["rack.stud_reach_mm"])
    how = "measured" if room.stud_m is not None else "taken for"
    spaced = f"studs {how} {metres(stud_m)} apart"
    holes = f"holes {frame.holes_mm:g} mm apart"
    reason = (
        f"{holes} meet {spaced}" if hits else f"{holes} miss {spaced}: a backing board across two of them"
    )
    measured = room.stud_m is not None
    more = {"stud_m": stud_m, "measured": measured, "board": not hits, "reason": reason}
    return Fixing.model_validate({"into": "studs", **common, **more})


def meets_studs(holes_mm: float, stud_mm: float, reach_mm: float) -> bool:
    """Whether two rows of holes can both sit on studs: their distance is a whole number of spacings,
    each within reach of a stud's middle."""
    steps = round(holes_mm / stud_mm)
    return steps >= 1 and abs(holes_mm - steps * stud_mm) <= 2 * reach_mm


def wall_behind(design: Design, room: EquipmentRoom) -> Wall | None:
    """Return the wall that a rack stands at."""
    at = Point(room.at)
    rows = [
        (LineString([w.a, w.b]).distance(at), w) for w in design.of(Wall).values() if w.floor == room.floor
    ]
    best = min(rows, key=lambda row: row[0], default=None)
    return best[1] if best is not None and best[0] <= _AT_WALL_M else None
