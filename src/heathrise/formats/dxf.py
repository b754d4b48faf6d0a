"""A new design from a DXF drawing: chosen layers become walls, doors and windows.

Lines, polylines and arcs are read, in the drawing itself and in blocks it inserts. What the
blocks hold is counted before anything is expanded, so that a drawing which would unfold into
millions of lines is refused at once.
"""

from __future__ import annotations

import io
import itertools
import math
import struct
from collections import Counter
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any, NoReturn

from ezdxf import recover
from ezdxf.audit import Auditor
from ezdxf.document import Drawing
from ezdxf.entities.dxfentity import DXFEntity
from ezdxf.entities.insert import Insert
from ezdxf.lldxf.const import DXFError
from ezdxf.lldxf.tagger import binary_tags_loader
from pydantic import Field
from shapely.geometry import LineString, Polygon
from shapely.ops import polygonize, unary_union
from shapely.strtree import STRtree

from ..core.base.frozen import Frozen, Strict
from ..core.catalogue import Catalogue
from ..core.context.integrity import MAX_ELEMENTS, MIN_WALL_M, check
from ..core.design import Building, Design, DesignError, Floor, Opening, Problem, Site, Space, Wall, design_of

MAX_BYTES = 30_000_000
_HEAD_BYTES = 64  # the binary form tells itself by a zero byte within its first line
MAX_SEGMENTS = 200_000
MAX_DEPTH = 16
LARGEST_SITE_M = 1_500.0
SMALLEST_SITE_M = 2.0
SMALLEST_ROOM_M2 = 1.0
ON_WALL_M = 0.15
ARC_STEP_DEG = 15.0
ARC_SEGMENTS = 24
MAX_CROSSINGS = 20_000

# $INSUNITS to metres; 0 means that the drawing does not say.
UNITS_M: dict[str, float] = {"mm": 0.001, "cm": 0.01, "m": 1.0, "in": 0.0254, "ft": 0.3048}
_HEADER_UNITS = {1: "in", 2: "ft", 4: "mm", 5: "cm", 6: "m"}

Segment = tuple[float, float, float, float]


class LayerSummary(Frozen):
    """One layer of a drawing: how much it holds, in drawing units."""

    name: str
    segments: int
    length: float


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
    found = _segments(_read(data))
    if not found.by_layer:
        refuse("drawing", "holds no line, polyline or arc that could become a wall")
    west, south, east, north = _extent(found.by_layer)
    return Inspection(
        units=found.units,
        width=round(east - west, 4),
        height=round(north - south, 4),
        layers=tuple(
            LayerSummary(
                name=layer, segments=len(rows), length=round(sum(math.dist(s[:2], s[2:]) for s in rows), 3)
            )
            for layer, rows in sorted(found.by_layer.items())
        ),
    )


def import_dxf(data: bytes, choice: DrawingChoice, catalogue: Catalogue) -> Design:
    """Return a design of one floor from the chosen layers.

    The drawing's south-west corner becomes the site's zero. Door and window layers become
    openings in the wall they lie on. Closed rings of walls become rooms.

    Raises:
        DesignError: with what is wrong and what to do about it.
    """
    found = _segments(_read(data))
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
    metres = _to_metres(chosen, UNITS_M[units], units)
    design = _draw(metres, choice, catalogue)
    check(design, catalogue)
    return design


def refuse(where: str, what: str) -> NoReturn:
    raise DesignError([Problem(where, what)])


def _read(data: bytes) -> Drawing:
    if len(data) > MAX_BYTES:
        refuse("file", f"{len(data) / 1e6:.0f} MB; at most {MAX_BYTES / 1e6:.0f} MB can be read")
    if not data.strip():
        refuse("file", "is empty")
    try:
        document, auditor = _load(data)
    except (DXFError, struct.error, ValueError, LookupError, TypeError, AttributeError) as error:
        refuse("file", f"is not a DXF drawing that can be read: {str(error)[:160]}")
    except (UnicodeError, RecursionError, OverflowError):
        refuse("file", "is not a DXF drawing that can be read")
    if auditor.has_errors:
        first = auditor.errors[0]
        refuse("file", f"is damaged: {str(first.message)[:160]}")
    return document


