"""Orders out, price lists in: every usual way of writing a table, and what is no table."""

from __future__ import annotations

import csv
import io
import time
from datetime import date

import openpyxl
import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import FirmPrice, load_catalogue, priced_items
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, DesignError, apply, put
from heathrise.core.order import Order
from heathrise.core.views.bill_of_materials import order_of
from heathrise.demo import SITES
from heathrise.formats.order_tables import order_workbook, parts_csv
from heathrise.formats.prices_csv import read_prices, write_prices
from heathrise.formats.tables_in import decimal_sign, number_by, number_of, signs_of

from ..thorough import examples

TODAY = date(2026, 11, 25)
ITEMS = priced_items(load_catalogue())


@pytest.fixture(scope="module")
def mill() -> Design:
    return next(s for s in SITES if s.key == "mill").make()


def _order(design: Design) -> Order:
    return order_of(Plan(design, load_catalogue(), on=TODAY))


def _renamed(design: Design, name: str) -> Design:
    device = next(iter(design.tables["device"].values()))
    return apply(design, [put(device.model_copy(update={"name": name}))])


def test_the_list_of_parts_says_what_the_order_says(mill: Design) -> None:
    order = _order(mill)
    rows = list(csv.DictReader(io.StringIO(parts_csv(order).lstrip("\ufeff"))))
    assert [r["item"] for r in rows] == [k.item for k in order.lines]
    assert sum(float(r["charged"]) for r in rows) == pytest.approx(order.sum.parts)
    assert all(r["for"] for r in rows)


@pytest.mark.parametrize("start", ["=1+1", "+1", "-1", "@x", "a;=1"])
def test_no_cell_is_a_formula(mill: Design, start: str) -> None:
    order = _order(_renamed(mill, start))
    cells = [c for row in csv.reader(io.StringIO(parts_csv(order))) for c in row]
    assert any(start.rsplit(";", maxsplit=1)[-1] in c for c in cells)
    assert not [c for c in cells if c.startswith(("=", "+", "-", "@"))]
    book = openpyxl.load_workbook(io.BytesIO(order_workbook("=evil()", order)))
    for sheet in book:
        for row in sheet.iter_rows():
            assert not [c for c in row if c.data_type == "f"]
    assert book["Sum"]["B2"].value == "'=evil()"


def test_the_workbook_adds_up(mill: Design) -> None:
    order = _order(mill)
    book = openpyxl.load_workbook(io.BytesIO(order_workbook("Mill", order)))
    charged = [row[7].value for row in book["Parts"].iter_rows(min_row=2)]
    assert sum(charged) == pytest.approx(order.sum.parts)
    assert book["Sum"].cell(8, 2).value == order.sum.total
    assert book["Work"].max_row == len(order.tasks) + 1


# -- price lists -----------------------------------------------------------------------------------


@pytest.mark.parametrize(
    "text",
    [
        "item,price,on\njack,3.50,2026-01-02\n",
        "\ufeffprice;item;date\n3,50;jack;2026-01-02\n",
        "on\tprice\titem\tremark\n2026-01-02\t3.5\tjack\t=evil()\n",
        'Item , Price,Valid from\n"jack","3,50","2026-01-02"\n\n\n',
        "item|price|on\njack|3.5|2026-01-02",
    ],
)
def test_a_list_is_read_however_it_is_written(text: str) -> None:
    for encoding in ("utf-8", "utf-16"):
        read = read_prices(text.encode(encoding), ITEMS, TODAY)
        assert read.prices == {"jack": FirmPrice(3.5, date(2026, 1, 2))} and not read.faults


