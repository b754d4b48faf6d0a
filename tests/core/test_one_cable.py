"""One old cable between the line and the router: shared, set, priced, and told for what it gives."""

from __future__ import annotations

import pytest
import yaml
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.base.wording import speed
from heathrise.core.cabling.limits import check_tested
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.findings import Finding
from heathrise.core.context.one_cable import SAID, Service, said
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, EquipmentRoom, Network, OldCable, Site, Switch, apply, put
from heathrise.core.evaluation.evaluate import Evaluation, evaluate
from heathrise.core.views.bill_of_materials import order_of
from heathrise.formats.settings_export import write_yaml

from .plans import one_cable_house as house

TELEVISION = 25.0


def _seen(design: Design) -> tuple[Evaluation, Finding | None]:
    evaluation = evaluate(Plan(design, load_catalogue()))
    return evaluation, next((f for f in evaluation.findings if f.id == "cable-shared-router"), None)


def _cure(design: Design, number: int) -> Design:
    _, finding = _seen(design)
    assert finding is not None
    return apply(design, finding.cures[number].changes)


def test_one_cable_for_three_wants_two_switches_or_the_router_at_the_line() -> None:
    design = house()
    _, finding = _seen(design)
    assert finding is not None and finding.severity == "not_met"
    assert finding.text == (
        "The line, the way back and television go between Rack and Router, and only OC-1 lies there: it "
        "wants a switch that tells networks apart at each end, or Router beside Rack."
    )
    assert (finding.figure, finding.limit) == (1, 3)
    assert [c.label for c in finding.cures] == [
        "A switch that tells networks apart at Rack and Router shelf",
        "Put Router at Rack",
    ]
    moved, none = _seen(_cure(design, 1))
    assert none is None and moved.settings is not None and not moved.settings.services


def test_the_switches_that_are_proposed_are_placed_set_and_priced() -> None:
    design, catalogue = house(), load_catalogue()
    _, finding = _seen(design)
    assert finding is not None
    after = _cure(design, 0)
    evaluation, note = _seen(after)
    assert note is not None and note.severity == "note" and not evaluation.power.left
    # 300 down, 100 sent back to the router by who hangs on the rack, 25 of television.
    assert (note.figure, note.limit) == (300 + 100 + TELEVISION, 1000)
    new = [s for s in after.of(Switch).values() if s.id not in design.of(Switch)]
    assert len(new) == 2 and all(catalogue.switches[s.model].managed for s in new)
    listed = sum(catalogue.switches[s.model].price for s in new)
    assert finding.cures[0].effect.endswith(f"over OC-1; {listed:+g} EUR for its switches")
    lines = {line.item: line for line in order_of(Plan(after, catalogue)).lines}
    assert sum(lines[m].price for m in {s.model for s in new}) == pytest.approx(listed)
    # No metre is bought for what lies in the wall, and its way is told as found.
    (up,) = evaluation.uplinks
    assert (up.chosen_by, up.cables, up.bought_m, up.verdict) == ("found", 1, 0.0, "met")
    cable = [line for key, line in lines.items() if key.startswith("cable-")]
    assert not any(w.id.split("@")[0] == up.id for line in cable for w in line.where)
    cords = {c.name for c in evaluation.racks.cords}
    assert {"Router, line", "Router", "Television", "SW-1 to the line"} <= cords


def _walks(evaluation: Evaluation, start: tuple[str, int]) -> set[tuple[str, int]]:
    """Return every port that a frame without a tag comes out of untagged, port by port: through a
    switch to all that carry its VLAN, over the way between the switches with its tag."""
    assert evaluation.settings is not None
    sheets = {(p.switch, p.port): p for p in evaluation.settings.ports if p.enabled}
    other = {(w.switch, w.port): (w.to, w.to_port) for w in evaluation.power.ways_up if w.to is not None}
    other |= {there: here for here, there in other.items()}  # type: ignore[misc]
    vlan = sheets[start].untagged_vlan
    out: set[tuple[str, int]] = set()
    passed: set[str] = set()
    waiting = [start[0]]
    while waiting:
        switch = waiting.pop()
        passed.add(switch)
        for key, sheet in sheets.items():
            if key[0] == switch and key != start and sheet.untagged_vlan == vlan:
                out.add(key)
            far = other.get(key) if key[0] == switch else None
            if far is None or far[0] in passed:
                continue
            there = sheets[far]  # type: ignore[index]
            if all(vlan in (s.untagged_vlan, *s.tagged_vlans) for s in (sheet, there)):
                waiting.append(far[0])  # type: ignore[arg-type]
    return out


