"""HTML into PDF: one set of fonts, one style, nothing fetched from anywhere."""

from __future__ import annotations

import atexit
import contextlib
import re
from functools import cache
from pathlib import Path
from queue import Empty, SimpleQueue
from typing import Any

from jinja2 import Environment, FileSystemLoader, StrictUndefined
from markupsafe import Markup

HERE = Path(__file__).parent
FEET_PER_M = 3.280839895
_JOIN = "\u00a0"
_METRES = re.compile(rf"(-?\d+(?:\.\d+)?){_JOIN}m\b(?![²³])")
_CELSIUS = re.compile(rf"(-?[\d.]+){_JOIN}°C")


class Papers:
    """Words for figures on paper, in the units that a site's papers are in."""

    def __init__(self, units: str) -> None:
        self._feet = units == "imperial"

    def length(self, metres: float, digits: int = 1) -> str:
        """Return a length in words."""
        if self._feet:
            return f"{metres * FEET_PER_M:.{digits}f}{_JOIN}ft"
        return f"{metres:.{digits}f}{_JOIN}m"

    def words(self, said: str) -> str:
        """Return a sentence with its lengths and temperatures in the units of the site; a
        no-break space before the unit tells which they are."""
        if not self._feet:
            return said
        said = _METRES.sub(lambda m: self.length(float(m[1]), len(m[1].partition(".")[2])), said)
        return _CELSIUS.sub(lambda m: f"{float(m[1]) * 1.8 + 32:.0f}{_JOIN}°F", said)

    @property
    def size(self) -> str:
        """The page that goes with the units, as CSS names it."""
        return "letter" if self._feet else "A4"


def style() -> Markup:
    """Return the one style of all papers."""
    return Markup((HERE / "templates" / "paper.css").read_text("utf-8"))


@cache
def _environment() -> Environment:
    return Environment(
        loader=FileSystemLoader(HERE / "templates"),
        autoescape=True,
        undefined=StrictUndefined,
        trim_blocks=True,
        lstrip_blocks=True,
    )


def html_of(template: str, **values: Any) -> str:
    """Return a template filled in; all text is escaped."""
    return _environment().get_template(template).render(**values)


def pdf_of(html: str) -> bytes:
    """Return HTML as PDF. Only the shipped fonts and styles are read."""
    from weasyprint import HTML
    from weasyprint.text.fonts import FontConfiguration
    from weasyprint.urls import URLFetcher

    class OwnOnly(URLFetcher):  # type: ignore[misc]
        def fetch(self, url: str, headers: Any = None) -> Any:
            if not url.startswith((HERE.as_uri() + "/", "data:")):
                raise ValueError(f"papers read nothing from {url[:60]}")
            return super().fetch(url, headers)

    document = HTML(string=html, base_url=HERE.as_uri() + "/", url_fetcher=OwnOnly())
    # Fonts are the same for all papers; each set of them has a folder of files while it lives.
    try:
        fonts = _fonts.get_nowait()
    except Empty:
        fonts = FontConfiguration()
    try:
        return bytes(document.write_pdf(font_config=fonts))
    finally:
        _fonts.put(fonts)


_fonts: SimpleQueue[Any] = SimpleQueue()


@atexit.register
def _let_fonts_go() -> None:
    """Have each set of fonts take its folder along, which an interpreter that ends may not."""
    with contextlib.suppress(Empty):
        while True:
            _fonts.get_nowait().__del__()
