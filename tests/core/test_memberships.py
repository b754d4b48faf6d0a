"""Which network an end belongs to, and a packet's way over cables and ports; against a plain simulation."""

from __future__ import annotations

from collections import deque

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    ClientGroup,
    Design,
    DesignError,
    Device,
    Element,
    Membership,
    Network,
    Site,
    Switch,
    WirelessName,
    apply,
    put,
)
from heathrise.core.evaluation.evaluate import Evaluation, evaluate
from heathrise.core.settings import INTERNET, Fabric, pair_classes, verdict, walk_packet
from heathrise.core.signal import WalkPoint, environment_of, walk
from heathrise.core.views.offers import removal
from heathrise.core.views.packets import fabric_of_plan, packet_of
from heathrise.demo import SITES
from heathrise.questions import QUESTIONS

from ..thorough import examples
from .plans import access_point, design_of, rack, shell, wall

_USUAL = (("main", 10), ("guest", 20), ("devices", 30), ("cameras", 40), ("management", 99))


def _networks(*purposes: tuple[str, int], **more: dict[str, object]) -> list[Network]:
    return [
        Network.model_validate(
            {
                "id": p,
                "name": p.capitalize(),
                "purpose": p,
                "vlan": vlan,
                "subnet": f"192.168.{vlan}.0/24",
                "client_isolation": p == "guest",
                **more.get(p, {}),
            }
        )
        for p, vlan in purposes or _USUAL
    ]


def _outlet(x: float, y: float, key: str, name: str = "", model: str = "outlet-double") -> Device:
    fields = {"id": key, "floor": "f", "kind": "outlet", "model": model, "name": name or key.upper()}
    return Device.model_validate({**fields, "at": (x, y), "height_m": 0.4, "mount": "wall"})


def _plan(*more: Element, model: str = "dunthrip-s16", kind: str = "home") -> Plan:
    switch = Switch(id="sw", equipment_room="rack", name="SW-1", model=model)
    rows = [*shell(), rack(2, 2), switch, *_networks(), *more]
    design = apply(design_of(*rows), [put(Site.model_validate({"id": "site", "kind": kind}))])
    return Plan(design, load_catalogue())


def _port(evaluation: Evaluation, name: str) -> tuple[int | None, tuple[int, ...], str]:
    assert evaluation.settings is not None
    (row,) = [p for p in evaluation.settings.ports if p.name == name]
    return row.untagged_vlan, row.tagged_vlans, row.whose


def test_a_socket_belongs_by_hand_by_its_name_by_who_is_wired_in_its_room() -> None:
    till = ClientGroup(id="g", space="room", kind="television", count=1, wired=1)
    by_hand = Membership(id="m", network="guest", device="o-2", port=2)
    found = evaluate(
        _plan(_outlet(5, 5, "o-1"), _outlet(9, 5, "o-2"), _outlet(12, 5, "o-3", "Camera post"), till, by_hand)
    )
    assert _port(found, "O-1.1") == (30, (), "client")  # the television's
    assert _port(found, "O-1.2") == (10, (), "plan")
    assert _port(found, "O-2.1") == (10, (), "plan")
    assert _port(found, "O-2.2") == (20, (), "person")
    assert _port(found, "Camera post.1") == (40, (), "client")


def test_rooms_of_a_kind_of_site_have_networks_of_their_own() -> None:
    plan = _plan(_outlet(5, 5, "o-1"), kind="guest_house")  # the shell's only room is called Room
    assert _port(evaluate(plan), "O-1.1") == (20, (), "room")


def test_a_spare_port_is_a_guest_s_when_somebody_says_so() -> None:
    spare = Membership(id="m", network="guest", switch="sw", port=15)
    plan = _plan(_outlet(5, 5, "o-1"), spare)
    found = evaluate(plan)
    assert found.settings is not None
    (port,) = [p for p in found.settings.ports if p.switch == "sw" and p.port == 15]
    assert (port.enabled, port.untagged_vlan, port.tagged_vlans) == (True, 20, ())
    out = packet_of(plan, "port:sw:15", INTERNET)
    assert out.passes and [h.kind for h in out.hops] == ["switch", "router", "line"]
    inside = packet_of(plan, "port:sw:15", "socket:o-1:1")
    assert not inside.passes and inside.says == "It stops: Guest may not open a connection to Main."
    assert inside.hops[-1].kind == "router" and not inside.hops[-1].passes
    assert packet_of(plan, "socket:o-1:1", "port:sw:15").passes  # the other way round it does


