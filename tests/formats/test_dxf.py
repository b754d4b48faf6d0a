"""DXF: layers, units, blocks with inserts, and drawings that are meant to hurt."""

from __future__ import annotations

import io
import json
import math
import re
import time
from pathlib import Path

import ezdxf
import pytest
from click.testing import CliRunner
from ezdxf.document import Drawing

from heathrise.cli import main
from heathrise.core.catalogue import Catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import DesignError, Opening, Space, Wall
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.formats import dxf_entities
from heathrise.formats.dxf import DrawingChoice, import_dxf, inspect_dxf
from heathrise.formats.pictures import read_picture
from heathrise.formats.sandbox import confine
from heathrise.formats.sandbox import drawings as confined
from heathrise.formats.sandbox.confine import Busy
from heathrise.formats.sandbox.drawings import import_confined, inspect_confined

MILLIMETRES = 4


def drawing(units: int = MILLIMETRES) -> Drawing:
    """Two rooms of 5 x 4 m side by side, drawn in millimetres, with a door and a column block."""
    document = ezdxf.new("R2010")
    document.header["$INSUNITS"] = units
    space = document.modelspace()
    outer = [(0, 0), (10_000, 0), (10_000, 4_000), (0, 4_000)]
    space.add_lwpolyline(outer, close=True, dxfattribs={"layer": "OUTER"})
    space.add_line((5_000, 0), (5_000, 4_000), dxfattribs={"layer": "INNER"})
    space.add_line((5_000, 1_000), (5_000, 1_900), dxfattribs={"layer": "DOORS"})
    column = document.blocks.new("COLUMN")
    column.add_lwpolyline([(0, 0), (300, 0), (300, 300), (0, 300)], close=True)
    space.add_blockref("COLUMN", (8_000, 2_000), dxfattribs={"layer": "COLUMNS"})
    space.add_text("ignored", dxfattribs={"layer": "NOTES"})
    return document


def data_of(document: Drawing) -> bytes:
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode()


def binary_of(document: Drawing) -> bytes:
    out = io.BytesIO()
    document.write(out, fmt="bin")
    return out.getvalue()


LAYERS = {"OUTER": "brick-cavity", "INNER": "plasterboard", "DOORS": "door-hollow"}


def test_layers_are_listed_with_what_they_hold() -> None:
    found = inspect_dxf(data_of(drawing()))
    assert found.units == "mm"
    assert (found.width, found.height) == (10_000, 4_000)
    assert {layer.name: layer.segments for layer in found.layers} == {
        "COLUMNS": 4,
        "DOORS": 1,
        "INNER": 1,
        "OUTER": 4,
    }


def test_lines_polylines_blocks_and_doors_become_a_plan(catalogue: Catalogue) -> None:
    choice = DrawingChoice(name="Hut", layers={**LAYERS, "COLUMNS": "concrete"})
    design = import_dxf(data_of(drawing()), choice, catalogue)
    walls = list(design.of(Wall).values())
    assert len(walls) == 4 + 1 + 4
    inner = next(w for w in walls if w.construction == "plasterboard")
    assert (inner.a, inner.b) == ((5, 0), (5, 4))
    door = next(iter(design.of(Opening).values()))
    assert (door.wall, door.kind, door.offset_m, door.width_m) == (inner.id, "door", 1.0, 0.9)
    column = [w for w in walls if w.construction == "concrete"]
    assert min(w.a[0] for w in column) == 8.0
    assert len(design.of(Space)) == 2


@pytest.mark.parametrize(("turn", "scale"), [(90, 1.0), (0, 2.0)])
def test_inserts_turn_and_scale(catalogue: Catalogue, turn: float, scale: float) -> None:
    document = drawing()
    document.modelspace().add_blockref(
        "COLUMN",
        (2_000, 2_000),
        dxfattribs={"layer": "TURNED", "rotation": turn, "xscale": scale, "yscale": scale},
    )
    choice = DrawingChoice(name="Hut", layers={**LAYERS, "TURNED": "concrete"})
    walls = import_dxf(data_of(document), choice, catalogue).of(Wall).values()
    turned = [w for w in walls if w.construction == "concrete"]
    assert sum(w.length_m for w in turned) == pytest.approx(4 * 0.3 * scale)
    xs = [x for w in turned for x in (w.a[0], w.b[0])]
    assert min(xs) == pytest.approx(2.0 - (0.3 if turn else 0.0))


