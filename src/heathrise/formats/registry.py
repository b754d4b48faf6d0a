"""Every format that comes in or goes out: what web, command line and menu all read.

A format is a module of its own and one line here; its functions are named, not imported, so that
listing them loads nothing.
"""

from __future__ import annotations

from dataclasses import dataclass
from importlib import import_module
from typing import TYPE_CHECKING, Any, Literal

if TYPE_CHECKING:
    from ..core.design import Design
    from ..core.evaluation.evaluate import Evaluation
    from ..core.order import Order

JSON, YAML, CSV, DXF = "application/json", "application/yaml", "text/csv", "image/vnd.dxf"
XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


@dataclass(frozen=True)
class Format:
    """One format.

    Out: ``function(name, design, evaluation)`` gives the text of ``file``; one that ``needs`` the
    design alone is handed no evaluation, one that needs the order is handed name and order. In:
    ``function(data, catalogue)`` gives a project, or takes a choice as well after a look at what
    the file holds.
    """

    file: str
    label: str
    direction: Literal["out", "in"]
    media: str
    function: str
    needs: Literal["design", "evaluation", "order"] = "evaluation"
    icon: str = "pi-file"
    about: str = ""

    @property
    def extension(self) -> str:
        return "." + self.file.rsplit(".", 1)[-1]

    def call(self, *arguments: Any) -> Any:
        """Run the format's function, loading its module if it is the first time."""
        module, name = self.function.split(":")
        return getattr(import_module(f"{__package__}.{module}"), name)(*arguments)

    def write(self, name: str, design: Design, worked: Evaluation | Order | None) -> str | bytes:
        """Return the file's text, or its bytes; ``worked`` is what it needs."""
        of_order = self.needs == "order"
        found = self.call(name, worked) if of_order else self.call(name, design, worked)
        return found if isinstance(found, bytes) else str(found)


FORMATS = (
    Format("project.json", "Project file", "out", JSON, "project_file:write", needs="design"),
    Format("cables.csv", "Cable schedule, CSV", "out", CSV, "tables_csv:write_cables", icon="pi-table"),
    Format("ports.csv", "Port map, CSV", "out", CSV, "tables_csv:write_ports", icon="pi-table"),
    Format("labels.csv", "Labels of both ends, CSV", "out", CSV, "tables_csv:write_labels", icon="pi-tag"),
    Format(
        "parts.csv", "List of parts, CSV", "out", CSV, "order_tables:write_csv", needs="order", icon="pi-list"
    ),
    Format(
        "order.xlsx",
        "Parts, work and sum, workbook",
        "out",
        XLSX,
        "order_tables:write_xlsx",
        needs="order",
        icon="pi-list",
    ),
    Format(
        "settings.json",
        "Settings sheet, JSON",
        "out",
        JSON,
        "settings_export:write_json",
        icon="pi-sliders-h",
    ),
    Format(
        "settings.yaml",
        "Settings sheet, YAML",
        "out",
        YAML,
        "settings_export:write_yaml",
        icon="pi-sliders-h",
    ),
    Format(
        "evaluation.json", "Whole evaluation, JSON", "out", JSON, "evaluation_json:write", icon="pi-chart-bar"
    ),
    Format(
        "project.json",
        "a project file",
        "in",
        JSON,
        "project_file:load_project",
        needs="design",
        about="A Heathrise project saved as JSON. It is opened as a new project; nothing is replaced.",
    ),
    Format(
        "drawing.dxf",
        "a DXF drawing",
        "in",
        DXF,
        "sandbox.drawings:import_confined",
        needs="design",
        about="You choose which layers are which construction; lines, polylines and blocks become "
        "walls. Text or binary.",
    ),
)


def formats(direction: Literal["out", "in"]) -> dict[str, Format]:
    """Return the formats of one direction by file name.

    Raises:
        ValueError: two formats go out under one name.
    """
    found: dict[str, Format] = {}
    for row in FORMATS:
        if row.direction == direction:
            if row.file in found:
                raise ValueError(f"two formats are called {row.file}")
            found[row.file] = row
    return found
