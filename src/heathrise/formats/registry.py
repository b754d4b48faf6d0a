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
    from ..core.evaluate import Evaluation

JSON, YAML, CSV, DXF = "application/json", "application/yaml", "text/csv", "image/vnd.dxf"


@dataclass(frozen=True)
class Format:
    """One format.

    Out: ``function(name, design, evaluation)`` gives the text of ``file``; one that ``needs`` the
    design alone is handed no evaluation. In: ``function(data, catalogue)`` gives a project, or
    takes a choice as well after a look at what the file holds.
    """

    file: str
    label: str
    direction: Literal["out", "in"]
    media: str
    function: str
    needs: Literal["design", "evaluation"] = "evaluation"
    icon: str = "pi-file"
    about: str = ""

    @property
    def extension(self) -> str:
        return "." + self.file.rsplit(".", 1)[-1]

    def call(self, *arguments: Any) -> Any:
        """Run the format's function, loading its module if it is the first time."""
        module, name = self.function.split(":")
        return getattr(import_module(f"{__package__}.{module}"), name)(*arguments)

    def write(self, name: str, design: Design, evaluation: Evaluation | None) -> str:
        """Return the file's text."""
        return str(self.call(name, design, evaluation))


FORMATS = (
    Format(
        "project.json", "Project file", "out", JSON, "project_file:write", needs="design",
    ),
    Format(
        "cables.csv", "Cable schedule, CSV", "out", CSV, "tables_csv:write_cables",
        icon="pi-table",
    ),
    Format("ports.csv", "Port map, CSV", "out", CSV, "tables_csv:write_ports", icon="pi-table"),
    Format(
        "settings.json", "Settings sheet, JSON", "out", JSON, "settings_export:write_json",
        icon="pi-sliders-h",
    ),
    Format(
        "settings.yaml", "Settings sheet, YAML", "out", YAML, "settings_export:write_yaml",
        icon="pi-sliders-h",
    ),
    Format(
        "evaluation.json", "Whole evaluation, JSON", "out", JSON, "evaluation_json:write",
        icon="pi-chart-bar",
    ),
    Format(
        "project.json", "a project file", "in", JSON, "project_file:load_project", needs="design",
        about="A Heathrise project saved as JSON. It is opened as a new project; nothing is "
        "replaced.",
    ),
    Format(
        "drawing.dxf", "a DXF drawing", "in", DXF, "confined:import_confined", needs="design",
        about="You choose which layers are which construction; lines, polylines and blocks become "
        "walls. Text or binary.",
    ),
)  # fmt: skip


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
