"""A ray explained piece by piece: its sum is the kernel's, its pieces are what stands there."""

from __future__ import annotations

import itertools
import math

import numpy as np
import pytest
from hypothesis import HealthCheck, given
from hypothesis import strategies as st

from heathrise.core.base.bands import BANDS, Band
from heathrise.core.catalogue import load_catalogue
from heathrise.core.design import Design, Device, Opening, Space, Wall, apply, put
from heathrise.core.signal import air_of, explain_spot, readings_at
from heathrise.core.signal.obstacles import losses_db
from heathrise.demo import SITES

from ..thorough import examples
from . import reference_ray as plain
from .plans import access_point, design_of, shell, wall
from .sites import sites, turned
from .test_rays_against_reference import _in_doubt

SPOTS = [(1.3171, 1.7313), (5.7731, 3.1179), (9.4137, 2.2191), (13.7191, 1.1337), (-2.7193, 6.4411)]
SLOW = examples(40, HealthCheck.data_too_large)


def test_one_ray_by_hand() -> None:
    """8 m east and 1.5 m down through a brick wall and a door: straight, then 45 degrees.

    From 2.7 m to a client at 1.2 m: sqrt(64 + 2.25) = 8.139 m. Free space on 5 GHz at 1 m is
    47.257 dB and 20 log10 8.139 = 18.212 more. The brick wall, 10 dB, stands square to the ray's
    course but the ray slants down: 8.139 / 8. The door's wall runs at 45 degrees: times sqrt 2.
    """
    design = design_of(
        *shell(),
        access_point(2, 10),
        wall(1, (5, 0), (5, 20), "brick-single"),
        wall(2, (4, 6), (12, 14), "brick-cavity"),
        Opening(id="door", wall="w2", kind="door", construction="door-solid", offset_m=5.0, width_m=1.5),
    )
    catalogue = load_catalogue()
    view = explain_spot(air_of(design, catalogue), "f", (10.0, 10.0), "5")
    (ray,) = view.rays
    assert view.room == "Room" and view.wants_dbm == -67 and view.wants_second_dbm == -72
    assert ray.distance_m == pytest.approx(8.139, abs=0.01)
    assert ray.free_db == pytest.approx(47.257 + 18.212, abs=0.01)
    first, second = ray.crossings
    assert (first.element, first.construction, first.kind) == ("w1", "brick-single", "wall")
    assert first.takes_db == pytest.approx(10 * 8.139 / 8, abs=0.01)
    assert (second.element, second.kind) == ("door", "opening")
    assert second.takes_db == pytest.approx(6 * 8.139 / 8 * math.sqrt(2), abs=0.01)
    assert second.at == (8.0, 10.0) and second.share == pytest.approx(0.75)
    # The dome looks straight down; the spot lies atan(8 / 1.5) = 79.38 degrees off that.
    assert ray.antenna_db == pytest.approx(12 * (79.38 / 120) ** 2, abs=0.01)
    assert ray.downlink_dbm == pytest.approx(ray.power_dbm + ray.gain_dbi - ray.loss_db, abs=0.02)
    assert ray.uplink_dbm == pytest.approx(14 + ray.gain_dbi - ray.loss_db, abs=0.02)
    # The door taken out gives back all it took; a concrete wall for the brick takes 16 dB more.
    gone = next(o for o in second.instead if o.construction == "open-gap")
    assert gone.change_db == pytest.approx(second.takes_db, abs=0.06)
    concrete = next(o for o in first.instead if o.construction == "concrete")
    assert concrete.change_db == pytest.approx(-16 * 8.139 / 8, abs=0.06)
    assert view.chance_second == 0.0  # there is no second


@SLOW
@given(sites(), st.sampled_from([0.0, 30.0, 17.3]))
def test_the_sum_is_what_the_kernel_and_the_plain_reference_say(design: Design, turn: float) -> None:
    catalogue = load_catalogue()
    air = air_of(design, catalogue)
    devices = design.of(Device)
    floor = next(iter(air.terrain.storeys.floors))
    for spot, band in itertools.product([turned(s, turn) for s in SPOTS], BANDS):
        for ray in explain_spot(air, floor, spot, band).rays:
            device = devices[ray.device]
            model = catalogue.airs[device.model]
            x, y = (np.array([c]) for c in spot)
            kernel = losses_db(air.terrain, device, model, floor, x, y)
            assert ray.loss_db == pytest.approx(kernel[BANDS.index(band), 0], abs=0.02)
            parts = ray.free_db + ray.antenna_db + sum(c.takes_db for c in ray.crossings)
            assert ray.loss_db == pytest.approx(parts, abs=0.05)
            if not _in_doubt(design, device):
                told = plain.path_loss_db(design, catalogue, device, floor, spot, band)
                near = _near_an_end(design, device, spot)
                assert abs(ray.loss_db - told) < 0.02 or near


