"""Hand-over and sheets on paper, opened again: text, sizes, scale, codes, and what they leave out."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from datetime import date
from functools import cache
from xml.etree import ElementTree

import pypdfium2
import pytest

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, DesignError, Device, Floor, Site, Wall, apply, put
from heathrise.core.handover import Handover
from heathrise.core.records import (
    CableTest,
    PortReading,
    SnagRecord,
    StepRecord,
    cables_as_tested,
    ports_as_seen,
    snags_as_left,
    steps_as_done,
)
from heathrise.core.views.acceptance import planned_cables, planned_ports
from heathrise.core.views.handover import Observed, handover_of
from heathrise.core.views.work_list import steps_of
from heathrise.demo import SITES
from heathrise.formats.papers import (
    Drawn,
    History,
    client_pdf,
    drawn_of,
    sealed_pdf,
    sheet_svg,
    sheets_pdf,
    technician_pdf,
)
from heathrise.formats.papers.handover import code_svg
from heathrise.formats.sheets import PAPERS, draw_sheet

TODAY = date(2026, 11, 25)
PT_MM = 25.4 / 72
_FLAT = {key: (high, wide) for key, (wide, high) in PAPERS.items()}


@dataclass
class Job:
    design: Design
    drawn: Drawn
    handover: Handover
    seen: Observed


@cache
def _job(key: str, imperial: bool = False) -> Job:
    site = next(s for s in SITES if s.key == key)
    design, catalogue = site.make(), load_catalogue()
    if imperial:
        design = apply(design, [put(design.site.model_copy(update={"units": "imperial"}))])
    plan = Plan(design, catalogue, on=TODAY)
    records = site.records(design) if site.records is not None else []

    def of(cls: type) -> list:
        return [r for r in records if isinstance(r, cls)]

    rules = catalogue.rules
    seen = Observed(
        cables=cables_as_tested(rules, planned_cables(plan), of(CableTest)),
        ports=ports_as_seen(rules, planned_ports(plan), of(PortReading)),
        snags=snags_as_left(of(SnagRecord), TODAY),
        steps=steps_of(plan),
        stands=steps_as_done(of(StepRecord)),
    )
    handover, drawn = handover_of(plan, seen), drawn_of("A & <B>", 7, plan)
    return Job(design, drawn, handover, seen)


def _pages(data: bytes) -> list[str]:
    document = pypdfium2.PdfDocument(data)
    return [re.sub(r"\s+", " ", p.get_textpage().get_text_bounded()) for p in document]


def _unbroken(text: str) -> str:
    """Return a text without hyphens: one at the end of a line is read as a sign of its own."""
    return re.sub(r"[-\x02\ufffe]", "", text)


def _drawn(data: bytes) -> list[str]:
    """Return the text of pages that are drawings: its letters are placed one by one, without
    spaces."""
    return [re.sub(r"\s+", "", page) for page in _pages(data)]


def _sizes(data: bytes) -> list[tuple[float, float]]:
    return [(w * PT_MM, h * PT_MM) for w, h in (p.get_size() for p in pypdfium2.PdfDocument(data))]


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_the_client_reads_first_what_is_open_then_all_that_was_promised(key: str) -> None:
    job = _job(key)
    pages = _pages(client_pdf(job.drawn, job.handover))
    text = " ".join(pages)
    assert "Still open, and not yet measured" in pages[0] and "revision 7" in pages[0]
    wrong = [p for p in job.handover.still_open if p.tone == "not_met" and p.group != "plan"]
    for point in wrong:
        assert point.text.replace("\u00a0", " ") in pages[0]
    if any(p.group == "signal" for p in job.handover.still_open):
        assert "not measured" in text
    for promise in job.handover.promises:
        assert promise.promised in text and promise.measured in text
    for pain in job.drawn.evaluation.brief.pains:
        assert _unbroken(pain.words) in _unbroken(text)
    for join in (j for j in job.handover.joins if j.people):
        assert join.ssid in text
    for device in (
        d for d in job.drawn.design.of(Device).values() if job.drawn.catalogue.role_of(d).mark == "trig"
    ):
        assert device.name in text
    assert job.design.site.contact in text and "dBm at worst" not in text
    assert "A & <B>" in text and "Received, client, date" in text


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_the_technician_finds_every_port_label_network_and_storey(key: str) -> None:
    job = _job(key)
    data = technician_pdf(job.drawn, job.handover, job.seen, [History(7, "2026-11-20", "Ann", "Moved AP-1")])
    pages, sizes = _pages(data), _sizes(data)
    text = " ".join(pages)
    assert "Still open, and not yet measured" in pages[0] and "Moved AP-1" in text
    for label in job.drawn.labels:
        assert label.text in text
    for use in (p for p in job.drawn.evaluation.power.ports if p.name):
        assert use.name in text  # type: ignore[operator]
    settings = job.drawn.evaluation.settings
    assert settings is not None
    for network in settings.networks:
        assert network.subnet in text and network.name in text
    for way in (u for u in job.drawn.evaluation.uplinks if u.fibre is not None):
        sheet = way.fibre
        assert f"{sheet.strands}: {sheet.used} used, {sheet.free} ready, {sheet.dark} dark" in text
        assert f"{sheet.loss_db:g} of {sheet.budget_db:g}" in text and "never look into a fibre" in text
    for snag in job.seen.snags:
        assert snag.what in text
    floors = job.drawn.floors()
    drawn = _drawn(data)[-len(floors) :]
    for page, size, floor in zip(drawn, sizes[-len(floors) :], floors, strict=True):
        assert floor.name.replace(" ", "") in page and re.search(r"1:\d+", page)
        assert sorted(size) == pytest.approx(sorted(PAPERS["A4"]), abs=0.2)
    assert sizes[0] == pytest.approx(PAPERS["A4"], abs=0.2)


def test_no_key_is_on_a_paper_that_is_kept_and_all_are_on_the_sealed_one() -> None:
    job = _job("school")
    keys = {j.id: f"k3y;of:{j.id}" for j in job.handover.joins}
    sealed = " ".join(_pages(sealed_pdf(job.drawn, keys)))
    for join in job.handover.joins:
        assert join.ssid in sealed and keys[join.id] in sealed
    for data in (client_pdf(job.drawn, job.handover), technician_pdf(job.drawn, job.handover, job.seen, [])):
        assert "k3y" not in " ".join(_pages(data))
    assert all("P:" not in j.code for j in job.handover.joins)


def test_papers_follow_the_units_of_the_site() -> None:
    job = _job("mill", True)
    data = client_pdf(job.drawn, job.handover)
    assert _sizes(data)[0] == pytest.approx(PAPERS["Letter"], abs=0.2)
    assert re.search(r"cables, [\d]+ ft in all", " ".join(_pages(data)))
    technician = technician_pdf(job.drawn, job.handover, job.seen, [])
    assert sorted(_sizes(technician)[-1]) == pytest.approx(sorted(PAPERS["Letter"]), abs=0.2)


@pytest.mark.parametrize(
    ("paper", "scale"), [("A4", 200), ("A3", 100), ("Letter", 50), ("Tabloid", 100), ("A3", None)]
)
def test_sheets_have_the_size_and_the_scale_that_were_asked_for(paper: str, scale: int | None) -> None:
    job = _job("school")
    data = sheets_pdf(job.drawn, paper, scale)
    sizes, pages = _sizes(data), _drawn(data)
    for size in sizes:
        assert tuple(size) in (pytest.approx(PAPERS[paper], abs=0.2), pytest.approx(_FLAT[paper], abs=0.2))
    # First the whole site, as large as one page holds it; then the storeys.
    land, *storeys = pages
    assert "Gardenduct" in land
    if scale is None:
        assert len(storeys) == len(job.drawn.floors())
    else:
        assert all(f"1:{scale}" in page for page in storeys)
    for floor in job.drawn.floors():
        assert any(floor.name.replace(" ", "") in page for page in pages)


def test_a_sheet_over_several_pages_leaves_nothing_out_and_laps() -> None:
    """Every wall of the drawing lies whole or in part on some page, at the place that it has."""
    job = _job("school")
    floor = job.drawn.floors()[0]
    pages = job.drawn.pages(floor, "A4", 50)
    whole = job.drawn.sheet(floor, scale=50)
    assert len(pages) > 4
    views = []
    for page in pages:
        inner = ElementTree.fromstring(page.svg).find("{http://www.w3.org/2000/svg}svg")
        assert inner is not None
        left, top, wide, high = map(float, inner.attrib["viewBox"].split())
        assert (wide, high) == pytest.approx((float(inner.attrib["width"]), float(inner.attrib["height"])))
        views.append((left, top, left + wide, top + high))
    step = 7.0
    for k in range(int(whole.wide_mm / step)):
        for n in range(int(whole.high_mm / step)):
            x, y = k * step, n * step
            assert any(v[0] <= x <= v[2] and v[1] <= y <= v[3] for v in views)
    rights = sorted({round(v[2], 1) for v in views})
    lefts = sorted({round(v[0], 1) for v in views})
    assert all(
        right - left == pytest.approx(5.0, abs=0.11) for right, left in zip(rights, lefts[1:], strict=False)
    )


def test_a_wall_on_the_svg_is_as_long_as_it_is_by_the_scale(school: Design, catalogue: Catalogue) -> None:
    job = _job("school")
    for scale in (50, 100, 200):
        text = sheet_svg(job.drawn, "ground", scale)
        ElementTree.fromstring(text)
        drawn = [
            tuple(map(float, m))
            for m in re.findall(r'd="M([\d.]+) ([\d.]+)L([\d.]+) ([\d.]+)" stroke="#\w+" stroke-w', text)
        ]
        lengths = [math.dist(d[:2], d[2:]) for d in drawn]
        for wall in (w for w in job.design.of(Wall).values() if w.floor == "ground"):
            assert any(abs(size - wall.length_m * 1000 / scale) < 0.03 for size in lengths)
        bar = re.search(r'<rect x="[\d.]+" y="[\d.]+" width="([\d.]+)"[^>]*data-bar="(\d+) m"', text)
        assert bar is not None
        # The bar is drawn in two halves.
        assert 2 * float(bar[1]) == pytest.approx(int(bar[2]) * 1000 / scale, abs=0.02)


def test_every_path_of_the_plan_is_on_the_sheets() -> None:
    job = _job("school")
    bare = sum(
        draw_sheet(job.drawn.design, job.drawn.catalogue, f.id, scale=100).body.count("stroke-opacity")
        for f in job.drawn.floors()
    )
    drawn = sum(job.drawn.sheet(f, scale=100).body.count("stroke-opacity") for f in job.drawn.floors())
    legs = sum(
        1
        for link in job.drawn.evaluation.cable.links
        for leg in link.legs
        if len(leg.points) > 1 and leg.kind not in ("riser", "duct")
    )
    assert bare == 0 and drawn >= legs


@pytest.mark.parametrize(
    ("paper", "scale", "floors", "words"),
    [
        ("A5", None, None, "there are A4, A3"),
        ("A4", 75, None, "1:50, 1:100, 1:200"),
        ("A4", 50, ["nowhere"], "no such storey"),
    ],
)
def test_a_sheet_that_cannot_be_is_refused(
    paper: str, scale: int | None, floors: list[str] | None, words: str
) -> None:
    with pytest.raises(DesignError) as told:
        sheets_pdf(_job("school").drawn, paper, scale, floors)
    assert words in str(told.value)


def test_more_pages_than_anybody_glues_are_refused(catalogue: Catalogue, school: Design) -> None:
    wide = Wall(id="far", floor="ground", a=(0, 0), b=(400, 300), construction="metal")
    design = apply(school, [put(wide)])
    drawn = drawn_of("Far", 1, Plan(design, catalogue, on=TODAY))
    with pytest.raises(DesignError) as told:
        sheets_pdf(drawn, "A4", 50, ["ground"])
    assert "pages of A4 at 1:50; choose a smaller scale" in str(told.value)


def test_an_empty_site_is_handed_over_without_an_error(catalogue: Catalogue) -> None:
    design = Design({"site": {"site": Site(id="site")}})
    handover = handover_of(Plan(design, catalogue), Observed())
    drawn = drawn_of("Nothing", 1, Plan(design, catalogue, on=TODAY))
    assert not design.of(Floor)
    assert "No wireless name is planned." in " ".join(_pages(client_pdf(drawn, handover)))
    assert "None was noted." in " ".join(_pages(technician_pdf(drawn, handover, Observed(), [])))


def test_a_code_is_as_large_as_a_telephone_reads() -> None:
    for code in ("WIFI:S:a;;", "WIFI:T:WPA;S:" + "x" * 32 + ";P:" + "y" * 63 + ";;"):
        wide = re.search(r'width="([\d.]+)mm"', code_svg(code))
        assert wide is not None and float(wide[1]) == pytest.approx(26, abs=0.5)