@given(vlans=st.lists(st.integers(1, 910), min_size=1, max_size=5, unique=True), television=st.booleans())
def test_line_and_television_come_out_where_they_go_and_nowhere_else(
    vlans: list[int], television: bool
) -> None:
    networks = [
        Network(id=f"n{v}", name=f"N{v}", purpose="staff", vlan=v, subnet=f"10.{v // 256}.{v % 256}.0/24")
        for v in vlans
    ]
    evaluation, _ = _seen(_cure(house(*networks, television=television), 0))
    assert evaluation.settings is not None
    at = {(p.switch, p.name): (p.switch, p.port) for p in evaluation.settings.ports}
    line = at["sw-1", "to Entry box"]
    assert _walks(evaluation, line) == {at["sw-2", "Router, line"]}
    assert _walks(evaluation, at["sw-2", "Router, line"]) == {line}
    if television:
        assert _walks(evaluation, at["sw-1", "Television"]) == {at["sw-2", "Television"]}
    used = [s.vlan for s in evaluation.settings.services]
    assert len(used) == 1 + television and not set(used) & {*vlans, 10, 901}
    # What the access point sends untagged comes to the router, over the way between.
    assert at["sw-2", "Router"] in _walks(evaluation, at["sw-1", "AP-1"])


@given(
    line=st.floats(10, 2000).map(lambda m: round(m, 1)),
    up=st.floats(10, 2000).map(lambda m: round(m, 1)),
    tested=st.sampled_from([100, 1000, 2500]),
    television=st.booleans(),
)
def test_what_is_left_of_the_line_is_what_the_cable_has_left(
    line: float, up: float, tested: int, television: bool
) -> None:
    """Against the two ways of the cable, filled by hand."""
    design = _cure(house(television=television), 0)
    cable = design.of(OldCable)["old-1"].model_copy(update={"tested_mbps": tested})
    site = design.of(Site)["site"].model_copy(update={"line_mbps": line, "line_up_mbps": up})
    evaluation, told = _seen(apply(design, [put(cable), put(site)]))
    assert told is not None
    taken = TELEVISION * television
    to_router, back = line + taken + up, up + line
    assert told.figure == pytest.approx(max(to_router, back))
    assert (told.severity == "note") == (to_router <= tested)
    (chain,) = [c for c in evaluation.chains.chains if c.device == "ap-1"]
    (shared,) = [k for k in chain.links if k.name.startswith("OC-1, shared by the line")]
    assert shared.mbps == pytest.approx(tested - taken)
    if told.severity == "near":
        assert f"a download {speed(min(line, tested - taken))} at most" in told.text


def test_as_many_cables_as_services_have_one_each() -> None:
    assert _seen(house(cables=3))[1] is None
    assert _seen(house(cables=2, television=False))[1] is None
    _, two = _seen(house(cables=2))
    assert two is not None and "only OC-1, OC-2 lie there" in two.text


def test_plain_switches_at_the_ends_are_changed_not_added() -> None:
    catalogue = load_catalogue()
    plain = next(m for m in catalogue.sold_switches if not m.managed)
    after = _cure(house(), 0)
    far = next(s for s in after.of(Switch).values() if s.equipment_room != "rack")
    plainly = apply(after, [put(far.model_copy(update={"model": plain.id}))])
    _, finding = _seen(plainly)
    assert finding is not None and finding.severity == "not_met"
    assert "a switch that tells networks apart at Router shelf" in finding.text
    paid = catalogue.switches[far.model].price - catalogue.switches[plain.id].price
    assert f"{paid:+g} EUR for its switch" in finding.cures[0].effect
    mended = apply(plainly, finding.cures[0].changes)
    assert len(mended.of(Switch)) == len(after.of(Switch))
    _, note = _seen(mended)
    assert note is not None and note.severity == "note"


