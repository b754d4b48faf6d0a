"""Channel plans, networks and the settings sheet."""

from __future__ import annotations

import ipaddress
import os
import random
import threading
import time
from concurrent.futures import Future
from typing import get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.band_plan import band_plan
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Network, Purpose, Radio, WirelessName, apply
from heathrise.core.evaluation.cure_search import search_cures
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.settings.networks import Tone, lane_tones, network_sheet
from heathrise.core.settings.sheet import beacon_share
from heathrise.core.settings.subnets import free_subnet, parse_subnet
from heathrise.core.signal import air_of, assess, channel_plans, channel_tasks
from heathrise.core.signal.channels import ChannelProblem, Solution, channel_task, greedy, solve
from heathrise.core.signal.searches import Searches
from heathrise.core.views.held import held_settings

from ..thorough import examples
from .plans import access_point, design_of, shell, wall


def solve_channels(band, width, options, heard, fixed):  # type: ignore[no-untyped-def]
    found = solve(ChannelProblem(band, width, tuple(options), heard, fixed, AMERICAS))
    return found.channels, found.cost_db, found.bound_db, found.proven


def _heard(positions: list[float]) -> tuple[tuple[int, ...], ...]:
    """Levels that fall with distance, all above the level at which radios contend."""
    return tuple(tuple(-200 if a == b else round(-45 - abs(a - b)) for b in positions) for a in positions)


def test_four_in_a_line_share_one_channel_at_the_ends() -> None:
    channels, cost, bound, proven = solve_channels(
        "2.4", 20, (1, 6, 11), _heard([0, 10, 24, 34]), (None,) * 4
    )
    assert proven and bound == cost
    assert channels[0] == channels[3]
    assert len(set(channels)) == 3
    assert cost == pytest.approx(-45 - 34 - -82)


def test_with_channels_to_spare_nobody_shares_and_radar_is_kept_off() -> None:
    options = band_plan(RULES, "americas").primaries("5", 40)
    channels, cost, _, proven = solve_channels("5", 40, options, _heard([0, 5, 9]), (None,) * 3)
    assert cost == 0 and proven and len(set(channels)) == 3
    assert not any(52 <= c <= 144 for c in channels)


def test_a_fixed_channel_stays_and_others_make_way() -> None:
    channels, *_ = solve_channels("2.4", 20, (1, 6, 11), _heard([0, 5, 9]), (3, None, None))
    assert channels[0] == 3
    assert 11 in channels


@examples(20)
@given(st.lists(st.integers(0, 60), min_size=2, max_size=6, unique=True))
def test_never_worse_than_all_on_their_own_choice(spots: list[int]) -> None:
    heard = _heard([float(s) for s in spots])
    _, cost, _, _ = solve_channels("2.4", 20, (1, 6, 11), heard, (None,) * len(spots))
    in_turn = [(1, 6, 11)[k % 3] for k in range(len(spots))]
    naive = sum(
        AMERICAS.overlap("2.4", 20, in_turn[i], in_turn[j]) * max(0, heard[i][j] - -82)
        for i in range(len(spots))
        for j in range(i)
    )
    assert cost <= naive + 1e-9


def test_overlap_by_distance() -> None:
    assert [AMERICAS.overlap("2.4", 20, 1, 1 + d) for d in range(6)] == [1, 0.77, 0.54, 0.31, 0.09, 0]
    assert AMERICAS.overlap("5", 40, 36, 44) == 0
    assert AMERICAS.overlap("5", 80, 36, 36) == 1


def test_domains_differ() -> None:
    assert 149 in band_plan(RULES, "americas").primaries("5", 40)
    assert 149 not in band_plan(RULES, "europe").primaries("5", 40)
    assert max(band_plan(RULES, "europe").primaries("6", 80)) <= 93


def test_shared_air_by_hand_is_cured_by_the_plan(catalogue: Catalogue) -> None:
    points = [access_point(5, 5), access_point(9, 5, "ap-2")]
    radios = [Radio(id=f"r{k}", device=f"ap-{k}", band="5", channel=36) for k in (1, 2)]
    design = design_of(*shell(), *points, *radios)
    finding = next(
        f for f in evaluate(Plan(design, catalogue), wait=True).findings if f.id == "signal-channel-5"
    )
    cured = evaluate(Plan(apply(design, finding.cures[0].changes), catalogue), wait=True)
    assert not [f for f in cured.findings if f.id == "signal-channel-5"]


