"""Guests in the browser: a page and vouchers planned, codes made and printed, the law asked about."""

from __future__ import annotations

import io
import re
from pathlib import Path

import pypdfium2
import pytest
from playwright.sync_api import expect

from .conftest import Sheet

pytestmark = pytest.mark.browser


def test_vouchers_are_planned_made_and_printed(school_sheet: Sheet, tmp_path: Path) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("settings")
    sheet.tab("Guests")
    way = page.locator(".way li")
    expect(way).to_have_count(4)
    expect(way.nth(0)).to_contain_text("Larkmere Visitors")
    expect(way.nth(3)).to_contain_text("6 hours or 1 week")
    page.get_by_role("button", name="Change Concert evening").click()
    hours = page.get_by_label("Hours", exact=True)
    hours.fill("5")
    hours.press("Tab")
    expect(way.nth(3)).to_contain_text("5 hours or 1 week")
    page.get_by_role("button", name="Make 40 codes for Concert evening").click()
    told = page.locator("[data-vouchers=vouchers-concert] [data-codes]")
    expect(told).to_contain_text("40 codes, made")
    with page.expect_download() as coming:
        page.get_by_role("button", name="Print slips of Concert evening").click()
    coming.value.save_as(tmp_path / "slips.pdf")
    paper = pypdfium2.PdfDocument(io.BytesIO((tmp_path / "slips.pdf").read_bytes()))
    text = " ".join(p.get_textpage().get_text_range() for p in paper)
    codes = set(re.findall(r"[A-Z3479]{4}-[A-Z3479]{4}", text))
    assert len(codes) == 40 and text.count("5 hours from the first use") == 40
    expect(told).to_contain_text("Printed")
    left = page.evaluate("() => JSON.stringify(localStorage) + document.body.innerText + location.href")
    assert not [c for c in codes if c in left or c.replace("-", "") in left]
    assert sheet.errors == []


def test_the_page_is_as_a_guest_sees_it_and_law_is_asked_until_it_is_answered(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("settings")
    sheet.tab("Guests")
    shown = page.get_by_role("figure", name="The page before Visitors, as a guest sees it")
    expect(shown).to_contain_text("Code of your voucher")
    page.get_by_label("Terms of Visitors").fill("Be kind.\nBe quiet.")
    page.get_by_label("Days for which it is kept who was on").fill("14")
    page.get_by_label("Days for which it is kept who was on").press("Tab")
    expect(shown.locator(".terms p")).to_have_count(2)
    finding = page.locator("[data-finding]").filter(has_text="do not say what is kept")
    finding.get_by_role("button", name="Have the terms say so").click()
    expect(shown.locator(".terms p")).to_have_count(3)
    expect(shown).to_contain_text("It is kept for 14 days")
    for question in ("who_was_on", "filter", "notice", "liable"):
        field = page.locator(f"[data-law={question}] input")
        field.fill("asked, see the file")
        field.press("Tab")
    expect(page.get_by_text("of what local law may ask")).to_have_count(0)
    expect(page.locator("[data-finding]").filter(has_text="Must it be kept")).to_have_count(0)
