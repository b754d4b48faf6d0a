"""A file of ports, whatever it looks like: by switch and port, or by a cable's label."""

from __future__ import annotations

from datetime import UTC, datetime
from functools import cache

import pytest

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import DesignError
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.install import Label
from heathrise.core.records import PlannedPort
from heathrise.core.views.acceptance import planned_ports
from heathrise.core.views.labels import project_labels
from heathrise.demo import SITES
from heathrise.formats.ports_csv import PortsIn, read_ports
from heathrise.standins import metered_csv

NOW = datetime(2026, 11, 25, 12, tzinfo=UTC)


@cache
def _site() -> tuple[list[PlannedPort], list[Label], dict[str, str]]:
    design = SITES[0].make()
    plan = Plan(design, load_catalogue())
    return planned_ports(plan), project_labels(plan), {r.id: r.device for r in evaluate(plan).runs}


def _read(text: str | bytes) -> PortsIn:
    data = text.encode() if isinstance(text, str) else text
    return read_ports(data, *_site(), NOW)


def test_the_meter_s_own_file_is_read_whole() -> None:
    ports = _site()[0]
    read = _read(metered_csv(ports, 1, 0, "2026-11-24")[0])
    assert not read.faults and len(read.readings) == len(ports)
    for port, row in zip(ports, read.readings, strict=True):
        said = row.reading
        assert (said.switch, said.port, said.mbps, said.device) == (
            port.switch,
            port.port,
            port.mbps,
            port.device,
        )
        assert said.at.date().isoformat() == "2026-11-24" and said.author == "stand-in"


def test_any_order_delimiter_sign_and_label_is_read() -> None:
    ports, labels, runs = _site()
    fed = next(p for p in ports if p.expected_w is not None)
    text = next(x.text for x in labels if runs.get(x.link) == fed.device and x.cable == fed.cable)
    for data in (
        f"label,link_mbps,watts\n{text}/B,1000,7.5\n".encode(),
        f"\ufeffWatts;Speed;Cable ID\n7,5;1000;{text.lower()}\n".encode(),
        f"w\tport\tswitch\tmbps\n7.5\t{fed.port}\t{fed.switch_name.lower()}\t1000\n".encode("utf-16"),
    ):
        read = _read(data)
        assert not read.faults, data
        (row,) = read.readings
        assert (row.reading.device, row.reading.mbps, row.reading.watts) == (fed.device, 1000, 7.5)
    assert _read(f"switch,port,link\n{fed.switch_name},{fed.port},down\n").readings[0].reading.mbps == 0


def test_each_fault_is_told_with_its_line() -> None:
    switch, port = _site()[0][0].switch_name, _site()[0][0].port
    read = _read(
        "switch,port,label,link_mbps,watts\n"
        f"{switch},{port},,1000,6\n"  # 2, good
        f"{switch},999,,1000,6\n"
        f"NOWHERE,1,,1000,6\n"
        ",,=EVIL(),1000,6\n"
        ",,,1000,6\n"
        f"{switch},{port},,fast,6\n"
        f"{switch},{port},,1000,-3\n"
        f"{switch},{port},,,\n"
        f"{switch},{port},,1000,6\n"
    )
    assert [r.reading.port for r in read.readings] == [port]
    told = {f.line: f.what for f in read.faults}
    assert set(told) == set(range(3, 11))
    assert "port 999 has no link" in told[3] and "NOWHERE" in told[4] and "'=EVIL()'" in told[5]
    assert "neither" in told[6] and "'fast' is no speed" in told[7] and "'-3' is no power" in told[8]
    assert "neither a speed nor watts" in told[9] and "same as line 2" in told[10]


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "is empty"),
        (b"switch,port\nSW-1,1\n", "no column link_mbps or watts"),
        (b"\x00\x01\x02", "no table in text"),
    ],
)
def test_what_is_no_such_file_is_refused(data: bytes, words: str) -> None:
    with pytest.raises(DesignError) as told:
        _read(data)
    assert words in str(told.value)
