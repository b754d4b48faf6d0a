"""Drawing, choosing and looking: the parts of the screen one by one."""

from __future__ import annotations

import itertools
import json
import math
import urllib.request
from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from heathrise.core.design import Design
from ops.serve import Server

from .conftest import Sheet, make_project

pytestmark = pytest.mark.browser

STAGES = ("plan", "signal", "cable", "power", "settings")


@pytest.fixture
def home_sheet(server: Server, home: Design, open_sheet: Callable[..., Sheet]) -> Sheet:
    return open_sheet(f"/p/{make_project(server, home, 'Alderness')}/plan")


def _choose(page: Page, label: str, option: str) -> None:
    page.get_by_label(label, exact=True).click()
    page.get_by_role("option", name=option, exact=True).click()


def test_a_room_put_to_another_use_is_judged_anew(home_sheet: Sheet) -> None:
    sheet, page = home_sheet, home_sheet.page
    sheet.stage("signal")
    page.click("[data-space=lower-guest-room]")
    verdict = page.locator("[data-figure=verdict]")
    expect(verdict).to_have_text("does not meet its use")
    expect(page.locator("[data-worst]")).to_be_visible()
    needed = int(sheet.totals("first").split()[2])
    _choose(page, "Use", "Not needed")
    sheet.saved(2)
    expect(verdict).to_have_text("not needed")
    expect(page.locator("[data-tally=first] .value")).to_contain_text(f"of {needed - 1}")
    _choose(page, "Use", "Sensors only")
    sheet.saved(3)
    expect(verdict).to_have_text("meets its use")
    page.get_by_label("Outdoors").check()
    sheet.saved(4)
    expect(page.locator("[data-space=lower-guest-room].outdoor")).to_have_count(1)
    page.get_by_label("No slab above").check()
    sheet.saved(5)
    height = page.get_by_label("Ceiling height")
    height.fill("3.4")
    height.press("Tab")
    sheet.saved(6)
    expect(height).to_have_value("3.4 m")


def test_a_wall_is_chosen_rebuilt_shortened_and_bent(home_sheet: Sheet) -> None:
    sheet, page = home_sheet, home_sheet.page
    count = page.locator("[data-wall]").count()
    sheet.press_in("[data-wall] >> nth=2", 0.5, 0.93)
    expect(page.locator(".inspector h2")).to_have_text("Wall")
    _choose(page, "Construction", "Metal sheet or foil")
    sheet.saved(2)
    expect(page.locator(".inspector")).to_contain_text("28 / 32 / 34 dB")
    length = page.get_by_label("Length", exact=True)
    before = float(length.input_value().split()[0])
    length.fill(f"{before - 0.25:.2f}")
    length.press("Tab")
    sheet.saved(3)
    assert float(length.input_value().split()[0]) == pytest.approx(before - 0.25, abs=0.011)
    x, y = sheet.middle_of("[data-handle=b]")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y + 0.9 * sheet.scale(), steps=4)
    expect(page.locator("[data-measure]")).to_contain_text(" m ∠")
    page.mouse.up()
    sheet.saved(4)
    assert float(length.input_value().split()[0]) != pytest.approx(before - 0.25, abs=0.05)
    page.get_by_role("button", name="Remove it").click()
    sheet.saved(5)
    expect(page.locator("[data-wall]")).to_have_count(count - 1)


def test_an_opening_is_moved_and_widened_by_figures(home_sheet: Sheet) -> None:
    sheet, page = home_sheet, home_sheet.page
    page.locator("[data-opening] .gap").first.click(force=True)
    expect(page.locator(".inspector h2")).to_have_text("Opening")
    width = page.get_by_label("Width", exact=True)
    width.fill("1.1")
    width.press("Tab")
    sheet.saved(2)
    _choose(page, "Construction", "Solid or fire door")
    sheet.saved(3)
    expect(page.locator(".inspector")).to_contain_text("4 / 6 / 7 dB")
    offset = page.get_by_label("From the wall's start")
    offset.fill("900")
    offset.press("Tab")
    expect(page.locator("[role=alert]")).to_contain_text("was taken back")
    sheet.saved(3)


