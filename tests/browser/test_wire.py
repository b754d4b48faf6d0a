"""Mains on the drawing and racks as things, by hand: whole errands."""

from __future__ import annotations

from collections.abc import Callable

import pypdfium2
import pytest
from playwright.sync_api import Page, expect

from heathrise.core.design import Design
from heathrise.demo import watermill
from ops.serve import Server

from .conftest import Sheet, make_project

pytestmark = pytest.mark.browser


@pytest.fixture
def wired(server: Server, school: Design, open_sheet: Callable[..., Sheet]) -> Sheet:
    return open_sheet(f"/p/{make_project(server, school, 'Larkmere wired')}/plan")


def _near(page: Page, mark: str, notches: int = 12) -> None:
    """Come near to a mark, so that a press is meant to the decimetre."""
    box = page.locator(f"[data-mark={mark}]").bounding_box()
    assert box
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    for _ in range(notches):
        page.mouse.wheel(0, -120)
        page.wait_for_timeout(25)


def test_a_panel_is_drawn_and_a_rack_moved_out_of_its_way(wired: Sheet) -> None:
    sheet, page = wired, wired.page
    sheet.stage("plan")
    _near(page, "rack")
    x, y = sheet.middle_of("[data-mark=rack] .halo")
    page.keyboard.press("b")
    expect(page.get_by_text("what lies before it is kept clear")).to_be_visible()
    page.mouse.click(x, y + 0.3 * sheet.scale())  # the wall behind the rack, on the side it opens to
    sheet.saved(2)
    page.keyboard.press("v")
    expect(page.locator("[data-clear]")).to_have_count(2)  # the school has a panel of its own
    finding = page.locator("[data-finding=rack-panel-rack]")
    expect(finding).to_contain_text("stands in the clear space of Panel")
    finding.get_by_role("button", name="Move Store rack").click()
    sheet.saved(3)
    expect(finding).to_have_count(0)
    # Beside it, by hand: dragged back into the space the finding is there again.
    page.keyboard.press("Control+z")
    sheet.saved(4)
    expect(finding).to_have_count(1)


def test_a_socket_is_made_and_its_cable_counted(wired: Sheet) -> None:
    sheet, page = wired, wired.page
    _near(page, "socket-1", notches=5)
    page.mouse.click(*sheet.middle_of("[data-mark=socket-1] .halo"))
    expect(page.locator("[data-figure=mains]")).to_contain_text("m")
    page.get_by_role("button", name="Remove it").click()
    sheet.saved(2)
    x, y = sheet.middle_of("[data-mark=panel-1] .halo")
    page.keyboard.press("s")
    page.mouse.click(x - 8, y - 1.2 * sheet.scale())
    sheet.saved(3)
    page.get_by_label("State", exact=True).click()
    page.get_by_role("option", name="To be made, by an electrician").click()
    sheet.saved(4)
    sheet.stage("order")
    expect(page.get_by_text("Mains socket with its box")).to_be_visible()


def test_a_rack_is_arranged_dragged_and_printed(wired: Sheet) -> None:
    sheet, page = wired, wired.page
    sheet.stage("power")
    strip = page.locator("[data-thing='strip:1']")
    before = strip.get_attribute("aria-label")
    assert before is not None
    unit = int(before.rsplit(" ", 1)[1])
    x, y = sheet.middle_of("[data-thing='strip:1'] .face")
    one = sheet.box("[data-thing='strip:1'] .face")[3] + 1
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y - 2 * one, steps=6)
    page.mouse.up()
    sheet.saved(2)
    expect(strip).to_have_attribute("aria-label", before.replace(f"unit {unit}", f"unit {unit + 2}"))
    strip.focus()
    page.keyboard.press("ArrowDown")
    sheet.saved(3)
    expect(strip).to_have_attribute("aria-label", before.replace(f"unit {unit}", f"unit {unit + 1}"))
    expect(page.get_by_text("by hand").first).to_be_visible()
    page.get_by_role("button", name="Arrange by plan").click()
    sheet.saved(4)
    expect(strip).to_have_attribute("aria-label", before)
    page.get_by_label("Battery", exact=True).click()
    page.get_by_role("option", name="Staddle B6").click()
    sheet.saved(5)
    card = page.locator("[data-finding=rack-battery-rack]")
    expect(card).to_contain_text("minutes new")
    card.get_by_role("button", name="Take Staddle").first.click()
    sheet.saved(6)
    expect(card).to_have_count(0)
    with page.expect_download() as paper:
        page.locator("[data-print=racks_pdf]").first.click()
    text = "".join(p.get_textpage().get_text_bounded() for p in pypdfium2.PdfDocument(paper.value.path()))
    assert "Store rack" in text and "Power strip" in text and "yellow" in text


def test_places_for_a_rack_are_compared_and_one_is_taken(wired: Sheet) -> None:
    sheet, page = wired, wired.page
    sheet.stage("power")
    page.get_by_role("button", name="Compare places").click()
    rows = page.locator("[data-spot]")
    expect(rows.first).to_be_visible(timeout=30_000)
    expect(page.locator("[data-spot].here")).to_contain_text("it is here")
    page.get_by_role("button", name="Move Store rack to Instruments").click()
    sheet.saved(2)
    expect(page.get_by_test_id("rack-places")).to_have_count(0)
    expect(page.locator("[data-rack-figure=noise]")).to_contain_text("Instruments")


def test_a_run_too_long_is_mended_by_an_extender_and_its_chain_read(
    server: Server, open_sheet: Callable[..., Sheet]
) -> None:
    """The studio's access point, 190 m off: two extenders at a press, then what it gets from the line."""
    sheet = open_sheet(f"/p/{make_project(server, watermill(), 'Mill extended')}/cable")
    page = sheet.page
    sheet.tab("List")
    page.click("[data-run-row=ap-8]")
    sheet.tab("Reasons")
    card = page.locator("[data-finding=cable-length-ap-8]")
    card.get_by_role("button", name="Put in two of").first.click()
    sheet.saved(2)
    expect(page.locator("[data-extender]")).to_have_count(2)
    expect(page.locator("[data-figure=hop]")).to_have_count(3)
    expect(page.get_by_label("Piece by piece from the port on")).to_contain_text("Peltwick")
    page.get_by_role("button", name="Take the extender at 33 % away").click()
    sheet.saved(3)
    expect(card).to_have_count(1)
    page.keyboard.press("Control+z")
    sheet.saved(4)
    page.click("[data-stage=power]")
    expect(page.get_by_test_id("no-chain")).to_contain_text("no port yet")
    page.locator('[data-switch=sw-1] [data-port="1"]').click()
    chain = page.get_by_test_id("chain")
    expect(chain.locator(".binds")).to_have_count(1)
    expect(page.locator("[data-figure=chain]")).to_contain_text("narrowest")
    sheet.stage("order")
    expect(page.get_by_text("Peltwick E", exact=False).first).to_be_visible()
