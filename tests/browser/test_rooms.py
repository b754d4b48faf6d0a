"""A second equipment room, placed in the browser, and everything that follows."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from .conftest import Sheet

pytestmark = pytest.mark.browser


def test_a_second_room_in_the_pavilion(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    cable_before = sheet.totals("cable")
    page.get_by_role("combobox", name="Floor").click()
    page.get_by_role("option", name="Pavilion").click()
    page.click("[data-tool=equipment_room]")
    expect(page.get_by_test_id("tool-line")).to_contain_text("press where a rack stands")
    box = page.locator("svg.sheet").bounding_box()
    assert box
    page.mouse.click(box["x"] + box["width"] * 0.46, box["y"] + box["height"] * 0.5)
    sheet.saved(2)
    page.keyboard.press("Escape")
    expect(page.locator("[data-name=rack-1]")).to_contain_text("Pavilion rack")

    sheet.stage("cable")
    expect(page.locator("[data-uplink=rack-1]").first).to_be_attached()
    expect(page.locator("[data-tally=cable]")).to_contain_text("fibre")
    assert sheet.totals("cable") != cable_before
    sheet.tab("List")
    row = page.locator("[data-uplink-row=rack-1]")
    expect(row).to_contain_text("Pavilion rack to Store rack")
    run = page.locator("[data-run-row=ap-15] .number")
    assert float(run.inner_text().split()[0]) < 30
    page.click("[data-run-row=ap-15]")
    sheet.tab("Reasons")
    page.get_by_role("combobox", name="Begins").click()
    page.get_by_role("option", name="Store rack").click()
    sheet.saved(3)
    expect(page.locator("[data-figure=run]")).to_contain_text("88.2 m")
    page.keyboard.press("Escape")
    page.click("[aria-label=Undo]")
    sheet.saved(4)

    sheet.stage("power")
    rack = page.locator("[data-rack=rack-1]")
    expect(rack).to_contain_text("of fibre up to Store rack")
    page.locator("[data-finding=power-none-rack-1] [data-cure]").first.click()
    sheet.saved(5)
    expect(rack.locator("[data-way-up]")).to_contain_text("up to SW-1")
    expect(rack).to_contain_text("AP-15")
    cage = page.locator("[data-finding^=power-converter] [data-cure]")
    cage.first.click()
    sheet.saved(6)
    expect(page.locator("[data-finding^=power-converter]")).to_have_count(0)

    sheet.stage("settings")
    page.get_by_role("button", name="Switch ports").click()
    expect(page.locator("main")).to_contain_text("SW-3")
    # The room goes with its switch; who was told to go there goes where it is best.
    sheet.stage("cable")
    sheet.tab("List")
    page.click("[data-uplink-row=rack-1]")
    sheet.tab("Reasons")
    page.get_by_label("Remove it").click()
    sheet.saved(7)
    expect(page.locator("[data-uplink=rack-1]")).to_have_count(0)
    assert sheet.totals("cable") == cable_before
