"""A served demo, and a page on it that notes every request and every error."""

from __future__ import annotations

import contextlib
import json
import re
import time
import urllib.request
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright
from playwright.sync_api import TimeoutError as Late

from heathrise.core.design import Design
from heathrise.formats.project_file import Project, dump_project
from ops.database import Database
from ops.machine import FRONTEND, free_port
from ops.screenshots import CHROMIUM, DESK
from ops.serve import Server, Standin, serving
from ops.setup import browser as chromium_path

DIST = FRONTEND / "dist"
WAIT_MS = 15_000
expect.set_options(timeout=WAIT_MS)


@pytest.fixture(scope="session")
def standin(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Standin]:
    """The stand-in for controllers, a minute of whose gear goes by in each second."""
    running = Standin(tmp_path_factory.mktemp("controllers"), pace=60.0)
    running.start()
    yield running
    running.stop()


@pytest.fixture(scope="session")
def server(database: Database, standin: Standin) -> Iterator[Server]:
    url = database.create("browser", fresh=True)
    with serving(url, free_port(), DIST, controller=standin.base) as running:
        yield running


@pytest.fixture(scope="session")
def chromium() -> Iterator[Browser]:
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path=chromium_path(), args=CHROMIUM)
        yield browser
        browser.close()


@dataclass
class Sheet:
    """A page of the application, and what an installer does on it."""

    page: Page
    server: Server
    hosts: set[str] = field(default_factory=set)
    errors: list[str] = field(default_factory=list)

    def begin(self, name: str) -> None:
        """Begin a new project from an empty sheet."""
        self.page.get_by_role("button", name=re.compile("^New( project)?$")).click()
        self.page.get_by_role("dialog").get_by_label("Name", exact=True).fill(name)
        self.page.get_by_role("button", name="Begin").click()
        expect(self.page.locator(".project .name")).to_have_text(name)
        expect(self.page.get_by_role("dialog")).to_have_count(0)

    def stage(self, name: str) -> None:
        self.page.click(f"[data-stage={name}]")

    def tab(self, name: str) -> None:
        self.page.get_by_role("button", name=name, exact=True).click()

    def totals(self, key: str) -> str:
        return self.page.inner_text(f"[data-tally={key}] .value")

    def saved(self, revision: int) -> None:
        state = self.page.get_by_test_id("save-state")
        expect(state).to_contain_text(f"Saved, revision {revision}", timeout=WAIT_MS)

    def middle(self, mark: str) -> tuple[float, float]:
        left, top, width, height = self.measured(f"[data-mark={mark}] .halo")
        return left + width / 2, top + height / 2

    def measured(self, of: str) -> tuple[float, float, float, float]:
        """Return left, top, width and height of what is drawn now. The page lays itself out for it:
        a browser asked from outside answers as of the last frame it painted."""
        box = self.page.locator(of).first.evaluate("e => e.getBoundingClientRect().toJSON()")
        return box["left"], box["top"], box["width"], box["height"]

    def waits_for(self, what: Callable[[], bool], every_ms: float = 30) -> None:
        """Wait for what is drawn a frame or two after whatever caused it; fail where it never is."""
        until = time.monotonic() + WAIT_MS / 1000
        while not what():
            assert time.monotonic() < until
            self.page.wait_for_timeout(every_ms)

    def box(self, of: str) -> tuple[float, float, float, float]:
        """Return left, top, width and height of what is drawn, once it has come to rest: a band that
        opens beside the sheet moves all that is on it."""
        found: list[tuple[float, float, float, float]] = []

        def at_rest() -> bool:
            found.append(self.measured(of))
            return len(found) > 2 and found[-3:].count(found[-1]) == 3

        self.waits_for(at_rest, every_ms=60)
        return found[-1]

    def middle_of(self, of: str) -> tuple[float, float]:
        left, top, width, height = self.box(of)
        return left + width / 2, top + height / 2

    def press_in(self, of: str, across: float, down: float) -> None:
        """Press at a share of the width and the height of what is drawn."""
        left, top, width, height = self.box(of)
        self.page.mouse.click(left + width * across, top + height * down)

    def drag(self, mark: str, dx: float, dy: float, drop: bool = True) -> None:
        """Drag a mark by pixels, in steps as a hand does."""
        x, y = self.middle_of(f"[data-mark={mark}] .halo")
        mouse = self.page.mouse
        mouse.move(x, y)
        mouse.down()
        for k in range(1, 11):
            mouse.move(x + dx * k / 10, y + dy * k / 10)
        if drop:
            mouse.up()

    def pull(self, handle: str, dx: float, dy: float) -> None:
        """Pull a handle of what is selected by pixels."""
        x, y = self.middle_of(handle)
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + dx, y + dy, steps=4)
        self.page.mouse.up()

    def scale(self) -> float:
        """Pixels to the metre, from the grid's own transform."""
        text = self.page.locator("svg.sheet g[transform*=scale]").first.get_attribute("transform")
        assert text
        return float(text.split("scale(")[1].split()[0])


def make_project(server: Server, design: Design, name: str = "Larkmere") -> str:
    data = dump_project(Project(name, design)).encode()
    request = urllib.request.Request(f"{server.base}/api/import/project", data=data)
    with urllib.request.urlopen(request, timeout=20) as answer:
        return str(json.load(answer)["id"])


@pytest.fixture
def open_sheet(server: Server, chromium: Browser) -> Iterator[Callable[..., Sheet]]:
    """Open a page on a project; every page must end without errors and without other hosts."""
    opened: list[Sheet] = []

    def at(path: str, ready: str = "[data-tally=aps], .cards") -> Sheet:
        context = chromium.new_context(viewport=DESK, accept_downloads=True, reduced_motion="reduce")
        page = context.new_page()
        page.set_default_timeout(WAIT_MS)
        sheet = Sheet(page, server)
        page.on("request", lambda r: sheet.hosts.add(r.url.split("/")[2]))
        page.on("pageerror", lambda e: sheet.errors.append(str(e)))
        page.on("dialog", lambda d: sheet.errors.append(f"dialog: {d.message}"))
        page.goto(server.base + path)
        page.wait_for_selector(ready)
        opened.append(sheet)
        return sheet

    yield at
    for sheet in opened:
        sheet.page.context.close()
        assert sheet.errors == []
        assert sheet.hosts <= {f"127.0.0.1:{server.port}", ""}


@pytest.fixture
def school_sheet(server: Server, school: Design, open_sheet: Callable[..., Sheet]) -> Sheet:
    return open_sheet(f"/p/{make_project(server, school)}/plan")


# A plan that nobody has asked for yet is worked out first, on a slow machine with others beside it.
_WORKED_OUT_MS = 150_000


def tick(page: Page, step: str, why: str = "done as it came") -> None:
    """Tick a step as one does on site: read what can hurt, press its box, say why if it waits."""
    row = page.locator(f"[data-step='{step}']")
    row.locator(".box").wait_for(timeout=_WORKED_OUT_MS)
    read = row.get_by_role("button", name=re.compile("^Read what can hurt"))
    if read.count():
        read.click()
    says = row.locator(".what").inner_text()
    waits = "open step" in says
    row.locator(".box").click()
    if "licensed people only" in says:
        row.get_by_label("Done by, with licence").fill("E. Volt")
        row.get_by_role("button", name="Done", exact=True).click()
    asked = row.get_by_role("alert").filter(has_text="Say why")
    if waits:
        with contextlib.suppress(Late):
            asked.wait_for(timeout=1500)
            row.get_by_label("Reason").fill(why)
            row.get_by_role("button", name="Done", exact=True).click()
