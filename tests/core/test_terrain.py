"""Walls, slabs and roofs where they really stand, by figures worked by hand."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.context.storeys import storeys_of
from heathrise.core.design import (
    Building,
    Design,
    Device,
    Element,
    Floor,
    Opening,
    Radio,
    Site,
    Space,
    apply,
    put,
)
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.signal.assess import air_of
from heathrise.core.signal.hearing import hearing_dbm
from heathrise.core.signal.obstacles import losses_db
from heathrise.core.signal.propagation import chance_of
from heathrise.core.signal.rooms import judge_rooms
from heathrise.core.signal.survey import room_points

from ..thorough import examples
from .plans import access_point, design_of, shell, wall
from .sites import sites


def square(west: float, south: float, east: float, north: float) -> tuple:
    return ((west, south), (east, south), (east, north), (west, north))


def loss(
    design: Design,
    catalogue: Catalogue,
    at: tuple[float, float],
    floor: str = "f",
    key: str = "ap-1",
    row: int = 1,
) -> float:
    air = air_of(design, catalogue, "5")
    device = design.of(Device)[key]
    model = catalogue.airs[device.model]
    x, y = np.array([at[0]]), np.array([at[1]])
    return float(losses_db(air.terrain, device, model, floor, x, y)[row, 0])


def storey(level: int, box: tuple[float, float, float, float], **more: object) -> list[Element]:
    key = f"f{level}"
    return [
        Floor.model_validate(
            {"id": key, "building": "b", "name": key, "level": level, "elevation_m": 3.0 * level, **more}
        ),
        Space(id=f"room-{key}", floor=key, name=key, outline=square(*box)),
    ]


def test_a_storey_more_changes_nothing_in_the_garden(catalogue: Catalogue) -> None:
    """A pole of 4 m, a client 10 m off at 1.2 m: 67.6 dB of free space both times."""
    pole = access_point(-4, 5, model="ravelmoor-t3", mount="pole", height_m=4.0)
    low = design_of(*shell(10, 10), pole)
    high = apply(low, [put(e) for e in storey(1, (0, 0, 10, 10))])
    elevation = math.degrees(math.atan2(2.8, 10))
    expected = 67.6 + 12 * (elevation / 60) ** 2
    for design in (low, high):
        assert loss(design, catalogue, (-14, 5)) == pytest.approx(expected, abs=0.05)


def test_a_ray_that_leaves_by_the_window_does_not_pay_for_the_slab(catalogue: Catalogue) -> None:
    """From the upper storey down to the lawn: it passes 3 m of height outside the building."""
    upper = storey(1, (0, 0, 10, 10), slab="floor-concrete")
    inside = access_point(1, 5, floor="f1", height_m=1.0)
    design = design_of(*shell(10, 10), *upper, inside)
    bare = design_of(*shell(10, 10), *(upper[:1]), inside.model_copy(update={"floor": "f1"}))
    assert loss(design, catalogue, (-6, 5)) == pytest.approx(loss(bare, catalogue, (-6, 5)))
    assert loss(design, catalogue, (6, 5)) - loss(bare, catalogue, (6, 5)) == pytest.approx(24 - 9), (
        "where no storey lies above, the ray goes through the roof instead"
    )


@pytest.mark.parametrize(("roof", "takes_db"), [("roof-tiles", 9), ("roof-metal", 30)])
def test_above_the_top_storey_lies_a_roof(catalogue: Catalogue, roof: str, takes_db: float) -> None:
    mast = access_point(5, 5, model="ravelmoor-t3", mount="pole", height_m=8.0)
    design = design_of(*shell(10, 10), mast)
    open_yard = design.of(Space)["room"].model_copy(update={"outdoor": True})
    roofed = apply(design, [put(Building(id="b", name="Hut", roof=roof))])
    free = loss(apply(design, [put(open_yard)]), catalogue, (6, 5))
    assert loss(roofed, catalogue, (6, 5)) - free == pytest.approx(takes_db)


def test_slabs_crossed_share_the_mean_of_those_crossed_only(catalogue: Catalogue) -> None:
    """Two slabs over one another, concrete and timber; where one has a hole only the other counts."""
    timber = storey(1, (0, 0, 20, 20), slab="floor-timber")
    concrete = storey(2, (0, 0, 20, 20), slab="floor-concrete")
    design = design_of(*shell(), *timber, *concrete, access_point(5, 5))
    hole = design.of(Space)["room"].model_copy(update={"open_above": True})
    holed = apply(design, [put(hole)])
    clear = apply(holed, [put(design.of(Space)["room-f1"].model_copy(update={"open_above": True}))])
    free = loss(clear, catalogue, (6, 6), "f2")
    assert loss(holed, catalogue, (6, 6), "f2") - free == pytest.approx(24)
    both = (13 + 24) / 2 * 2 ** (4 / 3 - 0.46)
    assert loss(design, catalogue, (6, 6), "f2") - free == pytest.approx(both)


def test_the_wall_of_a_hall_is_as_high_as_the_hall(catalogue: Catalogue) -> None:
    elements = [
        Site(id="site"),
        Building(id="b", name="B"),
        Floor(id="f", building="b", name="G", level=0),
        Space(id="hall", floor="f", name="Hall", ceiling_height_m=6.0, outline=square(0, 0, 10, 10)),
        Space(id="next", floor="f", name="Next", outline=square(10, 0, 20, 10)),
        wall(1, (10, 0), (10, 10), "concrete"),
    ]
    high = access_point(8, 5, height_m=6.0)
    design = design_of(*elements, high)
    without = Design({k: t for k, t in design.tables.items() if k != "wall"})
    through = loss(design, catalogue, (18, 5)) - loss(without, catalogue, (18, 5))
    factor = math.dist((8, 5, 6), (18, 5, 1.2)) / 10
    assert through == pytest.approx(26 * factor, abs=0.01)


@pytest.mark.parametrize("mount", ["wall", "ceiling"])
def test_a_device_on_a_wall_stands_on_one_side_of_it(catalogue: Catalogue, mount: str) -> None:
    """It faces west, and the room to the west is the larger: east of the wall is concrete away."""
    plan = [
        Site(id="site"),
        Building(id="b", name="B"),
        Floor(id="f", building="b", name="G", level=0),
        Space(id="west", floor="f", name="West", outline=square(0, 0, 12, 10)),
        Space(id="east", floor="f", name="East", outline=square(12, 0, 18, 10)),
        wall(1, (12, 0), (12, 10), "concrete"),
    ]
    levels = {}
    for x in (11.95, 12.0):
        device = access_point(x, 5, mount=mount, azimuth_deg=270.0, height_m=2.2)
        design = design_of(*plan, device)
        levels[x] = loss(design, catalogue, (6, 5.2)), loss(design, catalogue, (16, 5.2))
    assert levels[12.0] == pytest.approx(levels[11.95], abs=0.3)
    assert levels[12.0][1] - levels[12.0][0] > 20
    if mount == "wall":
        behind = design_of(*plan, access_point(12.05, 5, mount="wall", azimuth_deg=270.0, height_m=2.2))
        assert loss(behind, catalogue, (6, 5.2)) == pytest.approx(levels[12.0][0], abs=0.3)


def test_walls_drawn_on_one_another_count_once(catalogue: Catalogue) -> None:
    once = [wall(1, (8, 0), (8, 20), "brick-single")]
    again = [
        *once,
        wall(2, (8, 12), (8, 4), "brick-single"),
        wall(3, (8, 2), (8, 9), "plasterboard"),
        wall(4, (8.01, 0), (8.01, 20), "block-light"),
    ]
    door = Opening(id="o", wall="w1", kind="door", offset_m=9, width_m=1, construction="door-hollow")
    for openings, at in (([], (12, 7)), ([door], (11, 9.5))):
        plain = design_of(*shell(), *once, *openings, access_point(5, at[1]))
        doubled = design_of(*shell(), *again, *openings, access_point(5, at[1]))
        assert loss(doubled, catalogue, at) == pytest.approx(loss(plain, catalogue, at), abs=0.02)


def test_a_sliver_of_one_wall_does_not_stand_in_another_s_door(catalogue: Catalogue) -> None:
    """Two walls drawn on one another whose doors are 15 mm out of line."""
    walls = [wall(1, (8, 0), (8, 20), "metal"), wall(2, (8, 20), (8, 0), "block-dense")]
    doors = [
        Opening(id="a", wall="w1", kind="door", offset_m=9.0, width_m=1, construction="door-hollow"),
        Opening(id="b", wall="w2", kind="door", offset_m=9.985, width_m=1, construction="door-hollow"),
    ]
    design = design_of(*shell(), *walls, *doors, access_point(5, 9.007))
    free = Design({k: t for k, t in design.tables.items() if k not in ("wall", "opening")})
    taken = loss(design, catalogue, (11, 9.007)) - loss(free, catalogue, (11, 9.007))
    factor = math.dist((5, 2.7), (11, 1.2)) / 6
    assert taken == pytest.approx(3 * factor, abs=0.01)


def test_a_plan_drawn_twice_and_turned_changes_no_level(catalogue: Catalogue) -> None:
    def plan(turn: float, copies: int) -> tuple[Design, tuple[float, float]]:
        def at(x: float, y: float) -> tuple[float, float]:
            c, s = math.cos(math.radians(turn)), math.sin(math.radians(turn))
            return x * c - y * s, x * s + y * c

        walls = [((6.0, 0.0), (6.0, 9.0), "brick-single"), ((0.0, 5.0), (12.0, 5.0), "concrete")]
        drawn = [
            wall(10 * k + i, at(*a), at(*b), of) for k in range(copies) for i, (a, b, of) in enumerate(walls)
        ]
        *ground, space = shell()
        outline = tuple(at(*p) for p in square(0, 0, 12, 9))
        turned = space.model_copy(update={"outline": outline})
        x, y = at(3.1, 2.2)
        design = design_of(*ground, turned, *drawn, access_point(x, y))
        return design, at(9.3, 7.7)

    base, spot = plan(0, 1)
    for turn, copies in ((0, 2), (30, 1), (45, 3)):
        other, there = plan(turn, copies)
        assert loss(other, catalogue, there) == pytest.approx(loss(base, catalogue, spot), abs=0.01)


def test_two_discs_at_one_height_hear_each_other_through_both_patterns(catalogue: Catalogue) -> None:
    """20 m apart under one ceiling: 73.3 dB, and 6.75 dB for each dome at 90 degrees off."""
    design = design_of(*shell(30, 30), access_point(5, 5), access_point(25, 5, "ap-2"))
    heard = hearing_dbm(air_of(design, catalogue, "5"), "5")[0, 1]
    assert heard == pytest.approx(17 + 4 + 4 - 73.27 - 2 * 6.75, abs=0.1)


def test_small_rooms_have_points_of_their_own_and_large_ones_do_not_coarsen_them() -> None:
    from shapely.geometry import Polygon

    closet = Polygon(square(3.1, 3.1, 3.7, 3.6))
    x, y = room_points(closet)
    assert len(x) >= 6 and all(closet.contains_properly(p) for p in _points(x, y))
    sliver = Polygon(((0, 0), (9, 0.01), (9, 0.05)))
    assert all(sliver.contains_properly(p) for p in _points(*room_points(sliver)))
    garden = Polygon(square(0, 0, 400, 300))
    assert 1_500 < len(room_points(garden)[0]) < 3_500


def _points(x: np.ndarray, y: np.ndarray) -> list:
    from shapely.geometry import Point

    return [Point(a, b) for a, b in zip(x, y, strict=True)]


def test_a_closet_in_concrete_is_not_met_by_what_is_outside_it(catalogue: Catalogue) -> None:
    corners = square(10.05, 10.05, 10.65, 10.55)
    walls = [wall(k, corners[k], corners[(k + 1) % 4], "concrete") for k in range(4)]
    closet = Space(id="closet", floor="f", name="Closet", outline=corners)
    design = design_of(*shell(), *walls, closet, access_point(1, 10))
    rooms = {r.space: r for r in judge_rooms(air_of(design, catalogue))}
    assert rooms["closet"].verdict == "not_met"
    far = Space(id="field", floor="f", name="Field", outdoor=True, outline=square(50, 0, 450, 400))
    wider = apply(design, [put(far)])
    again = {r.space: r for r in judge_rooms(air_of(wider, catalogue))}
    assert again["closet"] == rooms["closet"] and again["room"] == rooms["room"]


def test_a_quiet_radio_still_serves_the_sensors_it_is_loudest_for(catalogue: Catalogue) -> None:
    """The sensors' room is nearer to an access point whose 2.4 GHz radio is off."""
    sensors = Space(id="plant", floor="f", name="Plant", use="sensors", outline=square(30, 0, 34, 4))
    points = [access_point(4, 4), access_point(26, 2, "ap-2")]
    off = Radio(id="r", device="ap-2", band="2.4", on=False)
    walls = [wall(1, (24, -5), (24, 25), "brick-single"), wall(2, (30, 0), (30, 4), "wet-wall")]
    design = design_of(*shell(10, 10), sensors, *walls, *points, off)
    room = next(r for r in judge_rooms(air_of(design, catalogue)) if r.space == "plant")
    assert (room.verdict, room.share) == ("met", 1.0)
    reason = air_of(design, catalogue).radios["ap-1", "2.4"].reason
    assert "Plant" in reason and "-72" in reason