def _network(key: str = "n", vlan: int = 10, subnet: str = "", **more: object) -> Network:
    fields = {"purpose": "main", "subnet": subnet or f"192.168.{vlan}.0/24", **more}
    return Network.model_validate({"id": key, "name": key.title(), "vlan": vlan, **fields})


def _findings(catalogue: Catalogue, *elements: object) -> tuple[Design, dict]:
    design = design_of(*shell(), *elements)  # type: ignore[arg-type]
    return design, {f.id: f for f in evaluate(Plan(design, catalogue)).findings}


def test_upstream_subnet_is_refused_and_ten_offered(catalogue: Catalogue) -> None:
    design, found = _findings(catalogue, _network(vlan=1))
    cure = found["settings-upstream-n"].cures[0]
    assert "192.168.10.0/24" in cure.label
    mended = evaluate(Plan(apply(design, cure.changes), catalogue))
    assert not [f for f in mended.findings if f.severity == "not_met" and f.stage == "settings"]


@given(st.lists(st.integers(1, 254), max_size=40), st.integers(1, 254))
def test_a_free_subnet_is_free_and_private(taken: list[int], wanted: int) -> None:
    subnets = [ipaddress.IPv4Network(f"192.168.{n}.0/24") for n in taken]
    found = free_subnet(subnets, wanted)
    assert found is not None and found.is_private
    assert not any(found.overlaps(s) for s in subnets)


@given(
    st.ip_addresses(v=6, network="fd00::/8"),
    st.integers(9, 126),
    st.sampled_from(["short", "full", "upper", "host", "spaced"]),
)
def test_an_ipv6_subnet_is_one_however_it_is_spelt(
    address: ipaddress.IPv6Address, prefix: int, how: str
) -> None:
    plain = ipaddress.IPv6Network((address, prefix), strict=False)
    spelt = {
        "short": str(plain),
        "full": f"{plain.network_address.exploded}/{prefix}",
        "upper": str(plain).upper(),
        "host": f"{address}/{prefix}",
        "spaced": f" {plain} ",
    }[how]
    # As long as a field takes: the longest has no room for spaces.
    network = _network("a", 10, spelt if len(spelt) <= 43 else spelt.strip())
    assert parse_subnet(network.subnet) == plain
    _, found = _findings(load_catalogue(), network, _network("b", 20, "192.168.20.0/24"))
    assert not {
        f for f in found if f.startswith(("settings-subnet-a", "settings-overlap", "settings-octet-a"))
    }


@pytest.mark.parametrize(
    "subnet, finding, words",
    [
        ("10.0.0.0/8", "wide", "takes 16,777,216 addresses"),
        ("10.0.0.0/15", "wide", "takes 131,072 addresses"),
        ("10.0.0.0/16", None, ""),
        ("192.168.10.0/31", "size", "gives out 0 addresses"),
        ("192.168.10.0/32", "size", "gives out 0 addresses"),
        ("192.168.10.0/255.255.255.0", None, ""),
        ("192.168.010.0/24", "subnet", "is not a subnet such as"),
        ("192.168.10.0/33", "subnet", "is not a subnet such as"),
        ("fe80::/10", "public", "is not a private subnet"),
        ("::ffff:192.168.10.0/120", "public", "is not a private subnet"),
        ("0.0.0.0/0", "public", "is not a private subnet"),
    ],
)
def test_an_odd_subnet_is_told_for_what_it_is_and_mended(
    catalogue: Catalogue, subnet: str, finding: str | None, words: str
) -> None:
    design, found = _findings(catalogue, _network("n", 10, subnet, expected_clients=20))
    mine = {k: f for k, f in found.items() if k.endswith("-n") and "octet" not in k}
    if finding is None:
        assert not mine
        return
    told = mine[f"settings-{finding}-n"]
    assert words in told.text
    held_settings(Plan(design, catalogue))  # whatever is written, everything else is still worked out
    if told.cures:
        after = evaluate(Plan(apply(design, told.cures[0].changes), catalogue))
        assert not [f for f in after.findings if f.id.startswith(f"settings-{finding}-")]


