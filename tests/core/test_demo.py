"""The demo sites between them show every finding and every cure there is."""

from __future__ import annotations

from functools import cache

import pytest

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.findings import Cure
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, apply
from heathrise.core.evaluation.cure_search import search_cures
from heathrise.core.evaluation.evaluate import Evaluation, evaluate
from heathrise.core.records import CableTest, StepRecord
from heathrise.core.views.work_list import steps_of
from heathrise.demo import SITES, DemoSite

# What is said of a project in which nothing is begun; no site of its own has that.
UNBEGUN = {"signal-none", "cable-no-room", "settings-networks"}
# Rooms of a real size pass the heat of a small rack; this one is tried by hand.
BY_HAND = {"rack-heat", "plan-sockets", "power-chain", "power-plugged", "cable-bundle"}
FAMILIES = {
    "plan-storeys",
    "plan-ceiling",
    "plan-tall",
    "plan-outdoors",
    "plan-mount",
    "plan-height",
    "plan-panel",
    "plan-light",
    "plan-socket",
    "plan-buried",
    "plan-sockets",
    "rack-panel",
    "rack-socket",
    "rack-size",
    "rack-spare",
    "rack-places",
    "rack-fixing",
    "rack-studs",
    "rack-noise",
    "rack-battery",
    "cable-mains",
    "signal-room",
    "signal-deaf",
    "signal-loud",
    "signal-shielded",
    "signal-channel",
    "signal-illegal",
    "settings-portal-law",
    "signal-walk",
    "signal-busy",
    "signal-mesh",
    "cable-way",
    "cable-length",
    "cable-category",
    "cable-uplink",
    "cable-surge",
    "cable-jacket",
    "cable-duct",
    "cable-riser",
    "cable-rated",
    "cable-led",
    "cable-recommended",
    "cable-shared",
    "plan-blind",
    "plan-dazzled",
    "plan-weather",
    "power-left",
    "power-reduced",
    "power-split",
    "power-store",
    "power-none",
    "power-budget",
    "power-loop",
    "power-hops",
    "power-passive",
    "power-pin",
    "power-narrow",
    "power-cascade",
    "power-converter",
    "power-injector",
    "power-slow",
    "settings-subnet",
    "settings-public",
    "settings-upstream",
    "settings-upstream-unread",
    "settings-overlap",
    "settings-size",
    "settings-octet",
    "settings-vlan",
    "settings-guest",
    "settings-guest-name",
    "settings-reach",
    "settings-names",
    "settings-twice",
    "settings-unmanaged",
    "settings-stray",
    "settings-cut",
    "settings-recorder",
    "settings-no-cameras",
    "settings-beacons",
    "brief-quiet",
    "brief-dates",
    "brief-pain",
    "brief-wire",
    "brief-found",
    "brief-later",
    "brief-drill",
    "brief-old",
}
CURES = {
    "is open to",
    "Make its ceiling",
    "Make the ceiling of",
    "Put Hay loft at",
    "Take ",
    "Tilt ",
    "Feed it off its cable",
    "Take the splitter away",
    "where it goes by",
    "disks into it",
    "on less power",
    "Mount it on",
    "Have a socket made at",
    "out of it",
    " away",
    "Forget those places",
    "Take Fellgate",
    "Take Staddle",
    "Hang it at",
    "Plan 40 MHz",
    "Let the plan choose its channel",
    "Let the plan choose these",
    "Pull category",
    "back along its run",
    "of cords in all",
    "A second room",
    "Join the two rooms by fibre",
    "Pull fibre to",
    "A switch that tells networks apart at",
    "Put Router at",
    "Pull category 6A to all",
    "Put in an injector",
    "Put in Peltwick E",
    "Put in Peltwick P24",
    "Put in two of",
    "in place of",
    "Add Dunthrip",
    "Choose Dunthrip",
    "in its place",
    "on VLAN",
    "Update at",
    "Place a",
    "over the air",
    "Isolate the guests",
    "Turn client isolation on",
    "Keep Cameras out",
    "Add a network for",
    "in its place, SW-",
}


