"""From plan to printed offer: lines that open, offers side by side, the firm's prices."""

from __future__ import annotations

import io
import re
from collections.abc import Callable
from pathlib import Path

import openpyxl
import pypdfium2
import pytest
from playwright.sync_api import Page, expect

from heathrise.core.design import Design, apply, put
from ops.serve import Server

from .conftest import Sheet, make_project

pytestmark = pytest.mark.browser


def _total(page: Page) -> float:
    return float(page.locator(".total .figure").inner_text().replace(",", ""))


def test_every_line_leads_to_where_it_comes_from(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("order")
    line = page.locator("[data-line=ravelmoor-c4]")
    expect(line).to_contain_text("3 × pack of 5")
    expect(line).to_contain_text("one more would cost")
    line.get_by_role("button").click()
    page.get_by_role("button", name="AP-6", exact=True).click()
    expect(page.locator(".inspector h2")).to_have_text("AP-6")
    assert page.url.endswith("/plan")

    sheet.stage("order")
    before = _total(page)
    page.keyboard.press("Escape")
    sheet.stage("plan")
    page.click("[data-mark=ap-7]")
    page.keyboard.press("Delete")
    sheet.saved(2)
    sheet.stage("order")
    expect(page.locator("[data-line=ravelmoor-c4] .number").first).to_have_text("15")
    assert _total(page) < before


def test_offers_side_by_side_are_taken_over_and_undone(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    points = sheet.totals("aps")
    sheet.stage("order")
    sheet.tab("Offers")
    page.click("[data-policy=first_only]")
    sheet.saved(2)
    expect(page.locator("[data-offer]")).to_have_count(2)
    figures = page.locator("[data-figure='Access points'] .figure")
    fewer = figures.nth(1).inner_text()
    assert int(fewer) < int(points) and sheet.totals("aps") == points
    page.get_by_role("button", name="Take it over").click()
    sheet.saved(3)
    expect(page.locator("[data-tally=aps] .value")).to_have_text(fewer)
    expect(page.locator("[data-offer]")).to_have_count(1)
    page.keyboard.press("Control+z")
    sheet.saved(4)
    expect(page.locator("[data-tally=aps] .value")).to_have_text(points)


def test_a_price_list_with_faults_is_offered_and_the_offer_printed(
    school_sheet: Sheet, tmp_path: Path
) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("order")
    before = _total(page)
    sheet.tab("Prices")
    prices = tmp_path / "prices.csv"
    prices.write_text("price;item\n0,10;label\nmany;jack\n", "utf-8")
    page.get_by_test_id("list-file").set_input_files(prices)
    expect(page.get_by_role("status").last).to_contain_text("Line 3: 'many' is no price")
    assert _total(page) == before
    page.get_by_role("button", name="Take those that could be read").click()
    expect(page.get_by_role("status").last).to_contain_text("1 prices taken")
    expect(page.locator(".total .figure")).not_to_have_text(f"{before:,.2f}")
    with page.expect_download() as printed:
        page.click("[data-print=quote_pdf]")
    document = pypdfium2.PdfDocument(io.BytesIO(Path(printed.value.path()).read_bytes()))
    text = re.sub(r"\s+", " ", " ".join(p.get_textpage().get_text_bounded() for p in document))
    assert f"{_total(page):,.2f}" in text and "Ravelmoor C4 ceiling" in text
    with page.expect_download() as book:
        page.get_by_text("Workbook").click()
    sheet_of = openpyxl.load_workbook(io.BytesIO(Path(book.value.path()).read_bytes()))["Sum"]
    assert sheet_of.cell(8, 2).value == pytest.approx(_total(page))


def test_the_firm_writes_its_papers_and_an_offer_over_the_budget_says_what_saves(
    server: Server, home: Design, open_sheet: Callable[..., Sheet]
) -> None:
    dear = apply(home, [put(home.site.model_copy(update={"budget": 500.0}))])
    project = make_project(server, dear, "Over budget")
    sheet = open_sheet(f"/p/{project}/order")
    page = sheet.page
    expect(page.locator("[data-stage=order]")).to_contain_text("over budget", timeout=20_000)
    before = _total(page)
    page.click("[data-savings]")
    saving = page.locator("[data-saving]").first
    expect(saving).to_be_visible(timeout=60_000)
    now = saving.locator("td").nth(1).inner_text()
    assert re.search(r"\d", now)
    saving.get_by_role("button", name="Do it").click()
    sheet.saved(2)
    expect(page.locator(".total .figure")).not_to_have_text(f"{before:,.2f}")
    assert _total(page) < before
    sheet.tab("Firm")
    page.get_by_label("Name of the firm").fill("Fellgate Networks")
    page.get_by_label("Name of the firm").press("Tab")
    page.get_by_label("Tax number").fill("XX 711 903")
    page.get_by_label("Tax number").press("Tab")
    expect(page.get_by_role("status").last).to_have_text("Saved.")
    page.reload()
    sheet.tab("Firm")
    expect(page.get_by_label("Tax number")).to_have_value("XX 711 903")
    sheet.tab("Parts")
    total = _total(page)
    with page.expect_download() as printed:
        page.click("[data-print=quote_pdf]")
    document = pypdfium2.PdfDocument(io.BytesIO(Path(printed.value.path()).read_bytes()))
    first = document[0].get_textpage().get_text_bounded()
    assert "Fellgate Networks" in first and "XX 711 903" in first
    text = re.sub(r"\s+", " ", " ".join(p.get_textpage().get_text_bounded() for p in document))
    assert f"{total:,.2f}" in text
