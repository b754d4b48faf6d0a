"""What another category costs, against orders of the same job drawn with that category."""

from __future__ import annotations

import pytest
from hypothesis import given

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Site, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.category_steps import category_steps

from ..thorough import examples
from .sites import sites


@examples(4)
@given(sites())
def test_a_step_costs_what_the_two_orders_differ_by(design: Design) -> None:
    catalogue = load_catalogue()
    site = design.of(Site)["site"]
    totals, bought, failing = {}, {}, {}
    for category in ("5e", "6", "6A"):
        other = Plan(apply(design, [put(site.model_copy(update={"minimum_category": category}))]), catalogue)
        order = order_of(other)
        totals[category] = order.sum.total
        bought[category] = sum(
            k.price for k in order.lines if k.item.startswith(("cable-", "fibre-", "optic-"))
        )
        failing[category] = sum(
            r.verdict in ("not_met", "test_first", "no_way") for r in evaluate(other).runs
        )
    found = category_steps(Plan(design, catalogue))
    assert [s.category for s in found.steps] == ["5e", "6", "6A"]
    now = site.minimum_category
    for step in found.steps:
        assert step.now == (step.category == now)
        assert step.price == pytest.approx(totals[step.category] - totals[now], abs=0.011)
        assert step.cable_price == pytest.approx(bought[step.category] - bought[now], abs=0.011)
        assert step.failing == failing[step.category]
    assert not next(s for s in found.steps if s.now).price
