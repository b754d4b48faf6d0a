"""What runs on less power than it asks for: fewer watts, a weaker radio, a cure that says what it spoils."""

from __future__ import annotations

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, Switch, apply
from heathrise.core.evaluation.evaluate import Evaluation, evaluate
from heathrise.core.power.loop import feed_over_run
from heathrise.core.signal import environment_of, judge_rooms

from .plans import access_point, design_of, rack, shell

CATALOGUE = load_catalogue()


def _site(*devices: Device, switch: str = "dunthrip-weak") -> Design:
    return design_of(
        *shell(), rack(2, 2), Switch(id="sw", equipment_room="rack", name="SW-1", model=switch), *devices
    )


def _weak(design: Design) -> Plan:
    """A plan whose switch gives no more than class 3."""
    model = CATALOGUE.switches["dunthrip-s8"]
    groups = tuple(
        g.model_copy(update={"poe_class": 3}) if g.poe_class is not None else g for g in model.groups
    )
    weak = model.model_copy(update={"id": "dunthrip-weak", "label": "Old switch, class 3", "groups": groups})
    catalogue = CATALOGUE._with(switches={**CATALOGUE.switches, weak.id: weak})
    return Plan(design, catalogue)


def _of(found: Evaluation, key: str) -> float:
    return next(d.port_w for d in found.power.devices if d.device == key)


def test_by_hand_the_watts_are_those_of_the_sheet_s_reduced_mode() -> None:
    full = _site(access_point(12, 10, model="ravelmoor-c4"), switch="dunthrip-s8")
    less = _site(access_point(12, 10, model="ravelmoor-c4", reduced=True), switch="dunthrip-s8")
    whole, part = (evaluate(Plan(d, CATALOGUE)) for d in (full, less))
    run = part.cable.runs[0]
    rules = CATALOGUE.rules
    loop = feed_over_run(rules.poe_classes[3], 12.6, run.fixed_m + run.cords_m, run.hottest_c)
    assert _of(part, "ap-1") == round(loop.port_w, 2) < _of(whole, "ap-1")
    assert part.power.devices[0].poe_class == 3
    said = next(f for f in part.power.findings if f.id == "power-reduced-ap-1")
    assert said.severity == "note" and "3 dB less at 5 GHz" in said.text
    # C4 has 25 dBm at 5 GHz; 3 dB less are 22. The lower band stays.
    radios = CATALOGUE.radios_of(less.of(Device)["ap-1"]).radios
    assert (radios["5"].max_power_dbm, radios["2.4"].max_power_dbm) == (22, 22)


def test_the_cure_is_as_it_is_and_says_what_it_spoils() -> None:
    aps = [access_point(3 + 12 * k, 18, f"ap-{k}", "ravelmoor-c6") for k in range(2)]
    plan = _weak(_site(*aps, access_point(10, 2, "ap-9", "ravelmoor-c2")))
    found = evaluate(plan)
    assert {row.device for row in found.power.left} == {"ap-0", "ap-1"}
    cure = next(c for c in found.power.cures["rack"] if "less power" in c.label)
    assert cure.label == "Run AP-0, AP-1 on less power"
    assert "no 6 GHz" in cure.effect and "nothing is bought" in cure.effect
    after = plan.after(cure.changes)
    assert not evaluate(after).power.left
    was, now = ({r.space: r.verdict for r in judge_rooms(environment_of(p))} for p in (plan, after))
    assert ("spoils" in cure.effect) == (was != now)


def test_without_such_a_mode_no_such_cure() -> None:
    plan = _weak(_site(access_point(10, 2, "ap-1", "ravelmoor-x5")))
    found = evaluate(plan)
    assert found.power.left and not any("less power" in c.label for c in found.power.cures["rack"])


def test_what_has_no_reduced_mode_runs_as_it_asks_whatever_is_said() -> None:
    one = _site(access_point(10, 2, model="ravelmoor-c2", reduced=True), switch="dunthrip-s8")
    other = apply(one, [])
    assert _of(evaluate(Plan(one, CATALOGUE)), "ap-1") == _of(evaluate(Plan(other, CATALOGUE)), "ap-1")
    assert not any("reduced" in f.id for f in evaluate(Plan(one, CATALOGUE)).power.findings)
