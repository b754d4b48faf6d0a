"""The plan as a drawing for other programs: DXF in layers by storey, GeoJSON in local metres.

What neither can carry, heights, uses, settings and all that was decided beside the drawing, is in the project
file; ``docs/formats.md`` names it.
"""

from __future__ import annotations

import io
import json
import re
from collections.abc import Iterator
from typing import Any

from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment
from ezdxf.filemanagement import new

from ..core.context.plan import Plan
from ..core.context.storeys import spot_within
from ..core.design import Design, Device, Duct, EquipmentRoom, Floor, Opening, Riser, Space, Wall
from ..core.evaluation.evaluate import evaluate

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
        _building(drawn, plan, key, storey)
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

    def block(self, kind: str) -> str:
        """Return a block for a kind of gear: a cross, and its name and model beside it."""
        name = f"GEAR {kind}".upper()
        if name not in self.document.blocks:
            block = self.document.blocks.new(name)
            block.add_line((-_MARK_M, 0), (_MARK_M, 0))
            block.add_line((0, -_MARK_M), (0, _MARK_M))
            block.add_attdef("NAME", (_MARK_M, _MARK_M), dxfattribs={"height": _TEXT_M})
            block.add_attdef("MODEL", (_MARK_M, -_TEXT_M), dxfattribs={"height": _TEXT_M / 2})
        return name


def _building(drawn: _Layers, plan: Plan, key: str, storey: str) -> None:
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
            drawn.space.add_lwpolyline(duct.path, dxfattribs={"layer": drawn.layer(WAY, storey, "duct")})


def _gear(drawn: _Layers, plan: Plan, key: str, storey: str) -> None:
    design, catalogue = plan.design, plan.catalogue
    for device in design.of(Device).values():
        if device.floor == key:
            model = catalogue.model_of(device).label
            _insert(drawn, device.kind, storey, device.at, device.name, model, -device.azimuth_deg)
    for room in design.of(EquipmentRoom).values():
        if room.floor == key:
            _insert(drawn, "rack", storey, room.at, room.name, room.frame or "", 0.0)
    floor = design.of(Floor)[key]
    for riser in design.of(Riser).values():
        if riser.building == floor.building and riser.lowest_level <= floor.level <= riser.highest_level:
            _insert(drawn, "riser", storey, riser.at, riser.name, "", 0.0)


def _insert(
    drawn: _Layers, kind: str, storey: str, at: tuple[float, float], name: str, model: str, turn_deg: float
) -> None:
    layer = drawn.layer(GEAR, storey, kind.replace("_", "-"))
    attributes = {"layer": layer, "rotation": turn_deg}
    drawn.space.add_blockref(drawn.block(kind), at, dxfattribs=attributes).add_auto_attribs(
        {"NAME": name, "MODEL": model}
    )


def write_geojson(name: str, plan: Plan) -> str:
    """Return the plan as GeoJSON, in metres on the site's own grid and not in degrees."""
    features = list(_features(plan))
    found = {
        "type": "FeatureCollection",
        "name": name,
        "coordinate_system": "local metres, x east, y north",
        "features": features,
    }
    return json.dumps(found, ensure_ascii=False, indent=1, allow_nan=False) + "\n"


def _features(plan: Plan) -> Iterator[dict[str, Any]]:
    design = plan.design
    storeys = {key: floor.name for key, floor in design.of(Floor).items()}
    more: dict[str, Any]
    for space in design.of(Space).values():
        ring = [*space.outline, space.outline[0]]
        more = {"use": space.use, "outdoor": space.outdoor}
        yield _feature("room", space.id, storeys[space.floor], "Polygon", [ring], space.name, more)
    walls = design.of(Wall)
    for wall in walls.values():
        more = {"construction": wall.construction, "rated": wall.rated}
        yield _feature("wall", wall.id, storeys[wall.floor], "LineString", [wall.a, wall.b], "", more)
    for opening in design.of(Opening).values():
        host = walls[opening.wall]
        more = {"construction": opening.construction, "wall": opening.wall}
        line = list(opening.ends_in(host))
        yield _feature(opening.kind, opening.id, storeys[host.floor], "LineString", line, "", more)
    for device in design.of(Device).values():
        more = {"model": device.model, "height_m": device.height_m, "mount": device.mount}
        more |= {"azimuth_deg": device.azimuth_deg, "state": device.state}
        yield _feature(device.kind, device.id, storeys[device.floor], "Point", device.at, device.name, more)
    for room in design.of(EquipmentRoom).values():
        yield _feature("rack", room.id, storeys[room.floor], "Point", room.at, room.name, {})
    for run in evaluate(plan).cable.runs:
        for leg in run.legs:
            if len(leg.points) > 1:
                more = {"kind": leg.kind, "category": run.category, "medium": run.medium}
                line = list(leg.points)
                yield _feature("way", run.device, storeys[leg.floor], "LineString", line, run.name, more)


def _feature(
    what: str, key: str, storey: str, shape: str, coordinates: Any, name: str, more: dict[str, Any]
) -> dict[str, Any]:
    return {
        "type": "Feature",
        "id": f"{what}/{key}",
        "geometry": {"type": shape, "coordinates": coordinates},
        "properties": {"what": what, "name": name, "storey": storey, **more},
    }
