"""Runs with extenders: pieces, watts and volts at each, what they cost and who mounts them."""

from __future__ import annotations

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue, PowerDemand, load_catalogue
from heathrise.core.context.findings import Finding
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, Extender, Injector, Switch, apply
from heathrise.core.evaluation.evaluate import Evaluation, evaluate
from heathrise.core.power import CableHop, feed_in_hops
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.work_list import steps_of

from ..thorough import examples
from .plans import access_point, design_of, rack, shell

CATALOGUE = load_catalogue()
RULES = CATALOGUE.rules


def _plain_loop(watts: float, volts: float, ohm: float) -> tuple[float, float] | None:
    """Watts in and volts out of a loop, by halving: the smallest current at which the far end has its
    watts; None where none does."""
    best = volts / (2 * ohm)
    if (volts - ohm * best) * best < watts:
        return None
    low, high = 0.0, best
    for _ in range(80):
        middle = (low + high) / 2
        low, high = (middle, high) if (volts - ohm * middle) * middle < watts else (low, middle)
    return volts * high, volts - ohm * high


def _plain_chain(
    demand: PowerDemand, watts: float, hops: list[CableHop], heat_c: float
) -> tuple[float, float] | None:
    """Watts at the port and volts at the device, piece by piece from the far end."""
    reserved = {k.number: k for k in RULES.poe_classes.values()}
    kind, at_device = reserved[demand.poe_class], None
    for number in range(len(hops) - 1, -1, -1):
        ohm = hops[number].length_m * (0.0938 if kind.pairs == 2 else 0.0469)
        ohm *= 1 + 0.00393 * max(0.0, heat_c - 20)
        ohm += 2 * (0.2 if kind.pairs == 2 else 0.1)
        found = _plain_loop(watts, kind.port_v, ohm)
        if found is None:
            return None
        at_device = at_device or found[1]
        watts = found[0]
        before = hops[number - 1].extender if number else None
        if before is not None:
            watts += before.own_w
            kind = min(
                (k for k in reserved.values() if k.device_w >= watts),
                key=lambda k: (k.device_w, k.number),
                default=kind,
            )
    return watts, at_device or 0.0


def test_a_chain_by_hand() -> None:
    """12.4 W behind 50 m, an extender of 4.5 W, 50 m: 12.4 W over 5.09 ohm at 44 V draw 0.292 A, 12.83 W
    sent on; 17.33 W ask for class 4 at 50 V, 0.361 A, 18.05 W at the port."""
    demand = PowerDemand(poe_class=3, rated_w=12.4, typical_w=7.5)
    extender = CATALOGUE.extenders["peltwick-e2"]
    found = feed_in_hops(RULES, demand, 12.4, [CableHop(50, extender), CableHop(50)], 20, "AP-1")
    first, last = found.hops
    assert (last.poe_class, first.poe_class, found.poe_class) == (3, 4, 4)
    assert last.sent_w == pytest.approx(12.83, abs=0.01) and first.got_w == pytest.approx(17.33, abs=0.01)
    assert found.loop.port_w == pytest.approx(18.0, abs=0.05) and last.volts == pytest.approx(42.5, abs=0.05)
    assert (first.to, last.to, found.wrong) == ("Peltwick E2 extender, 1 Gb/s", "AP-1", "")


def test_what_an_extender_cannot_give_is_said() -> None:
    strong = PowerDemand(poe_class=6, rated_w=45, typical_w=30)
    weak = CATALOGUE.extenders["peltwick-e1"]
    assert (
        "gives class 3, CAM asks for 6"
        in feed_in_hops(RULES, strong, 45, [CableHop(30, weak), CableHop(30)], 20, "CAM").wrong
    )
    full = PowerDemand(poe_class=4, rated_w=25.5, typical_w=20)
    plain = CATALOGUE.extenders["peltwick-e2"]
    wrong = feed_in_hops(RULES, full, 25.5, [CableHop(90, plain), CableHop(90)], 20, "AP").wrong
    assert wrong.startswith("Peltwick E2 extender, 1 Gb/s wants") and "class 4 has 25.5" in wrong


