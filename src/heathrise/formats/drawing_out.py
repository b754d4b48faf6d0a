"""The plan as a drawing for other programs: DXF in layers by storey.

What it cannot carry, such as heights of storeys, uses and settings, is in the
project file; ``docs/formats.md`` names it.
"""

from __future__ import annotations

import io
import re
from collections.abc import Iterable, Mapping

from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment
from ezdxf.filemanagement import new

from ..core.context.plan import Plan
from ..core.context.storeys import spot_within
from ..core.design import Design, Device, Duct, EquipmentRoom, Floor, Opening, Riser, Space, Wall
from ..core.evaluation.evaluate import evaluate
from .dxf_entities import OUR_MARK

METRES = 6  # as $INSUNITS says them
WALL, OPENING, ROOM, GEAR, WAY = "WALL", "OPENING", "ROOM", "GEAR", "WAY"
_UNFIT = re.compile(r"[<>/\\\":;?*|=`,]+")
_TEXT_M = 0.25
_MARK_M = 0.15
_COLOURS = {WALL: 7, OPENING: 30, ROOM: 8, GEAR: 5, WAY: 3}


def write_dxf(_: str, plan: Plan) -> str:
    """Return the plan as DXF, in metres: a layer for each storey and construction, rooms as closed lines
    with their names in them, gear as blocks that carry name and model, the ways of cables."""
    document = new("R2010", units=METRES)
    document.header["$INSUNITS"] = METRES
    drawn = _Layers(document)
    storeys = _storey_names(plan.design)
    for key, storey in storeys.items():
        _building(drawn, plan, key, storeys)
        _gear(drawn, plan, key, storey)
    for run in evaluate(plan).cable.runs:
        for leg in run.legs:
            if len(leg.points) > 1 and leg.floor in storeys:
                layer = drawn.layer(
                    WAY, storeys[leg.floor], run.category if run.medium == "copper" else "fibre"
                )
                drawn.space.add_lwpolyline(leg.points, dxfattribs={"layer": layer})
    out = io.StringIO()
    document.write(out)
    return out.getvalue()


def _storey_names(design: Design) -> dict[str, str]:
    """Return what storeys are called in layers: each its own name, with its number where two share one."""
    found: dict[str, str] = {}
    for key, floor in design.of(Floor).items():
        name = _UNFIT.sub(" ", floor.name).strip() or "Storey"
        found[key] = name if name not in found.values() else f"{name} {len(found) + 1}"
    return found


class _Layers:
    """A document, and its layers by what lies on them, storey and kind."""

    def __init__(self, document: Drawing) -> None:
        self.document = document
        self.space = document.modelspace()

    def layer(self, what: str, storey: str, kind: str = "") -> str:
        name = " ".join(filter(None, (storey, what, kind)))
        if name not in self.document.layers:
            self.document.layers.add(name, color=_COLOURS[what])
        return name

    def block(self, kind: str, says: Iterable[str]) -> str:
        """Return a block for a kind of gear: a cross, and beside it its name and what else it says."""
        name = f"{OUR_MARK}{kind}".upper()
        if name not in self.document.blocks:
            block = self.document.blocks.new(name)
            block.add_line((-_MARK_M, 0), (_MARK_M, 0))
            block.add_line((0, -_MARK_M), (0, _MARK_M))
            for row, tag in enumerate(says):
                small = _TEXT_M / (2 if row else 1)
                block.add_attdef(tag, (_MARK_M, _MARK_M - row * _TEXT_M), dxfattribs={"height": small})
        return name


def _building(drawn: _Layers, plan: Plan, key: str, storeys: Mapping[str, str]) -> None:
    storey = storeys[key]
    design = plan.design
    walls = {w.id: w for w in design.of(Wall).values() if w.floor == key}
    for wall in walls.values():
        drawn.space.add_line(
            wall.a, wall.b, dxfattribs={"layer": drawn.layer(WALL, storey, wall.construction)}
        )
    for opening in design.of(Opening).values():
        if opening.wall in walls:
            a, b = opening.ends_in(walls[opening.wall])
            layer = drawn.layer(OPENING, storey, opening.construction)
            drawn.space.add_line(a, b, dxfattribs={"layer": layer})
    for space in design.of(Space).values():
        if space.floor != key:
            continue
        layer = drawn.layer(ROOM, storey)
        drawn.space.add_lwpolyline(space.outline, close=True, dxfattribs={"layer": layer})
        text = drawn.space.add_text(space.name, height=_TEXT_M, dxfattribs={"layer": layer})
        text.set_placement(spot_within(space), align=TextEntityAlignment.MIDDLE_CENTER)
    for duct in design.of(Duct).values():
        if duct.from_floor == key:
            layer = drawn.layer(WAY, storey, "duct")
            drawn.space.add_lwpolyline(duct.path, dxfattribs={"layer": layer})
            says = {
                "NAME": duct.name,
                "TO": storeys.get(duct.to_floor, ""),
                "DEPTH": f"{duct.depth_m:g}",
                "DUG": duct.dug,
            }
            _insert(drawn, "duct", storey, (*duct.path[0], 0.0), says)


def _gear(drawn: _Layers, plan: Plan, key: str, storey: str) -> None:
    design, catalogue = plan.design, plan.catalogue
    for device in design.of(Device).values():
        if device.floor == key:
            says = {"NAME": device.name, "MODEL": catalogue.model_of(device).label, "MOUNT": device.mount}
            at = (*device.at, device.height_m)
            _insert(drawn, device.kind, storey, at, says, -device.azimuth_deg)
    for room in design.of(EquipmentRoom).values():
        if room.floor == key:
            says = {"NAME": room.name, "MODEL": room.frame or ""}
            _insert(drawn, "rack", storey, (*room.at, room.rack_height_m), says)
    floor = design.of(Floor)[key]
    for riser in design.of(Riser).values():
        if riser.building == floor.building and riser.lowest_level <= floor.level <= riser.highest_level:
            _insert(drawn, "riser", storey, (*riser.at, 0.0), {"NAME": riser.name})


def _insert(
    drawn: _Layers,
    kind: str,
    storey: str,
    at: tuple[float, float, float],
    says: dict[str, str],
    turn_deg: float = 0.0,
) -> None:
    """Draw a block with what it says: its place in m, with its height over the storey's floor."""
    layer = drawn.layer(WAY if kind == "duct" else GEAR, storey, kind.replace("_", "-"))
    attributes = {"layer": layer, "rotation": turn_deg}
    block = drawn.space.add_blockref(drawn.block(kind, says), at, dxfattribs=attributes)
    block.add_auto_attribs(says)
