"""A place on the land: marked on the site, its line seen over ground and trees, cleared by higher masts."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path

import pypdfium2
import pytest
from playwright.sync_api import Page, expect

from .conftest import Sheet

pytestmark = pytest.mark.browser


def farm(open_sheet: Callable[..., Sheet]) -> tuple[Sheet, int]:
    """The farm's land from above, and the revision that it is at."""
    sheet = open_sheet("/p/p-demo-farm/plan")
    sheet.page.wait_for_selector("[data-tally=price]")
    revision = int(re.findall(r"\d+", sheet.page.get_by_test_id("save-state").inner_text())[-1])
    sheet.page.get_by_role("button", name="Site", exact=True).click()
    return sheet, revision


def printed_site(page: Page) -> str:
    """The words of the site's sheet as it is printed, without spaces."""
    page.click("[data-stage=handover]")
    page.get_by_role("button", name="Papers", exact=True).click()
    page.get_by_label("Which storeys").click()
    page.get_by_role("option", name="site", exact=True).click()
    with page.expect_download() as printed:
        page.locator("[data-print=sheets_pdf]").click()
    document = pypdfium2.PdfDocument(printed.value.path())
    assert len(document) == 1
    return re.sub(r"\s+", "", document[0].get_textpage().get_text_bounded())


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


def test_a_landing_stage_is_reached_in_three_ways_and_one_is_taken(open_sheet: Callable[..., Sheet]) -> None:
    sheet = open_sheet("/p/p-demo-mill/plan")
    page = sheet.page
    page.wait_for_selector("[data-tally=price]")
    revision = int(re.findall(r"\d+", page.get_by_test_id("save-state").inner_text())[-1])
    price = page.locator("[data-tally=price]")
    before = re.findall(r"[\d,]+ EUR", price.inner_text())[0]
    page.get_by_role("button", name="Site", exact=True).click()
    page.wait_for_selector("[data-testid=site] [data-building]")
    page.locator("[data-far=far-stage]").dispatch_event("click")
    page.locator("[data-all-ways]").click()
    board, card = page.get_by_test_id("far-ways"), page.get_by_test_id("far-way")
    # Over the air, by a radio's line and by satellite; cable is ruled out by the water, and says so.
    for way, words in (
        ("mesh-solar", "its node hears the house"),
        ("radio_5-solar", "dBm in the worst rain"),
        ("satellite-solar", "trees|open sky|panels"),
    ):
        board.locator(f"[data-way={way}]").click()
        expect(card).to_contain_text(re.compile(words))
        expect(card).to_contain_text("without any it is dark after")
    page.get_by_text(re.compile(r"^\d+ ruled out$")).click()
    expect(board.locator("[data-way=fibre-cable]")).to_contain_text("water lies between")
    # Sorted by what they cost over the years the cheapest comes first.
    board.get_by_role("button", name=re.compile("^Over \\d+ years$")).click()
    sums = [int(t.replace(",", "")) for t in board.locator(".cost b").all_inner_texts()]
    assert sums == sorted(sums) and len(sums) >= 4
    board.locator("[data-way=radio_5-solar]").click()
    card.locator("[data-take]").click()
    sheet.saved(revision + 1)
    expect(board.locator("[data-way=radio_5-solar]")).to_contain_text("taken")
    expect(price).not_to_contain_text(before)
    page.click("[data-stage=install]")
    expect(page.get_by_text("Landing stage: aim both ends").first).to_be_visible()
    page.keyboard.press("Control+z")
    sheet.saved(revision + 2)
    expect(price).to_contain_text(before)


def test_the_studio_is_reached_in_three_ways_and_the_one_taken_is_printed(
    open_sheet: Callable[..., Sheet],
) -> None:
    sheet = open_sheet("/p/p-demo-mill/plan")
    page = sheet.page
    page.wait_for_selector("[data-tally=price]")
    revision = int(re.findall(r"\d+", page.get_by_test_id("save-state").inner_text())[-1])
    page.get_by_role("button", name="Site", exact=True).click()
    page.wait_for_selector("[data-testid=site] [data-building]")
    page.locator("[data-far=far-studio]").dispatch_event("click")
    page.locator("[data-all-ways]").click()
    board, card = page.get_by_test_id("far-ways"), page.get_by_test_id("far-way")
    for way, words in (
        ("fibre-mains", "a port of 1 Gb/s"),
        ("radio_5-mains", "dBm in the worst rain"),
        ("power_line-mains", "which panel its socket hangs on"),
    ):
        board.locator(f"[data-way={way}]").click()
        expect(card).to_contain_text(words)
    # No port is left that feeds a radio: an injector does.
    board.locator("[data-way=radio_5-mains]").click()
    card.locator("[data-inject]").click()
    sheet.saved(revision + 1)
    expect(card.locator("[data-inject]")).to_have_count(0)
    expect(card).to_contain_text("a socket at the rack for its injector")
    board.locator("[data-way=fibre-mains]").click()
    card.locator("[data-take]").click()
    sheet.saved(revision + 2)
    expect(page.locator("[data-far-way=far-studio].ground")).to_have_count(1)
    text = printed_site(page)
    assert "Fibre,powerthere" in text and "Orchardduct" in text and "Studio" in text
    for k in range(2):
        page.get_by_role("button", name="Undo").click()
        sheet.saved(revision + 3 + k)


