"""What the screen calls saved is saved; what is not yet saved is kept."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, expect

from heathrise.core.design import Design
from ops.database import Database
from ops.machine import free_port
from ops.serve import Server

from .conftest import DIST, Sheet, make_project

pytestmark = pytest.mark.browser

NUDGE = "ArrowRight"


@pytest.fixture
def mortal(database: Database) -> Iterator[Server]:
    """A server of the test's own, to be killed."""
    server = Server(database.create("mortal", fresh=True), free_port(), DIST, demo=False)
    server.start()
    server.wait_ready()
    yield server
    server.stop()


def _nudge(sheet: Sheet, mark: str, times: int = 1) -> None:
    sheet.page.click(f"[data-mark={mark}]")
    sheet.page.locator("svg.sheet").focus()
    for _ in range(times):
        sheet.page.keyboard.press(NUDGE)
    sheet.page.wait_for_timeout(700)


def test_edits_survive_a_killed_server(mortal: Server, school: Design, chromium: Browser) -> None:
    page = chromium.new_page(viewport={"width": 1280, "height": 800})
    sheet = Sheet(page, mortal)
    page.goto(f"{mortal.base}/p/{make_project(mortal, school)}/plan")
    page.wait_for_selector("[data-mark=ap-6]")
    _nudge(sheet, "ap-6", 2)
    sheet.saved(2)
    mortal.kill()
    _nudge(sheet, "ap-6", 1)
    _nudge(sheet, "ap-3", 1)
    state = page.get_by_test_id("save-state")
    expect(state).to_contain_text("Offline: 2 changes kept here", timeout=15_000)
    mortal.start()
    mortal.wait_ready()
    sheet.saved(4)
    page.reload()
    page.wait_for_selector("[data-mark=ap-6]")
    page.click("[data-mark=ap-6]")
    assert page.get_by_label("East", exact=True).input_value() == "36.8 m"
    page.close()


def test_edits_kept_offline_survive_closing_the_page(
    mortal: Server, school: Design, chromium: Browser
) -> None:
    context = chromium.new_context(viewport={"width": 1280, "height": 800})
    page = context.new_page()
    address = f"{mortal.base}/p/{make_project(mortal, school)}/plan"
    page.goto(address)
    page.wait_for_selector("[data-mark=ap-6]")
    mortal.kill()
    _nudge(Sheet(page, mortal), "ap-6", 3)
    page.wait_for_selector("text=1 change kept here")
    page.close()
    mortal.start()
    mortal.wait_ready()
    page = context.new_page()
    page.goto(address)
    sheet = Sheet(page, mortal)
    sheet.saved(2)
    page.click("[data-mark=ap-6]")
    assert page.get_by_label("East", exact=True).input_value() == "36.8 m"
    context.close()


def test_two_windows_on_different_things_both_keep_theirs(
    server: Server, school: Design, open_sheet: Callable[..., Sheet]
) -> None:
    path = f"/p/{make_project(server, school)}/plan"
    one, other = open_sheet(path), open_sheet(path)
    _nudge(one, "ap-6", 1)
    one.saved(2)
    _nudge(other, "ap-3", 1)
    other.saved(3)
    other.page.click("[data-mark=ap-6]")
    assert other.page.get_by_label("East", exact=True).input_value() == "36.6 m"


@pytest.mark.parametrize(("press", "east"), [("Keep mine on top", "36.8 m"), ("Take theirs", "36.6 m")])
def test_two_windows_on_one_thing_are_asked(
    server: Server, school: Design, open_sheet: Callable[..., Sheet], press: str, east: str
) -> None:
    path = f"/p/{make_project(server, school)}/plan"
    one, other = open_sheet(path), open_sheet(path)
    _nudge(one, "ap-6", 1)
    one.saved(2)
    _nudge(other, "ap-6", 3)
    other.page.get_by_role("button", name=press).click()
    other.saved(3 if press.startswith("Keep") else 2)
    assert other.page.get_by_label("East", exact=True).input_value() == east


def test_what_the_server_refuses_is_taken_back_and_said(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    page.click("[data-mark=riser-store]")
    lowest = page.get_by_label("Lowest level")
    lowest.fill("7")
    lowest.press("Tab")
    alert = page.wait_for_selector("[role=alert]")
    assert "was taken back" in alert.inner_text()
    assert "lowest level is above its highest" in alert.inner_text()
    sheet.saved(1)
    page.click("[data-mark=riser-store]")
    assert page.get_by_label("Lowest level").input_value() == "0"


def test_a_killed_database_keeps_what_was_saved_and_the_rest_waits(
    school: Design, chromium: Browser, tmp_path: Path
) -> None:
    own = Database(tmp_path / "db")
    own.start()
    server = Server(own.create("site"), free_port(), DIST, demo=False)
    try:
        server.start()
        server.wait_ready()
        page = chromium.new_page(viewport={"width": 1280, "height": 800})
        sheet = Sheet(page, server)
        page.goto(f"{server.base}/p/{make_project(server, school)}/plan")
        page.wait_for_selector("[data-mark=ap-6]")
        _nudge(sheet, "ap-6", 1)
        sheet.saved(2)
        own.kill()
        _nudge(sheet, "ap-6", 1)
        state = page.get_by_test_id("save-state")
        expect(state).to_contain_text("Offline: 1 change kept here")
        own.start()
        sheet.saved(3)
        page.reload()
        page.click("[data-mark=ap-6]")
        assert page.get_by_label("East", exact=True).input_value() == "36.7 m"
        page.close()
    finally:
        server.stop()
        own.stop()


def test_steps_back_and_forth_outlive_a_reload(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    _nudge(sheet, "ap-6", 3)
    sheet.saved(2)
    _nudge(sheet, "ap-3", 2)
    sheet.saved(3)
    page.keyboard.press("Control+z")
    sheet.saved(4)
    page.reload()
    page.wait_for_selector("[data-mark=ap-6]")
    page.get_by_role("button", name="Undo").click()
    sheet.saved(5)
    page.click("[data-mark=ap-6]")
    expect(page.get_by_label("East", exact=True)).to_have_value("36.5 m")
    for revision in (6, 7):
        page.get_by_role("button", name="Redo").click()
        sheet.saved(revision)
    expect(page.get_by_role("button", name="Redo")).to_be_disabled()
    expect(page.get_by_label("East", exact=True)).to_have_value("36.8 m")


def test_one_window_does_not_forget_what_another_keeps(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    address = page.url
    page.route("**/changes", lambda route: route.abort())
    other = Sheet(page.context.new_page(), sheet.server)
    other.page.goto(address)
    other.page.wait_for_selector("[data-mark=ap-3]")
    _nudge(sheet, "ap-6", 3)
    page.wait_for_selector("text=1 change kept here")
    _nudge(other, "ap-3", 1)
    other.saved(2)
    page.close()
    again = Sheet(other.page.context.new_page(), sheet.server)
    again.page.goto(address)
    again.saved(3)
    again.page.click("[data-mark=ap-6]")
    expect(again.page.get_by_label("East", exact=True)).to_have_value("36.8 m")
    assert again.page.evaluate("Object.keys(localStorage).filter((k) => k.includes('pending'))") == []
