"""Drawings by others come in with their walls, rooms, doors and storeys, whatever way they were drawn."""

from __future__ import annotations

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from heathrise.core.catalogue import Catalogue
from heathrise.core.design import Design, DesignError, Floor, Opening, Space, Wall
from heathrise.formats.dxf import DrawingChoice, StoreyChoice, import_dxf, inspect_dxf
from heathrise.formats.dxf_look import LEFT_OUT, as_remembered

from ..core.storeys_of_rooms import Cut, cuts
from ..core.test_faces import DOOR_M, door_of, is_rim
from ..thorough import examples
from .foreign import BESIDE_M, UNITS, Foreign, areas_of, bytes_of, drawing_of

WALLS = {"A-WALL": "plasterboard"}
ROOMS = Cut(
    ((0, 0, 5, 4), (5, 0, 9, 4), (0, 4, 9, 8)),
    (
        ((0, 0), (9, 0)),
        ((9, 0), (9, 8)),
        ((9, 8), (0, 8)),
        ((0, 8), (0, 0)),
        ((0, 4), (9, 4)),
        ((5, 0), (5, 4)),
    ),
)


def doors_in(cut: Cut) -> int:
    return sum(1 for w in cut.walls if not is_rim(cut, w) and door_of(cut, w))


def assert_storey(design: Design, floor: str, cut: Cut, doors: bool = True) -> None:
    """The rooms of a storey are those of its cut, named as written, its doors where they were drawn."""
    rooms = [s for s in design.of(Space).values() if s.floor == floor]
    got = sorted(Polygon(r.outline).area for r in rooms)
    assert len(got) == len(cut.rooms)
    assert got == pytest.approx(areas_of(cut), rel=0.01, abs=0.08)
    assert {r.name for r in rooms} == {f"Chamber {k}" for k in range(1, len(cut.rooms) + 1)}
    walls = {w.id for w in design.of(Wall).values() if w.floor == floor}
    hung = [o for o in design.of(Opening).values() if o.wall in walls]
    if doors:
        assert len(hung) == doors_in(cut)
        assert all(o.kind == "door" and o.width_m == pytest.approx(DOOR_M, abs=0.02) for o in hung)


@given(
    cuts(6),
    st.sampled_from(["lines", "polylines", "hatches", "multilines", "centre"]),
    st.sampled_from(sorted(UNITS)),
    st.sampled_from(["blocks", "arcs"]),
    st.sampled_from([0.0, 30.0, 90.0]),
    st.integers(0, 99),
)
@examples(60)
def test_a_storey_however_it_was_drawn(
    catalogue: Catalogue, cut: Cut, walls: str, units: str, doors: str, turn_deg: float, seed: int
) -> None:
    how = Foreign(walls=walls, units=units, doors=doors, turn_deg=turn_deg)
    data = bytes_of(drawing_of([cut], how, seed))
    found = inspect_dxf(data)
    assert found.units == units
    assert next(row for row in found.layers if row.name == "A-WALL").likely == "plasterboard"
    plain = import_dxf(data, DrawingChoice(name="Hut", layers=WALLS), catalogue)
    assert_storey(plain, "floor-1", cut)
    if doors_in(cut):
        # Chosen as doors, their leaves and swings make no others.
        with_doors = {**WALLS, "A-DOOR": "door-solid"}
        assert_storey(
            import_dxf(data, DrawingChoice(name="Hut", layers=with_doors), catalogue), "floor-1", cut
        )


@given(cuts(4), st.sampled_from(sorted(UNITS)))
@examples(25)
def test_units_that_are_not_said_are_guessed_by_doors(cut: Cut, units: str) -> None:
    data = bytes_of(drawing_of([cut], Foreign(units=units, says_units=False)))
    found = inspect_dxf(data)
    assert found.units is None
    if doors_in(cut):
        assert found.door == pytest.approx(DOOR_M / UNITS[units][0], rel=1e-3)
        assert found.guess == units
    elif found.guess is not None:
        # By its size alone: whatever it says, a building is as large in it.
        assert 6 <= found.width * UNITS[found.guess][0] <= 250 or found.height * UNITS[found.guess][0] >= 6


@given(st.lists(cuts(4), min_size=2, max_size=4), st.sampled_from(["lines", "polylines"]))
@examples(20)
def test_storeys_side_by_side_become_storeys(catalogue: Catalogue, storeys: list[Cut], walls: str) -> None:
    data = bytes_of(drawing_of(storeys, Foreign(walls=walls, says_units=False)))
    found = inspect_dxf(data)
    large = max(sum(areas_of(c)) for c in storeys)
    if min(sum(areas_of(c)) for c in storeys) < 0.2 * large:
        return  # one so much smaller may be a detail: it is not offered as a storey
    assert [p.name for p in found.parts] == [f"Floor {k}" for k in range(len(storeys))]
    choice = DrawingChoice(
        name="House",
        units="mm",
        layers=WALLS,
        storeys=tuple(StoreyChoice(name=p.name, box=p.box) for p in found.parts),
    )
    design = import_dxf(data, choice, catalogue)
    floors = list(design.of(Floor).values())
    assert [f.level for f in floors] == list(range(len(storeys)))
    for floor, cut in zip(floors, storeys, strict=True):
        assert_storey(design, floor.id, cut)
        low = min(min(w.a[0], w.b[0]) for w in design.of(Wall).values() if w.floor == floor.id)
        assert 0 <= low < 0.5  # all stand over one another, and not where they lie on the sheet
    rises = [b.elevation_m - a.elevation_m for a, b in itertools.pairwise(floors)]
    assert all(r == pytest.approx(3.0, abs=0.2) for r in rises)