def test_where_a_packet_stops_on_its_way_down_is_the_switch_below() -> None:
    """A managed switch behind a plain one: what is not its main network stops there, up and down."""
    switches = [
        Switch(id="sw-2", equipment_room="rack", name="SW-2", model="dunthrip-s16"),
        Switch(id="sw-3", equipment_room="rack", name="SW-3", model="dunthrip-s16"),
    ]
    outlets = [_outlet(4 + k, 5, f"o-{k}") for k in range(10)]
    members = [Membership(id=f"m-{d.id}", network="devices", device=d.id) for d in outlets]
    plan = _plan(*switches, *outlets, *members, model="dunthrip-u16")
    fabric = fabric_of_plan(plan)
    below = next(h for h in fabric.hosts if h.network == "devices" and fabric.ascent(h).stopped)
    start = next(h for h in fabric.hosts if h.network == "main" and not fabric.ascent(h).stopped)
    walked = packet_of(plan, start.id, below.id)
    assert not walked.passes and "its way up, does not carry VLAN 30" in walked.says
    kinds = [h.kind for h in walked.hops]
    assert kinds.index("router") == len(kinds) - 2  # the switch after the router is where it ends
    assert walked.hops[-1].words.split(" port ")[0] in walked.says and not walked.hops[-1].passes
    back = packet_of(plan, below.id, start.id)
    assert not back.passes and "router" not in {h.kind for h in back.hops}


def test_guests_are_kept_from_one_another_but_not_by_a_plain_switch() -> None:
    two = [Membership(id=f"m-{k}", network="guest", device="o-1", port=k) for k in (1, 2)]
    kept = packet_of(_plan(_outlet(5, 5, "o-1"), *two), "socket:o-1:1", "socket:o-1:2")
    assert not kept.passes and "kept from one another" in kept.says
    plain = _plan(_outlet(5, 5, "o-1"), *two, model="dunthrip-u16")
    assert packet_of(plain, "socket:o-1:1", "socket:o-1:2").passes
    (stray,) = [f for f in evaluate(plain).findings if f.id.startswith("settings-stray")]
    assert "O-1.1, O-1.2 are planned on Guest and land on Main, as SW-1 tells no networks apart" in stray.text
    assert "they reach Main" in stray.text
    cured = plain.after(stray.cures[0].changes)
    assert not [f for f in evaluate(cured).findings if f.id.startswith("settings-stray")]


def test_a_name_is_on_the_access_points_that_it_says_and_its_port_carries_it_there_alone() -> None:
    points = [access_point(5, 5), access_point(15, 15, "ap-2")]
    name = WirelessName(id="n", network="guest", ssid="Cottage", access_points=("ap-2",))
    plan = _plan(*points, name)
    found = evaluate(plan)
    assert _port(found, "AP-1") == (99, (), "kind")
    assert _port(found, "AP-2") == (99, (20,), "kind")
    assert [h.id for h in fabric_of_plan(plan).hosts if h.air] == ["air:n:ap-2"]


def test_a_name_that_is_nowhere_or_has_one_hour_is_told() -> None:
    point = access_point(5, 5)
    gone = access_point(15, 15, "ap-2", state="retire")
    lost = WirelessName(id="n", network="guest", ssid="Cottage", access_points=("ap-2",), from_hour="08:00")
    plan = _plan(point, gone, lost)
    ids = ("settings-nowhere-n", "settings-hours-n")
    for mended in range(3):
        told = [f for f in evaluate(plan).findings if f.id in ids]
        assert len(told) == 2 - mended
        if told:
            plan = plan.after(told[0].cures[0].changes)


