"""Networks by hand: who belongs where, who reaches whom, a packet on its way."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from .conftest import Sheet

pytestmark = pytest.mark.browser


def _choose(sheet: Sheet, label: str, option: str) -> None:
    sheet.page.get_by_label(label, exact=True).click()
    sheet.page.get_by_role("option", name=option, exact=True).click()


def test_a_socket_is_put_on_the_guests_network_and_walked(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("settings")
    # A switch that tells networks apart, so that what is chosen is what is got.
    stray = page.locator("[data-finding^=settings-stray]")
    expect(stray).to_contain_text("land on Staff, as SW-2 tells no networks apart")
    stray.get_by_role("button", name="in its place, SW-2").click()
    sheet.saved(2)
    expect(stray).to_have_count(0)
    page.locator("[data-host='socket:out-5:2']").click()
    belongs = page.get_by_test_id("belongs")
    expect(belongs).to_contain_text("Library: pupils by the kind of site")
    _choose(sheet, "Network of Library desk.2", "Visitors")
    sheet.saved(3)
    expect(page.locator(".lane.guest [data-host='socket:out-5:2']")).to_have_text("Library desk.2")
    sheet.tab("Who reaches whom")
    _choose(sheet, "Packet from", "Library desk.2")
    says = page.locator("[data-packet-says]")
    expect(says).to_contain_text("It passes")
    _choose(sheet, "Packet to", "Library desk.1")
    expect(says).to_contain_text("It stops: Visitors may not open a connection to Pupils")
    expect(page.locator(".hops .stop")).to_have_count(1)
    expect(page.locator("[data-layer=packet] path").first).to_be_attached()
    # Every cable in the colour of its network, as the lanes have it.
    tones = page.locator("[data-layer=lanes] path").evaluate_all("rows => rows.map((r) => r.style.stroke)")
    assert {"var(--heather)", "var(--tarn)"} <= set(tones)
    # Let in by hand it passes, which is told at once; taken back it does not.
    cell = page.locator("[data-reach='net-guest/net-pupils']")
    cell.click()
    sheet.saved(4)
    expect(says).to_contain_text("It passes")
    expect(page.locator("[data-finding=settings-guest-net-guest]")).to_be_visible()
    cell.click()
    sheet.saved(5)
    expect(says).to_contain_text("It stops")


def test_a_spare_port_is_made_a_guest_s_and_a_name_kept_to_some_access_points(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("settings")
    page.locator("[data-finding^=settings-stray]").get_by_role("button", name="in its place, SW-2").click()
    sheet.saved(2)
    page.get_by_test_id("guest-port").click()
    sheet.saved(3)
    expect(page.locator(".lane.guest .chip.hand")).to_contain_text("port")
    sheet.tab("Switch ports")
    expect(page.locator("main")).to_contain_text("Visitors, by hand")
    sheet.tab("Wireless names")
    page.locator("[data-name=ssid-guest] .why").click()
    more = page.get_by_test_id("name-more")
    more.locator(".points").click()
    page.get_by_role("option", name="AP-1", exact=True).click()
    sheet.saved(4)
    page.keyboard.press("Escape")
    expect(more).to_contain_text("1 access points")
    _choose(sheet, "Limit of Larkmere Visitors", "5 Mb/s")
    sheet.saved(5)
    # What is given out, and what all of it together gets of the line.
    sheet.tab("Networks")
    first = page.get_by_label("First address that Visitors gives out")
    expect(first).to_have_value("21")
    first.fill("250")
    first.press("Tab")
    sheet.saved(6)
    expect(page.locator("[data-finding=settings-size-net-guest]")).to_contain_text("gives out 5 addresses")
    first.fill("")
    first.press("Tab")
    sheet.saved(7)
    expect(page.locator("[data-finding=settings-size-net-guest]")).to_have_count(0)
    most = page.get_by_label("What all of Visitors together gets at most, Mb/s")
    most.fill("1")
    most.press("Tab")
    sheet.saved(8)
    expect(page.locator("[data-finding=settings-limit-net-guest]")).to_contain_text(
        "1 Mb/s for all of it together"
    )
