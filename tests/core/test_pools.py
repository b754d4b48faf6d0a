"""Pools of addresses by hand and by rule, and limits for all of a network."""

from __future__ import annotations

import ipaddress

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.controlled import Differs
from heathrise.core.design import Design, Network, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.settings import host_number
from heathrise.core.settings.networks import network_sheet
from heathrise.core.settings.pools import given_out, pool_of
from heathrise.core.views.push import taken_over
from heathrise.demo import music_school

RULES = load_catalogue().rules
SCHOOL = music_school()
_ENDS = st.none() | st.integers(2, 400)


def _visitors(**more: object) -> Network:
    return SCHOOL.of(Network)["net-guest"].model_copy(update=more)


@given(st.sampled_from(["10.0.0.0", "10.0.4.16", "fd00:7::"]), st.integers(20, 32), _ENDS, _ENDS)
def test_a_pool_by_hand_holds_hosts_alone_else_it_is_by_rule(
    base: str, prefix: int, first: int | None, last: int | None
) -> None:
    bits = prefix + 96 if ":" in base else prefix
    subnet = ipaddress.ip_network(f"{base}/{bits}", strict=False)
    network = _visitors(subnet=str(subnet), pool_first=first, pool_last=last)
    # Slowly and plainly: by rule all hosts but the gateway and those that are kept; by hand what is between.
    hosts = list(range(2, subnet.num_addresses - 1))
    kept = min(int(RULES["settings.fixed_addresses"]), subnet.num_addresses // 4)
    by_rule = [h for h in hosts if h > kept] if subnet.num_addresses >= 8 else hosts
    low = by_rule[0] if first is None and by_rule else first or 2
    high = by_rule[-1] if last is None and by_rule else last or 1
    said = [h for h in hosts if low <= h <= high]
    fits = bool(said) and low in hosts and high in hosts
    assert list(pool_of(RULES, network, subnet)) == (said if fits else by_rule)
    assert given_out(RULES, network, subnet) == len(said if fits else by_rule)


def test_a_pool_beyond_its_subnet_is_found_and_cured() -> None:
    design = apply(SCHOOL, [put(_visitors(pool_first=200, pool_last=5_000))])
    subnet = SCHOOL.of(Network)["net-guest"].subnet
    found = {f.id: f for f in evaluate(Plan(design, load_catalogue())).findings}["settings-pool-net-guest"]
    assert found.text.startswith(
        f"Visitors: its pool ends at 5000, and the last address of {subnet} for a host"
    )
    assert found.severity == "not_met"
    after = apply(design, found.cures[0].changes)
    row = after.of(Network)["net-guest"]
    assert (row.pool_first, row.pool_last) == (None, None)
    reversed_ = apply(SCHOOL, [put(_visitors(pool_first=90, pool_last=80))])
    texts = [f.text for f in evaluate(Plan(reversed_, load_catalogue())).findings]
    assert any("its pool begins at 90 and ends at 80" in t for t in texts)


def test_a_short_pool_runs_out_and_is_widened_with_its_end_free() -> None:
    network = _visitors(pool_first=20, pool_last=29)
    design = apply(SCHOOL, [put(network)])
    sheet = network_sheet(design, RULES, network)
    assert (sheet.pool_first, sheet.pool_last, sheet.pool) == ("192.168.20.20", "192.168.20.29", (20, 29))
    found = {f.id: f for f in evaluate(Plan(design, load_catalogue())).findings}["settings-size-net-guest"]
    assert "gives out 10 addresses" in found.text and found.figure == 10
    for cure in found.cures:
        row = apply(design, cure.changes).of(Network)["net-guest"]
        wide = ipaddress.ip_network(row.subnet)
        assert row.pool_last is None and given_out(RULES, row, wide) >= (found.limit or 0)


@pytest.mark.parametrize(
    ("limit", "severity", "words"),
    [
        (0.5, "near", "0.5 Mb/s for all of it together; one call with picture asks for"),
        (100_00.0, "note", "never binds"),
        (50.0, None, ""),
    ],
)
def test_a_limit_for_all_carries_a_call_and_binds(limit: float, severity: str | None, words: str) -> None:
    design = apply(SCHOOL, [put(_visitors(limit_all_mbps=limit))])
    rows = [
        f for f in evaluate(Plan(design, load_catalogue())).findings if f.id == "settings-limit-net-guest"
    ]
    assert [f.severity for f in rows] == ([severity] if severity else [])
    for found in rows:
        assert words in found.text
        after = apply(design, found.cures[0].changes)
        left = {f.id for f in evaluate(Plan(after, load_catalogue())).findings}
        assert found.id not in left


def test_what_a_controller_holds_of_a_pool_is_taken_over() -> None:
    plan = Plan(SCHOOL, load_catalogue())

    def taken(key: str, held: object) -> Design:
        changes = taken_over(plan, Differs(target="network/net-guest", key=key, held=held, wanted=None))
        assert changes is not None
        return apply(SCHOOL, changes)

    assert taken("pool_first", "192.168.20.100").of(Network)["net-guest"].pool_first == 100
    assert taken("pool_last", "192.168.20.199").of(Network)["net-guest"].pool_last == 199
    assert taken("limit_all_mbps", 40.0).of(Network)["net-guest"].limit_all_mbps == 40
    for key, held in (
        ("pool_last", "10.9.9.9"),
        ("pool_first", "192.168.20.1"),
        ("vlan", 9_999),
        ("lease_hours", "tea"),
        ("limit_all_mbps", -1),
    ):
        other = Differs(target="network/net-guest", key=key, held=held, wanted=None)
        assert taken_over(plan, other) is None, key


@given(st.ip_addresses(v=4), st.integers(8, 30), st.integers(0, 300))
def test_the_number_of_an_address_is_counted(base: ipaddress.IPv4Address, prefix: int, number: int) -> None:
    subnet = ipaddress.ip_network(f"{base}/{prefix}", strict=False)
    if number < subnet.num_addresses:
        assert host_number(str(subnet), str(subnet[number])) == number
    assert host_number(str(subnet), "tea") is None and host_number("tea", "10.0.0.1") is None
