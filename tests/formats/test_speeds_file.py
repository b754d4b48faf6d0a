"""Files of speeds and of serials as they come from a phone or a spreadsheet."""

from __future__ import annotations

from datetime import UTC, datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.design import DesignError
from heathrise.core.records import PlannedSpeed
from heathrise.formats.serials_csv import read_serials
from heathrise.formats.speeds_csv import read_speeds

NOW = datetime(2026, 5, 4, 9, tzinfo=UTC)
PLACES = [
    PlannedSpeed(where="line", name="The line", mbps=500, binds="the line"),
    PlannedSpeed(where="r1", name="Hall", floor="Ground", mbps=300, binds="air"),
    PlannedSpeed(where="r2", name="Store", floor="Ground", mbps=300, binds="air"),
    PlannedSpeed(where="r3", name="Store", floor="First", mbps=300, binds="air"),
]
DEVICES = {"ap-1": "AP-1", "ap-2": "AP-2", "sw-1": "Switch", "sw-2": "Switch"}


def test_speeds_are_read_in_any_order_and_spelling() -> None:
    text = "Ping;Room;Storey;Down;Up\n4,5;Line;;480,5;90\n9;hall;;210;\n;Store;first;150;30\n"
    found = read_speeds(text.encode("utf-16"), PLACES, "baseline", NOW)
    assert not found.faults
    rows = [(r.where, r.down_mbps, r.up_mbps, r.delay_ms, r.occasion) for _, r in found.readings]
    assert rows == [
        ("line", 480.5, 90, 4.5, "baseline"),
        ("r1", 210, None, 9, "baseline"),
        ("r3", 150, 30, None, "baseline"),
    ]


@pytest.mark.parametrize(
    "row, words",
    [
        (",100,,", "names no room; say line"),
        ("Attic,100,,", "no room of this plan that is served is called 'Attic'"),
        ("Store,100,,", "2 rooms are called 'Store'; add a column storey"),
        ("Hall,fast,,", "down_mbps is 'fast', which is no number from 0 to 400,000"),
        ("Hall,-1,,", "down_mbps is '-1'"),
        ("Hall,100,1e9,", "up_mbps is '1e9'"),
        ("Hall,100,,nan", "delay_ms is 'nan'"),
        ("Hall,,,", "says no down_mbps"),
    ],
)
def test_a_row_that_will_not_do_is_told_by_its_line_and_left_out(row: str, words: str) -> None:
    text = f"room,down_mbps,up_mbps,delay_ms\nline,400,,\n{row}\n"
    found = read_speeds(text.encode(), PLACES, "hand_over", NOW)
    assert len(found.readings) == 1 and [f.line for f in found.faults] == [3]
    assert words in found.faults[0].what


@given(
    st.lists(
        st.tuples(st.sampled_from(["Hall", "line"]), st.sampled_from([100, 120]), st.booleans()), max_size=9
    )
)
def test_what_was_said_before_counts_again_unless_its_time_or_the_last_of_its_place_is_the_same(
    story: list[tuple[str, int, bool]],
) -> None:
    rows = [f"{room},{mbps},{'2026-05-04T08:00:00Z' if dated else ''}" for room, mbps, dated in story]
    found = read_speeds("\n".join(["room,down_mbps,date", *rows]).encode(), PLACES, "baseline", NOW)
    kept: list[str] = []
    for row, (room, _, dated) in zip(rows, story, strict=True):
        mine = [k for k in kept if k.startswith(room)]
        if not (row in kept if dated else mine and mine[-1] == row):
            kept.append(row)
    assert [r.down_mbps for _, r in found.readings] == [float(k.split(",")[1]) for k in kept]
    assert len(found.faults) == len(rows) - len(kept)


def test_a_speed_that_stands_twice_counts_once() -> None:
    text = "room,down_mbps\nHall,100\nHall,100\nHall,120\n"
    found = read_speeds(text.encode(), PLACES, "baseline", NOW)
    assert [r.down_mbps for _, r in found.readings] == [100, 120]
    assert "is the same as line 2" in found.faults[0].what


@pytest.mark.parametrize("text", ["", "a,b\n1,2\n", "room,up_mbps\nHall,3\n"])
def test_what_is_no_table_of_speeds_is_refused(text: str) -> None:
    with pytest.raises(DesignError):
        read_speeds(text.encode(), PLACES, "baseline", NOW)


def test_serials_are_matched_by_name_or_id_and_what_is_wrong_is_told() -> None:
    rows = ["ap-1,'00123", "AP-2,XK 9", "Switch,S1", "sw-2,S2", "AP-9,X", "ap-2,ZZ", "sw-1,S2", "sw-1,"]
    found = read_serials(("device,serial\n" + "\n".join(rows) + "\n").encode(), DEVICES)
    assert found.serials == {"ap-1": "00123", "ap-2": "XK 9", "sw-2": "S2"}
    assert [(f.line, f.what) for f in found.faults] == [
        (4, "2 devices of this plan are called 'Switch'"),
        (6, "no device of this plan is called 'AP-9'"),
        (7, "ap-2 stands in the file twice"),
        (8, "S2 is Switch's already"),
        (9, "says no serial of up to 60 characters"),
    ]
