"""The command line: evaluate, import and export without a browser or a database."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import TYPE_CHECKING, NoReturn

import click

from .formats.registry import formats

if TYPE_CHECKING:
    from .core.context.plan import Plan
    from .core.design import DesignError
    from .formats.project_file import Project

# Packages for numbers and drawings take seconds to load: each command loads what it needs itself.


@click.group()
def main() -> None:
    """Plan, check and export a multi-access-point installation."""


def _fail(error: DesignError | OSError, path: Path) -> NoReturn:
    problems = (error.strerror or error,) if isinstance(error, OSError) else error.problems
    for problem in problems:
        click.echo(f"{path}: {problem}", err=True)
    sys.exit(1)


def _open(path: Path) -> Project:
    from .core.catalogue import load_catalogue
    from .core.design import DesignError
    from .formats.project_file import load_project

    try:
        return load_project(path.read_bytes(), load_catalogue())
    except (DesignError, OSError) as error:
        _fail(error, path)


def _plan(path: Path) -> tuple[str, Plan]:
    """Return a project's name and its plan, under the prices that are shipped."""
    from .core.catalogue import load_catalogue, with_gear
    from .core.context.plan import Plan

    opened = _open(path)
    return opened.name, Plan(opened.design, with_gear(load_catalogue(), opened.gear))


@main.command("evaluate")
@click.argument("project", type=click.Path(path_type=Path))
def evaluate_command(project: Path) -> None:
    """Print the whole evaluation of PROJECT as JSON."""
    from .core.evaluation.evaluate import evaluate

    _, plan = _plan(project)
    click.echo(evaluate(plan, wait=True).model_dump_json(indent=1))


@main.command("ask")
@click.argument("project", type=click.Path(path_type=Path))
@click.argument("question", required=False, default="")
@click.option("--with", "said", default="{}", help="what is said with it, as JSON")
def ask_command(project: Path, question: str, said: str) -> None:
    """Print the answer to QUESTION about PROJECT as JSON. Without one, list what can be asked."""
    from .core.design import DesignError, Problem
    from .questions import QUESTIONS

    row = QUESTIONS.get(question)
    if row is None:
        for name, known in QUESTIONS.items():
            fields = ", ".join(known.asked.model_fields)
            click.echo(f"{name}{f' ({fields})' if fields else ''}", err=bool(question))
        sys.exit(2 if question else 0)
    _, plan = _plan(project)
    try:
        try:
            arguments = json.loads(said)
        except ValueError:
            raise DesignError([Problem("--with", 'should be JSON, such as {"band": "5"}')]) from None
        click.echo(row.ask(plan, arguments).model_dump_json(indent=1))
    except DesignError as error:
        _fail(error, project)


@main.command("import-dxf")
@click.argument("drawing", type=click.Path(path_type=Path))
@click.option("--layer", "layers", multiple=True, help="LAYER=CONSTRUCTION, as often as needed")
@click.option("--units", help="mm, cm, m, in or ft, where the drawing does not say")
@click.option("--name", help="name of the project; the drawing's name without one")
@click.option("--out", type=click.Path(path_type=Path), help="project file to write")
def import_command(
    drawing: Path, layers: tuple[str, ...], units: str | None, name: str | None, out: Path | None
) -> None:
    """Make a project from DRAWING. Without --layer, list its layers."""
    from .core.catalogue import load_catalogue
    from .core.design import DesignError
    from .formats.dxf import DrawingChoice, import_dxf, inspect_dxf
    from .formats.project_file import Project, dump_project

    try:
        data = drawing.read_bytes()
        if not layers:
            click.echo(inspect_dxf(data).model_dump_json(indent=1))
            return
        chosen = dict(pair.rsplit("=", 1) for pair in layers if "=" in pair)
        if len(chosen) != len(layers):
            raise click.UsageError("--layer takes LAYER=CONSTRUCTION, such as WALLS=brick-single")
        choice = DrawingChoice(name=name or drawing.stem, units=units, layers=chosen)
        design = import_dxf(data, choice, load_catalogue())
        text = dump_project(Project(choice.name, design))
        if out is None:
            click.echo(text, nl=False)
        else:
            out.write_text(text, "utf-8")
    except (DesignError, OSError) as error:
        _fail(error, drawing)


