"""A measured walk in: what a stand-in hears is read whole, and fitted to what was hidden."""

from __future__ import annotations

from pathlib import Path

from click.testing import CliRunner

from heathrise.cli import main
from heathrise.core.catalogue import Catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.context.scope import as_planned
from heathrise.core.design import Design, Device, Floor
from heathrise.core.views.calibration import calibration_view
from heathrise.formats.project_file import Project, dump_project
from heathrise.formats.survey_csv import read_survey


def _heard(path: Path, *more: str) -> str:
    result = CliRunner().invoke(main, ["surveyor", str(path), *more])
    assert result.exit_code == 0, result.output
    return result.output


def test_what_the_stand_in_hears_is_read_whole_and_fitted(
    catalogue: Catalogue, school: Design, tmp_path: Path
) -> None:
    path = tmp_path / "school.json"
    path.write_text(dump_project(Project("Larkmere", school)), "utf-8")
    text = _heard(path, "--seed", "7", "--walls", "1.4")
    assert text == _heard(path, "--seed", "7", "--walls", "1.4")
    assert text != _heard(path, "--seed", "8", "--walls", "1.4")
    floors = list(school.of(Floor).values())
    devices = list(as_planned(school).of(Device).values())
    read = read_survey(text.encode(), floors, devices, "ground")
    rows = [r for heard in read.heard.values() for r in heard]
    assert not read.faults and len(rows) == len(text.splitlines()) - 1 > 300
    assert {r.floor for r in rows} == {"ground", "upper", "pavilion"}
    fit = calibration_view(Plan(school, catalogue), rows).calibration
    scale = next(f for f in fit.fitted if f.figure == "signal.wall_scale")
    assert abs(scale.value - 1.4) <= 3 * scale.error and fit.faint > 100
    by_address = read_survey(_heard(path, "--addresses").encode(), floors, devices, "ground")
    assert all(who.startswith("02:00:5e") for who in by_address.heard)
