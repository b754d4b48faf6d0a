"""What a proof says is so: places against trying all, answers against the whole plan they make,
offers with the switch they need, cures of racks as the ports then really lie, subnets by what they
give out."""

from __future__ import annotations

import itertools
import math
from datetime import date

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Device, Network, Switch, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.placement import Wishes, needless, search_sites
from heathrise.core.placement.cover import CoverProblem, choose, demands_of
from heathrise.core.settings import settings_sheet
from heathrise.core.views.added_ports import with_ports
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.offers import make_variant, offer_of
from heathrise.demo import SITES

from ..thorough import count, examples
from .plans import access_point, design_of, rack, shell

CATALOGUE = load_catalogue()
TODAY = date(2026, 1, 5)


# -- places ----------------------------------------------------------------------------------------


@examples(80)
@given(st.data())
def test_the_fewest_are_the_fewest_whichever_points_a_room_leaves_out(data: st.DataObject) -> None:
    """Against trying all sets of places: a room is met where its share of points is served, and
    the search may leave out other points than those that the fewest places serve."""
    places, points = data.draw(st.integers(2, 6)), data.draw(st.integers(4, 40))
    chance = np.random.default_rng(data.draw(st.integers(0, 10_000)))
    share = data.draw(st.sampled_from([0.8, 0.9, 0.95]))
    first = chance.random((places, points)) < data.draw(st.sampled_from([0.3, 0.6]))
    second = first | (chance.random((places, points)) < 0.2)
    rooms = chance.integers(0, 2, points)
    seconds = (rooms == 0) & data.draw(st.booleans())
    demands = demands_of(first, second, seconds, rooms, share)

    def served(taken: tuple[int, ...]) -> bool:
        rows = list(taken)
        ok = first[rows].any(axis=0) & (~seconds | (second[rows].sum(axis=0) >= 2))
        everybody = np.where(seconds, (first.any(axis=0)) & (second.sum(axis=0) >= 2), first.any(axis=0))
        for room in np.unique(rooms):
            here = rooms == room
            wanted = math.ceil(share * here.sum() - 1e-9)
            if ok[here].sum() < min(wanted, everybody[here].sum()):
                return False
        return True

    sets = (s for n in range(places + 1) for s in itertools.combinations(range(places), n))
    best = next((len(s) for s in sets if served(s)), None)
    found = choose(CoverProblem(demands, (1,) * places), 5.0)
    assert found is not None
    if best is None:
        assert found.impossible
    else:
        assert demands.exact or not demands.spared
        assert (len(found.places), found.proven) == (best, True) and served(found.places)


def test_one_place_does_where_two_would_be_proven_by_leaving_out_the_wrong_points() -> None:
    """Twenty points, one of which may be left out. Two are each served by one place only, the rest
    by place 0 alone or by both: left out beforehand goes the wrong one, and two were needed."""
    first = np.zeros((3, 20), dtype=bool)
    first[0, :19] = True  # one place serves all but the last
    first[1, 19] = first[2, 19] = True  # the last is served by two, so it is not the rarest
    demands = demands_of(first, first, np.zeros(20, dtype=bool), np.zeros(20, dtype=np.intp), 0.95)
    found = choose(CoverProblem(demands, (1, 1, 1)), 5.0)
    assert found is not None and (found.places, found.proven) == ((0,), True)


@pytest.mark.parametrize("key", ["mill", "practice"])
def test_an_answer_is_a_whole_plan(key: str) -> None:
    """Taken for real, it costs what it says, has a port for all that can have one, names what does
    not do, and the cheapest is the cheapest of those beside it."""
    design = next(s for s in SITES if s.key == key).make()
    found = search_sites(Plan(design, CATALOGUE, on=TODAY), Wishes(seconds=count(12, 4)))
    for answer in found.answers:
        after = apply(design, answer.changes)
        worked = evaluate(Plan(after, CATALOGUE))
        total = order_of(Plan(after, CATALOGUE, on=TODAY)).sum.total
        assert answer.offer.total == pytest.approx(total, abs=0.011)
        assert {r.name for r in worked.rooms if r.verdict in ("near", "not_met")} == set(answer.short)
        for row in worked.power.left:
            assert any(f.startswith(f"{row.name}:") for f in answer.fails)
            assert not with_ports(Plan(after, CATALOGUE))[0]  # no cure has a port for it
        for run in worked.runs:
            bad = run.verdict in ("not_met", "no_way", "test_first")
            assert bad == any(f.startswith(f"{run.name}: {run.reason}") for f in answer.fails)
        assert 0 <= answer.gap <= 1
    cheapest = next((a for a in found.answers if a.goal == "cheapest"), None)
    if cheapest is not None:
        rest = [
            a
            for a in found.answers
            if len(a.short) <= len(cheapest.short) and len(a.fails) <= len(cheapest.fails)
        ]
        assert cheapest.offer.total == min(a.offer.total for a in rest)
    strongest = next((a for a in found.answers if a.goal == "strongest"), None)
    if strongest is not None and strongest.proven:
        assert "not " not in strongest.proof.split(";")[1] and "dB take more than" in strongest.proof