def test_a_thick_wall_may_be_another_construction(catalogue: Catalogue) -> None:
    data = bytes_of(drawing_of([ROOMS], Foreign()))
    choice = DrawingChoice(name="Hut", layers=WALLS, thick="brick-cavity")
    walls = import_dxf(data, choice, catalogue).of(Wall).values()
    for wall in walls:
        rim = min(wall.a[0], wall.b[0]) == max(wall.a[0], wall.b[0]) and wall.a[0] in (0.15, 9.15)
        rim |= wall.a[1] == wall.b[1] and wall.a[1] in (0.15, 8.15)
        assert (wall.construction == "brick-cavity") == rim
    with pytest.raises(DesignError, match="not in the catalogue"):
        import_dxf(data, DrawingChoice(name="Hut", layers=WALLS, thick="straw"), catalogue)


def test_two_faces_can_be_kept_as_lines(catalogue: Catalogue) -> None:
    data = bytes_of(drawing_of([ROOMS], Foreign()))
    plain = import_dxf(data, DrawingChoice(name="Hut", layers=WALLS, faces=False), catalogue)
    paired = import_dxf(data, DrawingChoice(name="Hut", layers=WALLS), catalogue)
    assert len(plain.of(Wall)) > 2 * len(paired.of(Wall))


def test_windows_on_a_layer_lie_in_the_wall_between_its_faces(catalogue: Catalogue) -> None:
    document = drawing_of([ROOMS], Foreign())
    space = document.modelspace()
    for y in (-150, 0, 150):
        space.add_line((2_000, y), (3_400, y), dxfattribs={"layer": "A-GLAZ"})
    data = bytes_of(document)
    likely = {row.name: row.likely for row in inspect_dxf(data).layers}
    assert likely["A-GLAZ"] == "glass-clear" and likely["A-DOOR"] == "door-hollow"
    design = import_dxf(data, DrawingChoice(name="Hut", layers={**WALLS, "A-GLAZ": "glass-clear"}), catalogue)
    windows = [o for o in design.of(Opening).values() if o.kind == "window"]
    assert len(windows) == 1 and windows[0].width_m == pytest.approx(1.4, abs=0.01)


def test_what_the_firm_chose_before_is_what_is_likely() -> None:
    found = inspect_dxf(bytes_of(drawing_of([ROOMS], Foreign())))
    for held, likely, told_by in (
        ("stone", "stone", "firm"),
        (LEFT_OUT, "", "firm"),
        ("straw", "plasterboard", "name"),
    ):
        rows = as_remembered(found, {"a-wall": held}).layers
        row = next(r for r in rows if r.name == "A-WALL")
        assert (row.likely, row.told_by) == (likely, told_by)


def test_a_drawing_on_a_sheet_alone_is_read(catalogue: Catalogue) -> None:
    document = drawing_of([ROOMS], Foreign())
    sheet = document.layout("Layout1")
    for entity in list(document.modelspace()):
        if entity.dxftype() == "LINE":
            sheet.add_line(entity.dxf.start, entity.dxf.end, dxfattribs={"layer": entity.dxf.layer})
        document.modelspace().delete_entity(entity)
    design = import_dxf(bytes_of(document), DrawingChoice(name="Hut", layers=WALLS), catalogue)
    assert len(design.of(Space)) == 3


@pytest.mark.parametrize("version", ["R12", "R2000", "R2004", "R2007", "R2010", "R2013", "R2018"])
def test_every_version_is_read(catalogue: Catalogue, version: str) -> None:
    data = bytes_of(drawing_of([ROOMS], Foreign(version=version, says_units=False)))
    design = import_dxf(data, DrawingChoice(name="Hut", units="mm", layers=WALLS), catalogue)
    assert_storey(design, "floor-1", ROOMS)
    assert BESIDE_M


@pytest.mark.parametrize("far", [1e9, 1e15, 1e300])
def test_something_far_away_hides_no_plan(catalogue: Catalogue, far: float) -> None:
    """A line that was left behind at the end of the world, as drawings have them."""
    document = drawing_of([ROOMS], Foreign())
    document.modelspace().add_line((far, far), (far, far + 1), dxfattribs={"layer": "STRAY"})
    data = bytes_of(document)
    assert inspect_dxf(data).parts == ()
    design = import_dxf(data, DrawingChoice(name="Hut", layers=WALLS), catalogue)
    assert_storey(design, "floor-1", ROOMS)