@given(data=st.data())
@examples(60)
def test_watts_add_up_and_a_longer_cable_never_has_more_volts(data: st.DataObject) -> None:
    count = data.draw(st.integers(0, 2))
    models = [
        CATALOGUE.extenders[data.draw(st.sampled_from(sorted(CATALOGUE.extenders)))] for _ in range(count)
    ]
    lengths = [data.draw(st.floats(1, 100)) for _ in range(count + 1)]
    demand = PowerDemand(poe_class=3, rated_w=data.draw(st.floats(1, 12.95)), typical_w=1)
    heat = data.draw(st.floats(15, 50))
    hops = [CableHop(m, e) for m, e in itertools.zip_longest(lengths, models)]
    found = feed_in_hops(RULES, demand, demand.rated_w, hops, heat, "D")
    if found.wrong:
        return
    plain = _plain_chain(demand, demand.rated_w, hops, heat)
    assert plain is not None
    assert found.loop.port_w == pytest.approx(plain[0], abs=0.02)
    assert found.loop.device_v == pytest.approx(plain[1], abs=0.01)
    # What is sent is what is got and what the cable keeps; what an extender gets is its own and what it sends.
    for near, far, model in zip(found.hops, found.hops[1:], models, strict=False):
        assert near.got_w == pytest.approx(far.sent_w + model.own_w, abs=0.02)
    for hop in found.hops:
        assert hop.sent_w >= hop.got_w - 0.01
    longer = [CableHop(h.length_m + 1, h.extender) for h in hops]
    more = feed_in_hops(RULES, demand, demand.rated_w, longer, heat, "D")
    assert more.wrong or (
        more.loop.device_v <= found.loop.device_v + 1e-9 and more.loop.port_w >= found.loop.port_w - 1e-9
    )


def _long(x: float, *more: Extender | Injector, model: str = "ravelmoor-t3") -> Design:
    return design_of(
        *shell(220, 6),
        rack(1, 3),
        access_point(x, 3, model=model, mount="wall"),
        Switch(id="sw-1", equipment_room="rack", name="SW-1", model="dunthrip-m24"),
        *more,
    )


def _evaluated(design: Design, catalogue: Catalogue) -> Evaluation:
    return evaluate(Plan(design, catalogue), wait=True)


def _found(design: Design, catalogue: Catalogue, key: str) -> list[Finding]:
    return [f for f in _evaluated(design, catalogue).findings if f.id.startswith(key)]


@pytest.mark.parametrize(("x", "count"), [(120.0, 1), (190.0, 2)])
def test_a_run_too_long_is_mended_by_extenders(x: float, count: int, catalogue: Catalogue) -> None:
    design = _long(x)
    (found,) = _found(design, catalogue, "cable-length-ap-1")
    cures = [c for c in found.cures if "extender" in c.label]
    assert {c.label.startswith("Put in two") for c in cures} == {count == 2}
    for cure in cures:
        after = apply(design, cure.changes)
        evaluation = _evaluated(after, catalogue)
        run = evaluation.runs[0]
        assert run.verdict in ("met", "near") and len(run.hops) == count + 1
        assert sum(h.length_m for h in run.hops) == pytest.approx(run.fixed_m, abs=0.2)
        assert all(h.length_m <= h.limit_m for h in run.hops)
        mine = list(after.of(Extender).values())
        slowest = min(catalogue.extenders[e.model].speed_mbps for e in mine)
        assert f"{slowest / 1000:g} Gb/s of" in cure.effect or f"{slowest} Mb/s of" in cure.effect
        fed = evaluation.power.devices[0]
        assert fed.verdict in ("met", "near") and fed.source.startswith("SW-1")
        assert evaluation.power.switches[0].rated_w == pytest.approx(fed.port_w, abs=0.06)
        assert fed.port_w == fed.hops[0].sent_w
        plan, before = Plan(after, catalogue), order_of(Plan(design, catalogue))
        lines = {k.item: k.quantity for k in order_of(plan).lines}
        plugs = {k.item: k.quantity for k in before.lines}["plug"]
        assert lines[mine[0].model] == count and lines["plug"] == plugs + 2 * count
        steps = [s for s in steps_of(plan) if s.id.startswith("extend-")]
        assert len(steps) == count and all("pull-run-ap-1" in s.waits for s in steps)
        far = [int(s.title.rsplit(", ", 1)[1].split()[0]) for s in steps]
        assert far == sorted(far) and far[0] == pytest.approx(run.fixed_m / (count + 1), abs=6)


def test_three_one_behind_the_other_are_too_many(catalogue: Catalogue) -> None:
    more = [Extender(id=f"e{k}", device="ap-1", model="peltwick-e2", share=k / 4) for k in (1, 2, 3)]
    (run,) = _evaluated(_long(190, *more), catalogue).runs
    assert run.verdict == "not_met" and run.reason == "3 extenders one behind the other, 2 at most"


