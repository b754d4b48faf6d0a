"""From an empty project to a three-room flat, drawn, served, cabled and powered, as people do it.

Every press is counted: of the mouse, a drag being one, and of each key.
"""

from __future__ import annotations

import time
from dataclasses import dataclass, field

from playwright.sync_api import Page, sync_playwright

from ops.screenshots import CHROMIUM
from ops.setup import browser

from .http import fresh_server

ROOMS_M = {
    "Living room": (0.0, 0.0, 6.0, 5.0),
    "Bedroom": (6.0, 0.0, 10.0, 5.0),
    "Bath": (10.0, 0.0, 12.5, 5.0),
}
DOORS_M = ((6.0, 2.5), (10.0, 2.5))


@dataclass
class Hand:
    """Presses on a page, counted."""

    page: Page
    presses: int = 0
    revision: int = 1
    origin: tuple[float, float] = (0.0, 0.0)
    scale: float = 1.0
    started: float = field(default_factory=time.perf_counter)

    def press(self, selector: str) -> None:
        self.page.locator(selector).first.click()
        self.presses += 1

    def keys(self, text: str) -> None:
        for key in text:
            self.page.keyboard.press(key)
            self.presses += 1

    def escape(self) -> None:
        self.page.keyboard.press("Escape")
        self.presses += 1

    def at(self, x: float, y: float) -> tuple[float, float]:
        """Return the pixel of a spot in m from the first corner."""
        return self.origin[0] + x * self.scale, self.origin[1] - y * self.scale

    def spot(self, x: float, y: float) -> None:
        self.page.mouse.click(*self.at(x, y))
        self.presses += 1

    def drag(self, a: tuple[float, float], b: tuple[float, float]) -> None:
        mouse = self.page.mouse
        mouse.move(*self.at(*a))
        mouse.down()
        mouse.move(*self.at(*b), steps=4)
        mouse.up()
        self.presses += 1

    def saved(self) -> None:
        """Wait until the next revision is saved."""
        self.revision += 1
        text = f"Saved, revision {self.revision}"
        self.page.wait_for_selector(f"[data-testid=save-state]:has-text('{text}')")

    def take(self, selector: str) -> None:
        """Press what changes the design."""
        self.press(selector)
        self.saved()


def draw_flat(page: Page) -> Hand:
    """Begin on the page of projects; end with the flat planned. Return what it took."""
    hand = Hand(page)
    hand.press("text=New project")
    page.wait_for_selector("[role=dialog] input")
    hand.press("[role=dialog] .p-inputnumber-decrement-button")  # one storey
    hand.press("[role=dialog] >> text=Begin")
    page.wait_for_selector("[role=dialog]", state="detached")
    page.wait_for_selector("[data-tool=room]")
    _draw(hand)
    _equip(hand)
    return hand


def _draw(hand: Hand) -> None:
    page = hand.page
    box = page.locator("svg.sheet").bounding_box()
    grid = page.locator("svg.sheet g[transform*=scale]").first.get_attribute("transform")
    assert box and grid
    hand.scale = float(grid.split("scale(")[1].split()[0])
    hand.origin = (box["x"] + 160, box["y"] + 380)
    hand.keys("o")
    for west, south, east, north in ROOMS_M.values():
        hand.drag((west, south), (east, north))
        hand.saved()
    hand.keys("d")
    for x, y in DOORS_M:
        hand.spot(x, y)
        hand.saved()
    hand.escape()
    hand.spot(11.2, 1.2)  # nobody needs signal in the bath
    hand.press("[aria-label='Use']")
    hand.take("[role=option]:has-text('Not needed')")
    hand.escape()


def _equip(hand: Hand) -> None:
    page = hand.page
    hand.press("[data-stage=signal]")
    hand.press("[data-finding=signal-none] [data-search]")
    page.wait_for_selector("[data-finding=signal-none] [data-cure]")
    hand.take("[data-finding=signal-none] [data-cure]")
    hand.press("[data-stage=power]")
    hand.take(".begin [data-cure]")
    hand.take(".rack [data-cure]")
    hand.press("[data-stage=settings]")
    hand.press("[aria-label='Part of the settings sheet'] >> text=Networks")
    hand.take(".offered [data-cure]")
    page.wait_for_selector("[data-tally=open] .value:has-text('0 not met')")


def flat() -> None:
    with fresh_server("flat") as (server, _), sync_playwright() as play:
        chromium = play.chromium.launch(executable_path=browser(), args=CHROMIUM)
        page = chromium.new_page(viewport={"width": 1280, "height": 800})
        page.goto(server.base)
        page.wait_for_selector(".card")
        hand = draw_flat(page)
        took = time.perf_counter() - hand.started
        chromium.close()
    print("From an empty project to a three-room flat, drawn, served, cabled, powered")
    print(f"  {hand.presses:3d} presses in {took:5.1f} s   (wanted under 60 presses)")
