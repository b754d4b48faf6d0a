"""Changes and their inverse, integrity, and the rules of who imports whom."""

from __future__ import annotations

import ast
import importlib
from functools import cache
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

import heathrise
from heathrise.core.catalogue import Catalogue
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Change,
    Design,
    DesignError,
    Device,
    Opening,
    Put,
    Remove,
    Space,
    Wall,
    apply,
    inverse,
    put,
    remove,
)
from heathrise.core.evaluation.evaluate import evaluate

from .plans import access_point, design_of, shell, wall

SOURCE = Path(heathrise.__file__).parent
CORE = SOURCE / "core"
# From the ground up; what stands in one layer imports from those below it alone.
LAYERS = (
    {"base"},
    {"design"},
    {"catalogue"},
    {"context"},
    # What several disciplines ask of a way, and of walls.
    {"controlled", "laying", "mains", "sight", "walkways", "walling"},
    {"several"},
    {
        "brief",
        "building",
        "cabling",
        "far",
        "handover",
        "install",
        "order",
        "ports",
        "power",
        "records",
        "settings",
        "signal",
    },
    {"rack"},
    {"elevation"},
    {"evaluation"},
    {"views"},
    {"diagram", "placement"},
)
DISCIPLINES = LAYERS[6]
FACED = {*LAYERS[4], *LAYERS[5], *DISCIPLINES, "rack", "elevation", "placement"}


@st.composite
def edits(draw: st.DrawFn) -> list[Change]:
    changes: list[Change] = []
    for _ in range(draw(st.integers(1, 8))):
        key = draw(st.sampled_from(["ap-1", "ap-2", "ap-3"]))
        if draw(st.booleans()):
            changes.append(put(access_point(draw(st.integers(0, 9)), 1.0, key)))
        elif any(c.id == key and isinstance(c, Put) for c in changes):
            changes.append(Remove(kind="device", id=key))
    return changes or [put(access_point(1, 1))]


@given(edits())
def test_inverse_leads_back(changes: list[Change]) -> None:
    design = design_of(*shell(), access_point(5, 5))
    seen: set[str] = set(design.of(Device))
    kept = []
    for change in changes:
        if isinstance(change, Put) or change.id in seen:
            (seen.add if isinstance(change, Put) else seen.discard)(change.id)
            kept.append(change)
    after = apply(design, kept)
    back = apply(after, inverse(design, kept))
    assert {k: dict(v) for k, v in back.tables.items()} == {k: dict(v) for k, v in design.tables.items()}


def test_inverse_puts_a_wall_back_before_its_door(catalogue: Catalogue) -> None:
    door = Opening(id="o", wall="w1", kind="door", offset_m=1, width_m=1, construction="door-hollow")
    design = design_of(*shell(), wall(1, (0, 0), (5, 0), "stone"), door)
    changes = [remove(door), remove(design.of(Wall)["w1"])]
    back = inverse(design, changes)
    assert [c.kind for c in back] == ["wall", "opening"]
    check(apply(apply(design, changes), back), catalogue)


def test_untouched_tables_stay_the_same_objects() -> None:
    design = design_of(*shell(), access_point(5, 5))
    after = apply(design, [put(access_point(6, 6))])
    assert after.tables["space"] is design.tables["space"]
    assert after.tables["device"] is not design.tables["device"]


def _broken(**change: object) -> list:
    base = wall(1, (0, 0), (5, 0), "stone")
    return [base.model_copy(update=change)]


