"""What is printed, opened again: its text, its pages, and what it leaves out."""

from __future__ import annotations

import math
import re
from datetime import date

import pypdfium2
import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Complaint, Design, Device, Floor, Site, Wall, apply, put
from heathrise.core.views.labels import project_labels
from heathrise.demo import SITES
from heathrise.formats.papers import NO_HEAD, brief_pdf, labels_pdf
from heathrise.formats.papers.render import html_of, pdf_of
from heathrise.formats.sheets import draw_sheet
from heathrise.formats.sheets.paper import Paper

A4_PT, LETTER_PT = (595.3, 841.9), (612.0, 792.0)


def _text(data: bytes) -> str:
    pages = list(pypdfium2.PdfDocument(data))
    return "\n".join(p.get_textpage().get_text_bounded() for p in pages).replace("\r\n", "\n")


def _brief(design: Design, catalogue: Catalogue, name: str = "A & <B>") -> bytes:
    return brief_pdf(name, 7, Plan(design, catalogue, on=date(2026, 11, 25)))


@pytest.mark.parametrize("key", [site.key for site in SITES])
def test_the_brief_has_two_pages_and_says_what_was_asked(key: str) -> None:
    design = next(s for s in SITES if s.key == key).make()
    data = _brief(design, load_catalogue())
    document = pypdfium2.PdfDocument(data)
    assert len(document) == 2
    assert document[0].get_size() == pytest.approx(A4_PT, abs=0.5)
    text = re.sub(r"\s+", " ", _text(data))
    for pain in design.of(Complaint).values():
        assert pain.words in text
    assert "A & <B>" in text and "revision 7" in text and "2026-11-25" in text
    assert design.site.client_name in text and "Client, date" in text


def test_papers_follow_the_units_of_the_site(catalogue: Catalogue) -> None:
    design = next(s for s in SITES if s.key == "mill").make()
    metric = _text(_brief(design, catalogue))
    site = design.site.model_copy(update={"units": "imperial"})
    data = _brief(apply(design, [put(site)]), catalogue)
    assert pypdfium2.PdfDocument(data)[0].get_size() == pytest.approx(LETTER_PT, abs=0.5)
    metres = float(re.search(r"spare cables of (\d+)\sm", metric)[1])  # type: ignore[index]
    feet = float(re.search(r"spare cables of (\d+)\sft", _text(data))[1])  # type: ignore[index]
    assert feet == pytest.approx(metres / 0.3048, abs=2)


def test_an_empty_brief_says_so(catalogue: Catalogue) -> None:
    text = _text(_brief(Design({"site": {"site": Site(id="site")}}), catalogue))
    assert "Nothing was complained of." in text and "Nobody was counted yet." in text


def test_a_sheet_is_to_scale(catalogue: Catalogue, school: Design) -> None:
    """The drawing is as wide as the storey by its scale, and walls as long as they are."""
    sheet = draw_sheet(school, catalogue, "ground", (250.0, 180.0))
    walls = [w for w in school.of(Wall).values() if w.floor == "ground"]
    xs = [x for w in walls for x in (w.a[0], w.b[0])]
    assert sheet.scale == 200
    assert sheet.wide_mm == pytest.approx((max(xs) - min(xs)) * 5 + 12, abs=0.1)
    drawn = [
        tuple(map(float, m))
        for m in re.findall(r'd="M([\d.]+) ([\d.]+)L([\d.]+) ([\d.]+)" stroke="#\w+" stroke-w', sheet.svg)
    ]
    lengths = sorted({round(math.dist(d[:2], d[2:]), 1) for d in drawn})
    for wall in walls:
        assert any(abs(size - wall.length_m * 5) < 0.11 for size in lengths)


@pytest.mark.parametrize("key", [site.key for site in SITES])
def test_texts_by_devices_are_read_and_no_mark_lies_on_another(key: str) -> None:
    """Capitals of the type are 0.7 of its size; 1.8 mm is the least height of letters on a
    drawing."""
    site = next(s for s in SITES if s.key == key)
    design, catalogue = site.make(), load_catalogue()
    named = 0
    for floor in design.of(Floor):
        here = {d.name for d in design.of(Device).values() if d.floor == floor}
        svg = draw_sheet(design, catalogue, floor, (190.0, 270.0)).svg
        for size, text in re.findall(r'<text [^>]*font-size="([\d.]+)"[^>]*>([^<]+)</text>', svg):
            assert float(size) * 0.7 >= 1.8, text
            named += text in here
        spots = re.findall(r'<g transform="translate\(([\d.-]+) ([\d.-]+)\) scale', svg)
        marks = [(float(x), float(y)) for x, y in spots]
        assert len(marks) >= len(here)
        apart = [math.dist(a, b) for k, a in enumerate(marks) for b in marks[:k]]
        assert min(apart, default=9.0) > 4.5
    assert named > 0.9 * len(design.of(Device))


