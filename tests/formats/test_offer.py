"""The offer on paper: what it promises and what it costs, counted again from plain figures."""

from __future__ import annotations

import re
from datetime import date
from functools import cache

import pypdfium2
import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.base.progress import always
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.firm import Firm
from heathrise.core.context.plan import Plan
from heathrise.core.context.scope import as_planned
from heathrise.core.design import Design, Device, OwnFigure, Space, Switch, Variant, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.offers import make_variant, offers
from heathrise.core.views.promises import promised
from heathrise.core.views.savings import savings_of
from heathrise.demo import SITES
from heathrise.formats.papers import NO_HEAD, Head, Quote, quote_html, quote_pdf

from ..core.plans import access_point, design_of, rack, shell
from ..core.sites import sites
from ..thorough import examples

CATALOGUE = load_catalogue()
DAY = date(2026, 11, 25)
FIRM = Firm(
    name="Fellgate Networks",
    address=("4 Tanner's Yard", "Netherholm"),
    tax_number="XX 204 118",
    contact="weekdays 8 to 17",
    bank="Netherholm Savings 0042",
    payment="a third on order",
    warranty="two years on work",
    terms="changes are priced first",
    valid_days=20,
)


def _quote(design: Design, name: str = "Hut", number: str = "2026-001") -> Quote:
    plan = Plan(design, CATALOGUE, on=DAY)
    return Quote(name, 3, plan, offers(plan) if design.of(Variant) else [], number)


@cache
def _of(key: str) -> Quote:
    return _quote(next(s for s in SITES if s.key == key).make(), key)


def _text(html: str) -> str:
    plain = re.sub(r"<style>.*?</style>", "", html, flags=re.S)
    plain = re.sub(r"<[^>]+>", " ", plain)
    return re.sub(r"\s+", " ", plain.replace("&#39;", "'").replace("&#34;", '"').replace("&amp;", "&"))


def _check(quote: Quote) -> None:
    """Every room is promised or not, nothing that hangs on no port is, and all sums are the order's."""
    text = _text(quote_html(quote, Head(FIRM)))
    order, design = order_of(quote.plan), as_planned(quote.plan.drawn)
    assert f"{order.sum.total:,.2f}" in text
    for line in order.lines:
        assert f"{line.label}" in text
    cents = sum(round(100 * line.charged) for line in order.lines)
    assert f"{cents / 100:,.2f}" in text  # parts
    hours = sum(t.minutes for t in order.tasks) / 60
    assert f"{hours:.1f} hours at" in text
    needed = {s.id for s in design.of(Space).values() if s.use != "none"}
    asked = {r.space for r in evaluate(quote.plan).rooms if r.verdict != "not_needed"}
    assert {r.space for r in promised(quote.plan).rooms} == asked <= needed
    left = {row.device for row in evaluate(quote.plan).power.left}
    for key in left:
        assert any(design.of(Device)[key].name in line for line in promised(quote.plan).not_promised)
    # A room is kept only if it is met by what has a port and a way.
    dead = left | {r.device for r in evaluate(quote.plan).runs if r.verdict == "no_way"}
    alive = quote.plan.drawn
    for key in dead:
        device = alive.of(Device)[key]
        if device.model in CATALOGUE.airs:
            alive = apply(alive, [put(device.model_copy(update={"state": "unknown"}))])
    met = {r.space for r in evaluate(Plan(alive, CATALOGUE)).rooms if r.verdict == "met"}
    kept = {r.space for r in promised(quote.plan).rooms if r.kept}
    assert kept <= met
    for room in promised(quote.plan).rooms:
        if not room.kept:
            assert any(line.startswith(f"{room.name}:") for line in promised(quote.plan).not_promised)


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_the_offer_of_a_made_up_site_is_true(key: str) -> None:
    _check(_of(key))


@examples(25)
@given(sites(devices=3), st.integers(0, 2))
def test_the_offer_of_a_random_site_is_true(design: Design, switches: int) -> None:
    shelf = [
        put(Switch(id=f"sw-{k}", equipment_room="rack", name=f"SW-{k}", model="dunthrip-s8"))
        for k in range(switches)
    ]
    _check(_quote(apply(design, shelf)))


def test_the_firm_its_terms_and_the_days_stand_on_it() -> None:
    text = _text(quote_html(_of("mill"), Head(FIRM)))
    for said in (
        "Fellgate Networks",
        "4 Tanner's Yard, Netherholm",
        "Tax number XX 204 118",
        "weekdays 8 to 17",
        "Netherholm Savings 0042",
        "a third on order",
        "two years on work",
        "changes are priced first",
        "Offer 2026-001",
        "2026-11-25, valid until 2026-12-15",
        "For E. Quern",
    ):
        assert said in text, said
    bare = _text(quote_html(_of("mill"), NO_HEAD))
    assert "Tax number" not in bare and "valid until 2026-12-25" in bare


