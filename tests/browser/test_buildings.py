"""Several buildings on one site: floors, ducts between them, and the units they are told in."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from .conftest import Sheet

pytestmark = pytest.mark.browser


def _draw_room(page: Page, start: tuple[float, float], end: tuple[float, float]) -> None:
    page.click("[data-tool=room]")
    page.mouse.move(*start)
    page.mouse.down()
    page.mouse.move(*end, steps=5)
    page.mouse.up()


def _floor(page: Page, name: str) -> None:
    page.get_by_label("Floor", exact=True).click()
    option = page.get_by_role("option", name=name, exact=True)
    option.click()
    # where things stand is read next, so the floor has to be there and its list gone
    expect(option).to_be_hidden()
    expect(page.get_by_role("application", name=f"Sheet of {name}.")).to_be_visible()


def _lower_left(sheet: Sheet) -> tuple[float, float]:
    """Return where the other building's lower left corner is on the screen."""
    left, top, _, height = sheet.box("[data-layer=yard] .building")
    return left, top + height


def test_an_outbuilding_is_drawn_and_wired_by_a_duct(open_sheet: Callable[..., Sheet]) -> None:
    sheet = open_sheet("/")
    page = sheet.page
    sheet.begin("Quarry House")
    box = page.locator("svg.sheet").bounding_box()
    assert box
    for _ in range(4):
        page.get_by_role("button", name="Farther").click()
    x, y, s = box["x"] + 120, box["y"] + 400, sheet.scale()
    _draw_room(page, (x, y), (x + 6 * s, y - 5 * s))
    page.click("[data-tool=equipment_room]")
    page.mouse.click(x + 1 * s, y - 1 * s)
    sheet.saved(3)

    sheet.stage("brief")
    page.get_by_role("button", name="Add a building").click()
    sheet.saved(4)
    name = page.get_by_label("Name of building Building 2")
    name.fill("Barn")
    name.press("Tab")
    sheet.saved(5)
    sheet.stage("plan")
    _floor(page, "Building 2")
    expect(page.locator("[data-layer=yard]")).to_contain_text("House")
    for _ in range(4):
        page.get_by_role("button", name="Farther").click()
    x, y = _lower_left(sheet)
    s = sheet.scale()
    far = x + 22 * s
    _draw_room(page, (far, y), (far + 4 * s, y - 4 * s))
    page.click("[data-tool=access_point]")
    page.mouse.click(far + 2 * s, y - 2 * s)
    sheet.saved(7)
    sheet.stage("cable")
    reason = page.locator(".inspector")
    expect(reason).to_contain_text("no way leads there")

    sheet.stage("plan")
    _floor(page, "Ground floor")
    page.click("[data-tool=duct]")
    x, y = _lower_left(sheet)
    s = sheet.scale()
    page.mouse.click(x - 16 * s, y - 1 * s)
    page.mouse.move(x - 8 * s, y - 6 * s, steps=3)
    page.mouse.click(x - 8 * s, y - 6 * s)
    page.mouse.move(x + 1 * s, y - 1 * s, steps=3)
    expect(page.locator(".draft text")).to_contain_text(" m")
    page.mouse.click(x + 1 * s, y - 1 * s)
    sheet.saved(8)
    expect(page.locator(".inspector")).to_contain_text("Ask for the buried services")
    expect(page.get_by_label("To", exact=True)).to_contain_text("Barn")
    before = page.inner_text("[data-figure=duct]")
    sheet.pull("[data-corner='1']", 0, 3 * s)
    sheet.saved(9)
    assert float(page.inner_text("[data-figure=duct]").split()[0]) < float(before.split()[0])

    sheet.stage("cable")
    page.get_by_role("button", name="List", exact=True).click()
    expect(page.locator("[data-run-row=ap-1]")).to_contain_text("met")
    page.click("[data-run-row=ap-1]")
    page.get_by_role("button", name="Reasons", exact=True).click()
    expect(page.locator(".inspector")).to_contain_text("In the ground")
    expect(page.locator("[data-finding=cable-surge-ap-1]")).to_be_visible()


def test_a_building_goes_with_all_that_stands_on_it_and_comes_back(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    cable = sheet.totals("cable")
    sheet.stage("brief")
    page.get_by_role("button", name="Remove Pavilion").first.click()
    sheet.saved(2)
    expect(page.locator("[data-floor]")).to_have_count(2)
    expect(page.locator("[data-tally=aps] .value")).to_have_text("14")
    page.get_by_role("button", name="Remove Upper floor").click()
    sheet.saved(3)
    expect(page.locator("[data-floor]")).to_have_count(1)
    expect(page.get_by_role("button", name="Remove Ground floor")).to_have_count(0)
    for _ in range(2):
        page.get_by_role("button", name="Undo").click()
    sheet.saved(5)
    expect(page.locator("[data-tally=cable] .value")).to_have_text(cable)


def test_feet_are_feet_in_figures_sentences_and_fields(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("cable")
    finding = page.locator("[data-finding=cable-length-ap-15]")
    expect(finding).to_contain_text("88.2\u00a0m of 90\u00a0m (15\u00a0°C in its hottest space)")
    page.get_by_role("button", name="Switch between metres and feet").click()
    expect(finding).to_contain_text("289.4 ft of 295 ft (59 °F in its hottest space)")
    finding.get_by_role("button", name="Rule").click()
    expect(finding.locator("dl")).to_contain_text("289.4 ft, limit 295.3 ft")
    expect(page.locator("[data-tally=cable] .value")).to_contain_text("ft")
    sheet.stage("plan")
    page.click("[data-mark=ap-6]")
    expect(page.get_by_label("East", exact=True)).to_have_value("119.75 ft")
    east = page.get_by_label("East", exact=True)
    east.fill("100")
    east.press("Tab")
    sheet.saved(2)
    page.get_by_role("button", name="Switch between metres and feet").click()
    expect(east).to_have_value("30.48 m")
