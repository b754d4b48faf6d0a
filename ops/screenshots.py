"""Draws docs/screenshots from the demo: each main view once, 1280 x 800."""

from __future__ import annotations

import time

from playwright.sync_api import Page, ViewportSize, sync_playwright

from .database import running
from .machine import FRONTEND, ROOT, VAR, free_port
from .serve import Standin, serving
from .setup import browser

TARGET = ROOT / "docs" / "screenshots"
CHROMIUM = [
    "--no-sandbox",
    "--in-process-gpu",
    "--num-raster-threads=1",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
SETTLE_SECONDS = 1.2
DESK: ViewportSize = {"width": 1280, "height": 800}
TABLET: ViewportSize = {"width": 820, "height": 1180}


def take(page: Page, name: str) -> None:
    time.sleep(SETTLE_SECONDS)
    page.screenshot(path=TARGET / f"{name}.png")


def stage(page: Page, name: str) -> None:
    page.click(f"[data-stage={name}]")


def views(page: Page) -> None:
    """Walk through the main views, taking each."""
    stage(page, "plan")
    page.get_by_role("button", name="Section", exact=True).click()
    page.wait_for_selector("[data-testid=section] [data-cut-room]")
    page.click("[data-mark=cam-1]")
    take(page, "plan")
    page.get_by_role("button", name="Close the section").click()
    page.keyboard.press("Escape")
    stage(page, "signal")
    page.wait_for_selector("[data-layer=relief]")
    take(page, "signal")
    stairs = page.locator("[data-space=ground-stairs]").bounding_box()
    assert stairs
    page.mouse.click(stairs["x"] + stairs["width"] * 0.3, stairs["y"] + stairs["height"] * 0.75)
    page.click("[data-of=ap-10]")
    take(page, "signal-ray")
    page.keyboard.press("Escape")
    page.keyboard.press("Escape")
    under_the_sheet(page)
    page.click("text=List")
    stage(page, "cable")
    page.click("[data-run-row=ap-15]")
    page.click("text=Reasons")
    take(page, "cable")
    page.keyboard.press("Escape")
    stage(page, "power")
    take(page, "power")
    stage(page, "diagram")
    page.wait_for_selector("[data-card]")
    take(page, "diagram")
    stage(page, "settings")
    take(page, "settings")
    page.get_by_role("button", name="Practice", exact=True).click()
    page.get_by_role("combobox", name="Another profile").click()
    page.get_by_role("option", name="Left to the controller").click()
    page.wait_for_selector("[data-effects]", timeout=90_000)
    take(page, "practice")
    stage(page, "brief")
    take(page, "brief")
    stage(page, "order")
    take(page, "order")
    page.click("text=Offers")
    page.click("[data-policy=first_only]")
    page.wait_for_selector("[data-offer=variant-1]", timeout=60_000)
    take(page, "order-offers")
    page.keyboard.press("Control+z")


def under_the_sheet(page: Page) -> None:
    """Take what lies under the sheet of the signal: the places searched."""
    page.click("[aria-label='Search for places']")
    page.click("[data-testid=search-places]")
    page.wait_for_selector("[data-answer=fewest]", timeout=90_000)
    take(page, "signal-places")


def on_site(page: Page, base: str) -> None:
    """Take the stages of a job that is under way, and of one that is done."""
    open_site(page, base, "Hollin Lane")
    stage(page, "install")
    page.click("[data-step=mount-ap-2] .what")
    take(page, "install")
    page.set_viewport_size(TABLET)
    take(page, "install-tablet")
    page.set_viewport_size(DESK)
    open_site(page, base, "Larkmere")
    stage(page, "handover")
    page.wait_for_selector("[data-promise=Cables]")
    take(page, "handover")


def bring_up(page: Page, base: str) -> None:
    """Take a site on its way up, and its controller once it is."""
    open_site(page, base, "Hollin Lane")
    stage(page, "settings")
    page.get_by_role("button", name="Controller", exact=True).click()
    page.click("[data-plug]")
    page.wait_for_selector("[data-gear]")
    while not page.locator("[data-adopt]:enabled").count():
        if page.locator("[data-update-itself]").count():
            page.click("[data-update-itself]")
        page.wait_for_timeout(600)
    stage(page, "install")
    page.get_by_role("button", name="Bring-up", exact=True).click()
    page.wait_for_timeout(1_500)  # it opens on the step that is due
    page.click("[data-rung='6']")
    page.wait_for_selector("[data-all]")
    take(page, "bring-up")
    page.click("[data-all]")
    page.wait_for_timeout(6_000)
    stage(page, "settings")
    page.get_by_role("button", name="Controller", exact=True).click()
    page.wait_for_selector(".gear .online")
    page.click("[data-push]")
    page.wait_for_selector("[data-ended]", timeout=120_000)
    take(page, "controller")


def on_land(page: Page, base: str) -> None:
    """Take a site with a lot of land, every way to one of its places beside one another."""
    open_site(page, base, "Thistlefold")
    stage(page, "plan")
    page.get_by_role("button", name="Site", exact=True).click()
    page.wait_for_selector("[data-testid=far-land]")
    page.locator("[data-far=far-fold]").dispatch_event("click")
    page.click("[data-all-ways]")
    page.wait_for_selector("[data-testid=far-ways]")
    page.click("[data-way=fibre-cable]")
    take(page, "site")


def open_site(page: Page, base: str, name: str) -> None:
    """Open one of the demo's sites from the page of projects."""
    page.goto(base)
    page.click(f".card:has-text('{name}')")
    page.wait_for_selector("[data-tally=aps]")


def main() -> None:
    TARGET.mkdir(parents=True, exist_ok=True)
    with running(VAR / "shots") as database:
        url = database.create("shots", fresh=True)
        standin = Standin(VAR / "shots" / "controllers", pace=30.0)
        standin.start()
        place = standin.base
        with (
            serving(url, free_port(), FRONTEND / "dist", controller=place) as server,
            sync_playwright() as play,
        ):
            chromium = play.chromium.launch(executable_path=browser(), args=CHROMIUM)
            page = chromium.new_page(viewport=DESK)
            page.goto(server.base)
            page.wait_for_selector(".card")
            # The school is handed over by a thread of the server, which takes seconds.
            page.wait_for_timeout(20_000)
            page.reload()
            page.wait_for_selector(".card")
            take(page, "start")
            on_site(page, server.base)
            views(page)
            on_land(page, server.base)
            bring_up(page, server.base)
            standin.stop()
            chromium.close()


if __name__ == "__main__":
    main()
