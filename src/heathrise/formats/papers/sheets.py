"""The sheets of a project on paper and as SVG, to scale."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date

from markupsafe import Markup

from ...core.catalogue import Catalogue
from ...core.context.plan import Plan
from ...core.design import Building, Design, DesignError, Floor, Problem
from ...core.diagram import Diagram, diagram_of
from ...core.evaluation.evaluate import Evaluation, evaluate
from ...core.install import Label
from ...core.views.labels import project_labels
from ...core.views.site import SiteView, site_view
from ..sheets import (
    PAGE_SCALES,
    PAPERS,
    SCALES,
    Page,
    Sheet,
    Title,
    draw_land,
    draw_sheet,
    has_land,
    land_legend,
    legend_of,
    pages_of,
    pen_of,
    room_on,
    whole_page,
)
from .render import Papers, html_of, pdf_of, style

LAND = "site"  # asks for the whole site among storeys


@dataclass(frozen=True)
class Drawn:
    """What sheets are drawn of: a project as it is planned, and its labels.

    ``design`` is without the gear that goes; ``catalogue`` holds the figures in force.
    """

    name: str
    revision: int
    on: date
    design: Design
    catalogue: Catalogue
    evaluation: Evaluation
    diagram: Diagram
    land: SiteView
    labels: Sequence[Label] = ()

    def label_by_device(self) -> dict[str, str]:
        """Return by device the labels of its cables: the first whole, of the others the ports."""
        devices = {r.id: r.device for r in self.evaluation.runs}
        found: dict[str, str] = {}
        for label in self.labels:
            device = devices.get(label.link)
            if device is not None:
                known = found.get(device)
                found[device] = f"{known}, {label.port:02d}" if known else label.text
        return found

    def label_by_cable(self) -> dict[tuple[str, int], str]:
        """Return the label of each cable, by its device and number."""
        devices = {r.id: r.device for r in self.evaluation.runs}
        return {
            (devices[label.link], label.cable): label.text for label in self.labels if label.link in devices
        }

    def floors(self) -> list[Floor]:
        """Return the storeys, building by building, each from the ground up."""
        buildings = list(self.design.of(Building))
        return sorted(self.design.of(Floor).values(), key=lambda f: (buildings.index(f.building), f.level))

    def sheet(self, floor: Floor, paper: str = "A4", scale: int | None = None) -> Sheet:
        """Return a storey's drawing with its paths and labels at a scale, or at the largest at
        which a page holds it."""

        def drawn(room: tuple[float, float] | None) -> Sheet:
            return draw_sheet(
                self.design,
                self.catalogue,
                floor.id,
                room,
                ("gear", "mains", "paths", "sight"),
                (),
                self.evaluation.cable,
                self.label_by_device(),
                scale,
            )

        if scale is not None:
            return drawn(None)
        return min((drawn(room_on(paper, flat)) for flat in (True, False)), key=lambda s: s.scale)

    def sheet_within(self, floor: Floor, room_mm: tuple[float, float]) -> Sheet:
        """Return a storey with its gear alone, as large as so much room allows."""
        return draw_sheet(self.design, self.catalogue, floor.id, room_mm)

    def title(self, floor: Floor) -> Title:
        buildings = self.design.of(Building)
        several = len(buildings) > 1
        sheet = f"{buildings[floor.building].name}, {floor.name}" if several else floor.name
        return Title(self.name, sheet, self.revision, self.on.isoformat(), self._imperial)

    @property
    def _imperial(self) -> bool:
        return self.design.site.units == "imperial"

    def legend(self, floor: Floor) -> list[str]:
        """Return the legend of what a storey's sheet shows."""
        kinds = []
        for link in self.evaluation.cable.links:
            if any(leg.floor == floor.id and len(leg.points) > 1 for leg in link.legs):
                kinds.append(pen_of(link))
        return legend_of(self.design, self.catalogue, floor.id, sorted(set(kinds)))

    def pages(self, floor: Floor, paper: str, scale: int | None = None) -> list[Page]:
        """Return a storey on pages of a paper; without a scale on one page."""
        return pages_of(self.sheet(floor, paper, scale), self.title(floor), self.legend(floor), paper)

    def land_pages(self, paper: str) -> list[Page]:
        """Return the whole site on one page, as large as the page holds it; none where it is one building
        and nothing about it."""
        if not has_land(self.land):
            return []
        length = Papers(self.design.site.units).length
        drawn = (draw_land(self.land, room_on(paper, flat), length) for flat in (True, False))
        sheet = min(drawn, key=_smaller)
        title = Title(self.name, "Site", self.revision, self.on.isoformat(), self._imperial)
        return pages_of(sheet, title, land_legend(self.land), paper)