def test_a_sheet_takes_the_largest_scale_that_fits(catalogue: Catalogue, school: Design) -> None:
    for room, scale in (((1000, 1000), 50), ((430, 300), 100), ((110, 90), 500)):
        sheet = draw_sheet(school, catalogue, "ground", room)
        assert sheet.scale == scale
        assert sheet.wide_mm <= room[0] and sheet.high_mm <= room[1]


def test_names_are_words_not_markup(catalogue: Catalogue, school: Design) -> None:
    space = next(iter(school.tables["space"].values())).model_copy(update={"name": '<b>&"x'})
    sheet = draw_sheet(apply(school, [put(space)]), catalogue, "ground", (1000, 1000))
    assert "<b>" not in sheet.svg and "&lt;b&gt;&amp;" in sheet.svg


def test_papers_read_nothing_from_elsewhere() -> None:
    probe = '<img src="file:///etc/hostname"><img src="http://127.0.0.1:9/x.png">fine'
    assert "fine" in _text(pdf_of(f"<html><body>{probe}</body></html>"))
    assert "&lt;script&gt;" in html_of(
        "brief.html",
        head=NO_HEAD,
        style="",
        size="A4",
        name="<script>",
        revision=1,
        today="",
        facts=[],
        pains=[],
        tones={},
        outcomes={},
        sheets=[],
        rooms=[],
        walks=(),
        found=[],
        states={},
        advice={},
        limits=[],
    )


@pytest.mark.parametrize("key", list(load_catalogue().label_sheets))
def test_labels_lie_where_the_sheet_has_them(key: str, school: Design) -> None:
    """Each label's text begins within its own label, measured on the page."""
    sheet = load_catalogue().label_sheets[key]
    labels = project_labels(Plan(school, load_catalogue()))
    data = labels_pdf("School", labels, sheet)
    document = pypdfium2.PdfDocument(data)
    each = sheet.columns * sheet.rows
    assert len(document) == math.ceil(2 * len(labels) / each)
    ends = [end for x in labels for end in (x.near, x.far)]
    for number, page in enumerate(document):
        high_mm, text = page.get_height() / 72 * 25.4, page.get_textpage()
        for k, end in enumerate(ends[number * each : (number + 1) * each]):
            found = text.search(end, match_case=True).get_next()
            assert found is not None, end
            left, _, _, top = text.get_charbox(found[0])
            x_mm, y_mm = left / 72 * 25.4, high_mm - top / 72 * 25.4
            column, row = k % sheet.columns, k // sheet.columns
            assert 0 < x_mm - sheet.left_mm - column * sheet.step_x_mm < sheet.wide_mm / 2
            assert 0 < y_mm - sheet.top_mm - row * sheet.step_y_mm < sheet.high_mm
            last = text.get_charbox(found[0] + len(end) - 1)[2] / 72 * 25.4
            assert last < sheet.left_mm + column * sheet.step_x_mm + sheet.wide_mm


@given(st.lists(st.tuples(st.floats(0, 60), st.floats(0, 40)), max_size=24))
def test_marks_on_paper_stand_apart_and_near_where_they_are(spots: list[tuple[float, float]]) -> None:
    """However many lie on one another: each a mark's width from all others, or, with no free
    spot within reach, where it is."""
    paper = Paper(0.0, 0.0, 100)
    stood = [paper.stand(s) for s in spots]
    for k, (spot, at) in enumerate(zip(spots, stood, strict=True)):
        assert math.dist(spot, at) < 9.6
        near = [other for other in stood[:k] if math.dist(at, other) < 4.5]
        assert not near or at == spot
        if all(math.dist(spot, other) > 4.6 for other in stood[:k]):
            assert at == spot
    assert len(paper.taken) == len(spots)
