"""A plan made whole: switches for whatever was left without a port or power, each really tried."""

from __future__ import annotations

from collections.abc import Mapping

from ..catalogue import Catalogue
from ..design import Change, Design, apply
from ..evaluation.evaluate import Evaluation, evaluate
from ..order import FirmPrice, Prices, items_of

_TURNS = 6


def with_ports(
    drawn: Design, catalogue: Catalogue, firm: Mapping[str, FirmPrice]
) -> tuple[list[Change], Evaluation]:
    """Return the changes that give a port and power to all that a plan leaves without, rack by
    rack the cheapest by the firm's prices, and the evaluation with them; what no rack can be mended
    for stays as it is."""
    changes: list[Change] = []
    now, result = drawn, evaluate(drawn, catalogue, "figures")
    prices = Prices(items_of(catalogue), firm)
    for _ in range(_TURNS):
        if not result.power.left:
            break
        options = [
            (sum(_price(prices, c) for c in cure.changes), list(cure.changes))
            for cures in result.power.cures.values()
            for cure in cures
        ]
        if not options:
            break
        tried = []
        for price, taken in sorted(options, key=lambda row: row[0]):
            after = apply(now, taken)
            worked = evaluate(after, catalogue, "figures")
            if len(worked.power.left) < len(result.power.left):
                tried.append((len(worked.power.left), price, taken, after, worked))
        if not tried:
            break
        _, _, taken, now, result = min(tried, key=lambda row: (row[0], row[1]))
        changes += taken
    return changes, result


def _price(prices: Prices, change: Change) -> float:
    element = getattr(change, "element", None) or {}
    model = element.get("model") if isinstance(element, dict) else getattr(element, "model", None)
    return prices.each(str(model)) if model in prices.items else 0.0
