"""The kernel and all that feeds it against a ray traced step by step, on random sites."""

from __future__ import annotations

import math

import numpy as np
from hypothesis import HealthCheck, given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.design import Design, Device, Floor, Point, Wall, apply, put
from heathrise.core.signal.assess import air_of
from heathrise.core.signal.hearing import hearing_dbm
from heathrise.core.signal.obstacles import losses_db

from ..thorough import examples
from . import reference_ray as plain
from .sites import sites, turned

SLOW = examples(80, HealthCheck.data_too_large)
HAIR_M = 0.004
SPOTS = [
    (1.3171, 1.7313),
    (5.7731, 3.1179),
    (9.4137, 2.2191),
    (13.7191, 1.1337),
    (3.3913, -4.7719),
    (4.9177, 15.9313),
    (-2.7193, 6.4411),
]


def _in_doubt(design: Design, device: Device) -> bool:
    """Whether a device is on a wall's line or so near a corner that a hair's breadth decides."""
    walls = design.of(Wall).values()
    if device.mount != "wall" and any(plain.beside(w, device.at) <= 0.02 for w in walls):
        return True
    near = [w for w in design.of(Wall).values() if plain.beside(w, device.at) <= 0.25]
    return any(
        abs((w.b[0] - w.a[0]) * (v.b[1] - v.a[1]) - (w.b[1] - w.a[1]) * (v.b[0] - v.a[0])) > 0.1
        for w in near
        for v in near
    )


def _off_db(design: Design, device: Device, floor: str, spots: list[Point]) -> np.ndarray:
    """How far the core is from the reference, shape (bands, spots)."""
    catalogue = load_catalogue()
    terrain = air_of(design, catalogue, "5").terrain
    x, y = (np.array([s[k] for s in spots]) for k in (0, 1))
    found = losses_db(terrain, device, catalogue.airs[device.model], floor, x, y)
    expected = [
        [plain.path_loss_db(design, catalogue, device, floor, s, band) for s in spots]
        for band in ("2.4", "5", "6")
    ]
    return np.abs(found - np.array(expected))


@SLOW
@given(sites(), st.sampled_from([0.0, 30.0, 17.3]))
def test_every_path_loss(design: Design, turn: float) -> None:
    spots = [turned(s, turn) for s in SPOTS]
    for device in design.of(Device).values():
        if _in_doubt(design, device):
            continue
        for floor in design.of(Floor):
            for k in np.flatnonzero(_off_db(design, device, floor, spots).max(axis=0) > 0.01):
                # A ray within a hair of a wall's or a slab's end: beside it they must agree.
                x, y = spots[k]
                beside = [(x + dx, y + dy) for dx in (-HAIR_M, HAIR_M) for dy in (-HAIR_M, HAIR_M)]
                off = _off_db(design, device, floor, beside).max(axis=0)
                assert (off < 0.02).sum() >= 2, f"{device} to {spots[k]} on {floor}: {off}"


@SLOW
@given(sites())
def test_two_access_points_hear_through_both_antennas(design: Design) -> None:
    one, other = design.of(Device).values()
    if _in_doubt(design, one) or _in_doubt(design, other):
        return
    if np.hypot(*np.subtract(one.at, other.at)) < 0.5:
        return
    shifts = [(0.0, 0.0), (HAIR_M, HAIR_M), (-HAIR_M, HAIR_M), (HAIR_M, -HAIR_M)]
    off = []
    for dx, dy in shifts:
        moved = other.model_copy(update={"at": (other.at[0] + dx, other.at[1] + dy)})
        off.append(_hearing_off_db(apply(design, [put(moved)])))
        if off == [0.0]:
            return
    assert sum(o == 0.0 for o in off) >= 2, off


def _hearing_off_db(design: Design) -> float:
    catalogue = load_catalogue()
    air = air_of(design, catalogue, "5")
    one, other = air.access_points("5")
    site = plain.Site(design, catalogue)
    here, there = ((*d.at, site.floors[d.floor].elevation_m + d.height_m) for d in (one, other))
    apart_m = max(1.0, math.dist(here, there))
    loss = 20 * math.log10(5500) - 27.55 + 20 * math.log10(apart_m)
    patterns = [catalogue.airs[d.model].pattern for d in (one, other)]
    loss += plain.antenna_db(patterns[0], one, here, there)
    loss += plain.antenna_db(patterns[1], other, there, here)
    start, end = ((*plain.stand(site, d), p[2]) for d, p in ((one, here), (other, there)))
    loss += plain.slabs_db(site, start, end, "5") + plain.walls_db(site, start, end, "5")
    loss += plain.trees_db(site, start, one.floor, end, other.floor, "5")
    radios = [air.radios[d.id, "5"] for d in (one, other)]
    heard = max(r.power_dbm for r in radios) + sum(r.gain_dbi for r in radios) - loss
    off = abs(float(hearing_dbm(air, "5")[0, 1]) - heard)
    return off if off > 0.05 else 0.0
