"""Storeys of other drawings on a building of this one: held against the same rooms, moved by hand."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from heathrise.core.catalogue import Catalogue, drawing_style
from heathrise.core.context.integrity import check
from heathrise.core.context.storeys import storeys_of
from heathrise.core.design import Design, DesignError, Device, Floor, Opening, Riser, Space, Wall, apply, put
from heathrise.core.several import storeys_joined
from heathrise.core.several.gestures import drawn as many_drawn
from heathrise.core.several.hand import Pick, Shift
from heathrise.core.walling import follow

from ..thorough import examples
from .plans import access_point
from .storeys_of_rooms import Cut, cuts, roomed

SLAB_M = drawing_style().measures.slab_m


def shifted(design: Design, by: tuple[float, float], catalogue: Catalogue) -> Design:
    picks = tuple(Pick(kind="wall", id=k) for k in design.of(Wall))
    made = apply(design, many_drawn(design, Shift(picks=picks, by=by), catalogue))
    return apply(made, follow(design, made).changes)


def named(design: Design, name: str) -> Design:
    return apply(design, [put(design.of(Floor)["f"].model_copy(update={"name": name}))])


def doored(design: Design) -> Design:
    """A door in each wall that has room for one."""
    for wall in design.of(Wall).values():
        if wall.length_m > 1.5:
            fields = {
                "id": f"d-{wall.id}",
                "wall": wall.id,
                "kind": "door",
                "offset_m": 0.3,
                "width_m": 0.9,
                "construction": "door-hollow",
            }
            design = apply(design, [put(Opening.model_validate(fields))])
    return design


def outlines(design: Design, floor: str) -> list[tuple[str, Polygon]]:
    return [(s.name, Polygon(s.outline)) for s in design.of(Space).values() if s.floor == floor]


def south_west(design: Design, floor: str) -> tuple[float, float]:
    spots = [p for w in design.of(Wall).values() if w.floor == floor for p in (w.a, w.b)]
    return min(x for x, _ in spots), min(y for _, y in spots)


@given(cuts(), cuts(), st.sampled_from([(0.0, 0.0), (14.25, -6.5)]), st.booleans())
@examples(25)
def test_a_drawing_comes_on_top_with_its_rooms(
    catalogue: Catalogue, here: Cut, come: Cut, by: tuple[float, float], doors: bool
) -> None:
    below = shifted(roomed(here), by, catalogue)
    above = named(doored(roomed(come)) if doors else roomed(come), "First floor")
    above = apply(above, [put(access_point(1.0, 1.0, "ap-1"))])
    changes = storeys_joined(below, above, "b", catalogue)
    joined = apply(below, changes)
    check(joined, catalogue)
    first = next(f for f in joined.of(Floor).values() if f.name == "First floor")
    ground = below.of(Floor)["f"]
    assert first.level == ground.level + 1
    assert first.elevation_m == pytest.approx(ground.elevation_m + ground.ceiling_height_m + SLAB_M)
    assert south_west(joined, first.id) == pytest.approx(south_west(below, "f"), abs=1e-3)
    # Nothing of what was there moved.
    for cls in (Wall, Space, Opening):
        assert {k: joined.of(cls)[k] for k in below.of(cls)} == dict(below.of(cls))
    dx, dy = (a - b for a, b in zip(south_west(below, "f"), south_west(above, "f"), strict=True))
    fresh = outlines(joined, first.id)
    assert len(fresh) == len(outlines(above, "f"))
    for _, wanted in outlines(above, "f"):
        moved = Polygon([(x + dx, y + dy) for x, y in wanted.exterior.coords])
        assert min(moved.hausdorff_distance(p) for _, p in fresh) < 1e-3
    count = sum(o.wall in joined.of(Wall) for o in joined.of(Opening).values())
    assert count == len(below.of(Opening)) + len(above.of(Opening))
    ap = joined.of(Device)["ap-1"]
    assert ap.floor == first.id and ap.at == pytest.approx((1.0 + dx, 1.0 + dy), abs=1e-3)
    # What the walls close are the rooms that came: nothing is made, asked or moved.
    assert not follow(below, joined).changes


def test_an_empty_storey_of_the_name_is_drawn_on(catalogue: Catalogue) -> None:
    cut = Cut(((0, 0, 5, 6),), (((0, 0), (5, 0)), ((5, 0), (5, 6)), ((5, 6), (0, 6)), ((0, 6), (0, 0))))
    site = roomed(cut)
    ground = site.of(Floor)["f"]
    attic = ground.model_copy(update={"id": "attic", "name": "Attic", "level": 1, "elevation_m": 3.4})
    site = apply(site, [put(attic)])
    joined = apply(site, storeys_joined(site, named(roomed(cut), "attic"), "b", catalogue))
    assert joined.of(Floor)["attic"] == attic and len(joined.of(Floor)) == 2
    assert {w.floor for w in joined.of(Wall).values()} == {"f", "attic"}
    # A second time it is drawn on, so that the next one comes above.
    again = apply(joined, storeys_joined(joined, named(roomed(cut), "attic"), "b", catalogue))
    assert storeys_of(again).ordered("b")[-1] not in joined.of(Floor)


def test_ways_come_along_and_a_building_that_is_none_is_told(catalogue: Catalogue) -> None:
    cut = Cut(((0, 0, 5, 6),), (((0, 0), (5, 0)), ((5, 0), (5, 6)), ((5, 6), (0, 6)), ((0, 6), (0, 0))))
    site = roomed(cut)
    riser = Riser(id="riser-1", building="b", name="Shaft", at=(1, 1), lowest_level=0, highest_level=0)
    come = apply(named(roomed(cut), "Upper"), [put(riser)])
    joined = apply(site, storeys_joined(site, come, "b", catalogue))
    fresh = joined.of(Riser)["riser-1"]
    assert (fresh.lowest_level, fresh.highest_level, fresh.building) == (1, 1, "b")
    with pytest.raises(DesignError, match="no building"):
        storeys_joined(site, come, "barn", catalogue)
