"""The project file: round trip, schema, and every way a file can be bad."""

from __future__ import annotations

import csv
import io
import json
from pathlib import Path

import pytest
import yaml
from click.testing import CliRunner
from hypothesis import given
from hypothesis import strategies as st
from jsonschema import Draft202012Validator

import heathrise.formats.project_file as project_file
from heathrise.cli import main
from heathrise.core.catalogue import Catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, DesignError, Device, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.formats.project_file import VERSION, Project, dump_project, load_project, project_schema
from heathrise.formats.settings_export import write_json, write_yaml
from heathrise.formats.tables_csv import cable_schedule, port_map

from ..thorough import examples

SHIPPED = Path(project_file.__file__).parent / "schema" / "project-19.json"


@pytest.fixture(scope="module")
def document(school: Design) -> dict:
    return json.loads(dump_project(Project("Larkmere", school)))


def test_round_trip_loses_nothing(catalogue: Catalogue, school: Design, home: Design) -> None:
    for name, design in (("Larkmere", school), ("Ålderness <img src=x>", home)):
        back = load_project(dump_project(Project(name, design)).encode(), catalogue)
        assert back.name == name
        assert {k: dict(v) for k, v in back.design.tables.items()} == {
            k: dict(v) for k, v in design.tables.items()
        }
        assert dump_project(back) == dump_project(Project(name, design))


def test_shipped_schema_is_the_models_and_holds_for_what_is_saved(document: dict) -> None:
    assert json.loads(SHIPPED.read_text("utf-8")) == json.loads(json.dumps(project_schema()))
    validator = Draft202012Validator(project_schema())
    assert not list(validator.iter_errors(document))
    document = {**document, "elements": {**document["elements"], "wall": [{"id": "w"}]}}
    assert list(validator.iter_errors(document))


def _changed(document: dict, **change: object) -> bytes:
    return json.dumps({**document, **change}).encode()


def _wall(document: dict, **change: object) -> bytes:
    walls = json.loads(json.dumps(document["elements"]["wall"]))
    walls[3].update(change)
    return _changed(document, elements={**document["elements"], "wall": walls})


def _refusal(data: bytes, catalogue: Catalogue) -> str:
    with pytest.raises(DesignError) as caught:
        load_project(data, catalogue)
    return str(caught.value.problems[0])


