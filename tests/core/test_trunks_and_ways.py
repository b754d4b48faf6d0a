"""Cables side by side and a run's way leg by leg: against walking every metre of every run."""

from __future__ import annotations

import itertools
import math
from collections import Counter

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from heathrise.core.cabling import Leg, LinkVerdict, assess_cable, bundle_findings, judge_runs
from heathrise.core.cabling.conduit import fill, fits_more
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.context.run_decisions import run_said
from heathrise.core.context.scope import as_planned
from heathrise.core.design import Design, Device, Floor, Space, Wall, WayPoint, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.laid_links import fresh_holes
from heathrise.core.views.way import pull_points, steps_of_way, way_of
from heathrise.core.views.work_list import steps_of
from heathrise.demo import SITES

from ..thorough import examples
from .plans import access_point, design_of, rack, shell, wall
from .sites import sites

CATALOGUE = load_catalogue()
RULES = CATALOGUE.rules
STEP_M = 0.25


def _spots(link: LinkVerdict) -> list[tuple[str, float, float]]:
    """The spots that a link passes on the level, a quarter of a metre apart, from the middle of each step."""
    found = []
    for leg in link.legs:
        if leg.kind in ("riser", "duct"):
            continue
        for (ax, ay), (bx, by) in itertools.pairwise(leg.points):
            far = math.dist((ax, ay), (bx, by))
            for k in range(int(far / STEP_M)):
                t = (k + 0.5) * STEP_M / far
                found.append((leg.floor, ax + (bx - ax) * t, ay + (by - ay) * t))
    return found


def _off(spot: tuple[float, float], a: tuple[float, float], b: tuple[float, float]) -> float:
    """How far a spot is from a stretch."""
    (px, py), (ax, ay), (bx, by) = spot, a, b
    far = math.dist(a, b)
    t = 0.0 if far == 0 else max(0.0, min(1.0, ((px - ax) * (bx - ax) + (py - ay) * (by - ay)) / far**2))
    return math.dist(spot, (ax + t * (bx - ax), ay + t * (by - ay)))


def _as_walked(design: Design) -> None:
    chapter = assess_cable(design, CATALOGUE)
    there = [k for k in chapter.links if k.verdict != "no_way"]
    trunks = chapter.trunks
    assert len({t.id for t in trunks}) == len(trunks)
    # Metres of cable are the same, counted by stretches or by runs.
    laid = Counter[str]()
    for link in there:
        for leg in link.legs:
            if leg.kind not in ("riser", "duct"):
                far = sum(
                    math.dist(a, b) for a, b in itertools.pairwise(leg.points) if math.dist(a, b) >= 0.02
                )
                laid[leg.floor] += link.cables * far
    shared = Counter[str]()
    for trunk in trunks:
        shared[trunk.floor] += trunk.cables * math.dist(trunk.a, trunk.b)
        mine = [k for k in there if k.id in trunk.links]
        assert trunk.cables == sum(k.cables for k in mine) and list(trunk.links) == [k.id for k in mine]
    for floor, metres in laid.items():
        assert shared[floor] == pytest.approx(metres, rel=0.01, abs=0.3 * len(there))
    # Every spot that a link passes lies in a stretch that names it.
    for link in there:
        for floor, x, y in _spots(link):
            assert any(
                t.floor == floor and link.id in t.links and _off((x, y), t.a, t.b) < 0.08 for t in trunks
            ), (link.name, floor, x, y)
    # And nothing lies in a stretch that does not pass its middle.
    for trunk in trunks:
        middle = ((trunk.a[0] + trunk.b[0]) / 2, (trunk.a[1] + trunk.b[1]) / 2)
        for key in trunk.links:
            legs = next(k for k in there if k.id == key).legs
            assert any(
                _off(middle, a, b) < 0.08
                for leg in legs
                if leg.floor == trunk.floor
                for a, b in itertools.pairwise(leg.points)
            )


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_stretches_of_the_demos_are_what_runs_pass(key: str) -> None:
    _as_walked(as_planned(next(s for s in SITES if s.key == key).make()))


@examples(24)
@given(sites(devices=5))
def test_stretches_are_what_runs_pass(site: Design) -> None:
    _as_walked(site)


