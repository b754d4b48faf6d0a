"""The plan out as a drawing, and in again: the same rooms, walls, doors, gear and ways."""

from __future__ import annotations

import io
import json
import math

import ezdxf
import pytest
from hypothesis import given
from shapely.geometry import LineString, Polygon

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, EquipmentRoom, Floor, Opening, Space, Wall
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.demo import music_school
from heathrise.formats.drawing_out import write_dxf, write_geojson
from heathrise.formats.dxf import DrawingChoice, import_dxf, inspect_dxf

from ..core.storeys_of_rooms import Cut, cuts, roomed
from ..thorough import examples

PRECISE_M = 0.01


def in_again(text: str, storey: str, catalogue: Catalogue) -> Design:
    found = inspect_dxf(text.encode())
    assert found.units == "m"
    layers = {
        row.name: row.likely for row in found.layers if row.likely and row.name.startswith(f"{storey} ")
    }
    return import_dxf(text.encode(), DrawingChoice(name="Again", layers=layers), catalogue)


def outlines(design: Design, floor: str) -> dict[str, Polygon]:
    return {
        s.name: Polygon(s.outline) for s in design.of(Space).values() if s.floor == floor and not s.outdoor
    }


def assert_the_same(before: Design, floor: str, again: Design) -> None:
    """Held against the corner that a drawing's own zero is moved to."""
    walls = [w for w in before.of(Wall).values() if w.floor == floor]
    west = min(x for w in walls for x in (w.a[0], w.b[0]))
    south = min(y for w in walls for y in (w.a[1], w.b[1]))
    rooms, wanted = outlines(again, "floor-1"), outlines(before, floor)
    assert set(rooms) == set(wanted)
    for name, outline in wanted.items():
        moved = Polygon([(x - west, y - south) for x, y in outline.exterior.coords])
        assert rooms[name].hausdorff_distance(moved) < PRECISE_M
    assert sorted(w.construction for w in again.of(Wall).values()) == sorted(w.construction for w in walls)
    own = {w.id for w in walls}
    doors = [o for o in before.of(Opening).values() if o.wall in own]
    # A glass door is a window by its construction: a layer says no more than that.
    told = sorted((o.construction, round(o.width_m, 2)) for o in again.of(Opening).values())
    assert told == sorted((o.construction, round(o.width_m, 2)) for o in doors)


@pytest.mark.parametrize(("floor", "storey"), [("ground", "Ground floor"), ("upper", "Upper floor")])
def test_the_school_out_and_in_again(catalogue: Catalogue, floor: str, storey: str) -> None:
    design = music_school()
    text = write_dxf("School", Plan(design, catalogue))
    assert design.of(Floor)[floor].name == storey
    assert_the_same(design, floor, in_again(text, storey, catalogue))


@given(cuts())
@examples(20)
def test_any_storey_out_and_in_again(catalogue: Catalogue, cut: Cut) -> None:
    design = roomed(cut)
    assert_the_same(design, "f", in_again(write_dxf("Hut", Plan(design, catalogue)), "Ground", catalogue))


def test_gear_and_ways_are_on_layers_of_their_own(catalogue: Catalogue) -> None:
    design = music_school()
    plan = Plan(design, catalogue)
    document = ezdxf.read(io.StringIO(write_dxf("School", plan)))
    space = document.modelspace()
    gear = {
        (i.get_attrib_text("NAME"), round(i.dxf.insert.x, 3), round(i.dxf.insert.y, 3)): i.dxf.layer
        for i in space.query("INSERT")
        if not i.dxf.name.endswith("RISER")
    }
    wanted = [*design.of(Device).values(), *design.of(EquipmentRoom).values()]
    assert set(gear) == {(d.name, round(d.at[0], 3), round(d.at[1], 3)) for d in wanted}
    floors = {f.id: f.name for f in design.of(Floor).values()}
    for device in design.of(Device).values():
        layer = gear[device.name, round(device.at[0], 3), round(device.at[1], 3)]
        assert layer == f"{floors[device.floor]} GEAR {device.kind.replace('_', '-')}"
    drawn_m = sum(
        LineString([(p[0], p[1]) for p in line.get_points()]).length
        for line in space.query("LWPOLYLINE")
        if " WAY " in line.dxf.layer and not line.dxf.layer.endswith("duct")
    )
    legs = [leg for run in evaluate(plan).cable.runs for leg in run.legs if len(leg.points) > 1]
    assert drawn_m == pytest.approx(sum(LineString(leg.points).length for leg in legs), abs=0.01)


def test_geojson_has_each_thing_once_where_it_is(catalogue: Catalogue) -> None:
    design = music_school()
    found = json.loads(write_geojson("School", Plan(design, catalogue)))
    rows = {f["id"]: f for f in found["features"] if f["properties"]["what"] != "way"}
    for space in design.of(Space).values():
        ring = rows[f"room/{space.id}"]["geometry"]["coordinates"][0]
        assert Polygon(ring).equals(Polygon(space.outline)) and ring[0] == ring[-1]
    for opening in design.of(Opening).values():
        a, b = rows[f"{opening.kind}/{opening.id}"]["geometry"]["coordinates"]
        wall = design.of(Wall)[opening.wall]
        assert math.dist(a, b) == pytest.approx(opening.width_m)
        assert math.dist(a, wall.a) == pytest.approx(opening.offset_m, abs=1e-6)
    kinds = {(d.kind, d.name) for d in design.of(Device).values()}
    assert kinds == {
        (f["properties"]["what"], f["properties"]["name"])
        for f in rows.values()
        if "model" in f["properties"]
    }
    assert "not in degrees" not in json.dumps(found) and "local metres" in found["coordinate_system"]
