"""The plan as GeoJSON, in metres on the site's own grid and not in degrees: out, and in again.

Each thing that is drawn is a feature with all that it says of itself. Cables are features too, of their own
kind: coming in they are left aside, for they follow from what stands where.
"""

from __future__ import annotations

import json
from collections import defaultdict
from collections.abc import Iterator
from typing import Any

from ..core.catalogue import Catalogue
from ..core.context.plan import Plan
from ..core.design import (
    Building,
    Design,
    Device,
    Duct,
    Element,
    EquipmentRoom,
    Floor,
    Opening,
    Riser,
    Space,
    Wall,
)
from ..core.evaluation.evaluate import evaluate
from .project_file import FORMAT, VERSION, Project, load_project, parse_json, refuse

GRID = "local metres, x east, y north"
WAY = "way"
# What a feature is called by, and the fields of an element that its geometry says.
_DRAWN: dict[str, tuple[str, ...]] = {
    "room": ("outline",),
    "wall": ("a", "b"),
    "rack": ("at",),
    "riser": ("at",),
    "duct": ("path",),
}
_KINDS = {"room": "space", "rack": "equipment_room"}
_OPENINGS = ("door", "window", "gap")


def write_geojson(name: str, plan: Plan) -> str:
    """Return the plan as GeoJSON, with what is there and will go."""
    found = {
        "type": "FeatureCollection",
        "name": name,
        "coordinate_system": GRID,
        "buildings": [_said(b, ()) for b in plan.drawn.of(Building).values()],
        "storeys": [_said(f, ()) for f in plan.drawn.of(Floor).values()],
        "features": list(_features(plan)),
    }
    return json.dumps(found, ensure_ascii=False, indent=1, allow_nan=False) + "\n"


def _features(plan: Plan) -> Iterator[dict[str, Any]]:
    design = plan.drawn
    for space in design.of(Space).values():
        yield _feature(design, space, "room", "Polygon", [[*space.outline, space.outline[0]]])
    walls = design.of(Wall)
    for wall in walls.values():
        yield _feature(design, wall, "wall", "LineString", [wall.a, wall.b])
    for opening in design.of(Opening).values():
        line = list(opening.ends_in(walls[opening.wall]))
        yield _feature(design, opening, opening.kind, "LineString", line, walls[opening.wall].floor)
    for device in design.of(Device).values():
        yield _feature(design, device, device.kind, "Point", device.at)
    for room in design.of(EquipmentRoom).values():
        yield _feature(design, room, "rack", "Point", room.at)
    for riser in design.of(Riser).values():
        yield _feature(design, riser, "riser", "Point", riser.at)
    for duct in design.of(Duct).values():
        yield _feature(design, duct, "duct", "LineString", list(duct.path), duct.from_floor)
    for run in evaluate(plan).cable.runs:
        for leg in run.legs:
            if len(leg.points) > 1:
                said = {"kind": leg.kind, "category": run.category, "medium": run.medium}
                head = {"what": WAY, "name": run.name, "storey": design.of(Floor)[leg.floor].name}
                yield _row(f"{WAY}/{run.device}", "LineString", list(leg.points), {**head, **said})


def _feature(
    design: Design, element: Element, what: str, shape: str, coordinates: Any, floor: str = ""
) -> dict[str, Any]:
    said = _said(element, _DRAWN.get(what, ("at",)))
    floor = floor or said.get("floor", "")
    storey = {"storey": design.of(Floor)[floor].name} if floor else {}
    head = {"what": what, "name": said.pop("name", ""), **storey}
    return _row(f"{what}/{element.id}", shape, coordinates, {**head, **said})


def _said(element: Element, drawn: tuple[str, ...]) -> dict[str, Any]:
    """Return what an element says of itself, but for what its geometry says."""
    return element.model_dump(mode="json", exclude={*drawn}, exclude_none=True)


def _row(key: str, shape: str, coordinates: Any, properties: dict[str, Any]) -> dict[str, Any]:
    geometry = {"type": shape, "coordinates": coordinates}
    return {"type": "Feature", "id": key, "geometry": geometry, "properties": properties}


def is_geojson(data: bytes) -> bool:
    """Whether a file is GeoJSON, of ours or not."""
    return b'"FeatureCollection"' in data[:400]


def read_geojson(data: bytes, catalogue: Catalogue) -> Project:
    """Return the plan of a file as ``write_geojson`` writes it.

    Raises:
        DesignError: with the place in the file and what is wrong.
    """
    document = parse_json(data)
    if document.get("coordinate_system") != GRID:
        refuse(
            "coordinate_system",
            f'should be "{GRID}": a plan of ours is read and no map; take a DXF drawing instead',
        )
    rows: dict[str, list[Any]] = defaultdict(list)
    rows["site"] = [{"id": "site"}]
    rows["building"], rows["floor"] = (_list(document, key) for key in ("buildings", "storeys"))
    for number, feature in enumerate(_list(document, "features")):
        try:
            properties = dict(feature["properties"])
            what, geometry = str(properties.pop("what")), feature["geometry"]
            if what != WAY:
                kind, element = _element(what, properties, geometry["coordinates"])
                rows[kind].append(element)
        except (KeyError, TypeError, ValueError):
            refuse(f"features[{number}]", "is no thing of a plan; export the plan again")
    name = document.get("name")
    made = {"format": FORMAT, "version": VERSION, "name": name, "elements": rows}
    return load_project(json.dumps(made), catalogue)


def _list(document: dict[str, Any], key: str) -> list[Any]:
    found = document.get(key)
    if not isinstance(found, list):
        refuse(key, "should be a list; export the plan again")
    return found


def _element(what: str, said: dict[str, Any], coordinates: Any) -> tuple[str, dict[str, Any]]:
    """Return a feature as an element of a project file, with its kind there."""
    said.pop("storey", None)
    if what in _OPENINGS:
        said.pop("name", None)
        return "opening", said
    if what == "room":
        return "space", {**said, "outline": coordinates[0][:-1]}
    if what == "wall":
        said.pop("name", None)
        return "wall", {**said, "a": coordinates[0], "b": coordinates[1]}
    drawn = _DRAWN.get(what, ("at",))
    return _KINDS.get(what, what if what in _DRAWN else "device"), {**said, drawn[0]: coordinates}
