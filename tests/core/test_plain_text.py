"""Text that papers, tables and drawings can hold."""

from __future__ import annotations

import io
from xml.etree import ElementTree

from hypothesis import given
from hypothesis import strategies as st
from openpyxl import Workbook

from heathrise.core.base.plain_text import plain, plain_line, plain_values

ANY = st.text(st.characters(), max_size=40)


@given(ANY)
def test_any_text_can_stand_in_a_drawing_and_a_table(text: str) -> None:
    """Against readers and writers of their own: XML of the standard library, openpyxl."""
    line = plain_line(text)
    escaped = line.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")
    assert (ElementTree.fromstring(f"<t>{escaped}</t>").text or "") == line
    book = Workbook()
    book.active["A1"] = f"x{line}"
    book.save(io.BytesIO())
    line.encode("utf-8")
    assert "\n" not in line and plain_line(line) == line and plain(plain(text)) == plain(text)


@given(ANY)
def test_what_can_be_shown_stays_as_it_is(text: str) -> None:
    if text.isprintable():
        assert plain(text) == plain_line(text) == text


def test_values_of_an_element_are_lines() -> None:
    given = {"name": "A\x0bB", "rules": ["x\ty", 3], "at": [1.0, 2.0], "none": None}
    assert plain_values(given) == {"name": "AB", "rules": ["x y", 3], "at": [1.0, 2.0], "none": None}
