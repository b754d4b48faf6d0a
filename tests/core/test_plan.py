"""A plan as a value: what is in scope, whose figures and prices hold, and each question answered once."""

from __future__ import annotations

import threading
import time
from concurrent.futures import ThreadPoolExecutor
from datetime import date

import pytest
from hypothesis import given

from heathrise.core.catalogue import Catalogue, FirmPrice, load_catalogue
from heathrise.core.context.effective_rules import in_force
from heathrise.core.context.plan import Plan, answered
from heathrise.core.context.scope import as_planned, as_today
from heathrise.core.design import Design, Device, OwnFigure, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.laid_links import links_of
from heathrise.core.views.work_list import steps_of
from heathrise.demo import SITES

from ..thorough import examples
from .plans import access_point, design_of, rack, shell
from .sites import sites

CATALOGUE = load_catalogue()


@examples(40)
@given(sites())
def test_scope_and_figures_are_those_of_the_drawing(design: Design) -> None:
    """Slow and plain: what is retired is looked for by hand, the catalogue asked for by hand."""
    old = [d.model_copy(update={"state": "retire"}) for d in list(design.of(Device).values())[:1]]
    own = OwnFigure(id="own", figure="order.rate_per_hour", value=71.0)
    plan = Plan(apply(design, [*map(put, old), put(own)]), CATALOGUE)
    gone = {d.id for d in plan.drawn.of(Device).values() if d.state not in ("new", "keep")}
    assert set(plan.design.of(Device)) == set(plan.drawn.of(Device)) - gone
    assert plan.design.tables == as_planned(plan.drawn).tables
    assert plan.rules["order.rate_per_hour"] == 71.0
    assert plan.catalogue is in_force(plan.drawn, CATALOGUE)
    assert plan.as_it_is().design.tables == as_today(plan.drawn).tables


def test_a_day_is_counted_by_the_project_s_own_minutes() -> None:
    """The firm's 450 minutes a day, the project's 300: more days on site."""
    design = next(s for s in SITES if s.key == "school").make()
    own = OwnFigure(id="own", figure="order.day_minutes", value=300.0)
    plain, short = Plan(design, CATALOGUE), Plan(apply(design, [put(own)]), CATALOGUE)
    assert short.rules["order.day_minutes"] == 300
    assert order_of(short).sum.days > order_of(plain).sum.days


def test_a_plan_after_changes_keeps_prices_and_day_and_shares_nothing() -> None:
    prices = {"ravelmoor-c4": FirmPrice(1.0, date(2026, 1, 1))}
    plan = Plan(design_of(*shell(), rack(1, 1)), CATALOGUE, prices, date(2026, 2, 3), shared=True)
    after = plan.after([put(access_point(4, 4))])
    assert (after.shelf, after.prices, after.on) == (plan.shelf, prices, date(2026, 2, 3))
    assert "ap-1" in after.design.of(Device) and "ap-1" not in plan.design.of(Device)
    assert not after.shared and plan.after([]) is plan
    assert after.priced.each("ravelmoor-c4") == 1.0


def test_each_question_is_answered_once_for_all_who_ask() -> None:
    asked: list[int] = []

    @answered
    def counted(plan: Plan) -> object:
        asked.append(len(plan.design.of(Device)))
        time.sleep(0.05)
        return object()

    design = design_of(*shell(), access_point(4, 4))
    with ThreadPoolExecutor(8) as pool:
        # Each asks a plan of its own of the same revision.
        found = set(pool.map(lambda _: counted(Plan(design, CATALOGUE, shared=True)), range(8)))
    assert len(found) == 1 and asked == [1]
    alone = Plan(design, CATALOGUE)
    assert counted(alone) is counted(alone) and len(asked) == 2
    assert counted(Plan(design, CATALOGUE)) is not counted(alone)
    assert counted(alone.as_it_is()) is not counted(alone)


def test_an_answer_that_fails_is_asked_for_again_by_each_who_waits() -> None:
    plan = Plan(design_of(*shell()), CATALOGUE, shared=True)
    tried: list[int] = []

    def fails() -> None:
        tried.append(1)
        raise ZeroDivisionError

    for _ in range(2):
        with pytest.raises(ZeroDivisionError):
            plan.answer("fails", fails)
    assert len(tried) == 2 and plan.answer("fails", lambda: 7) == 7


def test_an_answer_stands_as_long_as_it_is_said_to() -> None:
    plan, made = Plan(design_of(*shell()), CATALOGUE, shared=True), iter(range(9))

    def ask(stands: bool) -> int:
        return plan.answer("aged", lambda: next(made), lambda _value, _age_s: stands)

    assert [ask(True), ask(True), ask(False), ask(True)] == [0, 0, 1, 1]


def test_who_waits_for_the_channels_is_not_given_what_is_still_searched_for(catalogue: Catalogue) -> None:
    points = [access_point(3 + 6 * k, 5, f"ap-{k}") for k in range(9)]
    plan = Plan(design_of(*shell(60, 10), *points), catalogue, shared=True)
    quick: list[bool] = []
    reader = threading.Thread(target=lambda: quick.append(evaluate(plan).searching))
    reader.start()
    assert not evaluate(plan, wait=True).searching
    reader.join()
    assert len(quick) == 1 and not evaluate(plan).searching


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_order_list_and_links_rest_on_one_evaluation(key: str) -> None:
    plan = Plan(next(s for s in SITES if s.key == key).make(), CATALOGUE)
    links, steps, order = links_of(plan), steps_of(plan), order_of(plan)
    assert links_of(plan) is links and steps_of(plan) is steps and order_of(plan) is order
    assert evaluate(plan) is evaluate(plan)
    assert order.sum.minutes == pytest.approx(sum(w.person_minutes for s in steps for w in s.work), abs=0.2)
