"""Cable: limits from the tables, routes through a floor and between floors, boxes."""

from __future__ import annotations

import itertools
import math
from types import SimpleNamespace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.cabling import boxes as boxes_module
from heathrise.core.cabling.boxes import Boxes, Cut, boxes_for, cable_bought, least_boxes
from heathrise.core.cabling.limits import check_channel, check_run, cords_limit_m, heat_limit_m, hottest_c
from heathrise.core.cabling.runs import RunVerdict, judge_runs
from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Building,
    Design,
    Device,
    Duct,
    Element,
    Floor,
    Jacket,
    OwnFigure,
    Riser,
    Run,
    Site,
    Space,
    apply,
    put,
)
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.bill_of_materials import order_of

from ..thorough import examples
from .plans import access_point, design_of, rack, shell, wall

SLACK_M = 6.0


@pytest.mark.parametrize(
    ("category", "mbps", "metres", "verdict"),
    [
        ("6", 10_000, 50, "met"),
        ("6", 10_000, 60, "not_met"),
        ("5e", 2500, 100, "met"),
        ("5e", 5000, 100, "test_first"),
        ("5e", 5000, 10, "test_first"),
        ("5e", 10_000, 1, "not_met"),
        ("5", 1000, 80, "test_first"),
        ("5", 100, 100, "met"),
        ("6A", 10_000, 100, "met"),
        ("6", 1000, 101, "not_met"),
    ],
)
def test_channel_lengths(category: str, mbps: int, metres: float, verdict: str) -> None:
    assert check_channel(RULES, category, mbps, metres) == verdict  # type: ignore[arg-type]


def test_cords_beside_a_run_of_88_m() -> None:
    assert cords_limit_m(RULES, 88) == pytest.approx(11.7, abs=0.04)
    assert check_run(RULES, "6A", 1000, 88, 12).verdict == "not_met"
    assert check_run(RULES, "6A", 1000, 88, 11).verdict != "not_met"


@pytest.mark.parametrize(("heat_c", "verdict"), [(50, "not_met"), (45, "not_met"), (40, "near")])
def test_run_of_82_m_through_an_attic(heat_c: float, verdict: str) -> None:
    lengths = {"room": 67.0, "attic": 15.0}
    assert hottest_c(RULES, lengths) == ("attic", 45)
    assert check_run(RULES, "6A", 1000, 82, 5, heat_c).verdict == verdict


def test_heat_is_linear_between_its_figures() -> None:
    assert heat_limit_m(RULES, 20) == 90
    assert heat_limit_m(RULES, 47.5) == pytest.approx((81.7 + 79.5) / 2)


def test_a_short_stretch_of_heat_does_not_count() -> None:
    assert hottest_c(RULES, {"room": 95.0, "attic": 5.0})[0] == "room"


def _only(design: Design, catalogue: Catalogue) -> RunVerdict:
    return judge_runs(design, catalogue)[0]


def test_straight_run_by_hand(catalogue: Catalogue) -> None:
    """Rack at 1.2 m, void at 2.9, ceiling 2.7: rise 1.7, 12 m across, drop 0.2, slack 6."""
    design = design_of(*shell(), rack(2.25, 5.25), access_point(14.25, 5.25))
    run = _only(design, catalogue)
    assert run.horizontal_m == pytest.approx(12.0)
    assert (run.rise_m, run.drop_m, run.slack_m) == (1.7, 0.2, SLACK_M)
    assert run.fixed_m == pytest.approx(19.9)
    assert run.bought_m == pytest.approx(19.9 * 1.10, abs=0.05)


@examples(25)
@given(st.floats(1, 19), st.floats(1, 19))
def test_open_floor_runs_are_square(catalogue: Catalogue, x: float, y: float) -> None:
    design = design_of(*shell(), rack(2.25, 5.25), access_point(x, y))
    square = abs(x - 2.25) + abs(y - 5.25)
    assert _only(design, catalogue).horizontal_m == pytest.approx(square, abs=0.75)


