"""The command line: evaluate, import and export without a browser or a database."""

from __future__ import annotations

import json
import sys
from datetime import UTC, datetime
from pathlib import Path
from typing import TYPE_CHECKING, Any, NoReturn

import click

from .formats.registry import formats

if TYPE_CHECKING:
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


@main.command("evaluate")
@click.argument("project", type=click.Path(path_type=Path))
def evaluate_command(project: Path) -> None:
    """Print the whole evaluation of PROJECT as JSON."""
    from .core.catalogue import load_catalogue
    from .core.evaluation.evaluate import evaluate

    opened = _open(project)
    result = evaluate(opened.design, load_catalogue())
    click.echo(result.model_dump_json(indent=1))


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
def export_command(project: Path, what: str) -> None:
    """Print one of the exports of PROJECT."""
    from .core.catalogue import load_catalogue
    from .core.evaluation.evaluate import evaluate
    from .core.views.bill_of_materials import order_of

    row, opened = formats("out")[what], _open(project)
    result: Any = None
    if row.needs != "design":
        result = evaluate(opened.design, load_catalogue())
    if row.needs == "order":
        today = datetime.now(UTC).date()
        result = order_of(opened.design, load_catalogue(), result, {}, today)
    click.echo(row.write(opened.name, opened.design, result), nl=False)


@main.command("tester")
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--seed", default=1, show_default=True, help="the same seed gives the same file")
@click.option("--faults", default=3, show_default=True, help="how many cables are at fault")
def tester_command(project: Path, seed: int, faults: int) -> None:
    """Print what a stand-in for a cable tester says of PROJECT's cables, as CSV."""
    from .core.catalogue import load_catalogue
    from .core.evaluation.evaluate import evaluate
    from .core.views.labels import project_labels
    from .standins import measured_csv

    opened = _open(project)
    evaluation = evaluate(opened.design, load_catalogue(), "figures")
    labels = project_labels(opened.design, evaluation)
    lengths = {k.id: k.fixed_m for k in evaluation.cable.links}
    day = datetime.now(UTC).date().isoformat()
    click.echo(measured_csv(labels, lengths, seed, faults, day)[0], nl=False)


@main.command("meter")
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--seed", default=1, show_default=True, help="the same seed gives the same file")
@click.option("--faults", default=3, show_default=True, help="how many ports are at fault")
def meter_command(project: Path, seed: int, faults: int) -> None:
    """Print what a stand-in for a meter says of PROJECT's ports, as CSV."""
    from .core.catalogue import load_catalogue
    from .core.context.scope import as_planned
    from .core.design import Switch
    from .core.evaluation.evaluate import evaluate
    from .core.views.acceptance import planned_ports
    from .standins import metered_csv

    opened = _open(project)
    evaluation = evaluate(opened.design, load_catalogue(), "figures")
    ports = planned_ports(dict(as_planned(opened.design).of(Switch)), evaluation)
    day = datetime.now(UTC).date().isoformat()
    click.echo(metered_csv(ports, seed, faults, day)[0], nl=False)


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
    from .core.catalogue import load_catalogue
    from .core.context.scope import as_planned
    from .standins import Hidden, spots_of, surveyed_csv

    design = as_planned(_open(project).design)
    hidden = Hidden({"signal.wall_scale": walls}, offset, noise)
    spots = spots_of(design)
    text = surveyed_csv(design, load_catalogue(), hidden, spots, seed, by_address=addresses)
    click.echo(text, nl=False)


@main.command("sheet")
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--out", type=click.Path(path_type=Path), required=True, help="PDF to write")
@click.option("--paper", default="A4", show_default=True, help="A4, A3, Letter or Tabloid")
@click.option("--scale", type=int, help="50, 100 or 200; without one each storey fits its page")
def sheet_command(project: Path, out: Path, paper: str, scale: int | None) -> None:
    """Draw the storeys of PROJECT to scale, as PDF."""
    from .core.catalogue import load_catalogue
    from .core.design import DesignError
    from .core.evaluation.evaluate import evaluate
    from .formats.papers import drawn_of, sheets_pdf

    opened, catalogue = _open(project), load_catalogue()
    evaluation = evaluate(opened.design, catalogue, "figures")
    today = datetime.now(UTC).date()
    drawn = drawn_of(opened.name, 1, opened.design, catalogue, evaluation, today)
    try:
        out.write_bytes(sheets_pdf(drawn, paper, scale))
    except (DesignError, OSError) as error:
        _fail(error, out)


@main.command("schema")
def schema_command() -> None:
    """Print the JSON Schema of the project file."""
    from .formats.project_file import project_schema

    click.echo(json.dumps(project_schema(), indent=1))


@main.command("rules")
def rules_command() -> None:
    """Print every rule and figure with its source, as docs/rules.md has them."""
    from .core.catalogue import load_catalogue
    from .formats.rules_document import rules_document

    click.echo(rules_document(load_catalogue().rules), nl=False)


if __name__ == "__main__":
    main()
