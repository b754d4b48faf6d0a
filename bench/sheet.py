"""A storey of 400 walls and 120 devices over an A1 scan: frames while it is panned and zoomed in Chromium,
and edits of it with 10,000 others in the journal."""

from __future__ import annotations

import io
import json
import statistics
import time
import urllib.request
import uuid
from typing import Any

from PIL import Image, ImageDraw
from playwright.sync_api import Page, sync_playwright
from sqlalchemy import create_engine, insert, select, update

from heathrise.core.design import Design
from heathrise.demo import veterinary_practice
from heathrise.formats.project_file import Project, dump_project
from heathrise.store.tables import journal, project
from ops.screenshots import CHROMIUM, DESK
from ops.serve import Server
from ops.setup import browser

from .edit import post
from .http import SECONDS, call, cut_95, fetch, fresh_server
from .pace import Failed, Marks
from .walls import COLUMNS, ROOM_M, ROWS, storey

A1_AT_300_DPI = (9933, 7016)
JOURNAL = 10_000
EDITS = 40
PAUSE_SECONDS = 0.6  # between two edits: the search for channels goes on behind them
GLIDE_SECONDS = 4.0
# Goes on for so many ms, a step a frame, and answers with the ms between each two frames.
GLIDE = """([pan, ms]) => new Promise((done) => {
  const sheet = document.querySelector('svg.sheet')
  const box = sheet.getBoundingClientRect()
  const x = box.left + box.width / 2, y = box.top + box.height / 2
  const frames = []
  const send = (kind, more) => sheet.dispatchEvent(new PointerEvent(kind, {
    bubbles: true, pointerId: 1, button: 1, buttons: 4, isPrimary: true, ...more,
  }))
  if (pan) send('pointerdown', { clientX: x, clientY: y })
  const began = performance.now()
  let last = began
  const step = (now) => {
    frames.push(now - last)
    last = now
    if (now - began > ms) {
      if (pan) send('pointerup', { clientX: x, clientY: y, buttons: 0 })
      return done(frames.slice(1))
    }
    const turn = (now - began) / 300
    if (pan) send('pointermove', { clientX: x + 160 * Math.sin(turn), clientY: y + 90 * Math.cos(turn) })
    else sheet.dispatchEvent(new WheelEvent('wheel', {
      bubbles: true, cancelable: true, clientX: x, clientY: y, deltaY: 60 * Math.sin(turn),
    }))
    requestAnimationFrame(step)
  }
  requestAnimationFrame(step)
})"""


def scan() -> bytes:
    """Return the storey's plan as a scanner gives it: an A1 sheet, grey, at 300 dpi."""
    picture = Image.effect_noise(A1_AT_300_DPI, 14).point(lambda v: min(255, v + 110))
    draw = ImageDraw.Draw(picture)
    px = 110 * ROOM_M
    for c in range(COLUMNS + 1):
        draw.line([(400 + c * px, 600), (400 + c * px, 600 + ROWS * px)], fill=20, width=9)
    for r in range(ROWS + 1):
        draw.line([(400, 600 + r * px), (400 + COLUMNS * px, 600 + r * px)], fill=20, width=9)
    out = io.BytesIO()
    picture.save(out, "JPEG", quality=85, dpi=(300, 300))
    return out.getvalue()


def _kept(server: Server, key: str, picture: bytes) -> dict[str, Any]:
    """Send a picture as a form does."""
    edge = uuid.uuid4().hex
    head = f'--{edge}\r\nContent-Disposition: form-data; name="picture"; filename="scan.jpg"\r\n\r\n'
    body = head.encode() + picture + f"\r\n--{edge}--\r\n".encode()
    headers = {"Content-Type": f"multipart/form-data; boundary={edge}"}
    request = urllib.request.Request(f"{server.base}/api/projects/{key}/pictures", body, headers)
    with urllib.request.urlopen(request, timeout=SECONDS) as answer:
        return dict(json.load(answer))


def _project(server: Server, design: Design) -> str:
    text = dump_project(Project("Measured", design))
    return str(json.loads(fetch(server, "/api/import/project", json.loads(text)))["id"])


