"""Many things at once: moved, copied, turned, mirrored, brought into line, drawn a storey up."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import MultiLineString, Polygon

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.integrity import check
from heathrise.core.design import Design, DesignError, Device, Floor, Opening, Space, Wall, apply, put
from heathrise.core.several import drawn
from heathrise.core.several.hand import Align, Copy, Fit, Mirror, Pick, Raise, Shift, Spread, Turn
from heathrise.core.walling import alike, follow

from ..thorough import examples
from .plans import access_point
from .storeys_of_rooms import Cut, Placed, cuts, placings, roomed, storey, walls_of
from .test_walling import HALL


def after(design: Design, gesture: object, catalogue: Catalogue) -> Design:
    """The design after a gesture, its rooms with it, checked as a whole."""
    made = apply(design, drawn(design, gesture, catalogue))  # type: ignore[arg-type]
    made = apply(made, follow(design, made).changes)
    check(made, catalogue)
    return made


def everything(design: Design) -> tuple[Pick, ...]:
    kinds = ("wall", "space", "device")
    return tuple(Pick(kind=kind, id=key) for kind in kinds for key in design.tables.get(kind, {}))  # type: ignore[arg-type]


def furnished(cut: Cut) -> Design:
    """Rooms with an access point in the middle of each, and a door in the first wall."""
    design = roomed(cut)
    for k, (w, s, e, n) in enumerate(cut.rooms, 1):
        design = apply(design, [put(access_point((w + e) / 2, (s + n) / 2, f"ap-{k}", azimuth_deg=30))])
    door = Opening(id="d", wall="w1", kind="door", offset_m=0.5, width_m=0.9, construction="door-hollow")
    return apply(design, [put(door)])


def assert_placed(design: Design, cut: Cut, placed: Placed, turned_deg: float) -> None:
    """Everything is where plain geometry says, under the names it had."""
    for wall, (a, b) in zip(design.of(Wall).values(), cut.walls, strict=True):
        assert math.dist(wall.a, placed(a)) < 0.002 and math.dist(wall.b, placed(b)) < 0.002
    for k, box in enumerate(cut.rooms, 1):
        assert alike(Polygon(design.of(Space)[f"s{k}"].outline), Polygon(placed.box(box))) > 0.99
        device = design.of(Device)[f"ap-{k}"]
        w, s, e, n = box
        assert math.dist(device.at, placed(((w + e) / 2, (s + n) / 2))) < 0.002
        assert abs((device.azimuth_deg - turned_deg + 180) % 360 - 180) < 0.01


@given(cuts(), st.tuples(st.floats(-40, 40), st.floats(-40, 40)))
@examples(60)
def test_everything_moves_as_one(catalogue: Catalogue, cut: Cut, by: tuple[float, float]) -> None:
    design = furnished(cut)
    made = after(design, Shift(picks=everything(design), by=by), catalogue)
    assert_placed(made, cut, Placed(by=by), 30)
    assert made.of(Opening) == design.of(Opening)


@given(cuts(), st.floats(-180, 180))
@examples(60)
def test_everything_turns_about_its_middle(catalogue: Catalogue, cut: Cut, degrees: float) -> None:
    design = furnished(cut)
    wide, deep = cut.walls[1][1]
    plain = Placed(degrees=-degrees)
    x, y = plain((wide / 2, deep / 2))
    made = after(design, Turn(picks=everything(design), degrees=degrees), catalogue)
    assert_placed(made, cut, Placed(-degrees, (wide / 2 - x, deep / 2 - y)), 30 + degrees)


@given(cuts())
@examples(40)
def test_everything_is_mirrored_and_back(catalogue: Catalogue, cut: Cut) -> None:
    design = furnished(cut)
    wide = cut.walls[1][1][0]
    made = after(design, Mirror(picks=everything(design), across="east_west"), catalogue)
    assert_placed(made, cut, Placed(by=(wide, 0), mirrored=True), -30)
    again = after(made, Mirror(picks=everything(design), across="east_west"), catalogue)
    assert_placed(again, cut, Placed(), 30)


@given(cuts())
@examples(40)
def test_an_image_beside_it_shares_the_wall_between(catalogue: Catalogue, cut: Cut) -> None:
    design = furnished(cut)
    made = after(design, Mirror(picks=everything(design), across="east_west", beside=True), catalogue)
    wide, deep = cut.walls[1][1]
    lines = MultiLineString([(w.a, w.b) for w in made.of(Wall).values()])
    own = sum(math.dist(a, b) for a, b in cut.walls)
    assert lines.length == pytest.approx(2 * own - deep, abs=0.05)
    image = Placed(by=(2 * wide, 0), mirrored=True)
    outlines = [Polygon(s.outline) for s in made.of(Space).values()]
    assert len(outlines) == 2 * len(cut.rooms)
    for box in cut.rooms:
        assert any(alike(Polygon(image.box(box)), o) > 0.99 for o in outlines)


def class_room() -> Design:
    """Practice 4, 5 by 8 m, with a door to the corridor and an access point, beside a corridor."""
    lines = (((0, 0), (40, 0)), ((0, 2), (5, 2)), ((0, 2), (0, 10)), ((5, 2), (5, 10)), ((0, 10), (5, 10)))
    room = Space(id="r", floor="f", name="Practice 4", outline=((0, 2), (5, 2), (5, 10), (0, 10)))
    door = Opening(id="d", wall="w2", kind="door", offset_m=1, width_m=0.9, construction="door-hollow")
    return storey(*walls_of(lines), room, door, access_point(2.5, 6, "ap-7", name="AP-7"))


def test_a_row_of_rooms_along_a_corridor(catalogue: Catalogue) -> None:
    design = class_room()
    picks = tuple(p for p in everything(design) if p.id != "w1")
    made = after(design, Copy(picks=picks, by=(5, 0), times=6), catalogue)
    assert [s.name for s in made.of(Space).values()] == [f"Practice {n}" for n in range(4, 11)]
    assert [Polygon(s.outline).area for s in made.of(Space).values()] == [40] * 7
    assert len(made.of(Wall)) == 5 + 6 * 3  # the wall between two rooms stands once
    assert [made.of(Wall)[o.wall].a[0] + o.offset_m for o in made.of(Opening).values()] == [
        1 + 5 * k for k in range(7)
    ]
    names = [d.name for d in made.of(Device).values()]
    assert len(set(names)) == 7 and all(n.startswith("AP-") for n in names)
    assert [d.at for d in made.of(Device).values()] == [(2.5 + 5 * k, 6) for k in range(7)]


def test_a_copy_on_the_same_place_says_so(catalogue: Catalogue) -> None:
    with pytest.raises(DesignError, match="stands there already"):
        drawn(class_room(), Copy(picks=(Pick(kind="wall", id="w1"),), by=(0, 0)), catalogue)


def test_marks_are_brought_into_line_and_spread(catalogue: Catalogue) -> None:
    spots = ((1, 3), (2, 2.5), (9, 3.5), (4, 3.2))
    design = storey(*(access_point(x, y, f"ap-{k}") for k, (x, y) in enumerate(spots)))
    picks = everything(design)
    level = after(design, Align(picks=picks, to="north"), catalogue)
    assert {d.at[1] for d in level.of(Device).values()} == {3.5}
    even = after(level, Spread(picks=picks), catalogue)
    assert [d.at[0] for d in even.of(Device).values()] == pytest.approx([1, 11 / 3, 9, 19 / 3], abs=0.001)
    middle = after(design, Align(picks=picks, to="middle_across"), catalogue)
    assert {d.at[0] for d in middle.of(Device).values()} == {5}
    with pytest.raises(DesignError, match="choose 3 marks at least"):
        drawn(design, Spread(picks=picks[:2]), catalogue)


@given(cuts())
@examples(40)
def test_a_storey_up(catalogue: Catalogue, cut: Cut) -> None:
    design = furnished(cut)
    wide, deep = cut.walls[1][1]
    shell = after(design, Raise(floor="f", what="outer"), catalogue)
    (above,) = [f for f in shell.of(Floor).values() if f.id != "f"]
    assert (above.level, above.elevation_m) == (1, 3.0)
    up = [w for w in shell.of(Wall).values() if w.floor == above.id]
    assert sum(w.length_m for w in up) == pytest.approx(2 * (wide + deep))
    assert [Polygon(s.outline).area for s in shell.of(Space).values() if s.floor == above.id] == [wide * deep]
    assert len(shell.of(Opening)) == 1  # the door stays below
    whole = after(design, Raise(floor="f", what="rooms"), catalogue)
    rooms = [s for s in whole.of(Space).values() if s.floor != "f"]
    assert sorted(Polygon(s.outline).area for s in rooms) == sorted(
        Polygon(s.outline).area for s in design.of(Space).values()
    )
    assert len({s.name for s in whole.of(Space).values()}) == 2 * len(cut.rooms)
    with pytest.raises(DesignError, match="a storey above already"):
        drawn(whole, Raise(floor="f", what="walls"), catalogue)


@given(cuts(), placings, st.floats(-0.3, 0.3))
@examples(40)
def test_a_storey_is_laid_over_another_by_two_points(
    catalogue: Catalogue, cut: Cut, placed: Placed, longer_m: float
) -> None:
    """Turned and moved, never stretched: points that lie farther apart than they should stand off alike."""
    design = furnished(cut)
    wide, deep = cut.walls[1][1]
    plain = Placed(placed.degrees, placed.by)
    a, b = (0.0, 0.0), (float(wide), float(deep))
    size = math.dist(a, b)
    off = tuple((q - p) / size * longer_m / 2 for p, q in zip(a, b, strict=True))
    belong = (plain((-off[0], -off[1])), plain((wide + off[0], deep + off[1])))
    made = after(design, Fit(floor="f", are=(a, b), belong=belong), catalogue)
    assert_placed(made, cut, plain, 30 - placed.degrees)
    assert made.of(Opening) == design.of(Opening)


@pytest.mark.parametrize(
    ("gesture", "what"),
    [
        (Shift(picks=(Pick(kind="device", id="gone"),), by=(1, 0)), "no device 'gone'"),
        (Turn(picks=(Pick(kind="opening", id="d"),), degrees=90), "where its wall is"),
        (Copy(picks=(Pick(kind="wall", id="w1"),), by=(1, 0), floor="attic"), "no storey 'attic'"),
        (Raise(floor="attic", what="walls"), "no storey 'attic'"),
        (Fit(floor="f", are=((0, 0), (0.5, 0)), belong=((0, 0), (5, 0))), "far apart"),
    ],
)
def test_what_cannot_be_done_says_why(catalogue: Catalogue, gesture: object, what: str) -> None:
    with pytest.raises(DesignError, match=what):
        drawn(furnished(HALL), gesture, catalogue)  # type: ignore[arg-type]


@given(placings)
@examples(20)
def test_moved_walls_take_along_what_meets_them_and_leave_the_rest(
    catalogue: Catalogue, placed: Placed
) -> None:
    lines = [(placed(a), placed(b)) for a, b in HALL.walls]
    design = storey(*walls_of(lines))
    plain = Placed(placed.degrees, (0, 0), placed.mirrored)
    picks = (Pick(kind="wall", id="w2"), Pick(kind="wall", id="w3"))
    made = after(design, Shift(picks=picks, by=plain((1, 0))), catalogue)
    assert math.dist(made.of(Wall)["w1"].b, placed((9, 0))) < 0.002
    assert math.dist(made.of(Wall)["w4"].a, placed((1, 5))) < 0.002
    assert math.dist(made.of(Wall)["w4"].b, placed((0, 0))) < 0.002