@cache
def evaluated(key: str) -> Evaluation:
    site = next(s for s in SITES if s.key == key)
    return evaluate(Plan(site.make(), load_catalogue()))


def mended(site: DemoSite) -> Design:
    design = site.make()
    return apply(design, site.mend(design)) if site.mend is not None else design


def found() -> list[str]:
    return [f.id for site in SITES for f in evaluated(site.key).findings]


def test_every_finding_occurs_on_some_site() -> None:
    ids = found()
    missing = {f for f in FAMILIES if not any(i == f or i.startswith(f + "-") for i in ids)}
    assert not missing


def test_no_finding_of_the_sites_is_unknown_to_the_list() -> None:
    known = FAMILIES | UNBEGUN
    assert not [i for i in found() if not any(i == f or i.startswith(f + "-") for f in known)]


def _another_room(site: DemoSite, finding: str) -> list[Cure]:
    """Search where that is quick."""
    quick = finding.startswith("cable-length-")
    return search_cures(Plan(site.make(), load_catalogue()), finding) if quick else []


def test_every_cure_is_offered_on_some_site() -> None:
    labels = [
        cure.label
        for site in SITES
        for finding in evaluated(site.key).findings
        for cure in (*finding.cures, *_another_room(site, finding.id))
    ]
    assert not {part for part in CURES if not any(part in label for label in labels)}


@pytest.mark.parametrize("site", SITES, ids=lambda s: s.key)
def test_a_site_holds_and_its_offered_cures_can_all_be_taken(site: DemoSite) -> None:
    catalogue, design = load_catalogue(), site.make()
    check(design, catalogue)
    for finding in evaluated(site.key).findings:
        for cure in finding.cures:
            check(apply(design, cure.changes), catalogue)
    assert len(site.teaches) > 60


def test_searched_cures_move_or_add_an_access_point_at_the_mill() -> None:
    mill = next(s for s in SITES if s.key == "mill").make()
    rooms = [f.id for f in evaluated("mill").findings if f.id.startswith("signal-room-")]
    labels = [c.label for f in rooms for c in search_cures(Plan(mill, load_catalogue()), f)]
    assert any(label.startswith("Move ") for label in labels)
    assert any(label.startswith("Add ") for label in labels)


@pytest.mark.parametrize("key", [s.key for s in SITES if s.records is not None])
def test_what_is_said_of_a_demo_s_work_can_have_happened(key: str) -> None:
    """No step is done before what it waits for; nothing is tested before its ends are made; a
    licensed step names who did it; what is said is of steps that there are."""
    site = next(s for s in SITES if s.key == key)
    design = mended(site)
    steps = {s.id: s for s in steps_of(Plan(design, load_catalogue()))}
    assert site.records is not None
    said = [r for r in site.records(design) if isinstance(r, StepRecord)]
    done: set[str] = set()
    for record in said:
        step = steps[record.step]
        if record.state == "done":
            assert set(step.waits) <= done, step.id
            assert not step.licensed or record.licensed_by
            done.add(step.id)
        else:
            assert record.reason
    assert done
    cables = {r.device for r in site.records(design) if isinstance(r, CableTest)}
    assert cables and all(f"far-run-{c}" in done for c in cables)


def test_the_school_is_handed_over_with_nothing_that_nobody_would_sign() -> None:
    """Mended, no finding is not met, each device has its port, and of its job two small points are
    left."""
    site = next(s for s in SITES if s.key == "school")
    evaluation = evaluate(Plan(mended(site), load_catalogue()))
    assert [f.id for f in evaluation.findings if f.severity == "not_met"] == []
    assert not evaluation.power.left
    assert evaluation.totals.rooms_first == evaluation.totals.rooms_needed
    assert evaluation.totals.rooms_second == evaluation.totals.rooms_second_needed
    assert any(f.severity == "not_met" for f in evaluated("school").findings)
