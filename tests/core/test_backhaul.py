"""Which access points get a cable in a site of mesh, against trying all; landings and halls; feeds."""

from __future__ import annotations

import itertools
import random
from datetime import date

import numpy as np
import pytest

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.context.run_decisions import run_said
from heathrise.core.context.scope import as_planned
from heathrise.core.design import Design, Floor, Opening, Run, Space, apply, put
from heathrise.core.placement import Wishes, search_sites
from heathrise.core.placement.backhaul import links_to, wired_ones
from heathrise.core.placement.costs import air_cents
from heathrise.core.placement.landings import by_outlets, crossings
from heathrise.core.signal import air_of, mesh_links, rates_over_air
from heathrise.core.views.bill_of_materials import order_of
from heathrise.demo import SITES

from ..thorough import count
from .plans import access_point, design_of, rack, shell, wall

TODAY = date(2026, 11, 25)


def _mill() -> Design:
    return next(s for s in SITES if s.key == "mill").make()


@pytest.mark.parametrize("seed", range(count(20, 8)))
def test_the_cheapest_cables_against_trying_every_choice(seed: int) -> None:
    dice = random.Random(seed)
    n = dice.randint(3, 8)
    rates = np.array([[dice.choice([0, 20, 49, 50, 90]) for _ in range(n)] for _ in range(n)])
    cable = [dice.randint(5_000, 60_000) for _ in range(n)]
    air = [dice.randint(2_000, 8_000) for _ in range(n)]
    decided = {0} if dice.random() < 0.5 else set()
    loose = {n - 1} if dice.random() < 0.3 else set()

    others = [[j for j in range(n) if j != k and j not in loose] for k in range(n)]

    def cost(chosen: set[int]) -> float:
        """In cents; a hundredth of one for each that has but one parent."""
        total = 0.0
        for k in range(n):
            parents = sum(rates[k][j] >= 50 for j in chosen - {k})
            if k in chosen:
                total += cable[k]
            elif parents or (k in loose and not any(rates[k][j] >= 50 for j in others[k])):
                total += air[k]
            else:
                return float("inf")
            total += 0.01 * (k not in chosen and parents < 2)
        return total

    every = (
        set(c) | decided
        for size in range(n + 1)
        for c in itertools.combinations([k for k in range(n) if k not in loose], size)
    )
    best = min(cost(c) for c in every)
    found = wired_ones(rates, cable, air, 50, decided, loose)
    assert decided <= found and not loose & found
    assert cost(found) == pytest.approx(best, abs=1e-6)


@pytest.mark.parametrize("key", ["mill", "school"])
def test_what_a_user_gets_is_what_the_links_say(key: str, catalogue: Catalogue) -> None:
    """With one access point wired and all others on the air, way by way as mesh_links has it."""
    design = as_planned(next(s for s in SITES if s.key == key).make())
    devices, rates = rates_over_air(air_of(design, catalogue))
    root = len(devices) // 2
    runs = [Run(id=f"a{k}", device=d.id, over_air=True) for k, d in enumerate(devices) if k != root]
    gone = {r.id: r for r in runs}
    loose = Design({**design.tables, "run": gone})
    links = {k.device: k for k in mesh_links(air_of(loose, catalogue)) if k.band == "5"}
    at = {d.id: k for k, d in enumerate(devices)}
    for link in links.values():
        mine = rates[at[link.device], root]
        assert link.user_mbps == pytest.approx(mine if mine > 0 else 0, abs=0.06)


def test_a_search_by_the_school_of_mesh_leaves_cables_to_few(catalogue: Catalogue) -> None:
    """Its answer is cheaper than the wired one, each of its links carries what is asked for."""
    design = _mill()
    wishes = Wishes(goals=("fewest",), seconds=30)
    (wired,) = search_sites(Plan(design, catalogue, on=TODAY), wishes).answers
    school = apply(design, [put(design.site.model_copy(update={"back_haul": "mesh"}))])
    (answer,) = search_sites(Plan(school, catalogue, on=TODAY), wishes).answers
    assert wired.over_air == 0 < answer.over_air < answer.count == wired.count
    assert answer.offer.total < wired.offer.total and answer.offer.cable_m < wired.offer.cable_m
    after = apply(design, answer.changes)
    links = mesh_links(air_of(as_planned(after), catalogue))
    least = catalogue.rules["signal.mesh_least_mbps"]
    assert len(links) == answer.over_air and all(k.user_mbps >= least for k in links)
    # Asked for cables again, each has one.
    back = wishes.model_copy(update={"back_haul": "wired"})
    (again,) = search_sites(Plan(after, catalogue, on=TODAY), back).answers
    assert again.over_air == answer.over_air  # a search by wire leaves links as they are


