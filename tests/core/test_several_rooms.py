"""Several equipment rooms: who goes where, what leads up, and that everything follows."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.cabling.runs import judge_runs
from heathrise.core.cabling.uplinks import judge_uplinks
from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.context.racks import leads_up, top_room
from heathrise.core.design import (
    Building,
    Design,
    DesignError,
    Device,
    Duct,
    EquipmentRoom,
    Floor,
    Run,
    Site,
    Space,
    Switch,
    Uplink,
    apply,
    put,
)
from heathrise.core.evaluation.cure_search import search_cures
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.ports.uplinks import Shelf, Way, uplinks
from heathrise.core.views.bill_of_materials import order_of
from heathrise.formats.project_file import Project, dump_project, load_project

from ..thorough import examples
from .plans import access_point, design_of, rack
from .sites import sites, turned


def room(key: str, x: float, y: float, floor: str = "f") -> EquipmentRoom:
    return EquipmentRoom(id=key, floor=floor, name=key.capitalize(), at=(x, y))


def switch(key: str, at: str, model: str = "dunthrip-m24") -> Switch:
    return Switch(id=key, equipment_room=at, name=key.upper(), model=model)


def corridor(length_m: float = 66, *more: object) -> Design:
    outline = ((0, 0), (length_m, 0), (length_m, 3), (0, 3))
    return design_of(
        Site(id="site"),
        Building(id="b", name="B"),
        Floor(id="f", building="b", name="G", level=0),
        Space(id="c", floor="f", name="Corridor", outline=outline),
        rack(1, 1.5),
        *more,
    )  # type: ignore[arg-type]


def pavilion(duct_m: float = 80, *more: object) -> Design:
    """Two huts joined by a duct; the second one's only device is too far from the first rack."""
    far = 6 + duct_m
    return design_of(
        Site(id="site"),
        Building(id="b", name="Hut"),
        Floor(id="f", building="b", name="G", level=0),
        Space(id="c", floor="f", name="Hut", outline=((0, 0), (6, 0), (6, 4), (0, 4))),
        Building(id="p", name="Pavilion"),
        Floor(id="g", building="p", name="Far", level=0),
        Space(id="d", floor="g", name="Tea", outline=((far, 0), (far + 9, 0), (far + 9, 4), (far, 4))),
        Duct(id="duct", name="Duct", from_floor="f", to_floor="g", path=((5.5, 2), (far + 0.5, 2))),
        rack(1, 2),
        switch("sw-1", "rack"),
        access_point(far + 7, 2, floor="g"),
        access_point(far + 3, 2, "ap-2", floor="g"),
        access_point(3, 2, "ap-3"),
        *more,
    )  # type: ignore[arg-type]


def test_each_device_goes_to_the_room_nearest_to_it_unless_it_was_told(catalogue: Catalogue) -> None:
    points = [access_point(x, 1.5, f"ap-{x}") for x in (10, 30, 50, 60)]
    design = corridor(66, room("east", 65, 1.5), *points)
    found = {r.device: r for r in judge_runs(design, catalogue)}
    assert [found[f"ap-{x}"].room for x in (10, 30, 50, 60)] == ["rack", "rack", "east", "east"]
    assert found["ap-60"].fixed_m == pytest.approx(1.7 + 5 + 0.2 + 6, abs=0.1)
    told = Run(id="r", device="ap-60", equipment_room="rack")
    moved = {r.device: r for r in judge_runs(apply(design, [put(told)]), catalogue)}
    assert moved["ap-60"].room == "rack"
    assert moved["ap-60"].fixed_m == pytest.approx(1.7 + 59 + 0.2 + 6, abs=0.1)


