"""Trees that are drawn: in the air of a plan, on lines over the land, between cells and nodes of a mesh."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from heathrise.core.base.bands import BANDS
from heathrise.core.base.foliage import foliage_db
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.integrity import check
from heathrise.core.context.leaves import leaves_m, over_the_line, stretches
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, DesignError, Device, FarPoint, Grove, apply, design_of, put, remove
from heathrise.core.evaluation.far_lines import far_view
from heathrise.core.evaluation.far_sites import node_at, site_of
from heathrise.core.signal import air_of, explain_spot
from heathrise.core.signal.obstacles import grid_losses_db, losses_db, relief_grids
from heathrise.core.views.far_land import far_land
from heathrise.core.views.far_ways import far_ways
from heathrise.core.views.site import site_view

from ..thorough import examples
from . import reference_ray as plain
from .plans import access_point, rack, shell
from .sites import sites

CATALOGUE = load_catalogue()
RULES = CATALOGUE.rules
tenths = st.integers(-300, 300).map(lambda v: v / 10)


def square(key: str = "g", at: tuple[float, float] = (40, 4), size: float = 10, **more: float) -> Grove:
    (x, y), s = at, size
    outline = ((x, y), (x + s, y), (x + s, y + s), (x, y + s))
    return Grove.model_validate({"id": key, "name": "Wood", "outline": outline, **more})


@st.composite
def groves(draw: st.DrawFn) -> Grove:
    """Any outline of some corners, also one with bays, at odd decimals so that no way runs along an edge."""
    count = draw(st.integers(3, 9))
    centre = draw(st.tuples(tenths, tenths))
    out = [draw(st.integers(10, 150)) / 10 + 0.0173 for _ in range(count)]
    ring = tuple(
        (
            centre[0] + 0.0111 + r * math.cos(2 * math.pi * k / count + 0.013),
            centre[1] + 0.0077 + r * math.sin(2 * math.pi * k / count + 0.013),
        )
        for k, r in enumerate(out)
    )
    clear = draw(st.sampled_from([0.0, 0.9, 2.0]))
    top = clear + draw(st.integers(5, 90)) / 10
    return Grove(id="g", name="Trees", outline=ring, height_m=top, clear_m=clear)


spots = st.tuples(tenths, tenths, st.integers(0, 120).map(lambda v: v / 10))


# By hand.


def test_what_ten_and_thirty_metres_take() -> None:
    """At 5.6 GHz 10 m take 7.3 dB and 30 m 16.0; where both forms meet nothing falls."""
    assert float(foliage_db(5600, 10)) == pytest.approx(7.3, abs=0.05)
    assert float(foliage_db(5600, 30)) == pytest.approx(16.0, abs=0.05)
    rows = foliage_db(2437, np.linspace(0, 60, 2000))
    assert rows[0] == 0 and (np.diff(rows) >= 0).all()


def test_a_way_through_a_square_of_trees_by_hand() -> None:
    """10 m through; slanting up from 0 to 8 m over 80 m it is under leaves of 2 m until x = 20 and
    over tops of 4.5 m from x = 45 on: 5 m of the square, on the slant 5 x sqrt(80^2 + 8^2) / 80."""
    wood = {"g": square(height_m=4.5, clear_m=2.0)}
    x, y = np.array([80.0]), np.array([9.0])
    assert leaves_m(wood, (0, 9, 3), x, y, 3.0)[0] == pytest.approx(10)
    assert leaves_m(wood, (0, 9, 1), x, y, 1.0)[0] == 0, "under the lowest leaves"
    assert leaves_m(wood, (0, 9, 0), x, y, 8.0)[0] == pytest.approx(5 * math.hypot(80, 8) / 80)
    assert leaves_m(wood, (0, 9, 0), x, y, 8.0, {"g": 0.5})[0] == pytest.approx(10 * math.hypot(80, 8) / 80)
    assert leaves_m(wood, (45, 9, 3), x, y, 3.0)[0] == pytest.approx(5), "from within"
    assert over_the_line(wood["g"], (0, 9), (80, 9)) == [(0.5, 0.625)]


def test_a_hedge_before_an_access_point_by_hand() -> None:
    """An access point of the yard at 2.7 m, a client 30 m off at 1.2 m, a wood of 10 m between."""
    drawn = design_of([*shell(), access_point(3, 9)])
    grown = apply(drawn, [put(square(at=(10, 4), height_m=8.0))])
    x, y = np.array([33.0]), np.array([9.0])
    before, after = (
        losses_db(
            air_of(d, CATALOGUE).terrain, d.of(Device)["ap-1"], CATALOGUE.airs["ravelmoor-c2"], "f", x, y
        )
        for d in (drawn, grown)
    )
    metres = 10 * math.hypot(30, 1.5) / 30
    for row, ghz in enumerate((2.437, 5.5, 6.5)):
        assert after[row, 0] - before[row, 0] == pytest.approx(0.45 * ghz**0.284 * metres, abs=1e-6)
    (ray,) = explain_spot(air_of(grown, CATALOGUE), "f", (33.0, 9.0), "5").rays
    leaves = [c for c in ray.crossings if c.kind == "leaves"]
    assert [c.label for c in leaves] == ["Wood, 10.0\u00a0m of leaves"]
    assert leaves[0].at == (15.0, 9.0) and leaves[0].share == 0.4


# On random outlines and sites.


@given(groves(), spots, spots)
@examples(200)
def test_metres_of_leaves_are_those_cut_by_hand(grove: Grove, here: tuple, there: tuple) -> None:
    assume(math.dist(here[:2], there[:2]) > 0.5)
    told = plain.leaves_m(grove, here, there)
    x, y, h = (np.array([c]) for c in there)
    found = float(leaves_m({"g": grove}, here, x, y, h)[0])
    assert found == pytest.approx(told, abs=1e-6)
    back = float(leaves_m({"g": grove}, there, *(np.array([c]) for c in here))[0])
    assert back == pytest.approx(found, abs=1e-6), "the same there and back"
    assert sum(s.leaves_m for s in stretches({"g": grove}, here, there)) == pytest.approx(found, abs=1e-6)
    assert found <= math.dist(here, there) + 1e-9
    taller = float(leaves_m({"g": grove}, here, x, y, h, {"g": 1.0})[0])
    assert taller >= found - 1e-9, "trees that grow never take fewer metres"


@given(sites())
@examples(25)
def test_trees_only_take_and_what_is_kept_is_what_is_traced(design: Design) -> None:
    bare = apply(design, [remove(g) for g in design.of(Grove).values()])
    with_trees, without = air_of(design, CATALOGUE), air_of(bare, CATALOGUE)
    for device in design.of(Device).values():
        model = CATALOGUE.airs[device.model]
        for grid in relief_grids(without.terrain, "f0"):
            more = grid_losses_db(with_trees.terrain, device, model, "f0", grid)
            less = grid_losses_db(without.terrain, device, model, "f0", grid)
            assert (more >= less - 1e-4).all()
            traced = losses_db(with_trees.terrain, device, model, "f0", *grid.points)
            # A ray along the very end of a wall is met or not by a hair.
            assert (np.abs(more - traced) > 1e-3).mean() < 0.01 and len(traced) == len(BANDS)


# Over the land.


def far(key: str, at: tuple[float, float], **more: object) -> FarPoint:
    return FarPoint.model_validate({"id": key, "name": key.title(), "at": at, "clients": 3, **more})


def land(*more: FarPoint | Grove) -> Plan:
    return Plan(design_of([*shell(), access_point(19, 9), rack(1, 9), *more]), CATALOGUE)


def test_trees_that_are_drawn_across_a_line_are_as_those_that_are_said_of_it() -> None:
    wood = square(at=(101, 4), size=12, height_m=6.0, grows_m=0.3)
    drawn = far_view(land(far("gate", (201, 9)), wood)).lines[0]
    said = far_view(land(far("gate", (201, 9), trees=((100, 112, 6.0, 0.3),)))).lines[0]
    assert drawn.sights == said.sights and drawn.slices == said.slices
    assert (drawn.said_leaves_m, said.said_leaves_m > 0) == (0.0, True)
    assert drawn.sights[0].verdict == "blocked" and "in 10 years trees stand" in drawn.sights[0].why
    under = far_view(land(far("gate", (201, 9)), wood.model_copy(update={"clear_m": 5.0}))).lines[0]
    assert under.sights[0].leaves_m == 0 and under.sights[0].verdict == "blocked", "trunks stand in it still"


def test_a_node_out_there_hears_through_the_leaves_on_its_own_way() -> None:
    """The access point stands at (19, 9), the rack at (1, 9): a wood across the rack's line alone, between
    both, takes nothing of the node's."""
    bare, across, beside = (
        land(far("barn", (19, 99)), *trees)
        for trees in ((), (square(at=(14, 50), height_m=9.0),), (square(at=(5, 30), size=4, height_m=9.0),))
    )
    level = [node_at(p, p.drawn.of(FarPoint)["barn"], far_view(p).lines[0]).level_dbm for p in (bare, across)]
    metres = plain.leaves_m(square(at=(14, 50), height_m=9.0), (19, 9, 2.7), (19, 99, 3.0), 4.0)
    assert level[0] - level[1] == pytest.approx(plain.takes_db(5.6, metres), abs=0.11)
    line = far_view(beside).lines[0]
    assert line.sights[0].leaves_m > 0
    assert node_at(beside, beside.drawn.of(FarPoint)["barn"], line).level_dbm == level[0]
    # Over the horizon from the barn's 3 m: 9 m that grow 0.4 for ten years, 39 m away.
    sky = site_of(across, across.drawn.of(FarPoint)["barn"], far_view(across).lines[0]).horizon_deg
    assert sky == pytest.approx(math.degrees(math.atan2(9 + 4 - 3, 39)), abs=0.06)