def test_a_feed_is_mended_by_gauge_then_boost_and_a_field_is_seen_as_cells_and_as_mesh(
    open_sheet: Callable[..., Sheet],
) -> None:
    sheet, revision = farm(open_sheet)
    page = sheet.page
    land = page.get_by_test_id("far-land")
    expect(land.get_by_text("reaches every place")).to_have_count(2)
    expect(land.locator("tbody tr")).to_have_count(6)
    sums = [int(t.split(" ")[0].replace(",", "")) for t in land.locator(".both .figure").all_inner_texts()]
    rows = land.locator("tbody tr").all()
    for column, total in ((3, sums[0]), (6, sums[1])):
        cells = [int(r.locator("td").nth(column).inner_text().replace(",", "")) for r in rows]
        assert sum(cells) == pytest.approx(total, abs=len(cells)), "the sum is that of its rows"
    # To the mast: one camera over a thin pair; more of them want a thicker one, then boost, then nothing does.
    land.get_by_role("button", name="Weather mast", exact=True).click()
    page.locator("[data-all-ways]").click()
    page.get_by_test_id("far-ways").locator("[data-way=fibre-cable]").click()
    card = page.get_by_test_id("far-way")
    told = []
    for k, cameras in enumerate((2, 5, 12, 60), start=1):
        field = page.get_by_label("Cameras", exact=True)
        field.fill(str(cameras))
        field.press("Tab")
        sheet.saved(revision + k)
        draws = cameras * 8 + 5
        expect(page.get_by_test_id("far-ways")).to_contain_text(f"draws {draws} W")
        told.append(card.locator(".checks").inner_text())
    gauges = [float(m.group(1)) for t in told if (m := re.search(r"over ([\d.]+) mm²", t))]
    assert len(gauges) >= 2 and gauges == sorted(gauges) and gauges[0] < gauges[-1]
    assert any("gives up at 20" in t for t in told), "boost saves it"
    assert "even on the thickest conductor with boost" in told[-1] and "out there, or power there" in told[-1]
    for k in range(4):
        page.get_by_role("button", name="Undo").click()
        sheet.saved(revision + 5 + k)


def test_a_gate_on_solar_goes_dark_in_a_grey_december_and_is_mended(open_sheet: Callable[..., Sheet]) -> None:
    sheet, revision = farm(open_sheet)
    page = sheet.page
    page.get_by_test_id("far-land").get_by_role("button", name="Drive gate", exact=True).first.click()
    page.locator("[data-all-ways]").click()
    page.get_by_test_id("far-ways").locator("[data-way=extender-solar]").click()
    card = page.get_by_test_id("far-way")
    expect(card).to_contain_text("Stays up through")
    # Its sun month by month, as a table of the place has it: December is the worst.
    card.locator("[data-sun-table]").click()
    typed = card.locator("[data-sun-typed]")
    typed.fill("0.8 1.4 2.4")
    card.get_by_role("button", name="Go by it").click()
    expect(card.get_by_role("alert")).to_contain_text("Twelve numbers from 0 to 12 are wanted")
    typed.fill("0,8 1,4 2,4 3,6 4,6 4,9 4,8 4,2 3 1,8 1 0,7")
    card.get_by_role("button", name="Go by it").click()
    sheet.saved(revision + 1)
    expect(card).to_contain_text("0.7 h of sun a day in December")
    expect(card.get_by_label("Hours of sun by month, least in December")).to_be_visible()
    edits = 1
    while "Dark after" not in card.inner_text():
        edits += 1
        assert edits < 25, "a spell long enough leaves it dark"
        card.locator("[data-grey-more]").click()
        sheet.saved(revision + edits)
        expect(card).to_contain_text(re.compile(rf"spell of {edits + 4} days"))
    expect(card.locator(".checks")).to_contain_text("leaves it dark after")
    wanted = int(re.findall(r"batteries for (\d+) days of cloud", card.inner_text())[0])
    before = card.locator("dl").inner_text()
    for days in range(5, wanted + 1):
        card.locator("[data-cloud-more]").click()
        edits += 1
        sheet.saved(revision + edits)
        expect(card).to_contain_text(f"Batteries for {days} days of cloud")
    expect(card).to_contain_text("Stays up through")
    assert card.locator("dl").inner_text() != before, "the mended one has another price"
    for k in range(edits):
        page.get_by_role("button", name="Undo").click()
        sheet.saved(revision + edits + k + 1)
    expect(card).to_contain_text("1 h of sun a day in the worst month")


