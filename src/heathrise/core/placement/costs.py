"""What an access point costs installed, place by place: itself, its run, its port and its watts."""

from __future__ import annotations

from collections.abc import Sequence

from ..cabling import RunVerdict, judge_runs
from ..catalogue import Catalogue, Rules
from ..context.plan import Plan
from ..design import Device, apply, put
from ..evaluation.evaluate import evaluate
from ..install import mount_minutes
from .cover import Priced

_CENTS = 100
_AWAY_M = 500.0  # what no cable reaches is as dear as a run that nobody would pull
_OF_ITS_OWN = ("drop", "stub")  # beyond these a run lies beside others


def place_cents(plan: Plan, places: Sequence[Device]) -> list[int]:
    """Return what it costs to hang an access point at each place and to run its cables, in cents;
    the thing itself is bought in packs.

    The run's trunk is counted as one that is pulled beside others, its last metres in full.
    """
    catalogue, prices = plan.catalogue, plan.priced
    there = apply(plan.design, [put(p) for p in places])
    runs = {p.id: judge_runs(there, catalogue, only=p)[0] for p in places}
    rules = catalogue.rules
    minute = rules["order.rate_per_hour"] / 60
    margin = 1 + rules["order.margin_share"]
    found = []
    for place in places:
        run = runs[place.id]
        metre = prices.cable_metre(run.category, run.jacket)
        if run.verdict == "no_way":
            metres, minutes = _AWAY_M * run.cables, _AWAY_M
        else:
            metres, minutes = run.bought_m * run.cables, _minutes(rules, run)
        minutes += _handling(rules, place, catalogue, run.cables)
        found.append(round(_CENTS * (margin * metres * metre + minute * minutes)))
    return found


def air_cents(plan: Plan, places: Sequence[Device]) -> list[int]:
    """Return what it costs to hang an access point at each place without a cable, in cents: its
    hours and what feeds it from a socket; the thing itself is bought in packs."""
    catalogue, prices, rules = plan.catalogue, plan.priced, plan.rules
    minute, margin = rules["order.rate_per_hour"] / 60, 1 + rules["order.margin_share"]
    found = []
    for place in places:
        power = catalogue.model_of(place).power
        feed = catalogue.injector_for(power.poe_class, 0) if power is not None else None
        bought = margin * prices.each(feed.id) if feed is not None else 0.0
        found.append(round(_CENTS * (bought + minute * _handling(rules, place, catalogue, 0))))
    return found


def _minutes(rules: Rules, run: RunVerdict) -> float:
    rates, beside = rules.table("order.pull_minutes"), rules["order.pulled_beside_share"]
    total = 0.0
    for leg in run.legs:
        share = 1.0 if leg.kind in _OF_ITS_OWN else beside
        rate = rates.get(leg.kind, rates["ceiling_void"])
        total += leg.length_m * rate * (share + beside * (run.cables - 1))
    return total


def _handling(rules: Rules, place: Device, catalogue: Catalogue, cables: int) -> float:
    """Return the minutes to mount it, to end, dress and test its cables, and to adopt it."""
    each = 2 * rules["order.end_minutes"] + rules["order.test_minutes"]
    each += rules["order.dress_minutes"]
    hung = mount_minutes(rules, place.kind, catalogue.model_of(place).outdoor)
    return hung + cables * each + rules["order.adopt_minutes"]


def priced(plan: Plan, places: Sequence[Device], given_back: Sequence[Device]) -> Priced:
    """Return what is paid beyond each place's own price.

    Args:
        given_back: access points whose ports and watts become free.
    """
    catalogue, rules, prices, evaluation = plan.catalogue, plan.rules, plan.priced, evaluate(plan)
    margin = 1 + rules["order.margin_share"]
    models: dict[str, list[int]] = {}
    for k, place in enumerate(places):
        models.setdefault(place.model, []).append(k)
    packs = tuple(
        (tuple(rows), tuple((p.count, round(_CENTS * margin * p.price)) for p in prices.packs(m)))
        for m, rows in models.items()
    )
    back = {d.id for d in given_back}
    fed = [d for d in evaluation.power.devices if d.device in back and d.source != "none"]
    switches = evaluation.power.switches
    free_w = sum(s.usable_w - s.reserved_w for s in switches) + sum(d.reserved_w for d in fed)
    ports = sum(s.powered_ports - s.powered_used for s in switches) + len(fed)
    sold = [m for m in catalogue.sold_switches if m.powered_ports and m.managed]
    more_switch = min(sold, key=lambda m: prices.each(m.id) / m.powered_ports)
    return Priced(
        packs=packs,
        free_ports=ports,
        free_w=max(0.0, free_w),
        watts=tuple(_reserved_w(catalogue, p) for p in places),
        switch=(
            more_switch.powered_ports,
            more_switch.budget_w,
            round(_CENTS * margin * prices.each(more_switch.id)),
        ),
    )


def _reserved_w(catalogue: Catalogue, place: Device) -> float:
    power = catalogue.model_of(place).power
    return catalogue.rules.poe_classes[power.poe_class].reserved_w if power is not None else 0.0
