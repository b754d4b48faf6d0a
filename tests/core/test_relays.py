"""Boxes that begin the hundred metres anew for several: each piece a run, watts shared, one network."""

from __future__ import annotations

import math
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, Network, Run, Switch
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.power.loop import feed_over_run
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.labels import project_labels
from heathrise.core.views.pull_list import pull_list
from heathrise.core.views.work_list import steps_of

from ..thorough import examples
from .plans import access_point, design_of, rack, shell

CATALOGUE = load_catalogue()


def _box(x: float, model: str = "peltwick-x2", key: str = "ext") -> Device:
    where = {"floor": "f", "kind": "relay", "at": (x, 10.0), "height_m": 2.4, "mount": "wall"}
    return Device.model_validate({"id": key, "name": key.upper(), "model": model, **where})


def _camera(x: float, key: str) -> Device:
    where = {"floor": "f", "kind": "camera", "at": (x, 8.0), "height_m": 2.5, "mount": "wall"}
    return Device.model_validate({"id": key, "name": key.upper(), "model": "peltwick-turret", **where})


def _at(guest: str, host: str = "ext") -> Run:
    return Run(id=f"r-{guest}", device=guest, through=host)


def _hall(*more: object, wide: float = 190.0) -> Design:
    return design_of(
        *shell(width=wide),
        rack(2, 10),
        Switch(id="sw", equipment_room="rack", name="SW-1", model="dunthrip-s16"),
        *more,  # type: ignore[arg-type]
    )


def test_by_hand_two_cameras_a_hundred_and_fifty_metres_off() -> None:
    design = _hall(_box(72), _camera(140, "cam-1"), _camera(150, "cam-2"), _at("cam-1"), _at("cam-2"))
    plan = Plan(design, CATALOGUE)
    found = evaluate(plan)
    runs = {r.device: r for r in found.runs}
    assert runs["ext"].verdict in ("met", "near") and runs["ext"].room == "rack"
    for key, away in (("cam-1", 68 + 2), ("cam-2", 78 + 2)):  # along the hall and across it
        run = runs[key]
        assert run.begins == "ext" and run.room is None and run.verdict in ("met", "near")
        assert away - 2 < run.horizontal_m < away + 4
    # Watts: each camera over its own piece, both on the box's, all of it at one port of the switch.
    fed = {d.device: d for d in found.power.devices}
    pieces = [
        feed_over_run(
            CATALOGUE.rules.poe_classes[2], 6.2, runs[k].fixed_m + runs[k].cords_m, runs[k].hottest_c
        ).port_w
        for k in ("cam-1", "cam-2")
    ]
    at_box = 4.0 + sum(round(w, 2) for w in pieces)
    run = runs["ext"]
    whole = feed_over_run(CATALOGUE.rules.poe_classes[4], at_box, run.fixed_m + run.cords_m, run.hottest_c)
    assert fed["ext"].port_w == pytest.approx(whole.port_w, abs=0.02)
    assert fed["cam-1"].source.startswith("EXT port")
    (used,) = [p for p in found.power.ports if p.device]
    assert used.device == "ext"
    # Each is bought, pulled, ended at the box and tested.
    lines = {k.item: k.quantity for k in order_of(plan).lines}
    assert lines["peltwick-x2"] == 1
    steps = {s.id: s for s in steps_of(plan)}
    assert "End at the box of CAM-1" in steps["near-run-cam-1"].title
    assert {"pull-run-cam-1", "test-run-cam-2", "mount-ext"} <= set(steps) and "adopt-ext" not in steps
    assert any(p.room_name == "EXT" for p in pull_list(plan).pulls)
    texts = [x.text for x in project_labels(plan) if x.link in ("run-cam-1", "run-cam-2")]
    assert len(set(texts)) == 2 and lines["label"] == 2 * 3
    chain = next(c for c in found.chains.chains if c.device == "cam-2")
    assert [k.kind for k in chain.links].count("cable") == 2