@main.command("export")
@click.argument("project", type=click.Path(path_type=Path))
@click.argument("what", type=click.Choice(list(formats("out"))))
@click.option("--out", type=click.Path(path_type=Path), help="file to write, for one that is no text")
def export_command(project: Path, what: str, out: Path | None) -> None:
    """Print one of the exports or papers of PROJECT."""
    from .core.design import DesignError

    name, plan = _plan(project)
    try:
        written = formats("out")[what].write(name, plan)
        if out is None:
            click.echo(written, nl=False)
        else:
            out.write_bytes(written if isinstance(written, bytes) else written.encode())
    except (DesignError, OSError) as error:
        _fail(error, out or project)


@main.command("tester")
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--seed", default=1, show_default=True, help="the same seed gives the same file")
@click.option("--faults", default=3, show_default=True, help="how many cables are at fault")
def tester_command(project: Path, seed: int, faults: int) -> None:
    """Print what a stand-in for a cable tester says of PROJECT's cables, as CSV."""
    from .core.evaluation.evaluate import evaluate
    from .core.views.labels import project_labels
    from .standins import measured_csv

    _, plan = _plan(project)
    lengths = {k.id: k.fixed_m for k in evaluate(plan).cable.links}
    text, _ = measured_csv(project_labels(plan), lengths, seed, faults, plan.on.isoformat())
    click.echo(text, nl=False)


@main.command("meter")
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--seed", default=1, show_default=True, help="the same seed gives the same file")
@click.option("--faults", default=3, show_default=True, help="how many ports are at fault")
def meter_command(project: Path, seed: int, faults: int) -> None:
    """Print what a stand-in for a meter says of PROJECT's ports, as CSV."""
    from .core.views.acceptance import planned_ports
    from .standins import metered_csv

    _, plan = _plan(project)
    click.echo(metered_csv(planned_ports(plan), seed, faults, plan.on.isoformat())[0], nl=False)


@main.command("surveyor")
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--seed", default=1, show_default=True, help="the same seed gives the same file")
@click.option("--walls", default=1.2, show_default=True, help="how heavy walls really are")
@click.option("--offset", default=-2.0, show_default=True, help="what the meter adds, dB")
@click.option("--noise", default=3.0, show_default=True, help="spread of its levels, dB")
@click.option("--addresses", is_flag=True, help="name radios by their addresses")
def surveyor_command(
    project: Path, seed: int, walls: float, offset: float, noise: float, addresses: bool
) -> None:
    """Print what a stand-in for a survey meter hears on a walk through PROJECT's rooms, as CSV."""
    from .standins import Hidden, spots_of, surveyed_csv

    _, plan = _plan(project)
    hidden = Hidden({"signal.wall_scale": walls}, offset, noise)
    spots = spots_of(plan.design)
    click.echo(surveyed_csv(plan.design, plan.shelf, hidden, spots, seed, by_address=addresses), nl=False)


@main.command("sheet")
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--out", type=click.Path(path_type=Path), required=True, help="PDF to write")
@click.option("--paper", default="A4", show_default=True, help="A4, A3, A2, Letter or Tabloid")
@click.option("--scale", type=int, help="50, 100 or 200; without one each storey fits its page")
def sheet_command(project: Path, out: Path, paper: str, scale: int | None) -> None:
    """Draw the storeys of PROJECT to scale, as PDF."""
    from .core.design import DesignError
    from .formats.papers import drawn_of, sheets_pdf

    name, plan = _plan(project)
    drawn = drawn_of(name, 1, plan)
    try:
        out.write_bytes(sheets_pdf(drawn, paper, scale))
    except (DesignError, OSError) as error:
        _fail(error, out)


@main.command("schema")
@click.argument("what", type=click.Choice(["project", "settings"]), default="project")
def schema_command(what: str) -> None:
    """Print the JSON Schema of the project file, or of the settings."""
    if what == "settings":
        from .formats.settings_export import settings_schema as schema
    else:
        from .formats.project_file import project_schema as schema

    click.echo(json.dumps(schema(), indent=1))


@main.command("rules")
def rules_command() -> None:
    """Print every rule and figure with its source, as docs/rules.md has them."""
    from .core.catalogue import load_catalogue
    from .formats.rules_document import rules_document

    click.echo(rules_document(load_catalogue().rules), nl=False)


if __name__ == "__main__":
    main()
