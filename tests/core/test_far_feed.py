"""Several places on one feed of direct current: against Kirchhoff's laws, every tree, every gauge and plain sums."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import EquipmentRoom, FarPoint, design_of
from heathrise.core.far import OneFeed
from heathrise.core.far.one_feed import tree_of
from heathrise.core.views.far_land import far_land
from heathrise.core.views.far_ways import far_ways

from ..thorough import examples
from .plans import access_point, shell

CATALOGUE = load_catalogue()
RACK = EquipmentRoom(id="rack", floor="f", name="Rack", at=(1.0, 1.0))
SOURCE_V, ROUTE, SLACK_M, BOOST, HEAT = 54.0, 1.1, 6.0, 0.9, 1 + 0.00393 * 10
GAUGES = (0.5, 0.75, 1, 1.5, 2.5, 4, 6, 10)
GIVES_UP = {"plain": 42.0, "boost": 20.0}

spots = st.lists(st.tuples(st.integers(-60, 60), st.integers(40, 160)), min_size=2, max_size=5, unique=True)


def planned(rows: list[tuple[float, float]], **more: object) -> Plan:
    said = [
        FarPoint.model_validate({"id": f"p{k}", "name": f"P{k}", "at": at, "cameras": 1, **more})
        for k, at in enumerate(rows)
    ]
    return Plan(design_of([*shell(), access_point(3, 3), RACK, *said]), CATALOGUE)


def told(plan: Plan) -> OneFeed:
    feed = far_land(plan).feed
    assert feed is not None
    return feed


def _volts(feed: OneFeed, mm2: float, times: float = 1.0) -> dict[str, float] | None:
    """Volts by place, bisected: of the source's current the one at which all laws hold."""
    ohm = {r.point: 2 * r.metres * 0.01724 / mm2 * HEAT for r in feed.rows}
    below: dict[str, list[str]] = {}
    for r in feed.rows:
        below.setdefault(r.before, []).append(r.point)
    watts = {r.point: times * r.watts / BOOST for r in feed.rows}
    volts = {r.point: SOURCE_V for r in feed.rows}

    def drawn(place: str) -> float:
        return watts[place] / volts[place] + sum(drawn(k) for k in below.get(place, ()))

    for _ in range(4000):
        fresh: dict[str, float] = {}
        for r in feed.rows:
            fresh[r.point] = fresh.get(r.before, SOURCE_V) - drawn(r.point) * ohm[r.point]
        if min(fresh.values()) <= 1:
            return None
        volts = fresh
    return volts


def test_two_places_in_a_row_by_hand() -> None:
    feed = told(planned([(1.0, 51.0), (1.0, 101.0)]))
    first, second = feed.rows
    assert (first.point, first.before, second.before) == ("p0", "", "p0")
    # 50 m each by 1.1 and 6 kept; a camera of 8 W and a converter of 4 at each.
    assert first.metres == second.metres == 61 and second.path_m == 122 and first.watts == 12
    assert feed.trench_m == 110 and feed.alone_m == pytest.approx(165)
    ohm = 2 * 61 * 0.01724 / feed.mm2 * HEAT
    rest = second.amperes * second.volts
    assert rest == pytest.approx(12 / 0.9, abs=0.02), "what arrives is what is drawn"
    assert first.amperes == pytest.approx(second.amperes + 12 / 0.9 / first.volts, abs=0.002)
    assert SOURCE_V - first.volts == pytest.approx(first.amperes * ohm, abs=0.02)
    assert first.volts - second.volts == pytest.approx(second.amperes * ohm, abs=0.02)


@given(spots)
@examples(15)
def test_the_tree_is_the_shortest_of_all(rows: list[tuple[int, int]]) -> None:
    places = {f"p{k}": (float(x), float(y)) for k, (x, y) in enumerate(rows)}
    root = (1.0, 1.0)
    found = sum(far for _, _, far in tree_of(root, places))
    names = list(places)
    best = math.inf
    # Every way to hang each place on the rack or on another; those that come home are trees.
    for befores in itertools.product(["", *names], repeat=len(names)):
        up = dict(zip(names, befores, strict=True))
        at = {"": root, **places}

        def home(name: str, up: dict[str, str] = up) -> bool:
            for _ in range(len(names) + 1):
                if not name:
                    return True
                name = up[name]
            return False

        if all(home(n) for n in names):
            best = min(best, sum(math.dist(at[n], at[b]) for n, b in up.items()))
    assert found == pytest.approx(best)