@pytest.mark.parametrize("vlan", [0, 4095, -1, 2**31])
def test_a_vlan_that_is_none_is_refused_by_its_number(vlan: int) -> None:
    with pytest.raises(ValidationError, match=r"vlan[\s\S]*(greater|less) than or equal to (1|4094)"):
        _network("n", vlan)


def test_networks_that_overlap_or_share_a_vlan(catalogue: Catalogue) -> None:
    two = (_network("a", 10), _network("b", 10, "192.168.10.128/25"))
    _, found = _findings(catalogue, *two)
    assert {"settings-overlap-a-b", "settings-vlan-a-b"} <= set(found)


def test_nonsense_and_public_subnets_are_named(catalogue: Catalogue) -> None:
    _, found = _findings(
        catalogue,
        _network("a", 10, "ten"),
        _network("b", 20, "8.8.8.0/24"),
        _network("c", 30, expected_clients=300),
    )
    assert {"settings-subnet-a", "settings-public-b", "settings-size-c"} <= set(found)


def test_guests_are_isolated_on_wire_and_air(catalogue: Catalogue) -> None:
    guest = _network("g", 20, purpose="guest")
    name = WirelessName(id="s", network="g", ssid="Guests")
    design, found = _findings(catalogue, guest, name)
    assert {"settings-guest-g", "settings-guest-name-s"} <= set(found)
    for key in ("settings-guest-g", "settings-guest-name-s"):
        design = apply(design, found[key].cures[0].changes)
    left = {f.id for f in evaluate(Plan(design, catalogue)).findings}
    assert not {k for k in left if "guest" in k}


def test_network_sheet_keeps_the_first_addresses(school: Design) -> None:
    sheet = network_sheet(school, RULES, school.of(Network)["net-guest"])
    assert (sheet.gateway, sheet.pool_first, sheet.lease_hours) == ("192.168.20.1", "192.168.20.21", 4)
    assert not sheet.reaches and sheet.internet


def test_every_setting_of_the_school_has_a_reason(catalogue: Catalogue, school: Design) -> None:
    result = evaluate(Plan(school, catalogue), wait=True)
    sheet = result.settings
    radios = result.signal.radios or ()
    assert sheet is not None and result.signal.channels_proven and not sheet.mesh
    assert len(radios) == 2 * 15
    assert all(r.channel and r.channel_reason and r.power_reason for r in radios)
    assert all(r.eirp_dbm <= r.cap_dbm for r in radios)
    by_kind = {p.name: p for p in sheet.ports}
    assert by_kind["AP-1"].untagged_vlan == 99 and by_kind["AP-1"].tagged_vlans == (10, 15, 20)
    assert by_kind["CAM-1"].untagged_vlan == 40
    assert all(p.enabled == bool(p.name) for p in sheet.ports)


def test_mesh_stays_off_and_the_reason_is_true(catalogue: Catalogue, school: Design) -> None:
    wired = evaluate(Plan(school, catalogue)).settings
    assert wired is not None and wired.mesh_reason == "every access point is wired"
    cut_off = Design({k: t for k, t in school.tables.items() if k != "duct"})
    sheet = evaluate(Plan(cut_off, catalogue)).settings
    assert sheet is not None and not sheet.mesh and sheet.mesh_reason.endswith("for AP-15")


def test_beacons_fill_the_air() -> None:
    assert beacon_share(RULES, 4, 4, 1) == pytest.approx(0.4)
    assert beacon_share(RULES, 2, 3, 12) == pytest.approx(0.0132)


RULES = load_catalogue().rules
AMERICAS = band_plan(RULES, "americas", True)


def _crowd(catalogue: Catalogue, seed: int, count: int = 11) -> Design:
    spots = random.Random(seed)
    points = [
        access_point(spots.uniform(0.5, 59.5), spots.uniform(0.5, 39.5), f"ap-{k}") for k in range(count)
    ]
    walls = [wall(k, (12.0 * k, 0), (12.0 * k, 40), "brick-single") for k in range(1, 5)]
    return design_of(*shell(60, 40), *walls, *points)


