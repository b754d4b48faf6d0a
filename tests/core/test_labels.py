"""Labels: unique over the site, short, the same at both ends but for the end."""

from __future__ import annotations

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Building, Floor, Space
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.install import Cabled, labels_of
from heathrise.core.install.labels import short_names
from heathrise.core.views.labels import project_labels
from heathrise.demo import SITES

from .plans import access_point, design_of, rack, shell

FORM = re.compile(r"^[A-Z0-9]+-(U?\d+)-(\d+)\.P(\d+)-(\d\d)/([AB])$")


def test_two_cables_by_hand(catalogue: Catalogue) -> None:
    """Building Hut, ground floor, its first room, panel 1, ports 1 and 2."""
    design = design_of(*shell(), rack(1, 1), access_point(5, 5))
    design = design_of(
        *[e for _, e in design.elements() if e.id != "site"],
        design.site.model_copy(update={"cables_per_access_point": 2}),
    )
    labels = project_labels(Plan(design, catalogue))
    assert [x.near for x in labels] == ["H-0-1.P1-01/A", "H-0-1.P1-02/A"]
    assert labels[1].far == "H-0-1.P1-02/B" and labels[1].rack == "Rack"


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_labels_of_the_sites_are_unique_short_and_complete(key: str) -> None:
    design = next(s for s in SITES if s.key == key).make()
    evaluation = evaluate(Plan(design, load_catalogue(), quick=True))
    labels = project_labels(Plan(design, load_catalogue()))
    cables = sum(k.cables for k in evaluation.cable.links if k.verdict != "no_way")
    ends = [end for x in labels for end in (x.near, x.far)]
    assert len(labels) == cables and len(set(ends)) == 2 * cables
    assert all(FORM.match(end) and len(end) <= 18 for end in ends)
    by_panel: dict[int, set[str]] = {}
    for x in labels:
        assert 1 <= x.port <= 24
        by_panel.setdefault(x.panel, set()).add(x.rack)
    assert all(len(racks) == 1 for racks in by_panel.values())


@given(st.lists(st.tuples(st.integers(0, 2), st.integers(1, 4), st.integers(-2, 3)), max_size=80))
def test_labels_are_unique_whatever_the_site(rows: list[tuple[int, int, int]]) -> None:
    floors = [
        Floor(id=f"f{level + 2}", building=f"b{level % 2}", name=f"L{level}", level=level)
        for level in range(-2, 4)
    ]
    rooms = [
        Space(id=f"s{f.id}", floor=f.id, name="R", outline=((0, 0), (5, 0), (5, 5), (0, 5))) for f in floors
    ]
    design = design_of(Building(id="b0", name="Hall"), Building(id="b1", name="Hut"), *floors, *rooms)
    links = [
        Cabled(f"l{k}", f"L{k}", f"r{r}", f"R{r}", f"f{level + 2}", (float(k % 8), 1.0), cables)
        for k, (r, cables, level) in enumerate(rows)
    ]
    texts = [x.text for x in labels_of(design, links)]
    assert len(set(texts)) == len(texts) == sum(k.cables for k in links)
    assert all(len(t) <= 16 and FORM.match(f"{t}/A") for t in texts)


@given(st.lists(st.text(min_size=1, max_size=12), max_size=30, unique=True))
def test_short_names_are_apart(names: list[str]) -> None:
    shorts = short_names(names)
    assert len(set(shorts.values())) == len(names)
    assert all(re.fullmatch(r"[A-Z0-9]{1,4}", s) for s in shorts.values())
