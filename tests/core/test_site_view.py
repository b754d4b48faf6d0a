"""The whole site: how far buildings stand apart, what is dug near to buried services, buildings put elsewhere."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from heathrise.core.building.buried import buried_findings
from heathrise.core.catalogue import Catalogue
from heathrise.core.context.buried import meetings_of
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Building,
    BuriedService,
    Design,
    DesignError,
    Duct,
    Element,
    Floor,
    Riser,
    Site,
    Space,
    apply,
    design_of,
)
from heathrise.core.several import drawn
from heathrise.core.several.hand import Apart, Carry
from heathrise.core.views.site import site_view
from heathrise.core.views.work_list import steps_of
from heathrise.core.walling import follow

from ..thorough import examples

Spot = tuple[float, float]
Box = tuple[float, float, float, float]
tenths = st.integers(-300, 300).map(lambda v: v / 10)
spots = st.tuples(tenths, tenths)


@st.composite
def boxes(draw: st.DrawFn) -> Box:
    west, south = draw(spots)
    return west, south, west + draw(st.integers(3, 20)), south + draw(st.integers(3, 20))


def site_of(houses: list[Box], *more: Element, grounds: tuple[float, ...] = ()) -> Design:
    rows: list[Element] = []
    for k, (w, s, e, n) in enumerate(houses):
        rise = grounds[k] if grounds else 0.0
        rows += [
            Building(id=f"b{k}", name=f"House {k}"),
            Floor(id=f"f{k}", building=f"b{k}", name="Ground", level=0, elevation_m=rise),
            Space(id=f"s{k}", floor=f"f{k}", name="Hall", outline=((w, s), (e, s), (e, n), (w, n))),
        ]
    return design_of([Site(id="site"), *rows, *more])


def apart_m(one: Box, other: Box) -> float:
    """How far two boxes are apart, by their sides alone."""
    across = max(0.0, other[0] - one[2], one[0] - other[2])
    up = max(0.0, other[1] - one[3], one[1] - other[3])
    return math.hypot(across, up)


def to_segment_m(p: Spot, a: Spot, b: Spot) -> float:
    dx, dy = b[0] - a[0], b[1] - a[1]
    square = dx * dx + dy * dy
    t = 0.0 if square == 0 else max(0.0, min(1.0, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / square))
    return math.dist(p, (a[0] + t * dx, a[1] + t * dy))


def walked(path: tuple[Spot, ...], step_m: float) -> list[tuple[float, Spot]]:
    """Spots along a path, each with the metres to it."""
    found, done = [], 0.0
    for a, b in itertools.pairwise(path):
        size = math.dist(a, b)
        steps = max(1, math.ceil(size / step_m))
        for k in range(steps + 1):
            t = k / steps
            found.append((done + t * size, (a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]))))
        done += size
    return found


@given(st.lists(boxes(), min_size=2, max_size=4), st.lists(tenths, min_size=4, max_size=4))
@examples(40)
def test_distances_and_rises_are_those_of_the_boxes(
    catalogue: Catalogue, houses: list[Box], rises: list[float]
) -> None:
    design = site_of(houses, grounds=tuple(r / 10 for r in rises))
    view = site_view(Plan(design, catalogue))
    assert len(view.gaps) == math.comb(len(houses), 2)
    for gap in view.gaps:
        i, j = int(gap.first[1:]), int(gap.second[1:])
        assert gap.gap_m == pytest.approx(apart_m(houses[i], houses[j]), abs=0.002)
        assert math.dist(gap.from_at, gap.to_at) == pytest.approx(gap.gap_m, abs=0.003)
        assert gap.rise_m == pytest.approx((rises[j] - rises[i]) / 10, abs=0.002)
        if gap.gap_m > 0.1:
            between = [p for _, p in walked((gap.from_at, gap.to_at), 0.05)]
            others = [b for k, b in enumerate(houses) if k not in (i, j)]
            deep = any(
                b[0] + 0.1 < x < b[2] - 0.1 and b[1] + 0.1 < y < b[3] - 0.1
                for b in others
                for x, y in between
            )
            touched = any(b[0] <= x <= b[2] and b[1] <= y <= b[3] for b in others for x, y in between)
            assert gap.clear != deep or (not deep and touched)
    for row, (w, s, e, n) in zip(view.buildings, houses, strict=True):
        assert row.area_m2 == pytest.approx((e - w) * (n - s), abs=0.1)
        assert w <= row.at[0] <= e and s <= row.at[1] <= n


@given(st.lists(spots, min_size=2, max_size=5), st.lists(spots, min_size=2, max_size=4))
@examples(80)
def test_what_is_dug_near_a_service_is_found_step_by_step(path: list[Spot], pipe: list[Spot]) -> None:
    assume(all(math.dist(a, b) > 0.3 for a, b in itertools.pairwise(path)))
    assume(all(math.dist(a, b) > 0.3 for a, b in itertools.pairwise(pipe)))
    duct = Duct(id="d", name="Duct", from_floor="f0", to_floor="f0", path=tuple(path))
    service = BuriedService(id="g", name="Gas", carries="gas", path=tuple(pipe))
    meetings = meetings_of(site_of([(0, 0, 5, 5)], duct, service), 0.5)
    for along, spot in walked(duct.path, 0.05):
        off = min(to_segment_m(spot, a, b) for a, b in itertools.pairwise(pipe))
        told = any(m.from_m - 0.011 <= along <= m.to_m + 0.011 for m in meetings)
        # The area about a pipe is drawn with corners, so its rim is a little inside.
        if off < 0.49 or off > 0.52:
            assert told == (off < 0.5), (along, off)
    for m in meetings:
        near = [
            min(to_segment_m(p, a, b) for a, b in itertools.pairwise(pipe))
            for x, p in walked(duct.path, 0.02)
            if m.from_m <= x <= m.to_m
        ]
        assert not near or (min(near) < 0.03) >= m.crosses
        assert min(to_segment_m(m.at, a, b) for a, b in itertools.pairwise(duct.path)) < 0.02


@given(boxes(), boxes(), st.integers(5, 4000).map(lambda cm: cm / 100))
@examples(60)
def test_a_building_is_put_so_far_from_another(
    catalogue: Catalogue, one: Box, other: Box, wanted_m: float
) -> None:
    design = site_of([one, other])
    gesture = Apart(building="b0", other="b1", gap_m=wanted_m)
    if apart_m(one, other) == 0:
        with pytest.raises(DesignError, match="stand in one another"):
            drawn(design, gesture, catalogue)
        return
    after = apply(design, drawn(design, gesture, catalogue))
    (w, s), _, (e, n), _ = after.of(Space)["s0"].outline
    assert apart_m((w, s, e, n), other) == pytest.approx(wanted_m, abs=0.001)
    assert (
        e - w == pytest.approx(one[2] - one[0], abs=0.001) and after.of(Space)["s1"] == design.of(Space)["s1"]
    )


@given(spots)
@examples(30)
def test_a_building_takes_along_what_is_in_it(catalogue: Catalogue, by: Spot) -> None:
    riser = Riser(id="r", building="b0", name="Riser", at=(1, 1), lowest_level=0, highest_level=1)
    over = Floor(id="up", building="b0", name="Upper", level=1, elevation_m=3)
    attic = Space(id="u", floor="up", name="Attic", outline=((0, 0), (4, 0), (4, 4), (0, 4)))
    duct = Duct(id="d", name="Duct", from_floor="f0", to_floor="f1", path=((4, 2), (10, 2), (20, 2)))
    within = Duct(id="w", name="Within", from_floor="f0", to_floor="f0", path=((1, 1), (2, 2)))
    pipe = BuriedService(id="p", name="Water", carries="water", path=((0, -3), (9, -3)))
    design = site_of([(0, 0, 4, 4), (20, 0, 25, 4)], over, attic, riser, duct, within, pipe)
    changes = drawn(design, Carry(building="b0", by=by), catalogue)
    after = apply(design, changes)
    after = apply(after, follow(design, after).changes)
    check(after, catalogue)

    def there(p: Spot) -> Spot:
        return pytest.approx((p[0] + by[0], p[1] + by[1]), abs=1e-6)  # type: ignore[return-value]

    assert after.of(Riser)["r"].at == there((1, 1))
    for key in ("s0", "u"):
        assert [there(p) for p in design.of(Space)[key].outline] == list(after.of(Space)[key].outline)
    assert after.of(Space)["s1"] == design.of(Space)["s1"] and after.of(BuriedService) == design.of(
        BuriedService
    )
    path = after.of(Duct)["d"].path
    assert path[0] == there((4, 2)) and path[1:] == ((10, 2), (20, 2))
    assert [there(p) for p in within.path] == list(after.of(Duct)["w"].path)


def test_what_cannot_be_put_elsewhere_says_why(catalogue: Catalogue) -> None:
    design = apply(site_of([(0, 0, 4, 4)]), [])
    with pytest.raises(DesignError, match="no building 'nowhere'"):
        drawn(design, Carry(building="nowhere", by=(1, 1)), catalogue)
    bare = design_of([Site(id="site"), Building(id="a", name="Barn"), Building(id="b", name="Byre")])
    with pytest.raises(DesignError, match="nothing is drawn of Barn"):
        drawn(bare, Apart(building="a", other="b", gap_m=3), catalogue)


def test_a_duct_over_a_gas_pipe_is_told_and_dug_by_hand(catalogue: Catalogue) -> None:
    duct = Duct(
        id="d", name="Orchard duct", from_floor="f0", to_floor="f1", path=((5, 2), (20, 2)), dug="machine"
    )
    pipe = BuriedService(id="p", name="Gas main", carries="gas", path=((11, -5), (11, 9)), depth_m=0.45)
    design = site_of([(0, 0, 5, 4), (20, 0, 25, 4)], duct, pipe)
    (found,) = buried_findings(design, catalogue)
    assert found.severity == "near" and found.places[0].at == (11, 2)
    assert "Orchard duct crosses Gas main, a gas pipe, from 5.5 to 6.5 m from its start" in found.text
    assert (
        "dig by hand, not by machine as the rest." in found.text
        and "not located yet (0.45 m deep, as told)"
        in found.text.replace("\u00a0", " ").replace("\u202f", " ")
    )
    dig = next(s for s in steps_of(Plan(design, catalogue)) if s.id == "dig-d")
    assert any(
        "Gas main from 5.5 to 6.5 m from its start: located, and dug by hand there" in c for c in dig.checks
    )
    located = design_of(
        [e for _, e in design.elements() if e.id != "p"] + [pipe.model_copy(update={"found": True})]
    )
    (calm,) = buried_findings(apply(located, []), catalogue)
    assert "It was found" in calm.text
    lies = duct.model_copy(update={"dug": "there"})
    assert not list(buried_findings(site_of([(0, 0, 5, 4), (20, 0, 25, 4)], lies, pipe), catalogue))
