"""The network drawn: all of a plan exactly once, its figures those of the chapters, laid out without a knot."""

from __future__ import annotations

import random
import re
from collections import Counter, defaultdict
from datetime import UTC, datetime
from functools import cache
from itertools import combinations, pairwise, permutations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from bench.random_designs import edited, random_design
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, Run, Switch, apply, remove
from heathrise.core.diagram import (
    ROWS_AT_ONCE,
    Diagram,
    Node,
    Picture,
    Second,
    Shape,
    as_it_came,
    diagram_of,
    lay_out,
)
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.records import PortReading, ports_as_seen
from heathrise.core.views.acceptance import planned_ports
from heathrise.demo import SITES

from ..thorough import examples

CATALOGUE = load_catalogue()
PSEUDO = {"line", "loose"}


@cache
def _random(seed: int) -> Plan:
    while True:
        try:
            return Plan(random_design(random.Random(seed), CATALOGUE), CATALOGUE)
        except IndexError:  # nothing was left to edit
            seed += 1_000


def _up(nodes: dict[str, Node], key: str) -> list[str]:
    way = [key]
    while (above := nodes[way[-1]].parent) is not None:
        assert above not in way, "a thing hangs on itself"
        way.append(above)
    return way


@examples(12)
@given(st.integers(0, 400))
def test_all_of_a_plan_is_drawn_once_and_nothing_else(seed: int) -> None:
    plan = _random(seed)
    diagram, evaluation = diagram_of(plan), evaluate(plan)
    nodes = {n.id: n for n in diagram.nodes}
    assert len(nodes) == len(diagram.nodes)
    loose_ends = {u.link for u in evaluation.power.ports if u.link and not u.device and not u.uplink}
    wanted = {*plan.design.of(Switch), *plan.design.of(Device), *loose_ends}
    assert set(nodes) - PSEUDO == wanted
    for key in nodes:
        assert _up(nodes, key)[-1] in PSEUDO
    drawn_before: set[str] = set()
    for node in diagram.nodes:
        assert node.parent is None or node.parent in drawn_before
        drawn_before.add(node.id)
    # What is joined by a cable is joined by just the ports that power has given.
    ports = defaultdict(list)
    for use in evaluation.power.ports:
        if use.device is not None:
            ports[use.device].append((use.switch, use.port))
    router = next((n.id for n in diagram.nodes if n.kind == "router"), None)
    for device, uses in ports.items():
        joint = nodes[device].joint
        assert joint is not None
        if device != router and joint.kind != "air":
            assert [(nodes[device].parent, p) for p in joint.ports] == uses
    cables = [n.joint.link for n in diagram.nodes if n.joint is not None and n.joint.link]
    assert max(Counter(cables).values(), default=1) == 1, "a cable is drawn twice"
    laid = {k.id for k in evaluation.cable.links if k.verdict != "no_way"}
    in_racks = {u.link for u in evaluation.power.ports if u.link is not None}
    assert set(cables) <= laid | in_racks


@examples(12)
@given(st.integers(0, 400))
def test_its_figures_are_those_of_the_chapters(seed: int) -> None:
    plan = _random(seed)
    evaluation = evaluate(plan)
    nodes = {n.id: n for n in diagram_of(plan).nodes}
    ways = {w.switch: w for w in evaluation.power.ways_up}
    settings = evaluation.settings
    sheets = {(p.switch, p.port): p for p in settings.ports} if settings is not None else {}
    watts = {p.device: p.expected_w for p in evaluation.power.devices}
    plugged = {p.device for p in evaluation.power.plugged if not p.wrong}
    for run in evaluation.runs:
        joint = nodes[run.device].joint
        assert joint is not None
        if run.verdict == "no_way" or joint.kind in ("air", "line", "none"):
            continue
        assert (joint.length_m, joint.category, joint.kind) == (run.fixed_m, run.category, run.medium)
        assert joint.watts in (0.0, watts.get(run.device, 0.0))
        if joint.ports and run.device not in plugged:
            sheet = sheets.get((nodes[run.device].parent or "", joint.ports[0]))
            if sheet is not None:
                assert (joint.untagged, joint.tagged) == (sheet.untagged_vlan, sheet.tagged_vlans)
    for switch in plan.design.of(Switch):
        way, node = ways.get(switch), nodes[switch]
        if way is not None and way.to is not None:
            assert node.parent == way.to and node.joint is not None
            if node.joint.kind == "none":
                assert node.joint.why and not node.joint.speed_mbps
                continue
            assert (node.joint.speed_mbps, node.joint.own_port) == (way.speed_mbps, way.port)
            assert node.joint.kind == way.medium
    air = {n.id for n in nodes.values() if n.joint is not None and n.joint.kind == "air"}
    said = {r.device for r in plan.design.of(Run).values() if r.over_air}
    assert air <= said


