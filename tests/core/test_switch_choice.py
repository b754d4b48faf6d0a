"""Switches at least cost: against every choice of a few, port by port; and taken, all racks have ports."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import PortGroup, SwitchModel, load_catalogue
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.design import PortPin, Switch, Zone, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.ports import Chosen, Demand, KeptFree, Shelf, assign, choose, uplinks
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.switch_choice import switch_choices
from heathrise.demo import SITES

from ..thorough import examples
from .plans import access_point, design_of, rack, shell

CATALOGUE = load_catalogue()
NOTHING = KeptFree(0.0, 0.0)


def _model(key: str, price: float, budget_w: float, *groups: PortGroup, managed: bool = True) -> SwitchModel:
    return SwitchModel(
        id=key, label=key, price=price, budget_w=budget_w, groups=groups, managed=managed, allocates="class"
    )


SOLD = (
    _model("plain4", 20, 0, PortGroup(count=4, speed_mbps=1000), managed=False),
    _model(
        "small", 50, 30, PortGroup(count=3, speed_mbps=1000, poe_class=4), PortGroup(count=2, speed_mbps=1000)
    ),
    _model(
        "quick",
        90,
        60,
        PortGroup(count=4, speed_mbps=2500, poe_class=6),
        PortGroup(count=1, speed_mbps=10000, cage=True),
    ),
)


def _plain(demands: tuple[Demand, ...], ways: int, most: int) -> float | None:
    """Try every handful of switches, each order; the first price at which all have a port fast enough."""
    best = None
    for count in range(1, most + 1):
        for combo in itertools.combinations_with_replacement(SOLD, count):
            price = sum(m.price for m in combo)
            if best is not None and price >= best:
                continue
            for order in set(itertools.permutations(combo)):
                if _serves(order, demands, ways):
                    best = price
                    break
    return best


def _serves(models: tuple[SwitchModel, ...], demands: tuple[Demand, ...], ways: int) -> bool:
    """Ports one by one: each way and each link gets one, by trying them all."""
    ports = [(k, g) for k, m in enumerate(models) for g in m.groups for _ in range(g.count)]
    wanted: list[int | Demand] = [0] * (ways + len(models) - 1) + list(range(1, len(models))) + list(demands)
    watts = [m.budget_w for m in models]

    def put_in(number: int, free: tuple[int, ...], left: tuple[float, ...]) -> bool:
        if number == len(wanted):
            return True
        one, tried = wanted[number], set()
        for place in free:
            k, group = ports[place]
            if (k, id(group)) in tried:
                continue
            tried.add((k, id(group)))
            rest = list(left)
            if isinstance(one, int):
                if k != one:
                    continue
            else:
                if group.cage or group.speed_mbps < one.speed_mbps or (one.vlans and not models[k].managed):
                    continue
                if one.poe_class is not None:
                    if group.poe_class is None or group.poe_class < one.poe_class or rest[k] < one.class_w:
                        continue
                    rest[k] -= one.class_w
            if put_in(number + 1, tuple(f for f in free if f != place), tuple(rest)):
                return True
        return False

    if sum(isinstance(w, Demand) for w in wanted) + ways + 2 * (len(models) - 1) > len(ports):
        return False
    return put_in(0, tuple(range(len(ports))), tuple(watts))


@examples(40)
@given(st.data())
def test_no_choice_is_cheaper(data: st.DataObject) -> None:
    kinds = [
        Demand("", "", 1000),
        Demand("", "", 1000, 3, 10.0, 15.4),
        Demand("", "", 1000, 4, 20.0, 30.0, vlans=True),
        Demand("", "", 2500, 3, 10.0, 15.4),
        Demand("", "", 1000, vlans=True),
    ]
    rows = data.draw(st.lists(st.sampled_from(kinds), min_size=1, max_size=5))
    demands = tuple(
        Demand(f"d{k}", "", d.speed_mbps, d.poe_class, d.port_w, d.class_w, d.vlans)
        for k, d in enumerate(rows)
    )
    ways = data.draw(st.integers(1, 2))
    found = choose(demands, SOLD, (), ways, NOTHING, most=3)
    plain = _plain(demands, ways, 3)
    assert (found is None) == (plain is None)
    if found is not None:
        assert found.proven and found.slower == 0
        assert found.price == found.bound == plain
        assert _serves(found.models, demands, ways) or any(
            _serves(order, demands, ways) for order in itertools.permutations(found.models)
        )


@examples(30)
@given(st.integers(1, 40), st.floats(0, 0.5), st.floats(0, 0.4), st.integers(0, 5))
def test_what_is_kept_free_is_free(count: int, ports_share: float, watts_share: float, below: int) -> None:
    """With the shipped switches: all links find a port as they are really given, and what was to be kept
    free is."""
    demands = tuple(
        Demand(f"d{k}", "", 1000, *((3, 9.0, 15.4) if k % 3 else (None, 0.0, 0.0)), device=f"d{k}")
        for k in range(count)
    )
    found = choose(demands, CATALOGUE.sold_switches, (), below + 1, KeptFree(ports_share, watts_share))
    assert found is not None
    shelves = tuple(Shelf(f"s{k}", "", m) for k, m in enumerate(found.models))
    kept = uplinks(shelves)
    given_out = assign(demands, shelves, (), kept)
    assert not given_out.left
    copper = sum(m.copper_ports for m in found.models)
    assert copper - count >= math.ceil(ports_share * count - 1e-9)
    drawn = (
        sum(15.4 if found_.allocates == "class" else 9.0 for found_ in found.models[:1]) if count > 3 else 0
    )
    assert drawn >= 0
    assert found.bound <= found.price


def test_what_stays_costs_nothing_and_is_used() -> None:
    old = CATALOGUE.switches["old-switch-1000"]
    demands = tuple(Demand(f"d{k}", "", 1000) for k in range(6))
    found = choose(demands, CATALOGUE.sold_switches, (old,), 1, NOTHING)
    assert found == Chosen((old,), 0.0, 0, 0.0, True)
    more = tuple(Demand(f"e{k}", "", 1000, vlans=True) for k in range(2))
    both = choose((*demands, *more), CATALOGUE.sold_switches, (old,), 1, NOTHING)
    assert both is not None and both.models[0] is old and len(both.models) == 2
    assert both.price == min(m.price for m in CATALOGUE.sold_switches if m.managed)


def test_nothing_serves_ten_thousand_links() -> None:
    demands = tuple(Demand(f"d{k}", "", 1000) for k in range(1000))
    assert choose(demands, CATALOGUE.sold_switches, (), 1, NOTHING) is None


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_taken_every_rack_has_ports_at_the_price_said(key: str) -> None:
    design = next(s for s in SITES if s.key == key).make()
    plan = Plan(design, CATALOGUE)
    before = order_of(plan).sum.total
    answer = switch_choices(plan, lambda *_: True)
    assert answer.choices[0].name == "As planned" and not answer.without
    for choice in answer.choices[1:]:
        after = apply(design, choice.changes)
        check(after, CATALOGUE)
        other = Plan(after, CATALOGUE)
        power = evaluate(other, wait=True).power
        assert not power.left and choice.left == 0
        assert choice.extra == pytest.approx(order_of(other).sum.total - before, abs=0.011)
        bought = [CATALOGUE.switches[s.model] for s in after.of(Switch).values() if s.state == "new"]
        assert choice.price == pytest.approx(sum(m.price for m in bought))
        assert all(s.counted_w <= s.usable_w + 0.15 for s in power.switches)
        assert [sum(map(_many, r.switches)) for r in choice.racks] == [
            sum(s.equipment_room == r.room and s.state in ("new", "keep") for s in after.of(Switch).values())
            for r in choice.racks
        ]


def _many(said: str) -> int:
    first, _, rest = said.partition(" × ")
    return int(first) if rest else 1


def test_what_comes_later_is_bought_for_and_pins_of_what_goes_are_taken_away() -> None:
    square = ((10.0, 5.0), (14.0, 5.0), (14.0, 9.0), (10.0, 9.0))
    zone = Zone(id="z", floor="f", kind="later", name="Wing", outline=square, access_points=8, outlets=6)
    switches = [
        Switch(id=f"s{k}", equipment_room="rack", name=f"S{k}", model="dunthrip-m24") for k in range(3)
    ]
    pin = PortPin(id="p", switch="s2", port=1, device="ap-1")
    base = design_of(*shell(), rack(1, 1), access_point(9, 9), *switches, zone, pin)
    answer = switch_choices(Plan(base, CATALOGUE), lambda *_: True)
    today, later = answer.choices[1], answer.choices[2]
    assert (today.racks[0].links, later.racks[0].links) == (1, 15)
    assert today.price < later.price and later.ports_free >= 14
    after = apply(base, today.changes)
    check(after, CATALOGUE)
    assert len(after.of(Switch)) == 1 and not [p for p in after.of(PortPin).values() if p.switch == "s2"]
    again = apply(after, [put(zone.model_copy(update={"access_points": 0, "outlets": 0}))])
    assert len(switch_choices(Plan(again, CATALOGUE), lambda *_: True).choices[1:]) >= 1
