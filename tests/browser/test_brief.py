"""The visit, as an installer makes it: most of it pressed, hardly anything typed."""

from __future__ import annotations

import io
import math
import re
from collections.abc import Callable
from pathlib import Path

import pypdfium2
import pytest
from PIL import Image, ImageDraw
from playwright.sync_api import Page, expect

from .conftest import Sheet

pytestmark = pytest.mark.browser

_TILT_DEG, _WIDE_FT = 4.0, 24.5  # the scan lies askew; its outer wall is 24' 6" long
_LEFT, _TOP, _RIGHT, _LOW = 100, 100, 900, 500


@pytest.fixture
def plan(tmp_path: Path) -> Path:
    """Two rooms on a sheet that was laid askew on the scanner."""
    image = Image.new("RGB", (1000, 600), "white")
    pen = ImageDraw.Draw(image)
    for box in ((_LEFT, _TOP, 500, _LOW), (500, _TOP, _RIGHT, _LOW)):
        pen.rectangle(box, outline="black", width=6)
    out = tmp_path / "clients plan.png"
    image.rotate(_TILT_DEG, expand=False, fillcolor="white").save(out)
    return out


def _on_plan(page: Page, x: float, y: float) -> tuple[float, float]:
    """Return the pixel of the page at which a pixel of the plan is, its tilt taken into account."""
    angle = math.radians(_TILT_DEG)
    dx, dy = x - 500, y - 300
    turned = (
        500 + dx * math.cos(angle) + dy * math.sin(angle),
        300 - dx * math.sin(angle) + dy * math.cos(angle),
    )
    spot = page.evaluate(
        """([x, y]) => { const i = document.querySelector('[data-layer=underlay] image')
          const p = i.ownerSVGElement.createSVGPoint(); p.x = x; p.y = y
          const s = p.matrixTransform(i.getScreenCTM()); return [s.x, s.y] }""",
        list(turned),
    )
    return spot[0], spot[1]


def _drag(page: Page, a: tuple[float, float], b: tuple[float, float]) -> None:
    page.mouse.move(*a)
    page.mouse.down()
    page.mouse.move(*b, steps=4)
    page.mouse.up()


def test_a_visit_from_the_client_s_plan_to_the_printed_brief(
    open_sheet: Callable[..., Sheet], plan: Path
) -> None:
    sheet = open_sheet("/")
    page = sheet.page
    sheet.begin("Visit")
    sheet.stage("brief")
    page.get_by_label("Client", exact=True).fill("J. Doe")
    page.get_by_label("Client", exact=True).press("Tab")
    sheet.saved(2)
    sheet.tab("On the sheet")

    # The client's plan: laid, turned straight, brought to scale in feet and inches.
    page.click("[data-part=picture] .head")
    page.get_by_test_id("plan-file").set_input_files(plan)
    sheet.saved(3)
    page.click("[data-tool=plan_level]")
    _drag(page, _on_plan(page, _LEFT, _TOP), _on_plan(page, _RIGHT, _TOP))
    sheet.saved(4)
    turn = float(page.locator("[data-part=picture] dd").nth(1).inner_text().rstrip("°"))
    assert turn == pytest.approx(_TILT_DEG, abs=0.4)
    page.click("[data-tool=plan_scale]")
    _drag(page, _on_plan(page, _LEFT, _TOP), _on_plan(page, _RIGHT, _TOP))
    known = page.get_by_label("Known distance")
    known.fill("about seven")
    known.press("Enter")
    expect(page.locator("[data-part=picture] [role=alert]")).to_contain_text("Write it as")
    known.fill("24' 6\"")
    known.press("Enter")
    sheet.saved(5)
    a, b = _on_plan(page, _LEFT, _TOP), _on_plan(page, _RIGHT, _TOP)
    assert math.dist(a, b) / sheet.scale() == pytest.approx(_WIDE_FT * 0.3048, rel=0.02)

    # Drawn over, from corner to corner.
    sheet.stage("plan")
    expect(page.locator("[data-layer=underlay]")).to_have_count(1)
    page.click("[data-tool=room]")
    _drag(page, _on_plan(page, _LEFT, _TOP), _on_plan(page, 500, _LOW))
    sheet.saved(6)
    page.keyboard.press("Escape")

    # What hurts, and who uses what.
    sheet.stage("brief")
    sheet.tab("On the sheet")
    page.click("[data-tool=pain_dead]")
    middle = _on_plan(page, 300, 300)
    page.mouse.click(*middle)
    sheet.saved(7)
    page.get_by_label("Words of complaint 1").fill("Nothing in here.")
    page.get_by_label("Words of complaint 1").press("Tab")
    sheet.saved(8)
    row = page.locator("[data-pain-row]").first
    expect(row).to_contain_text("nobody is heard")
    expect(row.locator("[data-outcome=not_addressed]")).to_be_visible()
    page.click("[data-part=who] .head")
    page.click("[data-room-who]")
    page.get_by_label("Television: one more").or_(
        page.get_by_label("Television, how many: one more")
    ).first.click()
    sheet.saved(9)
    wish = page.locator("[data-wish]")
    expect(wish).to_contain_text("0 of 1")

    # The wish empties with an outlet and a run, and not before.
    page.locator("[data-finding^=brief-wire-] [data-cure]").first.click()
    sheet.saved(10)
    expect(wish).to_contain_text("0 of 1")
    sheet.stage("plan")
    page.click("[data-tool=equipment_room]")
    page.mouse.click(*_on_plan(page, 160, 440))
    sheet.saved(11)
    page.click("[data-tool=access_point]")
    page.mouse.click(*_on_plan(page, 300, 260))
    sheet.saved(12)
    page.keyboard.press("Escape")
    sheet.stage("brief")
    sheet.tab("On the sheet")
    expect(row.locator("[data-outcome=mended]")).to_be_visible()
    page.click("[data-part=who] .head")
    expect(wish).to_contain_text("1 of 1")

    with page.expect_download() as printed:
        page.click("[data-print=brief_pdf]")
    document = pypdfium2.PdfDocument(io.BytesIO(Path(printed.value.path()).read_bytes()))
    assert len(document) == 2 and printed.value.suggested_filename == "visit-brief.pdf"
    text = " ".join(p.get_textpage().get_text_bounded() for p in document)
    text = re.sub(r"\s+", " ", text)
    for words in ("J. Doe", "Nothing in here.", "1 × television", "1 of 1 planned", "mended"):
        assert words in text
    page.keyboard.press("Escape")


