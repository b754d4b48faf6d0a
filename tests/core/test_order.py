"""The order: the trade's example by hand, and slow, plain references on the sites."""

from __future__ import annotations

import itertools
import math
from collections import Counter, defaultdict
from datetime import date
from decimal import ROUND_HALF_UP, Decimal
from functools import cache

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import Catalogue, FirmPrice, Pack, load_catalogue, priced_items
from heathrise.core.context.effective_rules import in_force
from heathrise.core.context.plan import Plan
from heathrise.core.context.recording import disks_for
from heathrise.core.context.scope import as_planned
from heathrise.core.design import (
    Design,
    Device,
    Extender,
    Injector,
    OwnFigure,
    Run,
    Switch,
    Wall,
    Zone,
    apply,
    put,
)
from heathrise.core.evaluation.evaluate import Evaluation, evaluate
from heathrise.core.laying import Link, Stretch, holes_of, pulling_of
from heathrise.core.order import Order, cheapest_cover, cord_for
from heathrise.core.views.bill_of_materials import order_of
from heathrise.demo import SITES

from ..thorough import examples
from .plans import access_point, design_of, rack, shell, wall

TODAY = date(2026, 11, 25)
KEYS = [site.key for site in SITES]


@cache
def _site(key: str) -> tuple[Design, Evaluation]:
    design = next(s for s in SITES if s.key == key).make()
    return design, evaluate(Plan(design, load_catalogue()))


def _order(key: str, firm: dict[str, FirmPrice] | None = None) -> Order:
    design, _ = _site(key)
    return order_of(Plan(design, load_catalogue(), firm or {}, TODAY))


# -- by hand ---------------------------------------------------------------------------------------


def test_pulling_one_access_point_by_hand(catalogue: Catalogue) -> None:
    """Two cables together, 20 m in a void, 6 m in an attic, 4 m down a stud wall: 21.0 and a
    quarter of it, of which 6 m x 0.9 and a quarter are in the attic; one masonry hole."""
    point = access_point(26.5, 5)
    design = design_of(*shell(40, 10), point, wall(1, (10, 0), (10, 10), "concrete"))
    stretches = (
        Stretch("run", "f", "ceiling_void", 20.0, ((0.5, 5), (20.5, 5)), 2),
        Stretch("run", "f", "attic", 6.0, ((20.5, 5), (26.5, 5)), 2),
        Stretch("run", "f", "drop", 4.0, ((26.5, 5),), 2),
    )
    link = Link("run", "AP-1", point.id, "f", "copper", "6", 2, 33.0, False, False, stretches=stretches)
    holes = holes_of(design, catalogue, stretches)
    assert [h.at for h in holes] == [(10.0, 5.0)]
    pulled = pulling_of(catalogue.rules, [link])["run"]
    assert pulled.minutes == pytest.approx(26.25)
    assert pulled.attic_minutes == pytest.approx(6 * 0.9 * 1.25)


def test_six_cameras_on_three_disks() -> None:
    """Six streams of 4 Mb/s fill 12 TB in 46 days; one more disk is for parity."""
    assert disks_for(24, 46, 6) == 3
    assert disks_for(24, 47, 6) == 4


def test_each_recorder_has_a_disk_for_parity(catalogue: Catalogue) -> None:
    """Sixteen cameras on two recorders: eight streams of 4 Mb/s for 30 days fill 10.4 TB, two disks
    and one for parity in each, six in all."""
    cameras = [
        Device(
            id=f"c{k}",
            floor="f",
            kind="camera",
            model="peltwick-dome",
            name=f"C{k}",
            at=(1.0 + k, 3),
            height_m=2.0,
        )
        for k in range(16)
    ]
    design = design_of(*shell(30, 10), rack(1, 1), *cameras)
    order = order_of(Plan(design, catalogue, on=TODAY))
    bought = {k.item: k.quantity for k in order.lines}
    assert (bought["recorder"], bought["disk-6tb"]) == (2, 6)


@pytest.mark.parametrize(
    ("reach", "cord"), [(0.2, "cord-0.5"), (0.5, "cord-1"), (1.8, "cord-3"), (9.0, "cord-5")]
)
def test_a_cord_is_the_shortest_that_reaches(reach: float, cord: str) -> None:
    assert cord_for(reach, 0.3) == cord


