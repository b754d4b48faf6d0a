"""The network drawn, going out: SVG, PNG, PDF, a rack's door, GraphML and DOT, and in offers and hand-overs."""

from __future__ import annotations

import io
import re
from xml.etree import ElementTree

import pypdfium2
import pytest
from PIL import Image

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import DesignError, EquipmentRoom, Switch, put
from heathrise.core.diagram import READINGS, Reading, diagram_of, lay_out, rack_of
from heathrise.demo import SITES
from heathrise.formats.diagram_graph import write_dot, write_graphml
from heathrise.formats.papers import drawn_of
from heathrise.formats.papers.diagram import SAID, diagram_page, diagram_pdf, diagram_png, network_drawn
from heathrise.formats.papers.plain import client, offer, technician
from heathrise.formats.sheets import PAPERS, room_on
from heathrise.formats.sheets.diagram import MM, on_pages
from heathrise.formats.sheets.page import LAP_MM

CATALOGUE = load_catalogue()
PLANS = {s.key: Plan(s.make(), CATALOGUE) for s in SITES}
SVG = "{http://www.w3.org/2000/svg}"


def _texts(data: bytes) -> list[str]:
    document = pypdfium2.PdfDocument(data)
    return [document[k].get_textpage().get_text_range() for k in range(len(document))]


@pytest.mark.parametrize("key", PLANS)
@pytest.mark.parametrize("reading", READINGS)
def test_the_drawing_has_every_thing_once_and_no_word_out_of_its_card(key: str, reading: Reading) -> None:
    page = diagram_page("A <b>&amp; B", 7, PLANS[key], reading)
    root = ElementTree.fromstring(page.svg)
    cards = [r.get("data-card") for r in root.iter(f"{SVG}rect") if r.get("data-card")]
    nodes = [n.id for n in diagram_of(PLANS[key]).nodes]
    assert sorted(map(str, cards)) == sorted(nodes)
    wide = MM * lay_out(diagram_of(PLANS[key])).grid.card_wide
    boxes = [
        tuple(float(r.get(k, "0")) for k in ("x", "y", "width", "height"))
        for r in root.iter(f"{SVG}rect")
        if r.get("data-card")
    ]
    for text in root.iter(f"{SVG}text"):
        size, said = float(text.get("font-size", "0")), text.text or ""
        x, y = float(text.get("x", "0")), float(text.get("y", "0"))
        inside = [b for b in boxes if b[0] <= x <= b[0] + b[2] and b[1] <= y <= b[1] + b[3]]
        for box in inside:
            assert x + 0.5 * size * len(said) <= box[0] + wide + 2.0, said
    assert SAID[reading] in page.svg and "Not to scale" in page.svg


@pytest.mark.parametrize("paper", PAPERS)
def test_no_card_lies_across_the_end_of_a_page(paper: str) -> None:
    for plan in PLANS.values():
        picture = lay_out(diagram_of(plan), rows_at_once=None)
        for flat in (True, False):
            high = room_on(paper, flat)[1]
            pushed = on_pages(picture, high)
            for top in pushed.tops:
                first, last = MM * top, MM * (top + picture.grid.card_high)
                pages = [k * (high - LAP_MM) for k in range(60)]
                assert any(p <= first and last <= p + high for p in pages)
            assert all(b >= a for a, b in zip(picture.tops, pushed.tops, strict=True))


