"""From an empty project to a small flat that is planned whole, by what is offered in its place."""

from __future__ import annotations

import json
import urllib.request
from collections.abc import Callable

import pytest

from bench.flat import draw_flat

from .conftest import Sheet

pytestmark = pytest.mark.browser
MOST_PRESSES = 60


def test_a_three_room_flat_is_drawn_served_cabled_and_powered_from_nothing(
    open_sheet: Callable[..., Sheet],
) -> None:
    sheet = open_sheet("/")
    hand = draw_flat(sheet.page)
    assert 15 < hand.presses < MOST_PRESSES
    project = sheet.page.url.split("/p/")[1].split("/")[0]
    base = f"{sheet.server.base}/api/projects/{project}"
    with urllib.request.urlopen(f"{base}/export/evaluation.json") as answer:
        found = json.load(answer)
    rooms = {r["name"]: r["verdict"] for r in found["signal"]["rooms"]}
    assert sorted(rooms.values()) == ["met", "met", "not_needed"]
    assert [r["verdict"] for r in found["cable"]["runs"]] == ["met"]
    assert all(d["source"] != "none" for d in found["power"]["devices"])
    assert [n["name"] for n in found["settings"]["networks"]] == ["Family", "Guests", "Things"]
    open_ones = [
        f["id"]
        for chapter in ("plan", "signal", "cable", "power", "settings")
        for f in found[chapter]["findings"]
        if f["severity"] == "not_met"
    ]
    assert open_ones == []
