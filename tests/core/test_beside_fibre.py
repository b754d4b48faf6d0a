"""Copper beside the fibre of a building: pulled, labelled, terminated and tested at both ends; no way up."""

from __future__ import annotations

import pytest
from hypothesis import given

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, EquipmentRoom, OwnFigure, Switch, Uplink
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.acceptance import planned_cables
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.labels import project_labels
from heathrise.core.views.work_list import steps_of

from ..thorough import examples
from .plans import access_point, design_of, rack, shell
from .sites import sites


def _plan(medium: str = "fibre", wide: float = 20, own: float | None = None) -> Plan:
    far = EquipmentRoom(id="far", floor="f", name="Far", at=(wide - 2, 18))
    switches = [
        Switch(id=f"sw-{k}", equipment_room=room, name=f"SW-{k}", model="dunthrip-s16")
        for k, room in ((1, "rack"), (2, "far"))
    ]
    up = Uplink.model_validate({"id": "up", "room": "far", "to": "rack", "medium": medium})
    figure = [OwnFigure(id="own", figure="cabling.beside_fibre", value=own)] if own is not None else []
    points = [access_point(wide - 4, 16, "ap-1"), access_point(4, 4, "ap-2")]
    rows = [*shell(width=wide), rack(2, 2), far, up, *switches, *points, *figure]
    return Plan(design_of(*rows), load_catalogue())


def test_by_hand_four_cables_go_with_it() -> None:
    plan = _plan()
    found = evaluate(plan)
    (beside,) = found.cable.beside
    (up,) = found.cable.uplinks
    assert up.medium == "fibre" and beside.medium == "copper" and beside.cables == 4
    assert (beside.fixed_m, beside.room, beside.to_room) == (up.fixed_m, "far", "rack")
    with_it, without = ({k.item: k.quantity for k in order_of(p).lines} for p in (plan, _plan(own=0)))
    ends = sum(with_it.get(i, 0) - without.get(i, 0) for i in ("plug", "jack"))
    assert ends >= 8 and with_it["label"] - without["label"] == 8
    assert len([x for x in project_labels(plan) if x.link == beside.id]) == 4
    assert len([c for c in planned_cables(plan) if c.device == beside.id]) == 4
    steps = {s.id for s in steps_of(plan)}
    assert {f"{what}-{beside.id}" for what in ("pull", "far", "near", "test")} <= steps
    # The way up stays the fibre: no port is kept for the copper, no cord joins it.
    assert {w.medium for w in found.power.ways_up if w.to is not None} == {"fibre"}


@pytest.mark.parametrize(
    "plan", [_plan("copper"), _plan(wide=130), _plan(own=0)], ids=["copper", "far", "none"]
)
def test_not_beside_copper_not_too_far_not_where_the_firm_wants_none(plan: Plan) -> None:
    assert not evaluate(plan).cable.beside


@examples(15)
@given(sites(6))
def test_on_random_sites_only_beside_fibre_that_stays_inside(design: Design) -> None:
    cable = evaluate(Plan(design, load_catalogue())).cable
    wanted = {
        u.room
        for u in cable.uplinks
        if u.medium == "fibre" and u.verdict != "no_way" and not u.leaves and u.fixed_m <= 90
    }
    assert {b.room for b in cable.beside} <= wanted
    assert all(b.verdict in ("met", "near") and b.cables == 4 for b in cable.beside)
