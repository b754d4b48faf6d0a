"""The whole site on one sheet: to scale, its trenches by hand, words on nothing and within the frame."""

from __future__ import annotations

import math
import re
from xml.etree import ElementTree

import pytest

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Building,
    BuriedService,
    Design,
    DesignError,
    Duct,
    FarPoint,
    Floor,
    Grove,
    Space,
    apply,
    design_of,
    put,
)
from heathrise.core.views.far_ways import far_ways
from heathrise.core.views.site import SiteView, site_view
from heathrise.core.views.work_list import steps_of
from heathrise.demo import hill_farm, watermill
from heathrise.formats.papers import drawn_of, sheets_pdf
from heathrise.formats.papers.render import Papers
from heathrise.formats.sheets import draw_land, has_land

from ..core.plans import access_point, rack, shell

CATALOGUE = load_catalogue()
METRIC = Papers("metric").length
ROOM = (190.0, 240.0)
SVG = "{http://www.w3.org/2000/svg}"


def farm(**ways: str) -> Design:
    """The farm with some ways taken, by the places' names."""
    drawn = hill_farm()
    points = {p.name.split()[-1].lower(): p for p in drawn.of(FarPoint).values()}
    return apply(drawn, [put(points[k].model_copy(update={"way": w})) for k, w in ways.items()])


def view_of(design: Design) -> SiteView:
    return site_view(Plan(design, CATALOGUE))


def texts(svg: str) -> list[str]:
    return [t.text or "" for t in ElementTree.fromstring(svg).iter(f"{SVG}text")]


def test_a_trench_by_hand() -> None:
    """Over the drive to the gate: (4.4, 2.6) to (-38, -112), 122.2 m and a tenth more; 0.45 m deep, 0.35
    wide, a quarter more once it is loose."""
    view = view_of(farm(gate="fibre-cable"))
    (way,) = view.far
    straight = math.dist((4.4, 2.6), (-38, -112))
    assert way.size is not None and way.lies == "ground"
    assert way.size.metres == pytest.approx(1.1 * straight, abs=0.06)
    assert way.size.spoil_m3 == pytest.approx(1.1 * straight * 0.45 * 0.35 * 1.25, abs=0.06)
    assert way.dig_minutes == pytest.approx(45 * 1.1 * straight, abs=1)
    said = "134\u00a0m, 0.45\u00a0m deep and 0.35\u00a0m wide, across a drive; 26.5\u00a0m³ of loose spoil beside it"
    assert way.size.said == said
    (dig,) = [s for s in steps_of(Plan(farm(gate="fibre-cable"), CATALOGUE)) if s.phase == "dig"]
    assert f"Its size: {said}" in dig.checks
    words = " ".join(texts(draw_land(view, ROOM, METRIC).svg))
    for cell in (
        "134\u00a0m",
        "0.45\u00a0m",
        "0.35\u00a0m",
        "26.5\u00a0m³",
        "across a drive",
        "100.8\u00a0h",
    ):
        assert cell in words


def test_feet_and_yards_keep_as_many_digits_as_the_metres_had() -> None:
    feet = Papers("imperial")
    assert feet.words("88\u00a0m, 0.45\u00a0m deep; 26.5\u00a0m³ of spoil") == (
        "289\u00a0ft, 1.48\u00a0ft deep; 26.5\u00a0m³ of spoil"
    )
    rows = " ".join(texts(draw_land(view_of(farm(gate="fibre-cable")), ROOM, feet.length).svg))
    assert "1.48\u00a0ft" in rows and "\u00a0m " not in rows


def test_what_is_dug_and_aimed_is_drawn_to_scale() -> None:
    view = view_of(farm(gate="fibre-cable", mast="radio_5-solar", pond="extender-cable"))
    sheet = draw_land(view, ROOM, METRIC)
    lines = re.findall(
        r'd="M([\d.-]+) ([\d.-]+)L([\d.-]+) ([\d.-]+)" fill="none" stroke="([^"]+)"', sheet.svg
    )
    drawn = [math.dist((float(a), float(b)), (float(c), float(d))) for a, b, c, d, _ in lines]
    for way in view.far:
        long_mm = math.dist(*way.path) * 1000 / sheet.scale
        assert any(abs(long_mm - mm) < 0.02 for mm in drawn), way.name
    assert sheet.wide_mm <= ROOM[0] and sheet.high_mm <= ROOM[1]
    pond = next(w for w in view.far if w.name == "Mill pond")
    assert pond.joints == (
        (pytest.approx((4.4 - 96) / 2, abs=0.001), pytest.approx((2.6 + 34) / 2, abs=0.001)),
    )
    said = texts(sheet.svg)
    mast = next(w for w in view.far if w.name == "Weather mast")
    assert any(f"aim {mast.bearing_deg:.0f}° and {mast.back_deg:.0f}°" in s for s in said)
    assert {"Drive gate", "Mill pond", "Weather mast"} <= set(said)


