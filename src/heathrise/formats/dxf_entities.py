"""What a DXF drawing holds: its lines by layer, swings of doors, and the words written on it.

All that ``dxf_lines`` makes lines of is read, in the drawing itself and in blocks it inserts; where nothing
is drawn in the model, its sheets are read. What the blocks hold is counted before anything is expanded, so
that a drawing which would unfold into millions of lines is refused at once.
"""

from __future__ import annotations

import io
import math
import struct
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Any, NoReturn

from ezdxf import recover
from ezdxf.audit import Auditor
from ezdxf.document import Drawing
from ezdxf.entities.dxfentity import DXFEntity
from ezdxf.entities.insert import Insert
from ezdxf.lldxf.const import DXFError
from ezdxf.lldxf.tagger import binary_tags_loader

from ..core.design import DesignError, Problem
from .dxf_lines import Segment, Swing, lines_of, swings_of, weight_of

MAX_BYTES = 30_000_000
_HEAD_BYTES = 64  # the binary form tells itself by a zero byte within its first line
MAX_SEGMENTS = 200_000
MAX_TEXTS = 20_000
MAX_DEPTH = 16
_LONGEST_TEXT = 400
OUR_MARK, OUR_DUCT = "GEAR ", "WAY duct"  # what blocks and layers of our own drawings begin or end with
_HEADER_UNITS = {1: "in", 2: "ft", 4: "mm", 5: "cm", 6: "m"}


@dataclass(frozen=True)
class Text:
    """Words on a drawing: about where their middle and their beginning are, how high they are, in
    drawing units."""

    lines: tuple[str, ...]
    middle: tuple[float, float]
    start: tuple[float, float]
    height: float
    layer: str = ""


@dataclass(frozen=True)
class Mark:
    """A block of a drawing of our own that stands for a thing: what it says of itself, where it is in
    drawing units, which way it is turned, degrees against the clock."""

    layer: str
    block: str
    says: dict[str, str]
    at: tuple[float, float, float]
    turn_deg: float


@dataclass
class Entities:
    """The lines, door swings and words of a drawing; ``units`` is None where the header does not say.

    ``marks`` and ``ways`` are gear and ducts of a drawing of our own: lines with the layer they lie on.
    """

    units: str | None
    by_layer: dict[str, list[Segment]] = field(default_factory=dict)
    texts: list[Text] = field(default_factory=list)
    swings: list[Swing] = field(default_factory=list)
    marks: list[Mark] = field(default_factory=list)
    ways: list[tuple[str, tuple[tuple[float, float], ...]]] = field(default_factory=list)


def refuse(where: str, what: str) -> NoReturn:
    raise DesignError([Problem(where, what)])


def read_drawing(data: bytes) -> Drawing:
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


def entities_of(document: Drawing) -> Entities:
    weights = _Weights(document)
    space = _drawn_on(document)
    total = sum(weights.of(entity, 0) for entity in space)
    if total > MAX_SEGMENTS:
        refuse(
            "drawing",
            f"unfolds into {total:,} lines; at most {MAX_SEGMENTS:,} can be read. "
            "Keep the wall layers only and save it again.",
        )
    found = Entities(_HEADER_UNITS.get(int(document.header.get("$INSUNITS", 0) or 0)))
    for entity in space:
        if (mark := _mark(entity)) is not None:
            found.marks.append(mark)
            continue
        if entity.dxftype() == "LWPOLYLINE" and _layer(entity).endswith(f" {OUR_DUCT}"):
            found.ways.append((_layer(entity), tuple((x, y) for x, y in entity.get_points("xy"))))  # type: ignore[attr-defined]
            continue
        for layer, part in _unfold(entity, _layer(entity)):
            if len(found.swings) < MAX_TEXTS:
                found.swings += swings_of(part)
            for segment in lines_of(part):
                if not all(map(math.isfinite, segment)):
                    handle = entity.dxf.get("handle", "?")
                    refuse(f"{entity.dxftype()} {handle}", "has a coordinate that is not a number")
                if segment[:2] != segment[2:]:
                    found.by_layer.setdefault(layer, []).append(segment)
            if len(found.texts) < MAX_TEXTS and (text := _text(part)):
                found.texts.append(replace(text, layer=layer))
    return found


def _mark(entity: DXFEntity) -> Mark | None:
    """Read a block that stands for gear, a riser or a duct's beginning in a drawing of our own."""
    if not isinstance(entity, Insert) or not str(entity.dxf.name).startswith(OUR_MARK) or not entity.attribs:
        return None
    x, y, z = entity.dxf.insert
    turn_deg = float(entity.dxf.get("rotation", 0.0))
    if not all(map(math.isfinite, (x, y, z, turn_deg))):
        refuse(f"INSERT {entity.dxf.get('handle', '?')}", "has a coordinate that is not a number")
    says = {str(a.dxf.tag): str(a.dxf.text).strip()[:_LONGEST_TEXT] for a in entity.attribs}
    if not says.get("NAME"):
        return None
    return Mark(_layer(entity), str(entity.dxf.name)[len(OUR_MARK) :].lower(), says, (x, y, z), turn_deg)


def _drawn_on(document: Drawing) -> list[DXFEntity]:
    """Return what is drawn in the model; where that is nothing, what is drawn on the sheets."""
    found: list[DXFEntity] = list(document.modelspace())
    if found:
        return found
    return [e for name in document.layout_names() if name != "Model" for e in document.layout(name)]


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
        return weight_of(entity)

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


def _unfold(entity: DXFEntity, layer: str) -> Iterator[tuple[str, DXFEntity]]:
    """Yield (layer, entity); what lies on layer 0 in a block takes the insert's layer."""
    if isinstance(entity, Insert):
        for part in entity.multi_insert() if entity.mcount > 1 else (entity,):
            for child in (*part.virtual_entities(), *part.attribs):
                inner = _layer(child)
                yield from _unfold(child, layer if inner == "0" else inner)
        return
    yield layer, entity


def _layer(entity: DXFEntity) -> str:
    """Return an entity's layer; one without any lies on layer 0."""
    return str(entity.dxf.get("layer", "0")) if entity.dxf.is_supported("layer") else "0"


_WIDTH = 0.7  # of a letter, in heights of it
_LEFT, _CENTRE = 1, 2  # how the nine points about a paragraph go on, from the top left


def _text(entity: Any) -> Text | None:
    """Read what is written, whatever kind of writing it is; None where nothing is."""
    kind = entity.dxftype()
    if kind in ("TEXT", "ATTRIB"):
        _, start, _ = entity.get_placement()
        lines, height = (entity.plain_text(),), float(entity.dxf.height)
        column = _LEFT if entity.get_align_enum().name.endswith("LEFT") else _CENTRE
    elif kind == "MTEXT":
        start, height = entity.dxf.insert, float(entity.dxf.char_height)
        lines = tuple(entity.plain_text(split=True))
        column = (int(entity.dxf.attachment_point) - 1) % 3 + 1
    else:
        return None
    lines = tuple(line.strip()[:_LONGEST_TEXT] for line in lines if line.strip())
    if not lines or not all(map(math.isfinite, (start.x, start.y, height))):
        return None
    half = max(map(len, lines)) * height * _WIDTH / 2
    turned = math.radians(float(entity.dxf.get("rotation", 0.0)))
    along = half * (_CENTRE - column)
    middle = (start.x + along * math.cos(turned), start.y + along * math.sin(turned))
    return Text(lines, middle, (start.x, start.y), height)
