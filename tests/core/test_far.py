"""Far places: lines of sight, budgets, direct current and the sun, against plain sums and plain searches."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from heathrise.core.catalogue import BridgeModel, Catalogue, Rules, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import DesignError, EquipmentRoom, FarPoint, apply, design_of, put
from heathrise.core.evaluation.far_lines import far_view
from heathrise.core.far import (
    Ground,
    LinkBand,
    Node,
    Sunlit,
    Trees,
    Weather,
    battery_wh,
    bearing_deg,
    budget_of,
    clearance,
    dark_hour,
    feed_tree,
    foliage_db,
    fresnel_m,
    judge_sight,
    least_masts,
    longest_m,
    loop_ohm,
    oxygen_db,
    panel_w,
    rain_db,
    sound_gauges,
    sun_hours,
    trees_of,
)
from heathrise.core.far.radio_link import free_space_db
from heathrise.core.power.loop import feed

from ..thorough import examples
from .plans import shell

RULES: Rules = load_catalogue().rules
DRY = Weather(0.0)


def _radio(band: LinkBand, power: float, gain: float, rates: tuple[tuple[float, float], ...]) -> BridgeModel:
    return BridgeModel(
        id="r",
        label="R",
        band=band,
        power_dbm=power,
        gain_dbi=gain,
        beam_deg=9,
        poe_class=3,
        own_w=8,
        price=1,
        rates=rates,
    )


DISH = _radio("5", 20, 16, ((-88, 30), (-75, 130), (-62, 400)))
HORN = _radio("60", 10, 30, ((-70, 250), (-62, 1000), (-55, 2000)))


def rack(key: str, at: tuple[float, float]) -> EquipmentRoom:
    return EquipmentRoom(id=key, floor="f", name=key, at=at)


# What the trade's own papers say of a line.


def test_free_space_and_zone_are_those_of_the_handbooks() -> None:
    assert free_space_db("5", 0.3) == pytest.approx(97.0, abs=0.1)
    assert free_space_db("5", 5) == pytest.approx(121.4, abs=0.1)
    assert free_space_db("60", 0.3) == pytest.approx(117.6, abs=0.1)
    assert float(fresnel_m(150, 150, 5.6)) == pytest.approx(2.0, abs=0.01)
    assert oxygen_db(RULES, "60", 0.3) == pytest.approx(4.5)
    assert foliage_db("5", 10) == pytest.approx(7.3, abs=0.05)
    assert foliage_db("5", 30) == pytest.approx(16.0, abs=0.05)


def test_rain_is_that_of_its_recommendation() -> None:
    """At the distance factor's cap of 2.5 a short line takes 2.5 times the dB/km it is in the middle of."""
    for mm_h, db_km in ((5, 3.0), (30, 11.6)):
        short = rain_db(RULES, "60", 0.2, Weather(mm_h))
        assert short == pytest.approx(db_km * 0.2 * 2.5, rel=0.02)
    # Less often than 0.01 % it rains harder, more often softer.
    rows = [rain_db(RULES, "60", 1, Weather(30, p)) for p in (0.001, 0.01, 0.1, 1)]
    assert rows == sorted(rows, reverse=True)
    assert rain_db(RULES, "5", 1, Weather(30)) < 0.3


@given(st.floats(0.01, 20), st.floats(0.1, 100), st.floats(0, 100), st.sampled_from(["5", "60"]))
def test_more_way_rain_and_leaves_never_take_less(km: float, mm_h: float, leaves: float, band: str) -> None:
    for more in (1.01, 1.5):
        assert free_space_db(band, km * more) > free_space_db(band, km)
        assert rain_db(RULES, band, km, Weather(mm_h * more)) >= rain_db(RULES, band, km, Weather(mm_h))
        assert (
            rain_db(RULES, band, km * more, Weather(mm_h)) >= rain_db(RULES, band, km, Weather(mm_h)) - 1e-9
        )
        assert foliage_db(band, leaves * more) >= foliage_db(band, leaves)


def test_a_budget_is_its_sum_and_obeys_its_domain() -> None:
    found = budget_of(RULES, "europe", DISH, DISH, 0.3, DRY)
    assert (found.eirp_dbm, found.capped) == (30, True)
    by_hand = 30 + 16 - (20 * math.log10(5600) + 20 * math.log10(0.3) + 32.45) - 0.3 * 0.006
    assert found.level_dbm == pytest.approx(by_hand)
    assert found.margin_db == pytest.approx(by_hand + 88)
    # -51 dBm: 11 dB over what 400 Mb/s needs and less than the margin, 24 over what 130 need.
    assert found.mbps == 130
    freer = budget_of(RULES, "americas", DISH, DISH, 0.3, DRY)
    assert (freer.eirp_dbm, freer.capped) == (36, False)
    assert freer.level_dbm == pytest.approx(by_hand + 6)


