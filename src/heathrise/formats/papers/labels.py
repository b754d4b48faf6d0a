"""Labels on sheets as they are sold: both ends of every cable."""

from __future__ import annotations

from collections.abc import Sequence

from ...core.catalogue import LabelSheet
from ...core.install import Label
from .render import html_of, pdf_of

_PAGE_HIGH_MM = {"A4": 297.0, "letter": 279.4}
_TEXT_PT = {"narrow": 10.5, "wide": 13.0}
_WIDE_FROM_MM = 55.0


def labels_pdf(name: str, labels: Sequence[Label], sheet: LabelSheet) -> bytes:
    """Return both labels of every cable, the pair beside each other, in the order of the panels."""
    ends = [(text, label) for label in labels for text in (label.near, label.far)]
    each = sheet.columns * sheet.rows
    pages = [
        [
            {
                "left": round(sheet.left_mm + (k % sheet.columns) * sheet.step_x_mm, 2),
                "top": round(sheet.top_mm + (k // sheet.columns) * sheet.step_y_mm, 2),
                "text": text,
                "name": label.name,
            }
            for k, (text, label) in enumerate(ends[first : first + each])
        ]
        for first in range(0, len(ends), each)
    ]
    width = "wide" if sheet.wide_mm >= _WIDE_FROM_MM else "narrow"
    html = html_of(
        "labels.html",
        name=name,
        sheet=sheet,
        pages=pages or [[]],
        size_pt=_TEXT_PT[width],
        page_high_mm=_PAGE_HIGH_MM[sheet.page],
    )
    return pdf_of(html)
