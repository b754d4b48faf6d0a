"""What cameras see: the worked figures, and every spot of random sites against a plain line of sight."""

from __future__ import annotations

import math
import random

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import LensView, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, Element, Light, Opening, Wall, apply, put, remove
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.sight import CameraView, blind_m, density_px_m, far_m, reach_m, views_of

from ..thorough import examples
from .plans import camera, camera_yard, design_of, shell, wall

CATALOGUE = load_catalogue()
LENS = LensView(pixels=3840, across_deg=100, up_deg=56)


def test_the_worked_figures() -> None:
    # 3840 pixels over 100 degrees: 1611 / d px/m.
    assert density_px_m(LENS, 1.0) == pytest.approx(1611, abs=0.5)
    far = [round(reach_m(LENS, px), 1) for px in CATALOGUE.rules.table("camera.view_px_m").values()]
    assert far == [6.4, 12.9, 26.0, 64.4]
    assert blind_m(LENS, 3.0, 20.0) == pytest.approx(2.70, abs=0.005)
    # The upper edge at 20 - 28 degrees looks up: no end; at 40 degrees 12 under the level: 3 / tan 12.
    assert far_m(LENS, 3.0, 20.0) == math.inf
    assert far_m(LENS, 3.0, 40.0) == pytest.approx(14.11, abs=0.01)
    assert blind_m(LENS, 3.0, -30.0) == math.inf and blind_m(LENS, 3.0, 70.0) == 0.0


@given(st.floats(1, 8), st.floats(-20, 70), st.floats(0.2, 5))
def test_more_tilt_sees_nearer_ground_and_higher_up_is_blind_farther(
    h: float, tilt: float, up: float
) -> None:
    assert blind_m(LENS, h, tilt + up) <= blind_m(LENS, h, tilt)
    assert blind_m(LENS, h + 1, tilt) >= blind_m(LENS, h, tilt)
    assert far_m(LENS, h, tilt + up) <= far_m(LENS, h, tilt)


def _sees(design: Design, device: Device, spot: tuple[float, float]) -> bool:
    """A plain line of sight: bearing, distance, ground, and each wall with its panes and gaps by hand."""
    lens = CATALOGUE.model_of(device).view
    assert lens is not None
    dx, dy = spot[0] - device.at[0], spot[1] - device.at[1]
    away = math.hypot(dx, dy)
    turn = math.radians(device.azimuth_deg)
    along = (dx * math.sin(turn) + dy * math.cos(turn)) / away
    if math.degrees(math.acos(max(-1.0, min(1.0, along)))) > lens.across_deg / 2:
        return False
    down = math.degrees(math.atan2(device.height_m, away))
    if (
        abs(down - device.tilt_deg) > lens.up_deg / 2
        or lens.pixels / (2 * away * math.tan(math.radians(lens.across_deg / 2))) < 25
    ):
        return False
    ray = shapely.LineString([device.at, spot])
    for one in design.of(Wall).values():
        meets = ray.intersection(shapely.LineString([one.a, one.b]))
        if meets.is_empty:
            continue
        at = math.dist(one.a, (meets.centroid.x, meets.centroid.y))
        through = [
            o
            for o in design.of(Opening).values()
            if o.wall == one.id and o.kind != "door" and o.offset_m <= at <= o.offset_m + o.width_m
        ]
        if not through:
            return False
    return True


def _within(view: CameraView, level: str, spot: tuple[float, float]) -> tuple[bool, float]:
    zone = next(z for z in view.zones if z.level == level)
    area = shapely.union_all([shapely.Polygon(s[0], s[1:]) for s in zone.shapes])
    edge = area.boundary.distance(shapely.Point(spot)) if not area.is_empty else math.inf
    return bool(area.contains(shapely.Point(spot))), edge


@examples(25)
@given(st.integers(0, 10_000))
def test_every_spot_of_random_sites_against_a_plain_line_of_sight(seed: int) -> None:
    dice = random.Random(seed)
    walls: list[Element] = []
    for k in range(dice.randint(0, 6)):
        a = dice.uniform(1, 19), dice.uniform(1, 19)
        b = a[0] + dice.uniform(-8, 8), a[1] + dice.uniform(-8, 8)
        walls.append(wall(k, a, b, "brick-single"))
        if math.dist(a, b) > 2.5 and dice.random() < 0.7:
            kind = dice.choice(["door", "window", "gap"])
            material = {"door": "door-hollow", "window": "glass-clear", "gap": "open-gap"}[kind]
            walls.append(
                Opening.model_validate(
                    {"id": f"o{k}", "wall": f"w{k}", "kind": kind, "offset_m": 0.5, "width_m": 1.2}
                    | {"construction": material}
                )
            )
    device = camera(10, 10, dice.uniform(0, 360), tilt_deg=dice.uniform(0, 55))
    near = min(
        (
            shapely.LineString([w.a, w.b]).distance(shapely.Point(10, 10))
            for w in walls
            if isinstance(w, Wall)
        ),
        default=9,
    )
    if near < 0.3:
        return
    design = design_of(*shell(), *walls, device)
    (view,) = views_of(design, CATALOGUE)
    for _ in range(60):
        spot = dice.uniform(0, 20), dice.uniform(0, 20)
        inside, edge = _within(view, "detect", spot)
        if edge > 0.12:  # arcs are polygons, and walls end between rays
            assert inside == _sees(design, device, spot), spot


