"""What a screen shows of a plan at once: its evaluation and what the client pays."""

from __future__ import annotations

import logging

from pydantic import Field

from ..base.frozen import Frozen
from ..context.plan import Plan
from ..evaluation.evaluate import FRESH_SECONDS, Evaluation, evaluate
from .bill_of_materials import order_of

log = logging.getLogger(__name__)


class Price(Frozen):
    """The sum of the order, in the site's currency."""

    total: float = Field(description="what the client pays, with tax")
    net: float = Field(description="the same without tax")
    parts: float = Field(description="parts with the margin, without tax")
    hours: float = Field(description="work of all who do it together, h")
    boxes: int = Field(description="boxes and reels of copper to buy")


class Shown(Evaluation):
    """An evaluation with its price; none where the order could not be worked out."""

    price: Price | None


def shown(plan: Plan) -> Shown:
    """Return what a screen shows of a plan."""

    def stands(kept: Shown, age_s: float) -> bool:
        return not kept.searching or age_s < FRESH_SECONDS

    def work_out() -> Shown:
        evaluation = evaluate(plan)
        fields = {name: getattr(evaluation, name) for name in Evaluation.model_fields}
        return Shown.model_construct(**fields, price=_price(plan))

    return plan.answer("shown", work_out, stands)


def _price(plan: Plan) -> Price | None:
    try:
        order = order_of(plan)
    except Exception:  # the evaluation says what failed; all else stands
        log.exception("the order could not be worked out")
        return None
    total = order.sum
    return Price(
        total=total.total,
        net=total.net,
        parts=total.parts,
        hours=round(total.minutes / 60, 1),
        boxes=order.boxes,
    )
