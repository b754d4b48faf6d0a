"""A scan as text: any order and delimiter, what a row lacks, what is wrong with it."""

from __future__ import annotations

import pytest

from heathrise.core.context.integrity import MAX_ELEMENTS
from heathrise.core.design import DesignError, Floor
from heathrise.formats.scan_csv import read_scan

FLOORS = [Floor(id="g", building="b", name="Ground floor", level=0)]


def test_rows_are_read_in_any_order_and_what_they_lack_is_taken_from_the_place() -> None:
    text = (
        "RSSI;Channel;SSID;Frequency;Width;Storey;x;y\n"
        "-61,5;6;Next door;2437;20;ground floor;3,5;4\n"
        "-70;44;;5220;40;;;\n"
        "-66;37;Shop;6135;80;g;1;2\n"
    )
    read = read_scan(text.encode(), FLOORS, "g", (9.0, 8.0), ["nb-1"])
    assert not read.faults
    assert [(n.id, n.name, n.band, n.channel, n.width_mhz, n.level_dbm, n.at) for n in read.neighbours] == [
        ("nb-2", "Next door", "2.4", 6, 20, -61.5, (3.5, 4.0)),
        ("nb-3", "Channel 44", "5", 44, 40, -70.0, (9.0, 8.0)),
        ("nb-4", "Shop", "6", 37, 80, -66.0, (1.0, 2.0)),
    ]


def test_what_is_wrong_with_a_row_is_told_and_the_others_are_read() -> None:
    text = "channel,level,width,floor,x,y\n" + "\n".join(
        [
            "0,-60,20,,,",
            "6,12,20,,,",
            "30,-60,20,,,",
            "6,-60,25,,,",
            "6,-60,20,Attic,,",
            "6,-60,20,,5,",
            "6,-60,20,,99999,1",
            "11,-60,,,,",
        ]
    )
    read = read_scan(text.encode(), FLOORS, "g", (0.0, 0.0), [])
    assert [n.channel for n in read.neighbours] == [11]
    said = [f.what for f in read.faults]
    assert [f.line for f in read.faults] == [2, 3, 4, 5, 6, 7, 8]
    for part, what in zip(
        ("no channel", "no level", "add a column band", "no width", "no storey", "not the other", "10 km"),
        said,
        strict=True,
    ):
        assert part in what
    with pytest.raises(DesignError, match="no column level_dbm"):
        read_scan(b"channel,ssid\n6,x\n", FLOORS, "g", (0.0, 0.0), [])


def test_of_very_many_neighbours_the_loudest_are_offered() -> None:
    levels = [-40 - (k * 7919) % 60 for k in range(MAX_ELEMENTS["neighbour"] + 500)]
    rows = "".join(f"n{k},6,{dbm}\n" for k, dbm in enumerate(levels))
    read = read_scan(f"name,channel,dbm\n{rows}".encode(), FLOORS, "g", (0, 0), ["nb-2"])
    room = MAX_ELEMENTS["neighbour"] - 1  # one is in the plan already
    assert len(read.neighbours) == room
    assert f"1,500 neighbours the {room} loudest" in read.faults[-1].what
    # By hand: the loudest of all, in the order in which they stand.
    floor_dbm = sorted(levels, reverse=True)[room - 1]
    assert min(n.level_dbm for n in read.neighbours) == floor_dbm
    assert [int(n.name[1:]) for n in read.neighbours] == sorted(int(n.name[1:]) for n in read.neighbours)
    assert "nb-2" not in {n.id for n in read.neighbours}
