"""A figure of the trade, seen differently by the firm and by a project, in what it decides."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from .conftest import Sheet

pytestmark = pytest.mark.browser
DUCT = "cabling.space_c.duct"


def test_the_firms_figure_and_the_projects_are_seen_in_a_finding(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("cable")
    card = page.locator("[data-finding=cable-length-ap-15]")
    expect(card).to_contain_text("88.2 m of 90 m")
    card.get_by_role("button", name="Rule").click()
    page.click(f"[data-used='{DUCT}']")
    field = page.get_by_label("Temperature planned for a kind of space: duct", exact=True)

    page.get_by_role("button", name="The firm", exact=True).click()
    field.fill("40")
    field.press("Enter")
    expect(page.locator(f"[data-figure='{DUCT}']")).to_contain_text("the firm's; shipped 15 °C")
    expect(card).to_contain_text("too long for 2.5 Gb/s on category 6: 88.2 m of 84 m")
    expect(card).to_contain_text("the firm's 40")

    page.get_by_role("button", name="This project").click()
    field.fill("30")
    field.press("Enter")
    sheet.saved(2)
    expect(card).to_contain_text("of 87 m (30")
    page.get_by_label("Give back Temperature planned for a kind of space: duct").click()
    sheet.saved(3)
    expect(card).to_contain_text("of 84 m")

    page.get_by_role("button", name="The firm", exact=True).click()
    page.get_by_label("Give back Temperature planned for a kind of space: duct").click()
    expect(card).to_contain_text("88.2 m of 90 m")
