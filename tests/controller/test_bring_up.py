"""Sites brought up by their list against seeded faults; pushes that are stopped, undone, refused, lied about."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import count as numbers

import pytest

from bench.bring_ups import Installer, brought_up, outcome
from heathrise.controller import Controller, ControllerError, Value
from heathrise.controller.bring_up import bring_up, steps_data, ticks
from heathrise.controller.contract import About
from heathrise.controller.view import controller_view, hanging, measurement
from heathrise.controller.work import PushRun, Seen, read
from heathrise.core.base.progress import always
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.controlled import Differs, PushStep
from heathrise.core.design import put
from heathrise.core.records import speeds_as_seen
from heathrise.core.views.managed import tree_of, wanted_of
from heathrise.core.views.push import differing, push_plan, taken_over
from heathrise.core.views.speeds import planned_speeds
from heathrise.demo import SITES, music_school
from heathrise.standins.controller.gear import FAULTS, Fault
from heathrise.standins.controller.planting import planted, serial_of
from heathrise.standins.controller.site import Refused, SimulatedSite

from ..thorough import count
from .conftest import StandIn

_ids = numbers()


@pytest.fixture
def school(plans: list[Plan], standin: StandIn) -> Iterator[Installer]:
    """The school's gear plugged in, adopted, and as it is planned."""
    site = f"school-{next(_ids)}"
    standin.place.plug_in(site, [r.model_dump() for r in planted(plans[0], site)], 1, 0)
    installer = Installer(plans[0], site, standin.place, standin.sites)
    found = installer.work()
    assert found.done == found.of
    yield installer
    standin.place.forget(site)


