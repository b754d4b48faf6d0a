"""The firm's own gear: what cannot be says so; what can is planned with, ordered, and goes along in a file."""

from __future__ import annotations

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import OwnGear, load_catalogue, read_gear, with_gear
from heathrise.core.context.plan import Plan
from heathrise.core.design import DesignError, FarPoint, Switch
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.far_ways import far_ways
from heathrise.formats.gear_table import (
    fields_of,
    flat_of,
    gear_from,
    named,
    read_gear_table,
    write_gear_table,
)
from heathrise.formats.project_file import load_project, write

from .plans import access_point, design_of, rack, shell

CATALOGUE = load_catalogue()
SWITCH = {
    "label": "Brindle 12 switch",
    "price": "310,50",
    "groups": "10 x 2500 class 6, 2 x 10000 cage",
    "budget_w": "240",
    "units": "1",
    "deep_mm": "260",
    "kg": "3.1",
    "own_w": "22",
}
POINT = {
    "label": "Brindle ceiling point",
    "price": "175",
    "speed_mbps": "2500",
    "power.poe_class": "4",
    "power.rated_w": "18.5",
    "power.typical_w": "11",
    "mounts": "ceiling, wall",
    "air.generation": "6",
    "air.pattern": "dome",
    "air.radios": "2.4: 6 to 21 dBm, 3.5 dBi; 5: 6 to 24 dBm, 5 dBi",
}


RADIO = {
    "label": "Sallowfen L5 radio",
    "price": "20",
    "band": "5",
    "power_dbm": "22",
    "gain_dbi": "25",
    "beam_deg": "8",
    "poe_class": "3",
    "own_w": "6",
    "rates": "-92: 40, -84: 160, -70: 500",
}


def _plan() -> Plan:
    gear = [gear_from(CATALOGUE, "switches", SWITCH), gear_from(CATALOGUE, "access_points", POINT)]
    design = design_of(
        *shell(),
        rack(2, 2),
        Switch(id="sw", equipment_room="rack", name="SW-1", model="own-brindle-12-switch"),
        access_point(10, 10, model="own-brindle-ceiling-point"),
    )
    return Plan(design, with_gear(CATALOGUE, gear))


def test_a_sheet_typed_in_is_planned_with_and_ordered() -> None:
    plan = _plan()
    found = evaluate(plan)
    (budget,) = found.power.switches
    assert (budget.budget_w, budget.ports, budget.powered_ports) == (240, 10, 10)
    device = found.power.devices[0]
    assert device.rated_w == 18.5 and device.source.startswith("SW-1")
    thing = next(t for t in found.racks.things if t.element == "sw")
    assert (thing.units, thing.kg, thing.deep_mm) == (1, 3.1, 260)
    radios = {r.band: r for r in found.signal.radios if r.device == "ap-1"}
    assert set(radios) == {"2.4", "5"}
    lines = {k.item: k for k in order_of(plan).lines}
    assert lines["own-brindle-12-switch"].price == 310.5 and lines["own-brindle-ceiling-point"].price == 175
    # Withdrawn, it stays in the plan that has it, is offered no more, and says so in the order.
    gone = [
        gear_from(CATALOGUE, shelf, row).model_copy(update={"withdrawn": True})
        for shelf, row in (("switches", SWITCH), ("access_points", POINT))
    ]
    later = with_gear(CATALOGUE, gone)
    assert not evaluate(Plan(plan.drawn, later)).power.left
    assert "own-brindle-12-switch" not in {m.id for m in later.sold_switches}
    assert "own-brindle-ceiling-point" not in {m.id for m in later.sold("access_point")}