def test_packs_by_hand() -> None:
    packs = [Pack(1, 139), Pack(2, 259), Pack(3, 369)]
    five = cheapest_cover(5, packs)
    assert five.price == 628 and five.left_over == 0 and five.proven
    assert {p.count: n for p, n in five.packs} == {2: 1, 3: 1}
    # Two threes for 738 against 3 + 1 + 1 for 647: no.
    assert cheapest_cover(8, [Pack(1, 100), Pack(3, 150)]).left_over == 1
    assert cheapest_cover(0, packs).price == 0


@examples(60)
@given(
    st.integers(1, 14), st.lists(st.tuples(st.integers(1, 5), st.integers(1, 400)), min_size=1, max_size=4)
)
def test_packs_agree_with_trying_all(wanted: int, offers: list[tuple[int, int]]) -> None:
    packs = [Pack(count, float(price)) for count, price in offers]
    best = min(
        sum(p.price * n for p, n in zip(packs, counts, strict=True))
        for counts in itertools.product(*(range(-(-wanted // p.count) + 1) for p in packs))
        if sum(p.count * n for p, n in zip(packs, counts, strict=True)) >= wanted
    )
    found = cheapest_cover(wanted, packs)
    assert found.proven and found.price == pytest.approx(best)
    assert sum(p.count * n for p, n in found.packs) == wanted + found.left_over


# -- nothing without a line, nothing without a place -----------------------------------------------


# The sheaths that a cable may be cut from, by where it lies.
MAY_LIE_AS = {
    "indoor": ("", "-riser", "-plenum"),
    "riser": ("-riser", "-plenum"),
    "plenum": ("-plenum",),
    "outdoor": ("-outdoor",),
    "ground": ("-ground",),
}


@pytest.mark.parametrize("key", KEYS)
def test_all_of_the_plan_has_a_line_and_every_line_a_place(key: str) -> None:
    drawn, evaluation = _site(key)
    design, order = as_planned(drawn), _order(key)
    lines = {line.item: line for line in order.lines}
    for device in design.of(Device).values():
        if device.state == "new":
            assert any(w.id == device.id for w in lines[device.model].where), device.name
    for cls in (Switch, Injector):
        for row in design.of(cls).values():  # type: ignore[type-abstract]
            assert any(w.id == row.id for w in lines[row.model].where)
    for link in evaluation.cable.links:
        if link.verdict == "no_way":
            continue
        bought = {f"cable-{link.category.lower()}{j}" for j in MAY_LIE_AS[link.jacket]}
        if link.medium == "fibre":
            ends = {"indoor": "", "riser": "-riser", "plenum": "-plenum"}
            bought = {f"fibre-{link.category}{ends.get(link.jacket, '-outside')}"}
        place = getattr(link, "device", link.id)
        laid = 0 if link.chosen_by == "found" else 1  # what lies in the wall comes off no box
        cut_from = [b for b in bought & set(lines) if place in {w.id.split("@")[0] for w in lines[b].where}]
        assert len(cut_from) == laid, link.name
    known = {e.id for _, e in drawn.elements()} | {"spare"}
    for line in order.lines:
        assert line.where and line.quantity > 0
        for place in line.where:
            assert place.kind in ("spare", "link") or place.id in known, (line.label, place)
        assert line.quantity >= sum(w.quantity for w in line.where) - 0.05
    for task in order.tasks:
        assert task.where and task.minutes > 0


# -- against plain references ----------------------------------------------------------------------


def _plain_counts(key: str) -> Counter[str]:
    """Count parts one thing at a time, from the evaluation alone."""
    drawn, evaluation = _site(key)
    design, catalogue = as_planned(drawn), load_catalogue()
    found: Counter[str] = Counter()
    there = [k for k in evaluation.cable.links if k.verdict != "no_way"]
    ends: Counter[str] = Counter()  # of copper in each rack
    for link in there:
        if link.medium == "copper" and link.chosen_by != "found":
            ends[link.room or ""] += link.cables
            ends[getattr(link, "to_room", "")] += link.cables
    for link in there:
        found["label"] += 2 * link.cables
        if link.medium == "fibre":
            # One from each end's splices: at a device, and to a port where there is one.
            ports = [p for p in evaluation.power.ports if p.link == link.id]
            between = hasattr(link, "to_room")
            found["cord-fibre"] += 2 if between else 1 + len(ports)
            continue
        fresh = link.chosen_by != "found"
        for room in [link.room, *([link.to_room] if hasattr(link, "to_room") else [])]:
            panel = ends[room or ""] > 12
            found["jack" if panel else "plug"] += link.cables if fresh else 0
        device = design.of(Device).get(getattr(link, "device", ""))
        if device is not None and device.kind == "outlet":
            found["jack"] += link.cables if fresh else 0
        elif device is not None:
            found["plug"] += link.cables if fresh else 0
        pole = device is not None and device.mount == "pole"
        leaves = link.between_buildings or link.duct_m > 0 or link.outdoor_m > 1 or pole
        found["surge"] += 2 * link.cables if leaves else 0
    found["cord-fibre"] += 2 if found["cord-fibre"] else 0
    for row in evaluation.brief.reserves:
        found["coil-plate"] += row.cables
    found["plug"] += 2 * len(design.of(Extender))
    if found["plug"]:
        found["plug"] += max(4, math.ceil(found["plug"] * 0.05))
    of_rack = Counter[str]()  # a port for each cable that begins there, and for copper from below
    for link in there:
        of_rack[link.room or ""] += link.cables
        if link.medium == "copper":
            of_rack[getattr(link, "to_room", "")] += link.cables
    found["rack-panel"] = sum(math.ceil(of_rack[r] / 24) for r, n in ends.items() if r and n > 12)
    for device in design.of(Device).values():
        if device.state == "new" and device.kind not in ("outlet", "router", "storage", "recorder"):
            model = catalogue.devices[device.kind][device.model]
            mount = "wall" if device.mount == "desk" else device.mount
            found[f"bracket-{mount}"] += 1
            found["outdoor-kit"] += model.outdoor
    return found


@pytest.mark.parametrize("key", KEYS)
def test_counts_agree_with_counting_one_by_one(key: str) -> None:
    lines = {line.item: line.quantity for line in _order(key).lines}
    for item, count in _plain_counts(key).items():
        assert lines.get(item, 0) == count, item


@pytest.mark.parametrize("key", KEYS)
def test_cords_agree_with_counting_port_by_port(key: str) -> None:
    """A cord for each port that a panel's cable goes on to and for each recorder, two where an injector stands between, one
    for each way up that stays in its rack, one beside each outlet, and two spare of each length."""
    drawn, evaluation = _site(key)
    design = as_planned(drawn)
    panels = {t.room for t in evaluation.racks.things if t.kind == "panel"}
    injected = {i.device for i in design.of(Injector).values()}
    room_of = {s.id: s.equipment_room for s in design.of(Switch).values()}
    count = 0
    corded = set()
    for use in evaluation.power.ports:
        count += use.name is not None and use.name.startswith("Recorder")
        if use.device is None:
            continue
        panelled = room_of[use.switch] in panels
        count += panelled + (use.device in injected)
        if panelled:
            corded.add(f"run-{use.device}")
    gear = {(t.room, t.kind) for t in evaluation.racks.things}
    for way in evaluation.power.ways_up:
        here = room_of[way.switch]
        up = room_of[way.to] == here if way.to else bool({(here, "router"), (here, "modem")} & gear)
        joined = {u.room for u in evaluation.cable.uplinks if u.verdict != "no_way"}
        if way.to and way.medium == "copper" and here in joined:
            count += (here in panels) + (room_of[way.to] in panels)
        count += up + len(way.converters)  # from a converter to its port
    count += sum({(room, "router"), (room, "modem")} <= gear for room in set(room_of.values()))
    for run in evaluation.cable.runs:
        if run.verdict == "no_way":
            continue
        count += run.cables * (design.of(Device)[run.device].kind == "outlet")
        count += run.cables * (run.chosen_by == "found" and run.id not in corded)
    count += sum(r.through is not None for r in design.of(Run).values())  # to what it is plugged into
    lit = {k.device for k in evaluation.cable.runs if k.medium == "fibre" and k.verdict != "no_way"}
    count += len(lit)  # from the converter at a device; a rack's goes to a port that is no cage
    count += sum(p.device in lit and not p.cage for p in evaluation.power.ports)
    count -= sum(p.device in lit and room_of[p.switch] in panels for p in evaluation.power.ports)
    loose = {r.device for r in design.of(Run).values() if r.over_air}
    count += sum(d.id in loose for d in design.of(Device).values())  # from its socket's injector
    lines = [k for k in _order(key).lines if "cord-" in k.item and k.item != "cord-fibre"]
    assert sum(k.quantity for k in lines) == count + 2 * len(lines)


@pytest.mark.parametrize("key", KEYS)
def test_holes_agree_with_cutting_every_wall(key: str) -> None:
    """Each stretch against each wall, by intersecting lines: as many pairs pass through."""
    import shapely

    drawn, evaluation = _site(key)
    catalogue, design = load_catalogue(), as_planned(drawn)
    walls = [w for w in design.of(Wall).values() if catalogue.constructions[w.construction].masonry]
    pairs = set()
    stretches = []
    for link in evaluation.cable.links:
        for leg in link.legs:
            stretches.append(Stretch(link.id, leg.floor, leg.kind, leg.length_m, leg.points, 1))
            if leg.kind == "duct" or len(leg.points) < 2:
                continue
            line = shapely.LineString(leg.points)
            for one in walls:
                cut = shapely.LineString([one.a, one.b])
                ends = [p for p in leg.points if cut.distance(shapely.Point(p)) < 1e-6]
                if one.floor == leg.floor and line.crosses(cut) and not ends:
                    pairs.add((link.id, one.id))
    found = {(k, h.wall) for h in holes_of(design, catalogue, stretches) for k in h.links}
    assert pairs <= found
    # What else is found ends on a wall's line: an end that lies on it counts for one side.
    touching = len(found - pairs)
    assert touching <= len(found) // 2 or not pairs


@pytest.mark.parametrize("key", KEYS)
def test_pulling_lies_between_alone_and_together(key: str) -> None:
    """Together a cable costs a quarter at least, and no more than if it were pulled alone."""
    drawn, evaluation = _site(key)
    rules = in_force(drawn, load_catalogue()).rules
    rates = rules.table("order.pull_minutes")
    links = [
        Link(
            k.id,
            k.name,
            None,
            k.floor,
            k.medium,
            k.category,
            k.cables,
            k.bought_m,
            False,
            False,
            False,
            tuple(Stretch(k.id, g.floor, g.kind, g.length_m, g.points, k.cables, g.way) for g in k.legs),
        )
        for k in evaluation.cable.links
    ]
    found = {k: p.minutes for k, p in pulling_of(rules, links).items()}
    for link in links:
        metre = sum(s.length_m * rates.get(s.kind, 0.5) for s in link.stretches)
        alone = metre * (1 + 0.25 * (link.cables - 1))
        least = metre * 0.25 * link.cables
        assert least - 1e-6 <= found[link.id] <= alone + 1e-6
    assert pulling_of(rules, links[:1])[links[0].id].minutes == pytest.approx(
        sum(s.length_m * rates.get(s.kind, 0.5) for s in links[0].stretches)
        * (1 + 0.25 * (links[0].cables - 1))
    )


@pytest.mark.parametrize("key", KEYS)
def test_the_sum_adds_up_in_whole_cents(key: str) -> None:
    order = _order(key)

    def cents(amount: Decimal) -> Decimal:
        return amount.quantize(Decimal("0.01"), ROUND_HALF_UP)

    parts = Decimal(0)
    for line in order.lines:
        # A line is rounded once, at its end: from the price of one, or of the packs.
        exact = (
            Decimal(str(line.price))
            if "pack" in line.note
            else (Decimal(str(line.each)) * Decimal(str(line.quantity)))
        )
        assert Decimal(str(line.charged)) == cents(exact * Decimal("1.18")), line.label
        parts += Decimal(str(line.charged))
    minutes = sum((Decimal(str(t.minutes)) for t in order.tasks), Decimal(0))
    days = next(t.quantity for t in order.tasks if t.task == "clean")
    net = parts + cents(minutes / 60 * 58) + 45 * int(days)
    total = order.sum
    assert (Decimal(str(total.parts)), total.days) == (parts, days)
    assert Decimal(str(total.minutes)) == minutes
    assert Decimal(str(total.net)) == net
    assert Decimal(str(total.tax)) == cents(net * Decimal("0.2"))
    assert Decimal(str(total.total)) == net + cents(net * Decimal("0.2"))


# -- prices, figures, what is kept -----------------------------------------------------------------


def test_the_firm_s_price_counts_and_its_age_is_told() -> None:
    base = _order("mill")
    firm = {"ravelmoor-c2": FirmPrice(278.0, date(2024, 1, 2)), "jack": FirmPrice(1.0, TODAY)}
    own = _order("mill", firm)
    line = {k.item: k for k in own.lines}
    before = {k.item: k for k in base.lines}
    # Twice the price for one is twice the price of a pack.
    assert line["ravelmoor-c2"].price == 2 * before["ravelmoor-c2"].price
    assert line["jack"].price == line["jack"].quantity and line["jack"].whose == "firm"
    assert any("older than 365 days: Ravelmoor C2" in t for t in own.told)
    assert not any("older" in t for t in base.told)
    assert f"{len(base.lines) - 2} of {len(base.lines)} prices" in own.told[0]


def test_figures_of_the_project_count_and_are_named(catalogue: Catalogue) -> None:
    design, _ = _site("mill")
    own = OwnFigure(id="own-9", figure="order.rate_per_hour", value=100.0)
    changed = apply(design, [put(own)])
    order = order_of(Plan(changed, catalogue, on=TODAY))
    assert order.sum.labour == pytest.approx(order.sum.minutes / 60 * 100, abs=0.02)
    used = {u.figure: u for u in order.sum.used}
    assert used["order.rate_per_hour"].whose == "project"


def test_kept_gear_and_cable_cost_nothing_and_are_named(catalogue: Catalogue) -> None:
    design = design_of(*shell(), rack(1, 1), access_point(5, 5))
    order = order_of(Plan(design, catalogue, on=TODAY))
    kept = apply(design, [put(access_point(5, 5).model_copy(update={"state": "keep"}))])
    after = order_of(Plan(kept, catalogue, on=TODAY))
    assert [w.name for w in after.kept] == ["AP-1"] and not order.kept
    assert "ravelmoor-c2" in {k.item for k in order.lines}
    assert "ravelmoor-c2" not in {k.item for k in after.lines}


def test_what_comes_later_is_ordered_as_spare_cable(catalogue: Catalogue) -> None:
    """Three cables of 20 m each; nothing of them is terminated."""
    square = ((10.0, 1.0), (12.0, 1.0), (12.0, 3.0), (10.0, 3.0))
    zone = Zone(id="z", floor="f", kind="later", name="Wing", outline=square, outlets=3)
    bare = design_of(*shell(), rack(1, 2))
    design = apply(bare, [put(zone)])
    order = order_of(Plan(design, catalogue, on=TODAY))
    lines = {k.item: k for k in order.lines}
    assert set(lines) == {"cable-6", "coil-plate"}
    assert lines["coil-plate"].quantity == 3
    pull = next(t for t in order.tasks if t.task == "pull")
    each = 10 * 1.4 + 6.0
    assert pull.quantity == pytest.approx(3 * each)
    # A second person is at the ladder: the ceiling is over 2.2 m.
    assert pull.minutes == pytest.approx(2 * each * 0.5 * 1.5, abs=0.2)
    assert not [t for t in order.tasks if t.task in ("end", "test", "dress")]


def test_one_more_is_what_it_really_costs() -> None:
    line = next(k for k in _order("practice").lines if k.item == "ravelmoor-c2")
    assert line.quantity == 3 and line.one_more == 139  # a fourth begins no pack
    two = next(k for k in _order("mill").lines if k.item == "ravelmoor-c2")
    assert two.quantity == 5 and two.one_more == pytest.approx(2 * 369 - 628)


def test_every_item_has_one_name_and_a_price() -> None:
    items = priced_items(load_catalogue())
    assert all(key == row.id and row.price > 0 for key, row in items.items())
    labels = defaultdict(list)
    for row in items.values():
        labels[row.label].append(row.id)
    assert not [k for k, v in labels.items() if len(v) > 1]
