"""Drawings that show a wall by its two faces: one wall with its thickness, whatever the storey."""

from __future__ import annotations

import itertools
import math
import random

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import LineString, Polygon, box

from heathrise.core.design import Wall
from heathrise.core.walling import net_of
from heathrise.core.walling.face_lines import FaceWall, Line
from heathrise.core.walling.faces import FacesFound, faces_met
from heathrise.core.walling.faces import walls_of_faces as found_in

from ..thorough import examples
from .storeys_of_rooms import Cut, cuts

OUTER_M, INNER_M, DOOR_M = 0.3, 0.12, 0.9


def walls_of_faces(lines: list[Line], across: tuple[Line, ...] = ()) -> FacesFound:
    """What is found, its walls ending where they meet."""
    found = found_in(lines, across)
    return FacesFound(tuple(faces_met(found.walls)), found.share)


def is_rim(cut: Cut, line: Line) -> bool:
    wide, deep = (max(b[k] for b in cut.rooms) for k in (2, 3))
    (ax, ay), (bx, by) = line
    return (ax == bx and ax in (0, wide)) or (ay == by and ay in (0, deep))


def door_of(cut: Cut, line: Line) -> Line | None:
    """A door in a wall where no other wall ends or crosses within three quarters of a metre."""
    (ax, ay), (bx, by) = line
    size = math.dist(*line)
    others = shapely.union_all([LineString(w) for w in cut.walls if w != line])
    for k in range(2, round(4 * size) - 1):
        t = k / 4 / size
        spot = shapely.Point(ax + (bx - ax) * t, ay + (by - ay) * t)
        if others.distance(spot) >= 0.75:
            low, high = t - DOOR_M / 2 / size, t + DOOR_M / 2 / size
            return (
                (ax + (bx - ax) * low, ay + (by - ay) * low),
                (ax + (bx - ax) * high, ay + (by - ay) * high),
            )
    return None


def drawn(cut: Cut, turn_deg: float, seed: int, doors: bool, broken: bool) -> list[Line]:
    """The faces of a storey's walls as a drawing has them: solid walls, doors cut out, their outlines."""
    solid = shapely.union_all(
        [
            LineString(w).buffer((OUTER_M if is_rim(cut, w) else INNER_M) / 2, cap_style="square")
            for w in cut.walls
        ]
    )
    if doors:
        holes = [
            LineString(d).buffer(0.4, cap_style="flat")
            for w in cut.walls
            if not is_rim(cut, w) and (d := door_of(cut, w))
        ]
        solid = solid.difference(shapely.union_all(holes)) if holes else solid
    chance = random.Random(seed)
    lines: list[Line] = []
    for part in getattr(solid, "geoms", [solid]):
        for ring in (part.exterior, *part.interiors):
            corners = list(ring.simplify(1e-6).coords)
            for a, b in itertools.pairwise(corners):
                pieces = [(a, b)]
                if broken and chance.random() < 0.4:
                    t = chance.uniform(0.2, 0.8)
                    m = (a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]))
                    pieces = [(a, m), (m, b)]
                lines += [(q, p) if chance.random() < 0.5 else (p, q) for p, q in pieces]
    chance.shuffle(lines)
    c, s = math.cos(math.radians(turn_deg)), math.sin(math.radians(turn_deg))

    def there(p: tuple[float, float]) -> tuple[float, float]:
        return (round(p[0] * c - p[1] * s, 6), round(p[0] * s + p[1] * c, 6))

    return [(there(a), there(b)) for a, b in lines]


def back(p: tuple[float, float], turn_deg: float) -> tuple[float, float]:
    c, s = math.cos(math.radians(-turn_deg)), math.sin(math.radians(-turn_deg))
    return (p[0] * c - p[1] * s, p[0] * s + p[1] * c)


def areas(walls: list[FaceWall]) -> list[float]:
    rows = [Wall(id=f"w{k}", floor="f", a=w.a, b=w.b, construction="x") for k, w in enumerate(walls)]
    return sorted(f.area for f in net_of(rows).faces)