@examples(40)
@given(sites(), st.sampled_from([0.0, 3.0, 12.0]), st.booleans())
def test_quiet_radios_leave_no_sensors_room_worse_served(
    design: Design, margin_db: float, one_off: bool
) -> None:
    catalogue = load_catalogue()
    rooms = [s.model_copy(update={"use": "sensors"}) for s in design.of(Space).values()]
    site = design.site.model_copy(update={"margin_db": margin_db})
    off = [Radio(id="r", device="ap-0", band="2.4", on=False)] if one_off else []
    design = apply(design, [put(e) for e in (*rooms, site, *off)])
    loud, quiet = (judge_rooms(air_of(design, catalogue, band)) for band in ("5", "2.4"))
    for before, after in zip(loud, quiet, strict=True):
        # One point of 0.5 m that lies on the very level may fall either way by rounding.
        one_point = 1.01 / (4 * before.area_m2)
        assert (after.share or 0) >= min(0.95, before.share or 0) - one_point, after


def test_the_verdict_says_what_binds(catalogue: Catalogue) -> None:
    """30 m along an open corridor: -65.4 dBm is enough for -67, not for 25 dB over -88."""
    site = Site(id="site", width_5ghz_mhz=80, margin_db=0)
    design = design_of(*shell(60, 4), access_point(30, 2), access_point(30.5, 2, "ap-2"))
    narrow = judge_rooms(air_of(apply(design, [put(Site(id="site", margin_db=0))]), catalogue))[0]
    design = apply(design, [put(site)])
    wide = judge_rooms(air_of(design, catalogue))[0]
    assert (narrow.binds, narrow.verdict) == (None, "met")
    assert (wide.binds, wide.share_first) == ("width", 1.0)
    finding = next(
        f for f in evaluate(Plan(design, catalogue), wait=True).findings if f.id == "signal-room-room"
    )
    assert "noise of 80 MHz" in finding.text and finding.unit == "dB"
    assert finding.cures[0].label == "Plan 40 MHz channels on 5 GHz"


