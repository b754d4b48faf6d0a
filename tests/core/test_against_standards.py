"""The model against figures that were not made here: ITU-R P.525, P.1238, P.2040, COST 231."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.base.bands import BANDS, FREQUENCY_MHZ
from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.signal import air_of, losses_db
from heathrise.core.signal.hearing import hearing_dbm
from heathrise.core.signal.propagation import distance_loss_db, floors_loss_db

from ..thorough import examples
from .plans import access_point, design_of, rack, shell, wall

# ITU-R P.2040, materials: relative permittivity, conductivity c f^d in S/m with f in GHz.
CONCRETE, GLASS = (5.24, 0.0462, 0.7822), (6.31, 0.0036, 1.3394)


def slab_db(material: tuple[float, float, float], thick_m: float, ghz: float) -> float:
    """What a slab takes square on, by P.2040's own closed form for a single layer."""
    eta_real, c, d = material
    eta = complex(eta_real, -17.98 * c * ghz**d / ghz)
    root = np.sqrt(eta)
    reflected = (1 - root) / (1 + root)
    q = 2 * math.pi * thick_m * ghz * 1e9 / 299_792_458 * root
    through = (1 - reflected**2) * np.exp(-1j * q) / (1 - reflected**2 * np.exp(-2j * q))
    return float(-20 * np.log10(abs(through)))


@pytest.mark.parametrize("band", BANDS)
def test_free_space_is_that_of_p525(band: str) -> None:
    """32.4 + 20 log f in MHz + 20 log d in km."""
    f = FREQUENCY_MHZ[band]  # type: ignore[index]
    for d in (1.0, 7.5, 40.0, 300.0):
        by_itu = 32.4 + 20 * math.log10(f) + 20 * math.log10(d / 1000)
        assert float(distance_loss_db(d, f)) == pytest.approx(by_itu, abs=0.06)


@pytest.mark.parametrize(
    ("construction", "material", "thick_m", "panes"),
    [("concrete", CONCRETE, 0.2, 1), ("glass-clear", GLASS, 0.004, 2)],
)
def test_listed_losses_are_near_those_of_p2040(
    catalogue: Catalogue, construction: str, material: tuple[float, float, float], thick_m: float, panes: int
) -> None:
    """Surveys spread by some decibels about the physics of a plain slab; iron is not in it."""
    for band in BANDS:
        listed = catalogue.constructions[construction].loss_db[band]
        ghz = FREQUENCY_MHZ[band] / 1000
        # The thickness of a real slab is not that of one wave: over a quarter wave's spread.
        each = np.mean([slab_db(material, thick_m + k * 0.001, ghz) for k in range(-3, 4)])
        assert listed == pytest.approx(panes * float(each), abs=4.5), band


def test_an_office_loses_what_p1238_has_it_lose(catalogue: Catalogue) -> None:
    """Offices 6 m deep behind plasterboard: 20 log f + N log d - 28 with N = 31 at 5 GHz, within
    its own spread of about 10 dB, at 8 to 32 m."""
    walls = [wall(k, (6.0 * k, 0), (6.0 * k, 12), "plasterboard") for k in range(1, 8)]
    design = design_of(
        *shell(48, 12), rack(1, 1), *walls, access_point(2, 6, mount="wall", height_m=1.3, azimuth_deg=90)
    )
    air = air_of(design, catalogue)
    device = air.access_points("5")[0]
    x = np.arange(10.0, 35.0, 4.0)
    y = np.full_like(x, 6.0)
    loss = losses_db(air.terrain, device, air.catalogue.airs[device.model], "f", x, y)
    by_itu = 20 * math.log10(FREQUENCY_MHZ["5"]) + 31 * np.log10(x - 2) - 28
    assert np.abs(loss[BANDS.index("5")] - by_itu).max() < 10
    assert abs(float(np.mean(loss[BANDS.index("5")] - by_itu))) < 6


def test_floors_are_those_of_cost_231() -> None:
    assert [round(float(floors_loss_db(13.0, k)), 1) for k in (1, 2, 3)] == [13.0, 23.8, 31.0]


@examples(40)
@given(
    st.floats(1, 29),
    st.floats(1, 19),
    st.floats(1, 29),
    st.floats(1, 19),
    st.floats(3, 27),
    st.sampled_from(["plasterboard", "brick-single", "concrete"]),
)
def test_both_ways_alike_and_a_wall_never_helps(
    ax: float, ay: float, bx: float, by: float, at: float, of: str
) -> None:
    """What two hear of each other is one figure whoever speaks; one more wall takes or takes not."""
    catalogue = load_catalogue()
    points = access_point(ax, ay), access_point(bx, by, "ap-2")
    swapped = access_point(bx, by), access_point(ax, ay, "ap-2")
    heard = []
    for two in (points, swapped):
        for walls in ((), (wall(1, (at, 0), (at, 20), of),)):
            heard.append(hearing_dbm(air_of(design_of(*shell(30, 20), *walls, *two), catalogue), "5")[0, 1])
    assert heard[0] == pytest.approx(heard[2], abs=1e-6)
    assert heard[1] == pytest.approx(heard[3], abs=1e-6)
    assert heard[1] <= heard[0] + 1e-6
