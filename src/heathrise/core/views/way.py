"""A run's way told leg by leg: where it lies, what it costs to work, its bends, holes and pull points."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Iterator, Sequence

from pydantic import Field
from shapely.geometry import LineString, Point

from ..base.frozen import Frozen
from ..cabling import OVERHEADS, Leg, RunVerdict
from ..catalogue import Catalogue, Used
from ..context.plan import Plan
from ..context.run_decisions import run_said
from ..context.storeys import storeys_of
from ..design import Duct, Floor, Riser, Space, Wall
from ..evaluation.evaluate import evaluate
from ..laying import Hole
from .laid_links import fresh_holes

_BEND = math.radians(30)  # what turns less is no bend
_ON_LEG_M = 0.6  # a hole that cables share lies within this of each
_PLACES = {"rise": "between two ceilings", "drop": "down to it", "outdoor": "in the air outside"}
_NAMED = 3
_COST_OF = {"rise": "rise", "riser": "rise", "drop": "rise", "duct": "duct", "outdoor": "stub"}


class WayLeg(Frozen):
    """One leg of a way. ``cost`` is what it is worth to work, in metres of a free ceiling, without its
    turns."""

    floor: str
    storey: str
    where: str = Field(description="the rooms, the riser or the duct")
    kind: str = Field(description="kind of space")
    length_m: float
    each: float = Field(description="work of a metre, against one in a ceiling void")
    bends: int = Field(description="bends at its beginning and in it")
    holes: tuple[str, ...] = Field((), description="walls that are broken through, by what they are of")
    cost: float


class Way(Frozen):
    """A run's way from its rack to its device; the slack at both ends is no leg of it."""

    device: str
    name: str
    shortest: bool = Field(description="whether it takes the fewest metres, whatever they cost")
    legs: tuple[WayLeg, ...]
    length_m: float
    slack_m: float
    cost: float
    bends: int
    holes: int
    pull_points: int = Field(description="places to pull from between rack and device")
    bend_radius_mm: float
    pull_n: float
    used: tuple[Used, ...] = ()


def way_of(plan: Plan, device: str) -> Way | None:
    """Return how a device's run lies, or None where it has none."""
    rules, catalogue = plan.rules, plan.catalogue
    run = next((r for r in evaluate(plan).runs if r.device == device), None)
    if run is None or run.verdict == "no_way":
        return None
    legs = list(_legs(plan, run))
    bends = sum(leg.bends for leg in legs)
    most, apart_m = rules["cabling.bends_between_pulls"], rules["cabling.pull_m"]
    figures = ("masonry_cost", "turn_cost", "bends_between_pulls", "pull_m", "bend_radius", "pull_n")
    return Way(
        device=device,
        name=run.name,
        shortest=run_said(plan.design, device).shortest,
        legs=tuple(legs),
        length_m=round(sum(leg.length_m for leg in legs), 1),
        slack_m=run.slack_m,
        cost=round(sum(leg.cost for leg in legs) + bends * rules["cabling.turn_cost"], 1),
        bends=bends,
        holes=sum(len(leg.holes) for leg in legs),
        pull_points=pull_points(steps_of_way(run.legs), int(most), apart_m),
        bend_radius_mm=round(rules["cabling.bend_radius"] * _diameter_mm(catalogue, run)),
        pull_n=rules["cabling.pull_n"],
        used=rules.used(*(f"cabling.{name}" for name in figures)),
    )


def _diameter_mm(catalogue: Catalogue, run: RunVerdict) -> float:
    kinds = catalogue.fibres if run.medium == "fibre" else catalogue.cables
    return kinds[run.category].diameter_mm


