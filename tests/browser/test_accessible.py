"""Every view by day and by night against WCAG 2.2 AA, checked by axe-core; and on an upright tablet."""

from __future__ import annotations

import itertools
from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from heathrise.core.design import Design
from ops.machine import FRONTEND
from ops.serve import Server

from .conftest import Sheet, make_project

pytestmark = pytest.mark.browser
AXE = FRONTEND / "node_modules" / "axe-core" / "axe.min.js"
TAGS = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
# By night only colours are others: what is named, ordered and reached was looked at by day.
CHECK = """async (tags) => {
  const told = { resultTypes: ['violations'], preload: false }
  const run = async (options) => (await axe.run(document, { ...told, ...options })).violations.flatMap((v) =>
    v.nodes.map((n) => `${v.id}: ${n.target.join(' ')} (${n.any[0]?.message ?? v.help})`))
  const day = await run({
    runOnly: { type: 'tag', values: tags }, rules: {
      'page-has-heading-one': { enabled: true }, 'empty-table-header': { enabled: true },
    },
  })
  document.documentElement.classList.add('night')
  const night = await run({ runOnly: ['color-contrast'] })
  document.documentElement.classList.remove('night')
  return [...day, ...night.map((row) => `by night, ${row}`)]
}"""
LEAST_PX = 44


def violations(page: Page) -> list[str]:
    page.wait_for_timeout(60)  # fades take no time in these tests, but what they end in is drawn
    if not page.evaluate("() => 'axe' in window"):
        page.evaluate(AXE.read_text("utf-8"))
    return list(page.evaluate(CHECK, TAGS))


def stages(page: Page) -> list[str]:
    return list(page.eval_on_selector_all("[data-stage]", "all => all.map(x => x.dataset.stage)"))


def none_of(found: dict[str, list[str]]) -> None:
    """Fail with each violation once, beside the first view it is on."""
    told: dict[str, str] = {}
    for view, rows in found.items():
        for row in rows:
            told.setdefault(row, view)
    assert not told, "\n".join(f"{view}: {row}" for row, view in told.items())


STAGES = {  # with the least number of views of each
    "brief": 2,
    "plan": 2,
    "signal": 6,
    "cable": 2,
    "power": 1,
    "diagram": 6,
    "settings": 5,
    "order": 5,
    "install": 3,
    "handover": 2,
}


@pytest.mark.parametrize("stage", STAGES)
def test_every_view_of_a_stage_meets_wcag_aa(
    stage: str, server: Server, school: Design, open_sheet: Callable[..., Sheet]
) -> None:
    page = open_sheet(f"/p/{make_project(server, school)}/plan").page
    assert stages(page) == list(STAGES)
    page.click(f"[data-stage={stage}]")
    found = {stage: violations(page)}
    for tab in page.get_by_role("group").get_by_role("button").all_inner_texts():
        button = page.get_by_role("button", name=tab, exact=True).first
        # What another part of the stage has shown meanwhile may have taken its place.
        if button.count() and button.get_attribute("aria-pressed") == "false":
            button.click()
            found[f"{stage}, {tab}"] = violations(page)
    none_of(found)
    assert len(found) >= STAGES[stage]


def test_what_opens_on_a_stage_meets_wcag_aa(
    server: Server, school: Design, open_sheet: Callable[..., Sheet]
) -> None:
    page = open_sheet(f"/p/{make_project(server, school)}/brief").page
    page.get_by_role("button", name="Figures of the trade").click()
    found = {"figures": violations(page)}
    page.keyboard.press("Escape")
    page.get_by_role("button", name="On the sheet").click()
    for part in page.locator("[data-part] .head").all():
        part.click()
        found[f"brief, {part.inner_text()[:14]}"] = violations(page)
    page.click("[data-stage=install]")
    page.click("[data-step=mount-ap-6] .what")
    found["a step"] = violations(page)
    page.click("[data-stage=plan]")
    page.get_by_role("button", name="Reasons", exact=True).click()
    page.click("[data-mark=ap-6]")
    found["an access point"] = violations(page)
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Rule").first.click()
    found["a rule"] = violations(page)
    none_of(found)
    assert len(found) >= 8


