"""Walls that belong together: what goes along with a wall, and what stays where it is."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely.geometry import LineString, MultiLineString, Polygon

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.integrity import check
from heathrise.core.design import (
    Design,
    DesignError,
    Device,
    EquipmentRoom,
    Opening,
    Socket,
    Space,
    Wall,
    apply,
    inverse,
    put,
)
from heathrise.core.walling import alike, drawn, follow
from heathrise.core.walling.hand import Bend, Beside, Curve, Join, Measure, Move, Split

from ..thorough import examples
from .plans import access_point
from .storeys_of_rooms import LEAST_M, Cut, Placed, cuts, moved, placings, roomed, storey, walls_of
from .test_walling import HALL, goes_on


def after(design: Design, gesture: object) -> Design:
    made = apply(design, drawn(design, gesture))  # type: ignore[arg-type]
    return apply(made, follow(design, made).changes)


def covered(walls: object) -> MultiLineString:
    return MultiLineString([(w.a, w.b) for w in walls])  # type: ignore[attr-defined]


def spot(design: Design, opening: str) -> tuple[float, float]:
    """Where an opening begins on the sheet."""
    o = design.of(Opening)[opening]
    wall = design.of(Wall)[o.wall]
    share = o.offset_m / wall.length_m
    return (wall.a[0] + (wall.b[0] - wall.a[0]) * share, wall.a[1] + (wall.b[1] - wall.a[1]) * share)


@given(cuts(), st.data(), placings)
@examples(120)
def test_a_wall_takes_along_what_meets_it(
    catalogue: Catalogue, cut: Cut, data: st.DataObject, placed: Placed
) -> None:
    """Against plain arithmetic on the rooms' boxes, however the sheet is turned."""
    number = data.draw(st.integers(0, len(cut.walls) - 1))
    assume(not goes_on(cut, number))
    by = data.draw(st.sampled_from([-0.9, -0.4, 0.3, 0.8]))
    target = moved(cut, number, by)
    assume(all(e - w > LEAST_M / 3 and n - s > LEAST_M / 3 for w, s, e, n in target.rooms))
    before = apply(roomed(cut), [put(w) for w in walls_of([(placed(a), placed(b)) for a, b in cut.walls])])
    rooms = [
        s.model_copy(update={"outline": tuple(map(placed, s.outline))}) for s in before.of(Space).values()
    ]
    before = apply(before, [put(s) for s in rooms])
    across = cut.walls[number][0][0] == cut.walls[number][1][0]
    plain = Placed(placed.degrees, (0, 0), placed.mirrored)
    way = plain((by, 0.7) if across else (0.7, by))  # what is not square to the wall says nothing
    made = after(before, Move(walls=(f"w{number + 1}",), by=way))
    check(made, catalogue)
    for wall, (a, b) in zip(made.of(Wall).values(), target.walls, strict=True):
        assert math.dist(wall.a, placed(a)) < 0.002 and math.dist(wall.b, placed(b)) < 0.002
    for k, box in enumerate(target.rooms, 1):
        assert alike(Polygon(made.of(Space)[f"s{k}"].outline), Polygon(placed.box(box))) > 0.99


def house() -> Design:
    """A hall cut in two by a wall with a door in it; a door and a window in its south side."""
    return storey(
        *walls_of((*HALL.walls, ((5, 0), (5, 5)))),
        Opening(id="inner", wall="w5", kind="door", offset_m=1, width_m=0.9, construction="door-hollow"),
        Opening(id="front", wall="w1", kind="door", offset_m=1, width_m=1, construction="door-solid"),
        Opening(id="back", wall="w3", kind="window", offset_m=1, width_m=1, construction="glass-clear"),
    )


def test_doors_stay_where_they_are_on_the_sheet() -> None:
    design = house()
    # The west side goes out: both walls that meet it grow, one at its start, the other at its end.
    made = after(design, Move(walls=("w4",), by=(-2, 0.5)))
    assert made.of(Wall)["w1"].a == (-2, 0) and made.of(Wall)["w3"].b == (-2, 5)
    for key in ("front", "back", "inner"):
        assert spot(made, key) == pytest.approx(spot(design, key))
    # A wall that moves takes its own door along.
    other = after(design, Move(walls=("w5",), by=(1, 0)))
    assert spot(other, "inner") == (6, 1)