def test_what_comes_in_is_all_that_goes_out() -> None:
    """Two access points of 12.4 W and the box's own want more than class 4 has."""
    points = [access_point(x, 8, key) for x, key in ((120, "ap-1"), (130, "ap-2"))]
    design = _hall(_box(80), *points, _at("ap-1"), _at("ap-2"))
    power = evaluate(Plan(design, CATALOGUE)).power
    box = next(d for d in power.devices if d.device == "ext")
    assert box.verdict == "not_met" and "class 4 has 25.5" in box.wrong
    # The strong box asks for class 6 and gives it.
    strong = _hall(_box(80, "peltwick-x4"), *points, _at("ap-1"), _at("ap-2"))
    boxes = {d.device: d for d in evaluate(Plan(strong, CATALOGUE)).power.devices}
    assert boxes["ext"].poe_class == 6 and not boxes["ext"].wrong


def test_impossible_boxes_say_so() -> None:
    loop = _hall(_box(60), _box(100, key="exu"), _at("ext", "exu"), _at("exu", "ext"))
    plugged = {p.device: p.wrong for p in evaluate(Plan(loop, CATALOGUE)).power.plugged}
    assert all("is plugged into another device itself" in w for w in plugged.values()) and len(plugged) == 2
    three = _hall(
        _box(80), *(_camera(100 + k, f"cam-{k}") for k in range(3)), *(_at(f"cam-{k}") for k in range(3))
    )
    wrong = [p.wrong for p in evaluate(Plan(three, CATALOGUE)).power.plugged if p.wrong]
    assert len(wrong) == 1 and "no port of EXT is left" in wrong[0]
    far = _hall(_box(60), _camera(180, "cam-1"), _at("cam-1"))
    run = next(r for r in evaluate(Plan(far, CATALOGUE)).runs if r.device == "cam-1")
    assert run.verdict == "not_met" and run.fixed_m > 110


def test_several_networks_behind_one_box_are_found_and_one_is_set_at_its_port() -> None:
    nets = [
        Network(id="main", name="Main", purpose="main", vlan=10, subnet="192.168.10.0/24"),
        Network(id="cam", name="Cameras", purpose="cameras", vlan=40, subnet="192.168.40.0/24"),
    ]
    alike = _hall(_box(80), _camera(120, "cam-1"), _at("cam-1"), *nets)
    found = evaluate(Plan(alike, CATALOGUE))
    port = next(p for p in found.settings.ports if p.name == "EXT")  # type: ignore[union-attr]
    assert port.untagged_vlan == 40 and not port.tagged_vlans
    store = {"id": "st", "floor": "f", "kind": "storage", "name": "ST", "model": "corrowby-store-2"}
    other = Device.model_validate({**store, "at": (110.0, 8.0), "height_m": 0.8, "mount": "desk"})
    mixed = _hall(_box(80), _camera(120, "cam-1"), other, _at("cam-1"), _at("st"), *nets)
    told = [f.id for f in evaluate(Plan(mixed, CATALOGUE)).findings]
    assert "settings-box-ext" in told and "settings-box-ext" not in [f.id for f in found.findings]


@examples(10)
@given(st.integers(0, 10_000))
def test_watts_add_up_through_any_box(seed: int) -> None:
    """Whatever hangs on it: its port gives what each piece takes, and no more goes out than comes in."""
    dice = random.Random(seed)
    count = dice.randint(1, 4)
    cams = [_camera(dice.uniform(60, 140), f"cam-{k}") for k in range(count)]
    design = _hall(_box(dice.uniform(30, 90), "peltwick-x4"), *cams, *(_at(c.id) for c in cams))
    found = evaluate(Plan(design, CATALOGUE))
    fed = {d.device: d for d in found.power.devices}
    out = sum(fed[c.id].port_w for c in cams)
    got = fed["ext"].rated_w
    assert got == pytest.approx(5.0 + out, abs=0.02)
    assert fed["ext"].port_w >= got - 1e-9 or fed["ext"].wrong
    for c in cams:
        run = next(r for r in found.runs if r.device == c.id)
        assert run.begins == "ext" and run.fixed_m >= math.dist(c.at, design.of(Device)["ext"].at) - 0.6