def test_the_marked_point_is_the_point_whose_level_is_quoted(catalogue: Catalogue, school: Design) -> None:
    from heathrise.core.signal.radio_environment import readings_at

    air = air_of(school, catalogue)
    for room in judge_rooms(air):
        if room.binds not in ("first", "uplink", "second") or room.worst_at is None:
            continue
        heard = [r for r in readings_at(air, room.floor, *room.worst_at) if r.band == room.band]
        levels = sorted((min(r.downlink_dbm, r.uplink_dbm) for r in heard), reverse=True)
        quoted = room.worst_second_dbm if room.binds == "second" else room.worst_first_dbm
        assert levels[1 if room.binds == "second" else 0] == pytest.approx(quoted, abs=0.3)


@pytest.mark.parametrize(("over_db", "chance"), [(3, 0.69), (7, 0.88), (0, 0.5), (-60, 0.0)])
def test_chance_by_the_worked_example(over_db: float, chance: float) -> None:
    assert chance_of(over_db, 6) == pytest.approx(chance, abs=0.005)


def test_storeys_that_contradict_each_other_are_told_and_cured(catalogue: Catalogue) -> None:
    upper = Floor(id="g", building="b", name="Upper", level=1, elevation_m=2.7)
    tall = shell()[-1].model_copy(update={"ceiling_height_m": 5.0})  # type: ignore[union-attr]
    above = Space(id="above", floor="g", name="Above", outline=square(0, 0, 20, 20))
    flat = design_of(*shell(), upper, above, access_point(5, 5))
    same = apply(flat, [put(upper.model_copy(update={"elevation_m": 0.0}))])
    hall = apply(flat, [put(upper.model_copy(update={"elevation_m": 3.2})), put(tall)])
    for design, key in ((flat, "ceiling-f"), (same, "storeys-g"), (hall, "tall-room")):
        finding = next(f for f in evaluate(Plan(design, catalogue)).findings if f.id == f"plan-{key}")
        assert finding.severity == "not_met" and finding.cures
        for cure in finding.cures:
            left = {f.id for f in evaluate(Plan(apply(design, cure.changes), catalogue)).findings}
            assert finding.id not in left, cure.label