@SLOW
@given(sites(), st.sampled_from([0.0, 30.0]))
def test_a_section_shows_the_storeys_along_the_way_and_no_other_building(design: Design, turn: float) -> None:
    """Against a walk along the way in small steps that asks each storey's rooms by hand."""
    air = air_of(design, load_catalogue())
    storeys = air.terrain.storeys
    floor = next(iter(storeys.floors))
    for spot in (turned(s, turn) for s in SPOTS[:2]):
        for ray in explain_spot(air, floor, spot, "5").rays:
            told = {s.floor: s.spans for s in ray.storeys}
            for key in storeys.floors:
                rings = [
                    list(s.outline) for s in design.of(Space).values() if s.floor == key and not s.outdoor
                ]
                for k in range(1, 40):
                    share = k / 40
                    at = (
                        ray.source[0] + share * (spot[0] - ray.source[0]),
                        ray.source[1] + share * (spot[1] - ray.source[1]),
                    )
                    if _nearest_edge_m(rings, at) < 0.05:
                        continue
                    inside = any(_holds(ring, at) for ring in rings)
                    assert inside == any(a <= share <= b for a, b in told.get(key, ()))


def _holds(ring: list[tuple[float, float]], at: tuple[float, float]) -> bool:
    odd = False
    for (ax, ay), (bx, by) in zip(ring, ring[1:] + ring[:1], strict=True):
        if (ay > at[1]) != (by > at[1]) and at[0] < ax + (at[1] - ay) / (by - ay) * (bx - ax):
            odd = not odd
    return odd


def _nearest_edge_m(rings: list[list[tuple[float, float]]], at: tuple[float, float]) -> float:
    found = math.inf
    for ring in rings:
        for (ax, ay), (bx, by) in zip(ring, ring[1:] + ring[:1], strict=True):
            long = (bx - ax) ** 2 + (by - ay) ** 2
            along = ((at[0] - ax) * (bx - ax) + (at[1] - ay) * (by - ay)) / long
            t = min(1.0, max(0.0, along))
            near = (ax + t * (bx - ax), ay + t * (by - ay))
            found = min(found, math.dist(at, near))
    return found


def _near_an_end(design: Design, device: Device, spot: tuple[float, float]) -> bool:
    """Whether the ray passes a wall's end by less than a hair: there the reference is not asked."""
    (ax, ay), (bx, by) = device.at, spot
    wide = math.dist(device.at, spot) or 1.0
    return any(
        abs((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / wide < 0.02
        for w in design.of(Wall).values()
        for x, y in (w.a, w.b)
    )


@pytest.mark.parametrize("key", [s.key for s in SITES])
@pytest.mark.parametrize("band", BANDS)
def test_a_spot_of_a_site_is_explained_as_it_is_read(key: str, band: Band) -> None:
    design = next(s for s in SITES if s.key == key).make()
    air = air_of(design, load_catalogue())
    for space in list(design.of(Space).values())[:12]:
        spot = (
            sum(p[0] for p in space.outline) / len(space.outline),
            sum(p[1] for p in space.outline) / len(space.outline),
        )
        view = explain_spot(air, space.floor, spot, band)
        read = {r.device: r for r in readings_at(air, space.floor, *spot) if r.band == band}
        levels = [min(r.downlink_dbm, r.uplink_dbm) for r in view.rays]
        assert levels == sorted(levels, reverse=True) and len(levels) == min(8, len(read))
        for ray in view.rays:
            assert ray.downlink_dbm == pytest.approx(read[ray.device].downlink_dbm, abs=0.06)
            assert ray.uplink_dbm == pytest.approx(read[ray.device].uplink_dbm, abs=0.06)
            shares = [c.share for c in ray.crossings]
            assert shares == sorted(shares) and all(0 < s < 1 for s in shares)


def test_what_would_be_is_what_is_when_it_is_built() -> None:
    """Each wall and slab of some rays, really built otherwise, gives the level that was told."""
    design, catalogue = SITES[0].make(), load_catalogue()
    air = air_of(design, catalogue, "5")
    spot, checked = (21.0, 2.0), 0
    for ray in explain_spot(air, "ground", spot, "5").rays[:5]:
        for crossing in ray.crossings:
            if crossing.kind not in ("wall", "opening"):
                continue
            row = design.of(Wall).get(crossing.element) or design.of(Opening)[crossing.element]
            for option in (
                o
                for o in crossing.instead
                if catalogue.constructions[o.construction].kind in ("wall", "door")
            ):
                built = apply(design, [put(row.model_copy(update={"construction": option.construction}))])
                after = explain_spot(air_of(built, catalogue, "5"), "ground", spot, "5")
                level = next(
                    (min(r.downlink_dbm, r.uplink_dbm) for r in after.rays if r.device == ray.device), None
                )
                pieces = [c for c in ray.crossings if c.element == crossing.element]
                if level is not None and len(pieces) == 1:
                    assert option.level_dbm == pytest.approx(level, abs=0.11), option.label
                    checked += 1
    assert checked > 20