@given(st.floats(0.05, 8), st.floats(0, 80), st.floats(0, 60))
def test_a_longer_or_wetter_line_is_never_faster(km: float, mm_h: float, leaves: float) -> None:
    for bridge in (DISH, HORN):
        here = budget_of(RULES, "europe", bridge, bridge, km, Weather(mm_h), leaves)
        for worse in (
            budget_of(RULES, "europe", bridge, bridge, km * 1.3, Weather(mm_h), leaves),
            budget_of(RULES, "europe", bridge, bridge, km, Weather(mm_h + 9), leaves),
            budget_of(RULES, "europe", bridge, bridge, km, Weather(mm_h), leaves + 5),
        ):
            assert worse.mbps <= here.mbps and worse.level_dbm <= here.level_dbm + 1e-9


# Lines over the ground.

heights = st.floats(-6, 6)


@st.composite
def grounds(draw: st.DrawFn) -> Ground:
    steps = draw(st.lists(st.floats(15, 120), min_size=1, max_size=6))
    at = [0.0, *itertools.accumulate(steps)]
    trees = []
    for _ in range(draw(st.integers(0, 2))):
        start = draw(st.floats(0.1, 0.8)) * at[-1]
        # Not up to the far mast itself, beside which the zone is a point.
        end = min(start + draw(st.floats(1, 30)), at[-1] * 0.9)
        trees.append(Trees(start, end, draw(st.floats(0, 8)), draw(st.floats(0, 1))))
    return Ground(tuple(at), tuple(draw(heights) for _ in at), tuple(trees))


def plainly(ground: Ground, near_m: float, far_m: float, ghz: float, years: float) -> float:
    """The least share of the zone that is free, walked in steps of a foot and looked up by hand."""
    worst = math.inf
    end = ground.at_m[-1]
    spots = {k * 0.3 for k in range(1, int(end / 0.3))} | {x for x in ground.at_m if 0 < x < end}
    spots |= {e for t in ground.trees for e in (t.from_m, t.to_m) if 0 < e < end}
    for x in spots:
        k = next(i for i in range(len(ground.at_m) - 1) if ground.at_m[i] <= x <= ground.at_m[i + 1])
        part = (x - ground.at_m[k]) / (ground.at_m[k + 1] - ground.at_m[k])
        floor = ground.height_m[k] + part * (ground.height_m[k + 1] - ground.height_m[k])
        top = max(
            [
                floor,
                *(floor + t.height_m + years * t.grows_m for t in ground.trees if t.from_m <= x <= t.to_m),
            ]
        )
        a, b = ground.height_m[0] + near_m, ground.height_m[-1] + far_m
        line = a + (b - a) * x / end - x * (end - x) / (2 * 4 / 3 * 6_371_000)
        zone = 17.32 * math.sqrt(x * (end - x) / 1000 / (ghz * end))
        worst = min(worst, (line - top) / zone)
    return worst


@given(grounds(), st.floats(1, 12), st.floats(1, 12), st.sampled_from([5.6, 60.48]), st.integers(0, 15))
@examples(40)
def test_a_line_is_as_clear_as_a_walk_along_it_finds(
    ground: Ground, near: float, far: float, ghz: float, years: int
) -> None:
    seen = clearance(ground, near, far, ghz, years)
    walked = plainly(ground, near, far, ghz, years)
    # Both look at places of their own, near the ends closely enough to differ a little.
    assert seen.share == pytest.approx(walked, abs=0.12 + 0.06 * abs(walked))
    assert (seen.free_m < 0) == (seen.share < 0)


@given(grounds(), st.sampled_from([5.6, 60.48]), st.integers(0, 15))
@examples(40)
def test_least_masts_clear_the_zone_and_no_lower_ones_do(ground: Ground, ghz: float, years: int) -> None:
    found = least_masts(ground, ghz, 0.6, years)
    if found is None:
        assert clearance(ground, 30, 30, ghz, years).share < 0.6
        return
    assert clearance(ground, *found, ghz, years).share >= 0.6 - 1e-6
    for near in [k * 1.5 for k in range(21)]:  # a plain search over heights of less sum
        for far in [k * 1.5 for k in range(21)]:
            if near + far < sum(found) - 1e-6:
                assert clearance(ground, near, far, ghz, years).share < 0.6 + 1e-6