def test_a_route_goes_round_masonry_when_that_is_cheaper(catalogue: Catalogue) -> None:
    ends = (rack(2.25, 2.25), access_point(2.25, 6.25))
    short = wall(1, (0, 4), (4, 4), "brick-cavity")
    round_it = _only(design_of(*shell(), *ends, short), catalogue)
    assert round_it.horizontal_m == pytest.approx(8.0)
    through = _only(design_of(*shell(), *ends, wall(1, (0, 4), (19, 4), "brick-cavity")), catalogue)
    assert through.horizontal_m == pytest.approx(4.0)
    board = _only(design_of(*shell(), *ends, wall(1, (0, 4), (4, 4), "plasterboard")), catalogue)
    assert board.horizontal_m == pytest.approx(4.0)


def _storeys(riser: bool) -> Design:
    square = ((0.0, 0.0), (20.0, 0.0), (20.0, 20.0), (0.0, 20.0))
    elements = [
        *shell(),
        Floor(id="g", building="b", name="Upper", level=1, elevation_m=3.2, overhead="attic"),
        Space(id="above", floor="g", name="Above", outline=square),
        rack(2.25, 5.25),
        access_point(10.25, 5.25, floor="g"),
    ]
    if riser:
        elements.append(
            Riser(id="r", building="b", name="R", at=(6.25, 5.25), lowest_level=0, highest_level=1)
        )
    return design_of(*elements)


def test_an_access_point_on_6_ghz_keeps_cable_to_be_shifted(catalogue: Catalogue) -> None:
    on_6 = next(key for key, air in catalogue.airs.items() if "6" in air.radios)
    ends = (rack(2.25, 2.25), access_point(8.25, 2.25))
    plain = _only(design_of(*shell(), *ends), catalogue)
    wide = _only(design_of(*shell(), ends[0], access_point(8.25, 2.25, model=on_6)), catalogue)
    assert wide.slack_m == pytest.approx(SLACK_M + 3) and plain.slack_m == SLACK_M
    assert wide.fixed_m == pytest.approx(plain.fixed_m + 3, abs=0.05)


def test_up_a_riser_and_along_an_attic(catalogue: Catalogue) -> None:
    run = _only(_storeys(riser=True), catalogue)
    assert run.horizontal_m == pytest.approx(8.0)
    assert run.rise_m == pytest.approx(1.7 + 3.2)
    assert run.hottest_space == "attic"
    assert [leg.kind for leg in run.legs] == ["rise", "ceiling_void", "riser", "attic", "drop"]


def test_no_riser_means_no_way_and_is_said(catalogue: Catalogue) -> None:
    design = _storeys(riser=False)
    assert _only(design, catalogue).verdict == "no_way"
    way = next(f for f in evaluate(Plan(design, catalogue)).findings if f.id.startswith("cable-way"))
    assert "no way leads there" in way.text and "riser or a duct" in way.text
    assert way.places[0].floor == "g"


def test_between_buildings_through_a_duct(catalogue: Catalogue) -> None:
    hut = ((60.0, 0.0), (66.0, 0.0), (66.0, 6.0), (60.0, 6.0))
    design = design_of(
        *shell(),
        rack(19.0, 3.0),
        access_point(62.0, 3.0, floor="h"),
        Building(id="c", name="Far hut"),
        Floor(id="h", building="c", name="Far", level=0),
        Space(id="far", floor="h", name="Far room", outline=hut),
        Duct(id="d", name="Duct", from_floor="f", to_floor="h", path=((20, 3), (60, 3)), depth_m=0.6),
    )
    design = apply(design, [put(building) for building in (Building(id="b", name="Hut"),)])
    run = _only(design, catalogue)
    assert run.between_buildings
    assert run.duct_m == pytest.approx(40 + 2 * (2.9 + 0.6), abs=1.1)
    findings = {f.id: f for f in evaluate(Plan(design, catalogue)).findings}
    assert "surge protection at both ends" in findings["cable-surge-ap-1"].text
    assert "cable-jacket-ap-1" in findings


