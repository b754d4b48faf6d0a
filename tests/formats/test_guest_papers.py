"""Slips and the notice for guests, read back from what is printed."""

from __future__ import annotations

import io
import random
import re

import pypdfium2
import pytest

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Portal, VoucherSet, WirelessName, put
from heathrise.core.settings import as_printed, make_codes
from heathrise.core.views.vouchers import slips_of
from heathrise.demo import music_school
from heathrise.formats.papers import vouchers_pdf
from heathrise.formats.papers.plain import notice

PLAN = Plan(music_school(), load_catalogue())


def _pages(data: bytes) -> list[str]:
    paper = pypdfium2.PdfDocument(io.BytesIO(data))
    return [re.sub(r"\s+", " ", p.get_textpage().get_text_range()) for p in paper]


@pytest.mark.parametrize("units, count", [("metric", 40), ("imperial", 40), ("metric", 41), ("metric", 1)])
def test_each_code_stands_once_ten_to_a_page_with_what_it_gives(units: str, count: int) -> None:
    codes = make_codes(count, (), count, PLAN.rules, random.Random(4))
    slips = slips_of(PLAN, "Larkmere", "vouchers-concert", codes)
    pages = _pages(vouchers_pdf(slips, units, PLAN.on))
    assert len(pages) == -(-count // 10)
    every = " ".join(pages)
    for k, code in enumerate(codes, start=1):
        assert every.count(as_printed(code)) == 1
        assert as_printed(code) in pages[(k - 1) // 10] and f"No. {k} " in pages[(k - 1) // 10]
    assert every.count("6 hours from the first use, 1 device, up to 8 Mb/s each") == count
    assert every.count("Join Larkmere Visitors.") == count


def test_a_slip_says_what_binds_and_asks_for_a_key_where_the_name_does() -> None:
    design = PLAN.design
    one = design.of(VoucherSet)["vouchers-concert"].model_copy(update={"limit_mbps": None, "price": "5.00"})
    air = design.of(WirelessName)["ssid-guest"]
    codes = make_codes(1, (), 1, PLAN.rules, random.Random(1))

    def said(**change: object) -> str:
        plan = PLAN.after([put(one), put(air.model_copy(update=change))])
        return _pages(vouchers_pdf(slips_of(plan, "x", one.id, codes), "metric", plan.on))[0]

    assert "up to 20 Mb/s each" in said() and "Larkmere Music School, 5.00" in said()
    assert "Mb/s" not in said(limit_mbps=None)
    assert "ask at the desk for its key" in said(security="wpa2") and "at the desk" not in said()


def test_the_notice_says_how_one_comes_on_and_all_that_one_agrees_to() -> None:
    page = PLAN.design.of(Portal)["portal-visitors"]
    for way, words in (
        ("voucher", "Type the code of your voucher"),
        ("agree", "Read the terms and agree"),
        ("register", "Say who you are"),
    ):
        changed = page.model_copy(update={"way": way, "kept_days": 30})
        (text,) = _pages(notice("Larkmere", PLAN.after([put(changed)])))
        assert words in text and "It is kept for 30 days who was on" in text
        for line in page.terms.splitlines():
            assert line in text
    bare = page.model_copy(update={"terms": "", "kept_days": 0})
    (text,) = _pages(notice("Larkmere", PLAN.after([put(bare)])))
    assert "No terms have been written yet." in text and "It is not kept who was on." in text
