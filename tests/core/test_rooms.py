"""What rooms hear: both directions, first and second, through floors and holes."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.base.bands import Band
from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.band_plan import band_plan
from heathrise.core.context.plan import Plan
from heathrise.core.design import ClientGroup, Design, Device, Floor, Radio, Space, apply, put
from heathrise.core.evaluation.cure_search import search_cures
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.signal.assess import air_of
from heathrise.core.signal.obstacles import losses_db
from heathrise.core.signal.radio_environment import readings_at
from heathrise.core.signal.relief import relief
from heathrise.core.signal.rooms import judge_rooms
from heathrise.core.signal.transmit import transmits

from ..thorough import examples
from .plans import access_point, design_of, shell, wall


def test_open_room_by_hand(catalogue: Catalogue) -> None:
    """5 m aside and 1.5 m down from a dome of 4 dBi: 47.3 + 14.35 dB, and 73.3 degrees off."""
    design = design_of(*shell(), access_point(5, 10))
    reading = next(r for r in readings_at(air_of(design, catalogue), "f", 10, 10) if r.band == "5")
    off_boresight = 12 * (73.3 / 120) ** 2
    loss = 47.26 + 20 * np.log10(np.hypot(5, 1.5)) + off_boresight
    assert reading.uplink_dbm == pytest.approx(14 + 4 - loss, abs=0.1)
    assert reading.downlink_dbm == pytest.approx(17 + 4 - loss, abs=0.1)


def test_power_stays_near_the_client_and_under_the_cap(catalogue: Catalogue) -> None:
    design = design_of(*shell(), access_point(5, 5), access_point(9, 9, "ap-2", "ravelmoor-x5"))
    plan = transmits(design, catalogue)
    assert plan["ap-1", "5"].power_dbm == 17
    assert plan["ap-2", "5"].eirp_dbm <= band_plan(RULES, "europe").eirp_cap_dbm("5") == 23
    assert plan["ap-2", "2.4"].power_dbm + 7 <= 20


def test_power_set_by_hand_is_kept_but_not_over_the_cap(catalogue: Catalogue) -> None:
    loud = Radio(id="r", device="ap-1", band="5", power_dbm=30)
    design = design_of(*shell(), access_point(5, 5), loud)
    radio = transmits(design, catalogue)["ap-1", "5"]
    assert (radio.power_dbm, radio.by_person) == (19, True)
    findings = {f.id for f in evaluate(Plan(design, catalogue), wait=True).findings}
    assert "signal-loud-ap-1-5" in findings


def test_second_access_point_is_what_keeps_a_call(catalogue: Catalogue) -> None:
    alone = design_of(*shell(10, 10), access_point(5, 5))
    room = judge_rooms(air_of(alone, catalogue))[0]
    assert (room.share_first, room.share_second, room.verdict) == (1.0, 0.0, "not_met")
    paired = apply(alone, [put(access_point(3, 5, "ap-2"))])
    room = judge_rooms(air_of(paired, catalogue))[0]
    assert (room.share_second, room.verdict) == (1.0, "met")


def test_a_room_that_hears_but_is_not_heard_is_told_so(catalogue: Catalogue) -> None:
    """19 dBm against the phone's 14: over 58 m the two directions fall on both sides of -70."""
    *ground, space = shell(60, 4)
    long_room = space.model_copy(update={"use": "everyday"})
    loud = Radio(id="r", device="ap-1", band="5", power_dbm=19)
    design = design_of(*ground, long_room, access_point(2, 2), loud)
    room = judge_rooms(air_of(design, catalogue))[0]
    assert room.share_downlink == 1.0 and room.worst_first_dbm == pytest.approx(-71, abs=0.2)
    told = {f.id: f.text for f in evaluate(Plan(design, catalogue), wait=True).findings}["signal-room-room"]
    assert "Downlink passes: it is heard there, but does not hear the clients." in told
    modest = apply(design, [put(loud.model_copy(update={"power_dbm": 14}))])
    told = {f.id: f.text for f in evaluate(Plan(modest, catalogue), wait=True).findings}["signal-room-room"]
    assert "Downlink" not in told


