"""Ways on foot: by hand, and against the shortest way from jamb to jamb on random plans."""

from __future__ import annotations

import heapq
import itertools
import math
import random
from collections.abc import Sequence

import pytest

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Building,
    Design,
    Element,
    Floor,
    Network,
    Opening,
    Space,
    UsualRoute,
    Wall,
    WirelessName,
    apply,
    put,
    remove,
)
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.signal import air_of, judge_habits, walk_of
from heathrise.core.views.failures import drill
from heathrise.core.walkways import footways_of
from heathrise.demo import SITES

from .plans import access_point, design_of, shell, wall

Spot = tuple[float, float]
Line = tuple[Spot, Spot]


def _room(key: str, box: tuple[float, float, float, float], floor: str = "f", **more: object) -> Space:
    west, south, east, north = box
    outline = ((west, south), (east, south), (east, north), (west, north))
    return Space.model_validate(
        {"id": key, "floor": floor, "name": key.title(), "use": "calls", "outline": outline, **more}
    )


def _door(number: int, at_m: float, wide_m: float = 0.9, kind: str = "door") -> Opening:
    return Opening.model_validate(
        {
            "id": f"d{number}",
            "wall": f"w{number}",
            "kind": kind,
            "offset_m": at_m,
            "width_m": wide_m,
            "construction": "door-hollow",
        }
    )


def _two_rooms(*more: Element) -> Design:
    """Two rooms of 5 by 4 m with a wall between at x = 5, from south to north."""
    return design_of(
        *shell()[:3],
        _room("left", (0, 0, 5, 4)),
        _room("right", (5, 0, 10, 4)),
        wall(1, (5, 0), (5, 4), "brick-single"),
        wall(2, (0, 0), (10, 0), "brick-single"),
        wall(3, (10, 0), (10, 4), "brick-single"),
        wall(4, (10, 4), (0, 4), "brick-single"),
        wall(5, (0, 4), (0, 0), "brick-single"),
        *more,
    )


def test_through_a_door_by_hand() -> None:
    """From (2.5, 2) to (7.5, 2) by a door from 3.0 to 3.9 m: round its jamb at (5, 3), 2 x 2.69 m."""
    design = _two_rooms(_door(1, 3.0))
    spaces = design.of(Space)
    way = footways_of(design).way(spaces["left"], spaces["right"])
    assert way is not None and not way.through
    assert way.metres == pytest.approx(2 * math.hypot(2.5, 1), abs=0.3)
    assert (way.points[0].at, way.points[-1].at) == ((2.5, 2), (7.5, 2))
    door = [p.at for p in way.points if abs(p.at[0] - 5) < 0.5]
    assert door and all(2.9 < y < 4 for _, y in door)


@pytest.mark.parametrize("more", [(), (_door(1, 3.0, kind="window"),)])
def test_a_wall_without_a_door_is_gone_through_and_told(more: Sequence[Element]) -> None:
    design = _two_rooms(*more)
    spaces = design.of(Space)
    way = footways_of(design).way(spaces["left"], spaces["right"])
    assert way is not None and way.through == (("Left", "Right"),)
    assert way.metres == pytest.approx(5, abs=0.3)


def _over(*more: Element, upper: str = "b", stairs: bool = True) -> Design:
    """A room of 4 by 4 m under another, 3 m up; a flight along the 4 m."""
    return design_of(
        *shell()[:3],
        Building(id="c", name="Barn"),
        Floor(id="u", building=upper, name="Upper", level=1, elevation_m=3.0),
        _room("low", (0, 0, 4, 4), stairs=stairs),
        _room("high", (0, 0, 4, 4), "u"),
        *more,
    )


def test_stairs_are_climbed_along_their_room() -> None:
    """The flight leaves 1 m at either end: 2 m along and 3 m up, 3.61 m; 1 m to it, 1 m from it."""
    design = _over()
    spaces = design.of(Space)
    way = footways_of(design).way(spaces["low"], spaces["high"])
    assert way is not None and [p.floor for p in way.points] == ["f", "f", "u", "u"]
    assert way.metres == pytest.approx(math.hypot(2, 3) + 2, abs=0.5)
    down = footways_of(design).way(spaces["high"], spaces["low"])
    assert down is not None and down.metres == pytest.approx(way.metres, abs=0.05)


def test_without_stairs_there_is_no_way_and_it_is_said(catalogue: Catalogue) -> None:
    habit = UsualRoute(id="h", from_space="low", to_space="high")
    design = _over(habit, access_point(2, 2), stairs=False)
    (row,) = judge_habits(air_of(design, catalogue))
    assert row.verdict == "no_way" and "Ground to Upper" in row.text and "stairs" in row.text
    assert walk_of(air_of(design, catalogue), habit) is None
    (finding,) = [f for f in evaluate(Plan(design, catalogue)).findings if f.id == "signal-walk-h"]
    assert finding.severity == "near"


