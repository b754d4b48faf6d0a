"""A plan made whole: switches for whatever was left without a port or power, each really tried."""

from __future__ import annotations

from ..catalogue import Prices
from ..context.plan import Plan
from ..design import Change
from ..evaluation.evaluate import evaluate

_TURNS = 6


def with_ports(plan: Plan) -> tuple[list[Change], Plan]:
    """Return the changes that give a port and power to all that a plan leaves without, rack by
    rack the cheapest by the firm's prices, and the plan with them; what no rack can be mended for
    stays as it is."""
    changes: list[Change] = []
    now = plan
    for _ in range(_TURNS):
        power = evaluate(now).power
        if not power.left:
            break
        options = [
            (sum(_price(plan.priced, c) for c in cure.changes), list(cure.changes))
            for cures in power.cures.values()
            for cure in cures
            if not any(change.kind == "device" for change in cure.changes)  # nothing is made to do less
        ]
        if not options:
            break
        tried = []
        for price, taken in sorted(options, key=lambda row: row[0]):
            after = now.after(taken)
            left = len(evaluate(after).power.left)
            if left < len(power.left):
                tried.append((left, price, taken, after))
        if not tried:
            break
        _, _, taken, now = min(tried, key=lambda row: (row[0], row[1]))
        changes += taken
    return changes, now


def _price(prices: Prices, change: Change) -> float:
    element = getattr(change, "element", None) or {}
    model = element.get("model") if isinstance(element, dict) else getattr(element, "model", None)
    return prices.each(str(model)) if model in prices.items else 0.0