@pytest.mark.parametrize(
    ("shelf", "change", "where", "said"),
    [
        ("switches", {"groups": ""}, "groups", "a switch has ports"),
        ("switches", {"groups": "8 x gigabit"}, "groups", "write 8 x 1000 class 4"),
        ("switches", {"budget_w": "0"}, "budget_w", "nothing is behind them"),
        ("switches", {"budget_w": "10000"}, "budget_w", "are no budget of a switch"),
        ("switches", {"price": ""}, "price", "is needed"),
        ("switches", {"price": "cheap"}, "price", "is no number"),
        ("switches", {"label": ""}, "label", "is needed"),
        ("access_points", {"power.rated_w": "26"}, "power.rated_w", "class 4 has 25.5 W"),
        ("access_points", {"power.typical_w": "20"}, "power.typical_w", "no more than at most"),
        ("access_points", {"air.radios": "5: 24 to 6 dBm, 5 dBi"}, "air.radios.5", "from least to most"),
        ("access_points", {"air.radios": "5 GHz loud"}, "air.radios", "write 5: 6 to 23 dBm"),
        ("access_points", {"mounts": "roof"}, "mounts", "is none of ceiling, wall"),
        ("cupboards", {}, "shelf", "there is no shelf"),
        ("bridges", {"rates": "fast"}, "rates", "write -80: 90"),
        ("bridges", {"rates": "-70: 90, -80: 40"}, "rates", "the slowest first"),
        ("bridges", {"band": "24"}, "band", "is none of 5, 60"),
    ],
)
def test_what_cannot_be_says_where_and_what_to_do(
    shelf: str, change: dict[str, str], where: str, said: str
) -> None:
    rows = {"access_points": POINT, "bridges": RADIO}
    row = {**rows.get(shelf, SWITCH), **change}
    with pytest.raises(DesignError) as refused:
        gear_from(CATALOGUE, shelf, row)
    problem = refused.value.problems[0]
    assert problem.where == where and said in problem.what


def test_every_shipped_thing_is_said_by_its_fields_alone() -> None:
    """Whatever is shipped could have been typed: written as fields and read again it is the same."""
    shelves = {role.shelf: CATALOGUE.devices[role.kind] for role in CATALOGUE.roles.values()}
    shelves |= {
        s: getattr(CATALOGUE, s)
        for s in (
            "switches",
            "injectors",
            "extenders",
            "splitters",
            "frames",
            "batteries",
            "bridges",
            "remotes",
            "suns",
        )
    }
    for shelf, models in shelves.items():
        for model in models.values():
            if getattr(model, "old", None) is not None or getattr(model, "passive_v", None) is not None:
                continue
            flat = flat_of(CATALOGUE, shelf, model.model_dump(mode="json"))
            again = read_gear(CATALOGUE, gear_from(CATALOGUE, shelf, flat, "own-x"))
            mine = model.model_copy(
                update={"id": "own-x", **({"reduced": None} if hasattr(model, "reduced") else {})}
            )
            assert again == mine, model.id


def test_a_table_goes_out_and_comes_back_the_same() -> None:
    gear = [gear_from(CATALOGUE, "switches", SWITCH), gear_from(CATALOGUE, "access_points", POINT)]
    own = with_gear(CATALOGUE, gear)
    read = read_gear_table(write_gear_table(own, gear).encode(), own)
    assert not read.faults
    assert [read_gear(own, g) for g in read.gear] == [read_gear(own, g) for g in gear]
    text = (
        "shelf;name;groups;budget_w;price\nswitches;Kestle 5;4 x 1000 class 4;60;90\nswitches;Kestle 0;;;1\n"
    )
    read = read_gear_table(text.encode(), CATALOGUE)
    assert [g.id for g in read.gear] == ["own-kestle-5"]
    assert len(read.faults) == 1 and read.faults[0].line == 3 and "a switch has ports" in read.faults[0].what
    taken = read_gear_table(b"shelf,id,label\nswitches,dunthrip-s8,Mine\n", CATALOGUE)
    assert not taken.gear


