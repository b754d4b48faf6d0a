"""Back-haul over the air: by hand in the open, and each way against trying all there are."""

from __future__ import annotations

import itertools
import math
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Building, Design, Device, Floor, Run, Space, apply, put, remove
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.placement import Wishes, best_places, mesh_view
from heathrise.core.signal import (
    air_of,
    cable_wishes,
    judge_rooms,
    mesh_cable_findings,
    mesh_findings,
    mesh_links,
    readings_at,
)
from heathrise.core.signal.hearing import hearing_dbm
from heathrise.core.views.failures import drill

from .plans import RATES, access_point, design_of, rack, shell, wall


def _mbps(level: float, width: int = 40) -> float:
    """Two streams, the width's factor, 3 dB more for each doubling."""
    factor, more = {20: (1, 0), 40: (2.1, 3), 80: (4.19, 6)}[width]
    return max((2 * factor * r for dbm, r in RATES if level >= dbm + more), default=0.0)


def _loose(*devices: Device) -> list[Run]:
    return [Run(id=f"run-{d.id}", device=d.id, over_air=True) for d in devices]


def _in_a_row(*gaps: float) -> Design:
    """One with a cable, then others without, so many metres apart."""
    at, points = 5.0, [access_point(5, 5, "ap-0")]
    for k, gap in enumerate(gaps, 1):
        at += gap
        points.append(access_point(at, 5, f"ap-{k}"))
    return design_of(*shell(300, 10), rack(1, 1), *points, *_loose(*points[1:]))


def test_one_hop_by_hand(catalogue: Catalogue) -> None:
    """Two discs 10 m apart hear each other by one antenna's side twice (6.75 dB each): 17 + 4 + 4
    - 67.3 - 13.5 dBm; a user at -67 dBm shares the radio with the hop."""
    (link,) = mesh_links(air_of(_in_a_row(10), catalogue))
    power = air_of(_in_a_row(10), catalogue).radios["ap-0", "5"].power_dbm
    free = 20 * math.log10(5500) - 27.55 + 20 * math.log10(10)
    level = power + 8 - free - 2 * 12 * (90 / 120) ** 2
    assert link.level_dbm == pytest.approx(level, abs=0.06)
    hop, access = _mbps(level), _mbps(-67)
    assert link.rate_mbps == pytest.approx(hop, abs=0.06)
    assert link.user_mbps == pytest.approx(0.65 / (1 / hop + 1 / access), abs=0.06)
    assert link.kept_mbps == pytest.approx(0.65 * min(hop, access), abs=0.06)
    assert link.wired_mbps == pytest.approx(0.65 * access, abs=0.06)
    assert (link.hops, link.path, link.second) == (1, ("AP-1", "AP-0"), None)


def test_two_hops_are_the_most(catalogue: Catalogue) -> None:
    links = {k.name: k for k in mesh_links(air_of(_in_a_row(90, 90, 90), catalogue))}
    assert links["AP-2"].path == ("AP-2", "AP-1", "AP-0") and links["AP-2"].hops == 2
    assert links["AP-3"].parent is None  # a third hop is none
    assert links["AP-1"].on_branch == 2
    assert links["AP-2"].shared_mbps == pytest.approx(links["AP-2"].user_mbps / 2, abs=0.06)
    said = {f.id: f for f in mesh_findings(air_of(_in_a_row(90, 90, 90), catalogue))}
    assert said["signal-mesh-ap-3"].severity == "not_met"


def _best(heard, names, wired, k, gone=None, most=2):  # type: ignore[no-untyped-def]
    """Every way of at most two hops to a wired one; the one that carries most."""
    others = [j for j in range(len(names)) if j not in (k, gone)]
    ways = [
        (k, *way)
        for count in range(1, most + 1)
        for way in itertools.permutations(others, count)
        if way[-1] in wired and not set(way[:-1]) & wired
    ]

    def carries(way):  # type: ignore[no-untyped-def]
        rates = [_mbps(heard[a][b]) for a, b in itertools.pairwise(way)]
        return 0.0 if 0.0 in rates else 1 / sum(1 / r for r in rates)

    found = [(carries(w), w) for w in ways]
    return max(found, default=(0.0, ()))[0]


@pytest.mark.parametrize("seed", range(12))
def test_each_way_carries_what_the_best_of_all_ways_does(seed: int, catalogue: Catalogue) -> None:
    chance = random.Random(seed)
    points = [access_point(chance.uniform(2, 90), chance.uniform(2, 28), f"ap-{k}") for k in range(7)]
    walls = [
        wall(k, (x := chance.uniform(5, 85), 0), (x, 30), chance.choice(["brick-single", "block-dense"]))
        for k in range(4)
    ]
    loose = points[2:]
    design = design_of(*shell(92, 30), rack(1, 1), *walls, *points, *_loose(*loose))
    air = air_of(design, catalogue)
    # All of them as they hear each other; what leads nowhere is silent in the air itself.
    whole = air_of(Design({**design.tables, "run": {}}), catalogue)
    heard, devices = hearing_dbm(whole, "5"), whole.access_points("5")
    names = [d.id for d in devices]
    wired = {names.index(p.id) for p in points[:2]}
    access = _mbps(-67)
    for link in mesh_links(air):
        k = names.index(link.device)
        carries = _best(heard, names, wired, k)
        assert (link.parent is None) == (carries == 0)
        if carries:
            assert link.user_mbps == pytest.approx(0.65 / (1 / carries + 1 / access), abs=0.06)
            after = _best(heard, names, wired, k, gone=names.index(link.parent or ""))
            if link.second:
                assert link.second_mbps == pytest.approx(0.65 / (1 / after + 1 / access), abs=0.06)