def test_all_places_hang_on_one_feed_and_a_line_is_set_where_it_is_taken(
    open_sheet: Callable[..., Sheet],
) -> None:
    sheet, revision = farm(open_sheet)
    page = sheet.page
    feed = page.get_by_test_id("far-feed")
    expect(feed).to_contain_text("One feed to 6 places")
    volts = [
        float(v) for v in re.findall(r"([\d.]+) V", " ".join(feed.locator(".place text").all_text_contents()))
    ]
    assert len(volts) == 6 and all(20 < v < 54 for v in volts)
    feed.locator("[data-draw-feed]").click()
    expect(page.locator("[data-branch]")).to_have_count(6)
    feed.get_by_label(re.compile("^High fold")).click()
    page.locator("[data-all-ways]").click()
    page.get_by_test_id("far-ways").locator("[data-way=radio_5-solar]").click()
    card = page.get_by_test_id("far-way")
    expect(card.locator("[data-line-level]")).to_be_visible()
    told = card.locator("[data-line-channel]").inner_text()
    assert "kept out of the plan's air" in told
    card.locator("[data-take]").click()
    sheet.saved(revision + 1)
    # It asks for a port with watts at the rack, which the farm's own switch has not left.
    page.goto(re.sub("/plan.*", "/power", page.url))
    expect(page.get_by_role("button", name=re.compile("Not met Without a port: High fold"))).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    sheet.saved(revision + 2)


def test_trees_are_drawn_across_a_line_and_dug_land_is_printed(open_sheet: Callable[..., Sheet]) -> None:
    sheet, revision = farm(open_sheet)
    page = sheet.page
    page.wait_for_selector("[data-testid=site] [data-building]")
    land = page.get_by_test_id("far-land")
    expect(land).to_contain_text("together")

    def middle(selector: str) -> tuple[float, float]:
        left, top, wide, high = sheet.box(selector)
        return left + wide / 2, top + high / 2

    house, mast = middle("[data-building]"), middle("[data-far=far-mast] .post")
    x, y = (house[0] + mast[0]) / 2, (house[1] + mast[1]) / 2
    page.get_by_role("button", name="Trees", exact=True).click()
    for dx, dy in ((-30, 12), (30, 12), (30, -12), (-30, -12)):
        page.mouse.click(x + dx, y + dy)
    page.keyboard.press("Enter")
    sheet.saved(revision + 1)
    expect(page.locator("[data-grove]")).to_have_count(2)
    corner = page.get_by_role("button", name=re.compile("^Corner 1 of Trees"))
    corner.focus()
    page.keyboard.press("ArrowDown")
    sheet.saved(revision + 2)
    height = page.get_by_label("Height of the trees")
    expect(height).to_be_visible()
    height.fill("25")
    height.press("Tab")
    sheet.saved(revision + 3)
    page.locator("[data-far=far-mast]").dispatch_event("click")
    band = page.get_by_test_id("far-section")
    expect(band).to_contain_text("Blocked")
    expect(band).to_contain_text("in 10 years trees stand")
    expect(band).to_contain_text(re.compile(r"[\d.]+ leaves"))
    # A way that is taken is drawn as it is dug, and stands on the sheet of the site.
    page.locator("[data-far=far-gate]").dispatch_event("click")
    page.locator("[data-all-ways]").click()
    page.get_by_test_id("far-ways").locator("[data-way=fibre-cable]").click()
    page.get_by_test_id("far-way").locator("[data-take]").click()
    sheet.saved(revision + 4)
    expect(page.locator("[data-far-way=far-gate].ground")).to_have_count(1)
    text = printed_site(page)
    assert "Drivegate" in text and "acrossadrive" in text and "26.5" in text
    for k in range(4):
        page.get_by_role("button", name="Undo").click()
        sheet.saved(revision + 5 + k)


def test_what_was_measured_of_a_cellular_network_counts(
    open_sheet: Callable[..., Sheet], tmp_path: Path
) -> None:
    sheet, revision = farm(open_sheet)
    page = sheet.page
    page.get_by_test_id("far-land").get_by_role("button", name="Weather mast", exact=True).click()
    page.locator("[data-all-ways]").click()
    page.get_by_test_id("far-ways").locator("[data-way=cellular-solar]").click()
    card = page.get_by_test_id("far-way")
    expect(card).to_contain_text("level not measured")
    typed = page.get_by_label("Cellular, as measured there")
    typed.fill("-20 9")
    typed.press("Tab")
    expect(page.get_by_role("alert")).to_contain_text("a level is from -150 to -30 dBm")
    readings = tmp_path / "walk.csv"
    readings.write_text("level;quality\n-97,5;12\n-99;9\n-103;8\n")
    page.get_by_test_id("cell-file").set_input_files(readings)
    sheet.saved(revision + 1)
    expect(typed).to_have_value("-99 9")
    expect(card).to_contain_text("-99 dBm measured there")
    expect(card).to_contain_text("9 dB of quality measured there")
    ground = tmp_path / "ground.csv"
    ground.write_text("metres;height\n40;-0,5\n90;1,2\n")
    page.get_by_test_id("profile-file").set_input_files(ground)
    sheet.saved(revision + 2)
    expect(page.get_by_label("Ground along the line", exact=True)).to_have_value("40 -0.5\n90 1.2")
    for k in range(2):
        page.get_by_role("button", name="Undo").click()
        sheet.saved(revision + 3 + k)