@pytest.mark.parametrize("seed", range(count(200, 50)))
def test_a_site_ends_as_planned_or_stopped_by_name(plans: list[Plan], standin: StandIn, seed: int) -> None:
    plan = plans[3 if seed % 8 else seed // 8 % 4]  # mostly the small one
    installer, found = brought_up(plan, seed, standin.base, standin.sites)
    ended = outcome(installer, found)
    assert ended == "as planned" or (ended == "by name" and not installer.careful), found.blocked
    for step in found.steps:
        for item in step.items:
            assert item.state == "done" or item.words or item.does == "tick"
    standin.place.forget(installer.site)


@pytest.mark.parametrize("fault", [f for f in FAULTS if f != "strays"])
def test_each_fault_is_named_and_got_over(plans: list[Plan], standin: StandIn, fault: Fault) -> None:
    plan, site = plans[3], f"fault-{fault.replace('_', '-')}"
    standin.place.plug_in(site, [r.model_dump() for r in planted(plan, site)], 1, 0)
    point = next(r for r in tree_of(plan).rows.values() if r.kind == "access_point" and r.parent)
    standin.sites.of(site).fault(serial_of(site, point.id), fault)
    careless = Installer(plan, site, standin.place, standin.sites, careful=False)
    found = careless.work()
    if fault == "held_elsewhere":
        assert any("held by another controller: have it released there" in w for w in found.blocked)
        found = Installer(plan, site, standin.place, standin.sites).work()
    assert found.done == found.of and not found.blocked
    wrong = [w for _, outcome, w in careless.done if outcome != "done"]
    said = {"refuses": "does not know the setting", "lies": "says that it took", "deaf": ""}.get(fault)
    if said:
        assert any(said in w for w in wrong), wrong
    standin.place.forget(site)


def test_a_wrong_order_is_held_back_and_says_why(plans: list[Plan], standin: StandIn) -> None:
    plan, site = plans[2], "wrong-order"  # where an access point hangs on another over the air
    standin.place.plug_in(site, [r.model_dump() for r in planted(plan, site)], 1, 0)
    controller = standin.controller(site)
    found = bring_up(plan, read(controller, tree_of(plan), {}))
    items = {i.id: i for s in found.steps for i in s.items}
    adopts = [i for key, i in items.items() if key.startswith("adopt-")]
    assert {i.words for i in adopts} == {"the controller first (step 3)"} and not any(i.does for i in adopts)
    gear = controller.gear()
    with pytest.raises(ControllerError, match="update the controller first"):
        controller.adopt(gear[0].serial)
    with pytest.raises(ControllerError, match="try again once it is online"):
        controller.update(gear[0].serial)
    installer = Installer(plan, site, standin.place, standin.sites)
    while controller.about().offers or controller.about().updating:
        if controller.about().offers:
            controller.update_itself()
        installer.wait()
    _, found = installer.look()
    items = {i.id: i for s in found.steps for i in s.items}
    air = [r for r in tree_of(plan).rows.values() if r.over_air and r.managed]
    assert air and all("wired ones first" in items[f"adopt-{r.id}"].words for r in air)
    assert all(items[f"update-{r.id}"].words == "once it is adopted" for r in air)
    assert [s.number for s in found.steps] == list(range(1, 15)) == list(range(1, len(steps_data()) + 1))
    assert all(s.title and s.why for s in found.steps) and "door" in found.steps[1].caution


def test_a_push_is_stopped_goes_on_and_is_undone(school: Installer) -> None:
    plan, controller = school.plan, school.controller
    names = [n for n in wanted_of(plan) if n.startswith("name/")]
    before = controller.held().held
    site = plan.drawn.site.model_copy(update={"width_5ghz_mhz": 20})
    other = plan.after([put(site)])
    seen, _ = school.look()
    steps = push_plan(other, seen.held, differing(other, seen.held, seen.matched))
    assert len(steps) > 5 and names
    run = PushRun(controller, seen.matched, pause=lambda _: school.wait(3.0))
    half = run.run(steps, lambda done, _: done < 3)
    assert [o for _, o, _ in half] == ["done"] * 3 + ["stopped"] * (len(steps) - 3)
    seen, _ = school.look()
    rest = push_plan(other, seen.held, differing(other, seen.held, seen.matched))
    assert [s.target for s in rest] == [s.target for s in steps[3:]]  # it goes on where it stopped
    assert {o for _, o, _ in run.run(rest, always)} == {"done"}
    seen, _ = school.look()
    back = push_plan(plan, seen.held, differing(plan, seen.held, seen.matched))
    assert {o for _, o, _ in run.run(back, always)} == {"done"} and controller.held().held == before


def test_what_would_cut_off_is_not_sent_unless_it_is_said(school: Installer) -> None:
    tree, controller = tree_of(school.plan), school.controller
    point = next(r for r in tree.rows.values() if r.kind == "access_point" and r.parent and r.fed)
    seen, _ = school.look()
    key = f"port.{point.port}.power"
    off = Differs(target=f"device/{point.parent}", key=key, held=True, wanted=False)
    steps = push_plan(school.plan, seen.held, [off])
    assert point.id in steps[0].cuts
    quiet = PushRun(controller, seen.matched, pause=lambda _: school.wait(3.0))
    assert [o for _, o, _ in quiet.run(steps, always)] == ["dangerous"]
    loud = PushRun(controller, seen.matched, even_so=True, pause=lambda _: school.wait(3.0))
    (row,) = loud.run(steps, always)
    seen, found = school.look()
    assert row[1] == "done" and seen.gear[seen.matched[point.id]].stand == "offline"
    (item,) = [i for s in found.steps for i in s.items if i.id == f"update-{point.id}"]
    assert item.state == "waits" and "lost its power" in item.words


def test_a_setting_of_its_own_uplink_cuts_a_device_off_and_that_is_named(
    plans: list[Plan], standin: StandIn
) -> None:
    """Somebody switches the port off that a switch hangs on: pushed even so, the push stops and says it."""
    plan, site = plans[2], "own-uplink"
    standin.place.plug_in(site, [r.model_dump() for r in planted(plan, site)], 1, 0)
    installer = Installer(plan, site, standin.place, standin.sites)
    installer.work()
    tree = tree_of(plan)
    switch = next(
        r for r in tree.rows.values() if r.kind == "switch" and r.parent and r.own_port and r.managed
    )
    seen, _ = installer.look()
    steps = push_plan(
        plan,
        seen.held,
        [Differs(target=f"device/{switch.id}", key=f"port.{switch.own_port}.on", wanted=False)],
    )
    below = {k for k in tree.rows if switch.id in tree.up(k) and tree.rows[k].managed}
    assert below and set(steps[0].cuts) == below
    run = PushRun(installer.controller, seen.matched, even_so=True, pause=lambda _: installer.wait(3.0))
    extra = PushStep(number=2, target="site", name="The site", phase="add", changes=())
    rows = run.run([*steps, extra], always)
    seen, found = installer.look()
    stands = {k: seen.gear[seen.matched[k]].stand for k in below if k in seen.matched}
    assert set(stands.values()) == {"cut_off"} and rows[0][1] == "done"
    assert any("set the port right" in words for words in found.blocked)


def test_drift_is_seen_taken_over_or_put_back(school: Installer) -> None:
    plan, controller = school.plan, school.controller
    point = next(r for r in tree_of(plan).rows.values() if r.kind == "access_point")
    seen, _ = school.look()
    serial = seen.matched[point.id]
    controller.send(f"device/{serial}", {"radio.5.channel": 52, "label": "Somebody's"})
    controller.send("network/net-guest", {"client_isolation": False})
    controller.send("name/stray", {"ssid": "Stray"})
    school.wait()
    seen, _ = school.look()
    rows = differing(plan, seen.held, seen.matched)
    by = {(d.target, d.key): d for d in rows}
    at = f"device/{point.id}"
    keys = {
        (at, "radio.5.channel"),
        (at, "label"),
        ("network/net-guest", "client_isolation"),
        ("name/stray", "ssid"),
    }
    assert set(by) == keys
    for key in [(at, "radio.5.channel"), (at, "label"), ("network/net-guest", "client_isolation")]:
        changes = taken_over(plan, by[key])
        assert changes is not None
        after = plan.after(changes)
        assert key not in {(d.target, d.key) for d in differing(after, seen.held, seen.matched)}
    assert taken_over(plan, by["name/stray", "ssid"]) is None
    view = controller_view(plan, seen, [], True)
    stray = next(d for d in view.differs if d.target == "name/stray")
    assert (stray.name, stray.held, stray.wanted, stray.takes) == ("Stray", "Stray", "none", False)
    school.work()
    seen, _ = school.look()
    assert not differing(plan, seen.held, seen.matched) and "name/stray" not in seen.held


def test_backups_are_had_again_and_another_site_s_refused(school: Installer, standin: StandIn) -> None:
    controller = school.controller
    text, before = controller.backup(), controller.held().held
    controller.send("network/net-guest", {"vlan": 77})
    controller.send("name/stray", {"ssid": "Stray"})
    controller.restore(text)
    school.wait(30)
    assert controller.held().held == before
    standin.place.plug_in("elsewhere", [], 1, 0)
    for wrong, words in (("tea", "no backup"), ("{}", "no backup"), (text, "another site")):
        with pytest.raises(ControllerError, match=words):
            standin.controller("elsewhere").restore(wrong)


def test_gear_is_matched_by_where_it_hangs_and_by_its_label(plans: list[Plan], standin: StandIn) -> None:
    plan, site = plans[2], "matching"  # with a plain switch, behind which nobody says who is on which port
    standin.place.plug_in(site, [r.model_dump() for r in planted(plan, site)], 1, 0)
    installer = Installer(plan, site, standin.place, standin.sites, careful=False)
    installer.work()
    seen, found = installer.look()
    assert all(serial == serial_of(site, device) for device, serial in seen.matched.items())
    tree = tree_of(plan)
    hidden = {
        k for k, r in tree.rows.items() if r.managed and any(not tree.rows[p].managed for p in tree.up(k))
    }
    assert hidden and not hidden & set(seen.matched)
    assert any("tell its serial" in words for words in found.blocked)
    assert {g.serial for g in seen.strangers} <= {serial_of(site, k) for k in hidden}
    order = [r.id for r in hanging(tree)]
    assert sorted(order) == sorted(tree.rows) and all(
        order.index(r.parent) < order.index(r.id) for r in tree.rows.values() if r.parent
    )


def test_what_is_measured_stands_beside_what_was_planned(school: Installer) -> None:
    seen, _ = school.look()
    found = school.controller.measured()
    shown = measurement(school.plan, found, {s: d for d, s in seen.matched.items()})
    assert shown.clients == len(found.clients) == sum(r.clients for r in shown.radios)
    assert shown.weak == sum(c.dbm < -70 for c in found.clients)
    held = {(a.serial, a.band): a for a in found.air}
    for row in shown.radios:
        air = held[seen.matched[row.device], row.band]
        assert (row.busy, row.channel) == (air.busy, air.channel)
        assert row.channel == wanted_of(school.plan)[f"device/{row.device}"][f"radio.{row.band}.channel"]


def test_the_stand_in_does_the_same_by_the_same_seed() -> None:
    ends = []
    for _ in range(2):
        site = SimulatedSite("s", seed=9)
        site.plant(planted(Plan(SITES[3].make(), load_catalogue()), "s"), faults=3)
        ends.append([(k, g.stand, g.firmware, sorted(g.faults)) for k, g in site.state.gear.items()])
    assert ends[0] == ends[1] and sum(bool(f) for *_, f in ends[0]) == 3
    with pytest.raises(Refused, match="no device with the serial"):
        site.adopt("none")


def test_channels_that_are_as_good_are_no_drift_and_worse_ones_are(school: Installer) -> None:
    """Of plans that share as little air one is found today and another tomorrow."""
    plan, controller = school.plan, school.controller
    seen, _ = school.look()
    held = {t: dict(v) for t, v in seen.held.items()}
    points = [t for t, v in held.items() if "radio.2.4.channel" in v]
    turned = {1: 6, 6: 11, 11: 1}  # the same plan with its three channels called otherwise
    for target in points:
        held[target]["radio.2.4.channel"] = turned[int(str(held[target]["radio.2.4.channel"]))]
    found = {d.key for d in differing(plan, held, seen.matched)}
    assert "radio.2.4.channel" not in found
    for target in points:
        held[target]["radio.2.4.channel"] = 6
    worse = [d for d in differing(plan, held, seen.matched) if d.key == "radio.2.4.channel"]
    assert len(worse) == sum(v["radio.2.4.channel"] != 6 for t, v in seen.held.items() if t in points)
    assert controller.about().contract == 1


class _AnswersLate(Controller):
    """Does what it is asked, and whoever asked hears nothing of it."""

    def send(self, target: str, values: dict[str, Value]) -> int:
        super().send(target, values)
        raise ControllerError("late", "the controller answers too late")


def test_what_was_done_though_the_answer_came_late_is_read_back_once_it_holds(school: Installer) -> None:
    """Sent and not heard of: it is not sent again, and not called missing before its device could have it."""
    point = next(r for r in tree_of(school.plan).rows.values() if r.kind == "access_point")
    seen, _ = school.look()
    changed = Differs(target=f"device/{point.id}", key="radio.5.power_dbm", held=17, wanted=11)
    steps = push_plan(school.plan, seen.held, [changed])
    late = _AnswersLate(f"{school.controllers.root}/sites/{school.site}/v1", school.site)
    waited: list[float] = []

    def pause(seconds: float) -> None:
        waited.append(seconds)
        school.wait(3.0)

    ((_, ended, words),) = PushRun(late, seen.matched, pause=pause).run(steps, always)
    assert (ended, words) == ("done", "") and waited
    assert school.controller.held().held[f"device/{seen.matched[point.id]}"]["radio.5.power_dbm"] == 11


@pytest.mark.parametrize(
    "bench, state, words",
    [
        ("192.168.1.0/24", "done", "none of the site has its addresses"),
        ("192.168.10.0/24", "blocked", "is also that of Staff: the router gets no address"),
        ("192.168.0.0/16", "blocked", "is also that of Staff, Pupils"),
        ("fd00:1::/64", "done", "none of the site"),
        ("here", "blocked", "is no subnet such as"),
        ("", "blocked", "is no subnet such as"),
    ],
)
def test_at_the_bench_its_network_is_another_and_what_is_of_the_site_waits(
    bench: str, state: str, words: str
) -> None:
    plan = Plan(music_school(), load_catalogue())
    about = About(contract=1, name="c", site="s", firmware=7, now_s=0)
    seen = Seen(about, {}, {}, {}, {})
    speeds = speeds_as_seen(plan.rules, planned_speeds(plan), [])
    every = frozenset(ticks())
    found = bring_up(plan, seen, every, speeds=speeds, bench=bench)
    items = {i.id: i for s in found.steps for i in s.items}
    assert items["bench"].state == state and words in items["bench"].words and found.bench == bench
    waits = {
        key for key in (*every, *(i for i in items if i.startswith("speed-"))) if items[key].state == "waits"
    }
    assert waits == {"line", "leases", "walk", *(f"speed-{r.where}" for r in speeds)}
    on_site = {i.id: i for s in bring_up(plan, seen, every, speeds=speeds).steps for i in s.items}
    assert "bench" not in on_site and all(on_site[key].state == "done" for key in every)
    assert {on_site[key].state for key in on_site if key.startswith("speed-")} == {"ready"}
