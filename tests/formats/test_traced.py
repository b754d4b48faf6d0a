"""Walls proposed from pictures of plans: the three kinds that clients send, held against the storeys they
were drawn from."""

from __future__ import annotations

import io
import math
from collections.abc import Sequence

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from heathrise.core.design import Design, DesignError, Floor, Opening, Underlay, Wall, apply, put
from heathrise.core.walling import net_of, proposed
from heathrise.demo import music_school, terrace_house, veterinary_practice, watermill
from heathrise.formats.plan_picture import walls_on
from heathrise.formats.straighten import straighten
from heathrise.formats.traced import walls_seen

from ..core.storeys_of_rooms import Cut, cuts, storey, walls_of
from ..thorough import examples
from .plan_pictures import Line, PlanPicture, Spot, print_of, scan_of, slanted

RIGHT_SHARE, WRONG_SHARE = 0.8, 0.05
NEAR_M, ALIKE_DEG, STEP_M = 0.12, 10.0, 0.05


def shares(truth: Sequence[Line], seen: Sequence[Line], step: float) -> tuple[float, float]:
    """What share of the walls' length was seen, and what share of what was seen is no wall.

    Walked in steps of 5 cm: right is what has a wall of the other at hand that runs the same way.
    """

    def covered(lines: Sequence[Line], others: Sequence[Line]) -> float:
        good = whole = 0.0
        for a, b in lines:
            size = math.dist(a, b)
            count = max(1, int(size * step / STEP_M))
            for k in range(count):
                t = (k + 0.5) / count
                p = (a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]))
                whole += size / count
                good += size / count * any(near(p, (a, b), o) for o in others)
        return good / whole if whole else 0.0

    def near(p: Spot, own: Line, other: Line) -> bool:
        (ax, ay), (bx, by) = other
        dx, dy = bx - ax, by - ay
        turn = math.atan2(dy, dx) - math.atan2(own[1][1] - own[0][1], own[1][0] - own[0][0])
        if abs((turn + math.pi / 2) % math.pi - math.pi / 2) > math.radians(ALIKE_DEG):
            return False
        t = max(0.0, min(1.0, ((p[0] - ax) * dx + (p[1] - ay) * dy) / (dx * dx + dy * dy)))
        return math.hypot(p[0] - ax - t * dx, p[1] - ay - t * dy) * step < NEAR_M

    return covered(truth, seen), 1 - covered(seen, truth)


def made_straight(plan: PlanPicture, photo: PlanPicture) -> PlanPicture:
    """A photograph straightened by its corners, its walls where they then lie."""
    wide, high = photo.picture.size
    across = math.dist(plan.corners[0], plan.corners[1]) * plan.metres_per_px
    up = math.dist(plan.corners[0], plan.corners[3]) * plan.metres_per_px
    made = straighten(photo.data(), [(x / wide, y / high) for x, y in photo.corners], across, up)
    picture = Image.open(io.BytesIO(made.data))
    by = plan.metres_per_px / made.metres_per_px
    middle = [(plan.corners[0][k] + plan.corners[2][k]) / 2 for k in (0, 1)]
    at = (made.middle[0] * picture.width, made.middle[1] * picture.height)

    def there(p: Spot) -> Spot:
        return ((p[0] - middle[0]) * by + at[0], (p[1] - middle[1]) * by + at[1])

    return PlanPicture(picture, made.metres_per_px, tuple((there(a), there(b)) for a, b in plan.walls))


def grey(plan: PlanPicture) -> np.ndarray:
    return np.array(plan.picture.convert("L"), dtype=np.uint8)


SITES = {
    "terrace": (terrace_house, "ground"),
    "practice": (veterinary_practice, "ground"),
    "school": (music_school, "ground"),
    "mill": (watermill, "wheel"),
}


@pytest.mark.parametrize("site", SITES)
@pytest.mark.parametrize("kind", ["print", "grey", "scan", "photograph"])
def test_four_fifths_of_the_walls_are_seen_and_little_else(site: str, kind: str) -> None:
    make, floor = SITES[site]
    plan = print_of(make(), floor, style="grey" if kind == "grey" else "filled")
    if kind == "scan":
        plan = scan_of(plan)
    if kind == "photograph":
        plan = made_straight(plan, slanted(plan))
    seen = walls_seen(grey(plan), plan.metres_per_px)
    right, wrong = shares(plan.walls, [(w.a, w.b) for w in seen], plan.metres_per_px)
    assert right >= RIGHT_SHARE and wrong <= WRONG_SHARE, (right, wrong)


def with_doors(cut: Cut) -> Design:
    """A storey of rooms with a door in the middle of every inner wall that has room for one."""
    design = storey(*walls_of(cut.walls))
    wide, deep = (max(b[k] for b in cut.rooms) for k in (2, 3))
    for wall in list(design.of(Wall).values()):
        rim = any(wall.a[k] == wall.b[k] and wall.a[k] in (0, far) for k, far in ((0, wide), (1, deep)))
        if not rim and wall.length_m > 2:
            door = Opening(
                id=f"d-{wall.id}",
                wall=wall.id,
                kind="door",
                offset_m=wall.length_m / 2 - 0.45,
                width_m=0.9,
                construction="door-hollow",
            )
            design = apply(design, [put(door)])
    return design


