"""The evaluation as a whole: what must hold whatever the design."""

from __future__ import annotations

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Point, Polygon

from heathrise.core.base.memo import Budget, IdentityMemo
from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.findings import SEVERITY_ORDER
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Design,
    Device,
    EquipmentRoom,
    Injector,
    Radio,
    Space,
    Switch,
    Wall,
    apply,
    put,
    remove,
)
from heathrise.core.evaluation.evaluate import Evaluation, evaluate
from heathrise.core.signal.assess import air_of
from heathrise.core.signal.obstacles import relief_grids
from heathrise.core.signal.radio_environment import grid_levels_dbm, ranked_dbm, readings_at
from heathrise.core.signal.relief import relief
from heathrise.core.signal.rooms import judge_rooms, target_of
from heathrise.core.signal.transmit import nearest_step
from heathrise.core.views.bill_of_materials import order_of
from heathrise.demo.drafting import Drawing, Room, slug

from ..thorough import examples
from .plans import access_point, design_of, rack, shell, wall

spots = st.tuples(st.floats(0.5, 19.5), st.floats(0.5, 19.5))


def _share(design: Design, catalogue: Catalogue) -> tuple[float, float]:
    room = judge_rooms(air_of(design, catalogue))[0]
    return room.share_first or 0.0, room.share_second or 0.0


@examples(20)
@given(st.lists(spots, min_size=1, max_size=4), spots)
def test_another_access_point_never_takes_signal_away(
    catalogue: Catalogue, placed: list[tuple[float, float]], more: tuple[float, float]
) -> None:
    walls = [wall(1, (10, 0), (10, 15), "concrete"), wall(2, (0, 8), (7, 8), "stone")]
    points = [access_point(x, y, f"ap-{k}") for k, (x, y) in enumerate(placed)]
    design = design_of(*shell(), *walls, *points)
    before = _share(design, catalogue)
    after = _share(apply(design, [put(access_point(*more, "ap-9"))]), catalogue)
    assert after[0] >= before[0] and after[1] >= before[1]


@examples(15)
@given(spots, st.sampled_from(["concrete", "plasterboard", "metal"]))
def test_another_wall_never_gives_signal(
    catalogue: Catalogue, at: tuple[float, float], construction: str
) -> None:
    design = design_of(*shell(), access_point(*at))
    walled = apply(design, [put(wall(7, (3, 3), (16, 12), construction))])
    assert _share(walled, catalogue)[0] <= _share(design, catalogue)[0]


@examples(20)
@given(st.floats(-30, 40))
def test_a_power_step_is_one_of_the_radio_s(catalogue: Catalogue, wanted: float) -> None:
    radio = catalogue.airs["ravelmoor-c4"].radios["5"]
    power = nearest_step(radio, min(wanted, radio.max_power_dbm))
    assert radio.min_power_dbm <= power <= radio.max_power_dbm
    assert (power - radio.min_power_dbm) % radio.step_db == 0
    assert power <= max(wanted, radio.min_power_dbm)


def test_rooms_agree_with_counting_points(catalogue: Catalogue, school: Design) -> None:
    air = air_of(school, catalogue)
    for verdict in judge_rooms(air)[:8]:
        space = school.of(Space)[verdict.space]
        target = target_of(RULES, space.use)
        if target is None:
            continue
        survey = air.terrain.surveys[space.floor]
        first = ranked_dbm(grid_levels_dbm(air, space.floor, survey, "5", "weaker"), 1)
        x, y = survey.points
        inside = [k for k in range(len(x)) if Polygon(space.outline).contains(Point(x[k], y[k]))]
        assert sorted(survey.rooms[space.id]) == inside
        assert verdict.worst_first_dbm == pytest.approx(first[inside].min(), abs=0.06)


def test_relief_and_reading_agree_at_a_spot(catalogue: Catalogue, school: Design) -> None:
    air = air_of(school, catalogue)
    (grid,) = relief_grids(air.terrain, "ground")
    levels = grid.sheet(ranked_dbm(grid_levels_dbm(air, "ground", grid, "5", "uplink"), 1))
    for row, column in ((20, 30), (40, 90), (60, 140)):
        spot = float(grid.eastings[column]), float(grid.northings[row])
        read = [r for r in readings_at(air, "ground", *spot) if r.band == "5"]
        assert max(r.uplink_dbm for r in read) == pytest.approx(levels[row, column], abs=0.06)


