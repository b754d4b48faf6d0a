"""Ports chosen by hand, recorders with a port of their own, devices plugged into others."""

from __future__ import annotations

import itertools
from collections import Counter
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue, PowerDemand, load_catalogue, poe_rank
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.context.plugged import plugged_of
from heathrise.core.design import (
    ClientGroup,
    Design,
    Device,
    Element,
    Network,
    PortPin,
    Run,
    Switch,
    WayPoint,
    apply,
    put,
)
from heathrise.core.evaluation.evaluate import Evaluation, evaluate
from heathrise.core.power import over_run
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.work_list import steps_of
from heathrise.demo import SITES

from ..thorough import examples
from .plans import access_point, design_of, rack, shell

CATALOGUE = load_catalogue()
MODELS = ["dunthrip-s8", "dunthrip-m24", "dunthrip-u16", "dunthrip-m48"]
SPEAKING = "ravelmoor-w4"  # two plain ports and one of class 2


def _seen(design: Design) -> Evaluation:
    check(design, CATALOGUE)
    return evaluate(Plan(design, CATALOGUE), wait=True)


def _switch(key: str, model: str) -> Switch:
    return Switch(id=key, equipment_room="rack", name=key.upper(), model=model)


def _device(key: str, kind: str, model: str, at: tuple[float, float], height_m: float = 1.0) -> Device:
    mount = "wall"
    return Device(
        id=key, floor="f", kind=kind, model=model, name=key.upper(), at=at, height_m=height_m, mount=mount
    )


def _finding(seen: Evaluation, key: str) -> Any:
    return next((f for f in seen.findings if f.id == key), None)


# -- pins ------------------------------------------------------------------------------------------


@examples(60)
@given(st.data())
def test_no_port_twice_and_a_pin_holds_or_says_why(data: st.DataObject) -> None:
    count = data.draw(st.integers(1, 8), label="access points")
    models = data.draw(st.lists(st.sampled_from(MODELS), min_size=1, max_size=2), label="switches")
    points = [access_point(2.0 + 2 * k, 10.0, f"ap-{k}") for k in range(count)]
    switches = [_switch(f"sw-{k}", m) for k, m in enumerate(models)]
    pins = [
        PortPin(
            id=f"pin-{k}",
            switch=data.draw(st.sampled_from([s.id for s in switches])),
            port=data.draw(st.integers(1, 54)),
            device=data.draw(st.sampled_from([p.id for p in points])),
            cable=1,
        )
        for k in range(data.draw(st.integers(0, 5), label="pins"))
    ]
    seen = _seen(design_of(*shell(), rack(1, 1), *points, *switches, *pins))
    uses = {(u.switch, u.port): u for u in seen.power.ports}
    lost = {p.pin for p in seen.power.lost_pins}
    assert {u.switch for u in seen.power.ports if u.uplink} == {s.id for s in switches}
    taken = Counter(u.link for u in seen.power.ports if u.link)
    assert not taken or max(taken.values()) == 1
    gone = set(seen.power.left and [row.device for row in seen.power.left])
    for pin in pins:
        if pin.id not in lost and pin.device not in gone:
            assert uses[pin.switch, pin.port].device == pin.device
            assert uses[pin.switch, pin.port].pinned and not uses[pin.switch, pin.port].uplink
    # What is refused is refused for one of these, looked at one by one.
    for row in seen.power.lost_pins:
        pin = next(p for p in pins if p.id == row.pin)
        groups = CATALOGUE.switches[models[int(pin.switch[-1])]].groups
        ports = [g for g in groups for _ in range(g.count)]
        asked = CATALOGUE.devices["access_point"][points[0].model].power
        assert asked is not None
        bad = (
            pin.port > len(ports)
            or ports[pin.port - 1].cage
            or ports[pin.port - 1].poe_class is None
            or poe_rank(ports[pin.port - 1].poe_class or 0) < poe_rank(asked.poe_class)
        )
        before = [p for p in pins[: pins.index(pin)] if p.id not in lost]
        twice = any((p.switch, p.port) == (pin.switch, pin.port) or p.device == pin.device for p in before)
        assert bad or twice or "ways up" in row.text
        assert _finding(seen, f"power-pin-{row.pin}") is not None


def test_a_pin_may_serve_fewer_but_a_site_without_one_is_as_before(catalogue: Catalogue) -> None:
    base = design_of(
        *shell(),
        rack(1, 1),
        *(access_point(2 + 2 * k, 9, f"ap-{k}") for k in range(3)),
        _switch("s", MODELS[1]),
    )
    plain = _seen(base).power
    where = {u.device: u.port for u in plain.ports if u.device}
    pinned = apply(base, [put(PortPin(id="p", switch="s", port=9, device="ap-2"))])
    now = {u.device: u.port for u in _seen(pinned).power.ports if u.device}
    assert now["ap-2"] == 9 != where["ap-2"] and len(now) == 3