def test_trees_on_flat_land_want_what_the_sum_says() -> None:
    """300 m at 5.6 GHz, trees of 4 m half-way that grow 0.4 m: in ten years 8 + 0.6 x 2.0 m, and the earth."""
    ground = Ground((0, 300), (0, 0), trees_of(RULES, ((149.9, 150.1, 4, None),)))
    near, far = least_masts(ground, 5.6, 0.6, 10) or (0, 0)
    assert (near + far) / 2 == pytest.approx(8 + 0.6 * 2.004, abs=0.01)
    assert clearance(ground, 6, 6, 5.6, 10).leaves_m > 0 == clearance(ground, 9, 9, 5.6, 10).leaves_m


@pytest.mark.parametrize(
    ("at", "heights", "what"),
    [
        ((0.0,), (0.0,), "has 1 point; a profile has 2"),
        (tuple(map(float, range(100_000))), (0.0,) * 100_000, "has 100000 points"),
        ((0.0, 9.0, 9.0), (0.0, 0.0, 0.0), "sort it by distance"),
        ((0.0, math.nan), (0.0, 0.0), "a distance and a height"),
    ],
)
def test_a_profile_that_is_none_says_so(at: tuple[float, ...], heights: tuple[float, ...], what: str) -> None:
    with pytest.raises(DesignError, match=what):
        Ground(at, heights)


def test_bearings_are_those_of_a_map_and_of_a_compass() -> None:
    assert bearing_deg((0, 0), (10, 10)) == pytest.approx(45)
    assert bearing_deg((0, 0), (-10, 0)) == pytest.approx(270)
    assert bearing_deg((0, 0), (0, -5), declination_deg=4) == pytest.approx(176)
    with pytest.raises(DesignError, match="at one place"):
        bearing_deg((3, 3), (3, 3))


@given(
    grounds(),
    st.floats(1, 14),
    st.floats(1, 14),
    st.integers(0, 12),
    st.sampled_from([("5", 5.6), ("60", 60.48)]),
)
@examples(40)
def test_what_a_line_is_told_to_be_is_what_its_figures_are(
    ground: Ground, near: float, far: float, years: int, of: tuple[LinkBand, float]
) -> None:
    band, ghz = of
    told = judge_sight(RULES, band, ground, (near, far), years)
    seen = clearance(ground, near, far, ghz, years)
    assume(abs(seen.share - 0.6) > 1e-3 and abs(seen.free_m) > 0.01)
    assert told.verdict == ("blocked" if seen.free_m < 0 else "near" if seen.share < 0.6 else "clear")
    assert ("trees stand" in told.why) == (seen.trees and told.verdict != "clear")
    assert f"{seen.at_m:.0f}\u00a0m along" in told.why
    if told.verdict == "near":
        assert f"{0.6 * seen.zone_m:.2f}\u00a0m, should be free" in told.why
    rise = ground.height_m[-1] + far - ground.height_m[0] - near
    km = math.hypot(ground.length_m, rise) / 1000
    parts = (
        free_space_db(band, km),
        oxygen_db(RULES, band, km),
        rain_db(RULES, band, km, Weather(30)),
        foliage_db(band, seen.leaves_m),
    )
    assert told.loss.total_db == pytest.approx(sum(parts), abs=0.06)
    if told.masts_m:
        assert clearance(ground, *told.masts_m, ghz, years).share >= 0.6 - 1e-6