@given(
    cuts(),
    st.sampled_from([0.0, 0.0, 12.0, 45.0, 90.0, 133.7]),
    st.integers(0, 99),
    st.booleans(),
    st.booleans(),
)
@examples(80)
def test_two_faces_become_the_wall_between_them(
    cut: Cut, turn_deg: float, seed: int, doors: bool, broken: bool
) -> None:
    found = walls_of_faces(drawn(cut, turn_deg, seed, doors, broken))
    wanted = sorted((e - w) * (n - s) for w, s, e, n in cut.rooms)
    got = areas(list(found.walls))
    assert len(got) == len(wanted)
    assert got == pytest.approx(wanted, rel=0.005, abs=0.05)
    assert found.share > 0.7
    truth = shapely.union_all([LineString(w) for w in cut.walls])
    for wall in found.walls:
        assert wall.thick_m is not None
        ends = [back(p, turn_deg) for p in (wall.a, wall.b)]
        for k in range(11):
            t = k / 10
            spot = (ends[0][0] + t * (ends[1][0] - ends[0][0]), ends[0][1] + t * (ends[1][1] - ends[0][1]))
            near = min(cut.walls, key=lambda w: LineString(w).distance(shapely.Point(spot)))
            assert truth.distance(shapely.Point(spot)) < 0.02, spot
            if 0 < k < 10 and truth.intersection(shapely.Point(spot).buffer(0.4)).length < 0.81:
                assert wall.thick_m == pytest.approx(OUTER_M if is_rim(cut, near) else INNER_M, abs=0.011)
    seen = shapely.union_all([LineString([back(w.a, turn_deg), back(w.b, turn_deg)]) for w in found.walls])
    assert truth.difference(seen.buffer(0.03)).length < 0.05
    cut_out = sum(1 for w in cut.walls if not is_rim(cut, w) and door_of(cut, w)) if doors else 0
    gaps = [q - p for w in found.walls for p, q in w.gaps]
    assert len(gaps) == cut_out and all(g == pytest.approx(DOOR_M, abs=0.01) for g in gaps)


@pytest.mark.parametrize("offs", [(0.0, 0.1, 0.16, 0.26), (0.0, 0.1, 0.2, 0.26), (0.0, 0.08, 0.2, 0.26)])
def test_a_cavity_wall_of_four_lines_is_one(offs: tuple[float, ...]) -> None:
    lines: list[Line] = []
    for off in offs:
        outline = Polygon(box(off, off, 6 - off, 4 - off)).exterior.coords
        lines += [(a, b) for a, b in itertools.pairwise(outline)]
    found = walls_of_faces(lines)
    assert len(found.walls) == 4
    assert all(w.thick_m == pytest.approx(0.26, abs=0.01) for w in found.walls)
    assert areas(list(found.walls)) == pytest.approx([(6 - 0.26) * (4 - 0.26)], rel=0.005)


def test_a_wide_gap_is_joined_only_where_a_window_is_drawn_in_it() -> None:
    def pieces(*spans: tuple[float, float]) -> list[Line]:
        return [line for p, q in spans for y in (0.0, 0.2) for line in (((p, y), (q, y)),)]

    lines = pieces((0, 3), (5, 8))
    assert len(walls_of_faces(lines).walls) == 2
    (whole,) = walls_of_faces(lines, across=(((3, 0.1), (5, 0.1)),)).walls
    assert whole.length_m == pytest.approx(8) and whole.gaps[0] == pytest.approx((3, 5))
    (door,) = walls_of_faces(pieces((0, 3), (3.9, 8))).walls
    assert door.gaps[0] == pytest.approx((3, 3.9)) or door.gaps[0] == pytest.approx((4.1, 5))


def test_a_narrow_passage_between_two_walls_is_none() -> None:
    """Walls of 12 cm, half a metre apart: two walls with room between them."""
    lines: list[Line] = [((0, y), (6, y)) for y in (0.0, 0.12, 0.62, 0.74)]
    found = walls_of_faces(lines).walls
    assert sorted(round(w.a[1], 2) for w in found) == [0.06, 0.68]


def test_lines_alone_stay_walls() -> None:
    found = walls_of_faces([((0, 0), (5, 0)), ((5, 0), (5, 4)), ((5, 4), (0, 4)), ((0, 4), (0, 0))])
    assert found.share == 0 and len(found.walls) == 4 and all(w.thick_m is None for w in found.walls)
    assert areas(list(found.walls)) == pytest.approx([20])
    assert walls_of_faces([]).walls == ()