def _underlaid(server: Server, marks: Marks) -> str:
    key = _project(server, storey())
    picture, began = scan(), time.perf_counter()
    kept = _kept(server, key, picture)
    what = f"{len(picture) / 1e6:.0f} MB, kept at {kept['width_px']} x {kept['height_px']}"
    marks.row("the scan read and kept", time.perf_counter() - began, "s", None, what)
    m = COLUMNS * ROOM_M / (kept["width_px"] * COLUMNS * 110 * ROOM_M / A1_AT_300_DPI[0])
    element = {
        "id": "scan",
        "floor": "f",
        "picture": kept["id"],
        "name": "Scan",
        "width_px": kept["width_px"],
        "height_px": kept["height_px"],
        "metres_per_px": m,
        "at": [COLUMNS * ROOM_M / 2, ROWS * ROOM_M / 2],
    }
    _edit(server, key, 1, "underlay", element, None)
    return key


def _edit(
    server: Server, key: str, revision: int, kind: str, element: object, base: str | None
) -> tuple[float, str]:
    """Send one change as a screen does that has the figures known by ``base``; return the ms until it is
    saved and the new ones begin to come, and the mark that those are known by."""
    body = {
        "revision": revision,
        "label": "Change",
        "base": base,
        "changes": [{"op": "put", "kind": kind, "element": element}],
    }
    _, took, lines = post(server, f"/api/projects/{key}/changes", body)
    return took, lines[0]["answer"]["mark"]


def _frames(page: Page, pan: bool) -> list[float]:
    found = page.evaluate(GLIDE, [pan, 1e3 * GLIDE_SECONDS])
    if len(found) < 10:
        raise Failed(f"{len(found)} frames were seen")
    return list(found)


def _journalled(url: str, key: str) -> int:
    """Give a project a long past: moves of one device, there and back; return its revision."""
    engine = create_engine(url)
    with engine.begin() as connection:
        revision = int(connection.scalar(select(project.c.revision).where(project.c.id == key)) or 0)
        rows = connection.execute(select(journal).where(journal.c.project_id == key)).mappings().all()
        like = dict(max(rows, key=lambda r: r["revision"]))
        past = [{**like, "revision": revision + k + 1, "label": "Move"} for k in range(JOURNAL)]
        for start in range(0, JOURNAL, 500):
            connection.execute(insert(journal), past[start : start + 500])
        connection.execute(update(project).where(project.c.id == key).values(revision=revision + JOURNAL))
    engine.dispose()
    return revision + JOURNAL


def _edited(server: Server, key: str) -> list[float]:
    """Move one access point, as little as a hand does, and time each edit."""
    opened = call(server, f"/api/projects/{key}")
    device = next(d for d in opened["elements"]["device"] if d["kind"] == "access_point")
    mark = call(server, f"/api/projects/{key}/evaluation")["mark"]
    times = []
    for k in range(EDITS):
        moved = {**device, "at": [round(device["at"][0] + 0.05 * (k % 9), 2), device["at"][1]]}
        took, mark = _edit(server, key, opened["revision"] + k, "device", moved, mark)
        times.append(took)
        time.sleep(PAUSE_SECONDS)
    return times


def sheet() -> None:
    """Print frames a second and what an edit takes."""
    marks = Marks("A storey of 400 walls and 120 devices over an A1 scan at 300 dpi")
    with fresh_server("sheet", demo=False) as (server, database):
        key = _underlaid(server, marks)
        with sync_playwright() as play:
            chromium = play.chromium.launch(executable_path=browser(), args=CHROMIUM)
            page = chromium.new_page(viewport=DESK)
            page.goto(f"{server.base}/p/{key}/plan")
            page.wait_for_selector("[data-tally=aps]")
            page.wait_for_load_state("networkidle")
            time.sleep(2)
            for pan, what in ((True, "panned"), (False, "zoomed")):
                times = _frames(page, pan)
                rate = f"{len(times) / GLIDE_SECONDS:.0f} a second"
                marks.row(f"{what}, a frame at the mean", statistics.mean(times), "ms", 33, rate)
            chromium.close()
        marks.row("an edit on it, 95 %", cut_95(_edited(server, key)), "ms")
        small = _project(server, veterinary_practice())
        few = _edited(server, small)
        marks.row("an edit of a practice of eight rooms, 95 %", cut_95(few), "ms")
        _journalled(database.create("sheet"), small)
        many = _edited(server, small)
        marks.row(f"with {JOURNAL} in the journal", cut_95(many), "ms", 150)
        marks.row("  times as much", statistics.median(many) / statistics.median(few), "x")
