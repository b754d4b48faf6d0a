"""The busiest hour counts everywhere: over relays, on 6 GHz, for old clients, in what is promised
of complaints; two that hang on one another share a channel. Worked by hand and by plain looks."""

from __future__ import annotations

import itertools
from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.context.scope import as_planned
from heathrise.core.design import (
    ClientGroup,
    Complaint,
    Design,
    Device,
    Network,
    Radio,
    Run,
    Space,
    Switch,
    WirelessName,
    apply,
    put,
)
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.settings import beacons_by_band
from heathrise.core.signal import air_of, busy_hour, channel_plans, channel_tasks, mesh_links
from heathrise.core.signal.channels import ChannelProblem, solve, tied
from heathrise.core.signal.hearing import hearing_dbm
from heathrise.core.views.busy_hour import busy_view
from heathrise.core.views.offers import offer_of
from heathrise.demo import SITES

from ..thorough import examples
from .plans import access_point, design_of, rack, shell

CATALOGUE = load_catalogue()


def _room(key: str, west: float) -> Space:
    return Space(
        id=key,
        floor="f",
        name=key.title(),
        use="calls",
        outline=((west, 0), (west + 4, 0), (west + 4, 4), (west, 4)),
    )


def _relayed(clients: int, second: bool = False) -> Design:
    """A wired access point, one 20 m on that hangs on it over the air, perhaps a third behind."""
    rows = [
        *shell(80, 6),
        rack(1, 1),
        access_point(2, 2),
        access_point(22, 2, "ap-2"),
        Run(id="r2", device="ap-2", over_air=True),
        _room("far", 20.0),
        ClientGroup(id="g", space="far", kind="laptop", count=clients),
        Network(id="n", name="Main", purpose="main", vlan=1, subnet="192.168.1.0/24"),
        WirelessName(id="s", network="n", ssid="Main"),
        Switch(id="sw", equipment_room="rack", name="SW", model="dunthrip-s8"),
    ]
    if second:
        rows += [
            access_point(42, 2, "ap-3"),
            Run(id="r3", device="ap-3", over_air=True),
            _room("end", 40.0),
            ClientGroup(id="h", space="end", kind="laptop", count=4),
        ]
    return design_of(*rows)


def _busy(design: Design):  # type: ignore[no-untyped-def]
    air = air_of(design, CATALOGUE)
    plans = channel_plans(air, channel_tasks(air, begin=True), wait=True)
    return air, plans, busy_hour(air, plans, beacons_by_band(design, CATALOGUE))


@pytest.mark.parametrize("second", [False, True])
def test_what_hangs_on_a_relay_goes_through_the_air_twice(second: bool) -> None:
    """10 laptops of 8 Mb/s at the relay, and 4 at one behind it: each link carries what hangs on
    it at what a user gets over it, on top of what the relay sends to its own clients."""
    air, plans, busy = _busy(_relayed(10, second))
    links = {k.device: k for k in mesh_links(air)}
    loads = {load.device: load for load in busy.loads if load.band == "5"}
    asked: dict[str, float] = {}
    for device, load in loads.items():
        asked[device] = sum(u.mbps for u in load.using)
    for load in busy.loads:  # what they ask for on 2.4 GHz goes over the link as well
        if load.band != "5":
            asked[load.device] += sum(u.mbps for u in load.using)
    behind = {
        "ap-2": asked["ap-2"] + (asked.get("ap-3", 0) if second and links["ap-3"].parent == "ap-2" else 0)
    }
    if second:
        behind["ap-3"] = asked["ap-3"]
    for device, mbps in behind.items():
        rate = links[device].rate_mbps * 0.65
        assert loads[device].relayed == pytest.approx(mbps / rate, rel=0.01)
    assert loads["ap-1"].relayed == 0
    # The two ends share a channel, so the parent's air is taken by the link as well.
    assert plans["5"].channels["ap-1"] == plans["5"].channels["ap-2"]
    assert loads["ap-1"].others >= loads["ap-2"].relayed - 1e-3


def test_six_gigahertz_takes_part(catalogue: Catalogue) -> None:
    design = design_of(
        *shell(8, 8),
        access_point(4, 4, model="ravelmoor-c6"),
        ClientGroup(id="g", space="room", kind="phone", count=6),
    )
    _, _, busy = _busy(design)
    using = {load.band: sum(u.clients for u in load.using) for load in busy.loads}
    assert using["6"] == pytest.approx(6) and not using["5"] and not using["2.4"]