def _smaller(sheet: Sheet) -> tuple[int, float]:
    return sheet.scale, sheet.wide_mm * sheet.high_mm


def drawn_of(name: str, revision: int, plan: Plan) -> Drawn:
    """Return what the sheets of a project are drawn of."""
    known = evaluate(plan), diagram_of(plan), site_view(plan), project_labels(plan)
    return Drawn(name, revision, plan.on, plan.design, plan.catalogue, *known)


def sheets_pdf(drawn: Drawn, paper: str, scale: int | None, only: Iterable[str] | None = None) -> bytes:
    """Return storeys as PDF to scale.

    Args:
        paper: one of ``PAPERS``.
        scale: one of ``PAGE_SCALES``, or None for the largest at which a page holds a storey.
        only: ids of storeys, ``LAND`` for the whole site; None for all.

    Raises:
        DesignError: no such paper, scale or storey, or more pages than anybody glues together.
    """
    check_paper(paper, scale)
    wanted = set(only) if only is not None else None
    floors = [f for f in drawn.floors() if wanted is None or f.id in wanted]
    pages = drawn.land_pages(paper) if wanted is None or LAND in wanted else []
    pages += [page for floor in floors for page in drawn.pages(floor, paper, scale)]
    if not pages:
        raise DesignError([Problem("floors", "there is no such storey")])
    return pdf_of(html_of("sheets.html", name=drawn.name, pages=in_template(pages), fonts=fonts()))


def sheet_svg(drawn: Drawn, floor: str, scale: int) -> str:
    """Return one storey as SVG, on a page as large as it takes.

    Raises:
        DesignError: no such storey or scale.
    """
    row = drawn.design.of(Floor).get(floor)
    if row is None:
        raise DesignError([Problem("floor", f"there is no storey {floor[:40]!r}")])
    if scale not in SCALES:
        raise DesignError([Problem("scale", f"there are {', '.join(map(str, SCALES))}")])
    return whole_page(drawn.sheet(row, scale=scale), drawn.title(row), drawn.legend(row)).svg


def check_paper(paper: str, scale: int | None) -> None:
    """Refuse what no page can be.

    Raises:
        DesignError: with what there is.
    """
    if paper not in PAPERS:
        raise DesignError([Problem("paper", f"there are {', '.join(PAPERS)}")])
    if scale is not None and scale not in PAGE_SCALES:
        scales = ", ".join(f"1:{s}" for s in PAGE_SCALES)
        raise DesignError([Problem("scale", f"there are {scales}, or none to fit a page")])


def in_template(pages: Iterable[Page]) -> list[dict[str, object]]:
    """Return pages as templates take them: with a name for each size of page."""
    return [
        {
            "svg": Markup(p.svg),
            "kind": f"p{p.wide_mm:.0f}x{p.high_mm:.0f}",
            "wide": f"{p.wide_mm:g}",
            "high": f"{p.high_mm:g}",
        }
        for p in pages
    ]


def fonts() -> Markup:
    """Return the fonts of drawings alone: each costs a tenth of a second to unpack."""
    rows = (x for x in style().splitlines() if x.startswith("@font-face") and "Condensed" in x)
    return Markup("\n".join(rows))
