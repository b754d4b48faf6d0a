"""What is pulled at once: each cable once, no two off one box, the farthest first, the way really shared."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.laying import Link, Stretch, draws_of
from heathrise.core.views.cutting_list import cutting_list
from heathrise.core.views.pull_list import PullList, pull_list
from heathrise.core.views.work_list import steps_of
from heathrise.demo import SITES, DemoSite

from ..thorough import examples
from .sites import sites

RULES = load_catalogue().rules


def _straight(name: str, *corners: tuple[float, float], cables: int = 1, rack: str = "er-1") -> Link:
    far = sum(math.dist(a, b) for a, b in itertools.pairwise(corners))
    way = Stretch(name, "f", "ceiling_void", far, corners, cables)
    return Link(name, name, name, "f", "copper", "6", cables, far, False, False, stretches=(way,), rack=rack)


def test_by_hand_along_a_corridor() -> None:
    # A goes 30 m; B leaves it after 18 of 20 m; C goes the other way; D leaves after 6 of 18 m.
    a = _straight("a", (0, 0), (30, 0))
    b = _straight("b", (0, 0), (18, 0), (18, 2))
    c = _straight("c", (0, 0), (0, 25))
    d = _straight("d", (0, 0), (6, 0), (6, 12))
    boxes = {"a": [("cat6", 1)], "b": [("cat6", 2)], "c": [("cat6", 2)], "d": [("cat6", 2)]}
    found = draws_of(RULES, [a, b, c, d], boxes)
    assert [p.links for p in found] == [("a", "b"), ("c",), ("d",)]
    assert found[0].shared_m == (30.0, pytest.approx(18.0, abs=1.0))


def test_cables_off_one_box_are_pulled_one_after_the_other() -> None:
    a, b = _straight("a", (0, 0), (30, 0)), _straight("b", (0, 0), (28, 0))
    assert [p.links for p in draws_of(RULES, [b, a], {"a": [("x", 1)], "b": [("x", 1)]})] == [("a",), ("b",)]
    assert [p.links for p in draws_of(RULES, [b, a], {"a": [("x", 1)], "b": [("x", 2)]})] == [("a", "b")]
    assert [p.links for p in draws_of(RULES, [b, a], {})] == [("a",), ("b",)]  # what is on no box goes alone


def _agrees(plan: Plan) -> PullList:
    """Check a pull list against links, boxes and the work list."""
    found = pull_list(plan)
    laid = {k.id: k for k in evaluate(plan).cable.links if k.verdict != "no_way" and k.chosen_by != "found"}
    cables = [(c.link, c.cable) for p in found.pulls for c in p.cables]
    assert len(cables) == len(set(cables))
    wanted = {(k.id, n) for k in laid.values() for n in range(1, k.cables + 1)}
    assert {c for c in cables if not c[0].startswith("later-")} == wanted
    boxes = {
        (p.link, p.cable): (b.item, b.number, p.metres) for b in cutting_list(plan).boxes for p in b.pieces
    }
    steps = [s for p in found.pulls for s in p.steps]
    pulled = [s.id for s in steps_of(plan) if any(w.task == "pull" for w in s.work)]
    assert sorted(steps) == sorted(pulled)
    for pull in found.pulls:
        ways = {c.link: sum(leg.length_m for leg in laid[c.link].legs) for c in pull.cables if c.link in laid}
        assert len(pull.cables) <= max(RULES["install.pulled_at_once"], laid_most(pull))
        per_link: dict[str, set[tuple[str, int]]] = {}
        for c in pull.cables:
            if (c.link, c.cable) in boxes:
                item, number, metres = boxes[c.link, c.cable]
                assert (c.number, c.metres) == (number, metres) and c.box
                before = per_link.setdefault(c.link, set())
                assert c.ahead == ((item, number) in before)
                before.add((item, number))
        counted = [b for mine in per_link.values() for b in mine]
        assert len(counted) == len(set(counted)) == pull.boxes
        if ways:
            assert pull.metres == pytest.approx(max(ways.values()), abs=0.15)
            for c in pull.cables:
                assert c.beside_m <= ways[c.link] + 0.06
                assert c.beside_m >= RULES["install.pulled_share"] * ways[c.link] - 0.06
    assert found.most_boxes == max((p.boxes for p in found.pulls), default=0)
    for room in {p.room for p in found.pulls}:
        ways_m = [p.metres for p in found.pulls if p.room == room]
        assert ways_m == sorted(ways_m, reverse=True)
    return found


def laid_most(pull: object) -> int:
    """A link of more cables than are pulled at once goes by itself."""
    links = {c.link for c in pull.cables}  # type: ignore[attr-defined]
    return len(pull.cables) if len(links) == 1 else 0  # type: ignore[attr-defined]


@pytest.mark.parametrize("site", SITES, ids=lambda s: s.key)
def test_the_demo_sites_are_pulled_together(site: DemoSite) -> None:
    found = _agrees(Plan(site.make(), load_catalogue()))
    assert any(len(p.steps) > 1 for p in found.pulls) or len(found.pulls) < 5  # few lie alone


@examples(8)
@given(sites(6))
def test_random_sites_are_pulled_each_cable_once(design: Design) -> None:
    _agrees(Plan(design, load_catalogue()))