@given(
    st.tuples(st.floats(-300, 300), st.floats(-300, 300)),
    st.floats(-20, 20),
    st.lists(st.tuples(st.floats(0, 400), st.floats(-9, 9)), max_size=6),
    st.integers(1, 30),
)
@examples(25)
def test_every_place_has_the_line_to_its_nearest_rack(
    catalogue: Catalogue,
    at: tuple[float, float],
    ground_m: float,
    profile: list[tuple[float, float]],
    years: int,
) -> None:
    """Drawn, told and judged from one ground: what the slices show is what the verdict says."""
    racks = {"near": (1.0, 1.0), "other": (9.0, 1.0)}
    point = FarPoint(id="far-1", name="Gate", at=at, ground_m=ground_m, profile=tuple(profile), years=years)
    design = design_of([*shell(), *(rack(key, spot) for key, spot in racks.items()), point])
    (line,) = far_view(Plan(design, catalogue)).lines
    nearest = min(racks, key=lambda k: math.dist(racks[k], at))
    length = math.dist(racks[nearest], at)
    assume(length > 0.1 and abs(math.dist(racks["near"], at) - math.dist(racks["other"], at)) > 1e-6)
    assert line.room == nearest and line.length_m == pytest.approx(length, abs=0.01)
    dx, dy = at[0] - racks[nearest][0], at[1] - racks[nearest][1]
    assert math.sin(math.radians(line.bearing_deg)) == pytest.approx(dx / length, abs=2e-3)
    assert math.cos(math.radians(line.bearing_deg)) == pytest.approx(dy / length, abs=2e-3)
    first, last = line.slices[0], line.slices[-1]
    assert (first.at_m, last.at_m) == (0, pytest.approx(length, abs=0.01))
    assert (first.ground_m, last.ground_m) == (0, pytest.approx(ground_m, abs=0.01))
    assert first.line_m == pytest.approx(4, abs=1e-3) and last.line_m == pytest.approx(ground_m + 3, abs=1e-3)
    within = [s for s in line.slices if s.line_m < s.ground_m - 0.02]
    if within:
        assert all(s.verdict == "blocked" for s in line.sights)
    last = max((p[0] for p in profile), default=0.0)
    assert bool(line.off) == (last > length + max(1.0, 0.02 * length))
    elsewhere = apply(design, [put(point.model_copy(update={"room": "other"}))])
    assert far_view(Plan(elsewhere, catalogue)).lines[0].room == "other"


def test_a_place_without_a_rack_has_no_line(catalogue: Catalogue) -> None:
    point = FarPoint(id="far-1", name="Gate", at=(50, 50))
    (line,) = far_view(Plan(design_of([*shell(), point]), catalogue)).lines
    assert line.room is None and not line.sights and line.to_at == (50, 50)
    with pytest.raises(ValueError, match="from one distance to a larger one"):
        FarPoint(id="far-1", name="Gate", at=(5, 5), trees=((30, 20, 5, 0.4),))


def test_trees_of_which_nobody_says_more_grow_as_the_figure_has_it(catalogue: Catalogue) -> None:
    trees = ((20.0, 40.0, 6.0, None),)
    point = FarPoint(id="far-1", name="Gate", at=(80, 1), years=10, trees=trees)
    design = design_of([*shell(), rack("near", (1, 1)), point])
    said = apply(design, [put(point.model_copy(update={"trees": ((20.0, 40.0, 6.0, 0.4),)}))])
    lines = [far_view(Plan(d, catalogue)).lines for d in (design, said)]
    assert lines[0] == lines[1]
    assert max(s.top_m for s in lines[0][0].slices) == pytest.approx(10)


# Direct current.


@given(st.floats(12, 57), st.floats(0.05, 20), st.floats(0.1, 60))
def test_one_load_is_the_closed_form(volts: float, ohm: float, watts: float) -> None:
    closed = feed(watts, volts, ohm)
    room = volts**2 / (4 * ohm * watts)
    assume(abs(room - 1) > 0.01)  # at the edge itself the volts fall for ever so long
    found = feed_tree(volts, [Node(None, ohm, watts)])
    assert found.runs == closed.starts
    if closed.starts:
        assert found.branches[0].volts == pytest.approx(closed.device_v, rel=1e-6)
        assert found.source_w == pytest.approx(closed.port_w, rel=1e-6)


@st.composite
def trees_of_loads(draw: st.DrawFn) -> list[Node]:
    nodes: list[Node] = []
    for row in range(draw(st.integers(1, 6))):
        before = draw(st.integers(-1, row - 1))
        nodes.append(Node(None if before < 0 else before, draw(st.floats(0.05, 4)), draw(st.floats(0, 12))))
    return nodes


@given(trees_of_loads(), st.floats(24, 57))
def test_energy_is_kept_on_every_branch_of_a_feed(nodes: list[Node], volts: float) -> None:
    found = feed_tree(volts, nodes)
    if not found.runs:
        return
    loads, lost = sum(n.watts for n in nodes), sum(b.lost_w for b in found.branches)
    assert found.source_w == pytest.approx(loads + lost, rel=1e-6, abs=1e-9)
    for row, (node, branch) in enumerate(zip(nodes, found.branches, strict=True)):
        above = volts if node.before is None else found.branches[node.before].volts
        assert branch.volts == pytest.approx(above - branch.amperes * node.ohm, abs=1e-6)
        on = sum(b.amperes for n, b in zip(nodes, found.branches, strict=True) if n.before == row)
        assert branch.amperes == pytest.approx(node.watts / branch.volts + on, rel=1e-6, abs=1e-9)


