"""A new design from a DXF drawing: chosen layers become walls, doors and windows; what the walls close
becomes rooms, named by the words written in them. A drawing may hold one storey or several."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Annotated

from pydantic import Field

from ..core.base.frozen import Strict
from ..core.catalogue import Catalogue, drawing_style
from ..core.context.integrity import check
from ..core.design import Building, Design, Element, Floor, Site, design_of
from ..core.walling import fresh_names
from .dxf_entities import Entities, Text, entities_of, read_drawing, refuse
from .dxf_lines import Segment, Swing
from .dxf_look import UNITS_M, Box, Inspection, LayerSummary, extent, inspect_dxf, our_construction
from .dxf_own import Place, gear_in
from .dxf_rooms import rooms_of
from .dxf_walls import Drawn, constructions_of, walls_of

LARGEST_SITE_M = 1_500.0
SMALLEST_SITE_M = 2.0
_BESIDE = 0.02  # of a plan's size: what lies so near to its box is of it

Layers = dict[str, str]


class StoreyChoice(Strict):
    """One storey of a drawing: a part of the sheet (west, south, east, north in drawing units), layers of
    its own, or both."""

    name: Annotated[str, Field(min_length=1, max_length=120)]
    box: Box | None = None
    layers: Layers | None = None
    ceiling_height_m: Annotated[float, Field(gt=1.5, le=30)] | None = None


class DrawingChoice(Strict):
    """What the user chose: a construction for each layer that is to be drawn, storeys from the lowest up.

    ``faces`` says whether a wall is drawn by its two faces; unsaid, the drawing tells. ``thick`` is what
    walls of 20 cm and more are built of, where that is not what their layer says. Layers that are
    ``left_out`` are remembered too. ``find_gear`` takes along what stands in a drawing of our own.
    """

    name: str = Field(min_length=1, max_length=120)
    units: str | None = None
    layers: Layers
    storey_name: str = Field(default="Ground floor", min_length=1, max_length=120)
    ceiling_height_m: float = Field(default=2.7, gt=1.5, le=30)
    find_rooms: bool = True
    find_gear: bool = True
    faces: bool | None = None
    thick: str | None = None
    storeys: Annotated[tuple[StoreyChoice, ...], Field(max_length=20)] = ()
    left_out: Annotated[tuple[str, ...], Field(max_length=500)] = ()


def import_dxf(data: bytes, choice: DrawingChoice, catalogue: Catalogue) -> Design:
    """Return a design of one building from the chosen layers.

    The south-west corner of the drawing, or of each part of it, becomes the site's zero. Door and window
    layers become openings in the wall they lie on, so do swings of doors. Closed rings of walls become rooms.

    Raises:
        DesignError: with what is wrong and what to do about it.
    """
    found = entities_of(read_drawing(data))
    units = choice.units or found.units
    if units not in UNITS_M:
        refuse("units", f"the drawing does not say its units; choose one of {', '.join(UNITS_M)}")
    storeys = choice.storeys or (StoreyChoice(name=choice.storey_name),)
    for layers in (choice.layers, *(s.layers for s in storeys if s.layers is not None)):
        _check_layers(layers, found, catalogue)
    if choice.thick is not None:
        _check_construction("thick", choice.thick, catalogue)
    elements: list[Element] = [Site(id="site", kind="office"), Building(id="building-1", name=choice.name)]
    rest: list[Element] = []
    elevation_m, count, names = 0.0, 0, fresh_names(design_of([]))
    chosen = {layer for s in storeys for layer in (s.layers or choice.layers)}
    together = extent({layer: found.by_layer[layer] for layer in chosen})
    own: dict[str, tuple[Floor, Place]] = {}
    for level, storey in enumerate(storeys):
        layers = storey.layers or choice.layers
        lines = {layer: _within(found.by_layer[layer], storey.box) for layer in layers}
        if not any(lines.values()):
            refuse(f"storeys[{storey.name[:60]}]", "none of the chosen layers has a line there")
        zero = extent(lines) if storey.box else together
        _check_size(zero, UNITS_M[units], units)
        ceiling_m = storey.ceiling_height_m or choice.ceiling_height_m
        floor = Floor(
            id=f"floor-{level + 1}",
            building="building-1",
            name=storey.name,
            level=level,
            elevation_m=round(elevation_m, 3),
            ceiling_height_m=ceiling_m,
        )
        elements.append(floor)
        elevation_m += ceiling_m + drawing_style().measures.slab_m
        place = _Place(zero, UNITS_M[units])
        others = {k: v for k, v in found.by_layer.items() if k not in chosen}
        drawn = Drawn(
            {k: place.segments(v) for k, v in lines.items()},
            constructions_of(layers, catalogue),
            place.segments([s for rows in others.values() for s in _within(rows, storey.box or zero)]),
            [place.swing(s) for s in found.swings],
            choice.faces,
            choice.thick,
        )
        walls, openings = walls_of(drawn, floor.id, count)
        if not walls:
            refuse("layers", "none of the chosen layers gives a wall; choose a wall's construction")
        count += len(walls)
        rest += [*walls, *openings]
        if choice.find_rooms:
            texts = [place.text(t) for t in _telling(found.texts, layers)]
            rest += rooms_of(walls, texts, floor.id, names)
        own |= dict.fromkeys(_own_storeys(layers), (floor, place.spot))
    if choice.find_gear:
        rest += gear_in(found, own, UNITS_M[units], catalogue)
    design = design_of([*elements, *rest])
    check(design, catalogue)
    return design


def _check_layers(layers: Mapping[str, str], found: Entities, catalogue: Catalogue) -> None:
    for layer, construction in layers.items():
        if layer not in found.by_layer:
            refuse(f"layers[{layer[:60]}]", "the drawing has no such layer")
        _check_construction(f"layers[{layer[:60]}]", construction, catalogue)
    if not any(found.by_layer[layer] for layer in layers):
        refuse("layers", "choose at least one layer to be drawn as walls")
    if not any(catalogue.constructions[c].kind == "wall" for c in layers.values()):
        refuse("layers", "none of the chosen layers is drawn as walls; choose a wall's construction")


def _check_construction(where: str, construction: str, catalogue: Catalogue) -> None:
    if construction not in catalogue.constructions:
        refuse(where, f"{construction[:60]!r} is not in the catalogue")


def _check_size(box: Box, scale: float, units: str) -> None:
    size = max(box[2] - box[0], box[3] - box[1]) * scale
    if not SMALLEST_SITE_M <= size <= LARGEST_SITE_M:
        better = [u for u, m in UNITS_M.items() if 8 <= size / scale * m <= 300]
        hint = f" In {' or '.join(better)} it would be a building's size." if better else ""
        refuse("units", f"the drawing would be {size:,.2f} m across in {units}.{hint}")


def _within(rows: Sequence[Segment], box: Box | None) -> Sequence[Segment]:
    if box is None:
        return rows
    more = _BESIDE * max(box[2] - box[0], box[3] - box[1])
    west, south, east, north = box[0] - more, box[1] - more, box[2] + more, box[3] + more
    return [
        s
        for s in rows
        if min(s[0], s[2]) >= west and max(s[0], s[2]) <= east
        if min(s[1], s[3]) >= south and max(s[1], s[3]) <= north
    ]


class _Place:
    """Where a drawing lies on the site: its south-west corner at zero, in m."""

    def __init__(self, box: Box, scale: float) -> None:
        self._west, self._south = box[:2]
        self._scale = scale

    def spot(self, x: float, y: float) -> tuple[float, float]:
        return round((x - self._west) * self._scale, 4), round((y - self._south) * self._scale, 4)

    def segments(self, rows: Sequence[Segment]) -> list[Segment]:
        return [(*self.spot(s[0], s[1]), *self.spot(s[2], s[3])) for s in rows]

    def swing(self, swing: Swing) -> Swing:
        return Swing(self.spot(*swing.hinge), self.spot(*swing.one), self.spot(*swing.other))

    def text(self, text: Text) -> Text:
        return Text(
            text.lines, self.spot(*text.middle), self.spot(*text.start), text.height * self._scale, text.layer
        )


def _own_storeys(layers: Mapping[str, str]) -> set[str]:
    """Return the storeys that layers of a drawing of our own are named after."""
    return {layer.rsplit(maxsplit=2)[0] for layer in layers if our_construction(layer)}


def _telling(texts: Sequence[Text], layers: Mapping[str, str]) -> Sequence[Text]:
    """Return the words that may name rooms: of a drawing of our own those of the storey's rooms alone."""
    ours = {f"{storey} ROOM" for storey in _own_storeys(layers)}
    return [t for t in texts if t.layer in ours] if ours else texts


__all__ = ["DrawingChoice", "Inspection", "LayerSummary", "StoreyChoice", "import_dxf", "inspect_dxf"]
