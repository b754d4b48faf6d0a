"""What is printed: the brief, the offer, labels, sheets to scale, the hand-over."""

from .brief import brief_pdf
from .diagram import diagram_pdf
from .guests import notice_pdf, vouchers_pdf
from .handover import client_pdf, code_svg, sealed_pdf
from .head import NO_HEAD, Head
from .labels import labels_pdf
from .quote import Quote, quote_html, quote_pdf
from .racks import racks_pdf
from .settings import settings_pdf
from .sheets import Drawn, check_paper, drawn_of, sheet_svg, sheets_pdf
from .technician import History, technician_pdf

__all__ = [
    "NO_HEAD",
    "Drawn",
    "Head",
    "History",
    "Quote",
    "brief_pdf",
    "check_paper",
    "client_pdf",
    "code_svg",
    "diagram_pdf",
    "drawn_of",
    "labels_pdf",
    "notice_pdf",
    "quote_html",
    "quote_pdf",
    "racks_pdf",
    "sealed_pdf",
    "settings_pdf",
    "sheet_svg",
    "sheets_pdf",
    "technician_pdf",
    "vouchers_pdf",
]
