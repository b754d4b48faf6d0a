"""Fibre to a device: its light, what stands at both ends, what feeds it, and that all of it is bought."""

from __future__ import annotations

import math
from collections import Counter

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.fibre_ends import far_end, far_ends
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Design,
    DesignError,
    Device,
    Extender,
    Injector,
    Run,
    Socket,
    Switch,
    apply,
    put,
)
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.acceptance import planned_cables
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.remedies import remedies_of
from heathrise.core.views.work_list import steps_of

from ..thorough import examples
from .plans import access_point
from .sites import sites
from .test_several_rooms import corridor

_RANK = {0: 3}  # class 0 stands with class 3


def _long(*more: object, model: str = "dunthrip-s16", metres: float = 150) -> Plan:
    box = Switch(id="sw", equipment_room="rack", name="SW-1", model=model)
    return Plan(
        corridor(metres, box, access_point(metres - 1, 1.5, "ap-1", "ravelmoor-t3"), *more), load_catalogue()
    )


def _fibre(device: str = "ap-1") -> Run:
    return Run(id=f"r-{device}", device=device, medium="fibre")


def _bought(plan: Plan) -> Counter[str]:
    return Counter({k.item: k.quantity for k in order_of(plan).lines})


def test_by_hand_a_run_too_long_takes_fibre() -> None:
    plan = _long()
    (finding,) = [f for f in evaluate(plan).findings if f.id == "cable-length-ap-1"]
    cure = next(c for c in finding.cures if "fibre" in c.label)
    assert "whatever battery the rack has" in cure.effect  # what it spoils
    after = plan.after(cure.changes)
    found = evaluate(after)
    (run,) = found.runs
    # 148 m level, up and down, slack: single mode is the cheaper at such a length, with 4.6 dB to lose.
    assert (run.medium, run.category, run.cables, run.verdict) == ("fibre", "os2", 1, "met")
    assert run.fibre is not None
    assert run.fibre.loss_db == pytest.approx(2 * 0.5 + 2 * 0.1 + run.fixed_m * 0.0004, abs=0.006)
    assert not [f for f in found.findings if f.id.startswith("cable-length")]
    # It is fed where it ends, over a cord: nothing of it comes from the switch.
    (fed,) = found.power.devices
    (switch,) = found.power.switches
    assert fed.source == "Media converter with a cage, 1 Gb/s, feeds class 4" and fed.verdict == "met"
    assert (switch.rated_w, switch.powered_used, switch.ports_used) == (0, 0, 0)
    (port,) = [p for p in found.power.ports if p.device == "ap-1"]
    assert port.cage and not port.feeds
    (chain,) = found.chains.chains
    assert [k.name for k in chain.links if k.kind == "cable"] == ["fibre, OS2"]
    (cable,) = [c for c in planned_cables(after) if c.device == "ap-1"]
    assert (cable.expected_db, cable.budget_db) == (run.fibre.loss_db, 4.6)


def test_by_hand_all_of_it_is_bought_and_has_its_steps() -> None:
    plan = _long(_fibre())
    bought = _bought(plan)
    metres = math.ceil(evaluate(plan).runs[0].bought_m)
    wanted = {"fibre-os2": metres, "optic-os2": 2, "converter-poe": 1, "fibre-box": 1, "fibre-end-box": 1}
    assert {k: bought[k] for k in wanted} == wanted
    assert bought["pigtail"] == 8 and bought["converter"] == 0
    assert bought["cord-fibre"] == 2 + load_catalogue().rules["order.spare_cords"]
    assert not [k for k in bought if k.startswith("cable-")]
    steps = {s.id: s for s in steps_of(plan)}
    assert "fibre cleaver" in " ".join(steps["far-run-ap-1"].tools)
    assert "light source" in " ".join(steps["test-run-ap-1"].tools)
    assert "Media converter with a cage, 1 Gb/s, feeds class 4" in steps["mount-ap-1"].materials
    assert steps["adopt-ap-1"].title.startswith("Plug Media converter")
    assert any("laser" in c.lower() or "fibre" in c.lower() for c in steps["far-run-ap-1"].cautions)


