"""The list of parts and the work, as CSV and as a workbook."""

from __future__ import annotations

import io

from ..core.context.plan import Plan
from ..core.order import Order
from ..core.views.bill_of_materials import order_of
from .tables_csv import safe_cell, write_rows

_PARTS = ("group", "item", "label", "quantity", "unit", "each", "price", "charged", "price_of", "note", "for")
_WORK = ("task", "quantity", "unit", "minutes", "where")
_MOST_PLACES = 12
_WIDTHS = (12, 22, 44, 10, 8, 10, 11, 11, 12, 30, 60)


def _places(names: list[str]) -> str:
    shown = list(dict.fromkeys(names))
    more = f" and {len(shown) - _MOST_PLACES} more" if len(shown) > _MOST_PLACES else ""
    return ", ".join(shown[:_MOST_PLACES]) + more


def _part_rows(order: Order) -> list[tuple[object, ...]]:
    return [
        (
            k.group,
            k.item,
            k.label,
            k.quantity,
            k.unit,
            k.each,
            k.price,
            k.charged,
            "firm" if k.whose == "firm" else "as shipped",
            k.note,
            _places([w.name for w in k.where]),
        )
        for k in order.lines
    ]


def write_csv(_name: str, plan: Plan) -> str:
    return parts_csv(order_of(plan))


def write_xlsx(name: str, plan: Plan) -> bytes:
    return order_workbook(name, order_of(plan))


def parts_csv(order: Order) -> str:
    """Return the list of parts, a row for each."""
    return write_rows(_PARTS, _part_rows(order))


def order_workbook(name: str, order: Order) -> bytes:
    """Return parts, work and sum as a workbook; text is never taken for a formula."""
    from openpyxl import Workbook
    from openpyxl.styles import Font

    book = Workbook()
    total = order.sum
    sheets: list[tuple[str, tuple[str, ...], list[tuple[object, ...]]]] = [
        ("Parts", _PARTS, _part_rows(order)),
        (
            "Work",
            _WORK,
            [
                (t.label, t.quantity, t.unit, t.minutes, _places([w.name for w in t.where]))
                for t in order.tasks
            ],
        ),
        (
            "Sum",
            ("what", order.currency),
            [
                ("Project", name),
                ("Parts with margin", total.parts),
                ("Work", total.labour),
                ("Travel", total.travel),
                ("Net", total.net),
                ("Tax", total.tax),
                ("Total", total.total),
            ],
        ),
    ]
    for number, (title, head, rows) in enumerate(sheets):
        sheet = book.active if number == 0 else book.create_sheet()
        assert sheet is not None
        sheet.title = title
        sheet.append(list(head))
        for cell in sheet[1]:
            cell.font = Font(bold=True)
        for row in rows:
            sheet.append([safe_cell(c) for c in row])
        sheet.freeze_panes = "A2"
        for letter, width in zip("ABCDEFGHIJK", (12, 22, 44, 10, 8, 10, 11, 11, 12, 30, 60), strict=True):
            sheet.column_dimensions[letter].width = width
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
