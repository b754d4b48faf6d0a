"""What is printed: the brief, the offer, labels, sheets to scale."""

from .brief import brief_pdf
from .labels import labels_pdf
from .quote import quote_pdf
from .sheet import Sheet, draw_sheet

__all__ = ["Sheet", "brief_pdf", "draw_sheet", "labels_pdf", "quote_pdf"]