def test_old_clients_stay_on_the_lowest_band_and_want_a_name() -> None:
    old = ClientGroup(id="g", space="room", kind="phone", count=6, old=True)
    network = Network(id="n", name="Things", purpose="devices", vlan=30, subnet="10.0.3.0/24")
    design = design_of(*shell(8, 8), access_point(4, 4), network, old)
    _, _, busy = _busy(design)
    assert {load.band for load in busy.loads if load.using} == {"2.4"}
    finding = next(f for f in evaluate(Plan(design, CATALOGUE)).findings if f.id == "brief-old")
    after = apply(design, finding.cures[0].changes)
    (name,) = after.of(WirelessName).values()
    assert (name.bands, name.security, name.fast_transition) == (("2.4",), "wpa2", False)
    found = {f.id for f in evaluate(Plan(after, CATALOGUE)).findings}
    assert "brief-old" not in found
    # On a wire, or where there is none, nobody asks for a name.
    wired = apply(design, [put(old.model_copy(update={"wired": 6}))])
    assert "brief-old" not in {f.id for f in evaluate(Plan(wired, CATALOGUE)).findings}


def test_the_busiest_hour_is_a_finding_with_cures_and_in_the_offers() -> None:
    school = next(s for s in SITES if s.key == "school").make()
    found = evaluate(Plan(school, CATALOGUE), wait=True)
    busy = found.signal.busy
    assert busy is not None and busy.worst > busy.most_share
    finding = next(f for f in found.findings if f.id == "signal-busy-5")
    assert finding.severity == "not_met" and finding.figure == pytest.approx(100 * busy.worst, abs=0.1)
    view = busy_view(Plan(school, CATALOGUE))
    assert view.busy.worst == pytest.approx(busy.worst) and finding.searches_cures and view.cures
    offer = offer_of(None, "x", Plan(school, CATALOGUE, on=date(2026, 11, 25)))
    assert offer.busiest == pytest.approx(busy.worst, abs=0.001)


def test_a_cure_says_what_it_spoils() -> None:
    """Each room that a cure leaves worse, and each walk it breaks, stands in its words."""
    for key in ("school", "practice"):
        design = next(s for s in SITES if s.key == key).make()
        planned = as_planned(design)
        crowd = [put(g.model_copy(update={"count": 6 * g.count})) for g in planned.of(ClientGroup).values()]
        full = apply(design, crowd)
        before = {r.space: r for r in evaluate(Plan(full, CATALOGUE), wait=True).rooms}
        rank = {"not_met": 0, "near": 1, "met": 2, "not_needed": 3}
        for cure in busy_view(Plan(full, CATALOGUE)).cures:
            after = evaluate(Plan(apply(full, cure.changes), CATALOGUE), wait=True)
            worse = [r.name for r in after.rooms if rank[r.verdict] < rank[before[r.space].verdict]]
            assert bool(worse) == ("spoils: " in cure.effect and " from " in cure.effect) or not worse
            for name in worse[:3]:
                assert name in cure.effect, (cure.label, cure.effect)


# -- complaints ------------------------------------------------------------------------------------


def _pain(kind: str, at: tuple[float, float]) -> Complaint:
    return Complaint.model_validate({"id": "p", "floor": "f", "kind": kind, "at": at, "words": "w"})


def _outcome(design: Design) -> tuple[str, str]:
    (pain,) = evaluate(Plan(design, CATALOGUE)).brief.pains
    return pain.outcome, pain.planned


@pytest.mark.parametrize("kind", ["slow", "full_bars"])
def test_slow_is_not_mended_over_air_that_is_full_or_a_link_that_halves(kind: str) -> None:
    base = [
        *shell(12, 12),
        rack(1, 1),
        access_point(6, 6),
        Switch(id="sw", equipment_room="rack", name="SW", model="dunthrip-s8"),
    ]
    few = design_of(*base, _pain(kind, (6, 7)), ClientGroup(id="g", space="room", kind="phone", count=2))
    assert _outcome(few)[0] == "mended"
    # A line of 500 and 75 phones: what they ask for fits the line and not the air.
    site = few.site.model_copy(update={"line_mbps": 5000.0, "width_5ghz_mhz": 20})
    many = apply(few, [put(site), put(ClientGroup(id="g", space="room", kind="phone", count=75))])
    outcome, said = _outcome(many)
    assert outcome == "not_addressed" and "in the busiest hour" in said
    halved = apply(_relayed(1), [put(_pain(kind, (22, 3)))])
    outcome, said = _outcome(halved)
    assert outcome != "mended" and ("the air to AP-1" in said or "air" in said)


def test_only_the_switches_in_its_way_count() -> None:
    """An old switch of 100 Mb/s in another rack slows nobody who does not hang on it."""
    rows = [
        *shell(12, 12),
        rack(1, 1),
        access_point(6, 6),
        _pain("slow", (6, 7)),
        Switch(id="sw", equipment_room="rack", name="SW", model="dunthrip-s8"),
    ]
    design = design_of(*rows)
    aside = Switch(id="sw-2", equipment_room="rack", name="SW-2", model="old-switch-100")
    for one in (design, apply(design, [put(aside)])):
        outcome, said = _outcome(one)
        assert outcome == "mended" and "100 Mb/s" not in said.replace("1000 Mb/s", "")