def test_every_mark_can_be_placed(home_sheet: Sheet) -> None:
    sheet, page = home_sheet, home_sheet.page
    box = page.locator("svg.sheet").bounding_box()
    assert box
    marks = page.locator("[data-mark]")
    count = marks.count()
    for step, tool in enumerate(("access_point", "camera", "outlet", "riser")):
        page.click(f"[data-tool={tool}]")
        page.mouse.click(box["x"] + 330 + 45 * step, box["y"] + 330)
        sheet.saved(2 + step)
        expect(marks).to_have_count(count + 1 + step)
    expect(page.locator("[data-tally=aps] .value")).to_have_text("6")
    page.click("[data-tool=equipment_room]")
    page.mouse.click(box["x"] + 420, box["y"] + 260)
    sheet.saved(6)
    expect(marks).to_have_count(count + 5)
    page.keyboard.press("Escape")
    page.get_by_label("Name", exact=True).fill("Hall cupboard")
    page.get_by_label("Name", exact=True).press("Tab")
    sheet.saved(7)
    expect(page.locator("[data-name=rack-1]")).to_have_text("Hall cupboard")


def test_moving_the_rack_moves_every_run(home_sheet: Sheet) -> None:
    sheet, page = home_sheet, home_sheet.page
    cable = float(sheet.totals("cable").split()[0])
    sheet.drag("rack", 260, 120)
    sheet.saved(2)
    delta = page.inner_text("[data-tally=cable] [data-delta]")
    assert delta.startswith("+") and delta.endswith("m")
    assert float(sheet.totals("cable").split()[0]) > cable