def test_a_device_that_starves_behind_an_extender_is_told(catalogue: Catalogue) -> None:
    strong = _long(120, Extender(id="e", device="ap-1", model="peltwick-e1"), model="ravelmoor-c6")
    (found,) = _found(strong, catalogue, "power-hops-ap-1")
    assert "gives class 3, AP-1 asks for 4" in found.text
    assert isinstance(next(iter(strong.of(Device).values())), Device)


# -- passive feeds, and who goes dark first --------------------------------------------------------


def _passive(x: float, *more: Injector | Extender, state: str = "keep") -> Design:
    return design_of(
        *shell(120, 6),
        rack(1, 3),
        access_point(x, 3, model="old-ceiling-passive", state=state),
        Switch(id="sw-1", equipment_room="rack", name="SW-1", model="dunthrip-m24"),
        *more,
    )


def test_a_kept_passive_device_wants_its_own_injector(catalogue: Catalogue) -> None:
    (found,) = _found(_passive(20), catalogue, "power-passive-ap-1")
    assert "24\u00a0V, passive: a switch's port gives it nothing" in found.text
    mended = apply(_passive(20), found.cures[0].changes)
    assert not _found(mended, catalogue, "power-passive")
    assert {k.item for k in order_of(Plan(mended, catalogue)).lines} >= {"peltwick-p24"}
    wrong = _passive(20, Injector(id="i", device="ap-1", model="peltwick-p48"))
    (other,) = _found(wrong, catalogue, "power-passive-ap-1")
    assert "has peltwick p48 passive injector, 48 v" in other.text
    assert not _found(apply(wrong, other.cures[0].changes), catalogue, "power-passive")


def test_a_passive_feed_over_a_long_run_is_worked_by_hand(catalogue: Catalogue) -> None:
    """8.5 W at 24 V over some 80 m of two pairs: 7.9 ohm and more with heat drop a sixth of it and more."""
    design = _passive(75, Injector(id="i", device="ap-1", model="peltwick-p24"))
    (run,) = _evaluated(design, catalogue).runs
    ohm = (run.fixed_m + run.cords_m) * 0.0938 * (1 + 0.00393 * max(0.0, run.hottest_c - 20)) + 0.4
    plain = _plain_loop(8.5, 24, ohm)
    found = _found(design, catalogue, "power-passive-ap-1")
    if plain is None or plain[1] < 0.8 * 24:
        assert found and (plain is None or found[0].figure == pytest.approx(plain[1], abs=0.06))
    else:
        assert not found


def test_a_passive_injector_in_the_wrong_run_is_refused(catalogue: Catalogue) -> None:
    design = _long(30, Injector(id="i", device="ap-1", model="peltwick-p24"))
    (found,) = _found(design, catalogue, "power-passive-ap-1")
    assert "without asking" in found.text and found.severity == "not_met"
    assert not _found(apply(design, found.cures[0].changes), catalogue, "power-passive")


def test_cameras_go_dark_before_access_points(catalogue: Catalogue) -> None:
    """Of eight access points and three cameras that eat the headroom of 185 W the cameras are named first;
    of fourteen and four on sixteen powered ports two cameras go without, never an access point."""
    points = [access_point(2 + 1.5 * k, 3, f"ap-{k}", "ravelmoor-c4") for k in range(8)]

    def camera(k: int) -> Device:
        fields = {
            "floor": "f",
            "kind": "camera",
            "model": "peltwick-turret",
            "height_m": 2.4,
            "mount": "wall",
        }
        return Device.model_validate({"id": f"cam-{k}", "name": f"CAM-{k}", "at": (16, 1 + k / 2), **fields})

    def planned(points_: list[Device], cameras: int, model: str = "dunthrip-s16") -> Evaluation:
        switch = Switch(id="sw-1", equipment_room="rack", name="SW-1", model=model)
        more = [camera(k) for k in range(cameras)]
        return _evaluated(design_of(*shell(20, 6), rack(1, 3), *points_, *more, switch), catalogue)

    (switch,) = planned(points, 3).power.switches
    assert switch.verdict == "near" and switch.dark_first == ("CAM-2", "CAM-1", "CAM-0")
    fourteen = [access_point(1 + 1.3 * k, 3, f"ap-{k}", "ravelmoor-t3", mount="wall") for k in range(14)]
    short = planned(fourteen, 4, "dunthrip-m24").power
    assert sorted(row.name for row in short.left) == ["CAM-2", "CAM-3"] or (
        len(short.left) == 2 and all(row.name.startswith("CAM") for row in short.left)
    )
