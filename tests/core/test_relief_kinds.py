"""Each kind of relief against a plain look at single spots: the spot lies in the tint of its figure."""

from __future__ import annotations

import math
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.design import Space
from heathrise.core.signal import RadioEnvironment, Show, air_of, difference, readings_at, relief
from heathrise.core.signal.rates import level_for, user_mbps
from heathrise.demo import SITES

from .reference_ray import inside

RULES = load_catalogue().rules
STEP_M = 0.3  # a little over the step of the grid


def _holds(path: str, x_m: float, y_m: float) -> bool:
    """Whether a path of rings in cm holds a spot, by the even-odd rule."""
    rings = [list(map(float, ring.rstrip("Z").split())) for ring in path.split("M") if ring]
    corners = [tuple(zip(r[::2], r[1::2], strict=True)) for r in rings]
    return sum(inside(ring, x_m * 100, y_m * 100) for ring in corners) % 2 == 1


def _spots(design, floor: str, count: int) -> list[tuple[float, float]]:  # type: ignore[no-untyped-def]
    chance, found = random.Random(5), []
    rooms = [s.outline for s in design.of(Space).values() if s.floor == floor and not s.outdoor]
    while len(found) < count:
        outline = chance.choice(rooms)
        xs, ys = zip(*outline, strict=True)
        spot = (chance.uniform(min(xs), max(xs)), chance.uniform(min(ys), max(ys)))
        if inside(outline, *spot):
            found.append(spot)
    return found


def _plain(show: Show, levels: list[float], rank: int) -> float:
    """The figure at a spot by the trade's own words, from the levels there."""
    level = sorted(levels, reverse=True)[rank - 1]
    noise = -174 + 10 * math.log10(40e6) + 7
    if show == "snr":
        return level - noise
    if show == "rate":
        table = [
            (8.6, -82),
            (17.2, -79),
            (25.8, -77),
            (34.4, -74),
            (51.6, -70),
            (68.8, -66),
            (77.4, -65),
            (86.0, -64),
            (103.2, -59),
            (114.7, -57),
            (129.0, -54),
            (143.4, -52),
        ]
        return max((r * 2.1 * 2 * 0.65 for r, least in table if level >= least + 3), default=0.0)
    if show == "chance":
        wants = -67 if rank == 1 else -72
        return 50 * (1 + math.erf((level - wants) / 6 / math.sqrt(2)))
    return level


def _levels(air: RadioEnvironment, x: float, y: float) -> dict[str, float]:
    return {
        r.device: min(r.downlink_dbm, r.uplink_dbm) for r in readings_at(air, "ground", x, y) if r.band == "5"
    }


def _around(x: float, y: float) -> list[tuple[float, float]]:
    """A spot and four beside it: where all say the same no edge or shadow passes between the
    points of the grid, and the relief must say it too."""
    return [(x, y), *((x + dx, y + dy) for dx in (-STEP_M, STEP_M) for dy in (-STEP_M, STEP_M))]


@pytest.mark.parametrize("show", ["level", "snr", "rate", "chance"])
@pytest.mark.parametrize("rank", [1, 2, 3])
def test_a_spot_lies_in_the_tint_of_its_figure(show: Show, rank: int) -> None:
    design = SITES[0].make()
    air = air_of(design, load_catalogue())
    drawn = relief(air, "ground", "5", rank, "weaker", show=show)
    edges = [-math.inf, *drawn.figures, math.inf]
    checked = 0
    for spot in _spots(design, "ground", 120):
        tints = {_tint(edges, _plain(show, list(_levels(air, *s).values()), rank)) for s in _around(*spot)}
        if len(tints) == 1:
            checked += 1
            assert _holds(drawn.tints[tints.pop()], *spot), spot
    assert checked > 40


def _tint(edges: list[float], figure: float) -> int:
    return next(k for k in range(len(edges) - 1) if edges[k] <= figure < edges[k + 1])


@pytest.mark.parametrize("rank", [1, 2])
def test_a_difference_lies_in_its_tint(rank: int) -> None:
    """Slow and plain: both levels at the spot, no lower than the noise, one less the other."""
    design = SITES[0].make()
    then = air_of(design, load_catalogue())
    now = then.without(frozenset({next(d for d, _ in then.radios)}))
    drawn = difference(now, then, "ground", "5", rank, "weaker")
    edges = [-math.inf, *drawn.figures, math.inf]
    noise = -174 + 10 * math.log10(40e6) + 7

    def plain(spot: tuple[float, float]) -> float:
        ranked = [
            [*sorted(_levels(air, *spot).values(), reverse=True), -200.0, -200.0][rank - 1]
            for air in (now, then)
        ]
        return max(noise, ranked[0]) - max(noise, ranked[1])

    seen = set()
    for spot in _spots(design, "ground", 120):
        tints = {_tint(edges, plain(s)) for s in _around(*spot)}
        if len(tints) == 1:
            tint = tints.pop()
            seen.add(tint)
            assert _holds(drawn.tints[tint], *spot), spot
    assert len(seen) >= 2  # somewhere it falls, somewhere nobody would notice
    assert max(seen) <= 3  # and nowhere does it rise


def test_who_is_heard_and_who_serves() -> None:
    design = SITES[0].make()
    air = air_of(design, load_catalogue())
    heard = relief(air, "ground", "5", 1, "weaker", show="heard")
    serves = relief(air, "ground", "5", 1, "weaker", show="serves")
    sure = 0
    for spot in _spots(design, "ground", 120):
        around = [_levels(air, *s) for s in _around(*spot)]
        counts = {min(5, sum(v >= -82 for v in levels.values())) for levels in around}
        best = {max(levels, key=levels.__getitem__) for levels in around}
        if len(counts) == 1:
            (count,) = counts
            assert all(_holds(heard.tints[k], *spot) == (k <= count) for k in range(1, 6))
        if len(best) == 1:
            sure += 1
            assert [s.device for s in serves.serves if _holds(s.path, *spot)] == list(best)
    assert sure > 40
    assert all(_holds(s.path, *s.at) for s in serves.serves)


@given(st.floats(-100, -30), st.sampled_from([20, 40, 80]), st.floats(1, 2000))
def test_a_rate_is_reached_at_its_level_and_not_below(level: float, width: int, mbps: float) -> None:
    at = level_for(RULES, mbps, width)
    if at is None:
        assert user_mbps(RULES, 0.0, width) < mbps
    else:
        assert user_mbps(RULES, at, width) >= mbps > user_mbps(RULES, at - 0.01, width)
    assert user_mbps(RULES, level + 1, width) >= user_mbps(RULES, level, width)


def test_rates_by_hand() -> None:
    """MCS 7 from -64 dBm: 86.0 Mb/s, twice for two streams, 0.65 of it; at 40 MHz from -61."""
    assert user_mbps(RULES, -64, 20) == pytest.approx(111.8)
    assert user_mbps(RULES, -64.1, 20) == pytest.approx(77.4 * 1.3)
    assert user_mbps(RULES, -61, 40) == pytest.approx(234.78)
    assert user_mbps(RULES, -82.1, 20) == 0.0
