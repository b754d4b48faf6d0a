"""From nothing to a drawing for others: a slanted photograph, walls seen on it and one by hand, a storey
above, a riser, a garden house set where it stands; out as DXF, in again."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path

import pytest
from playwright.sync_api import expect

from ..core.storeys_of_rooms import Cut
from ..formats.foreign import Foreign, bytes_of, drawing_of
from ..formats.plan_pictures import print_of, slanted
from ..formats.test_traced import with_doors
from .conftest import Sheet

pytestmark = pytest.mark.browser

HOUSE = Cut(
    ((0, 0, 5, 4), (5, 0, 7, 2), (5, 2, 9, 4), (7, 0, 9, 2), (0, 4, 9, 8)),
    (
        ((0, 0), (9, 0)),
        ((9, 0), (9, 8)),
        ((9, 8), (0, 8)),
        ((0, 8), (0, 0)),
        ((0, 4), (9, 4)),
        ((5, 0), (5, 4)),
        ((5, 2), (9, 2)),
        ((7, 0), (7, 2)),
    ),
)


def test_from_a_photograph_to_a_drawing(open_sheet: Callable[..., Sheet], tmp_path: Path) -> None:
    plan = print_of(with_doors(HOUSE), "f")
    photo = slanted(plan)
    file = tmp_path / "plan.jpg"
    file.write_bytes(photo.data("JPEG"))
    sheet = open_sheet("/")
    page = sheet.page
    sheet.begin("Finch House")
    sheet.stage("brief")
    sheet.tab("On the sheet")
    page.click("[data-part=picture] .head")
    page.get_by_test_id("plan-file").set_input_files(file)
    sheet.saved(2)
    page.click("[data-tool=plan_straighten]")
    left, top, wide, high = sheet.box("[data-layer=underlay] image")
    size = photo.picture.size
    for x, y in photo.corners:
        page.mouse.move(left + x / size[0] * wide, top + y / size[1] * high)
        page.mouse.click(left + x / size[0] * wide, top + y / size[1] * high)
    page.get_by_label("Across").fill("9 m")
    page.get_by_label("Up", exact=True).fill("8 m")
    page.get_by_role("button", name="Straighten").last.click()
    sheet.saved(3)
    page.get_by_role("button", name="Look for walls on it").click()
    band = page.get_by_test_id("seen-walls")
    expect(band).to_contain_text("walls are seen")
    walls = page.locator("[data-seen]")
    count = walls.count()
    assert 7 <= count <= 10
    # One is wiped, to be drawn by hand; one is taken by itself, the rest together.
    longest = page.locator("[data-layer=seen] .cross").first
    longest.click()
    expect(walls).to_have_count(count - 1)
    walls.last.focus()
    page.keyboard.press("Enter")
    sheet.saved(4)
    band.get_by_role("button", name=re.compile("^Take")).first.click()
    expect(band).to_have_count(0)
    sheet.saved(5)
    page.keyboard.press("Control+z")
    sheet.saved(6)
    page.keyboard.press("Control+Shift+z")
    sheet.saved(7)
    # What was wiped is seen again, and alone: all others are drawn.
    page.get_by_role("button", name="Look for walls on it").click()
    expect(walls).to_have_count(1)
    band.get_by_role("button", name="Take all 1").click()
    sheet.saved(8)
    sheet.stage("plan")
    rooms = page.locator("[data-space]")
    expect(rooms).to_have_count(5)
    # A wall by hand, its length and angle typed.
    page.keyboard.press("w")
    left, top, wide, high = sheet.box("[data-space=room-1]")
    page.mouse.click(left + wide * 0.4, top + high * 0.35)
    page.mouse.move(left + wide * 0.5, top + high * 0.5)
    page.keyboard.type("1")
    page.get_by_label("Length and angle").fill("0.8 90")
    page.keyboard.press("Enter")
    sheet.saved(9)
    page.keyboard.press("Escape")
    page.keyboard.press("Escape")
    _storeys_and_riser(sheet)
    _garden_house(sheet)
    page.get_by_role("button", name="Export").click()
    with page.expect_download() as download:
        page.locator("a[href$='export/plan.dxf']").click()
    drawing = tmp_path / "finch.dxf"
    download.value.save_as(drawing)
    page.get_by_role("button", name="New", exact=True).click()
    page.locator("input[type=file][accept*=dxf]").set_input_files(drawing)
    expect(page.get_by_role("group", name="Storeys")).to_be_visible()
    page.get_by_role("button", name="Draw these layers").click()
    expect(page.locator(".project .name")).to_have_text("finch")
    expect(page.locator("[data-space]")).to_have_count(5)


def _storeys_and_riser(sheet: Sheet) -> None:
    """The storey's walls a storey up; looked at in the section; closets that stack become a riser."""
    page = sheet.page
    page.get_by_role("button", name="Storey up").click()
    page.get_by_role("button", name="Walls, doors and rooms").click()
    sheet.saved(10)
    page.get_by_role("button", name="Section", exact=True).click()
    section = page.get_by_test_id("section")
    expect(section.locator("[data-cut-room]").first).to_be_visible()
    assert section.locator("[data-cut-room]").count() >= 2
    found = page.locator("[data-finding^=plan-stack]")
    found.get_by_role("button", name=re.compile("^Make a riser")).first.click()
    sheet.saved(11)
    expect(page.locator("[data-mark^=riser]")).to_be_attached()
    page.get_by_role("button", name="Close the section").click()


