"""Power over a loop, three figures against a budget, ports assigned or named as left over."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue, PortGroup, PowerDemand, SwitchModel, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, Injector, Switch, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.ports.assign import Demand, assign
from heathrise.core.ports.uplinks import Shelf
from heathrise.core.power.budget import PoweredDevice, budget_of, over_run
from heathrise.core.power.loop import feed, loop_resistance_ohm

from ..thorough import examples
from .plans import access_point, design_of, rack, shell


@pytest.mark.parametrize(
    ("device_w", "volts", "metres", "pairs", "amperes", "port_w", "far_v"),
    [
        (12.95, 44, 90, 2, 0.313, 13.78, 41.4),
        (25.5, 50, 100, 2, 0.571, 28.56, 44.6),
        (51, 50, 80, 4, 1.113, 55.65, 45.8),
    ],
)
def test_loops_by_hand(
    device_w: float, volts: float, metres: float, pairs: int, amperes: float, port_w: float, far_v: float
) -> None:
    loop = feed(device_w, volts, loop_resistance_ohm(metres, pairs, connections=0))
    assert loop.current_a == pytest.approx(amperes, abs=0.001)
    assert loop.port_w == pytest.approx(port_w, abs=0.02)
    assert loop.device_v == pytest.approx(far_v, abs=0.05)


def test_too_thin_a_feed_cannot_start() -> None:
    assert not feed(24, 48, 2 * 3000 * 0.01724 / 4).starts
    assert feed(24, 48, 2 * 1200 * 0.01724 / 2.5).device_v == pytest.approx(37.4, abs=0.05)


@given(st.floats(1, 60), st.floats(44, 57), st.floats(0.1, 12))
def test_what_leaves_the_port_arrives_or_warms_the_cable(device_w: float, volts: float, ohm: float) -> None:
    loop = feed(device_w, volts, ohm)
    if loop.starts:
        assert loop.port_w == pytest.approx(device_w + ohm * loop.current_a**2, rel=1e-6)
        assert loop.device_v <= volts


def _fed(number: int, poe_class: int, rated_w: float) -> PoweredDevice:
    demand = PowerDemand(poe_class=poe_class, rated_w=rated_w, typical_w=rated_w * 0.6)
    return over_run(RULES, f"d{number}", f"AP-{number}", "x", demand, 30, 22)


def test_verdict_depends_on_how_the_switch_allocates() -> None:
    fed = [_fed(k, 4, 14 if k < 4 else 17.5) for k in range(8)]
    group = (PortGroup(count=16, speed_mbps=1000, poe_class=4),)
    by_class = SwitchModel(id="a", label="A", groups=group, budget_w=185, price=1)
    negotiated = by_class.model_copy(update={"allocates": "negotiated"})
    one = budget_of("s", "SW", by_class, fed, 8, 8, 0.2)
    other = budget_of("s", "SW", negotiated, fed, 8, 8, 0.2)
    assert one.reserved_w == 240 and one.verdict == "not_met" and one.tipped_by == "AP-4"
    assert sum(d.rated_w for d in fed) == 126
    assert 126 < other.rated_w < other.usable_w == 148
    assert other.verdict == "met" and other.tipped_by is None


def _demands(count: int, poe_class: int | None = 4, port_w: float = 9.0) -> tuple[Demand, ...]:
    return tuple(Demand(f"d{k}", f"D{k}", 1000, poe_class, port_w, kept_w(poe_class)) for k in range(count))


def test_five_powered_ports_for_six_devices(catalogue: Catalogue) -> None:
    shelf = Shelf("s", "SW", catalogue.switches["dunthrip-s8"])
    light = _demands(6, poe_class=2)
    result = assign(light, (shelf,))
    assert list(result.left.values()) == ["no_powered_ports"] and result.proven
    injected = (*light[:5], Demand("d5", "D5", 1000))
    assert not assign(injected, (shelf,)).left


def test_watts_run_out_before_ports(catalogue: Catalogue) -> None:
    shelf = Shelf("s", "SW", catalogue.switches["dunthrip-s8"])
    result = assign(_demands(4), (shelf,))
    assert len(result.slots) == 2
    assert set(result.left.values()) == {"no_watts"}


def test_a_class_no_port_feeds_is_named(catalogue: Catalogue) -> None:
    shelf = Shelf("s", "SW", catalogue.switches["dunthrip-s16"])
    result = assign(_demands(1, poe_class=5, port_w=30), (shelf,))
    assert set(result.left.values()) == {"no_class"}


def test_router_without_power_and_half_powered_switch(catalogue: Catalogue) -> None:
    shelves = (
        Shelf("r", "R", catalogue.switches["dunthrip-r4"]),
        Shelf("s", "SW", catalogue.switches["dunthrip-s24h"]),
    )
    result = assign(_demands(14, poe_class=2), shelves)
    assert len(result.left) == 2
    assert all(slot.switch == "s" and slot.port <= 12 for slot in result.slots.values())


@examples(25)
@given(st.lists(st.sampled_from([None, 2, 3, 4]), max_size=22), st.floats(3, 25))
def test_no_limit_is_ever_broken(catalogue: Catalogue, classes: list[int | None], port_w: float) -> None:
    demands = tuple(
        Demand(f"d{k}", f"D{k}", 1000, c, port_w if c else 0.0, kept_w(c)) for k, c in enumerate(classes)
    )
    shelves = tuple(Shelf(key, key, catalogue.switches[key]) for key in ("dunthrip-s8", "dunthrip-s16"))
    result = assign(demands, shelves)
    assert set(result.slots) | set(result.left) == {d.id for d in demands}
    taken = [(s.switch, s.port) for s in result.slots.values()]
    assert len(taken) == len(set(taken))
    by_id = {d.id: d for d in demands}
    for shelf in shelves:
        here = {k: s for k, s in result.slots.items() if s.switch == shelf.id}
        fed = [by_id[k] for k in here if by_id[k].poe_class is not None]
        watts = sum(
            RULES.poe_classes[d.poe_class or 0].reserved_w if shelf.model.allocates == "class" else d.port_w
            for d in fed
        )
        assert watts <= shelf.model.budget_w + 0.05 * len(fed)
        for key, slot in here.items():
            if by_id[key].poe_class is not None:
                assert shelf.model.groups[slot.group].poe_class is not None


def test_neighbours_go_to_different_switches(catalogue: Catalogue) -> None:
    model = catalogue.switches["dunthrip-s16"]
    shelves = (Shelf("a", "A", model), Shelf("b", "B", model))
    slots = assign(_demands(4), shelves, (("d0", "d1"), ("d2", "d3"))).slots
    assert slots["d0"].switch != slots["d1"].switch
    assert slots["d2"].switch != slots["d3"].switch


def _six_points(switch: str | None = "dunthrip-s8") -> Design:
    points = [access_point(3 * k + 1, 10, f"ap-{k}") for k in range(1, 7)]
    elements = [*shell(), rack(2, 2), *points]
    if switch:
        elements.append(Switch(id="sw-1", equipment_room="rack", name="SW-1", model=switch))
    return design_of(*elements)


def test_every_cure_for_a_left_over_works_at_a_press(catalogue: Catalogue) -> None:
    for design in (_six_points(), _six_points(switch=None)):
        found = evaluate(Plan(design, catalogue), wait=True)
        finding = next(f for f in found.findings if f.id in ("power-left-rack", "power-none-rack"))
        assert finding.cures
        for cure in finding.cures:
            cured = evaluate(Plan(apply(design, cure.changes), catalogue), wait=True)
            assert not cured.power.left, cure.label


def test_an_injector_takes_the_device_off_the_switch(catalogue: Catalogue) -> None:
    injectors = [put(Injector(id=f"i{k}", device=f"ap-{k}", model="peltwick-i15")) for k in (5, 6)]
    before = evaluate(Plan(_six_points(), catalogue))
    after = evaluate(Plan(apply(_six_points(), injectors), catalogue))
    assert [row.name for row in before.power.left] and not after.power.left
    fed = {d.device: d.source for d in after.power.devices}
    assert fed["ap-6"] == "Peltwick I15 injector"
    assert after.totals.powered_ports_used == 4


def test_smallest_switch_that_fits_is_the_cheapest(catalogue: Catalogue) -> None:
    finding = next(
        f for f in evaluate(Plan(_six_points(None), catalogue)).findings if f.id == "power-none-rack"
    )
    element = finding.cures[0].changes[0].element  # type: ignore[union-attr]
    cheaper = [m for m in catalogue.switches.values() if m.price < catalogue.switches[element["model"]].price]
    for model in cheaper:
        assert evaluate(Plan(_six_points(model.id), catalogue)).power.left


def test_forgotten_device_has_no_port_until_it_has_a_run(catalogue: Catalogue) -> None:
    design = design_of(*shell(), access_point(5, 5))
    found = evaluate(Plan(design, catalogue))
    assert found.runs[0].verdict == "no_way"
    assert any("No run can be drawn" in f.text for f in found.findings)
    assert isinstance(design.of(Device)["ap-1"], Device)


RULES = load_catalogue().rules


def kept_w(poe_class: int | None) -> float:
    return 0.0 if poe_class is None else RULES.poe_classes[poe_class].reserved_w