def test_two_runs_down_a_hall_share_it_by_hand() -> None:
    """Two access points on one line: both cables to the nearer, one beyond; the bundle of two of
    6.0 mm is as wide as the square root of 72 mm2 over 0.6."""
    base = design_of(*shell(), rack(1, 10), access_point(10, 10, "ap-1"), access_point(16, 10, "ap-2"))
    trunks = assess_cable(base, CATALOGUE).trunks
    two = [t for t in trunks if len(t.links) == 2]
    assert two and all(t.cables == 2 and t.wide_mm == 11.0 for t in two)
    assert sum(math.dist(t.a, t.b) for t in two) == pytest.approx(9, abs=1.2)
    one = [t for t in trunks if t.links == ("run-ap-2",)]
    assert sum(math.dist(t.a, t.b) for t in one) == pytest.approx(6, abs=1.2)


# -- pipes and bundles --


def test_a_pipe_takes_what_it_takes_by_hand() -> None:
    """Twelve of 6.0 mm in a pipe of 40.9 fill 25.8 %; forty per cent takes 18, so six more."""
    assert fill([6.0] * 12, 40.9) == pytest.approx(0.258, abs=0.001)
    assert fits_more(RULES, [6.0] * 12, 40.9, 6.0) == 6
    assert fits_more(RULES, [6.0], 16.9, 6.0) == 2  # 25 % of 31, then 38 of 40; four are 50
    assert fits_more(RULES, [7.5, 7.5], 16.9, 7.5) == 0


@given(
    st.lists(st.sampled_from([4.0, 5.2, 6.0, 7.5]), min_size=1, max_size=30),
    st.sampled_from([21.4, 35.1, 52.5]),
)
def test_one_more_than_fits_does_not(cables: list[float], inside: float) -> None:
    more = fits_more(RULES, cables, inside, 6.0)
    limits = {1: 0.53, 2: 0.31}
    for count in range(more + 1, more + 2):
        together = [*cables, *[6.0] * count]
        assert sum(d * d for d in together) / inside**2 > limits.get(len(together), 0.40)


def test_a_riser_is_told_with_the_sleeve_it_asks_for() -> None:
    school = next(s for s in SITES if s.key == "school").make()
    seen = evaluate(Plan(school, CATALOGUE), wait=True)
    finding = next(f for f in seen.findings if f.id == "cable-riser-riser-store")
    up = sum(k.cables for k in seen.cable.links if any(leg.way == "riser-store" for leg in k.legs))
    assert finding.text.startswith(f"Store riser at Ground floor: {up} cables ask for a 2 in sleeve")


def test_bundles_that_carry_much_are_parted() -> None:
    points = [access_point(10 + k / 10, 10, f"ap-{k}") for k in range(30)]
    trunks = assess_cable(design_of(*shell(), rack(1, 10), *points), CATALOGUE).trunks
    hot = {f"run-ap-{k}": 31.0 for k in range(30)}
    (finding,) = bundle_findings(RULES, trunks, hot)
    assert finding.figure == 30 and finding.limit == 24 and "into 2 bundles" in finding.text
    assert not list(bundle_findings(RULES, trunks, dict.fromkeys(hot, 29.0)))
    assert not list(bundle_findings(RULES, trunks, {f"run-ap-{k}": 31.0 for k in range(24)}))


def test_a_hole_through_what_keeps_fire_back_is_stopped_again() -> None:
    """A stud wall that is rated is a hole, a sleeve, a seal and a step; cable goes round where it may."""
    light = wall(1, (8, 0), (8, 20), "plasterboard")
    base = design_of(*shell(), rack(4, 10), access_point(12, 10), light)
    rated = apply(base, [put(light.model_copy(update={"rated": True}))])
    for design, count in ((base, 0), (rated, 1)):
        plan = Plan(design, CATALOGUE)
        lines = {k.item: k.quantity for k in order_of(plan).lines}
        assert (lines.get("fire-stop", 0), lines.get("sleeve", 0)) == (count, count)
        stops = [s for s in steps_of(plan) if s.id.startswith("stop-")]
        assert [s.title for s in stops] == ["Fire-stop the hole through a rated wall of AP-1"] * count
        assert all(s.waits == ("pull-run-ap-1",) for s in stops)
        findings = [f for f in evaluate(plan, wait=True).findings if f.id == "cable-rated-w1"]
        assert len(findings) == count and all(f.figure == 1 for f in findings)
    short = apply(rated, [put(light.model_copy(update={"rated": True, "b": (8, 12)}))])
    way = way_of(Plan(short, CATALOGUE), "ap-1")
    assert way is not None and way.holes == 0 and way.length_m > 12  # round its end is less work