def test_what_hangs_on_a_wall_goes_with_it_and_what_hangs_from_the_ceiling_does_not() -> None:
    on_wall = access_point(5.1, 2, "ap-1", mount="wall", height_m=2.2)
    above = access_point(5.1, 3, "ap-2")
    socket = Socket(id="k", floor="f", name="Socket", at=(4.95, 1))
    hut = EquipmentRoom(id="r", floor="f", name="Rack", at=(4.9, 4))
    made = after(
        apply(house(), [put(on_wall), put(above), put(socket), put(hut)]), Move(walls=("w5",), by=(1, 3))
    )
    assert [d.at for d in made.of(Device).values()] == [(6.1, 2), (5.1, 3)]
    assert made.of(Socket)["k"].at == (5.95, 1) and made.of(EquipmentRoom)["r"].at == (5.9, 4)


def test_a_wall_in_several_pieces_goes_as_one_and_alone_only_where_asked() -> None:
    lines = (((0, 0), (4, 0)), ((4, 0), (8, 0)), ((8, 0), (8, 5)), ((8, 5), (0, 5)), ((0, 5), (0, 0)))
    design = storey(*walls_of(lines))
    made = after(design, Move(walls=("w1",), by=(0, -1)))
    assert [made.of(Wall)[k].a for k in ("w1", "w2", "w3")] == [(0, -1), (4, -1), (8, -1)]
    alone = after(design, Move(walls=("w1",), by=(0, -1), alone=True))
    assert alone.of(Wall)["w1"].b == (4, -1) and alone.of(Wall)["w2"].a == (4, 0)
    assert alone.of(Wall)["w5"].b == (0, 0)


def test_a_slanted_neighbour_keeps_its_line() -> None:
    design = storey(*walls_of((((0, 0), (6, 0)), ((6, 0), (8, 4)), ((8, 4), (0, 4)), ((0, 4), (0, 0)))))
    made = after(design, Move(walls=("w3",), by=(0, 2)))
    assert made.of(Wall)["w2"].b == (9, 6) and made.of(Wall)["w3"].a == (9, 6)
    back = after(made, Move(walls=("w3",), by=(0, -2)))
    assert covered(back.of(Wall).values()).equals_exact(covered(design.of(Wall).values()), 0.001)


def test_a_wall_that_ends_on_a_slanted_one_slides_along_it() -> None:
    design = storey(*walls_of((((0, 0), (8, 8)), ((3, 3), (3, 9)))))
    made = after(design, Move(walls=("w2",), by=(1, 0)))
    assert made.of(Wall)["w2"].a == (4, 4) and made.of(Wall)["w1"] == design.of(Wall)["w1"]


def test_several_walls_move_as_one_piece() -> None:
    made = after(house(), Move(walls=("w5", "w2"), by=(1.5, 0)))
    assert made.of(Wall)["w1"].b == (9.5, 0) and made.of(Wall)["w5"].a == (6.5, 0)
    assert spot(made, "back") == pytest.approx(spot(house(), "back"))


def test_a_corner_takes_its_walls_along() -> None:
    design = house()
    made = after(design, Bend(wall="w1", end="b", to=(10, -1)))
    assert made.of(Wall)["w2"].a == (10, -1) == made.of(Wall)["w1"].b
    # What stands on the bent wall still does.
    south = LineString([made.of(Wall)["w1"].a, made.of(Wall)["w1"].b])
    assert south.distance(LineString([made.of(Wall)["w5"].a, made.of(Wall)["w5"].b])) < 0.001
    alone = after(design, Bend(wall="w1", end="b", to=(10, -1), alone=True))
    assert alone.of(Wall)["w2"].a == (8, 0)


def test_a_length_and_an_angle_are_typed() -> None:
    design = house()
    longer = after(design, Measure(wall="w1", length_m=9.25))
    assert longer.of(Wall)["w1"].b == (9.25, 0) == longer.of(Wall)["w2"].a
    other_end = after(design, Measure(wall="w1", length_m=9.25, hold="b"))
    assert other_end.of(Wall)["w1"].a == (-1.25, 0)
    assert spot(other_end, "front") == pytest.approx((1, 0))
    turned = after(design, Measure(wall="w5", angle_deg=0))
    assert turned.of(Wall)["w5"] == design.of(Wall)["w5"]
    east = after(design, Measure(wall="w5", angle_deg=90, length_m=2))
    assert east.of(Wall)["w5"].b == (7, 0)


def test_a_door_that_no_longer_fits_says_so() -> None:
    with pytest.raises(DesignError, match=r"the door in it is 1\.00 m wide"):
        drawn(house(), Measure(wall="w1", length_m=0.8))
    with pytest.raises(DesignError, match="take it away"):
        drawn(storey(*walls_of(HALL.walls)), Move(walls=("w2",), by=(-8, 0)))