def test_each_fault_is_told_with_its_line_and_the_rest_is_offered() -> None:
    text = (
        "item,price,on\njack,3.50,\nwidget,1,\nplug,-1,\nlabel,many,\nsleeve,2,yesterday\n"
        "jack,4,\nraceway,,\nsurge,0,\nduct,2.1,2026-02-30\ncage-nuts,8\nsurge,0.00001\n"
    )
    read = read_prices(text.encode(), ITEMS, TODAY)
    assert read.prices == {"jack": FirmPrice(3.5, TODAY), "cage-nuts": FirmPrice(8.0, TODAY)}
    faults = {f.line: f.what for f in read.faults}
    assert set(faults) == {3, 4, 5, 6, 7, 9, 10, 12}
    assert "'widget' is not an item" in faults[3] and "-1 cannot be a price" in faults[4]
    assert "'many' is no price" in faults[5] and "'yesterday' is no day" in faults[6]
    assert "stands twice" in faults[7] and "0 cannot" in faults[9]
    assert "should be 0.01 at least" in faults[12]


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "is empty"),
        (b"name,cost_of\nx,1\n", "no column item, price"),
        (b"PK\x03\x04\x00\x00binary", "no table in text"),
        (b"item,price\n" + b"jack,1\n" * 260_000, "more than 250,000 rows"),
    ],
    ids=["empty", "other head", "binary", "too many"],
)
def test_what_is_no_list_is_refused(data: bytes, words: str) -> None:
    start = time.monotonic()
    with pytest.raises(DesignError, match=words):
        read_prices(data, ITEMS, TODAY)
    assert time.monotonic() - start < 10


def test_the_list_that_goes_out_comes_in_again() -> None:
    firm = {"jack": FirmPrice(3.25, date(2026, 3, 4)), "cable-6": FirmPrice(99.9, TODAY)}
    text = write_prices(ITEMS.values(), firm)
    read = read_prices(text.encode(), ITEMS, TODAY)
    assert read.prices == firm and not read.faults


@examples(100)
@given(st.floats(0.01, 9_999_999).map(lambda v: round(v, 2)), st.sampled_from(["point", "comma"]))
def test_numbers_are_read_in_both_ways_of_writing(value: float, sign: str) -> None:
    plain = f"{value:.2f}"
    grouped = f"{value:,.2f}"
    if sign == "comma":
        plain = plain.replace(".", ",")
        grouped = grouped.translate(str.maketrans(",.", ".,"))
    assert number_of(plain) == pytest.approx(value)
    assert number_of(grouped) == pytest.approx(value)


# -- thousands or decimals -------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("column", "wanted"),
    [
        (["1,080", "2.50"], 1080.0),
        (["1.080", "2,50"], 1080.0),
        (["1,080", "2,50"], 1.08),
        (["1.080", "0.125"], 1.08),
        (["1.080", "1.234.567"], 1080.0),
        (["1,080.00", "3"], 1080.0),
        (["1 080,00", "3"], 1080.0),
        (["1’080.00", "3"], 1080.0),
    ],
)
def test_the_whole_column_says_what_a_sign_means(column: list[str], wanted: float) -> None:
    items = ["dunthrip-m48", "jack"]
    text = "item;price\n" + "\n".join(f"{i};{p}" for i, p in zip(items, column, strict=True))
    read = read_prices(text.encode(), ITEMS, TODAY)
    assert not read.asks and read.prices["dunthrip-m48"].price == pytest.approx(wanted)


@pytest.mark.parametrize("column", [["1,080"], ["1.080", "12"], ["1.080", "2,50", "3.75"]])
def test_what_nobody_can_tell_is_asked_and_nothing_is_taken(column: list[str]) -> None:
    items = ["dunthrip-m48", "jack", "plug"]
    rows = [f"{i};{p}" for i, p in zip(items, column, strict=False)]
    data = ("item;price\n" + "\n".join(rows)).encode()
    read = read_prices(data, ITEMS, TODAY)
    assert read.asks == (column[0],) and not read.prices
    for sign, price in ((".", 1.08), (",", 1080.0)):
        point = column[0].count(".") == 1
        told = read_prices(data, ITEMS, TODAY, sign)  # type: ignore[arg-type]
        assert told.prices["dunthrip-m48"].price == pytest.approx(price if point else 1081.08 - price)


@given(st.lists(st.floats(0.01, 99_999), min_size=1, max_size=8), st.sampled_from([".", ","]), st.booleans())
def test_a_column_written_one_way_is_never_read_another(
    prices: list[float], sign: str, grouped: bool
) -> None:
    """Written with two decimals in either habit, with thousands or without, each is what it was."""
    other = "," if sign == "." else "."
    texts = [f"{p:,.2f}" if grouped else f"{p:.2f}" for p in prices]
    texts = [t.replace(",", "\x00").replace(".", sign).replace("\x00", other) for t in texts]
    assert decimal_sign(texts) == sign
    for text, price in zip(texts, prices, strict=True):
        assert sign in signs_of(text)
        assert number_by(text, sign) == pytest.approx(round(price, 2), abs=0.006)  # type: ignore[arg-type]
