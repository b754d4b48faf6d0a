"""Fibre between racks: what it loses, which kind that asks for, and what is left of its strands."""

from __future__ import annotations

from collections import Counter

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.cabling.fibre import fibre_sheet, loss_limit_m
from heathrise.core.cabling.uplinks import UplinkVerdict, judge_uplinks
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import EquipmentRoom, OwnFigure, Uplink
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.acceptance import planned_cables
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.work_list import steps_of

from .test_several_rooms import corridor, switch

# What a strand meets from module to module, dB: plugged in, spliced, along, spliced, plugged in.
_KM_DB = {"om4": 3.0, "os2": 0.4}
_BEARS_DB = {("om4", 1000): 3.6, ("om4", 10_000): 2.9, ("os2", 1000): 4.6, ("os2", 10_000): 6.2}
_REACHES_M = {("om4", 1000): 550, ("om4", 10_000): 400, ("os2", 1000): 5000, ("os2", 10_000): 10_000}


def _lost_db(kind: str, length_m: float) -> float:
    met = [0.5, 0.1, *[_KM_DB[kind] / 1000] * int(length_m), 0.1, 0.5]
    return sum(met) + (length_m - int(length_m)) * _KM_DB[kind] / 1000


@given(
    kind=st.sampled_from(["om4", "os2"]),
    speed=st.sampled_from([1000, 10_000]),
    length=st.floats(1, 9000).map(lambda m: round(m, 1)),
)
def test_loss_adds_metre_by_metre(kind: str, speed: int, length: float) -> None:
    catalogue = load_catalogue()
    sheet = fibre_sheet(catalogue, kind, speed, length)
    assert sheet.loss_db == pytest.approx(_lost_db(kind, length), abs=0.006)
    assert sheet.budget_db == _BEARS_DB[kind, speed]
    kept = loss_limit_m(catalogue.rules, kind, speed)
    assert _lost_db(kind, kept) == pytest.approx(_BEARS_DB[kind, speed] - 1, abs=0.01)


def test_by_hand_om4_at_10_gb_s_keeps_its_decibel_to_233_m() -> None:
    # 2.9 less 1 in hand, 2 x 0.5 for plugs, 2 x 0.1 for splices: 0.7 dB at 3 dB a kilometre.
    assert loss_limit_m(load_catalogue().rules, "om4", 10_000) == 233.3


def _way(length_m: float, *more: object) -> UplinkVerdict:
    far = EquipmentRoom(id="east", floor="f", name="East", at=(length_m - 1, 1.5))
    over = Uplink(id="u", room="east", to="rack", medium="fibre")
    return judge_uplinks(corridor(length_m, far, over, *more), load_catalogue())[0]


@given(length=st.floats(10, 700).map(round))
def test_the_kind_is_the_cheapest_that_keeps_its_loss_in_hand(length: int) -> None:
    catalogue = load_catalogue()
    up = _way(length)
    does = [
        k
        for k in ("om4", "os2")
        if up.fixed_m <= _REACHES_M[k, 10_000]
        and round(_lost_db(k, up.fixed_m), 2) + 1 <= _BEARS_DB[k, 10_000]
    ]
    cost = {k: f.price_per_m * up.fixed_m + 2 * f.optic_price for k, f in catalogue.fibres.items()}
    assert up.verdict == "met" and up.category == min(does, key=lambda k: cost[k])
    assert up.fibre is not None and f"loses {up.fibre.loss_db:g} of" in up.reason


def test_what_is_spliced_is_bought_done_and_left() -> None:
    far = EquipmentRoom(id="east", floor="f", name="East", at=(119, 1.5))
    over = Uplink(id="u", room="east", to="rack", medium="fibre")
    six = OwnFigure(id="own", figure="cabling.fibre_spliced", value=6)
    switches = [switch(f"sw-{at}", at, "dunthrip-s16") for at in ("rack", "east")]
    plan = Plan(corridor(120, far, over, six, *switches), load_catalogue())
    (up,) = evaluate(plan).uplinks
    sheet = up.fibre
    assert sheet is not None
    assert (sheet.strands, sheet.used, sheet.free, sheet.dark) == (12, 2, 4, 6)
    lines = order_of(plan).lines  # spares of the firm's own apart
    bought = Counter({k.item: sum(w.quantity for w in k.where if w.id == up.id) for k in lines})
    assert (bought["pigtail"], bought["cord-fibre"]) == (12, 2)
    assert sum(k.quantity for k in lines if k.item == "fibre-box") == 2  # one in each rack
    assert bought[f"optic-{up.category}"] == 2
    work = [w for step in steps_of(plan) for w in step.work if w.task == "splice"]
    assert sum(w.quantity for w in work) == 12 and sum(w.person_minutes for w in work) == pytest.approx(96)
    (planned,) = [c for c in planned_cables(plan) if c.device == up.id]
    assert (planned.expected_db, planned.budget_db) == (sheet.loss_db, sheet.budget_db)
