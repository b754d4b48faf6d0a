"""Splitters: a device without power over its cable is fed off it; volts and watts that do not fit are told."""

from __future__ import annotations

import pytest

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, Socket, Switch
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.power.loop import feed_over_run
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.work_list import steps_of

from .plans import design_of, rack, shell

CATALOGUE = load_catalogue()


def _site(splitter: str | None = None, model: str = "quillbeck-hub", kind: str = "sensor_gateway") -> Design:
    hub = {"id": "hub", "floor": "f", "kind": kind, "name": "HUB", "model": model, "at": (16.0, 16.0)}
    pose = {"height_m": 1.8, "mount": "wall", "splitter": splitter}
    return design_of(
        *shell(),
        rack(2, 2),
        Switch(id="sw", equipment_room="rack", name="SW-1", model="dunthrip-s16"),
        Socket(id="s", floor="f", name="Far socket", at=(2.0, 18.0)),
        Device.model_validate({**hub, **pose}),
    )


def test_where_no_socket_is_in_reach_a_splitter_feeds_it() -> None:
    plan = Plan(_site(), CATALOGUE)
    found = next(f for f in evaluate(plan).plan.findings if f.id == "plan-socket-hub")
    cure = found.cures[0]
    assert cure.label == "Feed it off its cable: Peltwick D5 splitter, 5 V" and "class 3" in cure.effect
    after = plan.after(cure.changes)
    seen = evaluate(after)
    assert not [f for f in seen.findings if f.id in ("plan-socket-hub", "power-split-hub")]
    (fed,) = seen.power.devices
    run = seen.cable.runs[0]
    # 4.5 W of the hub and 1.2 W of the splitter itself, over its own run at class 3.
    loop = feed_over_run(CATALOGUE.rules.poe_classes[3], 5.7, run.fixed_m + run.cords_m, run.hottest_c)
    assert fed.poe_class == 3 and fed.port_w == round(loop.port_w, 2) and fed.source.startswith("SW-1")
    lines = {k.item: k.quantity for k in order_of(after).lines}
    assert lines["peltwick-d5"] == 1
    mount = next(s for s in steps_of(after) if s.id == "mount-hub")
    assert "Peltwick D5 splitter, 5 V" in mount.materials


@pytest.mark.parametrize(
    ("splitter", "kind", "model", "severity", "said"),
    [
        ("peltwick-d12", "sensor_gateway", "quillbeck-hub", "not_met", "wants 5 V and would be harmed"),
        ("peltwick-d12", "router", "harrowfen-r4", "not_met", "draws 12 W, the splitter gives 11.5"),
        ("peltwick-d5", "sensor_gateway", "quillbeck-gate", "near", "takes none"),
    ],
)
def test_what_does_not_fit_is_told_and_each_cure_mends(
    splitter: str, kind: str, model: str, severity: str, said: str
) -> None:
    plan = Plan(_site(splitter, model, kind), CATALOGUE)
    found = next(f for f in evaluate(plan).power.findings if f.id == "power-split-hub")
    assert found.severity == severity and said in found.text and found.cures
    for cure in found.cures:
        assert not [f for f in evaluate(plan.after(cure.changes)).findings if f.id == "power-split-hub"]


def test_what_takes_none_is_fed_as_before_and_nothing_is_bought() -> None:
    plain, split = (Plan(_site(s, "quillbeck-gate"), CATALOGUE) for s in (None, "peltwick-d5"))
    assert evaluate(plain).power.devices == evaluate(split).power.devices
    assert "peltwick-d5" not in {k.item for k in order_of(split).lines}