def _refusal(data: bytes, catalogue: Catalogue, **choice: object) -> str:
    with pytest.raises(DesignError) as caught:
        import_dxf(data, DrawingChoice.model_validate({"name": "x", "layers": LAYERS, **choice}), catalogue)
    return str(caught.value)


def test_units_are_asked_for_and_checked(catalogue: Catalogue) -> None:
    unsaid = data_of(drawing(units=0))
    assert inspect_dxf(unsaid).units is None
    assert "does not say its units" in _refusal(unsaid, catalogue)
    wrong = _refusal(unsaid, catalogue, units="m")
    assert "10,000.00 m across in m" in wrong and "In mm or cm" in wrong
    assert len(import_dxf(unsaid, DrawingChoice(name="x", units="mm", layers=LAYERS), catalogue).of(Wall))


def test_a_choice_must_name_what_exists(catalogue: Catalogue) -> None:
    data = data_of(drawing())
    assert "no such layer" in _refusal(data, catalogue, layers={"ATTIC": "stone"})
    assert "not in the catalogue" in _refusal(data, catalogue, layers={"OUTER": "cheese"})
    assert "at least one layer" in _refusal(data, catalogue, layers={})
    assert "none of the chosen layers" in _refusal(data, catalogue, layers={"DOORS": "door-solid"})


def _bomb(depth: int, width: int) -> bytes:
    document = ezdxf.new("R2010")
    document.header["$INSUNITS"] = MILLIMETRES
    block = document.blocks.new("B0")
    block.add_line((0, 0), (1, 1))
    for level in range(1, depth + 1):
        block = document.blocks.new(f"B{level}")
        for _ in range(width):
            block.add_blockref(f"B{level - 1}", (0, 0))
    document.modelspace().add_blockref(f"B{depth}", (0, 0))
    return data_of(document)


def test_a_bomb_of_nested_blocks_is_refused_without_unfolding() -> None:
    with pytest.raises(DesignError, match="unfolds into 10,000,000,000 lines"):
        inspect_dxf(_bomb(depth=10, width=10))
    with pytest.raises(DesignError, match="nested more than"):
        inspect_dxf(_bomb(depth=20, width=1))


def test_a_grid_of_inserts_counts_its_copies() -> None:
    document = drawing()
    document.modelspace().add_blockref(
        "COLUMN", (0, 0), dxfattribs={"row_count": 5_000, "column_count": 5_000}
    )
    with pytest.raises(DesignError, match="unfolds into"):
        inspect_dxf(data_of(document))


def test_a_block_that_holds_itself_is_refused() -> None:
    document = drawing()
    document.blocks.get("COLUMN").add_blockref("COLUMN", (0, 0))
    with pytest.raises(DesignError, match=r"holds itself|damaged"):
        inspect_dxf(data_of(document))


def test_too_many_walls_are_refused(catalogue: Catalogue) -> None:
    document = drawing()
    for k in range(7_000):
        document.modelspace().add_line((k, 0), (k, 3_000), dxfattribs={"layer": "OUTER"})
    assert "more than 6,000 walls" in _refusal(data_of(document), catalogue)


@pytest.mark.parametrize(
    "data", [b"", b"   ", b"not a drawing", b"\x00\x01\x02" * 100, b"0\nSECTION\n2\nENTITIES\n0\nLINE\n10\n"]
)
def test_what_is_no_drawing_is_refused(data: bytes) -> None:
    with pytest.raises(DesignError):
        inspect_dxf(data)


def test_coordinates_that_are_no_numbers_are_refused() -> None:
    text = data_of(drawing()).decode()
    for bad in ("nan", "1e400", "hello"):
        with pytest.raises(DesignError):
            inspect_dxf(text.replace("5000.0", bad).encode())