def test_bad_files_are_refused_with_the_place(document: dict, catalogue: Catalogue) -> None:
    whole = json.dumps(document).encode()
    site = [{"id": "site"}]
    cases: list[tuple[bytes, str]] = [
        (b"", "line 1, column 1"),
        (whole[: len(whole) // 2], "line 1, column"),
        (b"\xff\xfe\x00", "not UTF-8"),
        (b"[1, 2]", "one JSON object"),
        (_changed(document, format="other"), "not a project file"),
        (_changed(document, version=VERSION + 1), f"version {VERSION + 1} cannot be read"),
        (_changed(document, name="  "), "name"),
        (_changed(document, extra=1), "extra"),
        (_changed(document, elements=[]), "elements"),
        (_changed(document, elements={"site": site, "spaceship": []}), "elements.spaceship"),
        (_changed(document, elements={"site": site * 2}), "stands twice"),
        (_changed(document, elements={"site": [4]}), "elements.site[0]"),
        (_wall(document, a=[float("nan"), 0]), "NaN"),
        (_wall(document, a=[float("inf"), 0]), "Infinity"),
        (whole.replace(b'"a": [', b'"a": [1e999, ', 1), "too large a number"),
        (_wall(document, a=[1e7, 0]), "elements.wall[3].a"),
        (_wall(document, a=["x", 0]), "elements.wall[3].a"),
        (_wall(document, colour="red"), "elements.wall[3].colour"),
        (_wall(document, floor="attic"), "'attic', which does not exist"),
        (b'{"a":' * 5000, ""),
        (_changed(document, elements={"wall": [{}] * 7000}), "7000 elements; at most"),
        (b" " * 21_000_000, "at most 20 MB"),
    ]
    for data, said in cases:
        assert said in _refusal(data, catalogue)


@examples(60)
@given(
    st.recursive(
        st.none() | st.booleans() | st.floats() | st.text(max_size=5),
        lambda inner: (
            st.lists(inner, max_size=3)
            | st.dictionaries(st.sampled_from(["id", "format", "elements", "wall", "a"]), inner, max_size=3)
        ),
        max_leaves=8,
    )
)
def test_whatever_is_opened_gives_a_clear_refusal(catalogue: Catalogue, anything: object) -> None:
    with pytest.raises(DesignError):
        load_project(json.dumps(anything).encode(), catalogue)


def test_tables_hold_every_cable_and_port(catalogue: Catalogue, school: Design) -> None:
    result = evaluate(Plan(school, catalogue))
    cables = list(csv.DictReader(io.StringIO(cable_schedule(school, result))))
    assert len(cables) == sum(r.cables for r in result.runs)
    assert sum(float(c["fixed_m"]) for c in cables) == pytest.approx(result.totals.cable_m, abs=0.1)
    ports = list(csv.DictReader(io.StringIO(port_map(school, result))))
    used = [p for p in result.power.ports if p.link or p.uplink]
    assert sum(bool(p["device"]) for p in ports) == len(used)
    assert {p["device"] for p in ports if p["device"].startswith("to ")} == {
        "to the line",
        "to SW-1",
        "to SW-2",
    }
    assert {p["powers_device"] for p in ports} == {"yes", "no"}


def test_a_name_cannot_become_a_formula(catalogue: Catalogue, school: Design) -> None:
    result = evaluate(Plan(school, catalogue))
    runs = (result.runs[0].model_copy(update={"name": "=1+1"}), *result.runs[1:])
    cable = result.cable.model_copy(update={"runs": runs})
    text = cable_schedule(school, result.model_copy(update={"cable": cable}))
    assert "'=1+1" in text


def test_settings_say_the_same_in_both_formats(catalogue: Catalogue, school: Design) -> None:
    plan = Plan(school, catalogue)
    as_json = json.loads(write_json("Larkmere", plan))
    assert yaml.safe_load(write_yaml("Larkmere", plan)) == as_json
    assert as_json["keys"].startswith("not included")
    assert len(as_json["radios"]) == 30


def test_command_line_evaluates_exports_and_refuses(tmp_path: Path, school: Design) -> None:
    path = tmp_path / "school.json"
    path.write_text(dump_project(Project("Larkmere", school)), "utf-8")
    runner = CliRunner()
    done = runner.invoke(main, ["evaluate", str(path)])
    assert done.exit_code == 0
    parts = json.loads(done.output)
    assert {"plan", "signal", "cable", "power", "settings", "totals"} <= set(parts)
    for what in ("cables.csv", "ports.csv", "settings.json", "settings.yaml"):
        assert len(runner.invoke(main, ["export", str(path), what]).output) > 500
    path.write_text("{", "utf-8")
    refused = runner.invoke(main, ["evaluate", str(path)])
    assert refused.exit_code == 1
    assert f"{path}: line 1, column 2" in refused.output
    missing = runner.invoke(main, ["evaluate", str(tmp_path / "none.json")])
    assert missing.exit_code == 1 and "No such file" in missing.output


def test_tables_open_in_a_spreadsheet_without_harm(catalogue: Catalogue, home: Design) -> None:
    device = home.of(Device)["ap-1"].model_copy(update={"name": "a;=1+1;+2, =3"})
    design = apply(home, [put(device)])
    text = cable_schedule(design, evaluate(Plan(design, catalogue)))
    assert text.startswith("\ufeff")
    row = next(r for r in csv.DictReader(io.StringIO(text.removeprefix("\ufeff"))) if "a;" in r["device"])
    assert row["device"] == "a;'=1+1;'+2, '=3"


def test_a_name_that_stands_twice_is_refused(catalogue: Catalogue, home: Design) -> None:
    text = dump_project(Project("Hut", home)).replace('"name": "Hut"', '"name": "Hut", "name": "X"')
    with pytest.raises(DesignError, match="'name' twice"):
        load_project(text, catalogue)
    for version in (str(VERSION + 1), "true", '"2"', "null"):
        later = dump_project(Project("Hut", home)).replace(f'"version": {VERSION}', f'"version": {version}')
        with pytest.raises(DesignError, match=f"reads 1 to {VERSION}"):
            load_project(later, catalogue)