@given(cuts(), st.data())
@examples(40)
def test_divided_and_joined_again_is_the_same(catalogue: Catalogue, cut: Cut, data: st.DataObject) -> None:
    number = data.draw(st.integers(0, len(cut.walls) - 1))
    size = math.dist(*cut.walls[number])
    door = Opening(
        id="d", wall=f"w{number + 1}", kind="door", offset_m=0.1, width_m=0.8, construction="door-hollow"
    )
    late = door.model_copy(update={"id": "e", "offset_m": size - 0.35, "width_m": 0.3})
    before = apply(roomed(cut), [put(door), put(late)])
    at = data.draw(st.floats(0.95, size - 0.4))
    split = after(before, Split(wall=f"w{number + 1}", at_m=at))
    check(split, catalogue)
    assert len(split.of(Wall)) == len(cut.walls) + 1
    assert split.of(Space) == before.of(Space)
    fresh = next(k for k in split.of(Wall) if k not in before.of(Wall))
    for key in ("d", "e"):
        assert spot(split, key) == pytest.approx(spot(before, key), abs=0.001)
    whole = after(split, Join(walls=(fresh, f"w{number + 1}")))
    check(whole, catalogue)
    assert len(whole.of(Wall)) == len(cut.walls)
    for key in ("d", "e"):
        assert spot(whole, key) == pytest.approx(spot(before, key), abs=0.001)


@pytest.mark.parametrize(
    ("gesture", "what"),
    [
        (Split(wall="w5", at_m=1.4), "in the middle of a door"),
        (Split(wall="w5", at_m=0.01), "0.1 m from its ends"),
        (Join(walls=("w1", "w2")), "not in line"),
        (Join(walls=("w6", "w7")), "1.00 m between them"),
        (Beside(wall="w5", off_m=0.01), "0.1 m from it"),
        (Move(walls=("gone",), by=(1, 0)), "no wall 'gone'"),
        (Curve(wall="w5", rise_m=1), "take the door out"),
        (Curve(wall="w2", rise_m=2.6), "half a circle at most"),
    ],
)
def test_what_cannot_be_done_says_why(gesture: object, what: str) -> None:
    apart = [
        Wall(id=f"w{k}", floor="f", a=(x, 20), b=(x + 1, 20), construction="stone")
        for k, x in ((6, 0), (7, 2))
    ]
    with pytest.raises(DesignError, match=what):
        drawn(apply(house(), [put(w) for w in apart]), gesture)  # type: ignore[arg-type]


def test_a_wall_beside_another() -> None:
    made = after(house(), Beside(wall="w5", off_m=1.5))
    assert (made.of(Wall)["wall-1"].a, made.of(Wall)["wall-1"].b) == ((3.5, 0), (3.5, 5))
    assert made.of(Wall)["wall-1"].construction == "plasterboard"


@given(st.floats(1, 20), st.floats(0.05, 0.999), st.booleans(), placings)
@examples(40)
def test_a_curve_is_chords_of_one_circle(size: float, share: float, left: bool, placed: Placed) -> None:
    """Against the circle through three points, by the cross ratio of its chords."""
    rise = max(0.05, size / 2 * share) * (1 if left else -1)
    a, b = placed((0, 0)), placed((size, 0))
    made = after(storey(*walls_of([(a, b)])), Curve(wall="w1", rise_m=rise))
    walls = list(made.of(Wall).values())
    corners = [a, *(w.b for w in walls)]
    assert math.dist(walls[0].a, a) < 0.001 and math.dist(walls[-1].b, b) < 0.001
    for first, second in itertools.pairwise(walls):
        assert first.b == second.a
    sides = [w.length_m for w in walls]
    assert max(sides) - min(sides) < 0.002
    # As many degrees at the edge over each chord: seen from one end, all others are alike.
    seen = [math.atan2(p[1] - a[1], p[0] - a[0]) for p in corners[1:]]
    steps = [(q - p + math.pi) % (2 * math.pi) - math.pi for p, q in itertools.pairwise(seen)]
    assert max(map(abs, steps)) - min(map(abs, steps)) < 0.02
    middle = corners[len(corners) // 2]
    side = (b[0] - a[0]) * (middle[1] - a[1]) - (b[1] - a[1]) * (middle[0] - a[0])
    assert side * rise > 0


@given(cuts(), st.data())
@examples(40)
def test_every_gesture_is_undone_in_one_step(cut: Cut, data: st.DataObject) -> None:
    before = roomed(cut)
    number = data.draw(st.integers(0, len(cut.walls) - 1))
    gesture = data.draw(
        st.sampled_from(
            [Move(walls=(f"w{number + 1}",), by=(0.4, 0.4)), Beside(wall=f"w{number + 1}", off_m=0.7)]
        )
    )
    changes = drawn(before, gesture)
    changes += follow(before, apply(before, changes)).changes
    back = apply(apply(before, changes), inverse(before, changes))
    assert {k: dict(v) for k, v in back.tables.items() if v} == {
        k: dict(v) for k, v in before.tables.items() if v
    }