def _garden_house(sheet: Sheet) -> None:
    """A building more, drawn from above, then set where it stands."""
    page = sheet.page
    page.get_by_role("button", name="Site", exact=True).click()
    page.wait_for_selector("[data-testid=site] [data-building]")
    page.get_by_role("button", name="Building", exact=True).click()
    left, top, wide, high = sheet.box("[data-testid=site] svg.sheet")
    for x, y in ((0.76, 0.1), (0.95, 0.6)):
        page.mouse.move(left + wide * x, top + high * y)
        page.mouse.click(left + wide * x, top + high * y)
    sheet.saved(12)
    expect(page.locator("[data-building]")).to_have_count(2)
    apart = page.get_by_label(re.compile("^Building 2 from"))
    apart.fill("12 m")
    apart.press("Enter")
    sheet.saved(13)
    expect(apart).to_have_value("12 m")
    page.get_by_role("button", name="Site", exact=True).click()


def test_a_garden_house_is_set_where_it_stands(open_sheet: Callable[..., Sheet]) -> None:
    """The school and its pavilion from above: set so far apart, carried by keys, a pipe beside the duct."""
    sheet = open_sheet("/p/p-demo-school/plan")
    page = sheet.page
    page.wait_for_selector("[data-tally=price]")
    revision = int(re.findall(r"\d+", page.get_by_test_id("save-state").inner_text())[-1])
    page.get_by_role("button", name="Site", exact=True).click()
    expect(page.locator("[data-building]")).to_have_count(2)
    apart = page.get_by_label("Pavilion from School")
    apart.fill("31.5 m")
    apart.press("Enter")
    sheet.saved(revision + 1)
    expect(apart).to_have_value("31.5 m")
    expect(page.locator("[data-layer=gaps-of-site]")).to_contain_text("31.50 m")
    page.locator("[data-building=pavilion]").focus()
    page.keyboard.press("Enter")
    page.locator("svg.sheet").focus()
    page.keyboard.press("ArrowRight")
    sheet.saved(revision + 2)
    expect(apart).not_to_have_value("31.5 m")
    page.get_by_role("button", name="Buried", exact=True).first.click()
    left, top, wide, high = sheet.box("[data-duct]")
    x = left + wide / 2
    for y in (top - 60, top + high + 40):
        page.mouse.click(x, y)
    page.keyboard.press("Enter")
    sheet.saved(revision + 3)
    expect(page.locator(".by-hand").first).to_contain_text("Service 1")
    expect(page.locator("[data-finding^=plan-buried]").first).to_be_visible()
    page.get_by_role("combobox", name="Carries").click()
    page.get_by_role("option", name="Gas").click()
    sheet.saved(revision + 4)
    page.get_by_role("button", name=re.compile("Gas: Service 1")).click()
    page.get_by_role("button", name="Plan of Pavilion").click()
    expect(page.locator("svg.sheet [data-wall]").first).to_be_attached()


def test_a_revision_is_named_compared_and_gone_back_to(open_sheet: Callable[..., Sheet]) -> None:
    sheet = open_sheet("/p/p-demo-terrace/plan")
    page = sheet.page
    page.wait_for_selector("[data-tally=price]")
    state = page.get_by_test_id("save-state")
    revision = int(re.findall(r"\d+", state.inner_text())[-1])
    state.click()
    page.get_by_label(f"Name of revision {revision}").fill("As agreed")
    page.keyboard.press("Enter")
    page.keyboard.press("Escape")
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    first = page.locator("[data-mark^=ap-]").first.get_attribute("data-mark")
    assert first
    sheet.drag(first, 30, 20)
    sheet.saved(revision + 1)
    state.click()
    page.locator(f"[data-revision='{revision}']").get_by_role("button", name="Compare").click()
    band = page.get_by_test_id("compared")
    expect(band).to_contain_text("From “As agreed” to the plan as it is:")
    expect(band).to_contain_text("1 moved")
    expect(page.locator(f"[data-differs={first}]")).to_be_attached()
    band.get_by_role("button", name="Done").click()
    state.click()
    page.locator(f"[data-revision='{revision}']").get_by_role("button", name="Go back").click()
    sheet.saved(revision + 2)
    state.click()
    page.locator(f"[data-revision='{revision}']").get_by_role("button", name="Compare").click()
    expect(page.get_by_test_id("compared")).to_contain_text("nothing differs")


def test_floors_in_files_of_their_own_become_one_building(
    open_sheet: Callable[..., Sheet], tmp_path: Path
) -> None:
    """A drawing by others and one of ours with its gear, one after the other on the same building."""
    foreign, own = tmp_path / "Upper.dxf", tmp_path / "House.dxf"
    foreign.write_bytes(bytes_of(drawing_of([HOUSE], Foreign(units="m"))))
    sheet = open_sheet("/p/p-demo-terrace/plan")
    page = sheet.page
    page.wait_for_selector("[data-tally=price]")
    page.get_by_role("button", name="Export").click()
    with page.expect_download() as download:
        page.locator("a[href$='export/plan.dxf']").click()
    download.value.save_as(own)
    sheet = open_sheet("/")
    page = sheet.page
    sheet.begin("Finch House")
    sheet.stage("brief")
    sheet.tab("Place and storeys")
    storeys = page.locator("[data-floor]")
    before = storeys.count()
    page.locator("input[data-testid^=storeys-]").set_input_files(foreign)
    page.get_by_label("Name of the storey").fill("First floor")
    page.get_by_role("button", name="Draw these layers").click()
    sheet.saved(2)
    expect(storeys).to_have_count(before)
    page.locator("input[data-testid^=storeys-]").set_input_files(own)
    expect(page.get_by_role("dialog")).to_contain_text("devices, racks, risers and ducts")
    page.get_by_role("button", name="Draw these layers").click()
    sheet.saved(3)
    assert storeys.count() > before
    expect(page.locator("[data-tally=aps]")).to_contain_text("3")
    page.keyboard.press("Control+z")
    sheet.saved(4)
    expect(storeys).to_have_count(before)