def test_floors_zoom_and_pan(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    page.get_by_label("Floor", exact=True).click()
    page.get_by_role("option", name="Upper floor").click()
    expect(page.locator("[data-mark=ap-8]")).to_be_visible()
    expect(page.locator("[data-mark=ap-1]")).to_have_count(0)
    scale = sheet.scale()
    page.get_by_label("Nearer").click()
    assert sheet.scale() == pytest.approx(scale * 1.25)
    # What lies under the pointer stays under it: the middle of a room.
    room = "[data-space=upper-library]"
    x, y = sheet.middle_of(room)
    page.mouse.move(x, y)
    page.mouse.wheel(0, -300)
    sheet.waits_for(lambda: sheet.scale() > scale * 1.5)
    assert sheet.middle_of(room) == pytest.approx((x, y), abs=1.5)
    page.mouse.move(x + 60, y + 60)
    page.mouse.down()
    page.mouse.move(x + 100, y + 90, steps=3)
    page.mouse.up()
    assert sheet.middle_of(room) == pytest.approx((x + 40, y + 30), abs=2)
    page.get_by_label("Show the whole floor").click()
    assert sheet.scale() == pytest.approx(scale)


def test_a_drag_given_up_changes_nothing(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    before = sheet.middle("ap-3")
    sheet.drag("ap-3", 90, 40, drop=False)
    assert sheet.middle("ap-3") != before
    page.keyboard.press("Escape")
    page.mouse.up()
    sheet.waits_for(lambda: sheet.middle("ap-3") == pytest.approx(before, abs=1))
    sheet.saved(1)


def test_category_of_one_run_and_of_all(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("cable")
    page.locator("[data-finding=cable-recommended] [data-cure]").click()
    sheet.saved(2)
    expect(page.locator("[data-finding=cable-recommended]")).to_have_count(0)
    sheet.tab("List")
    expect(page.locator("[data-run-row=ap-1]")).to_contain_text("2 × 6A")
    page.click("[data-run-row=ap-1]")
    sheet.tab("Reasons")
    expect(page.locator("[data-figure=reason]")).to_contain_text("Will do")
    _choose(page, "Cable", "category 5e")
    sheet.saved(3)
    expect(page.locator(".inspector")).to_contain_text("2 × category 5e, by hand")
    metres = float(sheet.totals("cable").split()[0])
    _choose(page, "Cables to each access point", "one cable")
    sheet.saved(4)
    assert float(sheet.totals("cable").split()[0]) < 0.75 * metres


def test_switches_are_changed_added_and_taken_away(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("power")
    page.get_by_label("Model of SW-1").click()
    page.get_by_role("option", name="Dunthrip S8 switch").click()
    sheet.saved(2)
    expect(page.locator("[data-finding=power-left-rack]")).to_contain_text("and")
    page.locator("[data-finding=power-left-rack] [data-cure]").first.click()
    sheet.saved(3)
    expect(page.locator("[data-finding=power-left-rack]")).to_have_count(0)
    page.get_by_role("button", name="Add a switch").click()
    sheet.saved(4)
    switches = page.locator("[data-switch]")
    count = switches.count()
    page.get_by_role("button", name="Remove SW-2").click()
    sheet.saved(5)
    expect(switches).to_have_count(count - 1)
    port = page.locator("[data-port]").filter(has_text="AP-1").first
    port.click()
    expect(page.locator(".inspector h2")).to_contain_text("AP-1")


def test_wireless_names_and_guests(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("settings")
    sheet.tab("Wireless names")
    page.get_by_label("Client isolation on Larkmere Visitors").click()
    sheet.saved(2)
    cure = page.locator("[data-finding=settings-guest-name-ssid-guest] [data-cure]")
    cure.click()
    sheet.saved(3)
    expect(cure).to_have_count(0)
    page.get_by_role("button", name="Add a wireless name").click()
    sheet.saved(4)
    ssid = page.locator("[data-name] input[aria-label^='Wireless name']").last
    ssid.fill("Larkmere Things")
    ssid.press("Tab")
    sheet.saved(5)
    sheet.tab("Switch ports")
    expect(page.locator("table.ledger")).to_contain_text("management untagged")
    sheet.tab("Networks")
    page.get_by_role("button", name="Add a network").click()
    sheet.saved(6)
    expect(page.locator("[data-network]")).to_have_count(6)


def test_site_facts_reach_every_stage(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    rooms = int(sheet.totals("first").split()[0])
    sheet.stage("brief")
    _choose(page, "Weakest client", "Laptop")
    sheet.saved(2)
    assert int(sheet.totals("first").split()[0]) >= rooms
    _choose(page, "Radio domain", "Americas")
    sheet.saved(3)
    page.get_by_role("button", name="Add a floor").first.click()
    sheet.saved(4)
    expect(page.locator("[data-floor]")).to_have_count(4)
    slack = page.get_by_label("Slack at the rack")
    slack.fill("5")
    slack.press("Tab")
    sheet.saved(5)
    assert "+" in page.inner_text("[data-tally=cable] [data-delta]")


def test_projects_are_listed_renamed_and_changed_between(school_sheet: Sheet) -> None:
    page = school_sheet.page
    page.click(".project")
    field = page.get_by_label("Name of this project")
    field.fill("Renamed Hall of Music")
    page.get_by_role("button", name="Rename").click()
    expect(page.locator(".project .name")).to_have_text("Renamed Hall of Music")
    page.locator(".line").filter(has_text="Quernbeck Mill").first.click()
    expect(page.locator(".project .name")).to_have_text("Quernbeck Mill")
    expect(page.locator("[data-space=wheel-wheel-room]")).to_have_count(1)


def test_the_page_fits_and_everything_that_can_be_pressed_has_a_name(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    for stage in STAGES:
        sheet.stage(stage)
        page.wait_for_timeout(300)
        size = page.evaluate(
            "() => [document.documentElement.scrollWidth, document.documentElement.scrollHeight]"
        )
        assert size == [1280, 800], stage
        nameless = page.evaluate(
            """() => [...document.querySelectorAll('button, input, [role=combobox], a')]
                .filter((e) => e.offsetParent && !e.closest('[aria-hidden=true]'))
                .filter((e) => !(e.getAttribute('aria-label') || e.innerText?.trim()
                  || e.labels?.length || e.getAttribute('aria-labelledby')))
                .map((e) => e.outerHTML.slice(0, 120))"""
        )
        assert nameless == [], stage


def test_words_stand_out_from_their_ground(school_sheet: Sheet) -> None:
    """Contrast of at least 4.5 to 1 between the schemes' inks and their papers."""
    page = school_sheet.page
    ratios = """() => {
      const style = getComputedStyle(document.documentElement)
      const light = (name) => {
        const hex = style.getPropertyValue(name).trim().slice(1)
        const parts = [0, 2, 4].map((i) => parseInt(hex.slice(i, i + 2), 16) / 255)
          .map((c) => (c <= 0.03928 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4))
        return 0.2126 * parts[0] + 0.7152 * parts[1] + 0.0722 * parts[2]
      }
      return ['--ink', '--granite', '--heather', '--moss', '--gorse-ink', '--rust', '--tarn'].map((ink) => {
        const [a, b] = [light(ink), light('--paper')].sort((x, y) => y - x)
        return [ink, (a + 0.05) / (b + 0.05)]
      })
    }"""
    for _ in range(2):
        for ink, ratio in page.evaluate(ratios):
            assert ratio >= 4.5, ink
        page.get_by_label("Switch the night scheme").click()


def test_relief_is_exact_again_after_a_drag(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("signal")
    page.wait_for_selector("[data-layer=relief]", state="attached")
    tint = page.locator("[data-layer=relief] path[fill='var(--tint-4)']")
    fine = len(tint.get_attribute("d") or "")
    with page.expect_response(lambda r: r.url.endswith("/changes") and r.status == 200):
        sheet.drag("ap-6", -30, 10)
    sheet.saved(2)
    expect(tint).not_to_have_attribute("d", "")
    sheet.waits_for(lambda: len(tint.get_attribute("d") or "") > 0.6 * fine)


def test_a_room_is_given_its_true_outline_corner_by_corner(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    page.click("[data-space=ground-foyer]")
    corners, area = page.locator("[data-corner]"), page.locator("[data-figure=area]")
    expect(corners).to_have_count(4)
    whole = float((area.text_content() or "").split()[0])
    scale = sheet.scale()
    sheet.pull("[data-corner='1']", -2 * scale, 0)
    sheet.saved(2)
    expect(area).not_to_have_text(f"{whole:.1f} m²")
    assert float((area.text_content() or "").split()[0]) == pytest.approx(whole - 4, abs=0.6)
    sheet.pull("[data-middle='0']", 0, -1 * scale)
    sheet.saved(3)
    expect(corners).to_have_count(5)
    (x, y), (other_x, other_y) = (sheet.middle_of(f"[data-corner='{i}']") for i in (1, 2))
    sheet.pull("[data-corner='1']", other_x - x, other_y - y)
    sheet.saved(4)
    expect(corners).to_have_count(4)
    sheet.pull("[data-corner='0']", 17 * scale, -2 * scale)
    expect(page.locator("[role=alert]")).to_contain_text("crosses itself")
    sheet.saved(4)


def test_the_room_tool_shares_a_wall_that_is_there(school_sheet: Sheet) -> None:
    """A second room half along the first one's side gets a wall only where none stands, and what
    was an outer wall becomes an inner one where it stands between the two."""
    sheet, page = school_sheet, school_sheet.page
    sheet.begin("Two rooms")
    box = page.locator("svg.sheet").bounding_box()
    assert box
    left, top, side = box["x"] + 300, box["y"] + 300, 4 * sheet.scale()
    for revision, (x, y) in enumerate(((0.0, 0.0), (side / 2, -side)), start=2):
        page.click("[data-tool=room]")
        page.mouse.move(left + x, top + y)
        page.mouse.down()
        page.mouse.move(left + x + side, top + y + side, steps=5)
        page.mouse.up()
        sheet.saved(revision)
    project = page.url.split("/p/")[1].split("/")[0]
    with urllib.request.urlopen(f"{sheet.server.base}/api/projects/{project}") as answer:
        walls = json.load(answer)["elements"]["wall"]
    total = sum(math.dist(w["a"], w["b"]) for w in walls)
    one = max(math.dist(w["a"], w["b"]) for w in walls)
    assert len(walls) == 9 and total == pytest.approx(7.5 * one, rel=0.03)
    inner = [w for w in walls if w["construction"] == "plasterboard"]
    assert [math.dist(w["a"], w["b"]) for w in inner] == pytest.approx([one / 2], rel=0.05)


def test_a_wall_is_square_by_default_and_typed_exactly(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.begin("Typed")
    box = page.locator("svg.sheet").bounding_box()
    assert box
    left, top = box["x"] + 200, box["y"] + 200
    page.keyboard.press("w")
    line = page.get_by_test_id("tool-line")
    expect(line).to_contain_text("press where the wall starts")
    page.mouse.click(left, top)
    page.mouse.move(left + 200, top + 40, steps=3)
    expect(line).to_contain_text("or type its length")
    page.keyboard.type("4.5")
    page.keyboard.press("Enter")
    sheet.saved(2)
    page.keyboard.type("3 180")
    page.keyboard.press("Enter")
    sheet.saved(3)
    page.keyboard.type("nonsense")
    project = page.url.split("/p/")[1].split("/")[0]
    with urllib.request.urlopen(f"{sheet.server.base}/api/projects/{project}") as answer:
        first, second = json.load(answer)["elements"]["wall"]
    assert first["b"][0] - first["a"][0] == pytest.approx(4.5, abs=0.002)
    assert first["b"][1] == pytest.approx(first["a"][1], abs=0.002)
    assert second["a"] == first["b"]
    assert second["a"][1] - second["b"][1] == pytest.approx(3, abs=0.002)


def test_a_room_is_typed_exactly_and_its_digits_change_no_stage(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.begin("Typed rooms")
    box = page.locator("svg.sheet").bounding_box()
    assert box
    left, top = box["x"] + 300, box["y"] + 250
    page.click("[data-tool=room]")
    page.mouse.move(left, top)
    page.mouse.down()
    page.mouse.move(left + 60, top + 40, steps=3)
    page.mouse.up()
    sheet.saved(2)
    page.click("[data-tool=room]")
    page.mouse.click(left + 300, top)
    line = page.get_by_test_id("tool-line")
    expect(line).to_contain_text("type")
    page.mouse.move(left + 340, top + 30, steps=3)
    page.keyboard.type("4.2 3,15")
    expect(page.get_by_label("Both lengths")).to_have_value("4.2 3,15")
    assert page.url.endswith("/plan")
    page.keyboard.press("Enter")
    sheet.saved(3)
    project = page.url.split("/p/")[1].split("/")[0]
    with urllib.request.urlopen(f"{sheet.server.base}/api/projects/{project}") as answer:
        rooms = json.load(answer)["elements"]["space"]
    xs, ys = zip(*rooms[-1]["outline"], strict=True)
    assert max(xs) - min(xs) == pytest.approx(4.2, abs=0.002)
    assert max(ys) - min(ys) == pytest.approx(3.15, abs=0.002)
    page.keyboard.press("Escape")
    page.keyboard.press("Escape")
    page.keyboard.press("3")
    expect(page.locator("[data-stage=signal]")).to_have_attribute("aria-current", "page")


def test_marks_on_one_another_are_drawn_apart_and_can_each_be_taken(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.begin("Close together")
    box = page.locator("svg.sheet").bounding_box()
    assert box
    left, top = box["x"] + 300, box["y"] + 250
    for revision, tool in enumerate(("equipment_room", "router", "camera"), start=2):
        page.click(f"[data-tool={tool}]")
        page.mouse.click(left + revision, top)
        sheet.saved(revision)
    page.keyboard.press("Escape")
    page.keyboard.press("Escape")
    expect(page.locator(".leader")).to_have_count(2)
    keys = [str(m.get_attribute("data-mark")) for m in page.locator("[data-mark]").all()]
    assert len(keys) == 3

    def all_apart() -> bool:
        middles = [sheet.middle(key) for key in keys]
        return all(math.dist(a, b) > 15 for a, b in itertools.combinations(middles, 2))

    sheet.waits_for(all_apart)