@given(trees_of_loads(), st.floats(24, 57), st.floats(1.05, 3))
def test_thicker_shorter_and_lighter_is_never_worse(nodes: list[Node], volts: float, by: float) -> None:
    found = feed_tree(volts, nodes)
    assume(found.runs)
    for better in (
        [Node(n.before, n.ohm / by, n.watts) for n in nodes],
        [Node(n.before, n.ohm, n.watts / by) for n in nodes],
    ):
        again = feed_tree(volts, better)
        assert again.runs
        for mine, its in zip(found.branches, again.branches, strict=True):
            assert its.volts >= mine.volts - 1e-6


def test_a_gate_100_metres_off_by_hand() -> None:
    """12 W at 48 V over 100 m of 1 mm2: 3.45 ohm, 0.2546 A, 47.12 V."""
    ohm = loop_ohm(RULES, 1, 100)
    assert ohm == pytest.approx(3.448)
    found = feed_tree(48, [Node(None, ohm, 12, least_v=36)])
    current = (48 - math.sqrt(48**2 - 4 * 3.448 * 12)) / (2 * 3.448)
    assert found.runs and found.branches[0].volts == pytest.approx(48 - 3.448 * current)
    # The thinnest that runs and also starts, at twice the watts, is found by trying each.
    tried = [
        mm2
        for mm2 in (0.5, 0.75, 1, 1.5, 2.5, 4, 6, 10)
        if all(feed(w, 24, loop_ohm(RULES, mm2, 200)).device_v >= 18 for w in (12, 24))
    ]
    assert list(sound_gauges(RULES, 24, 200, 12, 18)) == tried and tried
    with pytest.raises(DesignError, match="no extra-low voltage"):
        sound_gauges(RULES, 72, 200, 12, 18)
    assert feed_tree(24, [Node(None, loop_ohm(RULES, 0.5, 10_000), 12)]).runs is False


@given(st.floats(12, 57), st.sampled_from([0.5, 1, 2.5]), st.floats(0.5, 40), st.floats(0, 0.95))
def test_the_longest_feed_runs_and_a_longer_one_does_not(v: float, mm2: float, w: float, low: float) -> None:
    most = longest_m(RULES, v, mm2, w, v * low)
    assert feed_tree(v, [Node(None, loop_ohm(RULES, mm2, most * 0.97), w, v * low)]).runs
    assert not feed_tree(v, [Node(None, loop_ohm(RULES, mm2, most * 1.03), w, v * low)]).runs


# The sun.


def test_panels_and_batteries_by_hand() -> None:
    assert sun_hours(RULES, 45) == pytest.approx(1.6) and sun_hours(RULES, -10) == 4.5
    assert sun_hours(RULES, 66) == 0
    assert panel_w(RULES, 6, 1.0) == pytest.approx(6 * 24 / 0.7)
    assert battery_wh(RULES, 6, "lithium", 4) == pytest.approx(6 * 24 * 4 / 0.8)
    assert battery_wh(RULES, 6, "lead_acid", 4, -10) == pytest.approx(6 * 24 * 4 / (0.5 * 0.7))
    with pytest.raises(DesignError, match="no hour of sun"):
        panel_w(RULES, 6, 0)


def test_a_grey_december_goes_dark_in_its_hour() -> None:
    """576 Wh feed 6 W for 96 hours: without any sun the 97th is dark."""
    assert dark_hour(RULES, Sunlit(100, 576, 6), [0.0] * 10) == 96
    assert dark_hour(RULES, Sunlit(6 * 24 / 0.7, 576, 6), [1.0] * 60) is None


@given(
    st.floats(1, 40),
    st.floats(0, 400),
    st.floats(10, 4000),
    st.lists(st.floats(0, 5), min_size=1, max_size=20),
)
def test_more_panel_or_battery_never_goes_dark_sooner(
    load: float, panel: float, battery: float, days: list[float]
) -> None:
    here = dark_hour(RULES, Sunlit(panel, battery, load), days)
    for better in (Sunlit(panel * 1.2 + 1, battery, load), Sunlit(panel, battery * 1.2, load)):
        again = dark_hour(RULES, better, days)
        assert again is None or (here is not None and again >= here)
