"""One small job through all nine stages: from the first visit to the last signature."""

from __future__ import annotations

import io
import json
import re
import urllib.request
from pathlib import Path
from typing import Any

import pypdfium2
import pytest
from playwright.sync_api import Browser, Page, expect

from bench.flat import Hand, draw_flat
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.acceptance import planned_ports
from heathrise.core.views.labels import project_labels
from heathrise.formats.project_file import load_project
from heathrise.standins import measured_csv, metered_csv
from ops.database import Database
from ops.machine import free_port
from ops.serve import Server

from .conftest import DIST, tick

pytestmark = pytest.mark.browser
_DESK, _TABLET = {"width": 1280, "height": 800}, {"width": 820, "height": 1180}


def _text(data: bytes) -> str:
    pages = pypdfium2.PdfDocument(io.BytesIO(data))
    return re.sub(r"\s+", " ", " ".join(p.get_textpage().get_text_bounded() for p in pages))


def _printed(page: Page, selector: str) -> bytes:
    with page.expect_download() as printed:
        page.click(selector)
    return Path(printed.value.path()).read_bytes()


def _get(server: Server, path: str) -> Any:
    with urllib.request.urlopen(f"{server.base}{path}", timeout=20) as answer:
        return answer.read()


def test_a_job_from_the_first_visit_to_the_last_signature(chromium: Browser, tmp_path: Path) -> None:
    own = Database(tmp_path / "db")
    own.start()
    server = Server(own.create("job"), free_port(), DIST, demo=False)
    try:
        server.start()
        server.wait_ready()
        context = chromium.new_context(viewport=_DESK, accept_downloads=True)  # type: ignore[arg-type]
        page = context.new_page()
        errors: list[str] = []
        page.on("pageerror", lambda e: errors.append(str(e)))
        page.goto(server.base)
        page.wait_for_selector("text=New project")
        hand = draw_flat(page)  # plan, signal, power and settings by what is offered there
        project = page.url.split("/p/")[1].split("/")[0]
        _visit(page, hand)
        _checked(page)
        _ordered(page)
        _installed(page, server, project)
        _built_otherwise(page, hand)
        _proven(page, server, project, tmp_path)
        _handed_over(page)
        assert errors == []
        context.close()
    finally:
        server.stop()
        own.stop()


