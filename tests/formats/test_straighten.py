"""Photographs at a slant, seen by a plain pinhole camera and made straight again."""

from __future__ import annotations

import io
import itertools
import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image, ImageDraw

from heathrise.core.design import DesignError
from heathrise.formats.straighten import homography, straighten

from ..thorough import examples

WIDE_M, HIGH_M = 8.0, 5.0
PX = (900, 700)
DOTS = tuple(itertools.product((1.0, 3.5, 6.5), (1.0, 2.5, 4.2)))  # m from the sheet's upper left


class Camera:
    """A pinhole camera before a sheet on the wall: turned about two axes, some metres off."""

    def __init__(self, yaw_deg: float, pitch_deg: float, roll_deg: float, far_m: float) -> None:
        y, p, r = (math.radians(d) for d in (yaw_deg, pitch_deg, roll_deg))
        about_y = np.array([[math.cos(y), 0, math.sin(y)], [0, 1, 0], [-math.sin(y), 0, math.cos(y)]])
        about_x = np.array([[1, 0, 0], [0, math.cos(p), -math.sin(p)], [0, math.sin(p), math.cos(p)]])
        about_z = np.array([[math.cos(r), -math.sin(r), 0], [math.sin(r), math.cos(r), 0], [0, 0, 1]])
        self._turn = about_z @ about_x @ about_y
        self._far_m = far_m

    def __call__(self, x_m: float, y_m: float) -> tuple[float, float]:
        """Where a point of the sheet is seen, in px."""
        x, y, z = self._turn @ np.array([x_m - WIDE_M / 2, y_m - HIGH_M / 2, 0.0]) + [0, 0, self._far_m]
        return PX[0] / 2 + 700 * x / z, PX[1] / 2 + 700 * y / z

    def photograph(self) -> bytes:
        """The sheet's edge, and a dark dot at each of its marks."""
        picture = Image.new("RGB", PX, "white")
        pen = ImageDraw.Draw(picture)
        edge = [self(x, y) for x, y in ((0, 0), (WIDE_M, 0), (WIDE_M, HIGH_M), (0, HIGH_M))]
        pen.polygon(edge, fill="#dddddd", outline="black")
        for dot in DOTS:
            x, y = self(*dot)
            pen.ellipse((x - 4, y - 4, x + 4, y + 4), fill="black")
        out = io.BytesIO()
        picture.save(out, "PNG")
        return out.getvalue()

    def corners(self) -> list[tuple[float, float]]:
        seen = [self(x, y) for x, y in ((0, 0), (WIDE_M, 0), (WIDE_M, HIGH_M), (0, HIGH_M))]
        return [(x / PX[0], y / PX[1]) for x, y in seen]


cameras = st.builds(
    Camera,
    yaw_deg=st.floats(-35, 35),
    pitch_deg=st.floats(-35, 35),
    roll_deg=st.floats(-12, 12),
    far_m=st.floats(11, 15),
)


@given(cameras, st.randoms())
@examples(40)
def test_marks_come_to_lie_where_they_are(camera: Camera, random: st.DataObject) -> None:
    corners = camera.corners()
    random.shuffle(corners)  # type: ignore[attr-defined]
    made = straighten(camera.photograph(), corners, WIDE_M, HIGH_M)
    picture = np.asarray(Image.open(io.BytesIO(made.data)).convert("L"), dtype=float)
    assert picture.shape == (made.height_px, made.width_px)
    west = made.middle[0] * made.width_px - WIDE_M / 2 / made.metres_per_px
    north = made.middle[1] * made.height_px - HIGH_M / 2 / made.metres_per_px
    for x_m, y_m in DOTS:
        x, y = west + x_m / made.metres_per_px, north + y_m / made.metres_per_px
        reach = round(0.35 / made.metres_per_px)
        left, top = round(x) - reach, round(y) - reach
        part = 200 - picture[top : top + 2 * reach + 1, left : left + 2 * reach + 1]
        dark = np.where(part > 100, part, 0.0)
        assert dark.sum() > 0
        rows, columns = np.indices(part.shape)
        seen = (left + (columns * dark).sum() / dark.sum(), top + (rows * dark).sum() / dark.sum())
        # To a few centimetres on eight metres: a dot is drawn in whole pixels.
        assert math.dist(seen, (x, y)) * made.metres_per_px < 0.05


def test_four_points_go_where_they_shall() -> None:
    source, target = [(0, 0), (10, 1), (9, 8), (-1, 7)], [(0, 0), (4, 0), (4, 3), (0, 3)]
    matrix = homography(source, target)
    for (x, y), wanted in zip(source, target, strict=True):
        u, v, w = matrix @ [x, y, 1]
        assert (u / w, v / w) == pytest.approx(wanted, abs=1e-9)


@pytest.mark.parametrize(
    "corners",
    [
        [(0.1, 0.1), (0.9, 0.1), (0.9, 0.9)],
        [(0.1, 0.1), (0.9, 0.1), (0.5, 0.2), (0.5, 0.9)],  # dented
        [(0.1, 0.1), (0.2, 0.2), (0.3, 0.3), (0.4, 0.4)],
        [(0.5, 0.5), (0.5, 0.5), (0.5, 0.5), (0.5, 0.5)],
        [(0.5, 0.5), (0.51, 0.5), (0.51, 0.51), (0.5, 0.51)],  # far too small
    ],
)
def test_corners_of_no_rectangle_say_so(corners: list[tuple[float, float]]) -> None:
    with pytest.raises(DesignError, match="corners"):
        straighten(Camera(0, 0, 0, 12).photograph(), corners, WIDE_M, HIGH_M)


def test_a_slant_to_the_horizon_stays_within_its_bounds() -> None:
    """The far side of a floor that is looked along: nothing beyond use is kept, nor memory taken for it."""
    made = straighten(Camera(0, 0, 0, 12).photograph(), [(0.3, 0.5), (0.7, 0.5), (1, 1), (0, 1)], 4.0, 12.0)
    assert max(made.width_px, made.height_px) <= 4_000
    assert made.width_px * made.metres_per_px <= 4.0 * 5.01