def test_category_follows_speed_and_can_be_pinned(catalogue: Catalogue) -> None:
    plain = access_point(14.25, 5.25)
    design = design_of(*shell(), rack(2.25, 5.25), plain)
    assert _only(design, catalogue).category == "6"
    fast = access_point(14.25, 5.25, model="ravelmoor-c6")
    far = apply(design, [put(fast)])
    assert _only(far, catalogue).category == "6A", "its generation asks for it at any length"
    lesser = apply(far, [put(Run(id="r", device="ap-1", category="6"))])
    assert _only(lesser, catalogue).verdict == "near"
    found = {f.id: f for f in evaluate(Plan(lesser, catalogue)).findings}["cable-category-ap-1"]
    assert _only(apply(lesser, found.cures[0].changes), catalogue).verdict == "met"
    pinned = apply(far, [put(Run(id="r", device="ap-1", category="5e"))])
    run = _only(pinned, catalogue)
    assert (run.category, run.chosen_by, run.verdict) == ("5e", "person", "not_met")
    cure = next(f for f in evaluate(Plan(pinned, catalogue)).findings if "length" in f.id).cures[0]
    assert _only(apply(pinned, cure.changes), catalogue).verdict in ("met", "near")


def test_outlets_have_a_cable_for_each_socket(catalogue: Catalogue) -> None:
    outlet = Device(
        id="o",
        floor="f",
        kind="outlet",
        model="outlet-double",
        name="Desk",
        at=(9, 9),
        height_m=0.3,
        mount="wall",
    )
    run = _only(design_of(*shell(), rack(2, 2), outlet), catalogue)
    assert run.cables == 2
    assert run.total_m == pytest.approx(2 * run.fixed_m)


@examples(40)
@given(st.lists(st.floats(5, 120), max_size=14))
def test_boxes_are_enough_and_never_fewer_than_the_metres(lengths: list[float]) -> None:
    found = boxes_for(lengths, 305)
    assert found.count >= math.ceil(sum(lengths) / 305 - 1e-9)
    assert found.count <= len(lengths)
    assert found.count <= boxes_for(lengths, 305, prove=False).count


def test_boxes_by_hand() -> None:
    assert boxes_for([150, 150, 150, 150], 305).count == 2
    assert boxes_for([200, 200, 100, 100], 305).count == 2
    assert boxes_for([160, 160], 305).count == 2
    assert boxes_for([310, 5], 305).too_long == 1


@examples(60)
@given(st.lists(st.integers(1, 20), min_size=1, max_size=7))
def test_boxes_against_every_way_of_cutting(cuts: list[int]) -> None:
    """Boxes of 20 m: the bound is never over the best there is, and what is found is the best."""

    def fewest(left: tuple[int, ...], rests: tuple[int, ...]) -> int:
        if not left:
            return len(rests)
        cut, *more = left
        fits = {r for r in rests if r >= cut}
        tried = [
            fewest(tuple(more), (*(x for k, x in enumerate(rests) if k != rests.index(r)), r - cut))
            for r in fits
        ]
        return min([*tried, fewest(tuple(more), (*rests, 20 - cut))])

    best = fewest(tuple(sorted(cuts, reverse=True)), ())
    assert least_boxes(cuts, 20) <= best
    assert boxes_for(cuts, 20) == Boxes(best, True)


def test_a_bound_of_boxes_by_hand() -> None:
    """Three of 12 m want one each; what is left of them, 24 m, does not hold four of 7 m: one more
    box. By the metres alone 64 / 20 would say four as well; two of 11 and two of 10 take three."""
    assert least_boxes([12, 12, 12, 7, 7, 7, 7], 20) == 4
    assert least_boxes([11, 11, 10, 10], 20) == 3
    assert least_boxes([15, 15, 15, 15], 20) == 4


