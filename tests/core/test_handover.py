"""The hand-over: what differs from what was agreed, what is open, how one joins."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Design,
    Device,
    EquipmentRoom,
    Network,
    Switch,
    Wall,
    WirelessName,
    apply,
    put,
    remove,
)
from heathrise.core.evaluation.evaluate import Evaluation, evaluate
from heathrise.core.handover import (
    CheckItem,
    Proof,
    after_a_power_cut,
    device_states,
    differences,
    joins_of,
    open_points,
    promises_of,
    reach_of,
    wifi_code,
)
from heathrise.core.records import CableTest, StepStand, cables_as_tested
from heathrise.core.views.acceptance import planned_cables
from heathrise.core.views.handover import Observed, as_built, handover_of
from heathrise.core.views.practice import school_changes
from heathrise.core.views.work_list import steps_of
from heathrise.demo import SITES

from ..thorough import examples
from .plans import access_point, design_of, rack, shell, wall

RULES = load_catalogue().rules


def _plain(text: str) -> str:
    return text.replace("\u00a0", " ")


def test_what_was_built_otherwise_is_told_by_hand(catalogue: Catalogue) -> None:
    """One moved by 3 and 4 m, one left out, one added, one lower and of another model."""
    agreed = design_of(
        *shell(),
        rack(1, 1),
        access_point(5, 5),
        access_point(9, 9, "ap-2"),
        access_point(15, 15, "ap-3"),
        wall(1, (0, 5), (5, 5), "plasterboard"),
    )
    built = design_of(
        *shell(),
        rack(1, 1),
        access_point(8, 9),
        access_point(15, 15, "ap-3", "ravelmoor-c4", height_m=2.4),
        access_point(2, 9, "ap-4"),
        wall(1, (0, 5), (6, 5), "plasterboard"),
        wall(2, (0, 7), (5, 7), "concrete"),
    )
    found = {d.element: d for d in differences(agreed, built, catalogue, {}, {})}
    assert set(found) == {"ap-1", "ap-2", "ap-3", "ap-4", "f"}
    assert (found["ap-1"].change, _plain(found["ap-1"].what)) == ("moved", "5.0 m from where it was agreed")
    assert found["ap-1"].was_at == (5, 5)
    assert (found["ap-2"].change, found["ap-2"].was_at) == ("left_out", (9, 9))
    assert found["ap-3"].change == "other" and "instead of" in found["ap-3"].what
    assert "at 2.4 m instead of 2.7 m" in _plain(found["ap-3"].what)
    assert found["ap-4"].change == "added"
    assert found["f"].what == "2 walls drawn otherwise than agreed"


def test_a_run_that_goes_another_way_is_told_and_a_metre_is_not(catalogue: Catalogue) -> None:
    design = design_of(*shell(), rack(1, 1), access_point(5, 5), access_point(9, 9, "ap-2"))
    before, now = {"ap-1": 20.0, "ap-2": 20.0}, {"ap-1": 20.9, "ap-2": 31.5}
    (found,) = differences(design, design, catalogue, before, now)
    assert found.element == "ap-2" and _plain(found.what) == "its run is 31.5 m, agreed 20.0 m"


@examples(60)
@given(st.data())
def test_differences_against_a_plain_look(data: st.DataObject) -> None:
    """Every device that a slow comparison finds added, gone or moved is told, and no other."""
    catalogue, agreed = load_catalogue(), SITES[0].make()
    devices = agreed.of(Device)
    chosen = data.draw(st.lists(st.sampled_from(sorted(devices)), max_size=6, unique=True))
    changes, wanted = [], {}
    for key in chosen:
        what = data.draw(st.sampled_from(["move", "nudge", "copy"]))
        row = devices[key]
        step = 0.1 if what == "nudge" else data.draw(st.floats(0.5, 9))
        there = row.model_copy(update={"at": (round(row.at[0] + step, 2), row.at[1])})
        if what == "copy":
            there = there.model_copy(update={"id": f"new-{key}", "name": f"N {key}"})
            wanted[f"new-{key}"] = "added"
        elif math.dist(there.at, row.at) >= 0.3:
            wanted[key] = "moved"
        changes.append(put(there))
    built = apply(agreed, changes)
    found = {d.element: d.change for d in differences(agreed, built, catalogue, {}, {}) if d.kind == "device"}
    assert found == wanted


def test_nothing_agreed_and_nothing_changed_are_both_quiet(catalogue: Catalogue, school: Design) -> None:
    plan = Plan(school, catalogue, quick=True)
    assert as_built(plan, None) == []
    assert as_built(plan, Design(school.tables)) == []


def test_a_network_and_a_switch_that_changed_are_told(catalogue: Catalogue, school: Design) -> None:
    network = next(iter(school.of(Network).values()))
    switch = next(iter(school.of(Switch).values()))
    room = next(iter(school.of(EquipmentRoom).values()))
    other = next(m for m in catalogue.switches if m != switch.model)
    built = apply(
        school,
        [put(network.model_copy(update={"vlan": 77})), put(switch.model_copy(update={"model": other}))],
    )
    found = {d.element: d for d in differences(school, built, catalogue, {}, {})}
    assert found[network.id].what == "set otherwise than agreed"
    assert found[switch.id].floor == room.floor and catalogue.switches[other].label in found[switch.id].what
    wall_gone = apply(school, [remove(next(iter(school.of(Wall).values())))])
    assert any("drawn otherwise" in d.what for d in differences(school, wall_gone, catalogue, {}, {}))


def _watched(verdict: str, group: str = "cables", name: str = "", element: str = "ap-1") -> CheckItem:
    return CheckItem(group, verdict, name, "why", "install", "device", element)  # type: ignore[arg-type]


def test_what_is_wrong_stands_before_what_nobody_looked_at() -> None:
    rows = [
        *(_watched("unknown", name=f"C{k}") for k in range(5)),
        _watched("near", "work", "W"),
        _watched("unknown", "signal", "Walk"),
        _watched("met", "snags", "S"),
        _watched("not_met", "plan", "P"),
        _watched("not_met", "snags", "S2"),
    ]
    found = open_points(rows)
    assert [(p.tone, p.group) for p in found] == [
        ("not_met", "snags"),
        ("not_met", "plan"),
        ("near", "work"),
        ("unknown", "cables"),
        ("unknown", "signal"),
    ]
    assert found[3].text == "5 cables are not tested: C0, C1, C2 and others"


@given(st.lists(st.sampled_from(["met", "near", "not_met", "unknown"]), max_size=30))
def test_a_promise_counts_what_was_seen(verdicts: list[str]) -> None:
    (found,) = promises_of([Proof("Cables", "n", "cables passed", [_watched(v) for v in verdicts])])
    assert (found.met, found.near, found.not_met, found.unknown) == tuple(
        verdicts.count(v) for v in ("met", "near", "not_met", "unknown")
    )
    seen = len(verdicts) - found.unknown
    if not seen:
        assert found.verdict == "unknown" and found.measured == "not measured yet"
    else:
        kept = "not_met" if found.not_met else "met" if found.met == len(verdicts) else "near"
        assert found.verdict == kept and found.measured.startswith(f"{found.met} of {seen} cables passed")


@given(
    st.lists(
        st.tuples(st.sampled_from(["a", "b", "c"]), st.sampled_from(["met", "near", "not_met", "unknown"]))
    )
)
def test_a_device_is_as_good_as_the_worst_that_was_seen_of_it(rows: list[tuple[str, str]]) -> None:
    found = device_states([("a", "f"), ("b", "f")], [_watched(v, element=d) for d, v in rows])
    for row in found:
        mine = [v for d, v in rows if d == row.device]
        wanted = next((v for v in ("not_met", "near", "unknown", "met") if v in mine), "unknown")
        assert row.verdict == wanted


def test_a_code_joins_by_name_alone_unless_a_key_is_given() -> None:
    assert wifi_code("Guests", "wpa3_wpa2") == "WIFI:T:WPA;S:Guests;;"
    assert wifi_code("Guests", "wpa2", "pass word") == "WIFI:T:WPA;S:Guests;P:pass word;;"
    assert wifi_code("Guests", "wpa3") == "WIFI:T:WPA;R:1;S:Guests;;"
    assert wifi_code("Cafe", "open_portal", "x") == "WIFI:S:Cafe;;"
    assert wifi_code("Staff", "enterprise", "x") == ""


@given(st.text(min_size=1, max_size=32), st.text(min_size=1, max_size=63))
def test_a_code_gives_back_name_and_key(ssid: str, key: str) -> None:
    """Read by a slow reader of its own: a backslash takes the next letter as it is."""
    fields, name, text, quoted = {}, "", "", False
    for letter in wifi_code(ssid, "wpa2", key).removeprefix("WIFI:"):
        if quoted:
            text, quoted = text + letter, False
        elif letter == "\\":
            quoted = True
        elif letter == ":" and not name:
            name, text = text, ""
        elif letter == ";":
            if name:
                fields[name] = text
            name, text = "", ""
        else:
            text += letter
    assert fields == {"T": "WPA", "S": ssid, "P": key}


def test_who_reaches_what_and_what_comes_back_in_which_order() -> None:
    rows = reach_of([("A", 1, True, False, ("B", "C")), ("B", 2, True, True, ()), ("C", 3, False, False, ())])
    assert [r.says for r in rows] == [
        "the internet, B and C",
        "the internet; its own clients do not see one another",
        "nothing beyond itself",
    ]
    steps = after_a_power_cut(RULES, "the box", "Router", [("SW-1", "rack"), ("SW-2", "loft")], 3, "Jo, 12")
    said = [
        next(k for k, s in enumerate(steps) if w in s)
        for w in ("the box", "Router", "SW-1", "SW-2", "3 access", "Jo, 12")
    ]
    assert said == sorted(said) and "5 minutes" in steps[0] and "Never open" in steps[-1]


def _site(design: Design, catalogue: Catalogue) -> tuple[Evaluation, Observed]:
    evaluation = evaluate(Plan(design, catalogue))
    cables = cables_as_tested(RULES, planned_cables(Plan(design, catalogue)), [])
    return evaluation, Observed(cables=cables, steps=steps_of(Plan(design, catalogue)))


@pytest.mark.parametrize("key", [s.key for s in SITES])
def test_nothing_measured_is_said_and_what_is_left_adds_up(key: str, catalogue: Catalogue) -> None:
    design = next(s for s in SITES if s.key == key).make()
    evaluation, seen = _site(design, catalogue)
    found = handover_of(Plan(design, catalogue), seen)
    totals = evaluation.totals
    assert sum(row.ports for row in found.left) == totals.ports - totals.ports_used
    signal, cables = found.promises[:2]
    assert (signal.what, signal.verdict) == ("Signal in the rooms", "unknown")
    no_way = sum(k.verdict == "no_way" for k in evaluation.cable.links)
    assert (cables.what, cables.met, cables.not_met) == ("Cables", 0, no_way)
    texts = " ".join(p.text for p in found.still_open)
    assert f"{len(seen.cables)} cables are not tested" in texts
    # A few rooms are named, each; many are counted.
    unwalked = "nobody walked it" if len(found.rooms) <= 3 else "rooms were not walked"
    assert unwalked in texts
    assert {d.device for d in found.devices} == {
        d.id for d in design.of(Device).values() if d.state in ("new", "keep")
    }
    assert all(r.how == "planned" and r.verdict == "unknown" for r in found.rooms)
    told = sum(f.severity == "not_met" and f.stage != "brief" for f in evaluation.findings)
    assert sum(p.group == "plan" for p in found.still_open) == told


def test_a_job_that_is_proven_has_only_the_plan_s_own_faults_open(catalogue: Catalogue) -> None:
    design = SITES[0].make()
    evaluation, seen = _site(design, catalogue)
    tests = [
        CableTest(
            device=c.device,
            cable=c.cable,
            result="pass",
            length_m=c.planned_m,
            at="2026-11-24T12:00:00Z",
            author="t",
        )  # type: ignore[arg-type]
        for c in seen.cables
    ]
    stands = [
        StepStand(
            step=s.id,
            state="done",
            reason="",
            note="",
            minutes=None,
            licensed_by="x",
            photos=(),
            by="Jo",
            at="2026-11-24T12:00:00+00:00",
            said=1,
        )
        for s in seen.steps
    ]
    proven = Observed(
        cables=cables_as_tested(RULES, planned_cables(Plan(design, catalogue)), tests),
        steps=seen.steps,
        stands=stands,
    )
    found = handover_of(Plan(design, catalogue), proven)
    groups = {p.group for p in found.still_open if p.tone != "unknown"}
    assert groups <= {"plan", "complaints", "wishes", "ports"}
    cables = next(p for p in found.promises if p.what == "Cables")
    no_way = sum(k.verdict == "no_way" for k in evaluation.cable.links)
    assert cables.met == len(seen.cables) and cables.not_met == no_way
    signal = next(p for p in found.promises if p.what == "Signal in the rooms")
    # Ticking a step measures nothing: the rooms were heard, and say by whom.
    assert (signal.met, signal.heard) == (0, len(found.rooms)) and signal.verdict == "heard"
    assert "heard by Jo, 2026-11-24, not measured" in signal.measured


@pytest.mark.parametrize(("school", "parts"), [("one", 1), ("access_point", 3)])
def test_each_name_that_is_on_the_air_has_its_code_and_the_key_of_its_name(school: str, parts: int) -> None:
    """With a name for each access point there are three codes, and one key for all of them."""
    plan = Plan(SITES[3].make(), load_catalogue())
    plan = plan.after(school_changes(plan, "names", school, None))
    names = plan.design.of(WirelessName)
    keys = {key: f"secret of {key}" for key in names}
    joins = joins_of(plan.design, plan.catalogue, keys)
    assert len(joins) == parts * len(names) and len({j.ssid for j in joins}) == len(joins)
    for join in joins:
        assert join.ssid.startswith(names[join.name].ssid) and keys[join.name] in join.code
        assert f"S:{join.ssid};" in join.code
    points = [d.name for d in plan.design.of(Device).values() if d.kind == "access_point"]
    if parts > 1:
        assert {j.ssid.removeprefix(names[j.name].ssid).strip() for j in joins} == set(points)
    told = handover_of(plan, Observed(steps=steps_of(plan))).joins
    assert [(j.id, j.ssid) for j in told] == [(j.id, j.ssid) for j in joins]
    assert not any("secret" in j.code for j in told)