def _legs(plan: Plan, run: RunVerdict) -> Iterator[WayLeg]:
    design, rules = plan.design, plan.rules
    costs = rules.table("cabling.cost_per_m")
    walls, floors = design.of(Wall), design.of(Floor)
    mine = [] if run.chosen_by == "found" else [h for h in fresh_holes(plan) if run.id in h.links]
    left = list(mine)
    bends = _bends_by_leg(run.legs)
    for number, leg in enumerate(run.legs):
        if leg.length_m < _LEAST_M and not bends[number]:
            continue
        through = [h for h in left if _lies_on(h, leg)]
        left = [h for h in left if h not in through]
        each = costs[_COST_OF.get(leg.kind, leg.kind)]
        names = [plan.catalogue.constructions[walls[h.wall].construction].label for h in through]
        yield WayLeg(
            floor=leg.floor,
            storey=floors[leg.floor].name,
            where=_where(plan, leg) if number or leg.kind != "rise" else "up from the rack",
            kind=leg.kind,
            length_m=round(leg.length_m, 1),
            each=each,
            bends=bends[number],
            holes=tuple(names),
            cost=round(each * leg.length_m + rules["cabling.masonry_cost"] * len(names), 1),
        )


_LEAST_M = 0.05


def _lies_on(hole: Hole, leg: Leg) -> bool:
    if hole.floor != leg.floor or len(leg.points) < 2 or leg.kind in ("riser", "duct"):
        return False
    return bool(LineString(leg.points).distance(Point(hole.at)) <= _ON_LEG_M)


def _where(plan: Plan, leg: Leg) -> str:
    design = plan.design
    if leg.way is not None:
        way = design.of(Riser).get(leg.way) or design.of(Duct).get(leg.way)
        return way.name if way is not None else leg.way
    if leg.kind not in OVERHEADS or len(leg.points) < 2:
        return _PLACES.get(leg.kind, "up and down")
    storeys, names = storeys_of(design), list[str]()
    line = LineString(leg.points)
    for k in range(max(2, math.ceil(line.length)) + 1):
        spot = line.interpolate(min(k, line.length))
        room = storeys.room_at(leg.floor, (spot.x, spot.y))
        if isinstance(room, Space) and room.name not in names:
            names.append(room.name)
    return ", ".join(names[:_NAMED]) + (f" and {len(names) - _NAMED} more" if len(names) > _NAMED else "")


# -- bends and pull points -------------------------------------------------------------------------

Step = tuple[float, bool]  # m of a straight piece, and whether the cable bends where it begins
_Heading = tuple[float, float] | None  # on the level; None is up or down


def steps_of_way(legs: Iterable[Leg]) -> list[Step]:
    """Return a way as its straight pieces."""
    steps: list[Step] = []
    before: _Heading | str = "start"
    for leg in legs:
        for length, heading in _straight(leg):
            steps.append((length, before != "start" and _bent(before, heading)))  # type: ignore[arg-type]
            before = heading
    return steps


def _straight(leg: Leg) -> list[tuple[float, _Heading]]:
    """Return a leg's straight pieces; what lies upright, and what has no points, is one."""
    pairs = [(a, b) for a, b in itertools.pairwise(leg.points) if math.dist(a, b) > _LEAST_M]
    if leg.kind in ("rise", "drop", "riser") or not pairs:
        return [(leg.length_m, None)] if leg.length_m >= _LEAST_M else []
    drawn = sum(math.dist(a, b) for a, b in pairs)
    return [(leg.length_m * math.dist(a, b) / drawn, ((b[0] - a[0]), (b[1] - a[1]))) for a, b in pairs]


def _bent(one: _Heading, other: _Heading) -> bool:
    if one is None or other is None:
        return one is not other
    turn = math.atan2(one[0] * other[1] - one[1] * other[0], one[0] * other[0] + one[1] * other[1])
    return abs(turn) > _BEND


def _bends_by_leg(legs: Sequence[Leg]) -> list[int]:
    """Return how many bends are at the beginning of each leg and in it."""
    steps = iter(steps_of_way(legs))
    return [sum(next(steps)[1] for _ in _straight(leg)) for leg in legs]


def pull_points(steps: Iterable[Step], most_bends: int, apart_m: float) -> int:
    """Return the fewest places between both ends from which a cable has to be pulled.

    From one to the next there are at most so many bends and metres; one stands at a bend wherever it can.
    """
    count, bends, gone_m = 0, 0, 0.0
    for length_m, bent in steps:
        if bent:
            bends += 1
            if bends > most_bends:
                count, bends, gone_m = count + 1, 0, 0.0
        left_m = length_m
        while gone_m + left_m > apart_m + 1e-9:
            left_m -= apart_m - gone_m
            count, bends, gone_m = count + 1, 0, 0.0
        gone_m += left_m
    return count