@given(cuts(5), st.sampled_from([0.008, 0.013, 0.02, 0.028]), st.booleans())
@examples(25)
def test_random_storeys_are_seen_at_every_scale(cut: Cut, step: float, scanned: bool) -> None:
    plan = print_of(with_doors(cut), "f", step)
    plan = scan_of(plan, turn_deg=-1.1) if scanned else plan
    seen = walls_seen(grey(plan), step)
    right, wrong = shares(plan.walls, [(w.a, w.b) for w in seen], step)
    assert right >= RIGHT_SHARE and wrong <= WRONG_SHARE


def laid(plan: PlanPicture, **more: object) -> Underlay:
    wide, high = plan.picture.size
    fields = {
        "id": "u",
        "floor": "f",
        "picture": "p",
        "name": "plan.png",
        "width_px": wide,
        "height_px": high,
        "metres_per_px": plan.metres_per_px,
        "at": (0.0, 0.0),
        **more,
    }
    return Underlay.model_validate(fields)


@given(
    cuts(5), st.tuples(st.integers(-20, 20), st.integers(-20, 20)), st.sampled_from([0.0, 0.4, 25.0, -90.0])
)
@examples(20)
def test_what_is_proposed_stands_where_the_plan_lies_and_closes_its_rooms(
    cut: Cut, at: tuple[int, int], turn_deg: float
) -> None:
    """Proposed on the site, turned and placed as the plan is: the rooms that it closes are those of the cut."""
    design = with_doors(cut)
    plan = print_of(design, "f")
    underlay = laid(plan, at=at, turn_deg=turn_deg)
    found = proposed(storey(), "f", walls_on(plan.data(), underlay))
    faces = net_of([Wall(id=w.id, floor="f", a=w.a, b=w.b, construction="x") for w in found]).faces
    areas = sorted(round((e - w) * (n - s), 2) for w, s, e, n in cut.rooms)
    assert len(faces) == len(areas)
    for face, area in zip(sorted(f.area for f in faces), areas, strict=True):
        assert face == pytest.approx(area, rel=0.06, abs=0.3)
    wide, high = plan.picture.size
    for wall in found:
        for spot in (wall.a, wall.b):
            # Back on the picture by plain turning: each end lies on some wall of the plan.
            x, y = spot[0] - at[0], spot[1] - at[1]
            c, s = math.cos(math.radians(turn_deg)), math.sin(math.radians(turn_deg))
            px = (
                (x * c - y * s) / plan.metres_per_px + wide / 2,
                high / 2 - (x * s + y * c) / plan.metres_per_px,
            )
            assert min(off_px(px, line) for line in plan.walls) * plan.metres_per_px < NEAR_M
    rim = {w.id for w in found if w.outer}
    assert rim and all(not w.openings for w in found if w.id in rim)
    doors = [o for w in found for o in w.openings]
    assert len(doors) == len(design.of(Opening)) and all(o.kind == "door" for o in doors)
    assert all(o.width_m == pytest.approx(0.9, abs=0.08) for o in doors)


def off_px(p: Spot, line: Line) -> float:
    (ax, ay), (bx, by) = line
    dx, dy = bx - ax, by - ay
    t = max(0.0, min(1.0, ((p[0] - ax) * dx + (p[1] - ay) * dy) / (dx * dx + dy * dy)))
    return math.hypot(p[0] - ax - t * dx, p[1] - ay - t * dy)


def test_what_is_drawn_already_is_not_proposed_again() -> None:
    design = terrace_house()
    plan = print_of(design, "ground")
    walls = [w for w in design.of(Wall).values() if w.floor == "ground"]
    xs = [p[0] for w in walls for p in (w.a, w.b)]
    ys = [p[1] for w in walls for p in (w.a, w.b)]
    at = ((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2)
    seen = walls_on(plan.data(), laid(plan, at=at))
    assert len(seen) > 5 and not proposed(design, "ground", seen)
    (first, *_) = walls
    bare = Design({k: v for k, v in design.tables.items() if k not in ("wall", "opening")})
    one = apply(bare, [put(first)])
    assert 0 < len(proposed(one, "ground", seen)) < len(proposed(bare, "ground", seen)) <= len(seen)
    assert design.of(Floor)


@pytest.mark.parametrize("site", ["terrace", "practice", "school"])
def test_windows_are_told_from_doors(site: str) -> None:
    make, floor = SITES[site]
    design = make()
    seen = walls_seen(grey(plan := print_of(design, floor)), plan.metres_per_px)
    lined = sum(g.lined for w in seen for g in w.gaps)
    drawn = [o for o in design.of(Opening).values() if design.of(Wall)[o.wall].floor == floor]
    windows = sum(o.kind == "window" for o in drawn)
    assert 0.7 * windows <= lined <= windows


@pytest.mark.parametrize("kind", ["blank", "coarse", "photograph of a wood", "black"])
def test_a_picture_without_walls_says_so(kind: str) -> None:
    picture = Image.new("L", (900, 700), 0 if kind == "black" else 255)
    if kind == "photograph of a wood":
        picture = Image.fromarray(np.random.default_rng(3).integers(0, 255, (700, 900), dtype=np.uint8))
    out = io.BytesIO()
    picture.save(out, "PNG")
    plan = PlanPicture(picture, 0.05 if kind == "coarse" else 0.01, ())
    with pytest.raises(
        DesignError, match="too coarse|finer picture" if kind == "coarse" else "no walls are seen"
    ):
        walls_on(out.getvalue(), laid(plan))
