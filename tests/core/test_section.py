"""The cut through a site, and closets that stack, against plain looks at single spots."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import LineString, Point, Polygon

from heathrise.core.building.stacks import stack_findings, stacks_of
from heathrise.core.catalogue import Catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Building,
    Design,
    DesignError,
    Device,
    Floor,
    Riser,
    Site,
    Space,
    Wall,
    apply,
    put,
)
from heathrise.core.design import design_of as gathered
from heathrise.core.signal import environment_of, readings_at
from heathrise.core.views.section import SLAB_M, STEP_M, section_view

from ..thorough import examples
from .plans import access_point
from .sites import sites


@given(sites(), st.tuples(*[st.floats(-5, 25)] * 4))
@examples(60)
def test_a_cut_against_spots_on_it(
    catalogue: Catalogue, design: Design, ends: tuple[float, float, float, float]
) -> None:
    a, b = (ends[0], ends[1]), (ends[2], ends[3])
    if not math.dist(a, b) > 1:
        return
    floor = next(iter(design.of(Floor)))
    view = section_view(Plan(design, catalogue), floor, (a, b))
    line = LineString([a, b])
    assert view.length_m == pytest.approx(line.length, abs=0.001)
    for k in range(40):
        at_m = line.length * (k + 0.37) / 40
        spot = line.interpolate(at_m)
        for space in design.of(Space).values():
            place = Polygon(space.outline)
            if place.boundary.distance(spot) < 0.01:
                continue
            cut = [r for r in view.rooms if r.space == space.id and r.from_m < at_m < r.to_m]
            assert bool(cut) == place.contains(spot)
            for room in cut:
                storey = design.of(Floor)[space.floor]
                assert room.foot_m == pytest.approx(storey.elevation_m, abs=0.001)
                if not space.open_above:
                    height = space.ceiling_height_m or storey.ceiling_height_m
                    assert room.top_m - room.foot_m == pytest.approx(height, abs=0.002)
    walls = design.of(Wall)
    crossed = {w.id for w in walls.values() if line.crosses(LineString([w.a, w.b]))}
    assert crossed <= {w.wall for w in view.walls}
    for cut in view.walls:
        wall = walls[cut.wall]
        assert LineString([wall.a, wall.b]).distance(line.interpolate(cut.at_m)) < 0.01
    near = {d.id for d in design.of(Device).values() if line.distance(Point(d.at)) < 1.99}
    assert {n.id for n in view.near if n.kind != "rack"} >= {
        k
        for k in near
        if 0 <= line.project(Point(design.of(Device)[k].at)) <= line.length and _beside(line, design, k)
    }


def _beside(line: LineString, design: Design, device: str) -> bool:
    """Whether a device lies beside the cut and not beyond its ends."""
    at = line.project(Point(design.of(Device)[device].at))
    return 0.01 < at < line.length - 0.01


def house(*more: object) -> Design:
    """Two storeys of 8 x 5 m, a hall open to the gallery, and a closet in one corner of both."""

    def box(west: float, south: float, east: float, north: float) -> tuple[tuple[float, float], ...]:
        return ((west, south), (east, south), (east, north), (west, north))

    return gathered(
        [
            Site(id="site"),
            Building(id="b", name="Hut"),
            Floor(id="f", building="b", name="Ground", level=0, ceiling_height_m=2.7),
            Floor(id="g", building="b", name="Upper", level=1, elevation_m=3.0, ceiling_height_m=2.4),
            Space(id="hall", floor="f", name="Hall", outline=box(0, 0, 4, 5), open_above=True),
            Space(id="low", floor="f", name="Store", outline=box(4, 0, 6, 2)),
            Space(
                id="rest", floor="f", name="Shop", outline=((6, 0), (8, 0), (8, 5), (4, 5), (4, 2), (6, 2))
            ),
            Space(id="gallery", floor="g", name="Gallery", outline=box(0, 0, 5, 5)),
            Space(id="up", floor="g", name="Linen", outline=box(5, 0, 7, 2)),
            Space(
                id="bed", floor="g", name="Bedroom", outline=((7, 0), (8, 0), (8, 5), (5, 5), (5, 2), (7, 2))
            ),
            Wall(id="w", floor="f", a=(4, 0), b=(4, 5), construction="brick-cavity"),
            access_point(2, 2.4, "ap-1"),
            *more,  # type: ignore[list-item]
        ]
    )


def test_a_house_along_its_middle(catalogue: Catalogue) -> None:
    view = section_view(Plan(house(), catalogue), "f")
    assert (view.a, view.b) == ((-1, 2.5), (9, 2.5))
    assert [(s.name, s.from_m, s.to_m, s.elevation_m) for s in view.storeys] == [
        ("Ground", 1, 9, 0),
        ("Upper", 1, 9, 3),
    ]
    hall = next(r for r in view.rooms if r.space == "hall")
    assert (hall.from_m, hall.to_m, hall.top_m) == (1, 5, 5.4)  # up to the gallery's ceiling
    floors = [(s.from_m, s.to_m, s.top_m) for s in view.slabs if s.floor == "g" and not s.roof]
    assert floors == [(5, 9, 3)]  # none over the hall
    roof = next(s for s in view.slabs if s.roof)
    assert roof.top_m == pytest.approx(3 + 2.4 + SLAB_M)
    (wall,) = view.walls
    assert (wall.at_m, wall.foot_m, wall.top_m) == (5, 0, 2.7)
    (near,) = view.near
    assert (near.at_m, near.z_m, near.off_m) == (3, 2.7, -0.1)


def test_what_is_heard_on_a_cut_is_what_is_heard_at_its_spots(catalogue: Catalogue) -> None:
    plan = Plan(house(access_point(7, 4, "ap-2", floor="g")), catalogue)
    view = section_view(plan, "f", ((-1, 1.3), (9, 2.9)))
    air = environment_of(plan)
    line = LineString([view.a, view.b])
    told = 0
    for row in view.heard:
        for k, level in enumerate(row.dbm):
            spot = line.interpolate((k + 0.5) * STEP_M)
            inside = any(
                Polygon(s.outline).contains(spot)
                for s in plan.design.of(Space).values()
                if s.floor == row.floor
            )
            assert (level is not None) == inside
            if level is not None:
                rows = [r for r in readings_at(air, row.floor, spot.x, spot.y) if r.band == "5"]
                best = max(rows, key=lambda r: min(r.downlink_dbm, r.uplink_dbm))
                assert level == pytest.approx(min(best.downlink_dbm, best.uplink_dbm), abs=0.11)
                told += 1
    assert told > 20


def test_closets_that_stack_are_offered_as_a_riser(catalogue: Catalogue) -> None:
    design = house()
    (stack,) = stacks_of(design, catalogue)
    assert stack.spaces == ("low", "up")
    # Of what both share, a wall's half away from every side: 0.8 by 1.8 m.
    assert stack.shared_m2 == pytest.approx(0.8 * 1.8)
    (finding,) = stack_findings(design, catalogue)
    assert finding.text == "Hut: no riser joins its storeys, and Store and Linen stand over one another."
    made = apply(design, finding.cures[0].changes)
    (riser,) = made.of(Riser).values()
    assert (riser.lowest_level, riser.highest_level) == (0, 1)
    assert 5.1 < riser.at[0] < 5.9 and 0.1 < riser.at[1] < 1.9
    assert not list(stack_findings(made, catalogue))
    assert section_view(Plan(made, catalogue), "f", ((0, 1), (8, 1))).risers[0].top_m == 5.4


def test_a_bathroom_is_no_closet(catalogue: Catalogue) -> None:
    design = house()
    wet = design.of(Space)["low"].model_copy(update={"water": True})
    assert not stacks_of(apply(design, [put(wet)]), catalogue)


@pytest.mark.parametrize(
    ("cut", "what"), [(((0, 0), (0, 0)), "0.0 m long"), (((0, 0), (0, 900)), "900.0 m long")]
)
def test_a_cut_of_no_length_says_so(
    catalogue: Catalogue, cut: tuple[tuple[float, float], tuple[float, float]], what: str
) -> None:
    with pytest.raises(DesignError, match=what):
        section_view(Plan(house(), catalogue), "f", cut)


def test_a_building_that_nobody_drew_says_what_to_do(catalogue: Catalogue) -> None:
    bare = gathered(
        [Site(id="site"), Building(id="b", name="Hut"), Floor(id="f", building="b", name="G", level=0)]
    )
    with pytest.raises(DesignError, match="draw a room or a wall"):
        section_view(Plan(bare, catalogue), "f")
