"""Ports as they came up and snags: the last word counts, each verdict names its figure."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from itertools import permutations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.context.scope import as_planned
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.records import (
    PlannedPort,
    PortReading,
    SeenPort,
    SnagRecord,
    ports_as_seen,
    snags_as_left,
    switches_as_seen,
)
from heathrise.core.views.acceptance import planned_cables, planned_ports
from heathrise.demo import SITES
from heathrise.standins import METER_FAULTS, metered_csv

RULES = load_catalogue().rules
MORNING = datetime(2026, 3, 2, 9, tzinfo=UTC)
FED = PlannedPort("sw", "SW-1", 3, "AP-1", "ap-1", 1, 1000, expected_w=10.0, reserved_w=15.4)
PLAIN = PlannedPort("sw", "SW-1", 9, "Desk", "desk", 1, 1000)
UPLINK = PlannedPort("sw", "SW-1", 24, "to the line", None, 1, 1000)


def read(
    port: PlannedPort, mbps: int | None, watts: float | None, hours: int = 0, number: int = 1
) -> PortReading:
    return PortReading(
        switch=port.switch,
        port=port.port,
        device=port.device,
        cable=port.cable,
        mbps=mbps,
        watts=watts,
        number=number,
        at=MORNING + timedelta(hours=hours),
        author="meter",
    )


@pytest.mark.parametrize(
    ("port", "mbps", "watts", "verdict", "words"),
    [
        (FED, 1000, 10.0, "met", "1 Gb/s, draws 10 W"),
        (FED, 2500, 11.9, "met", "2.5 Gb/s, draws 11.9 W"),
        (FED, 1000, 12.1, "near", "draws 12.1 W, expected 10.0"),  # 10 W and a fifth are 12
        (FED, 1000, 15.5, "not_met", "its class reserves 15.4"),
        (FED, 1000, 0.2, "not_met", "not fed"),
        (FED, 100, 10.0, "not_met", "came up at 100 Mb/s, planned 1 Gb/s: usually a bad pair"),
        (FED, 10, 10.0, "not_met", "both ends' ports"),
        (FED, 0, 0.0, "not_met", "no link"),
        (FED, None, 9.0, "met", "draws 9 W"),
        (FED, 1000, None, "met", "1 Gb/s"),
        (FED, None, None, "unread", "not read"),
        (PLAIN, 1000, 6.0, "near", "no power is planned"),
        (PLAIN, 1000, 0.1, "met", "1 Gb/s"),
        (UPLINK, 100, None, "not_met", "bad pair"),
    ],
)
def test_a_port_is_judged_against_the_plan(
    port: PlannedPort, mbps: int | None, watts: float | None, verdict: str, words: str
) -> None:
    (found,) = ports_as_seen(RULES, [port], [read(port, mbps, watts)])
    assert found.verdict == verdict and words in found.reason


def test_a_reading_stays_with_its_cable_when_ports_are_shared_out_anew() -> None:
    moved = PlannedPort("sw-2", "SW-2", 1, "AP-1", "ap-1", 1, 1000, 10.0, 15.4)
    (found,) = ports_as_seen(RULES, [moved], [read(FED, 100, 10.0)])
    assert found.verdict == "not_met"
    (other,) = ports_as_seen(RULES, [PLAIN], [read(FED, 100, 10.0)])
    assert other.verdict == "unread"


@given(st.permutations([(0, 100), (2, 1000), (1, 0)]))
def test_the_last_reading_counts_in_whatever_order_they_came(rows: list[tuple[int, int]]) -> None:
    readings = [read(FED, mbps, 10.0, hours, n) for n, (hours, mbps) in enumerate(rows)]
    (found,) = ports_as_seen(RULES, [FED], readings)
    assert found.last is not None and found.last.mbps == 1000 and found.verdict == "met"


def test_a_switch_adds_up_what_was_read_of_what_it_feeds() -> None:
    """10.5 W of 20 W: one of two read is near; both read and over what may be given is not met."""
    other = PlannedPort("sw", "SW-1", 4, "AP-2", "ap-2", 1, 1000, 10.0, 15.4)

    def draw(watts: list[float | None], usable: float) -> tuple[str, float, float]:
        seen = ports_as_seen(
            RULES,
            [FED, other, PLAIN],
            [read(p, 1000, w) for p, w in zip((FED, other), watts, strict=True) if w is not None],
        )
        (row,) = switches_as_seen(seen, [("sw", "SW-1", usable)])
        return row.verdict, row.drawn_w, row.expected_w

    assert draw([None, None], 20) == ("unread", 0.0, 0.0)
    assert draw([10.5, None], 20) == ("near", 10.5, 10.0)
    assert draw([10.5, 9.0], 20) == ("met", 19.5, 20.0)
    assert draw([10.5, 9.6], 20) == ("not_met", 20.1, 20.0)


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_every_link_of_a_site_can_be_proven(key: str) -> None:
    """A cable for each that is pulled, a port for each link; speeds as a plain look gives them."""
    design = next(s for s in SITES if s.key == key).make()
    evaluation = evaluate(Plan(design, load_catalogue()))
    cables = planned_cables(Plan(design, load_catalogue()))
    there = [k for k in evaluation.cable.links if k.verdict != "no_way"]
    assert len(cables) == sum(k.cables for k in there)
    ports = planned_ports(Plan(design, load_catalogue()))
    taken = [p for p in evaluation.power.ports if p.link is not None or p.uplink]
    assert [(p.switch, p.port) for p in ports] == [(p.switch, p.port) for p in taken]
    model_mbps = {
        d.id: load_catalogue().model_of(d).speed_mbps for d in as_planned(design).tables["device"].values()
    }
    for port, use in zip(ports, taken, strict=True):
        if use.device is not None:
            assert port.mbps == min(use.speed_mbps, model_mbps[use.device])
        assert port.mbps <= use.speed_mbps
        assert (port.expected_w is not None) == (use.feeds and use.device is not None)


@pytest.mark.parametrize("seed", range(8))
def test_the_faults_of_the_stand_in_meter_are_found_and_nothing_else(seed: int) -> None:
    design = SITES[0].make()
    ports = planned_ports(Plan(design, load_catalogue()))
    text, hidden = metered_csv(ports, seed, 6, "2026-11-24")
    assert text == metered_csv(ports, seed, 6, "2026-11-24")[0] and len(hidden) == 6
    by_place = {(p.switch_name, str(p.port)): p for p in ports}
    readings = []
    for line in text.splitlines()[1:]:
        switch, port, mbps, watts, *_ = line.split(",")
        readings.append(read(by_place[switch, port], int(mbps), float(watts) if watts else None))
    seen = {(p.switch, p.port): p for p in ports_as_seen(RULES, ports, readings)}
    for place, row in seen.items():
        kind = hidden.get(place)
        assert _as_hidden(row, kind), (kind, row.reason)
    assert set(hidden.values()) <= set(METER_FAULTS)


def _as_hidden(row: SeenPort, kind: str | None) -> bool:
    wanted = {None: ("met", ""), "bad pair": ("not_met", "bad pair"), "no link": ("not_met", "no link")}
    if kind == "draws much":
        return row.verdict in ("near", "not_met") and "draws" in row.reason
    verdict, words = wanted[kind]
    return row.verdict == verdict and words in row.reason


def _snag(state: str, hours: int, what: str = "Plate missing", **more: object) -> SnagRecord:
    return SnagRecord.model_validate(
        {
            "key": f"key-{hours:05d}",
            "snag": "snag-1",
            "state": state,
            "what": what,
            "author": f"by {hours}",
            "at": MORNING + timedelta(hours=hours),
            **more,
        }
    )


def test_a_snag_is_as_it_was_said_last_and_remembers_who_saw_it() -> None:
    rows = [
        _snag("open", 0, photo="one"),
        _snag("open", 5, "Plate cracked", owner="Ben", due=date(2026, 3, 4), photo="two"),
        _snag("open", 6, "Plate cracked", owner="Ben", due=date(2026, 3, 4), photo="two"),
    ]
    for order in permutations(rows):
        (snag,) = snags_as_left(order, date(2026, 3, 5))
        assert (snag.what, snag.owner, snag.seen_by, snag.said_by) == ("Plate cracked", "Ben", "by 0", "by 6")
        assert snag.photos == ("one", "two") and snag.late
    (mended,) = snags_as_left([*rows, _snag("closed", 9)], date(2026, 3, 5))
    assert mended.state == "closed" and not mended.late
    (in_time,) = snags_as_left(rows, date(2026, 3, 4))
    assert not in_time.late


def test_a_photograph_alone_takes_no_snag_over() -> None:
    rows = [_snag("open", 0, owner="Ann"), _snag("closed", 1), _snag("open", 2, photo="three")]
    shown = rows[2].model_copy(update={"state": None, "what": ""})
    (snag,) = snags_as_left([*rows[:2], shown], date(2026, 3, 5))
    assert (snag.state, snag.what, snag.said_by) == ("closed", "Plate missing", "by 1")
    assert snag.photos == ("three",)


def test_open_snags_come_first_by_the_day_they_are_due() -> None:
    rows = [
        _snag("closed", 0).model_copy(update={"snag": "done"}),
        _snag("open", 1).model_copy(update={"snag": "some-day"}),
        _snag("open", 2, due=date(2026, 4, 1)).model_copy(update={"snag": "later"}),
        _snag("open", 3, due=date(2026, 3, 9)).model_copy(update={"snag": "soon"}),
    ]
    assert [s.snag for s in snags_as_left(rows, date(2026, 3, 2))] == ["soon", "later", "some-day", "done"]
