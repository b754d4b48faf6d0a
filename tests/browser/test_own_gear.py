"""The firm's own gear, typed from its sheet: refused at its field, kept, chosen in the plan."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from .conftest import Sheet

pytestmark = pytest.mark.browser


def test_a_switch_is_typed_from_its_sheet_and_put_into_the_rack(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("order")
    page.get_by_role("button", name="Gear", exact=True).click()
    page.get_by_role("button", name="Add it").click()
    form = page.get_by_test_id("gear-form")
    form.get_by_label("Name", exact=True).fill("Brindle 16 switch")
    form.get_by_label("Ports", exact=True).fill("16 x 1000 class 4, 2 x 10000 cage")
    form.get_by_label("Watts for its ports together").fill("0")
    form.get_by_role("button", name="Add it").click()
    expect(form.get_by_role("alert")).to_contain_text("nothing is behind them")
    form.get_by_label("Watts for its ports together").fill("240,5")
    form.get_by_role("button", name="Add it").click()
    row = page.locator("[data-gear=own-brindle-16-switch]")
    expect(row).to_contain_text("Brindle 16 switch")
    sheet.stage("power")
    page.get_by_label("Model of SW-1").click()
    page.get_by_role("option", name="Brindle 16 switch").click()
    expect(page.locator("[data-switch=sw-1]")).to_contain_text("240.5 W")
    sheet.saved(2)
    # One that a plan has is withdrawn, not taken away.
    sheet.stage("order")
    page.get_by_role("button", name="Gear", exact=True).click()
    expect(row).to_contain_text("in 1 plan")
    row.get_by_role("button", name="Take Brindle 16 switch away").click()
    expect(row).to_contain_text("no longer offered")