def test_cables_by_the_thousand_are_cut_without_a_search(monkeypatch: pytest.MonkeyPatch) -> None:
    def refused() -> None:
        raise AssertionError("a search over that many takes minutes")

    # Only what cuts may not search: a search for channels may be under way beside it.
    monkeypatch.setattr(boxes_module, "cp_model", SimpleNamespace(CpModel=refused))
    found = boxes_for([41.0] * 1500 + [66.5] * 900 + [103.2] * 900, 305)
    least = least_boxes([41] * 1500 + [67] * 900 + [104] * 900, 305)
    assert least <= found.count <= 1.05 * least and found.proven
    # By hand: 150 goes into a box twice; two of 104 and two of 41 leave 15 m, so a box each pair.
    assert boxes_for([150.0] * 900, 305) == Boxes(450, True)
    assert boxes_for([103.2] * 600 + [41.0] * 600, 305) == Boxes(300, True)


def test_site_defaults_are_the_trade_s() -> None:
    site = Site(id="site")
    assert (site.slack_device_m, site.slack_rack_m, site.power_headroom) == (3, 3, 0.2)


def test_a_run_a_little_too_long_is_cured_by_moving_back(catalogue: Catalogue) -> None:
    site = Site(id="site", cables_per_access_point=1, slack_device_m=20, slack_rack_m=20)
    long_room = [e for e in shell(70, 6) if not isinstance(e, Site)]
    design = design_of(site, *long_room, rack(2.25, 3.25), access_point(51.25, 3.25))
    assert _only(design, catalogue).verdict == "not_met"
    finding = next(f for f in evaluate(Plan(design, catalogue)).findings if f.id == "cable-length-ap-1")
    moved = next(c for c in finding.cures if "back along its run" in c.label)
    cured = apply(design, moved.changes)
    assert _only(cured, catalogue).verdict in ("met", "near")
    assert cured.of(Device)["ap-1"].at[0] > 45


@pytest.mark.parametrize(
    ("overhead", "kind", "heat_c"),
    [
        ("ceiling_void", "ceiling_void", 28),
        ("attic", "attic", 45),
        ("joists", "joists", 28),
        ("raceway", "room", 22),  # as warm as the room it runs through
    ],
)
def test_each_kind_of_space_has_its_heat(
    catalogue: Catalogue, overhead: str, kind: str, heat_c: float
) -> None:
    design = design_of(*shell(overhead=overhead), rack(2.25, 5.25), access_point(14.25, 5.25))
    run = _only(design, catalogue)
    assert (run.hottest_space, run.hottest_c) == (kind, heat_c)
    assert run.limit_m == pytest.approx(round(heat_limit_m(RULES, heat_c), 1))


def test_a_route_keeps_to_the_easier_space(catalogue: Catalogue) -> None:
    """Straight on through joists, or a little longer through a void: the void is less work."""
    elements = [e for e in shell(20, 8, "joists") if not isinstance(e, Space)]
    strips = [
        Space(
            id=f"s{k}",
            floor="f",
            name=f"S{k}",
            overhead=overhead,
            outline=((0, y), (20, y), (20, y + 2), (0, y + 2)),
        )
        for k, (y, overhead) in enumerate(
            [(0.0, "joists"), (2.0, "ceiling_void"), (4.0, "joists"), (6.0, "joists")]
        )
    ]
    design = design_of(*elements, *strips, rack(1.25, 1.25), access_point(18.25, 1.25))
    run = _only(design, catalogue)
    in_void = sum(leg.length_m for leg in run.legs if leg.kind == "ceiling_void")
    assert in_void > 14
    assert run.horizontal_m == pytest.approx(17 + 2 * 1.0, abs=0.6)


def test_outdoors_is_counted_apart(catalogue: Catalogue) -> None:
    design = design_of(*shell(), rack(2.25, 5.25), access_point(24.0, 5.25))
    run = _only(design, catalogue)
    assert run.outdoor_m == pytest.approx(4.0, abs=0.2)
    found = {f.id: f for f in evaluate(Plan(design, catalogue)).findings}
    assert "outdoor, UV-proof" in found["cable-jacket-ap-1"].text


