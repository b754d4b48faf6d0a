"""Ports kept for uplinks, injectors that do, who may reach whom, devices where they can be."""

from __future__ import annotations

import itertools
import random
from collections.abc import Iterator

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.band_plan import band_plan
from heathrise.core.context.findings import Finding
from heathrise.core.context.integrity import check_edit
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Design,
    DesignError,
    Device,
    Element,
    Floor,
    Injector,
    Network,
    Radio,
    Run,
    Site,
    Space,
    Switch,
    WirelessName,
    apply,
    put,
)
from heathrise.core.evaluation.cure_search import search_cures
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.ports.assign import Demand, assign, fits, reserved_w
from heathrise.core.ports.uplinks import Shelf, uplinks
from heathrise.core.settings.subnets import is_private, parse_subnet
from heathrise.core.signal.channels import ChannelProblem, greedy, solve

from ..thorough import examples
from .plans import access_point, design_of, rack, shell


def found(catalogue: Catalogue, *elements: Element) -> tuple[Design, dict[str, Finding]]:
    design = design_of(*shell(), *elements)
    return design, {f.id: f for f in evaluate(Plan(design, catalogue)).findings}


def switch(model: str, key: str = "sw-1") -> Switch:
    return Switch(id=key, equipment_room="rack", name=key.upper(), model=model)


def network(key: str, vlan: int, purpose: str, **more: object) -> Network:
    fields = {"id": key, "name": key, "vlan": vlan, "purpose": purpose}
    return Network.model_validate({"subnet": f"192.168.{vlan}.0/24", **fields, **more})


# Ports


def test_every_switch_keeps_a_port_for_its_way_up(catalogue: Catalogue) -> None:
    shelves = tuple(
        Shelf(f"s{k}", f"S{k}", catalogue.switches[m])
        for k, m in enumerate(("dunthrip-s8", "dunthrip-s16", "dunthrip-u16"))
    )
    kept = uplinks(shelves)
    ways = [(u.slot.switch, u.slot.port, u.to) for u in kept]
    assert ways == [("s0", 8, None), ("s0", 7, "s1"), ("s0", 6, "s2"), ("s1", 17, "s0"), ("s2", 16, "s0")]
    full = tuple(Demand(f"d{k}", f"d{k}", 1000) for k in range(60))
    given_away = {(s.switch, s.port) for s in assign(full, shelves).slots.values()}
    assert not given_away & {(u.slot.switch, u.slot.port) for u in kept}
    assert len(given_away) == 5 + 16 + 15


def test_the_uplink_is_on_and_carries_every_network(catalogue: Catalogue) -> None:
    nets = [
        network("main", 10, "main"),
        network("a", 21, "staff"),
        network("b", 22, "staff"),
        network("m", 99, "management"),
    ]
    design, _ = found(catalogue, rack(2, 2), switch("dunthrip-s8"), *nets, access_point(5, 5))
    sheet = evaluate(Plan(design, catalogue)).settings
    assert sheet is not None
    up = next(p for p in sheet.ports if p.name == "to the line")
    assert up.enabled and (up.untagged_vlan, up.tagged_vlans) == (99, (10, 21, 22))
    assert all(p.enabled == bool(p.name) for p in sheet.ports)


def _brute_force(demands: tuple[Demand, ...], shelves: tuple[Shelf, ...]) -> int:
    """The fewest links that can be left over, by trying every choice of groups."""
    kept = [(u.slot.switch, u.slot.group) for u in uplinks(shelves)]
    places: list[tuple[int, int] | None] = [None]
    places += [(s, g) for s, shelf in enumerate(shelves) for g in range(len(shelf.model.groups))]
    best = 10_000
    for choice in itertools.product(places, repeat=len(demands)):
        cost = 0
        used: dict[tuple[int, int], int] = {}
        watts = [0.0] * len(shelves)
        for demand, place in zip(demands, choice, strict=True):
            if place is None:
                cost += 60 if demand.poe_class is None else 100
                continue
            shelf = shelves[place[0]]
            if not fits(shelf.model.groups[place[1]], demand):
                break
            used[place] = used.get(place, 0) + 1
            watts[place[0]] += round(reserved_w(shelf.model, demand), 1)
        else:
            fit = all(
                count <= shelves[s].model.groups[g].count - kept.count((shelves[s].id, g))
                for (s, g), count in used.items()
            )
            if fit and all(w <= s.model.budget_w for w, s in zip(watts, shelves, strict=True)):
                best = min(best, cost)
    return best