def test_a_longer_search_is_held_to_where_it_is_better(
    catalogue: Catalogue, monkeypatch: pytest.MonkeyPatch
) -> None:
    """While only the greedy plan is known, the search's own is offered, dB by dB what it says."""

    class Hasty:
        def begin(self, task: ChannelProblem) -> Future[Solution]:
            known: Future[Solution] = Future()
            known.set_result(greedy(task))
            return known

        def now(self, task: ChannelProblem) -> tuple[Solution, bool]:
            return greedy(task), False

    for seed in range(40):
        design = _crowd(catalogue, seed)
        task = channel_task(air_of(design, catalogue), "2.4")
        if greedy(task).cost_db > solve(task).cost_db:
            break
    else:
        raise AssertionError("greedy was best everywhere")
    best = solve(task)
    assert search_cures(Plan(design, catalogue), "signal-channel-2.4") == []  # it is known already
    monkeypatch.setattr(assess, "searches", Hasty())
    told = next(
        f for f in evaluate(Plan(design, catalogue), wait=True).findings if f.id == "signal-channel-2.4"
    )
    assert told.searches_cures
    ticks: list[tuple[int, int]] = []
    (cure,) = search_cures(
        Plan(design, catalogue), told.id, lambda done, of: bool(ticks.append((done, of))) or True
    )
    assert f"{greedy(task).cost_db:.0f} dB of shared air becomes {best.cost_db:.0f}" in cure.effect
    assert ticks and ticks[0][1] == 600
    after = apply(design, cure.changes)
    check(after, catalogue)
    fixed = channel_task(air_of(after, catalogue), "2.4").fixed
    assert None not in fixed and task.cost_db([c for c in fixed if c]) == best.cost_db


def test_a_search_that_is_stopped_is_no_worse_than_the_greedy_plan(catalogue: Catalogue) -> None:
    task = channel_task(air_of(_crowd(catalogue, 3, 40), catalogue), "2.4")
    start = time.monotonic()
    found = solve(task, 30.0, lambda done, _total: done < 5)
    assert time.monotonic() - start < 15
    assert found.bound_db <= found.cost_db <= greedy(task).cost_db


def test_a_search_gives_way_to_whoever_draws() -> None:
    own = os.getpriority(os.PRIO_PROCESS, threading.get_native_id())
    nice = Searches()._pool.submit(lambda: os.getpriority(os.PRIO_PROCESS, threading.get_native_id()))
    assert nice.result() > own
    assert os.getpriority(os.PRIO_PROCESS, threading.get_native_id()) == own


def test_radios_that_share_air_may_be_as_loud_as_their_clients(catalogue: Catalogue) -> None:
    """Thirty in a row, 17 m apart, on nine channels: 3 dB less from each, and each pair that was
    heard by less than 3 dB over contention shares no more; no room is worse off for it."""
    points = [access_point(6 + 17 * k, 3, f"ap-{k}") for k in range(30)]
    design = design_of(*shell(510, 6), *points)
    before = evaluate(Plan(design, catalogue), wait=True)
    finding = next(f for f in before.findings if f.id == "signal-channel-5")
    cure = next(c for c in finding.cures if "as loud as the clients" in c.label)
    air = air_of(design, catalogue)
    plan = channel_plans(air, channel_tasks(air, begin=True), wait=True)["5"]
    pairs = {tuple(sorted((a, b))): level for a, rows in plan.contenders.items() for b, level in rows}
    quieter_db = air.radios["ap-0", "5"].power_dbm - 14
    assert quieter_db == 3
    still = sum(level - quieter_db >= -82 for level in pairs.values())
    assert f"3 dB less of the others: {len(pairs)} pairs share air now, {still} then" in cure.effect
    assert still < len(pairs)
    after = evaluate(Plan(apply(design, cure.changes), catalogue))
    assert [r.share for r in after.rooms] == [r.share for r in before.rooms]
    assert [r.worst_first_dbm for r in after.rooms] == [r.worst_first_dbm for r in before.rooms]
    assert all(c.element["power_dbm"] == 14 for c in cure.changes)


@given(st.lists(st.sampled_from(get_args(Purpose)), max_size=9))
def test_no_two_lanes_have_one_colour_while_there_are_others(purposes: list[Purpose]) -> None:
    networks = [_network(f"n{k}", 10 + k, purpose=p) for k, p in enumerate(purposes)]
    tones = lane_tones(networks)
    assert len(set(tones.values())) == min(len(networks), len(get_args(Tone)))
    for network in networks[:1]:
        assert lane_tones([network])[network.id] == tones[network.id]
    assert lane_tones(networks[: len(networks) // 2]).items() <= tones.items()
