"""A site is brought up against the stand-in: in order, with faults, pushed, drift found and put back."""

from __future__ import annotations

import re
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass

import pytest
from playwright.sync_api import Page, expect
from playwright.sync_api import TimeoutError as Late

from heathrise.controller import Controller
from heathrise.core.design import Design, apply
from heathrise.demo.music_school import mended_school
from ops.serve import Server, Standin

from .conftest import Sheet, make_project

pytestmark = pytest.mark.browser

LONG_MS = 90_000


@dataclass
class Site:
    """A page on a project, and its controller as the stand-in has it."""

    sheet: Sheet
    controller: Controller

    @property
    def page(self) -> Page:
        return self.sheet.page


@pytest.fixture
def site(server: Server, standin: Standin, school: Design, open_sheet: Callable[..., Sheet]) -> Site:
    """The school as it was built in the end: 26 devices that a controller holds."""
    project = make_project(server, apply(school, mended_school(school)))
    sheet = open_sheet(f"/p/{project}/settings")
    sheet.tab("Controller")
    return Site(sheet, Controller(f"{standin.base}/sites/{project}/v1", project))


def _plug_in(site: Site, faults: str) -> None:
    site.page.get_by_role("combobox", name="Faults").click()
    site.page.get_by_role("option", name=faults).click()
    site.page.locator("[data-plug]").click()
    expect(site.page.locator("[data-gear=sw-1]")).to_be_visible()


def _rung(page: Page, number: int) -> None:
    page.locator(f"[data-rung='{number}']").click()


def _all_of(page: Page, number: int) -> None:
    """Do all that a step has until it says that it is done."""
    done = page.locator("li.done", has=page.locator(f"[data-rung='{number}']"))
    _rung(page, number)
    for _ in range(40):
        if done.count():
            return
        for button in (page.locator("[data-all]"), page.locator(".items .p-button:not([aria-pressed])")):
            # It may be gone by now: what it does was done meanwhile.
            with suppress(Late):
                if button.count() and button.first.is_enabled(timeout=1_000):
                    button.first.click(timeout=2_000)
                    break
        page.wait_for_timeout(700)
    expect(done).to_have_count(1)


def test_a_school_is_brought_up_with_two_faults_and_its_drift_put_back(site: Site) -> None:
    sheet, page = site.sheet, site.page
    expect(page.locator("[data-trouble]")).to_contain_text("there is no site")
    _plug_in(site, "2 with a fault")
    expect(page.locator("[data-adopt]")).to_be_disabled()  # the controller first
    sheet.tab("Guests")
    for name in ("40 codes for Concert evening", "6 codes for Guest teachers"):
        page.get_by_role("button", name=f"Make {name}").click()
    expect(page.get_by_text("No codes yet.")).to_have_count(0)
    sheet.tab("Keys")
    page.locator("[data-make-missing]").click()
    expect(page.locator("[data-make-missing]")).to_have_count(0)
    sheet.stage("install")
    sheet.tab("Bring-up")
    _rung(page, 6)
    expect(page.locator("[data-item=adopt-sw-1]")).to_contain_text("the controller first (step 3)")
    _rung(page, 1)
    page.get_by_text("The line, or the network above").click()
    expect(page.locator("li.done", has=page.locator("[data-rung='1']"))).to_have_count(1)
    for number in (3, 5, 6, 7, 9, 10, 8, 4, 13):
        _all_of(page, number)
    _rung(page, 8)
    page.get_by_label("Let SW-1 blink").click()
    sheet.stage("settings")
    sheet.tab("Controller")
    expect(page.locator("[data-gear=sw-1] .blink")).to_be_visible()
    expect(page.get_by_role("heading", name="Everything held is as planned")).to_be_visible()
    expect(page.locator("[data-online]")).to_have_text("26 of 26 online")
    # Somebody changes two settings behind the plan's back.
    serial = next(g.serial for g in site.controller.gear() if g.label == "AP-1")
    site.controller.send(f"device/{serial}", {"radio.5.power_dbm": 5})
    site.controller.send("network/net-guest", {"lease_hours": 99})
    power = page.locator("[data-differs='device/ap-1 radio.5.power_dbm']")
    expect(power).to_contain_text("5", timeout=LONG_MS)
    page.locator("[data-read]").click()
    lease = page.locator("[data-differs='network/net-guest lease_hours']")
    expect(lease).to_contain_text("99")
    lease.get_by_role("button", name="Take over").click()
    state = page.get_by_test_id("save-state")
    expect(state).to_contain_text("Saved, revision 2", timeout=LONG_MS)
    expect(lease).to_have_count(0)
    power.get_by_role("button", name="Put back").click()
    expect(page.locator("[data-ended]")).to_have_text("1 of 1 steps hold, read back.", timeout=LONG_MS)
    expect(page.get_by_role("heading", name="Everything held is as planned")).to_be_visible()
    page.locator("[data-measured]").click()
    expect(page.locator("[data-air] tbody tr").first).to_be_visible()
    # The access points listen at the quiet hour; what they hear comes into the plan.
    page.locator("[data-scan]").click()
    expect(page.locator("[data-scan-warning]")).to_contain_text(
        "24 access points carry nobody for about 4 min"
    )
    expect(page.locator("[data-scan-now]")).to_be_disabled()
    page.locator("[data-scan-quiet]").click()
    expect(page.locator("[data-scan-view]")).to_contain_text("will listen on 8 Mar, 02:00")
    page.locator("[data-scan-pass]").click()
    expect(page.locator("[data-strip='2.4'] .stranger").first).to_be_visible(timeout=LONG_MS)
    page.locator("[data-scan-take]").click()
    expect(state).to_contain_text("Saved, revision 3", timeout=LONG_MS)
    expect(page.locator("[data-scan-known]")).to_be_visible(timeout=LONG_MS)


