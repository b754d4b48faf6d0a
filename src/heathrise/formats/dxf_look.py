"""What a drawing is likely to mean: its units, its layers, the storeys drawn beside one another on it."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping, Sequence
from statistics import median

import numpy as np
from numpy.typing import NDArray
from pydantic import Field
from scipy import ndimage

from ..core.base.frozen import Frozen
from ..core.catalogue import load_catalogue
from .dxf_entities import Entities, Text, entities_of, read_drawing, refuse
from .dxf_lines import Segment

UNITS_M: dict[str, float] = {"mm": 0.001, "cm": 0.01, "m": 1.0, "in": 0.0254, "ft": 0.3048}
Box = tuple[float, float, float, float]
Lines = NDArray[np.float64]  # shape (n, 4)

_DOOR_M = (0.55, 1.35)
_SITE_M = (6.0, 250.0)
_APART_M = 2.5  # what is drawn farther apart is drawn for itself
_LEAST_LINES, _LEAST_SHARE = 4, 0.12
_MOST_PARTS = 12
_MOST_CELLS, _MOST_SPOTS = 2_000, 4_000_000
_LARGEST = 1e12
_TITLE_M = 2.0
_WORDS: dict[str, tuple[str, ...]] = {
    "door": ("door", "tür", "tuer", "porte", "puerta", "deur"),
    "window": ("window", "glaz", "fenster", "fenetre", "fenêtre", "ventana", "raam"),
    "outer": ("ext wall", "outer", "facade", "fassade", "aussen", "außen", "exterior"),
    "inner": ("partition", "inner", "int wall", "innen", "trennwand", "cloison", "interior"),
    "wall": ("wall", "wand", "waende", "wände", "mauer", "mur", "muro", "pared"),
}
_USUAL = {
    "door": "door-hollow",
    "window": "glass-clear",
    "outer": "brick-cavity",
    "inner": "plasterboard",
    "wall": "plasterboard",
}
_NO_WALL = ("hatch", "dim", "text", "furn", "elec", "grid", "axis", "ceil", "north", "title", "stair")


class LayerSummary(Frozen):
    """One layer of a drawing: how much it holds, in drawing units."""

    name: str
    segments: int
    length: float
    likely: str = Field("", description="the construction that it is likely to be drawn as")
    told_by: str = Field("", description="ours, firm or name: what says so")


class DrawnPart(Frozen):
    """A plan that is drawn for itself, beside others: west, south, east, north in drawing units."""

    name: str
    box: Box
    segments: int


class Inspection(Frozen):
    """What a drawing holds. ``units`` is None where the header does not say; ``guess`` is what its doors
    and its size say, ``door`` how wide a door is drawn, in drawing units."""

    units: str | None
    guess: str | None = None
    door: float | None = None
    width: float
    height: float
    layers: tuple[LayerSummary, ...]
    parts: tuple[DrawnPart, ...] = ()
    gear: int = Field(0, description="devices, racks, risers and ducts of a drawing of our own")


def inspect_dxf(data: bytes) -> Inspection:
    """Return the layers, extents and units of a drawing.

    Raises:
        DesignError: the drawing cannot be read, or would unfold into too much.
    """
    found = entities_of(read_drawing(data))
    if not found.by_layer:
        refuse("drawing", "holds no line, polyline or arc that could become a wall")
    west, south, east, north = extent(found.by_layer)
    door = _door(found)
    guess = _guessed(max(east - west, north - south), door)
    return Inspection(
        units=found.units,
        guess=guess,
        door=round(door, 4) if door else None,
        width=round(east - west, 4),
        height=round(north - south, 4),
        layers=tuple(_summary(layer, rows) for layer, rows in sorted(found.by_layer.items())),
        parts=_parts(found, UNITS_M[found.units or guess or "mm"]),
        gear=len(found.marks),
    )


def _summary(layer: str, rows: Sequence[Segment]) -> LayerSummary:
    ours = our_construction(layer)
    likely = ours or _by_name(layer)
    return LayerSummary(
        name=layer,
        segments=len(rows),
        length=round(sum(math.dist(s[:2], s[2:]) for s in rows), 3),
        likely=likely,
        told_by="ours" if ours else "name" if likely else "",
    )


LEFT_OUT = "none"


def as_remembered(found: Inspection, remembered: Mapping[str, str]) -> Inspection:
    """Return what a drawing is likely to mean where the firm chose for layers of these names before.

    Args:
        remembered: constructions by the names of layers in small letters, ``LEFT_OUT`` for none.
    """
    known = load_catalogue().constructions
    rows = []
    for row in found.layers:
        held = remembered.get(row.name.casefold(), "")
        if row.told_by != "ours" and (held in known or held == LEFT_OUT):
            likely = "" if held == LEFT_OUT else held
            row = row.model_copy(update={"likely": likely, "told_by": "firm"})  # noqa: PLW2901
        rows.append(row)
    return found.model_copy(update={"layers": tuple(rows)})


def our_construction(layer: str) -> str:
    """Return the construction that a layer of a drawing of our own is named after."""
    words = layer.split()
    ours = len(words) > 2 and words[-2] in ("WALL", "OPENING")
    return words[-1] if ours and words[-1] in load_catalogue().constructions else ""


def _by_name(layer: str) -> str:
    """Return the usual construction of what a layer's name says, in the languages of many drawings."""
    said = re.sub(r"[^\w]+|_", " ", layer.casefold())
    if any(word in said for word in _NO_WALL):
        return ""
    return next((_USUAL[kind] for kind, words in _WORDS.items() if any(w in said for w in words)), "")