def test_the_parts_are_an_annex_only_if_the_firm_wants_it() -> None:
    without = quote_html(_of("mill"), Head(FIRM.model_copy(update={"parts_annex": False})))
    assert "Annex" not in without and "Annex: parts" in quote_html(_of("mill"), Head(FIRM))
    assert f"{order_of(_of('mill').plan).sum.total:,.2f}" in without


def test_other_ways_are_priced_beside_it() -> None:
    mill = next(s for s in SITES if s.key == "mill").make()
    changes = make_variant(Plan(mill, CATALOGUE), "first_only")
    way = Variant(id="v", name="First only", changes=tuple(c.model_dump(mode="json") for c in changes))
    quote = _quote(apply(mill, [put(way)]))
    other = _quote(apply(mill, changes))
    text = _text(quote_html(quote, NO_HEAD))
    gap = order_of(other.plan).sum.total - order_of(quote.plan).sum.total
    assert f"First only {sum(r.kept for r in promised(other.plan).rooms)} of" in text
    assert f"{order_of(other.plan).sum.total:,.2f} {'+' if gap >= 0 else '−'}{abs(gap):,.2f}" in text


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_no_page_holds_a_single_row(key: str) -> None:
    pages = pypdfium2.PdfDocument(quote_pdf(_of(key), Head(FIRM)))
    rows = [p.get_textpage().get_text_bounded().strip().splitlines() for p in pages]
    assert len(rows) <= 7 and all(len(page) > 6 for page in rows), [len(p) for p in rows]


def test_a_price_over_the_budget_and_too_few_days_are_found() -> None:
    base = design_of(*shell(), rack(1, 1), access_point(5, 5))
    total = order_of(Plan(base, CATALOGUE, on=DAY)).sum.total
    for budget, found in ((total - 0.01, True), (total, False), (None, False)):
        site = base.site.model_copy(
            update={"budget": budget, "start_on": "2026-11-27", "due_on": "2026-11-30"}
        )
        quote = _quote(apply(base, [put(site)]))
        ids = {f.id for f in order_of(quote.plan).findings}
        assert ("order-budget" in ids) == found and "order-days" not in ids  # a Friday, a Monday
        assert ("over the budget" in _text(quote_html(quote))) == found
    slow = OwnFigure(id="o", figure="order.papers_minutes", value=900.0)
    quote = _quote(
        apply(
            base,
            [put(slow), put(base.site.model_copy(update={"start_on": "2026-11-28", "due_on": "2026-11-30"}))],
        )
    )
    assert order_of(quote.plan).sum.days >= 2 and "order-days" in {
        f.id for f in order_of(quote.plan).findings
    }


def test_what_could_be_left_out_saves_what_it_says() -> None:
    """Each is priced again by itself; done later it costs more than it saves now."""
    mill = next(s for s in SITES if s.key == "mill").make()
    whole = order_of(_of("mill").plan).sum.total
    found = savings_of(Plan(mill, CATALOGUE, on=DAY), always)
    assert len(found) >= 5
    for saving in found[:5]:
        after = _quote(apply(mill, saving.changes))
        assert saving.saves == pytest.approx(whole - order_of(after.plan).sum.total, abs=0.011)
        assert saving.later is None or saving.later > saving.saves + 50
    labels = {s.label: s for s in found}
    machine = labels["Dig Orchard duct with a small machine instead of by hand"]
    # 148.8 m at 14 minutes against 60 and 3 a metre, each by two who dig: 58 an hour and tax.
    hours = 2 / 1.7 * (148.8 * 14 - (60 + 148.8 * 3)) / 60
    days = order_of(_of("mill").plan).sum.days - order_of(_quote(apply(mill, machine.changes)).plan).sum.days
    fewer = days * (45 + 20 / 60 * 58)  # travel and clearing up
    assert machine.saves == pytest.approx(1.2 * (hours * 58 + fewer), abs=2)
    assert machine.later is None
    assert not machine.spoils


@pytest.mark.parametrize(
    ("start", "due", "said"),
    [
        ("2026-11-20", "2026-11-27", "; work from 2026-11-20 to 2026-11-27."),
        ("2026-11-20", None, "; work from 2026-11-20."),
        (None, "2026-11-27", "; work done by 2026-11-27."),
        (None, None, "of the plan."),
        ("2026-11-20", "2026-11-16", "; days of work still to be agreed."),
    ],
)
def test_days_of_work_that_cannot_be_are_not_printed(start: str | None, due: str | None, said: str) -> None:
    mill = next(s for s in SITES if s.key == "mill").make()
    site = mill.site.model_copy(update={"start_on": start, "due_on": due})
    assert said in _text(quote_html(_quote(apply(mill, [put(site)])), Head(FIRM)))