def test_a_push_is_kept_as_a_backup_and_undone(site: Site) -> None:
    page = site.page
    _plug_in(site, "no faults")
    while site.controller.about().offers or site.controller.about().updating:
        update = page.locator("[data-update-itself]")
        if update.count():
            update.click()
        page.wait_for_timeout(500)
    page.locator("[data-adopt]").click()
    expect(page.locator("[data-online]")).to_have_text("26 of 26 online", timeout=LONG_MS)
    page.locator("[data-push]").click()
    expect(page.locator("[data-ended]")).to_contain_text("steps hold, read back", timeout=LONG_MS)
    expect(page.locator("[data-ended]")).to_have_class("met")
    page.get_by_label("What the backup is for").fill("hand-over")
    page.locator("[data-backup]").click()
    expect(page.locator("[data-backup-row]")).to_contain_text("hand-over")
    page.get_by_role("button", name="Undo it").click()
    expect(page.get_by_text("settings not as planned")).to_be_visible(timeout=LONG_MS)


def test_a_trainee_brings_a_copy_up_and_is_told_what_he_missed(site: Site) -> None:
    sheet, page = site.sheet, site.page
    sheet.stage("settings")
    sheet.tab("Controller")
    page.get_by_role("combobox", name="Faults").click()
    page.get_by_role("option", name="no faults").click()
    page.locator("[data-practise]").click()
    page.get_by_label("Who practises").fill("Ann")
    page.locator("[data-begin-round]").click()
    clock = page.get_by_test_id("round")
    expect(clock).to_contain_text("Ann practises", timeout=LONG_MS)
    expect(page.locator(".project .name")).to_contain_text("Ann practises: ")
    for tick in page.locator(".items input[type=checkbox]").all():
        tick.click()
    for number in (3, 6, 7):
        _all_of(page, number)
    _rung(page, 12)
    page.locator("[data-measure]").click()
    expect(page.locator("li.done", has=page.locator("[data-rung='12']"))).to_have_count(1)
    page.locator("[data-end]").click()
    page.locator("[data-end-it]").click()
    told = page.get_by_test_id("debrief")
    expect(told).to_contain_text(re.compile(r"Ann: \d+ of \d+ done in"))
    missed = told.locator("[data-missed]")
    expect(missed.filter(has_text="Backup: 1 of 1 left")).to_contain_text(
        "What is right now can be had again"
    )
    expect(missed.filter(has_text="Controller, account, second factor")).to_have_count(1)
    expect(missed.filter(has_text="Update the gear")).to_have_count(0)
    expect(told).to_contain_text("None were given.")
    expect(told.locator("svg.lanes rect").first).to_be_visible()
    page.get_by_role("button", name="Back to the plan").click()
    expect(page.locator(".project .name")).not_to_contain_text("practises: ")
    assert not [e for e in sheet.errors if "409" not in e]
