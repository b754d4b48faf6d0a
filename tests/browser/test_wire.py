"""Mains on the drawing and racks as things, by hand: whole errands."""

from __future__ import annotations

from collections.abc import Callable

import pypdfium2
import pytest
from playwright.sync_api import expect

from heathrise.core.design import Design, Switch
from heathrise.demo import watermill
from ops.serve import Server

from ..core.plans import access_point, design_of, rack, shell
from .conftest import Sheet, make_project

pytestmark = pytest.mark.browser


@pytest.fixture
def wired(server: Server, school: Design, open_sheet: Callable[..., Sheet]) -> Sheet:
    return open_sheet(f"/p/{make_project(server, school, 'Larkmere wired')}/plan")


def _price(sheet: Sheet) -> float:
    return float(sheet.totals("price").split()[0].replace(",", ""))


def _near(sheet: Sheet, mark: str, notches: int = 12) -> None:
    """Come near to a mark, so that a press is meant to the decimetre."""
    sheet.page.mouse.move(*sheet.middle_of(f"[data-mark={mark}]"))
    for _ in range(notches):
        sheet.page.mouse.wheel(0, -120)
        sheet.page.wait_for_timeout(25)


def test_a_panel_is_drawn_and_a_rack_moved_out_of_its_way(wired: Sheet) -> None:
    sheet, page = wired, wired.page
    sheet.stage("plan")
    _near(sheet, "rack")
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
    _near(sheet, "socket-1", notches=5)
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


def test_a_run_too_long_is_mended_in_two_ways(server: Server, open_sheet: Callable[..., Sheet]) -> None:
    sheet = open_sheet(f"/p/{make_project(server, watermill(), 'Quernbeck too long')}/cable")
    page = sheet.page
    sheet.tab("List")
    page.click("[data-run-row=ap-8]")
    sheet.tab("Reasons")
    band = page.get_by_test_id("remedies")
    band.locator("[data-compare]").click()
    fibre = band.locator("[data-remedy^='Fibre to a switch']")
    expect(fibre).to_contain_text("a licensed electrician")
    expect(fibre).to_contain_text("1 Gb/s")
    assert band.locator("[data-remedy]").count() >= 3
    price = fibre.locator(".price").inner_text()
    before = _price(sheet)
    fibre.get_by_role("button", name="Take").click()
    sheet.saved(2)
    expect(band).to_have_count(0)  # the run does now
    assert _price(sheet) - before == pytest.approx(float(price.split()[0].replace(",", "")), abs=1.01)
    page.click("[aria-label=Undo]")
    sheet.saved(3)
    band.locator("[data-compare]").click()
    part_way = band.locator("[data-remedy^='Put in two of']")
    expect(part_way).to_contain_text("has no port")  # it says what it leaves undone
    part_way.get_by_role("button", name="Take").click()
    sheet.saved(4)
    expect(page.locator("[data-extender-mark]").first).to_be_attached()


def test_a_device_is_kept_at_a_port_and_another_plugged_in(
    server: Server, open_sheet: Callable[..., Sheet]
) -> None:
    sheet = open_sheet(f"/p/{make_project(server, watermill(), 'Quernbeck ports')}/power")
    page = sheet.page
    switch = page.locator("[data-switch=sw-1]")
    first = switch.locator("[data-port='1']")
    name = first.locator(".who").inner_text()
    first.click()
    switch.get_by_role("combobox", name=f"Port of {name}").click()
    page.get_by_role("option", name="port 3").click()
    sheet.saved(2)
    expect(switch.locator("[data-port='3']")).to_contain_text(name)
    expect(switch.locator("[data-port='3'] .pi-thumbtack")).to_be_visible()
    switch.get_by_role("button", name="Keep all ports of SW-1 as they are").click()
    sheet.saved(3)
    switch.get_by_role("button", name="Leave all ports of SW-1 to the plan").click()
    sheet.saved(4)
    expect(switch.locator(".port .pi-thumbtack")).to_have_count(0)
    # The way to the line goes into the port that it is dragged to.
    way = switch.locator(".port.uplink").first
    way.drag_to(switch.locator("[data-port='6']"))
    sheet.saved(5)
    expect(switch.locator("[data-port='6'].uplink .pi-thumbtack")).to_be_visible()
    # Without dragging too: pressed, and sent to another port by its list.
    switch.locator("[data-port='6']").click()
    switch.get_by_role("combobox", name="Port of the way").click()
    page.get_by_role("option", name="port 7").click()
    sheet.saved(6)
    expect(switch.locator("[data-port='7'].uplink .pi-thumbtack")).to_be_visible()

    sheet.stage("plan")
    page.get_by_label("Floor", exact=True).click()
    page.get_by_role("option", name="Stone floor", exact=True).click()
    page.locator("[data-mark=study-files]").click()
    plug = page.locator("[data-figure=plug]")
    expect(plug).to_contain_text("Study plate port 1")
    sheet.stage("cable")
    page.get_by_role("combobox", name="Begins").click()
    page.get_by_role("option", name="at a rack, by plan").click()
    sheet.saved(7)
    expect(page.locator("[data-figure=run]")).to_be_visible()
    page.get_by_role("combobox", name="Begins").click()
    page.get_by_role("option", name="no run: plugged into Study plate").click()
    sheet.saved(8)
    expect(plug).to_contain_text("Study plate port 1")