@pytest.mark.parametrize(
    ("tested", "category", "advice", "verdict"),
    [(1000, None, "keep", "met"), (100, "6", "retire", "not_met"), (None, None, "test_first", "met")],
)
def test_an_old_cable_counts_for_what_it_tests_at(
    tested: int | None, category: str | None, advice: str, verdict: str
) -> None:
    design = house(tested=tested, television=False)
    cable = design.of(OldCable)["old-1"].model_copy(update={"category": category, "condition": "untested"})
    evaluation, _ = _seen(apply(design, [put(cable)]))
    (found,) = [f for f in evaluation.brief.found if f.kind == "old_cable"]
    assert found.advice == advice
    (run,) = [r for r in evaluation.runs if r.device == "router"]
    assert run.verdict == verdict
    if tested is not None:
        assert f"tests at {speed(tested)}" in found.reason and f"tests at {speed(tested)}" in run.reason


def test_a_test_outranks_length_and_print() -> None:
    assert check_tested(1000, 1000, 140.0).verdict == "met"
    assert check_tested(100, 1000, 10.0).verdict == "not_met"


def test_a_plain_switch_that_was_found_goes_and_another_comes() -> None:
    catalogue = load_catalogue()
    after = _cure(house(), 0)
    far = next(s for s in after.of(Switch).values() if s.equipment_room != "rack")
    old = next(m for m in catalogue.switches.values() if m.old and not m.managed)
    kept = apply(after, [put(far.model_copy(update={"model": old.id, "state": "keep"}))])
    mended = _cure(kept, 0)
    there = [s for s in mended.of(Switch).values() if s.equipment_room == far.equipment_room]
    assert {(s.id == far.id, s.state) for s in there} == {(True, "retire"), (False, "new")}
    _, note = _seen(mended)
    assert note is not None and note.severity == "note"


def test_a_cable_to_another_rack_than_the_lines_is_not_the_lines() -> None:
    elsewhere = EquipmentRoom(id="second", floor="f", name="Loft rack", at=(2.0, 18.0))
    design = house(elsewhere)
    cable = design.of(OldCable)["old-1"].model_copy(update={"a": (2.0, 18.0)})
    assert _seen(apply(design, [put(cable)]))[1] is None


@pytest.mark.parametrize(
    ("category", "verdict", "bought"), [("5e", "met", 0.0), ("6A", "met", 0.0), ("5", "test_first", 0.0)]
)
def test_between_racks_a_print_is_judged_where_nothing_was_tested(
    category: str, verdict: str, bought: float
) -> None:
    """1 Gb/s is asked of what lies there: category 5 must be tested first (TIA TSB-95)."""
    after = _cure(house(), 0)
    cable = after.of(OldCable)["old-1"].model_copy(update={"category": category, "tested_mbps": None})
    (up,) = _seen(apply(after, [put(cable)]))[0].uplinks
    assert (up.category, up.verdict, up.bought_m, up.chosen_by) == (category, verdict, bought, "found")
    gone = cable.model_copy(update={"state": "retire"})
    (fresh,) = _seen(apply(after, [put(gone)]))[0].uplinks
    assert fresh.chosen_by == "plan" and fresh.bought_m > 0


def test_the_settings_that_go_out_have_what_shares_the_cable() -> None:
    document = yaml.safe_load(write_yaml("Rowan Cottage", Plan(_cure(house(), 0), load_catalogue())))
    services = {row["service"]: row["vlan"] for row in document["services"]}
    assert services == {"line": 902, "television": 903}  # 901 is the guests'
    ways = [p for p in document["ports"] if p["reason"].startswith("uplink")]
    assert len(ways) == 2 and all({902, 903} <= set(p["tagged_vlans"]) for p in ways)


@given(st.lists(st.sampled_from(["line", "back_haul", "television"]), min_size=1, max_size=3, unique=True))
def test_services_are_told_as_one_says_them(services: list[Service]) -> None:
    told = said(services)
    assert told.count(" and ") == (len(services) > 1) and told.count(",") == max(0, len(services) - 2)
    assert all(SAID[service] in told for service in services)
