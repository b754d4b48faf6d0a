"""Fibre that ends in a port without a cage: a converter bought, stood in its rack, corded to the port."""

from __future__ import annotations

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import EquipmentRoom, Switch, Uplink
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.bill_of_materials import order_of

from .plans import access_point, design_of, rack, shell


def _plan(*models: str) -> Plan:
    far = EquipmentRoom(id="far", floor="f", name="Far", at=(18, 18))
    switches = [
        Switch(id=f"sw-{k}", equipment_room=room, name=f"SW-{k}", model=model)
        for k, (room, model) in enumerate(zip(("rack", "far"), models, strict=True), start=1)
    ]
    up = Uplink(id="up", room="far", to="rack", medium="fibre")
    points = [access_point(16, 16, "ap-1"), access_point(4, 4, "ap-2")]
    return Plan(design_of(*shell(), rack(2, 2), far, up, *switches, *points), load_catalogue())


def _of(plan: Plan) -> tuple[float, list[str], list[tuple[str, str]]]:
    found = evaluate(plan)
    bought = sum(k.quantity for k in order_of(plan).lines if k.item == "converter")
    stand = sorted(t.room for t in found.racks.things if t.kind == "converter")
    cords = [(c.room, c.to_thing) for c in found.racks.cords if c.from_thing.startswith("converter:")]
    return bought, stand, sorted(cords)


def test_each_end_without_a_cage_has_one() -> None:
    assert _of(_plan("dunthrip-s16", "dunthrip-s6")) == (0, [], [])  # cages at both ends
    assert _of(_plan("dunthrip-s16", "dunthrip-s8")) == (1, ["far"], [("far", "switch:sw-2")])
    both = _of(_plan("dunthrip-s8", "dunthrip-s8"))
    assert both == (2, ["far", "rack"], [("far", "switch:sw-2"), ("rack", "switch:sw-1")])


def test_it_is_plugged_in_and_takes_its_watts_in_the_rack() -> None:
    plan = _plan("dunthrip-s16", "dunthrip-s8")
    found = evaluate(plan)
    (finding,) = [f for f in found.power.findings if f.id.startswith("power-converter")]
    assert "a media converter is planned there" in finding.text
    (thing,) = [t for t in found.racks.things if t.kind == "converter"]
    assert thing.watts == 4 and thing.on.startswith("shelf:")
    cured = plan.after(finding.cures[0].changes)
    assert _of(cured)[0] == 0