def test_a_quick_relief_is_coarser_but_alike(catalogue: Catalogue, school: Design) -> None:
    air = air_of(school, catalogue)
    fine = relief(air, "ground", "5", 1, "weaker")
    quick = relief(air, "ground", "5", 1, "weaker", quick=True)
    assert quick.step_m > fine.step_m
    assert sum(map(len, quick.tints)) < sum(map(len, fine.tints))
    assert len(quick.tints) == len(RULES.numbers("signal.contours_dbm")) + 1


def test_the_same_design_gives_the_same_answer(catalogue: Catalogue, school: Design) -> None:
    again = Design({kind: dict(rows) for kind, rows in school.tables.items()})
    assert evaluate(Plan(again, catalogue), wait=True) == evaluate(Plan(school, catalogue), wait=True)


def test_an_evaluation_survives_json(catalogue: Catalogue, home: Design) -> None:
    result = evaluate(Plan(home, catalogue), wait=True)
    text = result.model_dump_json()
    assert Evaluation.model_validate_json(text) == result
    assert "NaN" not in text and "Infinity" not in text
    json.loads(text)


def test_a_preview_says_the_same_but_for_its_searches(catalogue: Catalogue, school: Design) -> None:
    full, quick = evaluate(Plan(school, catalogue), wait=True), evaluate(Plan(school, catalogue, quick=True))
    assert quick.settings is None
    assert quick.rooms == full.rooms and quick.runs == full.runs
    assert quick.power.switches == full.power.switches
    extra = {f.id for f in full.findings} - {f.id for f in quick.findings}
    searched = ("signal-channel", "settings-beacons", "signal-busy", "settings-stray", "settings-unmanaged")
    searched += ("settings-portal",)
    # What the brief says rests on the busiest hour as well, and is told without it.
    assert all(key.startswith((*searched, "brief-pain")) for key in extra)


def test_findings_come_worst_first_and_once(catalogue: Catalogue, school: Design) -> None:
    findings = evaluate(Plan(school, catalogue)).findings
    ranks = [SEVERITY_ORDER[f.severity] for f in findings]
    assert ranks == sorted(ranks)
    assert len({f.id for f in findings}) == len(findings)


def test_every_cure_of_the_demos_makes_a_design_that_holds(
    catalogue: Catalogue, school: Design, home: Design
) -> None:
    for design in (school, home):
        before = {f.id for f in evaluate(Plan(design, catalogue), wait=True).findings}
        for finding in evaluate(Plan(design, catalogue), wait=True).findings:
            for cure in finding.cures:
                after = evaluate(Plan(apply(design, cure.changes), catalogue), wait=True)
                left = {f.id for f in after.findings}
                assert finding.id not in left or finding.severity == "note", cure.label
                assert len(left - before) <= 3, f"{cure.label} brings {left - before}"


def test_tally_adds_up(catalogue: Catalogue, school: Design) -> None:
    plan = Plan(school, catalogue)
    result, lines = evaluate(plan), {k.item: k for k in order_of(plan).lines}
    totals = result.totals
    assert totals.cable_m == pytest.approx(sum(r.fixed_m * r.cables for r in result.runs), abs=0.1)
    gear = [*school.of(Device).values(), *school.of(Switch).values()]
    for model in {g.model for g in gear}:
        used = sum(w.quantity for w in lines[model].where if w.kind != "spare")
        assert used == sum(g.model == model for g in gear)
    ground = any(r.jacket == "ground" for r in result.runs)
    assert (catalogue.cables["6"].item("ground") in lines) == ground
    assert totals.not_met + totals.near + totals.notes == len(result.findings)
    assert totals.powered_devices == len(result.power.devices)
    copper = [p for p in result.power.ports if not p.cage]
    assert totals.ports_used == sum(bool(p.link) or p.uplink for p in copper)


