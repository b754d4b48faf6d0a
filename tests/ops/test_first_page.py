"""What the first page loads, as it is built: little enough, and nothing in two forms."""

from __future__ import annotations

import gzip
import json

from ops.machine import FRONTEND

DIST = FRONTEND / "dist"
MOST_BYTES = 150_000


def _parts() -> dict[str, dict]:
    return json.loads((DIST / "manifest.json").read_text("utf-8"))


def _with_imports(parts: dict[str, dict], *names: str) -> set[str]:
    """Return these parts and all that they cannot do without."""
    found: set[str] = set()
    left = list(names)
    while left:
        name = left.pop()
        if name not in found:
            found.add(name)
            left += parts[name].get("imports", [])
    return found


def test_the_first_page_is_small_and_the_stages_are_not_in_it() -> None:
    parts = _parts()
    first = _with_imports(parts, "index.html", "src/shell/StartPage.vue")
    size = sum(len(gzip.compress((DIST / parts[n]["file"]).read_bytes())) for n in first)
    assert size < MOST_BYTES, f"{size:,} bytes of script"
    stages = {n for n in parts if n.startswith("src/stages/") and n.endswith("Stage.vue")}
    assert len(stages) == 10 and not stages & first


def test_icons_and_letters_are_shipped_in_one_form() -> None:
    shipped = {p.suffix for p in (DIST / "assets").iterdir()}
    assert shipped == {".js", ".css", ".woff2"}