def test_nobody_walks_over_a_void() -> None:
    """A hall is open above: the gallery round its north is walked, not the air over it."""
    design = design_of(
        *shell()[:3],
        Floor(id="u", building="b", name="Upper", level=1, elevation_m=3.0),
        _room("hall", (2, 0, 8, 6), open_above=True),
        _room("west", (0, 0, 2, 8), "u"),
        _room("east", (8, 0, 10, 8), "u"),
        _room("gallery", (2, 6, 8, 8), "u"),
        _room("air", (2, 0, 8, 6), "u", use="none"),
    )
    spaces = design.of(Space)
    way = footways_of(design).way(spaces["west"], spaces["east"])
    assert way is not None and not way.through
    assert all(not (2.3 < x < 7.7 and y < 5.7) for x, y in (p.at for p in way.points))
    assert way.metres == pytest.approx(6 + 2 * math.hypot(1, 2), abs=0.7)


@pytest.mark.parametrize("height_m", [0.0, 0.4, 2.5])
def test_from_one_building_to_another_over_the_ground(height_m: float) -> None:
    """Doors face each other 20 m apart; a barn on a slope is reached as well."""
    design = design_of(
        *shell()[:3],
        Building(id="c", name="Barn"),
        Floor(id="g", building="c", name="Barn floor", level=0, elevation_m=height_m),
        _room("house", (0, 0, 4, 4)),
        _room("barn", (24, 0, 28, 4), "g"),
        wall(1, (4, 0), (4, 4), "brick-single"),
        _door(1, 1.5),
        Wall(id="w2", floor="g", a=(24, 0), b=(24, 4), construction="brick-single"),
        _door(2, 1.5),
    )
    spaces = design.of(Space)
    way = footways_of(design).way(spaces["house"], spaces["barn"])
    assert way is not None and not way.through
    assert way.points[0].floor == "f" and way.points[-1].floor == "g"
    assert way.metres == pytest.approx(math.hypot(24, height_m), abs=0.05 * 24 + height_m)


def test_a_wide_plot_takes_no_longer_and_doors_are_met(catalogue: Catalogue) -> None:
    """Two huts of three rooms with doors in line, 4 km apart: through all doors, no wall."""
    huts: list[Element] = []
    for k, x in enumerate((0.0, 4000.0)):
        floor = "f" if k == 0 else "g"
        for n in range(4):
            number = 10 * k + n
            huts.append(
                Wall(
                    id=f"w{number}",
                    floor=floor,
                    a=(x + 5 * n, 0),
                    b=(x + 5 * n, 4),
                    construction="brick-single",
                )
            )
            huts.append(_door(number, 1.5))
        huts += [_room(f"r{k}{n}", (x + 5 * n, 0, x + 5 * n + 5, 4), floor) for n in range(3)]
    site = shell()[:3]
    barn = Floor(id="g", building="c", name="Barn floor", level=0, elevation_m=0.2)
    rooms = [e for e in huts if isinstance(e, Space)]
    walls = [e for e in huts if not isinstance(e, Space)]
    design = design_of(*site, Building(id="c", name="Barn"), barn, *rooms, *walls)
    spaces = design.of(Space)
    ways = footways_of(design)
    assert sum(p.size for p in ways.planes) < 500_000
    way = ways.way(spaces["r00"], spaces["r12"])
    assert way is not None and not way.through
    assert way.metres == pytest.approx(4010, rel=0.01)


# A slow, plain reference: rooms are rectangles, so the shortest way bends at jambs alone.


def _left(a: Spot, b: Spot, c: Spot) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def _meet(p: Line, q: Line) -> bool:
    (a, b), (c, d) = p, q
    return (_left(a, b, c) * _left(a, b, d) <= 0 and _left(c, d, a) * _left(c, d, b) <= 0) and not (
        _left(a, b, c) == _left(a, b, d) == 0
    )


def _shortest(start: Spot, end: Spot, solid: list[Line], jambs: list[Spot]) -> float:
    spots = [start, end, *jambs]
    best = {0: 0.0}
    queue = [(0.0, 0)]
    done: set[int] = set()
    while queue:
        far, k = heapq.heappop(queue)
        if k in done:
            continue
        done.add(k)
        for n, spot in enumerate(spots):
            if n in done or any(_meet((spots[k], spot), line) for line in solid):
                continue
            if far + math.dist(spots[k], spot) < best.get(n, math.inf):
                best[n] = far + math.dist(spots[k], spot)
                heapq.heappush(queue, (best[n], n))
    return best.get(1, math.inf)