# -- leg by leg ------------------------------------------------------------------------------------


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_a_way_adds_up_to_its_run(key: str) -> None:
    """Metres to those of the run, holes to those that are drilled, cost to the figures one by one."""
    plan = Plan(next(s for s in SITES if s.key == key).make(), CATALOGUE)
    holes = fresh_holes(plan)
    costs = RULES.table("cabling.cost_per_m")
    for run in evaluate(plan, wait=True).runs:
        way = way_of(plan, run.device)
        if run.verdict == "no_way":
            assert way is None
            continue
        assert way is not None
        assert way.length_m == pytest.approx(run.fixed_m - run.slack_m, abs=0.3)
        mine = [h for h in holes if run.id in h.links] if run.chosen_by != "found" else []
        assert way.holes == len(mine)
        assert sorted(w for leg in way.legs for w in leg.holes) == sorted(
            CATALOGUE.constructions[plan.design.of(Wall)[h.wall].construction].label for h in mine
        )
        names = {"riser": "rise", "drop": "rise", "outdoor": "stub"}
        plain = sum(costs[names.get(leg.kind, leg.kind)] * leg.length_m for leg in run.legs)
        plain += 8 * len(mine) + 0.75 * way.bends
        assert way.cost == pytest.approx(plain, abs=0.5)


def test_a_way_by_hand() -> None:
    """From a rack at 1.2 m up into the void at 2.9, across 8 m through a wall of masonry, down 0.2."""
    base = design_of(*shell(), rack(4, 10), access_point(12, 10), wall(1, (8, 0), (8, 20), "block-dense"))
    way = way_of(Plan(base, CATALOGUE), "ap-1")
    assert way is not None
    assert [leg.kind for leg in way.legs] == ["rise", "ceiling_void", "drop"]
    assert [leg.where for leg in way.legs] == ["up from the rack", "Room", "down to it"]
    up, across, down = way.legs
    assert up.length_m == pytest.approx(1.7, abs=0.6) and down.length_m == 0.2
    assert across.length_m == pytest.approx(8, abs=0.6) and across.holes == ("Dense block 140 mm",)
    assert across.cost == pytest.approx(across.length_m + 8, abs=0.1)
    assert way.bend_radius_mm == 24 and way.pull_n == 110


def _fewest(steps: list[tuple[float, bool]], most: int, apart_m: float) -> int:
    """The fewest pull points by trying every set of places: at each bend, and every metre."""
    places: list[tuple[float, bool]] = []
    for length, bent in steps:
        places += [(0.0, bent)] + [(1.0, False)] * round(length)

    def good(points: set[int]) -> bool:
        bends, gone = 0, 0.0
        for k, (length, bent) in enumerate(places):
            if k in points:
                bends, gone = 0, 0.0
            elif bent:
                bends += 1
            gone += length
            if bends > most or gone > apart_m:
                return False
        return True

    for count in range(len(places) + 1):
        if any(good(set(chosen)) for chosen in itertools.combinations(range(len(places)), count)):
            return count
    raise AssertionError


@examples(60)
@given(st.lists(st.tuples(st.integers(0, 4), st.booleans()), min_size=1, max_size=5), st.integers(1, 2))
def test_no_fewer_pull_points_would_do(rows: list[tuple[int, bool]], most: int) -> None:
    steps = [(float(m), bent) for m, bent in rows]
    assert pull_points(steps, most, 3.0) == _fewest(steps, most, 3.0)


def test_bends_are_those_of_the_drawing() -> None:
    """Up, along, round a corner, straight on in another room, down: three bends and the turn."""
    legs = [
        Leg(floor="f", kind="rise", length_m=2, points=((0, 0),)),
        Leg(floor="f", kind="ceiling_void", length_m=10, points=((0, 0), (5, 0), (5, 5))),
        Leg(floor="f", kind="attic", length_m=4, points=((5, 5), (5, 9))),
        Leg(floor="f", kind="drop", length_m=1, points=((5, 9),)),
    ]
    assert steps_of_way(legs) == [(2, False), (5.0, True), (5.0, True), (4.0, False), (1, True)]


def test_a_turned_building_has_the_same_stretches() -> None:
    site = next(s for s in SITES if s.key == "mill").make()
    chapter = assess_cable(as_planned(site), CATALOGUE)
    assert any(len(t.links) > 2 for t in chapter.trunks)  # it stands at 14 degrees to the paper
    assert len(site.of(Device)) > 10