def _served_rooms() -> Design:
    """Three rooms 90 m apart, each with an access point; the second and third over the air."""
    rooms = [
        Space(id=f"r{k}", floor="f", name=f"R{k}", outline=((a, 2), (a + 6, 2), (a + 6, 8), (a, 8)))
        for k, a in enumerate((2, 92, 182))
    ]
    points = [access_point(5 + 90 * k, 5, f"ap-{k}") for k in range(3)]
    return design_of(*shell()[:3], *rooms, rack(1, 1), *points, *_loose(*points[1:]))


def _verdicts(design: Design, catalogue: Catalogue) -> dict[str, str]:
    return {r.space: r.verdict for r in judge_rooms(air_of(design, catalogue))}


def test_what_leads_nowhere_serves_nobody(catalogue: Catalogue) -> None:
    """Two hops reach the third room; once the second is taken away nobody hears its link."""
    design = _served_rooms()
    assert _verdicts(design, catalogue) == {"r0": "met", "r1": "met", "r2": "met"}
    alone = apply(design, [remove(design.of(Run)["run-ap-1"]), remove(design.of(Device)["ap-1"])])
    assert _verdicts(alone, catalogue) == {"r0": "met", "r1": "not_met", "r2": "not_met"}
    air = air_of(alone, catalogue)
    assert air.cut_off == {"ap-2"} and {d.id for d in air.access_points("5")} == {"ap-0"}
    (link,) = mesh_links(air)
    assert link.device == "ap-2" and link.parent is None
    assert "ap-2" not in {r.device for r in readings_at(air, "f", 185, 5)}


def test_a_branch_falls_with_the_one_that_it_hangs_on(catalogue: Catalogue) -> None:
    design = _served_rooms()
    failures = {f.element: f for f in drill(Plan(design, catalogue))}
    fallen = {k: {r.space for r in f.rooms} for k, f in failures.items()}
    assert fallen["ap-2"] == {"r2"}
    assert fallen["ap-1"] == {"r1", "r2"}
    assert fallen["ap-0"] == {"r0", "r1", "r2"}


def test_a_run_that_reaches_nothing_may_be_the_air(catalogue: Catalogue) -> None:
    """A rack in another building, no duct: the cure takes the cable away; by the school of mesh it
    comes before what a cable would take."""
    far = Floor(id="g", building="c", name="Barn", level=0)
    there = access_point(30, 5, "ap-2").model_copy(update={"floor": "g"})
    design = design_of(
        *shell(20, 10), Building(id="c", name="Barn"), far, rack(1, 1), access_point(15, 5), there
    )
    finding = next(f for f in evaluate(Plan(design, catalogue)).findings if f.id == "cable-way-ap-2")
    (cure,) = [c for c in finding.cures if "over the air" in c.label]
    after = evaluate(Plan(apply(design, cure.changes), catalogue))
    assert not [f for f in after.findings if f.id == "cable-way-ap-2"]
    links = mesh_links(air_of(apply(design, cure.changes), catalogue))
    assert [(k.device, k.parent) for k in links] == [("ap-2", "ap-1")]
    long = design_of(*shell(120, 10), rack(1, 1), access_point(78, 5))
    for school, first in (("wired", False), ("mesh", True)):
        asked = apply(long, [put(long.site.model_copy(update={"back_haul": school}))])
        finding = next(f for f in evaluate(Plan(asked, catalogue)).findings if f.id == "cable-length-ap-1")
        assert ("over the air" in finding.cures[0].label) is first
        assert any("over the air" in c.label for c in finding.cures)


def test_a_cable_instead_and_the_settings_that_follow(catalogue: Catalogue) -> None:
    design = _in_a_row(15)
    evaluation = evaluate(Plan(design, catalogue))
    assert {r.device for r in evaluation.runs} == {"ap-0"}
    assert evaluation.settings is not None and evaluation.settings.mesh
    assert "AP-1 is over the air" in evaluation.settings.mesh_reason
    (row,) = mesh_view(Plan(design, catalogue)).links
    wired = apply(design, row.changes)
    after = evaluate(Plan(wired, catalogue))
    run = next(r for r in after.runs if r.device == "ap-1")
    assert (row.verdict, row.cable_m) == (run.verdict, run.bought_m) and row.cost > 0
    assert mesh_links(air_of(wired, catalogue)) == []
    assert after.settings is not None and not after.settings.mesh