def test_what_goes_is_mentioned_no_more() -> None:
    """A device is taken away with its membership, and out of the names that are kept to it."""
    points = [access_point(5, 5), access_point(15, 15, "ap-2")]
    name = WirelessName(id="n", network="guest", ssid="Cottage", access_points=("ap-1", "ap-2"))
    joined = Membership(id="m", network="guest", device="ap-1", given=True)
    plan = _plan(*points, name, joined)
    left = apply(plan.drawn, removal(plan.drawn, points[0]))
    check(left, load_catalogue())
    assert not left.of(Membership) and left.of(WirelessName)["n"].access_points == ("ap-2",)


def test_management_is_for_administrators() -> None:
    leak = _networks(*_USUAL, main={"reaches": ("management",)})
    plan = _plan(*leak)
    (finding,) = [f for f in evaluate(plan).findings if f.id == "settings-reach-main-management"]
    assert finding.severity == "not_met"
    closed, moved = (plan.after(c.changes) for c in finding.cures)
    for after in (closed, moved):
        assert not [f for f in evaluate(after).findings if f.id == "settings-reach-main-management"]
    (own,) = [n for n in moved.design.of(Network).values() if n.purpose == "administrators"]
    seen = evaluate(moved).settings
    assert seen is not None
    assert "management" in next(n.reaches for n in seen.networks if n.id == own.id)
    assert own.id not in next(n.reaches for n in seen.networks if n.id == "main")


def test_what_is_shut_and_kept_from_the_internet_by_hand_holds() -> None:
    rows = _networks(
        *_USUAL, main={"shut": ("cameras",)}, devices={"internet": False}, cameras={"internet": True}
    )
    found = evaluate(_plan(*rows))
    assert found.settings is not None
    by = {n.id: n for n in found.settings.networks}
    assert "cameras" not in by["main"].reaches and "devices" in by["main"].reaches
    assert (by["devices"].internet, by["cameras"].internet) == (False, True)
    assert {f.id: f.severity for f in found.findings if "internet" in f.id} == {
        "settings-internet-devices": "note",
        "settings-internet-cameras": "near",
    }


def test_bad_memberships_are_refused_or_told() -> None:
    plan, catalogue = _plan(_outlet(5, 5, "o-1")), load_catalogue()
    for bad in (
        Membership(id="m", network="guest"),
        Membership(id="m", network="guest", device="o-1", switch="sw"),
    ):
        with pytest.raises(DesignError, match="either a device or a switch"):
            check(apply(plan.drawn, [put(bad)]), catalogue)
    twice = [Membership(id=k, network="guest", device="o-1") for k in "ab"]
    with pytest.raises(DesignError, match="says the same end"):
        check(apply(plan.drawn, [put(m) for m in twice]), catalogue)
    lost = plan.after([put(Membership(id="m", network="guest", device="o-1", port=7))])
    (finding,) = [f for f in evaluate(lost).findings if f.id == "settings-member-m"]
    assert "has 2 of them" in finding.text
    with pytest.raises(DesignError, match="no host 'nobody'"):
        QUESTIONS["packet"].ask(plan, {"start": "nobody", "goal": INTERNET})


def test_cameras_come_to_their_recorder() -> None:
    camera = Device.model_validate(
        {
            "id": "cam",
            "floor": "f",
            "kind": "camera",
            "model": "peltwick-turret",
            "name": "CAM-1",
            "at": (9, 9),
        }
    )
    kind = next(iter(load_catalogue().devices["recorder"]))
    recorder = Device.model_validate(
        {"id": "rec", "floor": "f", "kind": "recorder", "model": kind, "name": "Keeper", "at": (15, 15)}
    )
    astray = Membership(id="m", network="guest", device="rec")
    plan = _plan(camera, recorder, astray)
    (finding,) = [f for f in evaluate(plan).findings if f.id.startswith("settings-recorder")]
    assert "CAM-1 does not come to Keeper: Cameras may not open a connection to Guest" in finding.text
    cured = plan.after(finding.cures[0].changes)
    assert not [f for f in evaluate(cured).findings if f.id.startswith("settings-recorder")]


# -- a plain simulation: frames flooded port by port ----------------------------------------------