# -- led by points ---------------------------------------------------------------------------------


@examples(30)
@given(sites(devices=3), st.data())
def test_a_run_that_is_led_goes_by_its_points(site: Design, data: st.DataObject) -> None:
    """By each of its points to half a step of the lattice, in their order; never shorter than the
    shortest way, nor easier than the easiest; other runs lie where they lay."""
    runs = {r.device: r for r in judge_runs(site, CATALOGUE) if r.verdict != "no_way"}
    if not runs:
        return
    key = data.draw(st.sampled_from(sorted(runs)))
    floor = site.of(Device)[key].floor
    rooms = [s for s in site.of(Space).values() if s.floor == floor and not s.outdoor]
    if not rooms:
        return
    points = []
    for rank in range(data.draw(st.integers(1, 2))):
        room = data.draw(st.sampled_from(rooms))
        middle = Polygon(room.outline).representative_point()
        points.append(WayPoint(id=f"w-{rank}", device=key, floor=floor, at=(middle.x, middle.y), rank=rank))
    led = apply(site, [put(p) for p in points])
    check(led, CATALOGUE)
    after = {r.device: r for r in judge_runs(led, CATALOGUE)}
    assert {k: r.fixed_m for k, r in after.items() if k != key and k in runs} == {
        k: r.fixed_m for k, r in runs.items() if k != key
    }
    mine = after[key]
    if mine.verdict == "no_way":
        assert "through the points" in mine.reason
        return
    for point in points:
        assert (
            min(
                _off(point.at, a, b)
                for leg in mine.legs
                if leg.floor == floor
                for a, b in itertools.pairwise(leg.points)
            )
            < 0.75
        )
    shortest = apply(site, [put(run_said(site, key).model_copy(update={"shortest": True}))])
    (short,) = judge_runs(shortest, CATALOGUE, site.of(Device)[key])
    assert mine.fixed_m >= short.fixed_m - 0.15
    level = [leg for leg in mine.legs if len(leg.points) > 1 and leg.floor == floor and leg.kind != "riser"]
    for one, other in itertools.pairwise(level):
        if one.kind != "duct" and other.kind != "duct":
            assert math.dist(one.points[-1], other.points[0]) < 8  # a riser may lie between them


def test_a_way_led_round_the_hall_by_hand() -> None:
    """Straight across 8 m; led by a spot 6 m aside it is 12 m longer, and told so."""
    base = design_of(*shell(), rack(4, 10), access_point(12, 10))
    plain = judge_runs(base, CATALOGUE)[0]
    led = apply(base, [put(WayPoint(id="w", device="ap-1", floor="f", at=(8, 4)))])
    assert judge_runs(led, CATALOGUE)[0].fixed_m - plain.fixed_m == pytest.approx(12, abs=1)
    nowhere = apply(base, [put(Floor(id="g", building="b", name="Up", level=1, elevation_m=3.0))])
    lost = apply(nowhere, [put(WayPoint(id="w", device="ap-1", floor="g", at=(8, 4)))])
    assert (
        judge_runs(lost, CATALOGUE)[0].reason == "no way leads there through the points that it is pinned to"
    )


def test_a_point_out_of_doors_is_told_and_put_where_the_run_goes_by() -> None:
    """Its distance against the legs, each cut into steps of a centimetre."""
    point = WayPoint(id="p", device="ap-1", floor="f", at=(12.0, 26.0))  # the room ends at 20
    plan = Plan(design_of(*shell(), rack(2, 2), access_point(18, 10), point), load_catalogue())
    found = evaluate(plan)
    (told,) = [f for f in found.cable.findings if f.id == "cable-led-p"]
    spots = [
        (ax + (bx - ax) * k / 2000, ay + (by - ay) * k / 2000)
        for leg in found.runs[0].legs
        for (ax, ay), (bx, by) in itertools.pairwise(leg.points)
        for k in range(2001)
    ]
    away = min(math.dist(spot, point.at) for spot in spots)
    assert told.figure == pytest.approx(away, abs=0.02) and f"{told.figure:.1f}" in told.text and away > 5
    for cure in told.cures:
        after = evaluate(plan.after(cure.changes))
        assert not [f for f in after.cable.findings if f.id.startswith("cable-led")]
    inside = plan.after([put(point.model_copy(update={"at": (12.0, 18.0)}))])
    assert not [f for f in evaluate(inside).cable.findings if f.id.startswith("cable-led")]