def extent(layers: Mapping[str, Sequence[Segment]]) -> Box:
    """Return west, south, east and north of lines."""
    xs = [x for rows in layers.values() for s in rows for x in (s[0], s[2])]
    ys = [y for rows in layers.values() for s in rows for y in (s[1], s[3])]
    return min(xs), min(ys), max(xs), max(ys)


def _door(found: Entities) -> float | None:
    """Return how wide a door is, in drawing units, by the swings that are most alike."""
    widths = sorted(s.width for s in found.swings)
    return median(widths) if widths else None


def _guessed(size: float, door: float | None) -> str | None:
    """Return the unit in which a door is as wide as doors are and the whole as large as buildings are."""
    fits = [u for u, m in UNITS_M.items() if _SITE_M[0] <= size * m <= _SITE_M[1]]
    if door is not None:
        doors = [u for u, m in UNITS_M.items() if _DOOR_M[0] <= door * m <= _DOOR_M[1]]
        both = [u for u in fits if u in doors]
        if len(both) == 1:
            return both[0]
        fits = both or doors or fits
    return fits[0] if len(fits) == 1 else None


def _parts(found: Entities, scale: float) -> tuple[DrawnPart, ...]:
    """Return the plans that lie apart on a drawing, from the left; none where there is but one."""
    lines = np.array([s for rows in found.by_layer.values() for s in rows], dtype=np.float64)
    groups = _apart(lines, _APART_M / scale)
    rows = []
    for k in np.unique(groups):
        mine = lines[groups == k]
        if len(mine) >= _LEAST_LINES:
            xs, ys = mine[:, (0, 2)], mine[:, (1, 3)]
            box = (float(xs.min()), float(ys.min()), float(xs.max()), float(ys.max()))
            rows.append((box, len(mine)))
    largest = max((_area(box) for box, _ in rows), default=0.0)
    rows = sorted((r for r in rows if _area(r[0]) >= _LEAST_SHARE * largest), key=lambda r: r[0][:2])
    if not 1 < len(rows) <= _MOST_PARTS:
        return ()
    return tuple(
        DrawnPart(name=_titled(box, found.texts, _TITLE_M / scale) or f"Plan {k}", box=box, segments=count)
        for k, (box, count) in enumerate(rows, 1)
    )


def _apart(lines: Lines, apart: float) -> NDArray[np.intp]:
    """Return for every line the number of the group it lies in: what lies apart on a grid."""
    low = np.minimum(lines[:, :2].min(axis=0), lines[:, 2:].min(axis=0))
    high = np.maximum(lines[:, :2].max(axis=0), lines[:, 2:].max(axis=0))
    size = float((high - low).max())
    if not 0 < size < _LARGEST:
        return np.zeros(len(lines), dtype=np.intp)
    cell = max(apart / 2, size / _MOST_CELLS)
    pieces = np.ceil(np.hypot(*(lines[:, 2:] - lines[:, :2]).T) / cell).astype(int) + 1
    pieces = np.minimum(pieces, max(2, _MOST_SPOTS // len(lines)))
    of = np.repeat(np.arange(len(lines)), pieces + 1)
    first = np.cumsum(pieces + 1) - (pieces + 1)
    share = (np.arange(len(of)) - first[of]) / pieces[of]
    spots = lines[of, :2] + (lines[of, 2:] - lines[of, :2]) * share[:, None]
    at = ((spots - low) / cell).astype(int)
    grid = np.zeros(at.max(axis=0) + 1, dtype=bool)
    grid[at[:, 0], at[:, 1]] = True
    labels, _ = ndimage.label(grid, structure=np.ones((3, 3)))
    start = ((lines[:, :2] - low) / cell).astype(int)
    return np.asarray(labels[start[:, 0], start[:, 1]], dtype=np.intp)


def _area(box: Sequence[float]) -> float:
    return (box[2] - box[0]) * (box[3] - box[1])


_STOREY = re.compile(
    r"floor|storey|story|level|geschoss|etage|keller|basement|attic|ground|[EO]G\b", re.IGNORECASE
)


def _titled(box: Sequence[float], texts: Sequence[Text], least: float) -> str:
    """Return the words that name a plan: in it or just about it, such as ``First floor``."""
    about = max(least, 0.15 * max(box[2] - box[0], box[3] - box[1]))
    near = [
        (t.height, line)
        for t in texts
        if box[0] - about <= t.middle[0] <= box[2] + about and box[1] - about <= t.middle[1] <= box[3] + about
        for line in t.lines
        if _STOREY.search(line)
    ]
    return " ".join(max(near)[1].split())[:60] if near else ""


__all__ = [
    "LEFT_OUT",
    "UNITS_M",
    "Box",
    "DrawnPart",
    "Inspection",
    "LayerSummary",
    "as_remembered",
    "extent",
    "inspect_dxf",
    "our_construction",
]