def test_what_is_there_is_decided_on_and_today_is_told_apart(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    before = sheet.totals("aps")
    sheet.stage("brief")
    sheet.tab("On the sheet")
    page.click("[data-part=found] .head")
    page.click("[data-tool=found_gear]")
    page.mouse.click(700, 360)
    sheet.saved(2)
    row = page.locator("[data-found^=found-]")
    expect(row).to_contain_text("retire: narrowest link: 100 Mb/s on a line of 900 Mb/s")
    assert sheet.totals("aps") == before  # undecided gear takes no part
    row.get_by_role("button", name="Keep").click()
    sheet.saved(3)
    expect(page.locator("[data-tally=aps] .value")).to_have_text(str(int(before) + 1))
    expect(page.locator("[data-finding^=brief-found-]")).to_contain_text("is kept, though")
    page.keyboard.press("Control+z")
    sheet.saved(4)
    expect(page.locator("[data-tally=aps] .value")).to_have_text(before)


def test_a_walk_of_the_brief_is_noted_and_walked(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("brief")
    page.get_by_role("button", name="On the sheet").click()
    page.locator("[data-part=walks] .head").click()
    part = page.locator("[data-part=walks]")
    expect(part.locator("[data-walk]")).to_have_count(3)
    for label, room in (("Walk from", "Gallery"), ("Walk to", "Foyer")):
        page.get_by_role("combobox", name=label).click()
        page.get_by_role("searchbox").last.fill(room)
        page.get_by_role("option", name=room).click()
    part.get_by_role("button", name="Add this walk").click()
    sheet.saved(2)
    mine = part.locator("[data-walk]").last
    expect(mine).to_contain_text("Gallery to Foyer")
    expect(mine).to_contain_text(re.compile(r"hand-overs? with fast transition"))

    mine.get_by_role("button", name="Walk it").click()
    band = page.get_by_test_id("walk-band")
    expect(band.get_by_label("Which walk")).to_contain_text("Gallery to Foyer")
    expect(page.get_by_label("Floor", exact=True)).to_contain_text("Upper floor")
    expect(page.get_by_test_id("walk-verdict")).to_contain_text(re.compile("The call (holds|is lost)"))
    expect(page.locator("[data-layer=walk] .corner").first).to_be_attached()
    band.get_by_role("button", name="Draw one").click()
    expect(page.get_by_test_id("walk-verdict")).to_contain_text("Press on the sheet")