def _small(models: dict, seed: int) -> Iterator[Shelf]:
    rng = random.Random(seed)
    for k in range(rng.randint(1, 2)):
        model = rng.choice([models[m] for m in ("dunthrip-s8", "dunthrip-u16", "dunthrip-s24h")])
        groups = tuple(g.model_copy(update={"count": rng.randint(1, 2)}) for g in model.groups)
        changed = {"groups": groups, "budget_w": rng.choice([20.0, 45.0, 70.0])}
        yield Shelf(f"s{k}", f"S{k}", model.model_copy(update=changed))


@examples(40)
@given(st.integers(0, 10_000), st.lists(st.sampled_from([None, 2, 3, 4, 6]), max_size=5))
def test_nothing_more_can_be_plugged_in(seed: int, classes: list[int | None]) -> None:
    shelves = tuple(_small(load_catalogue().switches, seed))
    demands = tuple(
        Demand(
            f"d{k}",
            f"d{k}",
            1000,
            c,
            {None: 0.0, 2: 5.9, 3: 12.9, 4: 24.1, 6: 48.3}[c],
            RULES.poe_classes[c].reserved_w if c else 0.0,
        )
        for k, c in enumerate(classes)
    )
    answer = assign(demands, shelves)
    left = sum(60 if d.poe_class is None else 100 for d in demands if d.id in answer.left)
    assert answer.proven and left == _brute_force(demands, shelves)


@pytest.mark.parametrize(
    ("model", "injector", "severity", "takes"),
    [
        ("ravelmoor-c4", "peltwick-i15", "not_met", "peltwick-i30"),
        ("ravelmoor-c2", "peltwick-i15", "near", "peltwick-i30"),
        ("ravelmoor-c4", "peltwick-i30", None, None),
    ],
)
def test_an_injector_matches_class_and_speed(
    catalogue: Catalogue, model: str, injector: str, severity: str | None, takes: str | None
) -> None:
    held = Injector(id="i", device="ap-1", model=injector)
    parts = (rack(2, 2), switch("dunthrip-u16"), access_point(5, 5, model=model), held)
    design, findings = found(catalogue, *parts)
    finding = findings.get("power-injector-ap-1")
    assert (finding.severity if finding else None) == severity
    if finding is not None:
        after = apply(design, finding.cures[0].changes)
        assert after.of(Injector)["i"].model == takes
        assert "power-injector-ap-1" not in {f.id for f in evaluate(Plan(after, catalogue)).findings}


def test_a_switch_offered_keeps_its_headroom(catalogue: Catalogue) -> None:
    """Five of class 3 by class are 77 W: over 70, and over 80 % of nothing that is offered."""
    points = [access_point(2 + 3 * k, 5, f"ap-{k}") for k in range(6)]
    design, findings = found(catalogue, rack(2, 2), switch("dunthrip-s8"), *points)
    for cure in findings["power-left-rack"].cures:
        if "kept free" in cure.effect:
            after = evaluate(Plan(apply(design, cure.changes), catalogue))
            assert all(s.verdict == "met" for s in after.power.switches), cure.label
    assert any("20% of the watts kept" in c.effect for c in findings["power-left-rack"].cures)


def test_an_unmanaged_switch_carries_one_network(catalogue: Catalogue) -> None:
    nets = (network("main", 10, "main"), network("guest", 20, "guest", client_isolation=True))
    name = WirelessName(id="n", network="guest", ssid="Guests", client_isolation=True)
    held = Injector(id="i", device="ap-1", model="peltwick-i30")
    parts = (rack(2, 2), switch("dunthrip-u16"), access_point(5, 5), held, *nets, name)
    design, findings = found(catalogue, *parts)
    cured = apply(design, findings["settings-unmanaged-sw-1"].cures[0].changes)
    assert "settings-unmanaged-sw-1" not in {f.id for f in evaluate(Plan(cured, catalogue)).findings}


# Networks


