"""One price: what the foot of the screen says is the sum of the order, under the firm's prices."""

from __future__ import annotations

import random
from datetime import date

import pytest
from hypothesis import given

from bench.random_designs import random_design
from heathrise.core.catalogue import FirmPrice, load_catalogue, priced_items
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, put
from heathrise.core.order import Order
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.shown import shown
from heathrise.demo import SITES

from ..thorough import examples
from .sites import sites

CATALOGUE = load_catalogue()
ON = date(2026, 11, 29)


def by_hand(order: Order) -> float:
    """Slow and plain: line by line, hour by hour, day by day, in whole cents, halves up."""
    rules = CATALOGUE.rules
    hours = sum(t.minutes for t in order.tasks) / 60
    days = sum(t.quantity for t in order.tasks if t.task == "clean")
    cents = [int(line.price * (1 + rules["order.margin_share"]) * 100 + 0.5 + 1e-6) for line in order.lines]
    cents.append(int(hours * rules["order.rate_per_hour"] * 100 + 0.5 + 1e-6))
    cents.append(int(days * rules["order.travel_per_visit"] * 100 + 0.5 + 1e-6))
    net = sum(cents)
    return (net + int(net * rules["order.tax_share"] + 0.5 + 1e-6)) / 100


def agree(plan: Plan) -> None:
    order, seen = order_of(plan), shown(plan)
    assert seen.price is not None
    assert seen.price.total == order.sum.total and seen.price.net == order.sum.net
    assert seen.price.boxes == sum(k.quantity for k in order.lines if k.unit in ("box", "reel"))
    # Of hours a tenth of a minute is rounded once for all and once for each: a cent or two apart.
    assert seen.price.total == pytest.approx(by_hand(order), abs=0.05)


@pytest.mark.parametrize("key", [s.key for s in SITES])
@pytest.mark.parametrize("quick", [False, True])
def test_foot_and_order_agree_on_the_demo_sites(key: str, quick: bool) -> None:
    agree(Plan(next(s for s in SITES if s.key == key).make(), CATALOGUE, on=ON, quick=quick))


@examples(30)
@given(sites())
def test_foot_and_order_agree_on_any_site(design: Design) -> None:
    agree(Plan(design, CATALOGUE, on=ON, quick=True))


def test_foot_and_order_agree_on_edited_sites() -> None:
    chance = random.Random(29)
    for _ in range(8):
        agree(Plan(random_design(chance, CATALOGUE), CATALOGUE, on=ON, quick=True))


def test_prices_twice_as_high_are_parts_twice_as_dear() -> None:
    mill = next(s for s in SITES if s.key == "mill").make()
    twice = {k: FirmPrice(2 * item.price, ON) for k, item in priced_items(CATALOGUE).items()}
    base, dear = (shown(Plan(mill, CATALOGUE, prices, ON)).price for prices in ({}, twice))
    assert base is not None and dear is not None
    assert dear.parts == pytest.approx(2 * base.parts, abs=0.01 * 60)
    assert dear.total - base.total == pytest.approx(1.2 * base.parts, abs=1)


def test_what_is_dragged_away_is_cheaper_at_once() -> None:
    """A point taken up again costs its cable less: the foot's difference is that of two orders."""
    plan = Plan(next(s for s in SITES if s.key == "school").make(), CATALOGUE, on=ON)
    device = next(d for d in plan.design.of(Device).values() if d.model in CATALOGUE.airs)
    there = device.model_copy(update={"at": (device.at[0] + 4, device.at[1])})
    after = plan.after([put(there)]).hastily()
    was, now = shown(plan).price, shown(after).price
    assert was is not None and now is not None and was.total != now.total
    assert now.total - was.total == pytest.approx(order_of(after).sum.total - order_of(plan).sum.total)