@examples(25)
@given(sites(devices=3), st.floats(0.5, 5), st.floats(0.5, 3.5), st.integers(0, 1))
def test_rooms_are_chosen_as_each_alone_would_have_it(design: Design, x: float, y: float, level: int) -> None:
    """The slow way: a design for each room that has no other, and the best of its runs."""
    catalogue = load_catalogue()
    floor = f"f{level}" if f"f{level}" in design.of(Floor) else "f0"
    first = next(s for s in design.of(Space).values() if not s.outdoor)
    (ax, ay), (bx, by) = first.outline[:2]
    second = room("second", *turned((x, y), math.degrees(math.atan2(by - ay, bx - ax))), floor)
    both = apply(design, [put(second)])
    alone = {
        key: judge_runs(
            Design({**both.tables, "equipment_room": {key: both.of(EquipmentRoom)[key]}}), catalogue
        )
        for key in ("rack", "second")
    }
    rank = {"met": 0, "near": 0, "test_first": 1, "not_met": 2, "no_way": 3}
    for k, run in enumerate(judge_runs(both, catalogue)):
        options = [alone[key][k] for key in ("rack", "second")]
        best = min(rank[o.verdict] for o in options)
        least = min(o.fixed_m for o in options if rank[o.verdict] == best)
        # Lines of the lattice run through each rack, so a run may differ by part of a step.
        assert rank[run.verdict] == best or abs(run.fixed_m - run.limit_m) < 1
        assert run.fixed_m == pytest.approx(least, abs=0.6)


def test_a_way_up_within_a_building_is_copper_and_as_long_as_it_is(catalogue: Catalogue) -> None:
    """1.7 up from each rack, 64 along, 3 of slack at either end."""
    design = corridor(66, room("east", 65, 1.5))
    (up,) = judge_uplinks(design, catalogue)
    assert (up.room, up.to_room, up.medium, up.category) == ("east", "rack", "copper", "6A")
    assert up.fixed_m == pytest.approx(1.7 + 64 + 1.7 + 6, abs=0.1)
    assert (up.cables, up.verdict) == (2, "met")


def test_beyond_copper_and_between_buildings_it_is_fibre(catalogue: Catalogue) -> None:
    far = judge_uplinks(corridor(120, room("east", 119, 1.5)), catalogue)[0]
    assert (far.medium, far.category, far.verdict) == ("fibre", "os2", "met")  # the cheaper from 64 m on
    design = pavilion(20, room("tea", 30, 2, "g"))
    (up,) = judge_uplinks(design, catalogue)
    assert (up.medium, up.category, up.limit_m) == ("fibre", "om4", 233.3) and up.between_buildings
    ids = {f.id for f in evaluate(Plan(design, catalogue)).findings}
    assert not any(i.startswith("cable-surge-tea") for i in ids)  # fibre carries no current
    told = apply(design, [put(Uplink(id="u", room="tea", to="rack", medium="copper"))])
    found = {f.id: f for f in evaluate(Plan(told, catalogue)).findings}
    mended = apply(told, found["cable-surge-tea"].cures[0].changes)
    assert judge_uplinks(mended, catalogue)[0].medium == "fibre"
    long = pavilion(430, room("tea", 440, 2, "g"))
    assert judge_uplinks(long, catalogue)[0].category == "os2"


def test_rooms_lead_up_to_the_first_that_leads_nowhere_and_never_in_a_ring(catalogue: Catalogue) -> None:
    design = corridor(66, room("mid", 30, 1.5), room("east", 65, 1.5))
    assert leads_up(design) == {"mid": "rack", "east": "rack"}
    chain = apply(design, [put(Uplink(id="u", room="east", to="mid"))])
    assert leads_up(chain) == {"mid": "rack", "east": "mid"} and top_room(chain) == "rack"
    turned_over = apply(design, [put(Uplink(id="u", room="rack", to="mid"))])
    assert top_room(turned_over) == "mid"
    assert leads_up(turned_over) == {"rack": "mid", "east": "mid"}
    for ring in (("mid", "mid"), ("rack", "east")):
        again = apply(chain, [put(Uplink(id="v", room=ring[0], to=ring[1]))])
        if ring == ("rack", "east"):
            again = apply(again, [put(Uplink(id="w", room="mid", to="rack"))])
        with pytest.raises(DesignError, match="in a ring"):
            check(again, catalogue)
    with pytest.raises(DesignError, match="two ways up"):
        check(apply(chain, [put(Uplink(id="v", room="east", to="rack"))]), catalogue)