def test_a_port_without_a_cage_has_a_converter_before_it() -> None:
    plan = _long(_fibre(), model="dunthrip-s8")
    found = evaluate(plan)
    (thing,) = [t for t in found.racks.things if t.kind == "converter"]
    assert (thing.item, thing.room, thing.name) == ("converter", "rack", "Converter of AP-1")
    ends = sorted((c.from_thing, c.to_thing, c.item) for c in found.racks.cords if c.link or "AP-1" in c.name)
    assert ("converter:run-ap-1", "switch:sw") in [(a, b) for a, b, _ in ends]
    assert ("splice:1", "converter:run-ap-1", "cord-fibre") in ends
    assert _bought(plan)["converter"] == 1


def test_what_it_asks_of_a_socket_is_told() -> None:
    far = Socket(id="so", floor="f", name="Far socket", at=(120.0, 0.1), height_m=0.3, state="keep")
    found = evaluate(_long(_fibre(), far))
    (finding,) = [f for f in found.findings if f.id == "plan-socket-ap-1"]
    assert finding.text.startswith("The converter of AP-1 is plugged into the mains")
    assert not any("Feed it off its cable" in c.label for c in finding.cures)


def test_an_extender_in_it_does_nothing_and_goes_with_the_cure() -> None:
    between = Extender(id="e", device="ap-1", model="peltwick-e2", share=0.5)
    plan = _long(_fibre(), between)
    (finding,) = [f for f in evaluate(plan).findings if f.id == "cable-extender-ap-1"]
    after = plan.after(finding.cures[0].changes)
    assert not after.design.of(Extender) and evaluate(after).runs[0].verdict == "met"


def test_a_slower_converter_is_near_and_says_so() -> None:
    catalogue = load_catalogue()
    few = catalogue.grown(
        catalogue.devices,
        {"converters": {k: c for k, c in catalogue.converters.items() if c.speed_mbps == 1000}},
        {},
    )
    fast = access_point(149, 1.5, "ap-1", "ravelmoor-x5")
    design = apply(_long(_fibre()).drawn, [put(fast)])
    (run,) = evaluate(Plan(design, few)).runs
    assert run.verdict == "near" and "its converter passes 1 Gb/s" in run.reason and run.lit_mbps == 1000


def test_outlets_and_the_router_take_none() -> None:
    outlet = Device.model_validate(
        {"id": "o-1", "floor": "f", "kind": "outlet", "model": "plain-outlet-2", "name": "O-1", "at": (9, 1)}
    )
    kind = next(iter(load_catalogue().devices["outlet"]))
    design = apply(_long().drawn, [put(outlet.model_copy(update={"model": kind})), put(_fibre("o-1"))])
    with pytest.raises(DesignError, match="no fibre goes to O-1"):
        check(design, load_catalogue())


def test_the_remedies_have_it_with_its_socket_and_its_price() -> None:
    (row,) = [r for r in remedies_of(_long(), "ap-1").remedies if r.label.startswith("Pull fibre to")]
    assert row.does and row.speed_mbps == 1000 and row.pieces[-1].medium == "fibre"
    assert any("a mains socket at AP-1" in n for n in row.needs)
    after = _long().after(row.changes)
    wanted = order_of(after).sum.total - order_of(_long()).sum.total
    assert row.price == pytest.approx(wanted, abs=0.01)


# -- against a plain reckoning --------------------------------------------------------------------


def _plain_end(catalogue: Catalogue, device: Device) -> tuple[int, float]:
    """The speed and the price of the best there is: every converter, with every injector or none."""
    model = catalogue.model_of(device)
    found = []
    for converter in catalogue.converters.values():
        for injector in (None, *catalogue.injectors.values()):
            if model.power is not None:
                asked = _RANK.get(model.power.poe_class, model.power.poe_class)
                given = converter.gives_class if injector is None else injector.poe_class
                if injector is not None and injector.passive_v is not None:
                    continue
                if given is None or _RANK.get(given, given) < asked:
                    continue
            speed = min(model.speed_mbps, converter.speed_mbps)
            if injector is not None:
                speed = min(speed, injector.speed_mbps)
            price = converter.price + (injector.price if injector is not None else 0)
            found.append((-speed, price))
    speed, price = min(found)
    return -speed, price


