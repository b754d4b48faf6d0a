"""Drags an access point in Chromium and times each move to the frame that shows its relief."""

from __future__ import annotations

from playwright.sync_api import sync_playwright

from ops.database import running
from ops.machine import FRONTEND, VAR, free_port
from ops.screenshots import CHROMIUM
from ops.serve import serving
from ops.setup import browser

MOVES = 80
# A mark is held to 5 cm, so that a smaller step may draw nothing anew; nor does a place between
# others that reach all round it.
STEP_PX, IN_A_ROW = 6, 8
# Notes when a new relief is in the document and its frame has been drawn.
WATCH = """() => {
  window.reliefShown = () => new Promise((done) => {
    const layer = document.querySelector('[data-layer=relief]')
    const watch = new MutationObserver((rows) => {
      if (!rows.some((r) => r.attributeName === 'd' || r.type === 'childList')) return
      watch.disconnect()
      requestAnimationFrame(() => setTimeout(() => done(performance.now())))
    })
    watch.observe(layer, { subtree: true, attributes: true, childList: true })
    setTimeout(() => done(null), 2000)
  })
  const svg = document.querySelector('svg.sheet')
  window.dragOne = async (x, y) => {
    const shown = window.reliefShown()
    const start = performance.now()
    svg.dispatchEvent(new PointerEvent('pointermove', {
      clientX: x, clientY: y, buttons: 1, bubbles: true, pointerId: 1,
    }))
    const at = await shown
    return at === null ? null : at - start
  }
}"""


def drag_latencies_ms() -> list[float]:
    """Return the time in ms from each pointer move to its relief on screen."""
    with running(VAR / "bench") as database:
        url = database.create("bench", fresh=True)
        with serving(url, free_port(), FRONTEND / "dist") as server, sync_playwright() as play:
            chromium = play.chromium.launch(executable_path=browser(), args=CHROMIUM)
            page = chromium.new_page(viewport={"width": 1280, "height": 800})
            page.goto(server.base)
            page.click(".card")
            page.wait_for_selector("[data-tally=aps]")
            page.click("[data-stage=signal]")
            page.wait_for_selector("[data-layer=relief] path", state="attached")
            page.wait_for_timeout(6_000)
            box = page.locator("[data-mark=ap-6] .halo").bounding_box()
            assert box
            x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
            page.evaluate(WATCH)
            page.mouse.move(x, y)
            page.mouse.down()
            page.mouse.move(x - 8, y)
            page.wait_for_timeout(1_000)
            times = []
            for k in range(MOVES):
                spot = [x - 10 - STEP_PX * (k % IN_A_ROW), y + STEP_PX * (k // IN_A_ROW)]
                took = page.evaluate("([x, y]) => window.dragOne(x, y)", spot)
                if took is not None:  # else nothing was drawn anew: not a move that was seen
                    times.append(float(took))
            page.mouse.up()
            chromium.close()
    return times