def test_a_pdf_has_each_reading_and_a_door_has_its_rack_on_one_page() -> None:
    plan = PLANS["practice"]
    texts = _texts(diagram_pdf("Vets", 3, plan, READINGS, "A3"))
    assert all(any(SAID[r] in t for t in texts) for r in READINGS)
    assert all("Revision 3" in t for t in texts)
    drawn = drawn_of("Vets", 3, plan)
    labels = drawn.label_by_device()
    with_switch = {s.equipment_room for s in plan.design.of(Switch).values()}
    for room in plan.design.of(EquipmentRoom).values():
        if room.id not in with_switch:
            with pytest.raises(DesignError, match=f"nothing hangs on {room.name}; put a switch"):
                diagram_pdf("Vets", 3, plan, ("cables",), "A4", room.id)
            continue
        (text,) = _texts(diagram_pdf("Vets", 3, plan, ("cables",), "A4", room.id))
        assert f"{room.name}: cables" in text
        for node in rack_of(diagram_of(plan), room.id).nodes:
            if node.kind == "switch":
                assert node.name in text
    # What is plugged in there stands with its label, and what hangs on other racks does not.
    (text,) = _texts(diagram_pdf("Vets", 3, plan, ("cables",), "A3", "rack-kennels"))
    assert f"CAM-2, {labels['cam-2']}" in text and "Reception desk" not in text
    with pytest.raises(DesignError, match="there is no rack"):
        diagram_pdf("Vets", 3, plan, ("cables",), "A4", "attic")
    with pytest.raises(DesignError, match="there are A4"):
        diagram_pdf("Vets", 3, plan, ("cables",), "A9")


def test_a_picture_is_one() -> None:
    picture = Image.open(io.BytesIO(diagram_png("Row", 1, PLANS["terrace"], "cables")))
    assert picture.format == "PNG" and picture.width > 800


@pytest.mark.parametrize("key", PLANS)
def test_graphs_for_other_tools_hold_all_of_it(key: str) -> None:
    plan = PLANS[key]
    nodes = diagram_of(plan).nodes
    ns = {"g": "http://graphml.graphdrawing.org/xmlns"}
    root = ElementTree.fromstring(write_graphml("x", plan))
    assert [n.get("id") for n in root.iterfind(".//g:node", ns)] == [n.id for n in nodes]
    edges = {(e.get("source"), e.get("target")): e for e in root.iterfind(".//g:edge", ns)}
    assert set(edges) >= {(n.parent, n.id) for n in nodes if n.parent}
    keys = {k.get("id") for k in root.iterfind("g:key", ns)}
    assert {d.get("key") for d in root.iterfind(".//g:data", ns)} <= keys
    for node in nodes:
        if node.parent and node.joint and node.joint.length_m:
            data = {d.get("key"): d.text for d in edges[node.parent, node.id].iterfind("g:data", ns)}
            assert float(data["e_length_m"] or 0) == node.joint.length_m
    dot = write_dot("x", plan)
    assert dot.count(" -> ") == len(edges)
    assert all(f'"{n.id}" [label=' in dot for n in nodes)


def test_names_cannot_break_out_of_a_graph() -> None:
    plan = PLANS["terrace"]
    switch = next(iter(plan.drawn.of(Switch).values()))
    evil = 'A" -> "B\\'
    after = plan.after([put(switch.model_copy(update={"name": evil}))])
    dot = write_dot('"]; x', after)
    line = next(x for x in dot.splitlines() if x.strip().startswith(f'"{switch.id}" [label='))
    assert line.endswith('"];') and r"A\" -> \"B\\" in line
    unescaped = re.sub(r"\\.", "", line)
    assert unescaped.count('"') == 4
    assert ElementTree.fromstring(write_graphml("]]>", after)) is not None


def test_offers_and_hand_overs_have_it() -> None:
    plan = PLANS["mill"]
    assert any("How it hangs together" in t for t in _texts(offer("Mill", plan)))
    told = _texts(client("Mill", plan))
    assert any("How it hangs together" in t and "not connected yet" in t for t in told)
    assert not any("untagged" in t.split("How it hangs together")[-1] for t in told)
    technical = _texts(technician("Mill", plan))
    assert all(any(SAID[r] in t for t in technical) for r in ("cables", "networks"))


def test_a_door_of_a_small_paper_is_still_one_page() -> None:
    network = network_drawn(drawn_of("School", 1, PLANS["school"]))
    assert len(network.pages("cables", "A2")) <= len(network.pages("cables", "A4"))