def test_a_dish_sees_no_sky_over_a_hill_before_it() -> None:
    """A ridge of 12 m half-way to a barn 40 m off, seen from 3 m: atan 9 / 20 is 24.2 degrees, of 13 m 26.6."""
    low, high = (
        next(
            w
            for w in far_ways(land(far("barn", (1, 49), profile=((20, ridge),))), "barn").ways
            if w.id == "satellite-solar"
        )
        for ridge in (12.0, 13.0)
    )
    assert any("ground or trees stand 24°" in c.words and c.state == "met" for c in low.checks)
    assert any("ground or trees stand 27°" in c.words and c.state == "near" for c in high.checks)


@given(st.integers(30, 200), st.integers(4, 60))
@examples(15)
def test_cells_reach_as_far_as_a_plain_walk_says(apart: int, thick: int) -> None:
    """Two places east of each other with trees between: the silent stretch, step by step."""
    east = 300 + apart
    wood = square(at=(300 + 0.3 * apart, -20), size=thick, height_m=7.0, grows_m=0.0)
    two = far("one", (300, 9)), far("two", (east, 9))
    plan = land(*two, wood)
    found, bare = far_land(plan), far_land(land(*two))
    reach = bare.reach_m

    def hears(x: float, place: float) -> bool:
        leaves = plain.leaves_m(wood, (place, 9, 3.0), (x, 9, 1.2))
        return 20 * math.log10(max(abs(x - place), 1) / reach) + plain.takes_db(5.6, leaves) <= 0

    step = 0.25
    walk = [300 + k * step for k in range(int(apart / step) + 1)]
    silent = step * sum(not hears(x, 300) and not hears(x, east) for x in walk)
    told = sum(g.gap_m for g in found.gaps)
    assert told == pytest.approx(silent, abs=4 * step)
    assert told >= sum(g.gap_m for g in bare.gaps) and found.hectares <= bare.hectares + 0.005
    for row, before in zip(found.rows, bare.rows, strict=True):
        assert row.mesh_mbps <= before.mesh_mbps