@given(spots, st.integers(1, 6), st.integers(0, 3))
@examples(15)
def test_a_feed_holds_where_kirchhoff_says_and_costs_least(
    rows: list[tuple[int, int]], cameras: int, doors: int
) -> None:
    plan = planned([(float(x), float(y)) for x, y in rows], cameras=cameras, doors=doors)
    feed = told(plan)
    if feed.left:
        return
    volts = _volts(feed, feed.mm2)
    assert volts is not None
    for row in feed.rows:
        assert row.volts == pytest.approx(volts[row.point], abs=0.02)
        assert row.volts >= feed.least_v == GIVES_UP[feed.kind]
    metres = sum(r.metres for r in feed.rows)
    prices = {}
    for kind, least in GIVES_UP.items():
        for mm2 in GAUGES:
            runs, starts = _volts(feed, mm2), _volts(feed, mm2, 2.0)
            if runs and starts and min(*runs.values(), *starts.values()) >= least:
                each = CATALOGUE.parts[f"feed-{mm2:g}"].price * metres
                prices[kind, mm2] = each + len(rows) * CATALOGUE.parts[f"dc-{kind}"].price
    assert (feed.kind, feed.mm2) in prices
    assert prices[feed.kind, feed.mm2] == pytest.approx(min(prices.values()))
    # What the source gives is what arrives and what the cable keeps.
    lost = sum(r.amperes**2 * 2 * r.metres * 0.01724 / feed.mm2 * HEAT for r in feed.rows)
    drawn = sum(r.watts / BOOST for r in feed.rows)
    assert feed.source_w == pytest.approx(drawn + lost, rel=0.01, abs=0.2)
    assert feed.fuse_a is None or feed.fuse_a >= feed.start_a


@given(spots)
@examples(10)
def test_one_trench_is_never_longer_than_many_and_its_sum_is_of_listed_prices(
    rows: list[tuple[int, int]],
) -> None:
    plan = planned([(float(x), float(y)) for x, y in rows])
    feed = told(plan)
    assert feed.trench_m <= feed.alone_m + 1e-6
    alone = [far_ways(plan, r.point) for r in feed.rows]
    assert all(
        w.watts == r.watts
        for f, r in zip(alone, feed.rows, strict=True)
        for w in f.ways
        if w.id == "fibre-cable"
    )
    more = 1.18

    def part(item: str, quantity: float) -> float:
        return round(round(quantity, 1) * float(CATALOGUE.parts[item].price) * more, 2)

    def dig(metres: float) -> float:
        by_hand, machine, plough = metres * 14, 60 + metres * 3, 90 + metres * 1.5
        return 2 * round(min(by_hand, machine, plough) / 1.7, 1)

    fibre = float(CATALOGUE.fibres["os2"].outside_price_per_m)
    ends, laid = len(feed.rows) + 1, sum(r.metres for r in feed.rows)
    parts = part("dc-supply", 1) + part(f"feed-{feed.mm2:g}", laid) + part(f"dc-{feed.kind}", ends - 1)
    parts += part("mast-earth", ends) + part("surge", ends)
    minutes = 0.0
    for r in feed.rows:
        trench = r.metres - SLACK_M
        parts += part("duct", trench) + part("warning-tape", trench)
        parts += round(round(r.path_m, 1) * fibre * more, 2)
        minutes += dig(trench)
    hours = (feed.once - parts) / 58
    ended = hours * 60 - minutes
    rules = CATALOGUE.rules
    assert ended == pytest.approx(ends * rules["far.minutes.feed_end"], rel=0.02, abs=2 + len(rows))


def test_who_cannot_be_fed_with_the_others_is_left_and_said() -> None:
    feed = told(planned([(1.0, 61.0), (20.0, 61.0), (1.0, 6001.0)], cameras=4))
    assert feed.left == ("P2",) and {r.name for r in feed.rows} == {"P0", "P1"}
    assert far_land(planned([(1.0, 61.0), (20.0, 61.0)], land="water")).feed is None
    one = design_of(
        [*shell(), access_point(3, 3), RACK, FarPoint(id="p", name="P", at=(1.0, 61.0), cameras=1)]
    )
    assert far_land(Plan(one, CATALOGUE)).feed is None, "one place shares nothing"
