"""A new design from a DXF drawing: chosen layers become walls, doors and windows; what the walls close
becomes rooms, named by the words written in them."""

from __future__ import annotations

import math
import re
from collections import Counter
from collections.abc import Iterable, Iterator, Mapping, Sequence
from typing import Any

import shapely
from pydantic import Field
from shapely.geometry import LineString
from shapely.strtree import STRtree

from ..core.base.frozen import Frozen, Strict
from ..core.catalogue import Catalogue, load_catalogue
from ..core.context.integrity import MAX_ELEMENTS, MIN_WALL_M, check
from ..core.design import Building, Design, Floor, Opening, Site, Space, Wall, design_of
from ..core.walling import MAX_CROSSINGS, fresh_names, net_of, outline_of
from .dxf_entities import Segment, Text, entities_of, read_drawing, refuse

LARGEST_SITE_M = 1_500.0
SMALLEST_SITE_M = 2.0
ON_WALL_M = 0.15
_LEAST_OPENING_M = 0.1

UNITS_M: dict[str, float] = {"mm": 0.001, "cm": 0.01, "m": 1.0, "in": 0.0254, "ft": 0.3048}


class LayerSummary(Frozen):
    """One layer of a drawing: how much it holds, in drawing units."""

    name: str
    segments: int
    length: float
    likely: str = Field("", description="the construction that its name ends in, as our own drawings have it")


class Inspection(Frozen):
    """What a drawing holds. ``units`` is None where the header does not say."""

    units: str | None
    width: float
    height: float
    layers: tuple[LayerSummary, ...]


class DrawingChoice(Strict):
    """What the user chose: a construction for each layer that is to be drawn."""

    name: str = Field(min_length=1, max_length=120)
    units: str | None = None
    layers: dict[str, str]
    storey_name: str = Field(default="Ground floor", min_length=1, max_length=120)
    ceiling_height_m: float = Field(default=2.7, gt=1.5, le=30)
    find_rooms: bool = True


def inspect_dxf(data: bytes) -> Inspection:
    """Return the layers, extents and units of a drawing.

    Raises:
        DesignError: the drawing cannot be read, or would unfold into too much.
    """
    found = entities_of(read_drawing(data))
    if not found.by_layer:
        refuse("drawing", "holds no line, polyline or arc that could become a wall")
    west, south, east, north = _extent(found.by_layer)
    return Inspection(
        units=found.units,
        width=round(east - west, 4),
        height=round(north - south, 4),
        layers=tuple(
            LayerSummary(
                name=layer,
                segments=len(rows),
                length=round(sum(math.dist(s[:2], s[2:]) for s in rows), 3),
                likely=_likely(layer),
            )
            for layer, rows in sorted(found.by_layer.items())
        ),
    )


def _likely(layer: str) -> str:
    """Return the construction that a layer of a drawing of our own is named after."""
    words = layer.split()
    ours = len(words) > 2 and words[-2] in ("WALL", "OPENING")
    return words[-1] if ours and words[-1] in load_catalogue().constructions else ""


def import_dxf(data: bytes, choice: DrawingChoice, catalogue: Catalogue) -> Design:
    """Return a design of one floor from the chosen layers.

    The drawing's south-west corner becomes the site's zero. Door and window layers become
    openings in the wall they lie on. Closed rings of walls become rooms.

    Raises:
        DesignError: with what is wrong and what to do about it.
    """
    found = entities_of(read_drawing(data))
    units = choice.units or found.units
    if units not in UNITS_M:
        refuse("units", f"the drawing does not say its units; choose one of {', '.join(UNITS_M)}")
    for layer, construction in choice.layers.items():
        if layer not in found.by_layer:
            refuse(f"layers[{layer[:60]}]", "the drawing has no such layer")
        if construction not in catalogue.constructions:
            refuse(f"layers[{layer[:60]}]", f"{construction[:60]!r} is not in the catalogue")
    chosen = {layer: found.by_layer[layer] for layer in choice.layers}
    if not any(chosen.values()):
        refuse("layers", "choose at least one layer to be drawn as walls")
    if not any(catalogue.constructions[c].kind == "wall" for c in choice.layers.values()):
        refuse("layers", "none of the chosen layers is drawn as walls; choose a wall's construction")
    scaled = _to_metres(chosen, UNITS_M[units], units)
    design = _draw(
        scaled, choice, catalogue, [_scaled(t, chosen, UNITS_M[units]) for t in _telling(found.texts, chosen)]
    )
    check(design, catalogue)
    return design