def test_an_upstream_written_as_an_address_is_still_compared(catalogue: Catalogue) -> None:
    site = Site(id="site", upstream_subnet="192.168.1.1/24")
    _, findings = found(catalogue, site, network("main", 1, "main", subnet="192.168.1.77/24"))
    assert "192.168.1.0/24 overlaps the upstream" in findings["settings-upstream-main"].text
    _, findings = found(catalogue, Site(id="site", upstream_subnet="later"), network("m", 5, "main"))
    assert "'later'" in findings["settings-upstream-unread"].text


@pytest.mark.parametrize(
    ("subnet", "private"),
    [
        ("10.3.0.0/16", True),
        ("172.31.4.0/24", True),
        ("192.168.7.9/24", True),
        ("fd12:3456::/48", True),
        ("172.32.0.0/24", False),
        ("169.254.0.0/16", False),
        ("127.0.0.0/8", False),
        ("192.0.2.0/24", False),
        ("198.18.0.0/15", False),
        ("0.0.0.0/8", False),
        ("192.168.0.0/15", False),
        ("2001:db8::/32", False),
    ],
)
def test_private_means_what_is_set_aside_for_it(subnet: str, private: bool) -> None:
    parsed = parse_subnet(subnet)
    assert parsed is not None and is_private(parsed) == private


def test_who_may_not_reach_whom(catalogue: Catalogue) -> None:
    nets = (
        network("main", 10, "main"),
        network("staff", 15, "staff", reaches=("manage",)),
        network("things", 30, "devices", reaches=("manage", "main")),
        network("cams", 40, "cameras", reaches=("main",)),
        network("manage", 99, "management"),
    )
    design, findings = found(catalogue, *nets)
    reach = {k.removeprefix("settings-reach-"): f for k, f in findings.items() if "reach-" in k}
    assert {k: f.severity for k, f in reach.items()} == {
        "staff-manage": "not_met",
        "things-manage": "not_met",
        "things-main": "near",
        "cams-main": "not_met",
    }
    for finding in reach.values():
        after = apply(design, finding.cures[0].changes)
        assert finding.id not in {f.id for f in evaluate(Plan(after, catalogue)).findings}


def test_a_camera_without_a_network_of_its_own_is_not_called_isolated(catalogue: Catalogue) -> None:
    camera = Device(id="c", floor="f", kind="camera", model="peltwick-dome", name="CAM", at=(5, 5))
    parts = (rack(2, 2), switch("dunthrip-s8"), network("main", 10, "main"), camera)
    design, findings = found(catalogue, *parts)
    sheet = evaluate(Plan(design, catalogue)).settings
    assert sheet is not None
    assert "main network" in next(p for p in sheet.ports if p.name == "CAM").reason
    finding = findings["settings-no-cameras"]
    assert "not isolated" in finding.text
    cured = evaluate(Plan(apply(design, finding.cures[0].changes), catalogue)).settings
    assert cured is not None
    assert next(p for p in cured.ports if p.name == "CAM").untagged_vlan == 40


def test_beacons_of_a_sensors_name_count_at_its_own_rate(catalogue: Catalogue) -> None:
    nets = (network("main", 10, "main"), network("things", 30, "devices"))
    names = [WirelessName(id=f"n{k}", network="things", ssid=f"things {k}") for k in range(4)]
    points = [access_point(1 + 0.8 * k, 5, f"ap-{k}") for k in range(21)]
    _, findings = found(catalogue, *nets, *names, *points)
    assert findings["settings-beacons"].figure == pytest.approx(4 * 21 / 3 * 0.41, abs=0.1)
    quick = [n.model_copy(update={"network": "main"}) for n in names]
    _, findings = found(catalogue, *nets, *quick, *points)
    assert "settings-beacons" not in findings


# Devices where they can be


def test_indoor_gear_out_of_doors_is_told(catalogue: Catalogue) -> None:
    yard = Space(
        id="yard", floor="f", name="Yard", outdoor=True, outline=((0, -10), (20, -10), (20, 0), (0, 0))
    )
    camera = Device(id="c", floor="f", kind="camera", model="peltwick-dome", name="CAM", at=(5, -4))
    parts = (yard, access_point(5, -5), camera, access_point(30, 9, "ap-2"))
    design, findings = found(catalogue, *parts)
    for key in ("ap-1", "ap-2", "c"):
        finding = findings[f"plan-outdoors-{key}"]
        after = apply(design, finding.cures[0].changes)
        assert not [f for f in evaluate(Plan(after, catalogue)).findings if f.id == finding.id]
    edge = access_point(0, 10, "ap-3", mount="wall", height_m=2.2)
    assert "plan-outdoors-ap-3" not in found(catalogue, edge)[1]