def _flooded(plan: Plan, start: str, goal: str) -> bool:
    """Whether a packet passes, by flooding: frames carry a VLAN or none on each cable; a managed switch tags
    what comes in untagged and lets out what its port carries, a plain one floods all. The router hears
    what comes up to it and sends it down again in the goal's own network, if that is allowed."""
    evaluation = evaluate(plan)
    assert evaluation.settings is not None
    design, catalogue = plan.design, plan.catalogue
    ports = {(p.switch, p.port): p for p in evaluation.settings.ports}
    plain = {s.id for s in design.of(Switch).values() if not catalogue.switches[s.model].managed}
    pairs: dict[tuple[str, int], tuple[str, int]] = {}
    line: tuple[str, int] | None = None
    ups = [p for p in evaluation.power.ports if p.uplink]
    for p in ups:
        if p.uplink_to is None:
            line = (p.switch, p.port)
            continue
        back = next(q for q in ups if q.switch == p.uplink_to and q.uplink_to == p.switch)
        pairs[p.switch, p.port] = (back.switch, back.port)

    by_vlan = {n.vlan: n for n in reversed(list(design.of(Network).values()))}

    def entry(host: str) -> tuple[tuple[str, int], int | None]:
        """The port that a host is at, and the tag of what it sends."""
        kind, element, *rest = host.split(":")
        if kind == "air":
            name, device = design.of(WirelessName)[element], rest[0]
            use = next(p for p in evaluation.power.ports if p.device == device)
            vlan, own = design.of(Network)[name.network].vlan, ports[use.switch, use.port].untagged_vlan
            return (use.switch, use.port), None if vlan == own and use.switch not in plain else vlan
        if kind == "port":
            return (element, int(rest[0])), None
        uses = [p for p in evaluation.power.ports if p.device == element]
        if kind == "socket":
            uses = [p for p in uses if p.link == f"run-{element}/{rest[0]}"] or uses
        return (uses[0].switch, uses[0].port), None

    def flood(at: tuple[str, int], tag: int | None) -> dict[tuple[str, int] | str, set[int | None]]:
        """Return what leaves each port, and what the router hears, of a frame that comes in at one."""
        heard: dict[tuple[str, int] | str, set[int | None]] = {}
        waiting, seen = deque([(at, tag)]), set()
        while waiting:
            (switch, port), now = waiting.popleft()
            if (switch, port, now) in seen:
                continue
            seen.add((switch, port, now))
            sheet = ports[switch, port]
            if switch in plain:
                vlan: int | None = now
            elif now is None:
                vlan = sheet.untagged_vlan
            elif now in sheet.tagged_vlans or now == sheet.untagged_vlan:
                vlan = now
            else:
                continue
            for (other, number), out in ports.items():
                if other != switch or number == port or not out.enabled:
                    continue
                if switch in plain:
                    leaves: int | None = vlan
                elif vlan == out.untagged_vlan:
                    leaves = None
                elif vlan in out.tagged_vlans:
                    leaves = vlan
                else:
                    continue
                heard.setdefault((other, number), set()).add(leaves)
                if (other, number) == line:
                    # What comes untagged out of a plain switch the router takes for its main network.
                    main = next((n.vlan for n in design.of(Network).values() if n.purpose == "main"), None)
                    own = main if switch in plain else out.untagged_vlan
                    heard.setdefault("router", set()).add(leaves if leaves is not None else own)
                if (other, number) in pairs:
                    waiting.append((pairs[other, number], leaves))
        return heard

    at, tag = entry(start)
    heard = flood(at, tag)
    came = {by_vlan[v] for v in heard.get("router", set()) if v in by_vlan}
    if goal == INTERNET:
        return any(n.purpose not in ("cameras", "management") for n in came)
    there, wants = entry(goal)
    if at == there:
        own = ports[at].untagged_vlan if at[0] not in plain else None
        same = (tag if tag is not None else own) == (wants if wants is not None else own)
    else:
        same = wants in heard.get(there, set())
    if same and at[0] == there[0] and at[0] in plain:
        return True  # nobody there keeps anybody apart
    back = {by_vlan[v] for v in flood(there, wants).get("router", set()) if v in by_vlan}
    if any(o.purpose == "main" and t.purpose != "management" for o in came for t in back if o.id != t.id):
        return True
    # Within a network: over the switches, or by the router, where its hosts are not kept apart.
    own = tag if tag is not None or at[0] in plain else ports[at].untagged_vlan
    mine = came & back if came or back else {n for n in [by_vlan.get(own or 0)] if n}
    return any(not n.client_isolation for n in mine) and (same or bool(came & back))