def test_land_that_cells_serve_by_a_raster() -> None:
    """A place with a wood at its side: spot by spot on a raster of 3 m."""
    wood = square(at=(320, -30), size=40, height_m=8.0, grows_m=0.0)
    one, other = far("one", (300, 9)), far("two", (460, 40))
    found = far_land(land(one, other, wood))
    served = 0
    for x in range(100, 660, 3):
        for y in range(-200, 250, 3):
            for place in (one, other):
                metres = plain.leaves_m(wood, (*place.at, 3.0), (x + 0.1, y + 0.1, 1.2))
                apart = max(1.0, math.dist(place.at, (x + 0.1, y + 0.1)))
                if 20 * math.log10(apart / found.reach_m) + plain.takes_db(5.6, metres) <= 0:
                    served += 1
                    break
    assert found.hectares == pytest.approx(served * 9 / 10_000, rel=0.02)


# What is drawn.


def test_trees_that_are_none_are_refused_in_words() -> None:
    with pytest.raises(ValueError, match="lowest leaves hang below the tops"):
        square(height_m=3.0, clear_m=3.0)
    knot = Grove(id="g", name="Knot", outline=((0, 0), (9, 9), (9, 0), (0, 9)))
    with pytest.raises(DesignError, match="crosses itself or encloses less"):
        check(design_of([*shell(), knot]), CATALOGUE)


def test_a_sites_sheet_has_its_trees() -> None:
    (wood,) = site_view(land(square(height_m=9.0, clear_m=1.0))).groves
    assert (wood.name, wood.height_m, wood.clear_m, wood.area_m2) == ("Wood", 9.0, 1.0, 100.0)