def test_what_the_tally_says_after_an_injector(catalogue: Catalogue, school: Design) -> None:
    left = evaluate(Plan(school, catalogue)).power.left[0]
    injector = Injector(id="i", device=left.device, model="peltwick-i30")
    before, after = Plan(school, catalogue), Plan(apply(school, [put(injector)]), catalogue)
    (line,) = [k for k in order_of(after).lines if k.item == injector.model]
    assert line.price == catalogue.injectors[injector.model].price
    assert evaluate(after).totals.not_met == evaluate(before).totals.not_met - 1


def test_radio_off_is_silent(catalogue: Catalogue) -> None:
    design = design_of(*shell(), access_point(5, 5), Radio(id="r", device="ap-1", band="5", on=False))
    room = judge_rooms(air_of(design, catalogue))[0]
    assert room.worst_first_dbm is None and room.share == 0
    radios = evaluate(Plan(design, catalogue), wait=True).signal.radios
    assert [r.on for r in radios or () if r.band == "5"] == [False]


def test_taking_the_rack_away_stops_every_run(catalogue: Catalogue) -> None:
    design = design_of(*shell(), rack(2, 2), access_point(5, 5))
    assert evaluate(Plan(design, catalogue)).runs[0].verdict == "met"
    room = design.of(EquipmentRoom)["rack"]
    assert evaluate(Plan(apply(design, [remove(room)]), catalogue)).runs[0].verdict == "no_way"


def test_clients_judged_by_change_what_is_heard_back(catalogue: Catalogue, school: Design) -> None:
    laptop = apply(school, [put(school.site.model_copy(update={"client": "laptop"}))])
    for mine, theirs in zip(
        judge_rooms(air_of(laptop, catalogue)), judge_rooms(air_of(school, catalogue)), strict=True
    ):
        assert (mine.share_first or 0) >= (theirs.share_first or 0)


def test_drafting_draws_each_wall_once() -> None:
    drawing = Drawing()
    rooms = [
        Room("A", (0, 0, 4, 4)),
        Room("B", (4, 0, 8, 4), walls="block-dense"),
        Room("C", (0, 4, 8, 7)),
        Room("Lawn", (0, 7, 8, 9), outdoor=True),
    ]
    rank = {"block-dense": 2.0}
    drawing.rooms("f", rooms, "stone", "plasterboard", lambda c: rank.get(c, 1.0))
    walls = list(drawing.design().of(Wall).values())
    length = {
        kind: sum(w.length_m for w in walls if w.construction == kind)
        for kind in ("stone", "plasterboard", "block-dense")
    }
    assert length == {"stone": 2 * (8 + 7), "plasterboard": 4, "block-dense": 4 + 4}
    drawing.opening("f", 2, 4, 0.9, "door-hollow")
    with pytest.raises(ValueError, match="no wall on f"):
        drawing.opening("f", 2, 3, 0.9, "door-hollow")
    assert slug("Head's study, 2nd") == "head-s-study-2nd"


def test_heights_matter(catalogue: Catalogue) -> None:
    """A ray that passes over a low wall's storey is not taken by it."""
    low = design_of(*shell(), wall(1, (8, 0), (8, 20), "metal"), access_point(4, 10))
    high = apply(low, [put(low.of(Device)["ap-1"].model_copy(update={"height_m": 30.0}))])
    through = next(r for r in readings_at(air_of(low, catalogue), "f", 9, 10) if r.band == "5")
    above = next(r for r in readings_at(air_of(high, catalogue), "f", 9, 10) if r.band == "5")
    assert above.uplink_dbm > through.uplink_dbm


def test_a_memo_keeps_by_identity_and_lets_the_oldest_go_by_weight() -> None:
    memo: IdentityMemo[str] = IdentityMemo(100, weigh=len, budget=Budget(10))
    made: list[str] = []

    def keep(key: tuple[object, ...], value: str) -> str:
        return memo.get(key, None, lambda: made.append(value) or value)

    one, twin, other = ([1], [1], [2])
    assert keep((one,), "aaaa") == keep((one,), "never") == "aaaa"
    assert keep((twin,), "bbbb") == "bbbb"
    keep((one,), "never")
    keep((other,), "cccc")
    assert keep((one,), "never") == "aaaa"
    assert keep((twin,), "again") == "again"
    assert made == ["aaaa", "bbbb", "cccc", "again"]


RULES = load_catalogue().rules