def _load(data: bytes) -> tuple[Drawing, Auditor]:
    """Read a drawing as text, mending what can be mended, or in the binary form."""
    if b"\0" not in data[:_HEAD_BYTES]:
        return recover.read(io.BytesIO(data))
    document = Drawing.load(binary_tags_loader(data))
    return document, document.audit()


@dataclass
class _Found:
    units: str | None
    by_layer: dict[str, list[Segment]] = field(default_factory=dict)


def _segments(document: Drawing) -> _Found:
    weights = _Weights(document)
    space = document.modelspace()
    total = sum(weights.of(entity, 0) for entity in space)
    if total > MAX_SEGMENTS:
        refuse(
            "drawing",
            f"unfolds into {total:,} lines; at most {MAX_SEGMENTS:,} can be read. "
            "Keep the wall layers only and save it again.",
        )
    found = _Found(_HEADER_UNITS.get(int(document.header.get("$INSUNITS", 0) or 0)))
    for entity in space:
        for layer, segment in _unfold(entity, _layer(entity)):
            if not all(map(math.isfinite, segment)):
                handle = entity.dxf.get("handle", "?")
                refuse(f"{entity.dxftype()} {handle}", "has a coordinate that is not a number")
            found.by_layer.setdefault(layer, []).append(segment)
    return found


class _Weights:
    """Counts what an entity unfolds into without unfolding it."""

    def __init__(self, document: Drawing) -> None:
        self._blocks = document.blocks
        self._known: dict[str, int] = {}
        self._open: list[str] = []

    def of(self, entity: DXFEntity, depth: int) -> int:
        if isinstance(entity, Insert):
            # A row or column count below one draws nothing; the counts come from the file.
            copies = max(1, int(entity.dxf.get("row_count", 1))) * max(
                1, int(entity.dxf.get("column_count", 1))
            )
            # A block that holds nothing takes its time all the same.
            return copies * max(1, self._block(str(entity.dxf.name), depth + 1))
        if entity.dxftype() in ("LWPOLYLINE", "POLYLINE"):
            bent = getattr(entity, "has_arc", False)
            return max(1, len(entity)) * (ARC_SEGMENTS if bent else 1)  # type: ignore[arg-type]
        return ARC_SEGMENTS if entity.dxftype() == "ARC" else 1

    def _block(self, name: str, depth: int) -> int:
        if name in self._known:
            return self._known[name]
        if name in self._open or depth > MAX_DEPTH:
            refuse(f"block {name[:60]}", f"holds itself, or is nested more than {MAX_DEPTH} deep")
        block = self._blocks.get(name)
        if block is None:
            return 0
        self._open.append(name)
        self._known[name] = sum(self.of(e, depth) for e in block)
        self._open.pop()
        return self._known[name]


def _unfold(entity: DXFEntity, layer: str) -> Iterator[tuple[str, Segment]]:
    """Yield (layer, segment); what lies on layer 0 in a block takes the insert's layer."""
    if isinstance(entity, Insert):
        for part in entity.multi_insert() if entity.mcount > 1 else (entity,):
            for child in part.virtual_entities():
                inner = _layer(child)
                yield from _unfold(child, layer if inner == "0" else inner)
        return
    for segment in _lines(entity):
        # Not "> 0": what is not a number must get as far as the check that names it.
        if math.dist(segment[:2], segment[2:]) != 0:
            yield layer, segment


def _layer(entity: DXFEntity) -> str:
    """Return an entity's layer; one without any lies on layer 0."""
    return str(entity.dxf.get("layer", "0")) if entity.dxf.is_supported("layer") else "0"