def _laid(diagram: Diagram, picture: Picture) -> None:
    """All there is is on a card or behind one; no card on another; no way crosses another."""
    nodes = {n.id: n for n in diagram.nodes}
    shown = [k for c in picture.cards for k in c.nodes]
    hidden = {
        k for k in nodes if any(c.folded and c.id in _up(nodes, k)[1:] for c in picture.cards if c.behind)
    }
    assert len(shown) == len(set(shown)) and set(shown) | hidden == set(nodes)
    assert not set(shown) & hidden
    assert len(hidden) == sum(c.behind for c in picture.cards)
    spots = [(c.column, c.row) for c in picture.cards]
    assert len(spots) == len(set(spots))
    on = {k: c for c in picture.cards for k in c.nodes}
    spans: dict[int, list[tuple[int, int]]] = defaultdict(list)
    below = defaultdict(list)
    for card in picture.cards:
        if card.parent is not None:
            below[card.parent].append(card)
            assert card.column == on[card.parent].column + 1 and card.row >= on[card.parent].row
    for parent, cards in below.items():
        rows = [on[parent].row, *(c.row for c in cards)]
        assert rows[0] == min(rows)
        spans[on[parent].column].append((min(rows), max(rows)))
    for rows in spans.values():
        ordered = sorted(rows)
        assert all(a[1] < b[0] for a, b in pairwise(ordered)), "two ways cross"
    for frame in picture.frames:
        for card in picture.cards:
            inside = frame.column <= card.column <= frame.last_column
            inside = inside and frame.row <= card.row <= frame.last_row
            assert not inside or nodes[card.nodes[0]].room == frame.room, (frame, card)
    assert list(picture.tops) == sorted(picture.tops)
    steps = [b - a for a, b in pairwise(picture.tops)]
    assert all(s > picture.grid.card_high for s in steps)