def test_the_narrowest_link_of_a_room_is_found_and_widened(
    server: Server, open_sheet: Callable[..., Sheet]
) -> None:
    switch = Switch(id="sw-1", equipment_room="rack", name="SW-1", model="dunthrip-s8")
    hut = design_of(*shell(), rack(1, 1), access_point(9, 9), switch)
    sheet = open_sheet(f"/p/{make_project(server, hut, 'Hut chain')}/signal")
    page = sheet.page
    sheet.tab("List")
    page.locator("tbody tr", has_text="Room").first.click()
    sheet.tab("Reasons")
    chain = page.get_by_test_id("chain")
    expect(chain.get_by_role("heading")).to_have_text("From the line to Room")
    expect(chain.locator("[data-link=air]")).to_contain_text("worst spot of Room")
    port = chain.locator("[data-link=port] .figure")
    expect(port).to_have_text("1 Gb/s")
    sheet.stage("power")
    page.get_by_role("combobox", name="Model of SW-1").click()
    page.get_by_role("option", name="Dunthrip M24 multi-speed switch").click()
    sheet.saved(2)
    sheet.stage("signal")
    expect(port).to_have_text("2.5 Gb/s")


def test_a_run_is_led_by_a_point_and_told_leg_by_leg(
    server: Server, school: Design, open_sheet: Callable[..., Sheet]
) -> None:
    sheet = open_sheet(f"/p/{make_project(server, school, 'Larkmere led')}/cable")
    page = sheet.page
    expect(page.locator("[data-ribbon]").first).to_be_attached()
    sheet.tab("List")
    page.click("[data-run-row=ap-3]")
    sheet.tab("Reasons")
    way = page.get_by_test_id("way")
    total = way.locator("tfoot .figure").first
    before = float(total.inner_text().split()[0])
    way.locator("[data-lead]").click()
    sheet.saved(2)
    x, y = sheet.middle_of("[data-way-point]")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - 20, y - 20, steps=3)
    page.mouse.move(x - 10, y - 16.5 * sheet.scale(), steps=5)
    page.mouse.up()
    sheet.saved(3)
    expect(total).not_to_have_text(f"{before:.1f} m")
    assert float(total.inner_text().split()[0]) > before - 0.2
    expect(way.locator("[data-leg]").first).to_contain_text("up from the rack")
    way.get_by_role("button", name="Let go of the point").click()
    sheet.saved(4)
    expect(total).to_have_text(f"{before:.1f} m")


def test_switches_are_chosen_for_all_racks(server: Server, open_sheet: Callable[..., Sheet]) -> None:
    sheet = open_sheet(f"/p/{make_project(server, watermill(), 'Quernbeck switches')}/power")
    page = sheet.page
    page.get_by_role("button", name="Choose switches for all racks").click()
    band = page.get_by_test_id("switches")
    today = band.locator("[data-choice='For today']")
    expect(today).to_contain_text("proven cheapest", timeout=40_000)
    expect(band.locator("[data-choice='As planned'] .not_met")).to_be_visible()  # links without a port
    before = _price(sheet)
    extra = today.locator("dd").nth(1).inner_text()
    today.get_by_role("button", name="Take the switches: For today").click()
    sheet.saved(2)
    said = float(extra.split()[0].lstrip("+\u2212").replace(",", ""))
    assert _price(sheet) - before == pytest.approx(said, abs=1.01)
    expect(page.locator("[data-finding=power-left-rack]")).to_have_count(0)


def test_a_box_part_way_feeds_a_camera_by_a_run_of_its_own(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    page.click("[data-tool=relay]")
    sheet.press_in("[data-space=ground-hall]", 0.5, 0.6)
    sheet.saved(2)
    page.keyboard.press("v")
    sheet.stage("cable")
    page.get_by_role("button", name="List", exact=True).click()
    page.locator("[data-run-row=cam-1]").click()
    page.get_by_role("button", name="Reasons", exact=True).click()
    page.get_by_role("combobox", name="Begins").click()
    page.get_by_role("option", name="at EXT-1").click()
    sheet.saved(3)
    expect(page.locator("dl.figures")).to_contain_text("EXT-1 port 1")
    expect(page.locator("[data-figure=reason]")).to_contain_text("Will do")


def test_a_run_is_pulled_in_fibre_with_a_converter_at_its_end(
    server: Server, open_sheet: Callable[..., Sheet]
) -> None:
    """The studio's access point again: fibre by its own choice, then its ends in the rack and the order."""
    project = make_project(server, watermill(), "Mill lit")
    sheet = open_sheet(f"/p/{project}/cable")
    page = sheet.page
    sheet.tab("List")
    page.click("[data-run-row=ap-8]")
    sheet.tab("Reasons")
    page.get_by_label("Cable", exact=True).click()
    page.get_by_role("option", name="fibre, a converter at its end").click()
    sheet.saved(2)
    expect(page.locator("[data-finding=cable-length-ap-8]")).to_have_count(0)
    expect(page.locator("[data-figure=loss]")).to_contain_text("dB")
    expect(page.locator("[data-figure=reason]")).to_contain_text("Never look into a fibre")
    sheet.stage("power")
    page.get_by_role("button", name="Put Dunthrip S16").first.click()
    sheet.saved(3)
    expect(page.get_by_text("Converter of AP-8", exact=True)).to_be_visible()
    expect(page.get_by_text("F1", exact=True)).to_be_visible()
    sheet.stage("order")
    expect(page.get_by_text("Media converter with a cage, 10 Gb/s").first).to_be_visible()
    expect(page.get_by_text("Splice box for a wall").first).to_be_visible()