@pytest.mark.parametrize(("port", "says"), [(60, "has 26 ports"), (25, "cage"), (0, "")])
def test_a_port_that_cannot_serve_is_said_and_let_go(port: int, says: str) -> None:
    pin = PortPin(id="p", switch="s", port=port or 1, device="ap-0")
    base = design_of(*shell(), rack(1, 1), access_point(9, 9, "ap-0"), _switch("s", "dunthrip-m24"), pin)
    seen = _seen(base)
    finding = _finding(seen, "power-pin-p")
    if not says:
        assert finding is None and not seen.power.lost_pins
        return
    assert says in finding.text
    mended = _seen(apply(base, finding.cures[0].changes))
    assert _finding(mended, "power-pin-p") is None
    assert any(u.device == "ap-0" for u in seen.power.ports)  # it has a port meanwhile


def test_what_was_built_keeps_its_ports_while_things_move() -> None:
    """The school as it is handed over, each port kept: an access point that moves changes none."""
    site = next(s for s in SITES if s.mend is not None)
    drawn = site.make()
    assert site.mend is not None
    design = apply(drawn, site.mend(drawn))
    before = {(u.device, u.link): (u.switch, u.port) for u in _seen(design).power.ports if u.device}
    assert before and len(design.of(PortPin)) == len(before)
    for key in ("ap-6", "ap-12", "cam-1"):
        device = design.of(Device)[key]
        moved = device.model_copy(update={"at": (device.at[0] + 1.5, device.at[1])})
        seen = _seen(apply(design, [put(moved)]))
        assert {(u.device, u.link): (u.switch, u.port) for u in seen.power.ports if u.device} == before


# -- recorders -------------------------------------------------------------------------------------


def test_a_recorder_has_a_port_beside_its_cameras() -> None:
    """Nine cameras on two recorders: each recorder a port and a cord, on the switch of most of its own."""
    cameras = [_device(f"cam-{k}", "camera", "peltwick-dome", (2.0 + k, 9.0), 2.5) for k in range(9)]
    cctv = Network(id="n", name="Cameras", purpose="cameras", vlan=40, subnet="192.168.40.0/24")
    house = Network(id="m", name="House", purpose="main", vlan=1, subnet="192.168.1.0/24")
    seen = _seen(
        design_of(
            *shell(), rack(1, 1), *cameras, _switch("s", MODELS[1]), _switch("t", MODELS[1]), cctv, house
        )
    )
    mine = [u for u in seen.power.ports if u.role == "recorder"]
    assert [u.name for u in mine] == ["Recorder 1", "Recorder 2"] and all(u.device is None for u in mine)
    where = {u.device: u.switch for u in seen.power.ports if u.device}
    together = sum(where[f"cam-{k}"] == mine[k % 2].switch for k in range(9))
    most = max(
        sum(where[f"cam-{k}"] == pair[k % 2] for k in range(9)) for pair in itertools.product("st", repeat=2)
    )
    assert together == most
    cords = [c for c in seen.racks.cords if c.from_thing.startswith("recorder:")]
    assert {(c.to_thing, c.to_port) for c in cords} == {(f"switch:{u.switch}", u.port) for u in mine}
    sheets = {(p.switch, p.port): p for p in (seen.settings.ports if seen.settings else ())}
    assert all(sheets[u.switch, u.port].untagged_vlan == 40 for u in mine)


def test_a_recorder_that_is_drawn_takes_the_place_of_the_planned_one() -> None:
    cameras = [_device(f"cam-{k}", "camera", "peltwick-dome", (2.0 + k, 9.0), 2.5) for k in range(9)]
    drawn = _device("rec-1", "recorder", "recorder-16", (12.0, 9.0))
    base = design_of(*shell(), rack(1, 1), *cameras, _switch("s", MODELS[1]), drawn)
    seen = _seen(base)
    assert not [t for t in seen.racks.things if t.kind == "recorder"]
    assert [u.device for u in seen.power.ports if u.role == "recorder"] == ["rec-1"]
    lines = {line.item: line.quantity for line in order_of(Plan(base, CATALOGUE)).lines}
    assert lines["recorder-16"] == 1 and "recorder" not in lines
    # 9 streams of 4 Mb/s for 30 days: 11.7 TB on disks of 6, and one for parity.
    assert lines["disk-6tb"] == 3
    assert "bracket-wall" not in lines or lines["bracket-wall"] == 9


# -- plugged into another device -------------------------------------------------------------------