def _lines(entity: Any) -> Iterator[Segment]:
    kind = entity.dxftype()
    if kind == "LINE":
        start, end = entity.dxf.start, entity.dxf.end
        yield (start.x, start.y, end.x, end.y)
    elif kind in ("LWPOLYLINE", "POLYLINE"):
        for part in entity.virtual_entities():
            yield from _lines(part)
    elif kind == "ARC":
        points = list(entity.flattening(sagitta=_sagitta(entity.dxf.radius)))
        for a, b in itertools.pairwise(points):
            yield (a.x, a.y, b.x, b.y)


def _sagitta(radius: float) -> float:
    return max(abs(radius) * (1 - math.cos(math.radians(ARC_STEP_DEG / 2))), 1e-6)


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


def _draw(layers: Mapping[str, list[Segment]], choice: DrawingChoice, catalogue: Catalogue) -> Design:
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
    rooms = _rooms(walls) if choice.find_rooms else ()
    return design_of([site, building, floor, *walls, *_placed(walls, openings), *rooms])


def _placed(walls: list[Wall], rows: list[tuple[str, str, Segment]]) -> Iterator[Opening]:
    """Yield an opening for each door or window line that lies along a wall."""
    taken: Counter[str] = Counter()
    tree = STRtree([LineString([w.a, w.b]) for w in walls])
    for kind, construction, s in rows:
        near = tree.query(LineString([s[:2], s[2:]]), predicate="dwithin", distance=ON_WALL_M)
        for wall in (walls[k] for k in sorted(near)):
            start, end = (_foot(wall, s[k], s[k + 1]) for k in (0, 2))
            if max(start[1], end[1]) > ON_WALL_M:
                continue
            low, high = sorted((start[0], end[0]))
            low, high = max(low, 0.0), min(high, wall.length_m)
            if high - low > 0.1:
                taken[wall.id] += 1
                yield Opening.model_validate(
                    {
                        "id": f"o-{wall.id}-{taken[wall.id]}",
                        "wall": wall.id,
                        "kind": kind,
                        "offset_m": round(low, 4),
                        "width_m": round(high - low, 4),
                        "construction": construction,
                    }
                )
                break


def _foot(wall: Wall, x: float, y: float) -> tuple[float, float]:
    """Return how far along a wall, and how far off it, a point lies, in m."""
    (ax, ay), (bx, by) = wall.a, wall.b
    dx, dy = (bx - ax) / wall.length_m, (by - ay) / wall.length_m
    return (x - ax) * dx + (y - ay) * dy, abs((x - ax) * dy - (y - ay) * dx)


def _rooms(walls: list[Wall]) -> Iterator[Space]:
    drawn = [LineString([w.a, w.b]) for w in walls]
    crossings = len(STRtree(drawn).query(drawn, predicate="crosses")[0]) // 2
    if crossings > MAX_CROSSINGS:
        refuse(
            "layers",
            f"the walls would cross each other {crossings:,} times, as hatching does; at most "
            f"{MAX_CROSSINGS:,} can be read. Choose the layers of walls only.",
        )
    lines = unary_union(drawn)
    rings: list[Polygon] = [p for p in polygonize(lines) if p.area >= SMALLEST_ROOM_M2 and not _thin(p)]
    rings.sort(key=lambda p: (-p.centroid.y, p.centroid.x))
    for number, ring in enumerate(rings[: MAX_ELEMENTS["space"]], start=1):
        corners = tuple((round(x, 4), round(y, 4)) for x, y in ring.exterior.coords[:-1])
        if 3 <= len(corners) <= 500 and Polygon(corners).is_valid:
            yield Space(id=f"room-{number}", floor="floor-1", name=f"Room {number}", outline=corners)


def _thin(ring: Polygon) -> bool:
    """Whether a ring is the inside of a wall drawn by its two faces rather than a room."""
    return bool(2 * ring.area / ring.length < 0.35)


__all__ = ["DrawingChoice", "Inspection", "LayerSummary", "import_dxf", "inspect_dxf"]