def test_each_rack_feeds_its_own_and_every_way_has_a_port_at_both_ends(catalogue: Catalogue) -> None:
    design = pavilion(
        80, room("tea", 88, 2, "g"), switch("sw-2", "tea", "dunthrip-s16"), switch("sw-3", "tea")
    )
    check(design, catalogue)
    result = evaluate(Plan(design, catalogue))
    home = {r.device: r.room for r in result.runs}
    assert home == {"ap-1": "tea", "ap-2": "tea", "ap-3": "rack"}
    stands = {s.id: s.equipment_room for s in design.of(Switch).values()}
    ports = result.power.ports
    assert {p.device: stands[p.switch] for p in ports if p.device} == home
    ways = {w.switch: w for w in result.power.ways_up}
    assert [ways[k].to for k in ("sw-1", "sw-2", "sw-3")] == [None, "sw-1", "sw-2"]
    assert [ways[k].depth for k in ("sw-1", "sw-2", "sw-3")] == [1, 2, 3]
    assert (ways["sw-2"].medium, ways["sw-2"].speed_mbps) == ("fibre", 1000)  # its cages
    kept = {(p.switch, p.uplink_to) for p in ports if p.uplink}
    assert kept == {("sw-1", None), ("sw-1", "sw-2"), ("sw-2", "sw-1"), ("sw-2", "sw-3"), ("sw-3", "sw-2")}
    fibre = [p for p in ports if p.uplink and {p.switch, p.uplink_to} == {"sw-1", "sw-2"}]
    assert all(p.cage for p in fibre)
    speeds = {d.id: catalogue.model_of(d).speed_mbps for d in design.of(Device).values()}
    assert ways["sw-2"].load_mbps == speeds["ap-1"] + speeds["ap-2"]
    assert ways["sw-1"].load_mbps == sum(speeds.values())
    assert result.settings is not None
    sheets = {(p.switch, p.port): p for p in result.settings.ports}
    assert all(sheets[p.switch, p.port].reason.startswith("uplink") for p in fibre)
    up = result.uplinks[0]
    copper_m = sum(r.fixed_m * r.cables for r in result.runs)
    assert result.totals.cable_m == pytest.approx(copper_m, abs=0.1)
    assert result.totals.fibre_m == pytest.approx(up.fixed_m, abs=0.1)
    fibre = catalogue.fibres[up.category]
    assert up.jacket == "ground"
    order = order_of(Plan(design, catalogue))
    prices = {k.item: k.price for k in order.lines}
    metres = math.ceil(up.bought_m)  # as it is bought
    assert prices[f"fibre-{up.category}-outside"] == pytest.approx(fibre.outside_price_per_m * metres)
    assert prices[f"optic-{up.category}"] == pytest.approx(2 * fibre.optic_price)
    jackets = {r.jacket for r in result.runs}  # a box for each
    sold = catalogue.cables[result.runs[0].category].jackets
    cable = catalogue.cables[result.runs[0].category]
    assert order.boxes == len(jackets)
    assert all(prices[cable.item(j)] == sold[j].box_price for j in jackets)
    back = load_project(dump_project(Project("P", design)).encode(), catalogue).design
    assert back == design


def test_a_rack_without_a_switch_says_which(catalogue: Catalogue) -> None:
    design = pavilion(80, room("tea", 88, 2, "g"))
    finding = next(f for f in evaluate(Plan(design, catalogue)).findings if f.id == "power-none-tea")
    assert "No switch is chosen in Tea: 2 links" in finding.text
    mended = apply(design, finding.cures[0].changes)
    assert not evaluate(Plan(mended, catalogue)).power.left
    assert {s.equipment_room for s in mended.of(Switch).values()} == {"rack", "tea"}


def test_fibre_into_a_switch_without_cages_wants_a_converter(catalogue: Catalogue) -> None:
    design = pavilion(80, room("tea", 88, 2, "g"), switch("sw-2", "tea", "dunthrip-s8"))
    found = {f.id: f for f in evaluate(Plan(design, catalogue)).findings}
    finding = found["power-converter-sw-2"]
    assert "media converter" in finding.text
    mended = evaluate(Plan(apply(design, finding.cures[0].changes), catalogue))
    assert not any(f.id.startswith("power-converter") for f in mended.findings)
    assert not mended.power.left