def test_metal_box_is_named(catalogue: Catalogue) -> None:
    corners = [(0, 0), (6, 0), (6, 6), (0, 6)]
    walls = [wall(i, corners[i], corners[(i + 1) % 4], "metal") for i in range(4)]
    design = design_of(*shell(6, 6), *walls, access_point(3, 3))
    found = [f for f in evaluate(Plan(design, catalogue)).findings if "shielded" in f.id]
    assert found and "Room" in found[0].text


def _storeys(*, hole: bool) -> Design:
    upper = Floor(id="g", building="b", name="Upper", level=1, elevation_m=3.0, slab="floor-timber")
    square = ((0, 0), (20, 0), (20, 20), (0, 20))
    room = Space(id="above", floor="g", name="Above", outline=square)
    design = design_of(*shell(), upper, room, access_point(5, 5))
    below = design.of(Space)["room"].model_copy(update={"open_above": hole})
    return apply(design, [put(below)])


def _loss_above(design: Design, catalogue: Catalogue) -> float:
    air = air_of(design, catalogue)
    device = design.of(Device)["ap-1"]
    model = catalogue.airs[device.model]
    spot = np.array([6.0]), np.array([6.0])
    return float(losses_db(air.terrain, device, model, "g", *spot)[1, 0])


def test_a_slab_takes_its_loss_and_a_hole_in_it_none(catalogue: Catalogue) -> None:
    closed, opened = _storeys(hole=False), _storeys(hole=True)
    assert _loss_above(closed, catalogue) - _loss_above(opened, catalogue) == pytest.approx(13.0)


def test_moving_one_device_leaves_the_terrain(catalogue: Catalogue, school: Design) -> None:
    moved = school.of(Device)["ap-6"].model_copy(update={"at": (35.0, 12.0)})
    after = apply(school, [put(moved)])
    assert air_of(school, catalogue).terrain is air_of(after, catalogue).terrain


def test_relief_covers_the_floor_and_says_where_it_falls_short(catalogue: Catalogue, school: Design) -> None:
    air = air_of(school, catalogue)
    drawn = relief(air, "ground", "5", 2, "weaker")
    assert len(drawn.tints) == 6 and all(drawn.tints[1:5])
    assert {s.use: s.target_dbm for s in drawn.shortfalls} == {"calls": -72}
    assert [c.figure for c in drawn.contours] == [-80, -72, -67, -60, -52]
    assert any(c.labels for c in drawn.contours)
    assert relief(air, "ground", "6", 1, "weaker").tints == ()


def test_uplink_is_weaker_than_downlink_on_the_plan(catalogue: Catalogue, school: Design) -> None:
    for reading in readings_at(air_of(school, catalogue), "ground", 20, 9):
        if reading.band == "5":
            assert reading.uplink_dbm < reading.downlink_dbm


def test_a_searched_cure_does_what_it_says(catalogue: Catalogue, school: Design) -> None:
    before = {r.space: r for r in judge_rooms(air_of(school, catalogue))}
    cures = search_cures(Plan(school, catalogue), "signal-room-ground-stairs")
    assert cures
    after = apply(school, cures[0].changes)
    room = next(r for r in judge_rooms(air_of(after, catalogue)) if r.space == "ground-stairs")
    assert (room.share or 0) > (before["ground-stairs"].share or 0)
    assert f"to {room.share:.0%}" in cures[0].effect
    assert search_cures(Plan(school, catalogue), "signal-room-no-such-room") == []


def test_relief_of_5_ghz_need_not_wait_for_2_4(catalogue: Catalogue, school: Design) -> None:
    whole, spared = air_of(school, catalogue), air_of(school, catalogue, "5")
    drawn = relief(whole, "upper", "5", 2, "weaker")
    assert relief(spared, "upper", "5", 2, "weaker") == drawn
    assert relief(spared, "upper", "2.4", 1, "weaker") != relief(whole, "upper", "2.4", 1, "weaker")


RULES = load_catalogue().rules


_STEPS = st.sampled_from(["move", "use", "margin", "power", "client", "off"])