def _plate_and(*guests: Device, model: str = SPEAKING) -> list[Element]:
    plate = _device("plate", "wall_plate", model, (10.0, 10.0), 0.4)
    runs = [Run(id=f"r-{g.id}", device=g.id, through="plate") for g in guests]
    return [*shell(), rack(1, 1), _switch("s", MODELS[1]), plate, *guests, *runs]


def test_watts_of_a_camera_behind_a_plate_by_hand() -> None:
    """A camera of 6.2 W at 1.5 m of cord, class 2 at 44 V: 0.2 + 0.141 + ohm of loop; the plate's own
    15.5 W on top, within the 25.5 of class 4."""
    camera = _device("cam-1", "camera", "peltwick-turret", (10.0, 10.9), 1.0)
    seen = _seen(design_of(*_plate_and(camera)))
    fed = {d.device: d for d in seen.power.devices}
    plug = seen.power.plugged[0]
    assert (plug.host, plug.port, plug.cord_m, plug.wrong) == ("plate", 3, 1.5, "")
    ohm = 1.5 * 2 * 0.0938 / 2 + 2 * 0.2  # 93.8 mohm a metre of loop of one pair each way
    amperes = fed["cam-1"].port_w / 44
    assert fed["cam-1"].port_w == pytest.approx(6.2 + ohm * amperes**2, abs=0.02)
    assert fed["plate"].rated_w == pytest.approx(15.5 + fed["cam-1"].port_w, abs=0.01)
    assert fed["cam-1"].source == "PLATE port 3" and fed["plate"].source.startswith("S port")
    switch = seen.power.switches[0]
    assert switch.rated_w == pytest.approx(fed["plate"].port_w, abs=0.06)  # told once, at the plate's port
    assert switch.powered_devices == 1
    assert not [r for r in seen.cable.runs if r.device == "cam-1"]


@examples(200)
@given(
    own=st.floats(1, 12), guests=st.lists(st.floats(0.5, 6), min_size=0, max_size=3), metres=st.floats(1, 90)
)
def test_watts_add_up_along_any_tree(own: float, guests: list[float], metres: float) -> None:
    """What a host takes from its port is at least what it and its guests' ports take, to a tenth more
    than what the cable warms; a longer cable never has more volts."""
    each = [
        over_run(
            CATALOGUE.rules, f"g{k}", "G", "", PowerDemand(poe_class=2, rated_w=w, typical_w=w / 2), 2, 22
        )
        for k, w in enumerate(guests)
    ]
    total = own + sum(g.port_w for g in each)
    demand = PowerDemand(poe_class=4, rated_w=total, typical_w=total / 2)
    host, farther = (over_run(CATALOGUE.rules, "h", "H", "", demand, m, 22) for m in (metres, metres + 5))
    if total <= 25.5:
        assert host.port_w >= total - 0.01 and host.device_v >= farther.device_v
        warmed = (host.port_w / 50) ** 2 * (metres * 0.0938 + 0.4)
        assert host.port_w - total == pytest.approx(warmed, abs=0.1)
    else:
        assert host.verdict == "not_met" and "class 4 has 25.5" in host.wrong


@pytest.mark.parametrize(
    ("guests", "says"),
    [
        ([("a", (10.0, 16.0), "peltwick-turret")], "of cord away, 3\u00a0m at most"),
        ([("a", (10.0, 11.0), "peltwick-pan")], "feeds class 4"),
        (
            [("a", (10.0, 11.0), "peltwick-turret"), ("b", (10.0, 10.5), "peltwick-turret")],
            "no port left of PLATE feeds class 2",
        ),
        ([("a", (30.0, 11.0), "peltwick-turret")], "not in the room"),
    ],
)
def test_what_cannot_be_plugged_in_is_said(
    guests: list[tuple[str, tuple[float, float], str]], says: str
) -> None:
    devices = [_device(key, "camera", model, at) for key, at, model in guests]
    base = design_of(*_plate_and(*devices))
    seen = _seen(base)
    (wrong,) = [p for p in seen.power.plugged if p.wrong]
    finding = _finding(seen, f"power-plugged-{wrong.device}")
    assert says in finding.text
    mended = _seen(apply(base, finding.cures[0].changes))
    assert not [p for p in mended.power.plugged if p.wrong]
    assert any(r.device == wrong.device for r in mended.cable.runs)


def test_a_plate_behind_a_plate_and_one_in_a_ring_are_refused() -> None:
    two = _device("two", "wall_plate", SPEAKING, (10.0, 11.0))
    base = _plate_and(two)
    inner = _device("cam-1", "camera", "peltwick-turret", (10.0, 11.5))
    chain = design_of(*base, inner, Run(id="r-cam-1", device="cam-1", through="two"))
    assert (
        "plugged into another device itself"
        in {p.device: p for p in plugged_of(chain, CATALOGUE)}["cam-1"].wrong
    )
    ring = design_of(*base, Run(id="r-plate", device="plate", through="two"))
    assert all(p.wrong for p in plugged_of(ring, CATALOGUE))
    assert _seen(ring).power.switches[0].powered_devices == 0