@pytest.mark.parametrize("kind", ["dead", "slow", "lags"])
def test_nothing_is_mended_by_what_finds_no_port(kind: str) -> None:
    cameras = [
        Device(
            id=f"c{k}",
            floor="f",
            kind="camera",
            model="peltwick-pan",
            name=f"C{k}",
            at=(2.0 + k, 9),
            height_m=2,
        )
        for k in range(5)
    ]
    rows = [
        *shell(12, 12),
        rack(1, 1),
        *cameras,
        access_point(6, 6),
        _pain(kind, (6, 7)),
        Switch(id="sw", equipment_room="rack", name="SW", model="dunthrip-s8"),
    ]
    design = design_of(*rows)
    result = evaluate(Plan(design, CATALOGUE))
    left = {row.device for row in result.power.left}
    outcome = result.brief.pains[0].outcome
    assert (outcome == "not_addressed") == ("ap-1" in left) and left


def test_a_wire_is_given_only_by_a_socket_that_ends_in_a_port() -> None:
    outlet = Device(
        id="o",
        floor="f",
        kind="outlet",
        model="outlet-double",
        name="O",
        at=(5, 0.1),
        height_m=0.3,
        mount="wall",
    )
    group = ClientGroup(id="g", space="room", kind="television", count=2, wired=2)
    switch = Switch(id="sw", equipment_room="rack", name="SW", model="dunthrip-s8")
    rows = [*shell(12, 12), rack(1, 1), outlet, group, switch]
    (wish,) = evaluate(Plan(design_of(*rows), CATALOGUE)).brief.wishes
    assert (wish.given, wish.missing) == (2, 0)
    # Ten sockets and fewer ports.
    more = [
        outlet.model_copy(update={"id": f"o{k}", "name": f"O{k}", "at": (1.0 + k, 0.1)}) for k in range(4)
    ]
    many = group.model_copy(update={"count": 10, "wired": 10})
    result = evaluate(Plan(design_of(*rows[:-2], many, switch, *more), CATALOGUE))
    held = sum(p.device is not None for p in result.power.ports)
    assert held < 10 and result.brief.wishes[0].given == held


# -- channels of what is tied ----------------------------------------------------------------------


@examples(40)
@given(st.integers(2, 5), st.data())
def test_tied_radios_share_a_channel_at_the_least_cost_of_all_that_do(n: int, data: st.DataObject) -> None:
    plan = air_of(design_of(*shell(), access_point(1, 1)), CATALOGUE).channels
    options = (36, 44, 52)
    heard = [[0] * n for _ in range(n)]
    for i, j in itertools.combinations(range(n), 2):
        heard[i][j] = heard[j][i] = data.draw(st.integers(-95, -50))
    pairs = data.draw(st.lists(st.sampled_from(list(itertools.combinations(range(n), 2))), max_size=2))
    whole = ChannelProblem("5", 40, options, tuple(map(tuple, heard)), (None,) * n, plan)
    task = tied(whole, pairs)
    found = solve(task, 2.0)
    groups = task.members or tuple((k,) for k in range(n))
    each = {k: c for g, c in zip(groups, found.channels, strict=True) for k in g}
    assert all(each[a] == each[b] for a, b in pairs)
    best = min(
        whole.cost_db(chosen)
        for chosen in itertools.product(options, repeat=n)
        if all(chosen[a] == chosen[b] for a, b in pairs)
    )
    cost = whole.cost_db([each[k] for k in range(n)])
    assert cost == pytest.approx(found.cost_db + task.inner_db)
    assert cost <= best + 1e-6 or not found.proven


def test_two_that_are_set_apart_cannot_hang_on_one_another() -> None:
    design = _relayed(1)
    set_to = [put(Radio(id=f"rd-{k}", device=f"ap-{k}", band="5", channel=c)) for k, c in ((1, 36), (2, 44))]
    found = next(
        f
        for f in evaluate(Plan(apply(design, set_to), CATALOGUE), wait=True).findings
        if f.id == "signal-mesh-ap-2"
    )
    assert found.severity == "not_met" and "different channels" in found.text


def test_any_parent_that_works_is_a_second_one() -> None:
    """The loudest second is over the limit of level; a lesser one within it counts all the same."""
    rows = [
        *shell(60, 8),
        rack(1, 1),
        access_point(4, 4),
        access_point(20, 4, "ap-2"),
        access_point(26, 4, "ap-3"),
        Run(id="r3", device="ap-3", over_air=True),
    ]
    design = design_of(*rows)
    (link,) = mesh_links(air_of(design, CATALOGUE))
    assert link.parent == "ap-2"
    air = air_of(design, CATALOGUE)
    heard = hearing_dbm(air, "5")
    near = heard[2, 1] - heard[2, 0] <= air.rules["signal.mesh_second_db"]
    assert (link.second == "ap-1") == bool(near)
