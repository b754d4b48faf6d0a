"""A house with one old cable, from what is found to the switches that share it."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from playwright.sync_api import expect

from ..core.plans import one_cable_house
from .conftest import Sheet, make_project

pytestmark = pytest.mark.browser


def test_a_house_with_one_old_cable_is_planned(open_sheet: Callable[..., Sheet]) -> None:
    start = open_sheet("/")
    sheet = open_sheet(f"/p/{make_project(start.server, one_cable_house(cables=0), 'Rowan Cottage')}/plan")
    page = sheet.page
    # What lies there is noted from end to end, kept, and counts for what it tests at.
    sheet.stage("brief")
    page.get_by_role("button", name="On the sheet", exact=True).click()
    page.click("[data-part=found] .head")
    x, y = sheet.middle_of("[data-mark=rack] .halo")
    to_x, to_y = sheet.middle_of("[data-mark=router] .halo")
    page.click("[data-tool=old_cable]")
    page.mouse.move(x + 6, y + 6)
    page.mouse.down()
    page.mouse.move(to_x - 6, to_y + 6, steps=5)
    page.mouse.up()
    sheet.saved(2)
    found = page.locator("[data-found=cable-1]")
    expect(found).to_contain_text("test first")
    found.get_by_label("Speed that Cable 1 tests at").click()
    page.get_by_role("option", name="tests at 1 Gb/s").click()
    sheet.saved(3)
    expect(found).to_contain_text("keep: tests at 1 Gb/s")
    found.get_by_role("button", name="Keep", exact=True).click()
    sheet.saved(4)
    expect(found).to_contain_text("the run of Router")

    # One cable, three things: two switches, or the router where the line comes in.
    sheet.stage("cable")
    finding = page.locator("[data-finding=cable-shared-router]")
    expect(finding).to_contain_text("The line, the way back and television go between Rack and Router")
    before = float(sheet.totals("price").split()[0].replace(",", ""))
    finding.get_by_role("button", name="A switch that tells networks apart at Rack and Router shelf").click()
    sheet.saved(5)
    expect(finding).to_contain_text("425 Mb/s one way at the busiest of the 1 Gb/s")
    sheet.waits_for(lambda: float(sheet.totals("price").split()[0].replace(",", "")) > before + 200)

    # Each is set by itself, and the line is told for what is left of it.
    sheet.stage("settings")
    sheet.tab("Networks")
    expect(page.locator("[data-service=line]")).to_contain_text("VLAN 902: shares Cable 1")
    expect(page.locator("[data-service=television]")).to_contain_text("VLAN 903")
    # What lies in the wall comes off no box; the access point's two cables do.
    sheet.stage("order")
    sheet.tab("Cutting")
    cuts = page.get_by_test_id("cutting")
    expect(cuts).to_contain_text("Fewer boxes are not possible")
    expect(cuts.locator(".cut title")).to_have_text(["AP-1, cable 1: 18 m", "AP-1, cable 2: 18 m"])
    sheet.stage("brief")
    page.get_by_role("button", name="On the sheet", exact=True).click()
    page.click("[data-part=found] .head")
    expect(page.locator("[data-found=cable-1]")).to_contain_text("the way from Rack to Router shelf")
    page.locator("[data-found=cable-1]").get_by_label("Speed that Cable 1 tests at").click()
    page.get_by_role("option", name="tests at 100 Mb/s").click()
    sheet.saved(6)
    sheet.stage("cable")
    expect(finding).to_contain_text("The line gives a download 75 Mb/s at most")
