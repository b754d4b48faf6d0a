"""Several places on one feed of direct current: from place to place in one trench, volts at each."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from pydantic import Field

from ..base.frozen import Frozen
from ..catalogue import Prices, Rules
from ..design import LandKind, Point
from .bill import Bill
from .direct_current import Fed, Node, feed_tree, loop_ohm

KINDS = ("plain", "boost")
_AT_LEAST = 2  # places, below which nothing is shared


@dataclass(frozen=True)
class FedPlace:
    """A place that is to hang on a feed: watts of what stands there, the ground before it, and the converter
    and conductor of a feed to it alone, None where none does."""

    key: str
    name: str
    at: Point
    watts: float
    land: LandKind
    own: tuple[str, float] | None


class FeedRow(Frozen):
    """A place on the feed: what is before it, metres of cable from there and from the rack, what arrives, and
    what its piece of cable carries."""

    point: str
    name: str
    before: str = Field(description="id of the place before it, empty for the rack")
    metres: float
    path_m: float
    watts: float
    volts: float
    amperes: float


class OneFeed(Frozen):
    """One feed to several places: conductor, converter, and against a feed of its own to each.

    ``alone_once`` is None where not every place has a way of its own to hang on by itself.
    """

    rows: tuple[FeedRow, ...] = Field(description="each after the one before it")
    mm2: float
    kind: str
    source_v: float
    least_v: float
    source_w: float
    start_a: float = Field(description="as all start at once")
    fuse_a: float | None
    trench_m: float
    once: float = Field(description="trench, fibre and feed; what ends the fibre is the same either way")
    alone_m: float = Field(description="of trench, to each by itself")
    alone_once: float | None
    left: tuple[str, ...] = Field(description="places that no conductor feeds with the others")


def tree_of(root: Point, places: Mapping[str, Point]) -> list[tuple[str, str, float]]:
    """Return the shortest tree from a root through all places: each, what is before it (empty for the root),
    and how far; whoever is before comes first."""
    best = {key: ("", math.dist(root, at)) for key, at in places.items()}
    found: list[tuple[str, str, float]] = []
    while best:
        key = min(best, key=lambda k: (best[k][1], k))
        before, far = best.pop(key)
        found.append((key, before, far))
        for other in best:
            near = math.dist(places[key], places[other])
            if near < best[other][1]:
                best[other] = (key, near)
    return found


def fuse_for(rules: Rules, amperes: float) -> float | None:
    """Return the smallest fuse that is listed for a current, None where all are too small."""
    return next((a for a in sorted(rules.numbers("far.fuses_a")) if a >= amperes), None)


def add_feed(bill: Bill, kind: str, mm2: float, metres: float, ends: int) -> None:
    """Add a feed: its supply, its conductor, converters at all ends but the first, earth, surge."""
    bill.add("dc-supply")
    bill.add(f"feed-{mm2:g}", metres)
    bill.add(f"dc-{kind}", ends - 1)
    bill.add("mast-earth", ends)
    bill.add("surge", ends)
    minutes = ends * bill.rules["far.minutes.feed_end"]
    label = "End, fuse and earth a feed of direct current"
    bill.work("feed", "protect", label, minutes, ends, ("mains", "lightning"))


def one_feed(prices: Prices, root: Point, places: Sequence[FedPlace], slack_m: float) -> OneFeed | None:
    """Return the cheapest feed on which all run and start at once; else the farthest is left out.

    Args:
        slack_m: kept at the two ends of each piece.
    """
    going, left = list(places), list[str]()
    while len(going) >= _AT_LEAST:
        found = _settled(prices, root, going, slack_m)
        if found is not None:
            return _told(prices, root, going, found, left, slack_m)
        share = prices.catalogue.rules["far.route_share"]
        path = _paths(tree_of(root, {p.key: p.at for p in going}), share, slack_m)
        farthest = max(going, key=lambda p: (path[p.key], p.key))
        going.remove(farthest)
        left.append(farthest.name)
    return None


@dataclass(frozen=True)
class _Settled:
    tree: list[tuple[str, str, float]]
    kind: str
    mm2: float
    fed: Fed
    start_a: float


def _settled(prices: Prices, root: Point, places: Sequence[FedPlace], slack_m: float) -> _Settled | None:
    rules = prices.catalogue.rules
    tree = tree_of(root, {p.key: p.at for p in places})
    by_key = {p.key: p for p in places}
    row_of = {key: k for k, (key, _, _) in enumerate(tree)}
    source_v, share = rules["far.feed_v"], rules["far.route_share"]
    metres = [far * share + slack_m for _, _, far in tree]
    options = []
    for kind in KINDS:
        least_v = rules[f"far.feed_least_v.{kind}"]
        for mm2 in sorted(rules.numbers("far.gauges_mm2")):

            def nodes(times: float, mm2: float = mm2, least_v: float = least_v) -> list[Node]:
                return [
                    Node(
                        row_of[before] if before else None,
                        loop_ohm(rules, mm2, m, rules["far.feed_c"]),
                        times * by_key[key].watts / rules["far.boost_share"],
                        least_v,
                    )
                    for (key, before, _), m in zip(tree, metres, strict=True)
                ]

            fed, starts = feed_tree(source_v, nodes(1.0)), feed_tree(source_v, nodes(rules["far.start_up"]))
            if fed.runs and starts.runs:
                price = prices.each(f"feed-{mm2:g}") * sum(metres) + len(tree) * prices.each(f"dc-{kind}")
                start_a = starts.source_w / source_v
                options.append((price, kind, mm2, _Settled(tree, kind, mm2, fed, start_a)))
                break  # thicker ones cost more
    return min(options, key=lambda o: o[:3])[3] if options else None


def _paths(tree: Sequence[tuple[str, str, float]], share: float, slack_m: float) -> dict[str, float]:
    found: dict[str, float] = {"": 0.0}
    for key, before, far in tree:
        found[key] = found[before] + far * share + slack_m
    return found


def _told(
    prices: Prices,
    root: Point,
    places: Sequence[FedPlace],
    found: _Settled,
    left: Sequence[str],
    slack_m: float,
) -> OneFeed:
    rules = prices.catalogue.rules
    by_key, share = {p.key: p for p in places}, rules["far.route_share"]
    path = _paths(found.tree, share, slack_m)
    rows = tuple(
        FeedRow(
            point=key,
            name=by_key[key].name,
            before=before,
            metres=round(far * share + slack_m, 1),
            path_m=round(path[key], 1),
            watts=by_key[key].watts,
            volts=round(branch.volts, 2),
            amperes=round(branch.amperes, 3),
        )
        for (key, before, far), branch in zip(found.tree, found.fed.branches, strict=True)
    )
    bill, apart, fibre = Bill(prices, 1), Bill(prices, 1), prices.catalogue.fibres["os2"].item("ground")
    for (key, _, far), row in zip(found.tree, rows, strict=True):
        bill.trench(far * share, by_key[key].land)
        bill.add(fibre, row.path_m)
    add_feed(bill, found.kind, found.mm2, sum(r.metres for r in rows), len(rows) + 1)
    lengths = {p.key: math.dist(root, p.at) * share for p in places}
    for place in places:
        apart.trench(lengths[place.key], place.land)
        apart.add(fibre, lengths[place.key] + slack_m)
        if place.own is not None:
            add_feed(apart, *place.own, lengths[place.key] + slack_m, 2)
    return OneFeed(
        rows=rows,
        mm2=found.mm2,
        kind=found.kind,
        source_v=rules["far.feed_v"],
        least_v=rules[f"far.feed_least_v.{found.kind}"],
        source_w=round(found.fed.source_w, 1),
        start_a=round(found.start_a, 2),
        fuse_a=fuse_for(rules, found.start_a),
        trench_m=round(sum(far * share for _, _, far in found.tree), 1),
        once=bill.cost().once,
        alone_m=round(sum(lengths.values()), 1),
        alone_once=apart.cost().once if all(p.own for p in places) else None,
        left=tuple(left),
    )
