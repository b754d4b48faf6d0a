"""Lengths of runs: worked by hand, alike however the plan is turned, against an own shortest path."""

from __future__ import annotations

import heapq
import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from heathrise.core.cabling.conduit import conduit_for, fill
from heathrise.core.cabling.runs import RunVerdict, judge_runs
from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Building, Design, Device, Floor, Riser, Site, Space, apply, put
from heathrise.core.evaluation.evaluate import evaluate

from ..thorough import examples
from .plans import access_point, design_of, rack, shell, wall
from .sites import sites, turned


def corridor(turn: float = 0.0, shift: tuple[float, float] = (0.0, 0.0)) -> Design:
    def at(x: float, y: float) -> tuple[float, float]:
        u, v = turned((x, y), turn)
        return u + shift[0], v + shift[1]

    outline = tuple(at(*p) for p in ((0, 0), (66, 0), (66, 3), (0, 3)))
    return design_of(
        Site(id="site"),
        Building(id="b", name="B"),
        Floor(id="f", building="b", name="G", level=0),
        Space(id="c", floor="f", name="Corridor", outline=outline),
        rack(*at(1, 1.5)),
        access_point(*at(65, 1.5)),
    )


def only(design: Design, catalogue: Catalogue, key: str = "ap-1") -> RunVerdict:
    return next(r for r in judge_runs(design, catalogue) if r.device == key)


@pytest.mark.parametrize("turn", [0, 15, 30, 45, 60, 90, 137])
def test_a_corridor_is_as_long_as_it_is_however_it_lies(catalogue: Catalogue, turn: float) -> None:
    """64 m along, 1.7 up from the rack, 0.2 down to the ceiling, 6 of slack."""
    run = only(corridor(turn, (3.3, -7.7)), catalogue)
    assert run.fixed_m == pytest.approx(71.9, abs=0.06)
    assert (run.horizontal_m, run.rise_m, run.drop_m) == pytest.approx((64.0, 1.7, 0.2), abs=0.05)


def tower(storeys: int, *risers: Riser) -> Design:
    elements = [Site(id="site"), Building(id="b", name="B")]
    for level in range(storeys):
        key = "f" if level == 0 else f"f{level}"
        elements += [
            Floor(id=key, building="b", name=key, level=level, elevation_m=3.0 * level),
            Space(id=f"s{level}", floor=key, name=key, outline=((0, 0), (10, 0), (10, 6), (0, 6))),
        ]  # type: ignore[list-item]
    top = f"f{storeys - 1}"
    return design_of(*elements, *risers, rack(9, 3), access_point(9, 3, floor=top))


def shaft(key: str, x: float, y: float, top: int) -> Riser:
    return Riser(id=key, building="b", name=key, at=(x, y), lowest_level=0, highest_level=top)


def test_a_riser_aside_costs_its_detour_once_each_way(catalogue: Catalogue) -> None:
    """3 m out of the wall: out and back once, whatever the storeys passed: 1.7 + 12 + 8 + 0.2 + 6."""
    run = only(tower(5, shaft("r", 13, 3, 4)), catalogue)
    assert run.fixed_m == pytest.approx(1.7 + 4 * 3 + 2 * 4 + 0.2 + 6, abs=0.6)
    near = only(tower(2, shaft("r", 13, 3, 1)), catalogue)
    assert run.fixed_m - near.fixed_m == pytest.approx(9.0, abs=0.05)


def test_a_riser_drawn_three_times_is_one_way(catalogue: Catalogue) -> None:
    once = only(tower(3, shaft("a", 8, 3, 2)), catalogue)
    risers = [shaft(k, 8, 3, 2) for k in "abc"]
    thrice = only(tower(3, *risers), catalogue)
    far = only(tower(3, *risers, shaft("z", 2, 3, 2)), catalogue)
    assert thrice.fixed_m == far.fixed_m == once.fixed_m


