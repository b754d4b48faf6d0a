"""A place on the land: marked on the site, its line seen over ground and trees, cleared by higher masts."""

from __future__ import annotations

import re
from collections.abc import Callable

import pytest
from playwright.sync_api import expect

from .conftest import Sheet

pytestmark = pytest.mark.browser


def test_a_mast_is_raised_until_the_zone_is_clear(open_sheet: Callable[..., Sheet]) -> None:
    sheet = open_sheet("/p/p-demo-school/plan")
    page = sheet.page
    page.wait_for_selector("[data-tally=price]")
    revision = int(re.findall(r"\d+", page.get_by_test_id("save-state").inner_text())[-1])
    page.get_by_role("button", name="Site", exact=True).click()
    page.wait_for_selector("[data-testid=site] [data-building]")
    page.get_by_role("button", name="Far place").click()
    left, top, wide, high = sheet.box("[data-testid=site] svg.sheet")
    page.mouse.click(left + wide * 0.6, top + high * 0.2)
    sheet.saved(revision + 1)
    band = page.get_by_test_id("far-section")
    expect(band).to_contain_text("Clear")
    trees = page.get_by_label("Trees along the line")
    trees.fill("18 15 9")
    trees.press("Tab")
    expect(page.get_by_role("alert")).to_contain_text("from one distance to a larger one")
    trees.fill("12 tall 9")
    trees.press("Tab")
    expect(page.get_by_role("alert")).to_contain_text("“tall” is no number")
    trees.fill("12 18 9 0.2")
    trees.press("Tab")
    sheet.saved(revision + 2)
    expect(band).to_contain_text("Blocked")
    expect(band).to_contain_text("in 10 years trees stand")
    band.get_by_role("button", name="60 GHz").click()
    expect(band).to_contain_text("oxygen")
    band.get_by_role("button", name=re.compile("^Raise to")).click()
    sheet.saved(revision + 3)
    expect(band).to_contain_text("Clear")
    # A wider zone asks for more: what is clear at 60 GHz is not at 5.
    band.get_by_role("button", name="5 GHz", exact=True).click()
    expect(band).to_contain_text("Near the limit")
    mast = band.locator("[data-mast=mast_m]")
    before = float(mast.get_attribute("aria-valuenow") or 0)
    mast.focus()
    page.keyboard.press("ArrowUp")
    sheet.saved(revision + 4)
    assert float(mast.get_attribute("aria-valuenow") or 0) == pytest.approx(before + 0.5)
    page.get_by_role("button", name="Remove it").click()
    sheet.saved(revision + 5)
    expect(page.locator("[data-far]")).to_have_count(0)