def _extent(layers: Mapping[str, list[Segment]]) -> tuple[float, float, float, float]:
    xs = [x for rows in layers.values() for s in rows for x in (s[0], s[2])]
    ys = [y for rows in layers.values() for s in rows for y in (s[1], s[3])]
    return min(xs), min(ys), max(xs), max(ys)


def _to_metres(layers: Mapping[str, list[Segment]], scale: float, units: str) -> dict[str, list[Segment]]:
    west, south, east, north = _extent(layers)
    size = max(east - west, north - south) * scale
    if not SMALLEST_SITE_M <= size <= LARGEST_SITE_M:
        better = [u for u, m in UNITS_M.items() if 8 <= size / scale * m <= 300]
        hint = f" In {' or '.join(better)} it would be a building's size." if better else ""
        refuse("units", f"the drawing would be {size:,.2f} m across in {units}.{hint}")
    return {
        layer: [
            (
                round((s[0] - west) * scale, 4),
                round((s[1] - south) * scale, 4),
                round((s[2] - west) * scale, 4),
                round((s[3] - south) * scale, 4),
            )
            for s in rows
        ]
        for layer, rows in layers.items()
    }


def _telling(texts: Sequence[Text], layers: Iterable[str]) -> Sequence[Text]:
    """Return the words that may name rooms: of a drawing of our own those of the storey's rooms alone."""
    ours = {f"{layer.rsplit(maxsplit=2)[0]} ROOM" for layer in layers if _likely(layer)}
    return [t for t in texts if t.layer in ours] if ours else texts


def _scaled(text: Text, layers: Mapping[str, list[Segment]], scale: float) -> Text:
    west, south, _, _ = _extent(layers)
    (mx, my), (x, y) = text.middle, text.start
    middle, start = (((px - west) * scale, (py - south) * scale) for px, py in ((mx, my), (x, y)))
    return Text(text.lines, middle, start, text.height * scale, text.layer)


def _draw(
    layers: Mapping[str, list[Segment]], choice: DrawingChoice, catalogue: Catalogue, texts: Sequence[Text]
) -> Design:
    walls: list[Wall] = []
    openings: list[tuple[str, str, Segment]] = []
    seen: set[tuple[tuple[float, float], tuple[float, float]]] = set()
    for layer, rows in layers.items():
        construction = catalogue.constructions[choice.layers[layer]]
        for s in rows:
            if construction.kind in ("door", "window", "gap"):
                openings.append((construction.kind, construction.id, s))
                continue
            ends = ((s[0], s[1]), (s[2], s[3]))
            key = (min(ends), max(ends))
            if math.dist(*ends) < MIN_WALL_M or key in seen:
                continue
            seen.add(key)
            walls.append(
                Wall(
                    id=f"w{len(walls) + 1}",
                    floor="floor-1",
                    a=ends[0],
                    b=ends[1],
                    construction=construction.id,
                )
            )
            if len(walls) > MAX_ELEMENTS["wall"]:
                refuse(
                    f"layers[{layer[:60]}]",
                    f"gives more than {MAX_ELEMENTS['wall']:,} walls; choose fewer layers",
                )
    if not walls:
        refuse("layers", "none of the chosen layers gives a wall; choose a wall's construction")
    site = Site(id="site", kind="office")
    building = Building(id="building-1", name=choice.name)
    floor = Floor(
        id="floor-1",
        building="building-1",
        name=choice.storey_name,
        level=0,
        ceiling_height_m=choice.ceiling_height_m,
    )
    rooms = _rooms(walls, texts) if choice.find_rooms else ()
    return design_of([site, building, floor, *walls, *_placed(walls, openings), *rooms])