@st.composite
def _sites(draw: st.DrawFn) -> Plan:
    catalogue: Catalogue = load_catalogue()
    count = draw(st.integers(1, 3))
    models = [draw(st.sampled_from(["dunthrip-s16", "dunthrip-s24h", "dunthrip-u16"])) for _ in range(count)]
    switches = [
        Switch(id=f"sw-{k}", equipment_room="rack", name=f"SW-{k}", model=m) for k, m in enumerate(models)
    ]
    points = [access_point(3 + 5 * k, 15, f"ap-{k}") for k in range(draw(st.integers(0, 3)))]
    outlets = [_outlet(3 + 4 * k, 5, f"o-{k}") for k in range(draw(st.integers(1, 4)))]
    rows = draw(st.lists(st.sampled_from(_USUAL[1:]), unique=True, max_size=4))
    networks = _networks(("main", 10), *rows)
    members = [
        Membership(id=f"m-{d.id}-{k}", network=draw(st.sampled_from(networks)).id, device=d.id, port=k)
        for d in outlets
        for k in (1, 2)
        if draw(st.booleans())
    ]
    names = [
        WirelessName(id=f"n-{n.id}", network=n.id, ssid=n.name, client_isolation=n.purpose == "guest")
        for n in networks
        if draw(st.booleans())
    ]
    every = [*shell(), rack(2, 2), *switches, *points, *outlets, *networks, *names, *members]
    return Plan(design_of(*every), catalogue)


@given(plan=_sites(), data=st.data())
@examples(60)
def test_a_packet_passes_where_a_flood_of_frames_does(plan: Plan, data: st.DataObject) -> None:
    fabric = fabric_of_plan(plan)
    hosts = [h.id for h in fabric.hosts if not fabric.ascent(h).stopped.endswith("has no port")]
    if len(hosts) < 2:
        return
    for _ in range(12):
        start = data.draw(st.sampled_from(hosts))
        goal = data.draw(st.sampled_from([*(h for h in hosts if h != start), INTERNET]))
        walked = walk_packet(fabric, start, goal)
        assert walked.passes == _flooded(plan, start, goal), (start, goal, walked.says)


def _each_with_each(fabric: Fabric) -> None:
    classes, found = pair_classes(fabric)
    place = {h.id: k for k, one in enumerate(classes) for h in one}
    assert sorted(place) == sorted(h.id for h in fabric.hosts)
    for one in fabric.hosts:
        for other in fabric.hosts:
            if one.id != other.id:
                by_class = found[place[one.id], place[other.id]]
                assert bool(by_class) == bool(verdict(fabric, one, other)), (one.id, other.id)


@given(plan=_sites())
@examples(24)
def test_all_pairs_at_once_are_each_pair_by_itself(plan: Plan) -> None:
    _each_with_each(fabric_of_plan(plan))


@pytest.mark.parametrize("site", SITES, ids=lambda s: s.key)
def test_all_pairs_of_the_demo_sites(site: object) -> None:
    design: Design = site.make()  # type: ignore[attr-defined]
    _each_with_each(fabric_of_plan(Plan(design, load_catalogue())))


def test_a_call_walks_over_the_access_points_that_have_its_name() -> None:
    points = [access_point(3, 10), access_point(17, 10, "ap-2")]
    path = [WalkPoint(floor="f", at=(2, 10)), WalkPoint(floor="f", at=(18, 10))]

    def served(*on: str) -> set[str | None]:
        name = WirelessName(id="n", network="main", ssid="Home", access_points=on)
        plan = _plan(*points, name, wall(1, (10, 0), (10, 20), "concrete"))
        return {s.serving for s in walk(environment_of(plan), path).samples}

    assert served() == {"ap-1", "ap-2"}
    assert served("ap-1") <= {"ap-1", None}
