"""Keys in the browser: made, refused, shown for a while, printed, and left nowhere on the device."""

from __future__ import annotations

import io
from pathlib import Path

import pypdfium2
import pytest
from playwright.sync_api import expect

from .conftest import Sheet

pytestmark = pytest.mark.browser

# All that a page can leave on a device.
_LEFT = """async () => {
  const said = [JSON.stringify(localStorage), JSON.stringify(sessionStorage), document.cookie, location.href]
  for (const name of await caches.keys())
    for (const asked of await (await caches.open(name)).keys())
      said.push(asked.url, await (await (await caches.open(name)).match(asked)).text())
  for (const base of await indexedDB.databases()) said.push(base.name)
  for (const one of performance.getEntriesByType('resource')) said.push(one.name)
  return said.join('\\n') + document.body.innerText
}"""


def test_keys_are_made_shown_for_a_while_and_left_nowhere(school_sheet: Sheet, tmp_path: Path) -> None:
    sheet, page = school_sheet, school_sheet.page
    sheet.stage("settings")
    sheet.tab("Keys")
    page.get_by_role("button", name="Make the 2 that are missing").click()
    expect(page.get_by_text("60 bits")).to_have_count(2)
    page.get_by_role("button", name="Type one for Larkmere Pupils").click()
    field = page.get_by_label("Key of Larkmere Pupils", exact=True)
    for key, words in (
        ("larkmere-pupils-2026", "is in a name of this site"),
        ("qwertyuiopasdfgh", "commonest"),
    ):
        field.fill(key)
        page.get_by_role("button", name="Keep it").click()
        expect(page.locator("[data-said]")).to_contain_text(words)
        expect(field).to_have_value("")
    field.fill("otter quartz; kiln 91")
    page.get_by_role("button", name="Keep it").click()
    expect(page.locator("[data-key='name/ssid-pupils']")).to_contain_text("typed, estimated")
    page.get_by_role("button", name="New words for Larkmere Staff").click()
    expect(page.locator("[data-asking]")).to_contain_text("must join anew")
    page.get_by_role("button", name="Leave it").click()
    shown = []
    page.clock.install()
    for name in ("Larkmere Staff", "Larkmere Pupils"):
        page.get_by_role("button", name=f"Show the key of {name}").click()
        shown.append(page.locator("[data-told]").inner_text())
        expect(page.get_by_role("img", name=f"Code that joins {name}")).to_be_visible()
        page.clock.run_for(61_000)
        expect(page.locator("[data-told]")).to_have_count(0)
    assert shown[1] == "otter quartz; kiln 91" and len(set(shown)) == 2
    expect(page.locator("[data-key='name/ssid-staff']")).to_contain_text("on the screen")
    with page.expect_download() as coming:
        page.locator("[data-sealed]").click()
    paper = pypdfium2.PdfDocument(io.BytesIO(Path(coming.value.path()).read_bytes()))
    text = " ".join(p.get_textpage().get_text_bounded() for p in paper)
    assert all(key in text for key in shown)
    expect(page.locator("[data-key='name/ssid-staff']")).to_contain_text("on the sealed copy")
    left = page.evaluate(_LEFT)
    assert "Larkmere" in left and not [key for key in shown if key in left]
    page.context.storage_state(path=tmp_path / "state.json")
    assert not [key for key in shown if key in (tmp_path / "state.json").read_text("utf-8")]
    sheet.stage("handover")
    sheet.tab("Papers")
    expect(page.get_by_role("region", name="Sealed copy")).to_contain_text("Larkmere Staff")