def test_the_far_end_is_the_cheapest_that_is_fast_enough() -> None:
    catalogue = load_catalogue()
    for kind, models in catalogue.devices.items():
        for model in models.values():
            device = access_point(0, 0).model_copy(update={"kind": kind, "model": model.id})
            if (
                catalogue.role_of(device).links != "one"
                or model.over_air
                or catalogue.role_of(device).leads_out
            ):
                continue
            end = far_end(catalogue, device)
            speed = min(catalogue.model_of(device).speed_mbps, end.converter.speed_mbps)
            assert (speed, round(end.price, 2)) == _plain_end(catalogue, device), model.id


@given(design=sites(), chosen=st.integers(0, 2**12))
@examples(25)
def test_on_random_sites_light_feeds_nobody_and_everything_is_bought_once(
    design: Design, chosen: int
) -> None:
    catalogue = load_catalogue()
    able = [
        d
        for k, d in enumerate(design.of(Device).values())
        if chosen >> (k % 12) & 1
        and catalogue.role_of(d).links == "one"
        and not catalogue.role_of(d).leads_out
        and not any(r.device == d.id for r in design.of(Run).values())
    ]
    lit = apply(design, [put(_fibre(d.id)) for d in able])
    plan = Plan(lit, catalogue)
    found, bought, was = evaluate(plan), _bought(plan), _bought(Plan(design, catalogue))
    runs = {r.device: r for r in found.runs if r.medium == "fibre" and r.verdict != "no_way"}
    assert runs.keys() <= {d.id for d in able}
    injected = {i.device for i in lit.of(Injector).values()}
    for key, run in runs.items():
        assert run.fibre is not None and run.lit_mbps is not None
        km = {"om4": 3.0, "os2": 0.4}[run.category]
        assert run.fibre.loss_db == pytest.approx(1.2 + run.fixed_m * km / 1000, abs=0.006)
        assert not [b for b in found.power.ports if b.device == key and b.feeds]
        row = next((d for d in found.power.devices if d.device == key), None)
        if row is not None and key not in injected:
            assert row.source in {end.label for d, end in far_ends(lit, catalogue) if d.id == key}
    # What each switch counts are its own powered ports, no more.
    draws = {d.device: d.port_w for d in found.power.devices}
    for switch in found.power.switches:
        mine = [p.device for p in found.power.ports if p.switch == switch.switch and p.feeds]
        assert switch.rated_w == pytest.approx(sum(draws[d or ""] for d in mine), abs=0.06)
    ways = sum(u.medium == "fibre" and u.verdict != "no_way" for u in found.uplinks)
    optics = sum(v for k, v in bought.items() if k.startswith("optic-"))
    assert optics == 2 * (len(runs) + ways)
    assert bought["fibre-end-box"] == len(runs)
    assert bought["pigtail"] == 8 * (len(runs) + ways)
    # Converters: one at each device, one at each end in a port that is no cage.
    plugged = {p.device: p.cage for p in found.power.ports if p.device in runs}
    in_racks = sum(not cage for cage in plugged.values()) + sum(
        len(w.converters) for w in found.power.ways_up
    )
    all_of_them = sum(bought[k] for k in catalogue.converters)
    assert all_of_them == in_racks + len(list(far_ends(lit, catalogue)))
    # Three cables of four strands to a box of twelve, rack by rack.
    ends: Counter[str] = Counter(r.room for r in runs.values() if r.room)
    for up in found.uplinks:
        if up.medium == "fibre" and up.verdict != "no_way":
            ends.update([up.room, up.to_room])
    assert bought["fibre-box"] == sum(math.ceil(n / 3) for n in ends.values())
    assert sum(was[k] for k in catalogue.converters) <= all_of_them
