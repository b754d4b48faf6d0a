"""Drawings as other people make them, of storeys whose rooms are known: two faces, door blocks that are
turned and mirrored, windows on a layer of their own, storeys side by side, units left unsaid."""

from __future__ import annotations

import io
import math
import random
from collections.abc import Sequence
from dataclasses import dataclass

import ezdxf
import shapely
from ezdxf.document import Drawing
from shapely.geometry import LineString

from ..core.storeys_of_rooms import Box, Cut
from ..core.test_faces import DOOR_M, INNER_M, OUTER_M, door_of, is_rim

UNITS = {"mm": (0.001, 4), "cm": (0.01, 5), "m": (1.0, 6), "in": (0.0254, 1), "ft": (0.3048, 2)}
BESIDE_M = 8.0


@dataclass(frozen=True)
class Foreign:
    """How a drawing is made: what is drawn of walls, in which units, and whether it says them."""

    walls: str = "lines"  # or polylines, solids, hatches, multilines, centre
    units: str = "mm"
    says_units: bool = True
    doors: str = "blocks"  # or arcs
    turn_deg: float = 0.0
    version: str = "R2010"


def drawing_of(storeys: Sequence[Cut], how: Foreign, seed: int = 1) -> Drawing:
    """One drawing of storeys side by side, each under its title."""
    document = ezdxf.new(how.version)
    metres, code = UNITS[how.units]
    document.header["$INSUNITS"] = code if how.says_units else 0
    chance = random.Random(seed)
    _door_block(document, 1 / metres)
    for name, thick_m in (("OUTER", OUTER_M), ("INNER", INNER_M)):
        style = document.mline_styles.new(name)
        for side in (1, -1):
            style.elements.append(side * thick_m / 2 / metres, 0)
    west = 0.0
    for level, cut in enumerate(storeys):
        _storey(document, cut, how, west, level, chance)
        west += max(b[2] for b in cut.rooms) + BESIDE_M
    return document


def _door_block(document: Drawing, scale: float) -> None:
    """A door of 90 cm: its hinge at zero, its leaf open upwards, shut along x."""
    block = document.blocks.new("DR90")
    block.add_line((0, 0), (0, DOOR_M * scale))
    block.add_arc((0, 0), DOOR_M * scale, 0, 90)


def _storey(
    document: Drawing, cut: Cut, how: Foreign, west: float, level: int, chance: random.Random
) -> None:
    scale = 1 / UNITS[how.units][0]
    turn = math.radians(how.turn_deg)

    def there(p: tuple[float, float]) -> tuple[float, float]:
        x, y = p
        return (
            (west + x * math.cos(turn) - y * math.sin(turn)) * scale,
            (x * math.sin(turn) + y * math.cos(turn)) * scale,
        )

    space = document.modelspace()
    doors = [(w, d) for w in cut.walls if not is_rim(cut, w) and (d := door_of(cut, w))]
    thick = {w: OUTER_M if is_rim(cut, w) else INNER_M for w in cut.walls}
    if how.walls in ("centre", "multilines"):
        for w in cut.walls:
            if how.walls == "centre":
                space.add_line(there(w[0]), there(w[1]), dxfattribs={"layer": "A-WALL"})
            else:
                name = "OUTER" if thick[w] == OUTER_M else "INNER"
                line = space.add_mline(dxfattribs={"layer": "A-WALL", "justification": 1})
                line.set_style(name)
                line.extend([there(w[0]), there(w[1])])
    else:
        solid = shapely.union_all([LineString(w).buffer(t / 2, cap_style="square") for w, t in thick.items()])
        holes = [LineString(d).buffer(thick[w], cap_style="flat") for w, d in doors]
        solid = solid.difference(shapely.union_all(holes)) if holes else solid
        for part in getattr(solid, "geoms", [solid]):
            for ring in (part.exterior, *part.interiors):
                points = [there(p) for p in ring.simplify(1e-6).coords[:-1]]
                if how.walls == "polylines":
                    space.add_lwpolyline(points, close=True, dxfattribs={"layer": "A-WALL"})
                elif how.walls == "hatches":
                    hatch = space.add_hatch(dxfattribs={"layer": "A-WALL"})
                    hatch.paths.add_polyline_path(points, is_closed=True)
                else:
                    for a, b in zip(points, points[1:] + points[:1], strict=True):
                        ends = (a, b) if chance.random() < 0.5 else (b, a)
                        space.add_line(*ends, dxfattribs={"layer": "A-WALL"})
    for w, (a, b) in doors:
        _door(document, there(a), there(b), how, chance)
        del w
    for k, (x0, y0, x1, y1) in enumerate(cut.rooms, 1):
        at = there(((x0 + x1) / 2, (y0 + y1) / 2))
        text = space.add_text(f"Chamber {k}", height=0.2 * scale, dxfattribs={"layer": "A-TEXT"})
        text.set_placement(at, align=ezdxf.enums.TextEntityAlignment.MIDDLE_CENTER)
    title = space.add_text(f"Floor {level}", height=0.35 * scale, dxfattribs={"layer": "A-TITLE"})
    title.set_placement(there((1.0, -1.0)))


def _door(
    document: Drawing,
    hinge: tuple[float, float],
    shut: tuple[float, float],
    how: Foreign,
    chance: random.Random,
) -> None:
    space = document.modelspace()
    if chance.random() < 0.5:
        hinge, shut = shut, hinge
    angle = math.degrees(math.atan2(shut[1] - hinge[1], shut[0] - hinge[0]))
    mirrored = chance.random() < 0.5
    if how.doors == "blocks":
        attributes = {"layer": "A-DOOR", "rotation": angle, "yscale": -1.0 if mirrored else 1.0}
        space.add_blockref("DR90", hinge, dxfattribs=attributes)
        return
    size = math.dist(hinge, shut)
    start, end = (angle - 90, angle) if mirrored else (angle, angle + 90)
    space.add_arc(hinge, size, start, end, dxfattribs={"layer": "A-DOOR"})


def bytes_of(document: Drawing) -> bytes:
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode("utf-8", "surrogateescape")


def areas_of(cut: Cut) -> list[float]:
    return sorted(_area(b) for b in cut.rooms)


def _area(box: Box) -> float:
    return (box[2] - box[0]) * (box[3] - box[1])