def _visit(page: Page, hand: Hand) -> None:
    """What the client says, with the words of the visit, and the paper to agree on."""
    page.click("[data-stage=brief]")
    page.get_by_label("Client", exact=True).fill("R. Ling")
    page.get_by_label("Client", exact=True).press("Tab")
    hand.saved()
    page.get_by_role("button", name="On the sheet", exact=True).click()
    page.click("[data-part=pains] .head")
    page.click("[data-tool=pain_dead]")
    box = page.locator("[data-space]").first.bounding_box() or page.locator("svg.sheet").bounding_box()
    assert box
    page.mouse.click(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    hand.saved()
    page.get_by_label("Words of complaint 1").fill("Nothing works in here.")
    page.get_by_label("Words of complaint 1").press("Tab")
    hand.saved()
    brief = _text(_printed(page, "[data-print=brief_pdf]"))
    assert "R. Ling" in brief and "Nothing works in here." in brief
    page.keyboard.press("Escape")


def _checked(page: Page) -> None:
    for stage in ("plan", "signal", "cable", "power", "settings"):
        page.click(f"[data-stage={stage}]")
        expect(page.locator(f"[data-stage={stage}] .text")).not_to_have_text("not begun")
    page.click("[data-stage=cable]")
    page.get_by_role("button", name="List", exact=True).click()
    expect(page.locator("[data-run-row]")).to_have_count(1)


def _ordered(page: Page) -> None:
    page.click("[data-stage=order]")
    total = page.locator(".total .figure").inner_text()
    offer = _text(_printed(page, "[data-print=quote_pdf]"))
    assert f"Total, EUR {total}" in offer and "For R. Ling." in offer
    page.click("[data-stage=handover]")
    page.get_by_test_id("agree").click()
    expect(page.get_by_text(re.compile("Built as revision"))).to_be_visible()


def _installed(page: Page, server: Server, project: str) -> None:
    """The work on a tablet; the last of it without a connection."""
    page.set_viewport_size(_TABLET)  # type: ignore[arg-type]
    page.click("[data-stage=install]")
    page.wait_for_selector("[data-step=safe]")
    page.get_by_label("Your name").fill("Jo")
    page.get_by_label("Your name").press("Tab")
    page.wait_for_function("navigator.serviceWorker.controller !== null")
    page.reload()
    page.wait_for_selector("[data-step=safe]")
    page.wait_for_timeout(500)
    steps = [s["id"] for s in json.loads(_get(server, f"/api/projects/{project}/work"))["steps"]]
    page.get_by_role("button", name="All", exact=True).click()
    with_server, without = steps[: len(steps) // 2], steps[len(steps) // 2 :]
    for step in with_server:
        tick(page, step)
    server.stop()
    for step in without:
        if step != "papers":
            tick(page, step)
    page.click("[data-step=walk] .what")
    expect(page.locator("[data-step=walk] .said")).to_contain_text("kept here")
    expect(page.get_by_test_id("work-state")).to_contain_text("kept here, no connection")
    page.reload()
    expect(page.get_by_test_id("work-state")).to_contain_text("kept here")
    server.start()
    server.wait_ready()
    expect(page.get_by_test_id("work-state")).to_have_text("All ticks saved", timeout=20_000)
    stands = json.loads(_get(server, f"/api/projects/{project}/work"))["stands"]
    assert {s["step"] for s in stands if s["state"] == "done"} == set(steps) - {"papers"}


def _built_otherwise(page: Page, hand: Hand) -> None:
    """On the day the access point goes elsewhere than agreed."""
    page.set_viewport_size(_DESK)  # type: ignore[arg-type]
    page.click("[data-stage=plan]")
    page.locator("[data-mark=ap-1]").click()
    page.keyboard.press("Shift+ArrowRight")
    hand.saved()
    page.click("[data-stage=install]")


def _proven(page: Page, server: Server, project: str, folder: Path) -> None:
    """Faults that the stand-ins find, a snag, and each of them mended."""
    data = _get(server, f"/api/projects/{project}/export/project.json")
    design = load_project(data, load_catalogue()).design
    evaluation = evaluate(Plan(design, load_catalogue()))
    labels = project_labels(Plan(design, load_catalogue()))
    lengths = {k.id: k.fixed_m for k in evaluation.cable.links}
    ports = planned_ports(Plan(design, load_catalogue()))
    told = folder / "told.csv"

    def take(text: str, words: str) -> None:
        told.write_text(text, "utf-8")
        page.get_by_test_id("list-file").set_input_files(told)
        expect(page.get_by_text(words)).to_be_visible()

    page.get_by_role("button", name="Cables", exact=True).click()
    take(measured_csv(labels, lengths, 1, 1, "2026-11-24")[0], f"{len(labels)} tests taken.")
    expect(page.locator("[data-cable] td.not_met")).to_have_count(1)
    take(measured_csv(labels, lengths, 2, 0, "2026-11-25")[0], f"{len(labels)} tests taken.")
    expect(page.locator("[data-cable]")).to_have_count(0)

    page.get_by_role("button", name="Ports", exact=True).click()
    take(metered_csv(ports, 1, 1, "2026-11-24")[0], f"{len(ports)} ports taken.")
    expect(page.locator("[data-port] td.not_met")).to_contain_text("usually a bad pair")
    take(metered_csv(ports, 1, 0, "2026-11-25")[0], f"{len(ports)} ports taken.")
    expect(page.locator("[data-port]")).to_have_count(0)

    page.get_by_role("button", name="Snags", exact=True).click()
    page.get_by_label("What is left to mend").fill("Bracket is loose")
    page.get_by_label("Who mends it").fill("Ben")
    page.get_by_role("button", name="Note it").click()
    snag = page.locator("[data-snag]")
    expect(snag).to_contain_text("Bracket is loose")
    page.click("[data-stage=handover]")
    expect(page.locator("[data-open=snags]")).to_contain_text("Bracket is loose, Ben")
    page.click("[data-open=snags]")
    page.get_by_role("button", name="Snags", exact=True).click()
    snag.get_by_role("button", name="Mended").click()
    expect(snag).to_have_count(0)


def _handed_over(page: Page) -> None:
    page.click("[data-stage=handover]")
    expect(page.locator("[data-built=ap-1]")).to_contain_text("from where it was agreed")
    expect(page.locator("[data-promise=Cables] .word")).to_have_text("as promised")
    expect(page.locator("[data-promise=Links] .word")).to_have_text("as promised")
    expect(page.locator("[data-open=snags]")).to_have_count(0)
    page.get_by_role("button", name="Papers", exact=True).click()
    page.get_by_test_id("hand-over").click()
    past = page.locator("[data-handover]")
    expect(past).to_contain_text("by Jo", timeout=30_000)
    client = _text(_printed(page, "[data-handover] >> text=For the client"))
    assert "Nothing works in here." in client and "mended" in client and "R. Ling" in client
    assert "heard by Jo" in client and "WIFI" not in client
    technician = _printed(page, "[data-handover] >> text=For the technician")
    assert "passed" in _text(technician) and "AP-1" in _text(technician)
    wide, high = pypdfium2.PdfDocument(technician)[0].get_size()
    assert (wide, high) == pytest.approx((595.3, 841.9), abs=0.5)
    sheets = _printed(page, "[data-print=sheets_pdf]")
    assert len(pypdfium2.PdfDocument(sheets)) == 1
    page.get_by_label("Name of who receives it").fill("R. Ling")
    page.get_by_role("button", name="Received", exact=True).click()
    expect(past).to_contain_text("Received by R. Ling")
    expect(page.locator("[data-stage=handover] .text")).to_have_text("received")