@examples(60)
@given(st.data())
def test_a_host_gives_as_many_ports_as_it_can(data: st.DataObject) -> None:
    """No port of a host twice, and as many find one as in the best of all orders."""
    kinds = {"camera": "peltwick-turret", "storage": "corrowby-store-2"}
    count = data.draw(st.integers(0, 5))
    guests = [
        _device(f"g-{k}", kind, kinds[kind], (10.0, 10.2 + k / 10))
        for k in range(count)
        for kind in [data.draw(st.sampled_from(sorted(kinds)))]
    ]
    rows = plugged_of(design_of(*_plate_and(*guests)), CATALOGUE)
    good = [r.port for r in rows if not r.wrong]
    assert len(set(good)) == len(good)
    cameras = sum(g.kind == "camera" for g in guests)
    most = min(cameras, 1) + min(count - cameras, 3 - min(cameras, 1))
    assert len(good) == most


def test_what_is_plugged_in_is_ordered_planned_set_and_counted() -> None:
    camera = _device("cam-1", "camera", "peltwick-turret", (10.0, 10.9), 1.0)
    house = Network(id="m", name="House", purpose="main", vlan=1, subnet="192.168.1.0/24")
    cctv = Network(id="n", name="Cameras", purpose="cameras", vlan=40, subnet="192.168.40.0/24")
    wish = ClientGroup(id="g", space="room", kind="camera", count=1, wired=1)
    design = design_of(*_plate_and(camera), house, cctv, wish)
    seen, plan = _seen(design), Plan(design, CATALOGUE)
    ends = [w.name for line in order_of(plan).lines if line.item.startswith("cord-") for w in line.where]
    assert "CAM-1" in ends
    steps = {s.id: s for s in steps_of(plan)}
    assert steps["adopt-cam-1"].title == "Plug CAM-1 into PLATE port 3, adopt, name, see it alive"
    assert "mount-plate" in steps["mount-cam-1"].waits
    assert seen.settings is not None
    ports = {(p.switch, p.port): p for p in seen.settings.ports}
    given_on = ports["plate", 3]
    assert given_on.untagged_vlan == 40 and given_on.name == "CAM-1" and given_on.power
    behind = next(u for u in seen.power.ports if u.device == "plate")
    assert 40 in ports[behind.switch, behind.port].tagged_vlans
    (chain,) = [c for c in seen.chains.chains if c.device == "cam-1"]
    assert [k.kind for k in chain.links][-3:] == ["device", "port", "device"]
    assert chain.links[chain.binds].mbps == 100
    assert seen.brief.wishes[0].given == 1


def test_a_wish_for_a_doorbell_is_met_by_nothing_else() -> None:
    wish = ClientGroup(id="g", space="room", kind="doorbell", count=1, wired=1)
    outlet = _device("out-1", "outlet", "outlet-double", (5.0, 5.0))
    base = design_of(*shell(), rack(1, 1), _switch("s", MODELS[1]), outlet, wish)
    seen = _seen(base)
    assert (seen.brief.wishes[0].given, seen.brief.wishes[0].lacks) == (0, {"doorbell": 1})
    finding = _finding(seen, "brief-wire-room")
    assert finding.cures[0].label == "Place a doorbell in Room"
    mended = _seen(apply(base, finding.cures[0].changes))
    assert mended.brief.wishes[0].given == 1 and _finding(mended, "brief-wire-room") is None


@pytest.mark.parametrize("what", ["plate", "cam-1", "s"])
def test_what_goes_takes_its_pins_points_and_plugs_along(what: str) -> None:
    """A host, a guest or a switch that is retired: what hung on it begins at a rack, or is no more."""
    camera = _device("cam-1", "camera", "peltwick-turret", (10.0, 10.9), 1.0)
    pins = [PortPin(id=f"p-{k}", switch="s", port=2 + k, device=d) for k, d in enumerate(("plate", "cam-1"))]
    points = [WayPoint(id=f"w-{d}", device=d, floor="f", at=(5, 5)) for d in ("plate", "cam-1")]
    design = design_of(*_plate_and(camera), _switch("t", MODELS[1]), *pins, *points)
    kind = "switch" if what == "s" else "device"
    row = design.get(kind, what)
    assert isinstance(row, Device | Switch)
    seen = _seen(apply(design, [put(row.model_copy(update={"state": "retire"}))]))
    ports = {u.device for u in seen.power.ports if u.device}
    assert what not in ports
    if what == "plate":
        assert not seen.power.plugged and "cam-1" in ports  # on a run of its own
    if what == "s":
        assert not seen.power.lost_pins and ports == {"plate"}