def test_a_door_under_its_own_camera_is_blind_and_the_tilt_offered_sees_it() -> None:
    plan = Plan(camera_yard(), CATALOGUE)
    found = next(f for f in evaluate(plan).plan.findings if f.id == "plan-blind-door")
    # Level, 56 degrees: the lower edge 28 under the horizontal, 2.8 / tan 28 = 5.3 m.
    assert "sees the ground from 5.3" in found.text and found.severity == "near"
    (cure,) = found.cures or (None,)
    # It looks from 2 cm before its wall: 0.68 m away, 2.8 m up are 76.4 degrees down: 76.4 - 28 + 1.
    assert cure is not None and cure.label == "Tilt CAM-1 to 50°"
    after = plan.after(cure.changes)
    assert not [f for f in evaluate(after).plan.findings if f.id == "plan-blind-door"]
    view = evaluate(after).plan.views[0]
    assert f"from {view.blind_m:.1f}" in cure.effect and f"faces to {view.far_m:.1f}" in cure.effect


def test_a_door_too_far_under_a_steep_camera_is_told_so_and_tilted_up() -> None:
    # 60 degrees down, the upper edge 32: 2.8 / tan 32 = 4.5 m; the door 6 m off wants 25 - 1 + 28 at most.
    steep = camera(10, -6.7, 0.0, tilt_deg=60.0, height_m=2.8)
    plan = Plan(apply(camera_yard(), [put(steep)]), CATALOGUE)
    found = next(f for f in evaluate(plan).plan.findings if f.id == "plan-blind-door")
    assert "sees the ground to 4.5" in found.text and found.figure == pytest.approx(6.0)
    (cure,) = found.cures
    assert cure.label == "Tilt CAM-1 to 52°"
    assert not [f for f in evaluate(plan.after(cure.changes)).plan.findings if f.id == "plan-blind-door"]


def test_a_doorbell_that_shows_the_face_is_enough_and_is_never_blamed() -> None:
    bell = Device.model_validate(
        {"id": "bell", "floor": "f", "kind": "doorbell", "name": "BELL", "model": "tollgate-ring"}
        | {"at": (9.3, 0.0), "height_m": 1.4, "mount": "wall", "azimuth_deg": 180.0}
    )
    both = Plan(camera_yard(bell), CATALOGUE)
    view = next(v for v in evaluate(both).plan.views if v.device == "bell")
    assert view.doors[0].face and not view.doors[0].ground
    assert not [f for f in evaluate(both).plan.findings if f.id.startswith("plan-blind")]
    alone = Plan(apply(both.drawn, [remove(both.drawn.of(Device)["cam"])]), CATALOGUE)
    assert not [f for f in evaluate(alone).plan.findings if f.id.startswith("plan-blind")]


def test_another_camera_that_sees_the_door_is_enough() -> None:
    other = camera(10, -9, 0.0, id="cam-2", name="CAM-2", tilt_deg=15.0)
    plan = Plan(camera_yard(other), CATALOGUE)
    assert not [f for f in evaluate(plan).plan.findings if f.id.startswith("plan-blind")]
    doors = {v.device: v.doors for v in evaluate(plan).plan.views}
    (seen,) = doors["cam-2"]
    assert seen.ground and seen.face and seen.level == "recognise"
    assert seen.away_m == pytest.approx(8.3) and seen.px_m == pytest.approx(1611.1 / 8.3, abs=0.1)


def test_a_window_that_it_looks_at_dazzles_a_camera_indoors_and_a_wall_between_does_not() -> None:
    pane = Opening(id="pane", wall="w1", kind="window", offset_m=9, width_m=2, construction="glass-clear")
    lamp = Light(id="lamp", floor="f", name="Lamp", at=(10, 4))
    inside = camera(10, 8, 180.0, mount="ceiling")
    base = camera_yard(pane, lamp)
    plain = apply(base, [put(inside)])
    assert views_of(plain, CATALOGUE)[0].dazzled_by == ("pane", "lamp")
    said = [f for f in evaluate(Plan(plain, CATALOGUE)).plan.findings if f.id == "plan-dazzled-cam"]
    assert said[0].severity == "note" and "2 windows and lamps" in said[0].text
    hidden = apply(plain, [put(wall(9, (5, 6), (15, 6), "brick-single"))])
    assert views_of(hidden, CATALOGUE)[0].dazzled_by == ()
    away = apply(plain, [put(inside.model_copy(update={"azimuth_deg": 0.0}))])
    assert views_of(away, CATALOGUE)[0].dazzled_by == ()
