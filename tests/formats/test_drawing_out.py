"""The plan out as a drawing, and in again: the same rooms, walls, doors, gear and ways."""

from __future__ import annotations

import io
import json
import math
from collections.abc import Callable

import ezdxf
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import LineString, Polygon

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Building,
    Design,
    DesignError,
    Device,
    Duct,
    EquipmentRoom,
    Floor,
    Opening,
    Riser,
    Space,
    Wall,
    apply,
    put,
)
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.demo import music_school, watermill
from heathrise.formats.drawing_out import write_dxf
from heathrise.formats.dxf import DrawingChoice, import_dxf, inspect_dxf
from heathrise.formats.geojson import read_geojson, write_geojson

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
        if not i.dxf.name.endswith(("RISER", "DUCT"))
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


def whole(text: str, catalogue: Catalogue, **more: object) -> Design:
    """Read all storeys of a drawing of our own, as they are offered."""
    layers = {row.name: row.likely for row in inspect_dxf(text.encode()).layers if row.likely}
    names = dict.fromkeys(layer.rsplit(maxsplit=2)[0] for layer in layers)
    storeys = [
        {"name": name, "layers": {k: v for k, v in layers.items() if k.startswith(f"{name} ")}}
        for name in names
    ]
    fields = {"name": "Again", "layers": layers, "storeys": storeys, **more}
    return import_dxf(text.encode(), DrawingChoice.model_validate(fields), catalogue)


def corner_of(design: Design) -> tuple[float, float]:
    spots = [p for w in design.of(Wall).values() for p in (w.a, w.b)]
    return min(x for x, _ in spots), min(y for _, y in spots)


def storey_of(design: Design, element: Device | EquipmentRoom) -> str:
    return design.of(Floor)[element.floor].name


def standing(design: Design) -> dict[str, tuple[object, ...]]:
    """All that stands on a plan by its name, measured from the drawing's corner."""
    west, south = corner_of(design)
    found: dict[str, tuple[object, ...]] = {}
    for device in design.of(Device).values():
        pose = (device.height_m, device.azimuth_deg % 360, device.at[0] - west, device.at[1] - south)
        told = (device.kind, device.model, device.mount, storey_of(design, device))
        found[device.name] = (*told, *(round(v, 2) + 0.0 for v in pose))
    for room in design.of(EquipmentRoom).values():
        at = (round(room.at[0] - west, 2), round(room.at[1] - south, 2))
        found[room.name] = ("rack", storey_of(design, room), room.frame, room.rack_height_m, *at)
    return found


def test_gear_comes_in_again_as_it_stood(catalogue: Catalogue) -> None:
    design = music_school()
    again = whole(write_dxf("School", Plan(design, catalogue)), catalogue)
    assert standing(again) == standing(design)
    assert sorted(r.name for r in again.of(Riser).values()) == sorted(
        r.name for r in design.of(Riser).values()
    )
    west, south = corner_of(design)
    ducts = {d.name: d for d in again.of(Duct).values()}
    assert set(ducts) == {d.name for d in design.of(Duct).values()}
    for duct in design.of(Duct).values():
        same = ducts[duct.name]
        moved = LineString([(x - west, y - south) for x, y in duct.path])
        assert LineString(same.path).hausdorff_distance(moved) < PRECISE_M
        assert (same.depth_m, same.dug) == (duct.depth_m, duct.dug)
        ends = [again.of(Floor)[f].name for f in (same.from_floor, same.to_floor)]
        assert ends == [design.of(Floor)[f].name for f in (duct.from_floor, duct.to_floor)]
    bare = whole(write_dxf("School", Plan(design, catalogue)), catalogue, find_gear=False)
    assert not bare.of(Device) and not bare.of(EquipmentRoom) and not bare.of(Duct)


@given(cuts(), st.data())
@examples(15)
def test_any_gear_comes_in_again(catalogue: Catalogue, cut: Cut, data: st.DataObject) -> None:
    """Of every kind that there is, at any place, height and turn."""
    design = roomed(cut)
    size = max(box[2] for box in cut.rooms)
    metres = st.integers(0, int(size * 100)).map(lambda v: v / 100)
    kinds = data.draw(st.lists(st.sampled_from(sorted(catalogue.roles)), max_size=6))
    for number, kind in enumerate(kinds):
        model = data.draw(st.sampled_from(sorted(catalogue.devices[kind])))
        fields = {
            "id": f"d-{number}",
            "floor": "f",
            "kind": kind,
            "model": model,
            "name": data.draw(st.sampled_from(["Thing", "Näher", "a;b", "%%c"])) + f" {number}",
            "at": (data.draw(metres), data.draw(metres)),
            "height_m": data.draw(st.integers(0, 240)) / 100,
            "azimuth_deg": float(data.draw(st.integers(0, 359))),
        }
        design = apply(design, [put(Device.model_validate(fields))])
    again = whole(write_dxf("Hut", Plan(design, catalogue)), catalogue)
    assert standing(again) == standing(design)


def test_a_model_that_nobody_has_is_told(catalogue: Catalogue) -> None:
    text = write_dxf("School", Plan(music_school(), catalogue))
    label = catalogue.model_of(next(iter(music_school().of(Device).values()))).label
    with pytest.raises(DesignError, match="is not in the catalogue; take its sheet in first"):
        whole(text.replace(label, "Unheard of"), catalogue)


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


CARRIED = (Building, Floor, Wall, Opening, Space, Device, EquipmentRoom, Riser, Duct)


def assert_carried(before: Design, again: Design) -> None:
    for cls in CARRIED:
        assert dict(again.of(cls)) == dict(before.of(cls))


@pytest.mark.parametrize("make", [music_school, watermill])
def test_geojson_comes_in_again_as_it_was(catalogue: Catalogue, make: Callable[[], Design]) -> None:
    design = make()
    text = write_geojson("Site", Plan(design, catalogue))
    again = read_geojson(text.encode(), catalogue)
    assert again.name == "Site"
    assert_carried(design, again.design)


@given(cuts())
@examples(20)
def test_any_storey_comes_in_again_from_geojson(catalogue: Catalogue, cut: Cut) -> None:
    design = roomed(cut)
    text = write_geojson("Hut", Plan(design, catalogue))
    assert_carried(design, read_geojson(text.encode(), catalogue).design)


@pytest.mark.parametrize(
    ("old", "new", "where"),
    [
        ("local metres, x east, y north", "degrees", "coordinate_system"),
        ('"what": "room"', '"what": "lake"', "elements"),
        (
            '"type": "Polygon",\n    "coordinates": [',
            '"type": "Polygon",\n    "coordinate": [',
            "features\\[0\\]",
        ),
        ('"storeys": [', '"floors": [', "storeys"),
    ],
)
def test_geojson_that_is_none_of_ours_says_where(
    catalogue: Catalogue, old: str, new: str, where: str
) -> None:
    text = write_geojson("School", Plan(music_school(), catalogue))
    assert old in text
    with pytest.raises(DesignError, match=where):
        read_geojson(text.replace(old, new, 1).encode(), catalogue)
