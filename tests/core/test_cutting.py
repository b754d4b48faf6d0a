"""Which cable is cut from which box: each once, none joined, and the longest rest that there can be."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.cabling import boxes_for, cut_from
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.bill_of_materials import proven_order
from heathrise.core.views.cutting_list import CuttingList, cutting_list
from heathrise.demo import SITES, DemoSite

from ..thorough import examples
from .sites import sites


@given(st.lists(st.integers(1, 60), min_size=1, max_size=6))
def test_the_rest_is_the_longest_against_every_way_to_cut(lengths: list[int]) -> None:
    box_m = 60
    count = boxes_for([float(m) for m in lengths], box_m).count
    cut, proven = cut_from(lengths, box_m, count)
    assert sorted(i for box in cut for i in box) == list(range(len(lengths)))
    loads = [sum(lengths[i] for i in box) for box in cut]
    assert len(cut) == count and max(loads) <= box_m and loads == sorted(loads, reverse=True)
    best = max(
        box_m - min(sum(m for m, b in zip(lengths, way, strict=True) if b == k) for k in range(count))
        for way in itertools.product(range(count), repeat=len(lengths))
        if all(sum(m for m, b in zip(lengths, way, strict=True) if b == k) <= box_m for k in range(count))
    )
    assert proven and box_m - min(loads) == best


def test_by_hand_the_rest_is_left_in_one_piece() -> None:
    # 100 m in two boxes of 60: one full leaves 20 in one piece; 40 + 10 and 30 + 20 would leave 10 twice.
    lengths = [40, 30, 20, 10]
    cut, proven = cut_from(lengths, 60, 2)
    assert [sum(lengths[i] for i in box) for box in cut] == [60, 40] and proven
    assert cut_from([], 60, 0) == ([], True)


def _agrees(plan: Plan) -> CuttingList:
    """Check a cutting list against the links and the order, cable by cable."""
    found, order = cutting_list(plan), {k.item: k for k in proven_order(plan).lines}
    wanted = {
        (k.id, number): math.ceil(k.bought_m)
        for k in evaluate(plan).cable.links
        if k.medium == "copper" and k.bought_m > 0 and k.verdict != "no_way"
        for number in range(1, k.cables + 1)
    }
    cut = [(p.link, p.cable, p.metres) for b in found.boxes for p in b.pieces]
    whole = {key: m for key, m in wanted.items() if m <= 500}
    laid = {(link, number): m for link, number, m in cut if not link.startswith("later-")}
    assert len(cut) == len({c[:2] for c in cut}) and laid == whole
    for box in found.boxes:
        assert sum(p.metres for p in box.pieces) + box.rest_m == pytest.approx(box.holds_m)
        assert [p.metres for p in box.pieces] == sorted((p.metres for p in box.pieces), reverse=True)
    counted = {item: sum(b.item == item for b in found.boxes) for item in {b.item for b in found.boxes}}
    assert counted == {i: k.quantity for i, k in order.items() if i.startswith("cable-")}
    return found


@pytest.mark.parametrize("site", SITES, ids=lambda s: s.key)
def test_the_demo_sites_are_cut_from_the_boxes_of_their_orders(site: DemoSite) -> None:
    assert _agrees(Plan(site.make(), load_catalogue())).boxes


@examples(8)
@given(sites(6))
def test_random_sites_are_cut_from_the_boxes_of_their_orders(design: Design) -> None:
    _agrees(Plan(design, load_catalogue()))
