"""What mends a run that is too long: every figure of each against the plan with it taken."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.cabling import judge_runs
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.context.run_decisions import run_said
from heathrise.core.design import Design, DesignError, Device, EquipmentRoom, Extender, Switch, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.remedies import Remedy, remedies_of
from heathrise.demo import SITES
from heathrise.questions import QUESTIONS

from ..thorough import examples
from .plans import access_point, design_of, rack, shell
from .sites import sites

CATALOGUE = load_catalogue()
GOOD = ("met", "near")


def _long_hall(metres: float, model: str = "ravelmoor-c2") -> Design:
    """A hall of one room with a rack at one end and an access point at the other."""
    switch = Switch(id="s", equipment_room="rack", name="S", model="dunthrip-m24")
    return design_of(*shell(metres + 4, 12), rack(1, 6), access_point(metres, 6, model=model), switch)


def _as_taken(design: Design, device: str, remedy: Remedy) -> None:
    """Each figure is that of the whole plan with the remedy in it, looked up by itself."""
    after = apply(design, remedy.changes)
    check(after, CATALOGUE)
    one, other = Plan(design, CATALOGUE), Plan(after, CATALOGUE)
    before, seen = evaluate(one, wait=True), evaluate(other, wait=True)
    orders = order_of(one), order_of(other)
    assert remedy.price == pytest.approx(orders[1].sum.total - orders[0].sum.total, abs=0.011), remedy.label
    assert remedy.hours == pytest.approx((orders[1].sum.minutes - orders[0].sum.minutes) / 60, abs=0.06)
    laid = [
        sum(k.bought_m * k.cables for k in e.cable.links if k.verdict != "no_way") for e in (before, seen)
    ]
    assert remedy.cable_m == pytest.approx(laid[1] - laid[0], abs=0.11)
    runs = {r.device: r for r in seen.runs}
    left = {row.device for row in seen.power.left}
    fed = {d.device: d for d in seen.power.devices}
    if device in runs:
        good = runs[device].verdict in GOOD and device not in left
        good = good and (device not in fed or fed[device].verdict != "not_met")
        ups = {u.room: u.verdict for u in seen.cable.uplinks}
        good = good and ups.get(runs[device].room, "met") in GOOD
        assert remedy.does == good, remedy.label
        assert sum(
            p.length_m for p in remedy.pieces if p.to in ("extender", runs[device].name)
        ) == pytest.approx(runs[device].fixed_m, abs=0.3)
        ports = [u.speed_mbps for u in seen.power.ports if u.device == device]
        assert not ports or remedy.speed_mbps <= max(ports)
    assert (remedy.volts is None) == (device not in fed)
    if remedy.volts is not None:
        assert remedy.volts == fed[device].device_v


@pytest.mark.parametrize("key", ["mill", "practice"])
def test_every_figure_is_that_of_the_plan_with_it(key: str) -> None:
    design = next(s for s in SITES if s.key == key).make()
    bad = [r.device for r in evaluate(Plan(design, CATALOGUE), wait=True).runs if r.verdict not in GOOD]
    assert bad
    several = 0
    for device in bad:
        found = remedies_of(Plan(design, CATALOGUE), device)
        several += len(found.remedies) > 2
        assert [r.does for r in found.remedies] == sorted((r.does for r in found.remedies), reverse=True)
        for remedy in found.remedies:
            _as_taken(design, device, remedy)
    assert several


def test_a_hall_of_a_hundred_and_twenty_metres_by_hand() -> None:
    """118 m in the void, 1.5 + 0.1 m up and down, 6 of slack: an extender halves it, a cabinet beside the
    device takes fibre, nothing is fed where no cable goes."""
    found = remedies_of(Plan(_long_hall(120), CATALOGUE), "ap-1")
    labels = {r.label: r for r in found.remedies}
    assert found.length_m > found.limit_m > 80
    extender = next(r for r in found.remedies if r.label.startswith("Put in") and r.does)
    assert [p.length_m for p in extender.pieces] == pytest.approx([found.length_m / 2] * 2, abs=0.1)
    assert extender.speed_mbps <= 1000 < found.wanted_mbps
    fibre = labels["Fibre to a switch with power in Room"]
    assert [p.medium for p in fibre.pieces] == ["fibre", "copper"] and fibre.does
    assert any("mains socket" in n for n in fibre.needs)
    assert any("licensed electrician" in n for n in fibre.needs)
    assert any(h.startswith("Fibre") for h in fibre.hurts)
    nearer = next(r for r in found.remedies if r.label.startswith("Move Rack nearer"))
    assert nearer.does and nearer.cable_m < 0 and nearer.price < extender.price
    assert found.remedies[0].does and len({r.label for r in found.remedies}) == len(found.remedies)


def test_extenders_go_where_a_rack_comes_nearer() -> None:
    base = _long_hall(200)
    stuck = apply(base, [put(Extender(id="ext-1", device="ap-1", model="peltwick-e1", share=0.5))])
    found = remedies_of(Plan(stuck, CATALOGUE), "ap-1")
    fibre = next(r for r in found.remedies if r.label.startswith("Fibre"))
    assert fibre.does and not apply(stuck, fibre.changes).of(Extender)


def test_a_run_that_does_has_none_and_strangers_are_refused() -> None:
    plan = Plan(_long_hall(40), CATALOGUE)
    assert remedies_of(plan, "ap-1").remedies == ()
    with pytest.raises(DesignError, match="no device 'nobody'"):
        QUESTIONS["remedies"].ask(plan, {"device": "nobody"})


@examples(24)
@given(sites(devices=4), st.data())
def test_the_shortest_way_is_never_longer(site: Design, data: st.DataObject) -> None:
    """Against the way that is easiest to work, device by device; and it is no way where there is none."""
    runs = {r.device: r for r in judge_runs(site, CATALOGUE)}
    if not site.of(EquipmentRoom) or not runs:
        return
    key = data.draw(st.sampled_from(sorted(runs)))
    device = site.of(Device)[key]
    asked = apply(site, [put(run_said(site, key).model_copy(update={"shortest": True}))])
    (short,) = judge_runs(asked, CATALOGUE, device)
    assert (short.verdict == "no_way") == (runs[key].verdict == "no_way")
    assert short.fixed_m <= runs[key].fixed_m + 0.1
    others = {r.device: r.fixed_m for r in judge_runs(asked, CATALOGUE) if r.device != key}
    assert others == {k: r.fixed_m for k, r in runs.items() if k != key}
