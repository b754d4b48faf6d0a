"""Every format that comes in or goes out: what web, command line and menu all read.

A format is a module of its own and one line here; its functions are named, not imported, so that
listing them loads nothing.
"""

from __future__ import annotations

from dataclasses import dataclass
from importlib import import_module
from typing import TYPE_CHECKING, Any, Literal

if TYPE_CHECKING:
    from ..core.context.plan import Plan

JSON, YAML, CSV, DXF = "application/json", "application/yaml", "text/csv", "image/vnd.dxf"
GEOJSON = "application/geo+json"
PDF, SVG, PNG = "application/pdf", "image/svg+xml", "image/png"
XML, DOT = "application/xml", "text/vnd.graphviz"
XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


@dataclass(frozen=True)
class Format:
    """One format.

    Out: ``function(name, plan)`` gives the text or the bytes of ``file``. A ``paper`` is printed by a
    job where there is a server, with the firm's head and with what was seen on the site. In:
    ``function(data, catalogue)`` gives a project, or takes a choice as well after a look at what
    the file holds.
    """

    file: str
    label: str
    direction: Literal["out", "in"]
    media: str
    function: str
    paper: bool = False
    icon: str = "pi-file"
    about: str = ""

    @property
    def extension(self) -> str:
        return "." + self.file.rsplit(".", 1)[-1]

    def call(self, *arguments: Any) -> Any:
        """Run the format's function, loading its module if it is the first time."""
        module, name = self.function.split(":")
        return getattr(import_module(f"{__package__}.{module}"), name)(*arguments)

    def write(self, name: str, plan: Plan) -> str | bytes:
        """Return the file's text, or its bytes."""
        found = self.call(name, plan)
        return found if isinstance(found, bytes) else str(found)


FORMATS = (
    Format("project.json", "Project file", "out", JSON, "project_file:write"),
    Format("cables.csv", "Cable schedule, CSV", "out", CSV, "tables_csv:write_cables", icon="pi-table"),
    Format("ports.csv", "Port map, CSV", "out", CSV, "tables_csv:write_ports", icon="pi-table"),
    Format("labels.csv", "Labels of both ends, CSV", "out", CSV, "tables_csv:write_labels", icon="pi-tag"),
    Format("parts.csv", "List of parts, CSV", "out", CSV, "order_tables:write_csv", icon="pi-list"),
    Format(
        "order.xlsx", "Parts, work and sum, workbook", "out", XLSX, "order_tables:write_xlsx", icon="pi-list"
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
        "plan.dxf", "The plan in layers by storey, DXF", "out", DXF, "drawing_out:write_dxf", icon="pi-pencil"
    ),
    Format(
        "plan.geojson",
        "The plan in local metres, GeoJSON",
        "out",
        GEOJSON,
        "geojson:write_geojson",
        icon="pi-map",
    ),
    Format(
        "evaluation.json", "Whole evaluation, JSON", "out", JSON, "evaluation_json:write", icon="pi-chart-bar"
    ),
    Format(
        "diagram.svg", "The network drawn, SVG", "out", SVG, "papers.plain:diagram_svg", icon="pi-sitemap"
    ),
    Format(
        "diagram.png", "The network drawn, PNG", "out", PNG, "papers.plain:diagram_png", icon="pi-sitemap"
    ),
    Format(
        "diagram.graphml",
        "The network as a graph, GraphML",
        "out",
        XML,
        "diagram_graph:write_graphml",
        icon="pi-sitemap",
    ),
    Format(
        "diagram.dot", "The network as a graph, DOT", "out", DOT, "diagram_graph:write_dot", icon="pi-sitemap"
    ),
    Format("diagram.pdf", "The network drawn", "out", PDF, "papers.plain:diagram", paper=True),
    Format("brief.pdf", "The brief", "out", PDF, "papers.plain:brief", paper=True),
    Format("offer.pdf", "The offer", "out", PDF, "papers.plain:offer", paper=True),
    Format("labels.pdf", "Labels of both ends", "out", PDF, "papers.plain:labels", paper=True),
    Format("sheets.pdf", "Storeys to scale", "out", PDF, "papers.plain:sheets", paper=True),
    Format("racks.pdf", "Racks to scale, cord by cord", "out", PDF, "papers.plain:racks", paper=True),
    Format("settings.pdf", "Every setting with its reason", "out", PDF, "papers.plain:settings", paper=True),
    Format("guests.pdf", "A notice for guests", "out", PDF, "papers.plain:notice", paper=True),
    Format("hand-over.pdf", "The client's hand-over", "out", PDF, "papers.plain:client", paper=True),
    Format("technician.pdf", "The technician's hand-over", "out", PDF, "papers.plain:technician", paper=True),
    Format(
        "project.json",
        "a project file",
        "in",
        JSON,
        "project_file:load_project",
        about="A Heathrise project saved as JSON. It is opened as a new project; nothing is replaced.",
    ),
    Format(
        "plan.geojson",
        "a plan as GeoJSON",
        "in",
        GEOJSON,
        "geojson:read_geojson",
        about="A plan that went out as GeoJSON: storeys, walls, rooms, gear and ways as they were drawn.",
    ),
    Format(
        "drawing.dxf",
        "a DXF drawing",
        "in",
        DXF,
        "sandbox.drawings:import_confined",
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