@examples(25)
@given(st.integers(0, 400), st.none() | st.integers(1, 60), st.randoms())
def test_a_diagram_is_laid_out_without_a_knot(seed: int, rows: int | None, chance: random.Random) -> None:
    diagram = diagram_of(_random(seed))
    every = lay_out(diagram, rows_at_once=None)
    _laid(diagram, every)
    assert not any(c.folded for c in every.cards)
    keys = [c.id for c in lay_out(diagram).cards]
    opened, shut = chance.sample(keys, len(keys) // 3), chance.sample(keys, len(keys) // 4)
    picture = lay_out(diagram, opened, shut, rows)
    _laid(diagram, picture)
    assert picture == lay_out(diagram, opened, shut, rows)
    plain = lay_out(diagram)
    if plain.rows > ROWS_AT_ONCE:
        alike: dict[tuple[object, ...], int] = Counter(
            (n.parent, n.role, n.joint.kind == "air" if n.joint else False)
            for n in diagram.nodes
            if n.kind == "device" and not any(m.parent == n.id for m in diagram.nodes)
        )
        assert all(
            c.id.startswith("fold:") or alike.get(_alike(diagram, c.id), 0) < 3 for c in plain.cards
        ), "something alike is not folded, and there are more rows than are wanted"


def _alike(diagram: Diagram, key: str) -> tuple[object, ...]:
    node = next(n for n in diagram.nodes if n.id == key)
    if node.kind != "device" or any(m.parent == key for m in diagram.nodes):
        return ()
    return node.parent, node.role, node.joint.kind == "air" if node.joint else False


@examples(10)
@given(st.integers(0, 200))
def test_an_edit_moves_only_what_it_touches(seed: int) -> None:
    plan = _random(seed)
    after = Plan(edited(random.Random(seed + 1), plan.drawn, CATALOGUE), CATALOGUE)
    before, now = diagram_of(plan), diagram_of(after)
    hangs = {n.id: (n.parent, n.joint.ports if n.joint else (), n.name, n.room) for n in before.nodes}
    same = {
        n.id
        for n in now.nodes
        if hangs.get(n.id) == (n.parent, n.joint.ports if n.joint else (), n.name, n.room)
    }
    for key in list(same):  # and all that it hangs on
        way = _up({n.id: n for n in now.nodes}, key)
        if not set(way) <= same:
            same.discard(key)
    rows = [{c.id: c for c in lay_out(d, rows_at_once=None).cards} for d in (before, now)]
    kept = [k for k in rows[0] if k in same]
    assert kept == [k for k in rows[1] if k in same]
    assert all(rows[0][k].column == rows[1][k].column for k in kept)


def _terrace(*more: object) -> Design:
    design = next(s for s in SITES if s.key == "terrace").make()
    return apply(design, list(more)) if more else design  # type: ignore[arg-type]


def test_shapes_are_named() -> None:
    star = diagram_of(Plan(_terrace(), CATALOGUE)).shape
    assert star.name == "star" and star.says == "A star: every cable comes to one rack." and star.deepest == 1
    none = diagram_of(Plan(apply(_terrace(), [remove(s) for s in _terrace().of(Switch).values()]), CATALOGUE))
    assert none.shape.name == "nothing" and {n.parent for n in none.nodes if n.kind == "device"} <= PSEUDO
    practice = next(s for s in SITES if s.key == "practice").make()
    found = diagram_of(Plan(practice, CATALOGUE)).shape
    assert (found.name, found.deepest, found.over_air) == ("hybrid", 4, 1)
    assert found.says.startswith("A tree over 4 racks, 4 switches deep, and 1 access point over the air")


def test_what_has_no_port_says_why_and_hangs_in_its_rack() -> None:
    mill = next(s for s in SITES if s.key == "mill").make()
    plan = Plan(mill, CATALOGUE)
    nodes = {n.id: n for n in diagram_of(plan).nodes}
    left = {u.device: u.reason for u in evaluate(plan).power.left}
    assert left
    for device, reason in left.items():
        joint = nodes[device].joint
        assert joint is not None and joint.verdict == "not_met"
        assert nodes[device].says["cables"] == joint.why == reason
        assert nodes[device].says["client"].endswith("not connected yet")


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_the_demo_fits_a_screen_at_once(key: str) -> None:
    plan = Plan(next(s for s in SITES if s.key == key).make(), CATALOGUE)
    picture = lay_out(diagram_of(plan))
    assert picture.rows <= 20 and picture.columns <= 6


def _crossings(picture: Picture) -> int:
    """How many pairs of drawn ways cross, each taken as the straight line between its cards."""
    at = {c.id: (c.column, c.row) for c in picture.cards}
    ways = [(at[c.parent], at[c.id]) for c in picture.cards if c.parent is not None]
    ways += [(at[a], at[b]) for b, a in picture.seconds]

    def side(p: tuple[int, int], q: tuple[int, int], r: tuple[int, int]) -> int:
        turn = (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])
        return (turn > 0) - (turn < 0)

    found = 0
    for (a, b), (c, d) in combinations(ways, 2):
        if len({a, b, c, d}) == 4:
            found += side(a, b, c) * side(a, b, d) < 0 and side(c, d, a) * side(c, d, b) < 0
    return found


def _drawn(parents: list[int], seconds: list[tuple[int, int]], order: list[int]) -> Diagram:
    """A made-up network: thing k hangs on ``parents[k]``, those of one parent in a given order."""
    below = defaultdict(list)
    for k in order:
        if k:
            below[parents[k - 1] % k].append(k)
    nodes: list[Node] = []

    def add(k: int, parent: str | None) -> None:
        nodes.append(Node(id=f"n{k}", kind="switch", name=f"n{k}", parent=parent))
        for child in below[k]:
            add(child, f"n{k}")

    add(0, None)
    rows = tuple(Second(below=f"n{b}", above=f"n{a}", mbps=1, says="") for b, a in seconds)
    return Diagram(nodes=tuple(nodes), seconds=rows, shape=Shape(name="tree", says=""))


