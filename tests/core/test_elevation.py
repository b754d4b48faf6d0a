"""Racks as things: arranged, framed, corded, warm, loud, on a battery, held; against plain references."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.findings import Finding
from heathrise.core.context.plan import Plan
from heathrise.core.context.scope import as_planned
from heathrise.core.design import (
    Design,
    Device,
    Element,
    EquipmentRoom,
    OwnFigure,
    Panel,
    RackPlace,
    Socket,
    Switch,
    Wall,
    Zone,
    apply,
    put,
)
from heathrise.core.elevation import (
    Placed,
    airflow_m3h,
    arrange,
    closet_c,
    heat_w,
    kept_share,
    meets_studs,
    minutes,
    together_db,
)
from heathrise.core.evaluation.evaluate import Evaluation, evaluate
from heathrise.core.placement import rack_places
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.work_list import steps_of
from heathrise.demo import SITES

from ..thorough import examples
from .plans import access_point, design_of, shell, wall

RULES = load_catalogue().rules


def _rack(at: tuple[float, float] = (0.3, 5.0), **more: object) -> EquipmentRoom:
    return EquipmentRoom.model_validate({"id": "rack", "floor": "f", "name": "Rack", "at": at, **more})


def _switch(key: str = "sw-1", model: str = "dunthrip-s16", room: str = "rack") -> Switch:
    return Switch(id=key, equipment_room=room, name=key.upper(), model=model)


def _site(*more: Element, width: float = 20, depth: float = 20, of: str = "brick-single") -> Design:
    corners = [(0.0, 0.0), (width, 0.0), (width, depth), (0.0, depth)]
    walls = [wall(k, corners[k], corners[(k + 1) % 4], of) for k in range(4)]
    return design_of(*shell(width, depth), *walls, *more)


def _evaluated(design: Design, catalogue: Catalogue) -> Evaluation:
    return evaluate(Plan(design, catalogue), wait=True)


def _found(design: Design, catalogue: Catalogue, key: str) -> list[Finding]:
    return [f for f in _evaluated(design, catalogue).findings if f.id.startswith(key)]


# -- figures worked by hand ------------------------------------------------------------------------


def test_heat_by_hand() -> None:
    """A switch of 34 W feeding 250 W: 34 + 280 in, 64 stay. 200 W in a closet of 2 by 1 by 2.4 m, 16.4 m2
    of walls and ceiling: 200 / (5.5 x 16.4) = 2.2 K; 200 W and 13 K want 46 m3/h."""
    assert heat_w(34, 250, 0.12) == pytest.approx((314, 64))
    assert closet_c(22, 200, 16.4, 5.5) == pytest.approx(22 + 200 / 90.2)
    assert airflow_m3h(200, 13) == pytest.approx(46.15, abs=0.01)
    assert closet_c(22, 200, 0, 5.5, airflow_m3h(200, 13)) == pytest.approx(35)
    assert airflow_m3h(200, 0) == math.inf


def test_sounds_together_by_hand() -> None:
    assert together_db([40, 40]) == pytest.approx(43.01, abs=0.01)
    assert together_db([50, 30]) == pytest.approx(50.04, abs=0.01)
    assert together_db([0, 0]) == together_db([]) == 0


def test_minutes_of_a_battery_by_hand() -> None:
    """216 Wh at 85 % into 300 W: 36.7 minutes; after three years at 20 C a fifth less, at 30 C two
    fifths, at 50 C more than there is at 1.6."""
    assert minutes(216, 300, 0.85) == pytest.approx(36.72)
    assert kept_share(3, 20, 0.2) == pytest.approx(0.8)
    assert kept_share(3, 30, 0.2) == pytest.approx(0.6)
    assert kept_share(3, 50, 0.2) == 0 and kept_share(0, 50, 0.2) == 1
    assert minutes(216, 0, 0.85) == 0


@pytest.mark.parametrize(
    ("holes_mm", "stud_mm", "meets"),
    [
        (400, 400, True),
        (450, 400, False),
        (450, 600, False),
        (610, 600, True),
        (406, 406.4, True),
        (800, 400, True),
        (200, 600, False),
    ],
)
def test_holes_on_studs(holes_mm: float, stud_mm: float, meets: bool) -> None:
    assert meets_studs(holes_mm, stud_mm, 15) is meets


# -- arrangements against all there are ------------------------------------------------------------


def _cost(
    things: tuple[Placed, ...], near: tuple[tuple[str, str, int], ...], units: int, at: dict[str, int]
) -> float:
    """What an arrangement costs, written down anew; infinite where things lie on one another."""
    taken = [set(range(at[t.key], at[t.key] + t.units)) for t in things if t.key in at]
    if any(a & b for a, b in itertools.combinations(taken, 2)) or any(max(s) > units for s in taken):
        return math.inf
    held = set().union(*taken) if taken else set()
    total = 0.0
    for t in things:
        if t.key not in at:
            total += 100_000 * t.units + 60 * (t.fan and t.units < units)
            continue
        total += t.kg * at[t.key]
        over = at[t.key] + t.units
        if t.fan and t.units < units and (over > units or over in held):
            total += 60
    total += sum(2 * n * abs(at[a] - at[b]) for a, b, n in near if a in at and b in at)
    for a, b in itertools.combinations([t for t in things if t.hot and t.key in at], 2):
        total += 25 * (abs(at[a.key] - at[b.key]) <= max(a.units, b.units))
    return total


@given(data=st.data())
@examples(40)
def test_no_arrangement_is_better_than_the_proven_one(data: st.DataObject) -> None:
    units = data.draw(st.integers(3, 7))
    count = data.draw(st.integers(1, 4))
    things = tuple(
        Placed(
            f"t{k}",
            data.draw(st.integers(1, 2)),
            data.draw(st.integers(0, 9)),
            data.draw(st.booleans()),
            data.draw(st.integers(0, 1)),
        )
        for k in range(count)
    )
    pairs = list(itertools.combinations([t.key for t in things], 2))
    near = tuple((a, b, data.draw(st.integers(1, 12))) for a, b in pairs if data.draw(st.booleans()))
    found = arrange(things, near, units)
    assert found.proven
    rows = [[None, *range(1, units - t.units + 2)] for t in things]
    best = min(
        _cost(things, near, units, {t.key: u for t, u in zip(things, spots, strict=True) if u is not None})
        for spots in itertools.product(*rows)
    )
    assert _cost(things, near, units, found.units) == pytest.approx(best)
    assert found.cost == pytest.approx(best)
    for unit in found.blanks:
        assert all(
            not found.units[t.key] <= unit < found.units[t.key] + t.units
            for t in things
            if t.key in found.units
        )


def test_what_somebody_placed_stays_and_what_finds_no_place_is_left() -> None:
    things = (Placed("a", 2, 9, at=5), Placed("b", 1, 1), Placed("c", 3, 3))
    found = arrange(things, (), 6)
    assert found.units == {"a": 5, "b": 4, "c": 1} or found.units["a"] == 5
    small = arrange((Placed("a", 2, 1), Placed("b", 2, 9)), (), 3)
    assert set(small.units) == {"b"} or len(small.units) == 1
    assert arrange((Placed("a", 5, 1),), (), 3).units == {}


@pytest.mark.parametrize("site", SITES, ids=lambda s: s.key)
def test_a_rack_of_a_demo_site_holds_together(site: object) -> None:
    """Nothing lies on anything, all is in its frame, sums are sums, cords as long as their way."""
    plan = Plan(site.make(), load_catalogue())  # type: ignore[attr-defined]
    chapter = evaluate(plan).racks
    for rack in chapter.racks:
        things = chapter.things_of(rack.room)
        own = [t for t in things if not t.on and t.unit]
        taken = [u for t in own for u in range(t.unit, t.unit + t.units)]
        assert len(taken) == len(set(taken)) and all(1 <= u <= rack.units for u in taken)
        assert not set(rack.blanks) & set(taken)
        assert rack.watts == pytest.approx(sum(t.watts for t in things), abs=0.1)
        assert rack.heat_w == pytest.approx(sum(t.watts - t.carried_w for t in things), abs=0.2)
        frame = plan.catalogue.frames[rack.frame]
        assert rack.kg == pytest.approx(frame.kg + sum(t.kg for t in things), abs=0.1)
        if rack.chosen_by == "plan" and rack.fits:
            wants = _units_wanted(things, rack.later_units)
            cheaper = [f for f in plan.catalogue.frames.values() if f.price < frame.price]
            deep = max(t.deep_mm for t in things) + 50
            kg = sum(t.kg for t in things)
            assert not [f for f in cheaper if f.units >= wants and f.deep_mm >= deep and f.bears_kg >= kg]
    here = {(t.room, t.thing): t for t in chapter.things}
    for cord in chapter.cords:
        one, other = here[cord.room, cord.from_thing], here[cord.room, cord.to_thing]
        if one.unit and other.unit:
            way = abs(_across(one, cord.from_port) - _across(other, cord.to_port)) + abs(
                _up(one) - _up(other)
            )
            assert cord.reach_m == pytest.approx(way / 1000 + 0.1, abs=0.006)
            sold = (2,) if cord.item == "cord-fibre" else (0.5, 1, 2, 3, 5)
            lengths = [m for m in sold if m >= way / 1000 + 0.1 + 0.3 - 1e-9]
            assert cord.length_m == lengths[0]


def _units_wanted(things: list, later: int) -> int:
    own = sum(t.units for t in things if not t.on)
    return own + sum(bool(t.noise_db and t.units) for t in things) + max(later, math.ceil(0.2 * own - 1e-9))


def _across(thing: object, port: int) -> float:
    ports = thing.ports  # type: ignore[attr-defined]
    if port == 0 or ports == 0:
        return 220.0
    if ports <= 24:
        return 440 * (port - 0.5) / ports
    return 440 * ((port - 1) // 2 + 0.5) / math.ceil(ports / 2)


def _up(thing: object) -> float:
    return 44.45 * (thing.unit - 1 + max(thing.units, 1) / 2)  # type: ignore[attr-defined]


@pytest.mark.parametrize("site", SITES, ids=lambda s: s.key)
def test_each_port_in_use_of_a_panel_has_its_cord_and_no_port_two(site: object) -> None:
    plan = Plan(site.make(), load_catalogue())  # type: ignore[attr-defined]
    evaluation = evaluate(plan)
    chapter = evaluation.racks
    ends: list[tuple[str, str, int]] = []
    for cord in chapter.cords:
        ends += [(cord.room, cord.from_thing, cord.from_port), (cord.room, cord.to_thing, cord.to_port)]
    numbered = [e for e in ends if e[2]]
    assert len(numbered) == len(set(numbered))
    panels = {t.room for t in chapter.things if t.kind == "panel"}
    room_of = {s.id: s.equipment_room for s in plan.design.of(Switch).values()}
    for use in evaluation.power.ports:
        if use.device is not None and room_of[use.switch] in panels:
            assert (room_of[use.switch], f"switch:{use.switch}", use.port) in numbered


# -- what is printed and ordered -------------------------------------------------------------------


@pytest.mark.parametrize("site", SITES, ids=lambda s: s.key)
def test_what_is_bolted_in_is_ordered_and_listed_from_below(site: object) -> None:
    plan = Plan(site.make(), load_catalogue())  # type: ignore[attr-defined]
    chapter = evaluate(plan).racks
    lines = {line.item: line for line in order_of(plan).lines}
    steps = {s.id: s for s in steps_of(plan)}
    for rack in chapter.racks:
        if not rack.fresh:
            continue
        assert any(w.id == rack.room for w in lines[rack.frame].where)
        fit = steps[f"fit-{rack.room}"]
        said = [
            int(c.split()[1].rstrip(":")) for c in fit.checks if c.startswith("unit") and "blank" not in c
        ]
        assert said == sorted(said)
        for thing in chapter.things_of(rack.room):
            if thing.item and not thing.old and thing.kind != "recorder":
                assert thing.item in lines, thing.name
            if thing.units and not thing.on and thing.unit:
                assert any(c.startswith(f"unit {thing.unit}") and thing.name in c for c in fit.checks)
        assert f"rack-{rack.room}" in fit.waits
        bond = steps[f"bond-{rack.room}"]
        assert bond.licensed and bond.phase == "protect"
        switches = [s for s in plan.design.of(Switch).values() if s.equipment_room == rack.room]
        for switch in switches:
            if switch.state == "new":
                assert bond.id in steps[f"switch-{switch.id}"].waits
    cords = sum(c.item.startswith("cord-") for c in chapter.cords)
    bought = sum(w.quantity for k, line in lines.items() if k.startswith("cord-") for w in line.where)
    assert bought >= cords


def test_a_socket_that_is_made_is_a_licensed_step_with_its_cable(catalogue: Catalogue) -> None:
    panel = Panel(id="p", floor="f", name="Panel", at=(5, 0))
    far = Socket(id="s", floor="f", name="Far socket", at=(20, 10))
    design = _site(_rack(), _switch(), access_point(10, 10), panel, far)
    (found,) = _found(design, catalogue, "rack-socket")
    assert found.figure == pytest.approx(math.hypot(math.dist((0.3, 5), (20, 10)), 0.9), abs=0.01)
    after = Plan(apply(design, found.cures[0].changes), catalogue)
    assert not _found(after.design, catalogue, "rack-socket")
    step = next(s for s in steps_of(after) if s.id.startswith("socket-"))
    # From (5, 0) along the wall to the corner, up to the rack's height beside it, and across to it.
    metres = 5 + 5 + 0.3
    assert step.licensed and f"{metres:.0f} m of cable" in step.title
    lines = {k.item: k.quantity for k in order_of(after).lines}
    assert lines["socket"] == 1 and lines["mains-cable"] == math.ceil(metres)
    assert order_of(after).sum.total > order_of(Plan(design, catalogue)).sum.total


# -- findings and their cures ----------------------------------------------------------------------


def test_a_rack_before_a_panel_is_moved_out_of_its_space(catalogue: Catalogue) -> None:
    panel = Panel(id="p", floor="f", name="Panel", at=(0, 5), azimuth_deg=90)
    design = _site(_rack(), _switch(), access_point(10, 10), panel)
    (found,) = _found(design, catalogue, "rack-panel")
    assert "Rack stands in the clear space of Panel" in found.text and found.stage == "plan"
    mended = apply(design, found.cures[0].changes)
    assert not _found(mended, catalogue, "rack-panel")
    x, y = mended.of(EquipmentRoom)["rack"].at
    assert not (-0.375 - 0.3 < y - 5 < 0.375 + 0.3 and x < 0.9)  # half a frame beside the space
    high = apply(design, [put(_rack(rack_height_m=2.1))])
    assert not _found(high, catalogue, "rack-panel")


def test_a_small_closet_gets_warm_and_is_vented(catalogue: Catalogue) -> None:
    """0.9 by 0.8 m, 2.7 m high: 9.9 m2. The figure of a tight one, 0.6 W/m2K, makes it hot."""
    tight = OwnFigure(id="o", figure="rack.closet_w_m2k", value=1.0)
    design = _site(
        _rack((0.3, 0.4)), _switch(model="dunthrip-x24"), access_point(0.5, 0.5), tight, width=0.9, depth=0.8
    )
    evaluation = _evaluated(design, catalogue)
    rack = evaluation.racks.racks[0]
    area = 2 * (0.9 + 0.8) * 2.7 + 0.9 * 0.8
    assert rack.closet.area_m2 == pytest.approx(area, abs=0.05)
    assert rack.closet.closed_c == pytest.approx(22 + rack.heat_w / area, abs=0.1)
    found = [f for f in evaluation.findings if f.id.startswith("rack-heat")]
    assert bool(found) == (rack.closet.closed_c > 35)
    hot = apply(design, [put(tight.model_copy(update={"value": 1.0})), put(_switch("sw-2", "dunthrip-x24"))])
    (warm,) = _found(hot, catalogue, "rack-heat")
    mended = apply(hot, warm.cures[0].changes)
    assert not _found(mended, catalogue, "rack-heat")
    lines = {k.item for k in order_of(Plan(mended, catalogue)).lines}
    assert "vent-fan" in lines
    fit = next(s for s in steps_of(Plan(mended, catalogue)) if s.id == "fit-rack")
    assert any("m³/h pass through the closet" in c for c in fit.checks)


def test_more_units_than_a_frame_has_are_told(catalogue: Catalogue) -> None:
    many = [_switch(f"sw-{k}") for k in range(1, 9)]
    design = _site(_rack(frame="fellgate-w6"), *many, access_point(10, 10))
    (found,) = _found(design, catalogue, "rack-size")
    assert "units of gear in a frame of 6" in found.text and found.figure is not None and found.figure > 6
    assert not _found(apply(design, found.cures[0].changes), catalogue, "rack-size")
    full = _site(_rack(), *(_switch(f"sw-{k}") for k in range(1, 60)), access_point(10, 10))
    (over,) = _found(full, catalogue, "rack-size")
    assert "Share it out over two racks" in over.text and not over.cures


def test_a_place_by_hand_is_kept_and_two_on_one_are_told(catalogue: Catalogue) -> None:
    design = _site(_rack(), _switch(), _switch("sw-2"), access_point(10, 10))
    one = RackPlace(id="p-1", equipment_room="rack", thing="switch:sw-1", unit=4)
    two = RackPlace(id="p-2", equipment_room="rack", thing="switch:sw-2", unit=4)
    things = {t.thing: t for t in _evaluated(apply(design, [put(one)]), catalogue).racks.things}
    assert (things["switch:sw-1"].unit, things["switch:sw-1"].by) == (4, "person")
    both = apply(design, [put(one), put(two)])
    (found,) = _found(both, catalogue, "rack-places")
    assert "1 of the places" in found.text
    assert not _found(apply(both, found.cures[0].changes), catalogue, "rack-places")


def test_a_battery_is_judged_by_its_load_and_age(catalogue: Catalogue) -> None:
    design = _site(
        _rack(battery="staddle-b6"), _switch(), *(access_point(4 + k, 9, f"ap-{k}") for k in range(6))
    )
    rack = _evaluated(design, catalogue).racks.racks[0]
    held = rack.battery
    assert held is not None
    load = sum(t.watts for t in _evaluated(design, catalogue).racks.things if t.kind != "battery")
    assert held.load_w == pytest.approx(load, abs=0.1)
    assert held.minutes == pytest.approx(62 * 0.85 * 60 / load, abs=0.1)
    kept = 1 - 0.2 * 2 ** ((rack.closet.closed_c - 20) / 10)
    assert held.minutes_old == pytest.approx(62 * kept * 0.85 * 60 / load, abs=0.2)
    assert held.load_share == pytest.approx(max(load / 390, load / 0.9 / 650), abs=0.001)
    assert held.sheds[0].name == "access points" and held.sheds[0].minutes > held.minutes
    assert sum(s.watts for s in held.sheds) + held.sheds[-1].left_w == pytest.approx(load, abs=0.3)
    for found in _found(design, catalogue, "rack-battery"):
        for cure in found.cures:
            assert not _found(apply(design, cure.changes), catalogue, "rack-battery"), cure.label


def test_fans_stay_out_of_quiet_rooms(catalogue: Catalogue) -> None:
    design = _site(_rack(), _switch(model="dunthrip-x24"), access_point(10, 10))
    (found,) = _found(design, catalogue, "rack-noise")
    assert found.figure == pytest.approx(50 - 4) and found.limit == 30


def test_studs_a_board_and_fixings_for_the_weight(catalogue: Catalogue) -> None:
    design = _site(_rack(), _switch(), access_point(10, 10), of="plasterboard")
    rack = _evaluated(design, catalogue).racks.racks[0]
    assert rack.fixing.into == "studs" and rack.fixing.board  # 450 mm over studs 600 mm apart
    assert rack.fixing.bears_kg >= 3 * rack.kg and rack.fixing.fixings % 2 == 0
    assert {k.item for k in order_of(Plan(design, catalogue)).lines} >= {"backing-board", "frame-screws"}
    measured = apply(design, [put(_rack(stud_m=0.45))])
    assert not _evaluated(measured, catalogue).racks.racks[0].fixing.board
    assert "backing-board" not in {k.item for k in order_of(Plan(measured, catalogue)).lines}
    metal = _site(_rack(), _switch(), access_point(10, 10), of="metal")
    (found,) = _found(metal, catalogue, "rack-fixing")
    assert not _found(apply(metal, found.cures[0].changes), catalogue, "rack-fixing")


def test_what_comes_later_is_kept_room_for(catalogue: Catalogue) -> None:
    later = Zone(
        id="z", floor="f", kind="later", name="Wing", outline=((0, 0), (4, 0), (4, 4), (0, 4)), outlets=40
    )
    plain = _site(_rack(), _switch(), access_point(10, 10))
    one, other = (_evaluated(d, catalogue).racks.racks[0] for d in (plain, apply(plain, [put(later)])))
    assert other.later_units == 4 and other.units > one.units and other.spare_units >= 4


# -- places side by side ---------------------------------------------------------------------------


@pytest.mark.parametrize("site", SITES, ids=lambda s: s.key)
def test_a_place_comes_to_what_it_was_said_to(site: object) -> None:
    plan = Plan(site.make(), load_catalogue())  # type: ignore[attr-defined]
    design = as_planned(plan.drawn)
    room = next(iter(design.of(EquipmentRoom)))
    found = rack_places(plan, room, lambda *_: True)
    keys = [(p.not_met, -p.score) for p in found.places]
    assert keys == sorted(keys) and sum(p.here for p in found.places) == 1
    weights = plan.rules.table("rack.place_weight")
    for place in found.places:
        lost = sum(weights[j.matter] * j.bad for j in place.judged)
        of_all = sum(weights[j.matter] for j in place.judged)
        assert place.score == pytest.approx(100 * (1 - lost / of_all), abs=0.06)
    for place in [p for p in found.places if not p.here][:2]:
        after = plan.after(place.changes)
        runs = evaluate(after).cable.runs
        assert sum(r.bought_m * r.cables for r in runs) == pytest.approx(place.cable_m, abs=0.1)
        assert not [f for f in evaluate(after).findings if f.id == f"rack-panel-{room}"]


def test_rooms_with_water_come_last(catalogue: Catalogue) -> None:
    from heathrise.core.design import Space

    dry = Space(id="dry", floor="f", name="Dry", use="none", outline=((0, 0), (4, 0), (4, 4), (0, 4)))
    wet = Space(
        id="wet", floor="f", name="Wet", use="none", outline=((4, 0), (8, 0), (8, 4), (4, 4)), water=True
    )
    base = [e for e in shell(8, 4) if not isinstance(e, Space)]
    walls = [wall(k, a, b, "brick-single") for k, (a, b) in enumerate([((0, 0), (8, 0)), ((0, 4), (8, 4))])]
    device: Device = access_point(4, 2)
    design = design_of(*base, dry, wet, *walls, _rack((6, 0.4)), _switch(), device)
    names = [p.name for p in rack_places(Plan(design, catalogue), "rack", lambda *_: True).places]
    assert names == ["Dry", "Wet"]
    assert isinstance(next(iter(design.of(Wall).values())), Wall)
