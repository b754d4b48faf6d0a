"""Speeds and serials over the wire, and what the bring-up and the hand-over make of them."""

from __future__ import annotations

from typing import Any

import pytest
from flask.testing import FlaskClient

from heathrise.controller.bring_up import _baseline
from heathrise.core.context.plan import Plan
from heathrise.core.records import SerialMatched, serials_as_matched, speeds_as_seen
from heathrise.core.views.speeds import planned_speeds
from heathrise.demo import terrace_house
from heathrise.store import Repository
from heathrise.store.records import Records
from heathrise.web.app import create_app


@pytest.fixture
def house(repository: Repository) -> tuple[FlaskClient, str]:
    project = repository.create("Terrace", terrace_house(), "me", "begin").id
    return create_app(repository).test_client(), f"/api/projects/{project}"


def _places(house: tuple[FlaskClient, str]) -> list[dict[str, Any]]:
    client, base = house
    return list(client.get(f"{base}/speeds").json["speeds"])  # type: ignore[index]


def test_a_speed_is_noted_by_hand_and_is_told_at_the_hand_over(house: tuple[FlaskClient, str]) -> None:
    client, base = house
    line, room = _places(house)[:2]
    for where, mbps in ((line["where"], line["planned_mbps"]), (room["where"], room["planned_mbps"] * 0.3)):
        body = {"where": where, "occasion": "baseline", "down_mbps": mbps, "up_mbps": 20, "delay_ms": 9}
        assert client.post(f"{base}/speeds", json=body).status_code == 201
    now = {s["where"]: s["verdict"] for s in _places(house)}
    assert (now["line"], now[room["where"]]) == ("met", "not_met")
    view: Any = client.get(f"{base}/handover").json
    (speed,) = [p for p in view["now"]["promises"] if p["what"] == "Speed"]
    assert speed["measured"] == "1 of 2 places as planned, 0 measured again at the hand-over"
    for body in (
        {"where": "none", "occasion": "baseline", "down_mbps": 1},
        {"where": "line", "occasion": "x"},
    ):
        assert client.post(f"{base}/speeds", json=body).status_code == 422


def test_a_file_of_speeds_is_taken_once_whole_or_when_one_says_so(house: tuple[FlaskClient, str]) -> None:
    client, base = house
    room = _places(house)[1]["name"]
    text = f"room,down_mbps\nline,400\n{room},90\nNowhere,3\n"
    told: Any = client.post(f"{base}/speeds/list?occasion=hand_over", data=text).json
    assert (told["read"], told["taken"], [f["line"] for f in told["faults"]]) == (2, False, [4])
    assert all(s["hand_over"] is None for s in told["speeds"])
    for _ in range(2):
        told = client.post(f"{base}/speeds/list?occasion=hand_over&take=1", data=text).json
    assert [s["hand_over"]["down_mbps"] for s in told["speeds"] if s["hand_over"]] == [400, 90]
    assert all(s["baseline"] is None for s in told["speeds"])


def test_the_bring_up_asks_for_each_place_once(repository: Repository) -> None:
    plan = Plan(terrace_house(), repository.catalogue, quick=True)
    places = speeds_as_seen(plan.rules, planned_speeds(plan), [])
    words = {p.where: _baseline(p).words for p in places}
    assert words["line"] == "the plan lets 500 Mb/s through: the line"
    assert [
        w for w in words.values() if w.startswith("the plan lets nothing through: air, worst spot of Yard")
    ]


def test_a_list_of_serials_is_taken(house: tuple[FlaskClient, str], repository: Repository) -> None:
    client, base = house
    answer = client.post(f"{base}/controller/serials/list", data="device,serial\nNobody,1\nAP-1,X-1\n")
    assert answer.json == {
        "read": 1,
        "taken": False,
        "faults": [{"line": 2, "what": "no device of this plan is called 'Nobody'"}],
    }
    client.post(f"{base}/controller/serials/list", data="device,serial\nAP-1,X-1\n")
    kept = Records(repository.engine).of(base.rsplit("/", 1)[1], SerialMatched)
    assert set(serials_as_matched(kept).values()) == {"X-1"}
