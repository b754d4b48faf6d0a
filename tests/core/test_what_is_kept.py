"""What is kept from one edit to the next changes no figure: a design that was edited, looked at and
dragged about comes out as the same design read from a file by somebody who never saw it before."""

from __future__ import annotations

import math
import random
from collections.abc import Iterator, Sequence
from datetime import date

import pytest

from bench.held import differences, told
from bench.random_designs import edited
from heathrise.core.catalogue import FirmPrice, load_catalogue, priced_items
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, EquipmentRoom, OwnFigure, Remove, Run, Wall, apply, put
from heathrise.core.design import design_of as gathered
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.shown import shown
from heathrise.demo import SITES, DemoSite

from ..thorough import count

CATALOGUE = load_catalogue()
ON = date(2026, 11, 29)
EDITS = 6


def read_anew(design: Design) -> Design:
    """The same design of new objects: nothing that is kept by identity knows any of them."""
    rows = [e for table in design.tables.values() for e in table.values()]
    return gathered([type(e).model_validate_json(e.model_dump_json()) for e in rows])


def apart(one: Design, other: Design) -> Sequence[str]:
    return list(differences(told(one, CATALOGUE), told(other, CATALOGUE)))


def edits(chance: random.Random, design: Design) -> Iterator[Design]:
    """Yield a design after each of some edits, looked at as a screen does on the way."""
    for _ in range(EDITS):
        design = edited(chance, design, CATALOGUE)
        plan = Plan(design, CATALOGUE, on=ON)
        shown(plan.hastily())
        if chance.random() < 0.5:
            evaluate(plan)
        yield design


@pytest.mark.parametrize("seed", range(count(12, 4)))
def test_a_design_with_a_past_comes_out_as_one_without(seed: int) -> None:
    chance = random.Random(seed)
    start = chance.choice(SITES).make()
    *_, last = edits(chance, start)
    assert apart(last, read_anew(last)) == []


@pytest.mark.parametrize("site", SITES, ids=lambda s: s.key)
def test_gear_moved_a_little_and_from_room_to_room_comes_out_as_drawn_there(site: DemoSite) -> None:
    """Any device, by a step or by metres, so that it stays in its room or leaves it."""
    chance, design = random.Random(site.key), site.make()
    evaluate(Plan(design, CATALOGUE, on=ON))
    for far in (0.1, 0.3, 2.5, 0.2, 6.0, 0.1):
        device = chance.choice(list(design.of(Device).values()))
        at = tuple(round(v + chance.uniform(-far, far), 2) for v in device.at)
        design = apply(design, [put(device.model_copy(update={"at": at}))])
        evaluate(Plan(design, CATALOGUE, on=ON))
    assert apart(design, read_anew(design)) == []


def test_gear_that_comes_to_stand_in_a_rack_or_at_its_foot_is_seen_there() -> None:
    """Within one room, by a step: the router into the rack, out of it, and a guest away from its host."""
    for site in SITES:
        design = site.make()
        evaluate(Plan(design, CATALOGUE, on=ON))
        racks = list(design.of(EquipmentRoom).values())
        tied = {r.device for r in design.of(Run).values() if r.through is not None}
        mine = [d for d in design.of(Device).values() if d.id in tied or CATALOGUE.role_of(d).leads_out]
        for device in mine:
            near = min(racks, key=lambda r: math.dist(r.at, device.at))
            for off in (0.0, 1.6, 0.2):
                at = (round(near.at[0] + off, 2), near.at[1])
                moved = device.model_copy(update={"at": at, "floor": near.floor})
                design = apply(design, [put(moved)])
                evaluate(Plan(design, CATALOGUE, on=ON))
                assert apart(design, read_anew(design)) == [], (site.key, device.name, off)
            design = apply(design, [put(device)])
            evaluate(Plan(design, CATALOGUE, on=ON))


def test_what_is_taken_back_leaves_nothing_behind() -> None:
    """An access point dragged over a room and back, a wall taken away and drawn again."""
    start = next(s for s in SITES if s.key == "practice").make()
    before = told(start, CATALOGUE)
    device = next(d for d in start.of(Device).values() if d.model in CATALOGUE.airs)
    wall = next(iter(start.of(Wall).values()))
    design = start
    for k in range(1, 5):
        there = device.model_copy(update={"at": (device.at[0] + k, device.at[1])})
        design = apply(design, [put(there)])
        shown(Plan(design, CATALOGUE, on=ON, quick=True))
    design = apply(design, [Remove(kind="wall", id=wall.id)])
    evaluate(Plan(design, CATALOGUE, on=ON))
    design = apply(design, [put(wall), put(device)])
    assert list(differences(before, told(design, CATALOGUE))) == []


def test_a_figure_of_one_s_own_taken_back_leaves_nothing_behind() -> None:
    start = next(s for s in SITES if s.key == "practice").make()
    plan = Plan(start, CATALOGUE, on=ON)
    was = order_of(plan)
    own = OwnFigure(id="own", figure="order.rate_per_hour", value=99.0)
    dearer = order_of(plan.after([put(own)]))
    assert dearer.sum.total > was.sum.total
    back = plan.after([put(own)]).after([Remove(kind=put(own).kind, id=own.id)])
    assert order_of(back).model_dump() == was.model_dump()


def test_prices_of_two_firms_are_never_mixed() -> None:
    """One drawing under two price lists, asked in turns: each list is told its own sum."""
    mill = next(s for s in SITES if s.key == "mill").make()
    lists = [
        {k: FirmPrice(round(share * item.price, 2), ON) for k, item in priced_items(CATALOGUE).items()}
        for share in (1.0, 1.5)
    ]
    alone = [order_of(Plan(read_anew(mill), CATALOGUE, prices, ON)).sum.total for prices in lists]
    in_turns = [order_of(Plan(mill, CATALOGUE, lists[k % 2], ON, shared=True)).sum.total for k in range(4)]
    assert alone[0] < alone[1]
    assert in_turns == [*alone, *alone]
