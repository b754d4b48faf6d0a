"""A call on a walk: by hand in a corridor, and step by step against a plain simulation."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.design import Device, Floor, Network, Radio, Space, WirelessName, apply, put
from heathrise.core.signal import RadioEnvironment, WalkPoint, air_of, readings_at, walk
from heathrise.core.signal.radio_environment import SpotLevel
from heathrise.demo import SITES

from ..thorough import examples
from .plans import access_point, design_of, shell


def _at(x: float, y: float, floor: str = "f") -> WalkPoint:
    return WalkPoint(floor=floor, at=(x, y))


def _names(security: str = "wpa2", fast: bool = True) -> list[Network | WirelessName]:
    return [
        Network(id="n", name="Main", purpose="main", vlan=10, subnet="192.168.10.0/24"),
        WirelessName.model_validate(
            {"id": "w", "network": "n", "ssid": "Main", "security": security, "fast_transition": fast}
        ),
    ]


def test_a_corridor_by_hand(catalogue: Catalogue) -> None:
    """130 m past two domes of 4 dBi, 110 m apart, nothing between: 92.9 s at 1.4 m/s.

    Far from a dome it is 88.8 degrees off its axis, 6.6 dB. Downlink 17 + 4 - 47.26 - 6.6 - 20 log10 d:
    -70 dBm at 71 m. The other is 8 dB louder where d1 / d2 = 2.5 (there 6.5 dB off its axis): 78.6 m from the
    first, so that is where the client changes.
    """
    design = design_of(*shell(130, 4), access_point(10, 2), access_point(120, 2, "ap-2"), *_names())
    found = walk(air_of(design, catalogue), [_at(0, 2), _at(130, 2)])
    assert found.metres == 130 and found.seconds == pytest.approx(93, abs=0.5) and found.name == "Main"
    (change,) = [e for e in found.events if e.kind == "hand_over"]
    assert (change.device, change.to, change.gap_ms, change.bad) == ("ap-1", "ap-2", 50, False)
    assert change.at[0] == pytest.approx(88.6, abs=0.8)
    assert found.verdict == "holds" and found.text == "The call holds: 1 hand-over with fast transition."
    back = walk(air_of(design, catalogue), [_at(130, 2), _at(0, 2)])
    (other,) = [e for e in back.events if e.kind == "hand_over"]
    assert other.at[0] == pytest.approx(130 - change.at[0], abs=0.8)


@pytest.mark.parametrize(
    ("security", "fast", "gap", "holds"),
    [
        ("wpa2", True, 50, True),
        ("wpa2", False, 150, True),
        ("enterprise", False, 400, False),
        ("enterprise", True, 50, True),
    ],
)
def test_the_gap_follows_how_one_joins(
    catalogue: Catalogue, security: str, fast: bool, gap: float, holds: bool
) -> None:
    design = design_of(
        *shell(130, 4), access_point(10, 2), access_point(120, 2, "ap-2"), *_names(security, fast)
    )
    found = walk(air_of(design, catalogue), [_at(0, 2), _at(130, 2)])
    assert [e.gap_ms for e in found.events if e.kind == "hand_over"] == [gap]
    assert (found.verdict == "holds") == holds


def test_a_call_is_lost_where_nobody_is_heard_and_comes_back(catalogue: Catalogue) -> None:
    design = design_of(*shell(400, 4), access_point(5, 2), access_point(395, 2, "ap-2"))
    found = walk(air_of(design, catalogue), [_at(0, 2), _at(400, 2)])
    lost = [e for e in found.events if e.kind == "lost"]
    assert len(lost) == 1 and lost[0].until_s - lost[0].t_s > 20 and found.verdict == "breaks"
    assert [e.to for e in found.events if e.kind == "back"] == ["ap-2"]
    assert found.text.startswith("The call is lost once")
    nobody = walk(air_of(design_of(*shell()), catalogue), [_at(0, 2), _at(10, 2)])
    assert nobody.verdict == "breaks" and nobody.lines == ()
    still = walk(air_of(design, catalogue), [_at(5, 2), _at(5, 2)])
    assert still.verdict == "holds" and still.metres == 0


def test_a_client_that_clings_to_the_storey_below_is_told(catalogue: Catalogue) -> None:
    up = Floor.model_validate(
        {"id": "up", "building": "b", "name": "Up", "level": 1, "elevation_m": 3.0, "slab": "floor-timber"}
    )
    room = Space(
        id="up-room", floor="up", name="Up", use="calls", outline=((0, 0), (20, 0), (20, 20), (0, 20))
    )
    above = Device.model_validate({**access_point(10, 10, "ap-2").model_dump(), "floor": "up"})
    design = design_of(*shell(), access_point(8, 8), up, room, above)
    found = walk(
        air_of(design, catalogue), [_at(8, 8), _at(9, 9), _at(9, 9, "up"), _at(12, 12, "up"), _at(8, 8, "up")]
    )
    (cling,) = [e for e in found.events if e.kind == "clings"]
    assert (cling.device, cling.to, cling.floor) == ("ap-1", "ap-2", "up") and cling.until_s - cling.t_s >= 3
    assert found.verdict == "holds" and not [e for e in found.events if e.kind == "hand_over"]


def _weaker(reading: SpotLevel) -> float:
    return min(reading.downlink_dbm, reading.uplink_dbm)


def _plain(
    air: RadioEnvironment, points: list[WalkPoint], below_dbm: float = -70, bands: tuple[str, ...] = ("5",)
) -> list[tuple[str | None, float]]:
    """Who serves and how loud, half a second at a time, by readings of single spots."""
    x = y = 0.0
    now: tuple[str, str] | None = None
    found: list[tuple[str | None, float]] = []
    legs = [math.dist(a.at, b.at) for a, b in itertools.pairwise(points)]
    total, t = sum(legs), 0.0
    while t < total / 1.4 + 0.5:
        gone = min(t * 1.4, total)
        for leg, a, b in zip(legs, points, points[1:], strict=False):
            if gone <= leg or b is points[-1]:
                share = min(gone / leg, 1.0) if leg else 1.0
                x, y = (a.at[k] + (b.at[k] - a.at[k]) * share for k in (0, 1))
                break
            gone -= leg
        readings = readings_at(air, points[0].floor, x, y)
        heard = {(r.device, r.band): r for r in readings if r.band in bands}
        loudest = [
            max((r for r in heard.values() if r.band == b), key=lambda r: r.downlink_dbm) for b in bands
        ]
        best = next((r for r in loudest if now is not None and r.band == now[1]), loudest[0])
        if now is not None and now[1] != bands[0] and loudest[0].downlink_dbm >= below_dbm:
            now = (loudest[0].device, bands[0])  # back to 5 GHz
        elif now is not None and heard[now].downlink_dbm < min(below_dbm, best.downlink_dbm - 8 + 1e-9):
            now = (best.device, best.band)
        if now is None or _weaker(heard[now]) < -80:
            now = next(((r.device, r.band) for r in loudest if _weaker(r) >= -80), None)
        found.append((now[0] if now else None, _weaker(heard[now]) if now else -140.0))
        t += 0.5
    return found


@examples(25)
@given(st.lists(st.tuples(st.floats(0.3, 39.7), st.floats(0.3, 17.7)), min_size=2, max_size=4))
def test_each_step_against_a_plain_simulation(spots: list[tuple[float, float]]) -> None:
    points = [WalkPoint(floor="ground", at=(round(x, 2), round(y, 2))) for x, y in spots]
    air = air_of(SITES[0].make(), load_catalogue())
    _compare(air, points, ("5", "2.4"))


@examples(25)
@example([(7.890625, 14.0), (0.0, 5.0)])
@given(st.lists(st.tuples(st.floats(-60, 20), st.floats(-40, 60)), min_size=2, max_size=3))
def test_each_step_out_of_doors_against_a_plain_simulation(spots: list[tuple[float, float]]) -> None:
    """Round the mill, where 5 GHz is lost and the call falls to 2.4 GHz, and is lost there too."""
    points = [WalkPoint(floor="wheel", at=(round(x, 2), round(y, 2))) for x, y in spots]
    mill = next(s for s in SITES if s.key == "mill").make()
    _compare(air_of(mill, load_catalogue()), points, ("5", "2.4"))


def _moved(points: list[WalkPoint], by: float) -> list[WalkPoint]:
    return [WalkPoint(floor=p.floor, at=(p.at[0] + by, p.at[1] + by)) for p in points]


def _compare(air: RadioEnvironment, points: list[WalkPoint], bands: tuple[str, ...]) -> None:
    # A tenth of a dB, to which readings are rounded, may decide whether a client changes; so may
    # the side of a wall that a spot just on it is heard on, at the start for many steps.
    found = walk(air, points)
    plains = [_plain(air, points, -70 + db, bands) for db in (-0.1, 0, 0.1)]
    plains += [_plain(air, _moved(points, by), -70, bands) for by in (-0.02, 0.02)]
    assert abs(len(found.samples) - len(plains[0])) <= 1
    same = sum(
        any(s.serving == p[0] and (p[0] is None or abs(s.dbm - p[1]) < 0.4) for p in alike)
        for s, *alike in zip(found.samples, *plains, strict=False)
    )
    assert same >= 0.9 * len(plains[0]) - 1
    changes = [e for e in found.events if e.kind in ("hand_over", "lost", "back")]
    served = [s.serving and (s.serving, s.band) for s in found.samples]
    assert len(changes) == sum(a != b for a, b in itertools.pairwise(served)) + (served[0] is None)


@pytest.mark.parametrize("bands", [("5",), ("2.4", "5")])
def test_a_call_falls_to_the_lower_band_rather_than_be_lost(
    catalogue: Catalogue, bands: tuple[str, ...]
) -> None:
    """Out into the open and back: where 5 GHz is below -80, 2.4 GHz is 8 dB louder; only a name
    that is on it catches the call. It is steered back where 5 GHz is at -70 again."""
    names = _names()
    names[1] = names[1].model_copy(update={"bands": bands})
    loud = Radio(id="r", device="ap-1", band="2.4", power_dbm=20)
    point = access_point(1, 2, height_m=1.2, mount="wall")
    design = design_of(*shell(20, 4), point, *names, loud)
    far = [_at(1, 2), _at(400, 2), _at(1, 2)]
    found = walk(air_of(design, catalogue), far)
    low = [s for s in found.samples if s.band == "2.4" and s.serving]
    falls = [e for e in found.events if e.kind == "hand_over"]
    if bands == ("5",):
        assert not low and found.verdict == "breaks" and not falls
        return
    assert [e.device for e in falls] == ["ap-1", "ap-1"] and "on 2.4 GHz" in falls[0].text
    out, back = falls[0].at[0], falls[1].at[0]
    # Up it is 3 dB fainter than down: lost at -77 dBm down, taken again at -70, 7 dB of distance.
    assert (out - 1) / (back - 1) == pytest.approx(10 ** (7 / 20), rel=0.03)
    assert "on 2.4 GHz" in found.text or found.verdict == "breaks"


def test_a_fast_transition_that_is_switched_off_is_seen_in_the_gaps() -> None:
    design = SITES[0].make()
    name = next(n for n in design.of(WirelessName).values() if "5" in n.bands)
    path = [WalkPoint(floor="ground", at=(1.0, 9.0)), WalkPoint(floor="ground", at=(39.0, 9.5))]
    gaps = []
    for fast in (True, False):
        changed = apply(design, [put(name.model_copy(update={"fast_transition": fast, "security": "wpa2"}))])
        gaps.append(
            {e.gap_ms for e in walk(air_of(changed, load_catalogue()), path).events if e.kind == "hand_over"}
        )
    assert gaps[0] <= {50.0} and gaps[1] <= {150.0}