def test_the_frame_and_its_dialogs_meet_wcag_aa(
    server: Server, school: Design, open_sheet: Callable[..., Sheet]
) -> None:
    page = open_sheet("/").page
    found = {"start": violations(page)}
    page.goto(f"{server.base}/p/{make_project(server, school)}/plan")
    page.wait_for_selector("[data-tally=aps]")
    page.get_by_role("button", name="New", exact=True).click()
    found["new project"] = violations(page)
    page.keyboard.press("Escape")
    page.click(".project")
    found["projects"] = violations(page)
    page.keyboard.press("Escape")
    for name in ("Command palette", "Shortcuts"):
        page.get_by_role("button", name=name).click()
        found[name] = violations(page)
        page.keyboard.press("Escape")
    none_of(found)


def test_on_an_upright_tablet_all_is_reached_by_a_finger(
    server: Server, school: Design, open_sheet: Callable[..., Sheet]
) -> None:
    sheet = open_sheet(f"/p/{make_project(server, school)}/plan")
    page = sheet.page
    page.set_viewport_size({"width": 820, "height": 1180})
    for stage in stages(page):
        page.click(f"[data-stage={stage}]")
        page.wait_for_timeout(200)
        wide, small = page.evaluate(
            """least => [document.documentElement.scrollWidth, [...document.querySelectorAll(
              'button, a, select, input:not([type=checkbox]), [role=combobox], [role=option]')]
              .filter(e => e.offsetParent && !e.disabled && !e.closest('.sheet'))
              .map(e => e.closest('.p-select, .p-multiselect') ?? e)
              .filter(e => e.getBoundingClientRect().height < least - 0.5)
              .map(e => e.outerHTML.slice(0, 120))]""",
            LEAST_PX,
        )
        assert wide <= 820, stage
        assert small == [], stage
    reasons = page.locator("#reasons")
    expect(reasons).to_be_hidden()
    page.click("[data-stage=plan]")
    fold = page.get_by_test_id("fold")
    expect(fold).to_contain_text("finding")
    fold.click()
    expect(reasons).to_be_visible()
    page.click("[data-mark=ap-6]")
    expect(fold).to_contain_text("AP-6")
    boxes = [page.locator(s).bounding_box() for s in (".top", ".rail", ".work", ".side", ".tally")]
    tops = [(b["y"], b["y"] + b["height"]) for b in boxes if b]
    assert len(tops) == 5
    assert all(below[0] >= above[1] - 0.5 for above, below in itertools.pairwise(tops))
    assert tops[-1][1] <= 1180.5
    assert all(sheet.totals(key) for key in ("aps", "price", "open"))


def test_on_an_upright_tablet_nothing_lies_on_another_or_is_cut_off(
    server: Server, school: Design, open_sheet: Callable[..., Sheet]
) -> None:
    """With a project's name as long as one may be: the bar, the stages, what lies under a sheet."""
    long = "A very long name of a job that somebody typed in full, street and all"
    page = open_sheet(f"/p/{make_project(server, school, long)}/signal").page
    page.set_viewport_size({"width": 820, "height": 1180})
    page.wait_for_selector("[data-layer=relief]")

    def boxes(of: str) -> list[tuple[float, float]]:
        found = [b.bounding_box() for b in page.locator(of).all() if b.is_visible()]
        return [(b["x"], b["x"] + b["width"]) for b in found if b and b["width"]]

    for row, least in ((".top > *:not(.gap)", 8), (".rail > *", 9), (".drawers > *", 8)):
        spans = sorted(boxes(row))
        assert len(spans) >= least, row
        assert all(b[0] >= a[1] - 0.5 for a, b in itertools.pairwise(spans)), row
        assert spans[0][0] >= 0 and spans[-1][1] <= 820, row
    rail = boxes(".rail > *")
    assert max(b for _, b in rail) <= 816  # the last stage does not touch the edge
    cut = page.evaluate(
        """() => [...document.querySelectorAll('.rail .text, .rail .title, .drawer')]
          .filter(e => e.scrollWidth > e.clientWidth + 1).map(e => e.textContent)"""
    )
    assert cut == []
