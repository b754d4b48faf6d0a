"""The network drawn: a weak link found in it and mended, a guest's socket followed, what dies with a switch."""

from __future__ import annotations

import re
from collections.abc import Callable

import pypdfium2
import pytest
from playwright.sync_api import expect

from heathrise.demo import veterinary_practice

from .conftest import Server, Sheet, make_project

pytestmark = pytest.mark.browser


def test_a_weak_link_is_found_in_the_diagram_and_mended(
    server: Server, open_sheet: Callable[..., Sheet]
) -> None:
    sheet = open_sheet(f"/p/{make_project(server, veterinary_practice())}/diagram")
    page = sheet.page
    expect(page.locator("[data-shape]")).to_contain_text("A tree over 4 racks, 4 switches deep")
    page.locator("[data-card=sw-3] .face").click()
    dark = page.locator("[data-dark]")
    expect(dark).to_contain_text("Without it 10 things go dark: SW-4, SW-5")
    expect(page.locator(".card.dark")).to_have_count(10)
    finding = page.locator("[data-finding=settings-unmanaged-sw-3]")
    expect(finding).to_contain_text("SW-3 is unmanaged and cannot carry")
    sheet.tab("Networks")
    says = page.locator("[data-card=sw-3] small")
    expect(says).to_contain_text("tells no networks apart")
    finding.locator("[data-cure]").first.click()
    sheet.saved(2)
    expect(finding).to_have_count(0)
    expect(says).to_contain_text("with all others")


def test_a_guest_s_socket_is_followed_to_the_line_and_a_switch_pressed(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("settings")
    page.locator("[data-finding^=settings-stray]").get_by_role("button", name="in its place, SW-2").click()
    sheet.saved(2)
    page.locator("[data-host='socket:out-5:1']").click()
    page.get_by_label("Network of Library desk.1", exact=True).click()
    page.get_by_role("option", name="Visitors", exact=True).click()
    sheet.saved(3)
    sheet.stage("diagram")
    sheet.tab("Networks")
    card = page.locator("[data-card=out-5]")
    expect(card.locator("small")).to_have_text("Visitors")
    card.locator(".face").click()
    expect(page.locator("[data-chain]")).to_contain_text("is the narrowest")
    expect(page.locator(".card.binds .narrowest")).to_have_count(1)
    on_the_way = [t.removesuffix(" narrowest") for t in page.locator(".card.path b").all_inner_texts()]
    assert on_the_way[:2] == ["The line", "SW-1"] and on_the_way[-1] == "Library desk"
    # A packet from it is followed in the picture.
    goal = page.get_by_label("Packet from it to")
    goal.click()
    page.get_by_role("option", name="the internet", exact=True).click()
    says = page.locator("[data-packet-says]")
    expect(says).to_contain_text("It passes")
    expect(card).to_have_class(re.compile("passed"))
    goal.click()
    page.get_by_role("option", name="Control desk.1", exact=True).click()
    expect(says).to_contain_text("It stops: Visitors may not open a connection to Staff")
    expect(page.locator(".card.stopped")).to_have_count(1)
    # The same is chosen on the sheet, and the other way round.
    sheet.stage("cable")
    expect(page.locator(".side [data-testid=inspector], .side")).to_contain_text("Library desk")
    sheet.stage("diagram")
    # What is alike is one card until somebody opens it, or chooses one of it.
    fold = page.locator(".card.fold", has_text="access points").first
    expect(fold).to_be_visible()
    fold.locator(".fold-mark").click()
    expect(page.locator("[data-card=ap-1]")).to_be_visible()
    page.locator("[data-card=sw-1] .fold-mark").click()
    expect(page.locator("[data-card=sw-2]")).to_have_count(0)
    expect(page.locator("[data-card=sw-1] .fold-mark")).to_contain_text("+")
    page.locator("[data-card=sw-1] .fold-mark").click()
    page.locator("[data-card=sw-2] .face").click()
    expect(page.locator("[data-dark]")).to_contain_text("things go dark")
    page.locator("[data-drill]").click()
    expect(page.locator("[data-drilled]")).to_contain_text("without it", timeout=60_000)


def test_the_tree_is_walked_by_keys(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("diagram")
    sheet.tab("List")
    tree = page.get_by_role("tree")
    expect(tree.get_by_role("treeitem").first).to_contain_text("The line")
    tree.get_by_role("treeitem").first.focus()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(page.locator("[data-card=sw-1]")).to_have_class(re.compile("chosen"))
    page.keyboard.press("ArrowRight")
    expect(page.locator("[data-tree=sw-2]")).to_be_focused()
    page.keyboard.press("ArrowLeft")
    expect(page.locator("[data-tree=sw-1]")).to_be_focused()


def test_it_is_printed_for_the_rack_s_door(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("power")
    finding = page.locator("[data-finding]", has=page.locator("[data-in-diagram]")).first
    finding.locator("[data-in-diagram]").click()
    expect(page.locator("[data-testid=diagram] .chosen")).to_have_count(1)
    page.locator("[data-card=sw-1] .face").click()
    with page.expect_download() as door:
        page.get_by_role("button", name="For its rack’s door").click()
    with open(door.value.path(), "rb") as file:
        text = pypdfium2.PdfDocument(file.read())[0].get_textpage().get_text_range()
    assert "cables" in text and "SW-2" in text
    page.locator("[data-on-sheet]").click()
    expect(page).to_have_url(re.compile("/power$"))