def test_mounts_and_heights_that_cannot_be(catalogue: Catalogue) -> None:
    wrong = access_point(5, 5, model="ravelmoor-x5")
    high = access_point(9, 9, "ap-2", height_m=12.0)
    design, findings = found(catalogue, wrong, high)
    assert "no ceiling mount" in findings["plan-mount-ap-1"].text
    finding = findings["plan-height-ap-2"]
    assert apply(design, finding.cures[0].changes).of(Device)["ap-2"].height_m == 2.7
    for cure in findings["plan-mount-ap-1"].cures:
        left = {f.id for f in evaluate(Plan(apply(design, cure.changes), catalogue)).findings}
        assert "plan-mount-ap-1" not in left


def test_no_outdoor_panel_is_offered_for_a_ceiling(catalogue: Catalogue) -> None:
    far = Space(id="far", floor="f", name="Bedroom", outline=((60, 0), (64, 0), (64, 4), (60, 4)))
    panel = access_point(25, 2, model="ravelmoor-x5", mount="pole", height_m=4.0)
    design = design_of(*shell(), far, panel)
    added = [c for c in search_cures(Plan(design, catalogue), "signal-room-far") if "Add" in c.label]
    device = added[0].changes[0].element  # type: ignore[union-attr]
    assert not catalogue.devices["access_point"][device["model"]].outdoor
    assert device["mount"] in catalogue.devices["access_point"][device["model"]].mounts


def test_a_job_for_cable_alone_is_short_of_no_access_point(catalogue: Catalogue) -> None:
    _, findings = found(catalogue, rack(2, 2))
    assert findings["signal-none"].severity == "note"
    promised = WirelessName(id="n", network="main", ssid="Home")
    _, findings = found(catalogue, network("main", 10, "main"), promised)
    assert findings["signal-none"].severity == "not_met"


def test_cords_that_are_too_long_are_cured_by_shorter_ones(catalogue: Catalogue) -> None:
    """88 m with 12 m of cords: C = (102 - 88) / 1.2 = 11.6, so 11.5 in all do."""
    site = Site(id="site", cords_m=12, slack_device_m=20, slack_rack_m=20, cables_per_access_point=1)
    wide = Space(id="w", floor="f", name="W", outline=((0, 0), (60, 0), (60, 3), (0, 3)))
    cool = Floor(id="f", building="b", name="Cellar", level=-1)
    parts = (site, cool, wide, rack(1, 1.5), access_point(47, 1.5))
    design, findings = found(catalogue, *parts)
    finding = findings["cable-length-ap-1"]
    cure = next(c for c in finding.cures if "cords" in c.label)
    after = evaluate(Plan(apply(design, cure.changes), catalogue))
    assert after.runs[0].verdict in ("met", "near")


def test_tight_bundles_shorten_category_6_at_ten_gigabit(catalogue: Catalogue) -> None:
    point = access_point(35, 1.5, model="ravelmoor-c6")
    wide = Space(id="w", floor="f", name="W", outline=((0, 0), (60, 0), (60, 3), (0, 3)))
    pinned = Run(id="r", device="ap-1", category="6")
    design, _ = found(catalogue, wide, rack(1, 1.5), point, pinned)
    tied = apply(design, [put(design.site.model_copy(update={"tight_bundles": True}))])
    assert evaluate(Plan(design, catalogue)).runs[0].verdict == "near"
    assert evaluate(Plan(tied, catalogue)).runs[0].verdict == "not_met"


# Channels


def test_legal_blocks_by_the_worked_example() -> None:
    assert band_plan(RULES, "europe").primaries("5", 40)[-1] == 132
    assert band_plan(RULES, "europe").primaries("5", 80)[-1] == 116
    assert 144 not in band_plan(RULES, "europe").legal["5"]
    assert band_plan(RULES, "europe").primaries("6", 80) == (5, 21, 37, 53, 69, 85)
    assert band_plan(RULES, "americas").primaries("6", 80)[-1] == 213
    assert (
        149 in band_plan(RULES, "europe", True).legal["5"]
        and 149 not in band_plan(RULES, "europe").legal["5"]
    )