def test_half_storeys_side_by_side_contradict_nothing(catalogue: Catalogue) -> None:
    half = storey(1, (20, 0, 30, 20))
    half[0] = half[0].model_copy(update={"elevation_m": 1.5})  # type: ignore[union-attr]
    found = evaluate(Plan(design_of(*shell(), *half), catalogue)).findings
    assert not [f for f in found if f.id.startswith("plan-")]


def test_a_storey_ends_under_the_next_that_lies_over_it(catalogue: Catalogue) -> None:
    """West at 0 and at 4.0 m, east at 1.5 m: the east reaches its own ceiling and slab."""
    half, over = storey(1, (20, 0, 30, 20)), storey(2, (0, 0, 20, 20))
    half[0] = half[0].model_copy(update={"elevation_m": 1.5})  # type: ignore[union-attr]
    over[0] = over[0].model_copy(update={"elevation_m": 4.0})  # type: ignore[union-attr]
    tops = storeys_of(design_of(*shell(), *half, *over)).top_m
    assert (tops["f"], tops[half[0].id]) == pytest.approx((4.0, 1.5 + half[0].ceiling_height_m + 0.3))  # type: ignore[union-attr]
    over[0] = over[0].model_copy(update={"elevation_m": 2.65})  # type: ignore[union-attr]
    low = evaluate(Plan(design_of(*shell(), *half, *over), catalogue)).findings
    assert "plan-ceiling-f" in {f.id for f in low}
