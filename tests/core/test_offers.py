"""Other ways of doing a job: what a policy changes, and what each really is."""

from __future__ import annotations

from datetime import date
from functools import cache

import pytest

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, Remove, Variant, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.offers import make_variant, offers, removal, with_changes
from heathrise.demo import SITES

from .plans import access_point, design_of, rack, shell, wall

TODAY = date(2026, 11, 25)
CATALOGUE = load_catalogue()


@cache
def _school() -> Design:
    return next(s for s in SITES if s.key == "school").make()


def _variant(design: Design, policy: str) -> Variant:
    changes = make_variant(Plan(design, CATALOGUE), policy)  # type: ignore[arg-type]
    return Variant(
        id=policy.replace("_", "-"), name=policy, changes=tuple(c.model_dump(mode="json") for c in changes)
    )


def _heard(design: Design) -> set[str]:
    rooms = evaluate(Plan(design, CATALOGUE, quick=True)).rooms
    return {r.space for r in rooms if (r.share_first or 0) >= 0.95}


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_first_only_keeps_every_first_and_nothing_that_could_go(key: str) -> None:
    design = next(s for s in SITES if s.key == key).make()
    after = with_changes(Plan(design, CATALOGUE), _variant(design, "first_only")).drawn
    base = apply(design, [put(after.site)])
    assert after.site.cables_per_access_point == 1
    assert _heard(after) >= _heard(base)
    # No access point that is left could go as well: tried one by one.
    for device in after.of(Device).values():
        if device.kind == "access_point" and device.state == "new":
            fewer = apply(after, removal(after, device))
            assert not _heard(fewer) >= _heard(base), device.name


def test_second_everywhere_adds_cable_and_seconds() -> None:
    design = design_of(
        *shell(30, 10), rack(1, 1), wall(1, (15, 0), (15, 10), "concrete"), access_point(4, 5, "ap-1")
    )
    after = with_changes(Plan(design, CATALOGUE), _variant(design, "second_everywhere")).drawn
    check(after, CATALOGUE)
    before, then = (evaluate(Plan(d, CATALOGUE, quick=True)) for d in (design, after))
    assert len(after.of(Device)) == 2 and after.site.cables_per_access_point == 2
    assert (then.rooms[0].share_second or 0) > (before.rooms[0].share_second or 0)
    assert {r.category for r in then.runs} == {"6A"}


def test_each_offer_is_the_evaluation_of_its_own_design() -> None:
    design = _school()
    first = _variant(design, "first_only")
    gone = Variant(
        id="gone", name="Gone", changes=(Remove(kind="device", id="no-such").model_dump(mode="json"),)
    )
    junk = Variant(id="junk", name="Junk", changes=({"op": "explode"},))
    held = apply(design, [put(first), put(gone), put(junk)])
    rows = offers(Plan(held, CATALOGUE, on=TODAY))
    assert [r.variant for r in rows] == [None, "first-only", "gone", "junk"]
    for row, own in zip(rows, (held, with_changes(Plan(held, CATALOGUE), first).drawn), strict=False):
        worked = evaluate(Plan(own, CATALOGUE))
        order = order_of(Plan(own, CATALOGUE, on=TODAY))
        assert (row.total, row.cable_m) == (order.sum.total, worked.totals.cable_m)
        assert row.rooms_first == worked.totals.rooms_first and not row.fits
    assert rows[1].total < rows[0].total and rows[1].access_points < rows[0].access_points
    assert "cannot be removed" in rows[2].fits and "holds no changes" in rows[3].fits


def test_a_variant_can_be_stopped_and_gives_what_it_has() -> None:
    design = _school()
    changes = make_variant(Plan(design, CATALOGUE), "first_only", lambda done, _: done < 2)
    assert 1 <= len(changes) <= 5
    check(apply(design, changes), CATALOGUE)