@given(st.text(max_size=30), st.text(max_size=30))
def test_any_text_in_a_field_is_read_or_refused(label: str, groups: str) -> None:
    try:
        gear = gear_from(CATALOGUE, "switches", {**SWITCH, "label": label, "groups": groups})
    except DesignError as error:
        assert all(p.what for p in error.problems)
    else:
        assert named(str(gear.entry["label"])) == gear.id and len(gear.id) <= 60


def test_a_plan_takes_its_gear_along_in_its_file() -> None:
    plan = _plan()
    text = write("Hut", plan)
    there = load_project(text, CATALOGUE)
    assert {g.id for g in there.gear} == {"own-brindle-12-switch", "own-brindle-ceiling-point"}
    assert there.design.tables == plan.drawn.tables
    moved = Plan(there.design, with_gear(CATALOGUE, there.gear))
    assert evaluate(moved).totals == evaluate(plan).totals
    # Where the firm has it already nothing comes along, whatever it costs by now.
    dearer = [g.model_copy(update={"entry": {**g.entry, "price": 999.0}}) for g in there.gear]
    assert load_project(text, with_gear(CATALOGUE, dearer)).gear == ()
    # What is called the same and is another thing keeps its own name there.
    other = gear_from(CATALOGUE, "switches", {**SWITCH, "budget_w": "100"})
    opened = load_project(text, with_gear(CATALOGUE, [other]))
    model = opened.design.of(Switch)["sw"].model
    assert model.startswith("own-brindle-12-switch-") and model in {g.id for g in opened.gear}
    both = with_gear(with_gear(CATALOGUE, [other]), opened.gear)
    assert both.switches[model].budget_w == 240
    # Opened again it is known by then.
    assert load_project(text, both).gear == ()
    assert load_project(text, both).design.of(Switch)["sw"].model == model


def test_gear_of_a_file_that_cannot_be_is_refused_with_its_place() -> None:
    document = json.loads(write("Hut", _plan()))
    document["gear"]["switches"][0]["groups"] = []
    with pytest.raises(DesignError, match=r"gear.switches\[0\].groups: a switch has ports"):
        load_project(json.dumps(document), CATALOGUE)
    document["gear"] = {"shoes": [{"id": "x", "label": "X"}]}
    with pytest.raises(DesignError, match="there is no shelf"):
        load_project(json.dumps(document), CATALOGUE)


def test_an_id_of_what_is_shipped_is_refused() -> None:
    gear = OwnGear(shelf="switches", entry={**gear_from(CATALOGUE, "switches", SWITCH).entry, "id": "jack"})
    with pytest.raises(DesignError, match="is taken"):
        with_gear(CATALOGUE, [gear])
    assert with_gear(CATALOGUE, []) is CATALOGUE
    assert {f.name for f in fields_of(CATALOGUE, "frames")} >= {"holes_mm", "bears_kg", "wall"}


def test_a_firms_own_radio_carries_a_line_and_is_ordered_at_its_price() -> None:
    """It is the cheapest that is fast enough, so the way over 5 GHz takes it; withdrawn, it does not."""
    gear = gear_from(CATALOGUE, "bridges", RADIO)
    far = FarPoint(id="far", name="Gate", at=(2.0, 300.0), cameras=1, way="radio_5-solar")
    design = design_of(*shell(), rack(2, 2), access_point(10, 10), far)
    plan = Plan(design, with_gear(CATALOGUE, [gear]))
    way = next(w for w in far_ways(plan, "far").ways if w.id == "radio_5-solar")
    radio = next(p for p in way.parts if p.item == gear.id)
    assert (radio.quantity, radio.price) == (2, 20)
    assert [(r.from_dbm, r.mbps) for r in way.rates] == [(-77, 40), (-69, 160), (-55, 500)]
    line = next(row for row in order_of(plan).lines if row.item == gear.id)
    assert line.quantity == 2
    gone = Plan(design, with_gear(CATALOGUE, [gear.model_copy(update={"withdrawn": True})]))
    other = next(w for w in far_ways(gone, "far").ways if w.id == "radio_5-solar")
    assert gear.id not in {p.item for p in other.parts}
