"""The brief by hand, and against a slow, plain reference on random sites."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.context.scope import as_planned, as_today
from heathrise.core.design import (
    ClientGroup,
    Complaint,
    Design,
    DesignError,
    Device,
    EquipmentRoom,
    Network,
    OldCable,
    Site,
    Space,
    State,
    Switch,
    Underlay,
    WirelessName,
    Zone,
    apply,
    put,
)
from heathrise.core.evaluation.evaluate import Evaluation, evaluate
from heathrise.core.signal import air_of, readings_at
from heathrise.core.views.bill_of_materials import order_of

from ..thorough import examples
from .plans import access_point, design_of, rack, shell


def _site(**more: object) -> Site:
    return Site.model_validate({"id": "site", **more})


def _pain(kind: str, at: tuple[float, float] = (4.0, 4.0)) -> Complaint:
    return Complaint.model_validate(
        {"id": "pain-1", "floor": "f", "kind": kind, "at": at, "words": "it fails"}
    )


def _found(model: str, state: State, at: tuple[float, float] = (18.0, 13.0)) -> Device:
    return access_point(*at, "old-1", model).model_copy(update={"state": state})


def _figures(design: Design, catalogue: Catalogue) -> Evaluation:
    return evaluate(Plan(design, catalogue))


def test_a_dead_spot_is_mended_better_or_not_addressed(catalogue: Catalogue) -> None:
    bare = design_of(*shell(), _pain("dead"))
    assert _figures(bare, catalogue).brief.pains[0].outcome == "not_addressed"
    served = apply(bare, [put(access_point(4, 5, "ap-1"))])
    row = _figures(served, catalogue).brief.pains[0]
    assert row.outcome == "mended" and row.today == "no gear of today is drawn"
    heard = readings_at(air_of(served, catalogue), "f", 4.0, 4.0)
    best = max(min(r.downlink_dbm, r.uplink_dbm) for r in heard if r.band == "5")
    assert row.planned_dbm == pytest.approx(best, abs=0.11)
    # A metal box round the mark: louder than nothing by far, and still short of the target.
    far = apply(
        design_of(*shell(), _pain("dead", (19.0, 14.0)), _found("old-router", "retire", (1, 1))),
        [put(access_point(1, 1, "ap-1"))],
    )
    today = _figures(far, catalogue).brief.pains[0]
    assert today.today_dbm is None  # the old router has no 5 GHz


def test_today_and_planned_are_told_apart_by_what_becomes_of_gear(catalogue: Catalogue) -> None:
    design = design_of(
        *shell(),
        rack(1, 1),
        access_point(4, 4, "ap-1"),
        _found("old-router-ac", "retire", (4.5, 4.5)),
        Switch(id="sw", equipment_room="rack", name="SW", model="dunthrip-s8"),
        Switch(id="old", equipment_room="rack", name="Old", model="old-switch-100", state="retire"),
        _pain("dead"),
    )
    assert set(as_planned(design).of(Device)) == {"ap-1"}
    assert set(as_today(design).of(Device)) == {"old-1"}
    assert set(as_planned(design).of(Switch)) == {"sw"}
    made = _figures(design, catalogue)
    assert {r.device for r in made.runs} == {"ap-1"}
    assert {s.switch for s in made.power.switches} == {"sw"}
    assert made.brief.pains[0].today_dbm is not None
    # What nothing goes from is the same object, so that what is known of it holds.
    plain = design_of(*shell(), access_point(4, 4, "ap-1"))
    assert as_planned(plain) is plain
    assert as_planned(design).of(Device) is as_planned(apply(design, [])).of(Device)


def test_kept_gear_takes_part_and_costs_nothing(catalogue: Catalogue) -> None:
    without = design_of(*shell(), rack(1, 1), access_point(4, 4, "ap-1"))
    kept = apply(without, [put(_found("old-ceiling-passive", "keep"))])
    before, after = _figures(without, catalogue), _figures(kept, catalogue)
    assert after.totals.access_points == before.totals.access_points + 1
    assert {r.device for r in after.runs} == {"ap-1", "old-1"}
    assert (after.rooms[0].share or 0) >= (before.rooms[0].share or 0)
    gear = [
        {k.item for k in order_of(Plan(d, catalogue)).lines if k.group == "gear"} for d in (without, kept)
    ]
    assert gear[0] == gear[1]


@pytest.mark.parametrize(
    ("model", "line", "advice", "words"),
    [
        ("old-open-box", 60, "retire", "its security is broken"),
        ("old-repeater", 60, "retire", "repeater: serves no room"),  # there is nothing to repeat
        ("old-router-ac", 2000, "retire", "narrowest link: 1000 Mb/s on a line of 2000 Mb/s"),
        ("old-router", 60, "retire", "gets no updates any more"),
        ("old-router-ac", 60, "keep", "1000 Mb/s on a line of 60 Mb/s"),
        ("old-ceiling-passive", 60, "keep", "only on its own passive injector"),
    ],
)
def test_the_gravest_reason_is_given(
    catalogue: Catalogue, model: str, line: float, advice: str, words: str
) -> None:
    design = design_of(*shell(), _found(model, "unknown"), _site(line_mbps=line))
    row = _figures(design, catalogue).brief.found[0]
    assert row.advice == advice and row.reason.startswith(words)


def test_a_repeater_is_told_by_the_rooms_that_it_serves(catalogue: Catalogue) -> None:
    """The router stands in the corner, the repeater nearer to the middle of the one room."""
    router = _found("old-router", "unknown").model_copy(update={"id": "old-2", "at": (1.0, 1.0)})
    repeater = _found("old-repeater", "unknown").model_copy(update={"at": (9.0, 9.0)})
    design = design_of(*shell(), repeater, router, _site(line_mbps=60))
    row = next(r for r in _figures(design, catalogue).brief.found if r.id == "old-1")
    assert row.reason.startswith("repeater: halves the air for 1 room")


def test_an_old_switch_is_kept_on_a_slow_line_unless_there_is_storage(catalogue: Catalogue) -> None:
    old = Switch(id="o", equipment_room="rack", name="O", model="old-switch-100", state="unknown")
    design = design_of(*shell(), rack(1, 1), old, _site(line_mbps=60))
    row = _figures(design, catalogue).brief.found[0]
    assert (row.advice, row.reason) == ("keep", "100 Mb/s on a line of 60 Mb/s")
    room = next(iter(design.of(Space)))
    store = apply(design, [put(ClientGroup(id="g", space=room, kind="storage"))])
    row = _figures(store, catalogue).brief.found[0]
    assert row.advice == "retire" and "200 Mb/s to storage" in row.reason


def test_a_kept_cable_is_the_run_of_what_it_ends_at(catalogue: Catalogue) -> None:
    cable = OldCable(
        id="c",
        floor="f",
        name="Grey",
        a=(1.0, 1.0),
        b=(4.0, 4.5),
        category="5e",
        condition="good",
        state="keep",
    )
    bare = design_of(*shell(), rack(1, 1), access_point(4, 4, "ap-1"))
    found = _figures(apply(bare, [put(cable)]), catalogue)
    run, before = found.runs[0], _figures(bare, catalogue).runs[0]
    assert (run.category, run.cables, run.chosen_by, run.bought_m) == ("5e", 1, "found", 0.0)
    assert before.chosen_by == "plan" and before.bought_m > 0
    assert found.brief.found[0].serves == "ap-1" and found.brief.found[0].advice == "keep"
    away = cable.model_copy(update={"b": (9.0, 9.0)})
    assert _figures(apply(bare, [put(away)]), catalogue).runs[0].chosen_by == "plan"


@pytest.mark.parametrize(
    ("category", "condition", "far", "advice"),
    [
        (None, "good", 20, "test_first"),
        ("5e", "untested", 20, "test_first"),
        ("5e", "good", 20, "keep"),
        ("5e", "good", 140, "retire"),
        ("5", "good", 20, "test_first"),
        ("6", "damaged", 20, "retire"),
    ],
)
def test_a_cable_goes_by_its_test_not_by_its_print(
    catalogue: Catalogue, category: str | None, condition: str, far: float, advice: str
) -> None:
    row = {"id": "c", "floor": "f", "name": "C", "a": (0, 0), "b": (far, 0)}
    cable = OldCable.model_validate({**row, "category": category, "condition": condition})
    assert _figures(design_of(*shell(), cable), catalogue).brief.found[0].advice == advice


def test_a_wish_is_met_by_an_outlet_with_a_run_and_by_nothing_else(catalogue: Catalogue) -> None:
    room = "room"
    base = design_of(*shell(), ClientGroup(id="g", space=room, kind="console", count=2, wired=2))
    outlet = Device(
        id="out-1",
        floor="f",
        kind="outlet",
        model="outlet-single",
        name="O",
        at=(1.0, 4.0),
        height_m=0.3,
        mount="wall",
    )

    def given(design: Design) -> tuple[int, int]:
        row = _figures(design, catalogue).brief.wishes[0]
        return row.wanted, row.given

    assert given(base) == (2, 0)
    no_rack = apply(base, [put(outlet)])
    assert given(no_rack) == (2, 0)  # no run leads there
    assert given(apply(no_rack, [put(rack(1, 1))])) == (2, 1)
    finding = next(f for f in _figures(base, catalogue).findings if f.id == f"brief-wire-{room}")
    mended = apply(apply(base, [put(rack(1, 1))]), finding.cures[0].changes)
    check(mended, catalogue)
    assert given(mended) == (2, 2)


def test_what_comes_later_takes_ports_watts_and_cable(catalogue: Catalogue) -> None:
    square = ((10.0, 5.0), (14.0, 5.0), (14.0, 9.0), (10.0, 9.0))
    zone = Zone(
        id="z", floor="f", kind="later", name="Wing", outline=square, access_points=2, outlets=3, cameras=1
    )
    design = design_of(*shell(), rack(1, 1), zone)
    row = _figures(design, catalogue).brief.reserves[0]
    # Two of class 4 at 30 W and one of class 3 at 15.4 W.
    assert (row.ports, row.powered, row.watts) == (6, 3, pytest.approx(75.4))
    at = design.of(EquipmentRoom)["rack"].at
    each = 1.4 * math.dist(at, (12.0, 7.0)) + 6.0
    assert row.cables == 6 and row.cable_m == pytest.approx(6 * each, abs=0.1)
    assert row.verdict == "not_met" and row.lacks == "6 ports, 3 powered ports, 75.4 W"
    finding = next(f for f in _figures(design, catalogue).findings if f.id == "brief-later-z")
    after = _figures(apply(design, finding.cures[0].changes), catalogue)
    assert after.brief.reserves[0].verdict == "met"
    assert not [f for f in after.findings if f.id == "brief-later-z"]


def test_a_name_for_old_devices_mends_what_one_device_fails_at(catalogue: Catalogue) -> None:
    design = design_of(*shell(), access_point(4, 5, "ap-1"), _pain("one_device"))
    assert _figures(design, catalogue).brief.pains[0].outcome == "better"
    name = {"id": "s", "network": "n", "ssid": "Things", "bands": ("2.4",), "security": "wpa2"}
    joined = WirelessName.model_validate({**name, "fast_transition": False})
    network = Network(id="n", name="Things", purpose="devices", vlan=30, subnet="10.0.3.0/24")
    after = apply(design, [put(network), put(joined)])
    assert _figures(after, catalogue).brief.pains[0].outcome == "mended"


def test_facts_that_contradict_each_other_are_said(catalogue: Catalogue) -> None:
    facts = _site(quiet_hour="12:00", start_on="2026-11-20", due_on="2026-11-16")
    ids = {f.id: f for f in _figures(design_of(*shell(), facts), catalogue).findings}
    assert {"brief-quiet", "brief-dates"} <= set(ids)
    mended = apply(design_of(*shell(), facts), ids["brief-quiet"].cures[0].changes)
    assert "brief-quiet" not in {f.id for f in _figures(mended, catalogue).findings}
    open_all_day = _site(opens="00:00", closes="00:00", quiet_hour="12:00")
    night = _figures(design_of(*shell(), open_all_day), catalogue)
    assert "brief-quiet" not in {f.id for f in night.findings}


def test_a_former_kind_of_site_is_still_read() -> None:
    assert _site(kind="business").kind == "office"


def test_what_cannot_hold_is_refused(catalogue: Catalogue) -> None:
    plan = {
        "id": "u",
        "floor": "f",
        "picture": "p",
        "name": "Plan",
        "width_px": 10,
        "height_px": 10,
        "metres_per_px": 0.1,
        "at": (0, 0),
    }
    for wrong in (
        [ClientGroup(id="g", space="room", kind="phone", count=1, wired=2)],
        [ClientGroup(id="g", space="room", kind="ghost")],
        [_site(client="television")],
        [Underlay.model_validate({**plan, "crop": (0.6, 0, 0.4, 0)})],
        [Underlay.model_validate(plan), Underlay.model_validate({**plan, "id": "v"})],
    ):
        with pytest.raises(DesignError):
            check(design_of(*shell(), *wrong), catalogue)


# -- against a plain reference ---------------------------------------------------------------------


def _plain_outcome(design: Design, catalogue: Catalogue) -> str:
    """Say what becomes of a dead spot, from one reading at a time."""
    pain = next(iter(design.of(Complaint).values()))
    table = catalogue.rules.table("signal.targets.calls")
    target, margin = table["first_dbm"], design.site.margin_db

    def level(states: tuple[str, ...]) -> float:
        rows = {k: d for k, d in design.of(Device).items() if d.state in states}
        part = Design({**design.tables, "device": rows})
        heard = readings_at(air_of(part, catalogue), pain.floor, *pain.at)
        return max((min(r.downlink_dbm, r.uplink_dbm) for r in heard if r.band == "5"), default=-math.inf)

    def step(dbm: float) -> int:
        return (dbm >= target) + (dbm >= target + margin)

    then, now = level(("new", "keep")), level(("keep", "retire", "unknown"))
    if step(then) == 2:
        return "mended"
    found = any(d.state != "new" for d in design.of(Device).values())
    if not found:
        return "better" if step(then) == 1 else "not_addressed"
    gained = then > -math.inf and then - now >= 3
    return "better" if step(then) > step(now) or gained else "not_addressed"


_ap = st.tuples(
    st.floats(0.5, 19.5),
    st.floats(0.5, 14.5),
    st.sampled_from(["ravelmoor-c2", "old-router-ac", "old-router"]),
    st.sampled_from(["new", "keep", "retire", "unknown"]),
)


@examples(30)
@given(
    st.lists(_ap, max_size=4),
    st.tuples(st.floats(0.5, 19.5), st.floats(0.5, 14.5)),
    st.sampled_from([0.0, 3.0, 20.0]),
)
def test_outcomes_agree_with_single_readings(
    catalogue: Catalogue,
    points: list[tuple[float, float, str, State]],
    at: tuple[float, float],
    margin: float,
) -> None:
    devices = [
        access_point(x, y, f"ap-{k}", model).model_copy(update={"state": state})
        for k, (x, y, model, state) in enumerate(points)
    ]
    design = design_of(*shell(), *devices, _pain("dead", at), _site(margin_db=margin))
    seen = _figures(design, catalogue).brief.pains[0]
    wanted = _plain_outcome(design, catalogue)
    near_edge = seen.planned_dbm is not None and any(
        abs(seen.planned_dbm - edge) < 0.11 for edge in _edges(catalogue, margin, seen.today_dbm)
    )
    assert near_edge or seen.outcome == wanted


def _edges(catalogue: Catalogue, margin: float, today: float | None) -> list[float]:
    target = catalogue.rules["signal.targets.calls.first_dbm"]
    return [target, target + margin, *([] if today is None else [today + 3])]
