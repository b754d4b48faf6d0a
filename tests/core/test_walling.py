"""Rooms come from walls: found however walls are drawn, and followed where walls move."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
from hypothesis import assume, given
from hypothesis import strategies as st
from scipy import ndimage
from shapely.geometry import LineString, Polygon

from heathrise.core.building.rooms import room_findings
from heathrise.core.catalogue import Catalogue
from heathrise.core.context.integrity import check
from heathrise.core.design import ClientGroup, Design, Opening, Space, Wall, apply, put, remove
from heathrise.core.walling import alike, follow, gaps_of, net_of

from ..thorough import examples
from .storeys_of_rooms import (
    LEAST_M,
    Cut,
    Line,
    Placed,
    as_people_draw,
    cuts,
    moved,
    placings,
    roomed,
    storey,
    walls_of,
)

PRECISE = 0.985  # drawn twice and two millimetres apart, a small room is so much the same


def faces(lines: Sequence[Line]) -> list[Polygon]:
    return list(net_of(walls_of(list(lines))).faces)


def assert_the_rooms(found: Sequence[Polygon], wanted: Sequence[Polygon]) -> None:
    """Each room once, where it should be, and no other."""
    assert len(found) == len(wanted)
    for room in wanted:
        assert sum(alike(room, place) > PRECISE for place in found) == 1


@given(st.data(), cuts(), placings)
@examples(150)
def test_the_same_rooms_however_walls_are_drawn(data: st.DataObject, cut: Cut, placed: Placed) -> None:
    lines = [(placed(a), placed(b)) for a, b in data.draw(as_people_draw(cut))]
    assert_the_rooms(faces(lines), [Polygon(placed.box(box)) for box in cut.rooms])


def flooded(lines: Sequence[Line], step_m: float = 0.05) -> list[float]:
    """The areas that water poured anywhere would fill, on a fine grid: plain, and knows no geometry."""
    size = int(26 / step_m)
    stands = np.zeros((size, size), dtype=bool)
    for (ax, ay), (bx, by) in lines:
        count = max(2, int(math.dist((ax, ay), (bx, by)) / step_m * 3))
        x, y = np.linspace(ax, bx, count), np.linspace(ay, by, count)
        stands[((x + 1) / step_m).astype(int), ((y + 1) / step_m).astype(int)] = True
    label, _ = ndimage.label(~stands)
    sizes = np.bincount(label.ravel())[1:]
    outside = label[0, 0] - 1
    return sorted(float(n * step_m**2) for k, n in enumerate(sizes) if k != outside)


@given(cuts(most=9), st.data())
@examples(60)
def test_rooms_against_a_flood_on_a_grid(cut: Cut, data: st.DataObject) -> None:
    # Some walls are missing: rooms run together, or out.
    gone = data.draw(st.sets(st.integers(0, len(cut.walls) - 1), max_size=2))
    lines = [line for k, line in enumerate(cut.walls) if k not in gone]
    found = sorted(faces(lines), key=lambda p: p.area)
    poured = [area for area in flooded(lines) if area > 0.8]
    assert len(found) == len(poured)
    for place, area in zip(found, poured, strict=True):
        assert abs(place.area - area) <= 0.06 * place.length + 0.01


def test_a_wall_by_its_two_faces_is_no_room() -> None:
    outer = Placed().box((0, 0, 6, 5))
    inner = Placed().box((0.25, 0.25, 5.75, 4.75))
    rings = [(p, q) for ring in (outer, inner) for p, q in zip(ring, [*ring[1:], ring[0]], strict=True)]
    assert [round(p.area, 2) for p in faces(rings)] == [round(5.5 * 4.5, 2)]


def test_more_crossings_than_a_building_has_are_no_rooms() -> None:
    hatch = [((k * 0.1, 0.0), (k * 0.1, 20.0)) for k in range(160)]
    hatch += [((0.0, k * 0.1), (20.0, k * 0.1)) for k in range(160)]
    net = net_of(walls_of(hatch))
    assert net.tangled > 20_000 and not net.faces


def rooms_after(before: Design, after: Design) -> tuple[Design, dict[str, Space]]:
    followed = apply(after, follow(before, after).changes)
    return followed, dict(followed.of(Space))


def goes_on(cut: Cut, number: int) -> bool:
    """Whether another wall lies in line with one and meets it: one of them alone would be bent."""
    line = LineString(cut.walls[number])
    return any(
        k != number
        and line.distance(LineString(other)) == 0
        and line.union(LineString(other)).convex_hull.area == 0
        for k, other in enumerate(cut.walls)
    )


@given(cuts(), st.data())
@examples(120)
def test_rooms_go_with_a_wall_and_keep_what_was_said(
    catalogue: Catalogue, cut: Cut, data: st.DataObject
) -> None:
    assume(len(cut.walls) > 4)
    number = data.draw(st.integers(4, len(cut.walls) - 1))
    by = data.draw(st.sampled_from([-0.9, -0.4, 0.3, 0.8]))
    assume(not goes_on(cut, number))
    target = moved(cut, number, by)
    assume(all(e - w > LEAST_M / 3 and n - s > LEAST_M / 3 for w, s, e, n in target.rooms))
    before = roomed(cut)
    after = apply(before, [put(w) for w in walls_of(target.walls)])
    followed, rooms = rooms_after(before, after)
    check(followed, catalogue)
    assert len(rooms) == len(cut.rooms)
    for k, box in enumerate(target.rooms, 1):
        room = rooms[f"s{k}"]
        assert alike(Polygon(room.outline), Polygon(Placed().box(box))) > 0.999
        assert (room.name, room.ceiling_height_m) == (f"Chamber {k}", 2.0 + k / 10)


@given(cuts(), placings)
@examples(40)
def test_a_whole_storey_that_moves_keeps_its_rooms(cut: Cut, placed: Placed) -> None:
    before = roomed(cut)
    lines = [(placed(a), placed(b)) for a, b in cut.walls]
    _, rooms = rooms_after(before, apply(before, [put(w) for w in walls_of(lines)]))
    for k, box in enumerate(cut.rooms, 1):
        assert alike(Polygon(rooms[f"s{k}"].outline), Polygon(placed.box(box))) > 0.99


@given(cuts())
@examples(40)
def test_rooms_that_nobody_drew_come_of_the_last_wall(cut: Cut) -> None:
    walls = walls_of(cut.walls)
    before, after = storey(*walls[1:]), storey(*walls)
    first = follow(storey(), before)
    _, rooms = rooms_after(apply(before, first.changes), apply(after, first.changes))
    assert_the_rooms(
        [Polygon(r.outline) for r in rooms.values()], [Polygon(Placed().box(b)) for b in cut.rooms]
    )
    assert not follow(storey(), after).questions


HALL = Cut(((0, 0, 8, 5),), (((0, 0), (8, 0)), ((8, 0), (8, 5)), ((8, 5), (0, 5)), ((0, 5), (0, 0))))
ACROSS = Wall(id="new", floor="f", a=(5, 0), b=(5, 5), construction="plasterboard")


def test_a_divided_room_asks_once_which_part_stays_it() -> None:
    before = apply(roomed(HALL), [put(ClientGroup(id="c", space="s1", kind="phone", count=4))])
    after = apply(before, [put(ACROSS)])
    followed = follow(before, after)
    divided = apply(after, followed.changes)
    assert {s.name: Polygon(s.outline).area for s in divided.of(Space).values()} == {
        "Chamber 1": 25,
        "Room 1": 15,
    }
    assert divided.of(Space)["room-1"].ceiling_height_m == divided.of(Space)["s1"].ceiling_height_m
    (question,) = followed.questions
    assert "Chamber 1 is divided" in question.text
    assert [a.label for a in question.answers] == ["25.0 m²", "15.0 m²"]
    other = apply(divided, question.answers[1].changes)
    assert Polygon(other.of(Space)["s1"].outline).area == 15
    assert other.of(ClientGroup)["c"].space == "s1"
    assert not question.answers[0].changes
    # The answer given, another wall asks of its own room only.
    more = Wall(id="more", floor="f", a=(0, 2), b=(5, 2), construction="plasterboard")
    assert [q.id for q in follow(divided, apply(divided, [put(more)])).questions] == ["divided-s1"]


def test_a_room_of_which_nothing_was_said_is_divided_without_a_word() -> None:
    before = storey(*walls_of(HALL.walls))
    before = apply(before, follow(storey(), before).changes)
    followed = follow(before, apply(before, [put(ACROSS)]))
    assert not followed.questions and len(followed.changes) == 2


def test_rooms_that_no_wall_parts_any_more_may_be_one() -> None:
    before = apply(roomed(HALL), [put(ACROSS)])
    before = apply(before, follow(roomed(HALL), before).changes)
    before = apply(before, [put(ClientGroup(id="c", space="room-1", kind="phone", count=4))])
    after = apply(before, [remove(ACROSS)])
    followed = follow(before, after)
    assert not followed.changes
    (question,) = followed.questions
    assert [a.label for a in question.answers] == [
        "Stay apart, open to each other",
        "One, Chamber 1",
        "One, Room 1",
    ]
    one = apply(after, question.answers[1].changes)
    assert list(one.of(Space)) == ["s1"] and Polygon(one.of(Space)["s1"].outline).area == 40
    assert one.of(ClientGroup)["c"].space == "s1"


def test_a_part_of_an_open_place_goes_with_the_wall_it_touches() -> None:
    kitchen = Space(id="k", floor="f", name="Kitchen", outline=((0, 0), (3, 0), (3, 5), (0, 5)))
    dining = Space(id="d", floor="f", name="Dining", outline=((3, 0), (8, 0), (8, 5), (3, 5)))
    before = storey(*walls_of(HALL.walls), kitchen, dining)
    wider = (((0, 0), (9, 0)), ((9, 0), (9, 5)), ((9, 5), (0, 5)), ((0, 5), (0, 0)))
    _, rooms = rooms_after(before, apply(before, [put(w) for w in walls_of(wider)]))
    assert list(rooms) == ["k", "d"]
    assert Polygon(rooms["d"].outline).bounds[2] == 9
    assert rooms["k"].outline[0] == (0, 0)


def test_walls_drawn_about_a_room_by_hand_take_its_outline_along() -> None:
    store = Space(id="k", floor="f", name="Store", outline=((0.2, 0.1), (7.8, 0.1), (7.8, 4.5), (0.2, 4.5)))
    yard = Space(
        id="y", floor="f", name="Yard", outline=((-20, -20), (20, -20), (20, 20), (-20, 20)), outdoor=True
    )
    before = storey(store, yard)
    _, rooms = rooms_after(before, apply(before, [put(w) for w in walls_of(HALL.walls)]))
    assert Polygon(rooms["k"].outline).area == 40 and list(rooms) == ["k", "y"]
    assert rooms["y"] == yard


def test_a_room_about_an_island_is_one_outline(catalogue: Catalogue) -> None:
    core = Placed().box((3, 2, 5, 4))
    ring = list(zip(core, [*core[1:], core[0]], strict=True))
    before = roomed(HALL)
    after = apply(before, [put(w.model_copy(update={"id": f"core-{w.id}"})) for w in walls_of(ring)])
    followed, rooms = rooms_after(before, after)
    check(followed, catalogue)
    hall = Polygon(rooms["s1"].outline)
    assert abs(hall.area - 36) < 0.05 and not hall.contains(Polygon(core).centroid)
    assert Polygon(rooms["room-1"].outline).area == 4


def test_a_gap_that_keeps_a_room_open_is_closed_at_a_press(catalogue: Catalogue) -> None:
    lines = (((0, 0), (8, 0)), ((8, 0), (8, 5)), ((8, 5), (0, 5)), ((0, 5), (0, 0.9)))
    design = storey(*walls_of(lines))
    (finding,) = room_findings(design, catalogue)
    assert finding.figure == 0.9 and "40.0 m² stays open" in finding.text
    assert finding.places[0].at == (0, 0.45)
    door, closed = finding.cures
    made = apply(design, door.changes)
    check(made, catalogue)
    assert [(o.kind, o.width_m) for o in made.of(Opening).values()] == [("door", 0.9)]
    assert [Polygon(s.outline).area for s in made.of(Space).values()] == [40]
    assert not list(room_findings(made, catalogue))
    assert not apply(design, closed.changes).of(Opening)


def test_a_wall_that_stops_short_goes_on(catalogue: Catalogue) -> None:
    lines = (((0, 0), (8, 0)), ((8, 0), (8, 5)), ((8, 5), (0, 5)), ((0, 5), (0, 0.06)))
    design = storey(*walls_of(lines))
    (finding,) = room_findings(design, catalogue)
    made = apply(design, finding.cures[0].changes)
    assert len(made.of(Wall)) == 4 and made.of(Wall)["w4"].b == (0, 0)
    assert len(made.of(Space)) == 1


def test_a_doorway_left_open_between_two_walls_is_asked_about_and_a_passage_is_not(
    catalogue: Catalogue,
) -> None:
    doorway = storey(*walls_of((*HALL.walls, ((4, 0), (4, 2)), ((4, 2.9), (4, 5)))))
    rooms = apply(doorway, follow(storey(), doorway).changes)
    assert len(rooms.of(Space)) == 1
    (finding,) = room_findings(rooms, catalogue)
    made = apply(rooms, finding.cures[0].changes)
    assert sorted(Polygon(s.outline).area for s in made.of(Space).values()) == [20, 20]
    passage = storey(*walls_of((*HALL.walls, ((4, 0), (4, 4)))))
    assert not list(room_findings(apply(passage, follow(storey(), passage).changes), catalogue))


def test_many_gaps_are_one_finding_and_one_cure(catalogue: Catalogue) -> None:
    rows: list[Line] = [((0, 0), (30, 0)), ((0, 4), (30, 4))]
    rows += [((x, 0.8), (x, 4)) for x in range(0, 31, 3)]
    design = storey(*walls_of(rows))
    assert len(gaps_of(design, 1.3)) == 11
    findings = list(room_findings(design, catalogue))
    assert len(findings) == 6
    made = apply(design, findings[-1].cures[0].changes)
    check(made, catalogue)
    assert len(made.of(Opening)) == 6


def test_closed_places_without_a_room_become_rooms(catalogue: Catalogue) -> None:
    design = storey(*walls_of((*HALL.walls, ((4, 0), (4, 5)))))
    (finding,) = room_findings(design, catalogue)
    assert "2 places, 40.0 m² together" in finding.text
    made = apply(design, finding.cures[0].changes)
    assert [s.name for s in made.of(Space).values()] == ["Room 1", "Room 2"]
    assert not list(room_findings(made, catalogue))
