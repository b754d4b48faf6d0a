"""A failure drill: by hand in one hall, and against a design from which things were really taken."""

from __future__ import annotations

import re

import pytest

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.context.scope import as_planned
from heathrise.core.design import Device, Injector, PortPin, Radio, Remove, Switch, apply, put, remove
from heathrise.core.elevation import judge_battery
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.signal import WalkPoint, air_of, judge_rooms, walk
from heathrise.core.views.failures import Failure, drill
from heathrise.demo import SITES

from .plans import access_point, design_of, rack, shell


def test_two_in_one_hall_by_hand(catalogue: Catalogue) -> None:
    """Either alone serves the hall, but a call wants a second: both failures cost it that; the
    switch that feeds both leaves nobody."""
    design = design_of(
        *shell(10, 10),
        rack(1, 1),
        access_point(3, 5),
        access_point(7, 5, "ap-2"),
        Switch(id="sw", equipment_room="rack", model="dunthrip-s16", name="SW-1"),
    )
    evaluation = evaluate(Plan(design, catalogue))
    assert evaluation.rooms[0].verdict == "met"
    found = drill(Plan(design, catalogue))
    whole, rest = found[:2], found[2:]
    assert {f.kind for f in whole} == {"switch", "mains"} and all(f.takes == ("AP-1", "AP-2") for f in whole)
    worst = next(f for f in whole if f.kind == "switch")
    assert [(r.space, r.was, r.now, r.silent) for r in worst.rooms] == [("room", "met", "not_met", True)]
    assert {f.element for f in rest} == {"ap-1", "ap-2"}
    assert all([(r.now, r.silent) for r in f.rooms] == [("not_met", False)] for f in rest)


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_each_failure_is_what_is_left_without_it(key: str) -> None:
    """Slow and plain: the radios really switched off, the whole site judged anew."""
    design, catalogue = next(s for s in SITES if s.key == key).make(), load_catalogue()
    planned = as_planned(design)
    found = drill(Plan(design, catalogue))
    air = air_of(planned, catalogue)
    before = {r.space: r.verdict for r in judge_rooms(air)}
    names = {d.name: d.id for d in planned.of(Device).values()}
    for failure in (found[0], found[len(found) // 2], found[-1]):
        silent = [
            Radio(id=f"off-{n}-{band[0]}", device=names[name], band=band, on=False, power_dbm=radio.power_dbm)
            for n, name in enumerate(failure.takes)
            for (device, band), radio in air.radios.items()
            if device == names[name]
        ]
        held = [
            Radio(id=f"held-{n}", device=device, band=band, power_dbm=radio.power_dbm, on=radio.on)
            for n, ((device, band), radio) in enumerate(air.radios.items())
            if device not in {names[t] for t in failure.takes}
        ]
        kept = {k: {} if k == "radio" else t for k, t in planned.tables.items()}
        without = apply(type(planned)(kept), [put(r) for r in [*silent, *held]])
        after = judge_rooms(air_of(without, catalogue))
        rank = {"not_met": 0, "near": 1, "met": 2}
        worse = {r.space for r in after if r.verdict in rank and rank[r.verdict] < rank[before[r.space]]}
        assert {r.space for r in failure.rooms if r.was != r.now} == worse, failure.name
    weights = [f.weight for f in found]
    assert weights == sorted(weights, reverse=True)


def test_what_hangs_behind_a_switch_goes_with_it() -> None:
    design, catalogue = next(s for s in SITES if s.key == "practice").make(), load_catalogue()
    evaluation = evaluate(Plan(design, catalogue))
    found = {(f.kind, f.element): f for f in drill(Plan(design, catalogue))}
    behind: dict[str, set[str]] = {}
    for way in sorted(evaluation.power.ways_up, key=lambda w: -w.depth):
        mine = {
            p.name.split(".")[0]
            for p in evaluation.power.ports
            if p.switch == way.switch and p.device and p.name
        }
        behind[way.switch] = mine | behind.get(way.switch, set())
        if way.to is not None:
            behind[way.to] = behind.get(way.to, set()) | behind[way.switch]
    for switch in as_planned(design).of(Switch):
        failure = found["switch", switch]
        assert set(failure.takes) <= behind.get(switch, set())
        assert len(failure.takes) + failure.others == len(behind.get(switch, set()))
    assert any(kind == "uplink" for kind, _ in found)


def test_one_that_is_stopped_gives_what_it_has() -> None:
    design, catalogue = SITES[0].make(), load_catalogue()
    seen: list[Failure] = drill(Plan(design, catalogue), lambda done, _total: done < 3)
    assert len(seen) == 3


def test_a_walk_is_carried_through_each_failure(catalogue: Catalogue) -> None:
    """A corridor of 400 m with one at each end: without either, a call is lost over there, just as
    long as the walk itself says."""
    design = design_of(*shell(400, 3), rack(1, 1), access_point(2, 1.5), access_point(398, 1.5, "ap-2"))
    path = [WalkPoint(floor="f", at=(3, 1.5)), WalkPoint(floor="f", at=(397, 1.5))]
    found = {f.element: f for f in drill(Plan(design, catalogue), path=path)}
    for key, other in (("ap-1", "ap-2"), ("ap-2", "ap-1")):
        alone = apply(design, [Remove(kind="device", id=key)])
        air = air_of(design, catalogue)
        held = [
            Radio(id=f"r-{b[0]}", device=other, band=b, power_dbm=air.radios[other, b].power_dbm)
            for d, b in air.radios
            if d == other
        ]
        after = walk(air_of(apply(alone, [put(r) for r in held]), catalogue), path).samples
        lost = [sum(s.serving is None for s in w) for w in (walk(air, path).samples, after)]
        assert found[key].walk_lost_s == 0.5 * (lost[1] - lost[0]) > 0
    assert drill(Plan(design, catalogue))[0].walk_lost_s == 0


def test_an_injector_takes_its_device_and_the_mains_take_the_rack(catalogue: Catalogue) -> None:
    design = design_of(
        *shell(10, 10),
        rack(1, 1).model_copy(update={"battery": next(iter(catalogue.batteries))}),
        access_point(3, 5),
        access_point(7, 5, "ap-2"),
        Switch(id="sw", equipment_room="rack", model="dunthrip-s16", name="SW-1"),
        Injector(id="inj", device="ap-2", model=next(iter(catalogue.injectors))),
    )
    plan = Plan(design, catalogue)
    found = {(f.kind, f.element): f for f in drill(plan)}
    injector, mains = found["injector", "inj"], found["mains", "rack"]
    assert injector.takes == ("AP-2",) and injector.rooms == found["device", "ap-2"].rooms
    assert injector.cure_price == next(iter(catalogue.injectors.values())).price
    assert mains.gone == found["switch", "sw"].gone
    held = evaluate(plan).racks.racks[0].battery
    assert held is not None and mains.minutes == held.minutes_old > 0 and mains.cure_price is None
    bare = Plan(apply(design, [put(rack(1, 1))]), catalogue)
    bought = next(f for f in drill(bare) if f.kind == "mains")
    # The cheapest that lasts as long as is wished, tried one after the other.
    load, closet = evaluate(bare).racks.racks[0].watts, evaluate(bare).racks.racks[0].closet.now_c
    lasting = [
        m.price
        for m in catalogue.batteries.values()
        if judge_battery(catalogue.rules, m, load, closet, []).verdict == "met"
    ]
    assert bought.minutes == 0 and bought.cure_price == min(lasting)


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_each_failure_says_what_helps_and_what_that_is_bought_for(key: str) -> None:
    plan = Plan(next(s for s in SITES if s.key == key).make(), load_catalogue())
    prices = {item.label: item.price for item in plan.priced.items.values()}
    for failure in drill(plan):
        if failure.kind in ("device", "switch", "injector"):
            label = failure.cure.removeprefix("one more ").removesuffix(", kept ready")
            assert failure.cure_price == prices[label]
        if failure.kind == "uplink":
            up = next(u for u in evaluate(plan).uplinks if u.room == failure.element)
            if up.medium == "fibre":
                assert failure.cure_price == 2 * plan.catalogue.fibres[up.category].optic_price
            elif up.cables > 1:
                assert failure.cure_price == 0.0 and "second cable" in failure.cure


def test_the_port_that_helps_is_free_and_does() -> None:
    """Slow and plain: the link is really pinned there; nobody else loses a port or watts by it."""
    catalogue = load_catalogue()
    plan = Plan(next(s for s in SITES if s.key == "practice").make(), catalogue)
    before = evaluate(plan).power
    tried = 0
    for failure in drill(plan):
        said = re.match(r"port (\d+) of (\S+) is free", failure.port_cure)
        if said is None or failure.element not in plan.design.of(Device):
            continue
        switch = next(s for s in plan.design.of(Switch).values() if s.name == said[2])
        here = next(p for p in before.ports if p.switch == switch.id and p.port == int(said[1]))
        assert here.link is None and not here.uplink
        if tried >= 6:
            continue
        tried += 1
        old = [remove(p) for p in plan.design.of(PortPin).values() if p.device == failure.element]
        pin = PortPin(id="pin-tried", switch=switch.id, port=int(said[1]), device=failure.element)
        after = evaluate(plan.after([*old, put(pin)])).power
        (use,) = [p for p in after.ports if p.device == failure.element and p.link and "/" not in p.link]
        assert (use.switch, use.port) == (switch.id, int(said[1]))
        assert {row.link for row in after.left} == {row.link for row in before.left}
        full = {s.switch for s in after.switches if s.counted_w > s.budget_w + 1e-6}
        assert full <= {s.switch for s in before.switches if s.counted_w > s.budget_w + 1e-6}
    assert tried


def test_a_port_that_nothing_can_stand_in_for_asks_for_a_switch(catalogue: Catalogue) -> None:
    points = [access_point(2 + 1.5 * k, 5, f"ap-{k}", "ravelmoor-t3") for k in range(12)]
    switch = Switch(id="sw", equipment_room="rack", model="dunthrip-s24h", name="SW-1")  # twelve that feed
    found = drill(Plan(design_of(*shell(20, 10), rack(1, 1), switch, *points), catalogue))
    mine = [f for f in found if f.kind == "device"]
    assert len(mine) == 12 and all("no free port does: one more Dunthrip S24" in f.port_cure for f in mine)
    fewer = drill(Plan(design_of(*shell(20, 10), rack(1, 1), switch, *points[:11]), catalogue))
    assert all("of SW-1 is free and does" in f.port_cure for f in fewer if f.kind == "device")
