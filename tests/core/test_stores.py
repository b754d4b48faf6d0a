"""Stores: usable disks by hand, days kept against bits counted one by one, cures that mend."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.context.recording import days_kept, disks_for, usable_tb
from heathrise.core.design import Design, Device, OwnFigure, Redundancy, Switch
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.rack.stores import Store
from heathrise.core.views.bill_of_materials import order_of

from .plans import design_of, rack, shell

KINDS: tuple[Redundancy, ...] = ("none", "mirror", "single", "double")


def test_the_worked_figures() -> None:
    # Six cameras at 4 Mb/s on three 6 TB disks with single parity: 12 TB, 46.3 days.
    assert usable_tb(3, 6, "single") == 12 and days_kept(12, 24) == pytest.approx(46.3, abs=0.05)
    assert [usable_tb(4, 6, kind) for kind in KINDS] == [24, 12, 18, 12]
    assert usable_tb(1, 6, "single") == usable_tb(2, 6, "double") == usable_tb(1, 6, "mirror") == 0
    # Eight cameras at 4 Mb/s for 30 days are 10.4 TB: two disks and one for parity.
    assert [disks_for(32, 30, 6, kind) for kind in KINDS] == [2, 4, 3, 4]


@given(st.floats(0.5, 400), st.floats(1, 120), st.floats(1, 20), st.sampled_from(KINDS))
def test_the_fewest_disks_keep_it_and_one_less_does_not(
    mbps: float, days: float, tb: float, kind: Redundancy
) -> None:
    """Against disks added one by one until the bits of all days fit."""
    bits = mbps * 1e6 * 86_400 * days
    count = 1
    while True:
        whole = {"none": count, "mirror": count // 2, "single": count - 1, "double": count - 2}[kind]
        if (kind != "mirror" or count % 2 == 0) and whole >= 1 and whole * tb * 8e12 >= bits * (1 - 1e-9):
            break
        count += 1
    assert disks_for(mbps, days, tb, kind) == count
    assert days_kept(usable_tb(count, tb, kind), mbps) >= days * (1 - 1e-6)


def _site(
    cameras: int, model: str = "peltwick-turret", figure: float | None = None, **store: object
) -> Design:
    box = {"id": "rec", "floor": "f", "kind": "recorder", "name": "REC-1", "model": "recorder"}
    pose = {"at": (9.0, 9.0), "height_m": 0.8, "mount": "desk"}
    camera = {"floor": "f", "kind": "camera", "model": model, "height_m": 2.5, "mount": "wall"}
    own = [OwnFigure(id="own", figure="order.recording_days", value=figure)] if figure else []
    return design_of(
        *shell(),
        rack(2, 2),
        Switch(id="sw", equipment_room="rack", name="SW-1", model="dunthrip-s16"),
        Device.model_validate({**box, **pose, **store}),
        *(
            Device.model_validate({**camera, "id": f"cam-{k}", "name": f"CAM-{k}", "at": (12.0, 3.0 + k)})
            for k in range(cameras)
        ),
        *own,
    )


def _store(design: Design) -> Store:
    return next(s for s in evaluate(Plan(design, load_catalogue())).power.stores if s.device == "rec")


def test_the_greater_of_day_and_night_counts() -> None:
    # The pan camera sends 4 Mb/s by day and 8 by night; three are 24.
    store = _store(_site(3, "peltwick-pan"))
    assert (store.mbps, store.disks, store.usable_tb, store.verdict) == (24, 3, 12, "met")
    assert store.days == pytest.approx(46.3, abs=0.05)


def test_too_few_days_are_told_and_each_cure_mends() -> None:
    design = _site(8, disks=2)
    plan = Plan(design, load_catalogue())
    found = next(f for f in evaluate(plan).power.findings if f.id == "power-store-rec")
    # One of two disks of 6 TB over 32 Mb/s: 6e6 * 8 / (32 * 86400) = 17.4 days.
    assert "for 17 days" in found.text and found.severity == "near" and found.limit == 30
    assert [c.label for c in found.cures] == ["Put 3 disks into it", "Let no disk stand in for another"]
    for cure in found.cures:
        after = plan.after(cure.changes)
        assert not [f for f in evaluate(after).power.findings if f.id == "power-store-rec"]
    disks = [
        next(k.quantity for k in order_of(p).lines if k.item == "disk-6tb")
        for p in (plan, plan.after(found.cures[0].changes))
    ]
    assert disks == [2, 3]


def test_more_than_its_bays_takes_another_store() -> None:
    plan = Plan(_site(8, figure=90.0), load_catalogue())
    # 8 x 4 Mb/s for 90 days are 31.1 TB: six disks and one; the recorder has four bays.
    store = _store(plan.drawn)
    assert (store.disks, store.bays, store.verdict) == (4, 4, "near")
    (cure,) = [c for c in store.cures if c.label.startswith("Take")]
    assert cure.label.endswith("with 7 disks")
    after = evaluate(plan.after(cure.changes)).power
    assert next(s for s in after.stores if s.device == "rec").verdict == "met"


@pytest.mark.parametrize(
    ("disks", "kind", "said"),
    [
        (6, "single", "4 bays for 6 disks"),
        (2, "double", "takes 3 disks at least"),
        (3, "mirror", "cannot each"),
    ],
)
def test_disks_that_cannot_be_say_so(disks: int, kind: str, said: str) -> None:
    store = _store(_site(2, disks=disks, redundancy=kind))
    assert store.verdict == "not_met" and said in store.text
    assert store.cures
    for cure in store.cures:
        after = Plan(_site(2, disks=disks, redundancy=kind), load_catalogue()).after(cure.changes)
        judged = next(s for s in evaluate(after).power.stores if s.device == "rec")
        assert judged.verdict != "not_met"


@given(st.integers(1, 48), st.sampled_from(KINDS), st.floats(1, 20))
def test_what_stands_in_for_another_holds_no_more_than_all(disks: int, kind: Redundancy, tb: float) -> None:
    assert 0 <= usable_tb(disks, tb, kind) <= usable_tb(disks, tb, "none") == disks * tb
    assert math.isinf(days_kept(1, 0))
