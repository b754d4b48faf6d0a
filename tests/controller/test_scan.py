"""A scan of the neighbourhood: when it is, whom it takes off, and what of it comes into the plan."""

from __future__ import annotations

import calendar
from collections.abc import Sequence
from datetime import datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from bench.bring_ups import Installer
from heathrise.controller.adapter import ControllerError
from heathrise.controller.scan import hanging_on, scan_points, scan_view, seconds_to_quiet
from heathrise.controller.view import controller_view
from heathrise.controller.work import read
from heathrise.core.context.clock import DAYS, next_time
from heathrise.core.context.plan import Plan
from heathrise.core.design import Device, Neighbour, Put, WirelessName
from heathrise.core.views.managed import tree_of
from heathrise.core.views.scanned import HeardRadio, scan_offer
from heathrise.standins.controller.planting import planted, serial_of

from .conftest import StandIn


@given(
    st.datetimes(datetime(2020, 1, 1), datetime(2030, 1, 1)),
    st.integers(0, 23),
    st.integers(0, 59),
    st.none() | st.sampled_from(DAYS),
)
def test_the_next_quiet_hour_is_found_by_counting_minutes(
    now: datetime, hour: int, minute: int, day: str | None
) -> None:
    found = next_time(now, f"{hour:02}:{minute:02}", day)
    at = now.replace(second=0, microsecond=0)
    while True:
        named = calendar.day_name[at.weekday()].lower()
        if (at.hour, at.minute) == (hour, minute) and day in (None, named):
            break
        at += timedelta(minutes=1)
    assert found == at


def _up(plan: Plan, site: str, standin: StandIn) -> None:
    standin.place.forget(site)
    standin.place.plug_in(site, [r.model_dump() for r in planted(plan, site)], 1, 0)
    found = Installer(plan, site, standin.place, standin.sites).work()
    assert found.done == found.of


def test_a_scan_waits_takes_clients_off_and_is_taken_into_the_plan(
    plans: list[Plan], standin: StandIn
) -> None:
    plan, site = plans[3], "scanned"
    _up(plan, site, standin)
    controller = standin.controller(site)
    seen = read(controller, tree_of(plan), {})
    points = scan_points(plan, seen)
    assert sorted(points) == sorted(r.id for r in tree_of(plan).rows.values() if r.kind == "access_point")
    wait_s = seconds_to_quiet(plan, seen)
    assert wait_s is not None and seen.about.local is not None
    quiet = (seen.about.local + timedelta(seconds=wait_s)).strftime("%H:%M")
    assert quiet == plan.drawn.site.quiet_hour
    before = scan_view(plan, seen, controller.scan(), controller.measured())
    assert before.state == "none" and before.clients == len(controller.measured().clients) > 0

    controller.begin_scan([seen.matched[k] for k in points], wait_s)
    with pytest.raises(ControllerError, match="take it back, or wait"):
        controller.begin_scan([seen.matched[k] for k in points], 0)
    waits = scan_view(plan, seen, controller.scan(), controller.measured())
    assert waits.state == "waits" and waits.begins is not None and waits.clients > 0
    assert waits.begins.strftime("%H:%M") == quiet
    standin.wait(site, wait_s + 1)
    now = read(controller, tree_of(plan), {})
    assert {g.stand for g in now.gear.values() if g.serial in controller.scan().serials} == {"scanning"}
    assert controller.measured().clients == [] and not scan_points(plan, now)
    with pytest.raises(ControllerError, match="it is scanning; try again once it is online"):
        controller.send(f"device/{seen.matched[points[0]]}", {"label": "x"})
    with pytest.raises(ControllerError, match="no scan waits"):
        controller.drop_scan()
    standin.wait(site, controller.scan().takes_s)

    seen = read(controller, tree_of(plan), {})
    over = scan_view(plan, seen, controller.scan(), controller.measured())
    assert over.state == "over" and over.strangers and over.offer.fresh
    after = plan.after(over.offer.changes)
    rows = list(after.drawn.of(Neighbour).values())
    loudest = {(s.address, s.band): s.dbm for s in over.strangers}
    for one in controller.scan().heard:
        assert one.dbm <= loudest[one.bssid, one.band]
        device = next(k for k, s in seen.matched.items() if s == one.serial)
        at = plan.drawn.of(Device)[device].at
        assert any(r.at == at and r.channel == one.channel and r.level_dbm >= round(one.dbm) for r in rows)
    again = scan_view(after, seen, controller.scan(), controller.measured())
    assert not again.offer.changes and not again.offer.moves


def test_what_hangs_on_a_listener_over_the_air_is_off_with_it(plans: list[Plan], standin: StandIn) -> None:
    plan, site = plans[2], "scanned-mesh"
    _up(plan, site, standin)
    controller = standin.controller(site)
    seen = read(controller, tree_of(plan), {})
    air = [r for r in tree_of(plan).rows.values() if r.over_air and r.managed]
    assert air
    parents = [r.parent for r in air if r.parent is not None]
    named = hanging_on(plan, parents)
    assert {r.name for r in air if r.id not in parents} <= set(named)
    controller.begin_scan([seen.matched[k] for k in parents], 0)
    stands = {k: read(controller, tree_of(plan), {}).gear[s].stand for k, s in seen.matched.items()}
    off = {tree_of(plan).rows[k].name for k, stand in stands.items() if stand == "offline"}
    assert off == {n for n in named if n in {tree_of(plan).rows[k].name for k in seen.matched}}
    standin.wait(site, 241)
    assert {g.stand for g in controller.gear()} == {"online"}


