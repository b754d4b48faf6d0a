"""What another category of cable would cost the job, worked out in the whole plan."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar

from pydantic import Field

from ..base.frozen import Frozen
from ..cabling import GOOD
from ..context.plan import Plan
from ..design import Category, put
from ..evaluation.evaluate import evaluate
from ..order import Order
from .bill_of_materials import proven_order

OFFERED: tuple[Category, ...] = ("5e", "6", "6A")


class CategoryStep(Frozen):
    """The job with a category at least. Money with tax, in the site's currency."""

    KEY: ClassVar = ("category",)

    category: Category
    now: bool = Field(description="whether it is what the job has")
    price: float = Field(description="what the job costs more, with tax")
    cable_price: float = Field(description="what its cable costs more, without margin and tax")
    failing: int = Field(description="runs that do not do then")


class CategorySteps(Frozen):
    """The categories that a job may be cabled with, beside what it has."""

    currency: str
    steps: tuple[CategoryStep, ...] = ()


def category_steps(plan: Plan) -> CategorySteps:
    """Return what each category costs beside the one that the job has. Runs that somebody gave a
    category of their own keep it."""
    return CategorySteps(currency=plan.design.site.currency, steps=tuple(_steps(plan.hastily())))


def _steps(plan: Plan) -> Iterator[CategoryStep]:
    site = plan.drawn.site
    base = proven_order(plan)
    for category in OFFERED:
        now = category == site.minimum_category
        changed = put(site.model_copy(update={"minimum_category": category}))
        other = plan if now else plan.after((changed,))
        order = proven_order(other)
        runs = evaluate(other).runs
        yield CategoryStep(
            category=category,
            now=now,
            price=round(order.sum.total - base.sum.total, 2),
            cable_price=round(_cable(order) - _cable(base), 2),
            failing=sum(r.verdict not in GOOD for r in runs),
        )


def _cable(order: Order) -> float:
    return sum(line.price for line in order.lines if line.group == "cable")
