"""What a plan has been: from any state to any other and back, and what is told of the way between."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, Element, Opening, Space, Wall, apply, design_of, put, remove
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.revisions import changes_between, difference
from heathrise.demo import SITES

from ..thorough import examples
from .plans import access_point
from .storeys_of_rooms import Cut, cuts, roomed


def states(draw: st.DrawFn, design: Design) -> Design:
    """The design after some edits at random: things moved, taken away, placed, renamed."""
    for _ in range(draw(st.integers(0, 6))):
        kind = draw(st.sampled_from(["move", "remove", "add", "rename"]))
        devices = list(design.of(Device).values())
        if kind == "add":
            spot = (draw(st.integers(0, 20)) / 2, draw(st.integers(0, 20)) / 2)
            design = apply(design, [put(access_point(*spot, f"new-{draw(st.integers(0, 9))}"))])
        elif devices:
            device = devices[draw(st.integers(0, len(devices) - 1))]
            if kind == "remove":
                design = apply(design, [remove(device)])
            else:
                fields = (
                    {"at": (1.5, 2.5)} if kind == "move" else {"name": f"Other {draw(st.integers(0, 9))}"}
                )
                design = apply(design, [put(device.model_copy(update=fields))])
    return design


@st.composite
def pairs(draw: st.DrawFn) -> tuple[Design, Design]:
    base = roomed(draw(cuts()))
    for k in range(3):
        base = apply(base, [put(access_point(1.0 + k, 1.0, f"ap-{k}"))])
    return states(draw, base), states(draw, base)


def told(before: Design, after: Design) -> dict[tuple[str, str], str]:
    """What differs, by plain comparison of every row of both."""
    found: dict[tuple[str, str], str] = {}
    rows = [{(k, e.id): e for k, e in d.elements()} for d in (before, after)]
    for key in rows[0].keys() | rows[1].keys():
        one, other = rows[0].get(key), rows[1].get(key)
        if one is None:
            found[key] = "added"
        elif other is None:
            found[key] = "removed"
        elif one != other:
            found[key] = "moved" if getattr(one, "at", None) != getattr(other, "at", None) else "changed"
    return found


@given(pairs())
@examples(60)
def test_the_way_from_any_state_to_any_other(pair: tuple[Design, Design]) -> None:
    before, after = pair
    there = apply(before, changes_between(before, after))
    assert {k: dict(v) for k, v in there.tables.items() if v} == {
        k: dict(v) for k, v in after.tables.items() if v
    }
    assert not changes_between(after, there)


@given(pairs())
@examples(30)
def test_what_differs_is_told_and_nothing_else(catalogue: Catalogue, pair: tuple[Design, Design]) -> None:
    before, after = pair
    found = difference(Plan(before, catalogue, quick=True), Plan(after, catalogue, quick=True))
    assert {(r.kind, r.id): r.how for r in found.rows} == told(before, after)
    for row in found.rows:
        one = before.get(row.kind, row.id)
        other = after.get(row.kind, row.id)
        for element, shape in ((one, row.was), (other, row.now)):
            spot: Element | None = element
            assert shape == ((spot.at,) if isinstance(spot, Device) else shape)
            assert bool(shape) == (element is not None)


def test_both_feet_are_those_of_the_plans(catalogue: Catalogue) -> None:
    mill = next(s for s in SITES if s.key == "mill").make()
    first = next(iter(mill.of(Device).values()))
    after = apply(mill, [remove(first)]) if not _hangs_on(mill, first) else mill
    found = difference(Plan(mill, catalogue), Plan(after, catalogue))
    for foot, design in ((found.then, mill), (found.now, after)):
        plan = Plan(design, catalogue)
        assert foot.totals == evaluate(plan).totals
        assert foot.price is not None and foot.price.total == order_of(plan).sum.total


def _hangs_on(design: Design, device: Device) -> bool:
    return any(getattr(e, "device", None) == device.id for _, e in design.elements())


def test_a_door_lies_where_it_lies_in_its_wall_of_then(catalogue: Catalogue) -> None:
    cut = Cut(((0, 0, 6, 4),), (((0, 0), (6, 0)), ((6, 0), (6, 4)), ((6, 4), (0, 4)), ((0, 4), (0, 0))))
    door = Opening(id="d", wall="w1", kind="door", offset_m=1, width_m=0.9, construction="door-hollow")
    before = apply(roomed(cut), [put(door)])
    wall = before.of(Wall)["w1"].model_copy(update={"a": (0, 1), "b": (6, 1)})
    room = before.of(Space)["s1"].model_copy(update={"name": "Study"})
    after = apply(before, [put(wall), put(room), put(door.model_copy(update={"offset_m": 2.0}))])
    rows = {
        r.id: r
        for r in difference(Plan(before, catalogue, quick=True), Plan(after, catalogue, quick=True)).rows
    }
    for got, wanted in ((rows["d"].was, [(1, 0), (1.9, 0)]), (rows["d"].now, [(2, 1), (2.9, 1)])):
        assert [list(p) for p in got] == [pytest.approx(p) for p in wanted]
    assert (rows["d"].how, rows["d"].floor, rows["w1"].how, rows["s1"].how) == (
        "moved",
        "f",
        "moved",
        "changed",
    )
    assert rows["s1"].fields == ("name",) and rows["s1"].closed
    assert design_of([e for _, e in before.elements()]) == before
