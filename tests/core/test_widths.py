"""Widths on 5 GHz: each as a plan of that width has it, and the one that the air allows."""

from __future__ import annotations

import pytest

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.context.scope import as_planned
from heathrise.core.design import ClientGroup, Neighbour, Space, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.signal import air_of, channel_plans, channel_tasks
from heathrise.core.views.busy_hour import busy_view
from heathrise.core.views.channel_width import width_view
from heathrise.demo import SITES

from .plans import access_point, design_of, shell


@pytest.mark.parametrize("key", ["school", "mill"])
def test_each_width_is_what_its_own_plan_comes_to(key: str, catalogue: Catalogue) -> None:
    design = next(s for s in SITES if s.key == key).make()
    view = width_view(Plan(design, catalogue))
    assert [r.width_mhz for r in view.rows] == [20, 40, 80]
    for row in view.rows:
        assert (not row.changes) == (row.width_mhz == design.site.width_5ghz_mhz)
        there = apply(design, row.changes)
        evaluation = evaluate(Plan(there, catalogue), wait=True)
        assert row.rooms_met == evaluation.totals.rooms_met
        air = air_of(as_planned(there), catalogue)
        best = channel_plans(air, channel_tasks(air, begin=True), wait=True)["5"]
        assert best.bound_db - 0.1 <= best.cost_db <= row.shared_db + 0.1
        loads = [k.total for k in busy_view(Plan(there, catalogue)).busy.loads if k.band == "5"]
        if not row.shared_db:
            assert row.busiest == pytest.approx(max(loads), abs=0.2)
        near, most = (catalogue.rules[f"signal.busy_{k}share"] for k in ("near_", ""))
        said = "not_met" if row.busiest > most else "near" if row.busiest > near else "met"
        assert row.verdict == said
    # 36 to 64 and 100 to 140 in Europe: 19 channels, 9 pairs, 4 blocks of four.
    if key == "school":
        assert [r.blocks for r in view.rows] == [19, 9, 4]


def test_the_air_allows_the_widest_that_nobody_shares(catalogue: Catalogue) -> None:
    """One access point in an open room: 80 MHz. A neighbour on each block of four: 40."""
    design = design_of(*shell(8, 8), access_point(4, 4))
    view = width_view(Plan(design, catalogue))
    assert view.allows == 80 and "no two share" in view.why
    rows = [
        Neighbour(
            id=f"n{c}", floor="f", name=f"N{c}", at=(4, 4), band="5", channel=c, width_mhz=20, level_dbm=-60
        )
        for c in (36, 52, 100, 116)
    ]
    crowded = width_view(Plan(apply(design, [put(n) for n in rows]), catalogue))
    assert crowded.allows == 40 and [bool(r.shared_db) for r in crowded.rows] == [False, False, True]


def test_where_all_share_the_least_busy_is_told(catalogue: Catalogue) -> None:
    """Sixty in one room at every width: the one whose busiest radio has the most air left."""
    points = [access_point(1 + k % 8 * 2, 1 + k // 8 * 4, f"ap-{k}") for k in range(32)]
    room = next(e for e in shell(18, 18) if isinstance(e, Space))
    who = ClientGroup(id="g", space=room.id, kind="phone", count=60)
    view = width_view(Plan(design_of(*shell(18, 18), *points, who), catalogue))
    assert all(r.sharing for r in view.rows)
    best = min(view.rows, key=lambda r: (r.busiest, -r.width_mhz))
    assert view.allows == best.width_mhz and "share their air at any width" in view.why
