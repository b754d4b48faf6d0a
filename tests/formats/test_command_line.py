"""The command line answers what the browser asks, and prints every export and paper."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from click.testing import CliRunner, Result

from heathrise.cli import main
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, EquipmentRoom, FarPoint, Space, WirelessName, apply, put
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.shown import shown
from heathrise.formats.project_file import Project, dump_project
from heathrise.formats.registry import formats
from heathrise.jobs import KINDS
from heathrise.questions import QUESTIONS

_SAID = {
    "channels": {"band": "5"},
    "walk": {"points": [{"floor": "f", "at": [1, 1]}, {"floor": "f", "at": [4, 1]}]},
    "rays": {"floor": "f", "x": 1.0, "y": 1.0},
    "section": {"floor": "f"},
    "cures": {"finding": "signal-none"},
    "variant": {"policy": "first_only"},
    "sites": {"wishes": {"seconds": 1, "goals": ["fewest"]}},
    "needless": {},
}


@pytest.fixture
def project(home: Design, tmp_path: Path) -> Path:
    path = tmp_path / "home.json"
    path.write_text(dump_project(Project("Home", home)), "utf-8")
    return path


def _run(*words: object) -> Result:
    return CliRunner().invoke(main, [str(w) for w in words])


@pytest.mark.parametrize("question", list(QUESTIONS))
def test_every_question_is_answered_in_json(question: str, project: Path, home: Design) -> None:
    floor = next(iter(home.tables["floor"]))
    said = json.loads(json.dumps(_SAID.get(question, {})).replace('"f"', json.dumps(floor)))
    if question == "best_places":
        point = next(d for d in home.of(Device).values() if d.kind == "access_point")
        said = {"device": point.id, "wishes": {"seconds": 1}}
    if question == "rack_places":
        said = {"room": next(iter(home.of(EquipmentRoom)))}
    if question in ("remedies", "way"):
        said = {"device": next(iter(home.of(Device)))}
    if question == "far_ways":
        rack = next(iter(home.of(EquipmentRoom).values()))
        gate = FarPoint(id="gate", name="Gate", at=(rack.at[0] + 60, rack.at[1] + 60), cameras=1)
        project.write_text(dump_project(Project("Home", apply(home, [put(gate)]))), "utf-8")
        said = {"point": "gate"}
    if question == "school":
        said = {"matter": "width", "school": "80"}
    if question == "practice_change":
        said = {"practice": {"id": "p", "name": "Wide", "choices": [{"matter": "width", "school": "80"}]}}
    if question == "packet":
        point = next(d for d in home.of(Device).values() if d.kind == "access_point")
        said = {"start": f"air:{next(iter(home.of(WirelessName)))}:{point.id}", "goal": "internet"}
    if question == "room_chain":
        said = {"space": next(iter(home.of(Space)))}
    done = _run("ask", project, question, "--with", json.dumps(said))
    assert done.exit_code == 0, done.output
    answer = json.loads(done.stdout)
    assert set(answer) == set(QUESTIONS[question].answer.model_fields)


def test_the_order_at_the_command_line_is_the_one_on_the_screen(project: Path, home: Design) -> None:
    plan = Plan(home, load_catalogue())
    said = json.loads(_run("ask", project, "order").stdout)["sum"]["total"]
    price = shown(plan).price
    assert price is not None and said == price.total == order_of(plan).sum.total


def test_what_cannot_be_asked_is_told(project: Path) -> None:
    listed = _run("ask", project)
    assert listed.exit_code == 0 and all(name in listed.stdout for name in QUESTIONS)
    assert "channels (band, device)" in listed.stdout
    wrong = _run("ask", project, "weather")
    assert wrong.exit_code == 2 and "order" in wrong.stderr
    for said, words in (("{", "should be JSON"), ('{"band": "7"}', "band"), ('{"colour": 1}', "colour")):
        refused = _run("ask", project, "channels", "--with", said)
        assert refused.exit_code == 1 and words in refused.stderr, refused.output


@pytest.mark.parametrize("what", list(formats("out")))
def test_every_export_and_paper_is_written(what: str, project: Path, tmp_path: Path) -> None:
    out = tmp_path / what
    done = _run("export", project, what, "--out", out)
    assert done.exit_code == 0, done.output
    data = out.read_bytes()
    assert len(data) > 300
    if formats("out")[what].paper:
        assert data.startswith(b"%PDF")


def test_what_takes_long_at_the_command_line_is_a_job_of_the_server() -> None:
    for name, question in QUESTIONS.items():
        assert (name in KINDS) == question.long or name == "handover", name
        if question.long:
            assert KINDS[name].asked is question.asked and KINDS[name].result is question.answer
