"""What is put down at a rack stands in it: a cord, a port, units; no run, no jack, no label."""

from __future__ import annotations

import math

from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, Switch
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.labels import project_labels
from heathrise.core.views.work_list import steps_of

from ..thorough import examples
from .plans import design_of, rack, shell


def _yard(at: tuple[float, float], kind: str, cameras: int = 2) -> Design:
    model = {"recorder": "recorder", "storage": "corrowby-store-4"}[kind]
    camera = {"kind": "camera", "model": "peltwick-turret", "height_m": 2.5, "mount": "wall", "floor": "f"}
    return design_of(
        *shell(),
        rack(2, 2),
        Switch(id="sw", equipment_room="rack", name="SW-1", model="dunthrip-s16"),
        Device.model_validate(
            {"id": "box", "floor": "f", "kind": kind, "name": "Box", "model": model, "at": at}
            | {"height_m": 0.8, "mount": "desk"}
        ),
        *(
            Device.model_validate({**camera, "id": f"cam-{k}", "name": f"CAM-{k}", "at": (12.0, 3.0 + k)})
            for k in range(cameras)
        ),
    )


@examples(12)
@given(st.floats(0, 6), st.floats(0, 6.2), st.sampled_from(["recorder", "storage"]))
def test_near_the_rack_it_stands_in_it_and_farther_it_has_a_run(away: float, turn: float, kind: str) -> None:
    at = (2 + away * math.cos(turn), 2 + away * math.sin(turn))
    if not (0.2 < at[0] < 19.8 and 0.2 < at[1] < 19.8) or abs(away - 1.5) < 0.6:
        return
    plan = Plan(_yard(at, kind), load_catalogue())
    found = evaluate(plan)
    inside = away < 1.5
    assert any(r.device == "box" for r in found.cable.runs) is not inside
    assert any(t.element == "box" for t in found.racks.things) is inside
    assert any(label.link == "run-box" for label in project_labels(plan)) is not inside
    port = next(p for p in found.power.ports if p.device == "box")  # either way it has a port
    assert any(c.device == "box" for c in found.chains.chains)
    cords = [c for c in found.racks.cords if c.to_thing == f"switch:{port.switch}" and c.to_port == port.port]
    assert len(cords) <= 1 and (cords[0].from_thing.endswith(":box") if inside else True)
    assert ("pull-run-box" in {s.id for s in steps_of(plan)}) is not inside


def test_by_hand_it_takes_one_cord_and_no_cable() -> None:
    inside, outside = (Plan(_yard(at, "recorder"), load_catalogue()) for at in ((2.5, 2.0), (9.0, 9.0)))
    take = [{k.item: k.quantity for k in order_of(p).lines} for p in (inside, outside)]
    assert take[0]["recorder"] == take[1]["recorder"] == 1 and take[0]["disk-6tb"] == take[1]["disk-6tb"]
    assert take[1]["label"] - take[0]["label"] == 2
    spared = sum(take[1].get(i, 0) - take[0].get(i, 0) for i in ("plug", "jack"))
    assert spared >= 2
    thing = next(t for t in evaluate(inside).racks.things if t.element == "box")
    disks = take[0]["disk-6tb"]
    assert (
        thing.kind == "recorder" and thing.watts == 22 + 6 * disks and thing.kg == round(5.5 + 0.7 * disks, 2)
    )