def test_what_leads_nowhere_now_is_weighed_like_all_others(catalogue: Catalogue) -> None:
    """Two over the air, 40 m apart, no cable at all: one gets one, the other hangs on it."""
    points = [access_point(5 + 40 * k, 5, f"ap-{k}") for k in range(2)]
    loose = [Run(id=f"r{k}", device=p.id, over_air=True) for k, p in enumerate(points)]
    design = design_of(*shell(100, 10), rack(1, 1), *points, *loose)
    assert air_of(design, catalogue).cut_off == {"ap-0", "ap-1"}
    after = apply(design, links_to(Plan(design, catalogue), ()))
    (link,) = mesh_links(air_of(after, catalogue))
    assert (link.device, link.parent) == ("ap-1", "ap-0")  # the cable goes to the nearer one


def _door(number: int, on: int, at_m: float) -> Opening:
    return Opening(
        id=f"d{number}", wall=f"w{on}", kind="door", offset_m=at_m, width_m=0.9, construction="door-hollow"
    )


def test_landings_and_halls_by_hand(catalogue: Catalogue) -> None:
    """A stair, what lies over it, and a hall with four doors; not the room with one."""
    box = ((0, 0), (4, 0), (4, 4), (0, 4))
    design = design_of(
        *shell()[:3],
        Floor(id="u", building="b", name="Up", level=1, elevation_m=3),
        Space(id="stair", floor="f", name="Stair", outline=box, stairs=True),
        Space(id="landing", floor="u", name="Landing", outline=box),
        Space(id="hall", floor="f", name="Hall", outline=((4, 0), (10, 0), (10, 4), (4, 4))),
        Space(id="den", floor="f", name="Den", outline=((10, 0), (14, 0), (14, 4), (10, 4))),
        wall(1, (4, 0), (4, 4), "brick-single"),
        wall(2, (10, 0), (10, 4), "brick-single"),
        wall(3, (4, 4), (10, 4), "brick-single"),
        wall(4, (4, 0), (10, 0), "brick-single"),
        *(_door(k, k, 1.5) for k in (1, 2, 3, 4)),
    )
    assert crossings(design, catalogue.rules) == {"stair", "landing", "hall"}
    fewer = {**design.tables, "opening": {}}
    assert crossings(Design(fewer), catalogue.rules) == {"stair", "landing"}


def test_places_near_an_outlet_by_hand(catalogue: Catalogue) -> None:
    """Two metres reach; not through the wall, though it is nearer."""
    box = ((0, 0), (5, 0), (5, 4), (0, 4))
    outlet = access_point(0.1, 2, "out-1", "outlet-double", mount="wall", height_m=0.3)
    outlet = outlet.model_copy(update={"kind": "outlet"})
    design = design_of(
        *shell()[:3],
        Space(id="a", floor="f", name="A", outline=box),
        Space(id="b", floor="f", name="B", outline=((-5, 0), (0, 0), (0, 4), (-5, 4))),
        outlet,
    )
    places = [access_point(x, 2, f"p{k}") for k, x in enumerate((1.5, 2.05, 2.2, -0.5))]
    assert by_outlets(design, catalogue, places) == {"p0", "p1"}


def test_what_hangs_on_the_air_is_fed_from_a_socket(catalogue: Catalogue) -> None:
    """An injector and a short cord are ordered for it, and its cost by hand is theirs with 31
    minutes: 22 to hang it, 9 to adopt it."""
    loose = access_point(15, 5, "ap-2")
    base = design_of(*shell(), rack(1, 5), access_point(5, 5), loose)
    design = apply(base, [put(Run(id="r", device="ap-2", over_air=True))])
    power = catalogue.model_of(loose).power
    assert power is not None
    fitting = [i for i in catalogue.injectors.values() if i.poe_class >= power.poe_class]
    feed = min(fitting, key=lambda i: i.price)
    before = order_of(Plan(base, catalogue, on=TODAY))
    order = order_of(Plan(design, catalogue, on=TODAY))
    (line,) = [row for row in order.lines if row.item == feed.id]
    assert line.quantity == 1 and "at its socket" in line.where[0].name
    assert not [row for row in before.lines if row.item == feed.id]
    (cents,) = air_cents(Plan(design, catalogue), [loose])
    assert cents / 100 == pytest.approx(1.18 * feed.price + 58 / 60 * 31, abs=0.01)


def test_a_run_of_which_nothing_is_said_takes_no_other_s_name() -> None:
    """What is said of another device under the name that would be its own is left alone."""
    points = [access_point(5, 5, "ap-1"), access_point(15, 5, "ap-2")]
    design = design_of(*shell(), *points, Run(id="r-ap-1", device="ap-2"))
    assert run_said(design, "ap-1").id == "r1-ap-1"
    assert run_said(design, "ap-2").id == "r-ap-1"