def test_one_that_hangs_on_another_than_planned_is_known_and_told(
    plans: list[Plan], standin: StandIn
) -> None:
    plan, site = plans[2], "astray"
    standin.place.forget(site)
    standin.place.plug_in(site, [r.model_dump() for r in planted(plan, site)], 1, 0)
    tree = tree_of(plan)
    row = next(r for r in tree.rows.values() if r.over_air and r.managed)
    standin.sites.of(site).fault(serial_of(site, row.id), "strays")
    installer = Installer(plan, site, standin.place, standin.sites)
    found = installer.work()
    assert found.done == found.of
    seen, _ = installer.look()
    assert seen.matched[row.id] == serial_of(site, row.id)
    told = {d.id: d.elsewhere for d in controller_view(plan, seen, (), True).devices}
    by_serial = {s: k for k, s in seen.matched.items()}
    on = tree.rows[by_serial[seen.gear[seen.matched[row.id]].parent or ""]].name
    assert row.parent is not None
    assert told.pop(row.id) == f"hangs on {on}, planned on {tree.rows[row.parent].name}"
    assert set(told.values()) == {""}
    with pytest.raises(ControllerError):
        standin.controller(site).begin_scan(["nobody"], 0)


def test_a_cable_in_another_port_is_told(plans: list[Plan], standin: StandIn) -> None:
    plan, site = plans[3], "misplugged"
    tree = tree_of(plan)
    row = next(r for r in tree.rows.values() if r.kind == "access_point" and r.port and r.managed)
    rows = [r.model_dump() for r in planted(plan, site)]
    next(r for r in rows if r["serial"] == serial_of(site, row.id))["port"] = 97
    standin.place.forget(site)
    standin.place.plug_in(site, rows, 1, 0)
    said = {row.id: serial_of(site, row.id)}
    seen = read(standin.controller(site), tree, said)
    told = next(d.elsewhere for d in controller_view(plan, seen, (), True).devices if d.id == row.id)
    above = tree.rows[row.parent or ""].name
    assert told == f"is plugged into {above}, port 97; planned on {above} at port {row.port}"


_LEVELS = st.floats(-95, -40).map(lambda v: round(v, 1))
_HEARD = st.lists(
    st.builds(
        HeardRadio,
        device=st.sampled_from(["first", "second", "gone"]),
        name=st.sampled_from(["", "Heron", " Heron ", "Bramble"]),
        address=st.sampled_from(["06:00:00:00:00:01", "06:00:00:00:00:02"]),
        band=st.just("5"),
        channel=st.sampled_from([36, 44]),
        width_mhz=st.sampled_from([20, 40, 80, 160, 320]),
        dbm=_LEVELS,
    ),
    max_size=8,
)


@given(_HEARD, _HEARD)
def test_neighbours_are_those_heard_last_each_once_at_its_loudest(
    plans: list[Plan], before: list[HeardRadio], now: list[HeardRadio]
) -> None:
    plan = plans[3]
    ids = list(plan.drawn.of(Device))[:2]
    spots = dict(zip(["first", "second"], ids, strict=True))

    def placed(rows: Sequence[HeardRadio]) -> list[HeardRadio]:
        return [HeardRadio(**{**r.__dict__, "device": spots.get(r.device, "nowhere")}) for r in rows]

    first = plan.after(scan_offer(plan, placed(before), ids).changes)
    offer = scan_offer(first, placed(now), ids)
    after = first.after(offer.changes)
    wanted: dict[tuple[str, str, int], float] = {}
    for r in placed(now):
        if r.device == "nowhere":
            continue
        name = r.name.strip() or f"Hidden {r.address[-5:]}"
        key = (r.device, name, r.channel)
        wanted[key] = max(wanted.get(key, -200.0), r.dbm)
    at = {plan.drawn.of(Device)[k].at: k for k in ids}
    rows = [r for r in after.drawn.of(Neighbour).values() if r.at in at and r.band == "5"]
    held = {(at[r.at], r.name, r.channel): r.level_dbm for r in rows}
    kept = [r for r in plan.drawn.of(Neighbour).values() if r.at in at and r.band == "5"]
    assert not kept and len(held) == len(rows)
    assert held == {k: float(round(v)) for k, v in wanted.items()}
    assert offer.fresh == sum(isinstance(c, Put) for c in offer.changes) - offer.again
    assert all(r.width_mhz <= 160 for r in rows)


def test_a_stranger_that_sends_a_name_of_ours_stands_out(plans: list[Plan], standin: StandIn) -> None:
    plan, site = plans[3], "twin"
    _up(plan, site, standin)
    name = next(iter(plan.design.of(WirelessName).values())).ssid
    with standin.sites.lock:
        gear = next(g for g in standin.sites.of(site).state.gear.values() if g.planted.near)
        loud = gear.planted.near[0].model_copy(update={"name": name, "dbm": -40.0})
        near = [loud, *gear.planted.near[1:]]
        gear.planted = gear.planted.model_copy(update={"near": near})
    controller = standin.controller(site)
    controller.begin_scan([gear.planted.serial], 0)
    standin.wait(site, 241)
    seen = read(controller, tree_of(plan), {})
    view = scan_view(plan, seen, controller.scan(), controller.measured())
    assert [s.name for s in view.strangers if s.ours] == [name]
    assert view.strangers[0].ours and view.strangers[0].heard_by == 1