def test_a_repeater_is_told_for_what_it_is(catalogue: Catalogue) -> None:
    """Beside it a user hears the wired one well enough: through the repeater he gets less."""
    repeater = access_point(13, 5, "rep", "old-repeater", state="keep", mount="wall", height_m=1)
    design = apply(_in_a_row(), [put(repeater)])
    (link,) = mesh_links(air_of(design, catalogue))
    assert link.repeater and link.band == "2.4"
    assert link.user_mbps < link.direct_mbps
    (said,) = mesh_findings(air_of(design, catalogue))
    assert "without it" in said.text and said.severity == "near"
    assert mesh_view(Plan(design, catalogue)).links[0].changes == ()


def test_the_best_place_for_one_without_a_cable_minds_its_back_haul(catalogue: Catalogue) -> None:
    """Two rooms behind a wall each wish for data; the farther in, the less of the back-haul is left."""
    rooms = [
        Space(id=f"r{k}", floor="f", name=f"R{k}", outline=((a, 0), (b, 0), (b, 6), (a, 6)))
        for k, (a, b) in enumerate(((0, 30), (30, 60)))
    ]
    loose = access_point(59, 3, "ap-2")
    walls = [wall(1, (30, 0), (30, 6), "brick-single")]
    design = design_of(*shell()[:3], *rooms, rack(1, 1), *walls, access_point(4, 3), loose, *_loose(loose))
    before = mesh_links(air_of(design, catalogue))[0]
    for cure in best_places(Plan(design, catalogue), "ap-2", Wishes()):
        link = next(k for k in mesh_links(air_of(apply(design, cure.changes), catalogue)))
        assert link.parent == "ap-1"
        assert f"{link.user_mbps:.0f} Mb/s for a user over AP-1" in cure.effect
        assert link.user_mbps >= before.user_mbps
    assert best_places(Plan(design, catalogue), "ap-2", Wishes())


@given(st.integers(0, 10_000), st.integers(2, 5))
def test_who_wants_the_cable_most_is_found_by_giving_it_to_each(
    catalogue: Catalogue, seed: int, many: int
) -> None:
    chance = random.Random(seed)
    at = [(chance.uniform(3, 90), chance.uniform(3, 60)) for _ in range(many + 1)]
    points = [access_point(x, y, f"ap-{k}") for k, (x, y) in enumerate(at)]
    design = design_of(*shell(100, 70), rack(1, 1), *points, *_loose(*points[1:]))
    air = air_of(design, catalogue)
    now, wishes = cable_wishes(air)
    links = [k for k in mesh_links(air) if k.parent is not None]
    assert now == pytest.approx(sum(k.shared_mbps for k in links), abs=0.1)
    for wish in wishes:
        run = next(r for r in design.of(Run).values() if r.device == wish.device)
        cabled = air_of(apply(design, [remove(run)]), catalogue)
        others = [k for k in mesh_links(cabled) if k.parent is not None]
        # Those that led nowhere before are silent till then, and nothing is said of them.
        known = {k.device for k in links}
        wired = next(k.wired_mbps for k in links if k.device == wish.device)
        together = wired + sum(k.shared_mbps for k in others if k.device in known)
        if {k.device for k in others} <= known:
            assert wish.together_mbps == pytest.approx(together, abs=0.2)
    assert [w.together_mbps for w in wishes] == sorted((w.together_mbps for w in wishes), reverse=True)
    found = {f.id: f for f in mesh_cable_findings(air)}
    assert ("signal-mesh-wants-cable" in found) == bool(wishes and wishes[0].together_mbps > now)
    for finding in found.values():
        assert wishes[0].name in finding.text and f"{wishes[0].together_mbps:.0f}" in finding.text
        after = apply(design, finding.cures[0].changes)
        assert wishes[0].device not in {r.device for r in after.of(Run).values() if r.over_air}


def test_a_strong_one_on_the_air_and_a_weak_one_on_the_cable(catalogue: Catalogue) -> None:
    on_5 = [(a.generation, k) for k, a in catalogue.airs.items() if "5" in a.radios]
    (_, weak), (generation, strong) = min(on_5), max(on_5)
    points = [access_point(5, 5, "ap-0"), access_point(15, 5, "ap-1")]
    pair = [p.model_copy(update={"model": m}) for p, m in zip(points, (weak, strong), strict=True)]
    design = design_of(*shell(30, 10), rack(1, 1), *pair, *_loose(pair[1]))
    found = {f.id: f for f in mesh_cable_findings(air_of(design, catalogue))}["signal-mesh-strong-ap-1"]
    assert found.text == (
        f"AP-1, of generation {generation}, hangs over the air while AP-0, of an older one, has the cable."
    )
    after = apply(design, found.cures[0].changes)
    assert [after.of(Device)[k].model for k in ("ap-0", "ap-1")] == [strong, weak]
    assert "signal-mesh-strong-ap-0" not in {f.id for f in mesh_cable_findings(air_of(after, catalogue))}
    kept = apply(design, [put(pair[0].model_copy(update={"state": "keep"}))])
    assert not [f for f in mesh_cable_findings(air_of(kept, catalogue)) if "strong" in f.id]