def test_the_number_that_is_needed_is_said() -> None:
    """Six rooms far apart want one each: that two do not do says six, not three."""
    rows = shell()[:3]
    for k in range(6):
        west = 70.0 * k
        rows.append(
            type(shell()[3]).model_validate(
                {
                    "id": f"r{k}",
                    "floor": "f",
                    "name": f"R{k}",
                    "use": "everyday",
                    "outline": ((west, 0), (west + 3, 0), (west + 3, 3), (west, 3)),
                }
            )
        )
    found = search_sites(
        Plan(design_of(*rows), CATALOGUE, on=TODAY), Wishes(goals=("fewest",), most=2, seconds=8)
    )
    assert not found.answers and found.none.endswith("at least 6 are needed.")


def test_what_is_not_needed_breaks_no_call_either() -> None:
    mill = next(s for s in SITES if s.key == "mill").make()
    before = {h.habit for h in evaluate(Plan(mill, CATALOGUE)).signal.habits or () if h.verdict == "holds"}
    for cure in needless(Plan(mill, CATALOGUE)):
        after = evaluate(Plan(apply(mill, cure.changes), CATALOGUE))
        assert before <= {h.habit for h in after.signal.habits or () if h.verdict == "holds"}


# -- offers and racks ------------------------------------------------------------------------------


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_an_offer_by_policy_has_a_port_for_what_it_adds(key: str) -> None:
    design = next(s for s in SITES if s.key == key).make()
    before = evaluate(Plan(design, CATALOGUE))
    changes = make_variant(Plan(design, CATALOGUE), "second_everywhere")
    after = apply(design, changes)
    worked = evaluate(Plan(after, CATALOGUE))
    fresh = set(after.of(Device)) - set(design.of(Device))
    left = {row.device for row in worked.power.left}
    cured = with_ports(Plan(after, CATALOGUE))[0]
    assert not (left & fresh) or not cured
    if len(after.of(Switch)) > len(design.of(Switch)):
        offer = offer_of(None, "x", Plan(after, CATALOGUE, on=TODAY))
        plain = offer_of(None, "y", Plan(design, CATALOGUE, on=TODAY))
        assert offer.total > plain.total and worked.totals.ports > before.totals.ports


@examples(15)
@given(
    st.integers(3, 14), st.integers(0, 4), st.sampled_from(["dunthrip-s8", "dunthrip-s16", "dunthrip-u16"])
)
def test_a_rack_s_cure_is_what_its_words_say(points: int, cameras: int, model: str) -> None:
    """Taken, every link has its port unless it says otherwise, and the watts are kept that it says
    are kept."""
    rows = [access_point(2.0 + 1.2 * k, 5, f"ap-{k}") for k in range(points)]
    rows += [
        Device(
            id=f"c{k}",
            floor="f",
            kind="camera",
            model="peltwick-pan",
            name=f"C{k}",
            at=(3.0 + k, 9),
            height_m=2,
        )
        for k in range(cameras)
    ]
    switch = Switch(id="sw", equipment_room="rack", name="SW", model=model)
    design = design_of(*shell(), rack(1, 1), *rows, switch)
    result = evaluate(Plan(design, CATALOGUE))
    for cure in result.power.cures.get("rack", ()):
        after = evaluate(Plan(apply(design, cure.changes), CATALOGUE)).power
        assert bool(after.left) == ("still without a port" in cure.effect)
        full = [s.name for s in after.switches if s.counted_w > s.usable_w + 1e-6]
        if "of the watts kept" in cure.effect:
            assert bool(full) == ("less than that free" in cure.effect)


# -- subnets ---------------------------------------------------------------------------------------


def _network(subnet: str, clients: int) -> Network:
    return Network(id="n", name="Main", purpose="main", vlan=10, subnet=subnet, expected_clients=clients)


@pytest.mark.parametrize("text", ["192.168.10.5", "192.168.10.0", "10.0.0.1", "fd00::1"])
def test_a_single_address_is_no_subnet(text: str) -> None:
    design = design_of(*shell(), _network(text, 5))
    found = {f.id: f for f in evaluate(Plan(design, CATALOGUE)).findings}
    assert "is not a subnet" in found["settings-subnet-n"].text


@examples(60)
@given(st.integers(20, 28), st.integers(0, 900))
def test_a_subnet_is_as_large_as_what_it_gives_out(prefix: int, clients: int) -> None:
    """The pool's own addresses counted one by one, against what the clients want."""
    import ipaddress

    network = _network(f"192.168.16.0/{prefix}", clients)
    design = design_of(*shell(), network)
    sheet = settings_sheet(design, CATALOGUE, [], {}).networks[0]
    pool = int(ipaddress.ip_address(sheet.pool_last)) - int(ipaddress.ip_address(sheet.pool_first)) + 1
    factor = CATALOGUE.rules["settings.clients_factor"]
    found = next((f for f in evaluate(Plan(design, CATALOGUE)).findings if f.id == "settings-size-n"), None)
    assert (found is not None) == (pool < math.ceil(factor * clients))
    if found is not None:
        assert found.figure == pool
        for cure in found.cures:
            ids = {f.id for f in evaluate(Plan(apply(design, cure.changes), CATALOGUE)).findings}
            assert "settings-size-n" not in ids
    assert put(network)