@examples(40)
@given(
    st.lists(st.integers(0, 20), min_size=3, max_size=5),
    st.lists(st.tuples(st.integers(0, 5), st.integers(0, 5)), max_size=3),
)
def test_second_ways_cross_little_more_than_in_the_best_order_there_is(
    parents: list[int], pairs: list[tuple[int, int]]
) -> None:
    many = len(parents) + 1
    seconds = [(b % many, a % many) for b, a in pairs if b % many != a % many]
    ours = lay_out(_drawn(parents, seconds, list(range(many))), rows_at_once=None)
    every = (
        lay_out(_drawn(parents, seconds, [0, *order]), rows_at_once=None)
        for order in permutations(range(1, many))
    )
    least = min(map(_crossings, every))
    rows = {c.id: c.row for c in ours.cards}
    apart = sum(abs(rows[f"n{b}"] - rows[f"n{a}"]) for b, a in seconds)
    assert least <= _crossings(ours) <= least + apart + len(seconds) ** 2
    if not seconds:
        assert _crossings(ours) == 0


def test_what_came_up_otherwise_stands_beside_what_was_planned() -> None:
    plan = Plan(_terrace(), CATALOGUE)
    diagram = diagram_of(plan)
    planned = planned_ports(plan)
    point, other = (p for p in planned if p.device in ("ap-1", "ap-2"))
    at = datetime(2026, 5, 4, tzinfo=UTC)

    def read(mbps: dict[str, int]) -> dict[str, Node]:
        rows = [
            PortReading(
                at=at, author="me", switch=p.switch, port=p.port, device=p.device, mbps=mbps[p.device]
            )
            for p in planned
            if p.device in mbps
        ]
        seen = ports_as_seen(plan.rules, planned, rows)
        return {n.id: n for n in as_it_came(diagram, seen).nodes}

    nodes = read({"ap-1": 100, "ap-2": other.mbps})
    assert "100\u00a0Mb/s read, 1\u00a0Gb/s planned" in nodes["ap-1"].says["cables"]
    joint = nodes["ap-1"].joint
    assert joint is not None and joint.verdict == "not_met" and "100 Mb/s" in joint.why.replace("\u00a0", " ")
    assert nodes["ap-2"].says["cables"].endswith("1\u00a0Gb/s read")
    assert "no link read, 1\u00a0Gb/s planned" in read({"ap-1": 0})["ap-1"].says["cables"]
    before = {n.id: n for n in diagram.nodes}
    assert all(nodes[k] == before[k] for k in before if k not in ("ap-1", "ap-2"))
    assert point.device == "ap-1"


def test_whom_an_access_point_serves_is_told_to_the_client() -> None:
    plan = Plan(next(s for s in SITES if s.key == "school").make(), CATALOGUE)
    busy = evaluate(plan).signal.busy
    assert busy is not None
    diagram = diagram_of(plan)
    many: dict[str, float] = defaultdict(float)
    for load in busy.loads:
        many[load.device] += sum(u.clients for u in load.using)
    for node in diagram.nodes:
        served = re.search(r", serves (\d+)$", node.says.get("client", ""))
        assert (int(served[1]) if served else 0) == round(many.get(node.id, 0.0))
    folded = next(c for c in lay_out(diagram).cards if c.name.endswith("access points"))
    together = sum(many[k] for k in folded.nodes)
    assert folded.says["client"].endswith(f", serve {round(together)}")


def test_a_fold_says_all_that_its_things_say_of_their_networks() -> None:
    plan = Plan(next(s for s in SITES if s.key == "school").make(), CATALOGUE)
    diagram = diagram_of(plan)
    nodes = {n.id: n for n in diagram.nodes}
    outlets = [n for n in diagram.nodes if n.role == "Outlet"]
    fold = next(c for c in lay_out(diagram, rows_at_once=1).cards if c.name == f"{len(outlets)} outlets")
    said = list(dict.fromkeys(nodes[k].says["networks"] for k in fold.nodes))
    assert said == ["Staff", "Pupils"] and fold.says["networks"] == "Staff or Pupils"
