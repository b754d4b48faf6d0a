"""The network drawn, on paper: in one reading or several, over as many pages as it takes, and on one page for
a rack's door."""

from __future__ import annotations

import io
from collections.abc import Sequence
from dataclasses import dataclass

from markupsafe import Markup

from ...core.context.plan import Plan
from ...core.design import DesignError, EquipmentRoom, Problem
from ...core.diagram import READINGS, Diagram, Picture, Reading, lay_out, rack_of
from ...core.settings import NetworkSheet
from ..sheets import (
    PAPERS,
    Page,
    Sheet,
    Title,
    diagram_legend,
    draw_diagram,
    fitted,
    on_pages,
    pages_of,
    room_on,
    whole_page,
)
from .render import html_of, pdf_of
from .sheets import Drawn, drawn_of, fonts, in_template

SAID: dict[Reading, str] = {
    "cables": "The network: cables",
    "networks": "The network: who is on which",
    "power": "The network: power",
    "client": "The network of the house",
}
_DOOR_ROWS = 24
_FIGURE_ROWS = 12
_LEAST_WIDE = 0.7  # of its size, before a drawing takes a second page beside the first
_DPI = 144


@dataclass(frozen=True)
class NetworkDrawn:
    """A network to be drawn, and its networks in the order of their lanes."""

    drawn: Drawn
    diagram: Diagram
    lanes: Sequence[NetworkSheet]

    def named(self) -> NetworkDrawn:
        """Return it with the labels of its cables beside the names of what they lead to."""
        labels = self.drawn.label_by_device()
        nodes = tuple(
            n.model_copy(update={"name": f"{n.name}, {labels[n.id]}"}) if n.id in labels else n
            for n in self.diagram.nodes
        )
        diagram = self.diagram.model_copy(update={"nodes": nodes})
        return NetworkDrawn(self.drawn, diagram, self.lanes)

    def part(self, rack: str) -> NetworkDrawn:
        """Return what hangs on one rack."""
        return NetworkDrawn(self.drawn, rack_of(self.diagram, rack), self.lanes)

    def sheet(self, reading: Reading, picture: Picture) -> Sheet:
        return draw_diagram(self.diagram, picture, reading, self.lanes)

    def whole(self, reading: Reading, rows_at_once: int | None = None) -> Sheet:
        """Return it as one drawing; what is alike folds above so many rows."""
        return self.sheet(reading, lay_out(self.diagram, rows_at_once=rows_at_once))

    def pages(self, reading: Reading, paper: str) -> list[Page]:
        """Return it over as many pages as it takes, no card on two of them where it is not too wide."""

        def laid(flat: bool) -> list[Page]:
            room = room_on(paper, flat)
            picture = lay_out(self.diagram, rows_at_once=None)
            whole = self.sheet(reading, picture)
            factor = min(1.0, room[0] / whole.wide_mm)
            factor = factor if factor >= _LEAST_WIDE else 1.0
            sheet = self.sheet(reading, on_pages(picture, room[1] / factor))
            small = fitted(sheet, sheet.wide_mm * factor, sheet.high_mm * factor)
            return pages_of(small, self.title(SAID[reading]), self.legend(reading), paper, flat)

        return min((laid(flat) for flat in (True, False)), key=len)

    def title(self, said: str) -> Title:
        imperial = self.drawn.design.site.units == "imperial"
        return Title(self.drawn.name, said, self.drawn.revision, self.drawn.on.isoformat(), imperial)

    def legend(self, reading: Reading) -> list[str]:
        return diagram_legend(reading, self.lanes)


def network_drawn(drawn: Drawn) -> NetworkDrawn:
    """Return the network of a project to be drawn."""
    settings = drawn.evaluation.settings
    return NetworkDrawn(drawn, drawn.diagram, settings.networks if settings is not None else ())


def network_figure(diagram: Diagram, wide_mm: float, high_mm: float) -> Markup:
    """Return a network for its people, within so much room: what is alike is one card."""
    picture = lay_out(diagram, rows_at_once=_FIGURE_ROWS)
    return Markup(fitted(draw_diagram(diagram, picture, "client", ()), wide_mm, high_mm).svg)


def diagram_page(name: str, revision: int, plan: Plan, reading: Reading) -> Page:
    """Return all of a network on one page that is as large as it takes."""
    network = network_drawn(drawn_of(name, revision, plan))
    return whole_page(network.whole(reading), network.title(SAID[reading]), network.legend(reading))


def diagram_pdf(
    name: str, revision: int, plan: Plan, readings: Sequence[Reading], paper: str, rack: str = ""
) -> bytes:
    """Return a network as PDF, each reading over as many pages as it takes; with a ``rack`` what hangs on
    that alone, with the labels of its cables, on one page for its door.

    Raises:
        DesignError: no such paper, reading or rack, or more pages than anybody glues together.
    """
    if paper not in PAPERS:
        raise DesignError([Problem("paper", f"there are {', '.join(PAPERS)}")])
    if wrong := [r for r in readings if r not in READINGS]:
        raise DesignError([Problem("readings", f"there is no reading {wrong[0][:20]!r}")])
    if rack and rack not in plan.design.of(EquipmentRoom):
        raise DesignError([Problem("rack", f"there is no rack {rack[:40]!r}")])
    network = network_drawn(drawn_of(name, revision, plan))
    pages = [
        page
        for reading in readings
        for page in ([_door(network, plan, rack, reading, paper)] if rack else network.pages(reading, paper))
    ]
    return pdf_of(html_of("sheets.html", name=name, pages=in_template(pages), fonts=fonts()))


def _door(network: NetworkDrawn, plan: Plan, rack: str, reading: Reading, paper: str) -> Page:
    """Return one page, the way round on which the drawing is larger; what is alike folds before it gets too
    small to read."""
    name = plan.design.of(EquipmentRoom)[rack].name
    part = network.named().part(rack)
    if not part.diagram.nodes:
        raise DesignError([Problem("rack", f"nothing hangs on {name}; put a switch into it first")])
    drawn = part.whole(reading, _DOOR_ROWS)
    flat = max((True, False), key=lambda f: fitted(drawn, *room_on(paper, f)).wide_mm)
    title = network.title(f"{name}: {reading}")
    (page,) = pages_of(fitted(drawn, *room_on(paper, flat)), title, network.legend(reading), paper, flat)
    return page


def diagram_png(name: str, revision: int, plan: Plan, reading: Reading) -> bytes:
    """Return all of a network as a picture."""
    import pypdfium2

    page = diagram_page(name, revision, plan, reading)
    data = pdf_of(html_of("sheets.html", name=name, pages=in_template([page]), fonts=fonts()))
    document = pypdfium2.PdfDocument(data)
    try:
        picture = document[0].render(scale=_DPI / 72).to_pil()
    finally:
        document.close()
    out = io.BytesIO()
    picture.save(out, "PNG", optimize=True)
    return out.getvalue()