def test_a_file_beyond_the_limit_is_refused(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(dxf_entities, "MAX_BYTES", 1_000)
    with pytest.raises(DesignError, match="at most"):
        inspect_dxf(data_of(drawing()))


def test_from_the_command_line(tmp_path: Path) -> None:
    path, out = tmp_path / "hut.dxf", tmp_path / "hut.json"
    path.write_bytes(data_of(drawing()))
    runner = CliRunner()
    listed = json.loads(runner.invoke(main, ["import-dxf", str(path)]).output)
    assert {layer["name"] for layer in listed["layers"]} >= set(LAYERS)
    chosen = [part for k, v in LAYERS.items() for part in ("--layer", f"{k}={v}")]
    done = runner.invoke(main, ["import-dxf", str(path), *chosen, "--out", str(out)])
    assert done.exit_code == 0
    assert runner.invoke(main, ["evaluate", str(out)]).exit_code == 0


def _walls(document: Drawing, catalogue: Catalogue, **layers: str) -> list[Wall]:
    choice = DrawingChoice(name="Hut", layers={"OUTER": "stone", **layers})
    return list(import_dxf(data_of(document), choice, catalogue).of(Wall).values())


def test_arcs_become_short_walls_along_the_curve(catalogue: Catalogue) -> None:
    document = drawing()
    document.modelspace().add_arc((5_000, 2_000), 1_500, 0, 180, dxfattribs={"layer": "APSE"})
    apse = [w for w in _walls(document, catalogue, APSE="plasterboard") if w.construction != "stone"]
    assert len(apse) >= 10
    assert sum(w.length_m for w in apse) == pytest.approx(math.pi * 1.5, rel=0.01)
    for wall in apse:
        assert math.dist(wall.a, (5, 2)) == pytest.approx(1.5, abs=0.002)


def test_bulged_polylines_are_curved(catalogue: Catalogue) -> None:
    document = drawing()
    half_circle = [(1_000, 1_000, 1.0), (3_000, 1_000, 0.0)]
    document.modelspace().add_lwpolyline(half_circle, format="xyb", dxfattribs={"layer": "BAY"})
    bay = [w for w in _walls(document, catalogue, BAY="plasterboard") if w.construction != "stone"]
    assert sum(w.length_m for w in bay) == pytest.approx(math.pi, rel=0.01)


def test_what_lies_on_layer_nought_takes_the_layer_of_its_insert() -> None:
    document = drawing()
    post = document.blocks.new("POST")
    post.add_line((0, 0), (100, 0), dxfattribs={"layer": "0"})
    post.add_line((0, 0), (0, 100), dxfattribs={"layer": "OWN"})
    document.modelspace().add_blockref("POST", (500, 500), dxfattribs={"layer": "POSTS"})
    names = {layer.name: layer.segments for layer in inspect_dxf(data_of(document)).layers}
    assert names["POSTS"] == 1 and names["OWN"] == 1 and "0" not in names


def test_blocks_in_blocks_unfold(catalogue: Catalogue) -> None:
    document = drawing()
    pair = document.blocks.new("PAIR")
    pair.add_blockref("COLUMN", (0, 0))
    pair.add_blockref("COLUMN", (1_000, 0))
    document.modelspace().add_blockref("PAIR", (1_000, 3_000), dxfattribs={"layer": "PAIRS"})
    found = [w for w in _walls(document, catalogue, PAIRS="concrete") if w.construction == "concrete"]
    assert len(found) == 8
    assert {round(min(w.a[0], w.b[0]), 2) for w in found} == {1.0, 1.3, 2.0, 2.3}


def test_a_grid_of_inserts_is_drawn_in_rows_and_columns(catalogue: Catalogue) -> None:
    document = drawing()
    document.modelspace().add_blockref(
        "COLUMN",
        (500, 500),
        dxfattribs={
            "layer": "GRID",
            "row_count": 2,
            "column_count": 3,
            "row_spacing": 2_000,
            "column_spacing": 1_500,
        },
    )
    found = [w for w in _walls(document, catalogue, GRID="concrete") if w.construction == "concrete"]
    assert len(found) == 2 * 3 * 4
    assert max(w.b[0] for w in found) == pytest.approx(0.5 + 2 * 1.5 + 0.3)


def test_a_line_drawn_twice_is_one_wall(catalogue: Catalogue) -> None:
    document = drawing()
    space = document.modelspace()
    space.add_line((0, 2_000), (5_000, 2_000), dxfattribs={"layer": "INNER"})
    space.add_line((5_000, 2_000), (0, 2_000), dxfattribs={"layer": "INNER"})
    inner = [w for w in _walls(document, catalogue, INNER="plasterboard") if w.construction != "stone"]
    assert len(inner) == 2


def test_a_door_off_every_wall_is_left_out(catalogue: Catalogue) -> None:
    document = drawing()
    document.modelspace().add_line((2_000, 2_000), (2_900, 2_000), dxfattribs={"layer": "DOORS"})
    design = import_dxf(data_of(document), DrawingChoice(name="x", layers=LAYERS), catalogue)
    assert len(design.of(Opening)) == 1


@pytest.mark.parametrize(
    ("units", "scale"), [("mm", 1.0), ("cm", 0.1), ("m", 0.001), ("in", 1 / 25.4), ("ft", 1 / 304.8)]
)
def test_the_same_hut_in_every_unit(catalogue: Catalogue, units: str, scale: float) -> None:
    document = ezdxf.new("R2010")
    corners = [(0, 0), (10_000 * scale, 0), (10_000 * scale, 4_000 * scale), (0, 4_000 * scale)]
    document.modelspace().add_lwpolyline(corners, close=True, dxfattribs={"layer": "OUTER"})
    choice = DrawingChoice(name="x", units=units, layers={"OUTER": "stone"})
    design = import_dxf(data_of(document), choice, catalogue)
    assert sum(w.length_m for w in design.of(Wall).values()) == pytest.approx(28, rel=1e-3)
    assert next(iter(design.of(Space).values())).outline


def test_a_drawing_can_be_planned_on_at_once(catalogue: Catalogue) -> None:
    design = import_dxf(data_of(drawing()), DrawingChoice(name="x", layers=LAYERS), catalogue)
    result = evaluate(Plan(design, catalogue))
    assert [r.name for r in result.rooms] == ["Room 1", "Room 2"]
    assert result.findings[0].id == "signal-none"


def _nest(*, nested: int, copies: int, lines: int) -> bytes:
    """Blocks that hold blocks, each inserted so often, the innermost of so many lines."""
    document = ezdxf.new("R2010")
    for level in range(nested):
        block = document.blocks.new(f"B{level}")
        for k in range(lines if level == 0 else 0):
            block.add_line((k, 0), (k, 1))
        for k in range(copies if level else 0):
            block.add_blockref(f"B{level - 1}", (k, 0))
    document.modelspace().add_blockref(f"B{nested - 1}", (0, 0))
    document.modelspace().add_line((0, 0), (5, 0))
    return data_of(document)


def _arrayed_empty() -> bytes:
    document = ezdxf.new("R2010")
    document.blocks.new("EMPTY")
    attributes = {"row_count": 30_000, "column_count": 30_000}
    document.modelspace().add_blockref("EMPTY", (0, 0), dxfattribs=attributes)
    document.modelspace().add_line((0, 0), (5, 0))
    return data_of(document)


def _arcs() -> bytes:
    document = ezdxf.new("R2010")
    block = document.blocks.new("ARCS")
    for k in range(300):
        block.add_arc((k, 0), 1, 0, 350)
    for k in range(300):
        document.modelspace().add_blockref("ARCS", (0, k))
    return data_of(document)


@pytest.mark.parametrize(
    "data",
    [_nest(nested=12, copies=10, lines=0), _nest(nested=8, copies=10, lines=3), _arrayed_empty(), _arcs()],
    ids=["nested empty blocks", "nested lines", "an array of nothing", "arcs"],
)
def test_what_unfolds_into_too_much_is_refused_at_once(data: bytes) -> None:
    start = time.monotonic()
    with pytest.raises(DesignError, match="unfolds into"):
        inspect_dxf(data)
    assert time.monotonic() - start < 20


def test_hatching_is_not_taken_for_walls(catalogue: Catalogue) -> None:
    document = ezdxf.new("R2010")
    document.header["$INSUNITS"] = 6
    space = document.modelspace()
    for k in range(200):
        space.add_line((0, k / 10), (30, k / 10 + 0.01), dxfattribs={"layer": "W"})
        space.add_line((k / 10, 0), (k / 10 + 0.01, 30), dxfattribs={"layer": "W"})
    with pytest.raises(DesignError, match="cross each other"):
        import_dxf(data_of(document), DrawingChoice(name="x", layers={"W": "stone"}), catalogue)


def test_a_drawing_is_read_in_a_process_that_its_limits_end(
    catalogue: Catalogue, monkeypatch: pytest.MonkeyPatch
) -> None:
    found = inspect_confined(data_of(drawing()))
    assert found == inspect_dxf(data_of(drawing()))
    choice = DrawingChoice(name="House", units=found.units or "m", layers=LAYERS)
    assert import_confined(data_of(drawing()), choice, catalogue) == import_dxf(
        data_of(drawing()), choice, catalogue
    )
    with pytest.raises(DesignError, match="is empty"):
        inspect_confined(b"   ")
    monkeypatch.setattr(confined, "WALL_SECONDS", 0.01)
    with pytest.raises(Busy):  # kept waiting: nothing is known to be wrong with it
        inspect_confined(data_of(drawing()))


@pytest.mark.parametrize(("code", "refused"), [(-9, Busy), (-24, DesignError), (2, DesignError)])
def test_what_ended_a_reader_is_told_apart(
    code: int, refused: type[Exception], monkeypatch: pytest.MonkeyPatch
) -> None:
    """Ended by a system short of memory, by its own limit of the processor, by its own memory."""
    monkeypatch.setattr(confine, "_work", lambda *_: (code, b""))
    with pytest.raises(refused):
        inspect_confined(data_of(drawing()))
    with pytest.raises(refused):
        read_picture(b"\x89PNG")


def test_an_entity_without_a_layer_lies_on_layer_0() -> None:
    text = data_of(drawing()).decode().replace("\r\n", "\n")
    bare = re.sub(r"\n  8\n[^\n]+\n(?=100\nAcDbLine)", "\n", text)
    assert bare != text
    assert "0" in {row.name for row in inspect_dxf(bare.encode()).layers}


def test_a_binary_drawing_says_the_same(catalogue: Catalogue) -> None:
    text, binary = data_of(drawing()), binary_of(drawing())
    assert inspect_dxf(binary) == inspect_dxf(text)
    choice = DrawingChoice(name="Hut", layers=LAYERS)
    assert import_dxf(binary, choice, catalogue) == import_dxf(text, choice, catalogue)
    assert import_confined(binary, choice, catalogue).of(Wall)
    for bad in (binary[:200], binary[:40] + b"\xff" * 400, b"\0" * 500):
        with pytest.raises(DesignError, match=r"not a DXF drawing|damaged|holds no line"):
            inspect_confined(bad)


def test_rooms_are_named_by_the_words_written_in_them(catalogue: Catalogue) -> None:
    """Large words before small ones, figures left aside, tags in blocks read, one name never twice."""
    document = drawing()
    space = document.modelspace()
    space.add_line((0, 2_000), (5_000, 2_000), dxfattribs={"layer": "INNER"})
    space.add_text("14.2 m²", height=400).set_placement((1_000, 500))
    space.add_text("Store  room", height=200).set_placement((1_000, 1_000))
    paragraph = space.add_mtext("{\\fArial|b1;Store room}\\P7.1 m2", dxfattribs={"char_height": 150})
    paragraph.set_location((2_500, 3_000), attachment_point=5)
    tag = document.blocks.new("TAG")
    tag.add_attdef("NAME", (0, 0), dxfattribs={"height": 200})
    space.add_blockref("TAG", (7_000, 2_500)).add_auto_attribs({"NAME": "Packing hall"})
    space.add_text("2.50", height=900).set_placement((8_000, 1_000))
    design = import_dxf(data_of(document), DrawingChoice(name="Hut", layers=LAYERS), catalogue)
    rooms = {s.name: (s.outline, s.floor) for s in design.of(Space).values()}
    assert sorted(rooms) == ["Packing hall", "Store room", "Store room 2"]
    assert max(x for x, _ in rooms["Packing hall"][0]) == 10


def test_walls_that_do_not_quite_meet_close_their_rooms(catalogue: Catalogue) -> None:
    document = ezdxf.new("R2010")
    document.header["$INSUNITS"] = MILLIMETRES
    space = document.modelspace()
    for a, b in (
        ((0, 3), (6_000, 0)),
        ((6_004, -6), (6_000, 4_000)),
        ((6_000, 4_010), (0, 4_000)),
        ((2, 4_000), (0, 8)),
    ):
        space.add_line(a, b, dxfattribs={"layer": "OUTER"})
    design = import_dxf(data_of(document), DrawingChoice(name="Hut", layers={"OUTER": "stone"}), catalogue)
    assert [s.name for s in design.of(Space).values()] == ["Room 1"]