def test_under_a_high_ceiling_the_run_climbs_and_drops(catalogue: Catalogue) -> None:
    """From a void at 3.4 m up to 6.2 over the hall and down to an outlet at 0.3."""
    plan = [
        Site(id="site"),
        Building(id="b", name="B"),
        Floor(id="f", building="b", name="G", level=0, ceiling_height_m=3.2),
        Space(id="next", floor="f", name="Next", outline=((0, 0), (10, 0), (10, 8), (0, 8))),
        Space(
            id="hall",
            floor="f",
            name="Hall",
            ceiling_height_m=6.0,
            outline=((10, 0), (20, 0), (20, 8), (10, 8)),
        ),
        rack(2, 4),
        access_point(16, 4, mount="wall", height_m=0.3),
    ]
    high = design_of(*plan)
    run = only(high, catalogue)
    assert run.drop_m == pytest.approx(6.2 - 0.3, abs=0.01)
    assert run.rise_m == pytest.approx(3.4 - 1.2 + 2.8, abs=0.05)
    hall = high.of(Space)["hall"].model_copy(update={"ceiling_height_m": None})
    low = only(apply(high, [put(hall)]), catalogue)
    assert run.fixed_m - low.fixed_m == pytest.approx(5.6, abs=0.05)


def test_cable_in_the_air_outside_is_hot(catalogue: Catalogue) -> None:
    pole = access_point(-12, 10, model="ravelmoor-x5", mount="pole", height_m=4)
    design = design_of(*shell(), rack(2, 10), pole)
    run = only(design, catalogue)
    assert run.outdoor_m == pytest.approx(12, abs=0.3) and run.duct_m == 0
    assert (run.hottest_space, run.hottest_c) == ("outdoor", 50)
    found = {f.id: f for f in evaluate(Plan(design, catalogue)).findings}
    assert "that leaves the building" in found["cable-surge-ap-1"].text


def test_below_ground_it_is_cool(catalogue: Catalogue) -> None:
    design = design_of(*shell(), rack(2, 2), access_point(15, 15))
    cellar = design.of(Floor)["f"].model_copy(update={"level": -1})
    run = only(apply(design, [put(cellar)]), catalogue)
    assert (run.hottest_space, run.hottest_c) == ("basement", 18)


def test_rooms_far_apart_cost_their_areas_only(catalogue: Catalogue) -> None:
    far = Space(id="far", floor="f", name="Far", outline=((9000, 0), (9010, 0), (9010, 8), (9000, 8)))
    design = design_of(*shell(), far, rack(2, 2), access_point(15, 15))
    from heathrise.core.cabling.ways import ways_of

    assert ways_of(design, catalogue)["rack"].nodes < 3_000
    assert only(design, catalogue).verdict == "met"


def test_masonry_drawn_twice_is_broken_through_once(catalogue: Catalogue) -> None:
    """There is a way round that costs less than two holes and more than one."""
    walls = [wall(1, (10, 0), (10, 16.5), "brick-single")]
    once = design_of(*shell(), *walls, rack(5, 10), access_point(15, 10))
    twice = apply(once, [put(wall(2, (10, 16.5), (10, 0), "block-dense"))])
    assert only(twice, catalogue).fixed_m == only(once, catalogue).fixed_m


def _reference_m(design: Design, device: Device) -> float:
    """Rooms in a row hang together as one rectangle: a way is as long as its two sides."""
    site, room = design.site, next(iter(design.tables["equipment_room"].values()))
    floors = design.of(Floor)
    floor, riser = floors[device.floor], next(iter(design.of(Riser).values()))
    first = next(s for s in design.of(Space).values() if not s.outdoor)
    (ax, ay), (bx, by) = first.outline[:2]
    turn = math.degrees(math.atan2(by - ay, bx - ax))

    def apart(one: tuple[float, float], other: tuple[float, float]) -> float:
        (u, v), (p, q) = turned(one, -turn), turned(other, -turn)
        return abs(u - p) + abs(v - q)

    over = 2.7 + 0.2
    length = over - room.rack_height_m  # type: ignore[attr-defined]
    if device.floor == room.floor:  # type: ignore[attr-defined]
        length += apart(room.at, device.at)  # type: ignore[attr-defined]
    else:
        length += apart(room.at, riser.at) + apart(riser.at, device.at) + floor.elevation_m  # type: ignore[attr-defined]
    return length + abs(over - device.height_m) + site.slack_device_m + site.slack_rack_m


