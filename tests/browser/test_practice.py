"""Practice profiles: another one is looked at, its effect seen, taken; one matter goes another way here."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from .conftest import Sheet

pytestmark = pytest.mark.browser


def test_a_profile_is_looked_at_taken_and_undone(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("settings")
    sheet.tab("Practice")
    width = page.locator("[data-matter=width]")
    expect(width.locator("[data-school='40']")).to_have_attribute("aria-pressed", "true")
    page.get_by_role("combobox", name="Another profile").click()
    page.get_by_role("option", name="Left to the controller").click()
    effects = page.locator("[data-effects]")
    expect(effects).to_contain_text("looks every 307 ms", timeout=90_000)
    expect(effects).to_contain_text("looks every 102 ms")
    expect(effects.locator("tr", has_text="Price with tax").locator("td.met")).to_be_visible()
    expect(page.locator(".altered")).to_contain_text("channel")
    page.locator("[data-take]").click()
    sheet.saved(2)
    expect(width.locator("[data-school='80']")).to_have_attribute("aria-pressed", "true")
    expect(page.locator(".practice .head")).to_contain_text("Left to the controller")
    # One matter goes another way on this site; it is told that somebody chose so.
    width.locator("[data-school='40']").click()
    sheet.saved(3)
    expect(page.locator(".practice .head")).to_contain_text("1 chosen for this project")
    expect(width).to_have_class(re.compile("own"))
    sheet.tab("Every setting")
    expect(page.locator("[data-target=site] tr", has_text="optimiser").first).to_contain_text("profile")
    page.locator("[data-whose=person]").click()
    expect(page.locator("[data-target^='device/ap-']").first).to_contain_text("a person")
    page.get_by_label("Look for a setting").fill("width")
    expect(page.locator("[data-target=site]")).to_have_count(0)
    sheet.tab("Practice")
    page.get_by_label("Name of the profile").fill("Quiet schools")
    page.get_by_role("button", name="Keep", exact=True).click()
    page.get_by_role("combobox", name="Another profile").click()
    page.get_by_role("option", name="Quiet schools").click()
    expect(page.get_by_text("It goes about everything as this job does", exact=False)).to_have_count(0)
    expect(page.locator("[data-take]")).to_have_text("Go by Quiet schools", timeout=90_000)
    page.get_by_role("button", name="Take Quiet schools away").click()


def test_fast_transition_by_hand_is_given_back_to_the_profile(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("settings")
    sheet.tab("Wireless names")
    box = page.get_by_label("Fast transition on Larkmere Staff", exact=True)
    expect(box).to_be_checked()
    box.click()
    sheet.saved(2)
    expect(box).not_to_be_checked()
    page.get_by_label("fast transition on Larkmere Staff goes by the profile again").click()
    sheet.saved(3)
    expect(box).to_be_checked()