def test_a_narrow_way_up_and_a_deep_cascade_are_told(catalogue: Catalogue) -> None:
    rules = catalogue.rules.by_firm({"power.most_oversubscription": 2.0, "power.most_cascade": 2.0})
    points = [access_point(50 + k, 1.5, f"ap-{k}") for k in range(6)]
    design = corridor(
        66,
        room("east", 65, 1.5),
        *points,
        switch("sw-1", "rack"),
        switch("sw-2", "east", "dunthrip-s16"),
        switch("sw-3", "east", "dunthrip-s16"),
    )
    found = {f.id: f for f in evaluate(Plan(design, catalogue.ruled_by(rules))).findings}
    narrow, deep = found["power-narrow-sw-2"], found["power-cascade-sw-3"]
    assert "15 Gb/s together" in narrow.text and narrow.figure == 15
    assert narrow.used[0].whose == "firm" and deep.figure == 3
    assert "power-narrow-sw-2" not in {f.id for f in evaluate(Plan(design, catalogue)).findings}


def test_a_rack_behind_others_may_lead_straight_to_the_line(catalogue: Catalogue) -> None:
    rules = catalogue.rules.by_firm({"power.most_cascade": 2.0})
    design = corridor(
        66,
        room("mid", 30, 1.5),
        room("east", 65, 1.5),
        Uplink(id="u", room="east", to="mid"),
        switch("sw-1", "rack"),
        switch("sw-2", "mid", "dunthrip-s16"),
        switch("sw-3", "east", "dunthrip-s16"),
    )
    deep = {f.id: f for f in evaluate(Plan(design, catalogue.ruled_by(rules))).findings}["power-cascade-sw-3"]
    (cure,) = deep.cures
    assert cure.label.endswith("straight to Rack") or " straight to " in cure.label
    after = apply(design, cure.changes)
    check(after, catalogue)
    assert leads_up(after) == {"mid": "rack", "east": "rack"}
    ways = {w.switch: w for w in evaluate(Plan(after, catalogue)).power.ways_up}
    assert (ways["sw-3"].to, ways["sw-3"].depth) == ("sw-1", 2)
    # Where they stand in one rack nothing of that kind is offered.
    same = corridor(
        66,
        room("east", 65, 1.5),
        switch("sw-1", "rack"),
        switch("sw-2", "east", "dunthrip-s16"),
        switch("sw-3", "east", "dunthrip-s16"),
    )
    found = {f.id: f for f in evaluate(Plan(same, catalogue.ruled_by(rules))).findings}
    assert found["power-cascade-sw-3"].cures == ()


def test_a_run_out_of_reach_is_offered_a_second_room(catalogue: Catalogue) -> None:
    design = pavilion(92)
    found = {f.id: f for f in evaluate(Plan(design, catalogue)).findings}
    assert found["cable-length-ap-1"].searches_cures
    (cure,) = search_cures(Plan(design, catalogue), "cable-length-ap-1")
    assert cure.label == "A second room, Pavilion rack"
    assert "2 runs begin there" in cure.effect and "of fibre lead up" in cure.effect
    mended = apply(design, cure.changes)
    check(mended, catalogue)
    after = evaluate(Plan(mended, catalogue))
    assert {r.verdict for r in after.runs} == {"met"} and not after.power.left
    assert {r.device: r.room for r in after.runs}["ap-1"] == "rack-2"


def test_cages_go_to_fibre_first(catalogue: Catalogue) -> None:
    shelf = Shelf("a", "A", catalogue.switches["dunthrip-m24"])  # two cages
    below = (Way("x", fibre=True), Way("y"), Way("z", fibre=True))
    kept = uplinks((shelf,), Way(None), below)
    cages = {u.to: shelf.model.groups[u.slot.group].cage for u in kept}
    assert cages == {"x": True, "z": True, None: False, "y": False}
    assert not any(u.converter for u in kept) and len({u.slot.port for u in kept}) == 4
    third = uplinks((shelf,), Way(None), (*below, Way("w", fibre=True)))
    assert [u.to for u in third if u.converter] == ["w"]
