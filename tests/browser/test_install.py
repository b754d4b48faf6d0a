"""The work on site, on a tablet: ticked with and without a server, nothing lost by a reload."""

from __future__ import annotations

import io
from pathlib import Path

import pytest
from PIL import Image
from playwright.sync_api import Browser, Page, expect

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.labels import project_labels
from heathrise.standins import measured_csv
from ops.database import Database
from ops.machine import free_port
from ops.serve import Server

from .conftest import DIST, Sheet, make_project, tick

pytestmark = pytest.mark.browser

_TABLET = {"width": 820, "height": 1180}


def _state(page: Page) -> object:
    return page.get_by_test_id("work-state")


def test_the_list_is_walked_ticked_skipped_and_photographed(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    page.set_viewport_size(_TABLET)
    sheet.stage("install")
    two = page.get_by_test_id("finish").inner_text()
    page.get_by_role("button", name="One", exact=True).click()
    one = page.get_by_test_id("finish").inner_text()
    assert "no order is quicker" in one and "wants a second person" in one and one != two
    page.get_by_label("Your name").fill("Jo")
    page.get_by_label("Your name").press("Tab")

    box = page.locator("[data-step=safe] .box").bounding_box()
    assert box and box["width"] >= 44 and box["height"] >= 44
    tick(page, "safe")
    expect(page.locator("[data-step=safe]")).to_have_count(0)  # done, and only open ones are shown
    page.get_by_role("button", name="All", exact=True).click()
    expect(page.locator("[data-step=safe] .said")).to_contain_text("done by Jo")

    # A reason is asked for, cautions stand at the step, a photograph is kept small and clean.
    page.click("[data-step=mount-ap-6] .what")
    row = page.locator("[data-step=mount-ap-6]")
    expect(row).to_contain_text("Ladder: three points of contact")
    row.get_by_role("button", name="Blocked").click()
    expect(row.get_by_role("alert")).to_contain_text("Say why")
    row.get_by_label("Reason").fill("ceiling is wet")
    row.get_by_role("button", name="Blocked").click()
    expect(row.locator(".said")).to_have_text("blocked by Jo: ceiling is wet")
    photo = io.BytesIO()
    Image.new("RGB", (60, 40), "navy").save(photo, "JPEG")
    row.get_by_test_id("photo").set_input_files(
        {"name": "p.jpg", "mimeType": "image/jpeg", "buffer": photo.getvalue()}
    )
    expect(row.locator(".photos img")).to_have_count(1)
    expect(row.locator(".said")).to_contain_text("ceiling is wet")

    # What is kept for licensed people is not ticked without a name.
    licensed = page.locator("[data-step^=surge-]").first
    licensed.locator(".box").click()
    expect(licensed.get_by_role("alert")).to_contain_text("Read what can hurt here first")
    licensed.get_by_role("button", name="Read what can hurt").click()
    licensed.locator(".box").click()
    expect(licensed.get_by_role("alert")).to_contain_text("It waits for")
    licensed.get_by_label("Reason").fill("the electrician was there today")
    licensed.get_by_role("button", name="Done", exact=True).click()
    expect(licensed.get_by_role("alert")).to_contain_text("name who did it")
    licensed.get_by_label("Done by, with licence").fill("A. Volt")
    licensed.get_by_role("button", name="Done", exact=True).click()
    expect(licensed.locator(".said")).to_contain_text("done by Jo")
    page.reload()
    expect(page.locator("[data-step=safe]")).to_have_count(0)
    page.get_by_role("button", name="All", exact=True).click()
    expect(page.locator("[data-step=mount-ap-6] .said")).to_contain_text("blocked by Jo")


def test_what_is_pulled_at_once_is_ticked_at_once(school_sheet: Sheet) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("install")
    page.get_by_label("Your name").fill("Jo")
    page.get_by_label("Your name").press("Tab")
    page.get_by_role("button", name="Pulls", exact=True).click()
    several = page.locator("[data-pull]").filter(has=page.locator(".cable").nth(2)).first
    box = several.locator(".box")
    while True:
        box.click()
        said = several.get_by_role("alert").inner_text() if several.get_by_role("alert").count() else ""
        if not said.startswith("Read"):
            break
        several.get_by_role("button", name="Read what can hurt").click()
    assert said.startswith("It waits for")  # nothing is pulled before the site is safe
    number = several.get_attribute("data-pull")
    asked = f"/api/projects/{page.url.split('/p/')[1].split('/')[0]}"
    pulls, work = (
        page.request.get(f"{page.url.split('/p/')[0]}{asked}/{what}").json() for what in ("pulls", "work")
    )
    steps = next(p["steps"] for p in pulls["pulls"] if str(p["number"]) == number)
    waits = {w for s in work["steps"] if s["id"] in steps for w in s["waits"]}
    page.get_by_role("button", name="Work", exact=True).click()
    for step in sorted(waits, key=lambda w: w != "safe"):
        tick(page, step)
    page.get_by_role("button", name="Pulls", exact=True).click()
    page.locator(f"[data-pull='{number}'] .box").click()
    expect(page.locator(f"[data-pull='{number}']")).to_have_class("pull gone")
    page.reload()
    page.get_by_role("button", name="Pulls", exact=True).click()
    expect(page.locator(f"[data-pull='{number}']")).to_have_class("pull gone")


def test_without_a_server_ticks_are_kept_outlive_a_reload_and_are_sent_once(
    school: Design, chromium: Browser, tmp_path: Path
) -> None:
    own = Database(tmp_path / "db")
    own.start()
    server = Server(own.create("work"), free_port(), DIST, demo=False)
    try:
        server.start()
        server.wait_ready()
        page = chromium.new_page(viewport=_TABLET)  # type: ignore[arg-type]
        address = f"{server.base}/p/{make_project(server, school)}/install"
        page.goto(address)
        page.wait_for_selector("[data-step=safe]")
        page.wait_for_function("navigator.serviceWorker.controller !== null")
        page.reload()  # once through the worker, so that the page itself is at hand
        page.wait_for_selector("[data-step=safe]")
        page.wait_for_timeout(500)
        server.stop()
        for step in ("safe", "rack-rack"):
            tick(page, step)
        page.click("[data-step=mount-ap-6] .what")
        photo = io.BytesIO()
        Image.new("RGB", (60, 40), "navy").save(photo, "JPEG")
        told = {"name": "p.jpg", "mimeType": "image/jpeg", "buffer": photo.getvalue()}
        page.locator("[data-step=mount-ap-6]").get_by_test_id("photo").set_input_files(told)  # type: ignore[arg-type]
        expect(_state(page)).to_contain_text("3 kept here")  # type: ignore[arg-type]
        page.reload()
        page.get_by_role("button", name="All", exact=True).click()
        for step in ("safe", "rack-rack"):
            expect(page.locator(f"[data-step={step}] .said")).to_contain_text("kept here")
        server.start()
        server.wait_ready()
        expect(_state(page)).to_have_text("All ticks saved", timeout=20_000)  # type: ignore[arg-type]
        expect(page.locator("[data-step=safe] .said")).to_have_text("done by installer")
        said = page.evaluate(
            "async () => (await (await fetch(location.pathname.replace('/p/', '/api/projects/')"
            ".replace('/install', '/work'))).json()).stands.map((s) => [s.step, s.said])"
        )
        assert sorted(said) == [["mount-ap-6", 1], ["rack-rack", 1], ["safe", 1]]
        page.click("[data-step=mount-ap-6] .what")
        expect(page.locator("[data-step=mount-ap-6] .photos img")).to_have_count(1)
        page.close()
    finally:
        server.stop()
        own.stop()


def test_a_tester_s_file_finds_what_is_wrong_and_it_is_mended(
    school: Design, school_sheet: Sheet, tmp_path: Path
) -> None:
    sheet, page = school_sheet, school_sheet.page
    evaluation = evaluate(Plan(school, load_catalogue()))
    labels = project_labels(Plan(school, load_catalogue()))
    lengths = {k.id: k.fixed_m for k in evaluation.cable.links}
    text, hidden = measured_csv(labels, lengths, 5, 3, "2026-11-24")
    told = tmp_path / "tester.csv"
    told.write_text(text + "NOWHERE-1,pass,,3,3,,\n", "utf-8")
    sheet.stage("install")
    sheet.tab("Cables")
    page.get_by_test_id("list-file").set_input_files(told)
    expect(page.get_by_role("status").last).to_contain_text("no cable of this plan is labelled")
    page.get_by_role("button", name="Take those that could be read").click()
    failed = page.locator("[data-cable] td.not_met")
    expect(page.locator("[data-cable]")).to_have_count(3)
    count = failed.count()
    assert count >= 2
    # Mended: the same cables again, tested good the day after.
    again = [line for line in text.splitlines() if line.split("/")[0] in hidden]
    mended = [f"{row.split(',')[0]},pass,12345678,,5,2026-11-25,Jo" for row in again]
    told.write_text("\n".join([text.splitlines()[0], *mended]), "utf-8")
    page.get_by_test_id("list-file").set_input_files(told)
    expect(page.get_by_text("3 tests taken.")).to_be_visible()
    expect(page.locator("[data-cable]")).to_have_count(0)
    expect(page.locator(".tests .head")).to_contain_text(f"{len(labels)} of {len(labels)}")
