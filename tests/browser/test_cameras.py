"""What a camera sees, on the sheet: a blind door found and mended, the camera turned by its handle."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from playwright.sync_api import expect

from ops.serve import Server

from ..core.plans import camera_yard
from .conftest import Sheet, make_project

pytestmark = pytest.mark.browser


def test_a_blind_door_is_found_mended_by_a_tilt_and_the_camera_turned(
    server: Server, open_sheet: Callable[..., Sheet]
) -> None:
    key = make_project(server, camera_yard(), "Yard")
    sheet = open_sheet(f"/p/{key}/plan")
    page = sheet.page
    page.mouse.click(*sheet.middle_of("[data-mark=cam] .halo"))
    sight = page.get_by_test_id("sight")
    expect(sight.locator("[data-figure=blind]")).to_have_text("from 5.3 m")
    expect(sight.get_by_label("Doors it looks to")).to_contain_text("not in the picture")
    expect(page.locator("[data-sight=cam] .zone")).to_have_count(4)
    finding = page.locator("[data-finding='plan-blind-door']")
    expect(finding).to_contain_text("blind ground")
    finding.click()
    page.get_by_role("button", name="Tilt CAM-1 to 50").click()
    expect(finding).to_have_count(0)
    page.mouse.click(*sheet.middle_of("[data-mark=cam] .halo"))
    expect(sight.get_by_label("Doors it looks to")).to_contain_text("from head to foot")

    # Turned by its handle to the west: from level right below to left, in steps of five degrees.
    before = page.get_by_label("Azimuth").input_value()
    x, y, wide, high = sheet.box("[data-handle=azimuth]")
    eye = sheet.middle_of("[data-mark=cam] .halo")
    page.mouse.move(x + wide / 2, y + high / 2)
    page.mouse.down()
    page.mouse.move(eye[0] - 60, eye[1] + 2, steps=6)
    page.mouse.up()
    expect(page.get_by_label("Azimuth")).not_to_have_value(before)
    assert page.get_by_label("Azimuth").input_value().startswith(("265", "270"))
