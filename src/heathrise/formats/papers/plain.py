"""Papers of a project file: without a firm's head, with nothing seen on the site."""

from __future__ import annotations

from ...core.context.plan import Plan
from ...core.diagram import READINGS
from ...core.views.handover import Observed, handover_of
from ...core.views.labels import project_labels
from ...core.views.offers import offers
from ...core.views.work_list import steps_of
from .brief import brief_pdf
from .diagram import diagram_page, diagram_pdf
from .diagram import diagram_png as png_of
from .guests import notice_pdf
from .handover import client_pdf
from .labels import labels_pdf
from .quote import Quote, quote_pdf
from .racks import racks_pdf
from .settings import settings_pdf
from .sheets import drawn_of, sheets_pdf
from .technician import technician_pdf

_REVISION = 1  # a project file has no history


def brief(name: str, plan: Plan) -> bytes:
    return brief_pdf(name, _REVISION, plan)


def offer(name: str, plan: Plan) -> bytes:
    return quote_pdf(Quote(name, _REVISION, plan, offers(plan)))


def labels(name: str, plan: Plan) -> bytes:
    """Print labels on the first of the sheets that are sold."""
    sheet = next(iter(plan.catalogue.label_sheets.values()))
    return labels_pdf(name, project_labels(plan), sheet)


def diagram(name: str, plan: Plan) -> bytes:
    """Print the network in all of its readings."""
    paper = "Tabloid" if plan.design.site.units == "imperial" else "A3"
    return diagram_pdf(name, _REVISION, plan, READINGS, paper)


def diagram_svg(name: str, plan: Plan) -> str:
    return diagram_page(name, _REVISION, plan, "cables").svg


def diagram_png(name: str, plan: Plan) -> bytes:
    return png_of(name, _REVISION, plan, "cables")


def sheets(name: str, plan: Plan) -> bytes:
    paper = "Letter" if plan.design.site.units == "imperial" else "A4"
    return sheets_pdf(drawn_of(name, _REVISION, plan), paper, None)


def racks(name: str, plan: Plan) -> bytes:
    return racks_pdf(drawn_of(name, _REVISION, plan))


def settings(name: str, plan: Plan) -> bytes:
    return settings_pdf(name, _REVISION, plan)


def notice(name: str, plan: Plan) -> bytes:
    return notice_pdf(name, plan)


def client(name: str, plan: Plan) -> bytes:
    return client_pdf(drawn_of(name, _REVISION, plan), handover_of(plan, Observed()))


def technician(name: str, plan: Plan) -> bytes:
    seen = Observed(steps=steps_of(plan))
    return technician_pdf(drawn_of(name, _REVISION, plan), handover_of(plan, seen), seen, ())