@examples(60)
@given(sites(devices=1), st.floats(0.3, 2.6), st.floats(0.3, 3.6))
def test_lengths_on_random_sites(design: Design, x: float, y: float) -> None:
    catalogue = load_catalogue()
    first = next(s for s in design.of(Space).values() if not s.outdoor)
    (ax, ay), (bx, by) = first.outline[:2]
    turn = math.degrees(math.atan2(by - ay, bx - ax))
    device = next(iter(design.of(Device).values()))
    assume(device.height_m <= 2.7)
    inside = device.model_copy(update={"at": turned((x, y), turn)})
    run = only(apply(design, [put(inside)]), catalogue, inside.id)
    expected = _reference_m(design, inside)
    assert run.fixed_m == pytest.approx(expected, abs=0.35 + 0.01 * expected)


L_SHAPE = [(0, 0), (20, 0), (20, 5), (6, 5), (6, 18), (0, 18)]


@examples(12)
@given(st.integers(1, 38), st.integers(1, 8), st.integers(14, 34), st.sampled_from([0.0, 20.0, 45.0]))
def test_round_a_corner_as_an_own_shortest_path_finds_it(x: int, y: int, up: int, turn: float) -> None:
    """Dijkstra in plain Python over half metres, the plan never turned."""
    catalogue = load_catalogue()
    start, goal = (x / 2, y / 2), (1.0, up / 2)
    outline = tuple(turned(p, turn) for p in L_SHAPE)
    design = design_of(
        Site(id="site"),
        Building(id="b", name="B"),
        Floor(id="f", building="b", name="G", level=0),
        Space(id="l", floor="f", name="L", outline=outline),
        rack(*turned(start, turn)),
        access_point(*turned(goal, turn)),
    )
    found = only(design, catalogue).fixed_m - 1.7 - 0.2 - 6
    assert found == pytest.approx(_dijkstra(start, goal), abs=1.1)


def _dijkstra(start: tuple[float, float], goal: tuple[float, float]) -> float:
    best = {start: 0.0}
    queue = [(0.0, start)]
    while queue:
        length, (x, y) = heapq.heappop(queue)
        if (x, y) == goal:
            return length
        for dx, dy in ((0.5, 0), (-0.5, 0), (0, 0.5), (0, -0.5)):
            spot = (x + dx, y + dy)
            inside = (0 < spot[0] < 20 and 0 < spot[1] < 5) or (0 < spot[0] < 6 and 0 < spot[1] < 18)
            if inside and length + 0.5 < best.get(spot, math.inf):
                best[spot] = length + 0.5
                heapq.heappush(queue, (length + 0.5, spot))
    raise AssertionError("no way")


def test_conduit_by_the_worked_example() -> None:
    assert fill([6.0] * 12, 40.9) == pytest.approx(0.258, abs=0.001)
    assert fill([6.0] * 18, 40.9) <= 0.40 < fill([6.0] * 19, 40.9)
    assert conduit_for(RULES, [6.0] * 12) == "1-1/4 in" and conduit_for(RULES, [7.5] * 2) == "25 mm"
    assert conduit_for(RULES, [7.5] * 40) is None


def test_the_school_s_duct_is_told_its_pipe(catalogue: Catalogue, school: Design) -> None:
    found = {f.id: f for f in evaluate(Plan(school, catalogue)).findings}["cable-duct-duct-garden"]
    assert found.text == "Garden duct: 2 cables ask for a 25 mm conduit, 25% full; 1 more fits."


RULES = load_catalogue().rules