@pytest.mark.parametrize(
    ("elements", "where", "what"),
    [
        (_broken(floor="nowhere"), "wall[w1].floor", "does not exist"),
        (_broken(construction="cheese"), "wall[w1].construction", "not in the catalogue"),
        (_broken(b=(0.0, 0.01)), "wall[w1]", "shorter"),
        (
            [
                *_broken(),
                Opening(id="o", wall="w1", kind="door", offset_m=4.5, width_m=1, construction="door-solid"),
            ],
            "opening[o]",
            "5.00 m long",
        ),
        (
            [Space(id="s", floor="f", name="Bow", outline=((0, 0), (4, 4), (4, 0), (0, 4)))],
            "space[s].outline",
            "crosses itself",
        ),
        ([access_point(1, 1, model="none-such")], "device[ap-1].model", "not in the catalogue"),
    ],
)
def test_what_does_not_hold_is_named(catalogue: Catalogue, elements: list, where: str, what: str) -> None:
    with pytest.raises(DesignError) as caught:
        check(design_of(*shell(), *elements), catalogue)
    assert caught.value.problems[0].where == where
    assert what in caught.value.problems[0].what


def test_a_design_has_one_site(catalogue: Catalogue) -> None:
    with pytest.raises(DesignError, match="exactly one site"):
        check(Design(), catalogue)


def test_an_empty_design_evaluates(catalogue: Catalogue) -> None:
    result = evaluate(Plan(design_of(*shell()[:1]), catalogue))
    assert result.totals.access_points == 0
    assert result.findings[0].severity == "note", "nothing is promised yet, so nothing is short"


@pytest.mark.parametrize("name", ["school", "home"])
def test_demo_sites_hold(name: str, catalogue: Catalogue, request: pytest.FixtureRequest) -> None:
    design: Design = request.getfixturevalue(name)
    check(design, catalogue)
    result = evaluate(Plan(design, catalogue))
    assert result.totals.rooms_met >= 0.7 * result.totals.rooms_needed
    assert result.findings, "a demo with nothing to mend teaches nothing"
    assert all(f.rule and f.source and f.text for f in result.findings)


@cache
def _imports(path: Path) -> set[str]:
    """Return the absolute names of what a module of the package imports."""
    parts = path.relative_to(SOURCE.parent).with_suffix("").parts
    package = parts[:-1]
    found: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text("utf-8"))):
        if isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom):
            base = package[: len(package) - node.level + 1] if node.level else ()
            found.add(".".join([*base, *(node.module or "").split(".")]).strip("."))
    return found


def test_core_imports_no_interface_and_no_store() -> None:
    forbidden = ("flask", "apiflask", "sqlalchemy", "pymysql", "heathrise.web", "heathrise.store")
    outer = ("heathrise.formats", "heathrise.cli", "heathrise.demo")
    for path in (SOURCE / "core").rglob("*.py"):
        for name in _imports(path):
            assert not name.startswith((*forbidden, *outer)), f"{path.name} imports {name}"


def test_formats_and_store_do_not_import_the_web() -> None:
    for folder in ("formats", "store", "demo"):
        for path in (SOURCE / folder).rglob("*.py"):
            for name in _imports(path):
                assert not name.startswith(("heathrise.web", "flask", "apiflask")), path


def test_every_room_of_the_core_stands_in_a_layer() -> None:
    rooms = [p.stem for p in CORE.iterdir() if p.name not in ("__init__.py", "__pycache__")]
    assert sorted(rooms) == sorted(room for layer in LAYERS for room in layer)


def test_layers_bind() -> None:
    """A room imports from the layers below its own: nothing upward, no discipline from another."""
    for height, layer in enumerate(LAYERS):
        below = {room for lower in LAYERS[:height] for room in lower}
        for room in layer:
            for path in (CORE / room).rglob("*.py"):
                for name in _imports(path):
                    parts = name.split(".")
                    other = parts[2] if parts[:2] == ["heathrise", "core"] and len(parts) > 2 else room
                    assert other in below | {room}, f"{path} imports {name}"


def test_a_room_with_a_face_is_known_by_it_alone() -> None:
    """What others use of it stands in its ``__init__``, and nothing is reached past that."""
    for room in FACED:
        face = importlib.import_module(f"heathrise.core.{room}")
        assert face.__all__ and all(hasattr(face, name) for name in face.__all__)
        for path in SOURCE.rglob("*.py"):
            if path.is_relative_to(CORE / room):
                continue
            for name in _imports(path):
                assert not name.startswith(f"heathrise.core.{room}."), f"{path} imports {name}"