def _placed(walls: list[Wall], rows: list[tuple[str, str, Segment]]) -> Iterator[Opening]:
    """Yield an opening for each door or window line that lies along a wall."""
    taken: Counter[str] = Counter()
    tree = STRtree([LineString([w.a, w.b]) for w in walls])
    for kind, construction, s in rows:
        near = tree.query(LineString([s[:2], s[2:]]), predicate="dwithin", distance=ON_WALL_M)
        # Where walls go on from one another, the one that holds most of it.
        spots = {int(k): _held(walls[k], s) for k in near}
        held = [(-round(spot[1] - spot[0], 4), k, spot[0]) for k, spot in spots.items() if spot]
        if held:
            width, k, low = min(held)
            wall = walls[k]
            taken[wall.id] += 1
            yield Opening.model_validate(
                {
                    "id": f"o-{wall.id}-{taken[wall.id]}",
                    "wall": wall.id,
                    "kind": kind,
                    "offset_m": round(low, 4),
                    "width_m": -width,
                    "construction": construction,
                }
            )


def _held(wall: Wall, line: Segment) -> tuple[float, float] | None:
    """Return from where to where along a wall a line lies in it; None where it does not."""
    start, end = (_foot(wall, line[k], line[k + 1]) for k in (0, 2))
    if max(start[1], end[1]) > ON_WALL_M:
        return None
    low, high = sorted((start[0], end[0]))
    low, high = max(low, 0.0), min(high, wall.length_m)
    return (low, high) if high - low > _LEAST_OPENING_M else None


def _foot(wall: Wall, x: float, y: float) -> tuple[float, float]:
    """Return how far along a wall, and how far off it, a point lies, in m."""
    (ax, ay), (bx, by) = wall.a, wall.b
    dx, dy = (bx - ax) / wall.length_m, (by - ay) / wall.length_m
    return (x - ax) * dx + (y - ay) * dy, abs((x - ax) * dy - (y - ay) * dx)


def _rooms(walls: Sequence[Wall], texts: Sequence[Text]) -> Iterator[Space]:
    """Yield the rooms that walls close, each by the name that is written in it."""
    net = net_of(walls)
    if net.tangled:
        refuse(
            "layers",
            f"the walls would cross each other {net.tangled:,} times, as hatching does; at most "
            f"{MAX_CROSSINGS:,} can be read. Choose the layers of walls only.",
        )
    empty = design_of([])
    names, used = fresh_names(empty), Counter[str]()
    for place in net.faces[: MAX_ELEMENTS["space"]]:
        outline = outline_of(place)
        if outline is None:
            continue
        key, plain = next(names)
        name = _written_in(place, texts) or plain
        used[name] += 1
        told = f"{name} {used[name]}" if used[name] > 1 else name
        yield Space(id=key, floor="floor-1", name=told, outline=outline)


_LETTER = re.compile(r"[^\W\d_]{2}")
_UNIT = r"(m2|m²|qm|sqm|sq\.? ?m|sq\.? ?ft|ft2|ft²|mm|cm|m|ft|in)?\.?$"
_FIGURE = re.compile(r"^[\s\d.,/x×+±=:-]*\d[\s\d.,/x×]*\s*" + _UNIT, re.IGNORECASE)
_LONGEST_NAME = 60


def _written_in(place: Any, texts: Sequence[Text]) -> str | None:
    """Return the room's name: of the words written in it the highest, figures and dimensions left out."""
    shapely.prepare(place)
    inside = [t for t in texts if any(place.contains(shapely.Point(p)) for p in (t.middle, t.start))]
    rows = [
        (round(text.height, 3), -row, line)
        for text in inside
        for row, line in enumerate(text.lines)
        if _LETTER.search(line) and not _FIGURE.match(line)
    ]
    best = max(rows, default=None, key=lambda r: r[:2])
    return " ".join(best[2].split())[:_LONGEST_NAME] if best else None


__all__ = ["DrawingChoice", "Inspection", "LayerSummary", "import_dxf", "inspect_dxf"]
