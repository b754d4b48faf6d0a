"""Path loss against figures worked by hand and against properties it must have."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from bench.numpy_walls import wall_losses_numpy
from heathrise.core.catalogue import Catalogue
from heathrise.core.design import Opening
from heathrise.core.signal.antennas import attenuation_db, open_loss_db
from heathrise.core.signal.grid import Grid
from heathrise.core.signal.kernel import wall_losses_db
from heathrise.core.signal.propagation import angle_factor, distance_loss_db, floors_loss_db, noise_floor_dbm
from heathrise.core.signal.walls import COLUMNS, panels_of

from ..thorough import examples
from .plans import design_of, shell, wall

FIVE = 1  # row of the 5 GHz band


@pytest.mark.parametrize(
    ("distance_m", "mhz", "loss_db"),
    [(1, 2437, 40.2), (1, 5500, 47.3), (1, 6500, 48.7), (10, 5500, 67.3), (12, 5500, 68.8)],
)
def test_free_space(distance_m: float, mhz: float, loss_db: float) -> None:
    assert float(distance_loss_db(distance_m, mhz)) == pytest.approx(loss_db, abs=0.1)


def test_nearer_than_a_metre_counts_as_one() -> None:
    assert distance_loss_db(0.2, 5500) == distance_loss_db(1.0, 5500)


@pytest.mark.parametrize(("floors", "loss_db"), [(0, 0.0), (1, 13.0), (2, 23.8), (3, 31.0)])
def test_timber_floors(floors: int, loss_db: float) -> None:
    assert float(floors_loss_db(13.0, floors)) == pytest.approx(loss_db, abs=0.1)


@pytest.mark.parametrize(("width_mhz", "dbm"), [(20, -94), (40, -91), (80, -88)])
def test_noise_floor(width_mhz: float, dbm: float) -> None:
    assert noise_floor_dbm(width_mhz, 7) == pytest.approx(dbm, abs=0.1)


@pytest.mark.parametrize(("degrees", "loss_db"), [(0, 10.0), (45, 14.1), (75, 20.0), (90, 20.0)])
def test_a_slanting_ray_meets_a_thicker_wall(degrees: float, loss_db: float) -> None:
    assert 10 * angle_factor(math.cos(math.radians(degrees))) == pytest.approx(loss_db, abs=0.05)


def _loss(walls: list[tuple], source: tuple[float, float], at: tuple[float, float], **how: object):
    """Loss in dB on 5 GHz of one level ray through walls of (a, b, construction)."""
    catalogue: Catalogue = how["catalogue"]  # type: ignore[assignment]
    elements = shell() + [wall(i, *w) for i, w in enumerate(walls)]
    elements += list(how.get("openings", ()))  # type: ignore[call-overload]
    panels = panels_of(design_of(*elements), catalogue)
    spot = np.array([at[0]]), np.array([at[1]])
    return float(wall_losses_db(*spot, 1.2, (*source, 1.2), panels)[FIVE, 0])


def test_worked_path_of_three_walls(catalogue: Catalogue) -> None:
    walls = [
        ((3, -5), (3, 5), "plasterboard"),
        ((6, -5), (6, 5), "plasterboard"),
        ((9, -5), (9, 5), "brick-single"),
    ]
    through = _loss(walls, (0, 0), (12, 0), catalogue=catalogue)
    loss = float(distance_loss_db(12, 5500)) + through
    assert loss == pytest.approx(86.8, abs=0.1)
    assert 20 + 4 - loss == pytest.approx(-62.8, abs=0.1)
    assert 14 + 4 - loss == pytest.approx(-68.8, abs=0.1)


def test_wall_at_forty_five_degrees(catalogue: Catalogue) -> None:
    walls = [((5, -50), (5, 50), "brick-single")]
    assert _loss(walls, (0, 0), (10, 10), catalogue=catalogue) == pytest.approx(14.14, abs=0.01)
    steep = _loss(walls, (4.9, 0), (5.1, 30), catalogue=catalogue)
    assert steep == pytest.approx(20.0)


def test_a_ray_through_an_end_counts_that_wall_once(catalogue: Catalogue) -> None:
    walls = [((5, 0), (5, 5), "brick-single")]
    assert _loss(walls, (0, 0), (10, 0), catalogue=catalogue) == pytest.approx(10.0)


def test_walls_that_meet_count_no_more_than_they_are(catalogue: Catalogue) -> None:
    straight = [((5, -5), (5, 0), "brick-single"), ((5, 0), (5, 5), "brick-single")]
    assert _loss(straight, (0, 0), (10, 0), catalogue=catalogue) == pytest.approx(10.0)
    corner = [((5, 0), (5, 5), "brick-single"), ((5, 0), (12, -7), "plasterboard")]
    assert 9.999 <= _loss(corner, (0, 0), (10, 0), catalogue=catalogue) <= 10.0 + 2 * 4.0
    stem = [((5, -5), (5, 5), "brick-single"), ((5, 0), (8, 4), "plasterboard")]
    assert _loss(stem, (0, 0), (10, 0), catalogue=catalogue) == pytest.approx(10.0)


def test_an_opening_stands_in_for_its_wall(catalogue: Catalogue) -> None:
    walls = [((5, -5), (5, 5), "brick-cavity")]
    door = Opening(id="o", wall="w0", kind="door", offset_m=4.5, width_m=1, construction="door-hollow")
    through = _loss(walls, (0, 0), (10, 0), catalogue=catalogue, openings=[door])
    beside = _loss(walls, (0, 2), (10, 2), catalogue=catalogue, openings=[door])
    assert through == pytest.approx(3.0)
    assert beside == pytest.approx(16.0)
    jamb = _loss(walls, (0, 0.5), (10, 0.5), catalogue=catalogue, openings=[door])
    assert jamb == pytest.approx(16.0)


@st.composite
def scenes(draw: st.DrawFn) -> tuple[np.ndarray, tuple[float, float, float], float]:
    coordinate = st.integers(0, 40).map(lambda n: n / 2)
    rows = []
    for _ in range(draw(st.integers(0, 12))):
        ax, ay = draw(coordinate), draw(coordinate)
        dx, dy = draw(st.sampled_from([(2, 0), (0, 3), (1.5, 2), (-4, 1), (0.5, -6)]))
        top = draw(st.sampled_from([2.0, 3.0, 6.0]))
        rows.append([ax, ay, dx, dy, 0, 1, 0.0, top, math.hypot(dx, dy), 3, 4, 5])
    panels = np.array(rows, dtype=float).reshape(-1, COLUMNS)
    source = (draw(coordinate) + 0.13, draw(coordinate) + 0.27, draw(st.sampled_from([1.0, 2.5])))
    return panels, source, draw(st.sampled_from([1.2, 4.8]))


@examples(60)
@given(scenes())
def test_kernel_agrees_with_plain_numpy(scene: tuple) -> None:
    panels, source, target_z = scene
    x, y = Grid(0.011, 0.017, 0.51, 40, 40).points
    fast = wall_losses_db(x, y, target_z, source, panels)
    plain = wall_losses_numpy(x, y, target_z, source, panels)
    np.testing.assert_allclose(fast, plain, atol=1e-6)


@examples(30)
@given(scenes(), st.integers(0, 1000))
def test_more_walls_never_mean_less_loss(scene: tuple, pick: int) -> None:
    panels, source, target_z = scene
    x, y = Grid(0.0, 0.0, 0.9, 20, 20).points
    whole = wall_losses_db(x, y, target_z, source, panels)
    if len(panels):
        fewer = np.delete(panels, pick % len(panels), axis=0)
        assert (wall_losses_db(x, y, target_z, source, fewer) <= whole + 1e-9).all()


@pytest.mark.parametrize(
    ("pattern", "mount", "towards", "loss_db"),
    [
        ("dome", "ceiling", (0, 0, -3), 0.0),
        ("dome", "ceiling", (math.sin(math.pi / 3), 0, -math.cos(math.pi / 3)), 3.0),
        ("dome", "ceiling", (5, 0, 5), 12.0),
        ("dome", "wall", (0, 9, 0), 0.0),
        ("omni", "desk", (4, 3, 0), 0.0),
        ("omni", "desk", (math.cos(math.pi / 6), 0, math.sin(math.pi / 6)), 3.0),
        ("panel", "pole", (0, 7, 0), 0.0),
        ("panel", "pole", (math.sin(math.radians(32.5)), math.cos(math.radians(32.5)), 0), 3.0),
        ("panel", "pole", (0, -5, 0), 25.0),
    ],
)
def test_antennas(pattern: str, mount: str, towards: tuple, loss_db: float) -> None:
    offset = np.array([towards], dtype=float)
    found = attenuation_db(pattern, offset, mount, 0.0, 0.0)[0]  # type: ignore[arg-type]
    assert found == pytest.approx(loss_db, abs=0.01)


@examples(80)
@given(
    st.sampled_from(["dome", "omni", "panel"]),
    st.sampled_from(["ceiling", "wall"]),
    st.floats(-180, 180),
    st.floats(-30, 30),
    st.floats(-20, 20),
    st.floats(-20, 20),
    st.floats(-9, 9),
)
def test_one_pass_gives_distance_and_pattern(
    pattern: str, mount: str, azimuth: float, tilt: float, dx: float, dy: float, rise: float
) -> None:
    offset = np.array([[dx, dy, rise]])
    apart = attenuation_db(pattern, offset, mount, azimuth, tilt)[0]  # type: ignore[arg-type]
    apart += 20 * math.log10(max(1.0, float(np.linalg.norm(offset))))
    x, y = np.array([3.0 + dx]), np.array([4.0 + dy])
    found = open_loss_db(pattern, x, y, rise, (3.0, 4.0), mount, azimuth, tilt)[0]  # type: ignore[arg-type]
    if math.hypot(dx, dy) > 1e-3:  # straight up or down a bearing means nothing
        assert found == pytest.approx(apart, abs=1e-4)


@given(st.floats(-180, 180), st.floats(-45, 45), st.floats(1, 50))
def test_turning_antenna_and_client_together_changes_nothing(
    azimuth: float, elevation: float, metres: float
) -> None:
    def heard(extra: float) -> float:
        a, e = math.radians(20 + extra), math.radians(elevation)
        offset = metres * np.array([[math.sin(a) * math.cos(e), math.cos(a) * math.cos(e), math.sin(e)]])
        return float(attenuation_db("panel", offset, "wall", extra, 0.0)[0])

    assert heard(azimuth) == pytest.approx(heard(0.0), abs=1e-6)


def test_grid_lays_values_out_again() -> None:
    grid = Grid.over((0, 0, 7.3, 4.1), 0.25, 10_000)
    x, y = grid.points
    assert grid.sheet(x)[3, 5] == pytest.approx(grid.eastings[5])
    assert grid.sheet(y)[3, 5] == pytest.approx(grid.northings[3])
    assert len(Grid.over((0, 0, 100, 100), 0.1, 5_000).points[0]) < 5_500