def _random_plan(seed: int) -> tuple[Design, list[Line], list[Spot]]:
    """Rooms in rows and columns, some walls between them with a door; what is solid, the jambs."""
    dice = random.Random(seed)
    xs = list(
        itertools.accumulate([round(dice.uniform(2, 6), 2) for _ in range(dice.randint(2, 4))], initial=0.0)
    )
    ys = list(
        itertools.accumulate([round(dice.uniform(2, 6), 2) for _ in range(dice.randint(2, 3))], initial=0.0)
    )
    elements: list[Element] = shell()[:3]
    for i, j in itertools.product(range(len(xs) - 1), range(len(ys) - 1)):
        elements.append(_room(f"r{i}{j}", (xs[i], ys[j], xs[i + 1], ys[j + 1])))
    solid: list[Line] = []
    jambs: list[Spot] = []
    sides = [
        ((x, ys[j]), (x, ys[j + 1]), k in (0, len(xs) - 1))
        for k, x in enumerate(xs)
        for j in range(len(ys) - 1)
    ]
    sides += [
        ((xs[i], y), (xs[i + 1], y), k in (0, len(ys) - 1))
        for k, y in enumerate(ys)
        for i in range(len(xs) - 1)
    ]
    for number, (a, b, outer) in enumerate(sides):
        elements.append(wall(number, a, b, "brick-single"))
        if outer or dice.random() > 0.65:
            solid.append((a, b))
            continue
        size = math.dist(a, b)
        at, wide = round(dice.uniform(0.2, size - 1.2), 2), 0.9
        elements.append(_door(number, at, wide))

        def on(m: float, a: Spot = a, b: Spot = b, size: float = size) -> Spot:
            return a[0] + (b[0] - a[0]) * m / size, a[1] + (b[1] - a[1]) * m / size

        solid += [(a, on(at)), (on(at + wide), b)]
        jambs += [on(at + 0.01), on(at + wide - 0.01)]
    return design_of(*elements), solid, jambs


@pytest.mark.parametrize("seed", range(25))
def test_random_plans_against_the_way_from_jamb_to_jamb(seed: int) -> None:
    design, solid, jambs = _random_plan(seed)
    spaces = list(design.of(Space).values())
    ways = footways_of(design)
    for start, end in random.Random(seed).sample(list(itertools.combinations(spaces, 2)), 3):
        a, b = (
            ((s.outline[0][0] + s.outline[2][0]) / 2, (s.outline[0][1] + s.outline[2][1]) / 2)
            for s in (start, end)
        )
        shortest = _shortest(a, b, solid, jambs)
        way = ways.way(start, end)
        assert way is not None
        assert bool(way.through) == math.isinf(shortest)
        if not way.through:
            legs = list(itertools.pairwise(p.at for p in way.points))
            assert not any(_meet(leg, line) for leg in legs for line in solid)
            assert shortest - 0.05 <= way.metres <= 1.08 * shortest + 0.6


def test_what_becomes_of_a_habit_is_what_becomes_of_its_walk(catalogue: Catalogue) -> None:
    """On the mill a call is carried to the kitchen's terrace, and lost on the way to the studio."""
    design = next(s for s in SITES if s.key == "mill").make()
    evaluation = evaluate(Plan(design, catalogue))
    assert evaluation.signal.habits is not None
    rows = {h.name: h for h in evaluation.signal.habits}
    lost = rows["Great kitchen to Painting room"]
    assert lost.verdict == "breaks" and not lost.undrawn and lost.seconds > 60
    (finding,) = [f for f in evaluation.findings if f.id == f"signal-walk-{lost.habit}"]
    assert finding.severity == "not_met" and finding.places[0].at == lost.at
    assert rows["Great kitchen to Mill terrace"].verdict == "holds"
    gone = [remove(h) for h in design.of(UsualRoute).values()]
    assert evaluate(Plan(apply(design, gone), catalogue)).signal.habits == ()


def test_a_slow_hand_over_has_a_cure_that_mends_it(catalogue: Catalogue) -> None:
    """Two access points 110 m apart, people's own passwords: 400 ms, 50 with fast transition."""
    network = {"id": "n", "name": "Main", "purpose": "main", "vlan": 10, "subnet": "10.0.0.0/24"}
    name = WirelessName(id="w", network="n", ssid="Main", security="enterprise", fast_transition=False)
    base = shell(130, 4)
    design = design_of(
        *base[:3],
        _room("near", (0, 0, 4, 4)),
        _room("far", (126, 0, 130, 4)),
        access_point(10, 2),
        access_point(120, 2, "ap-2"),
        name,
        UsualRoute(id="h", from_space="near", to_space="far"),
    )
    design = apply(design, [put(Network.model_validate(network))])
    finding = next(f for f in evaluate(Plan(design, catalogue)).findings if f.id == "signal-walk-h")
    (cure,) = finding.cures
    mended = evaluate(Plan(apply(design, cure.changes), catalogue))
    assert mended.signal.habits is not None and mended.signal.habits[0].verdict == "holds"


def test_a_drill_carries_the_habits_through_each_failure(catalogue: Catalogue) -> None:
    """One access point serves the whole way: without it the call is lost all along."""
    design = design_of(
        *shell()[:3],
        _room("near", (0, 0, 4, 4)),
        _room("far", (16, 0, 20, 4)),
        access_point(10, 2),
        UsualRoute(id="h", from_space="near", to_space="far"),
    )
    evaluation = evaluate(Plan(design, catalogue))
    (failure,) = [f for f in drill(Plan(design, catalogue)) if f.element == "ap-1"]
    assert evaluation.signal.habits is not None
    assert failure.walk_lost_s == pytest.approx(evaluation.signal.habits[0].seconds, abs=1.0)
