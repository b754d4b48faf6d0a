"""Ports chosen by hand for ways between switches: followed where they can be, else told; nothing twice."""

from __future__ import annotations

import random

from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, PortPin, Switch, WayPin, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.rack import PowerPlan

from ..thorough import examples
from .plans import access_point, design_of, rack, shell


def _site(*pins: WayPin | PortPin, points: int = 4) -> Design:
    switches = [
        Switch(id=f"sw-{k}", equipment_room="rack", name=f"SW-{k}", model=model)
        for k, model in ((1, "dunthrip-s16"), (2, "dunthrip-s8"))
    ]
    aps = [access_point(3 + 2 * k, 10, f"ap-{k}") for k in range(points)]
    return design_of(*shell(), rack(2, 2), *switches, *aps, *pins)


def _power(design: Design) -> PowerPlan:
    return evaluate(Plan(design, load_catalogue())).power


def _ways(power: PowerPlan) -> dict[tuple[str, str | None], tuple[int, bool]]:
    return {(p.switch, p.uplink_to): (p.port, p.pinned) for p in power.ports if p.uplink}


def test_by_hand_a_way_is_in_the_port_that_was_chosen() -> None:
    plain = _ways(_power(_site()))
    assert plain["sw-1", None][0] in (17, 18) and plain["sw-2", "sw-1"] == (8, False)  # cages, else the last
    power = _power(
        _site(
            WayPin(id="w1", switch="sw-1", port=3, to="sw-1"),
            WayPin(id="w2", switch="sw-2", port=1, to="sw-1"),
        )
    )
    ways = _ways(power)
    assert ways["sw-1", None] == (3, True) and ways["sw-2", "sw-1"] == (1, True)
    assert not power.lost_pins and not power.left
    assert next(w for w in power.ways_up if w.switch == "sw-2").port == 1


def test_what_cannot_be_is_told_with_a_cure_that_takes_it_away() -> None:
    twice = (
        WayPin(id="w1", switch="sw-1", port=2, to="sw-1"),
        WayPin(id="w2", switch="sw-1", port=2, to="sw-2"),
    )
    cases = {
        "another way is there": twice,
        "SW-2 has 8 ports": (WayPin(id="w1", switch="sw-2", port=60, to="sw-1"),),
        "no way leads there from it": (WayPin(id="w1", switch="sw-2", port=2, to="sw-2"),),
    }
    for said, pins in cases.items():
        plan = Plan(_site(*pins), load_catalogue())
        (finding,) = [f for f in evaluate(plan).power.findings if f.id.startswith("power-pin-")]
        assert said in finding.text and finding.places[0].kind == "switch"
        after = plan.after(finding.cures[0].changes)
        assert not evaluate(after).power.lost_pins


def test_a_device_does_not_keep_the_port_of_a_way() -> None:
    pins = (
        WayPin(id="w", switch="sw-1", port=2, to="sw-1"),
        PortPin(id="p", switch="sw-1", port=2, device="ap-0"),
    )
    power = _power(_site(*pins))
    (lost,) = power.lost_pins
    assert lost.device == "ap-0" and "a way to another switch is kept there by hand" in lost.text
    assert _ways(power)["sw-1", None] == (2, True) and not power.left


def _to(pin: dict[str, str]) -> str | None:
    return pin["to"] if pin["to"] != pin["switch"] else None


@examples(20)
@given(st.integers(0, 10_000))
def test_with_any_pins_no_port_is_twice_and_every_way_has_one(seed: int) -> None:
    dice = random.Random(seed)
    design = _site(points=dice.randint(1, 9))
    changes = []
    for k in range(dice.randint(0, 4)):
        switch = dice.choice(["sw-1", "sw-2"])
        to = dice.choice(["sw-1", "sw-2"])
        changes.append(put(WayPin(id=f"w{k}", switch=switch, port=dice.randint(1, 20), to=to)))
    for k in range(dice.randint(0, 3)):
        pin = PortPin(
            id=f"p{k}", switch=dice.choice(["sw-1", "sw-2"]), port=dice.randint(1, 18), device="ap-0"
        )
        changes.append(put(pin))
    power = _power(apply(design, changes))
    assert set(_ways(power)) == {("sw-1", None), ("sw-1", "sw-2"), ("sw-2", "sw-1")}
    for use in power.ports:
        assert not (use.uplink and use.link)
    told = {lost.pin for lost in power.lost_pins}
    last = {(c.element["switch"], _to(c.element)): c.element for c in changes if c.kind == "way_pin"}  # type: ignore[union-attr]
    for key, pin in last.items():
        kept = _ways(power).get(key)
        assert (kept is not None and kept == (pin["port"], True)) or pin["id"] in told