def _step(design: Design, kind: str, k: int) -> Design:
    """Make one of the edits that rooms and quiet radios depend on."""
    devices = [d for d in design.of(Device).values() if d.kind == "access_point"]
    device, spaces = devices[k % len(devices)], list(design.of(Space).values())
    space = spaces[k % len(spaces)]
    if kind == "move":
        return apply(design, [put(device.model_copy(update={"at": (4.0 + k / 3, 3.0 + k / 5)}))])
    if kind == "use":
        use = ("calls", "everyday", "sensors")[k % 3]
        return apply(design, [put(space.model_copy(update={"use": use}))])
    if kind == "power":
        radio = Radio(id="held", device=device.id, band="2.4", power_dbm=6.0 + k % 9)
        return apply(design, [put(radio)])
    if kind == "off":
        return apply(design, [put(Radio(id="held-off", device=device.id, band="5", on=bool(k % 2)))])
    change = {"margin_db": float(k % 6)} if kind == "margin" else {"client": ("phone", "laptop")[k % 2]}
    return apply(design, [put(design.site.model_copy(update=change))])


@examples(12)
@given(st.lists(st.tuples(_STEPS, st.integers(0, 40)), min_size=2, max_size=5))
def test_what_is_kept_by_room_is_what_is_worked_out_anew(
    school: Design, steps: list[tuple[str, int]]
) -> None:
    kept, design = load_catalogue(), school
    for kind, k in steps:
        design = _step(design, kind, k)
        warm, cold = air_of(design, kept), air_of(design, load_catalogue())
        assert judge_rooms(warm) == judge_rooms(cold)
        assert warm.radios == cold.radios


def _used_by(*kinds: str, wired: int = 0) -> list[ClientGroup]:
    return [
        ClientGroup(id=f"g{k}", space="room", kind=kind, count=2, wired=wired) for k, kind in enumerate(kinds)
    ]


def test_a_room_is_judged_by_the_weakest_client_that_is_used_there(catalogue: Catalogue) -> None:
    """A sensor of 12 dBm is heard 3 dB fainter on 2.4 GHz than the phone of 15; a laptop is not."""
    loud = Radio(id="r", device="ap-1", band="2.4", power_dbm=16)  # louder than either of them
    design = design_of(*shell(14, 14), access_point(7, 7), loud)
    room = design.of(Space)["room"].model_copy(update={"use": "sensors"})
    design = apply(design, [put(room)])
    plain = judge_rooms(air_of(design, catalogue))[0]
    weak = apply(design, [put(g) for g in _used_by("laptop", "sensor")])
    judged = judge_rooms(air_of(weak, catalogue))[0]
    assert (plain.client, plain.client_dbm) == ("Phone", 15)
    assert (judged.client, judged.client_dbm) == ("Sensors, switches", 12)
    assert plain.worst_first_dbm is not None and judged.worst_first_dbm is not None
    assert judged.worst_first_dbm == pytest.approx(plain.worst_first_dbm - 3, abs=0.11)
    for others in (_used_by("laptop"), _used_by("sensor", wired=2), _used_by("storage")):
        same = apply(design, [put(g) for g in others])
        assert judge_rooms(air_of(same, catalogue))[0].client == "Phone"


def test_the_weakest_client_is_named_where_a_room_falls_short(catalogue: Catalogue) -> None:
    site = [e.model_copy(update={"client": "laptop"}) if e.id == "site" else e for e in shell(30, 30)]
    design = design_of(*site, access_point(2, 2), *_used_by("till"))
    texts = [f.text for f in evaluate(Plan(design, catalogue)).findings if f.stage == "signal"]
    assert any("Judged by the weakest there: Till or card reader, 14 dBm." in t for t in texts)


@examples(100)
@given(
    st.lists(
        st.tuples(
            st.sampled_from(["phone", "laptop", "sensor", "doorbell", "desk_computer", "storage"]),
            st.integers(0, 2),
        ),
        max_size=5,
    ),
    st.sampled_from(["2.4", "5"]),
)
def test_the_weakest_client_against_a_plain_look(rows: list[tuple[str, int]], band: Band) -> None:
    catalogue = load_catalogue()
    groups = [
        ClientGroup(id=f"g{k}", space="room", kind=kind, count=2, wired=wired)
        for k, (kind, wired) in enumerate(rows)
    ]
    air = air_of(design_of(*shell(), access_point(5, 5), *groups), catalogue)
    powers = [15.0 if band == "2.4" else 14.0]
    for kind, wired in rows:
        able = catalogue.clients[kind].power_dbm
        if wired < 2 and band in able:
            powers.append(able[band])
    assert air.client_in("room", band).power_dbm[band] == min(powers)