def test_legs_join_end_to_end_and_add_up(catalogue: Catalogue, school: Design) -> None:
    for run in judge_runs(school, catalogue):
        total = sum(leg.length_m for leg in run.legs)
        assert total + run.slack_m == pytest.approx(run.fixed_m, abs=0.1)
        assert total == pytest.approx(run.horizontal_m + run.rise_m + run.drop_m + run.duct_m, abs=0.2)
        floors = [leg.floor for leg in run.legs]
        assert floors[0] == "ground" and floors[-1] == run.floor
        drawn = [leg for leg in run.legs if leg.kind in ("ceiling_void", "joists")]
        for before, after in itertools.pairwise(drawn):
            if before.floor == after.floor:
                assert math.dist(before.points[-1], after.points[0]) < 1.5


def test_a_nearer_riser_is_taken(catalogue: Catalogue) -> None:
    design = _storeys(riser=True)
    near = Riser(id="near", building="b", name="N", at=(9.75, 5.25), lowest_level=0, highest_level=1)
    before = _only(design, catalogue)
    after = _only(apply(design, [put(near)]), catalogue)
    assert after.fixed_m == pytest.approx(before.fixed_m, abs=0.6)
    # An attic is more work than a void, so the route stays below as long as it can.
    attic = [sum(leg.length_m for leg in r.legs if leg.kind == "attic") for r in (before, after)]
    assert attic[1] < attic[0]


RULES = load_catalogue().rules


# -- jackets ---------------------------------------------------------------------------------------

_NESTED: tuple[Jacket, ...] = ("indoor", "riser", "plenum")


@given(
    st.lists(
        st.tuples(st.sampled_from([*_NESTED, "outdoor"]), st.floats(5, 300), st.integers(1, 3)),
        min_size=1,
        max_size=7,
    )
)
def test_boxes_of_better_jackets_serve_the_rest_where_that_costs_least(
    cuts: list[tuple[Jacket, float, int]],
) -> None:
    """Against all ways to say of each jacket which one it is cut from."""
    catalogue = load_catalogue()
    cable = catalogue.cables["6"]
    prices = {cable.item(j): sold.box_price for j, sold in cable.jackets.items()}
    rows = [Cut(f"c{i}", "6", jacket, m, n) for i, (jacket, m, n) in enumerate(cuts)]

    def paid(taken: dict[Jacket, Jacket]) -> float:
        metres = {
            j: [r.length_m for r in rows if taken[r.jacket] == j for _ in range(r.cables)] for j in taken
        }
        return sum(boxes_for(metres[j], 305).count * cable.jackets[j].box_price for j in taken)

    own: dict[Jacket, Jacket] = {j: j for j in cable.jackets}
    least = min(
        paid(own | dict(zip(_NESTED, chosen, strict=True)))
        for chosen in itertools.product(_NESTED, repeat=3)
        if all(_NESTED.index(c) >= k for k, c in enumerate(chosen))
    )
    bought = cable_bought(catalogue, rows, lambda item: prices.get(item, 0))
    assert sum(b.boxes * prices[cable.item(b.jacket)] for b in bought) == pytest.approx(least)
    assert sorted(j for b in bought for j in b.cut_for) == sorted({r.jacket for r in rows})


def test_a_jacket_is_by_the_spaces_that_a_run_passes(catalogue: Catalogue) -> None:
    design = apply(_storeys(riser=True), [put(access_point(8.25, 5.25, "below"))])
    school, home = (Site(id="site", kind=kind) for kind in ("school", "home"))
    airy = design.of(Floor)["f"].model_copy(update={"overhead": "plenum"})
    never = OwnFigure(id="own", figure="cabling.riser_jacket_floors", value=0)

    def jackets(*changes: Element) -> dict[str, str]:
        plan = Plan(apply(design, [put(e) for e in changes]), catalogue)
        return {r.device: r.jacket for r in evaluate(plan).runs}

    assert jackets(school) == {"ap-1": "riser", "below": "indoor"}
    assert jackets(home) == {"ap-1": "indoor", "below": "indoor"}
    assert jackets(school, never) == {"ap-1": "indoor", "below": "indoor"}
    assert jackets(home, airy) == {"ap-1": "plenum", "below": "plenum"}
    assert jackets(school, airy) == {"ap-1": "plenum", "below": "plenum"}
    order = order_of(Plan(apply(design, [put(school)]), catalogue))
    assert any("riser serves 2 cables that could do with less" in told for told in order.told)