def test_hand_set_primaries_share_the_block_that_holds_them() -> None:
    assert (
        band_plan(RULES, "americas").overlap("5", 80, 44, 52) == 0
        and band_plan(RULES, "americas").overlap("5", 40, 36, 40) == 1
    )
    assert (
        band_plan(RULES, "americas").overlap("5", 80, 36, 48) == 1
        and band_plan(RULES, "americas").overlap("5", 40, 165, 161) == 0
    )
    assert band_plan(RULES, "europe").block("5", 80, 132) == (132, 136)
    assert band_plan(RULES, "europe").block("5", 40, 140) == (140,)


@pytest.mark.parametrize(("band", "channel"), [("5", 149), ("2.4", 36), ("5", 7), ("6", 97)])
def test_a_channel_the_domain_does_not_have_is_refused(catalogue: Catalogue, band: str, channel: int) -> None:
    point = access_point(5, 5, model="ravelmoor-c6")
    radio = Radio.model_validate({"id": "r", "device": "ap-1", "band": band, "channel": channel})
    before = design_of(*shell(), point)
    after = apply(before, [put(radio)])
    with pytest.raises(DesignError, match=f"channel {channel} is not open on {band} GHz in Europe"):
        check_edit(before, after, [put(radio)], load_catalogue())
    result = evaluate(Plan(after, catalogue), wait=True)
    finding = next(f for f in result.findings if f.id == "signal-illegal-r")
    planned = next(r for r in result.signal.radios or () if r.band == band)
    assert planned.channel in band_plan(RULES, "europe").legal[planned.band]
    louder = radio.model_copy(update={"power_dbm": 10.0})
    cured = apply(after, finding.cures[0].changes)
    assert not [f for f in evaluate(Plan(cured, catalogue), wait=True).findings if "illegal" in f.id]
    check_edit(apply(before, [put(radio)]), apply(after, [put(radio)]), [put(radio)], load_catalogue())
    with pytest.raises(DesignError):
        check_edit(after, apply(after, [put(louder)]), [put(louder)], load_catalogue())


levels = st.integers(-95, -50)


@st.composite
def tasks(draw: st.DrawFn) -> ChannelProblem:
    n = draw(st.integers(1, 5))
    heard = [[-200] * n for _ in range(n)]
    for i, j in itertools.combinations(range(n), 2):
        heard[i][j] = heard[j][i] = draw(levels)
    band, width, options = draw(
        st.sampled_from([("2.4", 20, (1, 6, 11)), ("5", 40, (36, 44, 52)), ("5", 80, (36, 52))])
    )
    fixed = tuple(
        draw(st.sampled_from([None, None, options[0], 6 if band == "2.4" else 40])) for _ in range(n)
    )
    return ChannelProblem(
        band, width, options, tuple(map(tuple, heard)), fixed, band_plan(RULES, "americas", True)
    )


@examples(50)
@given(tasks())
def test_no_channel_plan_is_better(task: ChannelProblem) -> None:
    """Every plan tried: overlap times dB above -82, by spans of megahertz rather than blocks."""

    def shared(one: int, other: int) -> float:
        if task.band == "2.4":
            return (1, 0.77, 0.54, 0.31, 0.09, 0)[min(5, abs(one - other))]
        per = task.width_mhz // 5
        return float((one - 36) // per == (other - 36) // per)

    def cost(plan: tuple[int, ...]) -> float:
        return sum(
            shared(plan[i], plan[j]) * max(0, task.heard_dbm[i][j] + 82)
            for i, j in itertools.combinations(range(len(plan)), 2)
        )

    choices = [task.options if f is None else (f,) for f in task.fixed]
    best = min(cost(plan) for plan in itertools.product(*choices))
    found_plan, quick = solve(task), greedy(task)
    assert found_plan.proven
    assert found_plan.cost_db == pytest.approx(cost(found_plan.channels)) == pytest.approx(best)
    assert quick.cost_db == pytest.approx(cost(quick.channels)) and quick.cost_db >= best - 1e-9
    assert quick.bound_db <= best


RULES = load_catalogue().rules