def test_a_trench_over_a_buried_service_is_dug_by_hand_there() -> None:
    """The pipe crosses the gate's line where both are 40 m below the house: at 43.6 m from the rack."""
    pipe = BuriedService(id="w", name="Yard water", carries="water", path=((-60, -40), (40, -40)))
    drawn = apply(farm(gate="fibre-cable"), [put(pipe)])
    view = view_of(drawn)
    (met,) = view.far[0].meetings
    straight = math.dist((4.4, 2.6), (-38, -112))
    at = straight * 42.6 / 114.6
    assert met.crosses and (met.from_m + met.to_m) / 2 == pytest.approx(at, abs=0.3)
    (dig,) = [s for s in steps_of(Plan(drawn, CATALOGUE)) if s.phase == "dig"]
    near = f"Yard water from {met.from_m:.1f} to {met.to_m:.1f} m"
    assert any(c.startswith(near) and "dug by hand there" in c for c in dig.checks)
    assert "by hand" in texts(draw_land(view, ROOM, METRIC).svg)
    # Over the air nothing is dug.
    over = apply(farm(gate="radio_5-solar"), [put(pipe)])
    assert view_of(over).far[0].meetings == ()


def test_every_trench_stands_in_the_list_once() -> None:
    drawn = watermill()
    extra = [
        Duct(
            id=f"d{k}",
            name=f"Duct {k}",
            from_floor=f,
            to_floor=f,
            path=((0, -9 - k), (9 + k, -9 - k)),
            dug=dug,
        )
        for k, dug in enumerate(("loam", "plough", "there", "machine"))
        for f in [next(iter(drawn.of(Floor)))]
    ]
    view = view_of(apply(drawn, [put(d) for d in extra]))
    said = texts(draw_land(view, ROOM, METRIC).svg)
    table = said[said.index("Trench") :]
    assert [t for t in table if t.startswith("Duct ")] == ["Duct 0", "Duct 1", "Duct 3"]
    # By hand: 9 x 0.6 x 0.3 x 1.25; ploughed none; 12 x 0.6 x 0.2 x 1.25.
    assert [s for s in table if "m³" in s or s == "none"][-3:] == ["2\u00a0m³", "none", "1.8\u00a0m³"]


def test_a_hundred_trenches_leave_the_page_to_the_drawing() -> None:
    drawn = watermill()
    floor = next(iter(drawn.of(Floor)))
    many = [
        Duct(id=f"x{k}", name=f"Duct {k}", from_floor=floor, to_floor=floor, path=((0, -9 - k / 9), (9, -9)))
        for k in range(100)
    ]
    sheet = draw_land(view_of(apply(drawn, [put(d) for d in many])), ROOM, METRIC)
    said = texts(sheet.svg)
    table = said[said.index("Trench") :]
    shown = [t for t in table if t.startswith(("Duct ", "Orchard duct"))]
    (more,) = [t for t in table if t.startswith("and ")]
    assert len(shown) + int(more.split()[1]) == 101 and sheet.high_mm <= ROOM[1] and sheet.scale <= 2000


@pytest.mark.parametrize("make", [hill_farm, watermill])
def test_words_stand_within_the_sheet_and_on_no_others(make: object) -> None:
    drawn = make()  # type: ignore[operator]
    if make is hill_farm:
        drawn = farm(gate="fibre-cable", mast="radio_5-solar", pond="extender-cable", barn="copper-mains")
    sheet = draw_land(view_of(drawn), ROOM, METRIC)
    boxes = []
    for node in ElementTree.fromstring(sheet.svg).findall(f"{SVG}text"):
        size, words = float(node.get("font-size", "0")), node.text or ""
        x, y, half = float(node.get("x", "0")), float(node.get("y", "0")), len(words) * size * 0.4 / 2
        middle = {"middle": x, "start": x + half, "end": x - half}[node.get("text-anchor", "middle")]
        boxes.append((middle - half, y - 0.6 * size, middle + half, y, words))
    for k, (left, top, right, foot, words) in enumerate(boxes):
        assert left > 0 and right < sheet.wide_mm and top > 0 and foot < sheet.high_mm, words
        for other in boxes[k + 1 :]:
            beside = right <= other[0] or other[2] <= left or foot <= other[1] or other[3] <= top
            assert beside, (words, other[4])


def test_a_site_has_a_sheet_where_there_is_more_than_one_building() -> None:
    house = design_of([*shell(), access_point(3, 3), rack(1, 1)])
    assert not has_land(view_of(house))
    with pytest.raises(DesignError, match="there is no such storey"):
        sheets_pdf(drawn_of("House", 1, Plan(house, CATALOGUE)), "A4", None, ["site"])
    wood = Grove(id="g", name="Wood", outline=((30, 0), (40, 0), (40, 9)))
    barn = (
        Building(id="barn", name="Barn"),
        Floor(id="fb", building="barn", name="Barn", level=0),
        Space(id="sb", floor="fb", name="Barn", outline=((30, 0), (40, 0), (40, 9))),
    )
    for more in ((wood,), barn):
        grown = apply(house, [put(e) for e in more])
        plan = Plan(grown, CATALOGUE)
        assert has_land(site_view(plan)) and sheets_pdf(drawn_of("House", 1, plan), "A4", None, ["site"])


def test_ways_are_named_as_in_the_table_of_ways() -> None:
    drawn = farm(gate="fibre-cable")
    gate = next(p.id for p in drawn.of(FarPoint).values() if p.name == "Drive gate")
    offer = next(w for w in far_ways(Plan(drawn, CATALOGUE), gate).ways if w.id == "fibre-cable")
    (way,) = view_of(drawn).far
    assert (way.label, way.state) == (offer.label, offer.verdict)
